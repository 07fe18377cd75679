#include "geom/triangulate.h"

#include <CGAL/Constrained_Delaunay_triangulation_2.h>
#include <CGAL/Delaunay_mesh_face_base_2.h>
#include <CGAL/Delaunay_mesh_size_criteria_2.h>
#include <CGAL/Delaunay_mesher_2.h>
#include <CGAL/Exact_predicates_inexact_constructions_kernel.h>
#include <CGAL/Triangulation_vertex_base_with_info_2.h>

#include <algorithm>
#include <cmath>
#include <map>
#include <set>

namespace nine {
namespace {

using Kernel = CGAL::Exact_predicates_inexact_constructions_kernel;
using VertexBase = CGAL::Triangulation_vertex_base_with_info_2<int, Kernel>;
using FaceBase = CGAL::Delaunay_mesh_face_base_2<Kernel>;
using Structure = CGAL::Triangulation_data_structure_2<VertexBase, FaceBase>;
using Cdt = CGAL::Constrained_Delaunay_triangulation_2<Kernel, Structure>;
using Criteria = CGAL::Delaunay_mesh_size_criteria_2<Cdt>;
using Point = Kernel::Point_2;

/// Least sine squared of angles that the mesher promises (B of its documentation: 20.6 degrees).
constexpr double kShape = 0.125;
/// The mesher's edges are 0.6 to 1 of the size it is given; this makes them `edge_mm` in the mean.
constexpr double kSizeOverEdge = 1.45;

void constrain(Cdt& cdt, const Polyline2& line, bool closed) {
    for (std::size_t i = 0; i + 1 < line.size() + (closed ? 1 : 0); ++i) {
        const Vec2 &a = line[i], &b = line[(i + 1) % line.size()];
        if (a != b) cdt.insert_constraint(Point(a.x(), a.y()), Point(b.x(), b.y()));
    }
}

/// A point inside a polygon, for the mesher to know it by: of the ear of its first convex corner.
Vec2 pointIn(const Polygon2& ring) {
    Cdt cdt;
    constrain(cdt, ring, true);
    Vec2 best = ring.front();
    double largest = 0;
    for (auto f = cdt.finite_faces_begin(); f != cdt.finite_faces_end(); ++f) {
        Vec2 middle = Vec2::Zero();
        std::array<Vec2, 3> corner;
        for (int i = 0; i < 3; ++i) {
            corner[static_cast<std::size_t>(i)] = {f->vertex(i)->point().x(), f->vertex(i)->point().y()};
            middle += corner[static_cast<std::size_t>(i)] / 3;
        }
        const double area = polygonArea({corner[0], corner[1], corner[2]});
        if (area <= largest || !contains(ring, middle)) continue;
        largest = area;
        best = middle;
    }
    return best;
}

/// Parts the mesh along the edges of slits: a point there becomes one for each fan of triangles round it that
/// no slit divides.
void openSlits(PlaneMesh& mesh, const std::set<std::pair<int, int>>& slit) {
    std::map<int, std::vector<std::size_t>> fans;
    for (const auto& [a, b] : slit) fans[a], fans[b];
    for (std::size_t t = 0; t < mesh.triangles.size(); ++t)
        for (const int v : mesh.triangles[t])
            if (const auto at = fans.find(v); at != fans.end()) at->second.push_back(t);
    const auto open = [&](int a, int b) { return slit.count({std::min(a, b), std::max(a, b)}) > 0; };
    const std::vector<Triangle> before = mesh.triangles;
    for (auto& [v, around] : fans) {
        std::vector<std::size_t> left = around;
        bool first = true;
        while (!left.empty()) {
            std::vector<std::size_t> fan{left.back()};
            left.pop_back();
            for (std::size_t k = 0; k < fan.size(); ++k) {
                for (auto other = left.begin(); other != left.end();) {
                    // Two triangles of the fan share the edge from v to some point.
                    bool joined = false;
                    for (const int p : before[fan[k]])
                        for (const int q : before[*other])
                            joined = joined || (p == q && p != v && !open(v, p));
                    if (!joined) {
                        ++other;
                        continue;
                    }
                    fan.push_back(*other);
                    other = left.erase(other);
                }
            }
            if (!std::exchange(first, false)) {
                const auto lip = static_cast<int>(mesh.points.size());
                mesh.points.push_back(mesh.points[static_cast<std::size_t>(v)]);
                for (const std::size_t t : fan)
                    std::replace(mesh.triangles[t].begin(), mesh.triangles[t].end(), v, lip);
            }
        }
    }
}

}  // namespace

namespace {

/// Errors: cannot_mesh, when lines of the piece cross.
Result<Cdt> refined(const PlanePiece& piece, double edge_mm) try {
    Cdt cdt;
    constrain(cdt, piece.outer, true);
    std::list<Point> notMeshed;
    for (const Polygon2& hole : piece.holes) {
        constrain(cdt, hole, true);
        const Vec2 inside = pointIn(hole);
        notMeshed.emplace_back(inside.x(), inside.y());
    }
    for (const Polyline2& slit : piece.slits) constrain(cdt, slit, false);
    for (const Vec2& p : piece.points) cdt.insert(Point(p.x(), p.y()));
    CGAL::refine_Delaunay_mesh_2(cdt, notMeshed.begin(), notMeshed.end(),
                                 Criteria(kShape, kSizeOverEdge * edge_mm));
    return cdt;
} catch (const Cdt::Intersection_of_constraints_exception&) {
    return Error{"cannot_mesh",
                 NINE_WORDS("core", "The sheet crosses itself; move what makes it that narrow."), ""};
}

}  // namespace

Result<PlaneMesh> triangulate(const PlanePiece& piece, double edge_mm) {
    Result<Cdt> made = refined(piece, edge_mm);
    if (!made) return made.error();
    Cdt& cdt = *made;
    PlaneMesh mesh;
    for (auto v = cdt.finite_vertices_begin(); v != cdt.finite_vertices_end(); ++v) v->info() = -1;
    const auto numbered = [&](const Cdt::Vertex_handle& v) {
        if (v->info() < 0) {
            v->info() = static_cast<int>(mesh.points.size());
            mesh.points.emplace_back(v->point().x(), v->point().y());
        }
        return v->info();
    };
    std::set<std::pair<int, int>> slitEdges;
    for (auto f = cdt.finite_faces_begin(); f != cdt.finite_faces_end(); ++f) {
        if (!f->is_in_domain()) continue;
        Triangle t;
        for (int i = 0; i < 3; ++i) t[static_cast<std::size_t>(i)] = numbered(f->vertex(i));
        mesh.triangles.push_back(t);
        for (int i = 0; i < 3; ++i) {
            if (!f->is_constrained(i) || !f->neighbor(i)->is_in_domain()) continue;
            const int a = t[static_cast<std::size_t>((i + 1) % 3)],
                      b = t[static_cast<std::size_t>((i + 2) % 3)];
            slitEdges.emplace(std::min(a, b), std::max(a, b));
        }
    }
    if (mesh.triangles.empty())
        return Error{"cannot_mesh",
                     NINE_WORDS("core",
                                "No triangles fit into this piece of sheet; its outline is not a closed "
                                "line round an area."),
                     ""};
    openSlits(mesh, slitEdges);
    return mesh;
}

}  // namespace nine
