// Round dots in a row from the origin towards the tail, the same distance apart along the skin.
#include <algorithm>
#include <cmath>

#include "blank/walk.h"
#include "pattern/element.h"
#include "pattern/kind/drawing.h"
#include "pattern/kinds.h"
#include "pattern/natural.h"

namespace nine {
namespace dot_row {
namespace {

struct DotRow {
    double count;
    double spacing_mm;         ///< between centres
    double first_mm, last_mm;  ///< diameters
    double bow_mm;             ///< how far the middle of the row is lifted towards the back
    double rise_mm;            ///< how far its end lies above its start
    double bulge;              ///< diameters in the middle, over those of an even taper
};

using Type = Param::Type;
constexpr Bound<DotRow> kDotSizes[] = {
    {{"count", NINE_WORDS("core", "Count"), Type::Count, 1, kMaxCount, 8, 0, Refit::Fixed, Lessen::Fewer},
     &DotRow::count},
    {{"spacing_mm", NINE_WORDS("core", "Spacing"), Type::Length, kSmallestSize_mm, kLargestSize_mm, 4, 1,
      Refit::WithLength},
     &DotRow::spacing_mm},
    {{"first_mm", NINE_WORDS("core", "First diameter"), Type::Length, kSmallestSize_mm, 50, 2, 2,
      Refit::Fixed, Lessen::Smaller},
     &DotRow::first_mm},
    {{"last_mm", NINE_WORDS("core", "Last diameter"), Type::Length, kSmallestSize_mm, 50, 2, 2, Refit::Fixed,
      Lessen::Smaller, "first_mm"},
     &DotRow::last_mm},
    {{"bow_mm", NINE_WORDS("core", "Bow"), Type::Length, -50, 50, 0, 1, Refit::WithGirth, Lessen::Lower},
     &DotRow::bow_mm},
    {{.key = "rise_mm",
      .name = NINE_WORDS("core", "Rise"),
      .low = -50,
      .high = 50,
      .refit = Refit::WithGirth,
      .lessen = Lessen::Lower,
      .spare = true},
     &DotRow::rise_mm},
    {{.key = "bulge",
      .name = NINE_WORDS("core", "Bulge"),
      .type = Type::Share,
      .low = 0.2,
      .high = 3,
      .usual = 1,
      .decimals = 0,
      .spare = true},
     &DotRow::bulge},
};
constexpr auto kDotParams = joined(paramsOf(kDotSizes), kNaturalParams);

const Handle kDotHandles[] = {
    {"middle", NINE_WORDS("core", "middle of the row"), {}, {{{"bow_mm", 0, 1}}}},
    {"first",
     NINE_WORDS("core", "first dot"),
     NINE_WORDS("core", "Ø {first_mm}"),
     {},
     [](Element& e, const Vec2& by, const MoveOn&) {
         moveRowStart(e, by);
         e.values.set("rise_mm", e.values.number("rise_mm") - by.y());  // the last one stays
     },
     {"spacing_mm", "rise_mm", "dx_mm", "dg_mm"}},
    {"last",
     NINE_WORDS("core", "last dot"),
     NINE_WORDS("core", "Ø {last_mm}"),
     {},
     [](Element& e, const Vec2& by, const MoveOn&) {
         spreadRow(e, by.x());
         e.values.set("rise_mm", e.values.number("rise_mm") + by.y());
     },
     {"spacing_mm", "rise_mm"}},
};

double diameterAt_mm(const DotRow& row, double t) {
    return ((1 - t) * row.first_mm + t * row.last_mm) * (1 + (row.bulge - 1) * 4 * t * (1 - t));
}
double riseAt_mm(const DotRow& row, double t) {
    return row.bow_mm * 4 * t * (1 - t) + row.rise_mm * t;
}

const Curve kDotCurves[] = {
    {.name = NINE_WORDS("core", "How the dots change"),
     .from = NINE_WORDS("core", "shoulder"),
     .to = NINE_WORDS("core", "tail"),
     .first = "first_mm",
     .last = "last_mm",
     .middle = "bulge",
     .at = [](const Values& v, double t) { return diameterAt_mm(sizesOf(kDotSizes, v), t); },
     .setMiddle =
         [](Values& v, double mm) {
             v.set("bulge", mm / (0.5 * (v.number("first_mm") + v.number("last_mm"))));
         }},
    {.name = NINE_WORDS("core", "How the row runs"),
     .from = NINE_WORDS("core", "shoulder"),
     .to = NINE_WORDS("core", "tail"),
     .ofWidths = false,
     .last = "rise_mm",
     .middle = "bow_mm",
     .at = [](const Values& v, double t) { return riseAt_mm(sizesOf(kDotSizes, v), t); },
     .setMiddle = [](Values& v, double mm) { v.set("bow_mm", mm - 0.5 * v.number("rise_mm")); }},
};

class DotRowKind : public Kind {
  public:
    std::string_view id() const override { return "dot_row"; }
    Family family() const override { return Family::Rows; }
    Pattern name() const override { return NINE_WORDS("core", "row of dots"); }
    Pattern onMask() const override { return NINE_WORDS("core", "dots"); }
    std::vector<Pattern> sentences() const override {
        return {NINE_WORDS("core",
                           "{count} dots, from Ø {first_mm} at the shoulder to Ø {last_mm} at the tail, "
                           "{spacing_mm} apart along the skin, the middle of the row lifted by {bow_mm}, its "
                           "end by {rise_mm}; dots in the middle {bulge} % of an even taper.")};
    }
    std::span<const Param> params() const override { return kDotParams; }
    std::span<const Handle> handles() const override { return kDotHandles; }
    std::span<const Curve> curves() const override { return kDotCurves; }
    bool openingsMerge(const Values& values) const override {
        const DotRow row = sizesOf(kDotSizes, values);
        return row.count > 1 && row.spacing_mm <= std::max(row.first_mm, row.last_mm);
    }
    double rowLength_mm(const Values& values) const override {
        const DotRow row = sizesOf(kDotSizes, values);
        return (row.count - 1) * row.spacing_mm;
    }
    Result<Drawn> draw(const DrawOn& on, const Element& element) const override {
        const DotRow row = sizesOf(kDotSizes, element.values);
        const Natural natural = naturalOf(element.values);
        const std::uint64_t seed = on.seedOf(natural.seed);
        const double length = (row.count - 1) * row.spacing_mm;
        const auto rise = [&](double s) { return riseAt_mm(row, length > 0 ? s / length : 0); };
        const auto count = static_cast<std::size_t>(row.count);
        const std::vector<Off> offs = offsOf(natural, count, seed);
        std::vector<double> distances;
        for (std::size_t i = 0; i < count; ++i) distances.push_back(static_cast<double>(i) * row.spacing_mm);
        const Result<std::vector<Vec2>> line =
            walkLine(on.skin, on.origin.x(), on.origin.y(), rise, distances, on.path);
        if (!line) return line.error();
        std::vector<Vec2> centres = *line;
        for (std::size_t i = 0; natural.wander_mm > 0 && i < count; ++i) {
            Vec2& c = centres[i];
            c.y() += offs[i].across_mm;
            const Result<double> x = walkAlong(on.skin, c.x(), c.y(), offs[i].along_mm, on.path);
            if (!x) return x.error();
            c.x() = *x;
        }
        Result<std::vector<Outline>> dots = drawAll(count, [&](std::size_t i) {
            const double t = count > 1 ? static_cast<double>(i) / static_cast<double>(count - 1) : 0;
            const double radius = 0.5 * diameterAt_mm(row, t) * offs[i].size;
            if (natural.rough <= 0) return drawDisc(on.skin, centres[i], radius, on.fineness, on.path);
            const Wobble wobble(natural.rough, scrambled(seed + i));
            return drawBlob(
                on.skin, centres[i], [&](double a) { return radius * wobble.at(a); },
                radius * (1 + natural.rough), on.fineness, on.path);
        });
        if (!dots) return dots.error();
        return Drawn{{{std::move(*dots)}}, placesOfRow(*line)};
    }
};

}  // namespace
}  // namespace dot_row

NINE_KIND(dotRow, dot_row::DotRowKind)

}  // namespace nine
