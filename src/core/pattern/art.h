// Elements as closed outlines on the skin: what is to be cut out of a mask.
//
// Outlines are sampled so finely that the chord error on the sheet stays below kArtChord_mm. Everything is on
// the left side; art of the right side is its mirror image. Cost: about 1 ms a dot or bar.
#pragma once

#include "pattern/element.h"

namespace nine {

constexpr double kArtChord_mm = 0.01;  // half of what a cutter resolves, a thirtieth of what a hand does

/// How finely art is sampled: to be cut, or only to be looked at while something is dragged (chord error up
/// to 0.06 mm of a 3 mm dot, a third of the time).
enum class Fineness { Cut, Glance };

/// One opening. The outline runs counter-clockwise seen from outside with the nose left.
struct Outline {
    Vec2 centre;  ///< x, g
    std::vector<SurfacePoint> points;
    std::vector<Vec2> skin;  ///< x, g of each point
};

struct ElementArt {
    std::string element;  ///< id
    Vec2 origin;          ///< x, g
    std::vector<Outline> outlines;
    std::vector<Outline> second;  ///< of the same openings when the mask is moved for a second pass
    Vec2 low, high;               ///< box around all, in x, g; both the origin when there is nothing
    Warnings warnings;            ///< crosses_midline, windows_merge, unknown_kind
};

/// An element of a kind this version does not know gives art without outlines. Errors: out_of_range,
/// unknown_landmark, not_a_curve, off_body, with the field path; `path` is that of the element.
Result<ElementArt> drawElement(const Skin& skin, const Landmarks& landmarks, const Element& element,
                               const std::string& path, Fineness fineness = Fineness::Cut);

}  // namespace nine
