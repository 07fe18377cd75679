#include "scale/net_law.h"

#include <Eigen/LU>
#include <cmath>

namespace nine {
namespace {

/// Ties the inner node to the middle of its neighbours by that share of a thread, so that it has a place when
/// all three threads are slack.
constexpr Fraction kTie = 0.0005;

/// Half k (l - rest)^2 of a spring along `d`, with its derivatives by d. When it is shorter than at rest its
/// k is `pushed` k: 0 of a thread, whose energy is then convex.
template <int N>
struct Spring {
    using V = Eigen::Matrix<double, N, 1>;
    using M = Eigen::Matrix<double, N, N>;
    double energy;
    V pull;
    M stiffness;

    Spring(const V& d, double rest, double k, double pushed, bool convex) {
        const double length = std::max(std::sqrt(d.squaredNorm()), 1e-9);
        const double over = length - rest;
        if (over < 0) k *= pushed;
        if (k == 0) {
            energy = 0;
            pull.setZero();
            stiffness.setZero();
            return;
        }
        const V unit = d / length;
        energy = 0.5 * k * over * over;
        pull = k * over * unit;
        const double across = k * over / length;
        stiffness = k * unit * unit.transpose();
        if (across > 0 || !convex) stiffness += across * (M::Identity() - unit * unit.transpose());
    }
};

/// The three threads that meet at the inner node of a hexagon, at balance. Convex, so there is one place.
template <int N>
struct InnerNode {
    using V = Eigen::Matrix<double, N, 1>;
    using M = Eigen::Matrix<double, N, N>;
    V q1, q2, w;
    double along, kAlong, slanted, k, tie;

