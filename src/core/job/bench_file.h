// My bench as a file of its own: guns, and where work starts in this shop. It outlives jobs.
#pragma once

#include <string>
#include <string_view>

#include "base/result.h"
#include "bench/shop.h"
#include "spray/profile.h"

namespace nine {

/// All a shop works with: guns and starts of its work, hands, places, hours, the circuit.
struct Workplace : SprayBench {
    BenchShop shop;
    bool operator==(const Workplace&) const = default;
};

/// What is not said keeps what ships. Errors: bad_json, bad_value, newer_format and those of checkBench, with
/// `source` and line.
Result<Workplace> parseBench(std::string_view text, const std::string& source);

/// Only practices that differ from what ships are written.
std::string benchText(const Workplace& bench);

/// A file that is not there is the bench as it ships. Errors: those of parseBench and readFile.
Result<Workplace> loadBench(const std::string& path);
Status saveBench(const Workplace& bench, const std::string& path);

}  // namespace nine
