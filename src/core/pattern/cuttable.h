// Openings that can be cut and sheet that holds between them.
//
// What is narrower than `least_mm` is mended where it is: strips of sheet are closed, necks of openings are
// taken away, and openings that stand nearer to each other than that are cut back until they do not. Corners
// become as round as half of it. For art that comes about by chance or by offsets;
// marks that the painter sets are left as they are set, and told. In x, g, so that a sheet's own figure is a
// few per cent off: ask for that much more. The result holds to a hundredth of a millimetre but for islands,
// which are bridges' work. Cost: about 1 ms a hundred millimetres of outline.
#pragma once

#include "geom/polygon_set.h"

namespace nine {

/// Least width of an opening and of the sheet between two (common practice, no published source).
constexpr double kLeastCut_mm = 0.5;

/// Openings smaller than a dot of `least_mm` are gone.
PolygonSet cuttable(PolygonSet rings, double least_mm = 1.12 * kLeastCut_mm);

}  // namespace nine
