#include "scale/drape.h"

#include <Eigen/Eigenvalues>
#include <Eigen/LU>
#include <Eigen/SparseCholesky>
#include <algorithm>
#include <cmath>

namespace nine {
namespace {

using Mat2d = Eigen::Matrix2d;
using Vec4 = Eigen::Matrix<double, 4, 1>;
using Mat4 = Eigen::Matrix<double, 4, 4>;

constexpr double kLongestStep_mm = 6, kDone_mm = 0.005;
constexpr int kMostSteps = 200;

/// Energy of a triangle by where its edges lie on the net (columns of Phi, stacked), N mm.
struct TriangleEnergy {
    double energy = 0;
    Vec4 gradient;
    Mat4 hessian;

    /// False where the net would be turned inside out.
    bool find(const NetLaw& law, double pull_n_mm, const Mat2d& D, const Mat2d& phi, bool derivatives) {
        const double J = phi.determinant();
        if (J <= 1e-9) return false;
        const Mat2d inverse = phi.inverse();
        const Mat2d F = D * inverse;
        const NetLaw::State<2> state = law.at<2>(F * law.first(), F * law.second(), false);
        energy = 0.5 * J * (state.energy + pull_n_mm);
        if (!derivatives) return true;
        // dF for each of the four entries of Phi, and through it the lattice vectors.
        Mat2d B[4], dF[4];
        Vec4 dW, dJ, dq[4];
        for (int a = 0; a < 4; ++a) {
            Mat2d unit = Mat2d::Zero();
            unit(a % 2, a / 2) = 1;
            B[a] = unit * inverse;
            dF[a] = -F * B[a];
            dq[a] << dF[a] * law.first(), dF[a] * law.second();
            dW[a] = state.gradient.dot(dq[a]);
            dJ[a] = J * B[a].trace();
        }
        gradient = 0.5 * ((state.energy + pull_n_mm) * dJ + J * dW);
        for (int a = 0; a < 4; ++a) {
            for (int b = a; b < 4; ++b) {
                const double d2J = J * (B[a].trace() * B[b].trace() - (B[a] * B[b]).trace());
                const Mat2d second = F * (B[a] * B[b] + B[b] * B[a]);
                Vec4 d2q;
                d2q << second * law.first(), second * law.second();
                const double d2W = dq[a].dot(state.hessian * dq[b]) + state.gradient.dot(d2q);
                hessian(a, b) = hessian(b, a) =
                    0.5 * ((state.energy + pull_n_mm) * d2J + dJ[a] * dW[b] + dJ[b] * dW[a] + J * d2W);
            }
        }
        Eigen::SelfAdjointEigenSolver<Mat4> eigen(hessian);
        if (eigen.eigenvalues()[0] < 0)
            hessian = eigen.eigenvectors() * eigen.eigenvalues().cwiseMax(1e-9).asDiagonal() *
                      eigen.eigenvectors().transpose();
        return true;
    }
};

/// Newton's method on one grid. Unknowns are u, v of each point that are not held.
class Balance {
  public:
    Balance(const HalfGrid& grid, const DrapeWish& wish, std::vector<Vec2> start)
        : grid_(grid), law_(wish.net), pull_(wish.pull_n_m / 1000), at_(std::move(start)) {
        for (const Triangle& t : grid.triangles) D_.push_back(laidEdges(grid, t, false));
        // Held: across on the whole line, along at the hook.
        number_.assign(2 * grid.size(), -1);
        for (int r = 0; r < grid.rows; ++r)
            for (int c = 0; c < grid.columns; ++c) {
                const std::size_t i = static_cast<std::size_t>(grid.at(r, c));
                if (r + 1 < grid.rows) number_[2 * i] = unknowns_++;
                if (c > 0) number_[2 * i + 1] = unknowns_++;
            }
    }

    void begin(std::vector<Vec2> at) { at_ = std::move(at); }
    double energy(const std::vector<Vec2>& at) const {
        double sum = 0;
        TriangleEnergy e;
        for (std::size_t t = 0; t < D_.size(); ++t) {
            if (!e.find(law_, pull_, D_[t], phi(at, t), false))
                return std::numeric_limits<double>::infinity();
            sum += e.energy;
        }
        return sum;
    }

