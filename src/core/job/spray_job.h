// From a solved mask to what it asks of the spray, and how far the sheet stands off where.
#pragma once

#include "job/job.h"
#include "spray/plan.h"

namespace nine {

/// Gap where a sheet lies down: burnished tape, or a flat stencil pressed on. Guesses (docs/MODEL.md).
constexpr double kTapeContact_mm = 0.012, kSheetContact_mm = 0.030;

MaskToSpray sprayOf(const MaskSpec& spec, const FitReport& report, const SpraySpec& spray);

/// How far the mask's sheet stands off at a skin point, mm: that of the vertices round it (liftsOf); 0 where
/// it lies flat and where no sheet is. 1 us.
double liftAt_mm(const Mask& mask, const SkinPlace& skin);

/// A place on the edge of an opening.
struct EdgePlace {
    std::string element;
    std::size_t opening = 0;  ///< of that element, from the nose
    SkinPlace skin;           ///< of the left side
    double lift_mm = 0;
};

/// The place of an opening's edge where the sheet stands off most; where it lies flat everywhere, a place of
/// the first opening on the flank. `art` is that of the mask's elements.
EdgePlace worstEdge(const Mask& mask, const std::vector<const ElementArt*>& art);

/// "opening 4 of lateral-dots, 31 mm from the nose".
Words placeSentence(const EdgePlace& place);

}  // namespace nine
