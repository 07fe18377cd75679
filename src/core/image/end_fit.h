// Where an outline really ends that blur has shortened, or something hides.
#pragma once

#include <optional>

#include "base/units.h"
#include "geom/vec.h"

namespace nine {

/// Half heights near a closed end follow k d^p in the distance d from it: p about 0.5 is round, 1 pointed.
struct EndFit {
    double x_mm = 0;       ///< where the end is
    Ratio exponent = 0;    ///< p
    double factor_mm = 0;  ///< k, mm
    double fromX_mm = 0;   ///< the fit was made up to here; beyond, the outline may be redrawn by it
    Ratio rise = 0;
    double middle_mm = 0;  ///< the middle line: z = middle + rise (x - end)
};

/// Fits the end at the right (`tail`) or left of an outline (closed, mm) laid on its axis from x = 0 to
/// `length`, from 1.5 to 12 % of the length before it, leaving out the nearer. Nothing where heights follow
/// no such curve within 0.6 %, or the end would move by more than 2 % of the length.
std::optional<EndFit> fitEnd(const Polyline2& laid, double length_mm, bool tail);

/// The outline with its end redrawn as fitted.
Polyline2 withEnd(const Polyline2& laid, const EndFit& fit, bool tail);

}  // namespace nine
