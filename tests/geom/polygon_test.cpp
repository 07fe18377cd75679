#include <random>

#include "base/units.h"
#include "geom/polygon_set.h"
#include "geom/stroke_font.h"
#include "tests/support.h"

#include "tests/geos.h"

namespace nine {
namespace {

Polygon2 regular(const Vec2& centre, double r, int corners) {
    Polygon2 p;
    for (int i = 0; i < corners; ++i) {
        const double a = 2 * kPi * i / corners;
        p.push_back(centre + r * Vec2(std::cos(a), std::sin(a)));
    }
    return p;
}

/// A star-shaped polygon with a ragged edge.
Polygon2 ragged(std::mt19937& random, const Vec2& centre, double r) {
    std::uniform_real_distribution<double> radius(0.4 * r, r);
    Polygon2 p;
    for (int i = 0; i < 40; ++i) {
        const double a = 2 * kPi * i / 40;
        p.push_back(centre + radius(random) * Vec2(std::cos(a), std::sin(a)));
    }
    return p;
}

TEST(PolygonSet, ClosedForms) {
    const Polygon2 square{{0, 0}, {4, 0}, {4, 2}, {0, 2}};
    EXPECT_DOUBLE_EQ(polygonArea(square), 8);
    EXPECT_DOUBLE_EQ(perimeter(square), 12);
    EXPECT_NEAR((centroid(square) - Vec2(2, 1)).norm(), 0, 1e-12);
    // A square grown by r: its area, its sides times r, and a circle (Steiner's formula).
    EXPECT_NEAR(area(offset({square}, 1.5, 0.0005)), 8 + 12 * 1.5 + kPi * 1.5 * 1.5,
                5e-3);  // arcs are chords within 0.0005 mm
    EXPECT_NEAR(area(offset({square}, -0.5)), 3 * 1, 1e-6);
    EXPECT_TRUE(offset({square}, -1.1).empty());
    const Polygon2 shifted{{3, 1}, {7, 1}, {7, 3}, {3, 3}};
    EXPECT_NEAR(area(intersected({square}, {shifted})), 1, 1e-9);
    EXPECT_NEAR(area(united({square}, {shifted})), 15, 1e-9);
    EXPECT_NEAR(area(subtracted({square}, {shifted})), 7, 1e-9);
}

TEST(PolygonSet, ContainsAndDistance) {
    const Polygon2 hexagon = regular({0, 0}, 2, 6);
    EXPECT_TRUE(contains(hexagon, {0, 0}));
    EXPECT_TRUE(contains(hexagon, {2, 0}));
    EXPECT_FALSE(contains(hexagon, {2.001, 0}));
    EXPECT_NEAR(borderDistance(hexagon, regular({5, 0}, 2, 6)), 1, 1e-12);
    EXPECT_EQ(borderDistance(hexagon, regular({1, 0}, 2, 6)), 0);
}

#ifdef NINE_HAVE_GEOS
using test::Geos;

TEST_F(Geos, AgreesOnRaggedPolygons) {
    const unsigned seed = 20261;
    std::mt19937 random(seed);
    for (int round = 0; round < 50; ++round) {
        SCOPED_TRACE("seed " + std::to_string(seed) + " round " + std::to_string(round));
        const Polygon2 a = ragged(random, {0, 0}, 10), b = ragged(random, {4, 3}, 8);
        GEOSGeometry *ga = polygon(a), *gb = polygon(b);
        EXPECT_NEAR(area(united({a}, {b})), areaOf(GEOSUnion_r(context_, ga, gb)), 1e-3);
        EXPECT_NEAR(area(intersected({a}, {b})), areaOf(GEOSIntersection_r(context_, ga, gb)), 1e-3);
        EXPECT_NEAR(area(subtracted({a}, {b})), areaOf(GEOSDifference_r(context_, ga, gb)), 1e-3);
        EXPECT_NEAR(area(offset({a}, 0.3, 0.0005)), areaOf(GEOSBuffer_r(context_, ga, 0.3, 64)), 0.02);
        EXPECT_NEAR(area(offset({a}, -0.3, 0.0005)), areaOf(GEOSBuffer_r(context_, ga, -0.3, 64)), 0.02);
        double distance = 0;
        const Polygon2 far = ragged(random, {25, 3}, 8);
        GEOSGeometry* gf = polygon(far);
        GEOSDistance_r(context_, ga, gf, &distance);
        EXPECT_NEAR(borderDistance(a, far), distance, 1e-12);
        for (GEOSGeometry* g : {ga, gb, gf}) GEOSGeom_destroy_r(context_, g);
    }
}
#endif

TEST(Polygons, TheNarrowestPartOfShapesWithKnownWidths) {
    const auto oval = [](double a, double b) {
        Polygon2 p;
        for (int i = 0; i < 120; ++i) p.push_back({a * std::cos(i * kPi / 60), b * std::sin(i * kPi / 60)});
        return p;
    };
    EXPECT_NEAR(narrowestPart_mm({oval(0.3, 0.3)}, 2), 0.6, 0.06);
    EXPECT_NEAR(narrowestPart_mm({oval(0.1, 0.1)}, 2), 0.2, 0.03);
    const double slim = narrowestPart_mm({oval(1.2, 0.4)}, 2);  // its ends are narrower than its middle
    EXPECT_TRUE(slim > 0.45 && slim <= 0.8) << slim;
    EXPECT_NEAR(narrowestPart_mm({{{0, 0}, {9, 0}, {9, 0.7}, {0, 0.7}}}, 2), 0.7, 0.03);
    // Two squares joined by a neck: the neck.
    const PolygonSet joined =
        united({{{0, 0}, {3, 0}, {3, 3}, {0, 3}}, {{2.9, 1}, {5.1, 1}, {5.1, 1.4}, {2.9, 1.4}}},
               {{{5, 0}, {8, 0}, {8, 3}, {5, 3}}});
    EXPECT_NEAR(narrowestPart_mm(joined, 2), 0.4, 0.05);
    EXPECT_EQ(narrowestPart_mm({oval(4, 4)}, 2), 2);
}

TEST(StrokeFont, KeepsToItsHeightAndWidth) {
    const double height = 3;
    for (const char* text : {"SEDGE 60 L", "0123456789", "NOSE"}) {
        const Box2 box = boxAround(strokeText(text, height));
        EXPECT_NEAR(box.size().y(), height, 0.05 * height) << text;  // round letters overshoot a little
        EXPECT_LE(box.high.x(), strokeTextWidth_mm(text, height)) << text;
        EXPECT_GE(box.low.x(), 0) << text;
    }
    EXPECT_NEAR(strokeTextWidth_mm("AB", 2), strokeTextWidth_mm("A", 2) + strokeTextWidth_mm("B", 2), 1e-12);
    EXPECT_TRUE(strokeText(" ", 3).empty());
}

TEST(StrokeFont, DrawsSomethingForEveryPrintableCharacterAndAnyBytes) {
    for (char c = 33; c < 127; ++c) EXPECT_FALSE(strokeText(std::string(1, c), 3).empty()) << c;
    // Accented letters lose their accents; other scripts become one question mark a character.
    EXPECT_EQ(strokeTextWidth_mm("\xC3\x84\xC3\xB6", 3), strokeTextWidth_mm("Ao", 3));
    EXPECT_EQ(strokeTextWidth_mm("\xE9\xAD\x9A", 3), strokeTextWidth_mm("?", 3));
    EXPECT_NO_FATAL_FAILURE(strokeText("\xC3", 3));
    EXPECT_NO_FATAL_FAILURE(strokeText("\xFF\xFE\x80", 3));
}

}  // namespace
}  // namespace nine
