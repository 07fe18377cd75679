#include "job/step_spray.h"

#include <algorithm>
#include <cmath>

#include "job/recipe_facts.h"

namespace nine {

SprayWork workOf(const Job& job, const Step& step) {
    if (step.mist && step.where.reaches != Reaches::Net && step.where.reaches != Reaches::Grazing)
        return SprayWork::Mist;
    switch (step.where.reaches) {
        case Reaches::Windows:
        case Reaches::Negatives:
            for (const MaskSpecPtr& spec : maskSpecs(job))
                if (spec->id == step.where.of && spec->wish.material == "tape") return SprayWork::Tape;
            return SprayWork::Stencil;
        case Reaches::Net:
        case Reaches::Grazing:
            return SprayWork::Net;
        case Reaches::Element:
            return SprayWork::Detail;
        default:
            return step.act == Act::ByHand ? SprayWork::Detail : SprayWork::Cover;
    }
}

PaintFamily familyOf(const Job& job, const Step& step) {
    const auto most = std::max_element(step.paint.begin(), step.paint.end(),
                                       [](const MixPart& a, const MixPart& b) { return a.drops < b.drops; });
    if (most != step.paint.end())
        if (const Bottle* bottle = findBottle(job.get<LayersChapter>().paints, most->bottle))
            if (const auto family = findPaint(bottle->family)) return *family;
    return *findPaint("opaque");
}

SprayPins pinsWithRecipe(SprayPins pins, const Step& step) {
    Ratio drops = 0;
    for (const MixPart& part : step.paint) drops += part.drops;
    if (!pins.reduction && drops > 0) pins.reduction = Reduction{drops, step.reducer};
    if (!pins.coats && !step.mist) pins.coats = std::max(1, static_cast<int>(std::lround(step.coats)));
    if (!pins.coats) pins.coats = 1;
    return pins;
}

const Step* stepThrough(const Job& job, const std::string& mask) {
    const LayersChapter& layers = job.get<LayersChapter>();
    if (isDraft(layers)) return nullptr;
    std::string twin = mask;
    for (const MaskFact& fact : recipeFacts(job).masks)
        if (fact.id == mask || fact.twin == mask) twin = fact.id == mask ? fact.twin : fact.id;
    for (const Step& step : layers.recipe.steps) {
        const bool through =
            step.where.reaches == Reaches::Windows || step.where.reaches == Reaches::Negatives;
        // White under a colour goes the same way; the colour is what its edge is seen by.
        if (step.on && paints(step.act) && step.act != Act::Base && through &&
            (step.where.of == mask || step.where.of == twin))
            return &step;
    }
    return nullptr;
}

SpraySpec sprayOfMaskInRecipe(const Job& job, const std::string& mask) {
    SpraySpec spray = sprayOfMask(job, mask);
    if (const Step* step = stepThrough(job, mask)) {
        spray.paint = familyOf(job, *step).id;
        spray.pins = pinsWithRecipe(std::move(spray.pins), *step);
    }
    return spray;
}

Result<SprayPlan> planStep(const Job& job, const Step& step, const SprayBench& bench) {
    MaskToSpray asked;
    asked.work = workOf(job, step);
    asked.paint = familyOf(job, step);
    asked.soft = true;  // no sheet, no edge to keep sharp
    asked.wantedWidth_mm = 5;
    Result<SprayPlan> plan =
        planSpray(asked, bench, pinsWithRecipe(pinsOfStep(job.get<LayersChapter>(), step.id), step));
    if (!plan) {
        Error error = plan.error();
        if (error.where.rfind("pins", 0) == 0) error.where = "layers.sprays." + error.where;
        return error;
    }
    // What is said of edges is of a sheet that is not there.
    plan->remedy.reset();
    plan->steps.clear();
    if (plan->reasons.size() > 1) plan->reasons.resize(1);
    plan->meetsWish = true;
    return plan;
}

}  // namespace nine
