#include "geom/balance.h"

#include <Eigen/SparseLU>
#include <algorithm>
#include <cmath>
#include <limits>
#include <optional>

#include "geom/laid_triangle.h"

namespace nine {
namespace {

using Vec6 = Eigen::Matrix<double, 6, 1>;
using Matrix = Eigen::SparseMatrix<double>;

constexpr int kMostSteps = 12;
constexpr double kAtRest_mm = 1e-5;  // largest move of the last step

std::vector<LaidTriangle> laidTriangles(const SheetMesh& mesh) {
    std::vector<LaidTriangle> all;
    all.reserve(mesh.triangles.size());
    for (const Triangle& t : mesh.triangles) {
        const auto corner = [&](std::size_t k) { return &mesh.vertices[static_cast<std::size_t>(t[k])]; };
        all.push_back(laidTriangle({corner(0), corner(1), corner(2)}));
    }
    return all;
}

/// Forces of one triangle on its corners along the skin, in their tangent bases. Nothing where it is turned
/// over.
std::optional<Vec6> forcesOf(const LaidTriangle& laid, Ratio stiffness, const Vec6& flat) {
    Mat2 edges;
    edges << flat.segment<2>(2) - flat.segment<2>(0), flat.segment<2>(4) - flat.segment<2>(0);
    const double doubled_mm2 = edges.determinant();
    if (!(doubled_mm2 > 0)) return std::nullopt;
    const std::optional<Mat2> known = edgeForces(laid.edges, edges.inverse(), 0.5 * stiffness * doubled_mm2);
    if (!known) return std::nullopt;
    const Mat2& forces = *known;
    Vec6 all;
    all.segment<2>(2) = laid.turns[1].transpose() * forces.col(0);
    all.segment<2>(4) = laid.turns[2].transpose() * forces.col(1);
    all.segment<2>(0) = -laid.turns[0].transpose() * (forces.col(0) + forces.col(1));
    return all;
}

class Balance {
  public:
    Balance(const SheetMesh& mesh, const std::array<int, 2>& held)
        : mesh_(mesh), laid_(laidTriangles(mesh)), unknown_(mesh.vertices.size(), -1) {
        for (std::size_t v = 0; v < unknown_.size(); ++v)
            if (static_cast<int>(v) != held[0] && static_cast<int>(v) != held[1]) unknown_[v] = count_++;
    }

    int unknowns() const { return 2 * count_; }
    int unknownOf(std::size_t vertex) const { return unknown_[vertex]; }

    /// The forces at all vertices but the held ones; nothing where the map folds.
    std::optional<Eigen::VectorXd> forces(const FlatMap& map) const {
        Eigen::VectorXd sum = Eigen::VectorXd::Zero(unknowns());
        for (std::size_t t = 0; t < laid_.size(); ++t) {
            const std::optional<Vec6> f = forcesOf(laid_[t], stiffnessOf(t), cornersOf(map, t));
            if (!f) return std::nullopt;
            for (std::size_t k = 0; k < 3; ++k)
                if (const int u = unknown_[vertex(t, k)]; u >= 0)
                    sum.segment<2>(2 * u) += f->segment<2>(2 * static_cast<Eigen::Index>(k));
        }
        return sum;
    }

