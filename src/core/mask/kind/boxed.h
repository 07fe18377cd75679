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

/// An opening with its holes, and whose it is.
struct Opening {
    std::size_t art;                    ///< of those it was asked of
    std::vector<std::size_t> outlines;  ///< of that art
    Polygon2 ring;                      ///< x, g
    Box2 box;
    Vec2 middle() const { return 0.5 * (box.low + box.high); }
};
std::vector<Opening> openingsOf(const std::vector<const ElementArt*>& arts);

/// The art numbered `art` with only those of its openings that are in `chosen`.
std::shared_ptr<const ElementArt> partOf(const ElementArt& whole, const std::vector<Opening>& openings,
                                         const std::vector<std::size_t>& chosen, std::size_t art);

/// The same of all art: what is made is kept in `made`.
PlanOn withOpenings(const PlanOn& on, const std::vector<Opening>& openings,
                    const std::vector<std::size_t>& chosen,
                    std::vector<std::shared_ptr<const ElementArt>>& made);

}  // namespace nine
