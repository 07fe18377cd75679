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
constexpr double kSmallShare = 0.012;    // of the picture: rings and hooks enclose no more than that across
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

/// How steeply the difference changes, per pixel.
Plane steepness(const Plane& soft) {
    Plane steep(soft.width, soft.height);
    forEachInParallel(static_cast<std::size_t>(soft.height), [&](std::size_t row) {
        const int y = static_cast<int>(row);
        if (y < 2 || y + 2 >= soft.height) return;
        for (int x = 2; x + 2 < soft.width; ++x)
            steep.at(x, y) = static_cast<float>(
                std::hypot(soft.at(x + 2, y) - soft.at(x - 2, y), soft.at(x, y + 2) - soft.at(x, y - 2)) / 4);
    });
    return steep;
}

/// How wide the border of a part is where it meets the ground, pixels: the change within reach on both sides,
/// over the slope. A body's edge is as wide as the lens and the smoothing, a shadow's much wider.
struct EdgeWidth {
    double median = 0;
    std::size_t count = 0, wide = 0;
};
EdgeWidth edgeWidth(const std::vector<std::size_t>& pixels, const PixelSet& mask, const Plane& soft) {
    constexpr int kReach_px = 14;
    std::vector<float> widths;
    EdgeWidth edge;
    const auto w = static_cast<std::size_t>(mask.width);
    for (const std::size_t i : pixels) {
        const int x = static_cast<int>(i % w), y = static_cast<int>(i / w);
        if (x < 3 || y < 3 || x + 3 >= mask.width || y + 3 >= mask.height) continue;
        if (mask.at(x - 1, y) && mask.at(x + 1, y) && mask.at(x, y - 1) && mask.at(x, y + 1)) continue;
        const Vec2 gradient(soft.at(x + 2, y) - soft.at(x - 2, y), soft.at(x, y + 2) - soft.at(x, y - 2));
        const double slope = gradient.norm() / 4;
        if (slope < 1e-3) continue;
        const Vec2 p(x + 0.5, y + 0.5), step = kReach_px * gradient.normalized();
        widths.push_back(static_cast<float>(std::abs(soft.sample(p + step) - soft.sample(p - step)) / slope));
    }
    edge.count = widths.size();
    edge.wide = static_cast<std::size_t>(
        std::count_if(widths.begin(), widths.end(), [](float width) { return width > kSoftEdge_px; }));
    edge.median = quantile(std::move(widths), 0.5);
    return edge;
}

