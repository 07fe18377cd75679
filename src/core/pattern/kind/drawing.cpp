#include "pattern/kind/drawing.h"

#include <algorithm>
#include <cmath>

#include "base/parallel.h"
#include "base/units.h"
#include "geom/geodesic.h"
#include "pattern/element.h"

namespace nine {
namespace {

int rimPoints(double radius_mm, const ArtSteps& steps) {
    return std::clamp(static_cast<int>(std::ceil(kPi / std::sqrt(2 * steps.chord_mm / radius_mm))),
                      steps.leastRim, 200);
}

}  // namespace

ArtSteps artSteps(Fineness fineness) {
    return fineness == Fineness::Cut ? ArtSteps{0.4, 0.25, kArtChord_mm, 24}
                                     : ArtSteps{1.6, 1, 6 * kArtChord_mm, 12};
}

Result<Outline> drawDisc(const Skin& skin, const Vec2& centre, double radius_mm, Fineness fineness,
                         const std::string& path) {
    const ArtSteps steps = artSteps(fineness);
    const SkinPoint centrePoint{Side::Left, centre.x(), centre.y()};
    if (Status ok = skin.check(centrePoint, path); !ok) return ok.error();
    const SurfacePoint middle = skin.at(centrePoint);
    // A rim round the tip of the body comes back on the other side and would look like a dot there.
    const Error overEnd{
        "off_body",
        NINE_WORDS("core", "A dot reaches over the end of the body; move the row or use fewer dots."), path};
    for (const double tip : {skin.noseX_mm(), skin.tailX_mm()}) {
        const bool closed = tip == skin.noseX_mm() ? skin.loft().noseClosed() : skin.loft().tailClosed();
        if (closed && (middle.position - Vec3(tip, 0, 0)).norm() < radius_mm) return overEnd;
    }
    const int count = rimPoints(radius_mm, steps);
    const double step = 2 * kPi / count;
    const double reach = radius_mm * std::sqrt(step / std::sin(step));
    Vec3 ahead = Vec3::UnitX() - middle.normal.x() * middle.normal;
    if (ahead.squaredNorm() < 1e-6) ahead = tangentBasis(middle.normal).col(0);
    ahead.normalize();
    const Vec3 up = ahead.cross(middle.normal);
    Outline dot;
    dot.centre = centre;
    for (int i = 0; i < count; ++i) {
        const Vec3 direction = std::cos(step * i) * ahead + std::sin(step * i) * up;
        const SurfacePoint p = shootGeodesic(skin, middle, direction, {reach}, steps.shoot_mm)[0];
        if (!(p.position.x() > skin.noseX_mm() && p.position.x() < skin.tailX_mm())) {
            return overEnd;
        }
        dot.points.push_back(p);
        const SkinPoint at = skin.locateNear(p.position, centre.y());
        dot.skin.emplace_back(at.x_mm, at.g_mm);
    }
    return dot;
}

Result<std::vector<Outline>> drawAll(std::size_t count,
                                     const std::function<Result<Outline>(std::size_t)>& draw) {
    std::vector<Result<Outline>> drawn(count, Result<Outline>(Outline{}));
    forEachInParallel(count, [&](std::size_t i) { drawn[i] = draw(i); });
    std::vector<Outline> outlines;
    for (Result<Outline>& outline : drawn) {
        if (!outline) return outline.error();
        outlines.push_back(std::move(*outline));
    }
    return outlines;
}

std::optional<Vec2> firstCentre(const std::vector<Outline>& outlines) {
    if (outlines.empty()) return std::nullopt;
    return outlines.front().centre;
}

std::optional<Vec2> lastCentre(const std::vector<Outline>& outlines) {
    if (outlines.size() < 2) return std::nullopt;
    return outlines.back().centre;
}

std::optional<Vec2> middleCentre(const std::vector<Outline>& outlines) {
    if (outlines.size() < 3) return std::nullopt;
    return outlines[outlines.size() / 2].centre;
}

void spreadRow(Element& element, double by_mm) {
    const double count = element.values.number("count");
    if (count > 1)
        element.values.set("spacing_mm", element.values.number("spacing_mm") + by_mm / (count - 1));
}

}  // namespace nine
