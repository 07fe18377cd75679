// Marks that reach off the body are brought back by as little as need be.
#include "pattern/fitting.h"
#include "tests/elements.h"

#include "tests/bodies.h"

namespace nine {
namespace {

using namespace test;

Element row(double x, double g, test::DotRow shape) {
    Element e;
    e.id = "row";
    e.dx_mm = x;
    e.dg_mm = g;
    test::shape(e, shape);
    return e;
}

bool lies(const Skin& skin, const Element& e) {
    return static_cast<bool>(drawElement(skin, {}, e, "e"));
}

TEST(BroughtOnto, WhatLiesStaysAsItIs) {
    const Skin skin = sampleSkin("sedge60");
    const Element e = row(20, 3, {5, 4, 2, 2, 0});
    const Element same = need(broughtOnto(skin, {}, e));
    EXPECT_EQ(same.dx_mm, 20);
    EXPECT_EQ(same.dg_mm, 3);
}

/// On a cylinder the last dot's rim may just touch the end: 60 - 4 * 4 - 1 = 43.
TEST(BroughtOnto, ARowOverTheTailIsMovedToTheEdge) {
    const Skin tube = cylinder(9, 60);
    for (const double start : {46.0, 55.0, 59.5, 300.0}) {
        const Element back = need(broughtOnto(tube, {}, row(start, 2, {5, 4, 2, 2, 0})));
        EXPECT_NEAR(back.dx_mm, 43, 0.05) << start;
        EXPECT_EQ(back.dg_mm, 2);
        EXPECT_EQ(test::dotRow(back).count, 5);
        EXPECT_TRUE(lies(tube, back));
    }
    const Element front = need(broughtOnto(tube, {}, row(-5, 2, {5, 4, 2, 2, 0})));
    EXPECT_NEAR(front.dx_mm, 1, 0.05);
}

TEST(BroughtOnto, TooManyBecomeFewerAndTooLargeSmaller) {
    const Skin skin = sampleSkin("sedge60");
    const Element fewer = need(broughtOnto(skin, {}, row(8, 0, {30, 4, 1.5, 1.5, 0})));
    EXPECT_LT(test::dotRow(fewer).count, 30);
    EXPECT_GT(test::dotRow(fewer).count, 5);
    EXPECT_EQ(test::dotRow(fewer).first_mm, 1.5);
    EXPECT_TRUE(lies(skin, fewer));
    const Skin tube = cylinder(9, 30);  // a dot 48 mm wide reaches over both of its ends
    const Element smaller = need(broughtOnto(tube, {}, row(15, 0, {1, 4, 48, 48, 0})));
    EXPECT_LT(test::dotRow(smaller).first_mm, 30);
    EXPECT_TRUE(lies(tube, smaller));
    Element bars;
    bars.id = "bars";
    bars.dx_mm = 30;
    test::shape(bars, test::Bars{3, 5, 2, 2, -90, 90});  // more than once round
    const Element shorter = need(broughtOnto(skin, {}, bars));
    EXPECT_TRUE(lies(skin, shorter));
    EXPECT_LT(test::bars(shorter).g1_mm, 90);
}

TEST(BroughtOnto, WhatNoMovingMendsIsSaid) {
    const Skin skin = sampleSkin("sedge60");
    Element lost = row(5, 0, {3, 4, 1, 1, 0});
    lost.anchor = "fin";
    EXPECT_EQ(broughtOnto(skin, {}, lost).error().code, "unknown_landmark");
    EXPECT_EQ(broughtOnto(skin, {}, row(5, 0, {0, 4, 1, 1, 0})).error().code, "out_of_range");
    Task stopped = Task::make([](double) {});
    stopped.cancel();
    EXPECT_EQ(broughtOnto(skin, {}, row(58, 0, {5, 4, 1, 1, 0}), stopped).error().code, "cancelled");
}

}  // namespace
}  // namespace nine
