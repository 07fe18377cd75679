// How each material can lie where a mask is: what Derivations says of slits and pieces.
#include <algorithm>

#include "base/parallel.h"
#include "job/derive.h"

namespace nine {

Result<MaterialAnswer> Derivations::answerFor(const Job& job, const MaskSpec& spec, Fraction limit,
                                              const Task& task) {
    const Result<Sources> from = sourcesOf(job, spec);
    if (!from) return from.error();
    const OpenedArt art = from->opened();
    const MaskKind* kind = findMaskKind(spec.wish.kind);
    const PlanOn on{*from->skin,  job.get<BlankChapter>().landmarks, art.left, placeOf(job, spec), art.right,
                    art.uncovered};
    const Result<std::optional<Strip>> strip = kind->strip(on, spec.wish.values);
    if (!strip) return strip.error();
    if (!*strip)
        return Error{
            "no_strip",
            NINE_WORDS("core",
                       "This mask follows its art round the body, and slits are planned on boxes, whole "
                       "sides and whole bodies only. Make it a mask of a whole side."),
            placeOf(job, spec)};
    Warnings unheard;
    const Result<std::vector<SheetPlan>> plans = kind->plan(on, spec.wish.values, unheard);
    if (!plans) return plans.error();
    ReliefWish wish;
    wish.keepOff = art.uncovered;
    for (const SheetPlan& plan : *plans)
        for (const ElementArt* opened : plan.opens)
            for (const Outline& outline : opened->outlines())
                if (!outline.hole) wish.keepOff.push_back(outline.skin);
    for (Polygon2& ring : wish.keepOff)
        if (polygonArea(ring) < 0) std::reverse(ring.begin(), ring.end());
    for (const Slit& slit : spec.wish.slits)
        if (slit.locked) wish.kept.push_back(slit);
    wish.mirrored = kind->bothSides();
    return answerOf(*from->skin, **strip, limit, wish, task);
}

Result<MaterialAnswer> Derivations::answer(const Job& job, const MaskSpec& spec, const Task& task) {
    const auto material = findMaterial(spec.wish.material);
    return answerFor(job, spec, material ? material->strainLimit : 0, task);
}

Result<std::vector<MaterialAnswer>> Derivations::answers(const Job& job, const MaskSpec& spec,
                                                         const Task& task) {
    const std::vector<SheetMaterial>& materials = sheetMaterials();
    std::vector<Result<MaterialAnswer>> found(materials.size(), Task::cancelledError());
    forEachInParallel(materials.size(), [&](std::size_t i) {
        // Of materials that take the same one answer does.
        for (std::size_t k = 0; k < i; ++k)
            if (materials[k].strainLimit == materials[i].strainLimit) return;
        if (!task.cancelled()) found[i] = answerFor(job, spec, materials[i].strainLimit, task.silent());
    });
    std::vector<MaterialAnswer> all;
    for (std::size_t i = 0; i < found.size(); ++i) {
        std::size_t same = i;
        for (std::size_t k = 0; k < i; ++k)
            if (materials[k].strainLimit == materials[i].strainLimit) same = std::min(same, k);
        if (!found[same]) return found[same].error();
        all.push_back(*found[same]);
    }
    return all;
}

}  // namespace nine
