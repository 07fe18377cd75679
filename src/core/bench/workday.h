// Time in which somebody works: the clock without breaks and nights.
#pragma once

#include <algorithm>
#include <vector>

#include "bench/schedule.h"

namespace nine {

/// The next moment that is not closed.
int openFrom(const std::vector<Span>& closed, int at_s);
/// When work begun at an open moment is done; it rests while it is closed.
int finished(const std::vector<Span>& closed, int from_s, int work_s);

/// The end of the first span longer than `most_s` between two moments; nothing if there is none.
std::optional<int> restsTill(const std::vector<Span>& closed, int from_s, int to_s, int most_s);
/// The longest time that is open without a pause.
int longestOpen_s(const std::vector<Span>& closed);
/// When work may begin so that it never rests longer than `most_s`; work longer than `longest_s` may.
int unbrokenFrom(const std::vector<Span>& closed, int from_s, int work_s, int most_s, int longest_s);

/// A longer pause is a night: nothing is left half done in it.
constexpr int kNight_s = 2 * 3600;

}  // namespace nine
