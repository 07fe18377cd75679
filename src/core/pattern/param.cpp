#include "pattern/param.h"

#include <cmath>

namespace nine {
namespace {

Words limitsOf(const Param& p, double value) {
    const Pattern pattern = NINE_WORDS("core", "{name} is {value}; it must lie between {low} and {high}.");
    Words words = Words(pattern).words("name", p.name);
    for (const auto& [key, v] : {std::pair{"value", value}, {"low", p.low}, {"high", p.high}}) {
        if (p.type == Param::Type::Length)
            words = std::move(words).length(key, v, kShortest);
        else if (p.type == Param::Type::Share)
            words = std::move(words).share(key, v);
        else
            words = std::move(words).number(key, v, kShortest);
    }
    return words;
}

}  // namespace

Values usualValues(std::span<const Param> params) {
    Values values;
    for (const Param& p : params) {
        if (p.type == Param::Type::Colour)
            values.set(p.key, std::string(p.usualColour));
        else
            values.set(p.key, p.usual);
    }
    return values;
}

Status checkValues(std::span<const Param> params, const Values& values, const std::string& path) {
    for (const Param& p : params) {
        if (p.type == Param::Type::Colour) continue;
        const double v = values.number(p.key);
        const bool whole = p.type != Param::Type::Count || v == std::floor(v);
        if (!(v >= p.low && v <= p.high) || !whole)
            return Error{"out_of_range", limitsOf(p, v), path + "." + std::string(p.key)};
    }
    return Done{};
}

}  // namespace nine
