// Masks of random marks on random bodies: whatever they are, the sheet that is cut must hold them and land
// them.
#include <gtest/gtest.h>

#include <random>

#include "cut/drawing.h"
#include "mask/mask.h"
#include "tests/bodies.h"

namespace nine {
namespace {

using namespace test;

std::string drawn(const Mask& mask) {
    Drawing page{"mask", boxAround({mask.sheets[0].outline}).size() + Vec2(10, 10), {{"CUT", {}}}};
    const Vec2 shift = Vec2(5, 5) - boxAround({mask.sheets[0].outline}).low;
    const auto add = [&](Polygon2 ring) {
        for (Vec2& p : ring) p += shift;
        page.layers[0].lines.push_back({std::move(ring), true});
    };
    add(mask.sheets[0].outline);
    for (const Window& window : mask.sheets[0].windows) add(window.outline);
    return svgText(page);
}

TEST(RandomMasks, HoldEveryMarkAndLandIt) {
    for (const unsigned seed : {21u, 22u, 23u, 24u, 25u, 26u}) {
        SCOPED_TRACE("seed " + std::to_string(seed));
        std::mt19937 chance(seed);
        const auto between = [&](double a, double b) { return a + (b - a) * (chance() / 4294967296.0); };
        const double across = between(8, 12), along = between(34, 44);
        const Skin skin = spheroid(across, along);
        std::vector<std::shared_ptr<const ElementArt>> art;
        std::vector<std::pair<Vec2, double>> discs;
        for (int tries = 0; tries < 60 && art.size() < 9; ++tries) {
            const Vec2 at(between(0.35, 0.65) * 2 * along, between(-5, 5));
            const double diameter = between(0.8, 4);
            const bool free = std::all_of(discs.begin(), discs.end(), [&](const auto& other) {
                return (other.first - at).norm() > 0.5 * (other.second + diameter) + 1.2;
            });
            if (!free) continue;
            discs.emplace_back(at, diameter);
            art.push_back(std::make_shared<const ElementArt>(need(drawRound(skin, at, diameter))));
        }
        OpenedArt opened;
        for (const auto& a : art) opened.left.push_back(a.get());
        MaskWish wish;
        wish.material = "tape";
        const Mask cut = need(cutMask(skin, {}, opened, wish, 0.03, 1500, Precision::Exact, ""));
        const Mask mask = need(judgedMask(skin, opened.left, wish, cut));
        const Sheet& sheet = mask.sheets[0];
        EXPECT_EQ(sheet.windows.size(), discs.size());
        EXPECT_LE(sheet.report.strainFeasibleMax, 0.03);
        EXPECT_LT(sheet.report.landing.rms_mm, 0.01);
        EXPECT_LT(sheet.report.landing.max_mm, 0.03);
        for (const Window& window : sheet.windows) {
            // Whose it is is known by where it is; its size is the disc's within the stretch of the sheet.
            const auto disc = std::min_element(discs.begin(), discs.end(), [&](const auto& a, const auto& b) {
                return (a.first - window.skin).norm() < (b.first - window.skin).norm();
            });
            EXPECT_LT((disc->first - window.skin).norm(), 0.2);
            const double size = kPi * disc->second * disc->second / 4;
            EXPECT_NEAR(window.area_mm2 / size, 1, 2.5 * sheet.report.strainMax + 0.01);
            EXPECT_LT(area(subtracted({window.outline}, {sheet.outline})), 1e-6);
        }
        for (const RegistrationMark& mark : sheet.marks) EXPECT_TRUE(contains(sheet.outline, mark.flat));
        // Turned over and back it is the same sheet.
        const Sheet back = mirrored(mirrored(sheet));
        EXPECT_EQ(back.outline.size(), sheet.outline.size());
        EXPECT_LT((back.windows[0].centre - sheet.windows[0].centre).norm(), 1e-12);
        keepOnFailure("random-mask-" + std::to_string(seed), drawn(mask));
    }
}

}  // namespace
}  // namespace nine
