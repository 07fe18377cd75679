// How wet a coat may be before it runs.
#pragma once

#include "base/units.h"
#include "paint/paint.h"

namespace nine {

/// Share of the run limit that a coat is planned for (common practice, no published source).
constexpr Fraction kWettest = 0.6;

/// Wet film, um, that sags one millimetre on an upright wall before it sets, without heat. Status in
/// docs/MODEL.md: the viscosity at rest and the drying are guesses; the cube root softens them.
double runLimit_um(const PaintFamily& paint, const Mixture& mixture);

/// "coat lies 7.3 um wet; more than 7.1 um, 0.6 of what runs, may run": with as many decimals as it takes to
/// see that one is more than the other.
Words wetSentence(double coat_um, double run_um);

}  // namespace nine
