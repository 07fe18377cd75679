#include "base/number_table.h"

#include <algorithm>

#include "base/number_text.h"

namespace nine {
namespace {

std::vector<std::string_view> split(std::string_view line, char separator) {
    std::vector<std::string_view> cells;
    for (;;) {
        const auto at = line.find(separator);
        cells.push_back(trimmed(line.substr(0, at)));
        if (at == std::string_view::npos) return cells;
        line.remove_prefix(at + 1);
    }
}

/// A cell as it may be shown in a message: short and printable.
std::string quoted(std::string_view cell) {
    std::string shown;
    for (const char c : cell.substr(0, 24)) shown += c >= 32 && c < 127 ? c : '?';
    return "\"" + shown + "\"";
}

std::string firstLine(const TableColumns& columns, std::size_t count) {
    std::string names;
    for (std::size_t i = 0; i < count; ++i) names += (i > 0 ? "," : "") + std::string(columns.names[i]);
    return names;
}

struct Header {
    char separator = ',';
    std::vector<std::optional<std::size_t>> cell;  ///< where each asked column stands
    std::size_t cells = 0;
};

Result<Header> parseHeader(std::string_view line, const TableColumns& columns, const std::string& where) {
    Header header;
    if (line.find(',') == std::string_view::npos && line.find(';') != std::string_view::npos) {
        header.separator = ';';
    }
    const auto names = split(line, header.separator);
    header.cells = names.size();
    header.cell.resize(columns.names.size());
    for (std::size_t i = 0; i < names.size(); ++i) {
        const auto known = std::find(columns.names.begin(), columns.names.end(), names[i]);
        if (known == columns.names.end()) continue;
        auto& place = header.cell[static_cast<std::size_t>(known - columns.names.begin())];
        if (place)
            return Error{"bad_header",
                         Words(NINE_WORDS("core", "The column {known} stands twice."))
                             .name("known", std::string(*known)),
                         where};
        place = i;
    }
    if (!header.cell[0]) {
        return Error{
            "bad_header",
            Words(NINE_WORDS("core",
                             "This is not a {what}: its first line should name the columns {required}."))
                .name("what", std::string(columns.what))
                .name("required", firstLine(columns, columns.required)),
            where};
    }
    for (std::size_t c = 0; c < columns.required; ++c) {
        if (header.cell[c]) continue;
        return Error{
            "missing_column",
            Words(NINE_WORDS("core",
                             "The column {column} is missing; add it to the first line and to every row."))
                .name("column", std::string(columns.names[c])),
            where};
    }
    return header;
}

Result<std::vector<double>> parseRow(std::string_view line, const Header& header, const TableColumns& columns,
                                     const std::string& where) {
    const auto cells = split(line, header.separator);
    std::vector<double> row(columns.names.size(), 0.0);
    for (std::size_t c = 0; c < columns.names.size(); ++c) {
        if (!header.cell[c]) continue;
        const std::string name(columns.names[c]);
        if (*header.cell[c] >= cells.size()) {
            return Error{
                "missing_column",
                Words(NINE_WORDS("core",
                                 "This row has {cells} values, so {name} is missing; the first line names "
                                 "{named}."))
                    .number("cells", cells.size(), 0)
                    .name("name", name)
                    .number("named", header.cells, 0),
                where + " " + name};
        }
        const std::string_view cell = cells[*header.cell[c]];
        const auto number = parseNumber(cell, header.separator == ';');
        if (!number) {
            return Error{"bad_number",
                         Words(NINE_WORDS("core", "{name} is {cell}, which is not a number."))
                             .name("name", name)
                             .name("cell", quoted(cell)),
                         where + " " + name};
        }
        row[c] = *number;
    }
    return row;
}

}  // namespace

std::string NumberTable::placeOf(const std::string& source, std::size_t row) const {
    return source + ":" + std::to_string(row < lines.size() ? lines[row] : lastLine);
}

Result<NumberTable> parseNumberTable(std::string_view text, const TableColumns& columns,
                                     const std::string& source, std::size_t maxRows) {
    constexpr std::string_view byteOrderMark = "\xEF\xBB\xBF";
    if (text.substr(0, 3) == byteOrderMark) text.remove_prefix(3);

    NumberTable table;
    std::optional<Header> header;
    std::size_t lineNumber = 0;
    while (!text.empty() && table.rows.size() <= maxRows) {
        ++lineNumber;
        const auto end = text.find('\n');
        const std::string_view line = trimmed(text.substr(0, end));
        text.remove_prefix(end == std::string_view::npos ? text.size() : end + 1);
        if (line.empty() || line.front() == '#') continue;
        const std::string where = source + ":" + std::to_string(lineNumber);
        if (!header) {
            Result<Header> parsed = parseHeader(line, columns, where);
            if (!parsed) return parsed.error();
            header = *parsed;
            for (const auto& cell : header->cell) table.present.push_back(cell.has_value());
            continue;
        }
        Result<std::vector<double>> row = parseRow(line, *header, columns, where);
        if (!row) return row.error();
        table.rows.push_back(std::move(*row));
        table.lines.push_back(lineNumber);
    }
    if (!header) {
        return Error{"bad_header",
                     Words(NINE_WORDS("core",
                                      "The file is empty: it should hold a {what}, whose first line is "
                                      "{required}."))
                         .name("what", std::string(columns.what))
                         .name("required", firstLine(columns, columns.required)),
                     source + ":1"};
    }
    table.lastLine = lineNumber;
    return table;
}

}  // namespace nine
