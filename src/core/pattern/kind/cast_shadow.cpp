// A shadow along one side of another mark, outside it.
#include <algorithm>
#include <cmath>

#include "pattern/art.h"
#include "pattern/bands.h"
#include "pattern/element.h"
#include "pattern/kind/drawing.h"
#include "pattern/kinds.h"

namespace nine {
namespace cast_shadow {
namespace {

using Type = Param::Type;

struct Lit {
    double width_mm, toward_deg;
};

constexpr Bound<Lit> kSizes[] = {
    {{.key = "width_mm",
      .name = NINE_WORDS("core", "Width"),
      .low = 0.1,
      .high = 10,
      .usual = 0.6,
      .decimals = 2},
     &Lit::width_mm},
    {{.key = "toward_deg",
      .name = NINE_WORDS("core", "Side"),
      .type = Type::Angle,
      .low = -180,
      .high = 180,
      .usual = -90,
      .decimals = 0},
     &Lit::toward_deg},
};
constexpr auto kParams = paramsOf(kSizes);

class ShadowKind : public Kind {
  public:
    std::string_view id() const override { return "cast_shadow"; }
    Family family() const override { return Family::Derived; }
    Pattern name() const override { return NINE_WORDS("core", "shadow"); }
    Pattern onMask() const override { return NINE_WORDS("core", "shadow"); }
    std::vector<Pattern> sentences() const override {
        return {NINE_WORDS("core",
                           "A shadow {width_mm} wide outside the mark, on the side at {toward_deg} degrees "
                           "(0 to the tail, -90 to the belly).")};
    }
    std::span<const Param> params() const override { return kParams; }
    std::span<const Handle> handles() const override { return {}; }
    bool hasOrigin() const override { return false; }
    bool isDerived() const override { return true; }
    Result<Drawn> draw(const DrawOn& on, const Element& element) const override {
        const Lit s = sizesOf(kSizes, element.values);
        const double angle = degToRad(s.toward_deg);
        const Vec2 by = s.width_mm * Vec2(std::cos(angle), std::sin(angle));
        const PolygonSet source = ringsOf(on.source->outlines());
        const Result<PolygonSet> wide = swept(on.skin, source, by, on.path);
        if (!wide) return wide.error();
        const PolygonSet band = subtracted(*wide, unitedByWinding(source));
        // Where it runs out it is thinner than any blade cuts; what is left of such slivers is taken away.
        const Result<PolygonSet> thick = grown(on.skin, band, -kSliver_mm, on.fineness, on.path);
        if (!thick) return thick.error();
        const Result<PolygonSet> clean = grown(on.skin, *thick, kSliver_mm, on.fineness, on.path);
        if (!clean) return clean.error();
        std::vector<Outline> outlines = outlinesOf(on.skin, *clean, kLeastDerived_mm2);
        if (outlines.empty())
            return Error{"fits_nowhere",
                         NINE_WORDS("core", "Nothing of it is wide enough to be cut; make it wider."),
                         on.path + ".width_mm"};
        return Drawn{{{std::move(outlines)}}};
    }
};

}  // namespace
}  // namespace cast_shadow

NINE_KIND(castShadow, cast_shadow::ShadowKind)

}  // namespace nine
