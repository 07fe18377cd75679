#include "blank/landmark_curve.h"

#include <algorithm>

namespace nine {

std::vector<Vec2> curveOf(const Landmark& landmark) {
    constexpr int kPieces = 24;
    const std::vector<Vec2>& points = landmark.points;
    if (points.size() < 3 || landmark.isOutline()) return points;
    const std::size_t n = points.size();
    std::vector<double> at{0};
    for (std::size_t i = 1; i < n; ++i)
        at.push_back(at.back() + std::max(1e-9, (points[i] - points[i - 1]).norm()));
    const auto slope = [&](std::size_t i) -> Vec2 {
        const std::size_t middle = std::clamp<std::size_t>(i, 1, n - 2);
        const double before = at[middle] - at[middle - 1], after = at[middle + 1] - at[middle];
        const Vec2 in = (points[middle] - points[middle - 1]) / before,
                   out = (points[middle + 1] - points[middle]) / after;
        const Vec2 bend = (out - in) / (before + after);
        return in + (2 * at[i] - at[middle - 1] - at[middle]) * bend;
    };
    std::vector<Vec2> fine{points.front()};
    for (std::size_t i = 1; i < n; ++i) {
        const double h = at[i] - at[i - 1];
        for (int k = 1; k < kPieces; ++k) {
            const double t = static_cast<double>(k) / kPieces, u = 1 - t;
            fine.push_back(u * u * (1 + 2 * t) * points[i - 1] + t * t * (3 - 2 * t) * points[i] +
                           h * (t * u * u * slope(i - 1) - t * t * u * slope(i)));
        }
        fine.push_back(points[i]);
    }
    return fine;
}

std::vector<double> lengthsAlong(const Skin& skin, const std::vector<Vec2>& curve) {
    std::vector<double> reached;
    SurfacePoint before{};
    for (const Vec2& v : curve) {
        const double x = std::clamp(v.x(), skin.noseX_mm(), skin.tailX_mm());
        const SectionArc arc = skin.arcAt(x);
        // As far as the datum line of the other side, which skin coordinates reach.
        const double g = std::clamp(v.y(), -2 * arc.bellyArc_mm(), 2 * arc.backArc_mm());
        const SurfacePoint here = skin.at(arc, x, g, Side::Left);
        reached.push_back(reached.empty() ? 0 : reached.back() + arcLength_mm(before, here));
        before = here;
    }
    return reached;
}

std::vector<Vec2> partOf(const Skin& skin, const std::vector<Vec2>& curve, double from, double to,
                         int steps) {
    const std::vector<double> reached = lengthsAlong(skin, curve);
    std::vector<Vec2> points;
    std::size_t at = 1;
    for (int k = 0; k <= steps; ++k) {
        const double want = reached.back() * (from + (to - from) * k / steps);
        while (at + 1 < curve.size() && reached[at] < want) ++at;
        const double piece = reached[at] - reached[at - 1];
        const double t = piece > 0 ? (want - reached[at - 1]) / piece : 0;
        points.push_back((1 - t) * curve[at - 1] + t * curve[at]);
    }
    return points;
}

}  // namespace nine
