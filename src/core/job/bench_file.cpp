#include "job/bench_file.h"

#include <filesystem>

#include "base/files.h"
#include "job/json_fields.h"
#include "job/json_place.h"

namespace nine {
namespace {

using namespace json;

constexpr int kBenchFormat = 1;

PracticeRange readRange(const Value& json, const std::string& path) {
    const auto three = numbersIn(json, 3);
    if (!three) fail("bad_value", NINE_WORDS("core", "A range is [low, start, high]."), path);
    return {(*three)[0], (*three)[1], (*three)[2]};
}

void readPractice(const Value& json, SprayPractice& p) {
    Fields f(json, "practice." + std::string(p.id));
    if (const Value* v = f.find("pressure_psi")) p.pressure_psi = readRange(*v, f.at("pressure_psi"));
    if (const Value* v = f.find("distance_mm")) p.distance_mm = readRange(*v, f.at("distance_mm"));
    if (const Value* v = f.find("reduction")) p.reduction = readReduction(*v, f.at("reduction"));
    if (const Value* v = f.find("coats")) {
        constexpr double kMost = 1000;
        const auto range = numbersIn(*v, 2);
        if (!range || std::any_of(range->begin(), range->end(),
                                  [](double n) { return n != std::floor(n) || std::abs(n) > kMost; }))
            fail("bad_value", NINE_WORDS("core", "coats is [least, most]."), f.at("coats"));
        p.leastCoats = static_cast<int>((*range)[0]);
        p.mostCoats = static_cast<int>((*range)[1]);
    }
    f.read("passes", p.passes);
    f.read("flow_ml_min", p.flow_ml_min);
    f.read("speed_mm_s", p.speed_mm_s);
    p.unknownJson = f.unknown();
}

/// Every whole number of the shop by its key, for reading and writing alike.
template <typename Shop, typename F>
void eachOf(Shop& shop, F&& f) {
    f("painters", shop.painters);
    f("tray", shop.tray);
    f("rack", shop.rack);
    f("turner", shop.turner);
    f("clean_s", shop.clean_s);
    f("needle_s", shop.needle_s);
    f("fill_s", shop.fill_s);
    f("stand_s", shop.stand_s);
    f("opens_min", shop.opens_min);
    f("closes_min", shop.closes_min);
    f("break_min", shop.break_min);
    f("break_long_min", shop.breakLong_min);
    f("circuit_w", shop.circuit_w);
    f("compressor_w", shop.compressor_w);
    f("fan_w", shop.fan_w);
    f("lamp_w", shop.lamp_w);
    f("dryer_w", shop.dryer_w);
}

template <typename E>
void readWord(Fields& f, const char* key, std::span<const ShopWord> words, E& into) {
    std::string word;
    f.read(key, word);
    if (word.empty()) return;
    for (std::size_t i = 0; i < words.size(); ++i)
        if (words[i].id == word) {
            into = static_cast<E>(i);
            return;
        }
    fail("bad_value", Words(NINE_WORDS("core", "\"{word}\" is not known here.")).name("word", word),
         f.at(key));
}

BenchShop readShop(const Value& json) {
    Fields f(json, "shop");
    BenchShop shop;
    eachOf(shop, [&](const char* key, auto& value) { f.read(key, value); });
    readWord(f, "dryer", dryerNames(), shop.dryer);
    readWord(f, "residue", residueNames(), shop.residue);
    if (Status ok = checkShop(shop, "shop"); !ok) throw Bad{ok.error()};
    shop.unknownJson = f.unknown();
    return shop;
}

/// Only what is not as usual.
Json shopJson(const BenchShop& shop) {
    Json json = Json::object();
    const BenchShop usual;
    Json usualJson = Json::object();
    eachOf(usual, [&](const char* key, const auto& value) { usualJson[key] = value; });
    eachOf(shop, [&](const char* key, const auto& value) {
        if (Json(value) != usualJson[key]) json[key] = value;
    });
    if (shop.dryer != usual.dryer)
        json["dryer"] = std::string(dryerNames()[static_cast<std::size_t>(shop.dryer)].id);
    if (shop.residue != usual.residue)
        json["residue"] = std::string(residueNames()[static_cast<std::size_t>(shop.residue)].id);
    addUnknown(json, shop.unknownJson);
    return json;
}

Workplace readBench(const Value& json) {
    Fields f(json, "");
    const Value* format = f.find("format");
    const auto version = format ? format->number() : std::nullopt;
    if (!version || *version < 1)
        fail("bad_value", NINE_WORDS("core", "This is not a bench file: it has no format number."), "format");
    if (*version > kBenchFormat)
        fail("newer_format",
             NINE_WORDS("core", "This bench was written by a newer version. Open it with that version."),
             "format");
    Workplace bench;
    if (const Value* guns = f.find("guns")) {
        bench.guns.clear();
        for (const Value& item : needArray(*guns, "guns")) {
            Fields g(item, indexed("guns", bench.guns.size()));
            Gun gun;
            g.read("name", gun.name);
            gun.needle_mm = g.number("needle_mm");
            g.read("lowest_psi", gun.lowest_psi);
            g.read("highest_psi", gun.highest_psi);
            gun.unknownJson = g.unknown();
            bench.guns.push_back(std::move(gun));
        }
    }
    if (const Value* practice = f.find("practice")) {
        Fields p(*practice, "practice");
        for (SprayPractice& own : bench.practices) {
            if (const Value* found = p.find(std::string(own.id).c_str())) readPractice(*found, own);
        }
        bench.unknownPracticesJson = p.unknown();
    }
    if (const Value* shop = f.find("shop")) bench.shop = readShop(*shop);
    bench.unknownJson = f.unknown();
    if (Status ok = checkBench(bench); !ok) throw Bad{ok.error()};
    return bench;
}

}  // namespace

Result<Workplace> parseBench(std::string_view text, const std::string& source) {
    return readText<Workplace>(text, source, "bench file", readBench);
}

std::string benchText(const Workplace& bench) {
    Json json{{"format", kBenchFormat}, {"guns", Json::array()}};
    for (const Gun& gun : bench.guns) {
        Json entry{{"name", gun.name},
                   {"needle_mm", gun.needle_mm},
                   {"lowest_psi", gun.lowest_psi},
                   {"highest_psi", gun.highest_psi}};
        addUnknown(entry, gun.unknownJson);
        json["guns"].push_back(std::move(entry));
    }
    const auto range = [](const PracticeRange& r) { return Json::array({r.low, r.start, r.high}); };
    const SprayBench shipped;
    for (const SprayPractice& p : bench.practices) {
        if (p == shipped.practiceFor(p.work)) continue;
        Json& entry = json["practice"][std::string(p.id)];
        entry = {{"pressure_psi", range(p.pressure_psi)},
                 {"distance_mm", range(p.distance_mm)},
                 {"reduction", {p.reduction.paint, p.reduction.reducer}},
                 {"coats", {p.leastCoats, p.mostCoats}},
                 {"passes", p.passes},
                 {"flow_ml_min", p.flow_ml_min},
                 {"speed_mm_s", p.speed_mm_s}};
        addUnknown(entry, p.unknownJson);
    }
    if (!bench.unknownPracticesJson.empty()) addUnknown(json["practice"], bench.unknownPracticesJson);
    if (const Json shop = shopJson(bench.shop); !shop.empty()) json["shop"] = shop;
    addUnknown(json, bench.unknownJson);
    return textOf(json);
}

Result<Workplace> loadBench(const std::string& path) {
    std::error_code ignored;
    if (!std::filesystem::exists(path, ignored)) return Workplace{};
    const Result<std::string> text = readFile(path);
    if (!text) return text.error();
    return parseBench(*text, path);
}

Status saveBench(const Workplace& bench, const std::string& path) {
    return writeFileAtomically(path, benchText(bench));
}

}  // namespace nine
