// Which triangle of a flat mesh a place lies in. Triangles may be in any order but must not overlap.
//
// Cost: linear in the triangles to make, about 0.5 us to ask.
#pragma once

#include <optional>
#include <vector>

#include "geom/sheet_mesh.h"

namespace nine {

class TriangleFinder {
  public:
    /// At least one triangle; each counter-clockwise.
    TriangleFinder(std::vector<Vec2> places, std::vector<Triangle> triangles);

    struct Place {
        std::size_t triangle;
        Vec3 share;  ///< of its corners; sums to 1
    };
    /// Nothing outside all triangles, by more than `slack_mm` (at most 0.1) across an edge; on a common edge one of the
    /// two.
    std::optional<Place> find(const Vec2& p, double slack_mm = 1e-6) const;

    const std::vector<Triangle>& triangles() const { return triangles_; }
    const std::vector<Vec2>& places() const { return places_; }

  private:
    std::pair<int, int> cellOf(const Vec2& p) const;

    std::vector<Vec2> places_;
    std::vector<Triangle> triangles_;
    Vec2 low_ = Vec2::Zero();
    double cell_mm_ = 1;
    int columns_ = 1, rows_ = 1;
    std::vector<std::vector<int>> cells_;
};

/// The borders of a mesh, each a ring of vertices with the mesh on its left (counter-clockwise outside,
/// clockwise round holes), the one round the largest area of `places` first. The two lips of a slit are two
/// vertices, so a slit that reaches the border is walked along both lips.
std::vector<std::vector<int>> borderLoops(const std::vector<Triangle>& triangles,
                                          const std::vector<Vec2>& places);

}  // namespace nine
