// The flat map by triangles: exact where it should be, blind across borders and slits; and triangles for any
// piece of the plane.
#include <gtest/gtest.h>

#include <map>
#include <random>

#include "base/units.h"
#include "geom/polygon_set.h"
#include "geom/sheet_map.h"
#include "geom/triangulate.h"
#include "tests/support.h"

namespace nine {
namespace {

using test::need;

constexpr double kRadius = 20;

/// The point of a sphere below a place of the map that keeps distances from its middle.
SurfacePoint under(const Vec2& flat) {
    const double m = flat.norm(), t = m / kRadius, c = m > 0 ? std::sin(t) / m : 1 / kRadius;
    const Vec3 n(c * flat.x(), c * flat.y(), std::cos(t));
    return {kRadius * n, n};
}

Polygon2 boxOf(const Vec2& low, const Vec2& high) {
    return {low, {high.x(), low.y()}, high, {low.x(), high.y()}};
}

Polygon2 reversed(Polygon2 ring) {
    std::reverse(ring.begin(), ring.end());
    return ring;
}

struct Flat {
    SheetMesh mesh;
    std::vector<Vec2> chart;
    FlatMap map;
};
/// The sphere's map on a mesh.
Flat azimuthal(const PlaneMesh& plane) {
    Flat flat{{{}, plane.triangles}, plane.points, plane.points};
    for (const Vec2& p : plane.points) flat.mesh.vertices.push_back(under(p));
    return flat;
}

double meshArea(const PlaneMesh& mesh) {
    double sum = 0;
    for (const Triangle& t : mesh.triangles) {
        const auto at = [&](std::size_t k) { return mesh.points[static_cast<std::size_t>(t[k])]; };
        const double area = polygonArea({at(0), at(1), at(2)});
        EXPECT_GT(area, 0);
        sum += area;
    }
    return sum;
}

TEST(Triangulate, FillsTheOutlineAndLeavesHolesOpen) {
    const PlanePiece piece{
        boxOf({0, 0}, {30, 20}), {reversed(boxOf({5, 5}, {9, 12})), reversed(boxOf({15, 3}, {20, 9}))}, {}};
    const PlaneMesh mesh = need(triangulate(piece, 1));
    EXPECT_NEAR(meshArea(mesh), 600 - 28 - 30, 1e-9);
    const auto loops = borderLoops(mesh.triangles, mesh.points);
    ASSERT_EQ(loops.size(), 3u);
    const auto ring = [&](std::size_t k) {
        Polygon2 out;
        for (const int v : loops[k]) out.push_back(mesh.points[static_cast<std::size_t>(v)]);
        return out;
    };
    EXPECT_NEAR(polygonArea(ring(0)), 600, 1e-9);
    EXPECT_NEAR(polygonArea(ring(1)) + polygonArea(ring(2)), -58, 1e-9);
    // Edges are about as long as asked, and no triangle is a needle: area over the square of the longest
    // side.
    double sum = 0;
    int edges = 0;
    for (const Triangle& t : mesh.triangles) {
        double longest = 0;
        Polygon2 corners;
        for (std::size_t k = 0; k < 3; ++k) {
            corners.push_back(mesh.points[static_cast<std::size_t>(t[k])]);
            const double edge =
                (mesh.points[static_cast<std::size_t>(t[(k + 1) % 3])] - corners.back()).norm();
            longest = std::max(longest, edge);
            sum += edge;
            ++edges;
        }
        EXPECT_GT(polygonArea(corners) / (longest * longest), 0.15);
    }
    EXPECT_NEAR(sum / edges, 1, 0.15);
}

TEST(Triangulate, ASlitHasTwoLipsAndItsEndOne) {
    // From the left border to the middle; one that lies inside altogether; and one with a corner.
    const PlanePiece piece{boxOf({0, 0}, {30, 20}),
                           {},
                           {{{0, 10}, {12, 10}}, {{18, 4}, {26, 4}}, {{20, 20}, {20, 15}, {25, 12}}}};
    const PlaneMesh mesh = need(triangulate(piece, 1));
    EXPECT_NEAR(meshArea(mesh), 600, 1e-9);
    const auto loops = borderLoops(mesh.triangles, mesh.points);
    ASSERT_EQ(loops.size(), 2u);  // two slits run into the outer border, one is a border of its own
    std::map<std::pair<double, double>, int> places;
    for (const Vec2& p : mesh.points) ++places[{p.x(), p.y()}];
    const auto lips = [&](double x, double y) { return places[{x, y}]; };
    EXPECT_EQ(lips(0, 10), 2);   // opens the border
    EXPECT_EQ(lips(12, 10), 1);  // ends
    EXPECT_EQ(lips(18, 4), 1);
    EXPECT_EQ(lips(26, 4), 1);
    EXPECT_EQ(lips(20, 20), 2);
    EXPECT_EQ(lips(20, 15), 2);  // its corner
    EXPECT_EQ(lips(25, 12), 1);
    // No edge of the mesh crosses a slit: triangles on either side share no vertex along it.
    for (const auto& [at, count] : places) {
        if (at.second == 10 && at.first > 0 && at.first < 12) {
            EXPECT_EQ(count, 2) << at.first;
        }
    }
}

/// Against a search over all triangles.
TEST(TriangleFinder, FindsWhatASearchFinds) {
    const PlanePiece piece{
        boxOf({0, 0}, {30, 20}), {reversed(boxOf({5, 5}, {9, 12}))}, {{{0, 15}, {12, 15}}}};
    const PlaneMesh mesh = need(triangulate(piece, 1.3));
    const TriangleFinder finder(mesh.points, mesh.triangles);
    std::mt19937 random(3);
    const auto between = [&](double low, double high) {
        return low + (high - low) * (random() / 4294967296.0);
    };
    int inside = 0;
    for (int i = 0; i < 4000; ++i) {
        const Vec2 p(between(-3, 33), between(-3, 23));
        bool there = false;
        for (const Triangle& t : mesh.triangles) {
            Polygon2 corners;
            for (const int v : t) corners.push_back(mesh.points[static_cast<std::size_t>(v)]);
            there = there || contains(corners, p);
        }
        const auto found = finder.find(p);
        ASSERT_EQ(found.has_value(), there) << p.transpose();
        if (!found) continue;
        ++inside;
        Vec2 back = Vec2::Zero();
        for (std::size_t k = 0; k < 3; ++k) {
            EXPECT_GE(found->share[static_cast<Eigen::Index>(k)], -1e-6);
            back += found->share[static_cast<Eigen::Index>(k)] *
                    mesh.points[static_cast<std::size_t>(mesh.triangles[found->triangle][k])];
        }
        EXPECT_LT((back - p).norm(), 1e-9);
    }
    EXPECT_GT(inside, 1500);
}

TEST(SheetMap, CarriesAsTheExactMapOfASphere) {
    const Flat flat = azimuthal(need(triangulate({boxOf({-10, -10}, {10, 10}), {}, {}}, 0.7)));
    const SheetMap sheet(flat.mesh, flat.chart, flat.map);
    double worst = 0;
    for (double x = -9.9; x < 10; x += 0.37) {
        for (double y = -9.9; y < 10; y += 0.41) {
            const auto at = sheet.at({x, y}, under({x, y}));
            ASSERT_TRUE(at);
            worst = std::max(worst, (*at - Vec2(x, y)).norm());
        }
    }
    EXPECT_LT(worst, 2e-3);
    for (std::size_t v = 0; v < flat.chart.size(); ++v)
        EXPECT_LT((*sheet.at(SkinPlace(flat.chart[v]), flat.mesh.vertices[v]) - flat.map[v]).norm(), 1e-9);
    EXPECT_FALSE(sheet.at({11, 0}, under({11, 0})));
    EXPECT_FALSE(sheet.at({0, -10.5}, under({0, -10.5})));
}

/// One lip of a slit is moved and turned as if it had opened: places beside it go with their own side,
/// exactly as they do where nothing is slit. Blending over the nearest points would pull them across.
TEST(SheetMap, BlendsNothingAcrossASlit) {
    Flat flat = azimuthal(need(triangulate({boxOf({-10, -10}, {10, 10}), {}, {{{-10, 0}, {9, 0}}}}, 0.7)));
    // Which side each vertex belongs to: by its triangles.
    std::vector<int> side(flat.chart.size(), 0);
    for (const Triangle& t : flat.mesh.triangles) {
        double y = 0;
        for (const int v : t) y += flat.chart[static_cast<std::size_t>(v)].y() / 3;
        for (const int v : t) side[static_cast<std::size_t>(v)] += y > 0 ? 1 : -1;
    }
    const Vec2 opened(0.4, 1.1);
    for (std::size_t v = 0; v < flat.map.size(); ++v)
        if (flat.chart[v].x() < 9.0 - 1e-9 &&
            (flat.chart[v].y() > 1e-9 || (std::abs(flat.chart[v].y()) <= 1e-9 && side[v] > 0)))
            flat.map[v] += opened;
    const SheetMap sheet(flat.mesh, flat.chart, flat.map);
    double worst = 0;
    for (double x = -9.8; x < 6.5; x += 0.31) {
        for (const double y : {0.01, 0.1, 0.4, 1.5, -0.01, -0.1, -0.4, -1.5}) {
            const auto at = sheet.at({x, y}, under({x, y}));
            ASSERT_TRUE(at);
            const Vec2 wanted = Vec2(x, y) + (y > 0 ? opened : Vec2(0, 0));
            worst = std::max(worst, (*at - wanted).norm());
        }
    }
    EXPECT_LT(worst, 2e-3);
}

}  // namespace
}  // namespace nine
