// A parameter of a kind, of elements or of masks: what files, limits and cards know of it.
#pragma once

#include <array>
#include <span>

#include "base/result.h"
#include "base/units.h"
#include "pattern/values.h"

namespace nine {

/// How a parameter follows when the pattern goes onto a body of another size.
enum class Refit { Fixed, WithLength, WithGirth };

/// What becomes of a parameter when the mark must be made smaller to lie on the body at all.
enum class Lessen { Not, Fewer, Smaller, Lower };

/// A number or a colour of a kind. Lengths are mm of skin.
struct Param {
    std::string_view key;  ///< in job files and on the command line, unit suffix included
    Pattern name;          ///< on its value, and spoken: "First diameter"
    enum class Type { Length, Count, Share, Colour } type = Type::Length;
    Figure low = 0, high = 0, usual = 0;  ///< inclusive; of numbers
    int decimals = 1;
    Refit refit = Refit::Fixed;
    Lessen lessen = Lessen::Not;
    std::string_view usualFrom = {};    ///< an absent key takes the value of this one
    std::string_view usualColour = {};  ///< of colours
};

/// A parameter and the member it has inside its kind's file, so that the two names stand in one place.
template <typename Sizes>
struct Bound {
    Param param;
    std::variant<double Sizes::*, std::string Sizes::*> member;
};

template <typename Sizes, std::size_t N>
constexpr std::array<Param, N> paramsOf(const Bound<Sizes> (&bounds)[N]) {
    std::array<Param, N> params{};
    for (std::size_t i = 0; i < N; ++i) params[i] = bounds[i].param;
    return params;
}

template <typename Sizes, std::size_t N>
Sizes sizesOf(const Bound<Sizes> (&bounds)[N], const Values& values) {
    Sizes sizes{};
    for (const auto& [param, member] : bounds) {
        const ParamValue* value = values.find(param.key);
        if (!value) continue;
        if (const auto* number = std::get_if<double Sizes::*>(&member)) {
            if (const Figure* v = std::get_if<double>(value)) sizes.*(*number) = *v;
        } else if (const std::string* v = std::get_if<std::string>(value)) {
            sizes.*std::get<std::string Sizes::*>(member) = *v;
        }
    }
    return sizes;
}

Values usualValues(std::span<const Param> params);

/// Every value within its limits. Errors: out_of_range, `path` + "." + key.
Status checkValues(std::span<const Param> params, const Values& values, const std::string& path);

}  // namespace nine
