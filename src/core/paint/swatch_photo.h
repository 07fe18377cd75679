// A swatch's colour from a photo with a white patch beside it.
#pragma once

#include "base/result.h"
#include "paint/colour.h"

namespace nine {

/// What a white patch on white card really throws back (copy paper, about; guess).
constexpr Fraction kPatchWhite = 0.88;

/// The colour a patch would have in daylight: each channel, as light, by that of the white patch beside it.
/// Errors: no_white, when the white is too dark (light below 15 %), clipped, or far from grey.
Result<Srgb> colourFromPhoto(const Srgb& patch, const Srgb& white);

}  // namespace nine
