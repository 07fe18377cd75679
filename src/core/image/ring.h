// Rings that hang on to a body: line ties, split rings, the eyes of hooks.
//
// A ring is known by its wall: all round, or as far as the body leaves it free, the picture changes in one
// way from outside to the wall and back to the same from the wall to the hole, through which the ground is
// seen. So a ring as dark as the shadow it lies in is found, and one whose hole was taken for body.
#pragma once

#include <array>

#include "base/units.h"
#include "image/regions.h"

namespace nine {

struct Ring {
    static constexpr int kSectors = 24;
    Vec2 middle;                        ///< pixels of the planes
    double inner_px = 0, outer_px = 0;  ///< radii of the wall, pixels
    std::array<bool, kSectors>
        seen;  ///< where the wall was seen, from +x on towards +y; elsewhere is the body
};

/// The rings on the body, or on what hangs on to it, 1 to 9 % of its length across, the clearest first; none
/// overlaps another by more than links of a chain do. `lab` are L*, a*, b*, smoothed a little; `body` is the
/// body with what hangs on to it; `groundLike` what may be ground or shadow; `noise` one standard deviation
/// of the ground. About 0.1 s for a body of 800 pixels.
std::vector<Ring> ringsOn(const std::vector<Plane>& lab, const PixelSet& body, const PixelSet& groundLike,
                          Figure noise);

/// The wall and the hole, where the ring was seen, grown by `margin` pixels.
PixelSet pixelsOf(const std::vector<Ring>& rings, int width, int height, double margin_px);

}  // namespace nine
