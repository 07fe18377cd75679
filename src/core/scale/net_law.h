// What stretching a net costs: the energy of one cell, from its threads and knots.
//
// A cell is spanned by two lattice vectors A1, A2. A thread is a spring that gives no push when it is
// slack; knots are soft springs along the cell's diagonals. Of hexagons the lattice has a node between, which
// lies where the three threads there are in balance.
// Source: threads as springs in a unit cell and the inner node at balance are the usual homogenised lattice
// (Gibson and Ashby, Cellular Solids, ch. 4; from memory).
#pragma once

#include <Eigen/Core>

#include "base/units.h"
#include "geom/vec.h"
#include "scale/net.h"

namespace nine {

class NetLaw {
  public:
    /// `knotsPushed`: the share of their stiffness that knots have against being pushed together.
    explicit NetLaw(const Net& net, Fraction knotsPushed = 1);

    const Vec2& first() const { return first_; }    ///< A1, mm: along, across
    const Vec2& second() const { return second_; }  ///< A2
    double cell_mm2() const { return cell_mm2_; }

    /// Of a net area of 1 mm^2, N/mm, with its derivatives by where A1 and A2 lie now (stacked), mm.
    template <int N>
    struct State {
        Figure energy = 0;
        Eigen::Matrix<double, 2 * N, 1> gradient;
        Eigen::Matrix<double, 2 * N, 2 * N> hessian;
        Eigen::Matrix<double, N, 1> inner;  ///< of hexagons: where the thread along the body ends
    };
    /// N = 2 on a flat piece, 3 in space. `convex`: leaves out of the second derivatives what would make them
    /// indefinite. Cost: about 1 us.
    template <int N>
    State<N> at(const Eigen::Matrix<double, N, 1>& q1, const Eigen::Matrix<double, N, 1>& q2,
                bool convex) const;

    /// Of hexagons, where the inner node lies when A1 and A2 lie so; else A1.
    Vec2 innerAt(const Vec2& q1, const Vec2& q2) const;

    /// The largest strain of a thread there; negative where all are slack.
    template <int N>
    Fraction worstStrain(const Eigen::Matrix<double, N, 1>& q1, const Eigen::Matrix<double, N, 1>& q2) const;

  private:
    Weave weave_;
    Vec2 first_, second_;
    double cell_mm2_;
    double along_mm_ = 0, slanted_mm_;  ///< lengths of threads at rest
    double alongK_n_mm_ = 0, slantedK1_n_mm_, slantedK2_n_mm_, knot_n_mm_;
    Fraction knotsPushed_;
};

}  // namespace nine
