#include "job/json_text.h"

#include <algorithm>
#include <charconv>
#include <nlohmann/json.hpp>

#include "base/number_text.h"
#include "job/json_place.h"

namespace nine::json {
namespace {

constexpr std::string_view kBlanks = " \t\r\n";

/// Hears nothing but where the text stops being JSON.
struct Checker : nlohmann::json_sax<nlohmann::json> {
    bool null() override { return true; }
    bool boolean(bool) override { return true; }
    bool number_integer(number_integer_t) override { return true; }
    bool number_unsigned(number_unsigned_t) override { return true; }
    bool number_float(number_float_t, const string_t&) override { return true; }
    bool string(string_t&) override { return true; }
    bool binary(binary_t&) override { return true; }
    bool start_object(std::size_t) override { return true; }
    bool key(string_t&) override { return true; }
    bool end_object() override { return true; }
    bool start_array(std::size_t) override { return true; }
    bool end_array() override { return true; }
    bool parse_error(std::size_t at, const std::string&, const nlohmann::detail::exception& e) override {
        position = at;
        outOfRange = dynamic_cast<const nlohmann::detail::out_of_range*>(&e) != nullptr;
        return false;
    }
    std::size_t position = 0;
    bool outOfRange = false;
};

/// Where brackets first stand more than kMostDepth deep; nothing if nowhere.
std::optional<std::size_t> tooDeepAt(std::string_view text) {
    int depth = 0;
    bool inString = false;
    for (std::size_t i = 0; i < text.size(); ++i) {
        const char c = text[i];
        if (inString) {
            if (c == '\\') ++i;
            if (c == '"') inString = false;
        } else if (c == '"') {
            inString = true;
        } else if (c == '{' || c == '[') {
            if (++depth > kMostDepth) return i;
        } else if (c == '}' || c == ']') {
            --depth;
        }
    }
    return std::nullopt;
}

std::string_view stripped(std::string_view text) {
    const std::size_t first = text.find_first_not_of(kBlanks);
    if (first == std::string_view::npos) return {};
    return text.substr(first, text.find_last_not_of(kBlanks) - first + 1);
}

std::string decoded(std::string_view quoted) {
    if (quoted.find('\\') == std::string_view::npos) return std::string(quoted.substr(1, quoted.size() - 2));
    return nlohmann::json::parse(quoted).get<std::string>();
}

}  // namespace

Value::Value(std::string_view text) : raw_(stripped(text)) {}

std::optional<double> Value::number() const {
    return isNumber() ? parseNumber(raw_) : std::nullopt;
}

std::optional<std::int64_t> Value::whole() const {
    std::int64_t value = 0;
    const char* end = raw_.data() + raw_.size();
    const auto [stop, problem] = std::from_chars(raw_.data(), end, value);
    if (!isNumber() || problem != std::errc() || stop != end) return std::nullopt;
    return value;
}

std::string Value::text() const {
    return isText() ? decoded(raw_) : std::string();
}

std::vector<Value> Value::items() const {
    std::vector<Value> all;
    for (std::size_t at = 1; isArray();) {
        at = raw_.find_first_not_of(kBlanks, at);
        if (raw_[at] == ']') break;
        const std::size_t end = endOfValue(raw_, at);
        all.emplace_back(raw_.substr(at, end - at));
        at = raw_.find_first_not_of(kBlanks, end);
        if (raw_[at] == ',') ++at;
    }
    return all;
}

std::vector<Member> Value::members() const {
    std::vector<Member> all;
    for (std::size_t at = 1; isObject();) {
        at = raw_.find_first_not_of(kBlanks, at);
        if (raw_[at] == '}') break;
        const std::size_t keyEnd = endOfValue(raw_, at);
        const std::string_view key = raw_.substr(at, keyEnd - at);
        at = raw_.find_first_not_of(kBlanks, raw_.find(':', keyEnd) + 1);
        const std::size_t end = endOfValue(raw_, at);
        all.push_back({decoded(key), key, Value(raw_.substr(at, end - at))});
        at = raw_.find_first_not_of(kBlanks, end);
        if (raw_[at] == ',') ++at;
    }
    return all;
}

Result<Value> parseText(std::string_view text, const std::string& source, const std::string& what) {
    const auto place = [&](std::size_t offset) {
        const std::string key = lastKeyBefore(text, offset);
        return source + ":" + std::to_string(lineAt(text, offset)) + (key.empty() ? "" : " " + key);
    };
    if (text.substr(0, 3) == "\xEF\xBB\xBF") text.remove_prefix(3);
    if (const auto deep = tooDeepAt(text))
        return Error{
            "too_deep",
            Words(NINE_WORDS(
                      "core",
                      "In this {file} more than {most} brackets stand within each other, which no file of "
                      "this program has; it was not opened."))
                .name("file", what)
                .number("most", kMostDepth, 0),
            place(*deep)};
    Checker checker;
    if (nlohmann::json::sax_parse(text, &checker)) return Value(text);
    const std::size_t offset = std::min(checker.position > 0 ? checker.position - 1 : 0, text.size());
    if (stripped(text).empty())
        return Error{
            "bad_json",
            Words(NINE_WORDS("core", "The file is empty; a {file} was expected.")).name("file", what),
            source + ":1"};
    const bool cutShort = text.find_first_not_of(kBlanks, offset) == std::string_view::npos;
    const Pattern wrong =
        checker.outOfRange
            ? NINE_WORDS("core", "Here the {file} holds a number that is too large to be read.")
        : cutShort ? NINE_WORDS("core",
                                "The {file} breaks off before its end; it was probably cut short. Use a "
                                "backup or the autosaved copy.")
                   : NINE_WORDS("core", "The {file} is damaged here: this is not well-formed JSON.");
    return Error{"bad_json", Words(wrong).name("file", what), place(offset)};
}

}  // namespace nine::json
