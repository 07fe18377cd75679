// The flat piece of a sheet that sticks as it goes on.
//
// Smoothed outward from a line a sheet cannot slide back to rest: the same piece that lands exactly when it
// is held loose at its marks lands 0.1 to 0.5 mm off. Here the piece is changed by damped steps until it
// lands where it was drawn when it is laid that way; a step is kept only when the landing gets better.
#pragma once

#include "mask/fit.h"

namespace nine {

struct Compensated {
    FlatPatch flat;
    double before_mm, after_mm;  ///< rms of the landing of rims (of all vertices where there are none)
};

/// Errors: those of LaidSheet::lay; cancelled. Cost: up to five times laying the sheet.
Result<Compensated> compensated(const Skin& skin, FlatPatch flat, Laying laying, const Task& task = {});

/// How far a hand that is off by up to 0.3 mm at each mark (19 times in 20, common practice) moves a place of
/// the sheet, 19 times in 20: the rigid motion that fits the marks best, its shift and its turn. `marks` and
/// `places` on the sheet, two marks or more; the worst place counts.
double handError_mm(const std::vector<Vec2>& marks, const std::vector<Vec2>& places);

}  // namespace nine
