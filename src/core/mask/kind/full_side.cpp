// A whole side in one sheet, from the belly line to the back line.
#include "mask/kind/whole.h"

#include <algorithm>

namespace nine {

Result<Strip> betweenBareEnds(const PlanOn& on, const Values& values, Strip strip) {
    strip.x0_mm = on.skin.noseX_mm() + values.number("nose_mm");
    strip.x1_mm = on.skin.tailX_mm() - values.number("tail_mm");
    constexpr double kShortest_mm = 5;
    if (strip.x1_mm - strip.x0_mm >= kShortest_mm) return strip;
    return Error{"empty_patch",
                 NINE_WORDS("core", "The bare ends leave no sheet between them; make them shorter."),
                 on.where + ".nose_mm"};
}

void leaveOut(Region& region, const PolygonSet& uncovered) {
    if (uncovered.empty()) return;
    constexpr double kClear_mm = 0.5, kSmallest_mm2 = 1, kApart_mm = 0.03;
    // Nothing thinner than a web is left beside such a place.
    PolygonSet left = subtracted({region.outer}, offset(uncovered, kClear_mm));
    left = offset(offset(left, -kClear_mm), kClear_mm);
    std::sort(left.begin(), left.end(),
              [](const Polygon2& a, const Polygon2& b) { return polygonArea(a) > polygonArea(b); });
    left = withoutCloseCorners(left, kApart_mm);
    if (!left.empty()) region.outer = left.front();
    for (std::size_t k = 1; k < left.size(); ++k)
        if (polygonArea(left[k]) < -kSmallest_mm2 && contains(region.outer, left[k].front()))
            region.holes.push_back(left[k]);
}

Status checkHolds(const SheetPlan& plan, const std::string& where) {
    for (const ElementArt* art : plan.opens)
        for (const Outline& outline : art->outlines())
            for (const Vec2& p : outline.skin)
                if (!contains(plan.region.outer, p))
                    return Error{
                        "art_beyond",
                        Words(NINE_WORDS(
                                  "core",
                                  "\"{element}\" reaches beyond the sheet {x} from the nose. Give it a mask "
                                  "of another kind, or leave less of the ends bare."))
                            .name("element", art->element)
                            .length("x", p.x(), 0),
                        where};
    return Done{};
}

Result<SheetPlan> wholeSheet(const PlanOn& on, const Strip& strip, std::vector<const ElementArt*> opens) {
    SheetPlan plan = sheetOf(on.skin, strip, std::move(opens));
    leaveOut(plan.region, on.uncovered);
    if (Status ok = checkHolds(plan, on.where); !ok) return ok.error();
    return plan;
}

namespace {

class SideMaskKind : public MaskKind {
  public:
    std::string_view id() const override { return "full_side"; }
    Pattern name() const override { return NINE_WORDS("core", "mask of a whole side"); }
    std::vector<Pattern> sentences() const override {
        return {
            NINE_WORDS("core",
                       "One sheet from the belly line to the back line; {nose_mm} of the nose and {tail_mm} "
                       "of the tail stay bare.")};
    }
    std::span<const Param> params() const override {
        static constexpr Param kParams[] = {kBareNose, kBareTail};
        return kParams;
    }
    Result<std::optional<Strip>> strip(const PlanOn& on, const Values& values) const override {
        Result<Strip> strip = betweenBareEnds(on, values, sideStrip(on.skin));
        if (!strip) return strip.error();
        return std::optional(std::move(*strip));
    }
    Result<std::vector<SheetPlan>> plan(const PlanOn& on, const Values& values, Warnings&) const override {
        const Result<Strip> strip = betweenBareEnds(on, values, sideStrip(on.skin));
        if (!strip) return strip.error();
        Result<SheetPlan> sheet = wholeSheet(on, *strip, on.art);
        if (!sheet) return sheet.error();
        return std::vector<SheetPlan>{std::move(*sheet)};
    }
};

}  // namespace

const MaskKind& full_sideMaskKind();
const MaskKind& full_sideMaskKind() {
    static const SideMaskKind kind;
    return kind;
}

}  // namespace nine
