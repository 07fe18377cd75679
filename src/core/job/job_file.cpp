#include "job/job_file.h"

#include <cmath>
#include <nlohmann/json.hpp>

#include "base/files.h"
#include "base/number_text.h"
#include "job/json_place.h"

namespace nine {
namespace {

using Json = nlohmann::ordered_json;

/// Thrown only inside this file and turned into a Result at its edge.
struct Bad {
    Error error;
};

[[noreturn]] void fail(const char* code, std::string text, std::string where) {
    throw Bad{{code, std::move(text), std::move(where)}};
}

/// One JSON object while it is read: hands out known fields and keeps the rest.
class Fields {
  public:
    Fields(const Json& json, std::string path) : json_(json), path_(std::move(path)) {
        if (!json.is_object()) fail("bad_value", "Here should stand an object in braces { }.", path_);
    }

    std::string at(const char* key) const { return path_.empty() ? key : path_ + "." + key; }

    const Json* find(const char* key) {
        known_.push_back(key);
        const auto it = json_.find(key);
        return it == json_.end() ? nullptr : &*it;
    }
    const Json& need(const char* key) {
        const Json* found = find(key);
        if (!found) fail("missing", std::string("The field ") + key + " is missing.", at(key));
        return *found;
    }

    double number(const Json& value, const char* key) const {
        if (!value.is_number() || !std::isfinite(value.get<double>())) {
            fail("bad_value", std::string(key) + " must be a number.", at(key));
        }
        return value.get<double>();
    }
    double number(const char* key) { return number(need(key), key); }
    void read(const char* key, double& into) {
        if (const Json* v = find(key)) into = number(*v, key);
    }
    void read(const char* key, int& into) {
        const Json* v = find(key);
        if (!v) return;
        const double value = number(*v, key);
        if (value != std::floor(value) || std::abs(value) > 1e6) {
            fail("bad_value", std::string(key) + " must be a whole number.", at(key));
        }
        into = static_cast<int>(value);
    }
    void read(const char* key, std::string& into) {
        const Json* v = find(key);
        if (!v) return;
        if (!v->is_string()) fail("bad_value", std::string(key) + " must be a text in quotes.", at(key));
        into = v->get<std::string>();
    }
    void read(const char* key, bool& into) {
        const Json* v = find(key);
        if (!v) return;
        if (!v->is_boolean()) fail("bad_value", std::string(key) + " must be true or false.", at(key));
        into = v->get<bool>();
    }
    void read(const char* key, Side& into) {
        std::string text;
        read(key, text);
        if (text.empty()) return;
        if (text != "L" && text != "R")
            fail("bad_value", "side must be \"L\" or \"R\", the fish's own.", at(key));
        into = text == "L" ? Side::Left : Side::Right;
    }

    std::string unknown() const {
        Json rest = Json::object();
        for (const auto& [key, value] : json_.items()) {
            if (std::find(known_.begin(), known_.end(), key) == known_.end()) rest[key] = value;
        }
        return rest.empty() ? std::string() : rest.dump();
    }

