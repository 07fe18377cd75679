// The balanced map: the flat sheet that comes to rest with every point where it was drawn.
//
// A sheet that is laid on a body and let go settles where its elastic energy is least. Cut from the relaxed
// map it would, were it whole; with windows cut out the ribbons between them give, and their rims land
// elsewhere. Here the places on the skin are given and the flat sheet is sought: the one for which the
// derivative of the laid sheet's energy by every place on the skin is nothing, but at the two marks that hold
// it.
//
// Guarantees: no triangle turned over; marks where they were. Errors: cancelled; cannot_balance, when ribbons
// are so slender that no such sheet was found (told by residual or by a triangle that turns over).
//
//     Result<FlatMap> flat = balancedMap(patch.mesh, relaxed, {first, last});
//
// Cost: 3 to 6 sparse factorisations, about as much again as relaxing the same mesh. Source: equilibrium of a
// hyperelastic membrane in Hencky strain, solved for its rest state (inverse form finding: Govindjee, Mihalic
// 1996, Computational methods for inverse finite elastostatics).
#pragma once

#include "geom/flatten.h"

namespace nine {

/// `start` is a map without folds, such as relaxedMap() of the same skin without its windows. `held` are
/// vertices.
Result<FlatMap> balancedMap(const SheetMesh& mesh, FlatMap start, const std::array<int, 2>& held,
                            const Task& task = {});

/// How far the laid sheet is from rest: the largest move, mm, that the forces at single vertices would make
/// if the others held still. For checks.
double unrest_mm(const SheetMesh& mesh, const FlatMap& map, const std::array<int, 2>& held);

}  // namespace nine
