// The page a blank is traced on: where its marks, boxes and ruler stand.
//
// One layout for A4 and Letter, lying on its side. Coordinates are mm of the frame: origin at the lower left
// mark, x right, y up; the frame stands in the middle of the paper. The marks are rings round a dot, placed
// so that no turn of the page brings five of them onto five others: which is which is found from their
// places alone, also when some are cut off.
#pragma once

#include <array>

#include "geom/polygon_set.h"

namespace nine::tracing_sheet {

inline const Vec2 kFrame_mm{250, 180};
inline const std::array<Vec2, 8> kMarks_mm{Vec2{0, 0},    Vec2{250, 0}, Vec2{250, 180}, Vec2{0, 180},
                                           Vec2{85, 180}, Vec2{150, 0}, Vec2{0, 60},    Vec2{250, 135}};
constexpr double kRingOuter_mm = 4, kRingInner_mm = 2.4, kDot_mm = 1.2;  ///< radii

/// The boxes to draw in; nose at the left.
inline const Box2 kSide{{8, 112}, {242, 174}};
inline const Box2 kTop{{8, 60}, {242, 104}};
inline const Box2 kRubbing{{8, 10}, {242, 52}};
constexpr double kBorder_mm = 1.2;  ///< this near to its border a box is not read

/// The line that is measured to see whether the page was printed true to size.
inline const Vec2 kRulerFrom{20, 3}, kRulerTo{120, 3};
constexpr double kRuler_mm = 100;

}  // namespace nine::tracing_sheet
