// One small card that is moved along the body: it opens one group of a row and is laid again at the next.
#include <algorithm>

#include "blank/walk.h"
#include "mask/kind/boxed.h"

namespace nine {
namespace {

class SteppedMaskKind : public MaskKind {
  public:
    std::string_view id() const override { return "stepped"; }
    Pattern name() const override { return NINE_WORDS("core", "card moved along the body"); }
    std::vector<Pattern> sentences() const override {
        return {NINE_WORDS("core", "One card is laid {steps} times, from the nose to the tail."),
                NINE_WORDS("core", "A margin of {margin_mm} stays round its windows.")};
    }
    std::span<const Param> params() const override {
        static constexpr Param kParams[] = {kMargin,
                                            {.key = "steps",
                                             .name = NINE_WORDS("core", "Times it is laid"),
                                             .type = Param::Type::Count,
                                             .low = 2,
                                             .high = 40,
                                             .usual = 3,
                                             .decimals = 0}};
        return kParams;
    }
    Result<std::optional<Strip>> strip(const PlanOn&, const Values&) const override { return {std::nullopt}; }
    Result<std::vector<SheetPlan>> plan(const PlanOn& on, const Values& values,
                                        Warnings& warnings) const override {
        const std::vector<Opening> openings = openingsOf(on.art);
        const auto steps = static_cast<std::size_t>(values.number("steps"));
        if (openings.size() < steps)
            return Error{
                "too_many_steps",
                Words(NINE_WORDS("core",
                                 "There are {count} openings, fewer than the card is laid. Lay it fewer "
                                 "times, or take a mask of another kind."))
                    .number("count", static_cast<double>(openings.size()), 0),
                on.where + ".steps"};
        std::vector<std::size_t> order;
        for (std::size_t i = 0; i < openings.size(); ++i) order.push_back(i);
        std::stable_sort(order.begin(), order.end(), [&](std::size_t a, std::size_t b) {
            return openings[a].middle().x() < openings[b].middle().x();
        });
        const std::vector<std::vector<std::size_t>> columns = columnsOf(openings, order);
        std::size_t perStep = (columns.size() + steps - 1) / steps;
        // Rows of scales stand half a scale off their neighbours: an even number of columns keeps them in
        // step.
        if (columns.size() < order.size() && perStep % 2) ++perStep;
        std::vector<std::vector<std::size_t>> groups;
        for (std::size_t i = 0; i < columns.size(); i += perStep) {
            std::vector<std::size_t>& group = groups.emplace_back();
            for (std::size_t k = i; k < std::min(i + perStep, columns.size()); ++k)
                group.insert(group.end(), columns[k].begin(), columns[k].end());
        }
        // Cut for the middle of the body, so that it fits best at both ends; the last group may be smaller.
        std::size_t own = groups.size() / 2;
        if (own + 1 == groups.size() && columns.size() % perStep && own > 0) --own;
        std::vector<std::shared_ptr<const SheetPlan>> places;
        for (std::size_t k = 0; k < groups.size(); ++k) {
            std::vector<std::shared_ptr<const ElementArt>> made;
            const PlanOn part = withOpenings(on, openings, groups[k], made);
            Warnings ofOthers;
            Result<SheetPlan> sheet =
                boxedSheet(part, values.number("margin_mm"), k == own ? warnings : ofOthers);
            if (!sheet) return sheet.error();
            sheet->made = std::move(made);
            if (k == own && own > 0) overlap(*sheet, on, openings[groups[own - 1].back()]);
            places.push_back(std::make_shared<const SheetPlan>(std::move(*sheet)));
        }
        SheetPlan card = *places[own];
        card.laidAt = std::move(places);
        return std::vector<SheetPlan>{std::move(card)};
    }

  private:
    /// Openings that stand over one another, column by column from the nose; of a row each is a column.
    static std::vector<std::vector<std::size_t>> columnsOf(const std::vector<Opening>& openings,
                                                           const std::vector<std::size_t>& order) {
        std::vector<double> widths;
        for (const Opening& o : openings) widths.push_back(o.box.size().x());
        std::nth_element(widths.begin(), widths.begin() + static_cast<std::ptrdiff_t>(widths.size() / 2),
                         widths.end());
        const double apart = 0.3 * widths[widths.size() / 2];
        std::vector<std::vector<std::size_t>> columns;
        for (const std::size_t i : order) {
            if (columns.empty() ||
                openings[i].middle().x() - openings[columns.back().front()].middle().x() > apart)
                columns.emplace_back();
            columns.back().push_back(i);
        }
        return columns;
    }
    /// The card's nose edge runs through the middle of the mark that was painted last, ticks show how high it
    /// stands: laid on that mark the card is in step.
    static void overlap(SheetPlan& sheet, const PlanOn& on, const Opening& before) {
        constexpr double kLeast_mm = 1;
        const std::optional<BandPatch> box = bandOf(sheet.region);
        const double x = before.middle().x();
        if (!box || x > sheet.opens.front()->low.x() - kLeast_mm) return;
        BandPatch band = *box;
        band.x0_mm = x;
        band.g0_mm = std::min(band.g0_mm, before.box.low.y() - kLeast_mm);
        band.g1_mm = std::max(band.g1_mm, before.box.high.y() + kLeast_mm);
        if (!fitsRound(on.skin, band)) return;
        sheet.region = bandRegion(band);
        const double middle = 0.5 * (band.g0_mm + band.g1_mm);
        const Result<double> at = walkAlong(on.skin, x, middle, kMarkInset_mm, on.where);
        sheet.marks.front() = SkinPlace(at ? *at : x, middle);
        sheet.ticks = {SkinPlace(x, before.box.low.y()), SkinPlace(x, before.box.high.y())};
    }
};

}  // namespace

const MaskKind& steppedMaskKind();
const MaskKind& steppedMaskKind() {
    static const SteppedMaskKind kind;
    return kind;
}

}  // namespace nine
