#include "blank/walk.h"

#include <cmath>

#include "base/number_text.h"

namespace nine {
namespace {

constexpr double kExact_mm = 1e-9;

Error offEnd(const Skin& skin, bool towardsTail, const std::string& where) {
    return {"off_body",
            Words(NINE_WORDS("core",
                             "This goes over the {end} end of the body, at x = {nose}. Move "
                             "it away from the end, or make it shorter or fewer."))
                .words("end", (towardsTail ? NINE_WORDS("core", "tail") : NINE_WORDS("core", "nose")))
                .length("nose", towardsTail ? skin.tailX_mm() : skin.noseX_mm(), 1),
            where};
}

}  // namespace

namespace detail {

Result<double> stepTo(const Skin& skin, double x, double g, double toG, double step_mm,
                      const std::string& where) {
    const bool towardsTail = step_mm >= 0;
    const double length = std::abs(step_mm);
    const SurfacePoint from = skin.at({Side::Left, x, g});
    // The arc from here to x + d grows with |d|; false position between nothing and the farthest it can be.
    const double end = towardsTail ? skin.tailX_mm() : skin.noseX_mm();
    const auto excess = [&](double at) {
        return arcLength_mm(from, skin.at({Side::Left, at, toG})) - length;
    };
    double near = x, far = towardsTail ? std::min(end, x + length) : std::max(end, x - length);
    double nearMiss = excess(near), farMiss = excess(far);
    if (nearMiss > 0) return x;  // the line rises more steeply than it runs: as good as straight up
    if (farMiss < 0) {
        if (far == end) return offEnd(skin, towardsTail, where);
        return far;  // a rounding's breadth short on a straight cylinder
    }
    double best = far;
    for (int i = 0; i < 60; ++i) {
        // Illinois variant of false position.
        best = (near * farMiss - far * nearMiss) / (farMiss - nearMiss);
        const double miss = excess(best);
        if (std::abs(miss) < kExact_mm) break;
        if (miss < 0) {
            near = best;
            nearMiss = miss;
            farMiss *= 0.5;
        } else {
            far = best;
            farMiss = miss;
            nearMiss *= 0.5;
        }
    }
    return best;
}

}  // namespace detail

Result<double> walkAlong(const Skin& skin, double x_mm, double g_mm, double distance_mm,
                         const std::string& where) {
    if (Status ok = skin.check({Side::Left, x_mm, g_mm}, where); !ok) return ok.error();
    const int steps = static_cast<int>(std::ceil(std::abs(distance_mm) / detail::kWalkStep_mm));
    double x = x_mm;
    for (int i = 0; i < steps; ++i) {
        const Result<double> next = detail::stepTo(skin, x, g_mm, g_mm, distance_mm / steps, where);
        if (!next) return next.error();
        x = *next;
    }
    return x;
}

Result<double> distanceAlong(const Skin& skin, double from_mm, double to_mm, double g_mm,
                             const std::string& where) {
    const int steps =
        std::max(1, static_cast<int>(std::ceil(std::abs(to_mm - from_mm) / detail::kWalkStep_mm)));
    double length = 0;
    SurfacePoint before{};
    for (int i = 0; i <= steps; ++i) {
        const SkinPoint at{Side::Left, from_mm + (to_mm - from_mm) * i / steps, g_mm};
        if (Status ok = skin.check(at, where); !ok) return ok.error();
        const SurfacePoint here = skin.at(at);
        if (i > 0) length += arcLength_mm(before, here);
        before = here;
    }
    return to_mm < from_mm ? -length : length;
}

}  // namespace nine
