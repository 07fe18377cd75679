// What the program knows of a kind of mask, said once; job files, limits, the card on the Masks leaf and the
// command line read it here.
//
// A kind is one file in mask/kind/ and one line in mask/kind/list.h. Guarantees: ids and keys never change
// (files live for ever); plan() is a pure function. Masks are planned on the left side of the body, in one
// chart (x, g) that goes on over back and belly; a right-hand mask is the mirror image of its left twin.
#pragma once

#include <memory>
#include <span>

#include "blank/landmarks.h"
#include "geom/places.h"
#include "mask/strip.h"
#include "pattern/art.h"
#include "pattern/param.h"

namespace nine {

/// What a mask opens, and what it must not cover.
struct OpenedArt {
    std::vector<const ElementArt*> left;
    std::vector<const ElementArt*> right = {};  ///< of the same elements, of sheets that go round the body
    PolygonSet uncovered = {};                  ///< x, g: hangers, bills, whatever no sheet can lie over
};

/// What a mask is planned on.
struct PlanOn {
    const Skin& skin;
    const Landmarks& landmarks;
    std::vector<const ElementArt*> art;         ///< of the elements it opens, at least one
    std::string where;                          ///< of the mask, for errors
    std::vector<const ElementArt*> right = {};  ///< the same as they stand on the right side
    PolygonSet uncovered = {};                  ///< x, g: what no sheet can lie over
};

/// One sheet before it is flattened.
struct SheetPlan {
    Region region;
    std::vector<const ElementArt*> opens;  ///< art whose outlines are windows of this sheet
    std::vector<SkinPlace> marks;  ///< inside the region, from the nose end to the tail end; two or more
    /// Art made for this sheet alone, such as that of the right side in its chart; also in `opens`.
    std::vector<std::shared_ptr<const ElementArt>> made = {};
    std::vector<SkinPlace> bridges = {};  ///< middles of the strips left standing in its windows
    std::vector<SkinPlace> ticks = {};    ///< on its edge: where what was painted last must come to lie
    /// The places one card is laid at, from the nose, its own among them; empty for a sheet laid once.
    std::vector<std::shared_ptr<const SheetPlan>> laidAt = {};
    bool marksOnLine = false;   ///< its end marks stand on a line of the body and stay there
    bool looseIslands = false;  ///< what stands free in a window is laid by itself
};

class MaskKind {
  public:
    virtual ~MaskKind() = default;
    virtual std::string_view id() const = 0;  ///< "fitted", as in job files
    virtual Pattern name() const = 0;         ///< "fitted mask"
    /// What the card says of it, with the values that can be changed there by their keys.
    virtual std::vector<Pattern> sentences() const = 0;
    virtual std::span<const Param> params() const = 0;
    /// One sheet opens its elements on both sides of the body; such a mask stands on the left.
    virtual bool bothSides() const { return false; }
    /// The piece of skin that slits are planned on: nothing where its outline is no strip. Errors: as plan().
    virtual Result<std::optional<Strip>> strip(const PlanOn& on, const Values& values) const = 0;
    /// The sheets, at least one. Errors: sentences with a repair, `where` those of PlanOn. What is in doubt
    /// goes into `warnings`.
    virtual Result<std::vector<SheetPlan>> plan(const PlanOn&, const Values&, Warnings& warnings) const = 0;
};

/// The strip as one sheet: marks near both ends of its core, and between them where it is long.
SheetPlan sheetOf(const Skin& skin, const Strip& strip, std::vector<const ElementArt*> opens = {});

/// The sheets with those of the slits that begin on their border or near it, and a mark for each panel that
/// they part off. Errors: slit_lost (a slit lies on none of the sheets), slit_crosses_window.
Result<std::vector<SheetPlan>> slitted(std::vector<SheetPlan> plans, const std::vector<Slit>& slits,
                                       const std::string& where);

inline constexpr const char* kUsualMaskKind = "fitted";

std::span<const MaskKind* const> maskKinds();
/// Null for a kind this version does not know.
const MaskKind* findMaskKind(std::string_view id);

}  // namespace nine
