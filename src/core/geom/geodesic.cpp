#include "geom/geodesic.h"

#include <Eigen/Dense>
#include <algorithm>
#include <cmath>

namespace nine {
namespace {

using Basis = Eigen::Matrix<double, 3, 2>;
using Mat2 = Eigen::Matrix2d;

constexpr int kMaxNewtonSteps = 60;
constexpr double kConverged_mm = 1e-10;  // Newton converges quadratically; one step more costs little
constexpr double kCurvatureProbe_mm =
    1e-4;  // finite difference of normals: error 1e-4 of the curvature's change

double energy(const SurfacePath& path) {
    double sum = 0;
    for (std::size_t i = 1; i < path.size(); ++i) {
        sum += (path[i].position - path[i - 1].position).squaredNorm();
    }
    return 0.5 * sum;
}

/// Second fundamental form in the basis: how the normal turns along each tangent direction.
Mat2 shapeOperator(const Surface& surface, const SurfacePoint& at, const Basis& basis) {
    Mat2 form;
    for (int k = 0; k < 2; ++k) {
        Vec3 gradient;
        surface.level(at.position + kCurvatureProbe_mm * basis.col(k), gradient);
        const Vec3 turn = (gradient.normalized() - at.normal) / kCurvatureProbe_mm;
        form.col(k) = basis.transpose() * turn;
    }
    return 0.5 * (form + form.transpose());
}

struct NewtonSystem {
    std::vector<Basis> bases;
    std::vector<Mat2> diagonal;
    std::vector<Mat2> upper;  ///< coupling of i to i + 1
    std::vector<Vec2> force;  ///< minus the gradient
};

NewtonSystem assemble(const Surface& surface, const SurfacePath& path, bool withCurvature) {
    const std::size_t inner = path.size() - 2;
    NewtonSystem s;
    s.bases.resize(inner);
    s.diagonal.resize(inner);
    s.upper.resize(inner);
    s.force.resize(inner);
    for (std::size_t i = 0; i < inner; ++i) s.bases[i] = tangentBasis(path[i + 1].normal);
    for (std::size_t i = 0; i < inner; ++i) {
        const SurfacePoint& at = path[i + 1];
        const Vec3 pull = path[i].position - 2 * at.position + path[i + 2].position;
        s.force[i] = s.bases[i].transpose() * pull;
        s.diagonal[i] = 2 * Mat2::Identity();
        if (withCurvature) s.diagonal[i] += pull.dot(at.normal) * shapeOperator(surface, at, s.bases[i]);
        if (i + 1 < inner) s.upper[i] = -s.bases[i].transpose() * s.bases[i + 1];
    }
    return s;
}

/// Block elimination; empty when a pivot is not positive definite (not at a minimum yet).
std::vector<Vec2> solve(NewtonSystem s, double damping) {
    const std::size_t inner = s.diagonal.size();
    for (Mat2& block : s.diagonal) block += damping * Mat2::Identity();
    const auto positive = [](const Mat2& m) { return m(0, 0) > 1e-9 && m.determinant() > 1e-9; };
    for (std::size_t i = 0; i < inner; ++i) {
        if (!positive(s.diagonal[i])) return {};
        if (i + 1 == inner) break;
        const Mat2 factor = s.upper[i].transpose() * s.diagonal[i].inverse();
        s.diagonal[i + 1] -= factor * s.upper[i];
        s.force[i + 1] -= factor * s.force[i];
    }
    std::vector<Vec2> step(inner);
    for (std::size_t i = inner; i-- > 0;) {
        Vec2 rhs = s.force[i];
        if (i + 1 < inner) rhs -= s.upper[i] * step[i + 1];
        step[i] = s.diagonal[i].inverse() * rhs;
    }
    return step;
}

SurfacePath moved(const Surface& surface, const SurfacePath& path, const NewtonSystem& s,
                  const std::vector<Vec2>& step, double scale) {
    SurfacePath next = path;
    for (std::size_t i = 0; i < step.size(); ++i) {
        next[i + 1] = surface.project(path[i + 1].position + scale * (s.bases[i] * step[i]));
    }
    return next;
}

}  // namespace

double chordLength_mm(const SurfacePath& path) {
    double sum = 0;
    for (std::size_t i = 1; i < path.size(); ++i) sum += (path[i].position - path[i - 1].position).norm();
    return sum;
}

SurfacePath resampled(const Surface& surface, const SurfacePath& path, int pieces) {
    const double total = chordLength_mm(path);
    SurfacePath out;
    out.reserve(static_cast<std::size_t>(pieces) + 1);
    out.push_back(path.front());
    std::size_t segment = 1;
    double before = 0;
    for (int k = 1; k < pieces; ++k) {
        const double target = total * k / pieces;
        double chord = (path[segment].position - path[segment - 1].position).norm();
        while (segment + 1 < path.size() && before + chord < target) {
            before += chord;
            ++segment;
            chord = (path[segment].position - path[segment - 1].position).norm();
        }
        const double t = chord > 0 ? std::clamp((target - before) / chord, 0.0, 1.0) : 0.0;
        out.push_back(surface.project((1 - t) * path[segment - 1].position + t * path[segment].position));
    }
    out.push_back(path.back());
    return out;
}

SurfacePath shortenPath(const Surface& surface, SurfacePath path) {
    if (path.size() < 3) return path;
    double current = energy(path);
    for (int iteration = 0; iteration < kMaxNewtonSteps; ++iteration) {
        NewtonSystem system = assemble(surface, path, true);
        std::vector<Vec2> step = solve(system, 0);
        // Between conjugate points (pole to pole) paths can be shifted freely: damp just enough to be
        // definite.
        for (double damping = 1e-7; step.empty() && damping < 0.5; damping *= 30)
            step = solve(system, damping);
        if (step.empty()) {  // far from the minimum: Gauss-Newton always descends
            system = assemble(surface, path, false);
            step = solve(system, 0);
        }
        double largest = 0;
        for (const Vec2& d : step) largest = std::max(largest, d.norm());
        if (largest < kConverged_mm) break;
        bool improved = false;
        for (double scale = 1; scale > 1e-4; scale *= 0.5) {
            SurfacePath next = moved(surface, path, system, step, scale);
            const double value = energy(next);
            if (value < current) {
                path = std::move(next);
                current = value;
                improved = true;
                break;
            }
        }
        if (!improved) break;
    }
    return path;
}

Geodesic geodesicNear(const Surface& surface, const SurfacePath& start, int pieces) {
    // The chord length of a tight polyline falls short by terms in 1 / pieces^2, ^4, ...: Romberg's table.
    SurfacePath path = start;
    double lengths[3];
    for (int level = 0; level < 3; ++level) {
        path = shortenPath(surface, resampled(surface, path, pieces >> (2 - level)));
        lengths[level] = chordLength_mm(path);
    }
    const double coarse = (4 * lengths[1] - lengths[0]) / 3, fine = (4 * lengths[2] - lengths[1]) / 3;
    return {(16 * fine - coarse) / 15, std::move(path)};
}

std::vector<SurfacePoint> shootGeodesic(const Surface& surface, const SurfacePoint& from, const Vec3& tangent,
                                        const std::vector<double>& distances_mm, double step_mm) {
    std::vector<SurfacePoint> out;
    out.reserve(distances_mm.size());
    SurfacePoint at = from;
    Vec3 velocity = (tangent - tangent.dot(from.normal) * from.normal).normalized();
    double walked = 0;
    for (const double target : distances_mm) {
        const int steps = static_cast<int>(std::ceil((target - walked) / step_mm));
        const double h = steps > 0 ? (target - walked) / steps : 0;
        for (int i = 0; i < steps; ++i) {
            // Velocity Verlet with the constraint force along the normal at the start of the step (RATTLE).
            const SurfacePoint next = surface.projectAlong(at.position + h * velocity, at.normal);
            Vec3 arrived = (next.position - at.position) / h;
            velocity = (arrived - arrived.dot(next.normal) * next.normal).normalized();
            at = next;
        }
        walked = target;
        out.push_back(at);
    }
    return out;
}

}  // namespace nine
