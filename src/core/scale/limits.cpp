#include "scale/limits.h"

#include <cmath>

namespace nine {

Status checkWithin(const std::string& field, Figure value, Figure low, Figure high, const std::string& path) {
    if (std::isfinite(value) && value >= low && value <= high) return Done{};
    return Error{"out_of_range",
                 Words(NINE_WORDS("core", "{field} is {value}; it must be from {low} to {high}."))
                     .name("field", field)
                     .number("value", value, kShortest)
                     .number("low", low, kShortest)
                     .number("high", high, kShortest),
                 (path.empty() ? "" : path + ".") + field};
}

}  // namespace nine
