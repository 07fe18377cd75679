#include "geom/borders.h"

#include <algorithm>
#include <cmath>

namespace nine {

Borders::Borders(const PolygonSet& rings, const PolygonSet& openings) : rings_(rings) {
    if (!openings.empty()) solid_.emplace(rings.front(), openings);
    for (const Polygon2& ring : rings) {
        for (std::size_t i = 0; i < ring.size(); ++i) {
            const Vec2 &a = ring[i], &b = ring[(i + 1) % ring.size()];
            segments_.push_back({a, b, a.cwiseMin(b), a.cwiseMax(b)});
        }
    }
    double highest = 0;
    for (const Segment& s : segments_) {
        lowest_mm_ = &s == segments_.data() ? s.low.y() : std::min(lowest_mm_, s.low.y());
        highest = &s == segments_.data() ? s.high.y() : std::max(highest, s.high.y());
    }
    constexpr double kSegmentsARow = 8;
    rows_.resize(static_cast<std::size_t>(static_cast<double>(segments_.size()) / kSegmentsARow) + 1);
    row_mm_ = std::max(1e-9, (highest - lowest_mm_) / static_cast<double>(rows_.size()));
    for (std::size_t i = 0; i < segments_.size(); ++i)
        for (std::size_t r = rowOf(segments_[i].low.y()); r <= rowOf(segments_[i].high.y()); ++r)
            rows_[r].push_back(i);
}

std::size_t Borders::rowOf(double v_mm) const {
    const double row = std::floor((v_mm - lowest_mm_) / row_mm_);
    return static_cast<std::size_t>(std::clamp(row, 0.0, static_cast<double>(rows_.size() - 1)));
}

bool Borders::between(const Vec2& a, const Vec2& b) const {
    const Vec2 low = a.cwiseMin(b), high = a.cwiseMax(b), way = b - a;
    const auto crosses = [&](const Segment& s) {
        if ((s.low.array() > high.array()).any() || (s.high.array() < low.array()).any()) return false;
        const double from = cross(way, s.from - a), to = cross(way, s.to - a);
        if (!(from * to < 0)) return false;
        const Vec2 along = s.to - s.from;
        return cross(along, a - s.from) * cross(along, b - s.from) < 0;
    };
    for (std::size_t r = rowOf(low.y()); r <= rowOf(high.y()); ++r)
        for (const std::size_t i : rows_[r])
            if (crosses(segments_[i])) return true;
    return false;
}

double Borders::distance_mm(const Vec2& p) const {
    double least = 1e300;
    for (const Segment& s : segments_) {
        const Vec2 along = s.to - s.from;
        const double t =
            std::clamp((p - s.from).dot(along) / std::max(along.squaredNorm(), 1e-300), 0.0, 1.0);
        least = std::min(least, (s.from + t * along - p).norm());
    }
    return least;
}

bool Borders::inside(const Vec2& p) const {
    bool in = false;
    for (const std::size_t i : rows_[rowOf(p.y())]) {
        const Segment& s = segments_[i];
        if ((s.from.y() > p.y()) == (s.to.y() > p.y())) continue;
        const double t = (p.y() - s.from.y()) / (s.to.y() - s.from.y());
        if (s.from.x() + t * (s.to.x() - s.from.x()) > p.x()) in = !in;
    }
    return in;
}

}  // namespace nine
