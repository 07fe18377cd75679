#include "blank/station_table.h"

#include <algorithm>
#include <array>
#include <cmath>
#include <optional>

#include "base/number_text.h"

namespace nine {
namespace {

constexpr std::array<std::string_view, 6> kColumns{"x_mm",    "top_mm",  "bottom_mm", "half_width_mm",
                                                   "section", "section_lower"};
constexpr std::size_t kRequiredColumns = 4;
/// No lure is shorter than this; a table that is was most likely typed in inches.
constexpr double kShortestLikelyBody_mm = 12;

std::string_view trimmed(std::string_view text) {
    const auto first = text.find_first_not_of(" \t\r");
    if (first == std::string_view::npos) return {};
    return text.substr(first, text.find_last_not_of(" \t\r") - first + 1);
}

std::vector<std::string_view> split(std::string_view line, char separator) {
    std::vector<std::string_view> cells;
    for (;;) {
        const auto at = line.find(separator);
        cells.push_back(trimmed(line.substr(0, at)));
        if (at == std::string_view::npos) return cells;
        line.remove_prefix(at + 1);
    }
}

double& fieldOf(Station& station, std::size_t column) {
    switch (column) {
        case 0: return station.x_mm;
        case 1: return station.top_mm;
        case 2: return station.bottom_mm;
        case 3: return station.halfWidth_mm;
        case 4: return station.section;
        default: return station.sectionLower;
    }
}

/// A cell as it may be shown in a message: short and printable.
std::string quoted(std::string_view cell) {
    std::string shown;
    for (const char c : cell.substr(0, 24)) shown += c >= 32 && c < 127 ? c : '?';
    return "\"" + shown + "\"";
}

struct Header {
    char separator = ',';
    std::array<std::optional<std::size_t>, kColumns.size()> cell;  ///< where each known column stands
    std::size_t cells = 0;
};

Result<Header> parseHeader(std::string_view line, const std::string& where) {
    Header header;
    if (line.find(',') == std::string_view::npos && line.find(';') != std::string_view::npos) {
        header.separator = ';';
    }
    const auto names = split(line, header.separator);
    header.cells = names.size();
    for (std::size_t i = 0; i < names.size(); ++i) {
        const auto known = std::find(kColumns.begin(), kColumns.end(), names[i]);
        if (known == kColumns.end()) continue;
        auto& place = header.cell[static_cast<std::size_t>(known - kColumns.begin())];
        if (place) return Error{"bad_header", "The column " + std::string(*known) + " stands twice.", where};
        place = i;
    }
    if (!header.cell[0]) {
        return Error{"bad_header",
                     "This is not a station table: its first line should name the columns "
                     "x_mm,top_mm,bottom_mm,half_width_mm and perhaps section.",
                     where};
    }
    for (std::size_t c = 0; c < kRequiredColumns; ++c) {
        if (header.cell[c]) continue;
        return Error{"missing_column",
                     "The column " + std::string(kColumns[c]) + " is missing; add it to the first line and "
                     "to every row.",
                     where};
    }
    return header;
}

Result<Station> parseRow(std::string_view line, const Header& header, const std::string& where) {
    const auto cells = split(line, header.separator);
    Station station;
    for (std::size_t c = 0; c < kColumns.size(); ++c) {
        if (!header.cell[c]) continue;
        const std::string name(kColumns[c]);
        if (*header.cell[c] >= cells.size()) {
            return Error{"missing_column",
                         "This row has " + std::to_string(cells.size()) + " values, so " + name +
                             " is missing; the first line names " + std::to_string(header.cells) + ".",
                         where + " " + name};
        }
        const std::string_view cell = cells[*header.cell[c]];
        const auto number = parseNumber(cell, header.separator == ';');
        if (!number) {
            return Error{"bad_number", name + " is " + quoted(cell) + ", which is not a number in mm.",
                         where + " " + name};
        }
        fieldOf(station, c) = *number;
    }
    if (!header.cell[5]) station.sectionLower = station.section;
    return station;
}

}  // namespace

namespace detail {

Status checkStation(const std::vector<Station>& stations, std::size_t index, std::string& field) {
    const Station& s = stations[index];
    const auto fail = [&](const char* name, const char* code, std::string text) {
        field = name;
        return Error{code, std::move(text), ""};
    };
    const std::array<std::pair<const char*, double>, 4> sizes{{{"x_mm", s.x_mm},
                                                               {"top_mm", s.top_mm},
                                                               {"bottom_mm", s.bottom_mm},
                                                               {"half_width_mm", s.halfWidth_mm}}};
    for (const auto& [name, value] : sizes) {
        if (!std::isfinite(value) || std::abs(value) > kMaxBody_mm) {
            return fail(name, "out_of_range",
                        std::string(name) + " is " + numberText(value) +
                            "; a body up to 2000 mm can be handled.");
        }
        if (value < 0 && name != sizes[0].first) {
            return fail(name, "negative",
                        std::string(name) + " is " + numberText(value) +
                            "; sizes are distances from the axis and cannot be negative.");
        }
    }
    for (const auto& [name, value] : {std::pair{"section", s.section}, {"section_lower", s.sectionLower}}) {
        if (!(value >= kMinSectionExponent && value <= kMaxSectionExponent)) {
            return fail(name, "bad_section",
                        std::string(name) + " is " + numberText(value) +
                            "; it must lie between 1.2 (pointed) and 12 (boxy), 2 is an ellipse.");
        }
    }
    if (index > 0 && s.x_mm < stations[index - 1].x_mm + kMinStationStep_mm) {
        return fail("x_mm", "not_ascending",
                    "x_mm is " + numberText(s.x_mm) + " after " + numberText(stations[index - 1].x_mm) +
                        "; stations must go from the nose towards the tail.");
    }
    const bool end = index == 0 || index + 1 == stations.size();
    const int zeros = (s.top_mm == 0) + (s.bottom_mm == 0) + (s.halfWidth_mm == 0);
    const char* zeroField = s.top_mm == 0 ? "top_mm" : s.bottom_mm == 0 ? "bottom_mm" : "half_width_mm";
    if (!end && zeros > 0) {
        return fail(zeroField, "zero_inside",
                    std::string(zeroField) +
                        " is 0 between nose and tail; the axis must lie inside the body and every size "
                        "there must be above 0.");
    }
    if (end && zeros > 0 && zeros < 3) {
        return fail(zeroField, "half_closed_end",
                    std::string(zeroField) +
                        " is 0 but the other sizes of this end are not; a closed end has all three 0, an "
                        "open one none.");
    }
    if (end && zeros == 3 && stations.size() == 2 && stations[1 - index].top_mm == 0) {
        return fail("top_mm", "zero_inside", "Both ends are points and nothing lies between them.");
    }
    return Done{};
}

}  // namespace detail

Result<StationTable> parseStationTable(std::string_view text, const std::string& source) {
    constexpr std::string_view byteOrderMark = "\xEF\xBB\xBF";
    if (text.substr(0, 3) == byteOrderMark) text.remove_prefix(3);

    StationTable table;
    std::vector<std::size_t> lineOf;
    std::optional<Header> header;
    std::size_t lineNumber = 0;
    while (!text.empty()) {
        ++lineNumber;
        const auto end = text.find('\n');
        const std::string_view line = trimmed(text.substr(0, end));
        text.remove_prefix(end == std::string_view::npos ? text.size() : end + 1);
        if (line.empty() || line.front() == '#') continue;
        const std::string where = source + ":" + std::to_string(lineNumber);
        if (!header) {
            Result<Header> parsed = parseHeader(line, where);
            if (!parsed) return parsed.error();
            header = *parsed;
            continue;
        }
        Result<Station> station = parseRow(line, *header, where);
        if (!station) return station.error();
        table.stations.push_back(*station);
        lineOf.push_back(lineNumber);
        if (table.stations.size() > kMaxStations) break;
    }
    if (!header) {
        return Error{"bad_header",
                     "The file is empty: it should hold a station table, whose first line is "
                     "x_mm,top_mm,bottom_mm,half_width_mm.",
                     source + ":1"};
    }
    const auto placeOf = [&](std::size_t i, const std::string& field) {
        const std::size_t line = i < lineOf.size() ? lineOf[i] : lineNumber;
        return source + ":" + std::to_string(line) + (field.empty() ? "" : " " + field);
    };
    if (Status checked = checkStations(table.stations, placeOf); !checked) return checked.error();
    return table;
}

Warnings doubtsAbout(const StationTable& table) {
    const double length = table.stations.back().x_mm - table.stations.front().x_mm;
    if (length >= kShortestLikelyBody_mm) return {};
    return {{"units_suspicious",
             "The body is only " + fixedText(length, 2) +
                 " mm long; the readings look like inches. If so, multiply them by 25.4.",
             "blank.stations"}};
}

std::string stationTableText(const StationTable& table, std::string_view title) {
    std::string text = "# " + std::string(title) + "\nx_mm,top_mm,bottom_mm,half_width_mm,section,section_lower\n";
    for (const Station& s : table.stations) {
        for (const double value : {s.x_mm, s.top_mm, s.bottom_mm, s.halfWidth_mm, s.section}) {
            text += numberText(value) + ",";
        }
        text += numberText(s.sectionLower) + "\n";
    }
    return text;
}

}  // namespace nine
