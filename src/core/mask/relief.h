// Relief cuts: the fewest slits that let a sheet lie flat which cannot lie in one piece.
//
// A slit is a cut with no width from an edge of the sheet; laid flat it opens into a wedge. Three families
// are tried: across from both edges, across from one edge, and lengthwise from one end. Slits are spread by
// the curvature they take up (equal integrals of the root of the Gaussian curvature), moved until the panels
// between them are strained alike, and shortened as far as the material lets. Strain is that of the
// least-strain map, a mean within 1 mm, since tips are singular. Planned on a mesh of 1.5 mm, proved on one
// of 1 mm.
//
//     Result<ReliefPlan> plan = planRelief(skin, sideStrip(skin), tape.strainLimit, {});
//     Region cut = withSlits(regionOf(skin, sideStrip(skin)), plan->slits);
//
// Cost: 0.05 s where nothing has to be cut, 0.5 to 2 s else. Errors: cancelled; those of flattening.
#pragma once

#include "base/task.h"
#include "mask/strip.h"

namespace nine {

enum class ReliefFamily { None, BothEdges, OneEdge, Lengthwise, Single };

struct ReliefPlan {
    std::vector<Slit> slits;  ///< mouth first
    ReliefFamily family = ReliefFamily::None;
    Fraction before = 0;   ///< least reachable strain without a slit
    Fraction reached = 0;  ///< with them
    double widestMouth_mm = 0;
    bool lies = false;  ///< reached <= the limit; else the slits are the best that was found
};

struct ReliefWish {
    PolygonSet keepOff;           ///< x, g: windows, eyes, hook eyes; slits stay kKeptOff_mm away
    std::vector<Slit> kept = {};  ///< across; they stay, and count
    int most = 10;                ///< slits
    bool mirrored = false;  ///< only slits from both edges alike, for a strip that is its own mirror image
    int exactly = 0;        ///< that many, across, placed as well as they can be; 0: as few as will do
};

constexpr double kKeptOff_mm = 1.5;     ///< from windows: less tears (common practice, no published source)
constexpr double kSlitsApart_mm = 6;    ///< a narrower panel cannot be handled (the same)
constexpr double kWidestMouth_mm = 10;  ///< wider ones are hard to lay edge to edge (a judgement)
constexpr double kSlitCore_mm = 3;      ///< left uncut at the core or at the far edge

Result<ReliefPlan> planRelief(const Skin& skin, const Strip& strip, Fraction limit, const ReliefWish& wish,
                              const Task& task = {});

}  // namespace nine
