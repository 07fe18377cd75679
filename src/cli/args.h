// The words of a command line: positional ones, flags with a value, switches.
#pragma once

#include <map>
#include <optional>
#include <string>
#include <vector>

#include "base/result.h"

namespace nine::cli {

class Args {
  public:
    /// `valued` flags take the next word, `switches` none. --json is always a switch.
    /// Errors: usage (unknown flag, missing value, too few or too many positional words).
    static Result<Args> parse(const std::vector<std::string>& words, std::vector<std::string> valued,
                              std::vector<std::string> switches, std::size_t positional);

    const std::string& word(std::size_t i) const { return words_[i]; }
    std::optional<std::string> value(const std::string& flag) const;
    bool has(const std::string& flag) const { return values_.count(flag) > 0; }

    /// Errors: usage when the flag is missing.
    Result<std::string> need(const std::string& flag) const;
    /// Errors: bad_value (not a number); `fallback` when the flag is missing.
    Result<double> number(const std::string& flag, double fallback) const;
    /// Errors: bad_value also for what is no whole number from `low` to `high`.
    Result<int> whole(const std::string& flag, int fallback, int low, int high) const;

  private:
    std::vector<std::string> words_;
    std::map<std::string, std::string> values_;
};

/// Numbers separated by commas. Errors: bad_value.
Result<std::vector<double>> parseNumbers(const std::string& text, const std::string& where);
/// "L,12.5,3" and the like: a side and `count` numbers. Errors: bad_value.
struct SideNumbers {
    char side;
    std::vector<double> numbers;
};
Result<SideNumbers> parseSideNumbers(const std::string& text, std::size_t count, const std::string& where);

}  // namespace nine::cli
