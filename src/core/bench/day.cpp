#include "bench/day.h"

namespace nine {
namespace {

void add(std::vector<Span>& closed, Moment start, Moment from, Moment to) {
    if (to <= from || to <= start) return;
    const Span span{static_cast<int>(std::max<Moment>(0, from - start)), static_cast<int>(to - start)};
    if (!closed.empty() && closed.back().to_s >= span.from_s)
        closed.back().to_s = std::max(closed.back().to_s, span.to_s);
    else
        closed.push_back(span);
}

}  // namespace

std::vector<Span> closedFrom(Moment start, const BenchShop& shop, int days) {
    std::vector<Span> closed;
    const bool nights = shop.opens_min < shop.closes_min;
    WallTime midnight = wallTime(start);
    midnight.hour = midnight.minute = midnight.second = 0;
    const auto on = [&](int day, int minute) {
        WallTime wall = midnight;
        wall.day += day;
        wall.hour = minute / 60;
        wall.minute = minute % 60;
        return momentOf(wall);
    };
    for (int day = -1; day < days; ++day) {
        if (shop.breakLong_min > 0 && shop.break_min + shop.breakLong_min <= 24 * 60)
            add(closed, start, on(day, shop.break_min), on(day, shop.break_min + shop.breakLong_min));
        if (nights) add(closed, start, on(day, shop.closes_min), on(day + 1, shop.opens_min));
    }
    return closed;
}

}  // namespace nine
