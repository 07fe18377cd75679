// Slits as they lie on the flat sheet: how far they open, and what is lapped.
#pragma once

#include "mask/mask.h"

namespace nine {

constexpr double kLap_mm = 0.5;      ///< common practice, no published source
constexpr double kLapRoom_mm = 0.2;  ///< a wedge must be wider than the lap by this

/// Those that begin on the outer border.
std::vector<SlitOnSheet> slitsOn(const FlatPatch& flat, const std::vector<Slit>& slits);

/// The outline with its corners as they were where slits open: panels meet there, and a rounded corner would
/// leave bare skin between them.
Polygon2 sharpAtMouths(const Polygon2& rounded, const FlatPatch& flat, const std::vector<SlitOnSheet>& slits);

/// The outline with a lap beyond the first lip of each slit, as far as its wedge is wide enough.
Polygon2 lapped(Polygon2 outline, std::vector<SlitOnSheet>& slits);

/// Slits whose lips lie over each other on the flat.
void warnOfOverlap(const std::vector<SlitOnSheet>& slits, const std::string& where, Warnings& warnings);

}  // namespace nine
