// A glow round another mark: rings that fade outwards, sprayed free-hand from the widest in.
#include <algorithm>
#include <cmath>

#include "pattern/art.h"
#include "pattern/bands.h"
#include "pattern/element.h"
#include "pattern/kind/drawing.h"
#include "pattern/kind/shared.h"
#include "pattern/kinds.h"

namespace nine {
namespace glow {
namespace {

using Type = Param::Type;

struct Glow {
    double rings, width_mm;
};

constexpr Bound<Glow> kSizes[] = {
    {{.key = "rings",
      .name = NINE_WORDS("core", "Rings"),
      .type = Type::Count,
      .low = 1,
      .high = 6,
      .usual = 4,
      .decimals = 0},
     &Glow::rings},
    {{.key = "width_mm",
      .name = NINE_WORDS("core", "Width of a ring"),
      .low = 0.1,
      .high = 10,
      .usual = 0.5,
      .decimals = 2},
     &Glow::width_mm},
};
constexpr auto kParams = paramsOf(kSizes);

class GlowKind : public DerivedKind {
  public:
    std::string_view id() const override { return "glow"; }
    Pattern name() const override { return NINE_WORDS("core", "glow in rings"); }
    Pattern onMask() const override { return NINE_WORDS("core", "glow"); }
    std::vector<Pattern> sentences() const override {
        return {NINE_WORDS(
            "core", "A glow of {rings} rings, each {width_mm} wide, fading outwards; sprayed free-hand.")};
    }
    std::span<const Param> params() const override { return kParams; }
    bool goesUnder(const Values&) const override { return true; }
    bool isCut() const override { return false; }
    Result<Drawn> draw(const DrawOn& on, const Element& element) const override {
        const Glow s = sizesOf(kSizes, element.values);
        const PolygonSet source = ringsOf(on.source->outlines());
        Drawn drawn;
        for (int k = static_cast<int>(s.rings); k >= 1; --k) {
            const Result<PolygonSet> wide = grown(on.skin, source, k * s.width_mm, on.fineness, on.path);
            if (!wide) return wide.error();
            // Each hides the same share of what is under it, so that all together fall evenly.
            drawn.passes.push_back({.outlines = outlinesOf(on.skin, *wide, kLeastDerived_mm2),
                                    .strength = 1 / (s.rings + 1 - (s.rings - k) * 0.5)});
        }
        return drawn;
    }
};

}  // namespace
}  // namespace glow

NINE_KIND(glow, glow::GlowKind)

}  // namespace nine
