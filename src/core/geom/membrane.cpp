#include "geom/membrane.h"

#include <Eigen/SparseCholesky>
#include <algorithm>
#include <cmath>
#include <set>

#include "geom/laid_triangle.h"
#include "geom/triangulate.h"

namespace nine {
namespace {

using Matrix = Eigen::SparseMatrix<double>;
using Vec4 = Eigen::Vector4d;

constexpr double kNodes = 3500;         // about; more at windows, whose rims are divided finer
constexpr double kMarkStiffness = 1e4;  // of a mark, against a modulus of 1
constexpr double kRestMove_mm = 1e-4;   // a hundredth of what is claimed
constexpr double kNear_mm = 0.02;       // after smaller moves the stiffness is no other
constexpr int kMostNewtonSteps = 60;
constexpr double kOnEachOther_mm = 1e-3;  // lips of a slit that does not open

/// The sheet of the rings; nothing when they are none.
std::optional<PlanePiece> pieceOf(const PolygonSet& rings) {
    if (rings.empty()) return std::nullopt;
    PlanePiece piece;
    std::size_t outer = 0;
    for (std::size_t i = 1; i < rings.size(); ++i)
        if (std::abs(polygonArea(rings[i])) > std::abs(polygonArea(rings[outer]))) outer = i;
    double expected = 0;
    std::set<std::pair<long long, long long>> seen;
    for (std::size_t i = 0; i < rings.size(); ++i) {
        const double size = std::abs(polygonArea(rings[i]));
        expected += i == outer ? size : -size;
        if (i != outer) piece.holes.push_back(rings[i]);
        for (const Vec2& p : rings[i])
            if (!seen.emplace(std::llround(p.x() / kOnEachOther_mm), std::llround(p.y() / kOnEachOther_mm))
                     .second)
                return std::nullopt;
    }
    piece.outer = rings[outer];
    if (polygonArea(piece.outer) < 0) std::reverse(piece.outer.begin(), piece.outer.end());
    for (Polygon2& hole : piece.holes)
        if (polygonArea(hole) < 0) std::reverse(hole.begin(), hole.end());
    constexpr Fraction kSame = 1e-4;
    const double there = area(subtracted({piece.outer}, united(piece.holes)));
    if (std::abs(there - expected) > kSame * expected) return std::nullopt;
    return piece;
}

struct Element {
    Triangle corners;
    Mat2 inverse;        ///< of its flat edges
    double weighed_mm2;  ///< flat area times stiffness
};

/// The membrane's energy by moves along the surface.
class Membrane {
  public:
    Membrane(const Surface& surface, const PlaneMesh& mesh, const ScatteredMap& sheet, const Borders& borders,
             const std::vector<HeldMark>& marks)
        : surface_(surface), flat_(mesh.points) {
        for (const Vec2& p : flat_) places_.push_back(surface.project(sheet.at(p)));
        for (const Triangle& t : mesh.triangles) {
            const auto corner = [&](std::size_t k) { return flat_[static_cast<std::size_t>(t[k])]; };
            Mat2 edges;
            edges << corner(1) - corner(0), corner(2) - corner(0);
            const Ratio stiffness = borders.stiffnessAt((corner(0) + corner(1) + corner(2)) / 3);
            elements_.push_back({t, edges.inverse(), 0.5 * stiffness * edges.determinant()});
        }
        for (const HeldMark& mark : marks) holds_.push_back(holdOf(mark));
    }

    /// One Newton step; the longest move, mm, or nothing when it cannot be taken.
    std::optional<double> step() {
        const auto size = static_cast<Eigen::Index>(2 * places_.size());
        entries_.clear();
        forces_ = Eigen::VectorXd::Zero(size);
        for (const Element& element : elements_)
            if (!add(element)) return std::nullopt;
        for (const Hold& hold : holds_) add(hold);
        if (moved_mm_ > kNear_mm) {
            constexpr double kTrace = 1e-7;
            for (int i = 0; i < size; ++i) entries_.emplace_back(i, i, kTrace);
            Matrix stiffness(size, size);
            stiffness.setFromTriplets(entries_.begin(), entries_.end());
            if (!analysed_) factor_.analyzePattern(stiffness);
            analysed_ = true;
            factor_.factorize(stiffness);
            if (factor_.info() != Eigen::Success) return std::nullopt;
        }
        const Eigen::VectorXd move = factor_.solve(-forces_);
        if (!move.allFinite()) return std::nullopt;
        moved_mm_ = take(move);
        return moved_mm_;
    }

    Settled settled() const {
        Settled all{flat_, {}};
        for (const SurfacePoint& p : places_) all.skin.push_back(p.position);
        return all;
    }

  private:
    struct Hold {
        Triangle corners;
        std::array<Fraction, 3> share;
        Vec3 target;
    };

    Hold holdOf(const HeldMark& mark) const {
        Hold best{};
        double bestWorst = -1e300;
        for (const Element& element : elements_) {
            const auto corner = [&](std::size_t k) {
                return flat_[static_cast<std::size_t>(element.corners[k])];
            };
            const Vec2 share = element.inverse * (mark.flat - corner(0));
            const double first = 1 - share.sum(), worst = std::min({first, share.x(), share.y()});
            if (worst <= bestWorst) continue;
            bestWorst = worst;
            best = {element.corners, {first, share.x(), share.y()}, mark.skin};
        }
        return best;
    }

    const SurfacePoint& place(const Triangle& t, std::size_t k) const {
        return places_[static_cast<std::size_t>(t[k])];
    }

