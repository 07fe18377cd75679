// Where exactly a body's outline runs, once it is known within a few pixels.
//
// Along the normals of the line it is near to, every place is asked how sharply the picture changes there and
// whether what lies outside looks like ground; the outline is the way through these places that is sharpest
// and turns least (dynamic programming over place and slope; Amini, Weymouth and Jain 1990, Using Dynamic
// Programming for Solving Variational Problems in Vision). So it runs straight on below the root of a ring or
// a bill and past a bar of the ground's colour. Each point then goes, in the picture's own pixels, to where
// its colour is half way from outside to inside.
#pragma once

#include "image/regions.h"

namespace nine {

/// What the outline is looked for in. All but `picture` are of the picture worked on, `factor` times smaller.
struct BorderSight {
    const Picture& picture;
    int factor = 1;
    const std::vector<Plane>& lab;  ///< smoothed a little
    const PixelSet& groundLike;     ///< no more than ground, or shadow on it
    const PixelSet& covered;        ///< by something taken off: what is seen there is not the body's edge
    const PixelSet& fixed;          ///< painted by hand: the line stays there
    const Plane& thickness;         ///< inside the body, distance to the outside
};

struct Border {
    Polyline2 line;          ///< closed, pixels of the picture worked on, about two apart
    std::vector<bool> seen;  ///< for each point: an edge was found there; else it follows its neighbours
};

/// `about` is closed, in pixels of the picture worked on, and nowhere farther off than kBorderReach_px.
Border borderNear(const Polyline2& about, const BorderSight& sight);

constexpr double kBorderReach_px = 18;

}  // namespace nine
