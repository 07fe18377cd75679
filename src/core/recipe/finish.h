// The finish: how much clear for how many bodies, in how many mixes, and what to mind.
//
// Figures are common practice, no published source, or guesses where said; a product's data sheet goes before
// them.
#pragma once

#include <vector>

#include "base/words.h"
#include "recipe/step.h"

namespace nine {

struct ClearPlan {
    double all_ml = 0;        ///< as it is mixed or taken from the bottle, with what is lost
    int mixes = 1;            ///< one after the other, because of the working time
    int bodiesInOneMix = 0;   ///< 0: no limit
    double partA_ml = 0;      ///< of each mix, as much of the other part; 0: not mixed
    double glitter_g = 0;     ///< at most, in all; 0: none for this kind
    std::vector<Words> says;  ///< what to do, in order
    std::vector<Words> cautions;
};
/// `skin_mm2` of one body. Errors: out_of_range (lures 1 to 500, no skin).
Result<ClearPlan> planClear(const ClearKind& kind, double skin_mm2, int lures);

}  // namespace nine
