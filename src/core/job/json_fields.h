// Reading JSON objects field by field: what is missing or wrong is thrown as Bad, with the path of the field;
// what is not known is kept as it stands and written back. Internal to job/; only files that read or write
// JSON include this.
#pragma once

#include <algorithm>
#include <nlohmann/json.hpp>
#include <optional>
#include <unordered_map>

#include "base/calendar.h"
#include "base/units.h"
#include "blank/skin.h"
#include "job/json_text.h"
#include "paint/paint.h"

namespace nine::json {

/// What is written. Reading uses Value.
using Json = nlohmann::ordered_json;

/// Thrown only while a file is read and turned into a Result at the edge of its parse function.
struct Bad {
    Error error;
};

[[noreturn]] inline void fail(const char* code, Words words, std::string where) {
    throw Bad{{code, std::move(words), std::move(where)}};
}

/// One JSON object while it is read: hands out known fields and keeps the rest. Of a key that stands twice
/// the last one counts.
class Fields {
  public:
    Fields(const Value& object, std::string path) : path_(std::move(path)) {
        if (!object.isObject())
            fail("bad_value", NINE_WORDS("core", "Here should stand an object in braces { }."), path_);
        members_ = object.members();
        for (std::size_t i = 0; i < members_.size(); ++i) places_[members_[i].key] = i;
        known_.resize(members_.size());
    }
    Fields(const Fields&) = delete;  // places_ looks into members_
    Fields& operator=(const Fields&) = delete;

    std::string at(const char* key) const { return path_.empty() ? key : path_ + "." + key; }

    const Value* find(const char* key) {
        const auto found = places_.find(key);
        if (found == places_.end()) return nullptr;
        known_[found->second] = true;
        return &members_[found->second].value;
    }
    const Value& need(const char* key) {
        const Value* found = find(key);
        if (!found)
            fail("missing", Words(NINE_WORDS("core", "The field {key} is missing.")).name("key", key),
                 at(key));
        return *found;
    }

    Figure number(const Value& value, const char* key) const {
        const auto number = value.number();
        if (!number)
            fail("bad_value",
                 Words(NINE_WORDS("core", "{key} must be a number.")).name("key", std::string(key)), at(key));
        return *number;
    }
    Figure number(const char* key) { return number(need(key), key); }
    void read(const char* key, Figure& into) {
        if (const Value* v = find(key)) into = number(*v, key);
    }
    void read(const char* key, std::optional<double>& into) {
        if (const Value* v = find(key)) into = number(*v, key);
    }
    void read(const char* key, int& into) {
        const Value* v = find(key);
        if (!v) return;
        const Figure value = number(*v, key);
        if (value != std::floor(value) || std::abs(value) > 1e6) {
            fail("bad_value",
                 Words(NINE_WORDS("core", "{key} must be a whole number.")).name("key", std::string(key)),
                 at(key));
        }
        into = static_cast<int>(value);
    }
    void read(const char* key, std::string& into) {
        const Value* v = find(key);
        if (!v) return;
        if (!v->isText())
            fail("bad_value",
                 Words(NINE_WORDS("core", "{key} must be a text in quotes.")).name("key", std::string(key)),
                 at(key));
        into = v->text();
    }
    void read(const char* key, bool& into) {
        const Value* v = find(key);
        if (!v) return;
        if (!v->isBool())
            fail("bad_value",
                 Words(NINE_WORDS("core", "{key} must be true or false.")).name("key", std::string(key)),
                 at(key));
        into = v->truth();
    }
    void read(const char* key, Side& into) {
        std::string text;
        read(key, text);
        if (text.empty()) return;
        if (text != "L" && text != "R")
            fail("bad_value", NINE_WORDS("core", "side must be \"L\" or \"R\", the fish's own."), at(key));
        into = text == "L" ? Side::Left : Side::Right;
    }

