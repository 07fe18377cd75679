#include "job/job_file.h"

#include "base/files.h"
#include "base/number_text.h"
#include "job/blank_file.h"
#include "job/element_json.h"
#include "job/json_fields.h"
#include "job/json_place.h"

namespace nine {
namespace {

using namespace json;

// Pattern
// --------------------------------------------------------------------------------------------------------

PatternChapter readPattern(const Value& json, Warnings& warnings) {
    Fields f(json, "pattern");
    PatternChapter pattern;
    f.read("name", pattern.name);
    if (const Value* ground = f.find("ground")) {
        Fields g(*ground, "pattern.ground");
        g.read("back", pattern.groundBack);
        g.read("side", pattern.groundSide);
        g.read("belly", pattern.groundBelly);
        pattern.groundUnknownJson = g.unknown();
    }
    if (const Value* elements = f.find("elements")) {
        for (const Value& element : needArray(*elements, "pattern.elements"))
            pattern.elements.push_back(std::make_shared<const Element>(
                readElement(element, indexed("pattern.elements", pattern.elements.size()), warnings)));
    }
    pattern.unknownJson = f.unknown();
    return pattern;
}

Json writePattern(const PatternChapter& pattern) {
    Json json = Json::object();
    if (!pattern.name.empty()) json["name"] = pattern.name;
    if (!(pattern.groundSide + pattern.groundBack + pattern.groundBelly + pattern.groundUnknownJson)
             .empty()) {
        json["ground"] = {
            {"back", pattern.groundBack}, {"side", pattern.groundSide}, {"belly", pattern.groundBelly}};
        addUnknown(json["ground"], pattern.groundUnknownJson);
    }
    json["elements"] = Json::array();
    for (const ElementPtr& e : pattern.elements) json["elements"].push_back(writeElement(*e));
    addUnknown(json, pattern.unknownJson);
    return json;
}

// Masks
// ----------------------------------------------------------------------------------------------------------

MaskSpec readMask(const Value& json, const std::string& path) {
    Fields f(json, path);
    MaskSpec spec;
    f.need("id");
    f.read("id", spec.id);
    f.read("name", spec.name);
    for (const Value& id : needArray(f.need("elements"), f.at("elements"))) {
        if (!id.isText())
            fail("bad_value", NINE_WORDS("core", "elements lists the ids of elements, in quotes."),
                 f.at("elements"));
        spec.elements.push_back(id.text());
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
    if (!found)
        fail("bad_value", NINE_WORDS("core", "apply must be \"loose\", \"lateral\" or \"back\"."),
             f.at("apply"));
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

CutChapter readCut(const Value& json) {
    Fields f(json, "cut");
    CutChapter cut;
    if (const Value* sheet = f.find("sheet")) {
        Fields s(*sheet, "cut.sheet");
        cut.sheet = {s.number("width_mm"), s.number("height_mm")};
        if (Status ok = checkSheet(cut.sheet, "cut.sheet"); !ok) throw Bad{ok.error()};
        cut.sheetUnknownJson = s.unknown();
    }
    if (const Value* places = f.find("places")) {
        for (const Value& item : needArray(*places, "cut.places")) {
            Fields p(item, indexed("cut.places", cut.places.size()));
            PiecePlace place;
            p.need("mask");
            p.read("mask", place.piece);
            int page = 1;
            p.read("sheet", page);
            if (page < 1 || page > static_cast<int>(kMaxPages))
                fail("bad_value",
                     Words(NINE_WORDS("core", "Sheets count from 1 to {most}.")).number("most", kMaxPages, 0),
                     p.at("sheet"));
            place.page = static_cast<std::size_t>(page - 1);
            place.middle_mm = {p.number("x_mm"), p.number("y_mm")};
            place.unknownJson = p.unknown();
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
    if (cut.sheet.width_mm != usual.width_mm || cut.sheet.height_mm != usual.height_mm ||
        !cut.sheetUnknownJson.empty()) {
        json["sheet"] = {{"width_mm", cut.sheet.width_mm}, {"height_mm", cut.sheet.height_mm}};
        addUnknown(json["sheet"], cut.sheetUnknownJson);
    }
    for (const PiecePlace& place : cut.places) {
        Json entry{{"mask", place.piece},
                   {"sheet", place.page + 1},
                   {"x_mm", place.middle_mm.x()},
                   {"y_mm", place.middle_mm.y()}};
        addUnknown(entry, place.unknownJson);
        json["places"].push_back(std::move(entry));
    }
    addUnknown(json, cut.unknownJson);
    return json;
}

// Spray
// ----------------------------------------------------------------------------------------------------------

SprayPins readPins(Fields& f) {
    SprayPins pins;
    f.read("pressure_kpa", pins.pressure_kpa);
    f.read("needle_mm", pins.needle_mm);
    f.read("distance_mm", pins.distance_mm);
    f.read("angle_deg", pins.angle_deg);
    f.read("flow_ml_min", pins.flow_ml_min);
    f.read("speed_mm_s", pins.speed_mm_s);
    f.read("aim_mm", pins.aim_mm);
    if (const Value* drops = f.find("reduction")) pins.reduction = readReduction(*drops, f.at("reduction"));
    if (f.find("coats")) f.read("coats", pins.coats.emplace());
    std::string stroke;
    f.read("stroke", stroke);
    if (!stroke.empty() && stroke != "along" && stroke != "across")
        fail("bad_value", NINE_WORDS("core", "stroke is \"along\" or \"across\" the edge."), f.at("stroke"));
    if (!stroke.empty()) pins.stroke = stroke == "along" ? Stroke::Along : Stroke::Across;
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

SprayChapter readSpray(const Value& json, Warnings& warnings) {
    SprayChapter spray;
    for (const Value& item : needArray(json, "spray")) {
        Fields f(item, indexed("spray", spray.masks.size()));
        SpraySpec spec;
        f.need("mask");
        f.read("mask", spec.mask);
        f.read("paint", spec.paint);
        f.read("soft_mm", spec.soft_mm);
        f.read("pads_mm", spec.pads_mm);
        f.read("relief_mm", spec.relief_mm);
        if (const Value* pins = f.find("pins")) {
            Fields p(*pins, f.at("pins"));
            spec.pins = readPins(p);
            spec.unknownPinsJson = p.unknown();
            if (!spec.unknownPinsJson.empty())
                warnings.push_back(
                    {"unknown_pin",
                     Words(NINE_WORDS("core",
                                      "Something is pinned here that this version of the program does not "
                                      "know: {pins}. It is kept, but the plan does not heed it."))
                         .name("pins", spec.unknownPinsJson),
                     f.at("pins")});
        }
        // Also understood beside the pins: a reduction of one's own is one.
        if (const Value* drops = f.find("reduction"))
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
        if (!spec.pins.empty() || !spec.unknownPinsJson.empty()) {
            json["pins"] = writePins(spec.pins);
            addUnknown(json["pins"], spec.unknownPinsJson);
        }
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

LoadedJob readJob(const Value& json) {
    Fields f(json, "");
    LoadedJob loaded;
    const Value* format = f.find("format");
    if (!format || !format->isNumber())
        fail("not_a_job", NINE_WORDS("core", "This is not a Nine Leaves job: it has no format number."),
             "format");
    const auto version = format->whole();
    const auto about = format->number();  // of one beyond 64 bits
    if (version ? *version > kJobFormat : about && *about > kJobFormat) {
        fail("newer_format",
             Words(NINE_WORDS("core",
                              "This job was written by a newer version (format {format}; this one knows "
                              "up to {known}). Open it with that version."))
                 .name("format", std::string(format->raw()))
                 .number("known", kJobFormat, 0),
             "format");
    }
    if (!version || *version < 1)
        fail("not_a_job", NINE_WORDS("core", "The format number must be a whole one from 1 on."), "format");

    BlankChapter blank = readBlank(f.need("blank"));
    const Result<Skin> skin = Skin::of(blank.table);
    if (!skin) throw Bad{skin.error()};
    raise(checkLandmarks(*skin, blank.landmarks));
    raise(checkZones(*skin, blank.zones));
    loaded.warnings = doubtsAbout(blank.table);
    loaded.job.blank = std::make_shared<const BlankChapter>(std::move(blank));
    if (const Value* pattern = f.find("pattern")) {
        loaded.job.pattern = std::make_shared<const PatternChapter>(readPattern(*pattern, loaded.warnings));
    }
    if (const Value* masks = f.find("masks")) {
        MasksChapter chapter;
        for (const Value& mask : needArray(*masks, "masks"))
            chapter.masks.push_back(
                std::make_shared<const MaskSpec>(readMask(mask, indexed("masks", chapter.masks.size()))));
        loaded.job.masks = std::make_shared<const MasksChapter>(std::move(chapter));
    }
    if (const Value* cut = f.find("cut")) loaded.job.cut = std::make_shared<const CutChapter>(readCut(*cut));
    if (const Value* spray = f.find("spray"))
        loaded.job.spray = std::make_shared<const SprayChapter>(readSpray(*spray, loaded.warnings));
    loaded.job.unknownJson = f.unknown();
    raise(checkJob(loaded.job));
    return loaded;
}

}  // namespace

Result<LoadedJob> parseJob(std::string_view text, const std::string& source) {
    return readText<LoadedJob>(text, source, "job file", readJob);
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
    return textOf(json);
}

Result<LoadedJob> loadJob(const std::string& path) {
    const Result<std::string> text = readFile(path);
    if (!text) return text.error();
    return parseJob(*text, path);
}

Status saveJob(const Job& job, const std::string& path, Readers readers) {
    const std::string text = jobText(job);
    if (text.size() > kMaxTextFileBytes)
        return Error{"too_large",
                     Words(NINE_WORDS("core",
                                      "The job takes {size} MB, more than the {most} MB that can "
                                      "be read again; nothing was written. Leave out a picture or what was "
                                      "pasted in."))
                         .number("size", text.size() >> 20, 0)
                         .number("most", kMaxTextFileBytes >> 20, 0),
                     path};
    return writeFileAtomically(path, text, readers);
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
