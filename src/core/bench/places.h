// Places that trays take in turns: on the rack, on the turner, copies of a mask. Internal to bench/.
#pragma once

#include <vector>

#include "bench/schedule.h"

namespace nine {

/// A tray on some of the places: not before head_s, for stay_s at least; what it needs afterwards.
struct Stay {
    int head_s, stay_s, tail_s;
    int places;
};

/// No plan is ready sooner in which the stays share so many places; INT_MIN where they are enough at any
/// time. The stays of a length or longer are taken as if all were as short and as small as the least of them:
/// then first come, first served is the best there is. A stay begins while it is open, or at closing time.
/// Cost: distinct lengths (the longest kLengths of them) times stays.
int placesBound_s(const std::vector<Stay>& stays, int places, const std::vector<Span>& closed);

}  // namespace nine
