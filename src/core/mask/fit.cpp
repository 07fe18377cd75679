#include "mask/fit.h"

#include <algorithm>
#include <array>
#include <limits>

#include "base/parallel.h"

namespace nine {
namespace {

/// Where a place of the patch lies on the sheet, linear inside the triangle it is nearest to being in.
Vec2 onSheet(const FlatPatch& flat, const Vec2& place) {
    double best = -std::numeric_limits<double>::infinity();
    Vec2 at = Vec2::Zero();
    for (const auto& t : flat.patch.mesh.triangles) {
        std::array<Vec2, 3> skin, sheet;
        for (std::size_t k = 0; k < 3; ++k) {
            const auto v = static_cast<std::size_t>(t[k]);
            skin[k] = flat.patch.skin[v];
            sheet[k] = flat.map[v];
        }
        const Vec2 a = skin[1] - skin[0], b = skin[2] - skin[0], p = place - skin[0];
        const double all = a.x() * b.y() - a.y() * b.x();
        if (all == 0) continue;
        const double u = (p.x() * b.y() - p.y() * b.x()) / all, v = (a.x() * p.y() - a.y() * p.x()) / all;
        const double inside = std::min({u, v, 1 - u - v});
        if (inside <= best) continue;
        best = inside;
        at = sheet[0] + u * (sheet[1] - sheet[0]) + v * (sheet[2] - sheet[0]);
    }
    return at;
}

/// Puts the map into its own frame and measures its strain.
void finish(FlatPatch& flat) {
    alignMap(flat.map, onSheet(flat, flat.patch.markA), onSheet(flat, flat.patch.markB));
    flat.strains = strainsOf(flat.rest, flat.map);
    flat.strain = summarize(flat.rest, flat.strains);
}

Result<FlatPatch> solve(PatchMesh patch, bool exact, const Task& task) {
    FlatPatch flat;
    flat.patch = std::move(patch);
    flat.rest = restMesh(flat.patch.mesh);
    Result<FlatMap> map = conformalMap(flat.rest, task);
    if (map) map = rigidMap(flat.rest, std::move(*map), task);
    if (map && exact) map = relaxedMap(flat.rest, std::move(*map), task);
    if (!map) return map.error();
    flat.map = std::move(*map);
    finish(flat);
    return flat;
}

}  // namespace

Result<FlatPatch> previewPatch(PatchMesh patch, const Task& task) {
    return solve(std::move(patch), false, task);
}
Result<FlatPatch> flattenPatch(PatchMesh patch, const Task& task) {
    return solve(std::move(patch), true, task);
}

double liftOf(const PatchMesh& patch) {
    return std::min(patch.turnAcross_rad * patch.width_mm, patch.turnAlong_rad * patch.length_mm) / 8;
}

Result<FitReport> judgeFit(const Skin& skin, const FlatPatch& flat, double strainLimit, Laying laying,
                           std::vector<SurfacePoint> probes, const Task& task) {
    FitReport report;
    report.vertices = flat.rest.vertexCount;
    report.strainMax = flat.strain.max;
    report.strainP95 = flat.strain.p95;
    report.areaRatioMax = flat.strain.areaRatioMax;
    report.strainLimit = strainLimit;

    if (probes.empty()) probes = probeDots(skin, flat.patch.skin);
    const auto onSkin = [&](const Vec2& xg) { return skin.at({Side::Left, xg.x(), xg.y()}); };
    const std::vector<SurfacePoint> marks{onSkin(flat.patch.markA), onSkin(flat.patch.markB)};
    const SheetCarrier sheet(flat.patch.pairedWith(flat.map)), traced(sideView(flat.patch.mesh.vertices));

    // Three questions that do not wait for each other.
    Result<FlatMap> feasible = Task::cancelledError();
    Result<std::vector<LandedProbe>> landed = Task::cancelledError(), tracedLanded = Task::cancelledError();
    forEachInParallel(3, [&](std::size_t question) {
        if (question == 0) feasible = feasibleMap(flat.rest, flat.map, task);
        if (question == 1) landed = landProbes(skin, sheet, marks, probes, laying, task);
        if (question == 2) tracedLanded = landProbes(skin, traced, marks, probes, laying, task);
    });
    if (!feasible) return feasible.error();
    if (!landed) return landed.error();
    report.strainFeasibleMax =
        std::min(flat.strain.max, summarize(flat.rest, strainsOf(flat.rest, *feasible)).max);
    report.liesFlat = report.strainFeasibleMax <= strainLimit;
    report.lift_mm = report.liesFlat ? 0 : liftOf(flat.patch);
    report.landing = landingOf(*landed);
    report.landed = std::move(*landed);
    if (task.cancelled()) return Task::cancelledError();
    report.tracedKnown = static_cast<bool>(tracedLanded);
    if (tracedLanded) report.traced = landingOf(*tracedLanded);
    return report;
}

}  // namespace nine
