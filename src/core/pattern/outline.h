// What is cut out of a mask: closed outlines on the skin, and the passes they are sprayed in.
#pragma once

#include <functional>
#include <string>
#include <vector>

#include "base/words.h"
#include "geom/polygon_set.h"
#include "geom/surface.h"

namespace nine {

constexpr double kArtChord_mm = 0.01;  // half of what a cutter resolves, a thirtieth of what a hand does

/// How finely art is sampled: to be cut, or only to be looked at while something is dragged (chord error up
/// to 0.06 mm of a 3 mm dot, a third of the time).
enum class Fineness { Cut, Glance };

/// One opening, or skin left bare within one. An opening runs counter-clockwise seen from outside with the
/// nose left, what is left bare (a hole) clockwise.
struct Outline {
    Vec2 centre = Vec2::Zero();  ///< x, g
    std::vector<SurfacePoint> points;
    std::vector<Vec2> skin;  ///< x, g of each point
    bool hole = false;
};

/// A place no paint goes, x, g, counter-clockwise.
struct BarePlace {
    Polygon2 ring;
    Words name;  ///< "eye", as in sentences
};

/// How much of the paint arrives at x, g (mm), 0..1: of what is sprayed without a sheet or with one held off.
using SoftCover = std::function<Fraction(double x_mm, double g_mm)>;

/// One spraying of the art. The sheet is cut once, by the outlines of the first pass; for a later pass it is
/// moved by `shift_mm`, and the outlines stand where they lie then.
struct Pass {
    std::vector<Outline> outlines;
    Vec2 shift_mm = Vec2::Zero();  ///< x, g
    std::string colour = {};       ///< "#rrggbb"; empty for the element's own
    Fraction strength = 1;         ///< how much of what is under it is hidden
    SoftCover cover = {};          ///< of what has no outlines
};

}  // namespace nine
