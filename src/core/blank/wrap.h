// How hard a body is to wrap: the widest strip of a sheet that lies flat, along the body.
#pragma once

#include "blank/skin_grid.h"

namespace nine {

struct WrapWidth {
    double x_mm;
    double width_mm;  ///< at most kWidestStrip_mm
};
constexpr double kWidestStrip_mm = 100;
constexpr double kAveragedAlong_mm = 4;  ///< a strip does not feel the joints between stations

/// For a sheet that takes `strainLimit`. A strip of width w on a surface of Gaussian curvature K needs a
/// strain of about K w^2 / 16 (rule of thumb, tried beforehand: docs/MODEL.md); K is the mean over
/// the flank, the half of the girth nearest the datum lines, and over kAveragedAlong_mm along the body. The 4
/// % of the length next to a closed end are left out: nothing lies there.
std::vector<WrapWidth> wrapWidths(const Skin& skin, const SkinGrid& grid, double strainLimit);

}  // namespace nine
