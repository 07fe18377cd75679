#include "scale/light.h"

#include <Eigen/LU>
#include <algorithm>
#include <cmath>

namespace nine {
namespace {

struct Segment {
    Vec2 a, b;
};

/// All strands of a layer within reach of a square about 0.
std::vector<Segment> segmentsAbout(const Net& net, const Eigen::Matrix2d& stretch, const NetShift& shift,
                                   double reach_mm) {
    const NetLaw law(net);
    const Eigen::Matrix2d turn = Eigen::Rotation2Dd(degToRad(shift.angle_deg)).toRotationMatrix();
    const Vec2 a = stretch * turn * law.first(), b = stretch * turn * law.second();
    const Vec2 off = stretch * Vec2(shift.along_mm, shift.across_mm), w = law.innerAt(a, b);
    const double least = std::abs(cross(a, b)) / std::max(a.norm(), b.norm());
    const int count = static_cast<int>(std::ceil(1.5 * reach_mm / least)) + 2;
    std::vector<Segment> all;
    for (int i = -count; i <= count; ++i)
        for (int j = -count; j <= count; ++j) {
            const Vec2 node = off + i * a + j * b;
            if (node.cwiseAbs().maxCoeff() > reach_mm + a.norm() + b.norm()) continue;
            if (net.weave == Weave::Hexagon) {
                all.push_back({node, node + w});
                all.push_back({node + w, node + a});
                all.push_back({node + w, node + b});
            } else {
                all.push_back({node, node + a});
                all.push_back({node, node + b});
            }
        }
    return all;
}

Vec2 leewards(const MistFrom& from) {
    // It comes from there, so shadows go the other way. v runs away from the whole line.
    return {-std::cos(degToRad(from.direction_deg)), std::sin(degToRad(from.direction_deg))};
}

void shade(std::vector<float>& lit, int pixels, double size_mm, const std::vector<Segment>& strands,
           double strand_mm, double height_mm, const MistFrom& from) {
    const double pixel = size_mm / pixels, slant = std::tan(degToRad(from.slant_deg));
    for (const Segment& s : strands) {
        const Vec2 along = (s.b - s.a).normalized(), side(-along.y(), along.x());
        const double lean =
            slant * leewards(from).dot(side);  // tangent of the angle in the strand's own section
        const double sec = std::sqrt(1 + lean * lean);
        // A cylinder whose middle stands height + d/2 over the skin.
        const double middle = (height_mm + strand_mm / 2) * lean, half = strand_mm / 2 * sec;
        // Along itself the shadow is moved too, which only matters at its ends.
        const Vec2 move = height_mm * slant * leewards(from).dot(along) * along;
        const double length = (s.b - s.a).norm();
        const Vec2 corner[4] = {s.a + side * (middle - half), s.a + side * (middle + half),
                                s.b + side * (middle - half), s.b + side * (middle + half)};
        Vec2 low = corner[0], high = corner[0];
        for (const Vec2& c : corner) {
            low = low.cwiseMin(c);
            high = high.cwiseMax(c);
        }
        const auto index = [&](double v) { return static_cast<int>(std::floor((v + size_mm / 2) / pixel)); };
        for (int y = std::max(0, index(low.y() + std::min(0.0, move.y())) - 1);
             y <= std::min(pixels - 1, index(high.y() + std::max(0.0, move.y())) + 1); ++y)
            for (int x = std::max(0, index(low.x() + std::min(0.0, move.x())) - 1);
                 x <= std::min(pixels - 1, index(high.x() + std::max(0.0, move.x())) + 1); ++x) {
                const Vec2 p((x + 0.5) * pixel - size_mm / 2, (y + 0.5) * pixel - size_mm / 2);
                const Vec2 q = p - s.a - move;
                const double t = q.dot(along), d = q.dot(side) - middle;
                if (t < 0 || t > length) continue;
                // Share of the pixel that is covered, by its distance from the shadow's edge.
                const double covered = std::clamp(0.5 + (half - std::abs(d)) / pixel, 0.0, 1.0);
                float& value = lit[static_cast<std::size_t>(y * pixels + x)];
                value = std::min(value, static_cast<float>(1 - covered));
            }
    }
}

void blur(std::vector<float>& field, int pixels, double sigma_px) {
    if (sigma_px < 0.3) return;
    const int reach = std::min(pixels, static_cast<int>(std::ceil(3 * sigma_px)));
    std::vector<float> weights(static_cast<std::size_t>(reach) + 1);
    float sum = 0;
    for (int i = 0; i <= reach; ++i) {
        weights[static_cast<std::size_t>(i)] =
            static_cast<float>(std::exp(-0.5 * i * i / (sigma_px * sigma_px)));
        sum += (i ? 2 : 1) * weights[static_cast<std::size_t>(i)];
    }
    std::vector<float> passed(field.size());
    for (const int step : {1, pixels}) {
        const int line = step == 1 ? pixels : 1;
        for (int k = 0; k < pixels; ++k)
            for (int i = 0; i < pixels; ++i) {
                float value = 0;
                for (int r = -reach; r <= reach; ++r)
                    value +=
                        weights[static_cast<std::size_t>(std::abs(r))] *
                        field[static_cast<std::size_t>(k * line + std::clamp(i + r, 0, pixels - 1) * step)];
                passed[static_cast<std::size_t>(k * line + i * step)] = value / sum;
            }
        field.swap(passed);
    }
}

}  // namespace

StrandShadow shadowOf(double strand_mm, double strand_deg, const MistFrom& from) {
    const Vec2 along(std::cos(degToRad(strand_deg)), std::sin(degToRad(strand_deg))),
        side(-along.y(), along.x());
    const double lean = std::abs(std::tan(degToRad(from.slant_deg)) * leewards(from).dot(side));
    const double sec = std::sqrt(1 + lean * lean);
    return {strand_mm / 2 * (sec - lean), strand_mm / 2 * (sec + lean)};
}

LightPatch lightUnder(const Net& net, const Eigen::Matrix2d& stretch, double gap_mm, const MistFrom& from,
                      double size_mm, int pixels, const NetShift* second) {
    LightPatch patch;
    patch.pixels = pixels;
    patch.size_mm = size_mm;
    const auto all = static_cast<std::size_t>(pixels * pixels);
    patch.arrives.assign(all, 1);
    const double slant = std::tan(degToRad(from.slant_deg));
    const double pixel = size_mm / pixels;
    const auto layer = [&](const NetShift& shift, double height) {
        std::vector<float> lit(all, 1);
        const double reach = size_mm / 2 + (height + net.strand_mm) * slant + net.along_mm;
        shade(lit, pixels, size_mm, segmentsAbout(net, stretch, shift, reach), net.strand_mm, height, from);
        blur(lit, pixels, from.spread * height / pixel);
        for (std::size_t i = 0; i < all; ++i) patch.arrives[i] = std::min(patch.arrives[i], lit[i]);
    };
    layer({}, gap_mm);
    if (second) layer(*second, gap_mm + net.strand_mm);
    double sum = 0;
    for (const float v : patch.arrives) sum += v;
    patch.mean = sum / static_cast<double>(all);
    return patch;
}

}  // namespace nine
