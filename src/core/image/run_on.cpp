#include "image/run_on.h"

#include <algorithm>
#include <cmath>
#include <optional>

namespace nine {
namespace {

constexpr std::size_t kTouched = 4;  // points beside a blind stretch that are not believed
constexpr std::size_t kMoreTouched[] = {0, 4, 8, 12, 20, 32};  // nor more, while those beyond make no curve
constexpr double kCurve_px = 0.4;
constexpr std::size_t kLeastBeside = 8, kMostBeside = 24;
constexpr double kLittleTurn = 0.4, kHardlyTurns = 0.92;  // cosine between the directions on both sides
constexpr double kSmooth = 0.2;                           // likelier than a smooth curve a corner must be
constexpr double kFit_px = 0.6, kFitShare = 0.01;

struct Stretch {
    std::size_t first, count;  ///< first and last replaced point: first, first + count
};

/// Where one side comes to the stretch, and in which direction.
struct Arrival {
    Vec2 at, direction;
    double miss = 0;  ///< root mean square of what was seen from the curve
};

/// From points in order of travel that end at the stretch: a parabola through them.
std::optional<Arrival> arrivalOf(const Polyline2& points) {
    if (points.size() < kLeastBeside) return std::nullopt;
    const Vec2 end = points.back(), chord = end - points.front();
    if (!(chord.norm() > 1e-9)) return std::nullopt;
    const Vec2 along = chord.normalized(), left(-along.y(), along.x());
    Eigen::Matrix3d m = Eigen::Matrix3d::Identity() * 1e-12;
    Eigen::Vector3d v = Eigen::Vector3d::Zero();
    double all = 0;
    for (const Vec2& p : points) {
        const double t = (p - end).dot(along);
        const Eigen::Vector3d basis(1, t, t * t);
        m += basis * basis.transpose();
        v += basis * (p - end).dot(left);
        all += (p - end).dot(left) * (p - end).dot(left);
    }
    const Eigen::Vector3d c = m.ldlt().solve(v);
    return Arrival{end + c(0) * left, (along + c(1) * left).normalized(),
                   std::sqrt(std::max(0.0, all - c.dot(v)) / static_cast<double>(points.size()))};
}

/// A cubic through what is seen on both sides, or nothing where they are no such curve.
std::optional<Polyline2> cubicThrough(const Polyline2& before, const Polyline2& after, std::size_t count) {
    const Vec2 a = before.back(), b = after.front(), along = (b - a).normalized(),
               left(-along.y(), along.x());
    const double length = (b - a).norm();
    Eigen::Matrix4d m = Eigen::Matrix4d::Zero();
    Eigen::Vector4d v = Eigen::Vector4d::Zero();
    double all = 0, last = -1e9;
    for (const Polyline2* side : {&before, &after})
        for (const Vec2& p : *side) {
            const double t = (p - a).dot(along) / length, y = (p - a).dot(left);
            if (t <= last) return std::nullopt;
            last = t;
            const Eigen::Vector4d basis(1, t, t * t, t * t * t);
            m += basis * basis.transpose();
            v += basis * y;
            all += y * y;
        }
    const Eigen::Vector4d c = m.ldlt().solve(v);
    const auto used = static_cast<double>(before.size() + after.size());
    if (std::sqrt(std::max(0.0, all - c.dot(v)) / used) > std::max(kFit_px, kFitShare * length))
        return std::nullopt;
    Polyline2 curve;
    for (std::size_t k = 0; k <= count; ++k) {
        const double t = static_cast<double>(k) / static_cast<double>(count);
        curve.push_back(a + t * length * along + (c(0) + t * (c(1) + t * (c(2) + t * c(3)))) * left);
    }
    return curve;
}

/// Round an end, `pointed` from -1, cut off straight, over 0, an arc, to 1, both sides straight on to where
/// they meet.
Polyline2 roundTheEnd(const Arrival& in, const Arrival& out, const Vec2& meeting, double pointed,
                      std::size_t count) {
    const Vec2 u = in.direction, v = -out.direction;
    const double turn = std::abs(std::atan2(cross(u, v), u.dot(v)));
    const double reach =
        (out.at - in.at).norm() * 2 * std::tan(0.25 * turn) / std::max(0.1, std::sin(0.5 * turn));
    Polyline2 curve;
    for (std::size_t k = 0; k <= count; ++k) {
        const double w = static_cast<double>(k) / static_cast<double>(count), w2 = w * w, w3 = w2 * w;
        const Vec2 arc = (2 * w3 - 3 * w2 + 1) * in.at + (w3 - 2 * w2 + w) * reach * u +
                         (3 * w2 - 2 * w3) * out.at + (w3 - w2) * reach * v;
        const Vec2 chord = in.at + w * (out.at - in.at);
        const Vec2 tip = w < 0.5 ? Vec2(in.at + 2 * w * (meeting - in.at))
                                 : Vec2(meeting + (2 * w - 1) * (out.at - meeting));
        curve.push_back(pointed < 0 ? Vec2((1 + pointed) * arc - pointed * chord)
                                    : Vec2((1 - pointed) * arc + pointed * tip));
    }
    return curve;
}

std::optional<Polyline2> likeliestEnd(const Arrival& in, const Arrival& out, std::size_t count,
                                      const Likely& likely) {
    constexpr double kFarthest = 3;                   // chords, to where both directions meet
    constexpr double kPrior = 0.1, kCutPrior = 0.25;  // for the arc, which few ends are cut short of
    // `out` travels backwards, towards the stretch as well.
    const double across = cross(in.direction, out.direction), chord = (out.at - in.at).norm();
    const Vec2 d = out.at - in.at;
    double s = -1, t = -1;
    if (std::abs(across) > 1e-3) {
        s = cross(d, out.direction) / across;
        t = cross(d, in.direction) / across;
    }
    const bool meet = s > 0 && t > 0 && s < kFarthest * chord && t < kFarthest * chord;
    const Vec2 meeting = in.at + s * in.direction;
    std::optional<Polyline2> best;
    double most = -1e9;
    for (const double pointed : {-1.0, -0.5, 0.0, 0.25, 0.5, 0.75, 1.0}) {
        if (pointed > 0 && !meet) break;
        Polyline2 curve = roundTheEnd(in, out, meeting, pointed, count);
        const double score = likely(curve) - (pointed < 0 ? kCutPrior : kPrior) * std::abs(pointed);
        if (score <= most) continue;
        most = score;
        best = std::move(curve);
    }
    return best;
}

std::vector<Stretch> stretchesOf(const std::vector<bool>& blind) {
    const std::size_t n = blind.size();
    std::vector<Stretch> out;
    std::size_t start = 0;
    while (start < n && blind[start]) ++start;
    for (std::size_t i = start; i < start + n;) {
        std::size_t j = i;
        while (j < start + n && blind[j % n]) ++j;
        if (j > i + 1) {
            const std::size_t first = i + n - kTouched, last = j + n - 1 + kTouched;
            // Two stretches with too little seen between them are one.
            if (!out.empty() && first < out.back().first + out.back().count + kLeastBeside)
                out.back().count = last - out.back().first;
            else
                out.push_back({first, last - first});
        }
        i = std::max(j, i + 1);
    }
    return out;
}

}  // namespace

void runOn(Polyline2& line, const std::vector<bool>& blind, const Likely& likely) {
    const std::size_t n = line.size();
    const Polyline2 seen = line;
    // What is seen on one side, in the order of travel towards the stretch, and how many points were left
    // out.
    struct Side {
        Polyline2 points;
        std::size_t left = 0;
        std::optional<Arrival> arrival;
    };
    const auto sideOf = [&](std::size_t from, bool forwards, std::size_t beside) {
        Side best;
        for (const std::size_t more : kMoreTouched) {
            // A corner may be near: fewer points that make a curve are better than more beyond it.
            for (const std::size_t used : {beside, beside / 2}) {
                Side side;
                side.left = more;
                for (std::size_t k = more; k <= more + std::max(used, kLeastBeside); ++k) {
                    const std::size_t i = (forwards ? from + n - k : from + k) % n;
                    if (blind[i]) break;
                    side.points.insert(side.points.begin(), seen[i]);
                }
                side.arrival = arrivalOf(side.points);
                if (!side.arrival) break;
                if (!best.arrival || side.arrival->miss < best.arrival->miss) best = std::move(side);
                if (best.arrival->miss < kCurve_px) return best;
            }
        }
        return best;
    };
    for (const Stretch& stretch : stretchesOf(blind)) {
        if (stretch.count >= n / 4) continue;
        const std::size_t beside = std::clamp(stretch.count, kLeastBeside, kMostBeside);
        const Side in = sideOf(stretch.first, true, beside),
                   out = sideOf(stretch.first + stretch.count, false, beside);
        if (!in.arrival || !out.arrival) continue;
        const std::size_t first = stretch.first + n - in.left, count = stretch.count + in.left + out.left;
        const double straight = in.arrival->direction.dot(-out.arrival->direction);
        std::optional<Polyline2> curve;
        if (straight > kLittleTurn)
            curve = cubicThrough(in.points, Polyline2(out.points.rbegin(), out.points.rend()), count);
        if (!curve || straight < kHardlyTurns) {  // a corner may be hidden
            std::optional<Polyline2> end = likeliestEnd(*in.arrival, *out.arrival, count, likely);
            if (!curve || (end && likely(*end) > likely(*curve) + kSmooth)) curve = std::move(end);
        }
        if (!curve) continue;
        for (std::size_t k = 0; k <= count; ++k) line[(first + k) % n] = (*curve)[k];
    }
}

}  // namespace nine
