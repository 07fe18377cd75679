// From the outline of a body as it lies in a picture to one along its axis.
//
// Outlines are closed, mm, y upwards. Laid on its axis the nose is at 0,0, the tail at length,0, z (or y)
// upwards.
#pragma once

#include "base/result.h"
#include "base/units.h"
#include "geom/vec.h"

namespace nine {

struct BodyAxis {
    Vec2 nose = Vec2::Zero(), tail = Vec2::Zero();
    bool noseFlat = false, tailFlat = false;  ///< an end that is a face, not a tip
    Figure length() const { return (tail - nose).norm(); }
};

/// The axis joins the two tips: the points that stick out farthest along it. At an end cut off straight, for
/// a quarter of the body's height or more, it is the middle of the face. `noseLeft`: the nose is the end with
/// the smaller x. Tips to about 0.3 mm up or down on round ends, along the axis to what the outline is worth.
BodyAxis axisOf(const Polyline2& outline_mm, bool noseLeft = true);

/// The axis on the line through two given places, its ends where the outline ends along it; faces as axisOf
/// finds them. Errors: no_axis when the places are nearer than `least`.
Result<BodyAxis> axisThrough(const Polyline2& outline_mm, const Vec2& nose, const Vec2& tail, Figure least,
                             bool noseLeft = true);

/// The outline moved and turned so that its axis is the x axis; mirrored if the nose is at the right, so
/// that up stays up.
Polyline2 laidOn(const Polyline2& outline, const BodyAxis& axis);
/// Where a point of the picture comes to lie.
Vec2 laidOn(const Vec2& point, const BodyAxis& axis);

}  // namespace nine
