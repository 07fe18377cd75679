// Steps over one another on places, against the films laid one by one; amounts; steps that cannot be.
#include "recipe/painted.h"

#include <gtest/gtest.h>

#include <cmath>

#include "recipe/amounts.h"
#include "tests/support.h"

namespace nine {
namespace {

using namespace test;

Step colour(const std::string& id, const std::string& paint, Ratio coats) {
    Step s;
    s.id = s.name = id;
    s.act = Act::Colour;
    s.paint = {{paint, 4}};
    s.reducer = 1;
    s.coats = coats;
    return s;
}
const Palette& palette() {
    static const Palette all = paletteOf(genericShelf());
    return all;
}
std::shared_ptr<const Cover> cover(std::vector<float> shares, bool thins) {
    return std::make_shared<const Cover>(Cover{std::move(shares), thins});
}

TEST(Painted, IsTheFilmsLaidOneByOne) {
    const Bands plastic = evenBands(.45);
    const std::vector<Step> steps{colour("a", "white", 2), colour("b", "blue-glaze", 3),
                                  colour("c", "black", 1)};
    const Painted done =
        need(painted(steps, palette(),
                     {cover({1, 1, 0, 1}, false), cover({1, 0, 1, .5f}, false), cover({0, 0, 0, .25f}, true)},
                     4, plastic));
    const auto film = [&](const char* id, Ratio coats, const Coated& ground) {
        const Sprayable& p = *palette().find(id);
        return sprayed(ground, p.film, coats * p.wet_um, p.wet_um, kUsualDrop_um);
    };
    const Coated white = film("white", 2, bare(plastic));
    const auto near = [&](std::size_t step, std::size_t place, const Coated& wanted) {
        EXPECT_LT(difference(labOf(done.at(step, place), kMatt), labOf(wanted, kMatt)), .3)
            << step << " " << place;
    };
    near(0, 0, white);
    near(0, 2, bare(plastic));
    near(1, 0, film("blue-glaze", 3, white));
    near(1, 1, white);
    near(1, 2, film("blue-glaze", 3, bare(plastic)));
    const Coated half = averaged(white, film("blue-glaze", 3, white), .5);
    near(1, 3, half);
    near(2, 3, film("black", .25, half));
    near(2, 0, film("blue-glaze", 3, white));
    // Alike places share one state.
    EXPECT_LT(done.states.size(), 12u);
}

TEST(Painted, OffUnknownAndUncoveredStepsChangeNothing) {
    std::vector<Step> steps{colour("a", "red", 2), colour("b", "nosuch", 2), colour("c", "red", 2)};
    steps[0].on = false;
    const Painted done =
        need(painted(steps, palette(), {cover({1}, false), cover({1}, false), nullptr}, 1, evenBands(.45)));
    for (std::size_t s = 0; s < 3; ++s) EXPECT_EQ(done.at(s, 0).inner[3], .45);
}

TEST(Painted, FadesThinTheFilmAndDoNotBlendColours) {
    // Half a film of transparent paint over white is a lighter tint, more than half as strong.
    const std::vector<Step> steps{colour("a", "blue-glaze", 2)};
    const Painted fade = need(painted(steps, palette(), {cover({1, .5f}, true)}, 2, evenBands(.93)));
    const Painted share = need(painted(steps, palette(), {cover({1, .5f}, false)}, 2, evenBands(.93)));
    const auto strength = [](const Painted& p) {
        const Lab bareWhite = labOf(bare(evenBands(.93)), kMatt);
        return difference(labOf(p.at(0, 1), kMatt), bareWhite) /
               difference(labOf(p.at(0, 0), kMatt), bareWhite);
    };
    EXPECT_GT(strength(fade), strength(share) + .03);
}

TEST(Painted, GlossComesWithTheClear) {
    std::vector<Step> steps{colour("a", "red", 2), {}, colour("b", "red", 2)};
    steps[1].act = Act::Clear;
    EXPECT_EQ(dullnessAfter(steps, 0).share, 1);
    EXPECT_EQ(dullnessAfter(steps, 1).share, 0);
    steps[1].on = false;
    EXPECT_EQ(dullnessAfter(steps, 2).share, 1);
}

TEST(Painted, ThinnedPaintLeavesLess) {
    Step thick = colour("a", "red", 2), thin = thick;
    thin.reducer = 12;
    const Sprayable paint = *paintOf(thick, palette());
    EXPECT_NEAR(filmOf_um(thick, paint), 2 * paint.wet_um, 1e-9);
    EXPECT_NEAR(filmOf_um(thin, paint), 2 * paint.wet_um * .25 / .8, 1e-9);
    thin.mist = true;
    EXPECT_EQ(filmOf_um(thin, paint), kMistFilm_um);
}

TEST(Amounts, AreAreaTimesFilmWithWhatMissesAndWhatStays) {
    Recipe recipe;
    recipe.steps = {colour("back", "olive", 2), colour("all", "white", 2)};
    const auto one = need(amountsOf(recipe, palette(), {400, 4000}, 1)),
               ten = need(amountsOf(recipe, palette(), {400, 4000}, 10));
    ASSERT_EQ(one.size(), 2u);
    // By hand: 400 mm2 x 40 um = .016 ml on the body, 35 % of what is sprayed, .05 ml left in the cup.
    EXPECT_NEAR(one[0].paint_ml + one[0].reducer_ml, .016 / .35 + .05, 1e-6);
    EXPECT_NEAR(one[0].reducer_ml / one[0].paint_ml, .25, 1e-9);
    // Common practice, no published source: 2 to 3 drops do the back of one lure.
    EXPECT_GE(one[0].drops, 1.5);
    EXPECT_LE(one[0].drops, 3);
    EXPECT_NEAR(ten[0].paint_ml + ten[0].reducer_ml, .16 / .35 + .05, 1e-6);
    EXPECT_EQ(ten[1].fills, static_cast<int>(std::ceil((1.6 / .35 + .05) / 2)));
    for (const int wrong : {0, -3, 501})
        EXPECT_EQ(amountsOf(recipe, palette(), {1, 1}, wrong).error().code, "out_of_range");
}

TEST(Steps, WrongNumbersAndWordsAreToldWithTheirField) {
    const auto where = [](auto&& spoil) {
        Step s = colour("a", "red", 2);
        spoil(s);
        const Status ok = checkStep(s, "layers.steps[3]");
        return ok ? std::string() : ok.error().where;
    };
    EXPECT_EQ(where([](Step&) {}), "");
    EXPECT_EQ(where([](Step& s) { s.coats = 0; }), "layers.steps[3].coats");
    EXPECT_EQ(where([](Step& s) { s.coats = 1000; }), "layers.steps[3].coats");
    EXPECT_EQ(where([](Step& s) { s.coats = std::nan(""); }), "layers.steps[3].coats");
    EXPECT_EQ(where([](Step& s) { s.paint[0].drops = 0; }), "layers.steps[3].paint");
    EXPECT_EQ(where([](Step& s) { s.paint.clear(); }), "layers.steps[3].paint");
    EXPECT_EQ(where([](Step& s) { s.where.soft_mm = 0; }), "layers.steps[3].soft_mm");
    EXPECT_EQ(where([](Step& s) { s.does = {"sing"}; }), "layers.steps[3].does");
    EXPECT_EQ(where([](Step& s) { s.clear = "honey"; }), "layers.steps[3].clear");
    EXPECT_EQ(where([](Step& s) { s.glue = "honey"; }), "layers.steps[3].glue");
}

}  // namespace
}  // namespace nine
