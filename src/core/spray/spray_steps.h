// What the next steps away from a plan would spoil: the reasons a plan is where it is.
#pragma once

#include "spray/plan.h"

namespace nine {

/// Steps by one notch at a time to the end of practice, until a limit is passed that the plan keeps.
std::vector<SprayStep> sprayStepsFrom(const SprayPlan& plan, const MaskToSpray& mask,
                                      const SprayBench& bench);

/// Wet film of a coat of so many passes, um, at the middle of the spray; 0 outside the model.
double coatFilm_um(const SpraySetting& setting, int passes);

/// "needle 0.2 mm, 15 psi (1.03 bar)".
Words pinnedText(const SprayPins& pins);
/// A field of a setting in words, by the name it has in job files.
Words fieldText(const SpraySetting& setting, const std::string& field);
/// "15 psi (1.03 bar)".
Words psiText(double kpa);

}  // namespace nine
