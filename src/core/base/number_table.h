// Tables of numbers as text (.csv): a header that names the columns, '#' comments, one row a line.
//
// A byte order mark, CRLF line ends, and ';' between columns with decimal commas are understood. Columns may
// stand in any order; ones that are not asked for are ignored.
#pragma once

#include <optional>
#include <string>
#include <string_view>
#include <vector>

#include "base/result.h"

namespace nine {

struct TableColumns {
    std::vector<std::string_view> names;  ///< the first `required` of them must be there
    std::size_t required;
    std::string_view what;  ///< "station table", for messages
};

struct NumberTable {
    std::vector<bool> present;              ///< of each asked column
    std::vector<std::vector<double>> rows;  ///< values in the order asked; 0 for an absent column
    std::vector<std::size_t> lines;         ///< line number of each row, from 1
    std::size_t lastLine = 1;

    /// "file:line" of row i, or of the last line beyond the rows.
    std::string placeOf(const std::string& source, std::size_t row) const;
};

/// Reads at most `maxRows` + 1 rows, so that the caller can tell too many. Errors: bad_header,
/// missing_column, bad_number, with "file:line column" as their place.
Result<NumberTable> parseNumberTable(std::string_view text, const TableColumns& columns,
                                     const std::string& source, std::size_t maxRows);

}  // namespace nine
