// How a sheet is laid on: on bodies that unroll every way lands exactly; elsewhere each way has its own
// figure.
#include "mask/mask.h"
#include "tests/bodies.h"

namespace nine {
namespace {

using namespace test;

Landing landed(const Skin& skin, const BandPatch& band, Laying laying) {
    const FlatPatch flat = need(flattenPatch(need(meshPatch(skin, band, 700, "p"))));
    return need(judgeFit(skin, flat, 0.01, laying)).landing;
}

TEST(Laying, EveryWayIsExactOnACylinder) {
    const Skin tube = cylinder(9, 60);
    for (const Laying laying : {Laying::Loose, Laying::FromMidline, Laying::FromTopEdge}) {
        EXPECT_LE(landed(tube, {10, 40, -7, 7}, laying).max_mm, 0.02);
    }
}

TEST(Laying, StickingLandsFartherOffThanLooseOnAFatBody) {
    const Skin fat = sampleSkin("sedge60");
    const BandPatch band{18, 42, -9, 9};
    const double loose = landed(fat, band, Laying::Loose).rms_mm;
    EXPECT_LE(loose, 0.02);
    for (const Laying laying : {Laying::FromMidline, Laying::FromTopEdge}) {
        const double sticking = landed(fat, band, laying).rms_mm;
        EXPECT_GT(sticking, loose);
        EXPECT_LT(sticking, 0.5);  // tried beforehand: .13-.47 on a fat body
    }
}

TEST(Laying, NamesAndWaysBelongTogether) {
    EXPECT_STREQ(applyName(Apply::Loose), "loose");
    EXPECT_EQ(layingOf(Apply::Lateral), Laying::FromMidline);
    EXPECT_EQ(layingOf(Apply::Back), Laying::FromTopEdge);
}

TEST(Materials, LimitsRiseFromPaperToVinylAndIdsAreFound) {
    double before = 0;
    for (const SheetMaterial& m : sheetMaterials()) {
        EXPECT_GE(m.strainLimit, before);
        before = m.strainLimit;
        EXPECT_EQ(findMaterial(m.id)->name, m.name);
    }
    EXPECT_FALSE(findMaterial("jelly"));
}

TEST(Border, FollowsThePatchCounterClockwise) {
    const Skin tube = cylinder(9, 60);
    const FlatPatch flat = need(flattenPatch(need(meshPatch(tube, BandPatch{10, 40, -7, 7}, 700, "p"))));
    const Polygon2 border = bordersOf(flat).front();
    // 30 x 14 mm, less the four rounded corners of 2 mm.
    EXPECT_NEAR(polygonArea(border), 30 * 14 - (4 - kPi) * 4, 0.1);
    const Box2 box = boxAround({border});
    EXPECT_NEAR(box.size().x(), 30, 0.01);
    EXPECT_NEAR(box.size().y(), 14, 0.01);
}

TEST(SideView, IsWhatATracingGives) {
    const Skin tube = cylinder(9, 60);
    const FlatPairs traced = sideView({tube.at({Side::Left, 20, 4.5 * kPi}), tube.at({Side::Left, 20, 0})});
    EXPECT_NEAR(traced.flat[0].y(), 9, 1e-9);  // the back line, a quarter of the girth up, is one radius high
    EXPECT_NEAR(traced.flat[1].y(), 0, 1e-9);
    EXPECT_NEAR(traced.flat[0].x(), 20, 1e-12);
}

}  // namespace
}  // namespace nine