    /// The members nobody asked for, as they stand, as the text of an object; empty if there are none.
    std::string unknown() const {
        std::string rest;
        for (std::size_t i = 0; i < members_.size(); ++i) {
            if (known_[i] || (places_.at(members_[i].key) != i && known_[places_.at(members_[i].key)]))
                continue;
            rest += rest.empty() ? "{" : ",";
            rest.append(members_[i].rawKey).append(": ").append(members_[i].value.raw());
        }
        return rest.empty() ? rest : rest + "}";
    }

  private:
    std::string path_;
    std::vector<Member> members_;
    std::unordered_map<std::string_view, std::size_t> places_;
    std::vector<bool> known_;
};

/// Members that were not known, to be written after the known ones as they stood.
inline void addUnknown(Json& object, const std::string& unknownJson) {
    if (!unknownJson.empty()) object[""] = Json::binary({unknownJson.begin(), unknownJson.end()});
}
/// A value that was not known, to be written as it stood.
inline Json asItStood(std::string_view raw) {
    constexpr std::uint64_t kWhole = 1;
    return Json::binary({raw.begin(), raw.end()}, kWhole);
}

/// The text of what was put together: one blank a level, known keys first, then what addUnknown() and
/// asItStood() say. Characters that are no UTF-8 are replaced. Cost: linear in the text.
std::string textOf(const Json& json);

inline std::vector<Value> needArray(const Value& value, const std::string& path) {
    if (!value.isArray())
        fail("bad_value", NINE_WORDS("core", "Here should stand a list in brackets [ ]."), path);
    return value.items();
}

inline std::string indexed(const std::string& path, std::size_t i) {
    return path + "[" + std::to_string(i) + "]";
}

/// `count` numbers in brackets; nothing if it is anything else.
inline std::optional<std::vector<double>> numbersIn(const Value& value, std::size_t count) {
    std::vector<double> numbers;
    for (const Value& item : value.items()) {
        const auto number = item.number();
        if (!number) return std::nullopt;
        numbers.push_back(*number);
    }
    return value.isArray() && numbers.size() == count ? std::optional(numbers) : std::nullopt;
}

/// Texts in a list; nothing when the key is not there.
inline void readTexts(Fields& f, const char* key, std::vector<std::string>& into) {
    const Value* list = f.find(key);
    if (!list) return;
    for (const Value& item : needArray(*list, f.at(key))) {
        if (!item.isText())
            fail("bad_value", NINE_WORDS("core", "Here should stand texts in quotes."),
                 indexed(f.at(key), into.size()));
        into.push_back(item.text());
    }
}

/// A moment that must be there: "2026-11-30T08:30:00Z".
inline Moment readMoment(Fields& f, const char* key) {
    std::string text;
    f.need(key);
    f.read(key, text);
    const auto moment = parseUtc(text);
    if (!moment)
        fail("bad_value",
             Words(NINE_WORDS("core", "\"{date}\" is no moment; write it as 2026-11-30T08:30:00Z."))
                 .name("date", text),
             f.at(key));
    return *moment;
}

inline Reduction readReduction(const Value& json, const std::string& path) {
    const auto drops = numbersIn(json, 2);
    if (!drops)
        fail("bad_value", NINE_WORDS("core", "A reduction is [drops of paint, drops of reducer]."), path);
    const Reduction r{(*drops)[0], (*drops)[1]};
    if (!(r.paint > 0 && r.reducer >= 0))
        fail("bad_value", NINE_WORDS("core", "A reduction counts drops of paint and drops of reducer."),
             path);
    return r;
}

/// Runs `read(value)` on the whole text and turns what it throws into an error with the line of its field.
/// Errors: those of parseText besides, internal.
template <typename T, typename Read>
Result<T> readText(std::string_view text, const std::string& source, const std::string& what,
                   const Read& read);

}  // namespace nine::json

#include "job/json_place.h"

template <typename T, typename Read>
nine::Result<T> nine::json::readText(std::string_view text, const std::string& source,
                                     const std::string& what, const Read& read) {
    const Result<Value> whole = parseText(text, source, what);
    if (!whole) return whole.error();
    try {
        return read(*whole);
    } catch (const Bad& bad) {
        Error error = bad.error;
        error.where = source + ":" + std::to_string(lineOfField(text, error.where)) + " " + error.where;
        return error;
    }
}
