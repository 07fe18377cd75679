#include "geom/laid_triangle.h"

#include <algorithm>
#include <cmath>

#include "geom/flatten.h"

namespace nine {
namespace {

/// A tangent basis may be of either hand.
Mat2 nearestIsometry(Mat2 turn) {
    const bool flipped = turn.determinant() < 0;
    if (flipped) turn.col(1) = -turn.col(1);
    turn = nearestRotation(turn).R;
    if (flipped) turn.col(1) = -turn.col(1);
    return turn;
}

}  // namespace

LaidTriangle laidTriangle(const std::array<const SurfacePoint*, 3>& corners) {
    const auto& [a, b, c] = corners;
    const double ab = arcLength_mm(*a, *b), bc = arcLength_mm(*b, *c), ca = arcLength_mm(*c, *a);
    const double x = (ab * ab + ca * ca - bc * bc) / (2 * ab);
    LaidTriangle laid;
    laid.edges << ab, x, 0, std::sqrt(std::max(0.0, ca * ca - x * x));
    const Vec3 first = (b->position - a->position).normalized();
    const Vec3 normal = first.cross(c->position - a->position).normalized();
    Eigen::Matrix<double, 2, 3> plane;
    plane << first.transpose(), normal.cross(first).transpose();
    // The skin is inclined to the plane at the corners: as if it were unrolled, moves keep their length.
    for (std::size_t k = 0; k < 3; ++k)
        laid.turns[k] = nearestIsometry(plane * tangentBasis(corners[k]->normal));
    return laid;
}

std::optional<Mat2> edgeForces(const Mat2& laid, const Mat2& inverse, double flat_mm2) {
    const SignedSvd svd = signedSvd(laid * inverse);
    if (!(svd.s2 > 0)) return std::nullopt;
    constexpr Ratio nu = kSheetPoissonRatio;
    const Ratio e1 = std::log(svd.s1), e2 = std::log(svd.s2);
    const Ratio p1 = (e1 + nu * e2) / svd.s1, p2 = (e2 + nu * e1) / svd.s2;
    const Mat2 piola =
        p1 * svd.U.col(0) * svd.V.col(0).transpose() + p2 * svd.U.col(1) * svd.V.col(1).transpose();
    // Gradients of the shape functions on the flat triangle are the rows of the inverse, and minus their sum.
    return flat_mm2 * piola * inverse.transpose();
}

}  // namespace nine
