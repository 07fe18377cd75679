// Telling a body from the shadow it casts.
#pragma once

#include "image/ground.h"

namespace nine {

struct ShadowReading {
    PixelSet taken;  ///< off the mask
    PixelSet like;   ///< may be shadow: only darker than the ground, and less so than the body
    bool doubtful;   ///< body and shadow hang together as one dark part
};

/// Takes off what is only darker than the ground, of its colour, without sharp edges inside, and fades into
/// the ground. A dark part of the body itself ends sharply, against the ground and against the shadow beside
/// it, and stays.
ShadowReading takeShadowOff(PixelSet& mask, const Difference& d, const Plane& soft, float level,
                            double colourNoise);

}  // namespace nine
