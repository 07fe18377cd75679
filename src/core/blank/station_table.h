// Readings of a blank: what a caliper or a ruler gives at stations along the axis.
//
// Axes: x from nose to tail, y to the fish's left, z to its back; mm. Sizes are distances from the axis.
// The text form (.csv) has the header x_mm,top_mm,bottom_mm,half_width_mm[,section[,section_lower]], '#'
// comments, and x ascending from the nose. A byte order mark, CRLF line ends, and ';' between columns with
// decimal commas are understood.
#pragma once

#include <string>
#include <string_view>
#include <vector>

#include "base/result.h"
#include "base/units.h"

namespace nine {

/// Which values of a station nobody measured.
enum Assumed : unsigned {
    kAssumedTop = 1,
    kAssumedBottom = 2,
    kAssumedWidth = 4,
    kAssumedSection = 8,
    kAssumedAll = 15
};

struct Station {
    double x_mm = 0;
    double top_mm = 0;        ///< from the axis up to the back
    double bottom_mm = 0;     ///< from the axis down to the belly
    double halfWidth_mm = 0;  ///< from the axis to either side
    Ratio section = 2;        ///< exponent of the upper half: 2 an ellipse, more is boxier
    Ratio sectionLower = 2;   ///< exponent of the lower half
    std::string unknownJson;  ///< keys of a job file that this version does not know
    double girth_mm = 0;      ///< what a string measured here; 0 when none did
    unsigned assumed = 0;     ///< of Assumed
};

constexpr Ratio kMinSectionExponent = 1.2;
constexpr Ratio kMaxSectionExponent = 12;
constexpr std::size_t kMinStations = 2;
constexpr std::size_t kMaxStations = 2000;
/// Largest body length and smallest step between stations accepted, mm.
constexpr double kMaxBody_mm = 2000;
constexpr double kMinStationStep_mm = 1e-3;

struct StationTable {
    std::vector<Station> stations;
};

/// Reads the text form. `source` names the file in messages ("file:line").
/// Errors: bad_header, missing_column, bad_number, and those of checkStations.
Result<StationTable> parseStationTable(std::string_view text, const std::string& source);

/// Whether the readings describe a body. Errors: too_few_stations, not_ascending, negative, out_of_range,
/// bad_section, zero_inside, half_closed_end. `placeOf(i, field)` writes the place of a reading.
template <typename PlaceOf>
Status checkStations(const std::vector<Station>& stations, const PlaceOf& placeOf);

/// Doubts that do not stop the work: `units_suspicious` when the body is so small that the readings are
/// probably inches.
Warnings doubtsAbout(const StationTable& table);

/// The text form of `table`.
std::string stationTableText(const StationTable& table, std::string_view title);

namespace detail {
Status checkStation(const std::vector<Station>& stations, std::size_t index, std::string& field);
}

template <typename PlaceOf>
Status checkStations(const std::vector<Station>& stations, const PlaceOf& placeOf) {
    if (stations.size() < kMinStations || stations.size() > kMaxStations) {
        return Error{
            "too_few_stations",
            stations.size() < kMinStations
                ? NINE_WORDS("core",
                             "A blank needs readings at two stations or more, nose and tail among them.")
                : NINE_WORDS("core", "There are more than 2000 stations; thin them out."),
            placeOf(0, "")};
    }
    for (std::size_t i = 0; i < stations.size(); ++i) {
        std::string field;
        if (Status status = detail::checkStation(stations, i, field); !status) {
            Error error = status.error();
            error.where = placeOf(i, field);
            return error;
        }
    }
    return Done{};
}

}  // namespace nine
