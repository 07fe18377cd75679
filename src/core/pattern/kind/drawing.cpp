#include "pattern/kind/drawing.h"

#include <algorithm>
#include <cmath>

#include "base/parallel.h"
#include "base/units.h"
#include "blank/walk.h"
#include "geom/geodesic.h"
#include "pattern/bands.h"
#include "pattern/element.h"
#include "pattern/stroke.h"

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

Result<Outline> drawBlob(const Skin& skin, const Vec2& centre, const std::function<double(double)>& reach,
                         double most_mm, Fineness fineness, const std::string& path) {
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
        if (closed && (middle.position - Vec3(tip, 0, 0)).norm() < most_mm) return overEnd;
    }
    const int count = rimPoints(most_mm, steps);
    const double step = 2 * kPi / count;
    Vec3 ahead = Vec3::UnitX() - middle.normal.x() * middle.normal;
    if (ahead.squaredNorm() < 1e-6) ahead = tangentBasis(middle.normal).col(0);
    ahead.normalize();
    const Vec3 up = ahead.cross(middle.normal);
    Outline dot;
    dot.centre = centre;
    for (int i = 0; i < count; ++i) {
        const Vec3 direction = std::cos(step * i) * ahead + std::sin(step * i) * up;
        const SurfacePoint p =
            shootGeodesic(skin, middle, direction, {std::max(1e-3, reach(step * i))}, steps.shoot_mm)[0];
        if (!(p.position.x() > skin.noseX_mm() && p.position.x() < skin.tailX_mm())) {
            return overEnd;
        }
        dot.points.push_back(p);
        const SkinPoint at = skin.locateNear(p.position, centre.y());
        if (!skin.check({Side::Left, at.x_mm, at.g_mm}, path)) return overEnd;
        dot.skin.emplace_back(at.x_mm, at.g_mm);
    }
    return dot;
}

Result<Outline> drawDisc(const Skin& skin, const Vec2& centre, double radius_mm, Fineness fineness,
                         const std::string& path) {
    const double step = 2 * kPi / rimPoints(radius_mm, artSteps(fineness));
    const double reach = radius_mm * std::sqrt(step / std::sin(step));
    return drawBlob(
        skin, centre, [reach](double) { return reach; }, radius_mm, fineness, path);
}

