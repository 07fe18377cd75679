// What the painter is told of one mask on paper: its marks in words, the steps to lay it on and take it off,
// where to press, which cut-out goes where, and the cautions in the steps where they arise.
#pragma once

#include "job/job.h"
#include "mask/mask.h"

namespace nine {

struct MaskSheet {
    Words title;                  ///< "Red dots, left, masking tape"
    std::vector<Words> marks;     ///< "A 12.4 mm behind the gill plate"
    std::vector<Words> steps;     ///< in the order of work
    std::vector<Words> press;     ///< places for two fingers, in order; empty where none are needed
    std::vector<Words> cutouts;   ///< "3: Red dots, 21 mm from the nose, 4.2 mm above the axis"; when kept
    std::vector<Words> cautions;  ///< of the work as a whole; data sheets and local rules come first
};

/// `mask` is that of the spec, judged. Cost: none to speak of.
MaskSheet maskSheet(const Job& job, const Skin& skin, const MaskSpec& spec, const Mask& mask);

/// Whether places to press belong to it: two fingers hold it, and it does not hold itself.
bool pressedInPlaces(const MaskSpec& spec, const Mask& mask);

}  // namespace nine
