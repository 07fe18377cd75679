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

Error artBeyond(const std::string& element, double x_mm, const std::string& where);

/// Errors: art_beyond, when art reaches over the edges of its sheet.
Status checkHolds(const SheetPlan& plan, const std::string& where);

/// How many sheets lie behind one another along the body.
inline constexpr Param kSheets = {.key = "sheets",
                                  .name = NINE_WORDS("core", "Sheets behind one another"),
                                  .type = Param::Type::Count,
                                  .low = 1,
                                  .high = 8,
                                  .usual = 1,
                                  .decimals = 0,
                                  .spare = true};

/// The strip in so many sheets, parted where no window is if there is such a place near, without the places
/// that no sheet can lie over. Art that reaches over the lines the strip ends on, or over a joint, is cut off
/// there, so that its halves on two sheets meet; art in one piece for both sides is not. Errors: art_beyond.
Result<std::vector<SheetPlan>> wholeSheets(const PlanOn& on, const Strip& strip, int sheets,
                                           std::vector<const ElementArt*> opens);

}  // namespace nine
