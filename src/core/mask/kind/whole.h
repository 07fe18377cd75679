// What sheets that end on the body's own lines have in common. Internal to mask/kind/.
#pragma once

#include "mask/mask_kind.h"

namespace nine {

/// How much of the body's ends stays bare, along the axis.
inline constexpr Param kBareNose = {
    "nose_mm", NINE_WORDS("core", "Bare nose"), Param::Type::Length, 0.5, 100, 4, 1};
inline constexpr Param kBareTail = {
    "tail_mm", NINE_WORDS("core", "Bare tail"), Param::Type::Length, 0.5, 100, 4, 1};

/// The strip between the bare ends. Errors: empty_patch, when they leave nothing.
Result<Strip> betweenBareEnds(const PlanOn& on, const Values& values, Strip strip);

/// Takes out of the sheet, with half a millimetre round it, what no sheet can lie over: as a hole, or as its
/// edge where it reaches there.
void leaveOut(Region& region, const PolygonSet& uncovered);

/// Errors: art_beyond, when art reaches over the edges of its sheet.
Status checkHolds(const SheetPlan& plan, const std::string& where);

/// One sheet of it, without the places that no sheet can lie over. Errors: art_beyond, when art reaches over
/// its edges.
Result<SheetPlan> wholeSheet(const PlanOn& on, const Strip& strip, std::vector<const ElementArt*> opens);

}  // namespace nine
