// The outline against an ellipse whose border is known, painted by counting the parts of each pixel.
#include "image/border.h"

#include <gtest/gtest.h>

#include <cmath>
#include <functional>
#include <random>

#include "base/units.h"

namespace nine {
namespace {

constexpr int kWide = 640, kHigh = 400;
constexpr double kA = 230, kB = 90;
const Vec2 kMiddle(kWide / 2.0, kHigh / 2.0);

bool inEllipse(const Vec2& p) {
    const Vec2 d = p - kMiddle;
    return d.x() * d.x() / (kA * kA) + d.y() * d.y() / (kB * kB) < 1;
}

/// Each pixel the mean of what `colour` says at 64 places of it, with a grain.
Picture painted(const std::function<Vec3(const Vec2&)>& colour) {
    std::mt19937 random(5);
    std::normal_distribution<double> grain(0, 2);
    Picture picture(kWide, kHigh);
    for (int y = 0; y < kHigh; ++y)
        for (int x = 0; x < kWide; ++x) {
            Vec3 sum = Vec3::Zero();
            for (int k = 0; k < 64; ++k) sum += colour(Vec2(x + (k % 8 + 0.5) / 8, y + (k / 8 + 0.5) / 8));
            for (int c = 0; c < 3; ++c)
                picture.at(x, y)[c] =
                    static_cast<std::uint8_t>(std::clamp(sum[c] / 64 + grain(random), 0.0, 255.0));
        }
    return picture;
}

Polyline2 ellipse(double outwards) {
    Polyline2 line;
    for (int i = 0; i < 400; ++i)
        line.push_back(kMiddle + Vec2((kA + outwards) * std::cos(2 * kPi * i / 400),
                                      (kB + outwards) * std::sin(2 * kPi * i / 400)));
    return line;
}

struct Found {
    double worst = 0, rms = 0;
};
/// How far the border lies from the ellipse, pixels, when it is begun `off` pixels outside of it.
Found found(const Picture& picture, double off, const std::function<bool(const Vec2&)>& ground,
            const std::function<bool(const Vec2&)>& taken) {
    std::vector<Plane> lab;
    for (const Plane& plane : labPlanes(picture)) lab.push_back(smoothed(plane, 0.7));
    PixelSet groundLike(kWide, kHigh), covered(kWide, kHigh), outside(kWide, kHigh);
    const PixelSet fixed(kWide, kHigh);
    for (int y = 0; y < kHigh; ++y)
        for (int x = 0; x < kWide; ++x) {
            const Vec2 p(x + 0.5, y + 0.5);
            groundLike.set(x, y, ground(p));
            covered.set(x, y, taken(p));
            outside.set(x, y, !inEllipse(p));
        }
    const Plane thickness = distanceTo(outside);
    const Border border = borderNear(ellipse(off), {picture, 1, lab, groundLike, covered, fixed, thickness});
    const Polyline2 want = [] {
        Polyline2 fine;
        for (int i = 0; i < 8000; ++i)
            fine.push_back(kMiddle +
                           Vec2(kA * std::cos(2 * kPi * i / 8000), kB * std::sin(2 * kPi * i / 8000)));
        return fine;
    }();
    Found result;
    for (const Vec2& p : border.line) {
        double least = 1e9;
        for (const Vec2& q : want) least = std::min(least, (p - q).norm());
        result.worst = std::max(result.worst, least);
        result.rms += least * least;
    }
    result.rms = std::sqrt(result.rms / static_cast<double>(border.line.size()));
    return result;
}

const Vec3 kGround(210, 208, 200), kBody(120, 70, 60);
const auto kNothing = [](const Vec2&) { return false; };
const auto kOutside = [](const Vec2& p) { return !inEllipse(p); };

TEST(Borders, AreFoundToATenthOfAPixelFromOutsideAndInside) {
    const Picture picture = painted([](const Vec2& p) { return inEllipse(p) ? kBody : kGround; });
    for (const double off : {-9.0, 0.0, 9.0}) {
        const Found f = found(picture, off, kOutside, kNothing);
        EXPECT_LT(f.rms, 0.1) << off;
        EXPECT_LT(f.worst, 0.6) << off;
    }
}

/// Grain nearly as strong as the edge: begun 4 pixels off, the line comes half way nearer at least.
TEST(Borders, AreFoundThroughGrain) {
    std::mt19937 random(9);
    std::normal_distribution<double> grain(0, 6);
    Picture picture = painted([](const Vec2& p) { return inEllipse(p) ? Vec3(184, 180, 172) : kGround; });
    for (std::uint8_t& v : picture.rgb)
        v = static_cast<std::uint8_t>(std::clamp(v + grain(random), 0.0, 255.0));
    EXPECT_LT(found(picture, 4, kOutside, kNothing).rms, 2);
}

TEST(Borders, PassABarOfTheGroundsColour) {
    const Picture picture = painted([](const Vec2& p) {
        const bool bar = std::abs(p.x() - kMiddle.x() - 40) < 9;
        return inEllipse(p) && !bar ? kBody : kGround;
    });
    const auto ground = [](const Vec2& p) { return !inEllipse(p) || std::abs(p.x() - kMiddle.x() - 40) < 9; };
    const Found f = found(picture, 3, ground, kNothing);
    EXPECT_LT(f.rms, 0.4);
    EXPECT_LT(f.worst, 2.5);
}

/// A line of paint within the body is a sharper edge than the body's own; it is not its border.
TEST(Borders, AreNotDrawnToSharperLinesWithin) {
    const auto dark = [](const Vec2& p) {
        const Vec2 d = p - kMiddle;
        return d.x() * d.x() / ((kA - 12) * (kA - 12)) + d.y() * d.y() / ((kB - 12) * (kB - 12)) < 1;
    };
    const Picture picture = painted([&](const Vec2& p) {
        return dark(p) ? Vec3(20, 20, 20) : inEllipse(p) ? Vec3(190, 180, 150) : kGround;
    });
    const Found f = found(picture, -4, kOutside, kNothing);
    EXPECT_LT(f.worst, 1.5);
}

/// Below a ring that was taken off the border goes on as it came.
TEST(Borders, GoOnBelowWhatWasTakenOff) {
    const Vec2 at = kMiddle + Vec2(0, kB + 8);
    const auto ring = [&](const Vec2& p) { return std::abs((p - at).norm() - 12) < 3; };
    const Picture picture = painted([&](const Vec2& p) {
        return ring(p) ? Vec3(40, 40, 45) : inEllipse(p) ? kBody : kGround;
    });
    const auto taken = [&](const Vec2& p) { return std::abs((p - at).norm() - 12) < 7; };
    const Found f = found(
        picture, 2, [&](const Vec2& p) { return !inEllipse(p) && !ring(p); }, taken);
    EXPECT_LT(f.rms, 0.3);
    EXPECT_LT(f.worst, 1.5);
}

}  // namespace
}  // namespace nine
