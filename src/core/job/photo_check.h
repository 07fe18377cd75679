// A new photograph laid over the body of a job, to see whether they are the same shape.
#pragma once

#include "base/units.h"
#include "blank/skin.h"
#include "job/blank_from_picture.h"

namespace nine {

struct PhotoCheck {
    struct At {
        double x_mm;    ///< from the nose of the body
        bool upper;     ///< of its outline; from above, the left side
        double off_mm;  ///< across the outline; above 0 where the photo reaches farther out
    };
    std::vector<At> places;  ///< along the photo's outline
    double rms_mm = 0;
    At worst{0, false, 0};
    Vec2 worst_px = Vec2::Zero();  ///< where that is in the photo
    Ratio scale = 1;    ///< the photo was made larger by this to fit; 1 when it has a scale of its own
    Polyline2 body_px;  ///< the body's outline in the photo, closed
};

/// Moves and turns the photo's outline to where it fits the body's best, so that a difference at one place
/// does not push the rest off (least squares with weights 1 / (1 + (d / s)^2), s 0.3 mm or twice the median;
/// Besl and McKay 1992, A Method for Registration of 3-D Shapes; Holland and Welsch 1977 for the weights,
/// Cauchy's). `ownScale`: the photo's scale was measured, a different size is a difference; else it is scaled
/// to fit as well. `above`: seen from above. About 40 ms.
PhotoCheck checkPhoto(const Skin& skin, const PhotoOutline& seen, bool ownScale, bool above = false);

/// What that means, with the place that is farthest off.
Warning checkSentence(const PhotoCheck& check, bool above = false);

}  // namespace nine
