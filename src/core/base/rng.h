// Seeded random numbers: the same seed gives the same sequence for ever, on every machine.
//
// SplitMix64 (Steele, Lea, Flood: Fast splittable pseudorandom number generators, OOPSLA 2014, fig. 16).
// Integers only up to the last step, so nothing depends on a machine's arithmetic. Not for secrets.
//
//     Rng rng(412);
//     double wander = rng.between(-0.3, 0.3);
#pragma once

#include <cstdint>
#include <vector>

#include "base/units.h"

namespace nine {

/// A whole number mixed so well that neighbours have nothing in common.
constexpr std::uint64_t scrambled(std::uint64_t z) {
    z = (z ^ (z >> 30)) * 0xBF58476D1CE4E5B9ULL;
    z = (z ^ (z >> 27)) * 0x94D049BB133111EBULL;
    return z ^ (z >> 31);
}

class Rng {
  public:
    explicit Rng(std::uint64_t seed) : state_(seed) {}

    std::uint64_t next() { return scrambled(state_ += 0x9E3779B97F4A7C15ULL); }
    /// In 0 .. 1, 1 left out.
    Fraction fraction() { return static_cast<double>(next() >> 11) * 0x1p-53; }
    Figure between(Figure low, Figure high) { return low + (high - low) * fraction(); }
    /// Bell-shaped around 0, its standard deviation 1, never beyond 3.5: the sum of twelve fractions.
    Figure bell() {
        Figure sum = -6;
        for (int i = 0; i < 12; ++i) sum += fraction();
        return sum < -3.5 ? -3.5 : sum > 3.5 ? 3.5 : sum;
    }
    /// 0 .. count-1, each once, in any order.
    std::vector<std::size_t> shuffled(std::size_t count) {
        std::vector<std::size_t> order(count);
        for (std::size_t i = 0; i < count; ++i) order[i] = i;
        for (std::size_t i = count; i > 1; --i)
            std::swap(order[i - 1], order[static_cast<std::size_t>(next() % i)]);
        return order;
    }

  private:
    std::uint64_t state_;
};

}  // namespace nine
