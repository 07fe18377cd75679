#include "app/leaves/layers/layers_desk.h"

#include <algorithm>
#include <utility>

#include "job/paint_shelf.h"

namespace nine::app {
namespace {

constexpr SkinRaster kCoarse{160, 110}, kExact{512, 300};

/// `before` is what was shown last at this raster.
LayersStudy studied(const Job& job, Derivations& derived, const std::shared_ptr<const RecipeOnBody>& before,
                    bool coarse, const Task& task) {
    LayersStudy study;
    study.coarse = coarse;
    Result<RecipeOnBody> on = recipeOnBody(job, derived, coarse ? kCoarse : kExact,
                                           coarse ? Fineness::Glance : Fineness::Cut, task, before.get());
    if (!on) {
        study.error = on.error();
        return study;
    }
    study.on = std::make_shared<const RecipeOnBody>(std::move(*on));
    const LayersChapter& layers = job.get<LayersChapter>();
    const OverWhatAt over = overWhat(study.on->painted, study.on->covers);
    for (std::size_t s = 0; s < layers.recipe.steps.size(); ++s) study.over.push_back(over(s));
    if (auto amounts = amountsOf(layers.recipe, study.on->palette, study.on->areas_mm2, layers.lures))
        study.amounts = std::move(*amounts);
    if (!coarse) {
        study.findings = findingsOf(*study.on);
        std::stable_sort(study.findings.begin(), study.findings.end(),
                         [](const RuleFinding& a, const RuleFinding& b) { return a.severity > b.severity; });
        if (!layers.recipe.steps.empty())
            study.finished =
                std::make_shared<const Image>(colourAfter(*study.on, layers.recipe.steps.size() - 1));
    }
    return study;
}

}  // namespace

const StepAmount* LayersStudy::amountOf(const std::string& step) const {
    for (const StepAmount& amount : amounts)
        if (amount.step == step) return &amount;
    return nullptr;
}

std::optional<std::size_t> LayersStudy::placeOf(const std::string& step) const {
    if (!on) return std::nullopt;
    const Recipe& recipe = on->of.get<LayersChapter>().recipe;
    const std::size_t place = nine::placeOf(recipe, step);
    return place < recipe.steps.size() ? std::optional(place) : std::nullopt;
}

std::optional<OverWhat> LayersStudy::overOf(const std::string& step) const {
    const auto place = placeOf(step);
    return place && *place < over.size() ? over[*place] : std::nullopt;
}

LayersDesk::LayersDesk(LeafContext context, QObject* parent)
    : QObject(parent),
      context_(context),
      shelf_(std::make_shared<const std::vector<Bottle>>(genericShelf())) {
    rest_.setSingleShot(true);
    rest_.setInterval(kRest_ms);
    connect(&rest_, &QTimer::timeout, this, &LayersDesk::request);
    connect(&context_.document, &JobDocument::changed, this, [this](Parts parts) {
        if ((parts & partsOf<LayersChapter>()).any())
            request();
        else if ((parts & partsOf<BlankChapter, PatternChapter, MasksChapter, ScalesChapter, SprayChapter>())
                     .any())
            rest_.start();
    });
    connect(&context_.document, &JobDocument::opened, this, [this] {
        beginning_.cancel();
        seeking_.cancel();
        cut_.reset();
        sought_.reset();
        unfolded_.clear();
        study_ = {};
        coarse_.reset();
        exactBefore_.reset();
        worn_.reset();
        section_.reset();
    });
    connect(&context_.view, &ViewState::changed, this, &LayersDesk::requestPictures);
    connect(&context_.library, &LibraryStore::changed, this, &LayersDesk::readShelf);
}

bool LayersDesk::current() const {
    return study_.on && study_.on->of.part<LayersChapter>() == context_.document.job().part<LayersChapter>();
}

bool LayersDesk::settled() const {
    return !preview_.running() && !exact_.running() && !rest_.isActive() && !pictures_.running() &&
           !beginning_.running() && !seeking_.running();
}

void LayersDesk::setWatched(bool on) {
    if (std::exchange(watched_, on) == on || !on || current()) return;
    request();
}

void LayersDesk::request() {
    rest_.stop();
    const Job job = context_.document.job();
    const LayersChapter& recipe = job.get<LayersChapter>();
    if (context_.document.empty() || recipe.recipe.steps.empty() || (!watched_ && isDraft(recipe))) {
        preview_.cancel();
        exact_.cancel();
        pictures_.cancel();
        study_ = {};
        worn_.reset();
        section_.reset();
        emit changed();
        return;
    }
    const auto take = [this](LayersStudy study) {
        if (study.error && study.error->code == "cancelled") return;
        if (study.coarse) {
            coarse_ = study.on;
            // Findings wait for the exact colours; amounts and films do not.
            study.findings = study_.findings;
        }
        study_ = std::move(study);
        requestPictures();
        emit changed();
    };
    preview_.request([job, derived = derived_, before = coarse_](
                         const Task& task) { return studied(job, *derived, before, true, task); },
                     [this, take](LayersStudy study) {
                         if (exact_.running()) take(std::move(study));
                     });
    exact_.request([job, derived = derived_, before = exactBefore_](
                       const Task& task) { return studied(job, *derived, before, false, task); },
                   [this, take](LayersStudy study) {
                       if (study.on) exactBefore_ = study.on;
                       take(std::move(study));
                   });
    emit changed();
}

void LayersDesk::requestPictures() {
    if (!study_.on) return;
    const std::size_t steps = study_.on->of.get<LayersChapter>().recipe.steps.size();
    std::optional<std::size_t> place = study_.placeOf(context_.view.step());
    if (!place && steps > 0) place = steps - 1;
    pictures_.request(
        [on = study_.on, place, x = cutAt_mm(), side = context_.view.side()](const Task&) {
            return Pictures{std::make_shared<const Image>(colourAfter(*on, place)), sectionOf(*on, x, side)};
        },
        [this](Pictures pictures) {
            worn_ = std::move(pictures.worn);
            section_ = std::move(pictures.section);
            emit changed();
        });
}

const Step* LayersDesk::step() const {
    const Recipe& recipe = layers().recipe;
    const std::size_t place = placeOf(recipe, context_.view.step());
    return place < recipe.steps.size() ? &recipe.steps[place] : nullptr;
}

std::optional<std::size_t> LayersDesk::stepPlace() const {
    const Recipe& recipe = layers().recipe;
    if (recipe.steps.empty()) return std::nullopt;
    return std::min(placeOf(recipe, context_.view.step()), recipe.steps.size() - 1);
}

void LayersDesk::select(const std::string& id) {
    context_.view.setStep(id);
}

void LayersDesk::selectBeside(int by) {
    const Recipe& recipe = layers().recipe;
    const auto at = stepPlace();
    if (!at) return;
    const auto last = static_cast<std::ptrdiff_t>(recipe.steps.size()) - 1;
    const std::ptrdiff_t to =
        step() ? std::clamp<std::ptrdiff_t>(static_cast<std::ptrdiff_t>(*at) + by, 0, last) : last;
    select(recipe.steps[static_cast<std::size_t>(to)].id);
}

std::shared_ptr<const Image> LayersDesk::finished() const {
    const Job& job = context_.document.job();
    if (!study_.finished || !current()) return nullptr;
    const Job& of = study_.on->of;
    const bool same = of.part<PatternChapter>() == job.part<PatternChapter>() &&
                      of.part<BlankChapter>() == job.part<BlankChapter>() &&
                      of.part<MasksChapter>() == job.part<MasksChapter>() &&
                      of.part<ScalesChapter>() == job.part<ScalesChapter>() &&
                      of.part<SprayChapter>() == job.part<SprayChapter>();
    return same ? study_.finished : nullptr;
}

double LayersDesk::cutAt_mm() const {
    const SkinPtr skin = study_.on ? study_.on->skin : context_.results.body().skin;
    if (!skin) return 0;
    const double low = skin->noseX_mm() + 0.5, high = skin->tailX_mm() - 0.5;
    return std::clamp(cut_.value_or(skin->noseX_mm() + 0.42 * skin->length_mm()), low, std::max(low, high));
}

void LayersDesk::cutAt(double x_mm) {
    cut_ = x_mm;
    requestPictures();
    emit changed();
}

void LayersDesk::readShelf() {
    if (!context_.library.ready()) return;
    Result<std::vector<Bottle>> shelf = shelfOf(context_.library.workshop());
    if (!shelf || *shelf == *shelf_) return;
    shelf_ = std::make_shared<const std::vector<Bottle>>(std::move(*shelf));
    sought_.reset();
    emit changed();
}

std::vector<Bottle> LayersDesk::paints() const {
    std::vector<Bottle> all = layers().paints;
    for (const Bottle& b : *shelf_)
        if (!findBottle(all, b.id)) all.push_back(b);
    return all;
}

Status LayersDesk::change(const QString& label, const std::function<void(LayersChapter&)>& edit) {
    LayersChapter layers = context_.document.job().get<LayersChapter>();
    edit(layers);
    Job next = withPaintsOf(context_.document.job().with(std::move(layers)), *shelf_);
    if (Status ok = checkJob(next); !ok) return ok;
    context_.document.edit(std::move(next), label);
    return Done{};
}

Status LayersDesk::changeStep(const std::string& id, const QString& label,
                              const std::function<void(Step&)>& edit) {
    if (placeOf(layers().recipe, id) >= layers().recipe.steps.size()) return Done{};
    return change(label, [&](LayersChapter& l) {
        Step& step = l.recipe.steps[placeOf(l.recipe, id)];
        edit(step);
        step.made = false;
    });
}

void LayersDesk::repair(const RuleFinding& finding) {
    context_.document.beginGesture();
    const Job next = withRepair(context_.document.job(), finding, *shelf_);
    if (Status ok = checkJob(next); !ok) return context_.frame.complain(ok.error());
    context_.document.edit(next, tr("Mend the recipe"));
}

void LayersDesk::begin(School school) {
    beginning_.request(
        [job = context_.document.job(), shelf = shelf_, school, derived = derived_](
            const Task& task) -> Result<Job> { return withBegunRecipe(job, *derived, *shelf, school, task); },
        [this](Result<Job> begun) {
            if (!begun) {
                if (begun.error().code != "cancelled") context_.frame.complain(begun.error());
                return emit changed();
            }
            context_.document.beginGesture();
            // What was edited meanwhile stays; only the recipe is new.
            context_.document.edit(context_.document.job().with(LayersChapter(begun->get<LayersChapter>())),
                                   tr("Begin a recipe"));
            emit changed();
        });
    emit changed();
}

void LayersDesk::stopBeginning() {
    beginning_.cancel();
    emit changed();
}

void LayersDesk::seek(SoughtColour colour) {
    colour.found.reset();
    colour.shelf = shelf_;
    sought_ = colour;
    seeking_.request(
        [colour](const Task& task) {
            SoughtColour found = colour;
            if (auto mixes = nearestMixes(paletteOf(*colour.shelf), colour.wanted, task))
                found.found = std::move(*mixes);
            return found;
        },
        [this](SoughtColour found) {
            sought_ = std::move(found);
            emit changed();
        });
    emit changed();
}

void LayersDesk::fold(const std::string& group) {
    if (!unfolded_.erase(group)) unfolded_.insert(group);
    emit changed();
}

}  // namespace nine::app
