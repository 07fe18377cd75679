// What painters start from: pressure, distance, reduction and coats by the kind of work, and the guns on the
// bench.
//
// Common practice, no published source: ranges, never computed. The model only says what changes round them.
// A shop edits them on My bench.
#pragma once

#include <string>

#include "base/units.h"
#include "paint/paint.h"

namespace nine {

enum class SprayWork { Cover, Stencil, Tape, Net, Mist, Detail };

struct PracticeRange {
    Figure low, start, high;
    bool holds(Figure v) const { return v >= low && v <= high; }
    bool operator==(const PracticeRange&) const = default;
};

struct SprayPractice {
    SprayWork work;
    std::string_view id;
    Pattern name;
    PracticeRange pressure_psi;
    PracticeRange distance_mm;
    Reduction reduction;
    int leastCoats, mostCoats;
    int passes;  ///< strokes over one spot in a coat
    double flow_ml_min, speed_mm_s;
    std::string unknownJson = {};  ///< keys of the file this version does not know; also below
    bool operator==(const SprayPractice&) const = default;
};

/// As they ship.
const std::vector<SprayPractice>& sprayPractices();

/// A gun as it hangs on the bench.
struct Gun {
    std::string name;
    double needle_mm = 0.3;
    double lowest_psi = 8, highest_psi = 45;  ///< what its regulator holds
    std::string unknownJson = {};
    bool operator==(const Gun&) const = default;
};
/// Most own one gun or two, one needle each.
std::vector<Gun> usualBench();

/// What a shop works with: its guns, and where its work starts.
struct SprayBench {
    std::vector<Gun> guns = usualBench();
    std::vector<SprayPractice> practices = sprayPractices();
    std::string unknownJson = {}, unknownPracticesJson = {};

    const SprayPractice& practiceFor(SprayWork work) const;
    bool operator==(const SprayBench&) const = default;
};

constexpr std::size_t kMostGuns = 12;

/// Errors: out_of_range, bad_range, no_gun, with paths such as guns[0].needle_mm and
/// practice.stencil.distance_mm.
Status checkBench(const SprayBench& bench);

}  // namespace nine
