#include "job/chapters/spray.h"

#include <algorithm>
#include <set>

#include "job/job.h"
#include "job/json_fields.h"

namespace nine {

using namespace json;

SprayPins json::readPins(Fields& f) {
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

Json json::pinsJson(const SprayPins& pins) {
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

SprayChapter ChapterOf<SprayChapter>::read(Fields& chapter, Warnings& warnings) {
    SprayChapter spray;
    const Value* masks = chapter.find("masks");
    if (!masks) return spray;
    for (const Value& item : needArray(*masks, chapter.at("masks"))) {
        Fields f(item, indexed(chapter.at("masks"), spray.masks.size()));
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

void ChapterOf<SprayChapter>::write(Json& into, const SprayChapter& spray) {
    for (const SpraySpec& spec : spray.masks) {
        Json json{{"mask", spec.mask}, {"paint", spec.paint}};
        if (spec.soft_mm) json["soft_mm"] = *spec.soft_mm;
        if (spec.pads_mm != 0) json["pads_mm"] = spec.pads_mm;
        if (spec.relief_mm != 0) json["relief_mm"] = spec.relief_mm;
        if (!spec.pins.empty() || !spec.unknownPinsJson.empty()) {
            json["pins"] = pinsJson(spec.pins);
            addUnknown(json["pins"], spec.unknownPinsJson);
        }
        addUnknown(json, spec.unknownJson);
        into["masks"].push_back(std::move(json));
    }
}

Status ChapterOf<SprayChapter>::check(const Job& job) {
    std::set<std::string_view> maskIds;
    const std::vector<MaskSpecPtr> masks = maskSpecs(job);
    for (const MaskSpecPtr& m : masks) maskIds.insert(m->id);
    std::set<std::string> seen;
    for (std::size_t i = 0; i < job.get<SprayChapter>().masks.size(); ++i) {
        const SpraySpec& spec = job.get<SprayChapter>().masks[i];
        const std::string path = indexed("spray.masks", i);
        if (!maskIds.count(spec.mask))
            return Error{"unknown_mask",
                         Words(NINE_WORDS("core", "There is no mask \"{mask}\" to spray through."))
                             .name("mask", spec.mask),
                         path + ".mask"};
        if (!seen.insert(spec.mask).second)
            return Error{
                "bad_id",
                Words(NINE_WORDS("core", "The mask \"{mask}\" is given twice here.")).name("mask", spec.mask),
                path + ".mask"};
        if (!findPaint(spec.paint)) return Error{"unknown_paint", unknownPaint(spec.paint), path + ".paint"};
        const auto within = [](double v, double low, double high) { return v >= low && v <= high; };
        if (spec.soft_mm && !within(*spec.soft_mm, kSharp_mm, kSoftest_mm))
            return Error{"out_of_range",
                         Words(NINE_WORDS("core", "A soft edge is {least} to {most} wide."))
                             .length("least", kSharp_mm, 1)
                             .length("most", kSoftest_mm, 0),
                         path + ".soft_mm"};
        if (!within(spec.pads_mm, 0, kMostPads_mm))
            return Error{
                "out_of_range",
                Words(NINE_WORDS("core", "Pads are up to {most} high.")).length("most", kMostPads_mm, 0),
                path + ".pads_mm"};
        if (!within(spec.relief_mm, 0, kMostRelief_mm))
            return Error{"out_of_range",
                         Words(NINE_WORDS("core", "Relief under a mask is up to {most} deep."))
                             .length("most", kMostRelief_mm, 0),
                         path + ".relief_mm"};
        if (Status ok = checkPins(spec.pins, path + ".pins"); !ok) return ok;
    }
    return Done{};
}

std::shared_ptr<const SprayChapter> ChapterOf<SprayChapter>::inStep(
    const Job& job, const std::shared_ptr<const SprayChapter>& now) {
    const std::vector<MaskSpecPtr> masks = maskSpecs(job);
    SprayChapter spray = *now;
    const auto lost = std::erase_if(spray.masks, [&](const SpraySpec& s) {
        return std::none_of(masks.begin(), masks.end(), [&](const auto& m) { return m->id == s.mask; });
    });
    return lost > 0 ? std::make_shared<const SprayChapter>(std::move(spray)) : now;
}

SpraySpec sprayOfMask(const Job& job, const std::string& mask) {
    for (const SpraySpec& spec : job.get<SprayChapter>().masks) {
        if (spec.mask == mask) return spec;
    }
    SpraySpec usual;
    usual.mask = mask;
    return usual;
}

Job withSpray(const Job& job, SpraySpec spec) {
    SprayChapter spray = job.get<SprayChapter>();
    const auto found = std::find_if(spray.masks.begin(), spray.masks.end(),
                                    [&](const SpraySpec& s) { return s.mask == spec.mask; });
    if (found == spray.masks.end()) {
        spray.masks.push_back(std::move(spec));
    } else {
        *found = std::move(spec);
    }
    return job.with(std::move(spray));
}

}  // namespace nine
