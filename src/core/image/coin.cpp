#include "image/coin.h"

#include <Eigen/Eigenvalues>

#include <algorithm>
#include <cmath>
#include <optional>

#include "base/number_text.h"
#include "base/units.h"
#include "image/regions.h"

namespace nine {
namespace {

constexpr std::size_t kRays = 180, kSample = 5;
constexpr int kWork_px = 900;           // longer side of the picture the edge is first looked for in
constexpr double kLeastRadius_px = 12;  // of the picture itself
constexpr double kEnough = 0.6;         // of the rays that must agree
constexpr double kAgree = 0.025;        // of the radius
constexpr double kLeastSlender = 0.6;

/// a x^2 + b xy + c y^2 + d x + e y = 1 about the mean of the points.
struct Ellipse {
    Vec2 middle, half;  // of the longer axis
    double slender = 1;
    /// Distance of a point from the edge along the ray from the middle, as a share of the radius there.
    double off(const Vec2& p) const {
        const double r = half.norm();
        const Vec2 u = half / r, v(-u.y(), u.x()), d = p - middle;
        return std::hypot(d.dot(u) / r, d.dot(v) / (r * slender)) - 1;
    }
};

std::optional<Ellipse> fitted(const std::vector<Vec2>& points) {
    if (points.size() < 5) return std::nullopt;
    Vec2 mean = Vec2::Zero();
    for (const Vec2& p : points) mean += p / static_cast<double>(points.size());
    double size = 0;
    for (const Vec2& p : points) size += (p - mean).norm() / static_cast<double>(points.size());
    Eigen::Matrix<double, 5, 5> m = Eigen::Matrix<double, 5, 5>::Zero();
    Eigen::Matrix<double, 5, 1> v = Eigen::Matrix<double, 5, 1>::Zero();
    for (const Vec2& p : points) {
        const Vec2 q = (p - mean) / size;
        Eigen::Matrix<double, 5, 1> row;
        row << q.x() * q.x(), q.x() * q.y(), q.y() * q.y(), q.x(), q.y();
        m += row * row.transpose();
        v += row;
    }
    const Eigen::Matrix<double, 5, 1> c = m.ldlt().solve(v);
    Eigen::Matrix2d form;
    form << c(0), 0.5 * c(1), 0.5 * c(1), c(2);
    if (!(form.determinant() > 1e-9 && c(0) > 0)) return std::nullopt;
    const Vec2 middle = -0.5 * form.inverse() * Vec2(c(3), c(4));
    const double k = 1 + middle.dot(form * middle);
    const Eigen::SelfAdjointEigenSolver<Eigen::Matrix2d> eigen(form / k);
    if (!(eigen.eigenvalues()(0) > 0)) return std::nullopt;
    const double longer = 1 / std::sqrt(eigen.eigenvalues()(0)),
                 shorter = 1 / std::sqrt(eigen.eigenvalues()(1));
    return Ellipse{mean + size * middle, size * longer * Vec2(eigen.eigenvectors().col(0)), shorter / longer};
}

/// The places of sharp change along each ray, with how sharp.
struct Edge {
    Vec2 at;
    double sharp;
};
double changeAt(const std::vector<Plane>& planes, const Vec2& p, const Vec2& along) {
    double sum = 0;
    for (const Plane& plane : planes)
        sum += std::pow(plane.sample(p + 1.5 * along) - plane.sample(p - 1.5 * along), 2);
    return std::sqrt(sum);
}

}  // namespace

Result<SeenCoin> coinAt(const Picture& picture, const Vec2& inside) {
    // In one piece: rays, edge, ellipse and its doubts share the same samples.
    const Error none{"no_coin",
                     NINE_WORDS("core",
                                "No coin is found here. Click into its middle; it should lie free, on "
                                "ground of another colour."),
                     "coin"};
    if (picture.empty() ||
        !(inside.x() >= 0 && inside.y() >= 0 && inside.x() < picture.width && inside.y() < picture.height))
        return none;
    const int factor = factorFor(picture, kWork_px);
    std::vector<Plane> lab = labPlanes(reduced(picture, factor));
    for (Plane& plane : lab) plane = smoothed(plane, 0.8);
    const Vec2 start = inside / factor;
    const double reach = 0.5 * std::min(lab[0].width, lab[0].height);
    // All sharp places on each ray; then the radius that most rays agree on, twice, from a better middle.
    std::vector<std::vector<Edge>> rays(kRays);
    std::vector<float> all;
    for (std::size_t k = 0; k < kRays; ++k) {
        const double a = 2 * kPi * static_cast<double>(k) / kRays;
        const Vec2 along(std::cos(a), std::sin(a));
        double before = 0, here = 0;
        for (double r = 3; r < reach; r += 0.5) {
            const Vec2 p = start + r * along;
            if (p.x() < 2 || p.y() < 2 || p.x() > lab[0].width - 2 || p.y() > lab[0].height - 2) break;
            const double next = changeAt(lab, p, along);
            if (here > before && here >= next && r > 4) rays[k].push_back({p - 0.5 * along, here});
            all.push_back(static_cast<float>(next));
            before = here;
            here = next;
        }
    }
    if (all.empty()) return none;
    // Grain has edges everywhere; a rim is as sharp as the sharpest.
    const double noise = std::max<double>(4 * quantile(all, 0.5), 0.25 * quantile(all, 0.985));
    for (auto& ray : rays) std::erase_if(ray, [&](const Edge& edge) { return edge.sharp <= noise; });
    // Ellipses through the edges at five rays, the one that most rays agree with (random sample consensus).
    std::optional<Ellipse> best;
    double bestVotes = 0;
    std::uint32_t state = 12345;
    const auto draw = [&](std::size_t below) {
        state = state * 1664525u + 1013904223u;
        return static_cast<std::size_t>(state >> 8) % below;
    };
    const auto votesOf = [&](const Ellipse& e, std::vector<Vec2>* agreeing) {
        double votes = 0;
        for (const auto& ray : rays) {
            const Edge* nearest = nullptr;
            for (const Edge& edge : ray)
                if (std::abs(e.off(edge.at)) < kAgree && (!nearest || edge.sharp > nearest->sharp))
                    nearest = &edge;
            if (!nearest) continue;
            votes += 1;
            if (agreeing) agreeing->push_back(nearest->at);
        }
        return votes;
    };
    for (int round = 0; round < 4000; ++round) {
        std::vector<Vec2> sample;
        for (std::size_t k = 0; k < kSample; ++k) {
            const auto& ray = rays[draw(kRays / kSample) + k * (kRays / kSample)];
            if (ray.empty()) continue;
            // The sharper ones of a ray first.
            const Edge* pick = &ray[draw(ray.size())];
            for (int t = 0; t < 2; ++t) {
                const Edge& other = ray[draw(ray.size())];
                if (other.sharp > pick->sharp) pick = &other;
            }
            sample.push_back(pick->at);
        }
        const std::optional<Ellipse> e = fitted(sample);
        if (!e || e->slender < kLeastSlender || e->half.norm() > reach || e->off(start) > -0.2) continue;
        const double votes = votesOf(*e, nullptr) + 1e-3 * e->half.norm();  // the rim, not the print within
        if (votes <= bestVotes) continue;
        bestVotes = votes;
        best = e;
    }
    if (!best || bestVotes < kEnough * kRays) return none;
    std::vector<Vec2> agreeing;
    for (int round = 0; round < 3; ++round) {
        agreeing.clear();
        votesOf(*best, &agreeing);
        const std::optional<Ellipse> finer = fitted(agreeing);
        if (!finer) return none;
        best = finer;
    }
    if (factor * best->half.norm() < kLeastRadius_px) return none;
    SeenCoin coin;
    coin.middle = factor * best->middle;
    coin.half_px = factor * best->half;
    coin.slender = best->slender;
    coin.slant_deg = radToDeg(std::acos(std::clamp(best->slender, 0.0, 1.0)));
    double sum = 0;
    for (const Vec2& p : agreeing) sum += std::pow(best->off(p), 2);
    coin.miss_px = coin.half_px.norm() * std::sqrt(sum / static_cast<double>(agreeing.size()));
    return coin;
}

std::optional<Warning> slantWarning(const SeenCoin& coin) {
    constexpr double kWorthSaying_deg = 8;  // a hundredth
    if (coin.slant_deg < kWorthSaying_deg) return std::nullopt;
    return Warning{"camera_slants",
                   Words(NINE_WORDS("core",
                                    "The camera looks down at a slant of about {slant} degrees: across "
                                    "it everything is seen {short} % too short. Hold it straight above, "
                                    "far away."))
                       .number("slant", coin.slant_deg, 0)
                       .number("short", 100 * (1 - coin.slender), 1),
                   "photo"};
}

}  // namespace nine
