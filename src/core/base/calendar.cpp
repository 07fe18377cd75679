#include "base/calendar.h"

#include <algorithm>
#include <chrono>
#include <ctime>

namespace nine {

Clock systemClock() {
    return [] {
        return static_cast<Moment>(std::chrono::duration_cast<std::chrono::seconds>(
                                       std::chrono::system_clock::now().time_since_epoch())
                                       .count());
    };
}

std::string utcText(Moment moment) {
    using namespace std::chrono;
    const sys_seconds at{seconds(moment)};
    const auto day = floor<days>(at);
    const year_month_day date(day);
    const hh_mm_ss time(at - day);
    const auto digits = [](int value, int count) {
        std::string text = std::to_string(value);
        return std::string(static_cast<std::size_t>(std::max(0, count - static_cast<int>(text.size()))),
                           '0') +
               text;
    };
    return digits(int(date.year()), 4) + "-" + digits(int(unsigned(date.month())), 2) + "-" +
           digits(int(unsigned(date.day())), 2) + "T" + digits(int(time.hours().count()), 2) + ":" +
           digits(int(time.minutes().count()), 2) + ":" + digits(int(time.seconds().count()), 2) + "Z";
}

std::optional<Moment> parseUtc(std::string_view text) {
    using namespace std::chrono;
    constexpr std::string_view kShape = "0000-00-00T00:00:00Z";
    if (text.size() != kShape.size()) return std::nullopt;
    for (std::size_t i = 0; i < text.size(); ++i)
        if (kShape[i] == '0' ? text[i] < '0' || text[i] > '9' : text[i] != kShape[i]) return std::nullopt;
    const auto number = [&](std::size_t from, std::size_t count) {
        int value = 0;
        for (const char c : text.substr(from, count)) value = 10 * value + (c - '0');
        return value;
    };
    const int year = number(0, 4), hour = number(11, 2), minute = number(14, 2), second = number(17, 2);
    const auto month = static_cast<unsigned>(number(5, 2)), dayOfMonth = static_cast<unsigned>(number(8, 2));
    const year_month_day date{std::chrono::year(year), std::chrono::month(month), day(dayOfMonth)};
    if (!date.ok() || hour > 23 || minute > 59 || second > 59) return std::nullopt;
    return duration_cast<seconds>(sys_days(date).time_since_epoch()).count() + hour * 3600 + minute * 60 +
           second;
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
