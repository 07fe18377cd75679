// Parametric elements of a pattern, anchored to landmarks.
//
// An element starts at its origin: the landmark it is anchored to plus dx_mm along the skin towards the tail
// and dg_mm along the girth towards the back; without an anchor dx_mm, dg_mm are a skin point. Anchored to a
// curve (gill plate) it starts where the curve passes the height dg_mm. All sizes are millimetres of skin.
// Elements are described on the fish's left; a linked element stands on both sides, an unlinked one on
// `side`. What its kind knows stands in pattern/kind.h.
#pragma once

#include <memory>
#include <string>
#include <vector>

#include "pattern/kinds.h"

namespace nine {

struct Element {
    std::string id;
    std::string name;  ///< as shown and written on masks; the id if empty
    Side side = Side::Left;
    bool linked = true;
    std::string anchor;  ///< landmark name; empty for none
    double dx_mm = 0, dg_mm = 0;
    std::string kind;         ///< "dot_row": of kinds(), or one this version does not know: drawn as nothing
    Values values;            ///< of its kind
    std::string colour;       ///< "#rrggbb", as it is shown; empty for the program's choice
    std::string unknownJson;  ///< keys of the file this version does not know; of an unknown kind all of it

    const std::string& shownName() const { return name.empty() ? id : name; }
    bool known() const { return findKind(kind) != nullptr; }
    bool standsOn(Side s) const { return linked || s == side; }
};
using ElementPtr = std::shared_ptr<const Element>;

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
