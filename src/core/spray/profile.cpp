#include "spray/profile.h"

#include <algorithm>

#include "base/number_text.h"
#include "spray/edge.h"

namespace nine {
namespace {

constexpr double kMostPressure_psi = 60;

Status checkWithin(double v, double low, double high, Pattern between, const std::string& path,
                   Measure measure = Measure::Number) {
    if (v >= low && v <= high) return Done{};
    if (measure == Measure::Length)
        return Error{"out_of_range",
                     Words(between).length("low", low, kShortest).length("high", high, kShortest), path};
    return Error{"out_of_range", Words(between).number("low", low, kShortest).number("high", high, kShortest),
                 path};
}

Status checkRange(const PracticeRange& r, double low, double high, Pattern between, const std::string& path,
                  Measure measure = Measure::Number) {
    for (const double v : {r.low, r.start, r.high}) {
        if (Status ok = checkWithin(v, low, high, between, path, measure); !ok) return ok;
    }
    if (r.low <= r.start && r.start <= r.high) return Done{};
    return Error{
        "bad_range",
        NINE_WORDS("core", "The start must lie inside its range, and the range run from low to high."), path};
}

Status checkPractice(const SprayPractice& p) {
    const std::string path = "practice." + std::string(p.id) + ".";
    if (Status ok = checkRange(p.pressure_psi, 5, kMostPressure_psi,
                               NINE_WORDS("core", "A pressure lies between {low} and {high} psi."),
                               path + "pressure_psi");
        !ok)
        return ok;
    if (Status ok = checkRange(p.distance_mm, kNearest_mm, kFarthest_mm,
                               NINE_WORDS("core", "A distance lies between {low} and {high}."),
                               path + "distance_mm", Measure::Length);
        !ok)
        return ok;
    const auto& [paint, reducer] = p.reduction;
    if (!(paint > 0 && paint <= 100 && reducer >= 0 && reducer <= 100))
        return Error{
            "out_of_range",
            NINE_WORDS("core", "A reduction is drops of paint and drops of reducer, up to 100 each."),
            path + "reduction"};
    if (!(p.leastCoats >= 1 && p.leastCoats <= p.mostCoats && p.mostCoats <= 20))
        return Error{"out_of_range", NINE_WORDS("core", "Coats are counted from 1 to 20, the least first."),
                     path + "coats"};
    if (Status ok = checkWithin(p.passes, 1, 20,
                                NINE_WORDS("core", "The number of passes lies between {low} and {high}."),
                                path + "passes");
        !ok)
        return ok;
    if (Status ok = checkWithin(p.flow_ml_min, 0.01, 60,
                                NINE_WORDS("core", "The flow lies between {low} and {high} mL/min."),
                                path + "flow_ml_min");
        !ok)
        return ok;
    return checkWithin(p.speed_mm_s, 5, 2000,
                       NINE_WORDS("core", "The speed of the hand lies between {low} and {high} mm/s."),
                       path + "speed_mm_s");
}

}  // namespace

const std::vector<SprayPractice>& sprayPractices() {
    // In one piece: a table.
    using W = SprayWork;
    static const std::vector<SprayPractice> all{
        {W::Cover,
         "cover",
         NINE_WORDS("core", "cover coat"),
         {25, 28, 30},
         {80, 120, 150},
         {4, 1},
         2,
         3,
         2,
         4.0,
         200},
        {W::Stencil,
         "stencil",
         NINE_WORDS("core", "through a stencil"),
         {13, 15, 20},
         {50, 70, 100},
         {4, 1},
         1,
         2,
         2,
         0.4,
         120},
        {W::Tape,
         "tape",
         NINE_WORDS("core", "along tape"),
         {13, 15, 20},
         {60, 90, 120},
         {4, 1},
         1,
         2,
         2,
         0.4,
         120},
        {W::Net,
         "net",
         NINE_WORDS("core", "through a net"),
         {15, 16, 17},
         {80, 100, 150},
         {4, 2},
         1,
         2,
         1,
         1.0,
         150},
        {W::Mist,
         "mist",
         NINE_WORDS("core", "barrier mist"),
         {10, 12, 15},
         {150, 180, 220},
         {4, 1},
         1,
         1,
         1,
         1.0,
         250},
        {W::Detail,
         "detail",
         NINE_WORDS("core", "free detail"),
         {8, 10, 15},
         {10, 20, 40},
         {3, 2},
         1,
         3,
         2,
         0.2,
         80},
    };
    return all;
}

const SprayPractice& SprayBench::practiceFor(SprayWork work) const {
    const auto found = std::find_if(practices.begin(), practices.end(),
                                    [&](const SprayPractice& p) { return p.work == work; });
    if (found != practices.end()) return *found;
    const auto& all = sprayPractices();
    return *std::find_if(all.begin(), all.end(), [&](const SprayPractice& p) { return p.work == work; });
}

std::vector<Gun> usualBench() {
    return {{"fine", 0.2, 8, 45}, {"general", 0.35, 8, 45}};
}

Status checkBench(const SprayBench& bench) {
    if (bench.guns.empty())
        return Error{"no_gun", NINE_WORDS("core", "Keep one gun at least on the bench."), "guns"};
    if (bench.guns.size() > kMostGuns)
        return Error{
            "out_of_range",
            Words(NINE_WORDS("core", "The bench holds up to {most} guns.")).number("most", kMostGuns, 0),
            "guns"};
    for (std::size_t i = 0; i < bench.guns.size(); ++i) {
        const Gun& gun = bench.guns[i];
        const std::string path = "guns[" + std::to_string(i) + "].";
        if (Status ok = checkWithin(gun.needle_mm, kLeastNeedle_mm, kMostNeedle_mm,
                                    NINE_WORDS("core", "A needle lies between {low} and {high}."),
                                    path + "needle_mm", Measure::Length);
            !ok)
            return ok;
        for (const auto& [value, field] :
             {std::pair{gun.lowest_psi, "lowest_psi"}, {gun.highest_psi, "highest_psi"}}) {
            if (Status ok = checkWithin(
                    value, 5, kMostPressure_psi,
                    NINE_WORDS("core", "A regulator's pressure lies between {low} and {high} psi."),
                    path + field);
                !ok)
                return ok;
        }
        if (!(gun.lowest_psi < gun.highest_psi))
            return Error{"bad_range",
                         NINE_WORDS("core", "A regulator holds from a lower to a higher pressure."),
                         path + "highest_psi"};
    }
    for (const SprayPractice& p : bench.practices) {
        if (Status ok = checkPractice(p); !ok) return ok;
    }
    return Done{};
}

}  // namespace nine
