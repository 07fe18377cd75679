#include "mask/fit.h"

#include <algorithm>
#include <array>
#include <limits>
#include <unordered_map>

#include "base/parallel.h"

namespace nine {
namespace {

constexpr double kOnTheCut_mm = 0.05;

/// Where a mark lies on the sheet, linear inside the triangle; the nearest vertex where it lies outside.
Vec2 onSheet(const TriangleFinder& finder, const FlatMap& map, const Vec2& mark) {
    if (const auto place = finder.find(mark)) {
        Vec2 at = Vec2::Zero();
        for (std::size_t k = 0; k < 3; ++k)
            at += place->share[static_cast<Eigen::Index>(k)] *
                  map[static_cast<std::size_t>(finder.triangles()[place->triangle][k])];
        return at;
    }
    std::size_t nearest = 0;
    for (std::size_t i = 0; i < map.size(); ++i)
        if ((finder.places()[i] - mark).squaredNorm() < (finder.places()[nearest] - mark).squaredNorm())
            nearest = i;
    return map[nearest];
}

/// Rings of places on the skin as a map has them, linear inside triangles; those of another sheet left out.
PolygonSet carried(const PatchMesh& patch, const std::vector<Vec2>& map, const PolygonSet& rings) {
    PolygonSet there;
    if (rings.empty()) return there;
    const TriangleFinder finder(patch.skin, patch.mesh.triangles);
    for (const Polygon2& ring : rings) {
        Polygon2& mapped = there.emplace_back();
        for (const Vec2& place : ring) mapped.push_back(onSheet(finder, map, place));
    }
    return there;
}

/// Puts the map into its own frame and measures its strain.
void finish(FlatPatch& flat) {
    const TriangleFinder finder(flat.patch.skin, flat.patch.mesh.triangles);
    alignMap(flat.map, onSheet(finder, flat.map, flat.patch.marks.front()),
             onSheet(finder, flat.map, flat.patch.marks.back()));
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

std::vector<Fraction> strainsWithin(const SheetMesh& mesh, const RestMesh& rest,
                                    const std::vector<PrincipalStrain>& strains, double radius_mm) {
    const std::size_t n = rest.triangles.size();
    std::vector<Vec3> middles;
    std::unordered_map<std::int64_t, std::size_t> byEdge;
    std::vector<std::array<std::size_t, 3>> beside(n, {n, n, n});
    const auto vertices = static_cast<std::int64_t>(mesh.vertices.size());
    for (std::size_t t = 0; t < n; ++t) {
        Vec3 middle = Vec3::Zero();
        for (std::size_t k = 0; k < 3; ++k) {
            const int a = rest.triangles[t][k], b = rest.triangles[t][(k + 1) % 3];
            middle += mesh.vertices[static_cast<std::size_t>(a)].position / 3;
            byEdge[a * vertices + b] = t;
        }
        middles.push_back(middle);
    }
    for (std::size_t t = 0; t < n; ++t)
        for (std::size_t k = 0; k < 3; ++k) {
            const int a = rest.triangles[t][k], b = rest.triangles[t][(k + 1) % 3];
            if (const auto other = byEdge.find(b * vertices + a); other != byEdge.end())
                beside[t][k] = other->second;
        }
    std::vector<std::size_t> seenBy(n, n), found;
    std::vector<Fraction> means;
    means.reserve(n);
    for (std::size_t t = 0; t < n; ++t) {
        found.assign(1, t);
        seenBy[t] = t;
        double sum = 0, all = 0;
        for (std::size_t i = 0; i < found.size(); ++i) {
            sum += rest.shapes[found[i]].area_mm2 * strains[found[i]].worst();
            all += rest.shapes[found[i]].area_mm2;
            for (const std::size_t next : beside[found[i]]) {
                if (next == n || seenBy[next] == t || (middles[next] - middles[t]).norm() > radius_mm)
                    continue;
                seenBy[next] = t;
                found.push_back(next);
            }
        }
        means.push_back(sum / all);
    }
    return means;
}

Fraction strainWithin(const SheetMesh& mesh, const RestMesh& rest,
                      const std::vector<PrincipalStrain>& strains, double radius_mm) {
    const std::vector<Fraction> means = strainsWithin(mesh, rest, strains, radius_mm);
    return means.empty() ? 0 : *std::max_element(means.begin(), means.end());
}

std::shared_ptr<const Borders> flatBorders(const FlatPatch& flat) {
    if (!flat.patch.open && flat.patch.rims.empty() && flat.openings.empty()) return nullptr;
    PolygonSet rings, openings;
    for (const auto* loops : {&flat.patch.loops, &flat.patch.rims})
        for (const std::vector<int>& loop : *loops) {
            Polygon2& ring = rings.emplace_back();
            for (const int v : loop) ring.push_back(flat.map[static_cast<std::size_t>(v)]);
        }
    if (!flat.openings.empty()) openings = carried(flat.patch, flat.map, flat.openings);
    return std::make_shared<const Borders>(rings, openings);
}

SheetMap sheetMapOf(const FlatPatch& flat) {
    return SheetMap(flat.patch.mesh, flat.patch.skin, flat.map);
}

namespace {

/// Lift and bending of the whole sheet, its windows and slits as free edges.
void standOff(const FlatPatch& flat, const LaidOn& laid, FitReport& report) {
    constexpr double kNothing_mm = 5e-3;
    const PatchMesh& whole = flat.whole ? flat.whole->patch : flat.patch;
    std::vector<Polyline2> edges;
    for (const auto* loops : {&flat.patch.loops, &flat.patch.rims})
        for (const std::vector<int>& loop : *loops) {
            Polyline2& edge = edges.emplace_back();
            for (const int v : loop) edge.push_back(flat.patch.chart[static_cast<std::size_t>(v)]);
        }
    for (Polygon2& opening : carried(flat.patch, flat.patch.chart, flat.openings)) {
        opening.push_back(opening.front());
        edges.push_back(std::move(opening));
    }
    std::vector<double> lifts = bendingLifts_mm(whole, edges, laid);
    report.bend_mm = lifts.empty() ? 0 : *std::max_element(lifts.begin(), lifts.end());
    if (!report.liesFlat) {
        const double share = bridgedShare(report.strainFeasibleMax, laid.strainLimit) * pressedShare(laid);
        const std::vector<double> bridged = liftsOf_mm(whole);
        for (std::size_t v = 0; v < lifts.size(); ++v) {
            const double lift = std::min(share * bridged[v], kMostLift_mm);
            report.lift_mm = std::max(report.lift_mm, lift);
            lifts[v] = std::max(lifts[v], lift);
        }
    }
    if (report.standsOff_mm() < kNothing_mm) return;
    report.lifts_mm = std::move(lifts);
    report.lifted = std::make_shared<const TriangleFinder>(whole.skin, whole.mesh.triangles);
}

}  // namespace

Result<FitReport> judgeFit(const Skin& skin, const FlatPatch& flat, const LaidOn& laid, Laying laying,
                           const std::vector<Probe>& probes, const Task& task) {
    // In one piece: three questions asked at once of the same sheet.
    FitReport report;
    report.vertices = flat.rest.vertexCount;
    const bool cut = flat.patch.open || !flat.patch.rims.empty();
    report.strainMax = cut ? strainWithin(flat.patch.mesh, flat.rest, flat.strains) : flat.strain.max;
    report.strainP95 = flat.strain.p95;
    report.areaRatioMax = flat.strain.areaRatioMax;
    report.strainLimit = laid.strainLimit;

    const auto onSkin = [&](const Vec2& xg) { return skin.at({Side::Left, xg.x(), xg.y()}); };
    const SheetCarrier sheet(flat.patch.pairedWith(flat.map)),
        traced(sideView((flat.whole ? flat.whole->patch : flat.patch).mesh.vertices));
    const SheetMap drawnBy = sheetMapOf(flat);
    std::vector<SurfacePoint> marks;
    std::vector<HeldMark> held;
    for (const SkinPlace& mark : flat.patch.marks) {
        marks.push_back(onSkin(mark));
        const std::optional<SheetPlace> at = drawnBy.at(mark, marks.back());
        held.push_back({at ? *at : sheet.at(marks.back()), marks.back().position});
    }
    const std::shared_ptr<const Borders> borders = flatBorders(flat);
    const bool lips = borders && flat.patch.rims.empty() && flat.openings.empty();
    std::vector<Probe> asked;
    std::vector<SheetPlace> drawn;
    const auto ask = [&](const std::vector<Probe>& places) {
        for (const Probe& probe : places) {
            const std::optional<SheetPlace> at = drawnBy.at(probe.skin, probe.wanted, kRimSlack_mm);
            if (!at) continue;                                               // of another sheet
            if (lips && borders->distance_mm(*at) < kOnTheCut_mm) continue;  // of neither lip
            asked.push_back(probe);
            drawn.push_back(*at);
        }
    };
    ask(probes);
    if (asked.empty()) ask(probeDots(skin, flat.patch.skin));

    // Three questions that do not wait for each other.
    Result<FlatMap> feasible = Task::cancelledError();
    Result<std::vector<LandedProbe>> landed = Task::cancelledError(), tracedLanded = Task::cancelledError();
    forEachInParallel(3, [&](std::size_t question) {
        if (question == 0) feasible = feasibleMap(flat.rest, flat.map, task);
        if (question == 1)
            landed = landProbes(skin, sheet.pairs(), held, asked, drawn, laying, task, borders);
        if (question == 2) tracedLanded = landProbes(skin, traced, marks, asked, laying, task);
    });
    if (!feasible) return feasible.error();
    if (!landed) return landed.error();
    const std::vector<PrincipalStrain> least = strainsOf(flat.rest, *feasible);
    report.strainFeasibleMax =
        std::min(report.strainMax,
                 cut ? strainWithin(flat.patch.mesh, flat.rest, least) : summarize(flat.rest, least).max);
    // A way to lay the sheet before its windows were cut lays the cut one too, and is sooner found among
    // many webs.
    if (report.strainFeasibleMax > laid.strainLimit && flat.whole) {
        const Result<FlatMap> uncut = feasibleMap(flat.whole->rest, flat.whole->map, task);
        if (!uncut) return uncut.error();
        report.strainFeasibleMax = std::min(
            report.strainFeasibleMax, summarize(flat.whole->rest, strainsOf(flat.whole->rest, *uncut)).max);
    }
    report.liesFlat = report.strainFeasibleMax <= laid.strainLimit;
    standOff(flat, laid, report);
    report.landing = landingOf(*landed);
    if (!flat.openings.empty()) {
        // The check takes the lattice for a softer sheet as the map does: what that leaves out is added.
        report.landing.rms_mm = std::hypot(report.landing.rms_mm, kSoftenedOff_mm * report.strainMax);
        report.landing.max_mm += kSoftenedMostOff_mm * report.strainMax;
    }
    report.landed = std::move(*landed);
    if (task.cancelled()) return Task::cancelledError();
    report.tracedKnown = static_cast<bool>(tracedLanded);
    if (tracedLanded) report.traced = landingOf(*tracedLanded);
    return report;
}

}  // namespace nine
