#include "geom/triangle_finder.h"

#include <algorithm>
#include <cmath>
#include <unordered_set>
#include <utility>

#include "geom/polygon_set.h"

namespace nine {
namespace {

constexpr double kTrianglesPerCell = 2;
constexpr double kMostSlack_mm = 0.1;
constexpr int kMostCells = 2000;  // a side

}  // namespace

TriangleFinder::TriangleFinder(std::vector<Vec2> places, std::vector<Triangle> triangles)
    : places_(std::move(places)), triangles_(std::move(triangles)) {
    const Box2 box = boxAround({places_});
    low_ = box.low;
    const Vec2 size = box.size().cwiseMax(1e-9);
    cell_mm_ = std::sqrt(kTrianglesPerCell * size.x() * size.y() / static_cast<double>(triangles_.size()));
    cell_mm_ = std::max(cell_mm_, size.maxCoeff() / kMostCells);
    columns_ = static_cast<int>(size.x() / cell_mm_) + 1;
    rows_ = static_cast<int>(size.y() / cell_mm_) + 1;
    cells_.resize(static_cast<std::size_t>(columns_) * static_cast<std::size_t>(rows_));
    for (std::size_t t = 0; t < triangles_.size(); ++t) {
        Vec2 low = places_[static_cast<std::size_t>(triangles_[t][0])], high = low;
        for (const int v : triangles_[t]) {
            low = low.cwiseMin(places_[static_cast<std::size_t>(v)]);
            high = high.cwiseMax(places_[static_cast<std::size_t>(v)]);
        }
        const auto [c0, r0] = cellOf(low - Vec2::Constant(kMostSlack_mm));
        const auto [c1, r1] = cellOf(high + Vec2::Constant(kMostSlack_mm));
        for (int r = r0; r <= r1; ++r)
            for (int c = c0; c <= c1; ++c)
                cells_[static_cast<std::size_t>(r * columns_ + c)].push_back(static_cast<int>(t));
    }
}

std::pair<int, int> TriangleFinder::cellOf(const Vec2& p) const {
    const auto within = [&](double v, int count) {
        return static_cast<int>(std::clamp(std::floor(v / cell_mm_), 0.0, count - 1.0));
    };
    return {within(p.x() - low_.x(), columns_), within(p.y() - low_.y(), rows_)};
}

std::optional<TriangleFinder::Place> TriangleFinder::find(const Vec2& p, double slack_mm) const {
    const auto [column, row] = cellOf(p);
    std::optional<Place> best;
    double least = -slack_mm;
    for (const int t : cells_[static_cast<std::size_t>(row * columns_ + column)]) {
        const Triangle& corners = triangles_[static_cast<std::size_t>(t)];
        const Vec2 &a = places_[static_cast<std::size_t>(corners[0])],
                   &b = places_[static_cast<std::size_t>(corners[1])],
                   &c = places_[static_cast<std::size_t>(corners[2])];
        const double all = cross(b - a, c - a);
        if (!(all > 0)) continue;
        const Vec3 twice(cross(c - b, p - b), cross(a - c, p - c), cross(b - a, p - a));
        // How far inside the nearest edge, mm.
        const double inside =
            std::min({twice[0] / (c - b).norm(), twice[1] / (a - c).norm(), twice[2] / (b - a).norm()});
        if (inside < least) continue;
        least = inside;
        best = Place{static_cast<std::size_t>(t), twice / all};
        if (inside > 0) break;
    }
    return best;
}

std::vector<std::vector<int>> borderLoops(const std::vector<Triangle>& triangles,
                                          const std::vector<Vec2>& places) {
    const auto count = static_cast<std::int64_t>(places.size());
    std::unordered_set<std::int64_t> edges;
    edges.reserve(3 * triangles.size());
    for (const Triangle& t : triangles)
        for (std::size_t i = 0; i < 3; ++i) edges.insert(t[i] * count + t[(i + 1) % 3]);
    std::vector<int> next(places.size(), -1);
    for (const Triangle& t : triangles)
        for (std::size_t i = 0; i < 3; ++i)
            if (!edges.count(t[(i + 1) % 3] * count + t[i]))
                next[static_cast<std::size_t>(t[i])] = t[(i + 1) % 3];
    std::vector<std::vector<int>> loops;
    std::vector<double> areas;
    for (std::size_t start = 0; start < next.size(); ++start) {
        if (next[start] < 0) continue;
        std::vector<int> loop;
        Polygon2 ring;
        for (auto at = static_cast<int>(start); at >= 0;) {
            loop.push_back(at);
            ring.push_back(places[static_cast<std::size_t>(at)]);
            at = std::exchange(next[static_cast<std::size_t>(at)], -1);
            if (at == static_cast<int>(start)) break;
        }
        areas.push_back(std::abs(polygonArea(ring)));
        loops.push_back(std::move(loop));
    }
    const auto widest = std::max_element(areas.begin(), areas.end()) - areas.begin();
    if (!loops.empty()) std::rotate(loops.begin(), loops.begin() + widest, loops.begin() + widest + 1);
    return loops;
}

}  // namespace nine
