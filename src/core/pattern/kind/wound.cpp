// A wound: a torn window with a flap of sheet that stays on one edge.
#include <algorithm>
#include <cmath>

#include "base/rng.h"
#include "pattern/bands.h"
#include "pattern/element.h"
#include "pattern/kind/drawing.h"
#include "pattern/kinds.h"

namespace nine {
namespace wound {
namespace {

using Type = Param::Type;

struct Wound {
    double along_mm, across_mm, lean_deg, teeth, deep, flap, seed;
};

constexpr Bound<Wound> kSizes[] = {
    {{.key = "along_mm",
      .name = NINE_WORDS("core", "Length"),
      .low = 1,
      .high = 80,
      .usual = 8,
      .refit = Refit::WithLength,
      .lessen = Lessen::Smaller},
     &Wound::along_mm},
    {{.key = "across_mm",
      .name = NINE_WORDS("core", "Height"),
      .low = 0.8,
      .high = 60,
      .usual = 3.5,
      .refit = Refit::WithGirth,
      .lessen = Lessen::Smaller},
     &Wound::across_mm},
    {{.key = "lean_deg",
      .name = NINE_WORDS("core", "Tilt"),
      .type = Type::Angle,
      .low = -90,
      .high = 90,
      .usual = 15,
      .decimals = 0},
     &Wound::lean_deg},
    {{.key = "teeth",
      .name = NINE_WORDS("core", "Tears"),
      .type = Type::Count,
      .low = 0,
      .high = 40,
      .usual = 9,
      .decimals = 0},
     &Wound::teeth},
    {{.key = "deep",
      .name = NINE_WORDS("core", "Depth of the tears"),
      .type = Type::Share,
      .low = 0,
      .high = 0.6,
      .usual = 0.22,
      .decimals = 0},
     &Wound::deep},
    {{.key = "flap",
      .name = NINE_WORDS("core", "Flap"),
      .type = Type::Share,
      .low = 0,
      .high = 0.8,
      .usual = 0.4,
      .decimals = 0},
     &Wound::flap},
    {{.key = "seed",
      .name = NINE_WORDS("core", "Seed"),
      .type = Type::Seed,
      .low = 0,
      .high = 9999,
      .usual = 1,
      .decimals = 0},
     &Wound::seed},
};
constexpr auto kParams = paramsOf(kSizes);

const Handle kHandles[] = {
    {"last", NINE_WORDS("core", "tail end of the wound"), {}, {{{"along_mm", 2, 0}}}},
    {"upper", NINE_WORDS("core", "upper edge of the wound"), {}, {{{"across_mm", 0, 2}}}},
};

class WoundKind : public Kind {
  public:
    std::string_view id() const override { return "wound"; }
    Family family() const override { return Family::Wounds; }
    Pattern name() const override { return NINE_WORDS("core", "wound with its flap"); }
    Pattern onMask() const override { return NINE_WORDS("core", "wound"); }
    std::vector<Pattern> sentences() const override {
        return {NINE_WORDS("core",
                           "A wound {along_mm} long and {across_mm} high, tilted by {lean_deg} degrees, with "
                           "{teeth} tears {deep} % deep and a flap over {flap} % of it; seed {seed}.")};
    }
    std::span<const Param> params() const override { return kParams; }
    std::span<const Handle> handles() const override { return kHandles; }
    Result<Drawn> draw(const DrawOn& on, const Element& element) const override {
        // In one piece: the torn rim, the flap, both laid on the skin.
        const Wound s = sizesOf(kSizes, element.values);
        Rng rng(on.seedOf(s.seed));
        const double a = 0.5 * s.along_mm, b = 0.5 * s.across_mm, lean = degToRad(s.lean_deg);
        const auto turned = [&](const Vec2& p) {
            return Vec2(std::cos(lean) * p.x() - std::sin(lean) * p.y(),
                        std::sin(lean) * p.x() + std::cos(lean) * p.y());
        };
        // A lens with points drawn out at its tears, deep and shallow in turn.
        const int tears = static_cast<int>(s.teeth), around = tears > 0 ? 2 * tears : 48;
        Polygon2 rim;
        for (int k = 0; k < around; ++k) {
            const double angle = 2 * kPi * (k + (tears > 0 ? rng.between(-0.25, 0.25) : 0)) / around;
            const double depth = tears > 0 && k % 2 ? 1 - s.deep * rng.between(0.5, 1) : 1;
            rim.emplace_back(a * depth * std::cos(angle),
                             b * depth * std::sin(angle) * (0.75 + 0.25 * std::abs(std::sin(angle))));
        }
        PolygonSet open = united({rim});
        if (s.flap > 0) {  // a tongue from the upper edge, narrower towards its tip
            const double wide = 0.6 * a, tip = b - 2 * b * s.flap;
            const Polygon2 tongue{{-wide, 2 * b},
                                  {-0.45 * wide, tip + 0.25 * b},
                                  {0, tip},
                                  {0.5 * wide, tip + 0.35 * b},
                                  {wide, 2 * b}};
            open = subtracted(open, {tongue});
        }
        // What is finer than a blade can cut is rounded off.
        open = offset(offset(open, -0.15), 0.15);
        PolygonSet rings;
        for (Polygon2 part : open) {
            for (Vec2& p : part) p = turned(p);
            Result<Polygon2> ring =
                shapeFrom(on.skin, on.origin, part, artSteps(on.fineness).edge_mm, on.path);
            if (!ring) return ring.error();
            rings.push_back(std::move(*ring));
        }
        if (rings.empty())
            return Error{
                "fits_nowhere",
                NINE_WORDS("core", "Nothing is left of the wound; make it larger or its flap smaller."),
                on.path};
        Drawn drawn{{{outlinesOf(on.skin, unitedByWinding(rings), 0.05)}}};
        for (const auto& [key, at] : {std::pair{"last", Vec2(a, 0)}, {"upper", Vec2(0, b)}})
            if (const Result<Vec2> place = placeFrom(on.skin, on.origin, turned(at), on.path))
                drawn.places.emplace_back(key, *place);
        return drawn;
    }
};

}  // namespace
}  // namespace wound

NINE_KIND(wound, wound::WoundKind)

}  // namespace nine