    /// One step; its length in mm.
    double step() {
        Eigen::VectorXd g = Eigen::VectorXd::Zero(unknowns_);
        std::vector<Eigen::Triplet<double>> entries;
        entries.reserve(D_.size() * 21);
        double before = 0;
        TriangleEnergy e;
        for (std::size_t t = 0; t < D_.size(); ++t) {
            if (!e.find(law_, pull_, D_[t], phi(at_, t), true))
                return kLongestStep_mm;  // cannot be: refused before
            before += e.energy;
            // Phi's columns are corners 1 and 2 less corner 0.
            const Triangle& corner = grid_.triangles[t];
            int index[6];
            for (int k = 0; k < 6; ++k)
                index[k] = number_[2 * static_cast<std::size_t>(corner[static_cast<std::size_t>(k / 2)]) +
                                   static_cast<std::size_t>(k % 2)];
            Eigen::Matrix<double, 4, 6> by;
            by.setZero();
            by.block<2, 2>(0, 0) = by.block<2, 2>(2, 0) = -Mat2d::Identity();
            by.block<2, 2>(0, 2) = by.block<2, 2>(2, 4) = Mat2d::Identity();
            const Eigen::Matrix<double, 6, 1> g6 = by.transpose() * e.gradient;
            const Eigen::Matrix<double, 6, 6> h6 = by.transpose() * e.hessian * by;
            for (int i = 0; i < 6; ++i) {
                if (index[i] < 0) continue;
                g[index[i]] += g6[i];
                for (int j = 0; j < 6; ++j)
                    if (index[j] >= 0 && index[j] <= index[i])
                        entries.emplace_back(index[i], index[j], h6(i, j));
            }
        }
        Eigen::SparseMatrix<double> H(unknowns_, unknowns_);
        H.setFromTriplets(entries.begin(), entries.end());
        const double ridge = 1e-9 * H.diagonal().maxCoeff();
        for (int i = 0; i < unknowns_; ++i) H.coeffRef(i, i) += ridge;
        if (!analysed_) {
            factor_.analyzePattern(H);
            analysed_ = true;
        }
        factor_.factorize(H);
        if (factor_.info() != Eigen::Success) return kLongestStep_mm;
        Eigen::VectorXd d = factor_.solve(-g);
        const double longest = d.cwiseAbs().maxCoeff();
        double share = std::min(1.0, kLongestStep_mm / std::max(longest, 1e-12));
        const double slope = g.dot(d);
        for (int half = 0; half < 30; ++half, share *= 0.5) {
            std::vector<Vec2> next = at_;
            for (std::size_t i = 0; i < number_.size(); ++i)
                if (number_[i] >= 0) next[i / 2][static_cast<Eigen::Index>(i % 2)] += share * d[number_[i]];
            const double after = energy(next);
            if (after <= before + 1e-4 * share * slope + 1e-13 * std::abs(before)) {
                at_ = std::move(next);
                return longest;
            }
        }
        return 0;  // nothing lower is left along it
    }

    const std::vector<Vec2>& at() const { return at_; }

  private:
    Mat2d phi(const std::vector<Vec2>& at, std::size_t t) const {
        const auto corner = [&](std::size_t k) {
            return at[static_cast<std::size_t>(grid_.triangles[t][k])];
        };
        Mat2d phi;
        phi << corner(1) - corner(0), corner(2) - corner(0);
        return phi;
    }

