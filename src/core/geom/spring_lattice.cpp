#include "geom/spring_lattice.h"

#include <algorithm>
#include <cmath>
#include <map>

namespace nine {
namespace {

constexpr double kLatticeNodes = 1200;  // the floor of the check falls to about 0.01 mm here
// Ribbons between windows want more: with 1200 the rims of five bars come back .035 mm off, with 5000 .011.
constexpr double kNodesWithHoles = 5000;
constexpr int kCoverageDivisions = 4;    // sample points along the side of a triangle at the edge
constexpr double kLeastCoverage = 0.02;  // a triangle with less sheet than this is left out
const double kRowHeight = std::sqrt(3.0) / 2;

using Cell = std::pair<int, int>;  // row, column

class LatticeCutter {
  public:
    LatticeCutter(const Surface& surface, const ScatteredMap& sheet, double area_mm2, const Borders* borders)
        : surface_(surface), sheet_(sheet), borders_(borders) {
        h_ = lattice_.spacing_mm =
            std::sqrt(area_mm2 / ((borders ? kNodesWithHoles : kLatticeNodes) * kRowHeight));
        low_ = sheet.low() - Vec2(h_, h_);
        columns_ = static_cast<int>((sheet.high().x() - low_.x()) / h_) + 3;
        rows_ = static_cast<int>((sheet.high().y() - low_.y()) / (h_ * kRowHeight)) + 3;
        covered_.resize(static_cast<std::size_t>(rows_ * columns_));
        index_.assign(covered_.size(), -1);
        for (int r = 0; r < rows_; ++r)
            for (int c = 0; c < columns_; ++c) covered_[at({r, c})] = sheet.covers(placeOf({r, c})) ? 1 : 0;
    }

    SpringLattice cut() {
        for (int r = 0; r + 1 < rows_; ++r) {
            for (int c = 0; c + 1 < columns_; ++c) {
                if (r % 2 == 0) {
                    add({{{r, c}, {r, c + 1}, {r + 1, c}}});
                    add({{{r, c + 1}, {r + 1, c + 1}, {r + 1, c}}});
                } else {
                    add({{{r, c}, {r, c + 1}, {r + 1, c + 1}}});
                    add({{{r, c}, {r + 1, c + 1}, {r + 1, c}}});
                }
            }
        }
        joinGhosts();
        for (const auto& [ends, weight] : stiffness_)
            lattice_.springs.push_back({ends.first, ends.second, h_, weight});
        return std::move(lattice_);
    }

  private:
    using Corners = std::array<Cell, 3>;
    struct Part {  // a triangle of the lattice as one side of a slit has it
        std::array<int, 3> nodes;
        double share;
    };

    std::size_t at(const Cell& cell) const {
        return static_cast<std::size_t>(cell.first * columns_ + cell.second);
    }
    Vec2 placeOf(const Cell& cell) const {
        return {low_.x() + h_ * (cell.second + (cell.first % 2 != 0 ? 0.5 : 0.0)),
                low_.y() + h_ * kRowHeight * cell.first};
    }
    bool apart(const Vec2& a, const Vec2& b) const { return borders_ && borders_->between(a, b); }

    int addNode(const Cell& cell, const Vec3& position, bool ghost) {
        lattice_.flat.push_back(placeOf(cell));
        lattice_.place.push_back(surface_.project(position));
        lattice_.ghost.push_back(ghost ? 1 : 0);
        return static_cast<int>(lattice_.flat.size()) - 1;
    }
    int node(const Cell& cell) {
        int& i = index_[at(cell)];
        if (i < 0) i = addNode(cell, sheet_.at(placeOf(cell)), covered_[at(cell)] == 0);
        return i;
    }
    /// The corner `cell` as the sheet round the node of `eye` goes on to it.
    int ghostOf(const Cell& cell, const Cell& eye) {
        const auto [known, fresh] = ghosts_.emplace(std::pair{cell, eye}, -1);
        if (fresh) known->second = addNode(cell, sheet_.at(placeOf(cell), placeOf(eye)), true);
        return known->second;
    }

    /// Share of a triangle that is sheet of the side of `eyes`, by sampling.
    double coverage(const Corners& corners, const std::vector<Cell>& eyes) const {
        const Vec2 a = placeOf(corners[0]), b = placeOf(corners[1]), c = placeOf(corners[2]);
        int inside = 0, samples = 0;
        for (int i = 0; i < kCoverageDivisions; ++i) {
            for (int j = 0; j + i < kCoverageDivisions; ++j) {
                const double u = (i + 1.0 / 3) / kCoverageDivisions, v = (j + 1.0 / 3) / kCoverageDivisions;
                const Vec2 p = (1 - u - v) * a + u * b + v * c;
                ++samples;
                const bool seen = !borders_ || std::any_of(eyes.begin(), eyes.end(), [&](const Cell& eye) {
                    return !apart(placeOf(eye), p);
                });
                if (seen && sheet_.covers(p)) ++inside;
            }
        }
        return static_cast<double>(inside) / samples;
    }

