#include "image/picture.h"

#include <algorithm>
#include <array>
#include <cmath>

#include "base/parallel.h"

namespace nine {
namespace {

/// sRGB value to linear light (IEC 61966-2-1).
double linearOf(double value255) {
    const double v = value255 / 255;
    return v <= 0.04045 ? v / 12.92 : std::pow((v + 0.055) / 1.055, 2.4);
}

/// The same for all 8-bit values.
const std::array<double, 256>& linearTable() {
    static const std::array<double, 256> table = [] {
        std::array<double, 256> t;
        for (int i = 0; i < 256; ++i) t[static_cast<std::size_t>(i)] = linearOf(i);
        return t;
    }();
    return table;
}

double labCurve(double t) {
    constexpr double kKnee = 216.0 / 24389;
    return t > kKnee ? std::cbrt(t) : (24389.0 / 27 * t + 16) / 116;
}

Vec3 labOfLinear(double r, double g, double b) {
    const double x = (0.4124 * r + 0.3576 * g + 0.1805 * b) / 0.9505;
    const double y = 0.2126 * r + 0.7152 * g + 0.0722 * b;
    const double z = (0.0193 * r + 0.1192 * g + 0.9505 * b) / 1.0890;
    const double fx = labCurve(x), fy = labCurve(y), fz = labCurve(z);
    return {116 * fy - 16, 500 * (fx - fy), 200 * (fy - fz)};
}

struct Bilinear {
    int x0, y0, x1, y1;
    double u, v;
};
Bilinear around(const Vec2& p, int width, int height) {
    const double x = std::clamp(p.x() - 0.5, 0.0, width - 1.0),
                 y = std::clamp(p.y() - 0.5, 0.0, height - 1.0);
    const int x0 = static_cast<int>(x), y0 = static_cast<int>(y);
    return {x0, y0, std::min(x0 + 1, width - 1), std::min(y0 + 1, height - 1), x - x0, y - y0};
}

}  // namespace

float Plane::sample(const Vec2& p) const {
    const Bilinear b = around(p, width, height);
    const double upper = (1 - b.u) * at(b.x0, b.y0) + b.u * at(b.x1, b.y0);
    const double lower = (1 - b.u) * at(b.x0, b.y1) + b.u * at(b.x1, b.y1);
    return static_cast<float>((1 - b.v) * upper + b.v * lower);
}

Vec3 sampleRgb(const Picture& picture, const Vec2& p) {
    const Bilinear b = around(p, picture.width, picture.height);
    Vec3 colour;
    for (int c = 0; c < 3; ++c) {
        const double upper = (1 - b.u) * picture.at(b.x0, b.y0)[c] + b.u * picture.at(b.x1, b.y0)[c];
        const double lower = (1 - b.u) * picture.at(b.x0, b.y1)[c] + b.u * picture.at(b.x1, b.y1)[c];
        colour[c] = (1 - b.v) * upper + b.v * lower;
    }
    return colour;
}

int factorFor(const Picture& picture, int longest) {
    return std::max(1, (std::max(picture.width, picture.height) + longest - 1) / longest);
}

Picture reduced(const Picture& picture, int factor) {
    if (factor <= 1) return picture;
    Picture small(picture.width / factor, picture.height / factor);
    const auto count = static_cast<unsigned>(factor * factor), half = count / 2;
    forEachInParallel(static_cast<std::size_t>(small.height), [&](std::size_t row) {
        const int y = static_cast<int>(row), values = 3 * small.width;
        std::vector<unsigned> sums(static_cast<std::size_t>(values), half);
        for (int dy = 0; dy < factor; ++dy) {
            const std::uint8_t* from = picture.at(0, y * factor + dy);
            for (unsigned* sum = sums.data(); sum != sums.data() + values; sum += 3)
                for (int dx = 0; dx < factor; ++dx, from += 3)
                    for (int c = 0; c < 3; ++c) sum[c] += from[c];
        }
        std::uint8_t* to = small.at(0, y);
        for (int i = 0; i < values; ++i)
            to[i] = static_cast<std::uint8_t>(sums[static_cast<std::size_t>(i)] / count);
    });
    return small;
}

Plane luma(const Picture& picture) {
    Plane plane(picture.width, picture.height);
    const std::uint8_t* p = picture.rgb.data();
    for (float& v : plane.values) {
        v = static_cast<float>((0.299 * p[0] + 0.587 * p[1] + 0.114 * p[2]) / 255);
        p += 3;
    }
    return plane;
}

Vec3 labOf(const Vec3& rgb255) {
    const auto linear = [](double v) {
        return linearTable()[static_cast<std::size_t>(std::clamp(std::lround(v), 0L, 255L))];
    };
    return labOfLinear(linear(rgb255.x()), linear(rgb255.y()), linear(rgb255.z()));
}

std::vector<Plane> labPlanes(const Picture& picture) {
    const auto& linear = linearTable();
    std::vector<Plane> planes(3, Plane(picture.width, picture.height));
    forEachInParallel(static_cast<std::size_t>(picture.height), [&](std::size_t row) {
        const int y = static_cast<int>(row);
        for (int x = 0; x < picture.width; ++x) {
            const std::uint8_t* p = picture.at(x, y);
            const Vec3 lab = labOfLinear(linear[p[0]], linear[p[1]], linear[p[2]]);
            for (std::size_t c = 0; c < 3; ++c)
                planes[c].at(x, y) = static_cast<float>(lab[static_cast<int>(c)]);
        }
    });
    return planes;
}

}  // namespace nine
