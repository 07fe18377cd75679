#include "blank/landmarks.h"

#include <algorithm>
#include <cmath>

namespace nine {

std::string spokenName(std::string_view landmark) {
    std::string name(landmark);
    std::replace(name.begin(), name.end(), '_', ' ');
    return name;
}

Vec2 referencePoint(const Landmark& landmark, double g_mm) {
    const auto& points = landmark.points;
    if (points.empty()) return Vec2::Zero();
    if (!landmark.isCurve()) return points.front();
    const auto missBy = [&](const Vec2& p) { return std::abs(p.y() - g_mm); };
    Vec2 nearest = points.front();
    for (std::size_t i = 1; i < points.size(); ++i) {
        const Vec2 &a = points[i - 1], &b = points[i];
        const double rise = b.y() - a.y();
        if ((a.y() - g_mm) * (b.y() - g_mm) <= 0 && rise != 0) return a + (g_mm - a.y()) / rise * (b - a);
        if (missBy(b) < missBy(nearest)) nearest = b;
    }
    return nearest;
}

Status checkLandmarks(const Skin& skin, const Landmarks& landmarks) {
    for (const auto& [name, landmark] : landmarks) {
        for (std::size_t i = 0; i < landmark.points.size(); ++i) {
            const Vec2& p = landmark.points[i];
            std::string where = "blank.landmarks." + name;
            if (landmark.isCurve()) where += "[" + std::to_string(i) + "]";
            if (Status ok = skin.check({Side::Left, p.x(), p.y()}, where); !ok) return ok;
        }
    }
    return Done{};
}

}  // namespace nine
