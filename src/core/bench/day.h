// Breaks and nights as a plan needs them: from the shop's hours on the wall, over changes of the clock.
#pragma once

#include <vector>

#include "base/calendar.h"
#include "bench/schedule.h"

namespace nine {

/// What is closed in the days from `start`, in seconds from it; nothing for a shop that never closes.
std::vector<Span> closedFrom(Moment start, const BenchShop& shop, int days);

}  // namespace nine
