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

}  // namespace nine