    const HalfGrid& grid_;
    NetLaw law_;
    double pull_;
    std::vector<Mat2d> D_;
    std::vector<int> number_;
    int unknowns_ = 0;
    std::vector<Vec2> at_;
    Eigen::SimplicialLDLT<Eigen::SparseMatrix<double>> factor_;
    bool analysed_ = false;
};

std::vector<Vec2> spreadEvenly(const HalfGrid& grid) {
    std::vector<Vec2> at;
    for (int r = 0; r < grid.rows; ++r) {
        double across = 0;
        for (int c = 0; c < grid.columns; ++c) {
            const auto i = static_cast<std::size_t>(grid.at(r, c));
            if (c) across += arcLength_mm(grid.points[i - 1], grid.points[i]);
            at.emplace_back(grid.along_mm[static_cast<std::size_t>(r)], across);
        }
    }
    return at;
}

std::vector<double> evenShares(const Skin& skin, const DrapeWish& wish, const std::vector<double>& rows,
                               double spacing_mm) {
    double widest = 0;
    for (const double x : rows) {
        const SectionArc arc = skin.arcAt(x);
        widest = std::max(widest, arc.backArc_mm() + arc.bellyArc_mm());
    }
    const int columns =
        std::clamp(static_cast<int>(std::ceil(widest * wish.reach.downTo / spacing_mm)) + 1, 5, 120);
    std::vector<double> shares;
    for (int c = 0; c < columns; ++c) shares.push_back(wish.reach.downTo * c / (columns - 1));
    return shares;
}

}  // namespace

Status checkDrape(const Skin& skin, const DrapeWish& wish, const std::string& path) {
    if (Status ok = checkNet(wish.net, path + ".net"); !ok) return ok;
    if (!(wish.pull_n_m >= kLeastPull_n_m && wish.pull_n_m <= kMostPull_n_m))
        return Error{
            "out_of_range",
            Words(NINE_WORDS("core", "A net is pulled with {low} to {high} newtons a metre of its border."))
                .number("low", kLeastPull_n_m, 0)
                .number("high", kMostPull_n_m, 0),
            path + ".pull_n_m"};
    const NetReach& reach = wish.reach;
    const double low = std::max(skin.noseX_mm(), reach.whole() ? skin.noseX_mm() : reach.fromX_mm),
                 high = std::min(skin.tailX_mm(), reach.whole() ? skin.tailX_mm() : reach.toX_mm);
    double widest = 0, girth = 0;
    for (int i = 1; i < 20; ++i) {
        const double x = skin.noseX_mm() + skin.length_mm() * i / 20;
        girth = std::max(girth, skin.arcAt(x).girth_mm());
        if (x > low && x < high) widest = std::max(widest, skin.arcAt(x).girth_mm());
    }
    const double cell = std::max(wish.net.along_mm, wish.net.across_mm);
    if (cell > 0.25 * girth)
        return Error{
            "net_too_coarse",
            Words(NINE_WORDS("core",
                             "A cell of {cell} is more than a quarter of the body's girth ({girth}); "
                             "choose a finer net."))
                .length("cell", cell)
                .length("girth", girth),
            path + ".net"};
    if (!(reach.downTo > 0 && reach.downTo <= 1) || !(high - low >= 2 * wish.net.along_mm) ||
        (reach.downTo < 1 && widest * reach.downTo < 2 * wish.net.across_mm))
        return Error{
            "empty_reach",
            NINE_WORDS("core",
                       "The piece of skin for the net is smaller than two of its cells; make it larger."),
            path + ".reach"};
    return Done{};
}

Result<DrapePtr> drape(const Skin& skin, const DrapeWish& wish, double spacing_mm, const Drape* start,
                       const Task& task) {
    auto result = std::make_shared<Drape>();
    result->wish = wish;
    result->spacing_mm = spacing_mm;
    const std::vector<double> rows = evenRows(skin, wish.gather, wish.reach, spacing_mm);
    result->grid = makeHalfGrid(skin, wish.gather, rows, evenShares(skin, wish, rows, spacing_mm));
    DrapePtr coarse;
    if (!start && spacing_mm < kDrapePreview_mm) {
        Result<DrapePtr> before =
            drape(skin, wish, std::max(kDrapePreview_mm, 2 * spacing_mm), nullptr, task);
        if (!before) return before;
        coarse = *before;
        start = coarse.get();
    }
    Balance balance(result->grid, wish,
                    start ? carried(start->grid, start->net_mm, result->grid) : spreadEvenly(result->grid));
    if (start && !std::isfinite(balance.energy(balance.at()))) balance.begin(spreadEvenly(result->grid));
    double longest = kLongestStep_mm;
    while (longest > kDone_mm && result->steps < kMostSteps) {
        if (task.cancelled()) return Task::cancelledError();
        longest = balance.step();
        ++result->steps;
    }
    result->lastStep_mm = longest;
    result->net_mm = balance.at();
    if (!result->settled())
        return Error{
            "not_settled",
            NINE_WORDS("core",
                       "The net does not come to rest on this body; try another pull or a finer net."),
            ""};
    return DrapePtr(std::move(result));
}

Result<std::vector<Vec2>> drapedOn(const HalfGrid& grid, const Drape& from, int steps, const Task& task) {
    Balance balance(grid, from.wish, carried(from.grid, from.net_mm, grid));
    if (!std::isfinite(balance.energy(balance.at())))
        return Error{"not_settled",
                     NINE_WORDS("core", "The net folds over at an end of the body; give it less reach."), ""};
    for (int i = 0; i < steps; ++i) {
        if (task.cancelled()) return Task::cancelledError();
        if (balance.step() < kDone_mm) break;
    }
    return balance.at();
}

Eigen::Matrix2d stretchOf(const Drape& drape, const Triangle& t) {
    const auto corner = [&](std::size_t k) { return drape.net_mm[static_cast<std::size_t>(t[k])]; };
    Mat2d phi;
    phi << corner(1) - corner(0), corner(2) - corner(0);
    const Mat2d edges = laidEdges(drape.grid, t, false);
    // Turned so that the first axis runs along the rows' step, whichever edge the triangle was laid by.
    const auto place = [&](std::size_t k) {
        return Vec2(t[k] / drape.grid.columns, t[k] % drape.grid.columns);
    };
    Mat2d steps;
    steps << place(1) - place(0), place(2) - place(0);
    const Vec2 along = (edges * steps.inverse()).col(0).normalized();
    Mat2d turn;
    turn << along.x(), along.y(), -along.y(), along.x();
    return turn * edges * phi.inverse();
}

}  // namespace nine
