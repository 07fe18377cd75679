#include "image/pencil.h"

#include <algorithm>
#include <array>
#include <cmath>
#include <numbers>

#include "base/parallel.h"

namespace nine {
namespace {

constexpr double kWidestStroke_mm = 2.6;  // wider dark things are shadows, hands or filled shapes
constexpr double kShortestPiece_mm = 1;   // specks
constexpr double kLeastInk = 0.06;        // of the paper's brightness
constexpr double kNoiseTimes = 5;         // a stroke stands out of the paper's grain by this many deviations
constexpr double kPalerTimes = 4, kPalerShare = 0.45;

/// Ridges are looked for at this resolution, as means over lines of this length, against both sides.
constexpr double kRidgePerMm = 4, kRidgeLength_mm = 2.4, kRidgeSide_mm = 1.0;
constexpr int kRidgeWays = 12;
constexpr double kRidgeTimes = 5;                               // deviations of what grain alone gives
constexpr double kRidgeLeast = 0.012;                           // of the paper's brightness
constexpr double kShortestPale_mm = 4, kShortestJoin_mm = 2.2;  // on its own; where it meets a dark one

Plane inkOf(const FlatBox& box) {
    const int radius = static_cast<int>(std::lround(0.5 * kWidestStroke_mm * box.pixelsPerMm));
    const Plane grey = smoothed(box.grey, 0.11 * box.pixelsPerMm);
    const Plane paper = closed(grey, radius);
    Plane ink(grey.width, grey.height);
    for (std::size_t i = 0; i < ink.values.size(); ++i) {
        const float p = std::max(0.08F, paper.values[i]);
        ink.values[i] = box.covered.on[i] ? 0 : std::max(0.0F, (p - grey.values[i]) / p);
    }
    return ink;
}

struct Offset {
    int x = 0, y = 0;
};
Offset rounded(const Vec2& v) {
    return {static_cast<int>(std::lround(v.x())), static_cast<int>(std::lround(v.y()))};
}

/// The best mean along a line through each place less that of its sides, and which of the ways it runs.
struct Ridges {
    Plane height;
    std::vector<std::uint8_t> way;
};
Vec2 wayOf(int k) {
    const double a = std::numbers::pi * k / kRidgeWays;
    return {std::cos(a), std::sin(a)};
}

Ridges ridgesOf(const Plane& ink) {
    const int w = ink.width, h = ink.height;
    Ridges best{Plane(w, h, -1), std::vector<std::uint8_t>(ink.values.size(), 0)};
    std::vector<Plane> heights(kRidgeWays);
    forEachInParallel(kRidgeWays, [&](std::size_t k) {
        const Vec2 along = wayOf(static_cast<int>(k)), across(-along.y(), along.x());
        const int reach = static_cast<int>(0.5 * kRidgeLength_mm * kRidgePerMm);
        std::vector<Offset> line;
        for (int t = -reach; t <= reach; ++t) line.push_back(rounded(static_cast<double>(t) * along));
        Plane mean(w, h);
        for (int y = 0; y < h; ++y)
            for (int x = 0; x < w; ++x) {
                float sum = 0;
                for (const Offset& o : line)
                    sum += ink.at(std::clamp(x + o.x, 0, w - 1), std::clamp(y + o.y, 0, h - 1));
                mean.at(x, y) = sum / static_cast<float>(line.size());
            }
        const Offset side = rounded(kRidgeSide_mm * kRidgePerMm * across);
        heights[k] = Plane(w, h);
        for (int y = 0; y < h; ++y)
            for (int x = 0; x < w; ++x) {
                const auto at = [&](int s) {
                    return mean.at(std::clamp(x + s * side.x, 0, w - 1),
                                   std::clamp(y + s * side.y, 0, h - 1));
                };
                heights[k].at(x, y) = mean.at(x, y) - 0.5F * (at(1) + at(-1));
            }
    });
    for (std::size_t k = 0; k < kRidgeWays; ++k)
        for (std::size_t i = 0; i < best.way.size(); ++i)
            if (heights[k].values[i] > best.height.values[i]) {
                best.height.values[i] = heights[k].values[i];
                best.way[i] = static_cast<std::uint8_t>(k);
            }
    return best;
}

/// Places that stand out, are the crest of their ridge, and are dark themselves: beyond the end of a stroke
/// half of the line still lies on it.
PixelSet crestsOf(const Ridges& ridges, const Plane& ink, float level) {
    constexpr int kNear = static_cast<int>(0.5 * kRidgePerMm);
    constexpr double kItself = 0.6;
    const Plane& height = ridges.height;
    PixelSet crest(height.width, height.height);
    for (int y = 0; y < height.height; ++y)
        for (int x = 0; x < height.width; ++x) {
            const float here = height.at(x, y);
            if (here < level) continue;
            const Vec2 along = wayOf(ridges.way[height.index(x, y)]), across(-along.y(), along.x());
            bool highest = true;
            for (const double t : {-2.0, -1.0, 1.0, 2.0}) {
                const Offset o = rounded(t * across);
                if (height.inside(x + o.x, y + o.y) && height.at(x + o.x, y + o.y) > here) highest = false;
            }
            double itself = 0;
            for (int t = -kNear; t <= kNear; ++t) {
                const Offset o = rounded(static_cast<double>(t) * along);
                if (ink.inside(x + o.x, y + o.y)) itself += ink.at(x + o.x, y + o.y) / (2 * kNear + 1);
            }
            crest.set(x, y, highest && itself > kItself * here);
        }
    return crest;
}

/// The pale strokes: crests that run on long enough, or join dark strokes.
PixelSet paleStrokes(const Plane& ink, const PixelSet& dark, double pixelsPerMm) {
    const int factor = static_cast<int>(std::lround(pixelsPerMm / kRidgePerMm));
    const Plane small = reduced(ink, factor);
    const Ridges ridges = ridgesOf(small);
    const double usual = quantile(ridges.height.values, 0.5),
                 deviation = quantile(ridges.height.values, 0.8413) - usual;
    const double level = std::max(usual + kRidgeTimes * deviation, kRidgeLeast);
    PixelSet crest = crestsOf(ridges, small, static_cast<float>(level));
    // Near a dark stroke lines across it find it too, and say nothing.
    PixelSet near(crest.width, crest.height);
    for (int y = 0; y < near.height; ++y)
        for (int x = 0; x < near.width; ++x)
            for (int dy = 0; dy < factor; ++dy)
                for (int dx = 0; dx < factor; ++dx)
                    if (dark.at(factor * x + dx, factor * y + dy)) near.set(x, y, true);
    const PixelSet beside = grown(near, 0.3 * kRidgePerMm);
    for (std::size_t i = 0; i < crest.on.size(); ++i)
        if (beside.on[i]) crest.on[i] = 0;
    const PixelSet touching = grown(near, 0.6 * kRidgePerMm);
    PixelSet pale(ink.width, ink.height);
    for (const Part& part : partsOf(grown(crest, 1), true)) {
        const double length = std::hypot(part.width(), part.height()) / kRidgePerMm;
        const bool joins = std::any_of(part.pixels.begin(), part.pixels.end(),
                                       [&](std::size_t i) { return touching.on[i] != 0; });
        if (length < (joins ? kShortestJoin_mm : kShortestPale_mm)) continue;
        for (const std::size_t i : part.pixels) {
            if (!crest.on[i] && !touching.on[i]) continue;  // thin again, but up to the dark stroke
            const int x = static_cast<int>(i % static_cast<std::size_t>(crest.width)),
                      y = static_cast<int>(i / static_cast<std::size_t>(crest.width));
            for (int dy = 0; dy < factor; ++dy)
                for (int dx = 0; dx < factor; ++dx) pale.set(factor * x + dx, factor * y + dy, true);
        }
    }
    return pale;
}

/// The parts of `more` that hold anything of `sure`.
PixelSet hangingOn(const PixelSet& more, const PixelSet& sure) {
    PixelSet out(more.width, more.height);
    for (const Part& part : partsOf(more, true)) {
        if (std::none_of(part.pixels.begin(), part.pixels.end(), [&](std::size_t i) { return sure.on[i]; }))
            continue;
        for (const std::size_t i : part.pixels) out.on[i] = 1;
    }
    return out;
}

}  // namespace

std::optional<Drawn> drawnIn(const FlatBox& box) {
    Drawn drawn;
    drawn.ink = inkOf(box);
    const double strong = quantile(drawn.ink.values, 0.9975), grain = quantile(drawn.ink.values, 0.5);
    const double deviation = quantile(drawn.ink.values, 0.8413) - grain;
    drawn.faint = grain + 3 * deviation;
    drawn.level = std::max({0.42 * strong, kLeastInk, grain + kNoiseTimes * deviation});
    if (strong <= drawn.level) return std::nullopt;
    const PixelSet ink = above(drawn.ink, static_cast<float>(drawn.level));
    // Specks go; pieces of a broken line stay.
    drawn.dark = PixelSet(ink.width, ink.height);
    for (const Part& part : partsOf(ink, true)) {
        if (std::max(part.width(), part.height()) < kShortestPiece_mm * box.pixelsPerMm) continue;
        for (const std::size_t i : part.pixels) drawn.dark.on[i] = 1;
    }
    // What hangs on to a dark stroke may be paler; what stands alone must run on as a ridge.
    const double paler = std::max(grain + kPalerTimes * deviation, kPalerShare * drawn.level);
    drawn.lines = hangingOn(above(drawn.ink, static_cast<float>(paler)), drawn.dark);
    const PixelSet pale = paleStrokes(drawn.ink, drawn.lines, box.pixelsPerMm);
    for (std::size_t i = 0; i < pale.on.size(); ++i) drawn.lines.on[i] = drawn.lines.on[i] || pale.on[i];
    drawn.away = distanceTo(drawn.lines);
    return drawn;
}

}  // namespace nine
