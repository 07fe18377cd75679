// spray edge: how sharp an edge a setting leaves, and how far paint creeps
#include <cmath>

#include "base/number_text.h"
#include "base/units.h"
#include "cli/args.h"
#include "cli/verbs.h"
#include "spray/edge.h"

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
    const std::string paint = args.value("paint").value_or("opaque");
    const auto family = findPaint(paint);
    if (!family) {
        std::string known;
        for (const PaintFamily& p : paintFamilies()) known += (known.empty() ? "" : ", ") + std::string(p.id);
        return Error{"unknown_paint", "\"" + paint + "\" is not a paint family; choose " + known + ".",
                     "--paint"};
    }
    s.paint = *family;
    const Result<Reduction> reduction = parseReduction(args.value("reduction").value_or("4:1"));
    if (!reduction) return flagged(reduction.error());
    s.reduction = *reduction;
    const std::string stroke = args.value("stroke").value_or("along");
    if (stroke != "along" && stroke != "across")
        return Error{"bad_value", "--stroke is along or across the edge.", "--stroke"};
    s.stroke = stroke == "along" ? Stroke::Along : Stroke::Across;
    return s;
}

}  // namespace

Result<Reply> sprayEdge(const Words& words, const Task&) {
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
        return Error{"out_of_range", "A sheet is 0 to 5 mm thick.", "--thickness"};
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

}  // namespace nine::cli
