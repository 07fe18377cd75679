// Bridges: narrow strips of sheet left standing in an opening, so that a piece of sheet inside it (the core
// of a ring, the inside of a letter) does not fall out when it is cut.
//
// Each island gets two bridges, three when it is long, where the opening is narrowest (they cost the least
// art) and well round it from one another; or those that the painter put there. Painted, they are short gaps,
// to be touched up with a brush.
#pragma once

#include "mask/mask_spec.h"

namespace nine {

/// How wide a bridge must be not to tear, mm (common practice, no published source).
double bridgeWidth_mm(std::string_view material);

/// Islands smaller than this are not held: they are as well painted over.
constexpr double kLeastIsland_mm2 = 1;

struct BridgedSheet {
    SheetPlan plan;       ///< opens other art where islands were
    double lost_mm2 = 0;  ///< of art
};
/// Cost: 1 ms a hundred places of the islands' rims. Art without islands stays the same object, and so does
/// all of it when islands are wanted loose.
BridgedSheet bridged(const Skin& skin, SheetPlan plan, const BridgeWish& wish, double width_mm);

}  // namespace nine
