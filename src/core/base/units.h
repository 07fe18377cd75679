// The core's units: mm, radians, seconds, kPa, microlitres. Other units exist only at the edges of the
// program and are converted here.
#pragma once

#include <numbers>

namespace nine {

constexpr double kPi = std::numbers::pi;
constexpr double kMmPerInch = 25.4;           // exact, international inch
constexpr double kPointsPerMm = 72.0 / 25.4;  // PDF user space, ISO 32000-1 8.3.2.3
constexpr double kKpaPerPsi = 6.894757;

constexpr double degToRad(double deg) {
    return deg * kPi / 180.0;
}
constexpr double radToDeg(double rad) {
    return rad * 180.0 / kPi;
}

}  // namespace nine
