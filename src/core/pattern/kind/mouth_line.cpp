// The line of the mouth, from its corner towards the nose.
#include <algorithm>
#include <cmath>

#include "blank/walk.h"
#include "pattern/element.h"
#include "pattern/kind/drawing.h"
#include "pattern/kinds.h"
#include "pattern/stroke.h"

namespace nine {
namespace mouth_line {
namespace {

using Type = Param::Type;

struct MouthLine {
    double length_mm, width_mm, corner_mm, droop_mm, bow_mm;
};

constexpr Bound<MouthLine> kSizes[] = {
    {{.key = "length_mm",
      .name = NINE_WORDS("core", "Length"),
      .low = 0.3,
      .high = 60,
      .usual = 3.2,
      .refit = Refit::WithLength,
      .lessen = Lessen::Smaller},
     &MouthLine::length_mm},
    {{.key = "width_mm",
      .name = NINE_WORDS("core", "Width in front"),
      .low = kSmallestSize_mm,
      .high = 10,
      .usual = 0.6,
      .decimals = 2},
     &MouthLine::width_mm},
    {{.key = "corner_mm",
      .name = NINE_WORDS("core", "Width at the corner"),
      .low = kSmallestSize_mm,
      .high = 10,
      .usual = 0.8,
      .decimals = 2},
     &MouthLine::corner_mm},
    {{.key = "droop_mm",
      .name = NINE_WORDS("core", "Corner lower by"),
      .low = -30,
      .high = 30,
      .usual = 0.8,
      .refit = Refit::WithGirth,
      .lessen = Lessen::Lower},
     &MouthLine::droop_mm},
    {{.key = "bow_mm",
      .name = NINE_WORDS("core", "Bow"),
      .low = -30,
      .high = 30,
      .usual = 0.4,
      .refit = Refit::WithGirth,
      .lessen = Lessen::Lower},
     &MouthLine::bow_mm},
};
constexpr auto kParams = paramsOf(kSizes);

const Handle kHandles[] = {
    {"first", NINE_WORDS("core", "front end of the mouth"), {}, {{{"length_mm", -1, 0}, {"droop_mm", 0, 1}}}},
    {"middle", NINE_WORDS("core", "middle of the mouth"), {}, {{{"bow_mm", 0, 1}}}},
};

class MouthLineKind : public Kind {
  public:
    std::string_view id() const override { return "mouth_line"; }
    Family family() const override { return Family::Head; }
    Pattern name() const override { return NINE_WORDS("core", "mouth line"); }
    Pattern onMask() const override { return NINE_WORDS("core", "mouth"); }
    std::string_view usualAnchor() const override { return "mouth_corner"; }
    std::vector<Pattern> sentences() const override {
        return {
            NINE_WORDS("core",
                       "A mouth {length_mm} long, {width_mm} wide in front and {corner_mm} at the corner, "
                       "which lies {droop_mm} lower; bowed {bow_mm}.")};
    }
    std::span<const Param> params() const override { return kParams; }
    std::span<const Handle> handles() const override { return kHandles; }
    Result<Drawn> draw(const DrawOn& on, const Element& element) const override {
        const MouthLine s = sizesOf(kSizes, element.values);
        const double g = on.origin.y() + s.droop_mm;
        const Result<double> nose = walkAlong(on.skin, on.origin.x(), on.origin.y(), -s.length_mm, on.path);
        if (!nose) return nose.error();
        const Result<Spine> spine = spineAlong(on.skin, Vec2(*nose, g), s.length_mm, -s.droop_mm, s.bow_mm,
                                               artSteps(on.fineness).edge_mm, on.path);
        if (!spine) return spine.error();
        Result<std::vector<Outline>> line =
            drawStroke(on.skin, *spine,
                       {threeWidths(s.width_mm, 0.5 * (s.width_mm + s.corner_mm), s.corner_mm),
                        StrokeEnd::Round,
                        StrokeEnd::Round,
                        {}},
                       on.fineness, on.path);
        if (!line) return line.error();
        return Drawn{{{std::move(*line)}},
                     {{"first", spine->at.front()}, {"middle", spine->placeAt(0.5 * spine->length_mm())}}};
    }
};

}  // namespace
}  // namespace mouth_line

NINE_KIND(mouthLine, mouth_line::MouthLineKind)

}  // namespace nine
