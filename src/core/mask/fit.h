// Whether a patch of sheet lies flat on the body, and where what is cut in it lands.
//
// flattenPatch solves the map that cuts the art; judgeFit adds the verdict (least strain that any way of
// laying the sheet reaches, against the material's limit), the lift, the landing by an independent re-wrap,
// and the landing of the same art traced from the side. Everything is on the left side; right is the mirror
// image.
#pragma once

#include "base/task.h"
#include "mask/landing.h"
#include "mask/material.h"
#include "mask/patch.h"

namespace nine {

constexpr int kFitVertices = 2000;
/// The pressure of a fingertip that lift_mm is given for, kPa (common practice, no published source).
constexpr double kFingerPressure_kpa = 10;

struct FlatPatch {
    PatchMesh patch;
    RestMesh rest;
    FlatMap map;  ///< relaxed; markA at 0,0 and markB on the positive u axis
    std::vector<PrincipalStrain> strains;
    StrainSummary strain;
};

struct FitReport {
    int vertices = 0;
    double strainMax = 0, strainP95 = 0;  ///< of the relaxed map, fractions of log strain
    double strainFeasibleMax = 0;         ///< least reachable maximum
    double strainLimit = 0;               ///< of the material
    double areaRatioMax = 1;
    Landing landing, traced;
    std::vector<LandedProbe> landed;  ///< what `landing` sums up, on the left side
    bool tracedKnown = true;          ///< false when a side view cannot be laid at all
    double relief_mm = 0;             ///< deepest carving under an opening: it lies no nearer there
    double lift_mm = 0;               ///< 0 when it lies flat, else the gap under it at finger pressure
    bool liesFlat = false;            ///< strainFeasibleMax <= strainLimit
};

/// Preview: conformal and rigid map only, for drawing while something is dragged.
Result<FlatPatch> previewPatch(PatchMesh patch, const Task& task = {});
Result<FlatPatch> flattenPatch(PatchMesh patch, const Task& task = {});

/// `probes` are the points whose landing is measured; probeDots() of the patch if empty.
Result<FitReport> judgeFit(const Skin& skin, const FlatPatch& flat, double strainLimit, Laying laying,
                           std::vector<SurfacePoint> probes = {}, const Task& task = {});

/// Gap that a sheet which cannot stretch leaves over a doubly curved patch, held down by finger pressure: it
/// follows one direction and bridges the other, whichever leaves less: min(k W^2, k L^2) / 8, with k W and k
/// L the turn of the skin across and along. Source: a shell solve made beforehand, within a factor of 2.
double liftOf(const PatchMesh& patch);

}  // namespace nine
