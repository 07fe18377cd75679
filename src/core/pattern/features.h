// How fine a mark is: its narrowest opening and the narrowest strip of sheet it leaves, before any mask is
// made.
//
// In x, g about each place, which on a side is the skin within a few per cent; the mask's own figure is exact
// for its sheet. An opening is as narrow as the widest disc that still fits nearly everywhere into it (an
// opening by that disc loses less than a fiftieth of its area, so points of pointed ends do not count). Cost:
// about 0.2 ms an opening.
#pragma once

#include "pattern/art.h"

namespace nine {

struct Features {
    double narrowest_mm = 0;  ///< opening; 0 when there is none
    double web_mm = 0;        ///< between two openings of the mark; 0 when there are not two
    Vec2 narrowestAt = Vec2::Zero(), webAt = Vec2::Zero();  ///< x, g
};
Features featuresOf(const ElementArt& art);

}  // namespace nine
