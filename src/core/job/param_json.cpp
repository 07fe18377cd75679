#include "job/param_json.h"

namespace nine {
namespace {

using namespace json;
using Type = Param::Type;

Polyline2 readPath(const Value& json, const std::string& path) {
    Polyline2 places;
    for (const Value& place : needArray(json, path)) {
        const std::string at = indexed(path, places.size());
        const auto pair = needArray(place, at);
        if (pair.size() != 2 || !pair[0].number() || !pair[1].number())
            fail("bad_value", NINE_WORDS("core", "A place is two numbers, [x, g] in mm."), at);
        places.emplace_back(*pair[0].number(), *pair[1].number());
    }
    return places;
}

void readParam(Fields& f, const Param& p, Values& values) {
    const std::string key(p.key);
    if (p.type == Type::Path) {
        const Value* json = f.find(key.c_str());
        return values.set(p.key, json ? ParamValue(readPath(*json, f.at(key.c_str()))) : usualValue(p));
    }
    if (!p.isNumber()) {
        std::string text(p.usualText);
        f.read(key.c_str(), text);
        return values.set(p.key, text);
    }
    const double usual = p.usualFrom.empty() ? p.usual : values.number(p.usualFrom);
    if (p.isWhole()) {
        int count = static_cast<int>(usual);
        f.read(key.c_str(), count);
        return values.set(p.key, static_cast<double>(count));
    }
    double number = usual;
    f.read(key.c_str(), number);
    values.set(p.key, number);
}

}  // namespace

Values readParams(Fields& fields, std::span<const Param> params) {
    Values values;
    for (const Param& p : params) readParam(fields, p, values);
    return values;
}

void writeParams(Json& into, std::span<const Param> params, const Values& values) {
    for (const Param& p : params) {
        const std::string key(p.key);
        const ParamValue& value = *values.find(p.key);
        if (p.spare && value == usualValue(p)) continue;
        if (const auto* path = std::get_if<Polyline2>(&value)) {
            into[key] = Json::array();
            for (const Vec2& place : *path) into[key].push_back({place.x(), place.y()});
        } else if (const auto* text = std::get_if<std::string>(&value)) {
            into[key] = *text;
        } else if (p.isWhole()) {
            into[key] = static_cast<int>(values.number(p.key));
        } else {
            into[key] = values.number(p.key);
        }
    }
}

}  // namespace nine