/// Takes off what is only darker than the ground, of its colour, without sharp edges inside, and fades into
/// the ground. A dark part of the body itself ends sharply, against the ground and against the shadow beside
/// it, and stays. Returns what was taken; `doubtful` when much of the border that is left is soft.
PixelSet takeShadowOff(PixelSet& mask, const Difference& d, const Plane& soft, float level,
                       double colourNoise, bool& doubtful) {
    constexpr double kNoColour = 4, kColourNoiseTimes = 4, kMostShadow = 0.6, kSoftShare = 0.12, kSharp = 1.2,
                     kSharpShare = 0.035;
    const Plane colour = smoothed(d.colour, 1.2), steep = steepness(soft);
    const double side = kSmallShare * std::hypot(mask.width, mask.height), smallest = side * side;
    const auto none = static_cast<float>(std::max(kNoColour, kColourNoiseTimes * colourNoise));
    // What is sharp is so against how much this picture's body stands out.
    const auto sharp = static_cast<float>(std::max(kSharp, kSharpShare * quantile(soft.values, 0.98)));
    PixelSet dark(mask.width, mask.height), shadow(mask.width, mask.height);
    for (std::size_t i = 0; i < mask.on.size(); ++i)
        dark.on[i] = mask.on[i] && d.darker.on[i] && colour.values[i] < none && steep.values[i] < sharp;
    constexpr std::size_t kSpeck_px = 60;
    const auto whole = std::count(mask.on.begin(), mask.on.end(), 1);
    bool merged = false;
    for (const Part& part : partsOf(dark, false)) {
        if (part.area() < kSpeck_px) break;
        const EdgeWidth edge = edgeWidth(part.pixels, mask, soft);
        constexpr std::size_t kLeastBorder_px = 12;
        if (edge.count < kLeastBorder_px || edge.median < kSoftEdge_px) continue;
        if (static_cast<double>(part.area()) > kMostShadow * static_cast<double>(whole)) {
            merged = true;  // body and shadow in one: they cannot be told apart by what is looked at here
            continue;
        }
        for (const std::size_t i : part.pixels) shadow.on[i] = 1;
    }
    // Shaded ground that a ring or a hook encloses: small, and nowhere as different as the body is.
    PixelSet weak(mask.width, mask.height);
    for (std::size_t i = 0; i < mask.on.size(); ++i)
        weak.on[i] = mask.on[i] && !shadow.on[i] && soft.values[i] < level && d.darker.on[i] &&
                     colour.values[i] < none;
    for (const Part& part : partsOf(weak, false)) {
        if (static_cast<double>(part.area()) > smallest) continue;
        for (const std::size_t i : part.pixels) shadow.on[i] = 1;
    }
    for (std::size_t i = 0; i < mask.on.size(); ++i) mask.on[i] = mask.on[i] && !shadow.on[i];
    std::vector<std::size_t> left;
    for (std::size_t i = 0; i < mask.on.size(); ++i)
        if (mask.on[i]) left.push_back(i);
    PixelSet both = mask;  // beside a shadow that was taken the border is no border to the ground
    for (std::size_t i = 0; i < both.on.size(); ++i) both.on[i] = both.on[i] || shadow.on[i];
    const EdgeWidth rest = edgeWidth(left, both, soft);
    doubtful = merged || static_cast<double>(rest.wide) > kSoftShare * static_cast<double>(rest.count);
    return shadow;
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

/// Moves each point along its normal to where the difference passes half way from ground to body. Beside a
/// shadow that was taken off, colour tells better where the body ends, if the body has one.
void placeEdge(Polyline2& line, const Plane& all, const Plane& colour, const PixelSet& shadow) {
    constexpr double kReach = 4, kStep = 0.25, kEnoughColour = 6;
    const std::size_t n = line.size();
    const Polyline2 before = line;
    const bool counterClockwise = polygonArea(before) > 0;
    for (std::size_t i = 0; i < n; ++i) {
        const Vec2 along = (before[(i + 2) % n] - before[(i + n - 2) % n]).normalized();
        const Vec2 inward = counterClockwise ? Vec2(-along.y(), along.x()) : Vec2(along.y(), -along.x());
        const Vec2 outside = before[i] - kReach * inward, within = before[i] + kReach * inward;
        const int ox = static_cast<int>(outside.x()), oy = static_cast<int>(outside.y());
        const bool beside = shadow.inside(ox, oy) && shadow.at(ox, oy);
        const Plane& difference =
            beside && colour.sample(within) - colour.sample(outside) > kEnoughColour ? colour : all;
        const double body = difference.sample(within), ground = difference.sample(outside);
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

/// The parts of a set that hold some of the sure ones.
PixelSet reaching(const PixelSet& set, const PixelSet& sure) {
    PixelSet reached(set.width, set.height);
    for (const Part& part : partsOf(set, false)) {
        const bool holds =
            std::any_of(part.pixels.begin(), part.pixels.end(), [&](std::size_t i) { return sure.on[i]; });
        if (!holds) continue;
        for (const std::size_t i : part.pixels) reached.on[i] = 1;
    }
    return reached;
}

/// Where a body ends along its longest way.
struct Ends {
    Vec2 middle = Vec2::Zero(), along = Vec2::UnitX();
    double low = 0, high = 0;
    bool near(const Part& part, int pictureWidth) const {
        constexpr double kShare = 0.08;  // of the length
        const double at = (part.centroid(pictureWidth) - middle).dot(along), reach = kShare * (high - low);
        return at < low + reach || at > high - reach;
    }
};
Ends endsOf(const PixelSet& body) {
    Ends ends;
    Eigen::Matrix2d moments = Eigen::Matrix2d::Zero();
    double count = 0;
    const auto each = [&](const auto& use) {
        for (int y = 0; y < body.height; ++y)
            for (int x = 0; x < body.width; ++x)
                if (body.at(x, y)) use(Vec2(x + 0.5, y + 0.5));
    };
    each([&](const Vec2& p) {
        ends.middle += p;
        count += 1;
    });
    if (count == 0) return ends;
    ends.middle /= count;
    each([&](const Vec2& p) { moments += (p - ends.middle) * (p - ends.middle).transpose(); });
    ends.along = Eigen::SelfAdjointEigenSolver<Eigen::Matrix2d>(moments).eigenvectors().col(1);
    ends.low = 1e18;
    ends.high = -1e18;
    each([&](const Vec2& p) {
        ends.low = std::min(ends.low, (p - ends.middle).dot(ends.along));
        ends.high = std::max(ends.high, (p - ends.middle).dot(ends.along));
    });
    return ends;
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
    const Ends ends = endsOf(body);
    for (const Part& part : partsOf(rest, false)) {
        if (!ends.near(part, mask.width)) continue;  // on the flank nothing runs to a point
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

/// Gleams and pale marks inside the body are filled; the inside of a ring is not: its wall is so thin that
/// opening breaks it.
PixelSet withHolesFilled(const PixelSet& mask, double radius) {
    const PixelSet whole = filled(mask), sturdy = filled(opened(mask, radius));
    PixelSet holes = whole;
    for (std::size_t i = 0; i < holes.on.size(); ++i) holes.on[i] = whole.on[i] && !mask.on[i];
    PixelSet out = mask;
    for (const Part& hole : partsOf(holes, false)) {
        std::size_t enclosed = 0;
        for (const std::size_t i : hole.pixels) enclosed += sturdy.on[i];
        // A large hole is no ring's, whatever its wall.
        const bool large = std::min(hole.width(), hole.height()) > 8 * radius;
        if (2 * enclosed < hole.area() && !large) continue;
        for (const std::size_t i : hole.pixels) out.on[i] = 1;
    }
    return out;
}

/// Shrinking what was grown: fills notches narrower than twice the radius. The picture's edge counts as
/// ground.
PixelSet notchesClosed(const PixelSet& mask, double radius) {
    return inverse(grown(inverse(grown(mask, radius)), radius));
}

/// The largest part, with others that a bar of the ground's colour has cut off: broad ones close beside it.
PixelSet joined(const std::vector<Part>& parts, int width, int height, double radius) {
    constexpr double kLeastShare = 0.02, kWidestBar = 3.2;  // of the largest; thin radii
    PixelSet body = pixelsOf(parts.front(), width, height);
    std::vector<const Part*> others;
    for (std::size_t i = 1; i < parts.size(); ++i)
        if (static_cast<double>(parts[i].area()) > kLeastShare * static_cast<double>(parts.front().area()))
            others.push_back(&parts[i]);
    if (others.empty()) return body;
    PixelSet broadOnes = opened(body, radius);
    bool more = true;
    while (more) {
        more = false;
        const Plane away = distanceTo(body);
        for (const Part*& other : others) {
            if (!other) continue;
            const PixelSet one = pixelsOf(*other, width, height), sturdy = opened(one, radius);
            const auto left = std::count(sturdy.on.begin(), sturdy.on.end(), 1);
            float nearest = 1e9F;
            for (const std::size_t i : other->pixels) nearest = std::min(nearest, away.values[i]);
            if (2 * left < static_cast<long>(other->area()) || nearest > kWidestBar * radius) continue;
            for (std::size_t i = 0; i < body.on.size(); ++i) {
                body.on[i] = body.on[i] || one.on[i];
                broadOnes.on[i] = broadOnes.on[i] || sturdy.on[i];
            }
            other = nullptr;
            more = true;
        }
    }
    const PixelSet whole = notchesClosed(broadOnes, 0.5 * kWidestBar * radius + 2);
    for (std::size_t i = 0; i < body.on.size(); ++i) body.on[i] = body.on[i] || whole.on[i];
    return body;
}

/// What was taken off without the roughness of borders, which opening takes off everywhere.
PixelSet broad(const PixelSet& taken) {
    constexpr std::size_t kSpeck_px = 25;
    PixelSet things(taken.width, taken.height);
    for (const Part& part : partsOf(taken, true)) {
        if (part.area() < kSpeck_px) break;
        for (const std::size_t i : part.pixels) things.on[i] = 1;
    }
    return things;
}

/// Where something was taken off the outline, the body goes on beneath it: a smooth curve (cubic Hermite)
/// from where the outline is its own again on one side to where it is on the other.
void bridge(Polyline2& line, const PixelSet& taken) {
    constexpr double kLongest = 0.12;  // of the outline: more than that is no ring's root
    constexpr std::size_t kSlope = 6;  // points the direction is read from
    const std::size_t n = line.size();
    const auto covered = [&](std::size_t i) {
        const Vec2& p = line[i % n];
        const int x = static_cast<int>(p.x()), y = static_cast<int>(p.y());
        return taken.inside(x, y) && taken.at(x, y);
    };
    std::size_t start = 0;
    while (start < n && covered(start)) ++start;
    if (start == n || n < 8 * kSlope) return;
    const Polyline2 before = line;
    const auto at = [&](std::size_t i) { return before[i % n]; };
    for (std::size_t i = start; i < start + n;) {
        if (!covered(i)) {
            ++i;
            continue;
        }
        std::size_t end = i;
        while (end < start + n && covered(end)) ++end;
        const std::size_t count = end - i;
        if (static_cast<double>(count) < kLongest * static_cast<double>(n)) {
            const Vec2 a = at(i + n - 1), b = at(end);
            const double span = (b - a).norm();
            const Vec2 out = (a - at(i + n - 1 - kSlope)).normalized() * span,
                       in = (at(end + kSlope) - b).normalized() * span;
            for (std::size_t k = i; k < end; ++k) {
                const double t = static_cast<double>(k - i + 1) / static_cast<double>(count + 1), u = 1 - t;
                line[k % n] =
                    u * u * (1 + 2 * t) * a + t * t * (3 - 2 * t) * b + t * u * u * out - t * t * u * in;
            }
        }
        i = end;
    }
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
    // A body has parts that stand out less than others: what hangs on to what surely is body counts from
    // where it leaves the ground's own unevenness.
    const double low = std::min<double>(level, groundLevel(soft));
    PixelSet mask = reaching(above(soft, static_cast<float>(low)), above(soft, level));
    bool doubtful = false;
    const PixelSet shadow =
        takeShadowOff(mask, difference, soft, level, std::hypot(ground[1].sigma, ground[2].sigma), doubtful);
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
    const Box2 extent = {Vec2(parts.front().left, parts.front().top),
                         Vec2(parts.front().right, parts.front().bottom)};
    const double thin = wish.thin_px > 0 ? wish.thin_px / factor : kThinShare * extent.size().norm();
    const PixelSet solid = joined(parts, mask.width, mask.height, std::max(1.0, 0.5 * thin));
    PixelSet body = withHolesFilled(solid, std::max(1.0, 0.5 * thin));
    const std::size_t whole = static_cast<std::size_t>(std::count(body.on.begin(), body.on.end(), 1));
    const PixelSet withThings = body;
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
    if (doubtful)
        result.warnings.push_back(
            {"soft_edge",
             "Part of the outline is soft, as the edge of a shadow is, and has no colour to tell it by. "
             "Take the picture in even light, on paper of another colour, or paint the shadow out.",
             "photo"});
    task.progress(0.8);
    if (task.cancelled()) return Task::cancelledError();
    // Opening rounds corners off; the edge itself is where the difference says.
    const PixelSet uncut = pixelsOf(found, mask.width, mask.height);
    // A bar of the ground's colour cuts a notch into the border, narrow and steep, as no body has.
    const PixelSet one = filled(notchesClosed(uncut, 1.2 * thin));
    Plane inside(mask.width, mask.height);
    for (std::size_t i = 0; i < one.on.size(); ++i) inside.values[i] = one.on[i];
    const std::vector<Polyline2> lines = levelLines(smoothed(inside, 0.8), 0.5F);
    if (lines.empty()) return noContrast;
    Polyline2 line = evenlySpaced(lines.front(), 1.5, 2);
    placeEdge(line, smoothed(difference.all, 0.7), smoothed(difference.colour, 0.7), grown(shadow, 3));
    line = evenlySpaced(line, 2, 2);
    PixelSet bridged(mask.width, mask.height);
    for (std::size_t i = 0; i < bridged.on.size(); ++i)
        bridged.on[i] = (withThings.on[i] && !uncut.on[i]) || (one.on[i] && !uncut.on[i]);
    bridge(line, grown(broad(bridged), std::max(3.0, 0.35 * thin)));
    line = evenlySpaced(line, 2, 2);
    for (Vec2& p : line) p *= factor;
    result.outline = std::move(line);
    task.progress(1);
    return result;
}

}  // namespace nine
