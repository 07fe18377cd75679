#include "geom/sheet_map.h"

#include <Eigen/Dense>
#include <algorithm>

namespace nine {
namespace {

constexpr std::size_t kFewest = 9;  // neighbours for the five terms of a quadratic

using Terms = Eigen::Matrix<double, 5, 1>;
Terms termsOf(const Vec2& d) {
    return (Terms() << d.x(), d.y(), d.x() * d.x(), d.x() * d.y(), d.y() * d.y()).finished();
}

std::vector<std::vector<int>> neighboursOf(const SheetMesh& mesh) {
    std::vector<std::vector<int>> all(mesh.vertices.size());
    for (const Triangle& t : mesh.triangles)
        for (std::size_t i = 0; i < 3; ++i)
            for (const std::size_t k : {1u, 2u}) {
                auto& known = all[static_cast<std::size_t>(t[i])];
                const int other = t[(i + k) % 3];
                if (std::find(known.begin(), known.end(), other) == known.end()) known.push_back(other);
            }
    return all;
}

/// Rings of vertices round one, joined by edges, until there are enough; two rings at least, so that the
/// second differences of the map are seen on both sides.
void ringsRound(int vertex, const std::vector<std::vector<int>>& neighbours, std::vector<int>& found) {
    found.assign(1, vertex);
    std::size_t ring = 0;
    for (int rings = 0; (rings < 2 || found.size() <= kFewest) && ring < found.size(); ++rings) {
        const std::size_t end = found.size();
        for (; ring < end; ++ring)
            for (const int n : neighbours[static_cast<std::size_t>(found[ring])])
                if (std::find(found.begin(), found.end(), n) == found.end()) found.push_back(n);
    }
}

}  // namespace

SheetMap::SheetMap(const SheetMesh& mesh, std::vector<Vec2> skin, const FlatMap& map)
    : finder_(std::move(skin), mesh.triangles) {
    const std::vector<std::vector<int>> neighbours = neighboursOf(mesh);
    std::vector<int> round;
    corners_.reserve(mesh.vertices.size());
    for (std::size_t v = 0; v < mesh.vertices.size(); ++v) {
        Corner corner{mesh.vertices[v], tangentBasis(mesh.vertices[v].normal), map[v], {}};
        ringsRound(static_cast<int>(v), neighbours, round);
        Eigen::Matrix<double, 5, 5> normal = Eigen::Matrix<double, 5, 5>::Zero();
        Eigen::Matrix<double, 5, 2> wanted = Eigen::Matrix<double, 5, 2>::Zero();
        for (std::size_t k = 1; k < round.size(); ++k) {
            const auto n = static_cast<std::size_t>(round[k]);
            const Vec2 d = corner.basis.transpose() * (mesh.vertices[n].position - corner.place.position);
            const Terms terms = termsOf(d);
            const double weight = 1 / std::max(d.squaredNorm(), 1e-12);
            normal += weight * terms * terms.transpose();
            wanted += weight * terms * (map[n] - map[v]).transpose();
        }
        // A strip one triangle wide leaves curvatures open: a trace of damping sets them to none.
        normal.diagonal() += 1e-12 * normal.diagonal().cwiseMax(1e-12);
        corner.shape = normal.ldlt().solve(wanted);
        corners_.push_back(std::move(corner));
    }
}

std::optional<SheetPlace> SheetMap::at(const SkinPlace& where, const SurfacePoint& place,
                                       double slack_mm) const {
    const std::optional<TriangleFinder::Place> found = finder_.find(where, slack_mm);
    if (!found) return std::nullopt;
    Vec2 flat = Vec2::Zero();
    for (std::size_t k = 0; k < 3; ++k) {
        const Corner& c = corners_[static_cast<std::size_t>(finder_.triangles()[found->triangle][k])];
        const Vec2 d = c.basis.transpose() * (place.position - c.place.position);
        flat += found->share[static_cast<Eigen::Index>(k)] * (c.flat + c.shape.transpose() * termsOf(d));
    }
    return SheetPlace(flat);
}

}  // namespace nine
