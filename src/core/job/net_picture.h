// The body's picture with a net's scales sprayed over it, for the holder.
#pragma once

#include "pattern/skin_picture.h"
#include "scale/cells.h"

namespace nine {

/// What was painted, with `colour` through the net's openings as it lies; strands keep what was under them.
/// Straight mist, no blur. Outside the net nothing changes. Cost: 0.2 us a pixel, on all cores.
Image netSprayed(const Image& picture, const DrawnBody& body, const Skin& skin, const Drape& drape,
                 bool doubled, const NetShift& second, std::uint32_t colour, Fraction strength);

}  // namespace nine
