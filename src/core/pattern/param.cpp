#include "pattern/param.h"

#include <algorithm>
#include <cmath>

namespace nine {
namespace {

using Type = Param::Type;

Words limitsOf(const Param& p, double value) {
    const Pattern pattern = NINE_WORDS("core", "{name} is {value}; it must lie between {low} and {high}.");
    Words words = Words(pattern).words("name", p.name);
    for (const auto& [key, v] : {std::pair{"value", value}, {"low", p.low}, {"high", p.high}}) {
        if (p.type == Type::Length)
            words = std::move(words).length(key, v, kShortest);
        else if (p.type == Type::Share)
            words = std::move(words).share(key, v);
        else
            words = std::move(words).number(key, v, kShortest);
    }
    return words;
}

Status checkChoice(const Param& p, const std::string& value, const std::string& where) {
    std::string known;
    for (const Choice& choice : p.choices) {
        if (choice.id == value) return Done{};
        known += (known.empty() ? "" : ", ") + std::string(choice.id);
    }
    return Error{"out_of_range",
                 Words(NINE_WORDS("core", "{name} is \"{value}\"; it must be one of {known}."))
                     .words("name", p.name)
                     .name("value", value)
                     .name("known", known),
                 where};
}

Status checkPath(const Param& p, const Polyline2& path, const std::string& where) {
    const bool finite = std::all_of(path.begin(), path.end(), [](const Vec2& v) { return v.allFinite(); });
    if (path.size() >= 3 && path.size() <= kMostPathPlaces && finite) return Done{};
    return Error{
        "out_of_range",
        Words(NINE_WORDS("core", "{name} has {count} places; it needs three or more, at most {most}."))
            .words("name", p.name)
            .number("count", static_cast<double>(path.size()), 0)
            .number("most", kMostPathPlaces, 0),
        where};
}

Status checkLetters(const Param& p, const std::string& letters, const std::string& where) {
    const auto count = std::count_if(letters.begin(), letters.end(), [](char c) {
        return (static_cast<unsigned char>(c) & 0xC0u) != 0x80u;  // UTF-8: what begins a letter
    });
    const bool any = std::any_of(letters.begin(), letters.end(), [](char c) { return c != ' '; });
    if (any && count <= static_cast<std::ptrdiff_t>(kMostLetters)) return Done{};
    return Error{"out_of_range",
                 Words(NINE_WORDS("core", "{name} must be 1 to {most} letters."))
                     .words("name", p.name)
                     .number("most", kMostLetters, 0),
                 where};
}

}  // namespace

ParamValue usualValue(const Param& p) {
    if (p.type == Type::Path) {
        Polyline2 path;
        for (const auto& [x, g] : p.usualPath_mm) path.emplace_back(x, g);
        return path;
    }
    if (p.isNumber()) return p.usual;
    return std::string(p.usualText);
}

Values usualValues(std::span<const Param> params) {
    Values values;
    for (const Param& p : params) values.set(p.key, usualValue(p));
    return values;
}

Status checkValues(std::span<const Param> params, const Values& values, const std::string& path) {
    for (const Param& p : params) {
        const std::string where = path + "." + std::string(p.key);
        Status ok = Done{};
        if (p.type == Type::Choice) ok = checkChoice(p, values.text(p.key), where);
        if (p.type == Type::Letters) ok = checkLetters(p, values.text(p.key), where);
        if (p.type == Type::Path) {
            const ParamValue* value = values.find(p.key);
            const Polyline2* places = value ? std::get_if<Polyline2>(value) : nullptr;
            ok = checkPath(p, places ? *places : Polyline2(), where);
        }
        if (!ok) return ok;
        if (!p.isNumber()) continue;
        const double v = values.number(p.key);
        if (!(v >= p.low && v <= p.high) || (p.isWhole() && v != std::floor(v)))
            return Error{"out_of_range", limitsOf(p, v), where};
    }
    return Done{};
}

}  // namespace nine
