// A sheet that runs along the body between two edges: a whole side, a whole body, or a plain box of skin.
//
// Each section crosses it once, from its low edge (smaller g) to its high one; the core is the line in it
// that cuts from the edges never reach. Lengths in mm.
#pragma once

#include <array>
#include <functional>

#include "geom/places.h"
#include "mask/region.h"

namespace nine {

/// g at one section; low < core < high.
struct Crossing {
    double low_mm, core_mm, high_mm;
};

struct Strip {
    double x0_mm, x1_mm;
    std::function<Crossing(const SectionArc&)> at;
};

/// The tips of the body are singular for any sheet: what is left out at each end, as a share of its length.
constexpr Fraction kTipLeftOut = 0.05;

enum class Seam { Belly, Back };

/// One side, from the belly line to the back line; its core is the datum line.
Strip sideStrip(const Skin& skin, Fraction leftOut = kTipLeftOut);
/// The whole body in one piece, its edges meeting on the seam; its core is the line opposite. g counts from
/// the left side's datum line over the line opposite the seam to the right side.
Strip wrapStrip(const Skin& skin, Seam seam, Fraction leftOut = kTipLeftOut);
/// A box; its core runs along its middle.
Strip bandStrip(const BandPatch& band);

/// The strip as a region: edges as lines with a corner every `step_mm` along the axis.
Region regionOf(const Skin& skin, const Strip& strip, double step_mm = 1);

/// The region with these slits, each led on to the border by its first step or cut off there, with a corner
/// of the border at its mouth. Slits that do not come to the border at all stay as they are (checkRegion
/// says what is wrong with them).
Region withSlits(Region region, const std::vector<Slit>& slits);

/// A place for a mark near the free end of each panel that the region's slits part off, from nose to tail:
/// held at the core alone, panels swing (0.6 mm seen, 0.03 with a mark each).
std::vector<SkinPlace> panelMarks(const Region& region);

/// Of marks from the edge: room for a cross of 4 mm.
constexpr double kMarkInset_mm = 2.5;

/// Near both ends of its core.
std::array<SkinPlace, 2> endMarks(const Skin& skin, const Strip& strip);

}  // namespace nine
