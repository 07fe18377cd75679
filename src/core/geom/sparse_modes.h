// The linear systems of flattening: 2 unknowns a vertex, quadratic forms given triangle by triangle as
// weighted squares of linear functions of the deformation gradient. The pattern is analysed once and shared
// by every solve on a mesh, since most of a Newton step's time is factorisation.
// Internal to geom/.
#pragma once

#include <Eigen/SparseCholesky>

#include "base/units.h"
#include "geom/sheet_mesh.h"

namespace nine {

class ModeSystem {
  public:
    explicit ModeSystem(const RestMesh& mesh);

    void clear();

    /// Adds weight * (E : F)^2 / 2 for triangle `t`, F the deformation gradient of the triangle.
    void addMode(std::size_t t, const Eigen::Matrix2d& E, Figure weight);

    /// Makes unknown `index` keep its value.
    void pin(int index);

    /// Solves H x = rhs; pinned entries of rhs are returned as they are. Empty if H is not positive definite.
    Eigen::VectorXd solve(Eigen::VectorXd rhs);

    /// H x with the pins not applied (call before pin).
    Eigen::VectorXd times(const Eigen::VectorXd& x) const;

    int unknowns() const { return 2 * mesh_.vertexCount; }

  private:
    using Matrix = Eigen::SparseMatrix<double>;

    const RestMesh& mesh_;
    Matrix lower_;  ///< lower triangle only
    /// Places in lower_.valuePtr() of the 2x2 block of each ordered pair of corners, row-major; -1 above.
    struct Slots {
        int place[3][3][4];
    };
    std::vector<Slots> slots_;
    Eigen::SimplicialLDLT<Matrix> factor_;
};

}  // namespace nine
