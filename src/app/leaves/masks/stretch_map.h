// The stretch of a flat mask as it is shown: averaged over about 1 mm, as the verdict's figures are felt by a
// sheet.
#pragma once

#include "mask/fit.h"

namespace nine::app {

constexpr double kAveragedOver_mm = 1;

/// Largest principal strain of every triangle, averaged over its neighbourhood of kAveragedOver_mm.
/// Fractions.
std::vector<double> averagedStretch(const FlatPatch& flat);

}  // namespace nine::app
