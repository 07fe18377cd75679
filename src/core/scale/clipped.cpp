#include "scale/clipped.h"

#include <Eigen/LU>
#include <Eigen/SparseCholesky>
#include <algorithm>
#include <cmath>

#include "base/parallel.h"

namespace nine {
namespace {

using Mat2d = Eigen::Matrix2d;

constexpr double kRows_mm = 1, kAtBorder_mm = 0.8, kAtWhole_mm = 5;
constexpr Figure kContact_n_mm3 = 2;
constexpr double kLongestMove_mm = 3, kAtRest_mm = 0.02, kSettled_mm = 0.03;
constexpr int kMostMoves = 100;
/// Slack net is all but a mechanism. After so many steps each point is held back by a spring that grows; at
/// rest no point is then pushed by more than the last spring times the last step, 1e-5 N, half of what lifts
/// it.
constexpr int kFreely = 20;
constexpr Figure kLeastRidge_n_mm = 1e-7, kMostRidge_n_mm = 1e-3;
/// Knots that do not resist being pushed together: as good as nothing.
constexpr Fraction kSoftKnots = 0.02;

/// The nearest row moved onto each clip's ends, which stay in order.
std::vector<double> rowsFor(const Skin& skin, const Drape& drape, const ClipWish& wish) {
    std::vector<double> rows = evenRows(skin, drape.wish.gather, drape.wish.reach, kRows_mm);
    for (const Clip& clip : wish.clips)
        for (const double end : {clip.x_mm - wish.clip_mm / 2, clip.x_mm + wish.clip_mm / 2}) {
            std::size_t best = 0;
            for (std::size_t i = 1; i + 1 < rows.size(); ++i)
                if (!best || std::abs(rows[i] - end) < std::abs(rows[best] - end)) best = i;
            if (end > rows[best - 1] + 1e-3 && end < rows[best + 1] - 1e-3) rows[best] = end;
        }
    return rows;
}

/// Close together at the gathered border, wide at the whole line.
std::vector<double> gradedShares(double half_mm) {
    std::vector<double> from{0};
    for (double step = kAtBorder_mm; from.back() + step < half_mm;) {
        from.push_back(from.back() + step);
        step = std::min(step * 1.22, kAtWhole_mm);
    }
    std::vector<double> shares;
    for (auto s = from.rbegin(); s != from.rend(); ++s) shares.push_back(1 - *s / from.back() * 1.0);
    return shares;
}

struct Membrane {
    const Skin& skin;
    const HalfGrid& grid;
    const std::vector<double>& depth_mm;
    NetLaw law;
    double lift_n_mm2;
    std::vector<Eigen::Matrix<double, 3, 2>> by;  ///< of each triangle: shares of its corners in A1, A2
    std::vector<double> netArea_mm2, area_mm2;    ///< of triangles; of points on the skin
    std::vector<int> number;                      ///< of each unknown; -1 held
    int unknowns = 0;

    Membrane(const Skin& s, const HalfGrid& g, const std::vector<Vec2>& net, const std::vector<double>& depth,
             const NetLaw& l, double lift, const std::vector<bool>& held)
        : skin(s), grid(g), depth_mm(depth), law(l), lift_n_mm2(lift), area_mm2(g.size(), 0) {
        Mat2d lattice;
        lattice << law.first(), law.second();
        for (const Triangle& t : grid.triangles) {
            const auto corner = [&](std::size_t k) { return net[static_cast<std::size_t>(t[k])]; };
            Mat2d phi;
            phi << corner(1) - corner(0), corner(2) - corner(0);
            const Mat2d arc = laidEdges(grid, t, false), chord = laidEdges(grid, t, true);
            // F = [edges] chord^-1 arc phi^-1: at the start, on the skin, just as the pulled net lay.
            const Mat2d m = chord.inverse() * arc * phi.inverse() * lattice;
            Eigen::Matrix<double, 3, 2> shares;
            shares.row(0) = -m.row(0) - m.row(1);
            shares.row(1) = m.row(0);
            shares.row(2) = m.row(1);
            by.push_back(shares);
            netArea_mm2.push_back(0.5 * phi.determinant());
            for (const int v : t) area_mm2[static_cast<std::size_t>(v)] += arc.determinant() / 6;
        }
        number.assign(3 * grid.size(), -1);
        for (int r = 0; r < grid.rows; ++r)
            for (int c = 0; c < grid.columns; ++c) {
                const auto i = static_cast<std::size_t>(grid.at(r, c));
                if (held[i]) continue;
                for (std::size_t k = 0; k < 3; ++k)
                    if (!(k == 1 && c == 0))
                        number[3 * i + k] = unknowns++;  // the whole line stays in the middle
            }
    }

