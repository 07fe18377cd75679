// How each sprayed step of a recipe is sprayed: the kind of work it is, what the recipe says of paint, drops
// and coats, and what the painter has pinned.
#pragma once

#include "job/job.h"
#include "spray/plan.h"

namespace nine {

/// Covers are coats all over, fades and held-off cards; a mist is one whatever it goes through.
SprayWork workOf(const Job& job, const Step& step);
/// Of the paint there is most of in the cup; opaque when it is not known.
PaintFamily familyOf(const Job& job, const Step& step);
/// Pins with what the recipe says: drops and coats, unless pinned otherwise.
SprayPins pinsWithRecipe(SprayPins pins, const Step& step);

/// The first step that sprays through this mask or its twin of the other side; null when none does, or when
/// the steps only stand for the colours of the pattern (isDraft).
const Step* stepThrough(const Job& job, const std::string& mask);
/// The mask's wish with what its step says of paint, drops and coats; as it is without one.
SpraySpec sprayOfMaskInRecipe(const Job& job, const std::string& mask);

/// Settings for a step that goes through no mask: where practice starts, with its pins. Edges mean nothing.
/// Errors: those of planSpray, pins as "layers.sprays".
Result<SprayPlan> planStep(const Job& job, const Step& step, const SprayBench& bench);

}  // namespace nine
