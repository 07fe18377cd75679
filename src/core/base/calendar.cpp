#include "base/calendar.h"

#include <chrono>
#include <cstdio>
#include <ctime>

namespace nine {

Clock systemClock() {
    return [] {
        return static_cast<Moment>(
            std::chrono::duration_cast<std::chrono::seconds>(std::chrono::system_clock::now().time_since_epoch()).count());
    };
}

std::string utcText(Moment moment) {
    using namespace std::chrono;
    const sys_seconds at{seconds(moment)};
    const auto day = floor<days>(at);
    const year_month_day date(day);
    const hh_mm_ss time(at - day);
    char text[48];
    std::snprintf(text, sizeof text, "%04d-%02u-%02uT%02d:%02d:%02dZ", int(date.year()), unsigned(date.month()),
                  unsigned(date.day()), int(time.hours().count()), int(time.minutes().count()),
                  int(time.seconds().count()));
    return text;
}

std::optional<Moment> parseUtc(std::string_view text) {
    using namespace std::chrono;
    int year = 0, hour = 0, minute = 0, second = 0;
    unsigned month = 0, dayOfMonth = 0;
    const std::string copy(text);
    if (copy.size() != 20 || copy.back() != 'Z' ||
        std::sscanf(copy.c_str(), "%4d-%2u-%2uT%2d:%2d:%2dZ", &year, &month, &dayOfMonth, &hour, &minute, &second) != 6)
        return std::nullopt;
    const year_month_day date{std::chrono::year(year), std::chrono::month(month), day(dayOfMonth)};
    if (!date.ok() || hour < 0 || hour > 23 || minute < 0 || minute > 59 || second < 0 || second > 59) return std::nullopt;
    const Moment moment = duration_cast<seconds>(sys_days(date).time_since_epoch()).count() + hour * 3600 + minute * 60 + second;
    // Blanks and signs that sscanf lets pass do not come back the same.
    return utcText(moment) == text ? std::optional(moment) : std::nullopt;
}

WallTime wallTime(Moment moment) {
    const std::time_t at = static_cast<std::time_t>(moment);
    std::tm tm{};
    ::localtime_r(&at, &tm);
    return {tm.tm_year + 1900, tm.tm_mon + 1, tm.tm_mday, tm.tm_hour, tm.tm_min, tm.tm_sec, tm.tm_wday};
}

Moment momentOf(const WallTime& wall) {
    std::tm tm{};
    tm.tm_year = wall.year - 1900;
    tm.tm_mon = wall.month - 1;
    tm.tm_mday = wall.day;
    tm.tm_hour = wall.hour;
    tm.tm_min = wall.minute;
    tm.tm_sec = wall.second;
    tm.tm_isdst = -1;
    return static_cast<Moment>(std::mktime(&tm));
}

}  // namespace nine
