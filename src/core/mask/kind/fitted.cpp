// A sheet for one side: the box round its art and a margin, with a mark near each end of its mid-line.
#include "blank/walk.h"
#include "mask/mask_kind.h"

namespace nine {
namespace {

constexpr double kMarkInset_mm = 2.5;  // from the ends: room for a cross of 4 mm

class FittedMaskKind : public MaskKind {
  public:
    std::string_view id() const override { return "fitted"; }
    Pattern name() const override { return NINE_WORDS("core", "mask of one side"); }
    std::vector<Pattern> sentences() const override {
        return {NINE_WORDS("core", "A margin of {margin_mm} stays round the windows against overspray.")};
    }
    std::span<const Param> params() const override {
        static constexpr Param kParams[] = {
            {"margin_mm", NINE_WORDS("core", "Margin"), Param::Type::Length, 1, 60, 6, 1}};
        return kParams;
    }
    Result<std::vector<SheetPlan>> plan(const PlanOn& on, const Values& values,
                                        Warnings& warnings) const override {
        Vec2 low = on.art.front()->low, high = on.art.front()->high;
        for (const ElementArt* a : on.art) {
            low = low.cwiseMin(a->low);
            high = high.cwiseMax(a->high);
        }
        const BandPatch band = bandAround(on.skin, low, high, values.number("margin_mm"), on.where, warnings);
        const double middle = 0.5 * (band.g0_mm + band.g1_mm);
        const auto inset = [&](double x, double way) {
            const Result<double> at = walkAlong(on.skin, x, middle, way * kMarkInset_mm, on.where);
            return SkinPlace(at ? *at : x, middle);
        };
        return std::vector<SheetPlan>{
            {bandRegion(band), on.art, {inset(band.x0_mm, 1), inset(band.x1_mm, -1)}}};
    }
};

}  // namespace

const MaskKind& fittedMaskKind();
const MaskKind& fittedMaskKind() {
    static const FittedMaskKind kind;
    return kind;
}

}  // namespace nine
