// What a string round the body tells of its section.
//
// Width and height leave open how full a section is; its girth fixes that. Solved by bisection on the exact
// arc, to 1e-9 of the exponent. About 1 ms.
#pragma once

#include "blank/station_table.h"

namespace nine {

/// Which half of the section the string corrects; the other keeps its exponent.
enum class Fuller { Both, Upper, Lower };

/// Girth of the section as the station stands.
double girthOf_mm(const Station& station);

struct GirthRange {
    double least_mm, most_mm;
};
/// Girths the section can have with its width and height, exponents from kMinSectionExponent to
/// kMaxSectionExponent.
GirthRange possibleGirths(const Station& station, Fuller fuller);

/// The station with the exponent that gives it this girth, and the girth noted. Errors: girth_impossible with
/// the possible range, zero_inside at a closed end.
Result<Station> withGirth(Station station, double girth_mm, Fuller fuller, const std::string& where);

/// The half width that gives a section of known height and exponents this girth. Errors: girth_impossible.
Result<double> halfWidthForGirth(const Station& station, double girth_mm, const std::string& where);

/// Model minus string, mm, for a station whose girth was measured.
inline double girthResidual_mm(const Station& station) {
    return girthOf_mm(station) - station.girth_mm;
}

}  // namespace nine
