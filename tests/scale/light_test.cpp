// What a net lets through, against a caster of rays; choosing; lines for foil.
#include "scale/light.h"
#include "base/rng.h"
#include "scale/choose.h"
#include "scale/foil_lines.h"
#include "tests/bodies.h"

namespace nine {
namespace {

using test::need;

/// Whether a ray up from (x, y, 0) towards the gun meets a cylinder of diameter d along a line from a to b at
/// height d/2 + gap: the distance of two lines in space.
bool meets(const Vec3& from, const Vec3& towards, const Vec3& a, const Vec3& b, double d) {
    const Vec3 along = (b - a).normalized(), across = towards.cross(along);
    const double sine = across.norm();
    if (sine < 1e-9) return false;
    const double apart = std::abs((a - from).dot(across)) / sine;
    if (apart > d / 2) return false;
    // Where on the strand the two lines are nearest.
    const Vec3 n = towards.cross(across);
    const double t = (from - a).dot(n) / along.dot(n);
    return t > -1e-9 && t < (b - a).norm() + 1e-9;
}

/// The share of a cell that is lit, by rays from places drawn at random.
double castShare(double p, double d, double gap, double slant, double direction, int rays) {
    std::uint64_t seed = 7;
    const double th = degToRad(slant), ph = degToRad(direction);
    // Rows of the patch run away from the whole line, so y counts from there.
    const Vec3 towards(std::sin(th) * std::cos(ph), -std::sin(th) * std::sin(ph), std::cos(th));
    int lit = 0;
    for (int i = 0; i < rays; ++i) {
        seed = scrambled(seed + 1);
        const double x = static_cast<double>(seed % 1000003) / 1000003 * p;
        seed = scrambled(seed + 1);
        const double y = static_cast<double>(seed % 1000003) / 1000003 * p;
        bool dark = false;
        for (int k = -12; k <= 12 && !dark; ++k) {
            const double z = gap + d / 2;
            dark = meets({x, y, 0}, towards, {-60, k * p, z}, {60, k * p, z}, d) ||
                   meets({x, y, 0}, towards, {k * p, -60, z}, {k * p, 60, z}, d);
        }
        lit += !dark;
    }
    return static_cast<double>(lit) / rays;
}

TEST(NetLight, IsThatOfACasterOfRays) {
    Net net = *findNet("grid-2.0");
    net.strand_mm = 0.3;
    for (const double slant : {0.0, 30.0, 60.0, 70.0})
        for (const double direction : {0.0, 37.0, 90.0}) {
            MistFrom from{slant, direction, 0};
            const LightPatch patch = lightUnder(net, Eigen::Matrix2d::Identity(), 0, from, 4, 320);
            EXPECT_NEAR(patch.mean, castShare(2, 0.3, 0, slant, direction, 20000), 0.012)
                << slant << " " << direction;
        }
}

TEST(NetLight, IsTheTableOfTheSprayModel) {
    // d 0.3, p 2, mist in the plane of one family: open (1 - d/p) (1 - d sqrt(1 + tan^2) / p).
    Net net = *findNet("grid-2.0");
    net.strand_mm = 0.3;
    const double expected[][2] = {{0, .722}, {30, .703}, {45, .670}, {60, .595}, {70, .477}, {75, .357}};
    for (const auto& [slant, open] : expected)
        EXPECT_NEAR(lightUnder(net, Eigen::Matrix2d::Identity(), 0, {slant, 0, 0}, 4, 400).mean, open, 0.002)
            << slant;
}

TEST(NetLight, AShadowGrowsToTheLeeOnly) {
    // Lee edge (sec + tan) / 2 and windward edge (sec - tan) / 2 of a strand across the mist; along it, none.
    const StrandShadow across = shadowOf(0.3, 90, {60, 0, 0}), along = shadowOf(0.3, 0, {60, 0, 0});
    EXPECT_NEAR(across.toLee_mm, 0.15 * (2 + std::sqrt(3.0)), 1e-9);
    EXPECT_NEAR(across.toWindward_mm, 0.15 * (2 - std::sqrt(3.0)), 1e-9);
    EXPECT_NEAR(along.toLee_mm, 0.15, 1e-9);
    // In the picture: from the whole line (above), the shadow of a strand along the body reaches down.
    Net net = *findNet("grid-2.0");
    net.strand_mm = 0.3;
    net.along_mm = net.across_mm = 20;
    const LightPatch patch = lightUnder(net, Eigen::Matrix2d::Identity(), 0, {60, 90, 0}, 4, 400);
    const auto at = [&](double x, double y) {
        return patch
            .arrives[static_cast<std::size_t>((y + 2) * 100) * 400 + static_cast<std::size_t>((x + 2) * 100)];
    };
    EXPECT_EQ(at(1, 0.4), 0);
    EXPECT_EQ(at(1, -0.4), 1);
}

TEST(NetLight, StandingOffBlursAndDoublingDarkens) {
    const Net net = *findNet("tulle-1.6");
    const auto darkest = [&](double gap) {
        const LightPatch patch = lightUnder(net, Eigen::Matrix2d::Identity(), gap, {}, 4, 160);
        return *std::min_element(patch.arrives.begin(), patch.arrives.end());
    };
    EXPECT_EQ(darkest(0), 0);
    EXPECT_GT(darkest(1), 0.4);
    EXPECT_GT(darkest(2), darkest(1));
    const NetShift half{net.along_mm / 2, net.across_mm / 4, 0}, none{};
    const double one = lightUnder(net, Eigen::Matrix2d::Identity(), 0, {}, 7, 300).mean;
    EXPECT_NEAR(lightUnder(net, Eigen::Matrix2d::Identity(), 0, {}, 7, 300, &half).mean, one * one, 0.03);
    EXPECT_NEAR(lightUnder(net, Eigen::Matrix2d::Identity(), 0, {}, 7, 300, &none).mean, one,
                0.04);  // softer: it lies a strand higher
    EXPECT_NEAR(one, openShare(net), 0.004);
}

TEST(NetChoice, TheFishsScaleIsMeasuredOnTheBlank) {
    ScaleWish wish;
    wish.fish_mm = 180;
    wish.fishCount = 215;
    EXPECT_NEAR(wantedScale_mm(wish, 60, 45), 60.0 / 215, 1e-12);
    wish.from = ScaleFrom::Count;
    wish.count = 30;
    EXPECT_NEAR(wantedScale_mm(wish, 60, 45), 1.5, 1e-12);
    const NetRanking fine = rankNets(netsOfCatalogue(), 60.0 / 215, 0.2);
    EXPECT_TRUE(fine.tooCoarse);
    EXPECT_FALSE(fine.choices.front().good);
    EXPECT_EQ(fine.choices.front().net.id, "tulle-1.2");
    EXPECT_TRUE(fine.choices.front().doubled);
    const NetRanking grid = rankNets(netsOfCatalogue(), 2.0, 0.1);
    EXPECT_FALSE(grid.tooCoarse);
    EXPECT_TRUE(grid.choices.front().good);
    EXPECT_NEAR(grid.choices.front().scale_mm, 2.0, 0.05);
    for (std::size_t i = 1; i < grid.choices.size(); ++i)
        EXPECT_LE(std::abs(std::log(grid.choices[i - 1].ratio)), std::abs(std::log(grid.choices[i].ratio)));
    wish.fishCount = 0;
    EXPECT_EQ(checkScaleWish(wish, "scales.wish").error().where, "scales.wish.fish_count");
}

TEST(FoilLines, DiamondsOfAPanelAreAsHighAsTheirLeanSays) {
    const Skin skin = test::cylinder(14, 100);
    for (const double lean : {23.0, 35.0}) {
        FoilWish wish;
        wish.width_mm = 3;
        wish.lean_deg = lean;
        const FoilLines lines = need(foilLines(skin, {}, wish, "foil"));
        EXPECT_NEAR(lines.height_mm / 3, 1 / std::tan(degToRad(lean)), 2e-3);  // 2.356 at 23 degrees
        EXPECT_EQ(lines.diamonds, static_cast<int>((98 - 2 - 4) / 3.0));
        EXPECT_NEAR(lines.length_mm, 3.0 * lines.diamonds, 1e-9);
        // Straight on the panel: along by the tangent of the lean for each mm of girth.
        const FoilLine& line = lines.above[10];
        const Vec2 run = line.skin.back() - line.skin.front();
        EXPECT_NEAR(std::abs(run.x() / run.y()), std::tan(degToRad(lean)), 1e-3);
    }
}

TEST(FoilLines, KeepTheirLeanOnTheSkinAndStopShortOfTheGill) {
    const Skin skin = test::sampleSkin("sedge60");
    Landmarks landmarks;
    landmarks["gill_plate"].points = {{14, 12}, {17, 1}, {16.6, -5}};
    FoilWish wish;
    wish.below = BelowLateral::Diamonds;
    const FoilLines lines = need(foilLines(skin, landmarks, wish, "foil"));
    int checked = 0;
    for (const std::vector<FoilLine>* side : {&lines.above, &lines.below})
        for (const FoilLine& line : *side)
            for (std::size_t i = 4; i + 4 < line.skin.size(); i += 6) {
                EXPECT_GT(line.skin[i].x(), 14);
                const auto at = [&](std::size_t k) {
                    return skin.at({Side::Left, line.skin[k].x(), line.skin[k].y()}).position;
                };
                const Vec3 run = (at(i + 1) - at(i - 1)).normalized();
                const Vec2 p = line.skin[i];
                const Vec3 girth = (skin.at({Side::Left, p.x(), p.y() + 1e-3}).position -
                                    skin.at({Side::Left, p.x(), p.y() - 1e-3}).position)
                                       .normalized();
                EXPECT_NEAR(radToDeg(std::acos(std::abs(run.dot(girth)))), 23, 0.6);
                ++checked;
            }
    EXPECT_GT(checked, 100);
    EXPECT_GE(lines.above.size(), 2 * lines.ticks_mm.size() - 2);  // one at the gill has no room
    wish.width_mm = 40;
    EXPECT_EQ(foilLines(skin, landmarks, wish, "foil").error().code, "empty_reach");
    wish.width_mm = -1;
    EXPECT_EQ(foilLines(skin, landmarks, wish, "foil").error().where, "foil.width_mm");
}

}  // namespace
}  // namespace nine
