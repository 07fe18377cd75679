// Lengths and numbers as people type them.
//
//     2.4   2,4   2.4 mm   1 cm   0.1 in   3/8"   1 1/2 in   3*4.5 + 2   2 * 3/8 in   -1/2 in
//
// A fraction of whole numbers, and a whole number with such a fraction behind it, is one number with its
// unit. Sums and differences of products; * and / take at most one length among their factors, for a length
// times a length is none. Where no unit stands in a term, it is counted in the unit on the screen. Units: mm,
// cm, in, inch, inches, " (also the typographic ones). Decimal sign: point or comma. No exponents: nobody
// means a number like 1e9 here.
#pragma once

#include <optional>
#include <string_view>

namespace nine {

/// In mm; `bare_mm` is what a number without unit is multiplied by (1, or kMmPerInch). Nothing if it is no
/// length.
std::optional<double> typedLength(std::string_view text, double bare_mm);

/// The same without units.
std::optional<double> typedNumber(std::string_view text);

}  // namespace nine
