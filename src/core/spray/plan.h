// Settings for one mask: where practice starts, moved only as far as the guns at hand ask, and what the edge
// will be like.
#pragma once

#include "spray/edge.h"
#include "spray/profile.h"

namespace nine {

/// What a mask asks of the spray.
struct MaskToSpray {
    SprayWork work = SprayWork::Stencil;
    PaintFamily paint = *findPaint("opaque");
    double contact_mm = 0.03;  ///< gap where the sheet lies down
    double lift_mm = 0;        ///< where it stands off most
    double pads_mm = 0;        ///< held off on purpose
    double wantedWidth_mm = 0.2;
    double gap_mm() const { return contact_mm + lift_mm + pads_mm; }
};

struct SprayPlan {
    SpraySetting setting;
    const SprayPractice* practice = nullptr;
    Gun gun;
    int coats = 1, passes = 1;
    double gap_mm = 0;
    EdgeFigures edge{}, across{};  ///< strokes along the edge, and across it
    std::vector<std::string>
        reasons;  ///< what comes from practice, what was computed, and what to change first
};

/// Of the guns, the smallest needle that gives the flow with the trigger at most nearly full back. Errors:
/// no_gun; those of edgeFigures.
Result<SprayPlan> planSpray(const MaskToSpray& mask, const std::vector<Gun>& bench);

}  // namespace nine
