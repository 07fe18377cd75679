// A stripe between two drawn edges, each with a height at its head end, in the middle and at its tail end.
#include <algorithm>
#include <cmath>

#include "blank/walk.h"
#include "pattern/bands.h"
#include "pattern/element.h"
#include "pattern/kind/drawing.h"
#include "pattern/kinds.h"

namespace nine {
namespace stripe {
namespace {

using Type = Param::Type;

struct Stripe {
    double length_mm;
    double upper0_mm, upper1_mm, upper2_mm;  ///< heights of the upper edge over the origin
    double lower0_mm, lower1_mm, lower2_mm;
};

constexpr Bound<Stripe> kSizes[] = {
    {{.key = "length_mm",
      .name = NINE_WORDS("core", "Length"),
      .low = 0.5,
      .high = 400,
      .usual = 28,
      .refit = Refit::WithLength,
      .lessen = Lessen::Smaller},
     &Stripe::length_mm},
#define NINE_HEIGHT(member, keyed, spoken, height) \
    {                                              \
        {.key = keyed,                             \
         .name = spoken,                           \
         .low = -100,                              \
         .high = 100,                              \
         .usual = height,                          \
         .refit = Refit::WithGirth,                \
         .lessen = Lessen::Lower},                 \
            &Stripe::member                        \
    }
    NINE_HEIGHT(upper0_mm, "upper_head_mm", NINE_WORDS("core", "Upper edge at the head"), 1.6),
    NINE_HEIGHT(upper1_mm, "upper_middle_mm", NINE_WORDS("core", "Upper edge in the middle"), 1.2),
    NINE_HEIGHT(upper2_mm, "upper_tail_mm", NINE_WORDS("core", "Upper edge at the tail"), 0.4),
    NINE_HEIGHT(lower0_mm, "lower_head_mm", NINE_WORDS("core", "Lower edge at the head"), -1.6),
    NINE_HEIGHT(lower1_mm, "lower_middle_mm", NINE_WORDS("core", "Lower edge in the middle"), -1.2),
    NINE_HEIGHT(lower2_mm, "lower_tail_mm", NINE_WORDS("core", "Lower edge at the tail"), -0.4),
#undef NINE_HEIGHT
};
constexpr auto kParams = paramsOf(kSizes);

const Handle kHandles[] = {
    {"upper", NINE_WORDS("core", "middle of the upper edge"), {}, {{{"upper_middle_mm", 0, 1}}}},
    {"lower", NINE_WORDS("core", "middle of the lower edge"), {}, {{{"lower_middle_mm", 0, 1}}}},
    {"upper-head", NINE_WORDS("core", "upper edge at the head"), {}, {{{"upper_head_mm", 0, 1}}}},
    {"lower-head", NINE_WORDS("core", "lower edge at the head"), {}, {{{"lower_head_mm", 0, 1}}}},
    {"upper-tail",
     NINE_WORDS("core", "upper edge at the tail"),
     {},
     {{{"upper_tail_mm", 0, 1}, {"length_mm", 1, 0}}}},
    {"lower-tail",
     NINE_WORDS("core", "lower edge at the tail"),
     {},
     {{{"lower_tail_mm", 0, 1}, {"length_mm", 1, 0}}}},
};

/// A parabola through three heights.
double height(double a, double b, double c, double t) {
    return a * (1 - t) * (1 - 2 * t) + b * 4 * t * (1 - t) + c * t * (2 * t - 1);
}

class StripeKind : public Kind {
  public:
    std::string_view id() const override { return "stripe"; }
    Family family() const override { return Family::Lines; }
    Pattern name() const override { return NINE_WORDS("core", "stripe between two edges"); }
    Pattern onMask() const override { return NINE_WORDS("core", "stripe"); }
    std::vector<Pattern> sentences() const override {
        return {
            NINE_WORDS("core",
                       "A stripe {length_mm} long. Its upper edge lies {upper_head_mm}, "
                       "{upper_middle_mm} and {upper_tail_mm} above its line at head, middle and tail, its "
                       "lower edge {lower_head_mm}, {lower_middle_mm} and {lower_tail_mm}.")};
    }
    std::span<const Param> params() const override { return kParams; }
    std::span<const Handle> handles() const override { return kHandles; }
    Status check(const Values& values, const std::string& path) const override {
        const Stripe s = sizesOf(kSizes, values);
        for (int k = 0; k <= 20; ++k) {
            const double t = k / 20.0;
            if (height(s.upper0_mm, s.upper1_mm, s.upper2_mm, t) >
                height(s.lower0_mm, s.lower1_mm, s.lower2_mm, t) - 1e-9)
                continue;
            return Error{
                "out_of_range",
                NINE_WORDS("core", "The edges of the stripe cross; keep the upper one above the lower."),
                path + ".upper_middle_mm"};
        }
        return Done{};
    }
    Result<Drawn> draw(const DrawOn& on, const Element& element) const override {
        const Stripe s = sizesOf(kSizes, element.values);
        const ArtSteps fine = artSteps(on.fineness);
        const int steps = std::max(8, static_cast<int>(std::ceil(s.length_mm / fine.edge_mm)));
        Polygon2 ring;
        std::vector<Vec2> corners(6);
        for (const bool lower : {true, false}) {
            for (int k = 0; k <= steps; ++k) {
                const double t = static_cast<double>(lower ? k : steps - k) / steps;
                const double h = lower ? height(s.lower0_mm, s.lower1_mm, s.lower2_mm, t)
                                       : height(s.upper0_mm, s.upper1_mm, s.upper2_mm, t);
                const Result<Vec2> at = placeFrom(on.skin, on.origin, Vec2(t * s.length_mm, h), on.path);
                if (!at) return at.error();
                if (ring.empty() || (*at - ring.back()).norm() > 1e-6) ring.push_back(*at);
                for (const auto& [place, share] : {std::pair{0, 0.0}, {1, 0.5}, {2, 1.0}})
                    if (std::abs(t - share) <= 0.5 / steps)
                        corners[static_cast<std::size_t>(place + (lower ? 3 : 0))] = *at;
            }
        }
        if ((ring.front() - ring.back()).norm() < 1e-6) ring.pop_back();
        const PolygonSet rings =
            subdivided(unitedByWinding(subdivided({ring}, fine.edge_mm)), 2 * fine.edge_mm);
        return Drawn{{{outlinesOf(on.skin, rings)}},
                     {{"upper-head", corners[0]},
                      {"upper", corners[1]},
                      {"upper-tail", corners[2]},
                      {"lower-head", corners[3]},
                      {"lower", corners[4]},
                      {"lower-tail", corners[5]}}};
    }
};

}  // namespace
}  // namespace stripe

NINE_KIND(stripe, stripe::StripeKind)

}  // namespace nine
