// Signed singular value decomposition of 2x2 deformation gradients and the isotropic energies of flattening.
// Internal to geom/.
#pragma once

#include <cmath>

#include "base/units.h"
#include "geom/sheet_mesh.h"

namespace nine {

using Mat2 = Eigen::Matrix2d;

/// F = U diag(s1, s2) V^T with rotations U, V; s1 >= |s2|; s2 < 0 where the map folds.
struct SignedSvd {
    Mat2 U, V;
    Ratio s1, s2;
};

inline SignedSvd signedSvd(const Mat2& F) {
    // Polar angles of the sum and difference parts give both rotations in closed form.
    const Ratio e = 0.5 * (F(0, 0) + F(1, 1)), f = 0.5 * (F(0, 0) - F(1, 1));
    const Ratio g = 0.5 * (F(1, 0) + F(0, 1)), h = 0.5 * (F(1, 0) - F(0, 1));
    const Ratio q = std::hypot(e, h), r = std::hypot(f, g);
    const Ratio a1 = r > 0 ? std::atan2(g, f) : 0.0, a2 = q > 0 ? std::atan2(h, e) : 0.0;
    const Ratio left = 0.5 * (a2 + a1), right = 0.5 * (a2 - a1);
    SignedSvd svd;
    svd.U << std::cos(left), -std::sin(left), std::sin(left), std::cos(left);
    svd.V << std::cos(right), std::sin(right), -std::sin(right), std::cos(right);
    svd.s1 = q + r;
    svd.s2 = q - r;
    return svd;
}

/// The rotation nearest to F, and its singular values, without the turns of the axes: no trigonometry.
struct NearestRotation {
    Mat2 R;
    Ratio s1, s2;
};

inline NearestRotation nearestRotation(const Mat2& F) {
    const Ratio e = 0.5 * (F(0, 0) + F(1, 1)), f = 0.5 * (F(0, 0) - F(1, 1));
    const Ratio g = 0.5 * (F(1, 0) + F(0, 1)), h = 0.5 * (F(1, 0) - F(0, 1));
    const Ratio q = std::sqrt(e * e + h * h), r = std::sqrt(f * f + g * g);
    const Ratio c = q > 0 ? e / q : 1, s = q > 0 ? h / q : 0;
    NearestRotation nearest;
    nearest.R << c, -s, s, c;
    nearest.s1 = q + r;
    nearest.s2 = q - r;
    return nearest;
}

inline Mat2 deformationGradient(const RestMesh& mesh, const std::vector<Vec2>& map, std::size_t t) {
    Mat2 F = Mat2::Zero();
    for (std::size_t i = 0; i < 3; ++i) {
        F +=
            map[static_cast<std::size_t>(mesh.triangles[t][i])] * mesh.shapes[t].shapeGradient[i].transpose();
    }
    return F;
}

/// Value and derivatives of an isotropic energy density by the logarithmic strains e1, e2.
struct LogEnergy {
    Ratio value, d1, d2, d11, d22, d12;
};

}  // namespace nine
