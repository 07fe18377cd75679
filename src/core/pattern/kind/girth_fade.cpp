// A fade round the girth: full towards the back or the belly, gone at a share of the way.
#include <algorithm>
#include <cmath>

#include "pattern/element.h"
#include "pattern/kind/drawing.h"
#include "pattern/kinds.h"
#include "pattern/natural.h"

namespace nine {
namespace girth_fade {
namespace {

using Type = Param::Type;

struct Fade {
    double none, full, strength, fromLength, toLength, soft;
};

constexpr Bound<Fade> kSizes[] = {
    {{.key = "none",
      .name = NINE_WORDS("core", "Gone at"),
      .type = Type::Share,
      .low = 0,
      .high = 1,
      .usual = 0.7,
      .decimals = 0},
     &Fade::none},
    {{.key = "full",
      .name = NINE_WORDS("core", "Full at"),
      .type = Type::Share,
      .low = 0,
      .high = 1,
      .usual = 0.4,
      .decimals = 0},
     &Fade::full},
    {{.key = "strength",
      .name = NINE_WORDS("core", "Strength"),
      .type = Type::Share,
      .low = 0.05,
      .high = 1,
      .usual = 1,
      .decimals = 0},
     &Fade::strength},
    {{.key = "from_length",
      .name = NINE_WORDS("core", "Begins along the body"),
      .type = Type::Share,
      .low = 0,
      .high = 1,
      .usual = 0,
      .decimals = 0},
     &Fade::fromLength},
    {{.key = "to_length",
      .name = NINE_WORDS("core", "Ends along the body"),
      .type = Type::Share,
      .low = 0,
      .high = 1,
      .usual = 1,
      .decimals = 0},
     &Fade::toLength},
    {{.key = "soft",
      .name = NINE_WORDS("core", "Fades along the body over"),
      .type = Type::Share,
      .low = 0.01,
      .high = 1,
      .usual = 0.2,
      .decimals = 0},
     &Fade::soft},
};
constexpr auto kParams = paramsOf(kSizes);

double perGirth(const MoveOn& on) {
    const SectionArc arc = on.skin.arcAt(0.5 * (on.skin.noseX_mm() + on.skin.tailX_mm()));
    return 1 / (arc.backArc_mm() + arc.bellyArc_mm());
}

const Handle kHandles[] = {
    {"full",
     NINE_WORDS("core", "where the fade is full"),
     {},
     {},
     [](Element& e, const Vec2& by, const MoveOn& on) {
         e.values.set("full", e.values.number("full") - by.y() * perGirth(on));
     },
     {"full"}},
    {"none",
     NINE_WORDS("core", "where the fade is gone"),
     {},
     {},
     [](Element& e, const Vec2& by, const MoveOn& on) {
         e.values.set("none", e.values.number("none") - by.y() * perGirth(on));
     },
     {"none"}},
};

double smooth(double t) {
    const double c = std::clamp(t, 0.0, 1.0);
    return c * c * (3 - 2 * c);
}

class FadeKind : public Kind {
  public:
    std::string_view id() const override { return "girth_fade"; }
    Family family() const override { return Family::Fades; }
    Pattern name() const override { return NINE_WORDS("core", "fade"); }
    Pattern onMask() const override { return NINE_WORDS("core", "fade"); }
    std::vector<Pattern> sentences() const override {
        return {
            NINE_WORDS("core",
                       "Gone at {none} % and full at {full} % of the way from back to belly, at {strength} % "
                       "strength."),
            NINE_WORDS("core", "Along the body from {from_length} to {to_length} %, fading over {soft} %.")};
    }
    std::span<const Param> params() const override { return kParams; }
    std::span<const Handle> handles() const override { return kHandles; }
    bool hasOrigin() const override { return false; }
    bool isCut() const override { return false; }
    Status check(const Values& values, const std::string& path) const override {
        const Fade s = sizesOf(kSizes, values);
        if (s.toLength < s.fromLength + 0.01)
            return Error{"out_of_range", NINE_WORDS("core", "The fade ends along the body before it begins."),
                         path + ".to_length"};
        if (std::abs(s.full - s.none) >= 0.005) return Done{};
        return Error{"out_of_range",
                     NINE_WORDS("core", "The fade is full where it is gone; move the two apart."),
                     path + ".full"};
    }
    Result<Drawn> draw(const DrawOn& on, const Element& element) const override {
        const Fade s = sizesOf(kSizes, element.values);
        const HalfGirths girths(on.skin);
        const double nose = on.skin.noseX_mm(), length = on.skin.length_mm();
        const Vec2 shift = on.shift_mm;
        const SoftCover cover = [=](double x, double g) {
            const double along = (x - shift.x() - nose) / length;
            double share = girths.shareAt(x, g - shift.y());
            const double here = smooth((share - s.none) / (s.full - s.none));
            const double ends = (s.fromLength > 0 ? smooth((along - s.fromLength) / s.soft) : 1) *
                                (s.toLength < 1 ? smooth((s.toLength - along) / s.soft) : 1);
            return s.strength * here * ends;
        };
        const double x =
            nose +
            std::clamp(0.5 * (std::max(0.0, s.fromLength) + std::min(1.0, s.toLength)), 0.1, 0.9) * length;
        const SectionArc arc = on.skin.arcAt(x);
        const auto at = [&](double share) {
            return Vec2(x, arc.backArc_mm() - share * (arc.backArc_mm() + arc.bellyArc_mm()));
        };
        return Drawn{{{.outlines = {}, .cover = cover}}, {{"full", at(s.full)}, {"none", at(s.none)}}};
    }
};

}  // namespace
}  // namespace girth_fade

NINE_KIND(girthFade, girth_fade::FadeKind)

}  // namespace nine
