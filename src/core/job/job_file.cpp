#include "job/job_file.h"

#include "base/files.h"
#include "base/number_text.h"
#include "job/blank_file.h"
#include "job/json_fields.h"
#include "job/json_place.h"

namespace nine {
namespace {

using namespace json;

// Pattern
// --------------------------------------------------------------------------------------------------------

Element readElement(const Json& json, const std::string& path) {
    Fields f(json, path);
    Element e;
    std::string kind;
    f.need("id");
    f.need("kind");
    f.read("id", e.id);
    f.read("name", e.name);
    f.read("kind", kind);
    f.read("side", e.side);
    f.read("linked", e.linked);
    f.read("anchor", e.anchor);
    f.read("dx_mm", e.dx_mm);
    f.read("dg_mm", e.dg_mm);
    f.read("colour", e.colour);
    if (kind == "dot_row") {
        DotRow dots;
        f.read("count", dots.count);
        f.read("spacing_mm", dots.spacing_mm);
        f.read("first_mm", dots.first_mm);
        dots.last_mm = dots.first_mm;
        f.read("last_mm", dots.last_mm);
        f.read("bow_mm", dots.bow_mm);
        e.shape = dots;
    } else if (kind == "bars") {
        Bars bars;
        f.read("count", bars.count);
        f.read("spacing_mm", bars.spacing_mm);
        f.read("width_back_mm", bars.widthBack_mm);
        bars.widthBelly_mm = bars.widthBack_mm;
        f.read("width_belly_mm", bars.widthBelly_mm);
        f.read("g0_mm", bars.g0_mm);
        f.read("g1_mm", bars.g1_mm);
        e.shape = bars;
    } else if (kind == "gill_mark") {
        GillMark mark;
        f.read("width_mm", mark.width_mm);
        f.read("from", mark.from);
        f.read("to", mark.to);
        f.read("pair_mm", mark.pair_mm);
        f.read("pair_colour", mark.pairColour);
        e.shape = mark;
    } else {
        fail("unknown_kind",
             "\"" + kind + "\" is not an element this version knows; it knows dot_row, bars and gill_mark.",
             f.at("kind"));
    }
    e.unknownJson = f.unknown();
    return e;
}

Json writeElement(const Element& e) {
    Json json{{"id", e.id}};
    if (!e.name.empty()) json["name"] = e.name;
    json["kind"] = kindName(e);
    json["side"] = std::string(1, sideLetter(e.side));
    json["linked"] = e.linked;
    if (!e.anchor.empty()) json["anchor"] = e.anchor;
    json["dx_mm"] = e.dx_mm;
    json["dg_mm"] = e.dg_mm;
    if (!e.colour.empty()) json["colour"] = e.colour;
    if (const auto* dots = std::get_if<DotRow>(&e.shape)) {
        json["count"] = dots->count;
        json["spacing_mm"] = dots->spacing_mm;
        json["first_mm"] = dots->first_mm;
        json["last_mm"] = dots->last_mm;
        json["bow_mm"] = dots->bow_mm;
    } else if (const auto* mark = std::get_if<GillMark>(&e.shape)) {
        json["width_mm"] = mark->width_mm;
        json["from"] = mark->from;
        json["to"] = mark->to;
        json["pair_mm"] = mark->pair_mm;
        json["pair_colour"] = mark->pairColour;
    } else {
        const Bars& bars = std::get<Bars>(e.shape);
        json["count"] = bars.count;
        json["spacing_mm"] = bars.spacing_mm;
        json["width_back_mm"] = bars.widthBack_mm;
        json["width_belly_mm"] = bars.widthBelly_mm;
        json["g0_mm"] = bars.g0_mm;
        json["g1_mm"] = bars.g1_mm;
    }
    addUnknown(json, e.unknownJson);
    return json;
}

PatternChapter readPattern(const Json& json) {
    Fields f(json, "pattern");
    PatternChapter pattern;
    f.read("name", pattern.name);
    if (const Json* ground = f.find("ground")) {
        Fields g(*ground, "pattern.ground");
        g.read("back", pattern.groundBack);
        g.read("side", pattern.groundSide);
        g.read("belly", pattern.groundBelly);
    }
    if (const Json* elements = f.find("elements")) {
        needArray(*elements, "pattern.elements");
        for (std::size_t i = 0; i < elements->size(); ++i) {
            pattern.elements.push_back(
                std::make_shared<const Element>(readElement((*elements)[i], indexed("pattern.elements", i))));
        }
    }
    pattern.unknownJson = f.unknown();
    return pattern;
}

Json writePattern(const PatternChapter& pattern) {
    Json json = Json::object();
    if (!pattern.name.empty()) json["name"] = pattern.name;
    if (!pattern.groundSide.empty()) {
        json["ground"] = {
            {"back", pattern.groundBack}, {"side", pattern.groundSide}, {"belly", pattern.groundBelly}};
    }
    json["elements"] = Json::array();
    for (const ElementPtr& e : pattern.elements) json["elements"].push_back(writeElement(*e));
    addUnknown(json, pattern.unknownJson);
    return json;
}

// Masks
// ----------------------------------------------------------------------------------------------------------

MaskSpec readMask(const Json& json, const std::string& path) {
    Fields f(json, path);
    MaskSpec spec;
    f.need("id");
    f.read("id", spec.id);
    f.read("name", spec.name);
    const Json& elements = needArray(f.need("elements"), f.at("elements"));
    for (const Json& id : elements) {
        if (!id.is_string())
            fail("bad_value", "elements lists the ids of elements, in quotes.", f.at("elements"));
        spec.elements.push_back(id.get<std::string>());
    }
    f.read("side", spec.side);
    f.read("material", spec.material);
    std::string apply = applyName(spec.apply);
    f.read("apply", apply);
    bool found = false;
    for (const Apply a : {Apply::Loose, Apply::Lateral, Apply::Back}) {
        if (apply != applyName(a)) continue;
        spec.apply = a;
        found = true;
    }
    if (!found) fail("bad_value", "apply must be \"loose\", \"lateral\" or \"back\".", f.at("apply"));
    f.read("margin_mm", spec.margin_mm);
    spec.unknownJson = f.unknown();
    return spec;
}

Json writeMask(const MaskSpec& spec) {
    Json json{{"id", spec.id}};
    if (!spec.name.empty()) json["name"] = spec.name;
    json["elements"] = spec.elements;
    json["side"] = std::string(1, sideLetter(spec.side));
    json["material"] = spec.material;
    json["apply"] = applyName(spec.apply);
    json["margin_mm"] = spec.margin_mm;
    addUnknown(json, spec.unknownJson);
    return json;
}

// Cut
// ------------------------------------------------------------------------------------------------------------

CutChapter readCut(const Json& json) {
    Fields f(json, "cut");
    CutChapter cut;
    if (const Json* sheet = f.find("sheet")) {
        Fields s(*sheet, "cut.sheet");
        cut.sheet = {s.number("width_mm"), s.number("height_mm")};
        if (Status ok = checkSheet(cut.sheet, "cut.sheet"); !ok) throw Bad{ok.error()};
    }
    if (const Json* places = f.find("places")) {
        needArray(*places, "cut.places");
        for (std::size_t i = 0; i < places->size(); ++i) {
            Fields p((*places)[i], indexed("cut.places", i));
            PiecePlace place;
            p.need("mask");
            p.read("mask", place.piece);
            int page = 1;
            p.read("sheet", page);
            if (page < 1 || page > static_cast<int>(kMaxPages))
                fail("bad_value", "Sheets count from 1 to " + std::to_string(kMaxPages) + ".", p.at("sheet"));
            place.page = static_cast<std::size_t>(page - 1);
            place.middle_mm = {p.number("x_mm"), p.number("y_mm")};
            cut.places.push_back(std::move(place));
        }
    }
    cut.unknownJson = f.unknown();
    return cut;
}

/// Nothing for a chapter that says nothing.
Json writeCut(const CutChapter& cut) {
    Json json = Json::object();
    const SheetSize usual;
    if (cut.sheet.width_mm != usual.width_mm || cut.sheet.height_mm != usual.height_mm)
        json["sheet"] = {{"width_mm", cut.sheet.width_mm}, {"height_mm", cut.sheet.height_mm}};
    for (const PiecePlace& place : cut.places) {
        json["places"].push_back({{"mask", place.piece},
                                  {"sheet", place.page + 1},
                                  {"x_mm", place.middle_mm.x()},
                                  {"y_mm", place.middle_mm.y()}});
    }
    addUnknown(json, cut.unknownJson);
    return json;
}

// Spray
// ----------------------------------------------------------------------------------------------------------

SprayPins readPins(const Json& json, const std::string& path) {
    Fields f(json, path);
    SprayPins pins;
    f.read("pressure_kpa", pins.pressure_kpa);
    f.read("needle_mm", pins.needle_mm);
    f.read("distance_mm", pins.distance_mm);
    f.read("angle_deg", pins.angle_deg);
    f.read("flow_ml_min", pins.flow_ml_min);
    f.read("speed_mm_s", pins.speed_mm_s);
    f.read("aim_mm", pins.aim_mm);
    if (const Json* drops = f.find("reduction")) pins.reduction = readReduction(*drops, f.at("reduction"));
    if (f.find("coats")) f.read("coats", pins.coats.emplace());
    std::string stroke;
    f.read("stroke", stroke);
    if (!stroke.empty() && stroke != "along" && stroke != "across")
        fail("bad_value", "stroke is \"along\" or \"across\" the edge.", f.at("stroke"));
    if (!stroke.empty()) pins.stroke = stroke == "along" ? Stroke::Along : Stroke::Across;
    const std::string unknown = f.unknown();
    if (!unknown.empty()) fail("bad_value", "There is no such pin: " + unknown + ".", path);
    return pins;
}

Json writePins(const SprayPins& pins) {
    Json json = Json::object();
    const auto put = [&](const char* key, const std::optional<double>& v) {
        if (v) json[key] = *v;
    };
    put("pressure_kpa", pins.pressure_kpa);
    put("needle_mm", pins.needle_mm);
    put("distance_mm", pins.distance_mm);
    put("angle_deg", pins.angle_deg);
    put("flow_ml_min", pins.flow_ml_min);
    put("speed_mm_s", pins.speed_mm_s);
    put("aim_mm", pins.aim_mm);
    if (pins.reduction) json["reduction"] = {pins.reduction->paint, pins.reduction->reducer};
    if (pins.coats) json["coats"] = *pins.coats;
    if (pins.stroke) json["stroke"] = *pins.stroke == Stroke::Along ? "along" : "across";
    return json;
}

SprayChapter readSpray(const Json& json) {
    SprayChapter spray;
    needArray(json, "spray");
    for (std::size_t i = 0; i < json.size(); ++i) {
        Fields f(json[i], indexed("spray", i));
        SpraySpec spec;
        f.need("mask");
        f.read("mask", spec.mask);
        f.read("paint", spec.paint);
        f.read("soft_mm", spec.soft_mm);
        f.read("pads_mm", spec.pads_mm);
        f.read("relief_mm", spec.relief_mm);
        if (const Json* pins = f.find("pins")) spec.pins = readPins(*pins, f.at("pins"));
        // Also understood beside the pins: a reduction of one's own is one.
        if (const Json* drops = f.find("reduction"))
            spec.pins.reduction = readReduction(*drops, f.at("reduction"));
        spec.unknownJson = f.unknown();
        spray.masks.push_back(std::move(spec));
    }
    return spray;
}

Json writeSpray(const SprayChapter& spray) {
    Json list = Json::array();
    for (const SpraySpec& spec : spray.masks) {
        Json json{{"mask", spec.mask}, {"paint", spec.paint}};
        if (spec.soft_mm) json["soft_mm"] = *spec.soft_mm;
        if (spec.pads_mm != 0) json["pads_mm"] = spec.pads_mm;
        if (spec.relief_mm != 0) json["relief_mm"] = spec.relief_mm;
        if (!spec.pins.empty()) json["pins"] = writePins(spec.pins);
        addUnknown(json, spec.unknownJson);
        list.push_back(std::move(json));
    }
    return list;
}

// The whole
// ------------------------------------------------------------------------------------------------------

void raise(const Status& status) {
    if (!status) throw Bad{status.error()};
}

LoadedJob readJob(const Json& json) {
    Fields f(json, "");
    LoadedJob loaded;
    const Json* format = f.find("format");
    if (!format || !format->is_number_integer()) {
        fail("not_a_job", "This is not a Nine Leaves job: it has no format number.", "format");
    }
    if (format->get<int>() > kJobFormat) {
        fail("newer_format",
             "This job was written by a newer version (format " + std::to_string(format->get<int>()) +
                 "; this one knows up to " + std::to_string(kJobFormat) + "). Open it with that version.",
             "format");
    }
    if (format->get<int>() < 1) fail("not_a_job", "The format number must be 1 or more.", "format");

    BlankChapter blank = readBlank(f.need("blank"));
    const Result<Skin> skin = Skin::of(blank.table);
    if (!skin) throw Bad{skin.error()};
    raise(checkLandmarks(*skin, blank.landmarks));
    raise(checkZones(*skin, blank.zones));
    loaded.warnings = doubtsAbout(blank.table);
    loaded.job.blank = std::make_shared<const BlankChapter>(std::move(blank));
    if (const Json* pattern = f.find("pattern")) {
        loaded.job.pattern = std::make_shared<const PatternChapter>(readPattern(*pattern));
    }
    if (const Json* masks = f.find("masks")) {
        MasksChapter chapter;
        needArray(*masks, "masks");
        for (std::size_t i = 0; i < masks->size(); ++i) {
            chapter.masks.push_back(
                std::make_shared<const MaskSpec>(readMask((*masks)[i], indexed("masks", i))));
        }
        loaded.job.masks = std::make_shared<const MasksChapter>(std::move(chapter));
    }
    if (const Json* cut = f.find("cut")) loaded.job.cut = std::make_shared<const CutChapter>(readCut(*cut));
    if (const Json* spray = f.find("spray"))
        loaded.job.spray = std::make_shared<const SprayChapter>(readSpray(*spray));
    loaded.job.unknownJson = f.unknown();
    raise(checkJob(loaded.job));
    return loaded;
}

}  // namespace

Result<LoadedJob> parseJob(std::string_view text, const std::string& source) {
    const auto at = [&](std::size_t line) { return source + ":" + std::to_string(line); };
    Json json;
    try {
        json = Json::parse(text);
    } catch (const Json::parse_error& problem) {
        const std::size_t offset = std::min(problem.byte > 0 ? problem.byte - 1 : 0, text.size());
        const std::string key = lastKeyBefore(text, offset);
        const bool cutShort = text.find_first_not_of(" \t\r\n", offset) == std::string_view::npos;
        std::string sentence = text.empty() ? "The file is empty; a job file was expected."
                               : cutShort
                                   ? "The job file breaks off before its end; it was probably cut short. Use "
                                     "a backup or the autosaved copy."
                                   : "The job file is damaged here: this is not well-formed JSON.";
        return Error{"bad_json", sentence, at(lineAt(text, offset)) + (key.empty() ? "" : " " + key)};
    } catch (const Json::exception&) {
        return Error{"bad_json", "The job file holds a number or text that cannot be read.", at(1)};
    }
    try {
        return readJob(json);
    } catch (const Bad& bad) {
        Error error = bad.error;
        error.where = at(lineOfField(text, error.where)) + " " + error.where;
        return error;
    } catch (const Json::exception&) {
        return Error{"bad_json", "The job file holds a number or text that cannot be read.", at(1)};
    }
}

std::string jobText(const Job& job) {
    Json json{
        {"format", kJobFormat}, {"blank", writeBlank(*job.blank)}, {"pattern", writePattern(*job.pattern)}};
    if (!job.masks->masks.empty()) {
        json["masks"] = Json::array();
        for (const MaskSpecPtr& spec : job.masks->masks) json["masks"].push_back(writeMask(*spec));
    }
    if (Json cut = writeCut(*job.cut); !cut.empty()) json["cut"] = std::move(cut);
    if (!job.spray->masks.empty()) json["spray"] = writeSpray(*job.spray);
    addUnknown(json, job.unknownJson);
    return json.dump(1, ' ', false, Json::error_handler_t::replace) + "\n";
}

Result<LoadedJob> loadJob(const std::string& path) {
    const Result<std::string> text = readFile(path);
    if (!text) return text.error();
    return parseJob(*text, path);
}

Status saveJob(const Job& job, const std::string& path) {
    return writeFileAtomically(path, jobText(job));
}

Error withLine(Error error, const std::string& path) {
    const auto startsWith = [&](const char* chapter) { return error.where.rfind(chapter, 0) == 0; };
    if (!startsWith("blank") && !startsWith("pattern") && !startsWith("masks") && !startsWith("cut") &&
        !startsWith("spray"))
        return error;
    if (const Result<std::string> text = readFile(path)) {
        error.where = path + ":" + std::to_string(lineOfField(*text, error.where)) + " " + error.where;
    }
    return error;
}

Job jobOfBlank(std::string name, StationTable table) {
    return withBlank(Job{},
                     BlankChapter{std::move(name), std::move(table), {}, {}, {}, {}, "readings", {}, {}});
}

}  // namespace nine
