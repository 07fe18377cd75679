// A triangle of sheet as it lies on a curved surface. Internal to geom/.
#pragma once

#include <array>
#include <optional>

#include "geom/distortion.h"
#include "geom/surface.h"

namespace nine {

/// In its own plane, edges as long as the surface's arcs, and how moves along the surface at its corners (in
/// tangentBasis there) look in that plane.
struct LaidTriangle {
    Mat2 edges;                 ///< from the first corner to the others, mm
    std::array<Mat2, 3> turns;  ///< from tangent basis to plane
};
LaidTriangle laidTriangle(const std::array<const SurfacePoint*, 3>& corners);

/// Derivative of the energy of a triangle, flat area times 1/2 (e1^2 + e2^2) + nu e1 e2 in Hencky strain, by
/// its laid edges; `inverse` is that of its flat edges. Nothing where it is turned over.
std::optional<Mat2> edgeForces(const Mat2& laid, const Mat2& inverse, double flat_mm2);

}  // namespace nine
