// The sheet as it is really cut: with its windows as holes, meshed so that ribbons between them are more than
// one triangle wide, and the flat map that lays their rims where they were drawn.
//
// Rims of windows are thinned to within kRimSag_mm of the art, corners kept, and divided finer where another
// rim or the border is near. Cost: 0.2 s for 2000 vertices and five windows, of which the balance is 0.14.
#pragma once

#include "mask/fit.h"
#include "pattern/art.h"

namespace nine {

constexpr double kRimSag_mm = 0.01;
constexpr std::size_t kMostRimPlaces = 3000;

/// The region with the openings of art as holes, besides its own. Sheet that stands free inside an opening is
/// gone with it. An opening that reaches the edge is a notch in it. Nothing when there are no openings, or
/// they leave no sheet in one piece.
std::optional<Region> perforated(const Region& region, const std::vector<const ElementArt*>& opens);

/// A strip of sheet between two windows, or between one and the border.
struct Ribbon {
    double length_mm, width_mm;  ///< as far as its width stays below twice its least
    SkinPlace at;                ///< where it is narrowest
    Ratio slenderness() const { return length_mm / width_mm; }
};
/// Up to this a ribbon stays where it is laid; a side force of 0.1 N moves its middle by 0.03 mm (tape; a
/// clamped beam, F l^3 / (16 E t b^3)).
constexpr Ratio kPlainRibbon = 12;
/// Up to this a carrier film or a bridge helps.
constexpr Ratio kHeldRibbon = 25;
/// The most slender one beside a hole of the region, numbered from `first`. Nothing where none is
/// narrower than 1.2 mm.
std::optional<Ribbon> mostSlender(const Region& region, std::size_t first = 0);

/// The sheet of `whole`, flattened before anything was cut out, with these openings. Its map is balanced; if
/// no balanced map was found (ribbons too slender) it is that of the whole sheet, and `balanced` says so.
struct PerforatedPatch {
    FlatPatch flat;
    bool balanced;
};
/// With more places on rims than `mostRimPlaces` (some 200 windows; meshes grow to tens of thousands of
/// vertices there, and webs turn over while they are balanced) the sheet between the windows is one softer
/// sheet, FlatPatch::openings: see SolidShare.
/// Errors: those of meshPatch; cancelled.
Result<PerforatedPatch> perforatedPatch(const Skin& skin, std::shared_ptr<const FlatPatch> whole,
                                        const Region& cut, int vertices, const std::string& where,
                                        const Task& task = {}, std::size_t mostRimPlaces = kMostRimPlaces);

/// Where a place of the skin lies on the flat sheet: on its sheet, a hair beyond a rim, or, where a window is
/// open, as far from the nearest place of a rim as on the whole sheet. Cost: as SheetMap; to make, as two.
class CutPlaces {
  public:
    explicit CutPlaces(const FlatPatch& flat);
    std::optional<SheetPlace> at(const SkinPlace& where, const SurfacePoint& place) const;

  private:
    SheetMap cut_;
    std::optional<SheetMap> whole_;
    std::vector<std::pair<Vec2, Vec2>> rims_;  ///< x, g, and how far it is moved from the whole sheet's place
};

}  // namespace nine
