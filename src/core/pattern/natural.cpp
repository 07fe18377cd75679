#include "pattern/natural.h"

#include <algorithm>
#include <cmath>

namespace nine {
namespace {

constexpr double kKept = 0.55;       // of a mark's wander that its neighbour shares
constexpr double kMost = 1.6;        // standard deviations: farther off looks like a mistake
constexpr double kAlongShare = 0.5;  // marks wander less along the row than across it
constexpr double kUsualWander = 0.22, kUsualVary = 0.12, kUsualRough = 0.08;  // of a mark's size: natural

double bellWithin(Rng& rng) {
    return std::clamp(rng.bell(), -kMost, kMost);
}

}  // namespace

Natural naturalOf(const Values& values) {
    return {values.number("wander_mm"), values.number("vary"), values.number("rough"),
            values.number(kSeedKey)};
}

Values withNatural(Values values, int level, double size_mm) {
    const auto put = [&](const char* key, double v) {
        if (values.find(key)) values.set(key, std::round(100 * v) / 100);
    };
    put("wander_mm", std::min(5.0, level * kUsualWander * size_mm));
    put("vary", level * kUsualVary);
    put("rough", level * kUsualRough);
    return values;
}

std::vector<Off> offsOf(const Natural& natural, std::size_t count, std::uint64_t seed) {
    std::vector<Off> offs(count);
    if (!natural.any()) return offs;
    Rng rng(seed);
    const double fresh = std::sqrt(1 - kKept * kKept), sigma = natural.wander_mm / kMost;
    double across = bellWithin(rng), along = bellWithin(rng);
    for (Off& off : offs) {
        off.across_mm = sigma * std::clamp(across, -kMost, kMost);
        off.along_mm = kAlongShare * sigma * std::clamp(along, -kMost, kMost);
        off.size = 1 + natural.vary * rng.between(-1, 1);
        across = kKept * across + fresh * bellWithin(rng);
        along = kKept * along + fresh * bellWithin(rng);
    }
    return offs;
}

Wobble::Wobble(double rough, std::uint64_t seed) {
    if (rough <= 0) return;
    Rng rng(seed);
    double sum = 0;
    for (int number = 2; number <= 6; ++number) {
        waves_.push_back({number, rng.between(0.4, 1) / number, rng.between(0, 2 * kPi)});
        sum += waves_.back().height;
    }
    for (Wave& wave : waves_) wave.height *= rough / sum;  // all together at most `rough`
}

double Wobble::at(double angle_rad) const {
    double factor = 1;
    for (const Wave& wave : waves_)
        factor += wave.height * std::sin(wave.number * angle_rad + wave.phase_rad);
    return factor;
}

}  // namespace nine
