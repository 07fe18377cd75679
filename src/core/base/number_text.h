// Numbers as text, the same in every locale (from_chars and to_chars only).
#pragma once

#include <optional>
#include <string>
#include <string_view>

#include "base/units.h"

namespace nine {

/// Without blanks, tabs and line ends at both ends.
std::string_view trimmed(std::string_view text);

/// The number that fills the whole of `text` (blanks around it allowed, a leading '+' too); nothing if
/// there is any other character. "nan" and "inf" are not numbers here. With `decimalComma` the decimal
/// sign is ',' instead of '.'.
std::optional<Figure> parseNumber(std::string_view text, bool decimalComma = false);

/// Shortest text that reads back to the same double.
std::string numberText(Figure value);

/// Fixed number of decimals, rounded to nearest; never "-0".
std::string fixedText(Figure value, int decimals);

}  // namespace nine
