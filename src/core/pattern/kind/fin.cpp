// The outline of a fin on its root.
#include <algorithm>
#include <cmath>

#include "pattern/bands.h"
#include "pattern/element.h"
#include "pattern/kind/drawing.h"
#include "pattern/kinds.h"
#include "pattern/stroke.h"

namespace nine {
namespace fin {
namespace {

using Type = Param::Type;

struct Fin {
    double root_mm, slope_mm, height_mm, lean_mm, full;
};

constexpr Bound<Fin> kSizes[] = {
    {{.key = "root_mm",
      .name = NINE_WORDS("core", "Root"),
      .low = 0.5,
      .high = 120,
      .usual = 6,
      .refit = Refit::WithLength,
      .lessen = Lessen::Smaller},
     &Fin::root_mm},
    {{.key = "slope_mm",
      .name = NINE_WORDS("core", "Root rises"),
      .low = -60,
      .high = 60,
      .usual = -1.5,
      .refit = Refit::WithGirth,
      .lessen = Lessen::Lower},
     &Fin::slope_mm},
    {{.key = "height_mm",
      .name = NINE_WORDS("core", "Height"),
      .low = -80,
      .high = 80,
      .usual = -4,
      .refit = Refit::WithGirth,
      .lessen = Lessen::Lower},
     &Fin::height_mm},
    {{.key = "lean_mm",
      .name = NINE_WORDS("core", "Tip behind the root"),
      .low = -80,
      .high = 80,
      .usual = 7,
      .refit = Refit::WithLength,
      .lessen = Lessen::Lower},
     &Fin::lean_mm},
    {{.key = "full",
      .name = NINE_WORDS("core", "Fullness"),
      .type = Type::Share,
      .low = 0,
      .high = 1,
      .usual = 0.5,
      .decimals = 0},
     &Fin::full},
};
constexpr auto kParams = paramsOf(kSizes);

const Handle kHandles[] = {
    {"tip", NINE_WORDS("core", "tip of the fin"), {}, {{{"lean_mm", 1, 0}, {"height_mm", 0, 1}}}},
    {"last", NINE_WORDS("core", "rear end of the root"), {}, {{{"root_mm", 1, 0}, {"slope_mm", 0, 1}}}},
};

class FinKind : public Kind {
  public:
    std::string_view id() const override { return "fin"; }
    Family family() const override { return Family::Fins; }
    Pattern name() const override { return NINE_WORDS("core", "fin"); }
    Pattern onMask() const override { return NINE_WORDS("core", "fin"); }
    std::vector<Pattern> sentences() const override {
        return {
            NINE_WORDS("core",
                       "A fin on a root {root_mm} long that rises {slope_mm}; its tip {height_mm} from the "
                       "root (negative: towards the belly) and {lean_mm} behind its front; {full} % full.")};
    }
    std::span<const Param> params() const override { return kParams; }
    std::span<const Handle> handles() const override { return kHandles; }
    Status check(const Values& values, const std::string& path) const override {
        if (std::abs(values.number("height_mm")) >= 0.5) return Done{};
        return Error{"out_of_range",
                     NINE_WORDS("core", "A fin must be at least half a millimetre high, up or down."),
                     path + ".height_mm"};
    }
    Result<Drawn> draw(const DrawOn& on, const Element& element) const override {
        const Fin s = sizesOf(kSizes, element.values);
        const Vec2 front(0, 0), rear(s.root_mm, s.slope_mm), tip(s.lean_mm, s.height_mm);
        // Leading edge bulges forward, trailing edge is hollow unless the fin is full.
        const double way = s.height_mm > 0 ? 1 : -1;
        const auto aside = [&](const Vec2& v) { return Vec2(-way * v.y(), way * v.x()); };
        Polygon2 shape;
        const auto curve = [&](const Vec2& a, const Vec2& b, double bulge) {
            const Vec2 across = aside(b - a);
            for (int k = 0; k < 16; ++k) {
                const double t = k / 16.0;
                shape.push_back(a + (b - a) * t + across * (bulge * 4 * t * (1 - t)));
            }
        };
        curve(front, tip, 0.06 + 0.1 * s.full);
        curve(tip, rear, -0.12 + 0.3 * s.full);
        curve(rear, front, 0);
        if (polygonArea(shape) < 0) std::reverse(shape.begin(), shape.end());
        // A tip that is round, not a needle that tears.
        PolygonSet round = offset(offset({shape}, -0.25), 0.25);
        if (round.empty()) round = {shape};
        PolygonSet rings;
        for (const Polygon2& part : round) {
            Result<Polygon2> ring =
                shapeFrom(on.skin, on.origin, part, artSteps(on.fineness).edge_mm, on.path);
            if (!ring) return ring.error();
            rings.push_back(std::move(*ring));
        }
        const Result<Vec2> tipAt = placeFrom(on.skin, on.origin, tip, on.path);
        const Result<Vec2> rearAt = placeFrom(on.skin, on.origin, rear, on.path);
        Drawn drawn{{{outlinesOf(on.skin, unitedByWinding(rings))}}};
        if (tipAt) drawn.places.emplace_back("tip", *tipAt);
        if (rearAt) drawn.places.emplace_back("last", *rearAt);
        return drawn;
    }
};

}  // namespace
}  // namespace fin

NINE_KIND(fin, fin::FinKind)

}  // namespace nine
