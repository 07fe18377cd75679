// What a body wears besides paint, for pictures: the eye that will be glued in, hook eyes and line tie as
// rings of wire, the bill as a plate of glass.
#pragma once

#include "blank/landmarks.h"
#include "geom/rasteriser.h"
#include "pattern/art.h"

namespace nine {

/// Rings of the eye, the outermost first, each with its colour; none without an eye, fewer too near an edge.
struct EyeRing {
    std::shared_ptr<const ElementArt> art;
    std::uint32_t colour;
};
std::vector<EyeRing> eyeRings(const Skin& skin, const Landmarks& landmarks);

/// Hook eyes, line tie and bill where the landmarks say. Their sizes are usual ones (common practice, no
/// published source) but for the bill's own.
std::vector<Solid> fittingsOf(const Skin& skin, const Landmarks& landmarks);

}  // namespace nine
