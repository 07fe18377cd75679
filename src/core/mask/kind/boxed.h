// Sheets that keep a margin round their art. Internal to mask/kind/.
#pragma once

#include "mask/mask_kind.h"

namespace nine {

/// How much sheet stays round the windows against overspray.
inline constexpr Param kMargin = {
    "margin_mm", NINE_WORDS("core", "Margin"), Param::Type::Length, 1, 60, 6, 1};

/// The box round all of the art and its margin.
BandPatch boxOf(const PlanOn& on, double margin_mm, Warnings& warnings);

/// One sheet round all of the art: a box, or what follows the body where no box lies. Errors: off_body.
Result<SheetPlan> boxedSheet(const PlanOn& on, double margin_mm, Warnings& warnings);

/// A mark near each end of a region, in the middle of the sheet there.
std::vector<SkinPlace> marksAtEnds(const Polygon2& outer);

}  // namespace nine
