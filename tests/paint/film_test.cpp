// Films against closed forms, the limits of the theory, ray counting, and what painters say of coats.
#include "paint/film.h"

#include <gtest/gtest.h>

#include <cmath>
#include <random>

#include "paint/bottle.h"
#include "paint/build_up.h"
#include "tests/support.h"

namespace nine {
namespace {

using namespace test;

KM even(Ratio k, Ratio s) {
    return {evenBands(k), evenBands(s)};
}
Film shipped(std::string_view id) {
    const Bottle* bottle = findBottle(genericShelf(), id);
    EXPECT_TRUE(bottle) << id;
    return bottle ? filmOf(*bottle).film : Film{};
}
const Coated kWhiteCard = bare(evenBands(.93)), kBlackCard = bare(evenBands(.04));

// Values worked out by hand from Kubelka 1948 before this code was written.
TEST(Film, HandbookValues) {
    const KM film = even(.5, 1);
    EXPECT_NEAR(reflected(film, 1, evenBands(.8))[3], .435600, 1e-6);
    EXPECT_NEAR(reflected(film, 1, evenBands(0))[3], .346546, 1e-6);
    EXPECT_NEAR(reflected(film, 50, evenBands(.8))[3], .381966, 1e-6);
    EXPECT_NEAR(reflected(even(.5, 0), 1, evenBands(.8))[3], .294304, 1e-6);
    EXPECT_NEAR(transmitted(film, 1)[3], .283648, 1e-6);
}

/// The two streams as the differential equations they are, stepped through the film from below.
TEST(Film, ClosedFormIsTheSolutionOfTheTwoStreams) {
    for (const auto& [k, s, ground] : {std::tuple(.5, 1.0, .8), std::tuple(.05, 2.5, .1),
                                       std::tuple(1.7, .02, .9), std::tuple(.3, .4, 0.0)}) {
        // dR/dx = S - 2 (K + S) R + S R^2 (Riccati), fourth-order Runge-Kutta.
        double r = ground;
        const int steps = 2000;
        const double h = 1.4 / steps;
        const auto rate = [&](double v) { return s - 2 * (k + s) * v + s * v * v; };
        for (int i = 0; i < steps; ++i) {
            const double a = rate(r), b = rate(r + .5 * h * a), c = rate(r + .5 * h * b), d = rate(r + h * c);
            r += h / 6 * (a + 2 * b + 2 * c + d);
        }
        EXPECT_NEAR(reflected(even(k, s), 1.4, evenBands(ground))[0], r, 1e-9) << k << " " << s;
    }
}

TEST(Film, OneThickFilmIsTwoThinOnes) {
    const Film paint{even(.3, .8)};
    const Coated twice = under(under(kWhiteCard, paint, .7), paint, 1.3), once = under(kWhiteCard, paint, 2);
    EXPECT_NEAR(twice.inner[5], once.inner[5], 1e-12);
    EXPECT_NEAR(under(kWhiteCard, paint, 0).inner[5], .93, 0);
    // Energy: what comes back and what goes through is never more than what came.
    for (const double k : {0.0, .1, 3.0})
        for (const double s : {0.0, .2, 5.0})
            EXPECT_LE(reflected(even(k, s), 1, evenBands(0))[0] + transmitted(even(k, s), 1)[0], 1 + 1e-9);
}

/// Drops thrown at random on a sheet of squares: bare, one, or more of them lie there.
TEST(Film, MistIsWhatDropsThrownAtRandomMake) {
    const double drop_um = 20, thick_um = .23 * drop_um;
    for (const auto& [id, ground, wet_um] :
         {std::tuple("white", .04, 6.0), std::tuple("white", .04, 2.0), std::tuple("black", .93, 3.0),
          std::tuple("sepia-ink", .93, 5.0)}) {
        SCOPED_TRACE(std::string(id) + " " + std::to_string(wet_um));
        const Film paint = shipped(id);
        const Coated under0 = bare(evenBands(ground));
        std::mt19937 random(5);
        std::poisson_distribution<int> drops(wet_um / thick_um);
        Bands mean{};
        const int places = 40000;
        std::vector<Bands> of;  // looks by the number of drops
        for (int n = 0; n < 24; ++n)
            of.push_back(lookOf(under(under0, paint, n * thick_um / 20).inner, kGloss));
        for (int i = 0; i < places; ++i) {
            const Bands& look = of[static_cast<std::size_t>(std::min(drops(random), 23))];
            for (std::size_t b = 0; b < kBands; ++b) mean[b] += look[b] / places;
        }
        const Bands ours = lookOf(sprayed(under0, paint, wet_um, 20, drop_um).inner, kGloss);
        // Three kinds of place stand for all: two, three and more drops are taken for their mean.
        const Figure off = difference(labOf(xyzOf(ours)), labOf(xyzOf(mean)));
        EXPECT_LT(off, .8);
    }
    EXPECT_NEAR(missed(6, drop_um), std::exp(-6 / thick_um), 1e-12);
    EXPECT_EQ(missed(100, drop_um), 0);
}

TEST(Film, LooksAreAveragedNotFilms) {
    const Film paint = shipped("black");
    const Coated half = averaged(kWhiteCard, under(kWhiteCard, paint, 1), .5);
    const Xyz seen = xyzOf(lookOf(half, kGloss)), a = xyzOf(lookOf(kWhiteCard, kGloss)),
              b = xyzOf(lookOf(under(kWhiteCard, paint, 1), kGloss));
    EXPECT_NEAR(seen.y, .5 * (a.y + b.y), 1e-9);
    EXPECT_GT(seen.y, 2 * xyzOf(lookOf(under(kWhiteCard, paint, .5), kGloss)).y);
}

// Common practice, no published source: white 2 coats, neon 2-3 over white, black through a stencil 1-2,
// transparent blue over silver about 6.
TEST(Film, CoatsComeOutAsPaintersSay) {
    const auto enough = [](const Coated& ground, std::string_view id) {
        return buildUp(ground, shipped(id), 14, kMatt).enough;
    };
    const Coated plastic = bare(evenBands(.5)), white = under(plastic, shipped("white"), 2),
                 silver = under(kBlackCard, shipped("silver"), 2);
    EXPECT_EQ(enough(plastic, "white"), 2);
    EXPECT_EQ(enough(kBlackCard, "white"), 2);
    for (const char* neon : {"neon-yellow", "neon-orange", "neon-pink", "neon-green"}) {
        EXPECT_GE(enough(white, neon), 2) << neon;
        EXPECT_LE(enough(white, neon), 3) << neon;
    }
    EXPECT_GE(enough(white, "black"), 1);
    EXPECT_LE(enough(white, "black"), 2);
    EXPECT_NEAR(enough(silver, "blue-glaze"), 6, 1);
    const BuildUp all = buildUp(silver, shipped("blue-glaze"), 14, kMatt);
    EXPECT_GE(all.gains[static_cast<std::size_t>(all.enough) - 1], kNothingMore);
    EXPECT_LT(all.gains[static_cast<std::size_t>(all.enough)], kNothingMore);
    EXPECT_EQ(buildUp(silver, shipped("blue-glaze"), 3, kMatt).enough, 0);
}

TEST(Film, NeonIsBrightOverWhiteAndDullOverBlack) {
    for (const char* id : {"neon-yellow", "neon-orange", "neon-pink", "neon-green"}) {
        const Film neon = shipped(id);
        const Coated white = under(kBlackCard, shipped("white"), 2);
        const auto chroma = [&](const Coated& ground) {
            const Lab c = labOf(under(ground, neon, 3), kMatt);
            return std::hypot(c.a, c.b);
        };
        const Coated mist = sprayed(kBlackCard, shipped("white"), 4, 20, 20);
        EXPECT_LT(chroma(kBlackCard), .6 * chroma(white)) << id;
        EXPECT_GT(chroma(mist), 1.15 * chroma(kBlackCard)) << id;
        EXPECT_LT(chroma(mist), .75 * chroma(white)) << id;
        // It gives off light where it absorbs none, and a dark film over it takes that away.
        const Coated lit = under(white, neon, 2);
        EXPECT_GT(*std::max_element(lit.glow.begin(), lit.glow.end()), .1);
        const Coated hidden = under(lit, shipped("black"), 2);
        EXPECT_LT(*std::max_element(hidden.glow.begin(), hidden.glow.end()), .01);
    }
}

TEST(Film, FlakesAreBrightTowardsTheMirrorAndDarkBesideIt) {
    const Film silver = shipped("silver");
    const Figure face = labOf(under(kBlackCard, silver, 2, 0), kMatt).l,
                 half = labOf(under(kBlackCard, silver, 2, 18), kMatt).l,
                 side = labOf(under(kBlackCard, silver, 2, 70), kMatt).l;
    EXPECT_GT(face, half + 5);
    EXPECT_GT(half, side + 5);
    const Film plain = shipped("white");
    EXPECT_EQ(labOf(under(kBlackCard, plain, 2, 0), kMatt).l,
              labOf(under(kBlackCard, plain, 2, 70), kMatt).l);
}

TEST(Film, CoveringIsSeenThrough) {
    EXPECT_LT(showsThrough(shipped("black"), 1, kMatt), kCovers);
    EXPECT_GT(showsThrough(shipped("blue-glaze"), 6, kMatt), 20);
    EXPECT_LT(showsThrough(shipped("silver"), 3, kMatt), kCovers);
}

}  // namespace
}  // namespace nine
