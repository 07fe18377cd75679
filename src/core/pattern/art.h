// Elements as closed outlines on the skin: what is to be cut out of a mask.
//
// Outlines are sampled so finely that the chord error on the sheet stays below kArtChord_mm. Everything is on
// the left side; art of the right side is its mirror image, unless the element says each side has its own.
// What reaches over skin that stays bare is cut off there. Cost: about 1 ms a dot or bar, up to a second for
// a field.
#pragma once

#include "pattern/element.h"
#include "pattern/outline.h"

namespace nine {

/// What was taken off because it reached over bare skin.
struct CutAway {
    std::vector<Outline> lost;
    Words zone;  ///< "tail hanger"
};

struct ElementArt {
    std::string element;       ///< id
    Vec2 origin;               ///< x, g
    std::vector<Pass> passes;  ///< in the order they are sprayed; none for a kind this version does not know
    Vec2 low, high;            ///< box around the openings, in x, g; both the origin when there are none
    Warnings warnings;         ///< crosses_midline, windows_merge, unknown_kind, cut_at_bare
    std::vector<std::pair<std::string_view, Vec2>> places = {};  ///< of handles, by their keys
    bool cut = true;                                             ///< a sheet is cut for it
    bool oneForBoth = false;  ///< one piece for both sides, over the back or the belly
    std::vector<CutAway> cutAway = {};                           ///< each place it met, in the order met

    /// The openings: what is cut. Those of the first pass; the sheet is moved for the others.
    const std::vector<Outline>& outlines() const;
    /// Nothing when it has no such handle.
    std::optional<Vec2> place(std::string_view handle) const;
    /// How far the sheet is moved for its last pass, mm; 0 when it is sprayed once.
    double moved_mm() const { return passes.empty() ? 0 : passes.back().shift_mm.norm(); }
};

/// What an element rests on besides the body.
struct DrawWith {
    const ElementArt* source = nullptr;           ///< of the element it is derived from
    std::vector<const ElementArt*> clearOf = {};  ///< marks it keeps away from
    const std::vector<BarePlace>* bare = nullptr;
    bool otherSide = false;  ///< the right side's own, when its marks are not mirrored
    Task task = {};
};

/// An element of a kind this version does not know gives art without passes. Errors: out_of_range,
/// unknown_landmark, not_a_curve, off_body, fits_nowhere, no_source, cancelled, with the field path; `path`
/// is that of the element.
Result<ElementArt> drawElement(const Skin& skin, const Landmarks& landmarks, const Element& element,
                               const std::string& path, Fineness fineness = Fineness::Cut,
                               const DrawWith& with = {});

/// A disc of paint round a landmark, for things that are no element: the eye that is glued in. Errors:
/// off_body.
Result<ElementArt> drawRound(const Skin& skin, const Vec2& centre, double diameter_mm);

/// What a kind looks like with its usual values on a plain body, for small pictures.
Result<ElementArt> thumbnailOf(const Kind& kind);

}  // namespace nine
