// What kinds are drawn with.
#pragma once

#include <functional>

#include "pattern/kind.h"

namespace nine {

/// Spacing of points.
struct ArtSteps {
    double edge_mm;   ///< along edges that are nearly straight on the sheet
    double shoot_mm;  ///< a disc's radius in steps; second order, 1e-4 mm for 3 mm discs at 0.25
    double chord_mm;
    int leastRim;
};
ArtSteps artSteps(Fineness fineness);

/// A geodesic circle whose polygon has the circle's area. Errors: off_body when its middle lies off the body
/// or its rim goes over an end. About 1 ms.
Result<Outline> drawDisc(const Skin& skin, const Vec2& centre, double radius_mm, Fineness fineness,
                         const std::string& path);

/// `count` outlines on all cores. The first that cannot be drawn is the error.
Result<std::vector<Outline>> drawAll(std::size_t count,
                                     const std::function<Result<Outline>(std::size_t)>& draw);

/// Middles of the first, the middle and the last opening.
std::optional<Vec2> firstCentre(const std::vector<Outline>& outlines);
std::optional<Vec2> lastCentre(const std::vector<Outline>& outlines);    ///< nothing for one opening
std::optional<Vec2> middleCentre(const std::vector<Outline>& outlines);  ///< nothing below three

/// Spreads a row: the last opening goes along, the first stays where it is.
void spreadRow(Element& element, double by_mm);

}  // namespace nine
