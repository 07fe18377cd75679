#include "job/bench_job.h"

#include <algorithm>
#include <cmath>
#include <map>

#include "base/number_text.h"
#include "job/spray_job.h"
#include "job/step_spray.h"
#include "pattern/cut_scales.h"

namespace nine {
namespace {

/// The same for the same shares, however many drops they are counted in.
std::string mixKey(const Step& step) {
    Ratio drops = step.reducer;
    for (const MixPart& part : step.paint) drops += part.drops;
    std::map<std::string, Ratio> shares;
    for (const MixPart& part : step.paint) shares[part.bottle] += part.drops / drops;
    std::string key;
    for (const auto& [bottle, share] : shares) key += bottle + ":" + fixedText(share, 3) + ",";
    return key + "r" + fixedText(step.reducer / drops, 3);
}

std::string hexOf(const Lab& lab) {
    return colourText(srgbOf(linearOf(xyzOf(lab))));
}

bool throughMask(const Step& step) {
    return step.where.reaches == Reaches::Windows || step.where.reaches == Reaches::Negatives;
}

MaskSpecPtr specOf(const Job& job, const std::string& id) {
    for (const MaskSpecPtr& spec : maskSpecs(job))
        if (spec->id == id) return spec;
    return nullptr;
}
const Mask* solved(const std::vector<MaskResult>& masks, const std::string& id) {
    for (const MaskResult& m : masks)
        if (m.spec->id == id && m.mask) return m.mask->get();
    return nullptr;
}

Result<SprayPlan> planOf(const Job& job, const Step& step, const SprayBench& bench,
                         const std::vector<MaskResult>& masks) {
    if (!throughMask(step)) return planStep(job, step, bench);
    const MaskSpecPtr spec = specOf(job, step.where.of);
    if (!spec) return planStep(job, step, bench);
    SpraySpec spray = sprayOfMask(job, spec->id);
    spray.paint = familyOf(job, step).id;
    spray.pins = pinsWithRecipe(spray.pins, step);
    const Mask* mask = solved(masks, spec->id);
    return planSpray(sprayOf(*spec, mask ? mask->report() : FitReport{}, spray), bench, spray.pins);
}

/// Openings, marks and sides of the mask a step lays on or takes off.
void addMask(StepOnBench& on, const Job& job, const Step& step, const RecipeFacts& facts,
             Derivations& derived, const std::vector<MaskResult>& masks) {
    const auto fact = std::find_if(facts.masks.begin(), facts.masks.end(), [&](const MaskFact& m) {
        return m.id == step.mask || m.twin == step.mask;
    });
    if (fact == facts.masks.end()) return;
    const auto& elements = job.get<PatternChapter>().elements;
    for (const ElementPtr& e : elements) {
        if (std::find(fact->elements.begin(), fact->elements.end(), e->id) == fact->elements.end()) continue;
        on.scales = on.scales || isCutScales(*e);
        if (fact->twin.empty() && e->onBothSides()) on.oneSideOnly = true;
    }
    std::vector<Words> marks;
    for (const std::string& id : {fact->id, fact->twin}) {
        const MaskSpecPtr spec = id.empty() ? nullptr : specOf(job, id);
        if (!spec) continue;
        if (const Mask* mask = solved(masks, id)) {
            for (const Sheet& sheet : mask->sheets) {
                on.openings += static_cast<int>(sheet.windows.size());
                if (id == fact->id)
                    for (const RegistrationMark& mark : sheet.marks) marks.push_back(markSentence(mark));
            }
        } else if (const auto art = derived.artOf(job, *spec)) {
            for (const ArtPtr& one : *art) on.openings += static_cast<int>(one->outlines().size());
        }
    }
    constexpr std::size_t kMostMarks = 3;  // more is not read at arm's length
    if (marks.size() > kMostMarks) marks.resize(kMostMarks);
    if (!marks.empty()) on.marks = listed(marks);
    on.figures.openings = on.openings;
    on.figures.mask = fact->name;
}

void addSetting(StepOnBench& on, const SprayPlan& plan, const Step& step, double length_mm) {
    GunSetting set;
    set.gun = plan.gun.name;
    set.pressure_kpa = plan.setting.gauge_kpa;
    set.needle_mm = plan.setting.needle_mm;
    set.distance_mm = plan.setting.distance_mm;
    set.angle_deg = plan.setting.angle_deg;
    set.coats = step.mist ? 1 : plan.coats;
    set.length_s = length_mm / std::max(1.0, plan.setting.speed_mm_s);
    constexpr int kTurn_s = 6;  // taken up, turned, put down
    set.body_s =
        kTurn_s + static_cast<int>(std::ceil(60 * on.coat_ml / std::max(0.01, plan.setting.flow_ml_min)));
    on.set = set;
    on.figures.pressure_kpa = set.pressure_kpa;
    on.figures.distance_mm = set.distance_mm;
    on.figures.coats = set.coats;
    on.figures.coat_um = plan.coat_um;
    on.figures.run_um = plan.run_um;
    if (throughMask(step)) {
        on.figures.gap_mm = plan.gap_mm;
        on.figures.creep_mm = plan.edge.creep_mm;
    }
}

}  // namespace

Result<JobOnBench> jobOnBench(std::shared_ptr<const RecipeOnBody> body, Derivations& derived,
                              const Workplace& place, const std::vector<MaskResult>& masks,
                              const Task& task) {
    // In one piece: every step with all that is known of it.
    const Job& job = body->of;
    const LayersChapter& layers = job.get<LayersChapter>();
    JobOnBench made;
    made.on = body;
    made.facts = recipeFacts(job);
    made.lures = layers.lures;
    made.bench = job.get<BenchChapter>();
    made.name = job.get<PatternChapter>().name.empty() ? job.get<BlankChapter>().name
                                                       : job.get<PatternChapter>().name;
    const bool any = std::any_of(layers.recipe.steps.begin(), layers.recipe.steps.end(),
                                 [](const Step& s) { return s.on; });
    if (!any || isDraft(layers))
        return Error{
            "no_steps",
            NINE_WORDS("core", "There is no recipe yet: begin one on the Layers leaf, or with recipe begin."),
            "layers.steps"};
    const OverWhatAt over = overWhat(body->painted, body->covers);
    for (std::size_t s = 0; s < layers.recipe.steps.size(); ++s) {
        if (task.cancelled()) return Task::cancelledError();
        const Step& step = layers.recipe.steps[s];
        StepOnBench on;
        on.step = step.id;
        const auto name = [&] { return step.name.empty() ? step.id : step.name; };
        if (step.on && paints(step.act)) {
            const auto paint = paintOf(step, body->palette);
            if (!paint) {
                made.warnings.push_back(
                    {"no_paint",
                     Words(NINE_WORDS(
                               "core",
                               "The paint of \"{step}\" is not among the job's paints: choose another on the "
                               "Layers leaf. It is planned as a step without a cup."))
                         .name("step", name()),
                     "layers.steps." + step.id});
            } else {
                const double coats = step.mist ? 1 : std::max(1.0, step.coats);
                on.coat_ml = body->areas_mm2[s] * filmOf_um(step, *paint) / coats * 1e-6 / kLands;
                CupContent cup;
                cup.key = mixKey(step);
                const Bottle* bottle =
                    step.paint.size() == 1 ? findBottle(layers.paints, step.paint.front().bottle) : nullptr;
                cup.name = bottle ? bottle->name : name();
                cup.family = familyOf(job, step).id;
                for (const MixPart& part : step.paint)
                    if (const Bottle* b = findBottle(layers.paints, part.bottle))
                        cup.solvent = cup.solvent || b->solvent;
                if (const auto what = over(s)) {
                    cup.lab = what->after;
                    on.colour = hexOf(what->after);
                    on.ground = hexOf(what->ground);
                }
                cup.colour = on.colour;
                on.cup = std::move(cup);
                const Result<SprayPlan> plan = planOf(job, step, place, masks);
                if (plan)
                    addSetting(on, *plan, step, body->skin->length_mm());
                else
                    made.warnings.push_back(plan.error());
            }
        }
        if (step.on && step.act == Act::Lock)
            on.cup = CupContent{"lock", name(), "#E8E8E4", {92, 0, 2}, "transparent", false};
        if (step.act == Act::MaskOn || step.act == Act::MaskOff) {
            addMask(on, job, step, made.facts, derived, masks);
            if (on.oneSideOnly && step.on && step.act == Act::MaskOn)
                made.warnings.push_back({"one_side_only",
                                         Words(NINE_WORDS("core",
                                                          "{mask} is cut for one side only, and its marks "
                                                          "stand on both: cut the other one, "
                                                          "or wipe it and turn it over."))
                                             .name("mask", on.figures.mask),
                                         "masks." + step.mask});
        }
        made.steps.push_back(std::move(on));
    }
    return made;
}

std::vector<Gate> gatesOf(const JobOnBench& job, const BenchTask& task,
                          const std::optional<GunSetting>& before, bool maskUsed, bool all) {
    std::vector<Gate> gates;
    std::optional<GunSetting> last = before;
    for (const std::string& id : task.steps) {
        const std::size_t s = job.place(id);
        if (s >= job.steps.size()) continue;
        const StepOnBench& on = job.steps[s];
        GateView view{.recipe = job.recipe(), .facts = job.facts, .step = s, .gun = {}, .before = {}};
        view.coat = std::max(1, task.coat);
        view.firstSpray = true;
        for (std::size_t k = 0; k < s; ++k)
            if (job.recipe().steps[k].on && paints(job.recipe().steps[k].act)) view.firstSpray = false;
        view.maskUsed = maskUsed || task.bodyByBody;
        view.oneSideOnly = on.oneSideOnly;
        view.scales = on.scales;
        view.openings = on.openings;
        view.clips = static_cast<int>(job.on->of.get<ScalesChapter>().clips.size());
        view.marks = on.marks;
        view.gun = on.set;
        view.before = last;
        if (on.set) last = on.set;
        for (Gate& gate : gatesOf(view))
            if (all || asksGate(job.bench, gate.id)) gates.push_back(std::move(gate));
    }
    return gates;
}

Words mixWords(const JobOnBench& job, const Step& step) {
    if (!paints(step.act) || step.paint.empty()) return {};
    Ratio drops = 0;
    std::vector<Words> parts;
    for (const MixPart& part : step.paint) {
        drops += part.drops;
        const Bottle* bottle = findBottle(job.facts.paints, part.bottle);
        parts.push_back(Words(NINE_WORDS("core", "{paint} {drops}"))
                            .name("paint", bottle ? bottle->name : part.bottle)
                            .number("drops", part.drops, kShortest));
    }
    if (step.paint.size() == 1)
        return Words(NINE_WORDS("core", "{drops} : {reducer} drops"))
            .number("drops", drops, kShortest)
            .number("reducer", step.reducer, kShortest);
    return Words(NINE_WORDS("core", "{drops} : {reducer} drops, {parts}"))
        .number("drops", drops, kShortest)
        .number("reducer", step.reducer, kShortest)
        .words("parts", parted(parts));
}

namespace {

std::string maskNamed(const JobOnBench& job, const std::string& id) {
    for (const MaskFact& m : job.facts.masks)
        if (m.id == id || m.twin == id) return m.name;
    return id;
}

Words whereWords(const JobOnBench& job, const Step& step) {
    switch (step.where.reaches) {
        case Reaches::Everything:
            return NINE_WORDS("core", "all over");
        case Reaches::Windows:
            return Words(NINE_WORDS("core", "both sides, through {mask}"))
                .name("mask", maskNamed(job, step.where.of));
        case Reaches::Negatives:
            return Words(NINE_WORDS("core", "both sides, over the cut-outs of {mask}"))
                .name("mask", maskNamed(job, step.where.of));
        case Reaches::Net:
            return NINE_WORDS("core", "both sides, through the net");
        case Reaches::Grazing:
            return NINE_WORDS("core", "grazing over the net");
        case Reaches::HeldOff:
            return NINE_WORDS("core", "past a card held off");
        case Reaches::Element: {
            for (const SoftFact& f : job.facts.soft)
                if (f.id == step.where.of && f.name != step.name)
                    return Words(NINE_WORDS("core", "{mark}, freehand, both sides")).name("mark", f.name);
            return NINE_WORDS("core", "freehand, both sides");
        }
        case Reaches::Fade:
            break;
    }
    switch (step.where.from) {
        case FadeFrom::Back:
            return NINE_WORDS("core", "faded from the back");
        case FadeFrom::Belly:
            return NINE_WORDS("core", "faded from the belly");
        case FadeFrom::Nose:
            return NINE_WORDS("core", "faded from the nose");
        case FadeFrom::Tail:
            return NINE_WORDS("core", "faded from the tail");
        case FadeFrom::Landmark:
            break;
    }
    return NINE_WORDS("core", "faded round its place");
}

Words actVerb(Act act) {
    switch (act) {
        case Act::Prepare:
            return NINE_WORDS("core", "Prepare");
        case Act::Cover:
            return NINE_WORDS("core", "Cover");
        case Act::Base:
        case Act::Colour:
        case Act::Lock:
            return NINE_WORDS("core", "Spray");
        case Act::ByHand:
            return NINE_WORDS("core", "By hand");
        case Act::NetOn:
        case Act::MaskOn:
            return NINE_WORDS("core", "Lay on");
        case Act::NetOff:
        case Act::MaskOff:
            return NINE_WORDS("core", "Take off");
        case Act::Eyes:
            return NINE_WORDS("core", "Glue in");
        case Act::Clear:
            return NINE_WORDS("core", "Put on");
        case Act::Cure:
            return NINE_WORDS("core", "Wait");
        case Act::Note:
            break;
    }
    return NINE_WORDS("core", "Note");
}

/// What is done within a step that lays no paint: "wash, scuff, dust off".
Words moreWords(const JobOnBench& job, const Step& step) {
    std::vector<Words> parts;
    for (const WordName& doing : doingsOf(step.act))
        if (step.doing(doing.id)) parts.push_back(doing.name);
    switch (step.act) {
        case Act::MaskOff:
            return NINE_WORDS("core", "low and back, when matt");
        case Act::NetOff:
            return job.facts.fabricNet
                       ? Words(NINE_WORDS("core", "briskly, when dry"))
                       : Words(NINE_WORDS("core", "briskly; metal mesh may come off wet for the next body"));
        case Act::NetOn:
            return NINE_WORDS("core", "hooked, pulled tight, clipped along the belly");
        case Act::Eyes: {
            for (const WordName& glue : glues())
                if (glue.id == step.glue)
                    return Words(NINE_WORDS("core", "{eye} eyes, {glue}, over the whole socket floor"))
                        .length("eye", step.eye_mm, 0)
                        .words("glue", glue.name);
            return Words(NINE_WORDS("core", "{eye} eyes")).length("eye", step.eye_mm, 0);
        }
        case Act::Clear:
            if (const ClearKind* clear = findClear(step.clear)) return clear->name;
            break;
        case Act::Note:
            return Words::verbatim(step.note);
        default:
            break;
    }
    return parted(parts);
}

}  // namespace

TaskWords taskWords(const JobOnBench& job, const BenchTask& task) {
    // The step that says most: what is sprayed, else the first.
    const Step* main = nullptr;
    for (const std::string& id : task.steps) {
        const std::size_t s = job.place(id);
        if (s >= job.steps.size()) continue;
        const Step& step = job.recipe().steps[s];
        if (!main || (!paints(main->act) && paints(step.act))) main = &step;
    }
    if (!main) return {};
    TaskWords words;
    words.verb = actVerb(main->act);
    words.title = Words::verbatim(main->name.empty() ? main->id : main->name);
    if (main->act == Act::MaskOn || main->act == Act::MaskOff)
        words.title = Words::verbatim(maskNamed(job, main->mask));
    if (!paints(main->act)) {
        words.more = moreWords(job, *main);
        if (words.verb.plain() == words.title.plain()) words.verb = {};
        return words;
    }
    std::vector<Words> more{whereWords(job, *main)};
    if (main->mist) more.push_back(NINE_WORDS("core", "one thin mist"));
    if (task.bodyByBody) {
        more.push_back(NINE_WORDS("core", "mask on, sprayed, mask off: body by body"));
        if (main->coats > 1)
            more.push_back(
                Words(NINE_WORDS("core", "{coats} coats")).number("coats", main->coats, kShortest));
    } else if (task.coats > 1) {
        more.push_back(Words(NINE_WORDS("core", "coat {coat} of {coats}"))
                           .number("coat", task.coat, 0)
                           .number("coats", task.coats, 0));
    }
    words.more = parted(more);
    return words;
}

std::optional<Pose> poseOf(const JobOnBench& job, const Step& step) {
    if (!paints(step.act) && step.act != Act::Lock) return std::nullopt;
    Pose pose;
    if (step.where.reaches == Reaches::Fade && step.where.from == FadeFrom::Back) pose.view = PoseView::Back;
    if (step.where.reaches == Reaches::Fade && step.where.from == FadeFrom::Belly)
        pose.view = PoseView::Belly;
    pose.turned = pose.view == PoseView::Side;
    if (throughMask(step))
        pose.says = NINE_WORDS(
            "core", "nose to tail, aimed more at the sheet than at the opening; start and stop off the body");
    else if (step.where.reaches == Reaches::Net && !job.on->of.get<ScalesChapter>().clips.empty())
        pose.says =
            NINE_WORDS("core", "nose to tail, light and repeated; the clips leave a void along the belly");
    else if (step.where.reaches == Reaches::Grazing)
        pose.says = NINE_WORDS("core", "from one side, nearly along the skin; start and stop off the body");
    else if (pose.view == PoseView::Back)
        pose.says = NINE_WORDS(
            "core", "back up, the gun straight above it; what falls over the shoulders is the fade");
    else if (pose.view == PoseView::Belly)
        pose.says = NINE_WORDS("core", "belly up, the gun straight above it; nothing under a raised edge");
    else
        pose.says = NINE_WORDS("core", "nose to tail, start and stop off the body");
    return pose;
}

const JobOnBench& jobOf(const std::vector<JobOnBench>& jobs, const BenchTray& tray) {
    for (const JobOnBench& job : jobs)
        if (job.key == tray.job) return job;
    return jobs.front();
}

}  // namespace nine
