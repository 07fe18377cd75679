// Whether a patch of sheet lies flat on the body, and where what is cut in it lands.
//
// flattenPatch solves the map that cuts the art; judgeFit adds the verdict (least strain that any way of
// laying the sheet reaches, against the material's limit), the lift, the landing by an independent re-wrap,
// and the landing of the same art traced from the side. Everything is on the left side; right is the mirror
// image.
#pragma once

#include <memory>

#include "base/task.h"
#include "base/units.h"
#include "geom/borders.h"
#include "geom/sheet_map.h"
#include "mask/landing.h"
#include "mask/lift.h"
#include "mask/material.h"
#include "mask/patch.h"

namespace nine {

constexpr int kFitVertices = 2000;

struct FlatPatch {
    PatchMesh patch;
    RestMesh rest;
    FlatMap map;  ///< relaxed; the first mark at 0,0 and the last on the positive u axis
    std::vector<PrincipalStrain> strains;
    StrainSummary strain;
    std::shared_ptr<const FlatPatch> whole = {};  ///< before its windows were cut out; null if none were
    /// Of a lattice of so many windows that they are no borders of the mesh but make it softer: x, g.
    PolygonSet openings = {};
};

/// How far the windows of a lattice taken as a softer sheet lie from where every web meshed puts them, a
/// strain of 1: rms and the worst. Of five lattices of 58 to 193 cells at 6 to 22 % of strain (tests/twins).
constexpr double kSoftenedOff_mm = 0.9, kSoftenedMostOff_mm = 1.5;

/// The borders of the flat sheet, rims of windows too; null of a plain sheet without any.
std::shared_ptr<const Borders> flatBorders(const FlatPatch& flat);

/// Carries places of the skin by the patch's map. Not kept with the patch: it is as large again. 5 ms.
SheetMap sheetMapOf(const FlatPatch& flat);

struct FitReport {
    int vertices = 0;
    /// Of the map that is cut, fractions of log strain; the largest of a sheet with windows as strainWithin()
    /// 1 mm.
    Fraction strainMax = 0, strainP95 = 0;
    Fraction strainFeasibleMax = 0;  ///< least reachable maximum
    Fraction strainLimit = 0;        ///< of the material
    Ratio areaRatioMax = 1;
    Landing landing, traced;
    std::vector<LandedProbe> landed;  ///< what `landing` sums up, on the left side
    bool tracedKnown = true;          ///< false when a side view cannot be laid at all
    double relief_mm = 0;             ///< deepest carving under an opening: it lies no nearer there
    double lift_mm = 0;  ///< 0 when it lies flat, else the gap it bridges; grows from 0 as the strain goes
                         ///< beyond the limit
    double bend_mm = 0;  ///< how far a stiff sheet stands off at its free edges by bending alone
    std::vector<double> lifts_mm;  ///< the larger of both at each vertex of the whole patch; empty when there
                                   ///< is none
    std::shared_ptr<const TriangleFinder> lifted;  ///< where lifts_mm are, in x, g; null when there is none
    double standsOff_mm() const { return std::max(lift_mm, bend_mm); }
    double hand_mm = 0;     ///< what a hand adds: see handError_mm
    bool liesFlat = false;  ///< strainFeasibleMax <= strainLimit
};

/// |strain| as a piece of sheet of that size feels it, at each triangle: the mean over the triangles within
/// `radius_mm`, reached without crossing a cut. Of a sheet with windows or slits its largest is what can tear
/// it or not; the single triangle at the point of a cut has any strain one likes, the finer the mesh the
/// more.
std::vector<Fraction> strainsWithin(const SheetMesh& mesh, const RestMesh& rest,
                                    const std::vector<PrincipalStrain>& strains, double radius_mm = 1);
Fraction strainWithin(const SheetMesh& mesh, const RestMesh& rest,
                      const std::vector<PrincipalStrain>& strains, double radius_mm = 1);

/// Preview: conformal and rigid map only, for drawing while something is dragged.
Result<FlatPatch> previewPatch(PatchMesh patch, const Task& task = {});
Result<FlatPatch> flattenPatch(PatchMesh patch, const Task& task = {});

/// `probes` are the points whose landing is measured; probeDots() of the patch if none of them lies on it.
Result<FitReport> judgeFit(const Skin& skin, const FlatPatch& flat, const LaidOn& laid, Laying laying,
                           const std::vector<Probe>& probes = {}, const Task& task = {});

}  // namespace nine
