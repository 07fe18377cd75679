// The map between a plane in the world and its picture: perspective, and the barrel of a simple lens.
//
// Points of the plane are mm, of the picture pixels. Four pairs determine a homography, more are met in the
// least-squares sense by the normalised direct linear transformation. Source: Hartley and Zisserman,
// Multiple View Geometry, 2nd ed., algorithm 4.2.
#pragma once

#include <Eigen/Core>
#include <vector>

#include "base/result.h"
#include "base/units.h"
#include "geom/vec.h"

namespace nine {

struct PointPair {
    Vec2 from, to;
};

class Homography {
  public:
    Homography() : matrix_(Eigen::Matrix3d::Identity()) {}
    explicit Homography(const Eigen::Matrix3d& matrix) : matrix_(matrix) {}
    /// Errors: bad_points with fewer than four pairs or with pairs in one line.
    static Result<Homography> through(const std::vector<PointPair>& pairs);

    Vec2 operator()(const Vec2& p) const { return (matrix_ * p.homogeneous()).hnormalized(); }
    Homography inverse() const { return Homography(matrix_.inverse()); }
    const Eigen::Matrix3d& matrix() const { return matrix_; }
    /// Area of the image of a small piece at p over the area of the piece; negative if it is mirrored.
    Ratio areaRatio(const Vec2& p) const;

  private:
    Eigen::Matrix3d matrix_;
};

/// A radial lens: a point at r (in units of `scale_px`) from `centre_px` is moved out to r (1 + k r^2).
struct Lens {
    Vec2 centre_px = Vec2::Zero();
    double scale_px = 1;
    Ratio k = 0;
    Vec2 bent(const Vec2& straight) const;
    Vec2 straightened(const Vec2& bent) const;
};

/// A plane seen through a lens: mm to pixels.
struct PlaneView {
    Homography flat;
    Lens lens;
    Vec2 pixelOf(const Vec2& mm) const { return lens.bent(flat(mm)); }
    Vec2 mmOf(const Vec2& pixel) const { return flat.inverse()(lens.straightened(pixel)); }
    double pixelsPerMm(const Vec2& mm) const;
};

/// The view that maps `from` (mm) to `to` (pixels) best; the lens is fitted only with six pairs or more and
/// only where it explains the misses (F test at 20). `size_px` is that of the picture.
Result<PlaneView> viewThrough(const std::vector<PointPair>& pairs, const Vec2& size_px);
/// Root mean square of the misses on the plane, mm.
double missOf_mm(const PlaneView& view, const std::vector<PointPair>& pairs);

}  // namespace nine
