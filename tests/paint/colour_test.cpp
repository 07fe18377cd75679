// Colours against standards and other programs: the published pairs of CIEDE2000, little cms, spectra at
// 10 nm by another library's tables.
#include "paint/colour.h"

#include <gtest/gtest.h>

#include <cstdio>
#include <random>
#include <sstream>

#include "tests/support.h"
#ifdef NINE_HAVE_LCMS
#include <lcms2.h>
#include "tests/here.h"
#endif

namespace nine {
namespace {

using namespace test;

/// Sharma, Wu, Dalal 2005, Color Research and Application 30, 21: all 34 pairs (from memory; they agree to
/// the last digit, which a wrong one would not).
struct Pair {
    Lab a, b;
    Figure difference;
};
const Pair kPairs[] = {
    {{50, 2.6772, -79.7751}, {50, 0, -82.7485}, 2.0425},
    {{50, 3.1571, -77.2803}, {50, 0, -82.7485}, 2.8615},
    {{50, 2.8361, -74.0200}, {50, 0, -82.7485}, 3.4412},
    {{50, -1.3802, -84.2814}, {50, 0, -82.7485}, 1.0000},
    {{50, -1.1848, -84.8006}, {50, 0, -82.7485}, 1.0000},
    {{50, -0.9009, -85.5211}, {50, 0, -82.7485}, 1.0000},
    {{50, 0, 0}, {50, -1, 2}, 2.3669},
    {{50, -1, 2}, {50, 0, 0}, 2.3669},
    {{50, 2.4900, -0.0010}, {50, -2.4900, 0.0009}, 7.1792},
    {{50, 2.4900, -0.0010}, {50, -2.4900, 0.0010}, 7.1792},
    {{50, 2.4900, -0.0010}, {50, -2.4900, 0.0011}, 7.2195},
    {{50, 2.4900, -0.0010}, {50, -2.4900, 0.0012}, 7.2195},
    {{50, -0.0010, 2.4900}, {50, 0.0009, -2.4900}, 4.8045},
    {{50, -0.0010, 2.4900}, {50, 0.0010, -2.4900}, 4.8045},
    {{50, -0.0010, 2.4900}, {50, 0.0011, -2.4900}, 4.7461},
    {{50, 2.5, 0}, {50, 0, -2.5}, 4.3065},
    {{50, 2.5, 0}, {73, 25, -18}, 27.1492},
    {{50, 2.5, 0}, {61, -5, 29}, 22.8977},
    {{50, 2.5, 0}, {56, -27, -3}, 31.9030},
    {{50, 2.5, 0}, {58, 24, 15}, 19.4535},
    {{50, 2.5, 0}, {50, 3.1736, 0.5854}, 1.0000},
    {{50, 2.5, 0}, {50, 3.2972, 0}, 1.0000},
    {{50, 2.5, 0}, {50, 1.8634, 0.5757}, 1.0000},
    {{50, 2.5, 0}, {50, 3.2592, 0.3350}, 1.0000},
    {{60.2574, -34.0099, 36.2677}, {60.4626, -34.1751, 39.4387}, 1.2644},
    {{63.0109, -31.0961, -5.8663}, {62.8187, -29.7946, -4.0864}, 1.2630},
    {{61.2901, 3.7196, -5.3901}, {61.4292, 2.2480, -4.9620}, 1.8731},
    {{35.0831, -44.1164, 3.7933}, {35.0232, -40.0716, 1.5901}, 1.8645},
    {{22.7233, 20.0904, -46.6940}, {23.0331, 14.9730, -42.5619}, 2.0373},
    {{36.4612, 47.8580, 18.3852}, {36.2715, 50.5065, 21.2231}, 1.4146},
    {{90.8027, -2.0831, 1.4410}, {91.1528, -1.6435, 0.0447}, 1.4441},
    {{90.9257, -0.5406, -0.9208}, {88.6381, -0.8985, -0.7239}, 1.5381},
    {{6.7747, -0.2908, -2.4247}, {5.8714, -0.0985, -2.2286}, 0.6377},
    {{2.0776, 0.0795, -1.1350}, {0.9033, -0.0636, -0.5514}, 0.9082},
};

TEST(Colour, AllPublishedPairsOfCiede2000) {
    ASSERT_EQ(std::size(kPairs), 34u);
    for (const Pair& pair : kPairs) {
        EXPECT_NEAR(difference(pair.a, pair.b), pair.difference, 5e-5) << pair.a.l << " " << pair.a.a;
        EXPECT_NEAR(difference(pair.b, pair.a), pair.difference, 5e-5);
    }
}

#ifdef NINE_HAVE_LCMS
TEST(Colour, LabAndDifferencesAreLittleCmss) {
    std::mt19937 random(3);
    std::uniform_real_distribution<double> any(0, 1);
    const cmsCIEXYZ white{.95047, 1, 1.08883};
    for (int k = 0; k < 3000; ++k) {
        Lab ours[2];
        cmsCIELab theirs[2];
        for (int i = 0; i < 2; ++i) {
            const Xyz c{any(random), any(random), any(random)};
            ours[i] = labOf(c);
            const cmsCIEXYZ same{c.x, c.y, c.z};
            cmsXYZ2Lab(&white, &theirs[i], &same);
            ASSERT_NEAR(ours[i].l, theirs[i].L, 2e-4);
            ASSERT_NEAR(ours[i].a, theirs[i].a, 2e-4);
            ASSERT_NEAR(ours[i].b, theirs[i].b, 2e-4);
        }
        ASSERT_NEAR(difference(ours[0], ours[1]), cmsCIE2000DeltaE(&theirs[0], &theirs[1], 1, 1, 1), 1e-3);
    }
}

/// The curve and primaries of sRGB, by the profile that program makes itself (which works at D50, so greys
/// and steps of one primary are compared as linear light).
TEST(Colour, TheCurveOfSrgbIsLittleCmss) {
    cmsHPROFILE profile = cmsCreate_sRGBProfile();
    const auto* curve = static_cast<const cmsToneCurve*>(cmsReadTag(profile, cmsSigGreenTRCTag));
    ASSERT_TRUE(curve);
    for (int v = 0; v <= 255; ++v)
        EXPECT_NEAR(linearOf(Srgb{0, static_cast<double>(v), 0}).g,
                    cmsEvalToneCurveFloat(curve, static_cast<float>(v) / 255), 2e-4)
            << v;
    cmsCloseProfile(profile);
}
#endif

TEST(Colour, HandbookValues) {
    EXPECT_NEAR(linearOf(Srgb{127.5, 0, 0}).r, .214041, 1e-6);
    const Lab red = labOf(xyzOf(linearOf(Srgb{255, 0, 0})));
    EXPECT_NEAR(red.l, 53.2408, 2e-3);
    EXPECT_NEAR(red.a, 80.0925, 2e-3);
    EXPECT_NEAR(red.b, 67.2032, 2e-3);
    const Lab white = labOf(xyzOf(evenBands(1)));
    EXPECT_NEAR(white.l, 100, 0.01);
    EXPECT_NEAR(std::hypot(white.a, white.b), 0, 0.05);
}

TEST(Colour, SrgbGoesThereAndBackBeyondItsRangeToo) {
    for (const Srgb c : {Srgb{12, 200, 255}, Srgb{-40, 3, 300}, Srgb{0, 0, 0}}) {
        const Srgb back = srgbOf(linearOf(xyzOf(linearOf(c))));
        EXPECT_NEAR(back.r, c.r, 0.02);
        EXPECT_NEAR(back.g, c.g, 0.02);
        EXPECT_NEAR(back.b, c.b, 0.02);
    }
    EXPECT_EQ(colourText({17.4, 300, -5}), "#11FF00");
    EXPECT_EQ(shown(*parseColour("#a0B1c2")), 0xFFA0B1C2u);
    for (const char* wrong : {"", "#12345", "123456", "#12345g", "#1234567"})
        EXPECT_FALSE(parseColour(wrong)) << wrong;
}

TEST(Colour, TenBandsStandForSpectraAtTenNanometres) {
    FILE* pipe = popen(
        ("/usr/bin/python3 " + nine::sourceDir() + "/tests/oracles/spectra.py 2>/dev/null").c_str(), "r");
    ASSERT_TRUE(pipe);
    char line[200];
    int lines = 0;
    double sum = 0, most = 0;
    while (fgets(line, sizeof line, pipe)) {
        char kind[16];
        double a = 0, b = 0;
        Xyz truth;
        ASSERT_EQ(sscanf(line, "%15s %lf %lf %lf %lf %lf", kind, &a, &b, &truth.x, &truth.y, &truth.z), 6);
        const std::string name = kind;
        Bands bands{};
        for (std::size_t i = 0; i < kBands; ++i)
            for (const double by : {-10.0, 0.0, 10.0}) {  // the mean over the band
                const double nm = kFirstBand_nm + kBandStep_nm * static_cast<double>(i) + by;
                bands[i] += (name == "bump"   ? .06 + .6 * std::exp(-std::pow((nm - a) / b, 2))
                             : name == "edge" ? .05 + .8 / (1 + std::exp(-(nm - a) / b))
                                              : .05 + .8 / (1 + std::exp((nm - a) / b))) /
                            3;
            }
        const Figure off = difference(labOf(xyzOf(bands)), labOf(truth));
        sum += off;
        most = std::max(most, off);
        ++lines;
    }
    pclose(pipe);
    if (lines == 0) GTEST_SKIP() << "python3-colormath is not installed";
    RecordProperty("mean", std::to_string(sum / lines));
    EXPECT_GT(lines, 100);
    EXPECT_LT(sum / lines, 1.0) << "most " << most;
    EXPECT_LT(most, 3);
}

TEST(Colour, SurfaceIsItsOwnInverseAndGlossIsDeeper) {
    for (const Dullness dull : {kMatt, kSatin, kGloss})
        for (const double r : {0.0, 0.1, 0.5, 0.93}) {
            EXPECT_NEAR(innerOf(lookOf(evenBands(r), dull), dull)[4], r, 1e-12);
            EXPECT_LE(labOf(xyzOf(lookOf(evenBands(r), kGloss))).l,
                      labOf(xyzOf(lookOf(evenBands(r), dull))).l);
        }
    // Saunderson's formula with k1 .04, k2 .6, by hand: .04 + .96 * .4 * .5 / (1 - .3).
    EXPECT_NEAR(lookOf(evenBands(.5), kMatt)[0], .04 + .192 / .7, 1e-12);
}

TEST(Colour, NarrowMarksAreToldApartLessByColourAlone) {
    const Lab ground{60, 0, 0};
    const ToldApart wide = toldApart({60, 30, 0}, ground, false),
                    narrow = toldApart({60, 30, 0}, ground, true);
    EXPECT_LT(narrow.difference, 0.85 * wide.difference);
    EXPECT_DOUBLE_EQ(toldApart({80, 0, 0}, ground, true).difference,
                     toldApart({80, 0, 0}, ground, false).difference);
    EXPECT_EQ(toldApart({61, 0, 0}, ground, false).word, Apart::Hardly);
    EXPECT_EQ(toldApart({5, 0, 0}, ground, false).word, Apart::Loud);
}

}  // namespace
}  // namespace nine
