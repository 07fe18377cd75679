#include "bench/shop.h"

namespace nine {
namespace {

constexpr ShopWord kDryers[] = {
    {"air", NINE_WORDS("core", "air alone")},
    {"hand", NINE_WORDS("core", "hair dryer in the hand")},
    {"stand", NINE_WORDS("core", "hair dryer on a stand, low")},
};
constexpr ShopWord kResidues[] = {
    {"clean", NINE_WORDS("core", "cleaned at every colour")},
    {"carry_on", NINE_WORDS("core", "carried on where the next is related or darker")},
};

}  // namespace

std::span<const ShopWord> dryerNames() {
    return kDryers;
}
std::span<const ShopWord> residueNames() {
    return kResidues;
}

Status checkShop(const BenchShop& s, const std::string& path) {
    struct Limit {
        const char* field;
        Figure value, low, high;
    };
    constexpr int kDay_min = 24 * 60;
    const Limit limits[] = {
        {"painters", double(s.painters), 1, 4},
        {"tray", double(s.tray), 1, 100},
        {"rack", double(s.rack), 1, 500},
        {"turner", double(s.turner), 1, 500},
        {"clean_s", double(s.clean_s), 0, 3600},
        {"needle_s", double(s.needle_s), 0, 3600},
        {"fill_s", double(s.fill_s), 0, 3600},
        {"stand_s", double(s.stand_s), 60, 86400},
        {"opens_min", double(s.opens_min), 0, kDay_min - 1},
        {"closes_min", double(s.closes_min), double(s.opens_min), kDay_min},
        {"break_min", double(s.break_min), 0, kDay_min},
        {"break_long_min", double(s.breakLong_min), 0, 240},
        {"circuit_w", s.circuit_w, 100, 100000},
        {"compressor_w", s.compressor_w, 0, 20000},
        {"fan_w", s.fan_w, 0, 20000},
        {"lamp_w", s.lamp_w, 0, 20000},
        {"dryer_w", s.dryer_w, 0, 20000},
    };
    for (const Limit& l : limits)
        if (!(l.value >= l.low && l.value <= l.high))
            return Error{
                "out_of_range",
                Words(NINE_WORDS("core", "The {field} of the shop is {value}; it can be {low} to {high}."))
                    .name("field", l.field)
                    .number("value", l.value, kShortest)
                    .number("low", l.low, 0)
                    .number("high", l.high, 0),
                path + "." + l.field};
    return Done{};
}

}  // namespace nine
