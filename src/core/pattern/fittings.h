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

/// The bill seen from above, clockwise: x from the slot to its tip, y across; it begins inside the slot. Its
/// shape between length and width is a usual one (common practice, no published source).
Polygon2 billOutline(const Landmark& slot);

/// Hook eyes, line tie and bill where the landmarks say. Their sizes are usual ones (common practice, no
/// published source) but for the bill's own.
std::vector<Solid> fittingsOf(const Skin& skin, const Landmarks& landmarks);

}  // namespace nine
