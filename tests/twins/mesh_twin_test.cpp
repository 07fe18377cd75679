// The two meshers of a patch: rows for a band, triangles for any region.
#include <gtest/gtest.h>

#include "job/blank_library.h"
#include "mask/fit.h"
#include "tests/bodies.h"

namespace nine {
namespace {

using test::need;

class Meshers : public testing::TestWithParam<std::size_t> {};

/// The same band of each blank of the demo, meshed both ways. What decides whether a sheet lies is the same
/// within 3 % (seen: 0.2 to 2.6 % at 2000 vertices); the relaxed map's largest strain is that of a single
/// triangle in a corner, where the triangles are finer than the rows.
TEST_P(Meshers, GiveTheSameFigures) {
    const BlankChapter blank = demoBlanks()[GetParam()];
    const Skin skin = need(Skin::of(blank.table));
    const double x0 = skin.noseX_mm() + 0.3 * skin.length_mm(),
                 x1 = skin.noseX_mm() + 0.72 * skin.length_mm();
    const SectionArc arc = skin.arcAt(0.5 * (x0 + x1));
    const BandPatch band{x0, x1, -0.35 * arc.bellyArc_mm(), 0.6 * arc.backArc_mm()};
    const PatchMesh rows = need(meshPatch(skin, band, 2000, "")),
                    triangles = need(meshInTriangles(skin, bandRegion(band), 2000, ""));
    EXPECT_NEAR(static_cast<double>(triangles.skin.size()) / 2000, 1, 0.15);
    EXPECT_NEAR(triangles.across_mm / rows.across_mm, 1, 1e-9);
    EXPECT_NEAR(triangles.along_mm / rows.along_mm, 1, 1e-9);
    EXPECT_NEAR(triangles.turnAcross_rad / rows.turnAcross_rad, 1, 0.02);
    EXPECT_NEAR(triangles.turnAlong_rad / rows.turnAlong_rad, 1, 0.06);
    const auto greatest = [](const std::vector<double>& all) {
        return *std::max_element(all.begin(), all.end());
    };
    EXPECT_NEAR(greatest(liftsOf_mm(triangles)) / greatest(liftsOf_mm(rows)), 1, 0.06);
    const FlatPatch a = need(flattenPatch(rows)), b = need(flattenPatch(triangles));
    const auto feasible = [](const FlatPatch& flat) {
        return summarize(flat.rest, strainsOf(flat.rest, need(feasibleMap(flat.rest, flat.map)))).max;
    };
    EXPECT_NEAR(feasible(b) / feasible(a), 1, 0.03);
    EXPECT_NEAR(b.strain.max / a.strain.max, 1, 0.15);
    EXPECT_NEAR(b.strain.p95 / a.strain.p95, 1, 0.05);
    EXPECT_NEAR(b.rest.area_mm2 / a.rest.area_mm2, 1, 2e-4);
    // Places lie where they lay: the maps carry the same skin to the same place of the sheet.
    const SheetMap byRows = sheetMapOf(a), byTriangles = sheetMapOf(b);
    double worst = 0;
    for (double s = 0.05; s < 1; s += 0.1) {
        for (double t = 0.05; t < 1; t += 0.1) {
            const SkinPlace p(band.x0_mm + s * (band.x1_mm - band.x0_mm),
                              band.g0_mm + t * (band.g1_mm - band.g0_mm));
            const SurfacePoint at = skin.at({Side::Left, p.x(), p.y()});
            worst = std::max(worst, (*byRows.at(p, at) - *byTriangles.at(p, at)).norm());
        }
    }
    EXPECT_LT(worst, 0.02);
}

INSTANTIATE_TEST_SUITE_P(Blanks, Meshers, testing::Range(std::size_t{0}, demoBlanks().size()));

}  // namespace
}  // namespace nine
