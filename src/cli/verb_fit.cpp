// fit: of a bare patch or disc, and of every mask of a job
#include <chrono>

#include "base/files.h"
#include "base/number_table.h"
#include "base/number_text.h"
#include "cli/args.h"
#include "cli/body.h"
#include "cli/fit_json.h"
#include "mask/mask.h"

namespace nine::cli {
namespace {

double millisecondsSince(std::chrono::steady_clock::time_point start) {
    return std::chrono::duration<double, std::milli>(std::chrono::steady_clock::now() - start).count();
}

Result<Apply> parseApply(const std::string& text) {
    for (const Apply apply : {Apply::Loose, Apply::Lateral, Apply::Back}) {
        if (text == applyName(apply)) return apply;
    }
    return Error{"bad_value", NINE_WORDS("cli", "--apply must be loose, lateral or back."), "--apply"};
}

/// x_mm,g_mm,u_mm,v_mm of every vertex and of the points asked for; u runs mirrored on the right side.
Result<std::string> mapText(const Skin& skin, const FlatPatch& flat, bool right,
                            const std::optional<std::string>& pointsPath) {
    std::string text = "x_mm,g_mm,u_mm,v_mm\n";
    const auto row = [&](const Vec2& xg, const Vec2& uv) {
        text += numberText(xg.x()) + "," + numberText(xg.y()) + "," + numberText(right ? -uv.x() : uv.x()) +
                "," + numberText(uv.y()) + "\n";
    };
    for (std::size_t i = 0; i < flat.map.size(); ++i) row(flat.patch.skin[i], flat.map[i]);
    if (!pointsPath) return text;
    const Result<std::string> file = readFile(*pointsPath);
    if (!file) return file.error();
    const Result<NumberTable> points =
        parseNumberTable(*file, {{"x_mm", "g_mm"}, 2, "table of points"}, *pointsPath, kMaxMapPoints);
    if (!points) return points.error();
    const SheetCarrier sheet(flat.patch.pairedWith(flat.map));
    for (std::size_t i = 0; i < points->rows.size(); ++i) {
        const SkinPoint p{Side::Left, points->rows[i][0], points->rows[i][1]};
        if (Status ok = skin.check(p, points->placeOf(*pointsPath, i)); !ok) return ok.error();
        row({p.x_mm, p.g_mm}, sheet.at(skin.at(p)));
    }
    return text;
}

std::string patchSvg(const FlatPatch& flat, const Skin& skin, bool right, const std::string& title) {
    Sheet sheet;
    sheet.outline = bordersOf(flat).front();
    const SheetMap drawnBy = sheetMapOf(flat);
    char name = 'A';
    for (const SkinPlace& mark : flat.patch.marks)
        if (const auto at = drawnBy.at(mark, skin.at({Side::Left, mark.x(), mark.y()})))
            sheet.marks.push_back({name++, mark, *at, "", 0});
    if (right) sheet = mirrored(std::move(sheet));
    Piece piece;
    piece.outline = sheet.outline;
    for (const RegistrationMark& mark : sheet.marks) {
        for (Polyline2& stroke : crossMark(mark.flat, mark.name, centroid(sheet.outline) - mark.flat))
            piece.pen.push_back(std::move(stroke));
    }
    writeLabel(piece, {{title + (right ? " R" : " L")}, Vec2(right ? 1 : -1, 0)});
    return svgText(drawPiece(piece, title));
}

struct Shape {
    bool isDisc;
    SideNumbers where;
};

Result<PatchMesh> meshOf(const Skin& skin, const Shape& shape, int count) {
    const auto& n = shape.where.numbers;
    return shape.isDisc ? meshPatch(skin, DiscPatch{n[0], n[1], n[2]}, count, "--disc")
                        : meshPatch(skin, BandPatch{n[0], n[1], n[2], n[3]}, count, "--patch");
}

Result<Reply> fitPatch(const Args& args, const Task& task) {
    // In one piece: the flags, then the reply field by field.
    const auto started = std::chrono::steady_clock::now();
    const bool isDisc = args.has("disc");
    if (isDisc && args.has("patch")) {
        return Error{"usage", NINE_WORDS("cli", "Give either --patch or --disc, not both."), "--disc"};
    }
    const std::string flag = isDisc ? "disc" : "patch";
    const Result<SideNumbers> shape = parseSideNumbers(*args.value(flag), isDisc ? 3 : 4, "--" + flag);
    if (!shape) return shape.error();
    const Result<SheetAsked> asked = sheetAsked(args);
    if (!asked) return asked.error();
    if (asked->relief > 0)
        return Error{
            "usage",
            NINE_WORDS("cli", "A number of slits goes with --kind side or wrap; a patch is fitted plain."),
            "--relief"};
    const Fraction limit = asked->limit;
    const Result<Body> body = loadBody(args.word(0));
    if (!body) return body.error();

    Result<PatchMesh> mesh = meshOf(body->skin, {isDisc, *shape}, asked->vertices);
    if (!mesh) return mesh.error();
    Warnings warnings = body->warnings;
    warnings.insert(warnings.end(), mesh->warnings.begin(), mesh->warnings.end());
    const Result<FlatPatch> flat = flattenPatch(std::move(*mesh), task);
    if (!flat) return flat.error();
    const Result<FitReport> report = judgeFit(body->skin, *flat, LaidOn(limit, asked->material.bending_nmm()),
                                              layingOf(asked->apply), {}, task);
    if (!report) return report.error();

    const bool right = shape->side == 'R';
    if (const auto path = args.value("map")) {
        const Result<std::string> text = mapText(body->skin, *flat, right, args.value("points"));
        if (!text) return text.error();
        if (Status written = writeFileAtomically(*path, *text); !written) return written.error();
    }
    if (const auto path = args.value("svg")) {
        const std::string svg = patchSvg(*flat, body->skin, right, body->job.get<BlankChapter>().name);
        if (Status written = writeFileAtomically(*path, svg); !written) return written.error();
    }
    Reply reply;
    reply.json = fitJson(*report);
    reply.json["time_ms"] = millisecondsSince(started);
    reply.json["warnings"] = warningsJson(warnings);
    MaskSpec named;
    named.name = "The patch";
    named.side = right ? Side::Right : Side::Left;
    named.wish.material = std::string(asked->material.id);
    reply.text = verdictOf(named, *report).plain() + "\n" + warningsText(warnings);
    reply.exitCode = report->liesFlat ? kDone : kFault;
    return reply;
}

Result<Reply> fitJob(const Args& args, const Task& task) {
    if (!isJobPath(args.word(0))) {
        return Error{"usage",
                     NINE_WORDS("cli",
                                "For a station table say which part to fit: --patch side,x0,x1,g0,g1 or "
                                "--disc side,x,g,r."),
                     "--patch"};
    }
    const auto started = std::chrono::steady_clock::now();
    const Result<int> vertices = args.whole("vertices", kFitVertices, 0, 1'000'000'000);
    if (!vertices) return vertices.error();
    const Result<LoadedJob> loaded = loadJob(args.word(0));
    if (!loaded) return loaded.error();
    Derivations derived;
    Result<MaskReplies> masks = describeMasks(derived.masks(loaded->job, *vertices, task));
    if (!masks) return withLine(masks.error(), args.word(0));
    Warnings warnings = loaded->warnings;
    warnings.insert(warnings.end(), masks->warnings.begin(), masks->warnings.end());
    Reply reply;
    reply.json = Json{{"masks", std::move(masks->masks)},
                      {"time_ms", millisecondsSince(started)},
                      {"warnings", warningsJson(warnings)}};
    reply.text = masks->text + warningsText(warnings);
    reply.exitCode = masks->allLieFlat ? kDone : kFault;
    return reply;
}

}  // namespace

Result<SheetAsked> sheetAsked(const Args& args) {
    const std::string materialId = args.value("material").value_or("film");
    const auto material = findMaterial(materialId);
    if (!material)
        return Error{"unknown_material",
                     Words(NINE_WORDS("cli", "\"{materialId}\" is not a known sheet material."))
                         .name("materialId", materialId),
                     "--material"};
    const Result<double> limit = args.number("strain", material->strainLimit);
    if (!limit) return limit.error();
    if (!(*limit > 0 && *limit <= 1)) {
        return Error{"out_of_range",
                     NINE_WORDS("cli", "--strain is a fraction above 0 and up to 1 (0.01 is one per cent)."),
                     "--strain"};
    }
    const Result<int> vertices = args.whole("vertices", kFitVertices, 0, 1'000'000'000);
    if (!vertices) return vertices.error();
    if (!(*vertices >= kMinPatchVertices && *vertices <= kMaxPatchVertices)) {
        return Error{"out_of_range", NINE_WORDS("cli", "--vertices must lie between 60 and 200000."),
                     "--vertices"};
    }
    const Result<Apply> apply = parseApply(args.value("apply").value_or("loose"));
    if (!apply) return apply.error();
    SheetAsked asked{*material, *limit, *vertices, *apply, -1};
    const std::string relief = args.value("relief").value_or("auto");
    if (relief == "none") {
        asked.relief = 0;
    } else if (relief != "auto") {
        const Result<int> count = args.whole("relief", 0, 1, 40);
        if (!count)
            return Error{"bad_value",
                         NINE_WORDS("cli", "--relief must be auto, none, or a number of slits from 1 to 40."),
                         "--relief"};
        asked.relief = *count;
    }
    return asked;
}

Json fitJson(const FitReport& r) {
    Json json{{"vertices", r.vertices},
              {"strain_max", r.strainMax},
              {"strain_p95", r.strainP95},
              {"strain_feasible_max", r.strainFeasibleMax},
              {"strain_limit", r.strainLimit},
              {"area_ratio_max", r.areaRatioMax},
              {"landing_rms_mm", r.landing.rms_mm},
              {"landing_max_mm", r.landing.max_mm},
              {"traced_rms_mm", nullptr},
              {"traced_max_mm", nullptr},
              {"lift_mm", r.lift_mm},
              {"bend_mm", r.bend_mm},
              {"hand_mm", r.hand_mm},
              {"relief_cuts", 0},
              {"lies_flat", r.liesFlat}};
    if (r.tracedKnown) {
        json["traced_rms_mm"] = r.traced.rms_mm;
        json["traced_max_mm"] = r.traced.max_mm;
    }
    return json;
}

Result<MaskReplies> describeMasks(const std::vector<MaskResult>& results) {
    MaskReplies replies;
    for (const MaskResult& result : results) {
        if (!result.spec->known()) continue;  // told when the job was read
        if (!result.mask) return result.mask.error();
        const Mask& mask = **result.mask;
        Json marks = Json::array();
        std::size_t windows = 0;
        for (std::size_t k = 0; k < mask.sheets.size(); ++k) {
            windows += mask.sheets[k].windows.size();
            for (const RegistrationMark& m : mask.sheets[k].marks) {
                marks.push_back({{"name", std::string(1, m.name)},
                                 {"x_mm", m.skin.x()},
                                 {"g_mm", m.skin.y()},
                                 {"u_mm", m.flat.x()},
                                 {"v_mm", m.flat.y()},
                                 {"landmark", m.landmark},
                                 {"distance_mm", m.distance_mm}});
                if (k > 0) marks.back()["sheet"] = k + 1;
            }
        }
        Json json{{"id", result.spec->id},
                  {"name", result.spec->shownName()},
                  {"side", std::string(1, sideLetter(result.spec->side))},
                  {"material", result.spec->wish.material},
                  {"apply", applyName(result.spec->wish.apply)},
                  {"windows", windows},
                  {"sheets", mask.sheets.size()}};
        json.update(fitJson(mask.report()));
        std::size_t slits = 0;
        for (const Sheet& sheet : mask.sheets) slits += sheet.slits.size();
        json["kind"] = result.spec->wish.kind;
        json["relief_cuts"] = slits;
        json["pieces"] = mask.sheets.size();
        json["marks"] = std::move(marks);
        json["press"] = Json::array();
        for (const Sheet& sheet : mask.sheets)
            for (const PressArea& area : sheet.press)
                json["press"].push_back(
                    {{"x_mm", area.x_mm}, {"width_mm", area.width_mm}, {"windows", area.windows}});
        json["steps"] = Json::array();
        for (const Sheet& sheet : mask.sheets)
            for (const CardStep& step : sheet.steps)
                json["steps"].push_back(
                    {{"x_mm", step.first.x()}, {"windows", step.windows}, {"off_mm", step.off_mm}});
        json["cutouts"] = cutoutsName(result.spec->cutouts);
        json["covers"] = coversName(result.spec->covers);
        replies.masks.push_back(std::move(json));
        replies.text += verdictOf(*result.spec, mask.report()).plain() + "\n";
        for (std::size_t k = 0; k < mask.sheets.size(); ++k) {
            const std::string which = k == 0 ? "" : "sheet " + std::to_string(k + 1) + ", ";
            for (const RegistrationMark& m : mask.sheets[k].marks)
                replies.text += "    " + which + "mark " + markSentence(m).plain() + "\n";
        }
        replies.allLieFlat = replies.allLieFlat && mask.report().liesFlat;
        replies.warnings.insert(replies.warnings.end(), result.warnings.begin(), result.warnings.end());
    }
    if (results.empty()) replies.text = "The pattern is empty: there are no masks to fit.\n";
    return replies;
}

Result<Reply> fit(const Arguments& words, const Task& task) {
    const Result<Args> args = Args::parse(words,
                                          {"patch", "disc", "kind", "seam", "material", "strain", "vertices",
                                           "relief", "apply", "svg", "map", "points", "borders"},
                                          {}, 1);
    if (!args) return args.error();
    if (args->has("kind")) return fitStrip(*args, task);
    return args->has("patch") || args->has("disc") ? fitPatch(*args, task) : fitJob(*args, task);
}

}  // namespace nine::cli
