// The parameters of a kind, of marks or of masks, as the command line tells them.
#pragma once

#include <string_view>

#include "cli/verbs.h"
#include "pattern/param.h"

namespace nine::cli {

Json paramJson(const Param& param);

/// A row of the table in docs/FORMAT.md, and the head of that table.
std::string paramRow(std::string_view kind, const Param& param);
std::string paramHead();

}  // namespace nine::cli
