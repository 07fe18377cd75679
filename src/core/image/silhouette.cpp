#include "image/silhouette.h"

#include <Eigen/Dense>
#include <algorithm>
#include <cmath>

#include "base/parallel.h"
#include "geom/polygon_set.h"
#include "image/regions.h"

namespace nine {
namespace {

constexpr int kWorkOn_px = 1900;         // longer side of the picture that is worked on
constexpr double kBorderShare = 0.04;    // of the shorter side: the strip the ground is read from
constexpr double kLightWeight = 0.55;    // soft shadows change L* alone: it counts for less than colour
constexpr double kSoftEdge_px = 14;      // of the picture worked on: wider borders are those of shadows
constexpr double kLeastContrast = 4;     // standard deviations of the ground
constexpr double kLeastDifference = 5;   // L*a*b* units
constexpr double kThinShare = 1.0 / 60;  // of the body's length

/// L*, a* or b* of the ground as a plane over the picture, from its border strip; outliers (a hand, a
/// corner of the table) are dropped twice.
struct GroundPlane {
    Eigen::Vector3d c = Eigen::Vector3d::Zero();
    double sigma = 0;
    double at(int x, int y) const { return c(0) + c(1) * x + c(2) * y; }
};
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

/// How each place differs from the ground beneath it, L*a*b* units.
struct Difference {
    Plane all;     ///< in everything, lightness counting for less
    Plane colour;  ///< in colour alone: a shadow scales L* + 16, a* and b* alike (all are cube roots), so it
                   ///< has none
    PixelSet darker;
};
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

/// How wide the edge of a region is, pixels, along the part of its border that `part` marks: from ground to
/// twice the level at the slope the border has. A body's edge is as wide as the lens and the smoothing, a
/// shadow's much wider.
struct EdgeWidth {
    double median = 0;
    std::size_t count = 0, wide = 0;
};
EdgeWidth edgeWidth(const PixelSet& region, const PixelSet& part, bool marked, const Plane& soft,
                    double level) {
    std::vector<float> widths;
    EdgeWidth edge;
    for (int y = 3; y + 3 < region.height; ++y) {
        for (int x = 3; x + 3 < region.width; ++x) {
            if (!region.at(x, y) || part.at(x, y) != marked) continue;
            if (region.at(x - 1, y) && region.at(x + 1, y) && region.at(x, y - 1) && region.at(x, y + 1))
                continue;
            const double slope =
                std::hypot(soft.at(x + 2, y) - soft.at(x - 2, y), soft.at(x, y + 2) - soft.at(x, y - 2)) / 4;
            widths.push_back(static_cast<float>(std::min(1000.0, 2 * level / std::max(1e-3, slope))));
        }
    }
    edge.count = widths.size();
    edge.wide = static_cast<std::size_t>(
        std::count_if(widths.begin(), widths.end(), [](float w) { return w > kSoftEdge_px; }));
    edge.median = quantile(std::move(widths), 0.5);
    return edge;
}

enum class Shadow { None, Removed, Doubtful };
/// Takes off what is only darker than the ground, of its colour and softly bordered. Where most of the region
/// is like that, body and shadow cannot be told apart by colour: then nothing is taken off, and that is said.
Shadow takeShadowOff(PixelSet& mask, const Difference& d, const Plane& soft, double level,
                     double colourNoise) {
    constexpr double kNoColour = 4, kColourNoiseTimes = 4, kMostShadow = 0.6, kSoftShare = 0.12;
    const Plane colour = smoothed(d.colour, 1.2);
    const auto none = static_cast<float>(std::max(kNoColour, kColourNoiseTimes * colourNoise));
    PixelSet shadow(mask.width, mask.height);
    std::size_t all = 0, dark = 0;
    for (std::size_t i = 0; i < mask.on.size(); ++i) {
        shadow.on[i] = mask.on[i] && d.darker.on[i] && colour.values[i] < none;
        all += mask.on[i];
        dark += shadow.on[i];
    }
    if (all == 0) return Shadow::None;
    const EdgeWidth of = edgeWidth(mask, shadow, true, soft, level),
                    other = edgeWidth(mask, shadow, false, soft, level);
    const std::size_t border = of.count + other.count;
    const auto isSoft = [border](const EdgeWidth& edge) {
        return edge.count > 0 && edge.median > kSoftEdge_px &&
               static_cast<double>(edge.count) > 0.02 * static_cast<double>(border);
    };
    // Along a body's own sharp edge its colour is mixed with the ground's: where such seams outnumber the
    // shadow's border, its broad parts are asked.
    constexpr double kSeam_px = 4;
    const bool softBorder =
        isSoft(of) || isSoft(edgeWidth(mask, opened(shadow, kSeam_px), true, soft, level));
    if (softBorder && static_cast<double>(dark) < kMostShadow * static_cast<double>(all)) {
        for (std::size_t i = 0; i < mask.on.size(); ++i) mask.on[i] = mask.on[i] && !shadow.on[i];
        mask = filled(mask);
        return Shadow::Removed;
    }
    return static_cast<double>(of.wide + other.wide) > kSoftShare * static_cast<double>(border)
               ? Shadow::Doubtful
               : Shadow::None;
}

void apply(PixelSet& mask, const Stroke2& stroke, double factor) {
    const double r = std::max(1.0, stroke.radius / factor);
    const auto dab = [&](const Vec2& p) {
        for (int y = static_cast<int>(p.y() - r); y <= static_cast<int>(p.y() + r); ++y)
            for (int x = static_cast<int>(p.x() - r); x <= static_cast<int>(p.x() + r); ++x)
                if (mask.inside(x, y) && (Vec2(x + 0.5, y + 0.5) - p).norm() <= r)
                    mask.set(x, y, stroke.include);
    };
    for (std::size_t i = 0; i < stroke.points.size(); ++i) {
        const Vec2 a = stroke.points[i > 0 ? i - 1 : 0] / factor, b = stroke.points[i] / factor;
        const int steps = std::max(1, static_cast<int>(std::ceil(2 * (b - a).norm() / r)));
        for (int k = 0; k <= steps; ++k) dab(a + (b - a) * k / steps);
    }
}

/// Moves each point along its normal to where the difference passes half way from ground to body.
void placeEdge(Polyline2& line, const Plane& difference) {
    constexpr double kReach = 4, kStep = 0.25;
    const std::size_t n = line.size();
    const Polyline2 before = line;
    const bool counterClockwise = polygonArea(before) > 0;
    for (std::size_t i = 0; i < n; ++i) {
        const Vec2 along = (before[(i + 2) % n] - before[(i + n - 2) % n]).normalized();
        const Vec2 inward = counterClockwise ? Vec2(-along.y(), along.x()) : Vec2(along.y(), -along.x());
        const double body = difference.sample(before[i] + kReach * inward);
        const double ground = difference.sample(before[i] - kReach * inward);
        const double half = 0.5 * (body + ground);
        if (body <= ground) continue;
        double best = 1e18, at = 0;
        for (double t = -kReach; t < kReach; t += kStep) {
            const double a = difference.sample(before[i] + t * inward),
                         b = difference.sample(before[i] + (t + kStep) * inward);
            if (!(a <= half && b > half)) continue;
            const double s = t + kStep * (half - a) / (b - a);
            if (std::abs(s) < std::abs(best)) {
                best = s;
                at = s;
            }
        }
        if (best < 1e17) line[i] = before[i] + at * inward;
    }
}

/// The largest part of the opened mask with what tapers off from it. Opening takes the end of a pointed tail
/// with the wires; but a tail gets steadily thinner, and a wire or a bill does not.
PixelSet withoutThinThings(const PixelSet& mask, double radius) {
    const std::vector<Part> thick = partsOf(opened(mask, radius), false);
    if (thick.empty()) return PixelSet(mask.width, mask.height);
    PixelSet body = pixelsOf(thick.front(), mask.width, mask.height);
    const Plane half = distanceTo(inverse(mask)), away = distanceTo(body);
    PixelSet rest = mask;
    for (std::size_t i = 0; i < rest.on.size(); ++i) rest.on[i] = rest.on[i] && !body.on[i];
    for (const Part& part : partsOf(rest, false)) {
        // Half the thickness at each distance from the body.
        std::vector<double> thickness;
        for (const std::size_t i : part.pixels) {
            const auto at = static_cast<std::size_t>(away.values[i]);
            if (at >= thickness.size()) thickness.resize(at + 1, 0);
            thickness[at] = std::max<double>(thickness[at], half.values[i]);
        }
        constexpr double kTapers = 0.85;
        std::size_t kept = 1;  // the first ring of pixels is the border's own roughness
        while (kept < thickness.size()) {
            const auto ahead = kept + static_cast<std::size_t>(std::ceil(std::max(3.0, 2 * thickness[kept])));
            if (ahead < thickness.size() && thickness[ahead] > kTapers * thickness[kept]) break;
            ++kept;
        }
        for (const std::size_t i : part.pixels)
            if (static_cast<std::size_t>(away.values[i]) < kept) body.on[i] = 1;
    }
    return body;
}

}  // namespace

Result<Silhouette> silhouetteOf(const Picture& picture, const SilhouetteWish& wish, const Task& task) {
    const int factor = factorFor(picture, kWorkOn_px);
    const Picture small = reduced(picture, factor);
    if (small.width < 40 || small.height < 40)
        return Error{"nothing_found", "The picture is too small to find a body in; take it with more pixels.",
                     "photo"};
    task.progress(0.2);
    if (task.cancelled()) return Task::cancelledError();
    const std::vector<Plane> lab = labPlanes(small);
    GroundPlane ground[3];
    forEachInParallel(3, [&](std::size_t c) { ground[c] = groundOf(lab[c]); });
    task.progress(0.4);
    if (task.cancelled()) return Task::cancelledError();
    const Difference difference = differenceFrom(lab, ground);
    const Plane soft = smoothed(difference.all, 1.2);
    const float level = otsuLevel(soft.values);
    task.progress(0.6);
    if (task.cancelled()) return Task::cancelledError();
    PixelSet mask = above(soft, level);
    const Shadow shadow =
        takeShadowOff(mask, difference, soft, level, std::hypot(ground[1].sigma, ground[2].sigma));
    for (const Stroke2& stroke : wish.strokes) apply(mask, stroke, factor);

    double onBody = 0, onGround = 0, spread = 0;
    std::size_t bodyCount = 0, groundCount = 0;
    for (std::size_t i = 0; i < mask.on.size(); ++i) {
        (mask.on[i] ? onBody : onGround) += soft.values[i];
        ++(mask.on[i] ? bodyCount : groundCount);
    }
    const Error noContrast{
        "no_contrast",
        "The body does not stand out from its ground. Lay it on plain paper of another colour, in "
        "even light, and take the picture again.",
        "photo"};
    if (bodyCount == 0 || groundCount == 0) return noContrast;
    onBody /= static_cast<double>(bodyCount);
    onGround /= static_cast<double>(groundCount);
    for (std::size_t c = 0; c < 3; ++c) spread += ground[c].sigma * ground[c].sigma;
    Silhouette result;
    result.contrast = (onBody - onGround) / std::max(0.3, std::sqrt(spread));
    if (onBody - onGround < kLeastDifference || result.contrast < kLeastContrast) return noContrast;

    std::vector<Part> parts = partsOf(mask, false);
    if (parts.empty()) return noContrast;
    PixelSet body = filled(pixelsOf(parts.front(), mask.width, mask.height));
    const Box2 extent = {Vec2(parts.front().left, parts.front().top),
                         Vec2(parts.front().right, parts.front().bottom)};
    const double thin = wish.thin_px > 0 ? wish.thin_px / factor : kThinShare * extent.size().norm();
    const std::size_t whole = static_cast<std::size_t>(std::count(body.on.begin(), body.on.end(), 1));
    body = withoutThinThings(body, std::max(1.0, 0.5 * thin));
    parts = partsOf(body, false);
    if (parts.empty() || parts.front().area() < 400)
        return Error{"nothing_found", "No body was found in the picture; it should fill a good part of it.",
                     "photo"};
    const Part& found = parts.front();
    const double share = static_cast<double>(found.area()) / static_cast<double>(body.on.size());
    if (found.left <= 1 || found.top <= 1 || found.right >= mask.width - 2 || found.bottom >= mask.height - 2)
        return Error{
            "cut_off",
            "The body, or its ground, runs out of the picture; take it with plain ground all round the body.",
            "photo"};
    if (share > 0.85) return noContrast;
    if (static_cast<double>(whole - found.area()) > 0.25 * static_cast<double>(found.area()))
        result.warnings.push_back(
            {"much_left_out",
             "Besides the body, large parts were found and left out; look whether the outline "
             "follows the body, and paint out what is not.",
             "photo"});
    if (shadow == Shadow::Doubtful)
        result.warnings.push_back(
            {"soft_edge",
             "Part of the outline is soft, as the edge of a shadow is, and has no colour to tell it by. "
             "Take the picture in even light, on paper of another colour, or paint the shadow out.",
             "photo"});
    task.progress(0.8);
    if (task.cancelled()) return Task::cancelledError();
    // Opening rounds corners off; the edge itself is where the difference says.
    const PixelSet one = pixelsOf(found, mask.width, mask.height);
    Plane inside(mask.width, mask.height);
    for (std::size_t i = 0; i < one.on.size(); ++i) inside.values[i] = one.on[i];
    const std::vector<Polyline2> lines = levelLines(smoothed(inside, 0.8), 0.5F);
    if (lines.empty()) return noContrast;
    Polyline2 line = evenlySpaced(lines.front(), 1.5, 2);
    // Beside a shadow only the colour tells where the body ends.
    placeEdge(line, smoothed(shadow == Shadow::Removed ? difference.colour : difference.all, 0.7));
    line = evenlySpaced(line, 2, 2);
    for (Vec2& p : line) p *= factor;
    result.outline = std::move(line);
    task.progress(1);
    return result;
}

}  // namespace nine
