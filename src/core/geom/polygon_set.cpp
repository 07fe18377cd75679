#include "geom/polygon_set.h"

#include <algorithm>
#include <cmath>
#include <limits>
#include <polyclipping/clipper.hpp>

namespace nine {
namespace {

using ClipperLib::Path;
using ClipperLib::Paths;

Path toPath(const Polygon2& polygon) {
    Path path;
    path.reserve(polygon.size());
    for (const Vec2& p : polygon) {
        path.emplace_back(std::llround(p.x() / kGrid_mm), std::llround(p.y() / kGrid_mm));
    }
    return path;
}

Paths toPaths(const PolygonSet& set) {
    Paths paths;
    for (const Polygon2& polygon : set) paths.push_back(toPath(polygon));
    return paths;
}

PolygonSet fromPaths(const Paths& paths) {
    PolygonSet set;
    for (const Path& path : paths) {
        Polygon2 polygon;
        polygon.reserve(path.size());
        for (const auto& p : path) {
            polygon.emplace_back(static_cast<double>(p.X) * kGrid_mm, static_cast<double>(p.Y) * kGrid_mm);
        }
        set.push_back(std::move(polygon));
    }
    return set;
}

PolygonSet combine(ClipperLib::ClipType type, const PolygonSet& a, const PolygonSet& b) {
    ClipperLib::Clipper clipper;
    clipper.AddPaths(toPaths(a), ClipperLib::ptSubject, true);
    clipper.AddPaths(toPaths(b), ClipperLib::ptClip, true);
    Paths result;
    clipper.Execute(type, result, ClipperLib::pftNonZero, ClipperLib::pftNonZero);
    return fromPaths(result);
}

double distanceToSegment(const Vec2& p, const Vec2& a, const Vec2& b) {
    const Vec2 along = b - a;
    const double squared = along.squaredNorm();
    const double t = squared > 0 ? std::clamp((p - a).dot(along) / squared, 0.0, 1.0) : 0.0;
    return (p - a - t * along).norm();
}

}  // namespace

double polygonArea(const Polygon2& polygon) {
    double twice = 0;
    for (std::size_t i = 0; i < polygon.size(); ++i)
        twice += cross(polygon[i], polygon[(i + 1) % polygon.size()]);
    return 0.5 * twice;
}

double area(const PolygonSet& set) {
    double sum = 0;
    for (const Polygon2& polygon : set) sum += polygonArea(polygon);
    return sum;
}

Vec2 centroid(const Polygon2& polygon) {
    Vec2 moment = Vec2::Zero();
    double twice = 0;
    const Vec2 origin = polygon.front();  // keeps digits when the polygon is far from 0,0
    for (std::size_t i = 0; i < polygon.size(); ++i) {
        const Vec2 a = polygon[i] - origin, b = polygon[(i + 1) % polygon.size()] - origin;
        const double c = cross(a, b);
        twice += c;
        moment += c * (a + b);
    }
    return twice == 0 ? origin : Vec2(origin + moment / (3 * twice));
}

Vec2 centroid(const PolygonSet& set) {
    Vec2 moment = Vec2::Zero();
    double whole = 0;
    for (const Polygon2& polygon : set) {
        const double part = polygonArea(polygon);
        whole += part;
        moment += part * centroid(polygon);
    }
    return whole == 0 ? centroid(set.front()) : Vec2(moment / whole);
}

double perimeter(const Polygon2& polygon) {
    double sum = 0;
    for (std::size_t i = 0; i < polygon.size(); ++i)
        sum += (polygon[(i + 1) % polygon.size()] - polygon[i]).norm();
    return sum;
}

Box2 boxAround(const PolygonSet& lines) {
    constexpr double far = std::numeric_limits<double>::infinity();
    Box2 box{Vec2(far, far), Vec2(-far, -far)};
    for (const Polygon2& line : lines) {
        for (const Vec2& p : line) {
            box.low = box.low.cwiseMin(p);
            box.high = box.high.cwiseMax(p);
        }
    }
    return box;
}

double apart(const Box2& a, const Box2& b) {
    return (a.low - b.high).cwiseMax(b.low - a.high).cwiseMax(Vec2::Zero()).norm();
}

PolygonSet united(const PolygonSet& a, const PolygonSet& b) {
    return combine(ClipperLib::ctUnion, a, b);
}
PolygonSet unitedByWinding(const PolygonSet& rings) {
    ClipperLib::Clipper clipper;
    clipper.AddPaths(toPaths(rings), ClipperLib::ptSubject, true);
    Paths result;
    clipper.Execute(ClipperLib::ctUnion, result, ClipperLib::pftPositive, ClipperLib::pftPositive);
    return fromPaths(result);
}
PolygonSet intersected(const PolygonSet& a, const PolygonSet& b) {
    return combine(ClipperLib::ctIntersection, a, b);
}
PolygonSet subtracted(const PolygonSet& a, const PolygonSet& b) {
    return combine(ClipperLib::ctDifference, a, b);
}

PolygonSet offset(const PolygonSet& set, double distance_mm, double tolerance_mm) {
    ClipperLib::ClipperOffset clipper(2, tolerance_mm / kGrid_mm);
    clipper.AddPaths(toPaths(set), ClipperLib::jtRound, ClipperLib::etClosedPolygon);
    Paths result;
    clipper.Execute(result, distance_mm / kGrid_mm);
    return fromPaths(result);
}

PolygonSet withoutCloseCorners(const PolygonSet& set, double distance_mm) {
    Paths paths = toPaths(set);
    ClipperLib::CleanPolygons(paths, distance_mm / kGrid_mm);
    std::erase_if(paths, [](const ClipperLib::Path& path) { return path.size() < 3; });
    return fromPaths(paths);
}

double narrowestPart_mm(const PolygonSet& shape, double widest_mm) {
    constexpr double kMost = 0.15;                   // or a dot would fit any disc
    constexpr double kLost = 0.02, kBluntEnd = 0.2;  // of the area; of the disc's width squared
    constexpr int kHalvings = 7;
    const double whole = area(shape);
    const auto fits = [&](double width) {
        return whole - area(offset(offset(shape, -0.5 * width), 0.5 * width)) <=
               std::max(kLost * whole, std::min(kBluntEnd * width * width, kMost * whole));
    };
    if (fits(widest_mm)) return widest_mm;
    double low = 0, high = widest_mm;
    for (int k = 0; k < kHalvings; ++k) {
        const double middle = 0.5 * (low + high);
        (fits(middle) ? low : high) = middle;
    }
    return low;
}

bool contains(const Polygon2& polygon, const Vec2& p) {
    return ClipperLib::PointInPolygon(toPath({p}).front(), toPath(polygon)) != 0;
}

double borderDistance(const Polygon2& a, const Polygon2& b) {
    double least = std::numeric_limits<double>::infinity();
    for (std::size_t i = 0; i < a.size(); ++i) {
        const Vec2 &a0 = a[i], &a1 = a[(i + 1) % a.size()];
        for (std::size_t j = 0; j < b.size(); ++j) {
            const Vec2 &b0 = b[j], &b1 = b[(j + 1) % b.size()];
            const double sideA = cross(a1 - a0, b0 - a0) * cross(a1 - a0, b1 - a0);
            const double sideB = cross(b1 - b0, a0 - b0) * cross(b1 - b0, a1 - b0);
            if (sideA < 0 && sideB < 0) return 0;
            least = std::min({least, distanceToSegment(a0, b0, b1), distanceToSegment(b0, a0, a1)});
        }
    }
    return least;
}

}  // namespace nine
