// Points and vectors of the plane and of space, in mm.
#pragma once

#include <Eigen/Core>
#include <Eigen/Geometry>
#include <vector>

#include "base/units.h"

namespace nine {

using Vec2 = Eigen::Vector2d;
using Vec3 = Eigen::Vector3d;
using Polyline2 = std::vector<Vec2>;

inline Figure cross(const Vec2& a, const Vec2& b) {
    return a.x() * b.y() - a.y() * b.x();
}

/// Two unit vectors that span the plane across `normal` (unit).
inline Eigen::Matrix<double, 3, 2> tangentBasis(const Vec3& normal) {
    const Vec3 helper = std::abs(normal.x()) < 0.7 ? Vec3::UnitX() : Vec3::UnitY();
    Eigen::Matrix<double, 3, 2> basis;
    basis.col(0) = normal.cross(helper).normalized();
    basis.col(1) = normal.cross(basis.col(0));
    return basis;
}

}  // namespace nine
