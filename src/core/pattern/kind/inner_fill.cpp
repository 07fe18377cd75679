// The inside of another mark, stopping short of its edge.
#include <algorithm>
#include <cmath>

#include "pattern/art.h"
#include "pattern/bands.h"
#include "pattern/element.h"
#include "pattern/kind/drawing.h"
#include "pattern/kind/shared.h"
#include "pattern/kinds.h"

namespace nine {
namespace inner_fill {
namespace {

using Type = Param::Type;

struct InnerFill {
    double short_mm;
};

constexpr Bound<InnerFill> kSizes[] = {
    {{.key = "short_mm",
      .name = NINE_WORDS("core", "Stops short by"),
      .low = 0.05,
      .high = 20,
      .usual = 0.4,
      .decimals = 2},
     &InnerFill::short_mm},
};
constexpr auto kParams = paramsOf(kSizes);

class InnerFillKind : public DerivedKind {
  public:
    std::string_view id() const override { return "inner_fill"; }
    Pattern name() const override { return NINE_WORDS("core", "inner fill"); }
    Pattern onMask() const override { return NINE_WORDS("core", "inner fill"); }
    std::vector<Pattern> sentences() const override {
        return {NINE_WORDS("core", "The inside of the mark, stopping {short_mm} short of its edge.")};
    }
    std::span<const Param> params() const override { return kParams; }
    bool isMended(const Values&) const override { return true; }
    Result<Drawn> draw(const DrawOn& on, const Element& element) const override {
        const InnerFill s = sizesOf(kSizes, element.values);
        const Result<PolygonSet> inner =
            grown(on.skin, ringsOf(on.source->outlines()), -s.short_mm - kHalfFine_mm, on.fineness, on.path);
        if (!inner) return inner.error();
        // Opened: what is narrower than a blade can cut is not there.
        const Result<PolygonSet> fine = grown(on.skin, *inner, kHalfFine_mm, on.fineness, on.path);
        if (!fine) return fine.error();
        std::vector<Outline> outlines = outlinesOf(on.skin, *fine, kLeastDerived_mm2);
        if (outlines.empty())
            return Error{"fits_nowhere",
                         NINE_WORDS("core", "Nothing is left inside the mark; let the fill stop less short."),
                         on.path + ".short_mm"};
        return Drawn{{{std::move(outlines)}}};
    }
};

}  // namespace
}  // namespace inner_fill

NINE_KIND(innerFill, inner_fill::InnerFillKind)

}  // namespace nine
