// A whole side in one sheet, from the belly line to the back line.
#include "mask/kind/whole.h"

#include <algorithm>

#include "pattern/bands.h"

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

Error artBeyond(const std::string& element, double x_mm, const std::string& where) {
    return {"art_beyond",
            Words(NINE_WORDS("core",
                             "\"{element}\" reaches beyond the sheet {x} from the nose. Give it a mask "
                             "of another kind, or let the sheet reach further."))
                .name("element", element)
                .length("x", x_mm, 0),
            where};
}

Status checkHolds(const SheetPlan& plan, const std::string& where) {
    for (const ElementArt* art : plan.opens)
        for (const Outline& outline : art->outlines())
            for (const Vec2& p : outline.skin)
                if (!contains(plan.region.outer, p)) return artBeyond(art->element, p.x(), where);
    return Done{};
}

namespace {

/// Where the strip is parted: evenly, or nearby where no outline is.
std::vector<double> jointsOf(const Strip& strip, int sheets, const std::vector<const ElementArt*>& opens) {
    constexpr double kStep_mm = 0.5, kWanted_mm = 1.5;
    constexpr Fraction kAside = 0.3;  // of a sheet's length
    std::vector<double> joints{strip.x0_mm};
    const double length = (strip.x1_mm - strip.x0_mm) / sheets;
    const auto room = [&](double x) {
        double least = 1e300;
        for (const ElementArt* art : opens)
            for (const Outline& outline : art->outlines()) {
                const Box2 box = boxAround({outline.skin});
                least = std::min(least, std::max(box.low.x() - x, x - box.high.x()));
            }
        return least;
    };
    for (int k = 1; k < sheets; ++k) {
        const double even = strip.x0_mm + k * length;
        double best = even;
        for (double aside = 0; aside <= kAside * length; aside += kStep_mm)
            for (const double x : {even - aside, even + aside})
                if (std::min(room(x), kWanted_mm) > std::min(room(best), kWanted_mm) + 1e-9) best = x;
        joints.push_back(best);
    }
    joints.push_back(strip.x1_mm);
    return joints;
}

/// The art without what reaches over the edges of its sheet; null when all of it does.
std::shared_ptr<const ElementArt> keptWithin(const Skin& skin, const ElementArt& art, const Polygon2& sheet) {
    auto kept = std::make_shared<ElementArt>(art);
    kept->passes.front().outlines =
        outlinesOf(skin, intersected(united(ringsOf(art.outlines())), {sheet}), 0.1);
    kept->low = Vec2(1e300, 1e300);
    kept->high = -kept->low;
    for (const Outline& outline : kept->outlines())
        for (const Vec2& p : outline.skin) {
            kept->low = kept->low.cwiseMin(p);
            kept->high = kept->high.cwiseMax(p);
        }
    return kept->outlines().empty() ? nullptr : kept;
}

bool reachesBeyond(const ElementArt& art, const Polygon2& sheet) {
    for (const Outline& outline : art.outlines())
        for (const Vec2& p : outline.skin)
            if (!contains(sheet, p)) return true;
    return false;
}

/// Reaching over nose or tail end is no matter of a joint: paint would go where no sheet is. What lies wholly
/// beyond back or belly line would be on no sheet at all.
Status checkReach(const PlanOn& on, const Strip& strip, const std::vector<const ElementArt*>& opens) {
    for (const ElementArt* art : opens)
        for (const Outline& outline : art->outlines()) {
            bool here = false;
            for (const Vec2& p : outline.skin) {
                if (p.x() < strip.x0_mm || p.x() > strip.x1_mm)
                    return artBeyond(art->element, p.x(), on.where);
                const Crossing edges = strip.at(on.skin.arcAt(p.x()));
                here = here || (p.y() > edges.low_mm && p.y() < edges.high_mm);
            }
            if (!here) return artBeyond(art->element, outline.skin.front().x(), on.where);
        }
    return Done{};
}

}  // namespace

Result<std::vector<SheetPlan>> wholeSheets(const PlanOn& on, const Strip& strip, int sheets,
                                           std::vector<const ElementArt*> opens) {
    if (Status ok = checkReach(on, strip, opens); !ok) return ok.error();
    const std::vector<double> joints = jointsOf(strip, sheets, opens);
    std::vector<SheetPlan> plans;
    for (std::size_t k = 0; k + 1 < joints.size(); ++k) {
        const Strip part{joints[k], joints[k + 1], strip.at};
        const Polygon2 edge = regionOf(on.skin, part).outer;
        const Box2 along = boxAround({edge});
        std::vector<const ElementArt*> here;
        std::vector<std::shared_ptr<const ElementArt>> made;
        for (const ElementArt* art : opens) {
            if (art->high.x() < along.low.x() || art->low.x() > along.high.x()) continue;
            if (!reachesBeyond(*art, edge)) {
                here.push_back(art);
                continue;
            }
            if (art->oneForBoth && sheets == 1) return artBeyond(art->element, art->origin.x(), on.where);
            made.push_back(keptWithin(on.skin, *art, edge));
            if (made.back())
                here.push_back(made.back().get());
            else
                made.pop_back();
        }
        SheetPlan plan = sheetOf(on.skin, part, std::move(here));
        plan.made = std::move(made);
        leaveOut(plan.region, on.uncovered);
        plans.push_back(std::move(plan));
    }
    return plans;
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
                       "of the tail stay bare."),
            NINE_WORDS("core", "Sheets behind one another along the body: {sheets}.")};
    }
    std::span<const Param> params() const override {
        static constexpr Param kParams[] = {kBareNose, kBareTail, kSheets};
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
        return wholeSheets(on, *strip, static_cast<int>(values.number("sheets")), on.art);
    }
};

}  // namespace

const MaskKind& full_sideMaskKind();
const MaskKind& full_sideMaskKind() {
    static const SideMaskKind kind;
    return kind;
}

}  // namespace nine
