// Moments against the C library, over changes of the clock and leap days.
#include "base/calendar.h"

#include <gtest/gtest.h>

#include <cstdlib>
#include <ctime>

#include "base/rng.h"
#include "bench/day.h"

namespace nine {
namespace {

/// A time zone for one test.
class WallZone {
  public:
    explicit WallZone(const char* name) {
        if (const char* before = std::getenv("TZ")) before_ = before;
        ::setenv("TZ", name, 1);
        ::tzset();
    }
    ~WallZone() {
        if (before_.empty())
            ::unsetenv("TZ");
        else
            ::setenv("TZ", before_.c_str(), 1);
        ::tzset();
    }

  private:
    std::string before_;
};
// Rules spelt out, so that no database of zones is needed: clocks of middle Europe and of eastern America.
constexpr const char *kBerlin = "CET-1CEST,M3.5.0,M10.5.0/3", *kNewYork = "EST5EDT,M3.2.0,M11.1.0";

std::string byTheLibrary(std::time_t at) {
    std::tm tm{};
    ::gmtime_r(&at, &tm);
    char text[32];
    std::strftime(text, sizeof text, "%Y-%m-%dT%H:%M:%SZ", &tm);
    return text;
}

TEST(Calendar, WritesAndReadsMomentsAsTheCLibraryDoes) {
    Rng rng(1);
    for (int n = 0; n < 20000; ++n) {
        const Moment at = static_cast<Moment>(rng.fraction() * 4e9);
        ASSERT_EQ(utcText(at), byTheLibrary(at));
        ASSERT_EQ(parseUtc(utcText(at)), at);
    }
    EXPECT_EQ(utcText(951782400), "2000-02-29T00:00:00Z");
    EXPECT_EQ(parseUtc("2024-02-29T12:00:00Z"), 1709208000);
}

TEST(Calendar, RefusesWhatIsNoMoment) {
    for (const char* text :
         {"", "2026-02-29T12:00:00Z", "2100-02-29T12:00:00Z", "2026-13-01T00:00:00Z", "2026-11-30T24:00:00Z",
          "2026-11-30T08:30:00", "2026-11-30 08:30:00Z", "2026-11-30T08:30:00Zx", "2026-1 -30T08:30:00Z",
          "+026-11-30T08:30:00Z", "2026-11-30T08:60:00Z"})
        EXPECT_FALSE(parseUtc(text)) << text;
}

TEST(Calendar, ACureOfDaysEndsByTheClockThatWasChanged) {
    const WallZone zone(kBerlin);
    // 24 October 2026, 18:00 summer time; the clocks go back in the night.
    const Moment begun = momentOf({2026, 10, 24, 18, 0, 0});
    const WallTime done = wallTime(begun + 72 * 3600);
    EXPECT_EQ(done.day, 27);
    EXPECT_EQ(done.hour, 17);
    const WallTime spring = wallTime(momentOf({2027, 3, 27, 18, 0, 0}) + 24 * 3600);
    EXPECT_EQ(spring.hour, 19);
    // Over a leap day.
    const WallTime leap = wallTime(momentOf({2028, 2, 28, 12, 0, 0}) + 48 * 3600);
    EXPECT_EQ(leap.month, 3);
    EXPECT_EQ(leap.day, 1);
}

TEST(Calendar, WallTimesComeBackTheSameInEveryHourOfAYear) {
    for (const char* name : {kBerlin, kNewYork, "UTC"}) {
        const WallZone zone(name);
        for (int hour = 0; hour < 366 * 24; ++hour) {
            const Moment at = 1767225600 + hour * 3600;
            const Moment back = momentOf(wallTime(at));
            // Where an hour comes twice either will do.
            ASSERT_TRUE(back == at || std::abs(back - at) == 3600) << utcText(at);
            std::tm tm{};
            const std::time_t c = at;
            ::localtime_r(&c, &tm);
            ASSERT_EQ(wallTime(at).hour, tm.tm_hour);
        }
    }
}

TEST(Day, NightsAndBreaksFollowTheWallsClock) {
    const WallZone zone(kBerlin);
    BenchShop shop;
    shop.opens_min = 8 * 60;
    shop.closes_min = 18 * 60;
    shop.break_min = 12 * 60;
    shop.breakLong_min = 30;
    const Moment start = momentOf({2026, 10, 24, 10, 0, 0});
    const auto closed = closedFrom(start, shop, 3);
    ASSERT_GE(closed.size(), 4u);
    EXPECT_EQ(closed[0].from_s, 2 * 3600);
    EXPECT_EQ(closed[0].to_s, 2 * 3600 + 1800);
    EXPECT_EQ(closed[1].from_s, 8 * 3600);
    EXPECT_EQ(closed[1].to_s, 8 * 3600 + 15 * 3600) << "the night is an hour longer";
    for (std::size_t i = 1; i < closed.size(); ++i) EXPECT_GT(closed[i].from_s, closed[i - 1].to_s);
    // Begun at night: it opens in the morning.
    const auto late = closedFrom(momentOf({2026, 11, 2, 22, 0, 0}), shop, 2);
    EXPECT_EQ(late[0].from_s, 0);
    EXPECT_EQ(late[0].to_s, 10 * 3600);
    shop.opens_min = shop.closes_min = 0;
    shop.breakLong_min = 0;
    EXPECT_TRUE(closedFrom(start, shop, 3).empty());
}

}  // namespace
}  // namespace nine
