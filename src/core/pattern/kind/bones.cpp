// Bones: the band between a pair of edges at an adjustable distance, thicker at both ends.
#include <algorithm>
#include <cmath>

#include "blank/walk.h"
#include "pattern/element.h"
#include "pattern/kind/drawing.h"
#include "pattern/kind/shared.h"
#include "pattern/kinds.h"
#include "pattern/stroke.h"

namespace nine {
namespace bones {
namespace {

using Type = Param::Type;

struct Bones {
    double count, spacing_mm, length_mm, width_mm, knob, lean_deg, bow_mm;
};

constexpr Bound<Bones> kSizes[] = {
    {{.key = "count",
      .name = NINE_WORDS("core", "Bones"),
      .type = Type::Count,
      .low = 1,
      .high = kMaxCount,
      .usual = 4,
      .decimals = 0,
      .lessen = Lessen::Fewer},
     &Bones::count},
    {{.key = "spacing_mm",
      .name = NINE_WORDS("core", "Spacing"),
      .low = kSmallestSize_mm,
      .high = kLargestSize_mm,
      .usual = 5,
      .refit = Refit::WithLength},
     &Bones::spacing_mm},
    {{.key = "length_mm",
      .name = NINE_WORDS("core", "Length"),
      .low = 0.5,
      .high = 120,
      .usual = 9,
      .refit = Refit::WithGirth,
      .lessen = Lessen::Smaller},
     &Bones::length_mm},
    {{.key = "width_mm",
      .name = NINE_WORDS("core", "Between the edges"),
      .low = 0.3,
      .high = 20,
      .usual = 0.9,
      .decimals = 2},
     &Bones::width_mm},
    {{.key = "knob",
      .name = NINE_WORDS("core", "Thicker at the ends"),
      .type = Type::Share,
      .low = 1,
      .high = 4,
      .usual = 1.8,
      .decimals = 0},
     &Bones::knob},
    {{.key = "lean_deg",
      .name = NINE_WORDS("core", "Lean"),
      .type = Type::Angle,
      .low = -85,
      .high = 85,
      .usual = 20,
      .decimals = 0},
     &Bones::lean_deg},
    {{.key = "bow_mm",
      .name = NINE_WORDS("core", "Bow"),
      .low = -30,
      .high = 30,
      .usual = 0.8,
      .refit = Refit::WithGirth,
      .lessen = Lessen::Lower},
     &Bones::bow_mm},
};
constexpr auto kParams = paramsOf(kSizes);

const Handle kHandles[] = {
    rowStart(NINE_WORDS("core", "first bone")),
    rowEnd(NINE_WORDS("core", "last bone")),
};

class BonesKind : public Kind {
  public:
    std::string_view id() const override { return "bones"; }
    Family family() const override { return Family::Wounds; }
    Pattern name() const override { return NINE_WORDS("core", "bones"); }
    Pattern onMask() const override { return NINE_WORDS("core", "bones"); }
    std::vector<Pattern> sentences() const override {
        return {
            NINE_WORDS("core",
                       "{count} bones, {spacing_mm} apart, {length_mm} long with {width_mm} between their "
                       "edges, {knob} % at both ends, leaning {lean_deg} degrees to the tail, bowed "
                       "{bow_mm}.")};
    }
    std::span<const Param> params() const override { return kParams; }
    std::span<const Handle> handles() const override { return kHandles; }
    double rowLength_mm(const Values& values) const override {
        const Bones s = sizesOf(kSizes, values);
        return (s.count - 1) * s.spacing_mm;
    }
    bool openingsMerge(const Values& values) const override {
        const Bones s = sizesOf(kSizes, values);
        return s.count > 1 && s.spacing_mm * std::cos(degToRad(s.lean_deg)) <= s.width_mm * s.knob;
    }
    Result<Drawn> draw(const DrawOn& on, const Element& element) const override {
        const Bones s = sizesOf(kSizes, element.values);
        const auto count = static_cast<std::size_t>(s.count);
        const Result<std::vector<Vec2>> row = placesInRow(on, count, s.spacing_mm);
        if (!row) return row.error();
        const std::vector<Vec2>& centres = *row;
        const double step = artSteps(on.fineness).edge_mm, lean = degToRad(s.lean_deg);
        const Vec2 along(std::sin(lean), std::cos(lean)), across(along.y(), -along.x());
        const auto half = [&](double t) {  // knobs take the outer sixth of each end
            const double end = std::clamp(1 - 6 * std::min(t, 1 - t), 0.0, 1.0);
            return 0.5 * s.width_mm * (1 + (s.knob - 1) * end * end * (3 - 2 * end));
        };
        Result<std::vector<Outline>> bones = drawAll(count, [&](std::size_t i) -> Result<Outline> {
            const int pieces = std::max(12, static_cast<int>(std::ceil(s.length_mm / step)));
            std::vector<Vec2> places;
            for (int k = 0; k <= pieces; ++k) {
                const double t = static_cast<double>(k) / pieces;
                const Vec2 by =
                    along * (s.length_mm * (t - 0.5)) + across * (s.bow_mm * (4 * t * (1 - t) - 0.5));
                const Result<Vec2> at = placeFrom(on.skin, centres[i], by, on.path);
                if (!at) return at.error();
                places.push_back(*at);
            }
            const Result<Spine> spine = spineOf(on.skin, places, 2 * step, on.path);
            if (!spine) return spine.error();
            Result<std::vector<Outline>> bone = drawStroke(
                on.skin, *spine, {half, StrokeEnd::Round, StrokeEnd::Round, {}}, on.fineness, on.path);
            if (!bone) return bone.error();
            return bone->front();
        });
        if (!bones) return bones.error();
        Drawn drawn{{{std::move(*bones)}}, placesOfRow(centres)};
        std::erase_if(drawn.places, [](const auto& place) { return place.first == "middle"; });
        return drawn;
    }
};

}  // namespace
}  // namespace bones

NINE_KIND(bones, bones::BonesKind)

}  // namespace nine
