// Where a rectangle can stand without touching anything: a raster of the free places and their sums.
#pragma once

#include <optional>

#include "geom/polygon_set.h"

namespace nine {

class FreeSpace {
  public:
    /// Free is what lies inside `allowed`; even-odd, so holes may be given among it.
    explicit FreeSpace(const PolygonSet& allowed);

    /// Lower left corner of the free rectangle of this size nearest to `wish` (centre to centre).
    std::optional<Vec2> place(const Vec2& size, const Vec2& wish) const;

  private:
    static constexpr double kCell_mm = 0.2;
    int freeCells(int column, int row, int width, int height) const;

    Box2 box_;
    int columns_ = 0, rows_ = 0;
    std::vector<int> sums_;  ///< free cells below and left of each corner
};

}  // namespace nine
