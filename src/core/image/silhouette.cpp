#include "image/silhouette.h"

#include <algorithm>
#include <cmath>

#include "base/parallel.h"
#include "image/attached.h"
#include "image/border.h"
#include "image/ground.h"
#include "image/marks.h"
#include "image/ring.h"
#include "image/shadow.h"

namespace nine {
namespace {

constexpr int kWorkOn_px = 1900;         // longer side of the picture that is worked on
constexpr double kLeastContrast = 4;     // standard deviations of the ground
constexpr double kLeastDifference = 5;   // L*a*b* units
constexpr double kSoftShare = 0.12;      // of the outline without a clear edge: worth saying
constexpr double kSecondBody = 0.4;      // of the body's area: told
constexpr double kThinShare = 1.0 / 60;  // of the body's length
constexpr double kRingMargin_px = 1.5;   // the blur of a ring's rim

void apply(PixelSet& mask, const Stroke2& stroke, double factor) {
    const double r = std::max(1.0, stroke.radius_px / factor);
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

/// The body with what was painted, its largest part: what hangs together only by slivers that a brush left is
/// apart. Empty when nothing is left.
PixelSet painted(const PixelSet& body, const std::vector<Stroke2>& strokes, double factor, double radius) {
    PixelSet out = body;
    for (const Stroke2& stroke : strokes) apply(out, stroke, factor);
    if (out.on == body.on) return out;
    const std::vector<Part> thick = partsOf(opened(out, radius), false);
    if (thick.size() > 1) {
        PixelSet others(out.width, out.height);
        for (std::size_t k = 1; k < thick.size(); ++k)
            for (const std::size_t i : thick[k].pixels) others.on[i] = 1;
        const PixelSet around = grown(others, radius);
        for (std::size_t i = 0; i < out.on.size(); ++i) out.on[i] = out.on[i] && !around.on[i];
    }
    const std::vector<Part> left = partsOf(out, false);
    return thick.empty() || left.empty() ? PixelSet(out.width, out.height)
                                         : filled(pixelsOf(left.front(), out.width, out.height));
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

PixelSet without(PixelSet set, const PixelSet& other) {
    for (std::size_t i = 0; i < set.on.size(); ++i) set.on[i] = set.on[i] && !other.on[i];
    return set;
}

/// The parts of a set that stand out from the body as things that were taken off; what is asked for goes back
/// on to the body.
void takeOff(const PixelSet& set, TakenOff::Kind kind, bool doubtful, const SilhouetteWish& wish, int factor,
             PixelSet& body, std::vector<TakenOff>& things) {
    constexpr float kOut_px = 5;
    constexpr std::size_t kLeast_px = 40;
    constexpr double kFarShadow = 0.3;  // of the root of the body's area: that far out it may be body
    const Plane away = distanceTo(body);
    const double farShadow =
        kFarShadow * std::sqrt(static_cast<double>(std::count(body.on.begin(), body.on.end(), 1)));
    for (const Part& part : partsOf(opened(set, 1), true)) {
        if (part.area() < kLeast_px) break;
        float reach = 0, least = 1e9F;
        std::size_t nearest = part.pixels.front();
        for (const std::size_t i : part.pixels) {
            reach = std::max(reach, away.values[i]);
            if (away.values[i] < least) {
                least = away.values[i];
                nearest = i;
            }
        }
        if (reach < kOut_px || least > kOut_px) continue;
        TakenOff thing;
        thing.kind = kind;
        const bool far = kind == TakenOff::Kind::Shadow && static_cast<double>(reach) > farShadow;
        thing.doubtful = doubtful || far;
        thing.reach_px = static_cast<double>(reach) * factor;
        const auto w = static_cast<std::size_t>(set.width);
        thing.foot =
            factor * Vec2(static_cast<double>(nearest % w) + 0.5, static_cast<double>(nearest / w) + 0.5);
        const PixelSet one = pixelsOf(part, set.width, set.height);
        Plane inside(set.width, set.height);
        for (const std::size_t i : part.pixels) inside.values[i] = 1;
        const std::vector<Polyline2> lines = levelLines(inside, 0.5F);
        if (lines.empty()) continue;
        thing.outline = lines.front();
        for (Vec2& p : thing.outline) p *= factor;
        thing.back = std::any_of(wish.putBack.begin(), wish.putBack.end(), [&](const Vec2& p) {
            const int x = static_cast<int>(p.x() / factor), y = static_cast<int>(p.y() / factor);
            return one.inside(x, y) && one.at(x, y);
        });
        if (thing.back) {
            const PixelSet with = grown(one, static_cast<double>(least) + 1.5);
            for (std::size_t i = 0; i < body.on.size(); ++i)
                body.on[i] = body.on[i] || one.on[i] || (with.on[i] && set.on[i]);
        }
        things.push_back(std::move(thing));
    }
}

/// Stretches of the border without an edge, longer than a few pixels.
std::vector<Guessed> guessedIn(const Border& border, int factor) {
    constexpr std::size_t kLeast = 6, kGlimpse = 3;        // points; an edge seen for less is none
    constexpr double kLikelyShare = 0.05, kAtAnEnd = 0.3;  // of the stretch, by the study of pictures
    constexpr double kRoundAnEnd = 1.25;                   // as long as its chord
    const std::size_t n = border.line.size();
    std::vector<bool> seen = border.seen;
    for (std::size_t i = 0; i < n;) {  // short glimpses between two blind stretches
        std::size_t j = i;
        while (j < n && seen[j]) ++j;
        if (j > i && j - i < kGlimpse && i > 0 && j < n)
            std::fill(seen.begin() + long(i), seen.begin() + long(j), false);
        i = std::max(j, i + 1);
    }
    std::vector<Guessed> out;
    std::size_t start = 0;
    while (start < n && !seen[start]) ++start;
    if (start == n) return out;
    for (std::size_t i = start; i < start + n;) {
        std::size_t j = i;
        while (j < start + n && !seen[j % n]) ++j;
        if (j - i >= kLeast) {
            Guessed stretch;
            for (std::size_t k = i; k < j; ++k) stretch.line.push_back(factor * border.line[k % n]);
            double length = 0;
            for (std::size_t k = 1; k < stretch.line.size(); ++k)
                length += (stretch.line[k] - stretch.line[k - 1]).norm();
            const double chord = (stretch.line.back() - stretch.line.front()).norm();
            stretch.likely_px = length > kRoundAnEnd * chord ? kAtAnEnd * length : kLikelyShare * chord;
            out.push_back(std::move(stretch));
        }
        i = std::max(j, i + 1);
    }
    return out;
}

/// What was taken off without the roughness of borders, which opening takes off everywhere: parts that stand
/// out from the body.
PixelSet standingOut(const PixelSet& taken, const PixelSet& body) {
    constexpr float kOut_px = 5;
    PixelSet things(taken.width, taken.height);
    const Plane away = distanceTo(body);
    for (const Part& part : partsOf(taken, true)) {
        if (std::none_of(part.pixels.begin(), part.pixels.end(),
                         [&](std::size_t i) { return away.values[i] > kOut_px; }))
            continue;
        for (const std::size_t i : part.pixels) things.on[i] = 1;
    }
    return things;
}

/// What was measured of the whole picture, and where its body lies cut out of it.
struct Scene {
    Picture picture;  ///< in its own pixels; all else is `factor` times smaller
    int factor = 1;
    std::vector<Plane> lab;
    Difference difference;
    Plane soft;  ///< difference.all, smoothed
    float level = 0;
    double low = 0;  ///< of soft: what surely is body, and what hangs on to it
    PixelSet mask;
    WholePicture whole;
    double noise = 0;      ///< of the ground, L*a*b*
    std::size_t area = 0;  ///< of the whole picture
};

/// A part of the picture worked on.
struct Window {
    int left = 0, top = 0, width = 0, height = 0;
};
/// Round what was found and what is told by hand, with room for a border to be looked for.
Window windowOf(const PixelSet& mask, const SilhouetteWish& wish, int factor) {
    constexpr int kRoom_px = 60;
    int left = mask.width, top = mask.height, right = 0, bottom = 0;
    const auto include = [&](int x, int y) {
        left = std::min(left, x);
        top = std::min(top, y);
        right = std::max(right, x);
        bottom = std::max(bottom, y);
    };
    for (int y = 0; y < mask.height; ++y)
        for (int x = 0; x < mask.width; ++x)
            if (mask.at(x, y)) include(x, y);
    for (const Stroke2& stroke : wish.strokes)
        for (const Vec2& p : stroke.points)
            for (const double r : {-stroke.radius_px, stroke.radius_px})
                include(static_cast<int>((p.x() + r) / factor), static_cast<int>((p.y() + r) / factor));
    left = std::clamp(left - kRoom_px, 0, mask.width - 1);
    top = std::clamp(top - kRoom_px, 0, mask.height - 1);
    right = std::clamp(right + kRoom_px, left, mask.width - 1);
    bottom = std::clamp(bottom + kRoom_px, top, mask.height - 1);
    return {left, top, right - left + 1, bottom - top + 1};
}
template <typename T>
std::vector<T> cutRows(const std::vector<T>& all, int width, const Window& window, int perPixel) {
    std::vector<T> part;
    part.reserve(static_cast<std::size_t>(window.width) * static_cast<std::size_t>(window.height * perPixel));
    for (int y = 0; y < window.height; ++y) {
        const auto from = all.begin() + (std::ptrdiff_t(window.top + y) * width + window.left) * perPixel;
        part.insert(part.end(), from, from + std::ptrdiff_t(window.width) * perPixel);
    }
    return part;
}
Plane cut(const Plane& plane, const Window& window) {
    Plane part;
    part.width = window.width;
    part.height = window.height;
    part.values = cutRows(plane.values, plane.width, window, 1);
    return part;
}
PixelSet cut(const PixelSet& set, const Window& window) {
    PixelSet part;
    part.width = window.width;
    part.height = window.height;
    part.on = cutRows(set.on, set.width, window, 1);
    return part;
}
Picture cut(const Picture& picture, Window window, int factor) {
    for (int* n : {&window.left, &window.top, &window.width, &window.height}) *n *= factor;
    Picture part;
    part.width = window.width;
    part.height = window.height;
    part.rgb = cutRows(picture.rgb, picture.width, window, 3);
    return part;
}

Result<Silhouette> silhouetteIn(const Scene& scene, const SilhouetteWish& wish, const Task& task) {
    // In one piece: every step looks at what all before it found; what can be asked alone is a function
    // above.
    const int factor = scene.factor;
    const std::vector<Plane>& lab = scene.lab;
    const Plane& soft = scene.soft;
    PixelSet mask = scene.mask;
    const ShadowReading shadow = takeShadowOff(mask, lab, scene.difference, soft, scene.level, scene.whole);
    // Contrast is that of body and ground, not of what is left when most was painted out.
    const PixelSet asFound = mask;
    for (const Stroke2& stroke : wish.strokes) apply(mask, stroke, factor);
    const bool putIn = std::any_of(wish.strokes.begin(), wish.strokes.end(),
                                   [](const Stroke2& stroke) { return stroke.include; });
    const PixelSet& seen = putIn ? mask : asFound;
    PixelSet groundLike = shadow.like;
    for (std::size_t i = 0; i < groundLike.on.size(); ++i)
        groundLike.on[i] = groundLike.on[i] || soft.values[i] < scene.low;
    std::vector<Plane> sharp;
    for (const Plane& plane : lab) sharp.push_back(smoothed(plane, 0.7));

    double onBody = 0, onGround = 0;
    std::size_t bodyCount = 0, groundCount = 0;
    for (std::size_t i = 0; i < seen.on.size(); ++i) {
        (seen.on[i] ? onBody : onGround) += soft.values[i];
        ++(seen.on[i] ? bodyCount : groundCount);
    }
    const Error noContrast{"no_contrast",
                           NINE_WORDS("core",
                                      "The body does not stand out from its ground. Lay it on plain paper of "
                                      "another colour, in even light, and take the picture again."),
                           "photo"};
    const Error nothingLeft{"nothing_found",
                            NINE_WORDS("core",
                                       "Nothing of the body is left when what was painted out is taken off. "
                                       "Take a stroke back."),
                            "photo"};
    if (bodyCount == 0 || groundCount == 0) return noContrast;
    onBody /= static_cast<double>(bodyCount);
    onGround /= static_cast<double>(groundCount);
    Silhouette result;
    result.contrast = (onBody - onGround) / std::max(0.3, scene.noise);
    if (onBody - onGround < kLeastDifference || result.contrast < kLeastContrast) return noContrast;

    const std::vector<Part> asSeen = partsOf(mask, false);
    if (asSeen.empty()) return wish.strokes.empty() ? noContrast : nothingLeft;
    // Rings part what hangs on to them from the body.
    const std::vector<Ring> rings = ringsOn(sharp, mask, groundLike, scene.noise);
    const PixelSet ringed = pixelsOf(rings, mask.width, mask.height, kRingMargin_px);
    mask = without(std::move(mask), ringed);
    std::vector<Part> parts = partsOf(mask, false);
    if (parts.empty()) return noContrast;
    const Box2 extent = {Vec2(parts.front().left, parts.front().top),
                         Vec2(parts.front().right, parts.front().bottom)};
    const double thin = wish.thin_px > 0 ? wish.thin_px / factor : kThinShare * extent.size().norm();
    const double radius = std::max(1.0, 0.5 * thin);
    PixelSet body = withHolesFilled(joined(parts, mask.width, mask.height, radius), radius);
    const std::size_t whole = static_cast<std::size_t>(std::count(body.on.begin(), body.on.end(), 1));
    PixelSet withThings = pixelsOf(asSeen.front(), mask.width, mask.height);
    for (std::size_t i = 0; i < body.on.size(); ++i)
        withThings.on[i] = withThings.on[i] || body.on[i] || ringed.on[i];
    const PixelSet withBills = withoutThinThings(body, radius);
    body = withoutBills(withBills, soft, scene.level);
    const PixelSet wires = without(withThings, withBills), bills = without(withBills, body);
    parts = partsOf(body, false);
    if (parts.empty() || parts.front().area() < 400) {
        if (!wish.strokes.empty()) return nothingLeft;
        return Error{
            "nothing_found",
            NINE_WORDS("core", "No body was found in the picture; it should fill a good part of it."),
            "photo"};
    }
    const Part& found = parts.front();
    const double share = static_cast<double>(found.area()) / static_cast<double>(scene.area);
    if (found.left <= 1 || found.top <= 1 || found.right >= mask.width - 2 || found.bottom >= mask.height - 2)
        return Error{"cut_off",
                     NINE_WORDS("core",
                                "The body, or its ground, runs out of the picture; take it with plain "
                                "ground all round the body."),
                     "photo"};
    if (share > 0.85) return noContrast;
    if (static_cast<double>(whole - found.area()) > 0.25 * static_cast<double>(found.area()))
        result.warnings.push_back(
            {"much_left_out",
             NINE_WORDS("core",
                        "Besides the body, large parts were found and left out; look whether the "
                        "outline follows the body, and paint out what is not."),
             "photo"});
    const auto other = std::find_if(asSeen.begin(), asSeen.end(), [&](const Part& part) {
        return static_cast<double>(part.area()) > kSecondBody * static_cast<double>(found.area()) &&
               !withThings.on[part.pixels.front()];
    });
    if (other != asSeen.end())
        result.warnings.push_back(
            {"second_body",
             Words(NINE_WORDS("core",
                              "Something else as large as a body lies in the picture, {side} of what "
                              "was taken for the body. If that is the wrong one, paint it out."))
                 .words("side", (other->centroid(mask.width).x() < found.centroid(mask.width).x()
                                     ? NINE_WORDS("core", "to the left")
                                     : NINE_WORDS("core", "to the right"))),
             "photo"});
    task.progress(0.8);
    if (task.cancelled()) return Task::cancelledError();
    // Opening rounds corners off; the edge itself is where the difference says.
    const PixelSet uncut = pixelsOf(found, mask.width, mask.height);
    // A bar of the ground's colour cuts a notch into the border, narrow and steep, as no body has.
    PixelSet one = filled(slotsClosed(notchesClosed(uncut, 0.5 * thin), 2.4 * thin));
    // What was painted is final: nothing is joined across it, and its rim is no edge of the picture.
    const PixelSet byItself = one;
    const PixelSet* sets[] = {&wires, &bills, &shadow.taken};
    for (int kind = 0; kind < 3; ++kind)
        takeOff(*sets[kind], static_cast<TakenOff::Kind>(kind), kind == 2 && shadow.doubtful, wish, factor,
                one, result.takenOff);
    const PixelSet withBack = one;
    one = painted(one, wish.strokes, factor, radius);
    if (std::none_of(one.on.begin(), one.on.end(), [](std::uint8_t on) { return on != 0; }))
        return nothingLeft;
    Plane inside(mask.width, mask.height);
    for (std::size_t i = 0; i < one.on.size(); ++i) inside.values[i] = one.on[i];
    const std::vector<Polyline2> lines = levelLines(smoothed(inside, 0.8), 0.5F);
    if (lines.empty()) return noContrast;
    PixelSet taken(mask.width, mask.height);
    for (std::size_t i = 0; i < taken.on.size(); ++i)
        taken.on[i] = withThings.on[i] && !uncut.on[i] && !groundLike.on[i] && !ringed.on[i];
    PixelSet covered = grown(standingOut(taken, one), std::max(3.0, 0.42 * thin));
    const PixelSet rims = pixelsOf(rings, mask.width, mask.height, 2 * kRingMargin_px);
    for (std::size_t i = 0; i < covered.on.size(); ++i) covered.on[i] = covered.on[i] || rims.on[i];
    // What was painted or put back is final, and its rim no edge of the picture.
    PixelSet fixed(mask.width, mask.height);
    for (Stroke2 stroke : wish.strokes) {
        stroke.include = true;
        apply(fixed, stroke, factor);
    }
    for (std::size_t i = 0; i < fixed.on.size(); ++i)
        fixed.on[i] = fixed.on[i] || (withBack.on[i] && !byItself.on[i]);
    fixed = grown(fixed, 3);
    const BorderSight sight{scene.picture,           factor, sharp, groundLike, covered, fixed,
                            distanceTo(inverse(one))};
    Border border = borderNear(lines.front(), sight);
    std::size_t open = 0, vague = 0;
    for (std::size_t i = 0; i < border.line.size(); ++i) {
        const Vec2& p = border.line[i];
        const int x = static_cast<int>(p.x()), y = static_cast<int>(p.y());
        if (covered.inside(x, y) && (covered.at(x, y) || fixed.at(x, y))) continue;
        ++open;
        vague += !border.seen[i];
    }
    if (shadow.doubtful || static_cast<double>(vague) > kSoftShare * static_cast<double>(open))
        result.warnings.push_back(
            {"soft_edge",
             NINE_WORDS("core",
                        "Part of the outline is soft, as the edge of a shadow is, and has no "
                        "colour to tell it by. Take the picture in even light, on paper of "
                        "another colour, or paint the shadow out."),
             "photo"});
    result.guessed = guessedIn(border, factor);
    Polyline2 line = evenlySpaced(border.line, 2, 2);
    for (Vec2& p : line) p *= factor;
    result.outline = std::move(line);
    return result;
}

}  // namespace

Result<Silhouette> silhouetteOf(const Picture& picture, const SilhouetteWish& wish, const Task& task) {
    // In one piece: the order in which thresholds are tried, with what makes each give way.
    const int factor = factorFor(picture, kWorkOn_px);
    const Picture small = reduced(picture, factor);
    if (small.width < 40 || small.height < 40)
        return Error{
            "nothing_found",
            NINE_WORDS("core", "The picture is too small to find a body in; take it with more pixels."),
            "photo"};
    task.progress(0.2);
    if (task.cancelled()) return Task::cancelledError();
    if (showsTracingSheet(small, task))
        return Error{"tracing_sheet",
                     NINE_WORDS("core",
                                "This is a picture of the tracing sheet, not of a body. Open it under "
                                "\"Trace it\"."),
                     "photo"};
    std::vector<Plane> lab = labPlanes(small);
    GroundPlane ground[3];
    forEachInParallel(3, [&](std::size_t c) { ground[c] = groundOf(lab[c]); });
    task.progress(0.4);
    if (task.cancelled()) return Task::cancelledError();
    Scene scene;
    scene.factor = factor;
    scene.difference = differenceFrom(lab, ground);
    scene.soft = smoothed(scene.difference.all, 1.2);
    scene.level = otsuLevel(scene.soft.values);
    task.progress(0.6);
    if (task.cancelled()) return Task::cancelledError();
    // A body has parts that stand out less than others: what hangs on to what surely is body counts from
    // where it leaves the ground's own unevenness.
    scene.low = std::min<double>(scene.level, groundLevel(scene.soft));
    scene.mask = reaching(above(scene.soft, static_cast<float>(scene.low)), above(scene.soft, scene.level));
    scene.whole = {std::hypot(small.width, small.height), quantile(scene.soft.values, 0.98),
                   std::hypot(ground[1].sigma, ground[2].sigma)};
    scene.area = scene.mask.on.size();
    double spread = 0;
    for (const GroundPlane& plane : ground) spread += plane.sigma * plane.sigma;
    scene.noise = std::sqrt(spread);
    scene.lab = std::move(lab);
    // What follows is done where the body is, not on the ground far round it.
    const Window window = windowOf(scene.mask, wish, factor);
    scene.picture = cut(picture, window, factor);
    for (Plane& plane : scene.lab) plane = cut(plane, window);
    for (Plane* plane : {&scene.difference.all, &scene.difference.colour, &scene.soft})
        *plane = cut(*plane, window);
    scene.difference.darker = cut(scene.difference.darker, window);
    scene.mask = cut(scene.mask, window);
    const Vec2 off = factor * Vec2(window.left, window.top);
    SilhouetteWish there = wish;
    for (Stroke2& stroke : there.strokes)
        for (Vec2& p : stroke.points) p -= off;
    for (Vec2& p : there.putBack) p -= off;
    Result<Silhouette> found = silhouetteIn(std::move(scene), there, task);
    if (!found) return found;
    for (Vec2& p : found->outline) p += off;
    for (TakenOff& thing : found->takenOff) {
        thing.foot += off;
        for (Vec2& p : thing.outline) p += off;
    }
    for (Guessed& guess : found->guessed)
        for (Vec2& p : guess.line) p += off;
    task.progress(1);
    return found;
}

}  // namespace nine
