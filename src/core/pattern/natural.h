// What keeps marks from looking punched: place, size and outline of each a little off, from a seed.
//
// Off by default. Neighbours wander together (a first-order autoregression: a row that a hand drew, not pairs
// that touch); sizes are off evenly; outlines are off by a few slow waves.
#pragma once

#include "base/rng.h"
#include "pattern/param.h"

namespace nine {

struct Natural {
    double wander_mm = 0;  ///< of places: what most stay within
    Fraction vary = 0;     ///< of sizes, either way
    Fraction rough = 0;    ///< of radii, either way
    Figure seed = 1;
    bool any() const { return wander_mm > 0 || vary > 0 || rough > 0; }
};

inline constexpr std::array<Param, 4> kNaturalParams{
    Param{.key = "wander_mm",
          .name = NINE_WORDS("core", "Wander"),
          .type = Param::Type::Length,
          .low = 0,
          .high = 5,
          .usual = 0,
          .decimals = 2,
          .spare = true},
    Param{.key = "vary",
          .name = NINE_WORDS("core", "Size, more or less"),
          .type = Param::Type::Share,
          .low = 0,
          .high = 0.6,
          .usual = 0,
          .decimals = 0,
          .spare = true},
    Param{.key = "rough",
          .name = NINE_WORDS("core", "Outline, more or less"),
          .type = Param::Type::Share,
          .low = 0,
          .high = 0.5,
          .usual = 0,
          .decimals = 0,
          .spare = true},
    Param{.key = "seed",
          .name = NINE_WORDS("core", "Seed"),
          .type = Param::Type::Seed,
          .low = 0,
          .high = 9999,
          .usual = 1,
          .decimals = 0,
          .spare = true},
};
/// Key of what chance is drawn from, in all kinds that have some.
inline constexpr std::string_view kSeedKey = "seed";

/// The three that are offered: punched, natural, wild; for marks `size_mm` large.
Natural naturalOf(const Values& values);
Values withNatural(Values values, int level, double size_mm);

/// How one mark of a row is off.
struct Off {
    double along_mm = 0, across_mm = 0;
    Ratio size = 1;
};
/// Of `count` marks in a row.
std::vector<Off> offsOf(const Natural& natural, std::size_t count, std::uint64_t seed);

/// Factor of the radius in a direction round a mark: the same for the same seed.
class Wobble {
  public:
    Wobble(Fraction rough, std::uint64_t seed);
    Ratio at(double angle_rad) const;

  private:
    struct Wave {
        int number;
        Fraction height;
        double phase_rad;
    };
    std::vector<Wave> waves_;
};

}  // namespace nine
