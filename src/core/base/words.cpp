#include "base/words.h"

#include <algorithm>
#include <cassert>
#include <utility>

#include "base/number_text.h"

namespace nine {
namespace {

std::string plainValue(const Said& said) {
    if (const auto* words = std::get_if<std::shared_ptr<const Words>>(&said.value)) return (*words)->plain();
    if (const auto* name = std::get_if<std::string>(&said.value)) return *name;
    const double number = std::get<double>(said.value);
    if (said.measure == Measure::Share) return shareText(number);
    const std::string text =
        said.decimals == kShortest ? numberText(number) : fixedText(number, said.decimals);
    return said.measure == Measure::Length ? text + " mm" : text;
}

}  // namespace

std::string capitalised(std::string text) {
    if (!text.empty() && text[0] >= 'a' && text[0] <= 'z') text[0] = static_cast<char>(text[0] - 'a' + 'A');
    return text;
}

std::string shareText(double fraction) {
    return fixedText(100 * fraction, fraction < 0.01 ? 2 : 1) + " %";
}

Words Words::verbatim(std::string text) {
    if (text.empty()) return {};
    return Words(Pattern("{text}")).name("text", std::move(text));
}

Words Words::with(Said said) {
    values_.push_back(std::move(said));
    return std::move(*this);
}

Words Words::length(std::string key, double mm, int decimals) && {
    return with({std::move(key), mm, Measure::Length, decimals});
}

Words Words::number(std::string key, double value, int decimals) && {
    return with({std::move(key), value, Measure::Number, decimals});
}

Words Words::share(std::string key, double fraction) && {
    return with({std::move(key), fraction, Measure::Share});
}

Words Words::name(std::string key, std::string text) && {
    return with({std::move(key), std::move(text)});
}

Words Words::words(std::string key, Words value) && {
    return with({std::move(key), std::make_shared<const Words>(std::move(value))});
}

std::string Words::plain() const {
    return filled(pattern_.text(), *this, plainValue);
}

namespace {

Words joined(const std::vector<Words>& items, Pattern between, Pattern last) {
    if (items.empty()) return {};
    Words rest = items.back();
    for (std::size_t i = items.size() - 1; i-- > 0;)
        rest = Words(i + 2 == items.size() ? last : between)
                   .words("first", items[i])
                   .words("rest", std::move(rest));
    return rest;
}

}  // namespace

Words listed(const std::vector<Words>& items) {
    return joined(items, NINE_WORDS("core", "{first}, {rest}"), NINE_WORDS("core", "{first} and {rest}"));
}

Words parted(const std::vector<Words>& items) {
    return joined(items, NINE_WORDS("core", "{first}, {rest}"), NINE_WORDS("core", "{first}, {rest}"));
}

std::string filled(std::string_view pattern, const Words& words,
                   const std::function<std::string(const Said&)>& show) {
    std::string out;
    for (std::size_t at = 0; at < pattern.size();) {
        const std::size_t open = pattern.find('{', at);
        const std::size_t close = open == pattern.npos ? open : pattern.find('}', open);
        if (close == pattern.npos) return out + std::string(pattern.substr(at));
        const std::string_view key = pattern.substr(open + 1, close - open - 1);
        const auto& values = words.values();
        const auto value =
            std::find_if(values.begin(), values.end(), [&](const Said& s) { return s.key == key; });
        out += pattern.substr(at, open - at);
        // Braces that are no key, "an object in braces { }", are part of the sentence.
        if (value == values.end()) {
            assert((key.empty() || key.find(' ') != key.npos) && "a key of the pattern has no value");
            out += '{';
            at = open + 1;
            continue;
        }
        out += show(*value);
        at = close + 1;
    }
    return out;
}

}  // namespace nine