  private:
    const Json& json_;
    std::string path_;
    std::vector<std::string> known_;
};

void addUnknown(Json& object, const std::string& unknownJson) {
    if (unknownJson.empty()) return;
    const Json rest = Json::parse(unknownJson);
    for (const auto& [key, value] : rest.items()) object[key] = value;
}

const Json& needArray(const Json& value, const std::string& path) {
    if (!value.is_array()) fail("bad_value", "Here should stand a list in brackets [ ].", path);
    return value;
}

std::string indexed(const std::string& path, std::size_t i) {
    return path + "[" + std::to_string(i) + "]";
}

// Blank
// ----------------------------------------------------------------------------------------------------------

Station readStation(const Json& json, const std::string& path) {
    Fields f(json, path);
    Station s;
    s.x_mm = f.number("x_mm");
    s.top_mm = f.number("top_mm");
    s.bottom_mm = f.number("bottom_mm");
    s.halfWidth_mm = f.number("half_width_mm");
    f.read("section", s.section);
    s.sectionLower = s.section;
    f.read("section_lower", s.sectionLower);
    s.unknownJson = f.unknown();
    return s;
}

Json writeStation(const Station& s) {
    Json json{{"x_mm", s.x_mm},
              {"top_mm", s.top_mm},
              {"bottom_mm", s.bottom_mm},
              {"half_width_mm", s.halfWidth_mm},
              {"section", s.section}};
    if (s.sectionLower != s.section) json["section_lower"] = s.sectionLower;
    addUnknown(json, s.unknownJson);
    return json;
}

Landmark readLandmark(const Json& json, const std::string& path) {
    Landmark landmark;
    if (json.is_array()) {
        for (std::size_t i = 0; i < json.size(); ++i) {
            const Json& p = json[i];
            if (!p.is_array() || p.size() != 2 || !p[0].is_number() || !p[1].is_number()) {
                fail("bad_value", "A point of a curve is a pair of numbers [x_mm, g_mm].", indexed(path, i));
            }
            landmark.points.emplace_back(p[0].get<double>(), p[1].get<double>());
        }
        if (landmark.points.size() < 2) fail("bad_value", "A curve needs two points or more.", path);
        return landmark;
    }
    Fields f(json, path);
    const double x = f.number("x_mm"), g = f.number("g_mm");
    landmark.points = {Vec2(x, g)};
    f.read("diameter_mm", landmark.diameter_mm);
    landmark.unknownJson = f.unknown();
    return landmark;
}

Json writeLandmark(const Landmark& landmark) {
    if (landmark.isCurve()) {
        Json list = Json::array();
        for (const Vec2& p : landmark.points) list.push_back(Json::array({p.x(), p.y()}));
        return list;
    }
    Json json{{"x_mm", landmark.points.front().x()}, {"g_mm", landmark.points.front().y()}};
    if (landmark.diameter_mm != 0) json["diameter_mm"] = landmark.diameter_mm;
    addUnknown(json, landmark.unknownJson);
    return json;
}

BlankChapter readBlank(const Json& json) {
    Fields f(json, "blank");
    BlankChapter blank;
    f.read("name", blank.name);
    const Json& stations = needArray(f.need("stations"), "blank.stations");
    for (std::size_t i = 0; i < stations.size(); ++i) {
        blank.table.stations.push_back(readStation(stations[i], indexed("blank.stations", i)));
    }
    if (const Json* landmarks = f.find("landmarks")) {
        if (!landmarks->is_object()) fail("bad_value", "landmarks must be an object.", "blank.landmarks");
        for (const auto& [name, value] : landmarks->items()) {
            blank.landmarks[name] = readLandmark(value, "blank.landmarks." + name);
        }
    }
    blank.unknownJson = f.unknown();
    return blank;
}

Json writeBlank(const BlankChapter& blank) {
    Json json{{"name", blank.name}, {"stations", Json::array()}};
    for (const Station& s : blank.table.stations) json["stations"].push_back(writeStation(s));
    Json landmarks = Json::object();
    for (const auto& [name, landmark] : blank.landmarks) landmarks[name] = writeLandmark(landmark);
    json["landmarks"] = std::move(landmarks);
    addUnknown(json, blank.unknownJson);
    return json;
}

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
    } else {
        fail("unknown_kind",
             "\"" + kind + "\" is not an element this version knows; it knows dot_row and bars.",
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
    if (const Json* cut = f.find("cut"))
        loaded.job.cut = std::make_shared<const CutChapter>(readCut(*cut));
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
    if (!startsWith("blank") && !startsWith("pattern") && !startsWith("masks") &&
        !startsWith("cut"))
        return error;
    if (const Result<std::string> text = readFile(path)) {
        error.where = path + ":" + std::to_string(lineOfField(*text, error.where)) + " " + error.where;
    }
    return error;
}

Job jobOfBlank(std::string name, StationTable table) {
    return withBlank(Job{}, BlankChapter{std::move(name), std::move(table), {}, {}});
}

}  // namespace nine
