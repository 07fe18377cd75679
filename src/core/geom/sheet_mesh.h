// A triangle mesh of a piece of surface, as the flattener wants it.
//
// Triangles are counter-clockwise in sheet coordinates. Rest lengths are along the surface (arcLength), so
// that flattening a cylinder or a cone is free of strain however coarse the mesh is.
#pragma once

#include <array>
#include <vector>

#include "base/units.h"
#include "geom/surface.h"

namespace nine {

using Triangle = std::array<int, 3>;

struct SheetMesh {
    std::vector<SurfacePoint> vertices;
    std::vector<Triangle> triangles;
    std::vector<Ratio> stiffness = {};  ///< of each triangle against the plain sheet's; empty: all are 1
};

/// Joins two rows of vertices (indices into `mesh.vertices`, in the same direction) by a strip of triangles,
/// always taking the shorter diagonal. `upper` lies to the left of `lower`. If `closed`, both rows are rings.
void zipRows(SheetMesh& mesh, const std::vector<int>& lower, const std::vector<int>& upper, bool closed);

/// A triangle at rest, laid in its own plane.
struct RestTriangle {
    double area_mm2;
    std::array<Vec2, 3> shapeGradient;  ///< gradients of the three linear shape functions, 1/mm
    std::array<double, 3> cotangent;    ///< of the angle at each corner
};

/// The mesh without its place in space: all that flattening reads.
struct RestMesh {
    int vertexCount = 0;
    std::vector<Triangle> triangles;
    std::vector<RestTriangle> shapes;
    double area_mm2 = 0;
};

RestMesh restMesh(const SheetMesh& mesh);

}  // namespace nine
