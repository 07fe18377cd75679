// Measures of a blank: what a caliper, a string and a scale would give, computed from the skin.
#pragma once

#include <vector>

#include "base/task.h"
#include "blank/skin.h"
#include "geom/geodesic.h"

namespace nine {

struct BodyMeasure {
    double length_mm;
    double height_mm;  ///< largest top + bottom of any section
    double width_mm;
    double area_mm2;            ///< skin only: end faces of open ends are left out
    double volume_mm3;          ///< between the end planes
    double curvatureTotal_rad;  ///< integral of Gaussian curvature; 4 pi for a closed body
};

/// Relative error of area and volume below 1e-6 for smooth bodies. About 0.1 s, most of it the curvature
/// total.
BodyMeasure measureBody(const Skin& skin);

/// Girth of the section at x. Errors: off_body.
Result<double> girthAt(const Skin& skin, double x_mm, const std::string& where);

/// The closed outline as it is seen from the left (x, z) or from above (x, y): 2 (steps + 1) points, closer
/// at the ends; along the back (or left side) to the tail and back. mm.
Polyline2 bodyOutline(const Skin& skin, bool above, int steps = 120);

/// The shortest way along the skin between two points: the best of several starting paths (both ways round,
/// bulging to nose and tail, and over a closed end), each pulled tight. Error below 1e-5 mm; about 4 ms.
/// Errors: off_body; over_open_end when the way would leave the skin at an open end.
Result<Geodesic> shortestWay(const Skin& skin, const SkinPoint& from, const SkinPoint& to);

}  // namespace nine
