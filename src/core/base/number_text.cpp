#include "base/number_text.h"

#include <algorithm>
#include <array>
#include <charconv>
#include <cmath>

namespace nine {

std::string_view trimmed(std::string_view text) {
    constexpr std::string_view blanks = " \t\r\n\f\v";
    const auto first = text.find_first_not_of(blanks);
    if (first == std::string_view::npos) return {};
    return text.substr(first, text.find_last_not_of(blanks) - first + 1);
}

std::optional<double> parseNumber(std::string_view text, bool decimalComma) {
    text = trimmed(text);
    if (!text.empty() && text.front() == '+') text.remove_prefix(1);
    std::string swapped;
    if (decimalComma) {
        if (text.find('.') != std::string_view::npos) return std::nullopt;
        swapped = text;
        std::replace(swapped.begin(), swapped.end(), ',', '.');
        text = swapped;
    }
    double value = 0;
    const char* end = text.data() + text.size();
    const auto [stop, problem] = std::from_chars(text.data(), end, value);
    if (problem != std::errc() || stop != end || !std::isfinite(value)) return std::nullopt;
    return value;
}

std::string numberText(double value) {
    std::array<char, 32> buffer;
    const auto [end, problem] = std::to_chars(buffer.data(), buffer.data() + buffer.size(), value);
    return problem == std::errc() ? std::string(buffer.data(), end) : std::string("?");
}

std::string fixedText(double value, int decimals) {
    std::array<char, 352> buffer;
    const auto [end, problem] = std::to_chars(buffer.data(), buffer.data() + buffer.size(), value,
                                              std::chars_format::fixed, decimals);
    if (problem != std::errc()) return "?";
    std::string text(buffer.data(), end);
    const bool onlyZeros = text.find_first_not_of("-0.") == std::string::npos;
    if (onlyZeros && text.front() == '-') text.erase(0, 1);
    return text;
}

}  // namespace nine
