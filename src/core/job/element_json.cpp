#include "job/element_json.h"

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
    e.values = readParams(f, kind->params());
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
    writeParams(json, kind->params(), e.values);
    addUnknown(json, e.unknownJson);
    return json;
}

}  // namespace nine
