// What can be cut and holds, measured by other means than it was made by; and offset bands against GEOS.
#include "pattern/cuttable.h"

#include <gtest/gtest.h>

#include <random>

#include "job/derive.h"
#include "job/job_file.h"
#include "pattern/bands.h"
#include "pattern/features.h"
#include "pattern/kinds.h"
#include "tests/bodies.h"
#include "tests/geos.h"

namespace nine {
namespace {

using namespace test;

Polygon2 box(double x0, double y0, double x1, double y1) {
    return {{x0, y0}, {x1, y0}, {x1, y1}, {x0, y1}};
}

/// Least distance of places on the borders of two openings, tried one by one.
double leastWeb(const PolygonSet& rings) {
    double least = 1e9;
    for (std::size_t i = 0; i < rings.size(); ++i)
        for (std::size_t k = 0; k < i; ++k)
            for (const Vec2& a : rings[i])
                for (const Vec2& b : rings[k]) least = std::min(least, (a - b).norm());
    return least;
}

TEST(Cuttable, OpeningsTooNearAreSetApart) {
    const PolygonSet two = cuttable({box(0, 0, 4, 4), box(4.49, 0.5, 8, 3)}, 0.5);  // not quite apart
    ASSERT_EQ(two.size(), 1u);                                                      // a web of .49 is closed
    // Corner to corner: what closing cannot join without a neck is cut back.
    const PolygonSet corners = cuttable({box(0, 0, 4, 4), box(4.2, 4.2, 8, 8)}, 0.5);
    ASSERT_EQ(corners.size(), 2u);
    EXPECT_GE(leastWeb(subdivided(corners, 0.02)), 0.49);
    EXPECT_GT(area(corners), 16 + 3.8 * 3.8 - 0.6);
    // What is broad and far apart is as it was but for its corners.
    const PolygonSet apart = cuttable({box(0, 0, 4, 4), box(5, 0, 8, 3)}, 0.5);
    EXPECT_NEAR(area(apart), 25 - 8 * (1 - kPi / 4) * 0.0625, 0.08);
}

TEST(Cuttable, NecksAndSpecksAreTakenAway) {
    const PolygonSet dumbbell =
        united({box(0, 0, 4, 4), box(3.9, 1.9, 6.1, 2.2)}, {box(6, 0, 10, 4), box(20, 0, 20.3, 3)});
    ASSERT_EQ(dumbbell.size(), 2u);
    const PolygonSet clean = cuttable(dumbbell, 0.5);
    ASSERT_EQ(clean.size(), 2u);  // the neck and the strip beside are gone
    EXPECT_NEAR(area(clean), 32, 0.15);
    for (const Polygon2& ring : clean) EXPECT_GE(narrowestPart_mm({ring}, 2), 0.5);
    // A strip of sheet that reaches into an opening is closed.
    const PolygonSet slit = subtracted({box(0, 0, 6, 6)}, {box(2.8, -1, 3.1, 4)});
    EXPECT_NEAR(area(cuttable(slit, 0.5)), 36, 0.3);
    EXPECT_EQ(cuttable({}, 0.5).size(), 0u);
}

TEST(Cuttable, IslandsStayWithTheOpeningRoundThem) {
    PolygonSet rings = subtracted({box(0, 0, 12, 12)}, {box(2, 2, 10, 10)});
    rings.push_back(box(4, 4, 8, 8));
    EXPECT_NEAR(area(cuttable(rings, 0.5)), 144 - 64 + 16, 0.3);
}

/// What keeping clear of a mark leaves of a field is mended too.
TEST(Cuttable, AFieldThatKeepsClearHolds) {
    const Skin tube = cylinder(12, 90);
    Element dots;
    dots.id = "dots";
    dots.kind = "dot_row";
    dots.values = usualValues(*findKind("dot_row"));
    dots.values.set("count", 16.0);
    dots.dx_mm = 12;
    dots.dg_mm = 6;
    const ElementArt row = need(drawElement(tube, {}, dots, ""));
    Element tracks;
    tracks.id = "tracks";
    tracks.kind = "tracks";
    tracks.values = usualValues(*findKind("tracks"));
    tracks.clear_mm = 0.2;
    DrawWith with;
    with.clearOf = {&row};
    const Features fine = featuresOf(need(drawElement(tube, {}, tracks, "", Fineness::Cut, with)));
    EXPECT_GE(fine.narrowest_mm, 0.5);
    EXPECT_GE(fine.web_mm, 0.5);
}

/// The six patterns that ship with the program: everything cut by chance or from another mark holds.
TEST(Cuttable, NothingInTheExamplesIsFinerThanABladeCuts) {
    for (const char* name : {"dock65-grayling", "reed118-burbot", "sedge60-brook-char", "sedge60-ruffe",
                             "sorrel70-bittern", "willow104-smelt"}) {
        const Job job = need(loadJob(example(std::string(name) + ".nineleaves.json"))).job;
        Derivations derived;
        int mended = 0;
        for (std::size_t i = 0; i < job.get<PatternChapter>().elements.size(); ++i) {
            const Element& e = *job.get<PatternChapter>().elements[i];
            const ArtPtr art = need(derived.art(job, i));
            if (!art->cut) continue;
            mended += findKind(e.kind)->isMended(e.values) ? 1 : 0;
            const Features fine = featuresOf(*art);
            EXPECT_GE(fine.narrowest_mm, 0.5) << name << " " << e.id;
            EXPECT_TRUE(fine.web_mm == 0 || fine.web_mm >= 0.5) << name << " " << e.id << fine.web_mm;
        }
        EXPECT_TRUE(mended > 0 || std::string(name) == "willow104-smelt") << name;
    }
}

#ifdef NINE_HAVE_GEOS
using BandsGeos = Geos;

TEST_F(BandsGeos, BandsOnACylinderAreTheirsInThePlane) {
    const Skin tube = cylinder(12, 90);
    std::mt19937 random(20262);
    std::uniform_real_distribution<double> radius(3, 6);
    for (int round = 0; round < 12; ++round) {
        SCOPED_TRACE("seed 20262 round " + std::to_string(round));
        Polygon2 ragged;
        for (int i = 0; i < 40; ++i) {
            const double a = 2 * kPi * i / 40, r = radius(random);
            ragged.push_back(Vec2(45 + r * std::cos(a), r * std::sin(a)));
        }
        GEOSGeometry* theirs = polygon(ragged);
        for (const double by : {0.6, -0.4}) {
            PolygonSet ours = need(grown(tube, subdivided({ragged}, 0.1), by, Fineness::Cut, ""));
            GEOSGeometry* band = GEOSBuffer_r(context_, theirs, by, 64);
            double whole = 0;
            GEOSArea_r(context_, band, &whole);
            EXPECT_NEAR(area(ours), whole, 0.01 * whole) << by;
            if (ours.size() == 1 && GEOSGetNumGeometries_r(context_, band) == 1) {
                GEOSGeometry* mine = polygon(ours.front());
                EXPECT_LT(hausdorff(mine, band), 0.06) << by;
                GEOSGeom_destroy_r(context_, mine);
            }
            GEOSGeom_destroy_r(context_, band);
        }
        GEOSGeom_destroy_r(context_, theirs);
    }
}
#endif

}  // namespace
}  // namespace nine
