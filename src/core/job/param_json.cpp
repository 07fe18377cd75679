#include "job/param_json.h"

namespace nine {
namespace {

using namespace json;

void readParam(Fields& f, const Param& p, Values& values) {
    const std::string key(p.key);
    if (p.type == Param::Type::Colour) {
        std::string colour(p.usualColour);
        f.read(key.c_str(), colour);
        return values.set(p.key, colour);
    }
    const double usual = p.usualFrom.empty() ? p.usual : values.number(p.usualFrom);
    if (p.type == Param::Type::Count) {
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
        if (p.type == Param::Type::Colour)
            into[key] = std::get<std::string>(*values.find(p.key));
        else if (p.type == Param::Type::Count)
            into[key] = static_cast<int>(values.number(p.key));
        else
            into[key] = values.number(p.key);
    }
}

}  // namespace nine
