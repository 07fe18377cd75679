// Elements as closed outlines on the skin: what is to be cut out of a mask.
//
// Outlines are sampled so finely that the chord error on the sheet stays below kArtChord_mm. Everything is on
// the left side; art of the right side is its mirror image. Cost: about 1 ms a dot or bar.
#pragma once

#include "pattern/element.h"
#include "pattern/outline.h"

namespace nine {

struct ElementArt {
    std::string element;       ///< id
    Vec2 origin;               ///< x, g
    std::vector<Pass> passes;  ///< in the order they are sprayed; none for a kind this version does not know
    Vec2 low, high;            ///< box around the openings, in x, g; both the origin when there are none
    Warnings warnings;         ///< crosses_midline, windows_merge, unknown_kind

    /// The openings: what is cut. Those of the first pass; the sheet is moved for the others.
    const std::vector<Outline>& outlines() const;
    /// How far the sheet is moved for its last pass, mm; 0 when it is sprayed once.
    double moved_mm() const { return passes.empty() ? 0 : passes.back().shift_mm.norm(); }
};

/// An element of a kind this version does not know gives art without passes. Errors: out_of_range,
/// unknown_landmark, not_a_curve, off_body, with the field path; `path` is that of the element.
Result<ElementArt> drawElement(const Skin& skin, const Landmarks& landmarks, const Element& element,
                               const std::string& path, Fineness fineness = Fineness::Cut);

/// A disc of paint round a landmark, for things that are no element: the eye that is glued in. Errors:
/// off_body.
Result<ElementArt> drawRound(const Skin& skin, const Vec2& centre, double diameter_mm);

/// What a kind looks like with its usual values on a plain body, for small pictures.
Result<ElementArt> thumbnailOf(const Kind& kind);

}  // namespace nine
