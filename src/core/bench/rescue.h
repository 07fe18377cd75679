// A fault seen in the middle of the work: what it comes from, what to do now, what to change next time.
//
// Source: common practice, no published source; figures are those of the job where it has them.
#pragma once

#include <optional>
#include <span>
#include <string>
#include <vector>

#include "base/words.h"

namespace nine {

/// What the job knows of the step in hand.
struct RescueFigures {
    std::optional<double> gap_mm, creep_mm, pressure_kpa, distance_mm, coat_um, run_um;
    std::optional<int> coats, openings;
    std::string mask;  ///< its name; empty: none
};

struct Rescue {
    std::string_view fault;  ///< id, as of mishaps()
    Pattern name;
    Words cause, now, next;
};
/// All faults, in the order they are looked up.
std::vector<Rescue> rescues(const RescueFigures& figures);

}  // namespace nine
