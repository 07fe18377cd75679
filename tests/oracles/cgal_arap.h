// The reference for as-rigid-as-possible maps: CGAL's Surface_mesh_parameterization, on the very same
// triangles.
#pragma once

#include <CGAL/Polygon_mesh_processing/measure.h>
#include <CGAL/Simple_cartesian.h>
#include <CGAL/Surface_mesh.h>
#include <CGAL/Surface_mesh_parameterization/ARAP_parameterizer_3.h>
#include <CGAL/Surface_mesh_parameterization/Error_code.h>
#include <CGAL/Surface_mesh_parameterization/parameterize.h>

#include <optional>

#include "geom/flatten.h"

namespace nine::test {

/// CGAL's ARAP map of the mesh (chord lengths), or nothing if it fails.
inline std::optional<FlatMap> cgalArap(const SheetMesh& mesh) {
    using Kernel = CGAL::Simple_cartesian<double>;
    using Mesh = CGAL::Surface_mesh<Kernel::Point_3>;
    namespace smp = CGAL::Surface_mesh_parameterization;
    Mesh surface;
    std::vector<Mesh::Vertex_index> vertices;
    for (const SurfacePoint& p : mesh.vertices) {
        vertices.push_back(surface.add_vertex({p.position.x(), p.position.y(), p.position.z()}));
    }
    for (const Triangle& t : mesh.triangles) {
        surface.add_face(vertices[static_cast<std::size_t>(t[0])], vertices[static_cast<std::size_t>(t[1])],
                         vertices[static_cast<std::size_t>(t[2])]);
    }
    auto uv = surface.add_property_map<Mesh::Vertex_index, Kernel::Point_2>("v:uv").first;
    const auto border = CGAL::Polygon_mesh_processing::longest_border(surface).first;
    if (smp::parameterize(surface, smp::ARAP_parameterizer_3<Mesh>(), border, uv) != smp::OK)
        return std::nullopt;
    FlatMap map;
    for (const auto v : vertices) map.emplace_back(uv[v].x(), uv[v].y());
    return map;
}

}  // namespace nine::test