    bool add(const Element& element) {
        const LaidTriangle laid = laidTriangle(
            {&place(element.corners, 0), &place(element.corners, 1), &place(element.corners, 2)});
        const auto forcesAt = [&](const Mat2& edges) {
            return edgeForces(edges, element.inverse, element.weighed_mm2);
        };
        const std::optional<Mat2> forces = forcesAt(laid.edges);
        if (!forces) return false;
        // How the edges follow moves of the corners, and the forces the edges.
        Eigen::Matrix<double, 4, 6> follow = Eigen::Matrix<double, 4, 6>::Zero();
        for (Eigen::Index e = 0; e < 2; ++e) {
            follow.block<2, 2>(2 * e, 0) = -laid.turns[0];
            follow.block<2, 2>(2 * e, 2 + 2 * e) = laid.turns[static_cast<std::size_t>(e + 1)];
        }
        Eigen::Matrix4d rates;
        const double by = 1e-6 * laid.edges(0, 0);
        for (Eigen::Index c = 0; c < 4; ++c) {
            Mat2 ahead = laid.edges, behind = laid.edges;
            ahead(c % 2, c / 2) += by;
            behind(c % 2, c / 2) -= by;
            const std::optional<Mat2> a = forcesAt(ahead), b = forcesAt(behind);
            if (!a || !b) return false;
            const Mat2 rate = (*a - *b) / (2 * by);
            rates.col(c) << rate(0, 0), rate(1, 0), rate(0, 1), rate(1, 1);
        }
        const Eigen::Matrix<double, 6, 6> stiffness = follow.transpose() * rates * follow;
        const Vec4 stacked((*forces)(0, 0), (*forces)(1, 0), (*forces)(0, 1), (*forces)(1, 1));
        const Eigen::Matrix<double, 6, 1> pull = follow.transpose() * stacked;
        for (int i = 0; i < 6; ++i) {
            const int row = 2 * element.corners[static_cast<std::size_t>(i / 2)] + i % 2;
            forces_[row] += pull[i];
            for (int j = 0; j < 6; ++j) {
                const int column = 2 * element.corners[static_cast<std::size_t>(j / 2)] + j % 2;
                if (row >= column) entries_.emplace_back(row, column, stiffness(i, j));
            }
        }
        return true;
    }

    /// Only along the surface: the triangle's plane lies a little below it.
    void add(const Hold& hold) {
        Vec3 at = Vec3::Zero();
        for (std::size_t k = 0; k < 3; ++k) at += hold.share[k] * place(hold.corners, k).position;
        const auto plane = tangentBasis(place(hold.corners, 0).normal);
        const Vec2 off = plane.transpose() * (at - hold.target);
        std::array<Mat2, 3> rate;
        for (std::size_t k = 0; k < 3; ++k)
            rate[k] = hold.share[k] * plane.transpose() * tangentBasis(place(hold.corners, k).normal);
        for (std::size_t i = 0; i < 3; ++i) {
            const Vec2 pull = kMarkStiffness * rate[i].transpose() * off;
            for (int r = 0; r < 2; ++r) forces_[2 * hold.corners[i] + r] += pull[r];
            for (std::size_t j = 0; j < 3; ++j) {
                const Mat2 block = kMarkStiffness * rate[i].transpose() * rate[j];
                for (int r = 0; r < 2; ++r)
                    for (int c = 0; c < 2; ++c) {
                        const int row = 2 * hold.corners[i] + r, column = 2 * hold.corners[j] + c;
                        if (row >= column) entries_.emplace_back(row, column, block(r, c));
                    }
            }
        }
    }

    double take(const Eigen::VectorXd& move) {
        constexpr double kLongest_mm = 0.3;
        const double longest = move.lpNorm<Eigen::Infinity>();
        const double scale = std::min(1.0, kLongest_mm / std::max(longest, 1e-300));
        for (std::size_t v = 0; v < places_.size(); ++v) {
            SurfacePoint& p = places_[v];
            const Vec2 by = scale * move.segment<2>(2 * static_cast<Eigen::Index>(v));
            p = surface_.project(p.position + tangentBasis(p.normal) * by);
        }
        return longest;
    }

    const Surface& surface_;
    std::vector<Vec2> flat_;
    std::vector<SurfacePoint> places_;
    std::vector<Element> elements_;
    std::vector<Hold> holds_;
    std::vector<Eigen::Triplet<double>> entries_;
    Eigen::VectorXd forces_;
    Eigen::SimplicialLDLT<Matrix> factor_;
    bool analysed_ = false;
    double moved_mm_ = 1e300;  ///< in the last step
};

}  // namespace

Result<std::optional<Settled>> settledMembrane(const Surface& surface, const ScatteredMap& sheet,
                                               const Borders& borders, const std::vector<HeldMark>& marks,
                                               const Task& task) {
    const std::optional<PlanePiece> piece = pieceOf(borders.rings());
    if (!piece) return std::optional<Settled>{};
    double sheet_mm2 = polygonArea(piece->outer);
    for (const Polygon2& hole : piece->holes) sheet_mm2 -= polygonArea(hole);
    const Result<PlaneMesh> mesh = triangulate(*piece, std::sqrt(sheet_mm2 / (kNodes * std::sqrt(3.0) / 2)));
    if (!mesh) return std::optional<Settled>{};
    Membrane membrane(surface, *mesh, sheet, borders, marks);
    for (int step = 0; step < kMostNewtonSteps; ++step) {
        if (task.cancelled()) return Task::cancelledError();
        const std::optional<double> moved = membrane.step();
        if (!moved) return std::optional<Settled>{};
        if (*moved < kRestMove_mm) return std::optional(membrane.settled());
    }
    return std::optional<Settled>{};
}

}  // namespace nine
