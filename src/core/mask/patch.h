// The piece of skin a sheet covers, meshed for flattening.
//
// Everything is meshed on the left side of the body; a right-hand sheet is the mirror image of its left twin.
// A band without holes and slits is meshed in rows (evenly spaced along the longest meridian inside it,
// points of a row by arc length); any other region by triangles of the same size in the same chart (length
// along that meridian, g). Both say alike whether a sheet lies: the least reachable strain differs by 0.2 to
// 2.6 % on the blanks of the demo at 2000 vertices (tests/twins). The rows stay because they take a third of
// the time and because the figures of masks that painters have kept stay what they were.
#pragma once

#include "geom/carry.h"
#include "geom/flatten.h"
#include "geom/places.h"
#include "geom/sheet_mesh.h"
#include "mask/region.h"

namespace nine {

constexpr int kMinPatchVertices = 60, kMaxPatchVertices = 200000;
/// Rims of windows are chords in the mesh: art on them lies beyond it by less than this.
constexpr double kRimSlack_mm = 0.05;

struct PatchMesh {
    SheetMesh mesh;
    std::vector<Vec2> skin;   ///< x, g of each vertex, mm; the two lips of a slit are two vertices
    std::vector<Vec2> chart;  ///< length along and across of each vertex, mm of skin
    std::vector<std::vector<int>> loops;  ///< borders, the outer one first (borderLoops)
    std::vector<std::vector<int>> rims;   ///< borders round windows, where they are cut out of the mesh
    /// x, g of the places that hold the sheet, from the nose end to the tail end; the ends of the mid-line
    /// unless others are put here before flattening.
    std::vector<SkinPlace> marks;
    double across_mm, along_mm;            ///< on the skin
    double turnAcross_rad, turnAlong_rad;  ///< mean turn of the skin across and along it
    bool open = false;                     ///< has holes or slits
    Warnings warnings;

    Vec2 low() const { return boxAround({skin}).low; }  ///< of the box around it in x, g
    Vec2 high() const { return boxAround({skin}).high; }
    FlatPairs pairedWith(const FlatMap& map) const { return {map, mesh.vertices}; }
};

/// About `vertices` vertices. Errors: those of checkRegion, over_pole; `where` names the given place.
Result<PatchMesh> meshPatch(const Skin& skin, const Region& region, int vertices, const std::string& where);
Result<PatchMesh> meshPatch(const Skin& skin, const BandPatch& band, int vertices, const std::string& where);
Result<PatchMesh> meshPatch(const Skin& skin, const DiscPatch& disc, int vertices, const std::string& where);

/// A region meshed by triangles, also where rows would do. `places` are vertices of the mesh.
Result<PatchMesh> meshInTriangles(const Skin& skin, const Region& region, int vertices,
                                  const std::string& where, const std::vector<SkinPlace>& places = {});

}  // namespace nine
