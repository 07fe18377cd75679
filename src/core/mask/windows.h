// The openings of a sheet: art carried onto the flat, what touches joined, what stands free inside told.
#pragma once

#include "mask/mask.h"
#include "mask/perforate.h"

namespace nine {

/// The art's outlines on the sheet and on the skin, ring for ring.
struct FlatArt {
    PolygonSet outlines, skin;
    std::vector<const std::string*> owners;  ///< ids of elements
};
/// Errors: off_sheet.
Result<FlatArt> laidFlat(const std::vector<const ElementArt*>& art, const CutPlaces& sheet,
                         const std::string& where);

/// Outlines that touch become one window. Not numbered.
std::vector<Window> cutWindows(FlatArt art);

/// Numbers the windows of all sheets: sheet by sheet, from the nose to the tail, of those behind one another
/// the upper first.
void numberWindows(std::vector<Sheet>& sheets);

/// Between windows, and to the edge of the sheet. Cost: windows times corners of the outline.
void warnOfThinWebs(const std::vector<Window>& windows, const Polygon2& outline, const std::string& where,
                    Warnings& warnings);
/// Pieces of sheet that stand free: too small for bridges, or loose because the painter wants them so.
void warnOfIslands(const std::vector<Window>& windows, bool loose, const std::string& where,
                   Warnings& warnings);

}  // namespace nine
