// Flattening: from a piece of surface to the sheet it is cut from.
//
// Four maps, each starting from the one before (see docs/MODEL.md, Flattening):
//   conformalMap   least squares conformal: a start without folds, lengths not yet right
//   rigidMap       as rigid as possible: good enough to draw while something is dragged
//   relaxedMap     least elastic energy in logarithmic (Hencky) strain: what a sheet does when it is laid on
//                  the body and left alone. This map cuts the art.
//   feasibleMap    least p-norm of the strain, p raised to 128: the smallest strain that any way of laying
//                  the sheet can reach. Only for the verdict whether a material can lie at all.
// The maps have no preferred place or turn; alignMap sets that.
//
// Strain is the logarithm of the stretch between the surface and the flat sheet, as a fraction; of a
// triangle, its two principal values. Times: docs/BENCH.md.
// Errors: "cancelled"; "cannot_flatten" when no map without folds was found (a patch nearly closed on
// itself).
//
//     RestMesh rest = restMesh(patch.mesh);
//     Result<FlatMap> map = relaxedMap(rest, *rigidMap(rest, *conformalMap(rest)));
//     double worst = summarize(rest, strainsOf(rest, *map)).max;
//
// Accuracy of the relaxed map's largest strain (bench/accuracy.cpp):
//     vertices                              250      500     1000     2000     4000
//     developable, 30 x 16 mm (true: 0)    2e-8     4e-9     9e-10    2e-10    6e-11
//     disc of 8 mm on a sphere of 20 mm  .02037   .02027   .02021   .02018   .02017
//
// Sources: Levy, Petitjean, Ray, Maillot 2002 (LSCM); Liu, Zhang, Xu, Gotsman, Gortler 2008 (local/global);
// Smith, De Goes, Kim 2019, Analytic Eigensystems for Isotropic Distortion Energies (projected Newton);
// Hencky 1928 for the strain.
#pragma once

#include "base/result.h"
#include "base/task.h"
#include "base/units.h"
#include "geom/sheet_mesh.h"

namespace nine {

using FlatMap = std::vector<Vec2>;  ///< one point of the sheet, mm, for each vertex

/// Poisson ratio of the sheet; about 1/3 for paper, films and tapes (common value).
constexpr Ratio kSheetPoissonRatio = 1.0 / 3.0;

Result<FlatMap> conformalMap(const RestMesh& mesh, const Task& task = {});
Result<FlatMap> rigidMap(const RestMesh& mesh, FlatMap start, const Task& task = {});
Result<FlatMap> relaxedMap(const RestMesh& mesh, FlatMap start, const Task& task = {});
/// A verdict is found to 1.3 %; to compare many plans, half the steps do, and the strain comes out 1 to 3 %
/// higher.
enum class Effort { Verdict, Comparison };
Result<FlatMap> feasibleMap(const RestMesh& mesh, FlatMap start, const Task& task = {},
                            Effort effort = Effort::Verdict);

/// Principal logarithmic strains of one triangle, flat sheet against surface, larger first.
struct PrincipalStrain {
    Fraction largest;
    Fraction smallest;
    Fraction worst() const { return std::max(std::abs(largest), std::abs(smallest)); }
};

/// Strain of each triangle; infinite where the map folds.
std::vector<PrincipalStrain> strainsOf(const RestMesh& mesh, const FlatMap& map);

struct StrainSummary {
    Fraction max;        ///< largest |strain| of any triangle
    Fraction p95;        ///< 95 % of the area is below this
    Ratio areaRatioMax;  ///< largest ratio, either way, between surface and flat area of a triangle
};
StrainSummary summarize(const RestMesh& mesh, const std::vector<PrincipalStrain>& strains);

/// Moves and turns the map so that `origin` is at 0,0 and `towards` on the positive u axis.
void alignMap(FlatMap& map, const Vec2& origin, const Vec2& towards);

}  // namespace nine
