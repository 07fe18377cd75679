// A shadow along one side of another mark, outside it.
#include "pattern/art.h"
#include "pattern/bands.h"
#include "pattern/element.h"
#include "pattern/kind/drawing.h"
#include "pattern/kind/shared.h"
#include "pattern/kinds.h"

namespace nine {
namespace cast_shadow {
namespace {

class ShadowKind : public DerivedKind {
  public:
    std::string_view id() const override { return "cast_shadow"; }
    Pattern name() const override { return NINE_WORDS("core", "shadow"); }
    Pattern onMask() const override { return NINE_WORDS("core", "shadow"); }
    std::vector<Pattern> sentences() const override {
        return {NINE_WORDS("core",
                           "A shadow {width_mm} wide outside the mark, on the side at {toward_deg} degrees "
                           "(0 to the tail, -90 to the belly).")};
    }
    std::span<const Param> params() const override {
        static const auto all = litSideParams(-90);
        return all;
    }
    Result<Drawn> draw(const DrawOn& on, const Element& element) const override {
        const Vec2 by = litSideOf(element.values).step_mm();
        const PolygonSet source = ringsOf(on.source->outlines());
        const Result<PolygonSet> wide = swept(on.skin, source, by, on.path);
        if (!wide) return wide.error();
        const PolygonSet band = subtracted(*wide, unitedByWinding(source));
        return drawnBand(on, band);
    }
};

}  // namespace
}  // namespace cast_shadow

NINE_KIND(castShadow, cast_shadow::ShadowKind)

}  // namespace nine
