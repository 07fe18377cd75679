#include "blank/measure.h"
#include "blank/walk.h"
#include "geom/polygon_set.h"
#include "pattern/art.h"
#include "tests/bodies.h"
#include "tests/elements.h"

namespace nine {
namespace {

using namespace test;

const Landmarks kMarks{{"eye", {{{9.5, 4}}, 6, {}}}, {"gill_plate", {{{14, 10}, {17, 0}, {14, -10}}, 0, {}}}};

Element dots(test::DotRow row, double dx = 20, double dg = 1) {
    Element e;
    e.id = "dots";
    e.dx_mm = dx;
    e.dg_mm = dg;
    test::shape(e, row);
    return e;
}

/// Area of an outline on a cylinder, where x and g are the sheet itself.
double flatArea(const Outline& outline) {
    return polygonArea(outline.skin);
}

TEST(DotRow, DotsOnACylinderAreCirclesOfTheAskedSize) {
    const Skin tube = cylinder(9, 60);
    const ElementArt art = need(drawElement(tube, {}, dots({6, 4, 3, 1, 0}), "e"));
    ASSERT_EQ(art.outlines().size(), 6u);
    for (std::size_t i = 0; i < 6; ++i) {
        const double r = (3 - 2.0 * static_cast<double>(i) / 5) / 2;
        EXPECT_NEAR(flatArea(art.outlines()[i]), kPi * r * r, 2e-4 * kPi * r * r);
        EXPECT_NEAR((art.outlines()[i].centre - Vec2(20 + 4.0 * static_cast<double>(i), 1)).norm(), 0, 1e-5);
        for (std::size_t k = 0; k < art.outlines()[i].skin.size(); ++k) {
            EXPECT_NEAR((art.outlines()[i].skin[k] - art.outlines()[i].centre).norm(), r, kArtChord_mm);
        }
    }
}

TEST(DotRow, CentresAreEvenlySpacedAlongTheSkinOfASteepBody) {
    const Skin skin = sampleSkin("sedge60");
    const ElementArt art = need(drawElement(skin, {}, dots({8, 5, 1, 1, 0}, 3, 2), "e"));
    for (std::size_t i = 1; i < 8; ++i) {
        const Vec2 a = art.outlines()[i - 1].centre, b = art.outlines()[i].centre;
        const double apart =
            need(shortestWay(skin, {Side::Left, a.x(), a.y()}, {Side::Left, b.x(), b.y()})).length_mm;
        EXPECT_NEAR(apart, 5, 0.02);  // the row is a line of constant g, a little longer than the geodesic
        EXPECT_LE(apart, 5 + 1e-6);
    }
    EXPECT_LT(art.outlines()[1].centre.x() - art.outlines()[0].centre.x(),
              4.5);  // on the nose 5 mm of skin is less of x
}

TEST(DotRow, BowLiftsTheMiddleAndKeepsTheEnds) {
    const ElementArt art = need(drawElement(cylinder(9, 60), {}, dots({5, 4, 1, 1, 2}), "e"));
    EXPECT_NEAR(art.outlines()[0].centre.y(), 1, 1e-9);
    EXPECT_NEAR(art.outlines()[2].centre.y(), 3, 1e-9);
    EXPECT_NEAR(art.outlines()[4].centre.y(), 1, 1e-9);
}

TEST(Dot, RimIsAtTheRadiusAlongTheSkin) {
    const Skin skin = sampleSkin("sedge60");
    const ElementArt art = need(drawElement(skin, {}, dots({1, 4, 3, 3, 0}, 12, 6), "e"));
    const Outline& dot = art.outlines()[0];
    for (std::size_t k = 0; k < dot.skin.size(); k += 5) {
        const Vec2 p = dot.skin[k];
        EXPECT_NEAR(
            need(shortestWay(skin, {Side::Left, dot.centre.x(), dot.centre.y()}, {Side::Left, p.x(), p.y()}))
                .length_mm,
            1.5, kArtChord_mm);
    }
    EXPECT_GT(flatArea(dot), 0);  // counter-clockwise
}

TEST(Bars, WidthIsMeasuredAlongTheSkinAtEveryHeight) {
    const Skin tube = cylinder(9, 60);
    Element e;
    e.id = "bars";
    e.dx_mm = 15;
    test::shape(e, test::Bars{4, 6, 3, 1, -4, 8});
    const ElementArt art = need(drawElement(tube, {}, e, "e"));
    ASSERT_EQ(art.outlines().size(), 4u);
    for (const Outline& bar : art.outlines()) EXPECT_NEAR(flatArea(bar), 12 * (3 + 1) / 2.0, 1e-4);
    EXPECT_NEAR(art.outlines()[3].centre.x(), 15 + 18, 1e-5);
    EXPECT_NEAR(art.low.y(), -4, 1e-9);
    EXPECT_NEAR(art.high.y(), 8, 1e-9);
}

TEST(Anchor, PointsAndCurvesAreMeasuredFrom) {
    const Skin tube = cylinder(9, 60);
    Element e = dots({1, 4, 1, 1, 0}, 5, 2);
    e.anchor = "eye";
    EXPECT_NEAR((need(originOf(tube, kMarks, e, "e")) - Vec2(14.5, 6)).norm(), 0, 1e-6);
    e.anchor = "gill_plate";  // the parabola 17 - 3 (g / 10)^2: 16.88 at height 2
    EXPECT_NEAR((need(originOf(tube, kMarks, e, "e")) - Vec2(21.88, 2)).norm(), 0, 2e-3);
    e.anchor = "fin";
    const Error error = originOf(tube, kMarks, e, "e").error();
    EXPECT_EQ(error.code, "unknown_landmark");
    EXPECT_NE(error.text().find("gill_plate"), std::string::npos);  // says what there is
}

/// Measured from elsewhere, the mark stays where it is: on a steep body too, where x is not the skin's
/// length.
TEST(Anchor, AnotherOneLeavesTheOriginWhereItIs) {
    const Skin egg = spheroid(14, 30);
    const Landmarks marks{{"eye", {{{9, 4}}, 6, {}}}, {"gill_plate", {{{14, 8}, {17, 0}, {14, -8}}, 0, {}}}};
    Element e = dots({1, 4, 1, 1, 0}, 24, 3);
    for (const char* anchor : {"eye", "gill_plate", "", "gill_plate", "eye", ""}) {
        e = need(reanchored(egg, marks, e, anchor, "e"));
        EXPECT_EQ(e.anchor, anchor);
        EXPECT_LT((need(originOf(egg, marks, e, "e")) - Vec2(24, 3)).norm(), 0.03) << anchor;
    }
    EXPECT_EQ(reanchored(egg, marks, e, "fin", "e").error().code, "unknown_landmark");
}

TEST(Element, WrongNumbersAreNamed) {
    const auto where = [](const Element& e) { return checkElement(e, "p").error().where; };
    EXPECT_EQ(where(dots({0, 4, 1, 1, 0})), "p.count");
    EXPECT_EQ(where(dots({5, 0, 1, 1, 0})), "p.spacing_mm");
    EXPECT_EQ(where(dots({5, 4, -1, 1, 0})), "p.first_mm");
    EXPECT_EQ(where(dots({5, 4, 1, std::nan(""), 0})), "p.last_mm");
    Element bars;
    test::shape(bars, test::Bars{3, 5, 1, 1, 4, 4});
    EXPECT_EQ(where(bars), "p.g1_mm");
}

TEST(Element, OffTheBodyIsSaid) {
    const Skin skin = sampleSkin("sedge60");
    EXPECT_EQ(drawElement(skin, {}, dots({20, 6, 1, 1, 0}), "e").error().code, "off_body");
    EXPECT_EQ(drawElement(skin, {}, dots({2, 4, 30, 30, 0}, 8, 0), "e").error().code, "off_body");
}

TEST(Element, DoubtsAreWarnedOf) {
    const Skin skin = sampleSkin("sedge60");
    EXPECT_EQ(need(drawElement(skin, {}, dots({3, 1, 2, 2, 0}), "e")).warnings[0].code, "windows_merge");
    Element over;
    over.dx_mm = 30;
    test::shape(over, test::Bars{1, 5, 2, 2, 0, 30});
    EXPECT_EQ(need(drawElement(skin, {}, over, "e")).warnings[0].code, "crosses_midline");
    over.linked = false;  // on one side only it may cross
    EXPECT_TRUE(need(drawElement(skin, {}, over, "e")).warnings.empty());
}

Element gill(test::GillMark mark) {
    Element e;
    e.id = "gill";
    e.anchor = "gill_plate";
    e.dx_mm = 1;
    test::shape(e, mark);
    return e;
}

/// On a cylinder x and g are the sheet itself: the crescent's area is that under half a sine wave.
TEST(GillMark, FollowsThePlateAsACrescent) {
    const Skin tube = cylinder(9, 60);
    const Landmarks straight{{"gill_plate", {{{17, 10}, {17, -10}}, 0, {}}}};
    const ElementArt art = need(drawElement(tube, straight, gill({2.5, 0.1, 0.9}), "e"));
    ASSERT_EQ(art.outlines().size(), 1u);
    EXPECT_TRUE(art.passes.size() == 1);
    EXPECT_NEAR(flatArea(art.outlines()[0]), 2.5 * 2 / kPi * 16, 0.02);  // 16 of 20 mm; counter-clockwise
    EXPECT_NEAR((art.low - Vec2(18, -8)).norm(), 0, 1e-5);
    EXPECT_NEAR((art.high - Vec2(20.5, 8)).norm(), 0, 1e-5);
    // A bent plate is followed through its points, without corners.
    const ElementArt bent = need(drawElement(tube, kMarks, gill({2.5, 0, 1}), "e"));
    const auto& ring = bent.outlines()[0].skin;
    for (const Vec2& p : kMarks.at("gill_plate").points) {
        double nearest = 1e9;
        for (const Vec2& q : ring) nearest = std::min(nearest, (q - p - Vec2(1, 0)).norm());
        EXPECT_LT(nearest, 0.25);
    }
    for (std::size_t i = 1; i + 1 < ring.size() / 2; ++i) {
        const Vec2 a = (ring[i] - ring[i - 1]).normalized(), b = (ring[i + 1] - ring[i]).normalized();
        EXPECT_GT(a.dot(b), std::cos(degToRad(12))) << i;
    }
}

TEST(GillMark, TheSecondPassIsTheSameMovedTowardsTheTail) {
    const Skin tube = cylinder(9, 60);
    Element e = gill({2, 0, 1, 0.8});
    const ElementArt art = need(drawElement(tube, kMarks, e, "e"));
    EXPECT_EQ(art.moved_mm(), 0.8);
    ASSERT_EQ(art.outlines().size(), 1u);
    ASSERT_EQ(art.passes.size(), 2u);
    for (std::size_t i = 0; i < art.outlines()[0].skin.size(); ++i)
        EXPECT_NEAR((art.passes[1].outlines[0].skin[i] - art.outlines()[0].skin[i] - Vec2(0.8, 0)).norm(), 0,
                    1e-6);
    // Along the skin, not along the axis, where the body is steep.
    const Skin skin = sampleSkin("sedge60");
    const ElementArt steep = need(drawElement(skin, kMarks, e, "e"));
    const Vec2 a = steep.outlines()[0].skin[4], b = steep.passes[1].outlines[0].skin[4];
    EXPECT_NEAR(need(distanceAlong(skin, a.x(), b.x(), a.y(), "")), 0.8, 1e-4);
}

TEST(GillMark, WrongOnesAreSaid) {
    const Skin tube = cylinder(9, 60);
    const auto error = [&](const Element& e) { return drawElement(tube, kMarks, e, "e").error(); };
    Element loose = gill({});
    loose.anchor.clear();
    loose.dx_mm = 20;
    EXPECT_EQ(error(loose).code, "not_a_curve");
    Element eye = gill({});
    eye.anchor = "eye";
    EXPECT_EQ(error(eye).where, "e.anchor");
    EXPECT_EQ(error(gill({2, 0.5, 0.5})).where, "e.to");
    EXPECT_EQ(error(gill({2, -0.1, 0.9})).where, "e.from");
    EXPECT_EQ(error(gill({2, 0.1, 1.1})).where, "e.to");
    EXPECT_EQ(error(gill({0, 0.1, 0.9})).where, "e.width_mm");
    EXPECT_EQ(error(gill({2, 0.1, 0.9, 5})).where, "e.pair_mm");
    Element far = gill({});
    far.dx_mm = 55;
    EXPECT_EQ(error(far).code, "off_body");
}

}  // namespace
}  // namespace nine
