// Slits: against closed forms (curvature of a sphere, developables), against plans found beforehand by
// another program, and against the independent wrap of the sheet as it is cut.
#include "mask/relief.h"

#include <gtest/gtest.h>

#include <numeric>
#include <random>

#include "job/blank_library.h"
#include "mask/mask.h"
#include "mask/material_answer.h"
#include "mask/press.h"
#include "mask/relief_grid.h"
#include "mask/slits_on_sheet.h"
#include "pattern/kinds.h"
#include "tests/bodies.h"

namespace nine {
namespace {

using namespace test;

constexpr double kTape = 0.03, kVinyl = 0.10, kPaper = 0.003, kFilm = 0.005;

Mask cutAndJudged(const Skin& skin, std::vector<SheetPlan> plans, double limit, int vertices = 2000) {
    const Mask mask = need(cutSheets(skin, {}, plans, limit, vertices, Precision::Exact, "m"));
    return need(judgedMask(skin, {}, MaskWish{}, mask));
}

double worstStrain(const Sheet& sheet) {
    double worst = 0;
    for (const PrincipalStrain& s : sheet.flat->strains) worst = std::max(worst, s.worst());
    return worst;
}

/// Gauss: curvature times area, all over a sphere.
TEST(ReliefGrid, HoldsTheCurvatureOfASphere) {
    const double r = 15;
    const Skin ball = sphere(r);
    const ReliefGrid grid(ball, sideStrip(ball, 0.2), 1.0);
    const std::vector<double> at = grid.curvature_rad();
    // Cells whose four corners are inside carry all of their corners' curvature; compared vertex by vertex.
    const RestMesh rest = restMesh(grid.mesh());
    std::vector<double> area(at.size(), 0);
    for (std::size_t t = 0; t < rest.triangles.size(); ++t)
        for (const int v : rest.triangles[t])
            area[static_cast<std::size_t>(v)] += rest.shapes[t].area_mm2 / 3;
    double got = 0, want = 0;
    for (std::size_t v = 0; v < at.size(); ++v) {
        if (at[v] == 0) continue;
        got += at[v];
        want += area[v] / (r * r);
    }
    EXPECT_NEAR(got / want, 1, 0.005);
    EXPECT_GT(want, 1);
}

/// What bends one way only needs no slit, and none changes a length.
TEST(Relief, DevelopablesNeedNoneAndKeepEveryLengthWithSome) {
    const Skin tube = cylinder(9, 60), horn = cone(6, 12, 60);
    for (const Skin* skin : {&tube, &horn}) {
        const Strip strip{10, 50, [](const SectionArc& arc) {
                              return Crossing{-arc.bellyArc_mm(), 0, arc.backArc_mm()};
                          }};
        const ReliefPlan plan = need(planRelief(*skin, strip, kPaper, {}));
        EXPECT_TRUE(plan.slits.empty());
        EXPECT_LT(plan.before, 1e-4);
        const std::vector<Slit> slits{{{{20, -30}, {20, -3}}}, {{{35, 30}, {35, 4}}}};
        const Mask mask = cutAndJudged(*skin, need(slitted({sheetOf(*skin, strip)}, slits, "m")), kPaper);
        const Sheet& sheet = mask.sheets.front();
        ASSERT_EQ(sheet.slits.size(), 2u);
        EXPECT_LT(worstStrain(sheet), 2e-4);
        for (const SlitOnSheet& slit : sheet.slits) {  // nothing to take up: it does not open
            EXPECT_NEAR(slit.mouth_mm, 0, 0.01);
            EXPECT_FALSE(slit.lapped);
            const auto length = [](const Polyline2& lip) {
                double sum = 0;
                for (std::size_t i = 1; i < lip.size(); ++i) sum += (lip[i] - lip[i - 1]).norm();
                return sum;
            };
            EXPECT_NEAR(length(slit.lip), std::abs(slit.skin.line.front().y() - slit.skin.line.back().y()),
                        0.01);
            EXPECT_NEAR(length(slit.lip), length(slit.otherLip), 0.005);
        }
        EXPECT_LT(mask.report().landing.max_mm, 0.02);
    }
}

/// Globe gores: of a sphere cut into strips from pole to pole, the flat width at each latitude is that of the
/// sphere, R cos(latitude) times the strip's longitude (polyconic gores; Snyder 1987, USGS PP 1395, p. 124).
TEST(Relief, StripsOfASphereAreGlobeGores) {
    const double r = 20;
    const Skin ball = sphere(r);
    const int strips = 6;  // of one side: 30 degrees of longitude each
    const double turn = kPi / strips;
    const Strip gore{ball.noseX_mm() + 4, ball.tailX_mm() - 4, [&](const SectionArc& arc) {
                         const double half = 0.5 * arc.girth_mm() / (2 * strips);
                         return Crossing{-half, 0, half};
                     }};
    const Mask mask = cutAndJudged(ball, {sheetOf(ball, gore)}, kTape, 1500);
    const FlatPatch& flat = *mask.sheets.front().flat;
    for (const double x : {8.0, 14.0, 20.0, 27.0, 33.0}) {
        const double latitude = std::asin((x - r) / r), wide = r * std::cos(latitude) * turn;
        const SheetMap map = sheetMapOf(flat);
        const double g = 0.5 * wide - 1e-6;
        const auto low = map.at(SkinPlace(x, -g), ball.at({Side::Left, x, -g}), 0.05);
        const auto high = map.at(SkinPlace(x, g), ball.at({Side::Left, x, g}), 0.05);
        ASSERT_TRUE(low && high) << x;
        EXPECT_NEAR((*high - *low).norm() / wide, 1, 0.01) << x;
    }
}

/// Plans found beforehand by a prototype of its own (half side, from 5 to 95 % of the length).
TEST(Relief, AsManySlitsAsAPrototypeFound) {
    struct Expected {
        const char* blank;
        int fewest, most;
    };
    for (const Expected& e : {Expected{"sedge60", 4, 6},
                              {"dock65", 1, 4},
                              {"willow104", 0, 0},
                              {"reed118", 0, 0},
                              {"sorrel70", 0, 0}}) {
        const Skin skin = sampleSkin(e.blank);
        const ReliefPlan tape = need(planRelief(skin, sideStrip(skin), kTape, {}));
        EXPECT_TRUE(tape.lies) << e.blank;
        EXPECT_LE(tape.reached, kTape) << e.blank;
        EXPECT_GE(static_cast<int>(tape.slits.size()), e.fewest) << e.blank;
        EXPECT_LE(static_cast<int>(tape.slits.size()), e.most) << e.blank;
        EXPECT_LE(tape.widestMouth_mm, kWidestMouth_mm) << e.blank;
        EXPECT_LE(need(planRelief(skin, sideStrip(skin), kVinyl, {})).slits.size(), 1u) << e.blank;
    }
    const Skin fat = sampleSkin("sedge60");
    const MaterialAnswer paper = need(answerOf(fat, sideStrip(fat), kPaper, {}));
    EXPECT_GT(paper.how, MaterialAnswer::How::Slits);
}

/// The plan is made on a grid of its own; here the sheet is meshed by triangles, cut, and wrapped by springs.
TEST(Relief, TheSlitSheetLiesAndLands) {
    const Skin skin = sampleSkin("sedge60");
    const Strip strip = sideStrip(skin);
    const ReliefPlan plan = need(planRelief(skin, strip, kTape, {}));
    const std::vector<SheetPlan> sheets = need(slitted({sheetOf(skin, strip)}, plan.slits, "m"));
    const FitReport held = cutAndJudged(skin, sheets, kTape).report();
    EXPECT_TRUE(held.liesFlat);
    EXPECT_NEAR(held.strainFeasibleMax, plan.reached, 0.1 * plan.reached);
    EXPECT_LE(held.landing.rms_mm, 0.03);
    EXPECT_LE(held.landing.max_mm, 0.08);
    // Without a mark at the free end of each panel it swings.
    std::vector<SheetPlan> loose = sheets;
    loose.front().marks = {sheets.front().marks.front(), sheets.front().marks.back()};
    EXPECT_GE(sheets.front().marks.size(), loose.front().marks.size() + 6);
    EXPECT_GT(cutAndJudged(skin, loose, kTape).report().landing.max_mm, 0.15);
    // And plain it does not lie at all.
    EXPECT_FALSE(cutAndJudged(skin, {sheetOf(skin, strip)}, kTape).report().liesFlat);
}

TEST(Relief, WedgesOpenAndAreLapped) {
    const Skin skin = sampleSkin("sedge60");
    const Strip strip = sideStrip(skin);
    const std::vector<Slit> slits{{{{30, 40}, {30, 6}}}};
    const Mask mask = cutAndJudged(skin, need(slitted({sheetOf(skin, strip)}, slits, "m")), kTape, 1200);
    const Sheet& sheet = mask.sheets.front();
    ASSERT_EQ(sheet.slits.size(), 1u);
    const SlitOnSheet& slit = sheet.slits.front();
    EXPECT_GT(slit.mouth_mm, 2);
    EXPECT_TRUE(slit.lapped);
    // A place beyond the first lip by less than the lap is sheet, by more it is not; beside the other none
    // is. (a fifth of the way in, where the wedge is still wider than the lap and its room)
    const std::size_t k = slit.lip.size() / 5;
    ASSERT_GT((slit.otherLip[k] - slit.lip[k]).norm(), kLap_mm + 2 * kLapRoom_mm);
    const Vec2 along = (slit.lip[k + 1] - slit.lip[k - 1]).normalized();
    const Vec2 across(along.y(), -along.x());
    EXPECT_GT(across.dot(slit.otherLip[k] - slit.lip[k]), 0);
    EXPECT_TRUE(contains(sheet.outline, slit.lip[k] + 0.8 * kLap_mm * across));
    EXPECT_FALSE(contains(sheet.outline, slit.lip[k] + 1.3 * kLap_mm * across));
    const Vec2 back = (slit.otherLip[k + 1] - slit.otherLip[k - 1]).normalized();
    EXPECT_FALSE(contains(sheet.outline, slit.otherLip[k] - 0.2 * kLap_mm * Vec2(back.y(), -back.x())));
    // Panels meet at the border: their corners are not rounded off there.
    EXPECT_TRUE(contains(sheet.outline, slit.otherLip.front() + 0.02 * (slit.otherLip[1] - slit.otherLip[0]) +
                                            0.02 * Vec2(back.y(), -back.x())));
}

/// Random windows on random fat bodies: slits keep away from them, from one another, and inside the sheet.
TEST(Relief, KeepsOffWhatItMustNotTouch) {
    for (const unsigned seed : {11u, 12u, 13u, 14u}) {
        SCOPED_TRACE("seed " + std::to_string(seed));
        std::mt19937 chance(seed);
        const auto between = [&](double a, double b) { return a + (b - a) * (chance() / 4294967296.0); };
        const Skin skin = spheroid(between(12, 16), between(28, 34));
        const Strip strip = sideStrip(skin, 0.06);
        ReliefWish wish;
        for (int i = 0; i < 9; ++i) {
            const double x = between(0.2, 0.8) * skin.length_mm(), r = between(0.8, 2);
            const double g = between(-0.6, 0.6) * skin.arcAt(x).backArc_mm();
            Polygon2 ring;
            for (int k = 0; k < 24; ++k)
                ring.emplace_back(x + r * std::cos(k * kPi / 12), g + r * std::sin(k * kPi / 12));
            wish.keepOff.push_back(std::move(ring));
        }
        const ReliefPlan plan = need(planRelief(skin, strip, kTape, wish));
        EXPECT_LT(plan.reached, plan.before);
        EXPECT_FALSE(plan.slits.empty());
        const Region cut = withSlits(regionOf(skin, strip), plan.slits);
        EXPECT_TRUE(checkRegion(skin, cut, "cut"));
        constexpr double kGridStep_mm = 1.1;  // windows are known to the grid by its vertices
        for (std::size_t i = 0; i < cut.slits.size(); ++i) {
            const Polyline2& line = cut.slits[i].line;
            for (const Polygon2& ring : wish.keepOff)
                for (int k = 0; k <= 50; ++k) {
                    const Vec2 p = line.front() + k / 50.0 * (line.back() - line.front());
                    EXPECT_GT(borderDistance({p}, ring), kKeptOff_mm - kGridStep_mm) << i;
                    EXPECT_FALSE(contains(ring, p)) << i;
                }
            for (std::size_t j = 0; j < i; ++j) {
                const bool sameEdge = (cut.slits[j].line.front().y() > 0) == (line.front().y() > 0);
                if (!sameEdge) continue;
                EXPECT_GE(std::abs(cut.slits[j].line.front().x() - line.front().x()), kSlitsApart_mm - 0.01);
            }
        }
    }
}

TEST(Relief, ThePaintersOwnSlitsStay) {
    const Skin skin = sampleSkin("sedge60");
    // Two millimetres beside where one would be cut: both together would leave a panel nobody can handle.
    double x = 0;
    for (const Slit& slit : need(planRelief(skin, sideStrip(skin), kTape, {})).slits)
        if (slit.line.front().y() > 0) x = slit.line.front().x() + 2;
    ASSERT_GT(x, 0);
    ReliefWish wish;
    wish.kept = {{{{x, 30}, {x, 8}}, true}};
    const ReliefPlan plan = need(planRelief(skin, sideStrip(skin), kTape, wish));
    ASSERT_FALSE(plan.slits.empty());
    EXPECT_EQ(plan.slits.front(), wish.kept.front());
    for (std::size_t i = 1; i < plan.slits.size(); ++i) {
        const Vec2 mouth = plan.slits[i].line.front();
        if (mouth.y() <= 0) continue;
        EXPECT_GE(std::abs(mouth.x() - x), kSlitsApart_mm - 0.01);
    }
    EXPECT_LT(plan.reached, plan.before);
}

TEST(Relief, AGivenNumberAndCancelling) {
    const Skin skin = sampleSkin("sedge60");
    ReliefWish wish;
    for (const int count : {2, 3, 6}) {
        wish.exactly = count;
        EXPECT_EQ(static_cast<int>(need(planRelief(skin, sideStrip(skin), kTape, wish)).slits.size()), count);
    }
    Task stopped = Task::make({});
    stopped.cancel();
    EXPECT_EQ(planRelief(skin, sideStrip(skin), kTape, {}, stopped).error().code, "cancelled");
}

TEST(Slits, AreLedOnToTheBorderOrCutOffThere) {
    const Region band = bandRegion({10, 30, -8, 8});
    const Region far = withSlits(band, {{{{20, 5}, {20, 1}}}});  // mouth inside: led on
    EXPECT_NEAR(far.slits.front().line.front().y(), 8, 1e-9);
    const Region beyond = withSlits(band, {{{{20, 14}, {20, 1}}}});
    EXPECT_NEAR(beyond.slits.front().line.front().y(), 8, 1e-9);
    EXPECT_NEAR(beyond.slits.front().line.back().y(), 1, 1e-9);
    EXPECT_EQ(beyond.outer.size(), 5u);
    const Region slanted = withSlits(band, {{{{10, 12}, {18, 2}}}});
    EXPECT_NEAR(slanted.slits.front().line.front().x(), 13.2, 1e-9);
}

TEST(Slits, WrongOnesAreTold) {
    const Skin skin = sampleSkin("sedge60");
    const Strip strip = sideStrip(skin);
    EXPECT_EQ(slitted({sheetOf(skin, strip)}, {{{{200, 20}, {200, 4}}}}, "m").error().code, "slit_lost");
    // Two that cross each other.
    const std::vector<SheetPlan> crossing =
        need(slitted({sheetOf(skin, strip)}, {{{{20, 30}, {34, 2}}}, {{{34, 30}, {20, 2}}}}, "m"));
    EXPECT_EQ(cutSheets(skin, {}, crossing, kTape, 800, Precision::Exact, "m").error().code, "bad_region");
    // Through to the other edge: the sheet would fall apart.
    const std::vector<SheetPlan> through =
        need(slitted({sheetOf(skin, strip)}, {{{{30, 30}, {30, -22.5}}}}, "m"));
    Region apart = through.front().region;
    apart.slits.front().line.back() = Vec2(30, -60);
    EXPECT_EQ(checkRegion(skin, apart, "m").error().code, "bad_region");
    // Through a window.
    Element dots;
    dots.id = "dots";
    dots.kind = "dot_row";
    dots.values = usualValues(*findKind("dot_row"));
    dots.dx_mm = 20;
    const ElementArt art = need(drawElement(skin, {}, dots, "e"));
    const Vec2 dot = centroid(Polygon2(art.outlines().front().skin));
    const Status told =
        slitted({sheetOf(skin, strip, {&art})}, {{{{dot.x(), 30}, {dot.x(), dot.y() - 3}}}}, "m").error();
    ASSERT_FALSE(told);
    EXPECT_EQ(told.error().code, "slit_crosses_window");
    EXPECT_NE(told.error().text().find("dots"), std::string::npos);
}

/// The longest one of film is as wide as pieces may be.
TEST(Answers, PiecesAndStripsLieEachByItself) {
    const Skin skin = sampleSkin("reed118");
    const MaterialAnswer film = need(answerOf(skin, sideStrip(skin), kFilm, {}));
    ASSERT_EQ(film.how, MaterialAnswer::How::Strips);
    ASSERT_GE(film.sheets.size(), 2u);
    const Mask mask = cutAndJudged(skin, film.sheets, kFilm, 1200);
    for (const Sheet& sheet : mask.sheets) EXPECT_TRUE(sheet.report.liesFlat);
    // Together they cover the side once.
    const double side = polygonArea(regionOf(skin, sideStrip(skin)).outer);
    double all = 0;
    for (const SheetPlan& sheet : film.sheets) all += polygonArea(sheet.region.outer);
    EXPECT_NEAR(all / side, 1, 1e-3);
}

TEST(Answers, AWrapIsOneSheetOrTwoHalves) {
    const Skin slim = sampleSkin("willow104"), fat = sampleSkin("sedge60");
    const MaterialAnswer one = need(answerOfWrap(slim, Seam::Belly, kTape, {}));
    EXPECT_EQ(one.how, MaterialAnswer::How::Slits);
    ASSERT_EQ(one.sheets.size(), 1u);
    // Seen from the seam both sides are slit alike.
    std::vector<std::pair<double, double>> left, right;
    for (const Slit& slit : one.sheets.front().region.slits) {
        const double x = slit.line.front().x();
        const SectionArc arc = slim.arcAt(x);
        const bool low = slit.line.back().y() > slit.line.front().y();
        const double tip = slit.line.back().y();
        (low ? left : right).emplace_back(x, low ? tip : 2 * arc.backArc_mm() - tip);
    }
    ASSERT_EQ(left.size(), right.size());
    std::sort(left.begin(), left.end());
    std::sort(right.begin(), right.end());
    for (std::size_t i = 0; i < left.size(); ++i) {
        EXPECT_NEAR(left[i].first, right[i].first, 1e-6);
        EXPECT_NEAR(left[i].second, right[i].second, 0.01);
    }
    const MaterialAnswer two = need(answerOfWrap(fat, Seam::Belly, kTape, {}));
    EXPECT_EQ(two.how, MaterialAnswer::How::Halves);
    EXPECT_GE(two.slits(), 4);
}

/// At 36 mm radius along the body the band under two fingers is sqrt(8 gap R) wide.
TEST(Press, BandsAreAsWideAsTheBodyIsFlatAlongThere) {
    const Skin ball = sphere(36);
    const std::vector<PressPlace> places = pressPlan(ball, 20, 52, 0, 0.1);
    ASSERT_GE(places.size(), 3u);
    const double width = std::sqrt(8 * 0.1 * 36);
    double reached = 20;
    for (const PressPlace& place : places) {
        EXPECT_NEAR(place.width_mm, width, 0.02 * width);
        EXPECT_LE(place.x_mm - 0.5 * place.width_mm, reached + 1e-9);  // no gap between
        reached = place.x_mm + 0.5 * place.width_mm;
    }
    EXPECT_GE(reached, 52);
    for (const PressPlace& place : pressPlan(cylinder(9, 60), 10, 50, 0)) EXPECT_EQ(place.width_mm, 8);
}

}  // namespace
}  // namespace nine
