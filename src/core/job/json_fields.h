// Reading JSON objects field by field: what is missing or wrong is thrown as Bad, with the path of the field;
// what is not known is kept. Only files in this room that read or write JSON include this.
#pragma once

#include <algorithm>
#include <cmath>
#include <nlohmann/json.hpp>
#include <optional>

#include "blank/skin.h"
#include "paint/paint.h"

namespace nine::json {

using Json = nlohmann::ordered_json;

/// Thrown only while a file is read and turned into a Result at the edge of its parse function.
struct Bad {
    Error error;
};

[[noreturn]] inline void fail(const char* code, std::string text, std::string where) {
    throw Bad{{code, std::move(text), std::move(where)}};
}

/// One JSON object while it is read: hands out known fields and keeps the rest.
class Fields {
  public:
    Fields(const Json& json, std::string path) : json_(json), path_(std::move(path)) {
        if (!json.is_object()) fail("bad_value", "Here should stand an object in braces { }.", path_);
    }

    std::string at(const char* key) const { return path_.empty() ? key : path_ + "." + key; }

    const Json* find(const char* key) {
        known_.push_back(key);
        const auto it = json_.find(key);
        return it == json_.end() ? nullptr : &*it;
    }
    const Json& need(const char* key) {
        const Json* found = find(key);
        if (!found) fail("missing", std::string("The field ") + key + " is missing.", at(key));
        return *found;
    }

    double number(const Json& value, const char* key) const {
        if (!value.is_number() || !std::isfinite(value.get<double>())) {
            fail("bad_value", std::string(key) + " must be a number.", at(key));
        }
        return value.get<double>();
    }
    double number(const char* key) { return number(need(key), key); }
    void read(const char* key, double& into) {
        if (const Json* v = find(key)) into = number(*v, key);
    }
    void read(const char* key, std::optional<double>& into) {
        if (const Json* v = find(key)) into = number(*v, key);
    }
    void read(const char* key, int& into) {
        const Json* v = find(key);
        if (!v) return;
        const double value = number(*v, key);
        if (value != std::floor(value) || std::abs(value) > 1e6) {
            fail("bad_value", std::string(key) + " must be a whole number.", at(key));
        }
        into = static_cast<int>(value);
    }
    void read(const char* key, std::string& into) {
        const Json* v = find(key);
        if (!v) return;
        if (!v->is_string()) fail("bad_value", std::string(key) + " must be a text in quotes.", at(key));
        into = v->get<std::string>();
    }
    void read(const char* key, bool& into) {
        const Json* v = find(key);
        if (!v) return;
        if (!v->is_boolean()) fail("bad_value", std::string(key) + " must be true or false.", at(key));
        into = v->get<bool>();
    }
    void read(const char* key, Side& into) {
        std::string text;
        read(key, text);
        if (text.empty()) return;
        if (text != "L" && text != "R")
            fail("bad_value", "side must be \"L\" or \"R\", the fish's own.", at(key));
        into = text == "L" ? Side::Left : Side::Right;
    }

    std::string unknown() const {
        Json rest = Json::object();
        for (const auto& [key, value] : json_.items()) {
            if (std::find(known_.begin(), known_.end(), key) == known_.end()) rest[key] = value;
        }
        return rest.empty() ? std::string() : rest.dump();
    }

  private:
    const Json& json_;
    std::string path_;
    std::vector<std::string> known_;
};

inline void addUnknown(Json& object, const std::string& unknownJson) {
    if (unknownJson.empty()) return;
    const Json rest = Json::parse(unknownJson);
    for (const auto& [key, value] : rest.items()) object[key] = value;
}

inline const Json& needArray(const Json& value, const std::string& path) {
    if (!value.is_array()) fail("bad_value", "Here should stand a list in brackets [ ].", path);
    return value;
}

inline std::string indexed(const std::string& path, std::size_t i) {
    return path + "[" + std::to_string(i) + "]";
}

inline Reduction readReduction(const Json& json, const std::string& path) {
    if (!json.is_array() || json.size() != 2 || !json[0].is_number() || !json[1].is_number())
        fail("bad_value", "A reduction is [drops of paint, drops of reducer].", path);
    const Reduction r{json[0].get<double>(), json[1].get<double>()};
    if (!(r.paint > 0 && r.reducer >= 0))
        fail("bad_value", "A reduction counts drops of paint and drops of reducer.", path);
    return r;
}

}  // namespace nine::json
