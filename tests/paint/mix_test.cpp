// Swatches back to films, mixes, the finder against trying everything, the cup.
#include "paint/mix.h"

#include <gtest/gtest.h>

#include <cmath>
#include <limits>
#include <random>

#include "paint/cup.h"
#include "tests/support.h"

namespace nine {
namespace {

using namespace test;

const Bands kCard = evenBands(.93);
Lab over(const Film& film, Ratio coats, Fraction ground) {
    return labOf(under(bare(evenBands(ground)), film, coats), kMatt);
}
const Palette& shelf() {
    static const Palette palette = paletteOf(genericShelf());
    return palette;
}
Srgb colourOf(const std::vector<MixPart>& parts) {
    return srgbOf(under(bare(kCard), need(mixed(shelf(), parts, "")).film, 4), kMatt);
}
Lab wantedColour(double r, double g, double b) {
    return labOf(xyzOf(linearOf(Srgb{r, g, b})));
}

TEST(Shelf, ThirtyPaintsEachFitsItsSwatches) {
    EXPECT_GE(genericShelf().size(), 28u);
    std::vector<std::string> seen;
    for (const Bottle& bottle : genericShelf()) {
        EXPECT_TRUE(checkBottle(bottle, "")) << bottle.name;
        EXPECT_LT(filmOf(bottle).misfit_steps, 2.5) << bottle.name;
        EXPECT_EQ(std::count(seen.begin(), seen.end(), bottle.id), 0) << bottle.id;
        seen.push_back(bottle.id);
        EXPECT_EQ(findPaint(bottle.family)->id, bottle.family);
    }
}

/// Invented paints of known K and S: their swatches are painted by the model, rounded to whole steps, fitted,
/// and asked for coats and grounds that no swatch showed.
TEST(Swatches, AFilmComesBackFromItsSwatches) {
    std::mt19937 random(11);
    std::normal_distribution<double> n;
    double sum = 0, most = 0, fewer = 0;
    int cases = 0;
    for (int paint = 0; paint < 24; ++paint) {
        const bool opaque = paint % 2 == 0;
        Film truth;
        const double centre = 420 + 260 * (paint / 24.0), wide = 40 + 20 * std::abs(n(random));
        for (std::size_t i = 0; i < kBands; ++i) {
            const double nm = kFirstBand_nm + kBandStep_nm * static_cast<double>(i);
            truth.body.k[i] = (opaque ? 2.0 : .5) * (.06 + std::exp(-std::pow((nm - centre) / wide, 2)));
            truth.body.s[i] = (opaque ? 1.0 : .03) * std::pow(nm / 550, -.6);
        }
        std::vector<Swatch> swatches;
        for (const bool white : {true, false})
            for (const double coats : {1.0, opaque ? 2.0 : 3.0}) {
                const Srgb seen = srgbOf(under(bare(evenBands(white ? .93 : .04)), truth, coats), kMatt);
                swatches.push_back({coats, white, srgbOf(shown(seen))});
            }
        SwatchCard card;
        card.readTo = 1;
        const FittedFilm fit =
            need(fittedFilm(swatches, card, colourOfFamily(opaque ? "opaque" : "transparent", 0).prior));
        EXPECT_TRUE(fit.fits());
        // Over white alone: what is usual of such a paint says the rest.
        const FittedFilm half = need(fittedFilm({swatches[0], swatches[1]}, card,
                                                colourOfFamily(opaque ? "opaque" : "transparent", 0).prior));
        for (const double coats : {.5, 1.5, 4.0})
            for (const double ground : {.04, .3, .93}) {
                const Figure off = difference(over(fit.film, coats, ground), over(truth, coats, ground));
                sum += off;
                fewer += difference(over(half.film, coats, ground), over(truth, coats, ground));
                most = std::max(most, off);
                ++cases;
            }
    }
    EXPECT_LT(sum / cases, 0.4) << "most " << most;
    EXPECT_LT(most, 3);
    EXPECT_LT(fewer / cases, 0.8);
}

TEST(Swatches, WrongOnesAreToldInSentences) {
    const FilmPrior prior = colourOfFamily("opaque", 0).prior;
    const Srgb light{200, 200, 190}, dark{60, 60, 60};
    const auto code = [&](std::vector<Swatch> s, SwatchCard card = {}) {
        const Result<FittedFilm> fit = fittedFilm(s, card, prior);
        return fit ? std::string() : fit.error().code;
    };
    EXPECT_EQ(code({{1, true, light}, {1, false, dark}}), "");
    EXPECT_EQ(code({{1, true, dark}, {1, false, light}}), "swatches_swapped");
    EXPECT_EQ(code({}), "out_of_range");
    EXPECT_EQ(code({{0, true, light}}), "out_of_range");
    EXPECT_EQ(code({{1000, true, light}}), "out_of_range");
    EXPECT_EQ(code({{std::nan(""), true, light}}), "out_of_range");
    EXPECT_EQ(code({{1, true, {400, 0, 0}}}), "out_of_range");
    EXPECT_EQ(code({{1, true, light}}, {.04, .93, 1, 2}), "out_of_range");
    // Swatches of two different paints do not fit one.
    const Result<FittedFilm> two =
        fittedFilm({{1, true, {230, 30, 30}}, {3, true, {30, 60, 220}}, {1, false, {30, 60, 40}}}, {}, prior);
    ASSERT_TRUE(two);
    EXPECT_FALSE(two->fits());
}

TEST(Mixes, ComeOutAsOnAPalette) {
    // Hue by the largest and smallest channel: yellow and blue make green, red and blue purple, black and
    // yellow olive.
    const Srgb green = colourOf({{"yellow-glaze", 1}, {"blue-glaze", 1}});
    EXPECT_GT(green.g, green.r + 30);
    EXPECT_GT(green.g, green.b + 30);
    const Srgb purple = colourOf({{"red-glaze", 1}, {"blue-glaze", 1}});
    EXPECT_GT(purple.b, purple.g + 20);
    EXPECT_GT(purple.r, purple.g + 20);
    const Srgb olive = colourOf({{"black", 1}, {"yellow", 4}});
    EXPECT_GT(olive.g, olive.b + 40);
    EXPECT_LT(std::abs(olive.r - olive.g), 25);
}

TEST(Mixes, APaintWithItselfIsThatPaint) {
    for (const char* id : {"red", "blue-glaze", "silver", "neon-pink"}) {
        const Sprayable& paint = *shelf().find(id);
        const Sprayable twice = mixed({{&paint, 3}, {&paint, 2}});
        EXPECT_LT(difference(over(twice.film, 2, .3), over(paint.film, 2, .3)), .01) << id;
        EXPECT_NEAR(twice.wet_um, paint.wet_um, 1e-9);
    }
    EXPECT_EQ(mixed(shelf(), {{"nosuch", 1}}, "w").error().code, "unknown_bottle");
    EXPECT_EQ(mixed(shelf(), {{"red", 0}}, "w").error().where, "w");
    EXPECT_EQ(mixed(shelf(), {{"red", -1}}, "w").error().code, "out_of_range");
}

TEST(Mixes, TheFinderIsNearlyAsGoodAsTryingEverything) {
    std::mt19937 random(2);
    std::uniform_real_distribution<double> any(20, 240);
    double sum = 0, most = 0;
    constexpr int kCases = 6;
    // Every other paint: trying all mixes goes by the cube of their number.
    std::vector<Bottle> some;
    for (std::size_t i = 0; i < genericShelf().size(); i += 2) some.push_back(genericShelf()[i]);
    const Palette half = paletteOf(some);
    for (int k = 0; k < kCases; ++k) {
        Wanted wanted;
        wanted.colour = wantedColour(any(random), any(random), any(random));
        const NearestMixes quick = need(nearestMixes(half, wanted)),
                           all = need(nearestByTryingAll(half, wanted));
        const Figure over = quick.found.back().difference - all.found.back().difference;
        EXPECT_GE(over, -1e-9);
        sum += over;
        most = std::max(most, over);
        // What is told of a mix is what its drops make.
        for (const FoundMix& mix : quick.found) {
            const Lab made =
                labOf(under(bare(wanted.ground), need(mixed(shelf(), mix.parts, "")).film, 4), kMatt);
            EXPECT_NEAR(difference(made, wanted.colour), mix.difference, 1e-6);
            Ratio drops = 0;
            for (const MixPart& part : mix.parts) drops += part.drops;
            EXPECT_LE(drops, kMostDrops);
        }
    }
    EXPECT_LE(sum / kCases, .08);
    EXPECT_LE(most, .6);
}

TEST(Mixes, TheFewestBottlesWithinOneOfTheBestAreOffered) {
    Wanted wanted;
    wanted.colour = over(shelf().find("orange")->film, 4, .93);
    const NearestMixes own = need(nearestMixes(shelf(), wanted));
    ASSERT_FALSE(own.found.empty());
    EXPECT_EQ(own.offered, 0u);
    EXPECT_EQ(own.found[0].parts, (std::vector<MixPart>{{"orange", 1}}));
    EXPECT_LT(own.found[0].difference, 1e-6);
    wanted.colour =
        labOf(under(bare(kCard), need(mixed(shelf(), {{"black", 1}, {"yellow", 4}}, "")).film, 4), kMatt);
    const NearestMixes two = need(nearestMixes(shelf(), wanted));
    EXPECT_EQ(two.found[two.offered].parts.size(), 2u);
    EXPECT_LT(two.found[two.offered].difference, 1);
    EXPECT_TRUE(need(nearestMixes({}, wanted)).found.empty());
}

TEST(Cups, DropsShareAndResidue) {
    Cup cup = need(withDrops({}, "red", 4));
    cup = need(thinned(cup, 2));
    EXPECT_NEAR(cup.reducerShare(), 1 / 3.0, 1e-12);  // 4:2 is 33 % (common practice says it so)
    EXPECT_NEAR(cup.volume_ml(), .3, 1e-12);
    cup = used(cup, .5);
    EXPECT_NEAR(cup.reducerShare(), 1 / 3.0, 1e-12);
    EXPECT_NEAR(cup.drops(), 3, 1e-12);
    cup = need(withDrops(cup, "yellow", .5));
    cup = need(withDrops(cup, "red", 1));
    EXPECT_EQ(cup.parts, (std::vector<MixPart>{{"red", 3}, {"yellow", .5}}));
    EXPECT_NEAR(reducerFor(cup, .7), .7 * 3.5 / .3 - 1, 1e-12);
    EXPECT_EQ(reducerFor(cup, .01), 0);
    EXPECT_EQ(used(cup, 1), Cup{});
    EXPECT_EQ(withDrops(cup, "red", 0).error().code, "out_of_range");
    EXPECT_EQ(withDrops(cup, "red", 1e6).error().code, "out_of_range");
    EXPECT_EQ(thinned(cup, std::nan("")).error().code, "out_of_range");
}

TEST(Shelf, BottlesThatCannotBeAreRefusedWithTheirField) {
    Bottle good = genericShelf()[0];
    const auto where = [&](auto&& spoil) {
        Bottle b = good;
        spoil(b);
        const Status ok = checkBottle(b, "paints[2]");
        return ok ? std::string() : ok.error().where;
    };
    EXPECT_EQ(where([](Bottle&) {}), "");
    EXPECT_EQ(where([](Bottle& b) { b.name.clear(); }), "paints[2].name");
    EXPECT_EQ(where([](Bottle& b) { b.family = "glue"; }), "paints[2].family");
    EXPECT_EQ(where([](Bottle& b) { b.left_ml = -1; }), "paints[2].left_ml");
    EXPECT_EQ(where([](Bottle& b) { b.rest_min = std::nan(""); }), "paints[2].rest_min");
    EXPECT_EQ(where([](Bottle& b) { b.glow_nm = 30; }), "paints[2].glow_nm");
    EXPECT_EQ(where([](Bottle& b) { b.swatches.clear(); }), "paints[2].swatches");
}

}  // namespace
}  // namespace nine
