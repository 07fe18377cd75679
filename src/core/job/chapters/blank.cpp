#include "job/chapters/blank.h"

#include "base/base64.h"
#include "job/job.h"
#include "job/json_fields.h"

namespace nine {

using namespace json;

namespace {

constexpr std::pair<const char*, unsigned> kAssumedNames[] = {{"top_mm", kAssumedTop},
                                                              {"bottom_mm", kAssumedBottom},
                                                              {"half_width_mm", kAssumedWidth},
                                                              {"section", kAssumedSection}};

Station readStation(const Value& json, const std::string& path) {
    Fields f(json, path);
    Station s;
    s.x_mm = f.number("x_mm");
    s.top_mm = f.number("top_mm");
    s.bottom_mm = f.number("bottom_mm");
    s.halfWidth_mm = f.number("half_width_mm");
    f.read("section", s.section);
    s.sectionLower = s.section;
    f.read("section_lower", s.sectionLower);
    f.read("girth_mm", s.girth_mm);
    if (const Value* list = f.find("assumed")) {
        for (const Value& name : needArray(*list, f.at("assumed"))) {
            bool known = false;
            for (const auto& [word, bit] : kAssumedNames) {
                if (name.text() != word) continue;
                s.assumed |= bit;
                known = true;
            }
            if (!known)
                fail("bad_value",
                     NINE_WORDS("core",
                                "assumed lists names of this station's sizes, such as \"half_width_mm\"."),
                     f.at("assumed"));
        }
    }
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
    if (s.girth_mm != 0) json["girth_mm"] = s.girth_mm;
    for (const auto& [word, bit] : kAssumedNames)
        if (s.assumed & bit) json["assumed"].push_back(word);
    addUnknown(json, s.unknownJson);
    return json;
}

/// Corners as pairs [x_mm, g_mm].
std::vector<Vec2> readCurve(const Value& json, const std::string& path) {
    constexpr std::size_t kMostCorners = 5000;
    std::vector<Vec2> points;
    for (const Value& item : needArray(json, path)) {
        const auto pair = numbersIn(item, 2);
        if (!pair)
            fail("bad_value", NINE_WORDS("core", "A point of a curve is a pair of numbers [x_mm, g_mm]."),
                 indexed(path, points.size()));
        points.emplace_back((*pair)[0], (*pair)[1]);
    }
    if (points.size() > kMostCorners)
        fail("out_of_range", NINE_WORDS("core", "A curve has at most 5000 points; thin them out."), path);
    return points;
}

Json writeCurve(const std::vector<Vec2>& points) {
    Json list = Json::array();
    for (const Vec2& p : points) list.push_back(Json::array({p.x(), p.y()}));
    return list;
}

Landmark readLandmark(const Value& json, const std::string& path) {
    Landmark landmark;
    if (json.isArray()) {
        landmark.points = readCurve(json, path);
        if (landmark.points.size() < 2)
            fail("bad_value", NINE_WORDS("core", "A curve needs two points or more."), path);
        return landmark;
    }
    Fields f(json, path);
    if (const Value* points = f.find("points")) {
        landmark.points = readCurve(*points, f.at("points"));
        if (landmark.points.empty())
            fail("bad_value", NINE_WORDS("core", "A landmark needs a point."), f.at("points"));
    } else {
        const double x = f.number("x_mm"), g = f.number("g_mm");
        landmark.points = {Vec2(x, g)};
    }
    f.read("diameter_mm", landmark.diameter_mm);
    f.read("assumed", landmark.assumed);
    f.read("build_up_mm", landmark.buildUp_mm);
    f.read("eye_type", landmark.eyeType);
    f.read("angle_deg", landmark.angle_deg);
    f.read("length_mm", landmark.length_mm);
    f.read("width_mm", landmark.width_mm);
    landmark.unknownJson = f.unknown();
    return landmark;
}

Json writeLandmark(const Landmark& landmark) {
    const bool plain = !landmark.assumed && landmark.angle_deg == 0 && landmark.length_mm == 0 &&
                       landmark.width_mm == 0 && landmark.diameter_mm == 0 && landmark.buildUp_mm == 0 &&
                       landmark.eyeType.empty() && landmark.unknownJson.empty();
    if (landmark.isCurve() && plain) return writeCurve(landmark.points);
    Json json = Json::object();
    if (landmark.isCurve()) {
        json["points"] = writeCurve(landmark.points);
    } else {
        json["x_mm"] = landmark.points.front().x();
        json["g_mm"] = landmark.points.front().y();
    }
    if (landmark.diameter_mm != 0) json["diameter_mm"] = landmark.diameter_mm;
    if (landmark.buildUp_mm != 0) json["build_up_mm"] = landmark.buildUp_mm;
    if (!landmark.eyeType.empty()) json["eye_type"] = landmark.eyeType;
    if (landmark.angle_deg != 0) json["angle_deg"] = landmark.angle_deg;
    if (landmark.length_mm != 0) json["length_mm"] = landmark.length_mm;
    if (landmark.width_mm != 0) json["width_mm"] = landmark.width_mm;
    if (landmark.assumed) json["assumed"] = true;
    addUnknown(json, landmark.unknownJson);
    return json;
}

Zone readZone(const Value& json, const std::string& path) {
    Fields f(json, path);
    Zone zone;
    f.read("id", zone.id);
    f.read("name", zone.name);
    f.read("kind", zone.kind);
    zone.noPaint = zone.kind != "relief";
    f.read("no_paint", zone.noPaint);
    f.read("relief_mm", zone.relief_mm);
    zone.polygon = readCurve(f.need("polygon"), f.at("polygon"));
    zone.unknownJson = f.unknown();
    return zone;
}

Json writeZone(const Zone& zone) {
    Json json{{"id", zone.id}, {"name", zone.name}, {"kind", zone.kind}, {"no_paint", zone.noPaint}};
    if (zone.relief_mm != 0) json["relief_mm"] = zone.relief_mm;
    json["polygon"] = writeCurve(zone.polygon);
    addUnknown(json, zone.unknownJson);
    return json;
}

BackPicturePtr readPicture(const Value& json, const std::string& path) {
    Fields f(json, path);
    BackPicture picture;
    f.read("file", picture.file);
    f.read("hash", picture.hash);
    f.read("from_above", picture.fromAbove);
    std::string text;
    f.read("jpeg", text);
    const std::optional<std::string> bytes = bytesOfBase64(text);
    if (!bytes || bytes->size() > kMostPictureBytes)
        fail("bad_value", NINE_WORDS("core", "jpeg holds a picture of up to 2 MB as base64."), f.at("jpeg"));
    picture.jpeg = *bytes;
    const std::vector<Vec2> ends = readCurve(f.need("ends_px"), f.at("ends_px"));
    if (ends.size() != 2)
        fail("bad_value", NINE_WORDS("core", "ends_px holds two points, nose and tail."), f.at("ends_px"));
    picture.nose_px = ends[0];
    picture.tail_px = ends[1];
    picture.unknownJson = f.unknown();
    return std::make_shared<const BackPicture>(std::move(picture));
}

Json writePicture(const BackPicture& picture) {
    Json json{{"file", picture.file}, {"hash", picture.hash}};
    if (picture.fromAbove) json["from_above"] = true;
    json["ends_px"] = writeCurve({picture.nose_px, picture.tail_px});
    json["jpeg"] = base64Of(picture.jpeg);
    addUnknown(json, picture.unknownJson);
    return json;
}

}  // namespace

BlankChapter ChapterOf<BlankChapter>::read(Fields& f, Warnings& warnings) {
    BlankChapter blank;
    f.read("name", blank.name);
    const std::vector<Value> stations = needArray(f.need("stations"), "blank.stations");
    for (std::size_t i = 0; i < stations.size(); ++i) {
        blank.table.stations.push_back(readStation(stations[i], indexed("blank.stations", i)));
    }
    if (const Value* landmarks = f.find("landmarks")) {
        if (!landmarks->isObject())
            fail("bad_value", NINE_WORDS("core", "landmarks must be an object."), "blank.landmarks");
        for (const Member& member : landmarks->members())
            blank.landmarks[member.key] = readLandmark(member.value, "blank.landmarks." + member.key);
    }
    f.read("family", blank.family);
    f.read("source", blank.source);
    if (const Value* zones = f.find("zones")) {
        for (const Value& zone : needArray(*zones, "blank.zones"))
            blank.zones.push_back(readZone(zone, indexed("blank.zones", blank.zones.size())));
    }
    if (const Value* pictures = f.find("pictures")) {
        for (const Value& picture : needArray(*pictures, "blank.pictures"))
            blank.pictures.push_back(readPicture(picture, indexed("blank.pictures", blank.pictures.size())));
    }
    if (const Value* tail = f.find("soft_tail")) {
        Fields t(*tail, "blank.soft_tail");
        blank.softTail = {t.number("length_mm"), t.number("height_mm"), {}};
        blank.softTail.unknownJson = t.unknown();
        if (!(blank.softTail.length_mm > 0 && blank.softTail.length_mm <= kMaxBody_mm &&
              blank.softTail.height_mm > 0 && blank.softTail.height_mm <= kMaxBody_mm))
            fail("out_of_range", NINE_WORDS("core", "A soft tail has a length and a height above 0."),
                 "blank.soft_tail");
    }
    const Result<Skin> skin = Skin::of(blank.table);
    if (!skin) throw Bad{skin.error()};
    if (Status ok = checkLandmarks(*skin, blank.landmarks); !ok) throw Bad{ok.error()};
    if (Status ok = checkZones(*skin, blank.zones); !ok) throw Bad{ok.error()};
    for (Warning& doubt : doubtsAbout(blank.table)) warnings.push_back(std::move(doubt));
    return blank;
}

void ChapterOf<BlankChapter>::write(Json& json, const BlankChapter& blank) {
    json["name"] = blank.name;
    if (!blank.family.empty()) json["family"] = blank.family;
    if (!blank.source.empty()) json["source"] = blank.source;
    json["stations"] = Json::array();
    for (const Station& s : blank.table.stations) json["stations"].push_back(writeStation(s));
    Json landmarks = Json::object();
    for (const auto& [name, landmark] : blank.landmarks) landmarks[name] = writeLandmark(landmark);
    json["landmarks"] = std::move(landmarks);
    for (const Zone& zone : blank.zones) json["zones"].push_back(writeZone(zone));
    if (blank.softTail.length_mm > 0) {
        json["soft_tail"] = {{"length_mm", blank.softTail.length_mm},
                             {"height_mm", blank.softTail.height_mm}};
        addUnknown(json["soft_tail"], blank.softTail.unknownJson);
    }
    for (const BackPicturePtr& picture : blank.pictures) json["pictures"].push_back(writePicture(*picture));
}

Status ChapterOf<BlankChapter>::check(const Job& job) {
    const BlankChapter& blank = job.get<BlankChapter>();
    if (Status ok = checkName(blank.name, "blank.name"); !ok) return ok;
    for (std::size_t i = 0; i < blank.zones.size(); ++i) {
        const std::string path = indexed("blank.zones", i);
        if (Status ok = checkName(blank.zones[i].name, path + ".name"); !ok) return ok;
        if (Status ok = checkName(blank.zones[i].id, path + ".id"); !ok) return ok;
    }
    for (const auto& [name, landmark] : blank.landmarks)
        if (Status ok = checkName(name, "blank.landmarks"); !ok) return ok;
    return Done{};
}

std::vector<Zone> allZones(const Skin& skin, const BlankChapter& blank) {
    std::vector<Zone> zones = blank.zones;
    for (Zone& z : zonesOfLandmarks(skin, blank.landmarks)) zones.push_back(std::move(z));
    return zones;
}

Job jobOfBlank(std::string name, StationTable table) {
    BlankChapter blank;
    blank.name = std::move(name);
    blank.table = std::move(table);
    blank.source = "readings";
    return Job{}.with(std::move(blank));
}

}  // namespace nine