    /// Distance outside the skin (floor of a carving), first order; `normal` its gradient.
    double distance(std::size_t i, const Vec3& p, Vec3& normal) const {
        Vec3 gradient;
        const double level = skin.level(p, gradient);
        const double slope = std::max(gradient.norm(), 1e-12);
        normal = gradient / slope;
        return level / slope + depth_mm[i];
    }

    double energy(const std::vector<Vec3>& at) const {
        double sum = 0;
        for (std::size_t t = 0; t < by.size(); ++t) {
            const auto [q1, q2] = lattice(at, t);
            sum += netArea_mm2[t] * law.at<3>(q1, q2, true).energy;
        }
        Vec3 normal;
        for (std::size_t i = 0; i < at.size(); ++i) {
            const double d = distance(i, at[i], normal);
            if (d < 0) sum += 0.5 * kContact_n_mm3 * area_mm2[i] * d * d;
            if (at[i].y() < 0) sum += 0.5 * kContact_n_mm3 * area_mm2[i] * at[i].y() * at[i].y();
            sum -= lift_n_mm2 * area_mm2[i] * grid.points[i].normal.dot(at[i]);
        }
        return sum;
    }

    std::pair<Vec3, Vec3> lattice(const std::vector<Vec3>& at, std::size_t t) const {
        Vec3 q1 = Vec3::Zero(), q2 = Vec3::Zero();
        for (Eigen::Index k = 0; k < 3; ++k) {
            const Vec3& p = at[static_cast<std::size_t>(grid.triangles[t][static_cast<std::size_t>(k)])];
            q1 += by[t](k, 0) * p;
            q2 += by[t](k, 1) * p;
        }
        return {q1, q2};
    }

