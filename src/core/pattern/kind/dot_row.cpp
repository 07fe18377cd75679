// Round dots in a row from the origin towards the tail, the same distance apart along the skin.
#include <algorithm>
#include <cmath>

#include "blank/walk.h"
#include "pattern/element.h"
#include "pattern/kind/drawing.h"
#include "pattern/kinds.h"

namespace nine {
namespace {

struct DotRow {
    double count;
    double spacing_mm;         ///< between centres
    double first_mm, last_mm;  ///< diameters; those between change evenly
    double bow_mm;             ///< how far the middle of the row is lifted towards the back
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
};
constexpr auto kDotParams = paramsOf(kDotSizes);

const Handle kDotHandles[] = {
    {"middle",
     NINE_WORDS("core", "middle of the row"),
     {},
     middleCentre,
     [](Element& e, const Vec2& by, const MoveOn&) {
         e.values.set("bow_mm", e.values.number("bow_mm") + by.y());
     },
     {"bow_mm"}},
    {"first",
     NINE_WORDS("core", "first dot"),
     NINE_WORDS("core", "Ø {first_mm}"),
     firstCentre,
     [](Element& e, const Vec2& by, const MoveOn&) {
         spreadRow(e, -by.x());  // the last one stays
         e.dx_mm += by.x();
         e.dg_mm += by.y();
     },
     {"spacing_mm", "dx_mm", "dg_mm"}},
    {"last",
     NINE_WORDS("core", "last dot"),
     NINE_WORDS("core", "Ø {last_mm}"),
     lastCentre,
     [](Element& e, const Vec2& by, const MoveOn&) { spreadRow(e, by.x()); },
     {"spacing_mm"}},
};

class DotRowKind : public Kind {
  public:
    std::string_view id() const override { return "dot_row"; }
    Pattern name() const override { return NINE_WORDS("core", "row of dots"); }
    Pattern onMask() const override { return NINE_WORDS("core", "dots"); }
    std::vector<Pattern> sentences() const override {
        return {NINE_WORDS("core",
                           "{count} dots, from Ø {first_mm} at the shoulder to Ø {last_mm} at the tail, "
                           "{spacing_mm} apart along the skin, the middle of the row lifted by {bow_mm}.")};
    }
    std::span<const Param> params() const override { return kDotParams; }
    std::span<const Handle> handles() const override { return kDotHandles; }
    bool openingsMerge(const Values& values) const override {
        const DotRow row = sizesOf(kDotSizes, values);
        return row.count > 1 && row.spacing_mm <= std::max(row.first_mm, row.last_mm);
    }
    double rowLength_mm(const Values& values) const override {
        const DotRow row = sizesOf(kDotSizes, values);
        return (row.count - 1) * row.spacing_mm;
    }
    Result<std::vector<Pass>> draw(const DrawOn& on, const Element& element) const override {
        const DotRow row = sizesOf(kDotSizes, element.values);
        const double length = (row.count - 1) * row.spacing_mm;
        const auto rise = [&](double s) {
            const double t = length > 0 ? s / length : 0;
            return row.bow_mm * 4 * t * (1 - t);
        };
        std::vector<double> distances;
        for (int i = 0; i < row.count; ++i) distances.push_back(i * row.spacing_mm);
        const Result<std::vector<Vec2>> centres =
            walkLine(on.skin, on.origin.x(), on.origin.y(), rise, distances, on.path);
        if (!centres) return centres.error();
        Result<std::vector<Outline>> dots = drawAll(centres->size(), [&](std::size_t i) {
            const double t = row.count > 1 ? static_cast<double>(i) / (row.count - 1) : 0;
            const double diameter = (1 - t) * row.first_mm + t * row.last_mm;
            return drawDisc(on.skin, (*centres)[i], diameter / 2, on.fineness, on.path);
        });
        if (!dots) return dots.error();
        return std::vector<Pass>{{std::move(*dots)}};
    }
};

}  // namespace

const Kind& dotRowKind();
const Kind& dotRowKind() {
    static const DotRowKind kind;
    return kind;
}

}  // namespace nine
