#include "geom/surface.h"

#include <cmath>

namespace nine {
namespace {

constexpr double kProjectionTolerance_mm = 1e-12;  // far below any other tolerance; Newton reaches it at once
constexpr int kProjectionSteps = 30;

}  // namespace

SurfacePoint Surface::project(Vec3 p) const {
    Vec3 gradient;
    for (int i = 0; i < kProjectionSteps; ++i) {
        const double value = level(p, gradient);
        const double squared = gradient.squaredNorm();
        if (squared == 0) break;
        const Vec3 step = gradient * (value / squared);
        p -= step;
        if (step.norm() < kProjectionTolerance_mm) break;
    }
    return {p, gradient.normalized()};
}

SurfacePoint Surface::projectAlong(Vec3 p, const Vec3& direction) const {
    Vec3 gradient;
    for (int i = 0; i < kProjectionSteps; ++i) {
        const double value = level(p, gradient);
        const double slope = gradient.dot(direction);
        if (slope == 0) break;
        const double step = value / slope;
        p -= step * direction;
        if (std::abs(step) < kProjectionTolerance_mm) break;
    }
    return {p, gradient.normalized()};
}

double arcLength_mm(const SurfacePoint& a, const SurfacePoint& b) {
    const Vec3 chord = b.position - a.position;
    const Vec3 turn = b.normal - a.normal;
    const double turnNorm = turn.norm();
    if (turnNorm < 1e-9) return chord.norm();
    const double bent = chord.dot(turn) / turnNorm;
    const double s = std::min(1.0, 0.5 * turnNorm);
    const double stretch = std::asin(s) / s;
    return std::sqrt(chord.squaredNorm() + bent * bent * (stretch * stretch - 1));
}

}  // namespace nine
