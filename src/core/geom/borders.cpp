#include "geom/borders.h"

#include <algorithm>

namespace nine {

Borders::Borders(const PolygonSet& rings) {
    for (const Polygon2& ring : rings) {
        for (std::size_t i = 0; i < ring.size(); ++i) {
            const Vec2 &a = ring[i], &b = ring[(i + 1) % ring.size()];
            segments_.push_back({a, b, a.cwiseMin(b), a.cwiseMax(b)});
        }
    }
}

bool Borders::between(const Vec2& a, const Vec2& b) const {
    const Vec2 low = a.cwiseMin(b), high = a.cwiseMax(b), way = b - a;
    for (const Segment& s : segments_) {
        if ((s.low.array() > high.array()).any() || (s.high.array() < low.array()).any()) continue;
        const double from = cross(way, s.from - a), to = cross(way, s.to - a);
        if (!(from * to < 0)) continue;
        const Vec2 along = s.to - s.from;
        if (cross(along, a - s.from) * cross(along, b - s.from) < 0) return true;
    }
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
    for (const Segment& s : segments_) {
        if ((s.from.y() > p.y()) == (s.to.y() > p.y())) continue;
        const double t = (p.y() - s.from.y()) / (s.to.y() - s.from.y());
        if (s.from.x() + t * (s.to.x() - s.from.x()) > p.x()) in = !in;
    }
    return in;
}

}  // namespace nine
