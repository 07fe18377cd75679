#include "geom/rewrap.h"

#include <Eigen/Dense>
#include <Eigen/SparseCholesky>
#include <algorithm>
#include <cmath>
#include <map>
#include <numeric>

#include "geom/membrane.h"
#include "geom/spring_lattice.h"

namespace nine {
namespace {

constexpr std::size_t kFewestPairs = 30;
constexpr double kHoldStiffness = 1e4;  // of a mark, against 1 for a spring
constexpr double kSettled_mm = 1e-4;    // a fiftieth of the floor of the check
constexpr int kMaxSettlingSteps = 60;
const double kRowRatio = std::sqrt(3.0) / 2;

using Matrix = Eigen::SparseMatrix<double>;

/// The springs and marks between laid nodes as equations for the moves of the `free` ones.
class Settling {
  public:
    Settling(const Surface& surface, SpringLattice& lattice, const std::vector<int>& free,
             const std::vector<char>& laid)
        : surface_(surface), lattice_(lattice), free_(free), unknown_(lattice.flat.size(), -1) {
        for (std::size_t i = 0; i < free.size(); ++i)
            unknown_[static_cast<std::size_t>(free[i])] = static_cast<int>(i);
        const auto isLaid = [&](int n) { return laid[static_cast<std::size_t>(n)] != 0; };
        const auto isFree = [&](int n) { return unknown_[static_cast<std::size_t>(n)] >= 0; };
        for (const Spring& s : lattice.springs)
            if (isLaid(s.a) && isLaid(s.b) && (isFree(s.a) || isFree(s.b))) springs_.push_back(&s);
        for (const Hold& hold : lattice.holds)
            if (std::all_of(hold.nodes.begin(), hold.nodes.end(), isLaid) &&
                std::any_of(hold.nodes.begin(), hold.nodes.end(), isFree))
                holds_.push_back(&hold);
    }

    /// One Gauss-Newton step; the longest way a node moved, mm.
    double step() {
        const auto size = static_cast<Eigen::Index>(2 * free_.size());
        entries_.clear();
        rhs_ = Eigen::VectorXd::Zero(size);
        for (const Spring* spring : springs_) add(*spring);
        for (const Hold* hold : holds_) add(*hold);
        // Nodes that hang on one spring only may still swing: a trace of damping keeps them where they are.
        for (int i = 0; i < size; ++i) entries_.emplace_back(i, i, 1e-6);
        Matrix normal(size, size);
        normal.setFromTriplets(entries_.begin(), entries_.end());
        if (!analysed_) factor_.analyzePattern(normal);
        analysed_ = true;
        factor_.factorize(normal);
        return move(factor_.solve(rhs_));
    }

  private:
    /// One equation `sum(gradient_k . move_k) + residual = 0`, squared and added.
    void addEquation(const int* nodes, const Vec3* gradients, int count, double residual) {
        std::array<Vec2, 3> g;
        std::array<int, 3> u;
        for (int k = 0; k < count; ++k) {
            const auto n = static_cast<std::size_t>(nodes[k]);
            u[static_cast<std::size_t>(k)] = unknown_[n];
            g[static_cast<std::size_t>(k)] =
                tangentBasis(lattice_.place[n].normal).transpose() * gradients[k];
        }
        for (int i = 0; i < count; ++i) {
            const auto a = static_cast<std::size_t>(i);
            if (u[a] < 0) continue;
            rhs_.segment<2>(2 * u[a]) -= residual * g[a];
            for (int j = 0; j < count; ++j) {
                const auto b = static_cast<std::size_t>(j);
                if (u[b] < 0) continue;
                for (int k = 0; k < 4; ++k) {
                    const int row = 2 * u[a] + k / 2, column = 2 * u[b] + k % 2;
                    if (row >= column) entries_.emplace_back(row, column, g[a][k / 2] * g[b][k % 2]);
                }
            }
        }
    }

