// Lines pressed into foil: two families that lean by an angle off the girth, one to the tail and one to the
// head, and meet on the lateral line: diamonds above it, ribs below if wanted. They begin over the shoulder
// and stop short of the gill cover.
//
// A line keeps its angle to the girth all the way, measured on the skin. 23 degrees is common practice, no
// published source. On a flat panel a diamond is 1/tan(23 deg) = 2.356 times as high as it is wide.
#pragma once

#include "base/task.h"
#include "blank/landmarks.h"

namespace nine {

enum class BelowLateral { Nothing, Ribs, Diamonds };

struct FoilWish {
    double width_mm = 4;   ///< of a diamond, along the lateral line
    double lean_deg = 23;  ///< off the girth
    double short_mm = 2;   ///< stops so far behind the gill cover
    double tail_mm = 4;    ///< and so far before the tail root, or the end of the body
    BelowLateral below = BelowLateral::Ribs;
    bool operator==(const FoilWish&) const = default;
};

/// Errors: out_of_range with path + field.
Status checkFoil(const FoilWish& wish, const std::string& path);

struct FoilLine {
    double start_mm = 0;     ///< where it leaves the lateral line: arc along it from the nose end of the line
    bool toTail = true;      ///< leans to the tail going up
    std::vector<Vec2> skin;  ///< x, g, from the lateral line outwards
};

struct FoilLines {
    std::vector<double> ticks_mm;  ///< along the lateral line, from its nose end: where lines meet it
    std::vector<Vec2> tickSkin;    ///< x, g of each
    std::vector<FoilLine> above, below;
    int diamonds = 0;      ///< along the lateral line
    double height_mm = 0;  ///< of a diamond in the middle of the row, along the girth
    double length_mm = 0;  ///< from the first tick to the last, along the line
};

/// Errors: out_of_range, empty_reach (less than two diamonds fit), cancelled.
Result<FoilLines> foilLines(const Skin& skin, const Landmarks& landmarks, const FoilWish& wish,
                            const std::string& path);

/// x, g of the lateral line from nose to tail: the landmark, else the datum line; `share` of the length left
/// out at ends.
std::vector<Vec2> lateralLine(const Skin& skin, const Landmarks& landmarks);

}  // namespace nine
