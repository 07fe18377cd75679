// fit --kind: a whole side or a whole body, with the slits or pieces its material needs
#include <chrono>

#include "base/files.h"
#include "base/number_text.h"
#include "cli/body.h"
#include "cli/fit_json.h"
#include "mask/mask.h"
#include "mask/material_answer.h"
#include "mask/press.h"

namespace nine::cli {
namespace {

const char* howName(MaterialAnswer::How how) {
    switch (how) {
        case MaterialAnswer::How::Plain:
            return "plain";
        case MaterialAnswer::How::Slits:
            return "slits";
        case MaterialAnswer::How::Halves:
            return "halves";
        case MaterialAnswer::How::Strips:
            return "strips";
        case MaterialAnswer::How::Pieces:
            return "pieces";
        default:
            return "patches";
    }
}

Json pointsJson(const Polyline2& line) {
    Json points = Json::array();
    for (const Vec2& p : line) points.push_back({p.x(), p.y()});
    return points;
}

/// All sheets beside each other on one page.
std::string sheetsSvg(const Mask& mask, const std::string& title) {
    const std::vector<Vec2> shifts = sideBySide(mask);
    PolygonSet everything;
    for (std::size_t k = 0; k < mask.sheets.size(); ++k)
        for (Vec2 p : mask.sheets[k].outline) {
            if (everything.empty()) everything.emplace_back();
            everything[0].push_back(p + shifts[k]);
        }
    constexpr double kRoom_mm = 4;
    const Box2 box = boxAround(everything);
    const Vec2 origin = box.low - Vec2(kRoom_mm, kRoom_mm);
    Drawing drawing{title, box.size() + 2 * Vec2(kRoom_mm, kRoom_mm), {{"CUT", {}}, {"PEN", {}}}};
    for (std::size_t k = 0; k < mask.sheets.size(); ++k) {
        const Sheet& sheet = mask.sheets[k];
        const Vec2 by = shifts[k] - origin;
        const auto add = [&](std::size_t layer, Polyline2 line, bool closed) {
            for (Vec2& p : line) p += by;
            drawing.layers[layer].lines.push_back({std::move(line), closed});
        };
        add(0, sheet.outline, true);
        for (const RegistrationMark& mark : sheet.marks)
            for (Polyline2& stroke : crossMark(mark.flat, mark.name, centroid(sheet.outline) - mark.flat))
                add(1, std::move(stroke), false);
    }
    return svgText(drawing);
}

/// loop,u_mm,v_mm: the borders of a flat sheet, lips of slits included, as `land` reads them.
std::string bordersText(const FlatPatch& flat) {
    std::string text = "loop,u_mm,v_mm\n";
    for (std::size_t k = 0; k < flat.patch.loops.size(); ++k)
        for (const int v : flat.patch.loops[k]) {
            const Vec2& p = flat.map[static_cast<std::size_t>(v)];
            text += std::to_string(k) + "," + numberText(p.x()) + "," + numberText(p.y()) + "\n";
        }
    return text;
}

std::string mapText(const FlatPatch& flat) {
    std::string text = "x_mm,g_mm,u_mm,v_mm\n";
    for (std::size_t i = 0; i < flat.map.size(); ++i)
        text += numberText(flat.patch.skin[i].x()) + "," + numberText(flat.patch.skin[i].y()) + "," +
                numberText(flat.map[i].x()) + "," + numberText(flat.map[i].y()) + "\n";
    return text;
}

Status writeFiles(const Args& args, const Mask& mask, const std::string& title) {
    if (const auto path = args.value("svg"))
        if (Status ok = writeFileAtomically(*path, sheetsSvg(mask, title)); !ok) return ok;
    const FlatPatch& first = *mask.sheets.front().flat;
    if (const auto path = args.value("map"))
        if (Status ok = writeFileAtomically(*path, mapText(first)); !ok) return ok;
    if (const auto path = args.value("borders"))
        if (Status ok = writeFileAtomically(*path, bordersText(first)); !ok) return ok;
    return Done{};
}

Json sheetsJson(const std::vector<SheetPlan>& plans, const Mask& mask) {
    Json sheets = Json::array();
    for (std::size_t k = 0; k < mask.sheets.size(); ++k) {
        const Sheet& sheet = mask.sheets[k];
        Json slits = Json::array(), marks = Json::array();
        for (const Slit& slit : plans[k].region.slits) slits.push_back(pointsJson(slit.line));
        for (const RegistrationMark& mark : sheet.marks)
            marks.push_back({{"name", std::string(1, mark.name)},
                             {"x_mm", mark.skin.x()},
                             {"g_mm", mark.skin.y()},
                             {"u_mm", mark.flat.x()},
                             {"v_mm", mark.flat.y()}});
        const Box2 box = boxAround({sheet.outline});
        sheets.push_back({{"width_mm", box.size().x()},
                          {"height_mm", box.size().y()},
                          {"slits", std::move(slits)},
                          {"marks", std::move(marks)}});
    }
    return sheets;
}

Result<MaterialAnswer> answered(const Skin& skin, const std::string& kind, Seam seam, const SheetAsked& asked,
                                const Task& task) {
    ReliefWish wish;
    wish.exactly = std::max(0, asked.relief);
    if (kind == "wrap" && asked.relief != 0) return answerOfWrap(skin, seam, asked.limit, wish, task);
    const Strip strip = kind == "wrap" ? wrapStrip(skin, seam) : sideStrip(skin);
    if (asked.relief != 0) return answerOf(skin, strip, asked.limit, wish, task);
    MaterialAnswer plain{MaterialAnswer::How::Plain, {}, {sheetOf(skin, strip)}, 0};
    return plain;
}

}  // namespace

Result<Reply> fitStrip(const Args& args, const Task& task) {
    // In one piece: flags, answer, the real sheets, the reply.
    const auto started = std::chrono::steady_clock::now();
    const std::string kind = *args.value("kind");
    if (kind != "side" && kind != "wrap")
        return Error{"bad_value",
                     NINE_WORDS("cli", "--kind must be side (one side) or wrap (the whole body)."), "--kind"};
    const std::string seamWord = args.value("seam").value_or("belly");
    if (seamWord != "belly" && seamWord != "back")
        return Error{"bad_value", NINE_WORDS("cli", "--seam must be belly or back."), "--seam"};
    if (args.has("patch") || args.has("disc"))
        return Error{"usage", NINE_WORDS("cli", "Give either --kind, --patch or --disc."), "--kind"};
    const Result<SheetAsked> asked = sheetAsked(args);
    if (!asked) return asked.error();
    const Result<Body> body = loadBody(args.word(0));
    if (!body) return body.error();
    const Seam seam = seamWord == "back" ? Seam::Back : Seam::Belly;
    const Result<MaterialAnswer> answer = answered(body->skin, kind, seam, *asked, task);
    if (!answer) return answer.error();
    const Landmarks& landmarks = body->job.get<BlankChapter>().landmarks;
    Result<Mask> mask = cutSheets(body->skin, landmarks, answer->sheets, asked->limit, asked->vertices,
                                  Precision::Exact, "--kind", task);
    if (!mask) return mask.error();
    MaskWish wish;
    wish.material = std::string(asked->material.id);
    wish.apply = asked->apply;
    mask = judgedMask(body->skin, {}, wish, std::move(*mask), task);
    if (!mask) return mask.error();
    const std::string title = body->job.get<BlankChapter>().name + " " + kind;
    if (Status ok = writeFiles(args, *mask, title); !ok) return ok.error();

    const bool halves = answer->how == MaterialAnswer::How::Halves;
    const FitReport report = mask->report();
    Reply reply;
    reply.json = fitJson(report);
    reply.json["kind"] = kind;
    reply.json["answer"] = asked->relief == 0 && !report.liesFlat ? "none" : howName(answer->how);
    reply.json["relief_cuts"] = (halves ? 2 : 1) * answer->slits();
    reply.json["pieces"] = (halves ? 2 : 1) * answer->sheets.size();
    reply.json["strain_plain"] = answer->plan.before > 0 ? answer->plan.before : report.strainFeasibleMax;
    reply.json["widest_mouth_mm"] = answer->plan.widestMouth_mm;
    reply.json["patch_mm"] = answer->patch_mm > 0 ? Json(answer->patch_mm) : Json(nullptr);
    reply.json["sheets"] = sheetsJson(answer->sheets, *mask);
    Json press = Json::array();
    if (!report.liesFlat)
        for (const PressPlace& place :
             pressPlan(body->skin, sideStrip(body->skin).x0_mm, sideStrip(body->skin).x1_mm, 0))
            press.push_back({{"x_mm", place.x_mm}, {"width_mm", place.width_mm}});
    reply.json["press"] = std::move(press);
    reply.json["time_ms"] =
        std::chrono::duration<double, std::milli>(std::chrono::steady_clock::now() - started).count();
    Warnings warnings = body->warnings;
    warnings.insert(warnings.end(), mask->warnings.begin(), mask->warnings.end());
    reply.json["warnings"] = warningsJson(warnings);
    reply.text = asked->relief == 0 ? "" : answerSentence(*answer, asked->material).plain() + "\n";
    MaskSpec named;
    named.name = kind == "wrap" ? "The wrap" : "The side";
    named.wish.material = wish.material;
    reply.text += verdictOf(named, report).plain() + "\n" + warningsText(warnings);
    reply.exitCode = report.liesFlat ? kDone : kFault;
    return reply;
}

}  // namespace nine::cli
