// A highlight inside another mark, along the side that is lit.
#include "pattern/art.h"
#include "pattern/bands.h"
#include "pattern/element.h"
#include "pattern/kind/drawing.h"
#include "pattern/kind/shared.h"
#include "pattern/kinds.h"

namespace nine {
namespace highlight {
namespace {

class HighlightKind : public DerivedKind {
  public:
    std::string_view id() const override { return "highlight"; }
    Pattern name() const override { return NINE_WORDS("core", "highlight"); }
    Pattern onMask() const override { return NINE_WORDS("core", "highlight"); }
    std::vector<Pattern> sentences() const override {
        return {NINE_WORDS("core",
                           "A highlight {width_mm} wide inside the mark, as if lit from {toward_deg} degrees "
                           "(90 from the back).")};
    }
    std::span<const Param> params() const override {
        static const auto all = litSideParams(90);
        return all;
    }
    Result<Drawn> draw(const DrawOn& on, const Element& element) const override {
        const Vec2 by = litSideOf(element.values).step_mm();
        const PolygonSet source = ringsOf(on.source->outlines());
        const Result<PolygonSet> away = moved(on.skin, source, -by, on.path);
        if (!away) return away.error();
        const PolygonSet band = subtracted(unitedByWinding(source), unitedByWinding(*away));
        return drawnBand(on, band);
    }
};

}  // namespace
}  // namespace highlight

NINE_KIND(highlight, highlight::HighlightKind)

}  // namespace nine
