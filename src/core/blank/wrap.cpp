#include "blank/wrap.h"

#include <algorithm>
#include <cmath>
#include <limits>

namespace nine {
namespace {

constexpr double kNothingLies = std::numeric_limits<double>::infinity();
constexpr double kTipShare = 0.04;
constexpr double kStretch = 2;  // of the width: over so much of its length curvature averages out

/// Integral from -infinity to d of the hat that is 1 in the middle and 0 at -half and half.
double hatUpTo(double d, double half) {
    const double t = std::clamp(d / half, -1.0, 1.0);
    return half * (t < 0 ? 0.5 * (1 + t) * (1 + t) : 1 - 0.5 * (1 - t) * (1 - t));
}

/// Sums along a line of cells, read off between any two places of it.
class Running {
  public:
    explicit Running(std::vector<double> edges) : edges_(std::move(edges)), sum_(edges_.size(), 0.0) {}
    void set(std::size_t cell, double value) { sum_[cell + 1] = sum_[cell] + value; }
    double between(double from, double to) const { return upTo(to) - upTo(from); }

  private:
    double upTo(double at) const {
        if (at <= edges_.front()) return 0;
        if (at >= edges_.back()) return sum_.back();
        const auto k =
            static_cast<std::size_t>(std::upper_bound(edges_.begin(), edges_.end(), at) - edges_.begin()) - 1;
        const double step = edges_[k + 1] - edges_[k];
        return sum_[k] + (step > 0 ? (at - edges_[k]) / step : 0) * (sum_[k + 1] - sum_[k]);
    }
    std::vector<double> edges_, sum_;
};

/// The largest mean curvature of a stretch between two places.
double worstStretch(const Running& curvature, const Running& area, double from, double to, double stretch) {
    const int steps =
        to - from > stretch ? static_cast<int>(std::ceil(8 * (to - from - stretch) / stretch)) : 0;
    const double length = std::min(stretch, to - from);
    double worst = 0;
    for (int i = 0; i <= steps; ++i) {
        const double start = from + (steps > 0 ? (to - from - length) * i / steps : 0);
        const double under = area.between(start, start + length);
        if (under > 0) worst = std::max(worst, curvature.between(start, start + length) / under);
    }
    return worst;
}

double lawOf(double curvature, double side, double other) {
    const double w = std::min(side, other), l = std::max(side, other);
    return curvature * w * w / (16 + 23 * std::pow(w / l, 1.5));
}

}  // namespace

WrapField::WrapField(const Skin& skin, const SkinGrid& grid) : rows_(grid.rows - 1), columns_(grid.columns) {
    const auto cells = static_cast<std::size_t>(rows_ * columns_);
    area_.resize(cells);
    wide_.resize(cells);
    round_.resize(cells);
    curvature_.resize(cells);
    way_.assign(cells + static_cast<std::size_t>(columns_), 0.0);
    first_ = rows_;
    last_ = -1;
    const double margin = kTipShare * skin.length_mm();
    for (int r = 0; r < rows_; ++r) {
        const auto k = static_cast<std::size_t>(r);
        double girth = 0;
        for (int c = 0; c < columns_; ++c) {
            const std::size_t i = index(r, c);
            const Vec3 across = grid.at(r, c + 1).position - grid.at(r, c).position;
            const Vec3 down = grid.at(r + 1, c).position - grid.at(r, c).position;
            const Vec3 other = grid.at(r + 1, c + 1).position - grid.at(r, c + 1).position;
            const Vec3 far = grid.at(r + 1, c + 1).position - grid.at(r + 1, c).position;
            area_[i] = 0.5 * (across.cross(down).norm() + far.cross(other).norm());
            curvature_[i] = std::abs(grid.curvature_rad[i]);
            wide_[i] = 0.5 * (across.norm() + far.norm());
            round_[i] = girth + 0.5 * wide_[i];
            girth += wide_[i];
            way_[i + static_cast<std::size_t>(columns_)] = way_[i] + 0.5 * (down.norm() + other.norm());
        }
        girth_.push_back(girth);
        x_.push_back(0.5 * (grid.x_mm[k] + grid.x_mm[k + 1]));
        const bool nose = skin.loft().noseClosed() && x_.back() < skin.noseX_mm() + margin;
        const bool tail = skin.loft().tailClosed() && x_.back() > skin.tailX_mm() - margin;
        if (nose || tail) continue;
        first_ = std::min(first_, r);
        last_ = std::max(last_, r);
    }
}

/// For every cell: curvature and area of its row under a hat of the given width round the cell's middle.
std::vector<double> WrapField::weighedAcross(double across_mm, int firstColumn, int endColumn,
                                             std::vector<double>& areas) const {
    std::vector<double> sums(area_.size(), 0.0);
    areas.assign(area_.size(), 0.0);
    for (int r = first_; r <= last_; ++r) {
        const double girth = girth_mm(r), half = 0.5 * std::min(across_mm, girth);
        for (int c = firstColumn; c < endColumn; ++c) {
            const std::size_t middle = index(r, c);
            double curvature = 0, area = 0;
            for (int way : {1, -1}) {
                for (int n = way > 0 ? 0 : 1; n <= columns_ / 2; ++n) {
                    const std::size_t i = index(r, c + way * n + columns_);
                    double d = std::remainder(round_[i] - round_[middle], girth);
                    if (n > 0 && d * way < 0) d += way * girth;  // half round, seen from the other side
                    if (std::abs(d) - 0.5 * wide_[i] >= half) break;
                    const double weight =
                        (hatUpTo(d + 0.5 * wide_[i], half) - hatUpTo(d - 0.5 * wide_[i], half)) / wide_[i];
                    curvature += weight * curvature_[i];
                    area += weight * area_[i];
                }
            }
            sums[middle] = curvature;
            areas[middle] = area;
        }
    }
    return sums;
}

std::vector<double> WrapField::strains(double along_mm, double across_mm) const {
    return strains(along_mm, across_mm, 0, columns_);
}

std::vector<double> WrapField::strains(double along_mm, double across_mm, int firstColumn,
                                       int endColumn) const {
    // In one piece: two sweeps over the same grid.
    std::vector<double> strain(area_.size(), kNothingLies);
    if (first_ > last_) return strain;
    const auto turns = static_cast<std::size_t>(columns_);
    if (across_mm <= along_mm) {
        std::vector<double> areas;
        const std::vector<double> sums = weighedAcross(across_mm, firstColumn, endColumn, areas);
        for (int c = firstColumn; c < endColumn; ++c) {
            std::vector<double> edges;
            for (int r = first_; r <= last_ + 1; ++r)
                edges.push_back(way_[static_cast<std::size_t>(r * columns_ + c)]);
            const double start = edges.front(), end = edges.back();
            Running curvature(edges), area(std::move(edges));
            for (int r = first_; r <= last_; ++r) {
                curvature.set(static_cast<std::size_t>(r - first_), sums[index(r, c)]);
                area.set(static_cast<std::size_t>(r - first_), areas[index(r, c)]);
            }
            const double length = std::min(along_mm, end - start);
            for (int r = first_; r <= last_; ++r) {
                const std::size_t i = index(r, c);
                const double middle = 0.5 * (way_[i] + way_[i + turns]);
                const double from = std::clamp(middle - 0.5 * length, start, end - length);
                const double width = std::min(across_mm, girth_mm(r));
                strain[i] = lawOf(worstStretch(curvature, area, from, from + length, kStretch * width), width,
                                  length);
            }
        }
        return strain;
    }
    // Wider than long: the hat lies along the body, the worst stretch is looked for round it.
    for (int r = first_; r <= last_; ++r) {
        const double girth = girth_mm(r), width = std::min(across_mm, girth);
        std::vector<double> sums(turns, 0.0), areas(turns, 0.0);
        for (int c = 0; c < columns_; ++c) {
            const std::size_t i = index(r, c);
            const double start = way_[index(first_, c)], end = way_[index(last_, c) + turns];
            const double length = std::min(along_mm, end - start), half = 0.5 * length;
            const double middle = std::clamp(0.5 * (way_[i] + way_[i + turns]), start + half, end - half);
            for (int q = first_; q <= last_; ++q) {
                const std::size_t k = index(q, c);
                const double step = way_[k + turns] - way_[k];
                if (!(step > 0)) continue;
                const double weight =
                    (hatUpTo(way_[k + turns] - middle, half) - hatUpTo(way_[k] - middle, half)) / step;
                sums[static_cast<std::size_t>(c)] += weight * curvature_[k];
                areas[static_cast<std::size_t>(c)] += weight * area_[k];
            }
        }
        // Three times round, so that a piece may reach over the place where counting starts.
        std::vector<double> edges{0};
        for (int n = 0; n < 3 * columns_; ++n) edges.push_back(edges.back() + wide_[index(r, n)]);
        Running curvature(edges), area(edges);
        for (std::size_t n = 0; n < 3 * turns; ++n) {
            curvature.set(n, sums[n % turns]);
            area.set(n, areas[n % turns]);
        }
        for (int c = firstColumn; c < endColumn; ++c) {
            const std::size_t i = index(r, c);
            const double middle = girth + round_[i];
            strain[i] = lawOf(worstStretch(curvature, area, middle - 0.5 * width, middle + 0.5 * width,
                                           kStretch * along_mm),
                              along_mm, width);
        }
    }
    return strain;
}

std::vector<WrapWidth> wrapWidths(const WrapField& field, double strainLimit) {
    // Strain grows with the width; each rung of the ladder is one look along the lateral line, the front edge
    // of column 0.
    constexpr int kRungs = 48;
    constexpr double kNarrowest_mm = 1;
    double widest = kNarrowest_mm;
    for (int r = 0; r < field.rows(); ++r) widest = std::max(widest, 0.5 * field.girth_mm(r));
    std::vector<WrapWidth> widths;
    for (int r = 0; r < field.rows(); ++r)
        if (!field.tip(r)) widths.push_back({field.x_mm(r), 0, false});
    std::vector<double> before(widths.size(), 0.0);
    std::vector<char> found(widths.size(), 0);
    double narrower = 0;
    for (int rung = 0; rung <= kRungs; ++rung) {
        const double width =
            kNarrowest_mm * std::pow(widest / kNarrowest_mm, static_cast<double>(rung) / kRungs);
        const std::vector<double> strain = field.strains(kStripLength_mm, width, 0, 1);
        std::size_t k = 0;
        for (int r = 0; r < field.rows(); ++r) {
            if (field.tip(r)) continue;
            const double here = strain[field.index(r, 0)];
            if (!found[k] && here > strainLimit) {
                // Like the square of the width between two rungs.
                const double t = (strainLimit - before[k]) / std::max(1e-300, here - before[k]);
                widths[k].width_mm =
                    std::sqrt(narrower * narrower + t * (width * width - narrower * narrower));
                found[k] = 1;
            }
            before[k++] = here;
        }
        narrower = width;
    }
    std::size_t k = 0;
    for (int r = 0; r < field.rows(); ++r) {
        if (field.tip(r)) continue;
        const double half = 0.5 * field.girth_mm(r);
        WrapWidth& at = widths[k];
        at.whole = !found[k] || at.width_mm >= half;
        if (at.whole) at.width_mm = half;
        ++k;
    }
    return widths;
}

WrapMap wrapMap(const WrapField& field, double strainLimit, double along_mm, double across_mm) {
    WrapMap map;
    map.rows = field.rows();
    map.columns = field.columns();
    map.need = field.strains(along_mm, across_mm);
    constexpr double kNever = 9;  // at the tips
    double whole = 0, flat = 0;
    for (int r = 0; r < map.rows; ++r) {
        for (int c = 0; c < map.columns; ++c) {
            double& need = map.need[map.index(r, c)];
            need = std::min(kNever, need / strainLimit);
            whole += field.area_mm2(r, c);
            if (need <= 1) flat += field.area_mm2(r, c);
        }
    }
    map.share = whole > 0 ? flat / whole : 0;
    return map;
}

}  // namespace nine
