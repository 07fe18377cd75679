// The line of a landmark that is a curve, between the points that were measured.
//
// A gill plate has no corners where somebody happened to measure it: the curve is smooth through its points
// (cubic Hermite over the chord length, the slope at a point that of the parabola through it and its two
// neighbours). An
// outline (first point again last) keeps its corners, as does a curve of two points.
#pragma once

#include "blank/landmarks.h"

namespace nine {

/// x, g along the curve, its points among them, never farther from the smooth curve than about 0.005 mm for
/// points 20 mm apart; the point itself for a landmark that is none. It may leave the skin by a little
/// between points at its edge.
std::vector<Vec2> curveOf(const Landmark& landmark);

/// Length along the skin from the first point to each, mm; points off the body count as its edge.
std::vector<double> lengthsAlong(const Skin& skin, const std::vector<Vec2>& curve);

/// `steps` + 1 points evenly spaced along the skin between two shares of a curve's length.
std::vector<Vec2> partOf(const Skin& skin, const std::vector<Vec2>& curve, double from_mm, double to_mm,
                         int steps);

}  // namespace nine
