#include "image/outline.h"

#include <Eigen/Dense>
#include <algorithm>
#include <cmath>

#include "geom/polygon_set.h"
#include "image/regions.h"

namespace nine {
namespace {

constexpr double kFlatShare = 0.22;  // of the height: shorter straight pieces are no face
// A face deviates less from its chord. A round end bulges by a hundredth of its height over as long a piece.
constexpr double kStraightShare = 0.005, kLeastStraight_mm = 0.04, kMostStraight_mm = 0.12;
constexpr double kFaceTurn = 0.5;  // cosine to the axis: a face stands within 60 degrees across it

struct Face {
    Vec2 middle;
    double length = 0;
};

/// The longest straight run of the outline across the axis near the end that `towards` (unit) points to.
Face faceAt(const Polyline2& line, const Vec2& towards, double reach, double height) {
    const std::size_t n = line.size();
    double most = -1e18;
    for (const Vec2& p : line) most = std::max(most, p.dot(towards));
    Face best;
    const double step = (line[1] - line[0]).norm();
    const auto run = static_cast<std::size_t>(std::max(3.0, kFlatShare * height / step));
    const double bulge = std::clamp(kStraightShare * height, kLeastStraight_mm, kMostStraight_mm);
    const auto straight = [&](std::size_t from, std::size_t count) {
        const Vec2 a = line[from], b = line[(from + count) % n], along = (b - a).normalized();
        if (std::abs(along.dot(towards)) > kFaceTurn) return false;
        for (std::size_t k = 1; k < count; ++k)
            if (std::abs(cross(along, line[(from + k) % n] - a)) > bulge) return false;
        return true;
    };
    for (std::size_t i = 0; i < n; ++i) {
        if (line[i].dot(towards) < most - reach || run >= n / 2 || !straight(i, run)) continue;
        std::size_t count = run;
        while (count + 1 < n / 2 && straight(i, count + 1)) ++count;
        const Vec2 a = line[i], b = line[(i + count) % n];
        if ((b - a).norm() > best.length) best = {0.5 * (a + b), (b - a).norm()};
    }
    return best;
}

/// A tip fitted to the cap of an outline.
struct Tip {
    Vec2 at;
    double miss = 0;  ///< root mean square of what the cap deviates from the fit
};

/// The tip along `towards`. Near it the outline falls back from the tip by k v^2, with one k above and
/// another below (round ends are rarely alike above and below): fitted for every place of the tip across, to
/// what lies no farther back than `depth`, the best taken.
Tip tipAlong(const Polyline2& line, const Vec2& towards, double height, double depth) {
    const Vec2 across(-towards.y(), towards.x());
    std::size_t far = 0;
    for (std::size_t i = 1; i < line.size(); ++i)
        if (line[i].dot(towards) > line[far].dot(towards)) far = i;
    Polyline2 cap;  // across, along; from the farthest point
    for (const Vec2& p : line) {
        const Vec2 d = p - line[far];
        if (d.dot(towards) > -depth && std::abs(d.dot(across)) < 0.5 * height)
            cap.emplace_back(d.dot(across), d.dot(towards));
    }
    double low = 1e18, high = -1e18;
    for (const Vec2& p : cap) {
        low = std::min(low, p.x());
        high = std::max(high, p.x());
    }
    const double reach = 0.35 * (high - low);
    double best = 1e18, bestAt = 0, bestTop = 0;
    for (int i = -40; i <= 40; ++i) {
        const double at = std::clamp(0.5 * (low + high) + reach * i / 40, low, high);
        Eigen::Matrix3d a = Eigen::Matrix3d::Identity() * 1e-9;
        Eigen::Vector3d b = Eigen::Vector3d::Zero();
        double all = 0;
        for (const Vec2& p : cap) {
            const double v = p.x() - at;
            const Eigen::Vector3d basis(1, v > 0 ? v * v : 0, v < 0 ? v * v : 0);
            a += basis * basis.transpose();
            b += basis * p.y();
            all += p.y() * p.y();
        }
        const Eigen::Vector3d c = a.ldlt().solve(b);
        const double miss = all - c.dot(b);
        if (c(1) > 0 || c(2) > 0 || miss >= best) continue;
        best = miss;
        bestAt = at;
        bestTop = c(0);
    }
    // A pointed end does not fall back by squares: its fit ends short of it.
    constexpr double kTipNoise_mm = 0.05;
    return {line[far] + bestAt * across + std::max(bestTop, -kTipNoise_mm) * towards,
            std::sqrt(std::max(0.0, best) / static_cast<double>(cap.size()))};
}

/// A round end is told from far back, so that a ring over its very tip does no harm; others from near it.
Vec2 tipAlong(const Polyline2& line, const Vec2& towards, double height) {
    constexpr double kDeepShare = 0.1, kShallowShare = 0.03, kLeastDepth_mm = 0.25;
    constexpr double kRound = 0.05;  // of the depth: what a round end deviates by
    const double deep = kDeepShare * height;
    const Tip round = tipAlong(line, towards, height, deep);
    if (round.miss < kRound * deep) return round.at;
    return tipAlong(line, towards, height, std::max(kLeastDepth_mm, kShallowShare * height)).at;
}

}  // namespace

BodyAxis axisOf(const Polyline2& outline, bool noseLeft) {
    if (outline.size() < 3) return {};
    const Box2 box = boxAround({outline});
    const double size = box.size().norm();
    const Polyline2 line = evenlySpaced(outline, size / 500, size / 300);
    // Second moments of the points give a first direction and the height across it.
    const Vec2 middle = centroid(line);
    Eigen::Matrix2d moments = Eigen::Matrix2d::Zero();
    for (const Vec2& p : line) moments += (p - middle) * (p - middle).transpose();
    const Eigen::SelfAdjointEigenSolver<Eigen::Matrix2d> eigen(moments);
    Vec2 along = eigen.eigenvectors().col(1);
    if (along.x() < 0) along = -along;
    const Vec2 across(-along.y(), along.x());
    double low = 1e18, high = -1e18;
    for (const Vec2& p : line) {
        low = std::min(low, p.dot(across));
        high = std::max(high, p.dot(across));
    }
    const double height = high - low, reach = 0.12 * size;
    const Face right = faceAt(line, along, reach, height), left = faceAt(line, -along, reach, height);
    Vec2 rightEnd = right.middle, leftEnd = left.middle;
    // The farthest two points; then each tip along the line that joins them, until nothing moves.
    if (right.length == 0 || left.length == 0) {
        double farthest = -1;
        for (const Vec2& p : line) {
            for (const Vec2& q : line) {
                if ((q - p).dot(along) <= farthest * 0.9) continue;
                if ((q - p).norm() > farthest) {
                    farthest = (q - p).norm();
                    if (left.length == 0) leftEnd = p;
                    if (right.length == 0) rightEnd = q;
                }
            }
        }
        for (int i = 0; i < 8; ++i) {
            const Vec2 way = (rightEnd - leftEnd).normalized();
            if (right.length == 0) rightEnd = tipAlong(line, way, height);
            if (left.length == 0) leftEnd = tipAlong(line, -way, height);
        }
    }
    if (noseLeft) return {leftEnd, rightEnd, left.length > 0, right.length > 0};
    return {rightEnd, leftEnd, right.length > 0, left.length > 0};
}

Vec2 laidOn(const Vec2& point, const BodyAxis& axis) {
    const Vec2 along = (axis.tail - axis.nose).normalized();
    const Vec2 up = along.x() >= 0 ? Vec2(-along.y(), along.x()) : Vec2(along.y(), -along.x());
    return {(point - axis.nose).dot(along), (point - axis.nose).dot(up)};
}

Result<BodyAxis> axisThrough(const Polyline2& outline, const Vec2& nose, const Vec2& tail, double least,
                             bool noseLeft) {
    if (!((tail - nose).norm() >= least))
        return Error{
            "no_axis",
            NINE_WORDS("core", "Nose and tail of the axis coincide; drag them to the ends of the body."),
            "axis"};
    const BodyAxis found = axisOf(outline, noseLeft);
    const BodyAxis given{nose, tail, found.noseFlat, found.tailFlat};
    double from = 1e18, to = -1e18;
    for (const Vec2& p : laidOn(outline, given)) {
        from = std::min(from, p.x());
        to = std::max(to, p.x());
    }
    const Vec2 along = (tail - nose).normalized();
    return BodyAxis{nose + from * along, nose + to * along, found.noseFlat, found.tailFlat};
}

Polyline2 laidOn(const Polyline2& outline, const BodyAxis& axis) {
    Polyline2 out;
    for (const Vec2& p : outline) out.push_back(laidOn(p, axis));
    return out;
}

}  // namespace nine