    void add(const Corners& corners) {
        std::vector<Cell> real;
        for (const Cell& cell : corners)
            if (covered_[at(cell)]) real.push_back(cell);
        // Corners that see each other are of one side.
        while (!real.empty()) {
            std::vector<Cell> side{real.back()};
            real.pop_back();
            for (std::size_t k = 0; k < side.size(); ++k) {
                for (auto other = real.begin(); other != real.end();) {
                    const bool joined = !apart(placeOf(side[k]), placeOf(*other));
                    if (joined) side.push_back(*other);
                    other = joined ? real.erase(other) : other + 1;
                }
            }
            addSide(corners, side);
        }
    }

    void addSide(const Corners& corners, const std::vector<Cell>& side) {
        const double share = side.size() == 3 ? 1.0 : coverage(corners, side);
        if (share < kLeastCoverage) return;
        std::array<int, 3> t;
        for (std::size_t k = 0; k < 3; ++k) {
            const bool own = std::find(side.begin(), side.end(), corners[k]) != side.end();
            if (own || !borders_) {
                t[k] = node(corners[k]);
                continue;
            }
            // One ghost for all of this side that sees it.
            t[k] = ghostOf(corners[k], side.front());
            for (const Cell& eye : side) joins_.emplace_back(t[k], ghostOf(corners[k], eye));
        }
        const Vec2 middle = (placeOf(corners[0]) + placeOf(corners[1]) + placeOf(corners[2])) / 3;
        parts_.push_back({t, borders_ ? share * borders_->stiffnessAt(middle) : share});
    }

    /// Ghosts of one corner that belong to one side become one node, then springs are counted.
    void joinGhosts() {
        std::vector<int> parent(lattice_.flat.size());
        for (std::size_t i = 0; i < parent.size(); ++i) parent[i] = static_cast<int>(i);
        const auto root = [&](int i) {
            while (parent[static_cast<std::size_t>(i)] != i) i = parent[static_cast<std::size_t>(i)];
            return i;
        };
        for (const auto& [a, b] : joins_) {
            const int i = root(a), j = root(b);
            parent[static_cast<std::size_t>(std::max(i, j))] = std::min(i, j);
        }
        std::vector<int> number(parent.size(), -1);
        SpringLattice joined;
        joined.spacing_mm = lattice_.spacing_mm;
        for (std::size_t i = 0; i < parent.size(); ++i) {
            if (parent[i] != static_cast<int>(i)) continue;
            number[i] = static_cast<int>(joined.flat.size());
            joined.flat.push_back(lattice_.flat[i]);
            joined.place.push_back(lattice_.place[i]);
            joined.ghost.push_back(lattice_.ghost[i]);
        }
        for (const Part& part : parts_) {
            std::array<int, 3> t;
            for (std::size_t k = 0; k < 3; ++k) t[k] = number[static_cast<std::size_t>(root(part.nodes[k]))];
            joined.triangles.push_back(t);
            for (std::size_t k = 0; k < 3; ++k)
                stiffness_[std::minmax(t[k], t[(k + 1) % 3])] += 0.5 * part.share;
        }
        lattice_ = std::move(joined);
    }

    const Surface& surface_;
    const ScatteredMap& sheet_;
    const Borders* borders_;
    double h_;
    Vec2 low_;
    int columns_, rows_;
    std::vector<char> covered_;
    std::vector<int> index_;
    SpringLattice lattice_;
    std::map<std::pair<Cell, Cell>, int> ghosts_;
    std::vector<std::pair<int, int>> joins_;
    std::vector<Part> parts_;
    std::map<std::pair<int, int>, double> stiffness_;
};

}  // namespace

SpringLattice cutLattice(const Surface& surface, const ScatteredMap& sheet, double area_mm2,
                         const Borders* borders) {
    return LatticeCutter(surface, sheet, area_mm2, borders).cut();
}

Hold holdAt(const SpringLattice& lattice, const SheetPlace& mark, const Vec3& skin, const Borders* borders) {
    Hold best{};
    double bestWorst = -1e300;
    for (const auto& t : lattice.triangles) {
        const auto corner = [&](std::size_t k) { return lattice.flat[static_cast<std::size_t>(t[k])]; };
        const Vec2 a = corner(0), ab = corner(1) - a, ac = corner(2) - a;
        const double area = cross(ab, ac);
        const double u = cross(mark - a, ac) / area, v = cross(ab, mark - a) / area;
        const double worst = std::min({1 - u - v, u, v});
        if (worst <= bestWorst) continue;
        const auto seen = [&](std::size_t k) {
            return !lattice.ghost[static_cast<std::size_t>(t[k])] && !borders->between(mark, corner(k));
        };
        if (borders && !seen(0) && !seen(1) && !seen(2)) continue;
        bestWorst = worst;
        best = {t, {1 - u - v, u, v}, skin};
    }
    return best;
}

}  // namespace nine
