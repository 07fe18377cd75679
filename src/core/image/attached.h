// What hangs on to a body or parts it, and how a body is told from it. Sets are pixels of the picture worked
// on; `radius` is half the width up to which a thing counts as thin.
#pragma once

#include "image/regions.h"

namespace nine {

/// The largest part, with others that a bar of the ground's colour has cut off: broad ones close beside it.
PixelSet joined(const std::vector<Part>& parts, int width, int height, double radius_px);

/// Gleams and pale marks inside the body are filled; the inside of a ring is not: its wall is so thin that
/// opening breaks it.
PixelSet withHolesFilled(const PixelSet& mask, double radius_px);

/// The largest part of the opened mask with what tapers off from it. Opening takes the end of a pointed tail
/// with the wires; but a tail gets steadily thinner, and a wire or a bill does not.
PixelSet withoutThinThings(const PixelSet& mask, double radius_px);

/// The mask without bills: long things with parallel edges, up to 5.6 % of the body's length wide, that lie
/// across its axis or stand out less than it (`soft` below `level`).
PixelSet withoutBills(const PixelSet& mask, const Plane& soft, float level);

/// Shrinking what was grown: fills notches narrower than twice the radius. The picture's edge counts as
/// ground.
PixelSet notchesClosed(const PixelSet& mask, double radius_px);

/// Closes slots narrower than twice the radius that go in with steep walls, as a bar of the ground's colour
/// does, and leaves the corners where a fin or a lip begins.
PixelSet slotsClosed(const PixelSet& mask, double radius_px);

}  // namespace nine
