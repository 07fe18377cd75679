// One small sheet for each mark, or for a cluster of marks that stand close together.
#include <algorithm>
#include <numeric>

#include "mask/kind/boxed.h"

namespace nine {

std::vector<Opening> openingsOf(const std::vector<const ElementArt*>& arts) {
    std::vector<Opening> all;
    for (std::size_t a = 0; a < arts.size(); ++a) {
        const std::vector<Outline>& outlines = arts[a]->outlines();
        const std::size_t first = all.size();
        for (std::size_t i = 0; i < outlines.size(); ++i)
            if (!outlines[i].hole) all.push_back({a, {i}, outlines[i].skin, boxAround({outlines[i].skin})});
        for (std::size_t i = 0; i < outlines.size(); ++i) {
            if (!outlines[i].hole) continue;
            for (std::size_t k = first; k < all.size(); ++k)
                if (contains(all[k].ring, outlines[i].skin.front())) {
                    all[k].outlines.push_back(i);
                    break;
                }
        }
    }
    return all;
}

std::shared_ptr<const ElementArt> partOf(const ElementArt& whole, const std::vector<Opening>& openings,
                                         const std::vector<std::size_t>& cluster, std::size_t art) {
    auto part = std::make_shared<ElementArt>(whole);
    std::vector<Outline>& kept = part->passes.front().outlines;
    kept.clear();
    part->low = Vec2(1e300, 1e300);
    part->high = -part->low;
    for (const std::size_t o : cluster) {
        if (openings[o].art != art) continue;
        part->low = part->low.cwiseMin(openings[o].box.low);
        part->high = part->high.cwiseMax(openings[o].box.high);
        for (const std::size_t i : openings[o].outlines) kept.push_back(whole.outlines()[i]);
    }
    return part;
}

PlanOn withOpenings(const PlanOn& on, const std::vector<Opening>& openings,
                    const std::vector<std::size_t>& chosen,
                    std::vector<std::shared_ptr<const ElementArt>>& made) {
    PlanOn part{on.skin, on.landmarks, {}, on.where, {}, on.uncovered};
    for (std::size_t art = 0; art < on.art.size(); ++art) {
        const auto has = [&](std::size_t o) { return openings[o].art == art; };
        if (std::none_of(chosen.begin(), chosen.end(), has)) continue;
        made.push_back(partOf(*on.art[art], openings, chosen, art));
        part.art.push_back(made.back().get());
    }
    return part;
}

namespace {

constexpr std::size_t kMostSheets = 60;

bool close(const Opening& a, const Opening& b, double together_mm) {
    if (apart(a.box, b.box) > together_mm) return false;
    return contains(a.ring, b.ring.front()) || contains(b.ring, a.ring.front()) ||
           borderDistance(a.ring, b.ring) <= together_mm;
}

/// Which openings share a sheet, from the nose to the tail.
std::vector<std::vector<std::size_t>> clustersOf(const std::vector<Opening>& openings, double together_mm) {
    std::vector<std::size_t> group(openings.size());
    std::iota(group.begin(), group.end(), std::size_t{0});
    for (std::size_t i = 0; i < openings.size(); ++i)
        for (std::size_t k = 0; k < i; ++k) {
            if (group[i] == group[k] || !close(openings[i], openings[k], together_mm)) continue;
            const std::size_t gone = std::max(group[i], group[k]), stays = std::min(group[i], group[k]);
            std::replace(group.begin(), group.end(), gone, stays);
        }
    std::vector<std::vector<std::size_t>> clusters;
    for (std::size_t first = 0; first < openings.size(); ++first) {
        if (group[first] != first) continue;
        clusters.emplace_back();
        for (std::size_t i = first; i < openings.size(); ++i)
            if (group[i] == first) clusters.back().push_back(i);
    }
    const auto nose = [&](const std::vector<std::size_t>& cluster) {
        double x = 1e300;
        for (const std::size_t i : cluster) x = std::min(x, openings[i].box.low.x());
        return x;
    };
    std::stable_sort(clusters.begin(), clusters.end(),
                     [&](const auto& a, const auto& b) { return nose(a) < nose(b); });
    return clusters;
}

class SmallSheetsMaskKind : public MaskKind {
  public:
    std::string_view id() const override { return "small_sheets"; }
    Pattern name() const override { return NINE_WORDS("core", "small sheet for each mark"); }
    std::vector<Pattern> sentences() const override {
        return {NINE_WORDS("core", "Each sheet keeps a margin of {margin_mm} round its windows."),
                NINE_WORDS("core", "Marks less than {together_mm} apart share a sheet.")};
    }
    std::span<const Param> params() const override {
        static constexpr Param kParams[] = {
            {"margin_mm", NINE_WORDS("core", "Margin"), Param::Type::Length, 1, 60, 5, 1},
            {"together_mm", NINE_WORDS("core", "Share a sheet within"), Param::Type::Length, 0, 60, 2, 1}};
        return kParams;
    }
    /// Each lies by being small: no slits are planned.
    Result<std::optional<Strip>> strip(const PlanOn&, const Values&) const override { return {std::nullopt}; }
    Result<std::vector<SheetPlan>> plan(const PlanOn& on, const Values& values,
                                        Warnings& warnings) const override {
        const std::vector<Opening> openings = openingsOf(on.art);
        const auto clusters = clustersOf(openings, values.number("together_mm"));
        if (clusters.size() > kMostSheets)
            return Error{"too_many_sheets",
                         Words(NINE_WORDS("core",
                                          "This would be {count} sheets, more than 60. Let marks further "
                                          "apart share a sheet, or take a mask of another kind."))
                             .number("count", static_cast<double>(clusters.size()), 0),
                         on.where + ".together_mm"};
        std::vector<SheetPlan> plans;
        for (const std::vector<std::size_t>& cluster : clusters) {
            std::vector<std::shared_ptr<const ElementArt>> made;
            const PlanOn part = withOpenings(on, openings, cluster, made);
            Result<SheetPlan> sheet = boxedSheet(part, values.number("margin_mm"), warnings);
            if (!sheet) return sheet.error();
            sheet->made = std::move(made);
            plans.push_back(std::move(*sheet));
        }
        if (!plans.empty()) return plans;
        Result<SheetPlan> sheet = boxedSheet(on, values.number("margin_mm"), warnings);
        if (!sheet) return sheet.error();
        return std::vector<SheetPlan>{std::move(*sheet)};
    }
};

}  // namespace

const MaskKind& small_sheetsMaskKind();
const MaskKind& small_sheetsMaskKind() {
    static const SmallSheetsMaskKind kind;
    return kind;
}

}  // namespace nine
