// Rows of the table for the bench and the log.
#pragma once

#include <functional>
#include <string>

namespace nine {

using TableRow = std::function<void(const std::string& what, double seconds, const std::string& target,
                                    const std::string& beside)>;
using Timed = std::function<double(int runs, const std::function<void()>& work)>;
/// Plans against what no plan beats, and cards searched.
void benchBenchAndLog(const TableRow& row, const Timed& best);

}  // namespace nine
