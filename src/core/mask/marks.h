// Where the marks that a sheet is lined up by stand on it.
#pragma once

#include "mask/mask_kind.h"

namespace nine {

/// The plan with its first and last mark where a hand that is off by a little at each moves the windows
/// least: far apart, the windows between them, clear of windows and edges, on something that can be felt
/// where that costs nothing. They stay within kMarkSlope of the body's way, because the sheet is drawn along
/// them. Marks between them stay. Cost: 2 ms.
SheetPlan withBestMarks(const Skin& skin, const Landmarks& landmarks, SheetPlan plan);

/// How far the line of the end marks may lean.
constexpr Ratio kMarkSlope = 0.06;

/// The nearest thing on the body that can be seen or felt, measured at the height of `at`; in a straight
/// line. Nothing if the body has none.
struct FeltNear {
    std::string landmark;
    Vec2 reference;  ///< x, g
    double distance_mm;
};
std::optional<FeltNear> feltNear(const Skin& skin, const Landmarks& landmarks, const SkinPlace& at);

}  // namespace nine
