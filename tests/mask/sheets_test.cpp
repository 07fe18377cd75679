// Masks of several sheets, sheets with holes and slits, and what is refused.
#include <gtest/gtest.h>

#include <set>

#include "base/units.h"
#include "mask/mask.h"
#include "tests/bodies.h"
#include "tests/elements.h"

namespace nine {
namespace {

using test::cylinder;
using test::need;
using test::sphere;

constexpr double kR = 9;

Polygon2 bandOutline(double x0, double x1, double g0, double g1) {
    return bandRegion({x0, x1, g0, g1}).outer;
}
Polygon2 bandHole(double x0, double x1, double g0, double g1) {
    Polygon2 ring = bandOutline(x0, x1, g0, g1);
    std::reverse(ring.begin(), ring.end());
    return ring;
}

FlatPatch flattened(const Skin& skin, const Region& region, std::vector<SkinPlace> marks = {}) {
    PatchMesh mesh = need(meshPatch(skin, region, 1200, "sheet"));
    if (!marks.empty()) mesh.marks = std::move(marks);
    return need(flattenPatch(std::move(mesh)));
}

/// A cylinder unrolls: whatever is cut into the sheet, every length stays.
TEST(SheetRegion, OnACylinderHolesAndSlitsLieFlatWithoutStretch) {
    const Skin tube = cylinder(kR, 60);
    const Region region{bandOutline(10, 50, -8, 9),
                        {bandHole(20, 25, -2, 3)},
                        {{{{10, 5}, {24, 5}}}, {{{32, -6}, {44, -4}}}}};
    const FlatPatch flat = flattened(tube, region);
    ASSERT_EQ(flat.patch.loops.size(), 3u);  // outline with one slit, the hole, the slit inside
    EXPECT_LT(flat.strain.max, 2e-6);
    EXPECT_NEAR(flat.rest.area_mm2, 40 * 17 - 25, 1e-3);
    for (std::size_t v = 0; v < flat.map.size(); ++v)
        EXPECT_NEAR((flat.map[v] - (flat.patch.skin[v] - Vec2(10, 0.5))).norm(), 0, 2e-3);
    const PolygonSet borders = bordersOf(flat);
    EXPECT_NEAR(polygonArea(borders[1]) + polygonArea(borders[2]), -25, 1e-3);
    const FitReport report = need(judgeFit(tube, flat, 0.01, Laying::Loose));
    EXPECT_TRUE(report.liesFlat);
    EXPECT_LT(report.landing.max_mm, 0.02);
}

/// Gauss and Bonnet on a sphere: a slit lets a cap open; its lips part on the sheet, and the strain falls.
TEST(SheetRegion, ASlitOpensOnASphereAndTakesStrainAway) {
    const Skin ball = sphere(20);
    const Polygon2 outer = bandOutline(10, 30, -10, 10);
    const FlatPatch whole = flattened(ball, {outer, {}, {}}),
                    slit = flattened(ball, {outer, {}, {{{{10, 0}, {20, 0}}}}}, {{12, 4}, {28, 0}});
    EXPECT_LT(slit.strain.max, 0.9 * whole.strain.max);
    // The two lips at the border are two places of the sheet for one of the skin.
    std::vector<Vec2> lips;
    for (std::size_t v = 0; v < slit.map.size(); ++v)
        if ((slit.patch.skin[v] - Vec2(10, 0)).norm() < 1e-9) lips.push_back(slit.map[v]);
    ASSERT_EQ(lips.size(), 2u);
    EXPECT_GT((lips[0] - lips[1]).norm(), 0.3);
    // Art beside either lip goes with its own: carried to the sheet and laid back it comes home.
    const FitReport report = need(judgeFit(ball, slit, 0.01, Laying::Loose));
    EXPECT_LT(report.landing.max_mm, 0.08);
    EXPECT_LT(report.landing.rms_mm, 0.03);
    for (const double g : {-0.2, 0.2}) {
        const Vec2 at = *sheetMapOf(slit).at({13, g}, ball.at({Side::Left, 13, g}));
        const double own = std::min((at - lips[0]).norm(), (at - lips[1]).norm()),
                     other = std::max((at - lips[0]).norm(), (at - lips[1]).norm());
        EXPECT_LT(own, other);
    }
}

/// The check must see a lip that was cut in the wrong place: one lip 0.3 mm off, the other right.
TEST(SheetRegion, AWrongLipIsToldByTheLanding) {
    const Skin tube = cylinder(kR, 60);
    const Region region{bandOutline(10, 50, -8, 9), {}, {{{{10, 0}, {34, 0}}}}};
    const auto landing = [&](double wrong_mm) {
        FlatPatch flat = flattened(tube, region);
        // The upper lip's side, fading out away from the slit and towards its end.
        FlatMap map = flat.map;
        std::vector<int> side(map.size(), 0);
        for (const Triangle& t : flat.rest.triangles) {
            double g = 0;
            for (const int v : t) g += flat.patch.skin[static_cast<std::size_t>(v)].y();
            for (const int v : t) side[static_cast<std::size_t>(v)] += g > 0 ? 1 : -1;
        }
        for (std::size_t v = 0; v < map.size(); ++v) {
            const Vec2 at = flat.patch.skin[v];
            const bool upper = at.y() > 1e-9 || (std::abs(at.y()) <= 1e-9 && side[v] > 0);
            if (!upper || at.x() > 34) continue;
            map[v].x() += wrong_mm * std::max(0.0, 1 - at.y() / 6) * std::min(1.0, (34 - at.x()) / 6);
        }
        flat.map = map;
        std::vector<Probe> probes;
        for (double x = 14; x < 28; x += 2)
            for (const double g : {-0.4, 0.4}) probes.push_back({tube.at({Side::Left, x, g}), {x, g}});
        return need(judgeFit(tube, flat, 0.01, Laying::Loose, probes)).landing;
    };
    EXPECT_LT(landing(0).max_mm, 0.03);
    EXPECT_GT(landing(0.3).max_mm, 0.15);
}

TEST(SheetRegion, WhatIsNoSheetIsRefused) {
    const Skin tube = cylinder(kR, 60);
    const auto code = [&](const Region& region) { return checkRegion(tube, region, "r").error().code; };
    const Polygon2 outer = bandOutline(10, 50, -8, 9);
    EXPECT_EQ(code({{}, {}, {}}), "empty_patch");
    EXPECT_EQ(code({bandOutline(50, 10, -8, 9), {}, {}}), "empty_patch");  // clockwise
    EXPECT_EQ(code({{{10, -8}, {50, 9}, {50, -8}, {10, 9}}, {}, {}}), "empty_patch");
    EXPECT_EQ(code({{{10, -8}, {50, -8}, {12, 9}, {50, 9}, {10, 8}}, {}, {}}), "bad_region");
    EXPECT_EQ(code({bandOutline(10, 50, -28.272, 28.272), {}, {}}), "off_body");
    EXPECT_EQ(code({bandOutline(10, 65, -8, 9), {}, {}}), "off_body");
    EXPECT_EQ(code({outer, {bandHole(45, 55, 0, 2)}, {}}), "bad_region");
    EXPECT_EQ(code({outer, {bandHole(60, 65, 0, 2)}, {}}), "bad_region");
    EXPECT_EQ(code({outer, {bandHole(20, 25, -2, 3)}, {{{{10, 0}, {22, 0}}}}}), "bad_region");
    EXPECT_EQ(code({outer, {}, {{{{10, 0}, {50, 0}}}}}), "bad_region");                         // falls apart
    EXPECT_EQ(code({outer, {}, {{{{10, 0}, {30, 0}}}, {{{20, -5}, {20, 5}}}}}), "bad_region");  // cross
    EXPECT_EQ(code({outer, {}, {{{{10, 0}}}}}), "bad_region");
    EXPECT_EQ(code({outer, {}, {{{{5, 0}, {30, 0}}}}}), "bad_region");
    EXPECT_TRUE(checkRegion(tube, {outer, {bandHole(20, 25, -2, 3)}, {{{{10, 5}, {24, 5}}}}}, "r"));
    EXPECT_EQ(checkRegion(tube, {{}, {}, {}}, "masks.masks[3]").error().where, "masks.masks[3]");
}

TEST(SheetsOfAMask, AMaskOfTwoHasEachWithItsOwnWindowsAndMarks) {
    const Skin tube = cylinder(kR, 60);
    const auto dots = [&](const char* id, double x) {
        Element e;
        e.id = id;
        test::shape(e, test::DotRow{2, 5, 2, 2, 0});
        e.dx_mm = x;
        e.dg_mm = 1;
        return need(drawElement(tube, {}, e, ""));
    };
    const ElementArt fore = dots("fore", 16), aft = dots("aft", 40);
    const std::vector<SheetPlan> plans{
        {bandRegion({10, 28, -6, 8}), {&fore}, {{12, 1}, {26, 1}}},
        {{bandOutline(30, 54, -6, 8), {bandHole(48, 51, 0, 3)}, {}}, {&aft}, {{32, 1}, {44, -4}, {52, -2}}}};
    const Mask mask = need(cutSheets(tube, {}, plans, 0.01, 600, Precision::Exact, "m"));
    ASSERT_EQ(mask.sheets.size(), 2u);
    EXPECT_EQ(mask.sheets[0].windows.size(), 2u);
    EXPECT_EQ(mask.sheets[1].windows.size(), 2u);
    EXPECT_EQ(mask.sheets[0].windows[0].element, "fore");
    EXPECT_EQ(mask.sheets[1].windows[0].element, "aft");
    ASSERT_EQ(mask.sheets[1].marks.size(), 3u);
    EXPECT_EQ(mask.sheets[1].marks[2].name, 'C');
    ASSERT_EQ(mask.sheets[1].holes.size(), 1u);
    EXPECT_NEAR(polygonArea(mask.sheets[1].holes[0]), -9, 1e-3);
    EXPECT_TRUE(mask.sheets[0].holes.empty());
    // A cylinder keeps lengths: marks stand as far apart on the sheet as on the skin.
    EXPECT_NEAR((mask.sheets[1].marks[0].flat - mask.sheets[1].marks[1].flat).norm(), std::hypot(12, 5),
                1e-3);
    const Mask judged = need(judgedMask(tube, {&fore, &aft}, {}, mask));
    EXPECT_GT(judged.sheets[0].report.landed.size(), 10u);
    EXPECT_EQ(judged.sheets[0].report.landed.size(), judged.sheets[1].report.landed.size());
    EXPECT_EQ(judged.report().vertices, judged.sheets[0].report.vertices + judged.sheets[1].report.vertices);
    EXPECT_LT(judged.report().landing.max_mm, 0.02);
    // Drawn side by side they do not touch; mirrored, everything is.
    const std::vector<Vec2> shifts = sideBySide(mask);
    EXPECT_EQ(shifts[0], Vec2(0, 0));
    EXPECT_GT(boxAround({mask.sheets[1].outline}).low.x() + shifts[1].x(),
              boxAround({mask.sheets[0].outline}).high.x());
    const Mask right = mirrored(mask);
    EXPECT_NEAR(polygonArea(right.sheets[1].holes[0]), -9, 1e-3);
    EXPECT_EQ(right.sheets[1].marks[1].flat.x(), -mask.sheets[1].marks[1].flat.x());
}

TEST(SheetsOfAMask, ArtBeyondItsSheetIsRefused) {
    const Skin tube = cylinder(kR, 60);
    Element e;
    e.id = "far";
    test::shape(e, test::DotRow{3, 5, 2, 2, 0});
    e.dx_mm = 30;
    const ElementArt art = need(drawElement(tube, {}, e, ""));
    const auto made = cutSheets(tube, {}, {{bandRegion({10, 31, -6, 8}), {&art}, {{12, 1}, {26, 1}}}}, 0.01,
                                300, Precision::Preview, "masks.masks[0]");
    ASSERT_FALSE(made);
    EXPECT_EQ(made.error().code, "off_sheet");
    EXPECT_EQ(made.error().where, "masks.masks[0]");
    EXPECT_NE(made.error().text().find("far"), std::string::npos);
}

TEST(MaskKinds, AreKnownByTheirIds) {
    std::set<std::string_view> ids;
    for (const MaskKind* kind : maskKinds()) {
        EXPECT_TRUE(ids.insert(kind->id()).second) << kind->id();
        EXPECT_EQ(findMaskKind(kind->id()), kind);
        EXPECT_TRUE(checkValues(kind->params(), usualValues(kind->params()), "m"));
        for (const Param& p : kind->params()) {
            if (!p.isNumber()) continue;
            Values values = usualValues(kind->params());
            for (const double v : {p.low, p.high}) {
                values.set(p.key, v);
                EXPECT_TRUE(checkValues(kind->params(), values, "m"));
            }
            values.set(p.key, p.high + 1);
            EXPECT_EQ(checkValues(kind->params(), values, "m").error().where, "m." + std::string(p.key));
        }
    }
    EXPECT_EQ(findMaskKind("of_later"), nullptr);
    EXPECT_TRUE(findMaskKind(kUsualMaskKind));
}

}  // namespace
}  // namespace nine
