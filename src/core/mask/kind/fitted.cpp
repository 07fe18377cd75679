// A sheet for one side: the box round its art and a margin, with a mark near each end of its mid-line.
#include "blank/walk.h"
#include "mask/mask_kind.h"

namespace nine {
namespace {

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
    Result<std::optional<Strip>> strip(const PlanOn& on, const Values& values) const override {
        Warnings unheard;
        const BandPatch band = boxOf(on, values, unheard);
        return fitsRound(on.skin, band) ? std::optional(bandStrip(band)) : std::nullopt;
    }
    Result<std::vector<SheetPlan>> plan(const PlanOn& on, const Values& values,
                                        Warnings& warnings) const override {
        Warnings ofBand;
        const BandPatch band = boxOf(on, values, ofBand);
        if (!fitsRound(on.skin, band)) return followingTheBody(on, values, warnings);
        warnings.insert(warnings.end(), ofBand.begin(), ofBand.end());
        const double middle = 0.5 * (band.g0_mm + band.g1_mm);
        const auto inset = [&](double x, double way) {
            const Result<double> at = walkAlong(on.skin, x, middle, way * kMarkInset_mm, on.where);
            return SkinPlace(at ? *at : x, middle);
        };
        return std::vector<SheetPlan>{
            {bandRegion(band), on.art, {inset(band.x0_mm, 1), inset(band.x1_mm, -1)}}};
    }

  private:
    static BandPatch boxOf(const PlanOn& on, const Values& values, Warnings& warnings) {
        Vec2 low = on.art.front()->low, high = on.art.front()->high;
        for (const ElementArt* a : on.art) {
            low = low.cwiseMin(a->low);
            high = high.cwiseMax(a->high);
        }
        return bandAround(on.skin, low, high, values.number("margin_mm"), on.where, warnings);
    }
    /// No box: a sheet that gets narrower with the body.
    static Result<std::vector<SheetPlan>> followingTheBody(const PlanOn& on, const Values& values,
                                                           Warnings& warnings) {
        PolygonSet art;
        for (const ElementArt* a : on.art)
            for (const Outline& outline : a->outlines())
                if (!outline.hole) art.push_back(outline.skin);
        Result<Region> region = regionAround(on.skin, art, values.number("margin_mm"), on.where, warnings);
        if (!region) return region.error();
        const Box2 box = boxAround({region->outer});
        // A mark near each end, in the middle of the sheet there.
        const auto mark = [&](double x) {
            const PolygonSet slice = intersected({region->outer}, {{{x - 0.05, box.low.y() - 1},
                                                                    {x + 0.05, box.low.y() - 1},
                                                                    {x + 0.05, box.high.y() + 1},
                                                                    {x - 0.05, box.high.y() + 1}}});
            const Vec2 at = slice.empty() ? centroid(region->outer) : centroid(slice.front());
            return SkinPlace(at.x(), at.y());
        };
        std::vector<SkinPlace> marks{mark(box.low.x() + kMarkInset_mm), mark(box.high.x() - kMarkInset_mm)};
        return std::vector<SheetPlan>{{std::move(*region), on.art, std::move(marks)}};
    }
};

}  // namespace

const MaskKind& fittedMaskKind();
const MaskKind& fittedMaskKind() {
    static const FittedMaskKind kind;
    return kind;
}

}  // namespace nine
