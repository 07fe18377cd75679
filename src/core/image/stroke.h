// What is painted on a picture by hand: this belongs to the body, or does not.
#pragma once

#include "geom/polygon_set.h"

namespace nine {

struct Stroke2 {
    Polyline2 points;       ///< pixels of the picture
    double radius_px = 10;  ///< pixels
    bool include = false;   ///< false takes out
};

/// The area a round brush covers along the points.
PolygonSet coveredBy(const Polyline2& points, double radius_px);

/// The outline (closed) with what the strokes cover put in or taken out, one after the other; of what falls
/// apart the largest part, without holes. Empty when nothing is left. Same units for both.
Polyline2 withStrokes(const Polyline2& outline, const std::vector<Stroke2>& strokes);

}  // namespace nine
