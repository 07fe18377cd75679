// A patch on the middle of the fish, under the throat or on the crown: one piece for both sides.
#include <algorithm>
#include <cmath>

#include "pattern/element.h"
#include "pattern/kind/drawing.h"
#include "pattern/kinds.h"
#include "pattern/stroke.h"

namespace nine {
namespace throat {
namespace {

using Type = Param::Type;

struct Throat {
    double length_mm, start_mm, middle_mm, end_mm;
    std::string lies, ends;
};

constexpr Choice kLies[] = {{"belly", NINE_WORDS("core", "under the throat")},
                            {"back", NINE_WORDS("core", "on the back")}};

constexpr Bound<Throat> kSizes[] = {
    {{.key = "length_mm",
      .name = NINE_WORDS("core", "Length"),
      .low = 0.5,
      .high = 200,
      .usual = 9,
      .refit = Refit::WithLength,
      .lessen = Lessen::Smaller},
     &Throat::length_mm},
    {{.key = "start_mm",
      .name = NINE_WORDS("core", "Width at the head"),
      .low = 0.2,
      .high = 100,
      .usual = 5,
      .refit = Refit::WithGirth,
      .lessen = Lessen::Smaller},
     &Throat::start_mm},
    {{.key = "middle_mm",
      .name = NINE_WORDS("core", "Width in the middle"),
      .low = 0.2,
      .high = 100,
      .usual = 5,
      .refit = Refit::WithGirth,
      .lessen = Lessen::Smaller},
     &Throat::middle_mm},
    {{.key = "end_mm",
      .name = NINE_WORDS("core", "Width at the tail"),
      .low = 0.2,
      .high = 100,
      .usual = 3,
      .refit = Refit::WithGirth,
      .lessen = Lessen::Smaller},
     &Throat::end_mm},
    {{.key = "lies",
      .name = NINE_WORDS("core", "Lies"),
      .type = Type::Choice,
      .usualText = "belly",
      .choices = kLies},
     &Throat::lies},
    {{.key = "ends",
      .name = NINE_WORDS("core", "Ends"),
      .type = Type::Choice,
      .usualText = "pointed",
      .choices = kStrokeEnds},
     &Throat::ends},
};
constexpr auto kParams = paramsOf(kSizes);

const Handle kHandles[] = {
    {"first", NINE_WORDS("core", "head end of the patch"), {}, {{{"dx_mm", 1, 0}, {"length_mm", -1, 0}}}},
    {"last", NINE_WORDS("core", "tail end of the patch"), {}, {{{"length_mm", 1, 0}}}},
};

class ThroatKind : public Kind {
  public:
    std::string_view id() const override { return "throat"; }
    Family family() const override { return Family::Head; }
    Pattern name() const override { return NINE_WORDS("core", "throat or crown patch"); }
    Pattern onMask() const override { return NINE_WORDS("core", "throat"); }
    std::vector<Pattern> sentences() const override {
        return {
            NINE_WORDS("core",
                       "A patch {lies}, {length_mm} long, {start_mm} wide at the head, {middle_mm} in the "
                       "middle and {end_mm} at the tail; its end is {ends}.")};
    }
    std::span<const Param> params() const override { return kParams; }
    std::span<const Handle> handles() const override { return kHandles; }
    bool isCentral(const Values&) const override { return true; }
    Result<Drawn> draw(const DrawOn& on, const Element& element) const override {
        const Throat s = sizesOf(kSizes, element.values);
        const Result<Spine> spine = spineOnMiddle(on.skin, on.origin.x(), s.length_mm, s.lies == "back",
                                                  artSteps(on.fineness).edge_mm, on.path);
        if (!spine) return spine.error();
        Result<std::vector<Outline>> patch = drawStroke(
            on.skin, *spine,
            {threeWidths(s.start_mm, s.middle_mm, s.end_mm, 0.2), StrokeEnd::Round, strokeEndOf(s.ends), {}},
            on.fineness, on.path);
        if (!patch) return patch.error();
        return Drawn{{{std::move(*patch)}}, {{"first", spine->at.front()}, {"last", spine->at.back()}}};
    }
};

}  // namespace
}  // namespace throat

NINE_KIND(throat, throat::ThroatKind)

}  // namespace nine
