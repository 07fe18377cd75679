// How far outside of a body the line lies that was drawn round it, and the outline drawn in by that.
//
// A body lies on its widest flank, so the edge that is traced stands half its width above the paper. A pencil
// held upright touches that edge with its cone and leaves its line farther out; one that leans so that its
// side runs down the edge leaves it by half the line's width. The same all round: the outline is offset, not
// scaled. One size by ruler tells it better than any rule.
#pragma once

#include <optional>

#include "image/tracing.h"

namespace nine {

/// Half the angle of a sharpened pencil's cone, degrees. Common practice, no published source.
constexpr double kPencilCone_deg = 11;

/// Usual distance of the middle of the line from the body, mm, for an edge `edgeHeight_mm` above the paper:
/// half the line, and for an upright pencil edgeHeight_mm tan kPencilCone_deg, at most 3.5, half a pencil.
double usualStandOff_mm(TracedWith with, double lineWidth_mm, double edgeHeight_mm);

/// The outline (closed, mm) drawn in by so much; out if negative. Largest part; empty when nothing is left.
Polyline2 drawnInBy(const Polyline2& outline, double by_mm);

/// By how much an outline is drawn in so that it is as long along its axis (as high across it) as a ruler
/// says. Errors: known_size_off when that is not between -0.5 and 4 mm (with both sizes).
Result<double> standOffFor(const Polyline2& outline, bool noseLeft, double size_mm, bool height);

/// Draws both outlines of a reading in, in millimetres of the body, and says in its warnings what was taken
/// for what. The one from above follows the length of the side. Errors: known_size_off.
Status drawIn(TracingReading& reading, const TracingWish& wish);

}  // namespace nine
