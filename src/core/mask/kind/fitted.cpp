// A sheet for one side: the box round its art and a margin, with a mark near each end of its mid-line.
#include "blank/walk.h"
#include "mask/kind/boxed.h"

namespace nine {

BandPatch boxOf(const PlanOn& on, double margin_mm, Warnings& warnings) {
    Vec2 low = on.art.front()->low, high = on.art.front()->high;
    for (const ElementArt* a : on.art) {
        low = low.cwiseMin(a->low);
        high = high.cwiseMax(a->high);
    }
    return bandAround(on.skin, low, high, margin_mm, on.where, warnings);
}

std::vector<SkinPlace> marksAtEnds(const Polygon2& outer) {
    const Box2 box = boxAround({outer});
    const auto mark = [&](double x) {
        const PolygonSet slice = intersected({outer}, {{{x - 0.05, box.low.y() - 1},
                                                        {x + 0.05, box.low.y() - 1},
                                                        {x + 0.05, box.high.y() + 1},
                                                        {x - 0.05, box.high.y() + 1}}});
        const Vec2 at = slice.empty() ? centroid(outer) : centroid(slice.front());
        return SkinPlace(at.x(), at.y());
    };
    return {mark(box.low.x() + kMarkInset_mm), mark(box.high.x() - kMarkInset_mm)};
}

Result<SheetPlan> boxedSheet(const PlanOn& on, double margin_mm, Warnings& warnings) {
    Warnings ofBand;
    const BandPatch band = boxOf(on, margin_mm, ofBand);
    if (!fitsRound(on.skin, band)) {  // no box: a sheet that gets narrower with the body
        PolygonSet art;
        for (const ElementArt* a : on.art)
            for (const Outline& outline : a->outlines())
                if (!outline.hole) art.push_back(outline.skin);
        Result<Region> region = regionAround(on.skin, art, margin_mm, on.where, warnings);
        if (!region) return region.error();
        std::vector<SkinPlace> marks = marksAtEnds(region->outer);
        return SheetPlan{std::move(*region), on.art, std::move(marks)};
    }
    warnings.insert(warnings.end(), ofBand.begin(), ofBand.end());
    const double middle = 0.5 * (band.g0_mm + band.g1_mm);
    const auto inset = [&](double x, double way) {
        const Result<double> at = walkAlong(on.skin, x, middle, way * kMarkInset_mm, on.where);
        return SkinPlace(at ? *at : x, middle);
    };
    return SheetPlan{bandRegion(band), on.art, {inset(band.x0_mm, 1), inset(band.x1_mm, -1)}};
}

namespace {

class FittedMaskKind : public MaskKind {
  public:
    std::string_view id() const override { return "fitted"; }
    Pattern name() const override { return NINE_WORDS("core", "mask of one side"); }
    std::vector<Pattern> sentences() const override {
        return {NINE_WORDS("core", "A margin of {margin_mm} stays round the windows against overspray.")};
    }
    std::span<const Param> params() const override {
        static constexpr Param kParams[] = {kMargin};
        return kParams;
    }
    Result<std::optional<Strip>> strip(const PlanOn& on, const Values& values) const override {
        Warnings unheard;
        const BandPatch band = boxOf(on, values.number("margin_mm"), unheard);
        return fitsRound(on.skin, band) ? std::optional(bandStrip(band)) : std::nullopt;
    }
    Result<std::vector<SheetPlan>> plan(const PlanOn& on, const Values& values,
                                        Warnings& warnings) const override {
        Result<SheetPlan> sheet = boxedSheet(on, values.number("margin_mm"), warnings);
        if (!sheet) return sheet.error();
        return std::vector<SheetPlan>{std::move(*sheet)};
    }
};

}  // namespace

const MaskKind& fittedMaskKind();
const MaskKind& fittedMaskKind() {
    static const FittedMaskKind kind;
    return kind;
}

}  // namespace nine
