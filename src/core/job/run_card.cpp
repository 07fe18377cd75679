#include "job/run_card.h"

#include <algorithm>
#include <charconv>
#include <cmath>
#include <map>

#include "base/number_text.h"

namespace nine {
namespace {

constexpr BenchKey kKeys[] = {
    {"pressure_kpa", NINE_WORDS("core", "pressure")}, {"distance_mm", NINE_WORDS("core", "distance")},
    {"coats", NINE_WORDS("core", "coats")},           {"reducer", NINE_WORDS("core", "drops of reducer")},
    {"drops", NINE_WORDS("core", "drops of paint")},  {"paint", NINE_WORDS("core", "paint")},
};
/// "drops:white" is of one paint of the mix.
std::string_view stemOf(std::string_view key) {
    return key.substr(0, key.find(':'));
}
std::string partOf(std::string_view key) {
    const std::size_t colon = key.find(':');
    return colon == key.npos ? std::string() : std::string(key.substr(colon + 1));
}

std::optional<double> numberIn(const std::string& text) {
    double value = 0;
    const auto [end, problem] = std::from_chars(text.data(), text.data() + text.size(), value);
    if (problem != std::errc() || end != text.data() + text.size() || !std::isfinite(value))
        return std::nullopt;
    return value;
}

/// One step with what was changed of it.
Step changed(Step step, const std::map<std::string, std::string>& changes) {
    for (const auto& [key, value] : changes) {
        if (!checkChange(key, value)) continue;
        const std::string_view stem = stemOf(key);
        if (stem == "coats") step.coats = *numberIn(value);
        if (stem == "reducer") step.reducer = *numberIn(value);
        if (stem == "drops") {
            for (MixPart& part : step.paint)
                if (part.bottle == partOf(key) || (partOf(key).empty() && step.paint.size() == 1))
                    part.drops = *numberIn(value);
        }
        if (stem == "paint" && !step.paint.empty()) {
            // A mix becomes the one paint that was taken instead, in as many drops.
            Ratio drops = 0;
            for (const MixPart& part : step.paint) drops += part.drops;
            step.paint = {{value, drops}};
        }
    }
    return step;
}

void setChanged(GunSetting& set, const std::map<std::string, std::string>& changes) {
    for (const auto& [key, value] : changes) {
        if (!checkChange(key, value)) continue;
        if (key == "pressure_kpa") set.pressure_kpa = *numberIn(value);
        if (key == "distance_mm") set.distance_mm = *numberIn(value);
    }
}

/// Whether no tray did it.
bool leftOut(const std::string& step, const BenchWork& work, const RunState& state) {
    bool any = false;
    for (const BenchTray& tray : work.trays)
        for (const BenchTask& task : tray.tasks) {
            if (std::find(task.steps.begin(), task.steps.end(), step) == task.steps.end()) continue;
            const auto fate = state.fates.find(task.id);
            if (fate == state.fates.end() || fate->second != TaskFate::Skipped) return false;
            any = true;
        }
    return any;
}

/// Coats that were repeated on every tray that has the step.
int repeatedCoats(const std::string& step, const BenchWork& work, const RunState& state) {
    int least = -1;
    for (const BenchTray& tray : work.trays) {
        int repeats = 0;
        bool has = false;
        for (const BenchTask& task : tray.tasks) {
            if (std::find(task.steps.begin(), task.steps.end(), step) == task.steps.end()) continue;
            has = true;
            if (const auto found = state.repeats.find(task.id); found != state.repeats.end())
                repeats += found->second;
        }
        if (has) least = least < 0 ? repeats : std::min(least, repeats);
    }
    return std::max(0, least);
}

/// Seconds each step took, pauses left out; a task's time is shared by its steps.
std::map<std::string, double> secondsOf(const BenchWork& work, const std::vector<RunEvent>& events) {
    std::map<std::string, double> taken;
    RunState state;
    for (const RunEvent& event : events) {
        const RunState next = after(state, event);
        if (event.what == Happened::Done && state.taskBegan)
            if (const BenchTask* task = taskIn(work, event.task))
                for (const std::string& step : task->steps)
                    taken[step] += static_cast<double>(event.at - *state.taskBegan) /
                                   static_cast<double>(task->steps.size());
        state = next;
    }
    return taken;
}

}  // namespace

std::span<const BenchKey> benchKeys() {
    return kKeys;
}

Status checkChange(const std::string& key, const std::string& value) {
    const std::string_view stem = stemOf(key);
    if (stem == "paint" && !value.empty()) return Done{};
    struct Limit {
        std::string_view stem;
        Figure low, high;
    };
    constexpr Limit kLimits[] = {{"pressure_kpa", 10, 420},
                                 {"distance_mm", 5, 300},
                                 {"coats", 0.1, kMostCoats},
                                 {"reducer", 0, 1000},
                                 {"drops", 0.05, 1000}};
    const auto number = numberIn(value);
    for (const Limit& l : kLimits) {
        if (l.stem != stem) continue;
        if (!number || !(*number >= l.low && *number <= l.high))
            return Error{
                "out_of_range",
                Words(NINE_WORDS("core", "{what} was given as \"{value}\"; it can be {low} to {high}."))
                    .name("what", std::string(stem))
                    .name("value", value)
                    .number("low", l.low, kShortest)
                    .number("high", l.high, kShortest),
                key};
        return Done{};
    }
    return Error{
        "bad_value",
        Words(NINE_WORDS("core", "\"{what}\" is nothing that is changed at the bench.")).name("what", key),
        key};
}

std::unordered_map<std::string_view, TaskPlace> tasksById(const BenchWork& work) {
    std::unordered_map<std::string_view, TaskPlace> all;
    for (const BenchTray& tray : work.trays)
        for (const BenchTask& task : tray.tasks) all[task.id] = {&task, &tray};
    return all;
}

const BenchTray* trayIn(const BenchWork& work, const std::string& id) {
    for (const BenchTray& tray : work.trays)
        for (const BenchTask& task : tray.tasks)
            if (task.id == id) return &tray;
    return nullptr;
}
const BenchTask* taskIn(const BenchWork& work, const std::string& id) {
    const BenchTray* tray = trayIn(work, id);
    if (!tray) return nullptr;
    for (const BenchTask& task : tray->tasks)
        if (task.id == id) return &task;
    return nullptr;
}

JobAsItHappened withWhatHappened(const Job& job, const BenchWork& work, const std::vector<RunEvent>& events) {
    // In one piece: what was changed, left out, repeated, then what came besides.
    const RunState state = folded(events);
    JobAsItHappened made;
    LayersChapter layers = job.get<LayersChapter>();
    Job next = job;
    for (Step& step : layers.recipe.steps) {
        const std::string name = step.name.empty() ? step.id : step.name;
        const Step before = step;
        if (const auto changes = state.changes.find(step.id); changes != state.changes.end()) {
            step = changed(step, changes->second);
            for (const auto& [key, value] : changes->second) {
                if (Status ok = checkChange(key, value); !ok) {
                    made.warnings.push_back(ok.error());
                    continue;
                }
                if (key == "paint" && !findBottle(layers.paints, value)) {
                    step.paint = before.paint;
                    made.warnings.push_back({"no_paint",
                                             Words(NINE_WORDS("core",
                                                              "\"{paint}\" was taken for {step}, and is not "
                                                              "among the job's paints: put it there first."))
                                                 .name("paint", value)
                                                 .name("step", name),
                                             step.id});
                    continue;
                }
                made.changed.push_back(Words(NINE_WORDS("core", "{step}: {what} {value}"))
                                           .name("step", name)
                                           .name("what", key)
                                           .name("value", value));
            }
            SprayPins pins = pinsOfStep(layers, step.id);
            const bool through =
                step.where.reaches == Reaches::Windows || step.where.reaches == Reaches::Negatives;
            if (through) pins = sprayOfMask(next, step.where.of).pins;
            for (const auto& [key, value] : changes->second) {
                if (!checkChange(key, value)) continue;
                if (key == "pressure_kpa") pins.pressure_kpa = numberIn(value);
                if (key == "distance_mm") pins.distance_mm = numberIn(value);
            }
            if (through) {
                SpraySpec spray = sprayOfMask(next, step.where.of);
                spray.pins = pins;
                if (!pins.empty()) next = withSpray(next, spray);
            } else if (!pins.empty()) {
                layers = withStepPins(std::move(layers), before.id, pins);
            }
        }
    }
    for (Step& step : layers.recipe.steps) {
        const std::string name = step.name.empty() ? step.id : step.name;
        if (const int more = repeatedCoats(step.id, work, state); more > 0 && paints(step.act)) {
            step.coats = std::min<double>(kMostCoats, step.coats + more);
            made.changed.push_back(Words(NINE_WORDS("core", "{step}: {coats} coats"))
                                       .name("step", name)
                                       .number("coats", step.coats, kShortest));
        }
        if (step.on && leftOut(step.id, work, state)) {
            step.on = false;
            made.changed.push_back(Words(NINE_WORDS("core", "{step}: left out")).name("step", name));
        }
    }
    std::set<std::string> said;
    for (const RunEvent& event : state.inserted) {
        const BenchTask* task = taskIn(work, event.task);
        if (!said.insert((task ? task->steps.front() : "") + "\n" + event.value).second)
            continue;  // on another tray
        Step note;
        note.act = Act::Note;
        note.id = freshId(layers.recipe, "note");
        note.name = event.value;
        note.note = event.value;
        const std::size_t at =
            task ? placeOf(layers.recipe, task->steps.front()) : layers.recipe.steps.size();
        layers.recipe.steps.insert(layers.recipe.steps.begin() +
                                       static_cast<std::ptrdiff_t>(std::min(at, layers.recipe.steps.size())),
                                   note);
        made.changed.push_back(Words(NINE_WORDS("core", "done besides: {what}")).name("what", event.value));
    }
    made.job = next.with(std::move(layers));
    return made;
}

RecipeCard cardOf(const JobOnBench& job, const RunHead& head, const std::vector<RunEvent>& events) {
    // In one piece: the run read once for each part of the card.
    const RunState state = folded(events);
    const Job& of = job.on->of;
    RecipeCard card;
    card.title = of.get<PatternChapter>().name.empty() ? head.title : of.get<PatternChapter>().name;
    card.blank = of.get<BlankChapter>().name;
    card.id = head.id;
    card.job = head.title;
    card.began = state.began.value_or(head.began);
    card.ended = state.over.value_or(std::max(state.last, card.began));
    card.lures = head.lures;
    card.painted_s = static_cast<int>(card.ended - card.began) - state.paused_s;
    card.school = of.get<LayersChapter>().school == School::BackFirst ? "back_first" : "light_to_dark";
    const auto taken = secondsOf(head.work, events);
    Recipe done = job.recipe();
    for (std::size_t s = 0; s < done.steps.size(); ++s) {
        const Step planned = done.steps[s];
        if (!planned.on) continue;
        for (const RunEvent& e : state.inserted) {
            const BenchTask* task = taskIn(head.work, e.task);
            if (!task || task->steps.front() != planned.id) continue;
            const bool again = std::any_of(card.steps.begin(), card.steps.end(), [&](const LaidStep& l) {
                return l.step.empty() && l.name == e.value;
            });
            if (again) continue;
            LaidStep besides;
            besides.act = Act::Note;
            besides.name = e.value;
            card.steps.push_back(std::move(besides));
        }
        const auto changes = state.changes.find(planned.id);
        Step step = changes == state.changes.end() ? planned : changed(planned, changes->second);
        step.coats += paints(step.act) ? repeatedCoats(step.id, head.work, state) : 0;
        LaidStep laid;
        laid.step = step.id;
        laid.act = step.act;
        laid.name = step.name.empty() ? step.id : step.name;
        for (const MaskFact& m : job.facts.masks) {
            const std::string& of_ = step.mask.empty() ? step.where.of : step.mask;
            if (!of_.empty() && (m.id == of_ || m.twin == of_)) laid.mask = m.name;
        }
        if (paints(step.act)) {
            for (const MixPart& part : step.paint) {
                const Bottle* bottle = findBottle(of.get<LayersChapter>().paints, part.bottle);
                laid.paint.push_back({part.bottle, bottle ? bottle->name : part.bottle, part.drops});
            }
            laid.reducer = step.reducer;
            laid.coats = step.coats;
            laid.colour = job.steps[s].colour;
            laid.ground = job.steps[s].ground;
            if (job.steps[s].set) laid.set = *job.steps[s].set;
            if (changes != state.changes.end()) setChanged(laid.set, changes->second);
        }
        laid.clear = step.clear;
        laid.glue = step.glue;
        laid.wait_min = step.wait_min;
        if (const auto t = taken.find(step.id); t != taken.end())
            laid.took_s = static_cast<int>(std::lround(t->second));
        laid.skipped = leftOut(step.id, head.work, state);
        if (changes != state.changes.end())
            for (const auto& [key, value] : changes->second) laid.changed.push_back(key + " " + value);
        laid.note = step.note;
        step.on = !laid.skipped;
        done.steps[s] = step;
        card.steps.push_back(std::move(laid));
    }
    // Amounts of what was done, for all bodies.
    std::map<std::string, double> used_ml;
    if (const auto amounts = amountsOf(done, job.on->palette, job.on->areas_mm2, head.lures))
        for (const StepAmount& amount : *amounts) {
            const Step& step = done.steps[placeOf(done, amount.step)];
            Ratio drops = 0;
            for (const MixPart& part : step.paint) drops += part.drops;
            for (const MixPart& part : step.paint)
                used_ml[part.bottle] += amount.paint_ml * part.drops / drops;
        }
    for (const auto& [id, ml] : used_ml) {
        const Bottle* bottle = findBottle(of.get<LayersChapter>().paints, id);
        card.amounts.push_back({id, bottle ? bottle->name : id, std::round(100 * ml) / 100});
    }
    // Each copy of a mask lies on its share of the bodies.
    std::map<int, int> uses;
    int brushed = 0;
    for (const BenchTray& tray : head.work.trays)
        for (const BenchTask& task : tray.tasks) {
            const auto fate = state.fates.find(task.id);
            if (fate == state.fates.end() || fate->second != TaskFate::Done) continue;
            if (task.takes >= 0) uses[task.takes] += task.lures;
            for (const std::string& id : task.steps) {
                const std::size_t s = placeOf(done, id);
                if (s >= done.steps.size() || done.steps[s].act != Act::Clear) continue;
                const std::string& clear = done.steps[s].clear;
                if (clear == "epoxy" || clear == "epoxy_30" || clear == "uv_brush") brushed += task.lures;
            }
        }
    for (const auto& [tool, count] : uses) {
        const BenchTool& t = head.work.tools[static_cast<std::size_t>(tool)];
        const std::string id = t.id.substr(t.id.rfind('/') + 1);
        CardTool used{
            id == kNetTool ? "net" : "mask", id, t.name, {}, (count + t.copies - 1) / std::max(1, t.copies)};
        if (used.kind == "mask") {
            used.id = card.blank + "/" + card.title + "/" + id;  // masks of other jobs have the same ids
            for (const MaskSpecPtr& spec : maskSpecs(of))
                if (spec->id == id) used.made = spec->wish.material;
        } else if (const auto& net = of.get<ScalesChapter>().net) {
            used.id = net->id;
            used.made = net->liftWet ? "metal" : "fabric";
        }
        card.tools.push_back(std::move(used));
    }
    if (brushed > 0) card.tools.push_back({"brush", "clear-brush", "Clear brush", "", brushed});
    for (const RunEvent& e : state.mishapsSeen) {
        const BenchTask* task = taskIn(head.work, e.task);
        card.mishaps.push_back({e.at, e.key, task ? task->steps.front() : e.step, e.value, e.lure});
    }
    for (const RunEvent& e : state.notes) card.text += (card.text.empty() ? "" : "\n") + e.value;
    if (card.text.size() > kMostCardText) card.text.resize(kMostCardText);
    return card;
}

}  // namespace nine