    void add(const Spring& s) {
        const SurfacePoint& p = lattice_.place[static_cast<std::size_t>(s.a)];
        const SurfacePoint& q = lattice_.place[static_cast<std::size_t>(s.b)];
        const double length = arcLength_mm(p, q);
        const double root = std::sqrt(s.weight);
        const Vec3 direction = (q.position - p.position).normalized();
        const double slope = root * s.rest_mm / length;
        const int nodes[2] = {s.a, s.b};
        const Vec3 gradients[2] = {-slope * direction, slope * direction};
        addEquation(nodes, gradients, 2, root * s.rest_mm * std::log(length / s.rest_mm));
    }

    void add(const Hold& hold) {
        Vec3 at = Vec3::Zero();
        for (std::size_t k = 0; k < 3; ++k)
            at += hold.share[k] * lattice_.place[static_cast<std::size_t>(hold.nodes[k])].position;
        // Only along the skin: the triangle's plane lies a little below it.
        const auto basis = tangentBasis(lattice_.place[static_cast<std::size_t>(hold.nodes[0])].normal);
        for (int axis = 0; axis < 2; ++axis) {
            Vec3 gradients[3];
            for (std::size_t k = 0; k < 3; ++k)
                gradients[k] = std::sqrt(kHoldStiffness) * hold.share[k] * basis.col(axis);
            addEquation(hold.nodes.data(), gradients, 3,
                        std::sqrt(kHoldStiffness) * basis.col(axis).dot(at - hold.target));
        }
    }

    double move(const Eigen::VectorXd& moves) {
        double largest = 0;
        for (const int n : free_) {
            SurfacePoint& place = lattice_.place[static_cast<std::size_t>(n)];
            Vec2 d = moves.segment<2>(2 * unknown_[static_cast<std::size_t>(n)]);
            const double limit = 0.5 * lattice_.spacing_mm;
            if (d.norm() > limit) d *= limit / d.norm();
            largest = std::max(largest, d.norm());
            place = surface_.project(place.position + tangentBasis(place.normal) * d);
        }
        return largest;
    }

