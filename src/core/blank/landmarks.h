// Named places on the body that art and masks are lined up by.
//
// A landmark is a point or a curve on the skin, given for the left side and mirrored to the right. A curve is
// a polyline in x, g (the gill plate from back to belly, the lateral line from nose to tail). Names are free;
// the program's own are in kLandmarkNames.
#pragma once

#include <array>
#include <map>
#include <string>
#include <string_view>
#include <vector>

#include "blank/skin.h"

namespace nine {

struct Landmark {
    std::vector<Vec2> points;  ///< x, g in mm; one for a point, more for a curve
    double diameter_mm = 0;    ///< of an eye socket; 0 elsewhere
    std::string unknownJson;   ///< keys of the file this version does not know

    bool isCurve() const { return points.size() > 1; }
};

using Landmarks = std::map<std::string, Landmark>;

inline constexpr std::array<std::string_view, 6> kLandmarkNames{"line_tie",     "eye",       "gill_plate",
                                                                "belly_hanger", "tail_root", "lateral_line"};

/// "gill plate" for "gill_plate".
std::string spokenName(std::string_view landmark);

/// The point of a landmark that things are measured from at height `g_mm`: a point itself; on a curve the
/// place where it passes that height, or its nearest end.
Vec2 referencePoint(const Landmark& landmark, double g_mm);

/// Every landmark on the skin. Errors: off_body with the field path.
Status checkLandmarks(const Skin& skin, const Landmarks& landmarks);

}  // namespace nine
