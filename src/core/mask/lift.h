// How far a sheet stands off the body: bridging, where it would have to stretch more than it can, and
// bending, where a stiff sheet has a free edge.
//
// Per place: at the vertices of the whole sheet. Source of the bridging gap and its exponents: shell solves
// (membrane and bending) made beforehand, five patches and three pressures, met within a factor of 1.5; of
// the free edge: the beam equation, closed form.
#pragma once

#include "base/units.h"
#include "mask/patch.h"

namespace nine {

/// The pressure of a fingertip that lift_mm is given for, kPa (common practice, no published source).
constexpr double kFingerPressure_kpa = 10;

/// The sheet as it is laid.
struct LaidOn {
    Fraction strainLimit = 0;  ///< of its material
    Figure bending_nmm = 0;    ///< of its material, N mm; 0: it is limp, or sticks down by itself
    double pressure_kpa = kFingerPressure_kpa;  ///< what it is held down with
    // NOLINTNEXTLINE: a limit alone says the rest is as usual.
    LaidOn(Fraction limit, Figure bending = 0, Figure pressure = kFingerPressure_kpa)
        : strainLimit(limit), bending_nmm(bending), pressure_kpa(pressure) {}
};

/// How much of the bridging gap is left for a sheet that stretches by `limit` where `needed` would be asked
/// of it: none at the limit, nearly all of it soon above. A finger does not stretch a stiff sheet by what it
/// would take when pulled: the shell solves bridge nearly whole gaps at 1.3 times the limit (the exponent is
/// fitted to them).
Fraction bridgedShare(Fraction needed, Fraction limit);

/// Gap that a sheet which cannot stretch leaves over a doubly curved patch, held down by finger pressure, at
/// each vertex: it follows one direction and bridges the other, whichever leaves less, as a chord over an arc
/// does: k a b / 2, with k the mean turn of the skin a millimetre in the bridged direction and a, b the ways
/// to the sheet's border there. Source: a shell solve made beforehand, within a factor of 2.
std::vector<double> liftsOf_mm(const PatchMesh& patch);

/// What pressure and stiffness make of that gap for a sheet that bends: it falls with the pressure and grows
/// with the stiffness, 1 for film at a fingertip. No more than kMostLift_mm is ever told: nobody lays that.
Ratio pressedShare(const LaidOn& laid);
constexpr double kMostLift_mm = 5;

/// A free edge of a sheet wrapped round a radius: how far before the edge it leaves the body, and how far it
/// stands off there: l = sqrt(2 D / (R p)), l^2 / (4 R).
struct FreeEdge {
    double reach_mm, gap_mm;
    /// At a distance from the edge; 0 from reach_mm on.
    double gapAt_mm(double fromEdge_mm) const;
};
FreeEdge freeEdge(Figure bending_nmm, double radius_mm, double pressure_kpa);

/// At each vertex of `whole`, by the nearest of the given edges (places of its chart): windows, slits and the
/// border of the sheet.
std::vector<double> bendingLifts_mm(const PatchMesh& whole, const std::vector<Polyline2>& edges,
                                    const LaidOn& laid);

}  // namespace nine
