// A shade from the edge of a card laid along a landmark: sharp there, fading towards the tail or the nose.
#include <algorithm>
#include <cmath>

#include "blank/landmark_curve.h"
#include "pattern/element.h"
#include "pattern/kind/drawing.h"
#include "pattern/kinds.h"

namespace nine {
namespace edge_shade {
namespace {

using Type = Param::Type;

struct EdgeShade {
    double soft_mm, strength, from, to;
    std::string way;
};

constexpr Choice kWays[] = {{"tail", NINE_WORDS("core", "to the tail")},
                            {"nose", NINE_WORDS("core", "to the nose")}};

constexpr Bound<EdgeShade> kSizes[] = {
    {{.key = "soft_mm",
      .name = NINE_WORDS("core", "Fades over"),
      .low = 0.2,
      .high = 40,
      .usual = 1.6,
      .decimals = 1,
      .refit = Refit::WithLength},
     &EdgeShade::soft_mm},
    {{.key = "strength",
      .name = NINE_WORDS("core", "Strength"),
      .type = Type::Share,
      .low = 0.05,
      .high = 1,
      .usual = 0.8,
      .decimals = 0},
     &EdgeShade::strength},
    {{.key = "from",
      .name = NINE_WORDS("core", "First end"),
      .type = Type::Share,
      .low = 0,
      .high = 1,
      .usual = 0.05,
      .decimals = 0},
     &EdgeShade::from},
    {{.key = "to",
      .name = NINE_WORDS("core", "Last end"),
      .type = Type::Share,
      .low = 0,
      .high = 1,
      .usual = 0.95,
      .decimals = 0},
     &EdgeShade::to},
    {{.key = "way",
      .name = NINE_WORDS("core", "Fades"),
      .type = Type::Choice,
      .usualText = "tail",
      .choices = kWays},
     &EdgeShade::way},
};
constexpr auto kParams = paramsOf(kSizes);

const Handle kHandles[] = {
    {"middle", NINE_WORDS("core", "where the shade ends"), {}, {{{"soft_mm", 1, 0}}}},
};

class EdgeShadeKind : public Kind {
  public:
    std::string_view id() const override { return "edge_shade"; }
    Family family() const override { return Family::Fades; }
    Pattern name() const override { return NINE_WORDS("core", "shade off a card"); }
    Pattern onMask() const override { return NINE_WORDS("core", "shade"); }
    std::vector<Pattern> sentences() const override {
        return {NINE_WORDS("core",
                           "A shade off the edge of a card along the landmark, from {from} to {to} % of it, "
                           "fading {way} over {soft_mm}, at {strength} % strength.")};
    }
    std::span<const Param> params() const override { return kParams; }
    std::span<const Handle> handles() const override { return kHandles; }
    std::string_view alongCurve() const override { return "gill_plate"; }
    bool isCut() const override { return false; }
    Status check(const Values& values, const std::string& path) const override {
        const EdgeShade s = sizesOf(kSizes, values);
        if (s.to - s.from >= 0.05) return Done{};
        return Error{"out_of_range",
                     NINE_WORDS("core", "The shade ends where it begins; move its ends apart."),
                     path + ".to"};
    }
    Result<Drawn> draw(const DrawOn& on, const Element& element) const override {
        const EdgeShade s = sizesOf(kSizes, element.values);
        const auto plate = on.landmarks.find(element.anchor);
        if (plate == on.landmarks.end() || !plate->second.isCurve())
            return Error{"not_a_curve",
                         NINE_WORDS("core",
                                    "This shade follows a landmark that is a curve, such as the gill "
                                    "plate; anchor it to one."),
                         on.path + ".anchor"};
        const std::vector<Vec2> curve = curveOf(plate->second);
        const double length = lengthsAlong(on.skin, curve).back();
        std::vector<Vec2> edge = partOf(on.skin, curve, s.from, s.to, 40);
        for (Vec2& p : edge) p += on.shift_mm;
        if (edge.front().y() > edge.back().y()) std::reverse(edge.begin(), edge.end());
        const double way = s.way == "tail" ? 1 : -1, taper = std::max(0.3, 0.12 * length);
        const SoftCover cover = [=](double x, double g) {
            if (g < edge.front().y() || g > edge.back().y()) return 0.0;
            const auto above = std::upper_bound(edge.begin() + 1, edge.end() - 1, g,
                                                [](double v, const Vec2& p) { return v < p.y(); });
            const Vec2 &a = *(above - 1), &b = *above;
            const double t = std::clamp((g - a.y()) / std::max(1e-9, b.y() - a.y()), 0.0, 1.0);
            const double off = way * (x - (a.x() + t * (b.x() - a.x())));
            if (off < 0 || off > s.soft_mm) return 0.0;
            const double ends =
                std::clamp(std::min(g - edge.front().y(), edge.back().y() - g) / taper, 0.0, 1.0);
            const double fall = 1 - off / s.soft_mm;
            return s.strength * fall * fall * (3 - 2 * fall) * ends;
        };
        const Vec2 middle = edge[edge.size() / 2];
        return Drawn{{{.outlines = {}, .cover = cover}},
                     {{"middle", Vec2(middle.x() + way * s.soft_mm, middle.y())}}};
    }
};

}  // namespace
}  // namespace edge_shade

NINE_KIND(edgeShade, edge_shade::EdgeShadeKind)

}  // namespace nine
