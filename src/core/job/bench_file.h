// My bench as a file of its own: guns, and where work starts in this shop. It outlives jobs.
#pragma once

#include <string>
#include <string_view>

#include "base/result.h"
#include "spray/profile.h"

namespace nine {

/// What is not said keeps what ships. Errors: bad_json, bad_value, newer_format and those of checkBench, with
/// `source` and line.
Result<SprayBench> parseBench(std::string_view text, const std::string& source);

/// Only practices that differ from what ships are written.
std::string benchText(const SprayBench& bench);

/// A file that is not there is the bench as it ships. Errors: those of parseBench and readFile.
Result<SprayBench> loadBench(const std::string& path);
Status saveBench(const SprayBench& bench, const std::string& path);

}  // namespace nine
