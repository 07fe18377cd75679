// A flat map by its triangles: where places of the skin lie on the sheet that was cut from it.
//
// Guarantees: a place is carried by the triangle it lies in and by vertices joined to its corners by edges,
// so nothing is blended across a border, a hole or a slit. Exact at vertices, of third order in their spacing
// between them: each corner carries a quadratic fitted to the vertices round it (weighted least squares in
// its tangent plane), and the three are blended by barycentric shares. No place outside the mesh is made up.
// Cost: 2.3 us a vertex once, 0.1 us a place.
//
//     const SheetMap sheet(mesh, skin, map);            // skin: x, g of each vertex
//     std::optional<SheetPlace> flat = sheet.at({x, g}, skin.at({Side::Left, x, g}));
//
// Accuracy, the map of a sphere of 20 mm that keeps distances from its middle, up to 8 mm from it
// (bench/accuracy.cpp):
//     edges, mm    0.35     0.7      1.0      1.4      2.0
//     error, mm    6.4e-6   4.8e-5   1.7e-4   3.4e-4   1.1e-3
#pragma once

#include <memory>

#include "geom/flatten.h"
#include "geom/places.h"
#include "geom/triangle_finder.h"

namespace nine {

class SheetMap {
  public:
    /// `skin` are x, g of the vertices; triangles are counter-clockwise in them.
    SheetMap(const SheetMesh& mesh, std::vector<Vec2> skin, const FlatMap& map);

    /// `place` is that of `where` on the surface. Nothing outside the sheet by more than the slack (at most
    /// 0.1 mm), which is for rounding, and for rims whose arcs are chords in the mesh.
    std::optional<SheetPlace> at(const SkinPlace& where, const SurfacePoint& place,
                                 double slack_mm = 1e-3) const;

  private:
    struct Corner {
        SurfacePoint place;
        Eigen::Matrix<double, 3, 2> basis;
        Vec2 flat;
        Eigen::Matrix<double, 5, 2> shape;  ///< of s, t, s^2, s t, t^2
    };
    TriangleFinder finder_;
    std::vector<Corner> corners_;
};

}  // namespace nine
