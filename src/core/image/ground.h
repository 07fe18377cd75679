// The plain ground a body lies on, and how each place of a picture differs from it.
#pragma once

#include "base/units.h"
#include "image/regions.h"

namespace nine {

/// L*, a* or b* of the ground as a plane over the picture, from its border strip; outliers (a hand, a
/// corner of the table) are dropped twice.
struct GroundPlane {
    Vec3 c = Vec3::Zero();
    Figure sigma = 0;
    Figure at(int x, int y) const { return c(0) + c(1) * x + c(2) * y; }
};
GroundPlane groundOf(const Plane& plane);

constexpr Fraction kLightWeight = 0.55;  ///< of lightness in a difference of colours

/// How each place differs from the ground beneath it, L*a*b* units.
struct Difference {
    Plane all;     ///< in everything, lightness counting for less
    Plane colour;  ///< in colour alone: a shadow scales L* + 16, a* and b* alike (all are cube roots), so it
                   ///< has none
    PixelSet darker;
};
Difference differenceFrom(const std::vector<Plane>& lab, const GroundPlane (&ground)[3]);

/// Where the difference leaves the unevenness of the ground, as the border of the picture shows it.
Figure groundLevel(const Plane& soft);

}  // namespace nine
