// A card for one side, cut down to butt against whatever is in its way: back and belly line, bill, hangers.
#include <algorithm>

#include "mask/kind/boxed.h"
#include "mask/kind/whole.h"

namespace nine {
namespace {

constexpr Choice kEnds[] = {{"butts", NINE_WORDS("core", "ends on")},
                            {"over", NINE_WORDS("core", "goes over")}};

class ButtedMaskKind : public MaskKind {
  public:
    std::string_view id() const override { return "butted"; }
    Pattern name() const override { return NINE_WORDS("core", "card against back and bill"); }
    std::vector<Pattern> sentences() const override {
        return {NINE_WORDS("core",
                           "A margin of {margin_mm} stays round the windows; it is cut away round bill, "
                           "hangers and whatever no sheet can lie over."),
                NINE_WORDS("core", "It {back} the back line and {belly} the belly line.")};
    }
    std::span<const Param> params() const override {
        static constexpr Param kParams[] = {kMargin,
                                            {.key = "back",
                                             .name = NINE_WORDS("core", "At the back line it"),
                                             .type = Param::Type::Choice,
                                             .usualText = "butts",
                                             .choices = kEnds},
                                            {.key = "belly",
                                             .name = NINE_WORDS("core", "At the belly line it"),
                                             .type = Param::Type::Choice,
                                             .usualText = "butts",
                                             .choices = kEnds}};
        return kParams;
    }
    Result<std::optional<Strip>> strip(const PlanOn& on, const Values& values) const override {
        return std::optional(stripOf(on, values));
    }
    Result<std::vector<SheetPlan>> plan(const PlanOn& on, const Values& values, Warnings&) const override {
        const Strip strip = stripOf(on, values);
        SheetPlan sheet{regionOf(on.skin, strip), on.art, {}};
        leaveOut(sheet.region, on.uncovered);
        if (Status ok = checkHolds(sheet, on.where); !ok) return ok.error();
        sheet.marks = marksAtEnds(sheet.region.outer);
        return std::vector<SheetPlan>{std::move(sheet)};
    }

  private:
    static Strip stripOf(const PlanOn& on, const Values& values) {
        // A box is cut down where the body is too thin for it; this sheet follows the body's lines instead.
        Warnings unheard;
        const double margin = values.number("margin_mm");
        BandPatch box = boxOf(on, margin, unheard);
        box.g0_mm = 1e300;
        box.g1_mm = -1e300;
        for (const ElementArt* art : on.art) {
            box.g0_mm = std::min(box.g0_mm, art->low.y() - margin);
            box.g1_mm = std::max(box.g1_mm, art->high.y() + margin);
        }
        const bool back = values.text("back") != "over", belly = values.text("belly") != "over";
        return {box.x0_mm, box.x1_mm, [box, back, belly](const SectionArc& arc) {
                    // Also where the art reaches over the line the sheet keeps some width.
                    constexpr double kLeast_mm = 1;
                    double low = box.g0_mm, high = box.g1_mm;
                    if (back) high = std::min(high, arc.backArc_mm());
                    if (belly) low = std::max(low, -arc.bellyArc_mm());
                    if (high < low + kLeast_mm)
                        (back ? low : high) = back ? high - kLeast_mm : low + kLeast_mm;
                    return Crossing{low, 0.5 * (low + high), high};
                }};
    }
};

}  // namespace

const MaskKind& buttedMaskKind();
const MaskKind& buttedMaskKind() {
    static const ButtedMaskKind kind;
    return kind;
}

}  // namespace nine
