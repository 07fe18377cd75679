// A closed line where part of it could not be seen.
#pragma once

#include <functional>

#include "geom/vec.h"

namespace nine {

/// How much of a picture speaks for a stretch of the outline; more is better, about -1 to 1.
using Likely = std::function<double(const Polyline2& stretch)>;

/// Replaces the blind stretches of a closed line with points evenly apart by the way it runs on both sides,
/// but for the points next to them, which what hides the line has touched too. Where it turns little that is
/// a cubic through what is seen on both sides. Round an end it is the likeliest of these: cut off straight,
/// an arc that keeps both directions, or one drawn out towards where these meet; the arc unless something
/// speaks for another. Stretches longer than a quarter of the line stay.
void runOn(Polyline2& line, const std::vector<bool>& blind, const Likely& likely);

}  // namespace nine
