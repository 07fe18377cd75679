#include "app/leaves/spray/section_scene.h"

#include <algorithm>
#include <cmath>

#include "job/spray_job.h"

namespace nine::app {
namespace {

constexpr int kOutlinePoints = 120;
constexpr double kSheetStep_mm = 0.4;

void addCrossings(const std::vector<Vec2>& ring, double x, std::vector<double>& all) {
    for (std::size_t i = 0; i < ring.size(); ++i) {
        const Vec2 &a = ring[i], &b = ring[(i + 1) % ring.size()];
        if ((a.x() <= x) == (b.x() <= x)) continue;
        all.push_back(a.y() + (b.y() - a.y()) * (x - a.x()) / (b.x() - a.x()));
    }
}

/// g at which closed outlines cross x: openings lie between the first and second, third and fourth ...
std::vector<double> crossingsAt(const std::vector<const ElementArt*>& art, double x) {
    std::vector<double> all;
    for (const ElementArt* element : art)
        for (const Outline& outline : element->outlines()) addCrossings(outline.skin, x, all);
    std::sort(all.begin(), all.end());
    return all;
}

Vec2 flatNormal(const SurfacePoint& p) {
    const Vec2 n(p.normal.y(), p.normal.z());
    return n.norm() > 1e-9 ? Vec2(n.normalized()) : Vec2(1, 0);
}

}  // namespace

Vec2 SectionScene::towardsGun(double angle_rad) const {
    const Vec2 left(-normal.y(), normal.x()), up = left.y() >= 0 ? left : Vec2(-left);
    return std::cos(angle_rad) * normal + std::sin(angle_rad) * up;
}

SectionScene sectionScene(const Skin& skin, const Mask& mask, const std::vector<const ElementArt*>& art,
                          const Vec2& aim) {
    SectionScene scene;
    const double x = std::clamp(aim.x(), skin.noseX_mm(), skin.tailX_mm());
    const SectionArc arc = skin.arcAt(x);
    for (int i = 0; i < kOutlinePoints; ++i) {
        const double g = arc.girth_mm() * i / kOutlinePoints - 2 * arc.bellyArc_mm();
        const Vec2 p = arc.point(g);
        scene.outline.push_back(p);
        scene.low = i == 0 ? p : scene.low.cwiseMin(p);
        scene.high = i == 0 ? p : scene.high.cwiseMax(p);
    }
    const SurfacePoint at = skin.at(arc, x, aim.y(), Side::Left);
    scene.aim = {at.position.y(), at.position.z()};
    scene.normal = flatNormal(at);

    // Sheet lies between the first and second edge, third and fourth ..., of borders and openings together.
    std::vector<double> ends;
    for (const Sheet& sheet : mask.sheets) {
        const PatchMesh& patch = sheet.flat->patch;
        for (const std::vector<int>& loop : patch.loops) {
            Polygon2 ring;
            for (const int v : loop) ring.push_back(patch.skin[static_cast<std::size_t>(v)]);
            addCrossings(ring, x, ends);
        }
    }
    if (ends.empty()) return scene;
    scene.openEdges_mm = crossingsAt(art, x);
    ends.insert(ends.end(), scene.openEdges_mm.begin(), scene.openEdges_mm.end());
    std::sort(ends.begin(), ends.end());
    for (std::size_t i = 0; i + 1 < ends.size(); i += 2) {
        SectionScene::Strip strip;
        const int steps = std::max(1, static_cast<int>(std::ceil((ends[i + 1] - ends[i]) / kSheetStep_mm)));
        for (int k = 0; k <= steps; ++k) {
            const double g = ends[i] + (ends[i + 1] - ends[i]) * k / steps;
            if (!skin.check({Side::Left, x, g}, "")) continue;
            const SurfacePoint p = skin.at(arc, x, g, Side::Left);
            strip.points.emplace_back(p.position.y(), p.position.z());
            strip.normals.push_back(flatNormal(p));
            strip.lift_mm.push_back(liftAt_mm(mask, {x, g}));
        }
        if (strip.points.size() > 1) scene.sheet.push_back(std::move(strip));
    }
    return scene;
}

double nearestG(const Skin& skin, double x_mm, const Vec2& place) {
    const SectionArc arc = skin.arcAt(x_mm);
    double best = 0, nearest = 1e300;
    constexpr int kSteps = 400;
    for (int i = 0; i <= kSteps; ++i) {  // the left half, and as far round as art may go
        const double g = -arc.bellyArc_mm() + (arc.backArc_mm() + arc.bellyArc_mm()) * i / kSteps;
        const double distance = (arc.point(g) - place).squaredNorm();
        if (distance >= nearest) continue;
        nearest = distance;
        best = g;
    }
    return best;
}

}  // namespace nine::app
