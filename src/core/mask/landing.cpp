#include "mask/landing.h"

#include <cmath>

#include "base/units.h"
#include "geom/geodesic.h"

namespace nine {
namespace {

constexpr double kProbeRadius_mm = 1.5;
constexpr int kRimPoints = 8;
constexpr double kStep_mm = 0.25;

}  // namespace

Result<std::vector<LandedProbe>> landProbes(const Skin& skin, const SheetCarrier& sheet,
                                            const std::vector<SurfacePoint>& marks,
                                            const std::vector<Probe>& probes, Laying laying,
                                            const Task& task) {
    std::vector<HeldMark> held;
    for (const SurfacePoint& mark : marks) held.push_back({sheet.at(mark), mark.position});
    std::vector<SheetPlace> drawn;
    for (const Probe& probe : probes) drawn.push_back(sheet.at(probe.wanted));
    return landProbes(skin, sheet.pairs(), held, probes, drawn, laying, task);
}

Result<std::vector<LandedProbe>> landProbes(const Skin& skin, const FlatPairs& pairs,
                                            const std::vector<HeldMark>& held,
                                            const std::vector<Probe>& probes,
                                            const std::vector<SheetPlace>& drawn, Laying laying,
                                            const Task& task, std::shared_ptr<const Borders> borders,
                                            LaidSheet::LaidAs how) {
    Result<LaidSheet> laid = LaidSheet::lay(skin, pairs, held, laying, task, std::move(borders), how);
    if (!laid) return laid.error();
    std::vector<LandedProbe> landed;
    landed.reserve(probes.size());
    for (std::size_t i = 0; i < probes.size(); ++i) landed.push_back({probes[i].wanted, laid->at(drawn[i])});
    return landed;
}

Landing landingOf(const std::vector<LandedProbe>& probes) {
    Landing landing;
    for (const LandedProbe& probe : probes) {
        const double miss = probe.miss_mm();
        landing.max_mm = std::max(landing.max_mm, miss);
        landing.rms_mm += miss * miss;
    }
    if (!probes.empty()) landing.rms_mm = std::sqrt(landing.rms_mm / static_cast<double>(probes.size()));
    return landing;
}

std::vector<Probe> probeDots(const Skin& skin, const std::vector<Vec2>& skinPoints) {
    const ScatteredMap patch(skinPoints, std::vector<Vec3>(skinPoints.size(), Vec3::Zero()));
    std::vector<Probe> probes;
    const auto add = [&](const SurfacePoint& p, double g) {
        const SkinPoint at = skin.locateNear(p.position, g);
        if (patch.covers({at.x_mm, at.g_mm})) probes.push_back({p, {at.x_mm, at.g_mm}});
    };
    for (const double s : {0.1, 0.3, 0.5, 0.7, 0.9}) {
        for (const double t : {0.1, 0.5, 0.9}) {
            const Vec2 at = patch.low() + Vec2(s, t).cwiseProduct(patch.high() - patch.low());
            const SkinPoint centrePoint{Side::Left, at.x(), at.y()};
            if (!skin.check(centrePoint, "")) continue;
            const SurfacePoint centre = skin.at(centrePoint);
            add(centre, at.y());
            const auto basis = tangentBasis(centre.normal);
            for (int i = 0; i < kRimPoints; ++i) {
                const double angle = 2 * kPi * i / kRimPoints;
                const Vec3 direction = basis * Vec2(std::cos(angle), std::sin(angle));
                add(shootGeodesic(skin, centre, direction, {kProbeRadius_mm}, kStep_mm)[0], at.y());
            }
        }
    }
    return probes;
}

FlatPairs sideView(const std::vector<SurfacePoint>& points) {
    FlatPairs pairs{{}, points};
    for (const SurfacePoint& p : points) pairs.flat.emplace_back(p.position.x(), p.position.z());
    return pairs;
}

}  // namespace nine
