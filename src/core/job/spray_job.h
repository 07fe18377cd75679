// From a solved mask to what it asks of the spray.
#pragma once

#include "job/job.h"
#include "spray/plan.h"

namespace nine {

/// Gap where a sheet lies down: burnished tape, or a flat stencil pressed on. Guesses (docs/MODEL.md).
constexpr double kTapeContact_mm = 0.012, kSheetContact_mm = 0.030;

MaskToSpray sprayOf(const MaskSpec& spec, const FitReport& report, const PaintFamily& paint,
                    double wantedWidth_mm);

}  // namespace nine
