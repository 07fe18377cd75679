#include "image/stroke.h"

#include <algorithm>
#include <cmath>

#include "base/units.h"

namespace nine {

PolygonSet coveredBy(const Polyline2& points, double radius) {
    constexpr int kHalfCircle = 12;
    PolygonSet capsules;
    for (std::size_t i = 0; i < points.size(); ++i) {
        const Vec2 &a = points[i > 0 ? i - 1 : 0], &b = points[i];
        if (i > 0 && a == b) continue;
        const Vec2 along = a == b ? Vec2(1, 0) : Vec2((b - a).normalized());
        const double turn = std::atan2(along.y(), along.x());
        Polygon2 capsule;
        for (const auto& [end, from] : {std::pair{b, turn - kPi / 2}, {a, turn + kPi / 2}})
            for (int k = 0; k <= kHalfCircle; ++k) {
                const double angle = from + kPi * k / kHalfCircle;
                capsule.push_back(end + radius * Vec2(std::cos(angle), std::sin(angle)));
            }
        capsules.push_back(std::move(capsule));
    }
    return united(capsules);
}

Polyline2 withStrokes(const Polyline2& outline, const std::vector<Stroke2>& strokes) {
    if (strokes.empty()) return outline;
    PolygonSet body{outline};
    if (polygonArea(outline) < 0) std::reverse(body[0].begin(), body[0].end());
    for (const Stroke2& stroke : strokes) {
        const PolygonSet area = coveredBy(stroke.points, stroke.radius_px);
        body = stroke.include ? united(body, area) : subtracted(body, area);
    }
    const auto largest = std::max_element(body.begin(), body.end(), [](const Polygon2& a, const Polygon2& b) {
        return polygonArea(a) < polygonArea(b);
    });
    if (largest == body.end() || polygonArea(*largest) <= 0) return {};
    return *largest;
}

}  // namespace nine
