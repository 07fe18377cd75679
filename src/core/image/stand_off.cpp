#include "image/stand_off.h"

#include <algorithm>
#include <cmath>

#include "base/number_text.h"
#include "base/units.h"
#include "geom/polygon_set.h"

namespace nine {
namespace {

constexpr double kHalfPencil_mm = 3.5;
constexpr double kFarthestOut_mm = 4, kFarthestIn_mm = 0.5;

double sizeOf(const Polyline2& outline, bool noseLeft, bool height) {
    if (outline.size() < 3) return 0;
    const BodyAxis axis = axisOf(outline, noseLeft);
    if (!height) return axis.length();
    return boxAround({laidOn(outline, axis)}).size().y();
}

double heightAcross(const TracedBox& box, bool noseLeft) {
    return sizeOf(box.outline, noseLeft, true);
}

/// Usual stand-offs of side and top: each depends on how high the edge of the other view stands.
struct Both {
    double side = 0, top = 0;
};
Both usualOf(const TracingReading& reading, const TracingWish& wish) {
    constexpr double kWidthShare = 0.7;  // of the height, where nothing tells
    const double tall = heightAcross(*reading.side, wish.noseLeft),
                 wide = reading.top ? heightAcross(*reading.top, wish.noseLeft) : kWidthShare * tall;
    const double line = reading.side->lineWidth_mm, topLine = reading.top ? reading.top->lineWidth_mm : line;
    Both by;
    for (int i = 0; i < 4; ++i)
        by = {usualStandOff_mm(wish.tracedWith, line, std::max(0.0, 0.5 * wide - by.top)),
              usualStandOff_mm(wish.tracedWith, topLine, std::max(0.0, 0.5 * tall - by.side))};
    return by;
}

Result<double> knownStandOff(const TracedBox& side, const TracingWish& wish, Warnings& warnings) {
    constexpr double kAgree_mm = 0.3;
    std::optional<double> byLength, byHeight;
    for (const bool height : {false, true}) {
        const std::optional<double>& known = height ? wish.knownHeight_mm : wish.knownLength_mm;
        if (!known) continue;
        const Result<double> by = standOffFor(side.outline, wish.noseLeft, *known, height);
        if (!by) return by.error();
        (height ? byHeight : byLength) = *by;
    }
    if (!byLength) return *byHeight;
    if (!byHeight) return *byLength;
    if (std::abs(*byLength - *byHeight) > kAgree_mm)
        warnings.push_back(
            {"known_sizes_disagree",
             Words(NINE_WORDS("core",
                              "The length asks for {length} to be taken off all round, the height "
                              "for {height}; the mean is taken. Measure both again."))
                 .length("length", *byLength, 2)
                 .length("height", *byHeight, 2),
             "known_length"});
    return 0.5 * (*byLength + *byHeight);
}

}  // namespace

double usualStandOff_mm(TracedWith with, double lineWidth_mm, double edgeHeight_mm) {
    const double half = 0.5 * lineWidth_mm;
    switch (with) {
        case TracedWith::Edge:
            return 0;
        case TracedWith::Leaning:
            return half;
        case TracedWith::Upright:
            break;
    }
    return half + std::min(kHalfPencil_mm, edgeHeight_mm * std::tan(degToRad(kPencilCone_deg)));
}

Polyline2 drawnInBy(const Polyline2& outline, double by_mm) {
    if (by_mm == 0) return outline;
    const Polyline2 counterClockwise =
        polygonArea(outline) > 0 ? outline : Polyline2(outline.rbegin(), outline.rend());
    const PolygonSet parts = offset({counterClockwise}, -by_mm);
    if (parts.empty()) return {};
    return *std::max_element(parts.begin(), parts.end(), [](const Polygon2& a, const Polygon2& b) {
        return polygonArea(a) < polygonArea(b);
    });
}

Result<double> standOffFor(const Polyline2& outline, bool noseLeft, double size_mm, bool height) {
    const double drawn = sizeOf(outline, noseLeft, height), over = 0.5 * (drawn - size_mm);
    const auto left = [&](double by) { return sizeOf(drawnInBy(outline, by), noseLeft, height); };
    // Size falls as it is drawn in: by twice as much, or more at a fine end.
    double low = -kFarthestIn_mm, high = kFarthestOut_mm;
    if (!(over > -kFarthestIn_mm && left(high) < size_mm && left(low) > size_mm))
        return Error{"known_size_off",
                     Words(NINE_WORDS("core",
                                      "The tracing is {drawn} {height}, the ruler says {size}: no pencil "
                                      "stands so far off. Measure again, from nose to tail without bill and "
                                      "rings, and see whether the printed line of 100 mm is right."))
                         .length("drawn", drawn, 1)
                         .words("height", (height ? NINE_WORDS("core", "high") : NINE_WORDS("core", "long")))
                         .length("size", size_mm, 1),
                     height ? "known_height" : "known_length"};
    for (int i = 0; i < 14; ++i) {
        const double middle = 0.5 * (low + high);
        (left(middle) > size_mm ? low : high) = middle;
    }
    return 0.5 * (low + high);
}

Status drawIn(TracingReading& reading, const TracingWish& wish) {
    constexpr double kWorthSaying_mm = 0.1;
    TracedBox& side = *reading.side;
    const Both usual = usualOf(reading, wish);
    const bool known = wish.knownLength_mm || wish.knownHeight_mm;
    if (known) {
        const Result<double> by = knownStandOff(side, wish, reading.warnings);
        if (!by) return by.error();
        reading.sideStandOff_mm = *by;
    } else if (!side.filled) {
        reading.sideStandOff_mm = usual.side;
    }
    side.outline = drawnInBy(side.outline, reading.sideStandOff_mm);
    if (reading.top && (known || usual.top > 0)) {
        const Result<double> by = standOffFor(reading.top->outline, wish.noseLeft,
                                              sizeOf(side.outline, wish.noseLeft, false), false);
        reading.topStandOff_mm = by ? *by : known ? reading.sideStandOff_mm : usual.top;
        reading.top->outline = drawnInBy(reading.top->outline, reading.topStandOff_mm);
    }
    if (side.outline.empty() || (reading.top && reading.top->outline.empty()))
        return Error{"nothing_drawn",
                     Words(NINE_WORDS("core",
                                      "Nothing of the tracing is left when {off} are taken off all "
                                      "round for the pencil."))
                         .length("off", reading.sideStandOff_mm, 1),
                     "traced_with"};
    if (known || side.filled) return Done{};
    if (wish.tracedWith == TracedWith::Edge) {
        TracingWish upright = wish;
        upright.tracedWith = TracedWith::Upright;
        const double half = 0.5 * side.lineWidth_mm;
        if (half > kWorthSaying_mm)
            reading.warnings.push_back(
                {"pencil_stands_off",
                 Words(NINE_WORDS("core",
                                  "A pencil leaves its line outside the body: by half the line, {half} "
                                  "here, where it leaned, by about {side} where it stood upright. Nothing "
                                  "was taken off. Say how it was held, or one size by ruler."))
                     .length("half", half, 2)
                     .length("side", usualOf(reading, upright).side, 1),
                 "traced_with"});
        return Done{};
    }
    reading.warnings.push_back(
        {"stand_off_assumed",
         Words(NINE_WORDS("core",
                          "Taken off all round for the pencil: {off}, assumed from how it "
                          "was held. One size by ruler, length or height, makes it certain."))
             .length("off", reading.sideStandOff_mm, 2),
         "traced_with"});
    return Done{};
}

}  // namespace nine
