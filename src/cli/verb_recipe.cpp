// recipe: the steps of a job, their rules, amounts and colours.
#include <algorithm>

#include "base/files.h"
#include "base/number_text.h"
#include "cli/args.h"
#include "cli/shelf.h"
#include "cli/verbs.h"
#include "image/picture_file.h"
#include "job/job_file.h"
#include "job/pattern_picture.h"
#include "job/recipe_job.h"

namespace nine::cli {
namespace {

template <typename E>
std::string wordOf(E value, std::span<const EnumName<E>> names) {
    for (const EnumName<E>& name : names)
        if (name.value == value) return std::string(name.id);
    return {};
}

std::string textOf(Severity severity) {
    return severity == Severity::Fault ? "fault" : severity == Severity::Caution ? "caution" : "hint";
}
std::string textOf(Apart apart) {
    switch (apart) {
        case Apart::Hardly:
            return "hardly told apart";
        case Apart::Close:
            return "at a close look";
        case Apart::Clear:
            return "clear";
        case Apart::Strong:
            return "strong";
        case Apart::Loud:
            return "loud";
    }
    return {};
}

std::string colourOfLab(const Lab& lab) {
    return colourText(srgbOf(linearOf(xyzOf(lab))));
}

Json findingsJson(const std::vector<RuleFinding>& findings, std::string& text) {
    Json list = Json::array();
    for (const RuleFinding& f : findings) {
        list.push_back({{"rule", f.rule},
                        {"severity", textOf(f.severity)},
                        {"step", f.step},
                        {"text", f.says.plain()},
                        {"repair", f.repair.plain()}});
        text += textOf(f.severity) + ": " + f.says.plain() +
                (f.repair.plain().empty() ? "" : " (" + f.repair.plain() + ".)") + "\n";
    }
    return list;
}

Json paintJson(const Step& step) {
    Json parts = Json::array();
    for (const MixPart& part : step.paint) parts.push_back({{"of", part.bottle}, {"drops", part.drops}});
    return parts;
}

struct Opened {
    LoadedJob loaded;
    RecipeOnBody on;
};
Result<Opened> opened(const std::string& path, const Task& task, const SkinRaster& raster = {}) {
    Result<LoadedJob> loaded = loadJob(path);
    if (!loaded) return loaded.error();
    Derivations derived;
    Result<RecipeOnBody> on = recipeOnBody(loaded->job, derived, raster, Fineness::Cut, task);
    if (!on) return on.error();
    return Opened{std::move(*loaded), std::move(*on)};
}

Json stepsJson(const Job& job, const RecipeOnBody& on, std::string& text) {
    const auto& steps = job.get<LayersChapter>().recipe.steps;
    const OverWhatAt over = overWhat(on.painted, on.covers);
    Json list = Json::array();
    for (std::size_t s = 0; s < steps.size(); ++s) {
        const Step& step = steps[s];
        Json row{
            {"id", step.id}, {"act", wordOf(step.act, actNames())}, {"name", step.name}, {"on", step.on}};
        text += step.id + ": " + wordOf(step.act, actNames()) + (step.name.empty() ? "" : ", " + step.name);
        if (paints(step.act)) {
            row["paint"] = paintJson(step);
            row["reducer"] = step.reducer;
            row["coats"] = step.coats;
            row["dry"] = wordOf(step.dry, dryNames());
            row["where"] = wordOf(step.where.reaches, reachNames());
            if (!step.where.of.empty()) row["of"] = step.where.of;
            row["covers"] = on.areas_mm2[s] / on.skin_mm2;
            if (const auto what = over(s)) {
                row["ground"] = colourOfLab(what->ground);
                row["colour"] = colourOfLab(what->after);
                const ToldApart told = toldApart(what->after, what->ground, false);
                row["words"] = textOf(told.word);
                text += ", " + colourOfLab(what->ground) + " becomes " + colourOfLab(what->after) + ", " +
                        textOf(told.word);
            }
        }
        text += "\n";
        list.push_back(std::move(row));
    }
    return list;
}

}  // namespace

Result<Reply> recipeShow(const Arguments& words, const Task& task) {
    const Result<Args> args = Args::parse(words, {}, {}, 1);
    if (!args) return args.error();
    const Result<Opened> job = opened(args->word(0), task);
    if (!job) return job.error();
    Reply reply;
    Json steps = stepsJson(job->loaded.job, job->on, reply.text);
    if (steps.empty()) reply.text = "No steps yet: recipe begin makes some.\n";
    Warnings warnings = job->loaded.warnings;
    warnings.insert(warnings.end(), job->on.warnings.begin(), job->on.warnings.end());
    reply.json = {{"steps", std::move(steps)}, {"warnings", warningsJson(warnings)}};
    reply.text += warningsText(warnings);
    return reply;
}

Result<Reply> recipeCheck(const Arguments& words, const Task& task) {
    const Result<Args> args = Args::parse(words, {"out"}, {"mend"}, 1);
    if (!args) return args.error();
    if (args->has("mend") != args->has("out"))
        return Error{"usage", NINE_WORDS("cli", "recipe check --mend writes to --out JOB; both or none."),
                     "--mend"};
    const Result<Opened> job = opened(args->word(0), task);
    if (!job) return job.error();
    Reply reply;
    std::vector<RuleFinding> findings = findingsOf(job->on);
    reply.json["findings"] = findingsJson(findings, reply.text);
    if (args->has("mend")) {
        Derivations derived;
        const Result<Job> next = withRepairs(job->loaded.job, derived, genericShelf(), task);
        if (!next) return next.error();
        const Result<RecipeOnBody> on = recipeOnBody(*next, derived, {}, Fineness::Cut, task);
        if (!on) return on.error();
        findings = findingsOf(*on);
        if (Status ok = saveJob(*next, *args->value("out")); !ok) return ok.error();
        reply.json["left"] = findings.size();
        reply.json["out"] = *args->value("out");
    }
    if (reply.text.empty()) reply.text = "Nothing in this order spoils another step.\n";
    const bool fault = std::any_of(findings.begin(), findings.end(),
                                   [](const RuleFinding& f) { return f.severity == Severity::Fault; });
    reply.exitCode = fault ? kFault : kDone;
    return reply;
}

Result<Reply> recipeBegin(const Arguments& words, const Task& task) {
    const Result<Args> args = Args::parse(words, {"school", "out", "shelf"}, {}, 1);
    if (!args) return args.error();
    const Result<std::string> out = args->need("out");
    if (!out) return out.error();
    const std::string school = args->value("school").value_or("light");
    if (school != "light" && school != "back")
        return Error{"bad_value", NINE_WORDS("cli", "--school is light (to dark) or back (first)."),
                     "--school"};
    const Result<std::vector<Bottle>> shelf = shelfAsked(*args);
    if (!shelf) return shelf.error();
    const Result<LoadedJob> loaded = loadJob(args->word(0));
    if (!loaded) return loaded.error();
    Derivations derived;
    const Result<Job> job = withBegunRecipe(
        loaded->job, derived, *shelf, school == "light" ? School::LightToDark : School::BackFirst, task);
    if (!job) return job.error();
    if (Status ok = checkJob(*job); !ok) return ok.error();
    const Result<RecipeOnBody> on = recipeOnBody(*job, derived, {}, Fineness::Cut, task);
    if (!on) return on.error();
    Reply reply;
    reply.json["steps"] = stepsJson(*job, *on, reply.text);
    Json paints = Json::array();
    for (const Bottle& b : job->get<LayersChapter>().paints) paints.push_back(b.id);
    reply.json["paints"] = std::move(paints);
    reply.json["findings"] = findingsJson(findingsOf(*on), reply.text);
    reply.json["warnings"] = warningsJson(on->warnings);
    reply.json["out"] = *out;
    if (Status ok = saveJob(*job, *out); !ok) return ok.error();
    return reply;
}

Result<Reply> recipeAmounts(const Arguments& words, const Task& task) {
    const Result<Args> args = Args::parse(words, {"lures"}, {}, 1);
    if (!args) return args.error();
    const Result<int> lures = args->whole("lures", 1, 1, 500);
    if (!lures) return lures.error();
    const Result<Opened> job = opened(args->word(0), task);
    if (!job) return job.error();
    const auto& recipe = job->loaded.job.get<LayersChapter>().recipe;
    const auto amounts = amountsOf(recipe, job->on.palette, job->on.areas_mm2, *lures);
    if (!amounts) return amounts.error();
    Reply reply;
    Json steps = Json::array();
    std::map<std::string, double> bottles;
    for (const StepAmount& a : *amounts) {
        const Step& step = recipe.steps[placeOf(recipe, a.step)];
        steps.push_back({{"id", a.step},
                         {"area_mm2", a.area_mm2},
                         {"paint_ml", a.paint_ml},
                         {"reducer_ml", a.reducer_ml},
                         {"drops", a.drops},
                         {"fills", a.fills}});
        Ratio drops = 0;
        for (const MixPart& part : step.paint) drops += part.drops;
        for (const MixPart& part : step.paint) bottles[part.bottle] += a.paint_ml * part.drops / drops;
        reply.text += (step.name.empty() ? step.id : step.name) + ": " + fixedText(a.drops, 1) + " drops, " +
                      fixedText(a.paint_ml + a.reducer_ml, 2) + " ml\n";
    }
    Json paints = Json::array();
    for (const auto& [id, ml] : bottles) {
        const Bottle* b = findBottle(job->loaded.job.get<LayersChapter>().paints, id);
        paints.push_back({{"id", id}, {"ml", ml}, {"left_ml", b ? b->left_ml : 0}});
    }
    reply.json = {{"lures", *lures}, {"steps", std::move(steps)}, {"paints", std::move(paints)}};
    return reply;
}

Result<Reply> recipeRender(const Arguments& words, const Task& task) {
    const Result<Args> args = Args::parse(words, {"png", "step", "side", "per_mm"}, {}, 1);
    if (!args) return args.error();
    const Result<std::string> png = args->need("png");
    if (!png) return png.error();
    const std::string side = args->value("side").value_or("L");
    if (side != "L" && side != "R" && side != "back" && side != "belly")
        return Error{"bad_value", NINE_WORDS("cli", "--side is L, R, back or belly."), "--side"};
    const Result<int> scale = args->whole("per_mm", 12, 1, 60);
    if (!scale) return scale.error();
    const Result<Opened> job = opened(args->word(0), task, {1024, 900});
    if (!job) return job.error();
    const Recipe& recipe = job->loaded.job.get<LayersChapter>().recipe;
    std::optional<std::size_t> step;
    if (!recipe.steps.empty()) step = recipe.steps.size() - 1;
    if (const auto id = args->value("step")) {
        step = placeOf(recipe, *id);
        if (*step >= recipe.steps.size())
            return Error{"unknown_step",
                         Words(NINE_WORDS("cli", "There is no step \"{step}\".")).name("step", *id),
                         "--step"};
    }
    PatternPicture picture{job->on.skin, job->on.body, colourAfter(job->on, step), {}, {}, {}};
    picture.fittings = fittingsOf(*job->on.skin, job->loaded.job.get<BlankChapter>().landmarks);
    const Seen seen = side == "L"      ? Seen::Left
                      : side == "R"    ? Seen::Right
                      : side == "back" ? Seen::Back
                                       : Seen::Belly;
    const Image image = drawnPattern(picture, seen, *scale, 0xFFF6F4EE);
    if (Status ok = writeFileAtomically(*png, pngOf(image.width, image.height, image.pixels)); !ok)
        return ok.error();
    Reply reply;
    reply.json = {{"file", *png}, {"width_px", image.width}, {"height_px", image.height}};
    reply.text = "Wrote " + *png + ".\n";
    return reply;
}

}  // namespace nine::cli