    const Surface& surface_;
    SpringLattice& lattice_;
    const std::vector<int>& free_;
    std::vector<int> unknown_;
    std::vector<const Spring*> springs_;
    std::vector<const Hold*> holds_;
    Eigen::SimplicialLDLT<Matrix> factor_;
    bool analysed_ = false;
    std::vector<Eigen::Triplet<double>> entries_;
    Eigen::VectorXd rhs_;
};

/// Gauss-Newton on the springs between laid nodes; only `free` nodes move. Returns false when cancelled.
bool settle(const Surface& surface, SpringLattice& lattice, const std::vector<int>& free,
            const std::vector<char>& laid, const Task& task) {
    Settling settling(surface, lattice, free, laid);
    for (int step = 0; step < kMaxSettlingSteps; ++step) {
        if (task.cancelled()) return false;
        if (settling.step() < kSettled_mm) break;
    }
    return true;
}

/// Nodes grouped by distance from the line the sheet is smoothed from, nearest group first.
std::vector<std::vector<int>> bandsFrom(const SpringLattice& lattice, const ScatteredMap& sheet,
                                        const std::vector<HeldMark>& marks, Laying laying) {
    const double row = kRowRatio * lattice.spacing_mm;
    const Vec2 origin = marks.front().flat;
    const Vec2 along = (marks.back().flat - origin).normalized();
    std::map<int, std::vector<int>> bands;
    for (std::size_t i = 0; i < lattice.flat.size(); ++i) {
        double distance = std::abs(cross(along, lattice.flat[i] - origin));
        if (laying == Laying::FromTopEdge) distance = std::abs(sheet.high().y() - lattice.flat[i].y());
        bands[static_cast<int>(std::lround(distance / row))].push_back(static_cast<int>(i));
    }
    std::vector<std::vector<int>> ordered;
    for (auto& [distance, nodes] : bands) ordered.push_back(std::move(nodes));
    // The first line needs width, or it could bend freely sideways: it is laid with its neighbours.
    if (ordered.size() > 1) {
        ordered[0].insert(ordered[0].end(), ordered[1].begin(), ordered[1].end());
        ordered.erase(ordered.begin() + 1);
    }
    return ordered;
}

}  // namespace

Result<LaidSheet> LaidSheet::lay(const Surface& surface, const FlatPairs& pairs,
                                 const std::vector<HeldMark>& marks, Laying laying, const Task& task,
                                 std::shared_ptr<const Borders> borders, LaidAs how) {
    // In one piece: what a map must be, then the laying: four steps in a row.
    if (pairs.flat.size() < kFewestPairs) {
        return Error{
            "bad_map",
            Words(NINE_WORDS("core",
                             "The map has {flat} points; at least 30 are needed to lay it on the body."))
                .number("flat", pairs.flat.size(), 0),
            "map"};
    }
    if (marks.size() < 2) {
        return Error{
            "bad_map",
            NINE_WORDS("core", "Two registration marks or more are needed: without them a sheet slides."),
            "marks"};
    }
    std::vector<Vec3> positions;
    positions.reserve(pairs.skin.size());
    for (const SurfacePoint& p : pairs.skin) positions.push_back(p.position);
    const ScatteredMap sheet(pairs.flat, positions, borders);

    // Area of the sheet from the share of its bounding box that it covers.
    const Vec2 size = sheet.high() - sheet.low();
    const int probes = 40;
    int inside = 0;
    for (int i = 0; i < probes; ++i) {
        for (int j = 0; j < probes; ++j) {
            const Vec2 t((i + 0.5) / probes, (j + 0.5) / probes);
            if (sheet.covers(sheet.low() + t.cwiseProduct(size))) ++inside;
        }
    }
    const double area = size.x() * size.y() * inside / (probes * probes);
    if (!(area > 0)) {
        return Error{"bad_map",
                     NINE_WORDS("core", "The map's points lie on a line; there is no sheet between them."),
                     "map"};
    }

    if (borders && laying == Laying::Loose && how == LaidAs::Best) {
        Result<std::optional<Settled>> membrane =
            settledMembrane(surface, sheet, *borders, marks, task);
        if (!membrane) return membrane.error();
        if (*membrane) {
            LaidSheet result;
            result.surface_ = &surface;
            result.laid_.emplace(std::move((*membrane)->flat), std::move((*membrane)->skin),
                                 std::move(borders));
            return result;
        }
    }
    SpringLattice lattice = cutLattice(surface, sheet, area, borders.get());
    if (lattice.triangles.empty()) {
        return Error{"bad_map", NINE_WORDS("core", "There is no sheet between the map's points."), "map"};
    }
    for (const HeldMark& mark : marks)
        lattice.holds.push_back(holdAt(lattice, mark.flat, mark.skin, borders.get()));

    std::vector<char> laid(lattice.flat.size(), 0);
    std::vector<std::vector<int>> bands;
    if (laying == Laying::Loose) {
        bands.emplace_back(lattice.flat.size());
        std::iota(bands[0].begin(), bands[0].end(), 0);
    } else {
        bands = bandsFrom(lattice, sheet, marks, laying);
    }
    for (std::size_t b = 0; b < bands.size(); ++b) {
        for (const int n : bands[b]) laid[static_cast<std::size_t>(n)] = 1;
        if (!settle(surface, lattice, bands[b], laid, task)) return Task::cancelledError();
        task.progress(double(b + 1) / double(bands.size()));
    }

    std::vector<Vec2> flat;
    std::vector<Vec3> settled;
    for (std::size_t i = 0; i < lattice.flat.size(); ++i) {
        if (borders && lattice.ghost[i]) continue;  // it stands where the other lip's sheet is
        flat.push_back(lattice.flat[i]);
        settled.push_back(lattice.place[i].position);
    }
    LaidSheet result;
    result.surface_ = &surface;
    result.laid_.emplace(std::move(flat), std::move(settled), std::move(borders));
    return result;
}

}  // namespace nine
