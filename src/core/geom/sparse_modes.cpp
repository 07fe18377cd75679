#include "geom/sparse_modes.h"

namespace nine {

ModeSystem::ModeSystem(const RestMesh& mesh) : mesh_(mesh) {
    std::vector<Eigen::Triplet<double>> entries;
    entries.reserve(mesh.triangles.size() * 21);
    for (const Triangle& t : mesh.triangles) {
        for (const int a : t) {
            for (const int b : t) {
                for (int k = 0; k < 4; ++k) {
                    const int row = 2 * a + k / 2, column = 2 * b + k % 2;
                    if (row >= column) entries.emplace_back(row, column, 0.0);
                }
            }
        }
    }
    lower_.resize(unknowns(), unknowns());
    lower_.setFromTriplets(entries.begin(), entries.end());
    lower_.makeCompressed();

    const auto placeOf = [&](int row, int column) {
        const int* begin = lower_.innerIndexPtr() + lower_.outerIndexPtr()[column];
        const int* end = lower_.innerIndexPtr() + lower_.outerIndexPtr()[column + 1];
        return static_cast<int>(std::lower_bound(begin, end, row) - lower_.innerIndexPtr());
    };
    slots_.resize(mesh.triangles.size());
    for (std::size_t t = 0; t < mesh.triangles.size(); ++t) {
        for (std::size_t i = 0; i < 3; ++i) {
            for (std::size_t j = 0; j < 3; ++j) {
                for (int k = 0; k < 4; ++k) {
                    const int row = 2 * mesh.triangles[t][i] + k / 2;
                    const int column = 2 * mesh.triangles[t][j] + k % 2;
                    slots_[t].place[i][j][k] = row >= column ? placeOf(row, column) : -1;
                }
            }
        }
    }
    factor_.analyzePattern(lower_);
}

void ModeSystem::clear() {
    std::fill_n(lower_.valuePtr(), lower_.nonZeros(), 0.0);
}

void ModeSystem::addMode(std::size_t t, const Eigen::Matrix2d& E, double weight) {
    std::array<Vec2, 3> pull;
    for (std::size_t i = 0; i < 3; ++i) pull[i] = E * mesh_.shapes[t].shapeGradient[i];
    double* values = lower_.valuePtr();
    for (std::size_t i = 0; i < 3; ++i) {
        for (std::size_t j = 0; j < 3; ++j) {
            const int* place = slots_[t].place[i][j];
            for (int k = 0; k < 4; ++k) {
                if (place[k] >= 0) values[place[k]] += weight * pull[i][k / 2] * pull[j][k % 2];
            }
        }
    }
}

void ModeSystem::pin(int index) {
    for (int column = 0; column <= index; ++column) {
        if (column == index) {
            for (int p = lower_.outerIndexPtr()[column]; p < lower_.outerIndexPtr()[column + 1]; ++p) {
                lower_.valuePtr()[p] = lower_.innerIndexPtr()[p] == index ? 1.0 : 0.0;
            }
        } else {
            const int* begin = lower_.innerIndexPtr() + lower_.outerIndexPtr()[column];
            const int* end = lower_.innerIndexPtr() + lower_.outerIndexPtr()[column + 1];
            const int* found = std::lower_bound(begin, end, index);
            if (found != end && *found == index) lower_.valuePtr()[found - lower_.innerIndexPtr()] = 0.0;
        }
    }
}

Eigen::VectorXd ModeSystem::solve(Eigen::VectorXd rhs) {
    factor_.factorize(lower_);
    if (factor_.info() != Eigen::Success) return {};
    return factor_.solve(rhs);
}

Eigen::VectorXd ModeSystem::times(const Eigen::VectorXd& x) const {
    return lower_.selfadjointView<Eigen::Lower>() * x;
}

}  // namespace nine
