// What the program knows of a kind of element, said once: everything else that deals with kinds - job files,
// limits, the sentence on the card, handles, thumbnails, refitting, the command line - reads it here.
//
// A kind is one file in pattern/kind/ and one line in pattern/kind/list.h. Guarantees: keys are unique within
// a kind and never change (files live for ever); `usual` lies within the limits; draw() is a pure function
// and gives the same art for the same values. Cost of all but draw(): none.
#pragma once

#include <array>
#include <optional>
#include <span>

#include "base/task.h"
#include "base/words.h"
#include "blank/landmarks.h"
#include "pattern/curve.h"
#include "pattern/outline.h"
#include "pattern/param.h"

namespace nine {

struct Element;

/// What a handle is moved over.
struct MoveOn {
    const Skin& skin;
    const Landmarks& landmarks;
};

/// What a millimetre towards the tail and one towards the back add to a parameter (or to "dx_mm", "dg_mm").
struct HandleMove {
    std::string_view key = {};
    Ratio perAhead = 0, perUp = 0;
};

/// Something that can be dragged, and reached by keys. draw() says where it stands.
struct Handle {
    std::string_view key;  ///< "first"
    Pattern name;          ///< spoken: "first dot"
    Pattern tag;           ///< written at it, with values by their keys: "Ø {first_mm}"; empty for nothing
    std::array<HandleMove, 3> moves = {};  ///< when it is no more than that
    /// Else: `by_mm` towards the tail and towards the back. Out of limits is the caller's to refuse.
    void (*move)(Element&, const Vec2& by_mm, const MoveOn&) = nullptr;
    std::array<std::string_view, 4> changes = {};  ///< keys that move() may change; also "dx_mm", "dg_mm"
};

/// Drags a handle. What goes out of limits is the caller's to refuse.
void moveHandle(const Handle& handle, Element& element, const Vec2& by_mm, const MoveOn& on);

struct ElementArt;

/// What an element is drawn on.
struct DrawOn {
    const Skin& skin;
    const Landmarks& landmarks;
    Vec2 origin;    ///< x, g; of kinds that have none the middle of the body
    Vec2 shift_mm;  ///< dx, dg as the element has them
    Fineness fineness;
    std::string path;  ///< of the element, for errors
    /// Of the element this one is derived from; never null in a kind that isDerived().
    const ElementArt* source = nullptr;
    /// Marks that this one keeps `clear_mm` away from. Kinds of many marks leave out those that would be too
    /// near; what is still too near is cut off after draw().
    std::vector<const ElementArt*> clearOf = {};
    double clear_mm = 0;
    const std::vector<BarePlace>* bare = nullptr;
    /// The other side's own when its marks are not mirrored.
    bool otherSide = false;
    Task task = {};

    /// What chance is drawn from: the element's seed, another one for the other side.
    std::uint64_t seedOf(Figure seed) const;
};

struct Drawn {
    std::vector<Pass> passes;  ///< in the order they are sprayed, at least one
    std::vector<std::pair<std::string_view, Vec2>> places = {};  ///< x, g of handles by their keys
    Warnings warnings = {};                                      ///< places count from the element
};

/// What painters look under.
enum class Family { Rows, Bars, Lines, Fields, Head, Crayfish, Fins, Wounds, Own, Derived, Fades };
Pattern nameOf(Family family);
/// As on the command line: "rows".
std::string_view idOf(Family family);

class Kind {
  public:
    virtual ~Kind() = default;
    virtual std::string_view id() const = 0;  ///< "dot_row", as in job files; new ids begin with it
    virtual Family family() const = 0;
    virtual Pattern name() const = 0;    ///< "row of dots"
    virtual Pattern onMask() const = 0;  ///< "dots"
    /// What the card says, with the values that can be changed there by their keys.
    virtual std::vector<Pattern> sentences() const = 0;
    virtual std::span<const Param> params() const = 0;
    virtual std::span<const Handle> handles() const = 0;
    /// What is drawn as a curve on the card besides being said.
    virtual std::span<const Curve> curves() const { return {}; }
    /// The landmark that a new one is measured from, which must be a curve; empty for any place.
    virtual std::string_view alongCurve() const { return {}; }
    /// The landmark that a new one is measured from where the blank has it; empty for any place.
    virtual std::string_view usualAnchor() const { return alongCurve(); }
    /// What limits alone cannot say. Errors: out_of_range with path + "." + key.
    virtual Status check(const Values&, const std::string& /*path*/) const { return Done{}; }
    /// Whether it starts at a place; fields and bands that follow the whole body are moved by dx_mm, dg_mm.
    virtual bool hasOrigin() const { return true; }
    /// Whether a sheet is cut for it: not for what is sprayed free-hand, flicked, or through a net.
    virtual bool isCut() const { return true; }
    /// Whether its art comes about by chance or from another mark, so that what cannot be cut of it is mended
    /// (pattern/cuttable.h). Of what the painter sets it is told.
    virtual bool isMended(const Values&) const { return false; }
    /// Whether it is drawn from another element, which `of` names.
    virtual bool isDerived() const { return false; }
    /// Whether it is sprayed before what it is derived from, which then covers its middle.
    virtual bool goesUnder(const Values&) const { return false; }
    /// Whether one of it stands on the back or the belly, as one piece for both sides.
    virtual bool isCentral(const Values&) const { return false; }
    /// Whether it takes longer than a hand waits while it drags; then it is drawn when the hand rests.
    virtual bool isSlow() const { return false; }
    /// Whether openings run into each other.
    virtual bool openingsMerge(const Values&) const { return false; }
    /// From the first opening to the last along the skin, mm; 0 when it is no row.
    virtual double rowLength_mm(const Values&) const { return 0; }
    /// Errors: off_body, not_a_curve, fits_nowhere, crosses_itself, cancelled.
    virtual Result<Drawn> draw(const DrawOn&, const Element&) const = 0;
};

}  // namespace nine
