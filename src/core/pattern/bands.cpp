#include "pattern/bands.h"

#include <algorithm>
#include <cmath>

#include "base/parallel.h"
#include "geom/geodesic.h"
#include "pattern/kind/drawing.h"

namespace nine {
namespace {

constexpr double kCorner_rad = 0.35;  // sharper turns get an arc
constexpr double kEnds_mm = 0.02;     // art stays so far from the tips, where directions end

Error overTheEdge(const std::string& path) {
    return {"off_body",
            NINE_WORDS("core",
                       "It would reach over an end of the body, or round to the far side; make it smaller or "
                       "move it."),
            path};
}

/// x, g of a place of the surface next to `near`. Nothing when it is no place art may use.
std::optional<Vec2> placeNear(const Skin& skin, const SurfacePoint& p, const Vec2& near) {
    if (!(p.position.x() > skin.noseX_mm() + kEnds_mm && p.position.x() < skin.tailX_mm() - kEnds_mm))
        return std::nullopt;
    const SkinPoint at = skin.locateNear(p.position, near.y());
    if (!skin.check({Side::Left, at.x_mm, at.g_mm}, "")) return std::nullopt;
    return Vec2(at.x_mm, at.g_mm);
}

/// Walks of one ring: from each place in some directions.
struct Ray {
    std::size_t from;
    Vec3 direction;
    double length_mm;
};

/// Where the rays end, in x, g.
Result<Polygon2> walked(const Skin& skin, const Polygon2& ring, const std::vector<SurfacePoint>& points,
                        const std::vector<Ray>& rays, Fineness fineness, const std::string& path) {
    const double step = artSteps(fineness).shoot_mm;
    Polygon2 ends;
    for (const Ray& ray : rays) {
        const SurfacePoint end =
            shootGeodesic(skin, points[ray.from], ray.direction, {std::max(1e-9, ray.length_mm)}, step)[0];
        const std::optional<Vec2> at = placeNear(skin, end, ring[ray.from]);
        if (!at) return overTheEdge(path);
        ends.push_back(*at);
    }
    return ends;
}

std::vector<SurfacePoint> pointsOf(const Skin& skin, const Polygon2& ring) {
    std::vector<SurfacePoint> points;
    points.reserve(ring.size());
    for (const Vec2& p : ring) points.push_back(skin.at({Side::Left, p.x(), p.y()}));
    return points;
}

/// Out of what is solid, across the edge from a to b, at a.
Vec3 outward(const SurfacePoint& a, const Vec3& along) {
    return a.normal.cross(along).normalized();
}

Result<Polygon2> rawOffset(const Skin& skin, const Polygon2& ring, double distance, Fineness fineness,
                           const std::string& path) {
    const std::vector<SurfacePoint> points = pointsOf(skin, ring);
    const std::size_t n = ring.size();
    std::vector<Ray> rays;
    const double chord = artSteps(fineness).chord_mm;
    const double step = 2 * std::acos(std::max(0.5, 1 - chord / std::max(chord, std::abs(distance))));
    for (std::size_t i = 0; i < n; ++i) {
        const SurfacePoint& p = points[i];
        const Vec3 in = p.position - points[(i + n - 1) % n].position;
        const Vec3 out = points[(i + 1) % n].position - p.position;
        if (in.squaredNorm() < 1e-14 || out.squaredNorm() < 1e-14) continue;
        const Vec3 before = outward(p, in), after = outward(p, out);
        // Seen from outside a turn about the normal runs clockwise: at an outer corner it is negative.
        const double turn = std::atan2(p.normal.dot(before.cross(after)), before.dot(after));
        if (std::abs(turn) < kCorner_rad) {
            rays.push_back({i, before + after, std::abs(distance) / std::cos(0.5 * turn)});
        } else if ((turn < 0) == (distance > 0)) {  // the outer side of a corner: an arc about it
            const int pieces = std::max(1, static_cast<int>(std::ceil(std::abs(turn) / step)));
            const Vec3 across = p.normal.cross(before);
            for (int k = 0; k <= pieces; ++k) {
                const double angle = turn * k / pieces;
                rays.push_back({i, std::cos(angle) * before + std::sin(angle) * across, std::abs(distance)});
            }
        } else {  // the inner side: the edges' offsets cross, and what runs over is taken off by its winding
            rays.push_back({i, before, std::abs(distance)});
            rays.push_back({i, after, std::abs(distance)});
        }
    }
    if (distance < 0)
        for (Ray& ray : rays) ray.direction = -ray.direction;
    return walked(skin, ring, points, rays, fineness, path);
}

}  // namespace

PolygonSet ringsOf(const std::vector<Outline>& outlines) {
    PolygonSet rings;
    for (const Outline& outline : outlines) rings.push_back(outline.skin);
    return rings;
}

std::vector<Outline> outlinesOf(const Skin& skin, const PolygonSet& set, double least_mm2) {
    std::vector<const Polygon2*> openings, holes;
    for (const Polygon2& ring : set) {
        const double enclosed = polygonArea(ring);
        if (ring.size() < 3 || std::abs(enclosed) <= least_mm2) continue;
        (enclosed > 0 ? openings : holes).push_back(&ring);
    }
    std::vector<std::vector<const Polygon2*>> within(openings.size());
    for (const Polygon2* hole : holes) {  // of the openings round it the smallest has it
        std::size_t owner = openings.size();
        for (std::size_t i = 0; i < openings.size(); ++i)
            if (contains(*openings[i], hole->front()) &&
                (owner == openings.size() || polygonArea(*openings[i]) < polygonArea(*openings[owner])))
                owner = i;
        if (owner < openings.size()) within[owner].push_back(hole);
    }
    std::vector<Outline> outlines;
    const auto add = [&](const Polygon2& ring, bool hole) {
        Outline outline;
        outline.skin = ring;
        outline.centre = centroid(ring);
        outline.hole = hole;
        outline.points = pointsOf(skin, ring);
        outlines.push_back(std::move(outline));
    };
    for (std::size_t i = 0; i < openings.size(); ++i) {
        add(*openings[i], false);
        for (const Polygon2* hole : within[i]) add(*hole, true);
    }
    return outlines;
}

PolygonSet withoutSlivers(const PolygonSet& rings, double width_mm) {
    // Opened, then given back what lies close to what is left: sharp corners.
    const double half = 0.5 * width_mm;
    PolygonSet broad;
    for (const Polygon2& part : offset(offset(rings, -half), 1.6 * half))
        if (polygonArea(part) > 0) broad.push_back(part);
    const PolygonSet kept = intersected(rings, broad);
    PolygonSet necks;
    for (const Polygon2& thin : subtracted(rings, broad)) {
        if (polygonArea(thin) <= 0) continue;
        // A neck between two broad parts stays, or a hairline of sheet would be left where it was.
        const Box2 box = boxAround({thin});
        int touched = 0;
        for (const Polygon2& part : broad)
            if (apart(box, boxAround({part})) < 2 * kGrid_mm && borderDistance(thin, part) < 2 * kGrid_mm)
                ++touched;
        if (touched > 1) necks.push_back(thin);
    }
    return necks.empty() ? kept : united(kept, offset(necks, 2 * kGrid_mm));
}

PolygonSet subdivided(PolygonSet rings, double edge_mm) {
    for (Polygon2& ring : rings) {
        Polygon2 fine;
        for (std::size_t i = 0; i < ring.size(); ++i) {
            const Vec2 &a = ring[i], &b = ring[(i + 1) % ring.size()];
            const int pieces = std::max(1, static_cast<int>(std::ceil((b - a).norm() / edge_mm - 1e-9)));
            for (int k = 0; k < pieces; ++k) fine.push_back(a + (b - a) * k / pieces);
        }
        ring = std::move(fine);
    }
    return rings;
}

Result<PolygonSet> grown(const Skin& skin, const PolygonSet& rings, double distance_mm, Fineness fineness,
                         const std::string& path) {
    if (distance_mm == 0) return unitedByWinding(rings);
    std::vector<Result<Polygon2>> raw(rings.size(), Result<Polygon2>(Polygon2{}));
    forEachInParallel(rings.size(), [&](std::size_t i) {
        raw[i] = rawOffset(skin, rings[i], distance_mm, fineness, path);
    });
    PolygonSet all;
    for (Result<Polygon2>& ring : raw) {
        if (!ring) return ring.error();
        all.push_back(std::move(*ring));
    }
    return unitedByWinding(all);
}

Result<PolygonSet> moved(const Skin& skin, const PolygonSet& rings, const Vec2& by_mm,
                         const std::string& path) {
    PolygonSet result;
    for (const Polygon2& ring : rings) {
        const std::vector<SurfacePoint> points = pointsOf(skin, ring);
        std::vector<Ray> rays;
        for (std::size_t i = 0; i < ring.size(); ++i) {
            const Vec3& n = points[i].normal;
            Vec3 ahead = Vec3::UnitX() - n.x() * n;
            if (ahead.squaredNorm() < 1e-9) return overTheEdge(path);
            ahead.normalize();
            rays.push_back({i, by_mm.x() * ahead + by_mm.y() * ahead.cross(n), by_mm.norm()});
        }
        Result<Polygon2> ends = walked(skin, ring, points, rays, Fineness::Cut, path);
        if (!ends) return ends.error();
        result.push_back(std::move(*ends));
    }
    return result;
}

Result<PolygonSet> swept(const Skin& skin, const PolygonSet& rings, const Vec2& by_mm,
                         const std::string& path) {
    const Result<PolygonSet> there = moved(skin, rings, by_mm, path);
    if (!there) return there.error();
    // Both places of each ring, and what every edge passes over between them.
    PolygonSet all = unitedByWinding(rings);
    all = united(all, unitedByWinding(*there));
    PolygonSet between;
    for (std::size_t r = 0; r < rings.size(); ++r) {
        const Polygon2 &from = rings[r], &to = (*there)[r];
        for (std::size_t i = 0; i < from.size(); ++i) {
            const std::size_t j = (i + 1) % from.size();
            Polygon2 quad{from[i], from[j], to[j], to[i]};
            if (polygonArea(quad) < 0) std::reverse(quad.begin(), quad.end());
            between.push_back(std::move(quad));
        }
    }
    return united(all, between);
}

}  // namespace nine
