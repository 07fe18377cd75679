// Ribs hanging from a backbone.
#include <algorithm>
#include <cmath>

#include "pattern/bands.h"
#include "pattern/element.h"
#include "pattern/kind/drawing.h"
#include "pattern/kind/shared.h"
#include "pattern/kinds.h"
#include "pattern/stroke.h"

namespace nine {
namespace ribs {
namespace {

using Type = Param::Type;

struct Ribs {
    double count, spacing_mm, spine_mm, rib_mm, first_mm, last_mm, lean_mm, bow_mm;
};

constexpr Bound<Ribs> kSizes[] = {
    {{.key = "count",
      .name = NINE_WORDS("core", "Ribs"),
      .type = Type::Count,
      .low = 2,
      .high = kMaxCount,
      .usual = 8,
      .decimals = 0,
      .lessen = Lessen::Fewer},
     &Ribs::count},
    {{.key = "spacing_mm",
      .name = NINE_WORDS("core", "Spacing"),
      .low = kSmallestSize_mm,
      .high = kLargestSize_mm,
      .usual = 3,
      .refit = Refit::WithLength},
     &Ribs::spacing_mm},
    {{.key = "spine_mm",
      .name = NINE_WORDS("core", "Width of the backbone"),
      .low = 0,
      .high = 20,
      .usual = 1,
      .decimals = 2},
     &Ribs::spine_mm},
    {{.key = "rib_mm",
      .name = NINE_WORDS("core", "Width of a rib"),
      .low = 0.3,
      .high = 20,
      .usual = 0.7,
      .decimals = 2},
     &Ribs::rib_mm},
    {{.key = "first_mm",
      .name = NINE_WORDS("core", "First rib hangs"),
      .low = 0.5,
      .high = 80,
      .usual = 9,
      .refit = Refit::WithGirth,
      .lessen = Lessen::Smaller},
     &Ribs::first_mm},
    {{.key = "last_mm",
      .name = NINE_WORDS("core", "Last rib hangs"),
      .low = 0.5,
      .high = 80,
      .usual = 4,
      .refit = Refit::WithGirth,
      .lessen = Lessen::Smaller},
     &Ribs::last_mm},
    {{.key = "lean_mm",
      .name = NINE_WORDS("core", "Lean to the tail"),
      .low = -40,
      .high = 40,
      .usual = 2,
      .refit = Refit::WithLength,
      .lessen = Lessen::Lower},
     &Ribs::lean_mm},
    {{.key = "bow_mm",
      .name = NINE_WORDS("core", "Bow"),
      .low = -40,
      .high = 40,
      .usual = 1,
      .refit = Refit::WithLength,
      .lessen = Lessen::Lower},
     &Ribs::bow_mm},
};
constexpr auto kParams = paramsOf(kSizes);

const Handle kHandles[] = {
    rowStart(NINE_WORDS("core", "first rib")),
    rowEnd(NINE_WORDS("core", "last rib")),
    {"lower",
     NINE_WORDS("core", "lower end of the first rib"),
     {},
     {{{"first_mm", 0, -1}, {"lean_mm", 1, 0}}}},
};

class RibsKind : public Kind {
  public:
    std::string_view id() const override { return "ribs"; }
    Family family() const override { return Family::Wounds; }
    Pattern name() const override { return NINE_WORDS("core", "ribs"); }
    Pattern onMask() const override { return NINE_WORDS("core", "ribs"); }
    std::vector<Pattern> sentences() const override {
        return {
            NINE_WORDS("core",
                       "{count} ribs, {spacing_mm} apart and {rib_mm} wide, on a backbone {spine_mm} wide "
                       "(0: none), hanging {first_mm} at the head and {last_mm} at the tail, leaning "
                       "{lean_mm} and bowed {bow_mm}.")};
    }
    std::span<const Param> params() const override { return kParams; }
    std::span<const Handle> handles() const override { return kHandles; }
    double rowLength_mm(const Values& values) const override {
        const Ribs s = sizesOf(kSizes, values);
        return (s.count - 1) * s.spacing_mm;
    }
    Result<Drawn> draw(const DrawOn& on, const Element& element) const override {
        const Ribs s = sizesOf(kSizes, element.values);
        const double step = artSteps(on.fineness).edge_mm, whole = (s.count - 1) * s.spacing_mm;
        const Result<Spine> back = spineAlong(on.skin, on.origin, whole, 0, 0, step, on.path);
        if (!back) return back.error();
        PolygonSet all;
        if (s.spine_mm > 0) {
            const Result<PolygonSet> bone =
                strokeRings(on.skin, *back, {evenWidth(s.spine_mm), StrokeEnd::Round, StrokeEnd::Pointed, {}},
                            on.fineness, on.path);
            if (!bone) return bone.error();
            all = *bone;
        }
        Vec2 lower = on.origin;
        for (int i = 0; i < s.count; ++i) {
            const double t = i / (s.count - 1), hang = (1 - t) * s.first_mm + t * s.last_mm;
            std::vector<Vec2> places;
            const int pieces = std::max(6, static_cast<int>(std::ceil(hang / step)));
            for (int k = 0; k <= pieces; ++k) {
                const double u = static_cast<double>(k) / pieces;
                const Result<Vec2> at =
                    placeFrom(on.skin, back->placeAt(i * s.spacing_mm),
                              Vec2(s.lean_mm * u + s.bow_mm * 4 * u * (1 - u), -hang * u), on.path);
                if (!at) return at.error();
                places.push_back(*at);
            }
            if (i == 0) lower = places.back();
            const Result<Spine> rib = spineOf(on.skin, places, 2 * step, on.path);
            if (!rib) return rib.error();
            const Result<PolygonSet> rings =
                strokeRings(on.skin, *rib, {evenWidth(s.rib_mm), StrokeEnd::Round, StrokeEnd::Round, {}},
                            on.fineness, on.path);
            if (!rings) return rings.error();
            all.insert(all.end(), rings->begin(), rings->end());
        }
        return Drawn{{{outlinesOf(on.skin, subdivided(united(all), 2 * step), 0.01)}},
                     {{"first", back->at.front()}, {"last", back->at.back()}, {"lower", lower}}};
    }
};

}  // namespace
}  // namespace ribs

NINE_KIND(ribs, ribs::RibsKind)

}  // namespace nine
