// The piece of skin a mask covers, meshed for flattening.
//
// A band patch reaches from x0 to x1 along the axis and from g0 to g1 along the girth of every section; it
// may cross the back or belly line. A disc patch is everything within a distance along the skin of its
// centre. Both are meshed on the left side of the body; a right-hand mask is the mirror image of its left
// twin. Rows of a band are evenly spaced along the longest meridian inside it, points of a row by arc length.
#pragma once

#include "blank/skin.h"
#include "geom/carry.h"
#include "geom/flatten.h"
#include "geom/sheet_mesh.h"

namespace nine {

struct BandPatch {
    double x0_mm, x1_mm, g0_mm, g1_mm;
};
struct DiscPatch {
    double x_mm, g_mm, radius_mm;
};

constexpr int kMinPatchVertices = 60, kMaxPatchVertices = 200000;
/// A sheet cannot lie on a pole: a patch must keep at least this share of the body's length away from a
/// closed end, and up to the second share a warning is given (tried: 4-8 % is where strain runs
/// away).
constexpr double kPoleForbidden = 0.005, kPoleDoubtful = 0.04;

struct PatchMesh {
    SheetMesh mesh;
    std::vector<Vec2> skin;                ///< x, g of each vertex, mm
    Vec2 markA, markB;                     ///< x, g of the two ends of the mid-line, nose end first
    Vec2 low, high;                        ///< box around it in x, g
    double width_mm, length_mm;            ///< across and along, on the skin
    double turnAcross_rad, turnAlong_rad;  ///< mean turn of the skin across and along it
    Warnings warnings;

    FlatPairs pairedWith(const FlatMap& map) const { return {map, mesh.vertices}; }
};

/// About `vertices` vertices. Errors: empty_patch, off_body, over_pole; `where` names the given place.
Result<PatchMesh> meshPatch(const Skin& skin, const BandPatch& patch, int vertices, const std::string& where);
Result<PatchMesh> meshPatch(const Skin& skin, const DiscPatch& patch, int vertices, const std::string& where);

}  // namespace nine
