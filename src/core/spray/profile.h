// What painters start from: pressure, distance, reduction and coats by the kind of work, and the guns on the
// bench.
//
// Common practice, no published source: ranges, never computed. The model only says what changes round them.
#pragma once

#include <string>

#include "paint/paint.h"

namespace nine {

enum class SprayWork { Cover, Stencil, Tape, Net, Mist, Detail };

struct PracticeRange {
    double low, start, high;
    bool holds(double v) const { return v >= low && v <= high; }
};

struct SprayPractice {
    SprayWork work;
    std::string_view id, name;
    PracticeRange pressure_psi;
    PracticeRange distance_mm;
    Reduction reduction;
    int leastCoats, mostCoats;
    int passes;  ///< strokes over one spot in a coat
    double flow_ml_min, speed_mm_s;
};

const std::vector<SprayPractice>& sprayPractices();
const SprayPractice& practiceFor(SprayWork work);

/// Coats that painters need, to be checked against: white ground 2, neon 2-3, black through a stencil 1-2,
/// transparent blue on silver about 6, barrier white 1 mist.
struct CoatRow {
    std::string_view paint;  ///< as painters say it
    int least, most;
};
const std::vector<CoatRow>& coatRows();

/// A gun as it hangs on the bench.
struct Gun {
    std::string name;
    double needle_mm = 0.3;
    double lowest_psi = 8, highest_psi = 45;  ///< what its regulator holds
};
/// Most own one gun or two, one needle each.
std::vector<Gun> usualBench();

}  // namespace nine