    /// How the forces change with the flat places.
    Matrix stiffness(const FlatMap& map) {
        entries_.clear();
        entries_.reserve(36 * laid_.size());
        for (std::size_t t = 0; t < laid_.size(); ++t) {
            const Vec6 flat = cornersOf(map, t);
            const double step = 1e-6 * (flat.segment<2>(2) - flat.segment<2>(0)).norm();
            for (int c = 0; c < 6; ++c) {
                const int u = unknown_[vertex(t, static_cast<std::size_t>(c / 2))];
                if (u < 0) continue;
                Vec6 ahead = flat, behind = flat;
                ahead[c] += step;
                behind[c] -= step;
                const std::optional<Vec6> a = forcesOf(laid_[t], stiffnessOf(t), ahead),
                                          b = forcesOf(laid_[t], stiffnessOf(t), behind);
                if (!a || !b) continue;
                const Vec6 rate = (*a - *b) / (2 * step);
                for (int r = 0; r < 6; ++r)
                    if (const int row = unknown_[vertex(t, static_cast<std::size_t>(r / 2))]; row >= 0)
                        entries_.emplace_back(2 * row + r % 2, 2 * u + c % 2, rate[r]);
            }
        }
        Matrix matrix(unknowns(), unknowns());
        matrix.setFromTriplets(entries_.begin(), entries_.end());
        return matrix;
    }

  private:
    std::size_t vertex(std::size_t t, std::size_t k) const {
        return static_cast<std::size_t>(mesh_.triangles[t][k]);
    }
    Ratio stiffnessOf(std::size_t t) const { return mesh_.stiffness.empty() ? 1 : mesh_.stiffness[t]; }
    Vec6 cornersOf(const FlatMap& map, std::size_t t) const {
        Vec6 flat;
        flat << map[vertex(t, 0)], map[vertex(t, 1)], map[vertex(t, 2)];
        return flat;
    }

    const SheetMesh& mesh_;
    std::vector<LaidTriangle> laid_;
    std::vector<int> unknown_;
    int count_ = 0;
    std::vector<Eigen::Triplet<double>> entries_;
};

const Error kUnbalanced{
    "cannot_balance",
    NINE_WORDS("core",
               "Strips of sheet between the windows are so slender that they would not come to rest "
               "where they are drawn."),
    ""};

}  // namespace

Result<FlatMap> balancedMap(const SheetMesh& mesh, FlatMap map, const std::array<int, 2>& held,
                            const Task& task) {
    Balance balance(mesh, held);
    Eigen::SparseLU<Matrix> factor;
    std::optional<Eigen::VectorXd> forces = balance.forces(map);
    if (!forces) return kUnbalanced;
    for (int step = 0; step < kMostSteps; ++step) {
        if (task.cancelled()) return Task::cancelledError();
        const Matrix stiffness = balance.stiffness(map);
        if (step == 0) factor.analyzePattern(stiffness);
        factor.factorize(stiffness);
        if (factor.info() != Eigen::Success) return kUnbalanced;
        const Eigen::VectorXd move = factor.solve(-*forces);
        if (!move.allFinite()) return kUnbalanced;
        double scale = 1;
        bool better = false;
        for (; scale > 1e-3; scale *= 0.5) {
            FlatMap next = map;
            for (std::size_t v = 0; v < map.size(); ++v)
                if (const int u = balance.unknownOf(v); u >= 0) next[v] += scale * move.segment<2>(2 * u);
            std::optional<Eigen::VectorXd> there = balance.forces(next);
            if (!there || !(there->norm() < forces->norm() || forces->norm() < 1e-12)) continue;
            map = std::move(next);
            forces = std::move(there);
            better = true;
            break;
        }
        if (!better) {
            if (move.lpNorm<Eigen::Infinity>() < kAtRest_mm) return map;  // as good as numbers go
            return kUnbalanced;
        }
        if (scale * move.lpNorm<Eigen::Infinity>() < kAtRest_mm) return map;
    }
    return kUnbalanced;
}

double unrest_mm(const SheetMesh& mesh, const FlatMap& map, const std::array<int, 2>& held) {
    Balance balance(mesh, held);
    const std::optional<Eigen::VectorXd> forces = balance.forces(map);
    if (!forces) return std::numeric_limits<double>::infinity();
    const Matrix stiffness = balance.stiffness(map);
    double worst = 0;
    for (int u = 0; u < balance.unknowns(); ++u)
        worst = std::max(worst, std::abs((*forces)[u] / stiffness.coeff(u, u)));
    return worst;
}

}  // namespace nine
