// The cut through body, mask and spray that the Spray leaf draws: pure geometry, millimetres, y to the fish's
// left drawn to the right, z up.
#pragma once

#include "blank/skin.h"
#include "mask/mask.h"

namespace nine::app {

struct SectionScene {
    std::vector<Vec2> outline;  ///< of the body, closed
    Vec2 aim, normal;           ///< on the skin, and out of it (unit)
    /// A piece of sheet between two openings, or between one and the sheet's end.
    struct Strip {
        std::vector<Vec2> points, normals;  ///< on the skin below it
        std::vector<double> lift_mm;
    };
    std::vector<Strip> sheet;
    std::vector<double> openEdges_mm;  ///< g at which openings begin or end
    Vec2 low, high;                    ///< of the outline

    /// From the skin to the gun, `angle_rad` off straight, tilted towards the back.
    Vec2 towardsGun(double angle_rad) const;
};

/// The section at aim.x(). `art` is that of the mask. Cost: below 1 ms.
SectionScene sectionScene(const Skin& skin, const Mask& mask, const std::vector<const ElementArt*>& art,
                          const Vec2& aim);

/// The g of the section's point nearest to a place of the drawing.
double nearestG(const Skin& skin, double x_mm, const Vec2& place);

}  // namespace nine::app