    InnerNode(const V& first, const V& second, double alongRest, double alongK, double slantedRest,
              double slantedK)
        : q1(first),
          q2(second),
          w((first + second) / 3),
          along(alongRest),
          kAlong(alongK),
          slanted(slantedRest),
          k(slantedK),
          tie(kTie * alongK) {
        for (int i = 0; i < 60; ++i) {
            const Spring<N> a = thread(0), b = thread(1), c = thread(2);
            const V g = a.pull + b.pull + c.pull + tie * tied();
            const V step = (a.stiffness + b.stiffness + c.stiffness + tie * M::Identity()).inverse() * g;
            if (step.norm() < 1e-6 * along) {
                w -= step;
                break;
            }
            const V from = w;
            const double before = a.energy + b.energy + c.energy + 0.5 * tie * tied().squaredNorm();
            double share = 1;
            for (int half = 0; half < 30; ++half, share *= 0.5) {
                w = from - share * step;
                if (energy() <= before - 1e-4 * share * step.dot(g)) break;
            }
        }
    }
    V tied() const { return w - (q1 + q2) / 3; }
    Spring<N> thread(int i) const {
        return i == 0 ? Spring<N>(w, along, kAlong, 0, true)
                      : Spring<N>(w - (i == 1 ? q1 : q2), slanted, k, 0, true);
    }
    double energy() const {
        const auto of = [](const V& d, double rest, double stiff) {
            const double over = std::sqrt(d.squaredNorm()) - rest;
            return over > 0 ? 0.5 * stiff * over * over : 0.0;
        };
        return of(w, along, kAlong) + of(w - q1, slanted, k) + of(w - q2, slanted, k) +
               0.5 * tie * tied().squaredNorm();
    }
};

}  // namespace

NetLaw::NetLaw(const Net& net, Fraction knotsPushed) : weave_(net.weave), knotsPushed_(knotsPushed) {
    const double a = net.along_mm, b = net.across_mm;
    const double k = net.stiffness_n_m / 1000, g = net.knot_n_m / 1000;  // N/mm
    switch (weave_) {
        case Weave::Square:
            first_ = {a, 0};
            second_ = {0, b};
            cell_mm2_ = a * b;
            slanted_mm_ = a;
            along_mm_ = b;
            // A strand along the body stands for `across` of net, and the other way round.
            slantedK1_n_mm_ = k * b / a;
            slantedK2_n_mm_ = k * a / b;
            knot_n_mm_ = g;
            break;
        case Weave::Diamond:
            first_ = {a / 2, b / 2};
            second_ = {a / 2, -b / 2};
            cell_mm2_ = a * b / 2;
            slanted_mm_ = along_mm_ = std::hypot(a / 2, b / 2);
            // Strands lie cell / side apart.
            slantedK1_n_mm_ = slantedK2_n_mm_ = k * cell_mm2_ / (slanted_mm_ * slanted_mm_);
            knot_n_mm_ = g;
            break;
        case Weave::Hexagon:
            first_ = {0.75 * a, b / 2};
            second_ = {0.75 * a, -b / 2};
            cell_mm2_ = 0.75 * a * b;
            along_mm_ = a / 2;
            slanted_mm_ = std::hypot(a / 4, b / 2);
            alongK_n_mm_ = k * b / along_mm_;
            slantedK1_n_mm_ = slantedK2_n_mm_ = k * b / slanted_mm_;
            knot_n_mm_ = g / std::sqrt(3.0);
            break;
    }
}

template <int N>
NetLaw::State<N> NetLaw::at(const Eigen::Matrix<double, N, 1>& q1, const Eigen::Matrix<double, N, 1>& q2,
                            bool convex) const {
    using V = Eigen::Matrix<double, N, 1>;
    using M = Eigen::Matrix<double, N, N>;
    State<N> state;
    state.gradient.setZero();
    state.hessian.setZero();
    const auto add = [&](const Spring<N>& s, double by1, double by2) {
        state.energy += s.energy;
        state.gradient.template head<N>() += by1 * s.pull;
        state.gradient.template tail<N>() += by2 * s.pull;
        state.hessian.template topLeftCorner<N, N>() += by1 * by1 * s.stiffness;
        state.hessian.template bottomRightCorner<N, N>() += by2 * by2 * s.stiffness;
        state.hessian.template topRightCorner<N, N>() += by1 * by2 * s.stiffness;
        state.hessian.template bottomLeftCorner<N, N>() += by1 * by2 * s.stiffness;
    };
    const auto knot = [&](double by1, double by2) {
        const V d = by1 * q1 + by2 * q2;
        const double rest = (by1 * first_ + by2 * second_).norm();
        add(Spring<N>(d, rest, knot_n_mm_, knotsPushed_, convex), by1, by2);
    };
    if (weave_ == Weave::Hexagon) {
        const InnerNode<N> node(q1, q2, along_mm_, alongK_n_mm_, slanted_mm_, slantedK1_n_mm_);
        state.inner = node.w;
        state.energy += node.energy();
        const M one = M::Identity(), b = node.thread(1).stiffness, c = node.thread(2).stiffness;
        const double tie = node.tie;
        const V towards = tie / 3 * node.tied();
        state.gradient.template head<N>() -= node.thread(1).pull + towards;
        state.gradient.template tail<N>() -= node.thread(2).pull + towards;
        // The inner node follows: its unknown is eliminated.
        const M byFirst = -b - tie / 3 * one, bySecond = -c - tie / 3 * one;
        const M inverse = (node.thread(0).stiffness + b + c + tie * one).inverse();
        const M both = tie / 9 * one;
        state.hessian.template topLeftCorner<N, N>() += b + both - byFirst * inverse * byFirst;
        state.hessian.template bottomRightCorner<N, N>() += c + both - bySecond * inverse * bySecond;
        state.hessian.template topRightCorner<N, N>() += both - byFirst * inverse * bySecond;
        state.hessian.template bottomLeftCorner<N, N>() += both - bySecond * inverse * byFirst;
        knot(1, 0);
        knot(0, 1);
        knot(1, -1);
    } else {
        state.inner = q1;
        add(Spring<N>(q1, slanted_mm_, slantedK1_n_mm_, 0, convex), 1, 0);
        add(Spring<N>(q2, along_mm_, slantedK2_n_mm_, 0, convex), 0, 1);
        knot(1, 1);
        knot(1, -1);
    }
    state.energy /= cell_mm2_;
    state.gradient /= cell_mm2_;
    state.hessian /= cell_mm2_;
    return state;
}

template NetLaw::State<2> NetLaw::at<2>(const Vec2&, const Vec2&, bool) const;
template NetLaw::State<3> NetLaw::at<3>(const Vec3&, const Vec3&, bool) const;

Vec2 NetLaw::innerAt(const Vec2& q1, const Vec2& q2) const {
    if (weave_ != Weave::Hexagon) return q1;
    return InnerNode<2>(q1, q2, along_mm_, alongK_n_mm_, slanted_mm_, slantedK1_n_mm_).w;
}

template <int N>
Fraction NetLaw::worstStrain(const Eigen::Matrix<double, N, 1>& q1,
                             const Eigen::Matrix<double, N, 1>& q2) const {
    if (weave_ != Weave::Hexagon) return std::max(q1.norm() / slanted_mm_, q2.norm() / along_mm_) - 1;
    const auto w = InnerNode<N>(q1, q2, along_mm_, alongK_n_mm_, slanted_mm_, slantedK1_n_mm_).w;
    return std::max({w.norm() / along_mm_, (q1 - w).norm() / slanted_mm_, (q2 - w).norm() / slanted_mm_}) - 1;
}

template Fraction NetLaw::worstStrain<2>(const Vec2&, const Vec2&) const;
template Fraction NetLaw::worstStrain<3>(const Vec3&, const Vec3&) const;

}  // namespace nine
