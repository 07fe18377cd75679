// Letters: a signature or a number, as strokes of even width, held together by bridges.
#include <algorithm>
#include <cmath>

#include "geom/stroke_font.h"
#include "pattern/bands.h"
#include "pattern/element.h"
#include "pattern/kind/drawing.h"
#include "pattern/kinds.h"
#include "pattern/stroke.h"

namespace nine {
namespace lettering {
namespace {

using Type = Param::Type;

struct Letters {
    std::string text;
    double height_mm, width_mm, tilt_deg, bridge_mm;
};

constexpr Bound<Letters> kSizes[] = {
    {{.key = "text", .name = NINE_WORDS("core", "Letters"), .type = Type::Letters, .usualText = "ML"},
     &Letters::text},
    {{.key = "height_mm",
      .name = NINE_WORDS("core", "Height"),
      .low = 1,
      .high = 60,
      .usual = 4,
      .lessen = Lessen::Smaller},
     &Letters::height_mm},
    {{.key = "width_mm",
      .name = NINE_WORDS("core", "Width of the strokes"),
      .low = 0.2,
      .high = 10,
      .usual = 0.6,
      .decimals = 2},
     &Letters::width_mm},
    {{.key = "tilt_deg",
      .name = NINE_WORDS("core", "Tilt"),
      .type = Type::Angle,
      .low = -90,
      .high = 90,
      .usual = 0,
      .decimals = 0},
     &Letters::tilt_deg},
    {{.key = "bridge_mm",
      .name = NINE_WORDS("core", "Bridges"),
      .low = 0,
      .high = 3,
      .usual = 0.6,
      .decimals = 2},
     &Letters::bridge_mm},
};
constexpr auto kParams = paramsOf(kSizes);

const Handle kHandles[] = {
    {"last",
     NINE_WORDS("core", "end of the letters"),
     {},
     {},
     [](Element& e, const Vec2& by, const MoveOn&) {
         const double wide = strokeTextWidth_mm(e.values.text("text"), 1);
         if (wide > 0) e.values.set("height_mm", e.values.number("height_mm") + by.x() / wide);
     },
     {"height_mm"}},
};

class LettersKind : public Kind {
  public:
    std::string_view id() const override { return "lettering"; }
    Family family() const override { return Family::Own; }
    Pattern name() const override { return NINE_WORDS("core", "letters"); }
    Pattern onMask() const override { return NINE_WORDS("core", "letters"); }
    std::vector<Pattern> sentences() const override {
        return {NINE_WORDS("core",
                           "The letters {text}, {height_mm} high, of strokes {width_mm} wide, tilted by "
                           "{tilt_deg} degrees; bridges of {bridge_mm} hold what they enclose.")};
    }
    std::span<const Param> params() const override { return kParams; }
    std::span<const Handle> handles() const override { return kHandles; }
    Result<Drawn> draw(const DrawOn& on, const Element& element) const override {
        const Letters s = sizesOf(kSizes, element.values);
        const double tilt = degToRad(s.tilt_deg), step = artSteps(on.fineness).edge_mm;
        const auto turned = [&](const Vec2& p) {
            return Vec2(std::cos(tilt) * p.x() - std::sin(tilt) * p.y(),
                        std::sin(tilt) * p.x() + std::cos(tilt) * p.y());
        };
        Drawn drawn;
        if (const std::string odd = lettersWithoutStrokes(s.text); !odd.empty())
            drawn.warnings.push_back(
                {"no_stroke",
                 Words(NINE_WORDS("core",
                                  "There are no strokes for \"{odd}\"; a question mark stands for each. "
                                  "Use letters of the Latin alphabet, numbers and signs."))
                     .name("odd", odd),
                 ".text"});
        PolygonSet all;
        for (const Polyline2& stroke : strokeText(s.text, s.height_mm)) {
            std::vector<Vec2> places;
            for (const Vec2& p : stroke) {
                const Result<Vec2> at = placeFrom(on.skin, on.origin, turned(p), on.path);
                if (!at) return at.error();
                if (places.empty() || (*at - places.back()).norm() > 1e-6) places.push_back(*at);
            }
            if (places.size() < 2) {
                Result<Outline> dot =
                    drawDisc(on.skin, places.front(), 0.5 * s.width_mm, on.fineness, on.path);
                if (!dot) return dot.error();
                all.push_back(dot->skin);
                continue;
            }
            const Result<Spine> spine = spineOf(on.skin, places, step, on.path);
            if (!spine) return spine.error();
            const Result<PolygonSet> rings =
                strokeRings(on.skin, *spine, {evenWidth(s.width_mm), StrokeEnd::Round, StrokeEnd::Round, {}},
                            on.fineness, on.path);
            if (!rings) return rings.error();
            all.insert(all.end(), rings->begin(), rings->end());
        }
        if (all.empty())
            return Error{"fits_nowhere", NINE_WORDS("core", "These letters have no strokes."),
                         on.path + ".text"};
        const Result<PolygonSet> held = withBridges(on, united(all), s.bridge_mm);
        if (!held) return held.error();
        drawn.passes = {{outlinesOf(on.skin, *held, 0.01)}};
        const Vec2 end(strokeTextWidth_mm(s.text, s.height_mm), 0);
        if (const Result<Vec2> at = placeFrom(on.skin, on.origin, turned(end), on.path))
            drawn.places.emplace_back("last", *at);
        return drawn;
    }
};

}  // namespace
}  // namespace lettering

NINE_KIND(lettering, lettering::LettersKind)

}  // namespace nine
