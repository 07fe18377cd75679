// Places at random but evenly apart on the skin.
//
// Darts are thrown on the cells of a fine grid in random order, each cell once; a dart stays when no other is
// nearer than it allows (straight through space: on the skin a little farther). When all cells have had their
// turn the field is full: every place of the grid is too near to a dart. Spacing cannot be violated, and the
// same seed gives the same places. (Dart throwing: Cook, Stochastic sampling in computer graphics, ACM TOG 5,
// 1986; all cells in random order makes it maximal to within a cell.) Cost: about 1 us a cell.
#pragma once

#include <optional>

#include "pattern/chart.h"

namespace nine {

struct Dart {
    Vec2 at;  ///< x, g
    Vec3 point;
    double radius_mm;
    double gap_mm;  ///< it keeps from others, besides both radii
};

/// What a dart at a cell would be: radius and gap, mm; nothing where none may lie.
using DartSize = std::function<std::optional<Vec2>(int row, int column)>;

std::vector<Dart> scattered(const Chart& chart, const DartSize& size, std::uint64_t seed);

}  // namespace nine
