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

#include "base/words.h"
#include "blank/landmarks.h"
#include "pattern/outline.h"
#include "pattern/param.h"

namespace nine {

struct Element;

/// What a handle is moved over.
struct MoveOn {
    const Skin& skin;
    const Landmarks& landmarks;
};

/// Something that can be dragged, and reached by keys.
struct Handle {
    std::string_view key;  ///< "first"
    Pattern name;          ///< spoken: "first dot"
    Pattern tag;           ///< written at it, with values by their keys: "Ø {first_mm}"; empty for nothing
    std::optional<Vec2> (*at)(const std::vector<Outline>&);  ///< x, g; nothing when there is none such
    /// `by_mm` towards the tail and towards the back. Out of limits is the caller's to refuse.
    void (*move)(Element&, const Vec2& by_mm, const MoveOn&);
    std::array<std::string_view, 3> changes = {};  ///< keys that move() may change; also "dx_mm", "dg_mm"
};

/// What an element is drawn on.
struct DrawOn {
    const Skin& skin;
    const Landmarks& landmarks;
    Vec2 origin;  ///< x, g
    Fineness fineness;
    std::string path;  ///< of the element, for errors
};

class Kind {
  public:
    virtual ~Kind() = default;
    virtual std::string_view id() const = 0;  ///< "dot_row", as in job files; new ids begin with it
    virtual Pattern name() const = 0;         ///< "row of dots"
    virtual Pattern onMask() const = 0;       ///< "dots"
    /// What the card says, with the values that can be changed there by their keys.
    virtual std::vector<Pattern> sentences() const = 0;
    virtual std::span<const Param> params() const = 0;
    virtual std::span<const Handle> handles() const = 0;
    /// The landmark that a new one is measured from, which must be a curve; empty for any place.
    virtual std::string_view alongCurve() const { return {}; }
    /// What limits alone cannot say. Errors: out_of_range with path + "." + key.
    virtual Status check(const Values&, const std::string& /*path*/) const { return Done{}; }
    /// Whether openings run into each other.
    virtual bool openingsMerge(const Values&) const { return false; }
    /// From the first opening to the last along the skin, mm; 0 when it is no row.
    virtual double rowLength_mm(const Values&) const { return 0; }
    /// Passes in the order they are sprayed, at least one. Errors: off_body, not_a_curve.
    virtual Result<std::vector<Pass>> draw(const DrawOn&, const Element&) const = 0;
};

}  // namespace nine
