// Triangles for any piece of the plane: an outline with holes, cut by slits. The one file that wraps CGAL's
// mesh generator (Delaunay refinement: Ruppert 1995, Shewchuk 2002; angles of 20 degrees or more but where
// the given lines meet at less).
#pragma once

#include "base/result.h"
#include "geom/polygon_set.h"
#include "geom/sheet_mesh.h"

namespace nine {

struct PlanePiece {
    Polygon2 outer;
    PolygonSet holes;
    std::vector<Polyline2> slits;   ///< inside; a slit's first point may lie on a border
    std::vector<Vec2> points = {};  ///< inside; they are points of the mesh
};

struct PlaneMesh {
    std::vector<Vec2> points;         ///< the two lips of a slit are two points at one place
    std::vector<Triangle> triangles;  ///< counter-clockwise
};

/// Triangles with edges of about `edge_mm`; lines of the piece are edges of the mesh. The piece must not
/// cross itself. Errors: cannot_mesh. Cost: 10 us a point.
Result<PlaneMesh> triangulate(const PlanePiece& piece, double edge_mm);

}  // namespace nine
