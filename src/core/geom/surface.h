// A closed smooth surface given by a level function: zero on the surface, positive outside.
//
// This is all that geodesics and the re-wrap know of a body, so they work for any origin of it.
// Lengths in mm. `level` must be differentiable near the surface; its scale is free.
#pragma once

#include "base/units.h"
#include "geom/vec.h"

namespace nine {

struct SurfacePoint {
    Vec3 position;
    Vec3 normal;  ///< unit, pointing out of the body
};

class Surface {
  public:
    virtual ~Surface() = default;

    /// Value at `p`; `gradient` receives its gradient (never zero except at a sharp tip).
    virtual Figure level(const Vec3& p, Vec3& gradient) const = 0;

    /// The point of the surface reached from `p` by Newton steps along the gradient, to 1e-12 mm. It is the
    /// nearest point only to first order; meant for points close to the surface (a few tenths of a radius).
    SurfacePoint project(Vec3 p) const;

    /// The point of the surface on the line p + t * direction next to `p`; direction must not be tangent.
    SurfacePoint projectAlong(Vec3 p, const Vec3& direction) const;
};

/// Length of the surface arc between two near points, from the chord and the normals at its ends. Exact on
/// spheres and cylinders, elsewhere the error is of fifth order in the chord.
/// Source: the chord component along the change of normal is the chord of a circle seen under the angle
/// between the normals; the rest of the chord is straight. To leading order this is
/// l = c (1 + k^2 c^2 / 24) with the normal curvature k (do Carmo, Differential Geometry of Curves and
/// Surfaces, 1-5, expansion of a curve in arc length).
double arcLength_mm(const SurfacePoint& a, const SurfacePoint& b);

}  // namespace nine
