// Carries points of the surface to the sheet by a flat map known at scattered points (usually the vertices of
// the mesh that was flattened): quadratic least squares in the tangent plane through the nearest of them.
// The error is of third order in their spacing: below 1e-3 mm at 0.7 mm on the demo's bodies.
//
//     const SheetCarrier sheet(patch.pairedWith(map));
//     SheetPlace flat = sheet.at(skin.at({Side::Left, x, g}));
//
// Accuracy, the map of a sphere of 20 mm that keeps distances from its middle, up to 8 mm from it
// (bench/accuracy.cpp); valid inside the pairs only, and with no slit between them:
//     spacing, mm   0.35     0.7      1.0      1.4      2.0
//     error, mm    3.3e-6   2.7e-5   7.8e-5   6.0e-4   2.9e-3
#pragma once

#include <unordered_map>

#include "geom/places.h"
#include "geom/scattered.h"
#include "geom/surface.h"

namespace nine {

/// Any map from a sheet to a surface, as pairs of points.
struct FlatPairs {
    std::vector<Vec2> flat;
    std::vector<SurfacePoint> skin;
};

class SheetCarrier {
  public:
    /// At least one pair. `pairs` is copied.
    explicit SheetCarrier(FlatPairs pairs);

    /// The place of the sheet that belongs to `target`; only pairs whose normals are within 78 degrees of the
    /// target's are used, so that the other side of a thin body is not mixed in. About 10 us.
    SheetPlace at(const SurfacePoint& target) const;

    const FlatPairs& pairs() const { return pairs_; }

  private:
    using CellKey = std::int64_t;
    CellKey keyOf(int x, int y, int z) const;
    Eigen::Vector3i cellOf(const Vec3& p) const;
    std::vector<std::pair<double, std::size_t>> nearest(const SurfacePoint& target) const;

    FlatPairs pairs_;
    double cell_mm_ = 1;
    std::unordered_map<CellKey, std::vector<std::size_t>> cells_;
};

}  // namespace nine
