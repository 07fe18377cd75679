// Rays of a fin: steps of a hand-held curved edge, turned about a pivot by an even step.
#include <algorithm>
#include <cmath>

#include "pattern/element.h"
#include "pattern/kind/drawing.h"
#include "pattern/kinds.h"
#include "pattern/stroke.h"

namespace nine {
namespace fin_rays {
namespace {

using Type = Param::Type;

struct FinRays {
    double count, from_deg, step_deg, inner_mm, outer_mm, root_mm, tip_mm, curve_mm;
};

constexpr Bound<FinRays> kSizes[] = {
    {{.key = "count",
      .name = NINE_WORDS("core", "Rays"),
      .type = Type::Count,
      .low = 1,
      .high = 60,
      .usual = 6,
      .decimals = 0,
      .lessen = Lessen::Fewer},
     &FinRays::count},
    {{.key = "from_deg",
      .name = NINE_WORDS("core", "First ray"),
      .type = Type::Angle,
      .low = -180,
      .high = 180,
      .usual = -70,
      .decimals = 0},
     &FinRays::from_deg},
    {{.key = "step_deg",
      .name = NINE_WORDS("core", "Step"),
      .type = Type::Angle,
      .low = -60,
      .high = 60,
      .usual = 12,
      .decimals = 1},
     &FinRays::step_deg},
    {{.key = "inner_mm",
      .name = NINE_WORDS("core", "Begin off the pivot"),
      .low = 0,
      .high = 80,
      .usual = 2.4,
      .refit = Refit::WithLength,
      .lessen = Lessen::Smaller},
     &FinRays::inner_mm},
    {{.key = "outer_mm",
      .name = NINE_WORDS("core", "End off the pivot"),
      .low = 0.5,
      .high = 120,
      .usual = 7.5,
      .refit = Refit::WithLength,
      .lessen = Lessen::Smaller},
     &FinRays::outer_mm},
    {{.key = "root_mm",
      .name = NINE_WORDS("core", "Width at the root"),
      .low = kSmallestSize_mm,
      .high = 10,
      .usual = 0.6,
      .decimals = 2},
     &FinRays::root_mm},
    {{.key = "tip_mm",
      .name = NINE_WORDS("core", "Width at the edge"),
      .low = kSmallestSize_mm,
      .high = 10,
      .usual = 0.7,
      .decimals = 2},
     &FinRays::tip_mm},
    {{.key = "curve_mm",
      .name = NINE_WORDS("core", "Curve of the edge"),
      .low = -20,
      .high = 20,
      .usual = 0.4,
      .refit = Refit::WithLength},
     &FinRays::curve_mm},
};
constexpr auto kParams = paramsOf(kSizes);

Vec2 onCircle(double angle_deg, double radius_mm) {
    return radius_mm * Vec2(std::cos(degToRad(angle_deg)), std::sin(degToRad(angle_deg)));
}

const Handle kHandles[] = {
    {"first",
     NINE_WORDS("core", "outer end of the first ray"),
     {},
     {},
     [](Element& e, const Vec2& by, const MoveOn&) {
         const Vec2 now = onCircle(e.values.number("from_deg"), e.values.number("outer_mm")) + by;
         e.values.set("from_deg", radToDeg(std::atan2(now.y(), now.x())));
         e.values.set("outer_mm", now.norm());
     },
     {"from_deg", "outer_mm"}},
    {"last",
     NINE_WORDS("core", "outer end of the last ray"),
     {},
     {},
     [](Element& e, const Vec2& by, const MoveOn&) {
         const double count = e.values.number("count"), from = e.values.number("from_deg");
         if (count < 2) return;
         const double angle = from + (count - 1) * e.values.number("step_deg");
         const Vec2 now = onCircle(angle, e.values.number("outer_mm")) + by;
         const double turned = std::remainder(radToDeg(std::atan2(now.y(), now.x())) - angle, 360.0);
         e.values.set("step_deg", e.values.number("step_deg") + turned / (count - 1));
     },
     {"step_deg"}},
};

class FinRaysKind : public Kind {
  public:
    std::string_view id() const override { return "fin_rays"; }
    Family family() const override { return Family::Fins; }
    Pattern name() const override { return NINE_WORDS("core", "fin rays"); }
    Pattern onMask() const override { return NINE_WORDS("core", "rays"); }
    std::vector<Pattern> sentences() const override {
        return {
            NINE_WORDS("core",
                       "{count} rays about a pivot, the first at {from_deg} degrees (0 to the tail, 90 to "
                       "the back), {step_deg} degrees apart, from {inner_mm} to {outer_mm} off the pivot."),
            NINE_WORDS("core",
                       "Each {root_mm} wide at the root and {tip_mm} at the edge, curved {curve_mm}.")};
    }
    std::span<const Param> params() const override { return kParams; }
    std::span<const Handle> handles() const override { return kHandles; }
    Status check(const Values& values, const std::string& path) const override {
        const FinRays s = sizesOf(kSizes, values);
        if (s.outer_mm <= s.inner_mm + 0.2)
            return Error{"out_of_range",
                         NINE_WORDS("core", "The rays must end farther from the pivot than they begin."),
                         path + ".outer_mm"};
        if (std::abs(s.step_deg) * (s.count - 1) > 359)
            return Error{"out_of_range",
                         NINE_WORDS("core", "The rays go round more than once; use fewer or a smaller step."),
                         path + ".step_deg"};
        return Done{};
    }
    bool openingsMerge(const Values& values) const override {
        const FinRays s = sizesOf(kSizes, values);
        return s.count > 1 && std::abs(degToRad(s.step_deg)) * s.inner_mm <= s.root_mm;
    }
    Result<Drawn> draw(const DrawOn& on, const Element& element) const override {
        const FinRays s = sizesOf(kSizes, element.values);
        const double step = artSteps(on.fineness).edge_mm;
        std::vector<Vec2> ends(2);
        const auto count = static_cast<std::size_t>(s.count);
        Result<std::vector<Outline>> rays = drawAll(count, [&](std::size_t i) -> Result<Outline> {
            const double angle = s.from_deg + static_cast<double>(i) * s.step_deg;
            const int pieces = std::max(3, static_cast<int>(std::ceil((s.outer_mm - s.inner_mm) / step)));
            const Vec2 along = onCircle(angle, 1), across(-along.y(), along.x());
            std::vector<Vec2> places;
            for (int k = 0; k <= pieces; ++k) {
                const double t = static_cast<double>(k) / pieces;
                const Vec2 by = along * (s.inner_mm + t * (s.outer_mm - s.inner_mm)) +
                                across * (s.curve_mm * 4 * t * (1 - t));
                const Result<Vec2> at = placeFrom(on.skin, on.origin, by, on.path);
                if (!at) return at.error();
                places.push_back(*at);
            }
            const Result<Spine> spine = spineOf(on.skin, places, 2 * step, on.path);
            if (!spine) return spine.error();
            Result<std::vector<Outline>> ray =
                drawStroke(on.skin, *spine,
                           {threeWidths(s.root_mm, 0.5 * (s.root_mm + s.tip_mm), s.tip_mm),
                            StrokeEnd::Round,
                            StrokeEnd::Round,
                            {}},
                           on.fineness, on.path);
            if (!ray) return ray.error();
            if (i == 0) ends[0] = places.back();
            if (i + 1 == count) ends[1] = places.back();
            return ray->front();
        });
        if (!rays) return rays.error();
        Drawn drawn{{{std::move(*rays)}}, {{"first", ends[0]}}};
        if (count > 1) drawn.places.emplace_back("last", ends[1]);
        return drawn;
    }
};

}  // namespace
}  // namespace fin_rays

NINE_KIND(finRays, fin_rays::FinRaysKind)

}  // namespace nine
