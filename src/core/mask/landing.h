// Where drawn art lands when a flat sheet is laid back on the body: the independent check of every mask.
// See geom/rewrap.h for how the sheet is laid. Lengths in mm.
#pragma once

#include "blank/skin.h"
#include "geom/carry.h"
#include "geom/rewrap.h"

namespace nine {

struct Landing {
    double rms_mm = 0, max_mm = 0;
};

/// A place whose landing is asked for.
struct Probe {
    SurfacePoint wanted;
    SkinPlace skin;  ///< the same in x, g
};

/// Where one probe was wanted and where it came to lie.
struct LandedProbe {
    SurfacePoint wanted;
    Vec3 landed;
    double miss_mm() const { return (landed - wanted.position).norm(); }
};

/// Lays the sheet of `pairs`, held at `marks` (points of the skin), and asks where each probe comes to lie.
/// Errors: those of LaidSheet::lay. Cost: 0.1-0.3 s.
Result<std::vector<LandedProbe>> landProbes(const Skin& skin, const SheetCarrier& sheet,
                                            const std::vector<SurfacePoint>& marks,
                                            const std::vector<Probe>& probes, Laying laying,
                                            const Task& task = {});

/// The same with each wanted place's `drawn` place on the sheet and the marks' given, where the nearest pairs
/// may lie across a slit.
Result<std::vector<LandedProbe>> landProbes(const Skin& skin, const FlatPairs& pairs,
                                            const std::vector<HeldMark>& held,
                                            const std::vector<Probe>& probes,
                                            const std::vector<SheetPlace>& drawn, Laying laying,
                                            const Task& task = {},
                                            std::shared_ptr<const Borders> borders = {},
                                            LaidSheet::LaidAs how = LaidSheet::LaidAs::Best);

Landing landingOf(const std::vector<LandedProbe>& probes);

/// Fifteen dots of 3 mm, 5 x 3 at 10-90 % of the box of the given x, g points: the centre of each and eight
/// points of its rim, left out where the points do not surround them.
std::vector<Probe> probeDots(const Skin& skin, const std::vector<Vec2>& skinPoints);

/// The same patch as a painter traces it: every point of the skin straight onto the paper from the side.
FlatPairs sideView(const std::vector<SurfacePoint>& points);

}  // namespace nine
