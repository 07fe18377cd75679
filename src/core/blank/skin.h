// The skin of a blank: the exact surface that art lies on, and the coordinates of points on it.
//
// A SkinPoint is a side, x along the axis from the nose, and g, the arc length along the girth of the
// section at x: 0 on the datum line (z = 0), positive towards the back. g beyond the back or belly line goes
// on over the other side. Left and right are the fish's own. A blank is the same on both sides.
// End faces of an open end are not skin.
#pragma once

#include <memory>
#include <string>

#include "base/units.h"
#include "blank/loft.h"
#include "blank/section_arc.h"
#include "geom/surface.h"

namespace nine {

enum class Side { Left, Right };
inline char sideLetter(Side side) {
    return side == Side::Left ? 'L' : 'R';
}
inline Side otherSide(Side side) {
    return side == Side::Left ? Side::Right : Side::Left;
}

struct SkinPoint {
    Side side = Side::Left;
    double x_mm = 0;
    double g_mm = 0;
};

class Skin final : public Surface {
  public:
    /// Errors of checkStations and Loft, places as fields of `blank.stations`.
    static Result<Skin> of(const StationTable& table);

    const Loft& loft() const { return loft_; }
    double noseX_mm() const { return loft_.noseX_mm(); }
    double tailX_mm() const { return loft_.tailX_mm(); }
    double length_mm() const { return tailX_mm() - noseX_mm(); }

    SectionArc arcAt(double x_mm) const { return SectionArc(loft_.sectionAt(x_mm)); }

    /// Whether the point is on the skin: x within the body, and g going over the back no farther than to the
    /// belly line, or under the belly to the back line.
    /// Errors: off_body, with `where` as given.
    Status check(const SkinPoint& point, const std::string& where) const;

    /// The point, which must pass check().
    SurfacePoint at(const SkinPoint& point) const;
    /// The same with the section's arc already at hand (many points at one x).
    SurfacePoint at(const SectionArc& arc, double x_mm, double g_mm, Side side) const;

    /// Skin coordinates of a point of the surface; on the back and belly lines the side is left.
    SkinPoint locate(const Vec3& position) const;

    /// The same as a point of the left side, with g counted over the back or belly line onto the right,
    /// whichever of the two ways is nearer to `g_mm`.
    SkinPoint locateNear(const Vec3& position, double g_mm) const;

    /// The point of the left side that is seen from the side at x and the height z over the axis; x and z
    /// beyond the outline stop at it.
    SkinPoint onFlank(double x_mm, double z_mm) const;

    Figure level(const Vec3& p, Vec3& gradient) const override;

  private:
    explicit Skin(Loft loft) : loft_(std::move(loft)) {}
    SurfacePoint withNormal(const Vec3& position) const;

    Loft loft_;
};

}  // namespace nine
