// Parametric elements of a pattern, anchored to landmarks.
//
// An element starts at its origin: the landmark it is anchored to plus dx_mm along the skin towards the tail
// and dg_mm along the girth towards the back; without an anchor dx_mm, dg_mm are a skin point. Anchored to a
// curve (gill plate) it starts where the curve passes the height dg_mm. All sizes are millimetres of skin.
// Elements are described on the fish's left; a linked element stands on both sides, an unlinked one on
// `side`. What its kind knows stands in pattern/kind.h.
#pragma once

#include <map>
#include <memory>
#include <string>
#include <vector>

#include "pattern/kinds.h"

namespace nine {

struct Home;

constexpr double kMostClear_mm = 20;

struct Element {
    std::string id;
    std::string name;  ///< as shown and written on masks; the id if empty
    Side side = Side::Left;
    bool linked = true;
    std::string anchor;  ///< landmark name; empty for none
    double dx_mm = 0, dg_mm = 0;
    std::string kind;    ///< "dot_row": of kinds(), or one this version does not know: drawn as nothing
    Values values;       ///< of its kind
    std::string colour;  ///< "#rrggbb", as it is shown; empty for the program's choice
    std::string of;      ///< id of the element it is derived from; empty for none
    std::vector<std::string> clearOf = {};  ///< ids of elements it keeps clear of: they are cut out of it
    double clear_mm = 0;                    ///< so far
    bool ownSides = false;                  ///< linked, but what chance does is not mirrored
    bool locked = false;                    ///< stays where it is under the hand
    std::string group;                      ///< moves with the others of this name; empty for none
    std::map<std::string, Refit> rules =
        {};  ///< of parameters, and of dx_mm and dg_mm, where not as the kind's
    std::shared_ptr<const Home> home = {};  ///< the body it was made for, after a refit
    std::string unknownJson;  ///< keys of the file this version does not know; of an unknown kind all of it

    const std::string& shownName() const { return name.empty() ? id : name; }
    bool known() const { return findKind(kind) != nullptr; }
    /// One piece for both sides.
    bool isCentral() const {
        const Kind* k = findKind(kind);
        return k && k->isCentral(values);
    }
    /// Mirrored or its twin on the other side.
    bool onBothSides() const { return linked && !isCentral(); }
    bool standsOn(Side s) const { return linked || isCentral() || s == side; }
    bool isCut() const {
        const Kind* k = findKind(kind);
        return k && k->isCut();
    }
};
using ElementPtr = std::shared_ptr<const Element>;

/// How an element was on the body it was made for: refitting goes from there, so that going to another body
/// and back changes nothing.
struct Home {
    double length_mm, girth_mm;  ///< of that body
    double dx_mm, dg_mm;
    Values values;
    double seen_dx_mm = 0, seen_dg_mm = 0;  ///< what a refit made of it; when a hand has changed that since,
    Values seen = {};                       ///< the element is at home where it is now
    bool operator==(const Home&) const = default;
};

/// The rule by which a parameter, or "dx_mm", "dg_mm", follows the body: the element's own or its kind's.
/// Places go with length and girth.
Refit ruleOf(const Element& element, std::string_view key);

/// The element as it is on a body longer by `length` and rounder by `girth` (factors); places from the nose
/// are counted from it. Counts come out whole, at least 1. Nothing is rounded else.
Element refitted(Element element, Ratio length, Ratio girth, double noseFrom_mm, double noseTo_mm);

/// A sentence of its kind with the element's values.
Words sentenceOf(const Element& element, Pattern sentence);

/// Whether the numbers make sense by themselves. Errors: out_of_range, with `path` + "." + field.
Status checkElement(const Element& element, const std::string& path);

/// x, g of the origin on the left side. Errors: unknown_landmark, off_body.
Result<Vec2> originOf(const Skin& skin, const Landmarks& landmarks, const Element& element,
                      const std::string& path);

/// The same element measured from another landmark (or, with an empty name, in skin coordinates): its origin
/// stays where it is, within 0.01 mm, rounded to hundredths. Errors: those of originOf.
Result<Element> reanchored(const Skin& skin, const Landmarks& landmarks, Element element,
                           const std::string& anchor, const std::string& path);

}  // namespace nine
