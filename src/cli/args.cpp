#include "cli/args.h"

#include <algorithm>
#include <cmath>

#include "base/number_text.h"

namespace nine::cli {
namespace {

std::vector<std::string> splitAt(const std::string& text, char separator) {
    std::vector<std::string> parts(1);
    for (const char c : text) {
        if (c == separator) {
            parts.emplace_back();
        } else {
            parts.back() += c;
        }
    }
    return parts;
}

}  // namespace

Result<Args> Args::parse(const std::vector<std::string>& words, std::vector<std::string> valued,
                         std::vector<std::string> switches, std::size_t positional) {
    switches.push_back("json");
    const auto among = [](const std::vector<std::string>& list, const std::string& name) {
        return std::find(list.begin(), list.end(), name) != list.end();
    };
    Args args;
    for (std::size_t i = 0; i < words.size(); ++i) {
        if (words[i].rfind("--", 0) != 0) {
            args.words_.push_back(words[i]);
            continue;
        }
        const std::string flag = words[i].substr(2);
        if (among(switches, flag)) {
            args.values_[flag] = "";
        } else if (!among(valued, flag)) {
            return Error{
                "usage",
                Words(NINE_WORDS("cli", "This command has no flag --{flag}; see --help.")).name("flag", flag),
                "--" + flag};
        } else if (i + 1 == words.size()) {
            return Error{
                "usage",
                Words(NINE_WORDS("cli", "The flag --{flag} needs a value after it.")).name("flag", flag),
                "--" + flag};
        } else {
            args.values_[flag] = words[++i];
        }
    }
    if (args.words_.size() != positional) {
        return Error{"usage",
                     Words(NINE_WORDS("cli",
                                      "This command takes {positional} word(s) besides its flags, but got "
                                      "{words}; see --help."))
                         .number("positional", positional, 0)
                         .number("words", args.words_.size(), 0),
                     ""};
    }
    return args;
}

std::optional<std::string> Args::value(const std::string& flag) const {
    const auto found = values_.find(flag);
    if (found == values_.end()) return std::nullopt;
    return found->second;
}

Result<std::string> Args::need(const std::string& flag) const {
    if (const auto found = value(flag)) return *found;
    return Error{"usage",
                 Words(NINE_WORDS("cli", "The flag --{flag} is needed here; see --help.")).name("flag", flag),
                 "--" + flag};
}

Result<int> Args::whole(const std::string& flag, int fallback, int low, int high) const {
    const Result<double> value = number(flag, fallback);
    if (!value) return value.error();
    if (*value != std::floor(*value) || *value < low || *value > high)
        return Error{"bad_value",
                     Words(NINE_WORDS("cli", "--{flag} takes a whole number from {low} to {high}."))
                         .name("flag", flag)
                         .number("low", low, 0)
                         .number("high", high, 0),
                     "--" + flag};
    return static_cast<int>(*value);
}

Result<double> Args::number(const std::string& flag, double fallback) const {
    const auto text = value(flag);
    if (!text) return fallback;
    if (const auto number = parseNumber(*text)) return *number;
    return Error{"bad_value",
                 Words(NINE_WORDS("cli", "--{flag} must be a number, with a point as decimal sign."))
                     .name("flag", flag),
                 "--" + flag};
}

Result<std::vector<double>> parseNumbers(const std::string& text, const std::string& where) {
    std::vector<double> numbers;
    for (const std::string& part : splitAt(text, ',')) {
        const auto number = parseNumber(part);
        if (!number) {
            return Error{
                "bad_value",
                Words(NINE_WORDS("cli",
                                 "\"{substr}\" is not a number; write numbers separated by commas, like "
                                 "12.5,3."))
                    .name("substr", part.substr(0, 24)),
                where};
        }
        numbers.push_back(*number);
    }
    return numbers;
}

Result<SideNumbers> parseSideNumbers(const std::string& text, std::size_t count, const std::string& where) {
    const Error wrong{
        "bad_value",
        Words(NINE_WORDS("cli",
                         "\"{substr}\" should be a side (L or R) and {count} numbers, separated "
                         "by commas."))
            .name("substr", text.substr(0, 40))
            .number("count", count, 0),
        where};
    if (text.size() < 2 || (text[0] != 'L' && text[0] != 'R') || text[1] != ',') return wrong;
    Result<std::vector<double>> numbers = parseNumbers(text.substr(2), where);
    if (!numbers) return numbers.error();
    if (numbers->size() != count) return wrong;
    return SideNumbers{text[0], std::move(*numbers)};
}

}  // namespace nine::cli
