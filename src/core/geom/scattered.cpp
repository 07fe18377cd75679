#include "geom/scattered.h"

#include <Eigen/Dense>
#include <algorithm>
#include <cmath>

#include "base/units.h"

namespace nine {
namespace {

constexpr std::size_t kFitPoints = 16;  // a quadratic has 6 coefficients; two and a half times as many points
constexpr std::size_t kCoverPoints = 24;  // enough to reach the next row of a grid four times denser one way
constexpr double kLargestGap = degToRad(175);

template <int Terms>
Vec3 weightedFit(const std::vector<Vec2>& places, const std::vector<Vec3>& values, double reach) {
    Eigen::Matrix<double, Terms, Terms> normal = Eigen::Matrix<double, Terms, Terms>::Zero();
    Eigen::Matrix<double, Terms, 3> right = Eigen::Matrix<double, Terms, 3>::Zero();
    for (std::size_t i = 0; i < places.size(); ++i) {
        const Vec2 q = places[i] / reach;
        const double r = std::min(1.0, q.norm());
        const double weight = (1 - r * r) * (1 - r * r) + 1e-6;
        Eigen::Matrix<double, Terms, 1> basis;
        if constexpr (Terms == 6) {
            basis << 1, q.x(), q.y(), q.x() * q.x(), q.x() * q.y(), q.y() * q.y();
        } else {
            basis << 1, q.x(), q.y();
        }
        normal += weight * basis * basis.transpose();
        right += weight * basis * values[i].transpose();
    }
    // A whiff of damping on all but the constant term keeps degenerate neighbourhoods finite.
    for (int k = 1; k < Terms; ++k) normal(k, k) += 1e-12 * normal(0, 0);
    return normal.ldlt().solve(right).row(0).transpose();
}

}  // namespace

Vec3 fittedAtOrigin(const std::vector<Vec2>& places, const std::vector<Vec3>& values) {
    double reach = 0;
    std::size_t nearest = 0;
    for (std::size_t i = 0; i < places.size(); ++i) {
        reach = std::max(reach, places[i].norm());
        if (places[i].squaredNorm() < places[nearest].squaredNorm()) nearest = i;
    }
    if (places.size() < 4 || reach == 0) return values[nearest];
    reach *= 1.05;
    return places.size() < 10 ? weightedFit<3>(places, values, reach) : weightedFit<6>(places, values, reach);
}

ScatteredMap::ScatteredMap(std::vector<Vec2> places, std::vector<Vec3> values,
                           std::shared_ptr<const Borders> borders)
    : places_(std::move(places)), values_(std::move(values)), borders_(std::move(borders)) {
    low_ = high_ = places_.front();
    for (const Vec2& p : places_) {
        low_ = low_.cwiseMin(p);
        high_ = high_.cwiseMax(p);
    }
    const Vec2 size = (high_ - low_).cwiseMax(1e-9);
    const auto count = static_cast<double>(places_.size());
    cell_mm_ = std::max(std::sqrt(size.x() * size.y() / count), size.maxCoeff() / count) * 1.5;
    columns_ = static_cast<int>(size.x() / cell_mm_) + 1;
    rows_ = static_cast<int>(size.y() / cell_mm_) + 1;
    cells_.resize(static_cast<std::size_t>(columns_) * static_cast<std::size_t>(rows_));
    for (std::size_t i = 0; i < places_.size(); ++i) {
        const int c = static_cast<int>((places_[i].x() - low_.x()) / cell_mm_);
        const int r = static_cast<int>((places_[i].y() - low_.y()) / cell_mm_);
        cells_[static_cast<std::size_t>(r * columns_ + c)].push_back(static_cast<int>(i));
    }
    std::vector<double> gaps;
    const std::size_t stride = std::max<std::size_t>(1, places_.size() / 200);
    for (std::size_t i = 0; i < places_.size(); i += stride) {
        const auto near = nearest(places_[i], 7);
        for (std::size_t k = 1; k < near.size(); ++k) {
            gaps.push_back((places_[static_cast<std::size_t>(near[k])] - places_[i]).norm());
        }
    }
    if (!gaps.empty()) {
        std::nth_element(gaps.begin(), gaps.begin() + static_cast<long>(gaps.size() / 2), gaps.end());
        spacing_mm_ = std::max(gaps[gaps.size() / 2], 1e-9);
    }
}

std::vector<int> ScatteredMap::nearest(const Vec2& p, std::size_t count) const {
    count = std::min(count, places_.size());
    const int c = std::clamp(static_cast<int>(std::floor((p.x() - low_.x()) / cell_mm_)), 0, columns_ - 1);
    const int r = std::clamp(static_cast<int>(std::floor((p.y() - low_.y()) / cell_mm_)), 0, rows_ - 1);
    std::vector<int> found;
    const int widest = std::max(columns_, rows_);
    int extra = 1;  // one ring more than needed, since a cell's corner is farther than its side
    for (int ring = 0; ring <= widest && extra >= 0; ++ring) {
        if (found.size() >= count) --extra;
        for (int row = r - ring; row <= r + ring; ++row) {
            if (row < 0 || row >= rows_) continue;
            const bool whole = row == r - ring || row == r + ring;
            const int step = whole || ring == 0 ? 1 : 2 * ring;
            for (int column = c - ring; column <= c + ring; column += step) {
                if (column < 0 || column >= columns_) continue;
                const auto& cell = cells_[static_cast<std::size_t>(row * columns_ + column)];
                found.insert(found.end(), cell.begin(), cell.end());
            }
        }
    }
    const auto closer = [&](int a, int b) {
        return (places_[static_cast<std::size_t>(a)] - p).squaredNorm() <
               (places_[static_cast<std::size_t>(b)] - p).squaredNorm();
    };
    std::partial_sort(found.begin(), found.begin() + static_cast<long>(count), found.end(), closer);
    found.resize(count);
    return found;
}

/// The nearest that are not across a border from `eye`; beside a slit half of the nearest are.
std::vector<int> ScatteredMap::neighbours(const Vec2& p, const Vec2& eye, std::size_t count) const {
    if (!borders_) return nearest(p, count);
    std::vector<int> found;
    for (std::size_t asked = 2 * count; found.size() < count; asked *= 2) {
        found.clear();
        for (const int i : nearest(p, asked)) {
            if (found.size() == count) break;
            if (!borders_->between(eye, places_[static_cast<std::size_t>(i)])) found.push_back(i);
        }
        if (asked >= places_.size()) break;
    }
    return found.empty() ? nearest(p, 1) : found;
}

Vec2 ScatteredMap::eyeOf(const Vec2& p) const {
    if (!borders_) return p;
    constexpr int kDirections = 16;
    // Rounding decides on which side of a border a place on it lies: it is looked at from the middle of the
    // directions in which there is sheet, a hair off.
    for (const double off_mm : {1e-5, 1e-4, 2e-3, 1e-2, kOnBorder_mm}) {
        int inside = 0;
        Vec2 middle = Vec2::Zero(), any = p;
        for (int k = 0; k < kDirections; ++k) {
            const double a = 2 * kPi * k / kDirections;
            const Vec2 way(std::cos(a), std::sin(a));
            if (!borders_->inside(p + off_mm * way)) continue;
            ++inside;
            middle += way;
            any = p + off_mm * way;
        }
        if (inside == kDirections) return p;
        if (inside == 0) continue;
        const Vec2 eye = p + off_mm * middle.normalized();
        return middle.norm() > 1e-9 && borders_->inside(eye) ? eye : any;
    }
    return p;
}

Vec3 ScatteredMap::at(const Vec2& p, const Vec2& eye) const {
    std::vector<Vec2> places;
    std::vector<Vec3> values;
    for (const int i : neighbours(p, eye, kFitPoints)) {
        places.push_back(places_[static_cast<std::size_t>(i)] - p);
        values.push_back(values_[static_cast<std::size_t>(i)]);
    }
    return fittedAtOrigin(places, values);
}

bool ScatteredMap::covers(const Vec2& p) const {
    if ((p.array() < low_.array()).any() || (p.array() > high_.array()).any()) return false;
    if (borders_) return borders_->inside(p);
    std::vector<double> directions;
    for (const int i : neighbours(p, p, kCoverPoints)) {
        const Vec2 d = places_[static_cast<std::size_t>(i)] - p;
        if (d.squaredNorm() > 0) directions.push_back(std::atan2(d.y(), d.x()));
    }
    if (directions.size() < 3) return false;
    std::sort(directions.begin(), directions.end());
    double gap = directions.front() + 2 * kPi - directions.back();
    for (std::size_t i = 1; i < directions.size(); ++i) {
        gap = std::max(gap, directions[i] - directions[i - 1]);
    }
    return gap < kLargestGap;
}

}  // namespace nine
