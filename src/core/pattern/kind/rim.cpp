// A rim or a halo round another mark, in register with it.
#include <algorithm>
#include <cmath>

#include "pattern/art.h"
#include "pattern/bands.h"
#include "pattern/element.h"
#include "pattern/kind/drawing.h"
#include "pattern/kind/shared.h"
#include "pattern/kinds.h"

namespace nine {
namespace rim {
namespace {

using Type = Param::Type;

struct Rim {
    double width_mm, gap_mm, bridge_mm;
    std::string fill;
};

constexpr Choice kFills[] = {{"whole", NINE_WORDS("core", "whole, before the mark")},
                             {"ring", NINE_WORDS("core", "as a ring with bridges")}};

constexpr Bound<Rim> kSizes[] = {
    {{.key = "width_mm",
      .name = NINE_WORDS("core", "Width"),
      .low = 0.1,
      .high = 20,
      .usual = 0.6,
      .decimals = 2},
     &Rim::width_mm},
    {{.key = "gap_mm",
      .name = NINE_WORDS("core", "Off the edge"),
      .low = 0,
      .high = 20,
      .usual = 0,
      .decimals = 2},
     &Rim::gap_mm},
    {{.key = "fill",
      .name = NINE_WORDS("core", "Sprayed"),
      .type = Type::Choice,
      .usualText = "whole",
      .choices = kFills},
     &Rim::fill},
    {{.key = "bridge_mm",
      .name = NINE_WORDS("core", "Bridges"),
      .low = 0,
      .high = 5,
      .usual = 0.62,
      .decimals = 2},
     &Rim::bridge_mm},
};
constexpr auto kParams = paramsOf(kSizes);

class RimKind : public DerivedKind {
  public:
    std::string_view id() const override { return "rim"; }
    Pattern name() const override { return NINE_WORDS("core", "rim or halo"); }
    Pattern onMask() const override { return NINE_WORDS("core", "rim"); }
    std::vector<Pattern> sentences() const override {
        return {NINE_WORDS(
            "core", "A rim {width_mm} wide round the mark, {gap_mm} off its edge; it is sprayed {fill}.")};
    }
    std::span<const Param> params() const override { return kParams; }
    bool isMended(const Values& values) const override { return values.text("fill") == "whole"; }
    bool goesUnder(const Values& values) const override { return values.text("fill") == "whole"; }
    /// Grown, and gaps closed that would leave a strip of sheet too thin to hold.
    static Result<PolygonSet> closed(const DrawOn& on, const PolygonSet& source, double by_mm) {
        const Result<PolygonSet> wide = grown(on.skin, source, by_mm + kHalfFine_mm, on.fineness, on.path);
        return wide ? grown(on.skin, *wide, -kHalfFine_mm, on.fineness, on.path) : wide.error();
    }
    Result<Drawn> draw(const DrawOn& on, const Element& element) const override {
        const Rim s = sizesOf(kSizes, element.values);
        const PolygonSet source = ringsOf(on.source->outlines());
        const Result<PolygonSet> outer = closed(on, source, s.gap_mm + s.width_mm);
        if (!outer) return outer.error();
        if (s.fill == "whole") return Drawn{{{outlinesOf(on.skin, *outer, kLeastDerived_mm2)}}};
        const Result<PolygonSet> inner = grown(on.skin, source, s.gap_mm, on.fineness, on.path);
        if (!inner) return inner.error();
        const Result<PolygonSet> held = withBridges(on, subtracted(*outer, *inner), s.bridge_mm);
        if (!held) return held.error();
        return Drawn{{{outlinesOf(on.skin, *held, kLeastDerived_mm2)}}};
    }
};

}  // namespace
}  // namespace rim

NINE_KIND(rim, rim::RimKind)

}  // namespace nine
