// Parametric elements of a pattern, anchored to landmarks.
//
// An element starts at its origin: the landmark it is anchored to plus dx_mm along the skin towards the tail
// and dg_mm along the girth towards the back; without an anchor dx_mm, dg_mm are a skin point. Anchored to a
// curve (gill plate) it starts where the curve passes the height dg_mm. All sizes are millimetres of skin.
// Elements are described on the fish's left; a linked element stands on both sides, an unlinked one on
// `side`.
#pragma once

#include <memory>
#include <string>
#include <variant>
#include <vector>

#include "blank/landmarks.h"

namespace nine {

/// Round dots in a row from the origin towards the tail, the same distance apart along the skin.
struct DotRow {
    int count = 8;
    double spacing_mm = 4;             ///< between centres
    double first_mm = 2, last_mm = 2;  ///< diameters; those between change evenly
    double bow_mm = 0;                 ///< how far the middle of the row is lifted towards the back
};

/// Bars across the body from the origin towards the tail, each from g0 to g1 (girth from the origin's
/// height).
struct Bars {
    int count = 5;
    double spacing_mm = 6;
    double widthBack_mm = 2, widthBelly_mm = 1;  ///< at g1 and at g0
    double g0_mm = -4, g1_mm = 8;
};

/// A crescent behind the gill plate (or another landmark that is a curve), its front edge along it. dx_mm is
/// the distance behind the curve, dg_mm moves it towards the back.
struct GillMark {
    double width_mm = 2.5;  ///< in the middle; it tapers to both tips
    double from = 0.1,
           to = 0.9;     ///< the part of the curve it follows, shares of its length from its first end
    double pair_mm = 0;  ///< the stencil is sprayed twice, moved so far towards the tail between; 0: once
    std::string pairColour = "#f2efe2";  ///< of the first pass; the second, over it, has the element's colour
};

/// A kind this version does not know: kept as it stands in the file, drawn as nothing.
struct UnknownShape {
    std::string kind;
    std::string json;  ///< the whole element
};

struct Element {
    std::string id;
    std::string name;  ///< as shown and written on masks; the id if empty
    Side side = Side::Left;
    bool linked = true;
    std::string anchor;  ///< landmark name; empty for none
    double dx_mm = 0, dg_mm = 0;
    std::variant<DotRow, Bars, GillMark, UnknownShape> shape;
    std::string colour;       ///< "#rrggbb", as it is shown; empty for the program's choice
    std::string unknownJson;  ///< keys of the file this version does not know

    const std::string& shownName() const { return name.empty() ? id : name; }
    bool known() const { return !std::holds_alternative<UnknownShape>(shape); }
    bool standsOn(Side s) const { return linked || s == side; }
};
using ElementPtr = std::shared_ptr<const Element>;

constexpr int kMaxCount = 200;
constexpr double kSmallestSize_mm = 0.1, kLargestSize_mm = 200;
constexpr double kLargestPair_mm = 2;  ///< a second pass is moved by less than the registration marks need
/// How far the mask is moved for a second pass; 0 for elements sprayed once.
double pairShift_mm(const Element& element);

/// "dot_row", "bars", "gill_mark" or one this version does not know: the kind as written in job files.
std::string kindName(const Element& element);
/// What to call it on a mask: "dots", "bars", "gill mark", "unknown".
const char* shortName(const Element& element);

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
