// What cutting asks of tool and hand: length, time, the smallest feature.
#pragma once

#include <optional>
#include <string_view>

#include "base/words.h"
#include "cut/piece.h"

namespace nine {

struct CutTool {
    std::string_view id;
    Pattern name;         ///< "craft knife"
    double speed_mm_s;    ///< along the cut
    double perContour_s;  ///< to set down, lift and turn
    double smallest_mm;   ///< narrowest window or strip it manages
};

/// Start values; common practice, no published source.
const std::vector<CutTool>& cutTools();
std::optional<CutTool> findTool(std::string_view id);

struct CutEstimate {
    double length_mm = 0;
    std::size_t contours = 0;
    double smallestFeature_mm = 0;  ///< narrowest window or strip of sheet; 0 if there is no window
    double time_s(const CutTool& tool) const;
};

/// Cost: some ms a piece with hundreds of windows; not for the thread that paints.
CutEstimate estimateCut(const std::vector<const Piece*>& pieces);

/// Narrowest place of a window: the shortest inward distance to a part of the border that faces the other
/// way.
double narrowestWidth_mm(const Polygon2& polygon);

}  // namespace nine
