#include "blank/station_table.h"

#include <algorithm>
#include <array>
#include <cmath>

#include "base/number_table.h"
#include "base/number_text.h"

namespace nine {
namespace {

constexpr std::array<std::string_view, 6> kColumns{"x_mm",          "top_mm",  "bottom_mm",
                                                   "half_width_mm", "section", "section_lower"};
constexpr std::size_t kRequiredColumns = 4;
/// No lure is shorter than this; a table that is was most likely typed in inches.
constexpr double kShortestLikelyBody_mm = 12;

double& fieldOf(Station& station, std::size_t column) {
    switch (column) {
        case 0:
            return station.x_mm;
        case 1:
            return station.top_mm;
        case 2:
            return station.bottom_mm;
        case 3:
            return station.halfWidth_mm;
        case 4:
            return station.section;
        default:
            return station.sectionLower;
    }
}

}  // namespace

namespace detail {

Status checkStation(const std::vector<Station>& stations, std::size_t index, std::string& field) {
    // In one piece: one sentence for each thing that can be wrong, in the order it is told.
    const Station& s = stations[index];
    const auto fail = [&](const char* name, const char* code, Words words) {
        field = name;
        return Error{code, std::move(words), ""};
    };
    const std::array<std::pair<const char*, double>, 4> sizes{{{"x_mm", s.x_mm},
                                                               {"top_mm", s.top_mm},
                                                               {"bottom_mm", s.bottom_mm},
                                                               {"half_width_mm", s.halfWidth_mm}}};
    for (const auto& [name, value] : sizes) {
        if (!std::isfinite(value) || std::abs(value) > kMaxBody_mm) {
            return fail(name, "out_of_range",
                        Words(NINE_WORDS("core", "{field} is {value}; a body up to {most} can be handled."))
                            .name("field", name)
                            .number("value", value, kShortest)
                            .length("most", kMaxBody_mm, 0));
        }
        if (value < 0 && name != sizes[0].first) {
            return fail(
                name, "negative",
                Words(NINE_WORDS(
                          "core",
                          "{field} is {value}; sizes are distances from the axis and cannot be negative."))
                    .name("field", name)
                    .number("value", value, kShortest));
        }
    }
    for (const auto& [name, value] : {std::pair{"section", s.section}, {"section_lower", s.sectionLower}}) {
        if (!(value >= kMinSectionExponent && value <= kMaxSectionExponent)) {
            return fail(name, "bad_section",
                        Words(NINE_WORDS("core",
                                         "{field} is {value}; it must lie between 1.2 (pointed) and 12 "
                                         "(boxy), 2 is an ellipse."))
                            .name("field", name)
                            .number("value", value, kShortest));
        }
    }
    if (index > 0 && s.x_mm < stations[index - 1].x_mm + kMinStationStep_mm) {
        return fail(
            "x_mm", "not_ascending",
            Words(
                NINE_WORDS("core",
                           "x_mm is {here} after {before}; stations must go from the nose towards the tail."))
                .number("here", s.x_mm, kShortest)
                .number("before", stations[index - 1].x_mm, kShortest));
    }
    const bool end = index == 0 || index + 1 == stations.size();
    const int zeros = (s.top_mm == 0) + (s.bottom_mm == 0) + (s.halfWidth_mm == 0);
    const char* zeroField = s.top_mm == 0 ? "top_mm" : s.bottom_mm == 0 ? "bottom_mm" : "half_width_mm";
    if (!end && zeros > 0) {
        return fail(zeroField, "zero_inside",
                    Words(NINE_WORDS("core",
                                     "{field} is 0 between nose and tail; the axis must lie inside the body "
                                     "and every size there must be above 0."))
                        .name("field", zeroField));
    }
    if (end && zeros > 0 && zeros < 3) {
        return fail(zeroField, "half_closed_end",
                    Words(NINE_WORDS("core",
                                     "{field} is 0 but the other sizes of this end are not; a closed end has "
                                     "all three 0, an open one none."))
                        .name("field", zeroField));
    }
    if (end && zeros == 3 && stations.size() == 2 && stations[1 - index].top_mm == 0) {
        return fail("top_mm", "zero_inside",
                    NINE_WORDS("core", "Both ends are points and nothing lies between them."));
    }
    return Done{};
}

}  // namespace detail

Result<StationTable> parseStationTable(std::string_view text, const std::string& source) {
    const TableColumns columns{{kColumns.begin(), kColumns.end()}, kRequiredColumns, "station table"};
    const Result<NumberTable> numbers = parseNumberTable(text, columns, source, kMaxStations);
    if (!numbers) return numbers.error();
    StationTable table;
    for (const std::vector<double>& row : numbers->rows) {
        Station station;
        for (std::size_t c = 0; c < kColumns.size(); ++c) {
            if (numbers->present[c]) fieldOf(station, c) = row[c];
        }
        if (!numbers->present[5]) station.sectionLower = station.section;
        table.stations.push_back(station);
    }
    const auto placeOf = [&](std::size_t i, const std::string& field) {
        return numbers->placeOf(source, i) + (field.empty() ? "" : " " + field);
    };
    if (Status checked = checkStations(table.stations, placeOf); !checked) return checked.error();
    return table;
}

Warnings doubtsAbout(const StationTable& table) {
    const double length = table.stations.back().x_mm - table.stations.front().x_mm;
    if (length >= kShortestLikelyBody_mm) return {};
    return {{"units_suspicious",
             Words(NINE_WORDS("core",
                              "The body is only {length} long; the readings look like inches. If so, "
                              "multiply them by 25.4."))
                 .length("length", length, 2),
             "blank.stations"}};
}

std::string stationTableText(const StationTable& table, std::string_view title) {
    std::string text =
        "# " + std::string(title) + "\nx_mm,top_mm,bottom_mm,half_width_mm,section,section_lower\n";
    for (const Station& s : table.stations) {
        for (const double value : {s.x_mm, s.top_mm, s.bottom_mm, s.halfWidth_mm, s.section}) {
            text += numberText(value) + ",";
        }
        text += numberText(s.sectionLower) + "\n";
    }
    return text;
}

}  // namespace nine
