#include "image/border.h"

#include <algorithm>
#include <array>
#include <cmath>
#include <optional>

#include "geom/polygon_set.h"
#include "image/run_on.h"

namespace nine {
namespace {

constexpr double kApart_px = 2;   // points of the line
constexpr double kStep_px = 0.5;  // places along a normal
constexpr int kPlaces = static_cast<int>(2 * kBorderReach_px / kStep_px) + 1;
constexpr int kSteepest = 2, kSlopes = 2 * kSteepest + 1;  // steps from one point to the next
constexpr double kClear = 8;                               // L*a*b* units: an edge that needs no more
constexpr double kNotGround = 0.3;                         // what an edge counts with something outside it
constexpr double kTurnCost = 0.12, kSlopeCost = 0.015, kAwayCost = 0.06;
constexpr double kSteepestShare = 0.5;
constexpr double kSeen = 0.31;  // more than an edge with no ground outside it can count

Vec3 labAt(const std::vector<Plane>& lab, const Vec2& p) {
    return {lab[0].sample(p), lab[1].sample(p), lab[2].sample(p)};
}
bool has(const PixelSet& set, const Vec2& p) {
    const int x = static_cast<int>(p.x()), y = static_cast<int>(p.y());
    return set.inside(x, y) && set.at(x, y);
}
double offsetOf(int place) {
    return place * kStep_px - kBorderReach_px;
}

/// Unit normals of a closed line, inwards.
std::vector<Vec2> inwardNormals(const Polyline2& line) {
    const std::size_t n = line.size();
    const double side = polygonArea(line) > 0 ? 1 : -1;
    std::vector<Vec2> normals;
    for (std::size_t i = 0; i < n; ++i) {
        const Vec2 along = (line[(i + 2) % n] - line[(i + n - 2) % n]).normalized();
        normals.emplace_back(side * Vec2(-along.y(), along.x()));
    }
    return normals;
}

/// How much speaks for the outline passing each place, 0 to 1; point by point.
using Evidence = std::vector<std::array<float, kPlaces>>;
Evidence evidenceAlong(const Polyline2& line, const std::vector<Vec2>& inward, const BorderSight& sight) {
    constexpr double kAcross_px = 1.5, kOutside_px = 5, kNoiseTimes = 2;
    Evidence evidence(line.size()), onlyGround(line.size());
    std::vector<float> onGround;
    for (std::size_t i = 0; i < line.size(); ++i) {
        const bool blind = has(sight.covered, line[i]);
        for (int k = 0; k < kPlaces; ++k) {
            const Vec2 p = line[i] + offsetOf(k) * inward[i], across = kAcross_px * inward[i];
            const Vec2 outside = p - kOutside_px * inward[i];
            double change = (labAt(sight.lab, p + across) - labAt(sight.lab, p - across)).norm();
            const bool ground = has(sight.groundLike, outside);
            if (ground && k < kPlaces / 6) onGround.push_back(static_cast<float>(change));
            // Below something that hangs on, edges within the body would be all there is to follow.
            onlyGround[i][static_cast<std::size_t>(k)] =
                ground ? 1.0F : static_cast<float>(blind ? 0 : kNotGround);
            if (has(sight.covered, p) || has(sight.covered, outside) || has(sight.fixed, p) ||
                has(sight.fixed, outside))
                change = 0;
            evidence[i][static_cast<std::size_t>(k)] = static_cast<float>(change);
        }
    }
    const double noise = onGround.empty() ? 1 : kNoiseTimes * quantile(std::move(onGround), 0.75);
    const double clear = std::max(kClear, 2 * noise);
    for (std::size_t i = 0; i < line.size(); ++i) {
        // Among places that are clear enough, the steepest of its neighbourhood with ground outside it.
        float most = 1e-6F;
        for (std::size_t k = 0; k < evidence[i].size(); ++k)
            if (onlyGround[i][k] == 1.0F) most = std::max(most, evidence[i][k]);
        for (std::size_t k = 0; k < evidence[i].size(); ++k) {
            float& v = evidence[i][k];
            const double enough = std::clamp((v - noise) / (clear - noise), 0.0, 1.0),
                         steep = std::min(1.0F, v / most);
            v = static_cast<float>(onlyGround[i][k] * enough * (1 - kSteepestShare + kSteepestShare * steep));
        }
    }
    return evidence;
}

/// The way round with the least cost: its place at each point. The line is gone round once and a bit, and the
/// bit dropped, so that where it began does not show.
std::vector<int> bestWay(const Evidence& evidence) {
    const std::size_t n = evidence.size(), over = n / 5, count = n + 2 * over;
    struct Cell {
        float cost = 1e9F;
        std::int8_t before = 0;  // slope with which the place before was reached
    };
    using Row = std::vector<Cell>;
    const auto cell = [](int place, int slope) {
        return static_cast<std::size_t>(place * kSlopes + slope + kSteepest);
    };
    const auto own = [&](std::size_t i, int place) {
        const double away = offsetOf(place) / kBorderReach_px;
        return static_cast<float>(kAwayCost * away * away) -
               evidence[(i + n - over) % n][static_cast<std::size_t>(place)];
    };
    std::vector<Row> rows(count, Row(static_cast<std::size_t>(kPlaces * kSlopes)));
    for (int place = 0; place < kPlaces; ++place)
        for (int slope = -kSteepest; slope <= kSteepest; ++slope)
            rows[0][cell(place, slope)].cost = own(0, place);
    for (std::size_t i = 1; i < count; ++i) {
        for (int place = 0; place < kPlaces; ++place) {
            const float here = own(i, place);
            for (int slope = -kSteepest; slope <= kSteepest; ++slope) {
                const int from = place - slope;
                if (from < 0 || from >= kPlaces) continue;
                Cell& best = rows[i][cell(place, slope)];
                for (int before = -kSteepest; before <= kSteepest; ++before) {
                    const int turn = slope - before;
                    const float cost =
                        rows[i - 1][cell(from, before)].cost + here +
                        static_cast<float>(kTurnCost * turn * turn + kSlopeCost * slope * slope);
                    if (cost < best.cost) best = {cost, static_cast<std::int8_t>(before)};
                }
            }
        }
    }
    std::vector<int> way(n);
    const auto last = std::min_element(rows.back().begin(), rows.back().end(),
                                       [](const Cell& a, const Cell& b) { return a.cost < b.cost; });
    auto at = static_cast<int>(last - rows.back().begin());
    for (std::size_t i = count; i-- > 0;) {
        const int place = at / kSlopes, slope = at % kSlopes - kSteepest;
        if (i >= over && i < over + n) way[i - over] = place;
        if (i > 0) at = static_cast<int>(cell(place - slope, rows[i][static_cast<std::size_t>(at)].before));
    }
    return way;
}

/// How far inwards from `at` the picture passes half way from its colour outside to that inside, in pixels
/// worked on; nothing where both are alike.
std::optional<double> halfWay(const Vec2& at, const Vec2& inward, double thickness,
                              const BorderSight& sight) {
    constexpr double kNear_px = 1.5, kFar_px = 3, kLeastDifference = 6;
    const double f = sight.factor;
    const auto colour = [&](double t) { return sampleRgb(sight.picture, f * (at + t * inward)); };
    const auto mean = [&](double from, double to) {
        Vec3 sum = Vec3::Zero();
        constexpr int kSamples = 7;
        for (int k = 0; k < kSamples; ++k) sum += colour(from + (to - from) * k / (kSamples - 1));
        return Vec3(sum / kSamples);
    };
    const double deep = std::clamp(0.8 * thickness, kNear_px, kFar_px);
    const Vec3 outside = mean(-kFar_px, -kNear_px),
               body = mean(std::min(kNear_px, 0.7 * deep), deep) - outside;
    if (body.norm() < kLeastDifference) return std::nullopt;
    const auto share = [&](double t) { return (colour(t) - outside).dot(body) / body.squaredNorm(); };
    const double step = 0.5 / f;
    std::optional<double> best;
    double before = share(-kNear_px);
    for (double t = -kNear_px + step; t <= kNear_px; t += step) {
        const double now = share(t);
        if (before <= 0.5 && now > 0.5) {
            const double crossing = t - step * (now - 0.5) / (now - before);
            if (!best || std::abs(crossing) < std::abs(*best)) best = crossing;
        }
        before = now;
    }
    return best;
}

/// How much the colours on both sides of a stretch, which something hides, speak for it: inside as the body
/// is just within the line nearby, outside not.
double likelyHere(const Polyline2& stretch, const BorderSight& sight, double inwardSide) {
    constexpr double kAside_px = 2.5;
    const auto normalAt = [&](const Polyline2& line, std::size_t i) {
        const Vec2 along = line[std::min(i + 1, line.size() - 1)] - line[i > 0 ? i - 1 : 0];
        return along.norm() > 1e-9 ? Vec2(inwardSide * Vec2(-along.y(), along.x()).normalized()) : Vec2(0, 0);
    };
    const std::size_t n = stretch.size();
    const Vec3 bodies[] = {labAt(sight.lab, stretch.front() + 2 * kAside_px * normalAt(stretch, 0)),
                           labAt(sight.lab, stretch.back() + 2 * kAside_px * normalAt(stretch, n - 1))};
    const auto unlike = [&](const Vec2& p) {
        const Vec3 lab = labAt(sight.lab, p);
        return std::min((lab - bodies[0]).norm(), (lab - bodies[1]).norm());
    };
    double sum = 0;
    for (std::size_t i = 0; i < n; ++i) {
        const Vec2 aside = kAside_px * normalAt(stretch, i);
        const double in = unlike(stretch[i] + aside), out = unlike(stretch[i] - aside);
        sum += (out - in) / (out + in + kClear);
    }
    return sum / static_cast<double>(n);
}

}  // namespace

Border borderNear(const Polyline2& about, const BorderSight& sight) {
    Border border;
    border.line = evenlySpaced(about, kApart_px, kApart_px);
    const std::size_t n = border.line.size();
    const std::vector<Vec2> inward = inwardNormals(border.line);
    const Evidence evidence = evidenceAlong(border.line, inward, sight);
    const std::vector<int> way = bestWay(evidence);
    border.seen.resize(n);
    for (std::size_t i = 0; i < n; ++i) {
        border.line[i] += offsetOf(way[i]) * inward[i];
        border.seen[i] = evidence[i][static_cast<std::size_t>(way[i])] > kSeen;
    }
    for (int round = 0; round < 2; ++round) {  // what is outside and inside is known better the second time
        const std::vector<Vec2> normals = inwardNormals(border.line);
        const Polyline2 before = border.line;
        for (std::size_t i = 0; i < n; ++i) {
            if (!border.seen[i]) continue;
            const double thickness = sight.thickness.sample(before[i] + 4 * normals[i]);
            const auto by = halfWay(before[i], normals[i], thickness, sight);
            if (by) border.line[i] = before[i] + *by * normals[i];
        }
    }
    const double inwardSide = polygonArea(border.line) > 0 ? 1 : -1;
    const Likely likely = [&](const Polyline2& stretch) { return likelyHere(stretch, sight, inwardSide); };
    const PixelSet besideFixed = grown(sight.fixed, 8);  // as far as the evidence looks
    std::vector<bool> blind(n);
    for (std::size_t i = 0; i < n; ++i) {
        blind[i] =
            !has(besideFixed, border.line[i]) && (!border.seen[i] || has(sight.covered, border.line[i]));
        border.seen[i] = !blind[i];
    }
    runOn(border.line, blind, likely);
    return border;
}

}  // namespace nine
