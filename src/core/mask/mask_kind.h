// What the program knows of a kind of mask, said once; job files, limits, the card on the Masks leaf and the
// command line read it here.
//
// A kind is one file in mask/kind/ and one line in mask/kind/list.h. Guarantees: ids and keys never change
// (files live for ever); plan() is a pure function. Masks are planned on the left side of the body, in one
// chart (x, g) that goes on over back and belly; a right-hand mask is the mirror image of its left twin.
#pragma once

#include <span>

#include "blank/landmarks.h"
#include "geom/places.h"
#include "mask/region.h"
#include "pattern/art.h"
#include "pattern/param.h"

namespace nine {

/// What a mask is planned on.
struct PlanOn {
    const Skin& skin;
    const Landmarks& landmarks;
    std::vector<const ElementArt*> art;  ///< of the elements it opens, at least one
    std::string where;                   ///< of the mask, for errors
};

/// One sheet before it is flattened.
struct SheetPlan {
    Region region;
    std::vector<const ElementArt*> opens;  ///< art whose outlines are windows of this sheet
    std::vector<SkinPlace> marks;  ///< inside the region, from the nose end to the tail end; two or more
};

class MaskKind {
  public:
    virtual ~MaskKind() = default;
    virtual std::string_view id() const = 0;  ///< "fitted", as in job files
    virtual Pattern name() const = 0;         ///< "fitted mask"
    /// What the card says of it, with the values that can be changed there by their keys.
    virtual std::vector<Pattern> sentences() const = 0;
    virtual std::span<const Param> params() const = 0;
    /// The sheets, at least one. Errors: sentences with a repair, `where` those of PlanOn. What is in doubt
    /// goes into `warnings`.
    virtual Result<std::vector<SheetPlan>> plan(const PlanOn&, const Values&, Warnings& warnings) const = 0;
};

inline constexpr const char* kUsualMaskKind = "fitted";

std::span<const MaskKind* const> maskKinds();
/// Null for a kind this version does not know.
const MaskKind* findMaskKind(std::string_view id);

}  // namespace nine
