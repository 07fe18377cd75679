// spray edge: how sharp an edge a setting leaves, and how far paint creeps. spray plan: settings for every
// mask
#include <cmath>

#include "base/files.h"
#include "base/number_text.h"
#include "base/units.h"
#include "cli/args.h"
#include "cli/verbs.h"
#include "job/bench_file.h"
#include "job/derive.h"
#include "job/job_file.h"
#include "job/spray_job.h"
#include "job/step_spray.h"

namespace nine::cli {
namespace {

struct Given {
    const char* flag;
    double* into;
    bool needed;
};

Error flagged(Error error) {  // the model names fields as the flags are named
    if (error.where == "flow") error.where = "flow_ml_min";
    if (error.where == "speed") error.where = "speed_mm_s";
    if (error.where == "aim") error.where = "aim_mm";
    error.where = "--" + error.where;
    return error;
}

Result<PaintFamily> paintOf(const Args& args) {
    const std::string id = args.value("paint").value_or("opaque");
    if (const auto family = findPaint(id)) return *family;
    return Error{"unknown_paint", unknownPaint(id), "--paint"};
}

Result<SprayBench> benchOf(const Args& args) {
    SprayBench bench;
    if (const auto file = args.value("bench")) {
        const Result<std::string> text = readFile(*file);
        if (!text) return text.error();
        Result<Workplace> own = parseBench(*text, *file);
        if (!own) return own.error();
        bench = std::move(*own);
    }
    const auto text = args.value("needles");
    if (!text) return bench;
    const Result<std::vector<double>> needles = parseNumbers(*text, "--needles");
    if (!needles) return needles.error();
    bench.guns.clear();
    for (const double needle : *needles)
        bench.guns.push_back(
            {"gun " + std::to_string(bench.guns.size() + 1), needle, Gun{}.lowest_psi, Gun{}.highest_psi});
    if (Status ok = checkBench(bench); !ok) return Error{ok.error().code, ok.error().words, "--needles"};
    return bench;
}

/// What is set at the gun.
Json settingJson(const SprayPlan& plan) {
    const SpraySetting& s = plan.setting;
    return {{"needle_mm", s.needle_mm},
            {"pressure_kpa", s.gauge_kpa},
            {"distance_mm", s.distance_mm},
            {"angle_deg", s.angle_deg},
            {"reduction", {s.reduction.paint, s.reduction.reducer}},
            {"coats", plan.coats},
            {"passes", plan.passes},
            {"speed_mm_s", s.speed_mm_s}};
}

/// Every sprayed step of the recipe in its order: those through masks refer to `layers`.
Result<Json> stepPlans(const Job& job, const SprayBench& bench, std::string& text) {
    Json list = Json::array();
    for (const Step& step : job.get<LayersChapter>().recipe.steps) {
        if (!step.on || !paints(step.act)) continue;
        Json row{{"step", step.id},
                 {"name", step.name},
                 {"work", std::string(bench.practiceFor(workOf(job, step)).id)}};
        const bool through =
            step.where.reaches == Reaches::Windows || step.where.reaches == Reaches::Negatives;
        if (through) {
            row["mask"] = step.where.of;
        } else {
            const Result<SprayPlan> plan = planStep(job, step, bench);
            if (!plan) return plan.error();
            row.update(settingJson(*plan));
            row["film_um"] = plan->coat_um;
            row["run_um"] = plan->run_um;
            row["warnings"] = warningsJson(plan->warnings);
            text += (step.name.empty() ? step.id : step.name) + ": " + Words(plan->practice.name).plain() +
                    ", needle " + fixedText(plan->setting.needle_mm, 2) + " mm, " +
                    fixedText(plan->setting.gauge_kpa / kKpaPerPsi, 0) + " psi, " +
                    fixedText(plan->setting.distance_mm, 0) + " mm away, " + std::to_string(plan->coats) +
                    (plan->coats == 1 ? " coat.\n" : " coats.\n");
        }
        list.push_back(std::move(row));
    }
    return list;
}

Json planJson(const MaskSpec& spec, const SprayPlan& plan, const EdgePlace& worst) {
    Json steps = Json::array(), reasons = Json::array();
    for (const Words& reason : plan.reasons) reasons.push_back(reason.plain());
    for (const SprayStep& step : plan.steps)
        steps.push_back({{"spoils", step.spoils}, {"words", step.words.plain()}});
    Json json{{"id", "spray-" + spec.id},
              {"name", spec.shownName()},
              {"paint", std::string(plan.setting.paint.id)},
              {"mask", spec.id}};
    json.update(settingJson(plan));
    json.update({{"gap_mm", plan.gap_mm},
                 {"edge_width_mm", plan.edge.width_mm},
                 {"edge_width_across_mm", plan.across.width_mm},
                 {"creep_mm", plan.edge.creep_mm},
                 {"film_um", plan.coat_um},
                 {"pass_film_um", plan.edge.film_um},
                 {"run_um", plan.run_um},
                 {"worst_place",
                  {{"element", worst.element},
                   {"opening", worst.opening + 1},
                   {"x_mm", worst.skin.x()},
                   {"g_mm", worst.skin.y()},
                   {"lift_mm", worst.lift_mm}}},
                 {"reasons", std::move(reasons)},
                 {"steps", std::move(steps)},
                 {"warnings", warningsJson(plan.warnings)}});
    return json;
}

Result<SpraySetting> settingOf(const Args& args) {
    SpraySetting s;
    for (const Given& given : {Given{"distance", &s.distance_mm, true},
                               {"angle", &s.angle_deg, false},
                               {"pressure", &s.gauge_kpa, true},
                               {"needle", &s.needle_mm, true},
                               {"flow_ml_min", &s.flow_ml_min, false},
                               {"speed_mm_s", &s.speed_mm_s, false},
                               {"aim_mm", &s.aim_mm, false}}) {
        if (given.needed && !args.has(given.flag)) return args.need(given.flag).error();
        const Result<double> value = args.number(given.flag, *given.into);
        if (!value) return value.error();
        *given.into = *value;
    }
    if (args.has("film")) {
        const Result<double> film = args.number("film", 0);
        if (!film) return film.error();
        s.film_um = *film;
    }
    const Result<PaintFamily> paint = paintOf(args);
    if (!paint) return paint.error();
    s.paint = *paint;
    const Result<Reduction> reduction = parseReduction(args.value("reduction").value_or("4:1"));
    if (!reduction) return flagged(reduction.error());
    s.reduction = *reduction;
    const std::string stroke = args.value("stroke").value_or("along");
    if (stroke != "along" && stroke != "across")
        return Error{"bad_value", NINE_WORDS("cli", "--stroke is along or across the edge."), "--stroke"};
    s.stroke = stroke == "along" ? Stroke::Along : Stroke::Across;
    return s;
}

}  // namespace

Result<Reply> sprayEdge(const Arguments& words, const Task&) {
    const Result<Args> args =
        Args::parse(words,
                    {"gap", "distance", "angle", "pressure", "needle", "paint", "reduction", "flow_ml_min",
                     "speed_mm_s", "film", "stroke", "aim_mm", "thickness"},
                    {}, 0);
    if (!args) return args.error();
    if (!args->has("gap")) return args->need("gap").error();
    const Result<double> gap = args->number("gap", 0);
    if (!gap) return gap.error();
    const Result<double> thickness = args->number("thickness", 0);
    if (!thickness) return thickness.error();
    if (!(*thickness >= 0 && *thickness <= 5))
        return Error{"out_of_range", NINE_WORDS("cli", "A sheet is 0 to 5 mm thick."), "--thickness"};
    const Result<SpraySetting> setting = settingOf(*args);
    if (!setting) return setting.error();
    const Result<EdgeFigures> edge = edgeFigures(*setting, *gap);
    if (!edge) return flagged(edge.error());
    // A thick sheet throws its own shadow at a slant: the edge moves by its thickness.
    const double shadow = *thickness * std::tan(degToRad(setting->angle_deg));

    Reply reply;
    reply.json = Json{{"edge_width_mm", edge->width_mm},
                      {"creep_mm", edge->creep_mm},
                      {"shift_mm", edge->shift_mm},
                      {"shadow_mm", shadow},
                      {"liquid_mm", edge->liquid_mm},
                      {"film_um", edge->film_um},
                      {"air_pressure_pa", edge->pressure_pa},
                      {"drop_size_um", edge->dropSize_um},
                      {"trigger", edge->trigger},
                      {"warnings", warningsJson(edge->warnings)}};
    reply.text = "The edge is " + fixedText(edge->width_mm, 2) +
                 " mm wide (10 to 90 % of the film); paint creeps " + fixedText(edge->creep_mm, 2) +
                 " mm under the mask, " + fixedText(edge->liquid_mm, 2) +
                 " mm of it drawn in wet.\nComputed from a model nobody has measured against this gun: take "
                 "it for what "
                 "changes, and try on paper first.\nMist: extraction on, and a respirator that fits the "
                 "product's data "
                 "sheet.\n" +
                 warningsText(edge->warnings);
    return reply;
}

Result<Reply> sprayPlan(const Arguments& words, const Task& task) {
    // In one piece: the reply, field by field.
    const Result<Args> args = Args::parse(words, {"paint", "width", "needles", "bench"}, {}, 1);
    if (!args) return args.error();
    const Result<PaintFamily> paint = paintOf(*args);
    if (!paint) return paint.error();
    const Result<double> width = args->number("width", MaskToSpray{}.wantedWidth_mm);
    if (!width) return width.error();
    if (!(*width > 0 && *width <= 20))
        return Error{"out_of_range",
                     NINE_WORDS("cli", "The wanted width of an edge lies between 0 and 20 mm."), "--width"};
    const Result<SprayBench> bench = benchOf(*args);
    if (!bench) return bench.error();
    const Result<LoadedJob> loaded = loadJob(args->word(0));
    if (!loaded) return loaded.error();

    Derivations derived;
    Reply reply;
    Json layers = Json::array();
    const MaskSpec* worst = nullptr;
    EdgePlace worstPlace;
    double worstGap = -1;
    for (const MaskResult& result : derived.masks(loaded->job, kFitVertices, task)) {
        if (!result.spec->known()) continue;
        if (!result.mask) return withLine(result.mask.error(), args->word(0));
        const MaskSpec& spec = *result.spec;
        SpraySpec spray = sprayOfMaskInRecipe(loaded->job, spec.id);
        if (args->has("paint")) spray.paint = paint->id;
        if (args->has("width")) spray.soft_mm.reset();
        MaskToSpray asked = sprayOf(spec, (*result.mask)->report(), spray);
        if (args->has("width")) asked.wantedWidth_mm = *width;
        const Result<SprayPlan> plan = planSpray(asked, *bench, spray.pins);
        if (!plan) {
            Error error = plan.error();
            const auto& said = loaded->job.get<SprayChapter>().masks;
            for (std::size_t i = 0; i < said.size(); ++i) {
                if (said[i].mask == spec.id && error.where.rfind("pins", 0) == 0)
                    error.where = "spray.masks[" + std::to_string(i) + "]." + error.where;
            }
            return withLine(error, args->word(0));
        }
        const Result<std::vector<ArtPtr>> art = derived.artOf(loaded->job, spec);
        if (!art) return withLine(art.error(), args->word(0));
        std::vector<const ElementArt*> drawn;
        for (const ArtPtr& a : *art) drawn.push_back(a.get());
        const EdgePlace place = worstEdge(**result.mask, drawn);
        layers.push_back(planJson(spec, *plan, place));
        if (!plan->meetsWish) reply.exitCode = kFault;
        if (plan->gap_mm > worstGap) {
            worst = result.spec.get();
            worstGap = plan->gap_mm;
            worstPlace = place;
        }
        reply.text += result.spec->shownName() + " " + sideLetter(result.spec->side) + ": " + plan->gun.name +
                      " gun, needle " + fixedText(plan->setting.needle_mm, 2) + " mm, " +
                      fixedText(plan->setting.gauge_kpa / kKpaPerPsi, 0) + " psi (" +
                      fixedText(plan->setting.gauge_kpa / 100, 2) + " bar).\n";
        for (const Words& reason : plan->reasons) reply.text += "  " + reason.plain() + "\n";
        if (place.lift_mm > 0)
            reply.text += "  It stands off most at " + placeSentence(place).plain() + ": " +
                          fixedText(place.lift_mm, 2) + " mm.\n";
        for (const SprayStep& step : plan->steps) {
            if (step.spoils) reply.text += "  " + step.words.plain() + "\n";
        }
        reply.text += warningsText(plan->warnings);
    }
    Result<Json> steps = isDraft(loaded->job.get<LayersChapter>())
                             ? Result<Json>(Json::array())
                             : stepPlans(loaded->job, *bench, reply.text);
    if (!steps) return withLine(steps.error(), args->word(0));
    reply.json = Json{{"layers", std::move(layers)}, {"recipe", std::move(*steps)}};
    if (worst) {
        reply.json["worst"] = {{"mask", worst->id},
                               {"gap_mm", worstGap},
                               {"element", worstPlace.element},
                               {"opening", worstPlace.opening + 1},
                               {"x_mm", worstPlace.skin.x()}};
        reply.text += "Largest gap: " + worst->shownName() + " " + sideLetter(worst->side) + ", " +
                      fixedText(worstGap, 2) + " mm, at " + placeSentence(worstPlace).plain() + ".\n";
    }
    reply.text +=
        "Mist: extraction on, and a respirator that fits the product's data sheet. Edges are computed from a "
        "model nobody has measured against this gun: try on paper first.\n";
    return reply;
}

}  // namespace nine::cli
