// Areas of the plane bounded by closed polygons: sums, differences and offsets.
//
// The one file that wraps the clipping library. Coordinates are scaled once to integers of kGrid_mm, so
// results are exact to that. Polygons need not repeat their first point. Filling is non-zero: holes run the
// other way round.
#pragma once

#include "base/units.h"
#include "geom/vec.h"

namespace nine {

using Polygon2 = Polyline2;
using PolygonSet = std::vector<Polygon2>;

constexpr double kGrid_mm = 1e-5;  // a hundredth of what the finest cutter resolves

/// Signed area, mm^2; positive counter-clockwise.
Figure polygonArea(const Polygon2& polygon);
Figure area(const PolygonSet& set);
/// Centre of area.
Vec2 centroid(const Polygon2& polygon);
/// Of a set whose holes run clockwise; that of its first polygon if nothing is left of it.
Vec2 centroid(const PolygonSet& set);
Figure perimeter(const Polygon2& polygon);

struct Box2 {
    Vec2 low, high;
    Vec2 size() const { return high - low; }
};
/// Box around all points; at least one.
Box2 boxAround(const PolygonSet& lines);
/// How far two boxes stand apart; 0 when they touch. No line of one is nearer to a line of the other.
Figure apart(const Box2& a, const Box2& b);

/// Outer boundaries counter-clockwise, holes clockwise.
PolygonSet united(const PolygonSet& a, const PolygonSet& b = {});
/// Where the rings, taken together, wind round more often counter-clockwise than clockwise. Offset and swept
/// outlines that run over themselves are made whole by this (Chen, McMains: Polygon offsetting by computing
/// winding numbers, ASME DETC2005-85513).
PolygonSet unitedByWinding(const PolygonSet& rings);
PolygonSet intersected(const PolygonSet& a, const PolygonSet& b);
PolygonSet subtracted(const PolygonSet& a, const PolygonSet& b);

/// Grown by `distance_mm` (shrunk if negative) with round corners, to `tolerance_mm`.
PolygonSet offset(const PolygonSet& set, double distance_mm, double tolerance_mm = 0.005);

/// Without corners nearer than that to their neighbour or to the line between their neighbours. Every offset
/// adds corners; repeated ones need this between, or their number doubles each time.
PolygonSet withoutCloseCorners(const PolygonSet& set, double distance_mm);

/// The widest disc that still goes nearly everywhere inside, up to `widest_mm`, to a hundredth of that: how
/// narrow a shape is. An opening by it may lose a fiftieth of the area, so that points that run out to
/// nothing do not count, or a fifth of the disc's square (but a seventh of the area), so that the ends of an
/// oval do not. About 0.2 ms a hundred places.
double narrowestPart_mm(const PolygonSet& shape, double widest_mm);

/// Inside or on the border.
bool contains(const Polygon2& polygon, const Vec2& p);

/// Least distance between the borders of two polygons, 0 where they cross.
Figure borderDistance(const Polygon2& a, const Polygon2& b);

}  // namespace nine
