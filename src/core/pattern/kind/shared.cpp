#include "pattern/kind/shared.h"

#include <cmath>

#include "blank/walk.h"
#include "pattern/bands.h"
#include "pattern/element.h"
#include "pattern/kind/drawing.h"

namespace nine {

Vec2 LitSide::step_mm() const {
    const double angle = degToRad(toward_deg);
    return width_mm * Vec2(std::cos(angle), std::sin(angle));
}

std::array<Param, 2> litSideParams(double usual_deg) {
    return {Param{.key = "width_mm",
                  .name = NINE_WORDS("core", "Width"),
                  .low = 0.1,
                  .high = 10,
                  .usual = 0.6,
                  .decimals = 2},
            Param{.key = "toward_deg",
                  .name = NINE_WORDS("core", "Side"),
                  .type = Param::Type::Angle,
                  .low = -180,
                  .high = 180,
                  .usual = usual_deg,
                  .decimals = 0}};
}

LitSide litSideOf(const Values& values) {
    return {values.number("width_mm"), values.number("toward_deg")};
}

Result<Drawn> drawnBand(const DrawOn& on, const PolygonSet& band) {
    const Result<PolygonSet> thick = grown(on.skin, band, -kSliver_mm, on.fineness, on.path);
    if (!thick) return thick.error();
    const Result<PolygonSet> clean = grown(on.skin, *thick, kSliver_mm, on.fineness, on.path);
    if (!clean) return clean.error();
    std::vector<Outline> outlines = outlinesOf(on.skin, *clean, kLeastDerived_mm2);
    if (outlines.empty())
        return Error{"fits_nowhere",
                     NINE_WORDS("core", "Nothing of it is wide enough to be cut; make it wider."),
                     on.path + ".width_mm"};
    return Drawn{{{std::move(outlines)}}};
}

FieldCells cellsOf(const DrawOn& on, const Chart& chart, const FieldReach& reach, double soft) {
    constexpr double kWhole = 0.97;
    FieldCells cells{std::vector<float>(chart.size()), std::vector<bool>(chart.size()),
                     std::vector<float>(chart.size())};
    for (int r = 0; r < chart.rows(); ++r) {
        const SectionArc arc = on.skin.arcAt(chart.x_mm(r));
        const double half = arc.backArc_mm() + arc.bellyArc_mm();
        for (int c = 0; c < chart.columns(); ++c) {
            const std::size_t i = chart.index(r, c);
            const double in = insideOf(reach, on.skin, chart.x_mm(r) - on.shift_mm.x(), chart.share(c), soft);
            cells.inside[i] = static_cast<float>(in);
            cells.counts[i] = in > kWhole;
            cells.offBack_mm[i] = static_cast<float>(std::abs(chart.share(c)) * half);
        }
    }
    return cells;
}

Result<std::vector<Vec2>> placesInRow(const DrawOn& on, std::size_t count, double spacing_mm) {
    std::vector<Vec2> places{on.origin};
    while (places.size() < count) {
        const Result<double> x = walkAlong(on.skin, places.back().x(), on.origin.y(), spacing_mm, on.path);
        if (!x) return x.error();
        places.emplace_back(*x, on.origin.y());
    }
    return places;
}

Handle rowStart(Pattern name) {
    return {"first",
            name,
            {},
            {},
            [](Element& e, const Vec2& by, const MoveOn&) { moveRowStart(e, by); },
            {"spacing_mm", "dx_mm", "dg_mm"}};
}

Handle rowEnd(Pattern name) {
    return {
        "last",        name, {}, {}, [](Element& e, const Vec2& by, const MoveOn&) { spreadRow(e, by.x()); },
        {"spacing_mm"}};
}

}  // namespace nine
