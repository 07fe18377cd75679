// Moments and what a clock on the wall shows for them.
//
// A moment is whole seconds since 1970 in UTC; what lasts 24 hours is 86400 of them, whether or not clocks
// are changed meanwhile. The wall's time is that of the machine (TZ), by the C library.
#pragma once

#include <cstdint>
#include <functional>
#include <optional>
#include <string>
#include <string_view>

namespace nine {

using Moment = std::int64_t;

/// Where the time comes from: handed in wherever it is asked, so that tests can say what it is.
using Clock = std::function<Moment()>;
Clock systemClock();

/// "2026-11-30T09:48:47Z"; years 0 to 9999.
std::string utcText(Moment moment);
/// The same read back; nothing for anything else, 30 February included.
std::optional<Moment> parseUtc(std::string_view text);

struct WallTime {
    int year = 1970, month = 1, day = 1;  ///< January is 1
    int hour = 0, minute = 0, second = 0;
    int weekday = 4;  ///< Sunday is 0
};
WallTime wallTime(Moment moment);
/// The moment a wall shows this; days may run beyond their month. Where clocks are put forward and it never
/// is, a moment within an hour of it; where it is twice, either.
Moment momentOf(const WallTime& wall);

}  // namespace nine
