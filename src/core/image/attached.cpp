#include "image/attached.h"

#include <algorithm>
#include <cmath>
#include <optional>

namespace nine {
namespace {

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
Ends endsOf(const Part& body, int pictureWidth) {
    Ends ends{body.centroid(pictureWidth), body.direction(pictureWidth), 1e18, -1e18};
    const auto w = static_cast<std::size_t>(pictureWidth);
    for (const std::size_t i : body.pixels) {
        const Vec2 p(static_cast<double>(i % w) + 0.5, static_cast<double>(i / w) + 0.5);
        ends.low = std::min(ends.low, (p - ends.middle).dot(ends.along));
        ends.high = std::max(ends.high, (p - ends.middle).dot(ends.along));
    }
    return ends;
}

/// Half the thickness of a part at each distance from what it hangs on, pixels.
std::vector<double> thicknessAlong(const Part& part, const Plane& half, const Plane& away) {
    std::vector<double> thickness;
    for (const std::size_t i : part.pixels) {
        const auto at = static_cast<std::size_t>(away.values[i]);
        if (at >= thickness.size()) thickness.resize(at + 1, 0);
        thickness[at] = std::max<double>(thickness[at], half.values[i]);
    }
    return thickness;
}

/// Long and as wide at its far end as near its root: a bill, and no part of a body, which runs out.
bool isParallel(const std::vector<double>& thickness) {
    constexpr double kLongerThanWide = 1.8, kAsWide = 0.7;
    const std::size_t reach = thickness.size();
    if (reach < 8) return false;
    const double nearRoot = thickness[reach * 3 / 10], nearEnd = thickness[reach * 7 / 10];
    return static_cast<double>(reach) > kLongerThanWide * 2 * nearRoot && nearEnd > kAsWide * nearRoot;
}

/// Where a part is narrowest before it gets wider again, as a ring filled with shade does behind its neck;
/// nothing where it only runs out. A distance from the root, pixels.
std::optional<std::size_t> neckOf(const std::vector<double>& thickness) {
    constexpr double kWidens = 1.2, kLeast_px = 1;
    std::size_t neck = 0;
    for (std::size_t i = 1; i < thickness.size(); ++i) {
        if (neck == 0 || thickness[i] < thickness[neck]) neck = i;
        if (thickness[i] > kWidens * thickness[neck] && thickness[i] > thickness[neck] + kLeast_px)
            return neck;
    }
    return std::nullopt;
}

}  // namespace

PixelSet withoutThinThings(const PixelSet& mask, double radius) {
    const std::vector<Part> thick = partsOf(opened(mask, radius), false);
    if (thick.empty()) return PixelSet(mask.width, mask.height);
    PixelSet body = pixelsOf(thick.front(), mask.width, mask.height);
    // Rings count with what they enclose, so that they are wider than where they hang on.
    const Plane half = distanceTo(inverse(mask)), halfWhole = distanceTo(inverse(filled(mask))),
                away = distanceTo(body);
    PixelSet rest = mask;
    for (std::size_t i = 0; i < rest.on.size(); ++i) rest.on[i] = rest.on[i] && !body.on[i];
    const Ends ends = endsOf(thick.front(), mask.width);
    for (const Part& part : partsOf(rest, false)) {
        if (!ends.near(part, mask.width)) continue;  // on the flank nothing runs to a point
        const std::vector<double> thickness = thicknessAlong(part, half, away);
        const std::vector<double> whole = thicknessAlong(part, halfWhole, away);
        constexpr double kTapers = 0.85, kWidens = 1.15;
        std::size_t kept = 1;  // the first ring of pixels is the border's own roughness
        double least = 1e9;
        while (kept < thickness.size()) {
            const auto ahead = kept + static_cast<std::size_t>(std::ceil(std::max(3.0, 2 * thickness[kept])));
            if (ahead < thickness.size() && thickness[ahead] > kTapers * thickness[kept]) break;
            if (kept > 1) least = std::min(least, whole[kept]);
            if (whole[kept] > kWidens * least + 1) break;  // a ring, wider than where it hangs on
            ++kept;
        }
        for (const std::size_t i : part.pixels)
            if (static_cast<std::size_t>(away.values[i]) < kept) body.on[i] = 1;
    }
    return body;
}

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

PixelSet notchesClosed(const PixelSet& mask, double radius) {
    return inverse(grown(inverse(grown(mask, radius)), radius));
}

PixelSet slotsClosed(const PixelSet& mask, double radius) {
    constexpr double kFull = 0.68, kDeep = 0.25;  // of the box over the mouth; depth for the mouth's width
    const PixelSet closed = notchesClosed(mask, radius);
    PixelSet fill = closed, outside = inverse(closed), out = mask;
    for (std::size_t i = 0; i < fill.on.size(); ++i) fill.on[i] = fill.on[i] && !mask.on[i];
    const Plane toOutside = distanceTo(outside);
    const auto w = static_cast<std::size_t>(mask.width);
    constexpr std::size_t kSpeck_px = 6;
    for (const Part& part : partsOf(fill, false)) {
        if (part.area() < kSpeck_px) break;
        double depth = 0, wide = 0;
        std::vector<Vec2> mouth;
        for (const std::size_t i : part.pixels) {
            depth = std::max<double>(depth, toOutside.values[i]);
            if (toOutside.values[i] < 1.5F)
                mouth.emplace_back(static_cast<double>(i % w), static_cast<double>(i / w));
        }
        for (const Vec2& p : mouth) wide = std::max(wide, (p - mouth.front()).norm());
        const bool enclosed = mouth.empty();
        if (!enclosed &&
            (static_cast<double>(part.area()) < kFull * depth * (wide + 1) || depth < kDeep * wide))
            continue;
        for (const std::size_t i : part.pixels) out.on[i] = 1;
    }
    return out;
}

PixelSet joined(const std::vector<Part>& parts, int width, int height, double radius) {
    constexpr double kLeastShare = 0.02, kWidestBar = 7;  // of the largest; thin radii
    PixelSet body = pixelsOf(parts.front(), width, height);
    std::vector<const Part*> others;
    for (std::size_t i = 1; i < parts.size(); ++i)
        if (static_cast<double>(parts[i].area()) > kLeastShare * static_cast<double>(parts.front().area()))
            others.push_back(&parts[i]);
    if (others.empty()) return body;
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
            // The bar is what lies near both; what is near one alone may be a ring.
            const double across = 0.5 * kWidestBar * radius + 2;
            const PixelSet sturdyBody = opened(body, radius);
            PixelSet both = sturdyBody;
            for (std::size_t i = 0; i < body.on.size(); ++i) both.on[i] = both.on[i] || sturdy.on[i];
            const PixelSet closed = notchesClosed(both, across);
            const Plane toOther = distanceTo(sturdy), toBody = distanceTo(sturdyBody);
            const auto near = static_cast<float>(2 * across);
            for (std::size_t i = 0; i < body.on.size(); ++i) {
                const bool bar = closed.on[i] && toOther.values[i] < near && toBody.values[i] < near;
                body.on[i] = body.on[i] || one.on[i] || bar;
            }
            other = nullptr;
            more = true;
            break;
        }
    }
    return body;
}

