// The silhouette of a body on a plain ground.
//
// The ground is a plane in L*a*b* fitted to the picture's border, so a light that falls off to one side does
// no harm (ground.h). What differs from it by Otsu's threshold is body, and so is what hangs on to that and
// leaves the ground's unevenness: pale bellies belong to it. What is only darker, of the ground's colour and
// softly bordered is a shadow and taken off (shadow.h); rings, wires and bills are taken off by what they
// are, parts that a bar of the ground's colour cuts off are joined again (attached.h). The edge is then
// followed all round, below what was taken off too, and placed half way between body and ground (border.h).
// Strokes say what belongs to the body or does not, and are final.
#pragma once

#include "base/result.h"
#include "base/task.h"
#include "image/picture.h"
#include "image/stroke.h"

namespace nine {

struct SilhouetteWish {
    std::vector<Stroke2> strokes;
    double thin_px = 0;  ///< things up to this wide are left out; 0 picks 1/60 of the body's length
};

struct Silhouette {
    Polyline2 outline;    ///< closed, pixels of the picture, about one point every two pixels worked on
    double contrast = 0;  ///< how far body and ground are apart, in standard deviations of the ground
    Warnings warnings;
};

/// Errors: no_contrast, nothing_found, cut_off (the body leaves the picture), cancelled. A picture of 12
/// megapixels takes about a second.
Result<Silhouette> silhouetteOf(const Picture& picture, const SilhouetteWish& wish, const Task& task = {});

}  // namespace nine
