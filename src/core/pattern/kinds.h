// The kinds of elements, and what follows from their tables for all of them.
#pragma once

#include "base/units.h"
#include "pattern/kind.h"

namespace nine {

constexpr int kMaxCount = 200;
constexpr double kSmallestSize_mm = 0.1, kLargestSize_mm = 200;
constexpr double kMostHeight_mm = 500;  // along the girth, from where it is measured

std::span<const Kind* const> kinds();
/// Null for a kind this version does not know.
const Kind* findKind(std::string_view id);
/// Null when it has none such.
const Param* findParam(const Kind& kind, std::string_view key);

Values usualValues(const Kind& kind);

/// Every value within its limits and the kind's own rules kept. Errors: out_of_range, `path` + "." + key.
Status checkValues(const Kind& kind, const Values& values, const std::string& path);

/// What a size is multiplied by on a body longer by `length` and rounder by `girth`.
Ratio factorOf(Refit refit, Ratio length, Ratio girth);

/// With so much of its heights, its count and its sizes left (shares); rounded to hundredths, counts to whole
/// ones, nothing below its limit.
Values lessened(const Kind& kind, Values values, Fraction height, Fraction count, Fraction size);

}  // namespace nine