    /// One step of Newton's method; its length in mm.
    double step(std::vector<Vec3>& at, double ridge_n_mm,
                Eigen::SimplicialLDLT<Eigen::SparseMatrix<double>>& factor, bool& analysed) {
        // In one piece: one pass over triangles and points fills the one system that is then solved.
        Eigen::VectorXd g = Eigen::VectorXd::Zero(unknowns);
        std::vector<Eigen::Triplet<double>> entries;
        entries.reserve(by.size() * 45);
        double before = 0;
        for (std::size_t t = 0; t < by.size(); ++t) {
            const auto [q1, q2] = lattice(at, t);
            const NetLaw::State<3> s = law.at<3>(q1, q2, true);
            before += netArea_mm2[t] * s.energy;
            for (Eigen::Index a = 0; a < 3; ++a) {
                const auto va = static_cast<std::size_t>(grid.triangles[t][static_cast<std::size_t>(a)]);
                const Vec3 force = netArea_mm2[t] *
                                   (by[t](a, 0) * s.gradient.head<3>() + by[t](a, 1) * s.gradient.tail<3>());
                for (std::size_t i = 0; i < 3; ++i)
                    if (number[3 * va + i] >= 0) g[number[3 * va + i]] += force[static_cast<Eigen::Index>(i)];
                for (Eigen::Index b = 0; b < 3; ++b) {
                    const auto vb = static_cast<std::size_t>(grid.triangles[t][static_cast<std::size_t>(b)]);
                    const Eigen::Matrix3d block =
                        netArea_mm2[t] * (by[t](a, 0) * by[t](b, 0) * s.hessian.topLeftCorner<3, 3>() +
                                          by[t](a, 0) * by[t](b, 1) * s.hessian.topRightCorner<3, 3>() +
                                          by[t](a, 1) * by[t](b, 0) * s.hessian.bottomLeftCorner<3, 3>() +
                                          by[t](a, 1) * by[t](b, 1) * s.hessian.bottomRightCorner<3, 3>());
                    for (std::size_t i = 0; i < 3; ++i)
                        for (std::size_t j = 0; j < 3; ++j) {
                            const int row = number[3 * va + i], column = number[3 * vb + j];
                            if (row >= 0 && column >= 0 && column <= row)
                                entries.emplace_back(
                                    row, column,
                                    block(static_cast<Eigen::Index>(i), static_cast<Eigen::Index>(j)));
                        }
                }
            }
        }
        Vec3 normal;
        for (std::size_t i = 0; i < at.size(); ++i) {
            const double d = distance(i, at[i], normal);
            Vec3 force = -lift_n_mm2 * area_mm2[i] * grid.points[i].normal;
            Eigen::Matrix3d block = ridge_n_mm * Eigen::Matrix3d::Identity();
            before -= lift_n_mm2 * area_mm2[i] * grid.points[i].normal.dot(at[i]);
            const double k = kContact_n_mm3 * area_mm2[i];
            if (d < 0) {
                before += 0.5 * k * d * d;
                force += k * d * normal;
                block += k * normal * normal.transpose();
            }
            if (at[i].y() < 0) {
                before += 0.5 * k * at[i].y() * at[i].y();
                force.y() += k * at[i].y();
                block(1, 1) += k;
            }
            for (std::size_t a = 0; a < 3; ++a) {
                const int row = number[3 * i + a];
                if (row < 0) continue;
                g[row] += force[static_cast<Eigen::Index>(a)];
                for (std::size_t b = 0; b < 3; ++b)
                    if (number[3 * i + b] >= 0 && number[3 * i + b] <= row)
                        entries.emplace_back(
                            row, number[3 * i + b],
                            block(static_cast<Eigen::Index>(a), static_cast<Eigen::Index>(b)));
            }
        }
        Eigen::SparseMatrix<double> H(unknowns, unknowns);
        H.setFromTriplets(entries.begin(), entries.end());
        if (!analysed) factor.analyzePattern(H);
        analysed = true;
        factor.factorize(H);
        if (factor.info() != Eigen::Success) return kLongestMove_mm;
        const Eigen::VectorXd d = factor.solve(-g);
        const double longest = d.cwiseAbs().maxCoeff(), slope = g.dot(d);
        double share = std::min(1.0, kLongestMove_mm / std::max(longest, 1e-12));
        for (int half = 0; half < 30; ++half, share *= 0.5) {
            std::vector<Vec3> next = at;
            for (std::size_t i = 0; i < number.size(); ++i)
                if (number[i] >= 0) next[i / 3][static_cast<Eigen::Index>(i % 3)] += share * d[number[i]];
            if (energy(next) <= before + 1e-4 * share * slope + 1e-13 * std::abs(before)) {
                at = std::move(next);
                return longest;
            }
        }
        return 0;
    }
};

struct Laid {
    std::vector<Vec3> at;
    double lastStep_mm = 0;
};

Laid letGo(Membrane membrane, std::vector<Vec3> at, const Task& task) {
    Eigen::SimplicialLDLT<Eigen::SparseMatrix<double>> factor;
    bool analysed = false;
    double longest = kLongestMove_mm;
    for (int i = 0; i < kMostMoves && longest > kAtRest_mm && !task.cancelled(); ++i)
        longest = membrane.step(
            at, std::min(kLeastRidge_n_mm * std::pow(2, std::max(0, i - kFreely)), kMostRidge_n_mm), factor,
            analysed);
    return {std::move(at), longest};
}

void readOff(const ClipWish& wish, ClippedNet& net) {
    std::vector<double> ends{-1e9};
    for (const Clip& clip : wish.clips) ends.push_back(clip.x_mm);
    ends.push_back(1e9);
    net.between.assign(ends.size() - 1, {});
    const auto columns = static_cast<std::size_t>(net.grid.columns);
    for (std::size_t i = 0; i < net.most_mm.size(); ++i) {
        const double x = net.grid.x_mm[i / columns];
        const StandOff here{net.least_mm[i], net.most_mm[i], x, net.grid.g_mm[i]};
        const auto after = std::upper_bound(ends.begin(), ends.end(), x);
        StandOff& part = net.grid.shares[i % columns] < kClipsFrom
                             ? net.elsewhere
                             : net.between[static_cast<std::size_t>(after - ends.begin()) - 1];
        if (here.most_mm > part.most_mm) part = here;
        if (here.most_mm > net.worst.most_mm) net.worst = here;
    }
}

}  // namespace

Status checkClips(const Drape& drape, const ClipWish& wish, const std::string& path) {
    if (!(wish.clip_mm >= kNarrowestClip_mm && wish.clip_mm <= kWidestClip_mm))
        return Error{"out_of_range",
                     Words(NINE_WORDS("core", "A clip holds {low} to {high} of the net."))
                         .length("low", kNarrowestClip_mm, 0)
                         .length("high", kWidestClip_mm, 0),
                     path + ".clip_mm"};
    if (wish.clips.size() > kMostClips)
        return Error{"out_of_range",
                     Words(NINE_WORDS("core", "There are {count} clips; {most} are the most."))
                         .number("count", static_cast<double>(wish.clips.size()), 0)
                         .number("most", kMostClips, 0),
                     path + ".clips"};
    const double low = drape.grid.x_mm.front(), high = drape.grid.x_mm.back();
    for (std::size_t i = 0; i < wish.clips.size(); ++i) {
        const double x = wish.clips[i].x_mm;
        const std::string where = path + ".clips[" + std::to_string(i) + "].x_mm";
        if (!(x >= low && x <= high))
            return Error{
                "clip_off_net",
                Words(NINE_WORDS("core", "A clip at {x} holds nothing: the net lies from {low} to {high}."))
                    .length("x", x)
                    .length("low", low)
                    .length("high", high),
                where};
        if (i && !(x - wish.clips[i - 1].x_mm >= wish.clip_mm - 1e-6))
            return Error{
                "clips_too_close",
                Words(NINE_WORDS("core", "Clips at {a} and {b} sit on one another; they are {wide} wide."))
                    .length("a", wish.clips[i - 1].x_mm)
                    .length("b", x)
                    .length("wide", wish.clip_mm),
                where};
    }
    return Done{};
}

Result<std::shared_ptr<const ClippedNet>> clipNet(const Skin& skin, const Drape& drape, const ClipWish& wish,
                                                  const ReliefAt& relief, const Task& task) {
    auto net = std::make_shared<ClippedNet>();
    double half = 0;
    for (const double x : drape.grid.x_mm) half = std::max(half, skin.arcAt(x).girth_mm() / 2);
    net->grid = makeHalfGrid(skin, drape.wish.gather, rowsFor(skin, drape, wish), gradedShares(half));
    Result<std::vector<Vec2>> map = drapedOn(net->grid, drape, 6, task);
    if (!map) return map.error();
    net->net_mm = std::move(*map);

    const HalfGrid& grid = net->grid;
    std::vector<double> depth(grid.size(), 0);
    std::vector<Vec3> start;
    std::vector<bool> held(grid.size(), false);
    const double slack = 1e-6 * skin.length_mm();
    for (int r = 0; r < grid.rows; ++r)
        for (int c = 0; c < grid.columns; ++c) {
            const auto i = static_cast<std::size_t>(grid.at(r, c));
            const double x = grid.x_mm[static_cast<std::size_t>(r)];
            if (relief) depth[i] = relief({x, grid.g_mm[i]});
            start.push_back(grid.points[i].position);
            held[i] = r == 0 || r + 1 == grid.rows;
            if (c + 1 == grid.columns)
                for (const Clip& clip : wish.clips)
                    held[i] = held[i] || std::abs(x - clip.x_mm) <= wish.clip_mm / 2 + slack;
        }
    Laid laid[2];
    forEachInParallel(2, [&](std::size_t i) {
        const NetLaw law(drape.wish.net, i ? kSoftKnots : 1);
        laid[i] =
            letGo(Membrane(skin, grid, net->net_mm, depth, law, wish.lift_pa * 1e-6, held), start, task);
    });
    if (task.cancelled()) return Task::cancelledError();
    Vec3 normal;
    for (std::size_t i = 0; i < grid.size(); ++i) {
        double off[2];
        for (int k = 0; k < 2; ++k) {
            Vec3 gradient;
            const double level = skin.level(laid[k].at[i], gradient);
            off[k] = std::max(0.0, level / std::max(gradient.norm(), 1e-12) + depth[i]);
        }
        net->least_mm.push_back(std::min(off[0], off[1]));
        net->most_mm.push_back(std::max(off[0], off[1]));
    }
    net->places = std::move(laid[0].at);
    if (std::max(laid[0].lastStep_mm, laid[1].lastStep_mm) > kSettled_mm)
        return Error{
            "not_settled",
            NINE_WORDS("core", "The clipped net does not come to rest; put another clip where it is loose."),
            ""};
    readOff(wish, *net);
    return std::shared_ptr<const ClippedNet>(std::move(net));
}

}  // namespace nine
