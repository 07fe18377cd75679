// How much of a sheet is left round a place where it is cut into a lattice of many openings.
//
// A sheet with hundreds of openings behaves, over a few of them, as a plain one that is softer: of two such
// sheets only how much softer one place is than another decides where they come to rest. Averaged over a
// square two openings wide, in pixels of a twelfth of that, so to about a hundredth.
// Cost: 10 ms for 1500 openings; nothing to ask.
#pragma once

#include "geom/polygon_set.h"

namespace nine {

class SolidShare {
  public:
    /// The sheet's outline and its openings, which do not overlap. In any plane.
    SolidShare(const Polygon2& outer, const PolygonSet& openings);

    /// Of the sheet within that square: 1 where nothing is open, 1 too where no sheet is.
    Fraction at(const Vec2& place) const;
    /// Its stiffness in its own plane against the plain sheet's. The exponent is fitted to lattices whose
    /// every web was meshed (docs/MODEL.md); for webs that bend it would be 3, for webs that stretch 1
    /// (Gibson, Ashby 1997, Cellular Solids, of honeycombs).
    Ratio stiffnessAt(const Vec2& place) const;

  private:
    Vec2 low_;
    double pixel_mm_ = 1, half_mm_ = 1;
    std::size_t columns_ = 0, rows_ = 0;
    std::vector<int> sheet_, open_;  ///< pixels below and left of each corner
};

}  // namespace nine
