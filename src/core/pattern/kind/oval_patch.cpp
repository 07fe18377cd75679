// A patch on the head or the flank: ear patch, cheek plate, blush with a hard edge. Oval to egg-shaped.
#include <algorithm>
#include <cmath>

#include "pattern/element.h"
#include "pattern/kind/drawing.h"
#include "pattern/kinds.h"
#include "pattern/natural.h"

namespace nine {
namespace oval_patch {
namespace {

using Type = Param::Type;

struct Patch {
    double along_mm, across_mm, lean_deg, egg, square;
};

constexpr Bound<Patch> kSizes[] = {
    {{.key = "along_mm",
      .name = NINE_WORDS("core", "Length"),
      .low = 0.4,
      .high = 80,
      .usual = 5,
      .refit = Refit::WithLength,
      .lessen = Lessen::Smaller},
     &Patch::along_mm},
    {{.key = "across_mm",
      .name = NINE_WORDS("core", "Height"),
      .low = 0.4,
      .high = 80,
      .usual = 3.4,
      .refit = Refit::WithGirth,
      .lessen = Lessen::Smaller},
     &Patch::across_mm},
    {{.key = "lean_deg",
      .name = NINE_WORDS("core", "Tilt"),
      .type = Type::Angle,
      .low = -90,
      .high = 90,
      .usual = 0,
      .decimals = 0},
     &Patch::lean_deg},
    {{.key = "egg",
      .name = NINE_WORDS("core", "Pointed to the tail"),
      .type = Type::Share,
      .low = -0.6,
      .high = 0.6,
      .usual = 0.2,
      .decimals = 0},
     &Patch::egg},
    {{.key = "square",
      .name = NINE_WORDS("core", "Boxy"),
      .type = Type::Share,
      .low = 0,
      .high = 1,
      .usual = 0,
      .decimals = 0},
     &Patch::square},
};
constexpr auto kParams = joined(paramsOf(kSizes), kNaturalParams);

const Handle kHandles[] = {
    {"last", NINE_WORDS("core", "tail end of the patch"), {}, {{{"along_mm", 2, 0}}}},
    {"upper", NINE_WORDS("core", "upper edge of the patch"), {}, {{{"across_mm", 0, 2}}}},
};

class PatchKind : public Kind {
  public:
    std::string_view id() const override { return "oval_patch"; }
    Family family() const override { return Family::Head; }
    Pattern name() const override { return NINE_WORDS("core", "patch"); }
    Pattern onMask() const override { return NINE_WORDS("core", "patch"); }
    std::vector<Pattern> sentences() const override {
        return {NINE_WORDS("core",
                           "A patch {along_mm} long and {across_mm} high, tilted by {lean_deg} degrees, "
                           "{egg} % pointed to the tail and {square} % boxy, its outline off by {rough} %.")};
    }
    std::span<const Param> params() const override { return kParams; }
    std::span<const Handle> handles() const override { return kHandles; }
    Result<Drawn> draw(const DrawOn& on, const Element& element) const override {
        const Patch s = sizesOf(kSizes, element.values);
        const Natural natural = naturalOf(element.values);
        const Wobble wobble(natural.rough, on.seedOf(natural.seed));
        const double lean = degToRad(s.lean_deg), a = 0.5 * s.along_mm, b = 0.5 * s.across_mm;
        const double power = 2 + 6 * s.square;
        const auto reach = [&](double direction) {
            const double angle = direction - lean;  // in the patch's own axes
            const double c = std::cos(angle), d = std::sin(angle);
            // An egg: the height shrinks towards one end. Solved for the distance by a few rounds.
            double r = 1 / std::hypot(c / a, d / b);
            for (int k = 0; k < 12; ++k) {
                const double high = b * (1 - s.egg * r * c / a);
                r = std::pow(std::pow(std::abs(c) / a, power) + std::pow(std::abs(d) / high, power),
                             -1 / power);
            }
            return r * wobble.at(angle);
        };
        const double most = std::hypot(a, b * (1 + std::abs(s.egg))) * (1 + natural.rough);
        Result<Outline> patch = drawBlob(on.skin, on.origin, reach, most, on.fineness, on.path);
        if (!patch) return patch.error();
        const std::size_t n = patch->skin.size();
        const Vec2 last = patch->skin.front(), upper = patch->skin[n / 4];
        return Drawn{{{{std::move(*patch)}}}, {{"last", last}, {"upper", upper}}};
    }
};

}  // namespace
}  // namespace oval_patch

NINE_KIND(ovalPatch, oval_patch::PatchKind)

}  // namespace nine
