// The core's units: mm, radians, seconds, kPa, microlitres. Other units exist only at the edges of the
// program and are converted here.
#pragma once

#include <numbers>

namespace nine {

// A double in a header says its unit in its name (x_mm, angle_deg) or by one of these types.
using Fraction = double;  ///< a fraction of a whole; a strain is one of a length
using Ratio = double;     ///< a number without a unit: a quotient, an exponent, a factor, a count
using Figure = double;    ///< in the unit of what it belongs to, which the place says

constexpr Ratio kPi = std::numbers::pi;
constexpr Ratio kMmPerInch = 25.4;           // exact, international inch
constexpr Ratio kPointsPerMm = 72.0 / 25.4;  // PDF user space, ISO 32000-1 8.3.2.3
constexpr Ratio kKpaPerPsi = 6.894757;

constexpr double degToRad(double deg) {
    return deg * kPi / 180.0;
}
constexpr double radToDeg(double rad) {
    return rad * 180.0 / kPi;
}

}  // namespace nine
