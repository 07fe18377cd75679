// A piece of skin that a sheet covers, in (x, g): its outline, holes where no sheet is, and slits. g goes on
// over back and belly, so that a region may hold skin of both sides. Lengths in mm.
#pragma once

#include <optional>

#include "base/units.h"
#include "blank/skin.h"
#include "geom/polygon_set.h"

namespace nine {

/// A cut into the sheet with no width. Its first point lies on a border, or it lies inside altogether.
struct Slit {
    Polyline2 line;
    bool locked = false;  ///< the painter's own: planning leaves it where it is

    bool operator==(const Slit&) const = default;
};

struct Region {
    Polygon2 outer;    ///< counter-clockwise
    PolygonSet holes;  ///< clockwise
    std::vector<Slit> slits;
};

/// From x0 to x1 along the axis and from g0 to g1 along the girth of every section.
struct BandPatch {
    double x0_mm, x1_mm, g0_mm, g1_mm;
};
/// Everything within a distance along the skin of its centre.
struct DiscPatch {
    double x_mm, g_mm, radius_mm;
};

/// A sheet cannot lie on a pole: a patch must keep at least this share of the body's length away from a
/// closed end, and up to the second share a warning is given (tried: 4-8 % is where strain runs
/// away).
constexpr Fraction kPoleForbidden = 0.005, kPoleDoubtful = 0.04;

/// Whether two pieces of straight line cross, not only touch.
bool linesCross(const Vec2& a, const Vec2& b, const Vec2& c, const Vec2& d);

Region bandRegion(const BandPatch& band);
/// The band that the region is, if its four corners are all there is of it.
std::optional<BandPatch> bandOf(const Region& region);

/// Errors: empty_patch, off_body (with what covers itself), bad_region: what crosses itself, a hole that is
/// not inside, slits that cross each other or a hole or leave the sheet.
Status checkRegion(const Skin& skin, const Region& region, const std::string& where);

/// The box round some art (low and high corner, x, g) and a margin of skin, kept off the tips of the body and
/// from meeting itself on the far side; then a warning margin_cut.
BandPatch bandAround(const Skin& skin, const Vec2& low, const Vec2& high, double margin_mm,
                     const std::string& where, Warnings& warnings);

/// For art that follows the body (fields, what lies over the back): one piece that keeps a margin round all
/// of it, as far as the body lets it, narrower where the body is. Distances in x, g. Errors: off_body when
/// the art leaves no room for a sheet, or would need more than one.
Result<Region> regionAround(const Skin& skin, const PolygonSet& art, double margin_mm,
                            const std::string& where, Warnings& warnings);

/// Whether a box of the skin can be one sheet all along.
bool fitsRound(const Skin& skin, const BandPatch& band);

}  // namespace nine
