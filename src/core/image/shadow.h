// Telling a body from the shadow it casts.
#pragma once

#include "base/units.h"
#include "image/ground.h"

namespace nine {

struct ShadowReading {
    PixelSet taken;  ///< off the mask
    PixelSet like;   ///< may be shadow: only darker than the ground, and less so than the body
    bool doubtful;   ///< body and shadow hang together as one dark part
};

/// What is known of the whole picture when only a part of it is looked at.
struct WholePicture {
    double diagonal_px = 0;
    float most = 0;          ///< difference from the ground that 2 % of it exceed
    Figure colourNoise = 0;  ///< of the ground in a* and b*
};

/// Takes off what is only darker than the ground, of its colour, without sharp edges inside, and fades into
/// the ground. A dark part of the body itself ends sharply, against the ground and against the shadow beside
/// it, and stays.
ShadowReading takeShadowOff(PixelSet& mask, const std::vector<Plane>& lab, const Difference& d,
                            const Plane& soft, float level, const WholePicture& picture);

}  // namespace nine
