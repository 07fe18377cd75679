#include "job/photo_check.h"

#include <Eigen/Dense>
#include <algorithm>
#include <cmath>

#include "base/number_text.h"
#include "blank/measure.h"
#include "geom/polygon_set.h"

namespace nine {
namespace {

constexpr double kUsualOff_mm = 0.3;
constexpr int kMostRounds = 60;
constexpr double kSettled_mm = 1e-4;
constexpr int kBodySteps = 300;
constexpr double kApart_mm = 0.25;  // of the photo's points that are compared

/// A move in the plane: p -> scale * turn(p) + by.
struct Move {
    double turn = 0, scale = 1;
    Vec2 by = Vec2::Zero();
    Vec2 operator()(const Vec2& p) const {
        const double c = std::cos(turn), s = std::sin(turn);
        return scale * Vec2(c * p.x() - s * p.y(), s * p.x() + c * p.y()) + by;
    }
    Vec2 back(const Vec2& p) const {
        const double c = std::cos(turn), s = std::sin(turn);
        const Vec2 d = (p - by) / scale;
        return {c * d.x() + s * d.y(), c * d.y() - s * d.x()};
    }
};

struct Nearest {
    Vec2 at, normal;
    double distance;
};
Nearest nearestOn(const Polyline2& line, const Vec2& p) {
    Nearest best{Vec2::Zero(), Vec2::UnitY(), 1e18};
    for (std::size_t i = 0; i < line.size(); ++i) {
        const Vec2 &a = line[i], along = line[(i + 1) % line.size()] - a;
        const double squared = along.squaredNorm();
        if (squared < 1e-18) continue;
        const Vec2 q = a + std::clamp((p - a).dot(along) / squared, 0.0, 1.0) * along;
        const double d = (p - q).norm();
        if (d >= best.distance) continue;
        best = {q, Vec2(-along.y(), along.x()) / std::sqrt(squared), d};
    }
    return best;
}

/// The photo's points, evenly apart: thinned, nothing moved.
Polyline2 thinned(const Polyline2& line) {
    Polyline2 out;
    for (const Vec2& p : line)
        if (out.empty() || (p - out.back()).norm() >= kApart_mm) out.push_back(p);
    return out;
}

/// One step of least squares: distances across the body's outline at the nearest places.
double step(Move& move, const Polyline2& points, const Polyline2& body, bool scaled) {
    Eigen::Matrix4d a = Eigen::Matrix4d::Identity() * 1e-9;
    Eigen::Vector4d b = Eigen::Vector4d::Zero();
    Vec2 middle = Vec2::Zero();
    for (const Vec2& p : points) middle += move(p) / static_cast<double>(points.size());
    std::vector<Nearest> nearest;
    std::vector<double> distances;
    for (const Vec2& p : points) {
        nearest.push_back(nearestOn(body, move(p)));
        distances.push_back(nearest.back().distance);
    }
    // Where most of it is off, as by another size, the difference is shared out.
    const auto half = distances.begin() + static_cast<std::ptrdiff_t>(distances.size() / 2);
    std::nth_element(distances.begin(), half, distances.end());
    const double usual = std::max(kUsualOff_mm, 2 * *half);
    for (std::size_t i = 0; i < points.size(); ++i) {
        const Vec2 here = move(points[i]), arm = here - middle;
        const Nearest& near = nearest[i];
        const double share = near.distance / usual, weight = 1 / (1 + share * share);
        const Vec2& n = near.normal;
        const Eigen::Vector4d row(n.x(), n.y(), n.dot(Vec2(-arm.y(), arm.x())), scaled ? n.dot(arm) : 0);
        a += weight * row * row.transpose();
        b += weight * row * n.dot(near.at - here);
    }
    const Eigen::Vector4d by = a.ldlt().solve(b);
    const Move turned{by(2), 1 + by(3), Vec2::Zero()};
    // About the middle: there a turn moves nothing.
    move.by = middle + turned(move.by - middle) + Vec2(by(0), by(1));
    move.turn += by(2);
    move.scale *= 1 + by(3);
    double reach = 0;
    for (const Vec2& p : points) reach = std::max(reach, (move(p) - middle).norm());
    return Vec2(by(0), by(1)).norm() + reach * (std::abs(by(2)) + std::abs(by(3)));
}

/// From mm along the photo's axis to its pixels.
Vec2 pixelOf(const Vec2& mm, const PhotoOutline& seen) {
    const Vec2 along = (seen.axis_px.tail - seen.axis_px.nose).normalized();
    const Vec2 up = along.x() >= 0 ? Vec2(along.y(), -along.x()) : Vec2(-along.y(), along.x());
    return seen.axis_px.nose + (mm.x() * along + mm.y() * up) / seen.mmPerPx;
}

}  // namespace

PhotoCheck checkPhoto(const Skin& skin, const PhotoOutline& seen, bool ownScale, bool above) {
    Polyline2 body = bodyOutline(skin, above, kBodySteps);
    for (Vec2& p : body) p.x() -= skin.noseX_mm();
    const Polyline2 points = thinned(seen.outline);
    PhotoCheck check;
    if (points.size() < 3) return check;
    Move move;
    if (!ownScale) {
        const Box2 box = boxAround({points});
        move.scale = skin.length_mm() / std::max(1e-6, box.size().x());
        move.by.x() = -move.scale * box.low.x();
    }
    for (int round = 0; round < kMostRounds && step(move, points, body, !ownScale) > kSettled_mm;) ++round;
    check.scale = move.scale;
    double squares = 0;
    for (const Vec2& p : points) {
        const Vec2 here = move(p);
        const Nearest near = nearestOn(body, here);
        const double off = contains(body, here) ? -near.distance : near.distance;
        check.places.push_back({std::clamp(near.at.x(), 0.0, skin.length_mm()), near.at.y() > 0, off});
        squares += off * off;
        if (near.distance <= std::abs(check.worst.off_mm)) continue;
        check.worst = check.places.back();
        check.worst_px = pixelOf(p, seen);
    }
    check.rms_mm = std::sqrt(squares / static_cast<double>(points.size()));
    for (const Vec2& p : body) check.body_px.push_back(pixelOf(move.back(p), seen));
    return check;
}

Warning checkSentence(const PhotoCheck& check, bool above) {
    const Pattern side =
        above ? (check.worst.upper ? NINE_WORDS("core", "left side") : NINE_WORDS("core", "right side"))
              : (check.worst.upper ? NINE_WORDS("core", "upper edge") : NINE_WORDS("core", "lower edge"));
    const Words laid =
        Words(check.worst.off_mm > 0
                  ? NINE_WORDS(
                        "core",
                        "Laid over the body of this job, the photo's outline is off by {rms} (root mean "
                        "square); farthest {x} from the nose on the {side}, where the photo reaches {off} "
                        "farther out.")
                  : NINE_WORDS(
                        "core",
                        "Laid over the body of this job, the photo's outline is off by {rms} (root mean "
                        "square); farthest {x} from the nose on the {side}, where the photo reaches {off} "
                        "farther in."))
            .length("rms", check.rms_mm, 2)
            .length("x", check.worst.x_mm, 1)
            .words("side", side)
            .length("off", std::abs(check.worst.off_mm), 2);
    if (check.scale == 1) return {"photo_check", laid, "photo"};
    return {"photo_check",
            Words(NINE_WORDS("core", "{laid} The photo was made to fit in size; only its shape is compared."))
                .words("laid", laid),
            "photo"};
}

}  // namespace nine
