#include "app/leaves/spray/spray_desk.h"

#include <algorithm>

#include "app/document/selection.h"
#include "app/sheet/units_text.h"
#include "job/step_spray.h"

namespace nine::app {

std::vector<const ElementArt*> SprayStudy::artPointers() const {
    std::vector<const ElementArt*> pointers;
    for (const ArtPtr& a : art) pointers.push_back(a.get());
    return pointers;
}

SprayDesk::SprayDesk(LeafContext context, QObject* parent) : QObject(parent), context_(context) {
    connect(&context_.document, &JobDocument::changed, this, [this](Parts parts) {
        if ((parts & partsOf<SprayChapter, LayersChapter>()).none()) return;  // all else comes with new masks
        stale();
        requestVerdicts();
    });
    connect(&context_.bench, &BenchStore::changed, this, [this] {
        stale();
        requestVerdicts();
    });
    connect(&context_.results, &Results::masksChanged, this, [this] {
        stale();
        requestVerdicts();
    });
    connect(&context_.view, &ViewState::changed, this, &SprayDesk::stale);
}

void SprayDesk::stale() {
    stale_ = true;
    emit changed();
}

SprayStudy SprayDesk::studyOf(const std::string& mask) const {
    SprayStudy study;
    const MasksResult& all = context_.results.masks();
    const int index = indexIn(all, mask);
    if (context_.document.empty() || index < 0) return study;
    const MaskResult& result = all.masks[static_cast<std::size_t>(index)];
    study.spec = result.spec;
    study.wish = sprayOfMask(context_.document.job(), result.spec->id);
    study.told = sprayOfMaskInRecipe(context_.document.job(), result.spec->id);
    if (const Step* step = stepThrough(context_.document.job(), result.spec->id)) study.step = step->id;
    if (!result.mask) {
        study.error = result.mask.error();
        return study;
    }
    for (const ArtPtr& art : context_.results.body().art) {
        if (art &&
            std::count(result.spec->wish.elements.begin(), result.spec->wish.elements.end(), art->element))
            study.art.push_back(art);
    }
    if (study.art.empty()) return study;
    study.mask = *result.mask;
    study.asked = sprayOf(*result.spec, study.mask->report(), study.told);
    study.worst = worstEdge(*study.mask, study.artPointers());
    Result<SprayPlan> plan = planSpray(study.asked, context_.bench.bench(), study.told.pins);
    if (plan)
        study.plan = std::move(*plan);
    else
        study.error = plan.error();
    // While pins contradict each other the page shows the plan without the one that binds.
    const std::string prefix = "pins.";
    if (study.error && study.error->where.rfind(prefix, 0) == 0) {
        Result<SprayPlan> without =
            planSpray(study.asked, context_.bench.bench(),
                      released(study.told.pins, study.error->where.substr(prefix.size())));
        if (without) study.plan = std::move(*without);
    }
    return study;
}

const SprayStudy& SprayDesk::study() {
    if (!stale_) return study_;
    stale_ = false;
    study_ = studyOf(context_.view.mask());
    if (!study_.spec) return study_;
    if (aimedMask_ != study_.spec->id) {
        aim_.reset();
        kept_.reset();
        aimedMask_ = study_.spec->id;
    }
    return study_;
}

void SprayDesk::requestSteps() {
    const Job job = context_.document.job();
    if (context_.document.empty() || isDraft(job.get<LayersChapter>())) {
        stepsSlot_.cancel();
        steps_.clear();
        return;
    }
    stepsSlot_.request(
        [job, bench = context_.bench.bench()](const Task& task) {
            std::vector<StepVerdict> all;
            const LayersChapter& layers = job.get<LayersChapter>();
            for (const Step& step : layers.recipe.steps) {
                if (task.cancelled()) break;
                const Reaches r = step.where.reaches;
                if (!step.on || !paints(step.act) || r == Reaches::Windows || r == Reaches::Negatives)
                    continue;
                all.push_back({step.id, step.name.empty() ? step.id : step.name, pinsOfStep(layers, step.id),
                               planStep(job, step, bench)});
            }
            return all;
        },
        [this](std::vector<StepVerdict> all) {
            steps_ = std::move(all);
            emit changed();
        });
}

Status SprayDesk::changeStep(const std::string& step, const QString& label,
                             const std::function<void(SprayPins&)>& edit) {
    const Job& job = context_.document.job();
    SprayPins pins = pinsOfStep(job.get<LayersChapter>(), step);
    edit(pins);
    Job next = job.with(withStepPins(job.get<LayersChapter>(), step, pins));
    if (Status ok = checkJob(next); !ok) return ok;
    context_.document.edit(std::move(next), label);
    return Done{};
}

void SprayDesk::requestVerdicts() {
    requestSteps();
    const MasksResult& all = context_.results.masks();
    if (!all.whole && !all.masks.empty()) return;  // some are still to come
    if (all.masks.empty()) {
        slot_.cancel();
        verdicts_.clear();
        return;
    }
    slot_.request(
        [job = context_.document.job(), masks = all.masks, bench = context_.bench.bench()](const Task& task) {
            std::vector<SprayVerdict> verdicts;
            for (const MaskResult& m : masks) {
                if (!m.mask || task.cancelled()) continue;
                SprayVerdict v{m.spec, false, false, 0, {}};
                const SpraySpec wish = sprayOfMaskInRecipe(job, m.spec->id);
                const Result<SprayPlan> plan =
                    planSpray(sprayOf(*m.spec, (*m.mask)->report(), wish), bench, wish.pins);
                if (plan) {
                    v.planned = true;
                    v.meets = plan->meetsWish;
                    v.width_mm = plan->edge.width_mm;
                    if (plan->remedy) v.first = plan->remedy->words;
                } else {
                    v.first = plan.error().words;
                }
                verdicts.push_back(std::move(v));
            }
            return verdicts;
        },
        [this](std::vector<SprayVerdict> verdicts) {
            verdicts_ = std::move(verdicts);
            emit verdictsChanged();
        });
}

Vec2 SprayDesk::aim() {
    const SprayStudy& s = study();
    return aim_ ? *aim_ : Vec2(s.worst.skin);
}

void SprayDesk::lookAt(const Vec2& skin) {
    const Skin* body = context_.results.body().skin.get();
    if (!body || !body->check({Side::Left, skin.x(), skin.y()}, "")) return;
    aim_ = skin;
    emit changed();
}

void SprayDesk::lookAtWorst() {
    aim_.reset();
    emit changed();
}

std::optional<EdgeHere> SprayDesk::edgeAt(const Vec2& skin) {
    const SprayStudy& s = study();
    if (!s.ready()) return std::nullopt;
    MaskToSpray asked = s.asked;
    asked.lift_mm = liftAt_mm(*s.mask, SkinPlace(skin));
    const Result<EdgeFigures> edge = edgeFigures(s.plan->setting, asked.gap_mm());
    if (!edge) return std::nullopt;
    return EdgeHere{asked.gap_mm(), *edge};
}

void SprayDesk::keep() {
    const auto here = edgeAt(aim());
    if (!here) return;
    const SpraySetting& s = study().plan->setting;
    kept_ = Kept{tr("%1 psi, %2, needle %3")
                     .arg(s.gauge_kpa / kKpaPerPsi, 0, 'f', 0)
                     .arg(lengthText(s.distance_mm, 0), lengthText(s.needle_mm, 2)),
                 *here};
    emit changed();
}

void SprayDesk::setDragging(bool on) {
    if (dragging_ == on) return;
    dragging_ = on;
    if (!on) emit changed();
}

void SprayDesk::forget() {
    kept_.reset();
    emit changed();
}

Status SprayDesk::change(const std::string& mask, const QString& label,
                         const std::function<void(SpraySpec&)>& edit) {
    Job next = context_.document.job();
    const int index = indexOfMask(next, mask);
    if (index < 0) return Done{};
    const std::vector<MaskSpecPtr> specs = maskSpecs(next);
    SpraySpec changed = sprayOfMask(next, mask);
    edit(changed);
    for (const MaskSpecPtr& twin : specs) {
        if (twin->wish.elements != specs[static_cast<std::size_t>(index)]->wish.elements) continue;
        SpraySpec spec = changed;
        spec.mask = twin->id;
        const SpraySpec said = sprayOfMask(next, twin->id);
        spec.unknownJson = said.unknownJson;
        spec.unknownPinsJson = said.unknownPinsJson;
        next = withSpray(next, std::move(spec));
    }
    if (Status ok = checkJob(next); !ok) return ok;
    context_.document.edit(next, label);
    return Done{};
}

}  // namespace nine::app
