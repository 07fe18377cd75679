// Bars across the body from the origin towards the tail, each from g0 to g1 (girth from the origin's height).
#include <algorithm>
#include <cmath>

#include "base/parallel.h"
#include "blank/walk.h"
#include "pattern/bands.h"
#include "pattern/element.h"
#include "pattern/kind/drawing.h"
#include "pattern/kinds.h"
#include "pattern/natural.h"
#include "pattern/stroke.h"

namespace nine {
namespace bars {
namespace {

struct Bars {
    double count, spacing_mm;
    double widthBack_mm, widthBelly_mm;  ///< at g1 and at g0
    double g0_mm, g1_mm;
    double waist;    ///< width in the middle, over that of an even taper
    double bow_mm;   ///< the middle farther towards the tail than the ends
    double lean_mm;  ///< the upper end farther towards the tail than the lower
    double fork;     ///< share of its length that is split, from the upper end
    double breaks, gap_mm;
    double grade;    ///< last distance over the first
    double shorter;  ///< every other bar's length
    std::string ends, across;
};

constexpr Choice kAcross[] = {{"side", NINE_WORDS("core", "on each side")},
                              {"back", NINE_WORDS("core", "over the back, as one piece")},
                              {"belly", NINE_WORDS("core", "under the belly, as one piece")}};

using Type = Param::Type;
constexpr Bound<Bars> kBarSizes[] = {
    {{"count", NINE_WORDS("core", "Count"), Type::Count, 1, kMaxCount, 5, 0, Refit::Fixed, Lessen::Fewer},
     &Bars::count},
    {{"spacing_mm", NINE_WORDS("core", "Spacing"), Type::Length, kSmallestSize_mm, kLargestSize_mm, 6, 1,
      Refit::WithLength},
     &Bars::spacing_mm},
    {{"width_back_mm", NINE_WORDS("core", "Width at the back"), Type::Length, kSmallestSize_mm, 50, 2, 2,
      Refit::WithLength, Lessen::Smaller},
     &Bars::widthBack_mm},
    {{"width_belly_mm", NINE_WORDS("core", "Width at the belly"), Type::Length, kSmallestSize_mm, 50, 1, 2,
      Refit::WithLength, Lessen::Smaller, "width_back_mm"},
     &Bars::widthBelly_mm},
    {{"g0_mm", NINE_WORDS("core", "Lower end"), Type::Length, -kMostHeight_mm, kMostHeight_mm, -4, 1,
      Refit::WithGirth, Lessen::Lower},
     &Bars::g0_mm},
    {{"g1_mm", NINE_WORDS("core", "Upper end"), Type::Length, -kMostHeight_mm, kMostHeight_mm, 8, 1,
      Refit::WithGirth, Lessen::Lower},
     &Bars::g1_mm},
    {{.key = "waist",
      .name = NINE_WORDS("core", "Width in the middle"),
      .type = Type::Share,
      .low = 0.2,
      .high = 3,
      .usual = 1,
      .decimals = 0,
      .spare = true},
     &Bars::waist},
    {{.key = "bow_mm",
      .name = NINE_WORDS("core", "Bow"),
      .low = -50,
      .high = 50,
      .refit = Refit::WithLength,
      .lessen = Lessen::Lower,
      .spare = true},
     &Bars::bow_mm},
    {{.key = "lean_mm",
      .name = NINE_WORDS("core", "Lean"),
      .low = -50,
      .high = 50,
      .refit = Refit::WithLength,
      .lessen = Lessen::Lower,
      .spare = true},
     &Bars::lean_mm},
    {{.key = "fork",
      .name = NINE_WORDS("core", "Forked part"),
      .type = Type::Share,
      .low = 0,
      .high = 0.8,
      .decimals = 0,
      .spare = true},
     &Bars::fork},
    {{.key = "breaks",
      .name = NINE_WORDS("core", "Breaks"),
      .type = Type::Count,
      .low = 0,
      .high = 8,
      .decimals = 0,
      .spare = true},
     &Bars::breaks},
    {{.key = "gap_mm",
      .name = NINE_WORDS("core", "Gap at a break"),
      .low = kSmallestSize_mm,
      .high = 50,
      .usual = 1,
      .spare = true},
     &Bars::gap_mm},
    {{.key = "grade",
      .name = NINE_WORDS("core", "Last distance over the first"),
      .type = Type::Share,
      .low = 0.2,
      .high = 5,
      .usual = 1,
      .decimals = 0,
      .spare = true},
     &Bars::grade},
    {{.key = "shorter",
      .name = NINE_WORDS("core", "Length of every other one"),
      .type = Type::Share,
      .low = 0.2,
      .high = 1,
      .usual = 1,
      .decimals = 0,
      .spare = true},
     &Bars::shorter},
    {{.key = "ends",
      .name = NINE_WORDS("core", "Ends"),
      .type = Type::Choice,
      .usualText = "square",
      .choices = kStrokeEnds,
      .spare = true},
     &Bars::ends},
    {{.key = "across",
      .name = NINE_WORDS("core", "Across"),
      .type = Type::Choice,
      .usualText = "side",
      .choices = kAcross,
      .spare = true},
     &Bars::across},
};
constexpr auto kBarParams = joined(paramsOf(kBarSizes), kNaturalParams);

const Handle kBarHandles[] = {
    {"upper", NINE_WORDS("core", "upper end of the bars"), {}, {{{"g1_mm", 0, 1}, {"lean_mm", 1, 0}}}},
    {"lower", NINE_WORDS("core", "lower end of the bars"), {}, {{{"g0_mm", 0, 1}}}},
    {"middle", NINE_WORDS("core", "middle of the bars"), {}, {{{"bow_mm", 1, 0}}}},
    {"first",
     NINE_WORDS("core", "first bar"),
     {},
     {},
     [](Element& e, const Vec2& by, const MoveOn&) { moveRowStart(e, by); },  // the last one stays
     {"spacing_mm", "dx_mm", "dg_mm"}},
    {"last",
     NINE_WORDS("core", "last bar"),
     {},
     {},
     [](Element& e, const Vec2& by, const MoveOn&) { spreadRow(e, by.x()); },
     {"spacing_mm"}},
};

/// One bar as it is drawn: heights of its ends and how much of its width and place chance has changed.
struct Bar {
    Vec2 centre;
    double low_mm, high_mm;
    Ratio size = 1;
    Wobble wobble = Wobble(0, 0);
};

double bowed(const Bars& bars, double t) {
    return bars.bow_mm * 4 * t * (1 - t) + bars.lean_mm * t;
}

/// t from belly to back.
double widthAt_mm(const Bars& bars, double t, double up) {
    return ((1 - up) * bars.widthBelly_mm + up * bars.widthBack_mm) *
           (1 + (bars.waist - 1) * 4 * t * (1 - t));
}

const Curve kBarCurves[] = {
    {.name = NINE_WORDS("core", "How wide a bar is"),
     .from = NINE_WORDS("core", "belly"),
     .to = NINE_WORDS("core", "back"),
     .first = "width_belly_mm",
     .last = "width_back_mm",
     .middle = "waist",
     .at = [](const Values& v, double t) { return widthAt_mm(sizesOf(kBarSizes, v), t, t); },
     .setMiddle =
         [](Values& v, double mm) {
             v.set("waist", mm / (0.5 * (v.number("width_belly_mm") + v.number("width_back_mm"))));
         }},
    {.name = NINE_WORDS("core", "How a bar bends towards the tail"),
     .from = NINE_WORDS("core", "belly"),
     .to = NINE_WORDS("core", "back"),
     .ofWidths = false,
     .last = "lean_mm",
     .middle = "bow_mm",
     .at = [](const Values& v, double t) { return bowed(sizesOf(kBarSizes, v), t); },
     .setMiddle = [](Values& v, double mm) { v.set("bow_mm", mm - 0.5 * v.number("lean_mm")); }},
};

double halfWidth(const Bars& bars, const Bar& bar, double t, double length) {
    const bool whole = bars.across != "side";
    // Over the back the middle is the back; its two ends are both the lower one.
    const double up = !whole ? t : bars.across == "back" ? 1 - std::abs(2 * t - 1) : std::abs(2 * t - 1);
    double half = 0.5 * widthAt_mm(bars, t, up) * bar.size;
    half *= bar.wobble.at(2 * kPi * t);
    const StrokeEnd ends = strokeEndOf(bars.ends);
    const double from = length * std::min(t, 1 - t);
    if (ends == StrokeEnd::Round && from < half)
        half *= std::sqrt(std::max(1e-4, 1 - (1 - from / half) * (1 - from / half)));
    if (ends == StrokeEnd::Pointed)
        half *= std::max(0.01, std::sin(0.5 * kPi * std::min(1.0, 2.2 * std::min(t, 1 - t))));
    return half;
}

/// A stretch of a bar, its middle line shifted by `aside` mm at its upper end.
Result<Polygon2> drawStretch(const DrawOn& on, const Bars& bars, const Bar& bar, double from, double to,
                             double aside, double narrower) {
    const ArtSteps fine = artSteps(on.fineness);
    const double length = bar.high_mm - bar.low_mm;
    const int steps = std::max(2, static_cast<int>(std::ceil((to - from) * length / fine.edge_mm - 1e-6)));
    std::vector<double> shares;
    for (int k = 0; k <= steps; ++k) shares.push_back(from + (to - from) * k / steps);
    if (bars.ends == "round") {  // a round end needs more places where it turns
        for (const double t : {0.02, 0.05, 0.1, 0.2, 0.35, 0.6})
            for (const double w : {bars.widthBelly_mm, bars.widthBack_mm})
                for (const double share : {t * 0.5 * w / length, 1 - t * 0.5 * w / length})
                    if (share > from && share < to) shares.push_back(share);
        std::sort(shares.begin(), shares.end());
    }
    Polygon2 edge;  // up the tail edge, down the nose edge
    for (const int way : {1, -1}) {
        for (std::size_t k = 0; k < shares.size(); ++k) {
            const double t = shares[way > 0 ? k : shares.size() - 1 - k];
            const double g = (1 - t) * bar.low_mm + t * bar.high_mm;
            const double side = aside * (t - from) / std::max(1e-9, to - from);
            const double half = halfWidth(bars, bar, t, length) * narrower;
            if (Status ok = on.skin.check({Side::Left, bar.centre.x(), g}, on.path); !ok) return ok.error();
            const Result<double> x =
                walkAlong(on.skin, bar.centre.x(), g, bowed(bars, t) + side + way * half, on.path);
            if (!x) return x.error();
            edge.emplace_back(*x, g);
        }
    }
    // The two ends lie along the skin too: straight in x, g, with enough points between.
    return subdivided({edge}, fine.edge_mm).front();
}

Result<std::vector<Outline>> drawBar(const DrawOn& on, const Bars& bars, const Bar& bar) {
    PolygonSet parts;
    const double length = bar.high_mm - bar.low_mm;
    const int pieces = static_cast<int>(bars.breaks) + 1;
    const double gap = std::min(bars.gap_mm / length, 0.9 / pieces);
    const double piece = (1 - gap * (pieces - 1)) / pieces;
    for (int k = 0; k < pieces; ++k) {
        const double from = k * (piece + gap), to = from + piece;
        const double split = bars.across == "side" ? std::max(from, 1 - bars.fork) : 1;
        if (from < split) {
            const Result<Polygon2> stem = drawStretch(on, bars, bar, from, std::min(to, split), 0, 1);
            if (!stem) return stem.error();
            parts.push_back(*stem);
        }
        if (to <= split + 1e-9) continue;
        // Each prong two thirds as wide, apart by their own width at the end, together where they begin.
        for (const double way : {-1.0, 1.0}) {
            const double aside =
                way * bars.widthBack_mm * bar.size * (to - split) / std::max(1e-9, bars.fork);
            const Result<Polygon2> prong = drawStretch(on, bars, bar, split, to, aside, 2.0 / 3);
            if (!prong) return prong.error();
            parts.push_back(*prong);
        }
    }
    const bool plain = parts.size() == 1;
    if (!plain) parts = subdivided(united(parts), 2 * artSteps(on.fineness).edge_mm);
    std::vector<Outline> outlines = outlinesOf(on.skin, parts);
    if (plain && !outlines.empty())
        outlines.front().centre = Vec2(bar.centre.x(), 0.5 * (bar.low_mm + bar.high_mm));
    return outlines;
}

class BarsKind : public Kind {
  public:
    std::string_view id() const override { return "bars"; }
    Family family() const override { return Family::Bars; }
    Pattern name() const override { return NINE_WORDS("core", "bars"); }
    Pattern onMask() const override { return NINE_WORDS("core", "bars"); }
    std::vector<Pattern> sentences() const override {
        return {
            NINE_WORDS(
                "core",
                "{count} bars, {spacing_mm} apart along the skin, {width_back_mm} wide towards the back "
                "and {width_belly_mm} towards the belly, reaching from {g0_mm} up to {g1_mm}."),
            NINE_WORDS("core",
                       "Bowed {bow_mm}, leaning {lean_mm} to the tail, in the middle {waist} % as wide, "
                       "ends {ends}, forked {fork} % of the way, broken {breaks} times by {gap_mm}."),
            NINE_WORDS("core",
                       "The last distance is {grade} % of the first, every other bar {shorter} % as long; "
                       "they stand {across}.")};
    }
    std::span<const Param> params() const override { return kBarParams; }
    std::span<const Handle> handles() const override { return kBarHandles; }
    std::span<const Curve> curves() const override { return kBarCurves; }
    Status check(const Values& values, const std::string& path) const override {
        const Bars bars = sizesOf(kBarSizes, values);
        if (bars.g1_mm - bars.g0_mm >= kSmallestSize_mm) return Done{};
        return Error{"out_of_range",
                     NINE_WORDS("core", "A bar must reach from its lower end up to a higher one."),
                     path + ".g1_mm"};
    }
    bool openingsMerge(const Values& values) const override {
        const Bars bars = sizesOf(kBarSizes, values);
        return bars.count > 1 && bars.spacing_mm <= std::max(bars.widthBack_mm, bars.widthBelly_mm);
    }
    double rowLength_mm(const Values& values) const override {
        const Bars bars = sizesOf(kBarSizes, values);
        return (bars.count - 1) * bars.spacing_mm;
    }
    bool isCentral(const Values& values) const override { return values.text("across") != "side"; }
    Result<Drawn> draw(const DrawOn& on, const Element& element) const override {
        const Bars bars = sizesOf(kBarSizes, element.values);
        const Natural natural = naturalOf(element.values);
        const auto count = static_cast<std::size_t>(bars.count);
        const std::uint64_t seed = on.seedOf(natural.seed);
        const std::vector<Off> offs = offsOf(natural, count, seed);
        std::vector<double> x{on.origin.x()};
        // Distances change evenly from the first to the last; all of them together stay what they were.
        const double gaps = static_cast<double>(count) - 1;
        for (std::size_t i = 1; i < count; ++i) {
            const double t = gaps > 1 ? static_cast<double>(i - 1) / (gaps - 1) : 0.5;
            const double distance = bars.spacing_mm * 2 * ((1 - t) + t * bars.grade) / (1 + bars.grade);
            const Result<double> next = walkAlong(on.skin, x.back(), on.origin.y(), distance, on.path);
            if (!next) return next.error();
            x.push_back(*next);
        }
        std::vector<Result<std::vector<Outline>>> drawn(count,
                                                        Result<std::vector<Outline>>(std::vector<Outline>{}));
        std::vector<Bar> all;
        for (std::size_t i = 0; i < count; ++i) {
            Bar bar{Vec2(x[i], on.origin.y()), on.origin.y() + bars.g0_mm, on.origin.y() + bars.g1_mm,
                    offs[i].size, Wobble(natural.rough, scrambled(seed + i))};
            if (natural.wander_mm > 0) {
                const Result<double> off =
                    walkAlong(on.skin, bar.centre.x(), bar.centre.y(), offs[i].along_mm, on.path);
                if (!off) return off.error();
                bar.centre.x() = *off;
            }
            const SectionArc arc = on.skin.arcAt(bar.centre.x());
            const double lower = bar.low_mm, upper = bar.high_mm;
            if (bars.across == "back") bar.high_mm = 2 * arc.backArc_mm() - lower;
            if (bars.across == "belly") bar.low_mm = -2 * arc.bellyArc_mm() - upper;
            if (i % 2 == 1) {
                const double middle = bars.across == "back"    ? arc.backArc_mm()
                                      : bars.across == "belly" ? -arc.bellyArc_mm()
                                                               : bar.high_mm;
                bar.low_mm = middle + bars.shorter * (bar.low_mm - middle);
                bar.high_mm = middle + bars.shorter * (bar.high_mm - middle);
            }
            all.push_back(std::move(bar));
        }
        forEachInParallel(count, [&](std::size_t i) { drawn[i] = drawBar(on, bars, all[i]); });
        std::vector<Outline> outlines;
        for (Result<std::vector<Outline>>& bar : drawn) {
            if (!bar) return bar.error();
            for (Outline& outline : *bar) outlines.push_back(std::move(outline));
        }
        std::vector<Vec2> centres;
        for (const Bar& bar : all) centres.push_back(bar.centre);
        Drawn result{{{std::move(outlines)}}, placesOfRow(centres)};
        std::erase_if(result.places, [](const auto& place) { return place.first == "middle"; });
        const Bar& bar = all[count / 2];
        const auto along = [&](double t) {
            const double g = (1 - t) * bar.low_mm + t * bar.high_mm;
            const Result<double> at = walkAlong(on.skin, bar.centre.x(), g, bowed(bars, t), on.path);
            return Vec2(at ? *at : bar.centre.x(), g);
        };
        result.places.emplace_back("lower", along(0));
        result.places.emplace_back("upper", along(1));
        result.places.emplace_back("middle", along(0.5));
        return result;
    }
};

}  // namespace
}  // namespace bars

NINE_KIND(bars, bars::BarsKind)

}  // namespace nine
