// A smooth map known at scattered points of the plane: local quadratic least squares through the nearest
// points (moving least squares; Lancaster and Salkauskas 1981). Needs no triangles, so it reads maps of any
// origin. The error is of third order in the spacing. Where the plane is slit, its borders must be given, or
// points of the other lip are blended in.
#pragma once

#include <memory>
#include <vector>

#include "geom/borders.h"

namespace nine {

/// The value at 0,0 of the quadratic fitted to `values` at `places` with weights falling to 0 at the farthest
/// place. At least one place; with fewer than 10 the fit is linear, with fewer than 4 the nearest value.
Vec3 fittedAtOrigin(const std::vector<Vec2>& places, const std::vector<Vec3>& values);

constexpr double kOnBorder_mm = 0.05;

class ScatteredMap {
  public:
    /// Points of the plane (mm) and the value each is mapped to.
    /// With borders, a point straight across one is no neighbour, and nothing outside them is covered.
    ScatteredMap(std::vector<Vec2> places, std::vector<Vec3> values,
                 std::shared_ptr<const Borders> borders = {});

    /// A place on a border, or beyond one by less than kOnBorder_mm, is looked at from the nearest place
    /// inside.
    Vec3 at(const Vec2& p) const { return at(p, eyeOf(p)); }
    /// What the map round `eye` would be at `p`, which may lie across a border from there.
    Vec3 at(const Vec2& p, const Vec2& eye) const;

    /// Whether the points surround `p`: no gap of 175 degrees or more between the directions to the nearest.
    bool covers(const Vec2& p) const;

    /// Mean distance of a point to its neighbours, from the area the points take up.
    double spacing_mm() const { return spacing_mm_; }
    Vec2 low() const { return low_; }
    Vec2 high() const { return high_; }

  private:
    Vec2 eyeOf(const Vec2& p) const;
    std::vector<int> nearest(const Vec2& p, std::size_t count) const;
    std::vector<int> neighbours(const Vec2& p, const Vec2& eye, std::size_t count) const;

    std::vector<Vec2> places_;
    std::vector<Vec3> values_;
    std::shared_ptr<const Borders> borders_;
    Vec2 low_, high_;
    double spacing_mm_ = 1, cell_mm_ = 1;
    int columns_ = 1, rows_ = 1;
    std::vector<std::vector<int>> cells_;
};

}  // namespace nine
