// bench: what to do next, in which order, and what must not be forgotten.
#include <algorithm>
#include <map>
#include <sstream>

#include "base/number_text.h"
#include "cli/args.h"
#include "cli/verbs.h"
#include "job/bench_job.h"
#include "job/job_file.h"
#include "job/run_card.h"

namespace nine::cli {
namespace {

/// "1:05" for 3900 s.
std::string clockText(int s) {
    const int minutes = (s + 30) / 60;
    const std::string m = std::to_string(minutes % 60);
    return std::to_string(minutes / 60) + ":" + (m.size() < 2 ? "0" + m : m);
}

Result<Workplace> workplaceOf(const Args& args) {
    Workplace place;
    if (const auto file = args.value("bench")) {
        // A file that was named must be there.
        const Result<std::string> text = readFile(*file);
        if (!text) return text.error();
        Result<Workplace> own = parseBench(*text, *file);
        if (!own) return own.error();
        place = std::move(*own);
    }
    if (const auto needles = args.value("guns")) {
        place.guns.clear();
        std::size_t from = 0;
        for (int n = 1; from <= needles->size(); ++n) {  // "0.35+0.2,0.3": needles of one gun, then the next
            const std::size_t comma = std::min(needles->find(',', from), needles->size());
            std::string own = needles->substr(from, comma - from);
            std::replace(own.begin(), own.end(), '+', ',');
            const Result<std::vector<double>> numbers = parseNumbers(own, "--guns");
            if (!numbers) return numbers.error();
            for (const double needle : *numbers)
                place.guns.push_back(
                    {"Gun " + std::to_string(n), needle, Gun{}.lowest_psi, Gun{}.highest_psi, {}});
            from = comma + 1;
        }
        if (Status ok = checkBench(place); !ok) return Error{ok.error().code, ok.error().words, "--guns"};
    }
    for (const auto& [flag, into, most] : {std::tuple{"painters", &place.shop.painters, 4},
                                           {"tray", &place.shop.tray, 100},
                                           {"rack", &place.shop.rack, 500}}) {
        const Result<int> value = args.whole(flag, *into, 1, most);
        if (!value) return value.error();
        *into = *value;
    }
    return place;
}

/// "Spray Transparent olive, coat 2 of 2".
std::string sentenceOf(const TaskWords& words) {
    std::string text = words.verb.plain();
    text += (text.empty() ? "" : " ") + words.title.plain();
    return text + (words.more.plain().empty() ? "" : ", " + words.more.plain());
}

struct OnBench {
    std::vector<JobOnBench> jobs;
    Warnings warnings;
};

/// The job and those that go over the bench with it.
Result<OnBench> onBench(const Args& args, const Workplace& place, bool solve, const Task& task) {
    OnBench all;
    std::vector<std::string> paths{args.word(0)};
    if (const auto with = args.value("with")) {
        std::istringstream list(*with);
        for (std::string path; std::getline(list, path, ',');) paths.push_back(path);
    }
    for (std::size_t i = 0; i < paths.size(); ++i) {
        Result<LoadedJob> loaded = loadJob(paths[i]);
        if (!loaded) return loaded.error();
        all.warnings.insert(all.warnings.end(), loaded->warnings.begin(), loaded->warnings.end());
        Job job = loaded->job;
        if (i == 0 && args.has("lures")) {
            const Result<double> lures = args.number("lures", 1);
            if (!lures) return lures.error();
            if (!(*lures >= 1 && *lures <= kMostLures) || *lures != std::floor(*lures))
                return luresError(static_cast<int>(std::clamp(*lures, -1e6, 1e6)), "--lures");
            LayersChapter layers = job.get<LayersChapter>();
            layers.lures = static_cast<int>(*lures);
            job = job.with(std::move(layers));
        }
        Derivations derived;
        Result<RecipeOnBody> on = recipeOnBody(job, derived, {}, Fineness::Cut, task);
        if (!on) return on.error();
        all.warnings.insert(all.warnings.end(), on->warnings.begin(), on->warnings.end());
        const std::vector<MaskResult> masks =
            solve ? derived.masks(job, kPreviewVertices, task) : std::vector<MaskResult>{};
        Result<JobOnBench> made =
            jobOnBench(std::make_shared<const RecipeOnBody>(std::move(*on)), derived, place, masks, task);
        if (!made) return made.error();
        if (i > 0) made->key = paths[i];
        all.warnings.insert(all.warnings.end(), made->warnings.begin(), made->warnings.end());
        all.jobs.push_back(std::move(*made));
    }
    return all;
}

Json taskJson(const BenchTask& task) {
    Json json{{"id", task.id}, {"steps", task.steps}, {"first_lure", task.firstLure}, {"lures", task.lures}};
    if (task.coats > 0) json.update({{"coat", task.coat}, {"coats", task.coats}});
    if (task.bodyByBody) json["body_by_body"] = true;
    return json;
}

}  // namespace

Result<Reply> benchPlan(const Arguments& words, const Task& task) {
    // In one piece: read, plan, tell.
    const Result<Args> args = Args::parse(
        words, {"lures", "guns", "bench", "painters", "tray", "rack", "with", "start", "tries"}, {}, 1);
    if (!args) return args.error();
    const Result<Workplace> place = workplaceOf(*args);
    if (!place) return place.error();
    const Result<int> tries = args->whole("tries", kUsualTries, 0, 1000000);
    if (!tries) return tries.error();
    Moment start = systemClock()();
    if (const auto text = args->value("start")) {
        const auto moment = parseUtc(*text);
        if (!moment)
            return Error{
                "bad_value",
                Words(NINE_WORDS("cli", "\"{date}\" is no moment; write it as 2026-11-30T08:30:00Z."))
                    .name("date", *text),
                "--start"};
        start = *moment;
    }
    Result<OnBench> all = onBench(*args, *place, false, task);
    if (!all) return all.error();
    const BenchWish wish = wishOf(all->jobs, *place, start);
    const Result<BenchPlan> plan = planBench(wish, *tries, task);
    if (!plan) return plan.error();
    Reply reply;
    const Schedule& s = plan->schedule;
    Json tasks = Json::array();
    for (const PlacedTask& p : s.tasks) {
        const BenchTray& tray = wish.work.trays[static_cast<std::size_t>(p.tray)];
        const BenchTask& t = tray.tasks[static_cast<std::size_t>(p.task)];
        Json row = taskJson(t);
        row.update({{"tray", tray.tag},
                    {"start_s", p.start_s},
                    {"end_s", p.end_s},
                    {"rested_s", p.free_s},
                    {"painter", p.painter + 1}});
        if (p.gun >= 0) {
            row.update({{"gun", wish.guns[static_cast<std::size_t>(p.gun)].name},
                        {"cup", wish.work.cups[static_cast<std::size_t>(t.cup)].name},
                        {"cleaned", p.cleaned},
                        {"needle_changed", p.needle},
                        {"filled", p.filled}});
        }
        tasks.push_back(std::move(row));
        reply.text += clockText(p.start_s) + "  tray " + tray.tag + "  " + (p.cleaned ? "[clean] " : "") +
                      sentenceOf(taskWords(jobOf(all->jobs, tray), t)) + "\n";
    }
    Json cups = Json::array();
    std::map<std::string, double> ml;
    for (const JobOnBench& job : all->jobs) {
        const auto amounts = amountsOf(job.recipe(), job.on->palette, job.on->areas_mm2, job.lures);
        if (!amounts) return amounts.error();
        for (const StepAmount& a : *amounts)
            if (const auto& cup = job.steps[job.place(a.step)].cup) ml[cup->key] += a.paint_ml + a.reducer_ml;
    }
    for (const CupContent& cup : wish.work.cups)
        cups.push_back({{"name", cup.name}, {"colour", cup.colour}, {"ml", ml[cup.key]}});
    Json trays = Json::array();
    for (std::size_t t = 0; t < wish.work.trays.size(); ++t)
        trays.push_back({{"tag", wish.work.trays[t].tag},
                         {"first_lure", wish.work.trays[t].firstLure},
                         {"lures", wish.work.trays[t].lures},
                         {"ready_s", s.trayReady_s[t]}});
    Json stood = Json::array();
    for (const StoodTooLong& one : s.stood)
        stood.push_back({{"gun", wish.guns[static_cast<std::size_t>(one.gun)].name},
                         {"cup", wish.work.cups[static_cast<std::size_t>(one.cup)].name},
                         {"from_s", one.from_s},
                         {"to_s", one.to_s}});
    const Load load = loadOf(wish, s);
    reply.json = {{"start", utcText(start)},
                  {"ready_s", s.ready_s},
                  {"ready", utcText(start + s.ready_s)},
                  {"hands_free_s", s.hands_s},
                  {"bound_s", plan->bound_s},
                  {"cleanings", s.cleanings},
                  {"needle_changes", s.needles},
                  {"cups_filled", s.fills},
                  {"cleanings_lure_by_lure", cleaningsLureByLure(wish)},
                  {"trays", std::move(trays)},
                  {"cups", std::move(cups)},
                  {"stood_too_long", std::move(stood)},
                  {"load_w", load.peak_w},
                  {"circuit_w", place->shop.circuit_w},
                  {"tasks", std::move(tasks)},
                  {"warnings", warningsJson(all->warnings)}};
    reply.text += "Ready after " + clockText(s.ready_s) + " h, hands free after " + clockText(s.hands_s) +
                  " h; " + std::to_string(wish.work.cups.size()) + " colours in " +
                  std::to_string(s.cleanings) + " cup cleanings (lure by lure " +
                  std::to_string(cleaningsLureByLure(wish)) + ").\n";
    if (load.peak_w > place->shop.circuit_w)
        reply.text += "At most " + fixedText(load.peak_w, 0) + " W run at one time; the circuit bears " +
                      fixedText(place->shop.circuit_w, 0) + " W.\n";
    reply.text += warningsText(all->warnings);
    return reply;
}

Result<Reply> benchSteps(const Arguments& words, const Task& task) {
    const Result<Args> args = Args::parse(words, {"guns", "bench", "painters", "tray", "rack"}, {"exact"}, 1);
    if (!args) return args.error();
    const Result<Workplace> place = workplaceOf(*args);
    if (!place) return place.error();
    Result<OnBench> all = onBench(*args, *place, args->has("exact"), task);
    if (!all) return all.error();
    JobOnBench& job = all->jobs.front();
    job.lures = 1;
    const BenchWork work = workOf({job}, place->shop);
    Reply reply;
    reply.json["steps"] = Json::array();
    std::optional<GunSetting> before;
    int number = 0;
    for (const BenchTask& t : work.trays.front().tasks) {
        Json row = taskJson(t);
        row.erase("first_lure");
        row.erase("lures");
        row["says"] = sentenceOf(taskWords(job, t));
        row["hands_s"] = t.hands_s;
        row["rest_s"] = t.free_s;
        reply.text += std::to_string(++number) + ". " + row["says"].get<std::string>() + "\n";
        std::optional<GunSetting> set;
        for (const std::string& id : t.steps)
            if (const std::size_t s = job.place(id); s < job.steps.size() && job.steps[s].set) {
                set = job.steps[s].set;
                row["mix"] = mixWords(job, job.recipe().steps[s]).plain();
                row["set"] = {{"gun", set->gun},
                              {"pressure_kpa", set->pressure_kpa},
                              {"needle_mm", set->needle_mm},
                              {"distance_mm", set->distance_mm},
                              {"angle_deg", set->angle_deg},
                              {"seconds_a_body", set->body_s},
                              {"seconds_a_body_length", set->length_s}};
            }
        Json gates = Json::array();
        for (const Gate& gate : gatesOf(job, t, before, false, true)) {
            gates.push_back({{"gate", gate.id},
                             {"text", gate.says.plain()},
                             {"after", gate.after},
                             {"asked", asksGate(job.bench, gate.id)}});
            if (gate.openings > 0) gates.back()["openings"] = gate.openings;
            reply.text += "   [ ] " + gate.says.plain() + "\n";
        }
        row["gates"] = std::move(gates);
        if (set) before = set;
        reply.json["steps"].push_back(std::move(row));
    }
    reply.json["warnings"] = warningsJson(all->warnings);
    reply.text += warningsText(all->warnings);
    return reply;
}

}  // namespace nine::cli
