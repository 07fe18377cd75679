// A parameter of a kind, of elements or of masks: what files, limits and cards know of it.
#pragma once

#include <array>
#include <span>

#include "base/result.h"
#include "base/units.h"
#include "pattern/values.h"

namespace nine {

/// How a parameter follows when the pattern goes onto a body of another size.
/// (with the root of the girth: patterns of many marks; PATTERNS of small fish have smaller marks, but not as
/// many fewer as the girth would say. Common practice, no published source.)
enum class Refit { Fixed, WithLength, WithGirth, WithGirthRoot };

/// What becomes of a parameter when the mark must be made smaller to lie on the body at all.
enum class Lessen { Not, Fewer, Smaller, Lower };

/// One of those a Choice has.
struct Choice {
    std::string_view id;  ///< in job files
    Pattern name;
};

/// What can be set of a kind. Lengths are mm of skin.
struct Param {
    std::string_view key;  ///< in job files and on the command line, unit suffix included
    Pattern name;          ///< on its value, and spoken: "First diameter"
    /// A Seed is a whole number; a Path is places on the skin from the origin, each dragged by itself.
    enum class Type { Length, Count, Share, Angle, Seed, Colour, Choice, Letters, Path } type = Type::Length;
    Figure low = 0, high = 0, usual = 0;  ///< inclusive; of numbers
    int decimals = 1;
    Refit refit = Refit::Fixed;
    Lessen lessen = Lessen::Not;
    std::string_view usualFrom = {};  ///< an absent key takes the value of this one
    std::string_view usualText = {};  ///< of colours, choices and letters
    std::span<const Choice> choices = {};
    std::span<const std::array<double, 2>> usualPath_mm = {};
    bool spare = false;  ///< written to files only when it is not as usual

    bool isNumber() const { return type <= Type::Seed; }
    bool isWhole() const { return type == Type::Count || type == Type::Seed; }
};

constexpr std::size_t kMostPathPlaces = 400, kMostLetters = 40;

/// The value it has when nothing is said.
ParamValue usualValue(const Param& param);

/// A parameter and the member it has inside its kind's file, so that the two names stand in one place.
template <typename Sizes>
struct Bound {
    Param param;
    std::variant<double Sizes::*, std::string Sizes::*, Polyline2 Sizes::*> member;
};

template <typename Sizes, std::size_t N>
constexpr std::array<Param, N> paramsOf(const Bound<Sizes> (&bounds)[N]) {
    std::array<Param, N> params{};
    for (std::size_t i = 0; i < N; ++i) params[i] = bounds[i].param;
    return params;
}
template <std::size_t N, std::size_t M>
constexpr std::array<Param, N + M> joined(const std::array<Param, N>& a, const std::array<Param, M>& b) {
    std::array<Param, N + M> all{};
    for (std::size_t i = 0; i < N; ++i) all[i] = a[i];
    for (std::size_t i = 0; i < M; ++i) all[N + i] = b[i];
    return all;
}

/// Not inlined: where a kind has no texts the compiler would warn of the branch for them.
template <typename Sizes, typename Value>
[[gnu::noinline]] void putSize(Sizes& sizes, Value Sizes::*member, const ParamValue& value) {
    if (const Value* v = std::get_if<Value>(&value)) sizes.*member = *v;
}

template <typename Sizes, std::size_t N>
Sizes sizesOf(const Bound<Sizes> (&bounds)[N], const Values& values) {
    Sizes sizes{};
    for (const Bound<Sizes>& bound : bounds)
        if (const ParamValue* value = values.find(bound.param.key))
            std::visit([&](auto member) { putSize(sizes, member, *value); }, bound.member);
    return sizes;
}

Values usualValues(std::span<const Param> params);

/// Every value within its limits. Errors: out_of_range, `path` + "." + key.
Status checkValues(std::span<const Param> params, const Values& values, const std::string& path);

}  // namespace nine
