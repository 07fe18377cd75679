// The parameters of an element by their keys, whatever its kind.
#pragma once

#include <string>
#include <string_view>
#include <utility>
#include <variant>
#include <vector>

#include "geom/vec.h"

namespace nine {

/// A number; a colour, a choice or letters; places on the skin, x and g from the origin.
using ParamValue = std::variant<Figure, std::string, Polyline2>;

/// A small table in the order values were first set. Cost: a walk over it.
class Values {
  public:
    /// Null when nothing was said of it.
    const ParamValue* find(std::string_view key) const {
        for (const auto& [known, value] : all_)
            if (known == key) return &value;
        return nullptr;
    }
    /// 0 when it is no number or was not set.
    Figure number(std::string_view key) const {
        const ParamValue* value = find(key);
        const Figure* number = value ? std::get_if<Figure>(value) : nullptr;
        return number ? *number : 0;
    }
    /// Empty when it is no text or was not set.
    std::string text(std::string_view key) const {
        const ParamValue* value = find(key);
        const std::string* text = value ? std::get_if<std::string>(value) : nullptr;
        return text ? *text : std::string();
    }
    void set(std::string_view key, ParamValue value) {
        for (auto& [known, old] : all_) {
            if (known != key) continue;
            old = std::move(value);
            return;
        }
        all_.emplace_back(key, std::move(value));
    }
    bool operator==(const Values&) const = default;

  private:
    std::vector<std::pair<std::string, ParamValue>> all_;
};

}  // namespace nine
