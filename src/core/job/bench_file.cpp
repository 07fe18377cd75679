#include "job/bench_file.h"

#include <filesystem>

#include "base/files.h"
#include "job/json_fields.h"
#include "job/json_place.h"

namespace nine {
namespace {

using namespace json;

constexpr int kBenchFormat = 1;

PracticeRange readRange(const Json& json, const std::string& path) {
    if (!json.is_array() || json.size() != 3 || !json[0].is_number() || !json[1].is_number() ||
        !json[2].is_number())
        fail("bad_value", "A range is [low, start, high].", path);
    return {json[0].get<double>(), json[1].get<double>(), json[2].get<double>()};
}

void readPractice(const Json& json, SprayPractice& p) {
    Fields f(json, "practice." + std::string(p.id));
    if (const Json* v = f.find("pressure_psi")) p.pressure_psi = readRange(*v, f.at("pressure_psi"));
    if (const Json* v = f.find("distance_mm")) p.distance_mm = readRange(*v, f.at("distance_mm"));
    if (const Json* v = f.find("reduction")) p.reduction = readReduction(*v, f.at("reduction"));
    if (const Json* v = f.find("coats")) {
        if (!v->is_array() || v->size() != 2 || !(*v)[0].is_number_integer() || !(*v)[1].is_number_integer())
            fail("bad_value", "coats is [least, most].", f.at("coats"));
        p.leastCoats = (*v)[0].get<int>();
        p.mostCoats = (*v)[1].get<int>();
    }
    f.read("passes", p.passes);
    f.read("flow_ml_min", p.flow_ml_min);
    f.read("speed_mm_s", p.speed_mm_s);
}

SprayBench readBench(const Json& json) {
    Fields f(json, "");
    int format = 0;
    f.read("format", format);
    if (format < 1) fail("bad_value", "This is not a bench file: it has no format number.", "format");
    if (format > kBenchFormat)
        fail("newer_format", "This bench was written by a newer version. Open it with that version.",
             "format");
    SprayBench bench;
    if (const Json* guns = f.find("guns")) {
        bench.guns.clear();
        needArray(*guns, "guns");
        for (std::size_t i = 0; i < guns->size(); ++i) {
            Fields g((*guns)[i], indexed("guns", i));
            Gun gun;
            g.read("name", gun.name);
            gun.needle_mm = g.number("needle_mm");
            g.read("lowest_psi", gun.lowest_psi);
            g.read("highest_psi", gun.highest_psi);
            bench.guns.push_back(std::move(gun));
        }
    }
    if (const Json* practice = f.find("practice")) {
        if (!practice->is_object()) fail("bad_value", "practice must be an object.", "practice");
        for (SprayPractice& p : bench.practices) {
            const auto found = practice->find(std::string(p.id));
            if (found != practice->end()) readPractice(*found, p);
        }
    }
    if (Status ok = checkBench(bench); !ok) throw Bad{ok.error()};
    return bench;
}

}  // namespace

Result<SprayBench> parseBench(std::string_view text, const std::string& source) {
    const auto at = [&](std::size_t line) { return source + ":" + std::to_string(line); };
    try {
        return readBench(Json::parse(text));
    } catch (const Bad& bad) {
        Error error = bad.error;
        error.where = at(lineOfField(text, error.where)) + " " + error.where;
        return error;
    } catch (const Json::parse_error& problem) {
        return Error{"bad_json", "The bench file is damaged here: this is not well-formed JSON.",
                     at(lineAt(text, std::min(problem.byte > 0 ? problem.byte - 1 : 0, text.size())))};
    } catch (const Json::exception&) {
        return Error{"bad_json", "The bench file holds a number or text that cannot be read.", at(1)};
    }
}

std::string benchText(const SprayBench& bench) {
    Json json{{"format", kBenchFormat}, {"guns", Json::array()}};
    for (const Gun& gun : bench.guns) {
        json["guns"].push_back({{"name", gun.name},
                                {"needle_mm", gun.needle_mm},
                                {"lowest_psi", gun.lowest_psi},
                                {"highest_psi", gun.highest_psi}});
    }
    const auto range = [](const PracticeRange& r) { return Json::array({r.low, r.start, r.high}); };
    const SprayBench shipped;
    for (const SprayPractice& p : bench.practices) {
        if (p == shipped.practiceFor(p.work)) continue;
        json["practice"][std::string(p.id)] = {{"pressure_psi", range(p.pressure_psi)},
                                               {"distance_mm", range(p.distance_mm)},
                                               {"reduction", {p.reduction.paint, p.reduction.reducer}},
                                               {"coats", {p.leastCoats, p.mostCoats}},
                                               {"passes", p.passes},
                                               {"flow_ml_min", p.flow_ml_min},
                                               {"speed_mm_s", p.speed_mm_s}};
    }
    return json.dump(1, ' ', false, Json::error_handler_t::replace) + "\n";
}

Result<SprayBench> loadBench(const std::string& path) {
    std::error_code ignored;
    if (!std::filesystem::exists(path, ignored)) return SprayBench{};
    const Result<std::string> text = readFile(path);
    if (!text) return text.error();
    return parseBench(*text, path);
}

Status saveBench(const SprayBench& bench, const std::string& path) {
    return writeFileAtomically(path, benchText(bench));
}

}  // namespace nine
