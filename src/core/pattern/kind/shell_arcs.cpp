// Arcs of a shell, as a crayfish has them, from back to belly, thicker towards the head, with joints and a
// mid-line.
#include <algorithm>
#include <cmath>

#include "base/parallel.h"
#include "blank/walk.h"
#include "pattern/bands.h"
#include "pattern/element.h"
#include "pattern/kind/drawing.h"
#include "pattern/kind/shared.h"
#include "pattern/kinds.h"
#include "pattern/stroke.h"

namespace nine {
namespace shell_arcs {
namespace {

using Type = Param::Type;

struct ShellArcs {
    double count, spacing_mm, first_mm, last_mm, bow_mm, low_mm, high_mm, joint_mm, middle_mm;
};

constexpr Bound<ShellArcs> kSizes[] = {
    {{.key = "count",
      .name = NINE_WORDS("core", "Arcs"),
      .type = Type::Count,
      .low = 1,
      .high = kMaxCount,
      .usual = 6,
      .decimals = 0,
      .lessen = Lessen::Fewer},
     &ShellArcs::count},
    {{.key = "spacing_mm",
      .name = NINE_WORDS("core", "Spacing"),
      .low = kSmallestSize_mm,
      .high = kLargestSize_mm,
      .usual = 5,
      .refit = Refit::WithLength},
     &ShellArcs::spacing_mm},
    {{.key = "first_mm",
      .name = NINE_WORDS("core", "Thickness at the head"),
      .low = 0.2,
      .high = 30,
      .usual = 2,
      .decimals = 2,
      .lessen = Lessen::Smaller},
     &ShellArcs::first_mm},
    {{.key = "last_mm",
      .name = NINE_WORDS("core", "Thickness at the tail"),
      .low = 0.2,
      .high = 30,
      .usual = 1,
      .decimals = 2,
      .lessen = Lessen::Smaller},
     &ShellArcs::last_mm},
    {{.key = "bow_mm",
      .name = NINE_WORDS("core", "Bow to the tail"),
      .low = -40,
      .high = 40,
      .usual = 2.5,
      .refit = Refit::WithLength,
      .lessen = Lessen::Lower},
     &ShellArcs::bow_mm},
    {{.key = "g0_mm",
      .name = NINE_WORDS("core", "Lower end"),
      .low = -kMostHeight_mm,
      .high = kMostHeight_mm,
      .usual = -5,
      .refit = Refit::WithGirth,
      .lessen = Lessen::Lower},
     &ShellArcs::low_mm},
    {{.key = "g1_mm",
      .name = NINE_WORDS("core", "Upper end"),
      .low = -kMostHeight_mm,
      .high = kMostHeight_mm,
      .usual = 8,
      .refit = Refit::WithGirth,
      .lessen = Lessen::Lower},
     &ShellArcs::high_mm},
    {{.key = "joint_mm",
      .name = NINE_WORDS("core", "Gap at the joints"),
      .low = 0,
      .high = 20,
      .usual = 0.8,
      .decimals = 2},
     &ShellArcs::joint_mm},
    {{.key = "middle_mm",
      .name = NINE_WORDS("core", "Width of the mid-line"),
      .low = 0,
      .high = 20,
      .usual = 0,
      .decimals = 2},
     &ShellArcs::middle_mm},
};
constexpr auto kParams = paramsOf(kSizes);

const Handle kHandles[] = {
    {"upper", NINE_WORDS("core", "upper end of the arcs"), {}, {{{"g1_mm", 0, 1}}}},
    {"lower", NINE_WORDS("core", "lower end of the arcs"), {}, {{{"g0_mm", 0, 1}}}},
    {"middle", NINE_WORDS("core", "middle of the arcs"), {}, {{{"bow_mm", 1, 0}}}},
    rowStart(NINE_WORDS("core", "first arc")),
    rowEnd(NINE_WORDS("core", "last arc")),
};

class ShellArcsKind : public Kind {
  public:
    std::string_view id() const override { return "shell_arcs"; }
    Family family() const override { return Family::Crayfish; }
    Pattern name() const override { return NINE_WORDS("core", "shell arcs"); }
    Pattern onMask() const override { return NINE_WORDS("core", "shell"); }
    std::vector<Pattern> sentences() const override {
        return {
            NINE_WORDS("core",
                       "{count} arcs, {spacing_mm} apart, {first_mm} thick at the head and {last_mm} at the "
                       "tail, bowed {bow_mm}, from {g0_mm} up to {g1_mm}, with joints {joint_mm} wide and a "
                       "mid-line of {middle_mm}; 0 is none.")};
    }
    std::span<const Param> params() const override { return kParams; }
    std::span<const Handle> handles() const override { return kHandles; }
    double rowLength_mm(const Values& values) const override {
        const ShellArcs s = sizesOf(kSizes, values);
        return (s.count - 1) * s.spacing_mm;
    }
    bool openingsMerge(const Values& values) const override {
        const ShellArcs s = sizesOf(kSizes, values);
        return s.count > 1 && s.middle_mm <= 0 && s.spacing_mm <= std::max(s.first_mm, s.last_mm);
    }
    Status check(const Values& values, const std::string& path) const override {
        const ShellArcs s = sizesOf(kSizes, values);
        if (s.high_mm - s.low_mm > s.joint_mm + 0.5) return Done{};
        return Error{
            "out_of_range",
            NINE_WORDS("core", "The arcs must reach from a lower end up to a higher one, past their joint."),
            path + ".g1_mm"};
    }
    Result<Drawn> draw(const DrawOn& on, const Element& element) const override {
        // In one piece: the arcs, then joints taken out and the mid-line put in.
        const ShellArcs s = sizesOf(kSizes, element.values);
        const auto count = static_cast<std::size_t>(s.count);
        const double step = artSteps(on.fineness).edge_mm;
        const Result<std::vector<Vec2>> row = placesInRow(on, count, s.spacing_mm);
        if (!row) return row.error();
        const std::vector<Vec2>& centres = *row;
        const double low = on.origin.y() + s.low_mm, high = on.origin.y() + s.high_mm;
        std::vector<Result<PolygonSet>> arcs(count, Result<PolygonSet>(PolygonSet{}));
        std::vector<Vec2> ends(3);
        forEachInParallel(count, [&](std::size_t i) {
            const double t = count > 1 ? static_cast<double>(i) / static_cast<double>(count - 1) : 0;
            const double thick = (1 - t) * s.first_mm + t * s.last_mm;
            const Result<Spine> spine =
                spineAcross(on.skin, centres[i], low, high, s.bow_mm, 0, step, on.path);
            if (!spine) {
                arcs[i] = spine.error();
                return;
            }
            if (i == count / 2) ends = {spine->at.front(), spine->at[spine->at.size() / 2], spine->at.back()};
            arcs[i] =
                strokeRings(on.skin, *spine, {evenWidth(thick), StrokeEnd::Pointed, StrokeEnd::Pointed, {}},
                            on.fineness, on.path);
        });
        PolygonSet all;
        for (Result<PolygonSet>& arc : arcs) {
            if (!arc) return arc.error();
            all.insert(all.end(), arc->begin(), arc->end());
        }
        const double whole = (s.count - 1) * s.spacing_mm;
        // Joints at a third of the height, all along; the mid-line where the arcs bow farthest.
        const auto bandAt = [&](double t, double wide) -> Result<PolygonSet> {
            const double g = (1 - t) * low + t * high, reach = std::max(s.first_mm, s.last_mm);
            const double bow = s.bow_mm * 4 * t * (1 - t);
            const Result<Vec2> from =
                placeFrom(on.skin, Vec2(on.origin.x(), g), Vec2(bow - reach, 0), on.path);
            if (!from) return from.error();
            const Result<Spine> spine = spineAlong(on.skin, *from, whole + 2 * reach, 0, 0, step, on.path);
            if (!spine) return spine.error();
            return strokeRings(on.skin, *spine, {evenWidth(wide), StrokeEnd::Square, StrokeEnd::Square, {}},
                               on.fineness, on.path);
        };
        if (s.joint_mm > 0) {
            const Result<PolygonSet> joint = bandAt(0.33, s.joint_mm);
            if (!joint) return joint.error();
            all = subtracted(united(all), *joint);
        }
        if (s.middle_mm > 0 && count > 1) {
            const Result<PolygonSet> middle = bandAt(0.6, s.middle_mm);
            if (!middle) return middle.error();
            all = united(all, *middle);
        }
        Drawn result{{{outlinesOf(on.skin, subdivided(all, 2 * step), 0.01)}}, placesOfRow(centres)};
        std::erase_if(result.places, [](const auto& place) { return place.first == "middle"; });
        result.places.emplace_back("lower", ends[0]);
        result.places.emplace_back("middle", ends[1]);
        result.places.emplace_back("upper", ends[2]);
        return result;
    }
};

}  // namespace
}  // namespace shell_arcs

NINE_KIND(shellArcs, shell_arcs::ShellArcsKind)

}  // namespace nine
