// Gauss-Legendre integration on one interval; exact for polynomials up to degree 11.
// Nodes and weights: Abramowitz and Stegun, Handbook of Mathematical Functions, table 25.4, n = 6.
#pragma once

#include <array>

#include "base/units.h"

namespace nine {

struct GaussNode {
    Fraction position;  ///< in 0..1
    Fraction weight;    ///< weights add up to 1
};

inline constexpr std::array<GaussNode, 6> kGauss6{{
    {0.5 - 0.5 * 0.932469514203152028, 0.5 * 0.171324492379170345},
    {0.5 - 0.5 * 0.661209386466264514, 0.5 * 0.360761573048138608},
    {0.5 - 0.5 * 0.238619186083196909, 0.5 * 0.467913934572691047},
    {0.5 + 0.5 * 0.238619186083196909, 0.5 * 0.467913934572691047},
    {0.5 + 0.5 * 0.661209386466264514, 0.5 * 0.360761573048138608},
    {0.5 + 0.5 * 0.932469514203152028, 0.5 * 0.171324492379170345},
}};

template <typename F>
Figure integrate(Figure from, Figure to, F f) {
    Figure sum = 0;
    for (const GaussNode& node : kGauss6) sum += node.weight * f(from + (to - from) * node.position);
    return sum * (to - from);
}

}  // namespace nine
