#include "job/element_json.h"

#include <algorithm>

#include "job/param_json.h"

namespace nine {
namespace {

using namespace json;

/// Of an element whose kind is not known only what others refer to is read, and nothing of it can be wrong.
void readUnknownKind(const Value& json, Fields& f, Element& e) {
    const auto text = [&](const char* key) {
        const Value* v = f.find(key);
        return v ? v->text() : std::string();
    };
    e.name = text("name");
    e.side = text("side") == "R" ? Side::Right : Side::Left;
    if (const Value* linked = f.find("linked"); linked && linked->isBool()) e.linked = linked->truth();
    e.unknownJson = std::string(json.raw());
}

constexpr struct {
    std::string_view id;
    Refit refit;
} kRules[] = {{"stays", Refit::Fixed},
              {"length", Refit::WithLength},
              {"girth", Refit::WithGirth},
              {"girth_root", Refit::WithGirthRoot}};

void readRules(Fields& f, Element& e) {
    const Value* rules = f.find("rules");
    if (!rules) return;
    if (!rules->isObject())
        fail("bad_value", NINE_WORDS("core", "Here should stand an object in braces { }."), f.at("rules"));
    for (const Member& rule : rules->members()) {
        const std::string text = rule.value.isText() ? rule.value.text() : "";
        const auto known =
            std::find_if(std::begin(kRules), std::end(kRules), [&](const auto& r) { return r.id == text; });
        if (known == std::end(kRules))
            fail("bad_value",
                 NINE_WORDS("core", "A rule is \"stays\", \"length\", \"girth\" or \"girth_root\"."),
                 f.at("rules") + "." + std::string(rule.key));
        e.rules[std::string(rule.key)] = known->refit;
    }
}

void readIds(Fields& f, const char* key, std::vector<std::string>& ids) {
    const Value* list = f.find(key);
    if (!list) return;
    for (const Value& id : needArray(*list, f.at(key))) {
        if (!id.isText())
            fail("bad_value",
                 Words(NINE_WORDS("core", "{key} lists the ids of elements, in quotes."))
                     .name("key", std::string(key)),
                 f.at(key));
        ids.push_back(id.text());
    }
}

void readHome(Fields& f, std::span<const Param> params, Element& e) {
    const Value* json = f.find("home");
    if (!json) return;
    Fields h(*json, f.at("home"));
    Home home{};
    h.read("length_mm", home.length_mm);
    h.read("girth_mm", home.girth_mm);
    if (!(home.length_mm > 0 && home.girth_mm > 0))
        fail("bad_value", NINE_WORDS("core", "A home has a length and a girth above zero."), f.at("home"));
    h.read("dx_mm", home.dx_mm);
    h.read("dg_mm", home.dg_mm);
    home.values = e.values;
    home.seen = e.values;
    h.read("seen_dx_mm", home.seen_dx_mm);
    h.read("seen_dg_mm", home.seen_dg_mm);
    // Only what a refit changed is written: the rest is as the element has it.
    for (const auto& [key, into] : {std::pair{"values", &home.values}, {"seen", &home.seen}}) {
        const Value* values = h.find(key);
        if (!values) continue;
        Fields v(*values, h.at(key));
        for (const Param& p : params) {
            if (!p.isNumber()) continue;
            double number = into->number(p.key);
            v.read(std::string(p.key).c_str(), number);
            into->set(p.key, number);
        }
    }
    e.home = std::make_shared<const Home>(std::move(home));
}

void writeHome(Json& json, std::span<const Param> params, const Element& e) {
    const Home& home = *e.home;
    Json& h = json["home"];
    h = {{"length_mm", home.length_mm}, {"girth_mm", home.girth_mm},     {"dx_mm", home.dx_mm},
         {"dg_mm", home.dg_mm},         {"seen_dx_mm", home.seen_dx_mm}, {"seen_dg_mm", home.seen_dg_mm}};
    for (const auto& [key, values] : {std::pair{"values", &home.values}, {"seen", &home.seen}})
        for (const Param& p : params)
            if (p.isNumber() && values->number(p.key) != e.values.number(p.key))
                h[key][std::string(p.key)] = values->number(p.key);
}

}  // namespace

Element readElement(const Value& json, const std::string& path, Warnings& warnings) {
    Fields f(json, path);
    Element e;
    f.need("id");
    f.need("kind");
    f.read("id", e.id);
    f.read("kind", e.kind);
    const Kind* kind = findKind(e.kind);
    if (!kind) {
        warnings.push_back(
            {"unknown_kind",
             Words(NINE_WORDS("core",
                              "\"{id}\" is a \"{kind}\", which this version of the program does not "
                              "know. It is kept as it is, but not drawn and in no mask; open the job "
                              "with a newer version to see it."))
                 .name("id", e.id)
                 .name("kind", e.kind),
             f.at("kind")});
        readUnknownKind(json, f, e);
        return e;
    }
    f.read("name", e.name);
    f.read("side", e.side);
    f.read("linked", e.linked);
    f.read("anchor", e.anchor);
    f.read("dx_mm", e.dx_mm);
    f.read("dg_mm", e.dg_mm);
    f.read("colour", e.colour);
    f.read("of", e.of);
    readIds(f, "clear_of", e.clearOf);
    f.read("clear_mm", e.clear_mm);
    f.read("own_sides", e.ownSides);
    f.read("locked", e.locked);
    f.read("group", e.group);
    readRules(f, e);
    e.values = readParams(f, kind->params());
    readHome(f, kind->params(), e);
    e.unknownJson = f.unknown();
    return e;
}

Json writeElement(const Element& e) {
    const Kind* kind = findKind(e.kind);
    if (!kind) return asItStood(e.unknownJson);
    Json json{{"id", e.id}};
    if (!e.name.empty()) json["name"] = e.name;
    json["kind"] = e.kind;
    json["side"] = std::string(1, sideLetter(e.side));
    json["linked"] = e.linked;
    if (!e.anchor.empty()) json["anchor"] = e.anchor;
    json["dx_mm"] = e.dx_mm;
    json["dg_mm"] = e.dg_mm;
    if (!e.colour.empty()) json["colour"] = e.colour;
    if (!e.of.empty()) json["of"] = e.of;
    if (!e.clearOf.empty()) json["clear_of"] = e.clearOf;
    if (e.clear_mm != 0) json["clear_mm"] = e.clear_mm;
    if (e.ownSides) json["own_sides"] = true;
    if (e.locked) json["locked"] = true;
    if (!e.group.empty()) json["group"] = e.group;
    for (const auto& [key, refit] : e.rules)
        for (const auto& rule : kRules)
            if (rule.refit == refit) json["rules"][key] = std::string(rule.id);
    writeParams(json, kind->params(), e.values);
    if (e.home) writeHome(json, kind->params(), e);
    addUnknown(json, e.unknownJson);
    return json;
}

}  // namespace nine
