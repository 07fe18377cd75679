#include "geom/flatten.h"

#include <Eigen/Dense>
#include <algorithm>
#include <array>
#include <limits>
#include <numeric>

#include "geom/distortion.h"
#include "geom/sparse_modes.h"

namespace nine {
namespace {

constexpr int kRigidIterations = 60;
constexpr double kRigidConverged = 1e-5;  // relative change of energy: invisible on a screen
constexpr int kNewtonIterations = 40;
constexpr double kRelaxConverged_mm =
    1e-5;  // largest move of the last step; Newton then leaves about its square
/// Newton steps for p = 4, 8 ... 128, each from where the one before ended. Only the last has to arrive: six
/// steps everywhere took half as long again and gave the same strain within 1.3 %, on average 0.2 %.
constexpr std::array<int, 6> kFeasibleSteps{2, 3, 4, 4, 5, 6};
constexpr std::array<int, 6> kComparedSteps{2, 2, 2, 2, 3, 0};

const Error kFolded{"cannot_flatten",
                    NINE_WORDS("core",
                               "This patch bends too far to be laid flat in one piece: make it smaller "
                               "or split it."),
                    ""};

/// The two vertices farthest apart, found by two sweeps: good places for pins.
std::pair<int, int> farApart(const FlatMap& map) {
    const auto farthestFrom = [&](std::size_t from) {
        std::size_t best = from;
        for (std::size_t i = 0; i < map.size(); ++i) {
            if ((map[i] - map[from]).squaredNorm() > (map[best] - map[from]).squaredNorm()) best = i;
        }
        return best;
    };
    const std::size_t a = farthestFrom(0);
    return {static_cast<int>(a), static_cast<int>(farthestFrom(a))};
}

/// Total energy of a map under `density(e1, e2)`, infinite if any triangle is folded.
template <typename Density>
double totalEnergy(const RestMesh& mesh, const FlatMap& map, const Density& density) {
    double sum = 0;
    for (std::size_t t = 0; t < mesh.triangles.size(); ++t) {
        const NearestRotation svd = nearestRotation(deformationGradient(mesh, map, t));
        if (!(svd.s2 > 0)) return std::numeric_limits<double>::infinity();
        sum += mesh.shapes[t].area_mm2 * density(std::log(svd.s1), std::log(svd.s2)).value;
    }
    return sum;
}

/// Energy Hessian with its negative eigenvalues set to zero, and the force (minus the gradient).
template <typename Density>
Eigen::VectorXd assembleProjected(const RestMesh& mesh, const FlatMap& map, const Density& density,
                                  ModeSystem& system) {
    system.clear();
    Eigen::VectorXd force = Eigen::VectorXd::Zero(system.unknowns());
    for (std::size_t t = 0; t < mesh.triangles.size(); ++t) {
        const SignedSvd svd = signedSvd(deformationGradient(mesh, map, t));
        const double area = mesh.shapes[t].area_mm2;
        const double s1 = svd.s1, s2 = svd.s2;
        const LogEnergy e = density(std::log(s1), std::log(s2));
        // From derivatives by log s to derivatives by s.
        const double p1 = e.d1 / s1, p2 = e.d2 / s2;
        const double p11 = (e.d11 - e.d1) / (s1 * s1), p22 = (e.d22 - e.d2) / (s2 * s2);
        const double p12 = e.d12 / (s1 * s2);

        const Mat2 firstPiola =
            p1 * svd.U.col(0) * svd.V.col(0).transpose() + p2 * svd.U.col(1) * svd.V.col(1).transpose();
        for (std::size_t i = 0; i < 3; ++i) {
            force.segment<2>(2 * mesh.triangles[t][i]) -= area * firstPiola * mesh.shapes[t].shapeGradient[i];
        }

        // Smith et al. 2019, section 3: two scaling modes, a twist and a flip.
        const double mean = 0.5 * (p11 + p22), half = 0.5 * (p11 - p22);
        const double radius = std::hypot(half, p12);
        const double angle = radius > 0 ? 0.5 * std::atan2(p12, half) : 0.0;
        const double c = std::cos(angle), s = std::sin(angle);
        const auto frame = [&](double a, double b, double d, double f) {
            Mat2 inner;
            inner << a, b, d, f;
            return Mat2(svd.U * inner * svd.V.transpose());
        };
        const double r = std::sqrt(0.5);
        if (mean + radius > 0) system.addMode(t, frame(c, 0, 0, s), area * (mean + radius));
        if (mean - radius > 0) system.addMode(t, frame(-s, 0, 0, c), area * (mean - radius));
        const double twist = (p1 + p2) / (s1 + s2);
        if (twist > 0) system.addMode(t, frame(0, -r, r, 0), area * twist);
        const double flip = s1 - s2 > 1e-9 * s1 ? (p1 - p2) / (s1 - s2) : p11 - p12;
        if (flip > 0) system.addMode(t, frame(0, r, r, 0), area * flip);
    }
    return force;
}

/// Newton's method from a map without folds. Returns false when cancelled.
template <typename Density>
bool minimize(const RestMesh& mesh, const Density& density, int iterations, ModeSystem& system, FlatMap& map,
              const Task& task) {
    const auto [held, turned] = farApart(map);
    // The energy does not see rigid motions: one point is held, and another kept from turning about it.
    const Vec2 arm = map[static_cast<std::size_t>(turned)] - map[static_cast<std::size_t>(held)];
    const int noTurn = 2 * turned + (std::abs(arm.x()) > std::abs(arm.y()) ? 1 : 0);
    double current = totalEnergy(mesh, map, density);
    for (int iteration = 0; iteration < iterations; ++iteration) {
        if (task.cancelled()) return false;
        Eigen::VectorXd force = assembleProjected(mesh, map, density, system);
        for (const int index : {2 * held, 2 * held + 1, noTurn}) {
            system.pin(index);
            force[index] = 0;
        }
        const Eigen::VectorXd step = system.solve(force);
        if (step.size() == 0) return true;  // as good as it gets: the caller has the best map so far
        const double downhill = force.dot(step);
        bool improved = false;
        double scale = 1;
        for (; scale > 1e-4; scale *= 0.5) {
            FlatMap next(map.size());
            for (std::size_t i = 0; i < map.size(); ++i) {
                next[i] = map[i] + scale * step.segment<2>(2 * static_cast<Eigen::Index>(i));
            }
            const double value = totalEnergy(mesh, next, density);
            if (value <= current - 1e-4 * scale * downhill) {
                map = std::move(next);
                current = value;
                improved = true;
                break;
            }
        }
        if (!improved || scale * step.lpNorm<Eigen::Infinity>() < kRelaxConverged_mm) return true;
    }
    return true;
}

bool folds(const RestMesh& mesh, const FlatMap& map) {
    for (std::size_t t = 0; t < mesh.triangles.size(); ++t) {
        if (!(deformationGradient(mesh, map, t).determinant() > 0)) return true;
    }
    return false;
}

double worstOf(const RestMesh& mesh, const FlatMap& map) {
    double worst = 0;
    for (const PrincipalStrain& strain : strainsOf(mesh, map)) worst = std::max(worst, strain.worst());
    return worst;
}

}  // namespace

Result<FlatMap> conformalMap(const RestMesh& mesh, const Task& task) {
    if (task.cancelled()) return Task::cancelledError();
    ModeSystem system(mesh);
    Mat2 sameStretch, noShear;
    sameStretch << 1, 0, 0, -1;
    noShear << 0, 1, 1, 0;
    for (std::size_t t = 0; t < mesh.triangles.size(); ++t) {
        system.addMode(t, sameStretch, mesh.shapes[t].area_mm2);
        system.addMode(t, noShear, mesh.shapes[t].area_mm2);
    }
    // Two pinned vertices fix place, turn and size; which size does not matter, it is set right below.
    const int first = mesh.triangles.front()[0];
    const int last = mesh.triangles.back()[2];
    Eigen::VectorXd pinned = Eigen::VectorXd::Zero(system.unknowns());
    pinned[2 * last] = std::sqrt(mesh.area_mm2);
    Eigen::VectorXd rhs = -system.times(pinned);
    for (const int index : {2 * first, 2 * first + 1, 2 * last, 2 * last + 1}) {
        system.pin(index);
        rhs[index] = pinned[index];
    }
    const Eigen::VectorXd x = system.solve(rhs);
    if (x.size() == 0) return kFolded;
    FlatMap map(static_cast<std::size_t>(mesh.vertexCount));
    for (std::size_t i = 0; i < map.size(); ++i) map[i] = x.segment<2>(2 * static_cast<Eigen::Index>(i));
    double flatArea = 0;
    for (std::size_t t = 0; t < mesh.triangles.size(); ++t) {
        flatArea += mesh.shapes[t].area_mm2 * deformationGradient(mesh, map, t).determinant();
    }
    if (!(flatArea > 0)) return kFolded;
    const double scale = std::sqrt(mesh.area_mm2 / flatArea);
    for (Vec2& p : map) p *= scale;
    return map;
}

Result<FlatMap> rigidMap(const RestMesh& mesh, FlatMap map, const Task& task) {
    const int n = mesh.vertexCount;
    std::vector<Eigen::Triplet<double>> entries;
    for (std::size_t t = 0; t < mesh.triangles.size(); ++t) {
        for (std::size_t i = 0; i < 3; ++i) {
            const int a = mesh.triangles[t][(i + 1) % 3], b = mesh.triangles[t][(i + 2) % 3];
            const double w = 0.5 * mesh.shapes[t].cotangent[i];
            entries.emplace_back(a, a, w);
            entries.emplace_back(b, b, w);
            entries.emplace_back(std::max(a, b), std::min(a, b), -w);
        }
    }
    entries.emplace_back(0, 0, 1.0);  // holds the place, which the energy does not see
    Eigen::SparseMatrix<double> laplacian(n, n);
    laplacian.setFromTriplets(entries.begin(), entries.end());
    const Eigen::SimplicialLDLT<Eigen::SparseMatrix<double>> factor(laplacian);
    if (factor.info() != Eigen::Success) return kFolded;

    double before = std::numeric_limits<double>::infinity();
    for (int iteration = 0; iteration < kRigidIterations; ++iteration) {
        if (task.cancelled()) return Task::cancelledError();
        Eigen::MatrixX2d rhs = Eigen::MatrixX2d::Zero(n, 2);
        rhs.row(0) = map[0].transpose();
        double now = 0;
        for (std::size_t t = 0; t < mesh.triangles.size(); ++t) {
            const NearestRotation near = nearestRotation(deformationGradient(mesh, map, t));
            const double area = mesh.shapes[t].area_mm2;
            now += area * ((near.s1 - 1) * (near.s1 - 1) + (near.s2 - 1) * (near.s2 - 1));
            for (std::size_t i = 0; i < 3; ++i) {
                rhs.row(mesh.triangles[t][i]) +=
                    area * (near.R * mesh.shapes[t].shapeGradient[i]).transpose();
            }
        }
        const Eigen::MatrixX2d solution = factor.solve(rhs);
        for (int i = 0; i < n; ++i) map[static_cast<std::size_t>(i)] = solution.row(i).transpose();
        // The second term ends the search on a developable patch, where the energy goes to nothing.
        if (before - now < kRigidConverged * now + 1e-12 * mesh.area_mm2) break;
        before = now;
    }
    return map;
}

Result<FlatMap> relaxedMap(const RestMesh& mesh, FlatMap map, const Task& task) {
    if (folds(mesh, map)) return kFolded;
    constexpr double nu = kSheetPoissonRatio;
    const auto hencky = [](double e1, double e2) {
        return LogEnergy{0.5 * (e1 * e1 + e2 * e2 + 2 * nu * e1 * e2), e1 + nu * e2, e2 + nu * e1, 1, 1, nu};
    };
    ModeSystem system(mesh);
    if (!minimize(mesh, hencky, kNewtonIterations, system, map, task)) return Task::cancelledError();
    return map;
}

Result<FlatMap> feasibleMap(const RestMesh& mesh, FlatMap map, const Task& task, Effort effort) {
    const std::array<int, 6>& steps = effort == Effort::Verdict ? kFeasibleSteps : kComparedSteps;
    if (folds(mesh, map)) return kFolded;
    ModeSystem system(mesh);
    FlatMap best = map;
    double bestStrain = std::numeric_limits<double>::infinity();
    for (std::size_t stage = 0; stage < steps.size(); ++stage) {
        const int doubled = static_cast<int>(stage) + 2;
        const double p = 1 << doubled;
        const double worst = worstOf(mesh, map);
        if (worst < 1e-9) return map;  // developable: nothing to gain
        // Scaled by the worst strain, so that neither overflow nor underflow sets in at high powers. The
        // small square keeps the system definite where strain vanishes.
        const auto power = [p, doubled, worst](double e1, double e2) {
            const double small = 1e-3;
            const double x = e1 / worst, y = e2 / worst;
            // x^p by squaring, and x^(p - 2) from it: this is worked out for every triangle of every step.
            double xp = x * x, yp = y * y;
            const double xx = std::max(xp, 1e-30), yy = std::max(yp, 1e-30);
            for (int k = 1; k < doubled; ++k) {
                xp *= xp;
                yp *= yp;
            }
            const double ax = xp / xx, ay = yp / yy;
            LogEnergy e;
            e.value = xp + yp + small * (x * x + y * y);
            e.d1 = (p * ax * x + 2 * small * x) / worst;
            e.d2 = (p * ay * y + 2 * small * y) / worst;
            e.d11 = (p * (p - 1) * ax + 2 * small) / (worst * worst);
            e.d22 = (p * (p - 1) * ay + 2 * small) / (worst * worst);
            e.d12 = 0;
            return e;
        };
        if (!minimize(mesh, power, steps[stage], system, map, task)) return Task::cancelledError();
        const double reached = worstOf(mesh, map);
        if (reached < bestStrain) {
            bestStrain = reached;
            best = map;
        }
        task.progress(doubled / 7.0);
    }
    return best;
}

std::vector<PrincipalStrain> strainsOf(const RestMesh& mesh, const FlatMap& map) {
    std::vector<PrincipalStrain> strains;
    strains.reserve(mesh.triangles.size());
    for (std::size_t t = 0; t < mesh.triangles.size(); ++t) {
        const NearestRotation svd = nearestRotation(deformationGradient(mesh, map, t));
        const double fold = -std::numeric_limits<double>::infinity();
        strains.push_back({std::log(svd.s1), svd.s2 > 0 ? std::log(svd.s2) : fold});
    }
    return strains;
}

StrainSummary summarize(const RestMesh& mesh, const std::vector<PrincipalStrain>& strains) {
    StrainSummary summary{0, 0, 1};
    std::vector<std::size_t> order(strains.size());
    std::iota(order.begin(), order.end(), std::size_t{0});
    std::sort(order.begin(), order.end(),
              [&](std::size_t a, std::size_t b) { return strains[a].worst() < strains[b].worst(); });
    double area = 0;
    for (const std::size_t t : order) {
        area += mesh.shapes[t].area_mm2;
        if (area <= 0.95 * mesh.area_mm2) summary.p95 = strains[t].worst();
        const double areaStrain = std::abs(strains[t].largest + strains[t].smallest);
        summary.areaRatioMax = std::max(summary.areaRatioMax, std::exp(areaStrain));
    }
    if (!order.empty()) summary.max = strains[order.back()].worst();
    return summary;
}

void alignMap(FlatMap& map, const Vec2& origin, const Vec2& towards) {
    const Vec2 axis = (towards - origin).normalized();
    Mat2 turn;
    turn << axis.x(), axis.y(), -axis.y(), axis.x();
    for (Vec2& p : map) p = turn * (p - origin);
}

}  // namespace nine
