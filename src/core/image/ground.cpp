#include "image/ground.h"

#include <Eigen/Dense>
#include <algorithm>
#include <cmath>

#include "base/parallel.h"

namespace nine {
namespace {

constexpr double kBorderShare = 0.04;  // of the shorter side: the strip the ground is read from

}  // namespace

GroundPlane groundOf(const Plane& plane) {
    const int strip = std::max(4, static_cast<int>(kBorderShare * std::min(plane.width, plane.height)));
    std::vector<Vec3> points;
    for (int y = 0; y < plane.height; y += 2) {
        for (int x = 0; x < plane.width; x += 2) {
            const bool edge = x < strip || y < strip || x >= plane.width - strip || y >= plane.height - strip;
            if (edge) points.emplace_back(x, y, plane.at(x, y));
        }
    }
    GroundPlane ground;
    double limit = 1e18;
    for (int round = 0; round < 4; ++round) {
        Eigen::Matrix3d a = Eigen::Matrix3d::Zero();
        Eigen::Vector3d b = Eigen::Vector3d::Zero();
        for (const Vec3& p : points) {
            if (round > 0 &&
                std::abs(p.z() - ground.c(0) - ground.c(1) * p.x() - ground.c(2) * p.y()) > limit)
                continue;
            const Eigen::Vector3d basis(1, p.x(), p.y());
            a += basis * basis.transpose();
            b += p.z() * basis;
        }
        ground.c = a.ldlt().solve(b);
        std::vector<float> misses;
        for (const Vec3& p : points)
            misses.push_back(static_cast<float>(
                std::abs(p.z() - ground.c(0) - ground.c(1) * p.x() - ground.c(2) * p.y())));
        ground.sigma = 1.4826 * quantile(std::move(misses), 0.5);  // from the median, for a normal spread
        limit = std::max(0.5, 2.5 * ground.sigma);
    }
    return ground;
}

Difference differenceFrom(const std::vector<Plane>& lab, const GroundPlane (&ground)[3]) {
    const int width = lab[0].width, height = lab[0].height;
    Difference d{Plane(width, height), Plane(width, height), PixelSet(width, height)};
    forEachInParallel(static_cast<std::size_t>(height), [&](std::size_t row) {
        const int y = static_cast<int>(row);
        for (int x = 0; x < width; ++x) {
            const double l = lab[0].at(x, y), l0 = ground[0].at(x, y);
            const double a0 = ground[1].at(x, y), b0 = ground[2].at(x, y);
            const double k = (l + 16) / (l0 + 16), light = kLightWeight * (l - l0);
            const double da = lab[1].at(x, y) - a0, db = lab[2].at(x, y) - b0;
            d.all.at(x, y) = static_cast<float>(std::sqrt(light * light + da * da + db * db));
            d.colour.at(x, y) =
                static_cast<float>(std::hypot(lab[1].at(x, y) - k * a0, lab[2].at(x, y) - k * b0));
            d.darker.set(x, y, l < l0);
        }
    });
    return d;
}

/// Where the difference leaves the unevenness of the ground, as the border of the picture shows it.
double groundLevel(const Plane& soft) {
    constexpr double kLeast = 3.5, kAboveMedian = 4;
    const int strip = std::max(4, static_cast<int>(kBorderShare * std::min(soft.width, soft.height)));
    std::vector<float> values;
    for (int y = 0; y < soft.height; y += 2)
        for (int x = 0; x < soft.width; x += 2)
            if (x < strip || y < strip || x >= soft.width - strip || y >= soft.height - strip)
                values.push_back(soft.at(x, y));
    const double median = quantile(values, 0.5), high = quantile(std::move(values), 0.95);
    return std::max(kLeast, median + kAboveMedian * 0.6 * (high - median));
}

}  // namespace nine
