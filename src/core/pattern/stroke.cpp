#include "pattern/stroke.h"

#include <algorithm>
#include <cmath>

#include "blank/walk.h"
#include "geom/geodesic.h"
#include "pattern/bands.h"
#include "pattern/kind/drawing.h"

namespace nine {
namespace {

constexpr double kLeastHalf_mm = 0.01;
constexpr double kPoint_widths = 2.2;  // how long a pointed end is, in half widths there
constexpr double kPointShare = 0.45;   // of the stroke, at most

Vec2 catmullRom(const Vec2& a, const Vec2& b, const Vec2& c, const Vec2& d, double t) {
    // Knots by the square root of the distance (centripetal); Barry and Goldman's pyramid.
    const auto knot = [](const Vec2& p, const Vec2& q) { return std::sqrt(std::max(1e-9, (q - p).norm())); };
    const double t0 = 0, t1 = t0 + knot(a, b), t2 = t1 + knot(b, c), t3 = t2 + knot(c, d);
    const double at = t1 + t * (t2 - t1);
    const auto mix = [at](const Vec2& p, const Vec2& q, double from, double to) {
        return Vec2(((to - at) * p + (at - from) * q) / (to - from));
    };
    const Vec2 ab = mix(a, b, t0, t1), bc = mix(b, c, t1, t2), cd = mix(c, d, t2, t3);
    return mix(mix(ab, bc, t0, t2), mix(bc, cd, t1, t3), t1, t2);
}

/// Less towards an end that is pointed.
double taper(StrokeEnd end, double from_mm, double half_mm, double length_mm) {
    if (end != StrokeEnd::Pointed) return 1;
    const double reach = std::max(1e-6, std::min(kPoint_widths * 2 * half_mm, kPointShare * length_mm));
    return from_mm >= reach ? 1 : std::sin(0.5 * kPi * from_mm / reach);
}

}  // namespace

Vec3 Spine::ahead(std::size_t place) const {
    const std::size_t before = place > 0 ? place - 1 : 0, after = std::min(place + 1, points.size() - 1);
    const Vec3 chord = points[after].position - points[before].position;
    const Vec3& n = points[place].normal;
    return (chord - chord.dot(n) * n).normalized();
}

Vec2 Spine::placeAt(double s_mm) const {
    const double s = std::clamp(s_mm, 0.0, length_mm());
    const auto above = std::upper_bound(along_mm.begin() + 1, along_mm.end() - 1, s);
    const auto k = static_cast<std::size_t>(above - along_mm.begin());
    const double step = along_mm[k] - along_mm[k - 1];
    const double t = step > 0 ? (s - along_mm[k - 1]) / step : 0;
    return at[k - 1] + t * (at[k] - at[k - 1]);
}

std::size_t Spine::nearest(double s_mm) const {
    const auto above = std::lower_bound(along_mm.begin(), along_mm.end(), s_mm);
    if (above == along_mm.end()) return along_mm.size() - 1;
    const auto k = static_cast<std::size_t>(above - along_mm.begin());
    return k > 0 && s_mm - along_mm[k - 1] < along_mm[k] - s_mm ? k - 1 : k;
}

Result<Spine> spineOf(const Skin& skin, const std::vector<Vec2>& places, double step_mm,
                      const std::string& path) {
    Spine spine;
    for (std::size_t i = 0; i < places.size(); ++i) {
        const int pieces =
            i == 0 ? 1
                   : std::max(
                         1, static_cast<int>(std::ceil((places[i] - places[i - 1]).norm() / step_mm - 1e-6)));
        for (int k = 1; k <= pieces; ++k) {
            const Vec2 p =
                i == 0 ? places[0] : Vec2(places[i - 1] + (places[i] - places[i - 1]) * k / pieces);
            if (Status ok = skin.check({Side::Left, p.x(), p.y()}, path); !ok) return ok.error();
            const SurfacePoint point = skin.at({Side::Left, p.x(), p.y()});
            const double length = spine.points.empty() ? 0 : arcLength_mm(spine.points.back(), point);
            if (!spine.points.empty() && length < 1e-9) continue;
            spine.along_mm.push_back(spine.length_mm() + length);
            spine.at.push_back(p);
            spine.points.push_back(point);
        }
    }
    if (spine.at.size() < 2)
        return Error{"off_body", NINE_WORDS("core", "A line needs two places that differ."), path};
    return spine;
}

std::vector<Vec2> smoothThrough(const std::vector<Vec2>& places, bool closed, double step_mm) {
    const auto n = static_cast<std::ptrdiff_t>(places.size());
    if (n < 3) return places;
    const auto at = [&](std::ptrdiff_t i) -> Vec2 {
        if (closed) return places[static_cast<std::size_t>((i % n + n) % n)];
        if (i < 0) return 2 * places.front() - places[1];
        if (i >= n) return 2 * places.back() - places[static_cast<std::size_t>(n - 2)];
        return places[static_cast<std::size_t>(i)];
    };
    std::vector<Vec2> line;
    for (std::ptrdiff_t i = 0; i < (closed ? n : n - 1); ++i) {
        const int pieces = std::max(2, static_cast<int>(std::ceil((at(i + 1) - at(i)).norm() / step_mm)));
        for (int k = 0; k < pieces; ++k)
            line.push_back(catmullRom(at(i - 1), at(i), at(i + 1), at(i + 2), double(k) / pieces));
    }
    if (!closed) line.push_back(places.back());
    return line;
}

Result<Spine> spineThrough(const Skin& skin, const std::vector<Vec2>& places, double step_mm,
                           const std::string& path) {
    return spineOf(skin, smoothThrough(places, false, step_mm), step_mm, path);
}

Result<Spine> spineAlong(const Skin& skin, const Vec2& from, double length_mm, double rise_mm, double bow_mm,
                         double step_mm, const std::string& path) {
    const int pieces = std::max(2, static_cast<int>(std::ceil(length_mm / step_mm)));
    std::vector<double> distances;
    for (int k = 0; k <= pieces; ++k) distances.push_back(length_mm * k / pieces);
    const auto rise = [&](double s) {
        const double t = s / length_mm;
        return rise_mm * t + bow_mm * 4 * t * (1 - t);
    };
    const Result<std::vector<Vec2>> line = walkLine(skin, from.x(), from.y(), rise, distances, path);
    if (!line) return line.error();
    return spineOf(skin, *line, 4 * step_mm, path);
}

Result<Spine> spineAcross(const Skin& skin, const Vec2& at, double fromG_mm, double toG_mm, double bow_mm,
                          double lean_mm, double step_mm, const std::string& path) {
    const int pieces = std::max(2, static_cast<int>(std::ceil(std::abs(toG_mm - fromG_mm) / step_mm)));
    std::vector<Vec2> line;
    for (int k = 0; k <= pieces; ++k) {
        const double t = static_cast<double>(k) / pieces, g = (1 - t) * fromG_mm + t * toG_mm;
        const double along = bow_mm * 4 * t * (1 - t) + lean_mm * t;
        if (Status ok = skin.check({Side::Left, at.x(), g}, path); !ok) return ok.error();
        const Result<double> x = walkAlong(skin, at.x(), g, along, path);
        if (!x) return x.error();
        line.emplace_back(*x, g);
    }
    return spineOf(skin, line, 4 * step_mm, path);
}

Result<Spine> spineOnMiddle(const Skin& skin, double x_mm, double length_mm, bool back, double step_mm,
                            const std::string& path) {
    const auto middle = [&](double x) {
        const SectionArc arc = skin.arcAt(x);
        return back ? arc.backArc_mm() : -arc.bellyArc_mm();
    };
    const int pieces = std::max(2, static_cast<int>(std::ceil(length_mm / step_mm)));
    std::vector<Vec2> line{{x_mm, middle(x_mm)}};
    for (int k = 1; k <= pieces; ++k) {
        // A step along the line itself, not along a line of even height over the axis.
        const Vec2 from = line.back();
        const Result<double> ahead = walkAlong(skin, from.x(), 0.999 * from.y(), length_mm / pieces, path);
        if (!ahead) return ahead.error();
        line.emplace_back(*ahead, middle(*ahead));
    }
    return spineOf(skin, line, 4 * step_mm, path);
}

StrokeEnd strokeEndOf(const std::string& id) {
    return id == "square" ? StrokeEnd::Square : id == "pointed" ? StrokeEnd::Pointed : StrokeEnd::Round;
}

HalfWidth evenWidth(double width_mm) {
    return [width_mm](double) { return 0.5 * width_mm; };
}

HalfWidth threeWidths(double start_mm, double middle_mm, double end_mm, double least_mm) {
    return [=](double t) {
        const double w =
            start_mm * (1 - t) * (1 - 2 * t) + middle_mm * 4 * t * (1 - t) + end_mm * t * (2 * t - 1);
        return 0.5 * std::max(least_mm, w);
    };
}

Result<PolygonSet> strokeRings(const Skin& skin, const Spine& spine, const StrokeShape& shape,
                               Fineness fineness, const std::string& path) {
    // In one piece: down the right side, round the end, back along the left side, round the start.
    const ArtSteps steps = artSteps(fineness);
    const double length = spine.length_mm();
    const auto half = [&](std::size_t i, bool left) {
        const double s = spine.along_mm[i], t = s / length;
        const double w = (left || !shape.right ? shape.half : shape.right)(t);
        return std::max(kLeastHalf_mm,
                        w * taper(shape.start, s, w, length) * taper(shape.end, length - s, w, length));
    };
    Polygon2 ring;
    const auto walk = [&](std::size_t i, double angle, double reach) -> Status {
        const Vec3 ahead = spine.ahead(i), left = ahead.cross(spine.points[i].normal);
        const SurfacePoint p =
            shootGeodesic(skin, spine.points[i], std::cos(angle) * ahead + std::sin(angle) * left, {reach},
                          steps.shoot_mm)[0];
        if (!(p.position.x() > skin.noseX_mm() && p.position.x() < skin.tailX_mm()))
            return Error{
                "off_body",
                NINE_WORDS("core",
                           "A stroke reaches over an end of the body; make it shorter or narrower, or "
                           "move it."),
                path};
        const SkinPoint at = skin.locateNear(p.position, spine.at[i].y());
        if (Status ok = skin.check({Side::Left, at.x_mm, at.g_mm}, path); !ok) return ok;
        ring.emplace_back(at.x_mm, at.g_mm);
        return Done{};
    };
    const auto cap = [&](std::size_t i, bool atEnd) -> Status {
        const double l = half(i, true), r = half(i, false);
        const double from = atEnd ? -0.5 * kPi : 0.5 * kPi;
        const int pieces = std::max(
            4, static_cast<int>(std::ceil(
                   kPi /
                   (2 * std::acos(std::max(0.5, 1 - steps.chord_mm / std::max({steps.chord_mm, l, r})))))));
        for (int k = 1; k < pieces; ++k) {
            const double t = static_cast<double>(k) / pieces;
            const double reach = atEnd ? (1 - t) * r + t * l : (1 - t) * l + t * r;
            if (Status ok = walk(i, from + kPi * t, reach); !ok) return ok;
        }
        return Done{};
    };
    const std::size_t last = spine.at.size() - 1;
    for (std::size_t i = 0; i <= last; ++i)
        if (Status ok = walk(i, -0.5 * kPi, half(i, false)); !ok) return ok.error();
    if (shape.end == StrokeEnd::Round)
        if (Status ok = cap(last, true); !ok) return ok.error();
    for (std::size_t i = last + 1; i-- > 0;)
        if (Status ok = walk(i, 0.5 * kPi, half(i, true)); !ok) return ok.error();
    if (shape.start == StrokeEnd::Round)
        if (Status ok = cap(0, false); !ok) return ok.error();
    return subdivided(unitedByWinding({ring}), 2 * steps.edge_mm);
}

Result<std::vector<Outline>> drawStroke(const Skin& skin, const Spine& spine, const StrokeShape& shape,
                                        Fineness fineness, const std::string& path) {
    const Result<PolygonSet> rings = strokeRings(skin, spine, shape, fineness, path);
    if (!rings) return rings.error();
    return outlinesOf(skin, *rings);
}

}  // namespace nine
