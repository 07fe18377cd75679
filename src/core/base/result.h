// Success or one error, as a value.
//
// An Error is written for the painter: `words` are a whole sentence (what is wrong, what to do), its values
// apart (base/words.h), `where` says the place: a field path ("blank.stations[3].half_width_mm") or
// "file:line", `code` is a stable word for scripts and tests. A result that is usable but doubtful carries
// Warnings, which have the same shape.
//
//     Result<double> r = parse(text);
//     if (!r) return r.error();
//     use(*r);
#pragma once

#include <cassert>
#include <string>
#include <utility>
#include <variant>
#include <vector>

#include "base/words.h"

namespace nine {

struct Error {
    std::string code;
    Words words;
    std::string where;

    /// The sentence in English, lengths in mm.
    std::string text() const { return words.plain(); }
};

using Warning = Error;
using Warnings = std::vector<Warning>;

template <typename T>
class [[nodiscard]] Result {
  public:
    Result(T value) : state_(std::in_place_index<0>, std::move(value)) {}
    Result(Error error) : state_(std::in_place_index<1>, std::move(error)) {}

    explicit operator bool() const { return state_.index() == 0; }
    const T& operator*() const& { return value(); }
    T& operator*() & { return value(); }
    T&& operator*() && { return std::move(value()); }
    const T* operator->() const { return &value(); }
    T* operator->() { return &value(); }

    const T& value() const {
        assert(state_.index() == 0);
        return *std::get_if<0>(&state_);
    }
    T& value() {
        assert(state_.index() == 0);
        return *std::get_if<0>(&state_);
    }
    const Error& error() const {
        assert(state_.index() == 1);
        return *std::get_if<1>(&state_);
    }

  private:
    std::variant<T, Error> state_;
};

/// A Result of an action that yields nothing.
struct Done {};
using Status = Result<Done>;

}  // namespace nine
