// Bars across the body from the origin towards the tail, each from g0 to g1 (girth from the origin's height).
#include <algorithm>
#include <cmath>

#include "blank/walk.h"
#include "pattern/element.h"
#include "pattern/kind/drawing.h"
#include "pattern/kinds.h"

namespace nine {
namespace {

struct Bars {
    double count, spacing_mm;
    double widthBack_mm, widthBelly_mm;  ///< at g1 and at g0
    double g0_mm, g1_mm;
};

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
};
constexpr auto kBarParams = paramsOf(kBarSizes);

/// The end of the middle bar towards the back (1) or the belly (-1).
std::optional<Vec2> barEnd(const std::vector<Outline>& bars, int way) {
    if (bars.empty()) return std::nullopt;
    const Outline& bar = bars[bars.size() / 2];
    double g = bar.centre.y();
    for (const Vec2& p : bar.skin) g = way > 0 ? std::max(g, p.y()) : std::min(g, p.y());
    return Vec2(bar.centre.x(), g);
}

const Handle kBarHandles[] = {
    {"upper",
     NINE_WORDS("core", "upper end of the bars"),
     {},
     [](const std::vector<Outline>& bars) { return barEnd(bars, 1); },
     [](Element& e, const Vec2& by, const MoveOn&) {
         e.values.set("g1_mm", e.values.number("g1_mm") + by.y());
     },
     {"g1_mm"}},
    {"lower",
     NINE_WORDS("core", "lower end of the bars"),
     {},
     [](const std::vector<Outline>& bars) { return barEnd(bars, -1); },
     [](Element& e, const Vec2& by, const MoveOn&) {
         e.values.set("g0_mm", e.values.number("g0_mm") + by.y());
     },
     {"g0_mm"}},
    {"first",
     NINE_WORDS("core", "first bar"),
     {},
     firstCentre,
     [](Element& e, const Vec2& by, const MoveOn&) {
         spreadRow(e, -by.x());  // the last one stays
         e.dx_mm += by.x();
         e.dg_mm += by.y();
     },
     {"spacing_mm", "dx_mm", "dg_mm"}},
    {"last",
     NINE_WORDS("core", "last bar"),
     {},
     lastCentre,
     [](Element& e, const Vec2& by, const MoveOn&) { spreadRow(e, by.x()); },
     {"spacing_mm"}},
};

Result<Outline> drawBar(const Skin& skin, const Vec2& centre, const Bars& bars, const ArtSteps& fine,
                        const std::string& path) {
    const double low = centre.y() + bars.g0_mm, high = centre.y() + bars.g1_mm;
    for (const double g : {low, high}) {
        if (Status ok = skin.check({Side::Left, centre.x(), g}, path); !ok) return ok.error();
    }
    const int steps = std::max(2, static_cast<int>(std::ceil((high - low) / fine.edge_mm)));
    std::vector<Vec2> edge;  // up the tail edge, down the nose edge
    for (const int way : {1, -1}) {
        for (int k = 0; k <= steps; ++k) {
            const double t = static_cast<double>(way > 0 ? k : steps - k) / steps;
            const double g = (1 - t) * low + t * high;
            const double half = 0.5 * ((1 - t) * bars.widthBelly_mm + t * bars.widthBack_mm);
            const Result<double> x = walkAlong(skin, centre.x(), g, way * half, path);
            if (!x) return x.error();
            edge.emplace_back(*x, g);
        }
    }
    Outline bar;
    bar.centre = Vec2(centre.x(), 0.5 * (low + high));
    // The two ends lie along the skin too: straight in x, g, with enough points between.
    const std::size_t top = static_cast<std::size_t>(steps);
    for (std::size_t i = 0; i < edge.size(); ++i) {
        bar.skin.push_back(edge[i]);
        if (i != top && i + 1 != edge.size()) continue;
        const Vec2& next = edge[(i + 1) % edge.size()];
        const int between = static_cast<int>(std::ceil(std::abs(next.x() - edge[i].x()) / fine.edge_mm));
        for (int k = 1; k < between; ++k) bar.skin.push_back(edge[i] + (next - edge[i]) * k / between);
    }
    for (const Vec2& p : bar.skin) bar.points.push_back(skin.at({Side::Left, p.x(), p.y()}));
    return bar;
}

class BarsKind : public Kind {
  public:
    std::string_view id() const override { return "bars"; }
    Pattern name() const override { return NINE_WORDS("core", "bars"); }
    Pattern onMask() const override { return NINE_WORDS("core", "bars"); }
    std::vector<Pattern> sentences() const override {
        return {NINE_WORDS(
            "core",
            "{count} bars, {spacing_mm} apart along the skin, {width_back_mm} wide towards the back "
            "and {width_belly_mm} towards the belly, reaching from {g0_mm} up to {g1_mm}.")};
    }
    std::span<const Param> params() const override { return kBarParams; }
    std::span<const Handle> handles() const override { return kBarHandles; }
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
    Result<std::vector<Pass>> draw(const DrawOn& on, const Element& element) const override {
        const Bars bars = sizesOf(kBarSizes, element.values);
        std::vector<double> x{on.origin.x()};
        for (int i = 1; i < bars.count; ++i) {
            const Result<double> next = walkAlong(on.skin, x.back(), on.origin.y(), bars.spacing_mm, on.path);
            if (!next) return next.error();
            x.push_back(*next);
        }
        Result<std::vector<Outline>> drawn = drawAll(x.size(), [&](std::size_t i) {
            return drawBar(on.skin, Vec2(x[i], on.origin.y()), bars, artSteps(on.fineness), on.path);
        });
        if (!drawn) return drawn.error();
        return std::vector<Pass>{{std::move(*drawn)}};
    }
};

}  // namespace

const Kind& barsKind();
const Kind& barsKind() {
    static const BarsKind kind;
    return kind;
}

}  // namespace nine