PixelSet withoutBills(const PixelSet& mask, const Plane& soft, float level) {
    constexpr double kWidest = 0.028, kAlongAxis = 0.97, kWeakShare = 0.5;
    constexpr std::size_t kSpeck_px = 60;
    const std::vector<Part> parts = partsOf(mask, false);
    if (parts.empty()) return mask;
    const Ends ends = endsOf(parts.front(), mask.width);
    const PixelSet whole = filled(mask), thick = opened(whole, kWidest * (ends.high - ends.low));
    const Plane half = distanceTo(inverse(whole)), away = distanceTo(thick);
    PixelSet rest = whole, out = mask;
    for (std::size_t i = 0; i < rest.on.size(); ++i) rest.on[i] = rest.on[i] && !thick.on[i];
    for (const Part& part : partsOf(rest, false)) {
        if (part.area() < kSpeck_px) break;
        const std::vector<double> thickness = thicknessAlong(part, half, away);
        if (const auto neck = neckOf(thickness)) {
            for (const std::size_t i : part.pixels)
                if (away.values[i] > static_cast<float>(*neck)) out.on[i] = 0;
            continue;
        }
        if (!isParallel(thickness)) continue;
        std::size_t weak = 0;
        for (const std::size_t i : part.pixels) weak += soft.values[i] < level;
        const bool along = std::abs(part.direction(mask.width).dot(ends.along)) > kAlongAxis;
        // What goes on along the body in its own colour may be the narrow part before a tail fin.
        if (along && static_cast<double>(weak) < kWeakShare * static_cast<double>(part.area())) continue;
        for (const std::size_t i : part.pixels) out.on[i] = 0;
    }
    return out;
}

}  // namespace nine
