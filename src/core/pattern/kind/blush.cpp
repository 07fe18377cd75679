// A soft round patch, sprayed free-hand: a cheek, a glow on the flank, a dark nose.
#include <algorithm>
#include <cmath>

#include "pattern/element.h"
#include "pattern/kind/drawing.h"
#include "pattern/kinds.h"

namespace nine {
namespace blush {
namespace {

using Type = Param::Type;

struct Blush {
    double along_mm, across_mm, soft_mm, lean_deg, strength;
};

constexpr Bound<Blush> kSizes[] = {
    {{.key = "along_mm",
      .name = NINE_WORDS("core", "Length"),
      .low = 0.2,
      .high = 300,
      .usual = 4,
      .refit = Refit::WithLength},
     &Blush::along_mm},
    {{.key = "across_mm",
      .name = NINE_WORDS("core", "Height"),
      .low = 0.2,
      .high = 200,
      .usual = 3,
      .refit = Refit::WithGirth},
     &Blush::across_mm},
    {{.key = "soft_mm",
      .name = NINE_WORDS("core", "Fades over"),
      .low = 0.2,
      .high = 80,
      .usual = 2.5,
      .refit = Refit::WithGirth},
     &Blush::soft_mm},
    {{.key = "lean_deg",
      .name = NINE_WORDS("core", "Tilt"),
      .type = Type::Angle,
      .low = -90,
      .high = 90,
      .usual = 0,
      .decimals = 0},
     &Blush::lean_deg},
    {{.key = "strength",
      .name = NINE_WORDS("core", "Strength"),
      .type = Type::Share,
      .low = 0.05,
      .high = 1,
      .usual = 0.8,
      .decimals = 0},
     &Blush::strength},
};
constexpr auto kParams = paramsOf(kSizes);

const Handle kHandles[] = {
    {"last", NINE_WORDS("core", "tail end of the patch"), {}, {{{"along_mm", 2, 0}}}},
    {"upper", NINE_WORDS("core", "upper edge of the patch"), {}, {{{"across_mm", 0, 2}}}},
};

class BlushKind : public Kind {
  public:
    std::string_view id() const override { return "blush"; }
    Family family() const override { return Family::Fades; }
    Pattern name() const override { return NINE_WORDS("core", "soft patch"); }
    Pattern onMask() const override { return NINE_WORDS("core", "soft patch"); }
    std::vector<Pattern> sentences() const override {
        return {NINE_WORDS("core",
                           "A soft patch {along_mm} long and {across_mm} high, tilted by {lean_deg} degrees, "
                           "fading over {soft_mm}, at {strength} % strength.")};
    }
    std::span<const Param> params() const override { return kParams; }
    std::span<const Handle> handles() const override { return kHandles; }
    bool isCut() const override { return false; }
    Result<Drawn> draw(const DrawOn& on, const Element& element) const override {
        const Blush s = sizesOf(kSizes, element.values);
        const SoftCover round = roundCover(on.skin, on.origin, 0.5 * s.along_mm, 0.5 * s.across_mm,
                                           degToRad(-s.lean_deg), s.soft_mm);
        const SoftCover cover = [round, strength = s.strength](double x, double g) {
            return strength * round(x, g);
        };
        Drawn drawn{{{.outlines = {}, .cover = cover}}};
        for (const auto& [key, by] :
             {std::pair{"last", Vec2(0.5 * s.along_mm, 0)}, {"upper", Vec2(0, 0.5 * s.across_mm)}})
            if (const Result<Vec2> at = placeFrom(on.skin, on.origin, by, on.path))
                drawn.places.emplace_back(key, *at);
        return drawn;
    }
};

}  // namespace
}  // namespace blush

NINE_KIND(blush, blush::BlushKind)

}  // namespace nine