double ovalReach_mm(double along_mm, double across_mm, double lean_rad, double direction_rad) {
    const double angle = direction_rad + lean_rad;
    return along_mm * across_mm / std::hypot(across_mm * std::cos(angle), along_mm * std::sin(angle));
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

Result<Vec2> placeFrom(const Skin& skin, const Vec2& from, const Vec2& by_mm, const std::string& path) {
    const double g = from.y() + by_mm.y();
    if (Status ok = skin.check({Side::Left, from.x(), g}, path); !ok) return ok.error();
    const Result<double> x = walkAlong(skin, from.x(), g, by_mm.x(), path);
    if (!x) return x.error();
    if (Status ok = skin.check({Side::Left, *x, g}, path); !ok) return ok.error();
    return Vec2(*x, g);
}

Result<Polygon2> shapeFrom(const Skin& skin, const Vec2& from, const Polygon2& shape_mm, double edge_mm,
                           const std::string& path) {
    Polygon2 ring;
    const PolygonSet fine = subdivided({shape_mm}, edge_mm);
    for (const Vec2& by : fine.front()) {
        const Result<Vec2> at = placeFrom(skin, from, by, path);
        if (!at) return at.error();
        ring.push_back(*at);
    }
    return ring;
}

Result<PolygonSet> withBridges(const DrawOn& on, PolygonSet rings, double width_mm) {
    constexpr double kIntoSheet_mm = 0.25;  // a bridge reaches so far into what it joins
    if (width_mm <= 0) return rings;
    PolygonSet strips;
    for (const Polygon2& hole : rings) {
        if (polygonArea(hole) >= 0) continue;
        double least = 1e300;
        Vec2 from = hole.front(), to = hole.front();
        for (const Polygon2& other : rings) {
            if (polygonArea(other) <= 0 || !contains(other, hole.front())) continue;
            for (const Vec2& a : hole) {
                for (const Vec2& b : other) {
                    if ((a - b).squaredNorm() >= least) continue;
                    least = (a - b).squaredNorm();
                    from = a;
                    to = b;
                }
            }
        }
        if (least >= 1e300 || least < 1e-12) continue;
        const Vec2 way = (to - from).normalized() * kIntoSheet_mm;
        const Result<Spine> spine = spineOf(on.skin, {from - way, to + way}, 0.3, on.path);
        if (!spine) continue;  // at the very edge of the skin: the sheet is there
        const StrokeShape strip{evenWidth(width_mm), StrokeEnd::Square, StrokeEnd::Square, {}};
        const Result<PolygonSet> cut = strokeRings(on.skin, *spine, strip, on.fineness, on.path);
        if (cut) strips.insert(strips.end(), cut->begin(), cut->end());
    }
    return strips.empty() ? rings : withoutSlivers(subtracted(rings, united(strips)), kSliverOfCut_mm);
}

std::vector<std::pair<std::string_view, Vec2>> placesOfRow(const std::vector<Vec2>& centres) {
    std::vector<std::pair<std::string_view, Vec2>> places;
    if (centres.empty()) return places;
    places.emplace_back("first", centres.front());
    if (centres.size() > 2) places.emplace_back("middle", centres[centres.size() / 2]);
    if (centres.size() > 1) places.emplace_back("last", centres.back());
    return places;
}

void spreadRow(Element& element, double by_mm) {
    const double count = element.values.number("count");
    if (count > 1)
        element.values.set("spacing_mm", element.values.number("spacing_mm") + by_mm / (count - 1));
}

void moveRowStart(Element& element, const Vec2& by_mm) {
    spreadRow(element, -by_mm.x());
    element.dx_mm += by_mm.x();
    element.dg_mm += by_mm.y();
}

HalfGirths::HalfGirths(const Skin& skin) {
    constexpr int kSteps = 400;
    from_mm_ = skin.noseX_mm();
    step_mm_ = skin.length_mm() / kSteps;
    Vec2 last(0, 0);
    for (int k = 0; k <= kSteps; ++k) {
        const double x = std::clamp(from_mm_ + k * step_mm_, skin.noseX_mm() + 1e-6, skin.tailX_mm() - 1e-6);
        const SectionArc arc = skin.arcAt(x);
        back_mm_.push_back(arc.backArc_mm());
        half_mm_.push_back(std::max(1e-6, arc.backArc_mm() + arc.bellyArc_mm()));
        const Vec2 side(x, skin.loft().sectionAt(x).halfWidth_mm);
        along_mm_.push_back(k == 0 ? 0 : along_mm_.back() + (side - last).norm());
        last = side;
    }
}

double HalfGirths::shareAt(double x_mm, double g_mm) const {
    const double at = std::clamp((x_mm - from_mm_) / step_mm_, 0.0, static_cast<double>(half_mm_.size() - 1));
    const std::size_t k = std::min(static_cast<std::size_t>(at), half_mm_.size() - 2);
    const double t = at - static_cast<double>(k);
    const double back = back_mm_[k] + t * (back_mm_[k + 1] - back_mm_[k]);
    const double share = std::abs(back - g_mm) / (half_mm_[k] + t * (half_mm_[k + 1] - half_mm_[k]));
    return share <= 1 ? share : std::max(0.0, 2 - share);  // under the belly and up the other side
}

double HalfGirths::widest_mm() const {
    return *std::max_element(half_mm_.begin(), half_mm_.end());
}

double HalfGirths::skinAlong_mm(double x_mm) const {
    const double at =
        std::clamp((x_mm - from_mm_) / step_mm_, 0.0, static_cast<double>(along_mm_.size() - 1));
    const std::size_t k = std::min(static_cast<std::size_t>(at), along_mm_.size() - 2);
    return along_mm_[k] + (at - static_cast<double>(k)) * (along_mm_[k + 1] - along_mm_[k]);
}

SoftCover roundCover(const Skin& skin, const Vec2& centre, double along_mm, double across_mm, double lean_rad,
                     double soft_mm) {
    // Girth and length about the centre, with what a millimetre of x is of skin there.
    const SurfacePoint at = skin.at({Side::Left, centre.x(), centre.y()});
    const double stretch = 1 / std::max(0.2, std::sqrt(std::max(0.0, 1 - at.normal.x() * at.normal.x())));
    const double reach = std::max(along_mm, across_mm) + soft_mm;
    return [=](double x, double g) {
        const Vec2 by((x - centre.x()) * stretch, g - centre.y());
        const double distance = by.norm();
        if (distance >= reach) return 0.0;
        const double edge = ovalReach_mm(std::max(1e-6, along_mm), std::max(1e-6, across_mm), lean_rad,
                                         std::atan2(by.y(), by.x()));
        const double t = std::clamp((edge + soft_mm - distance) / std::max(1e-6, soft_mm), 0.0, 1.0);
        return t * t * (3 - 2 * t);
    };
}

}  // namespace nine
