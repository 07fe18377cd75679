// Colours in words, against the names that SVG 1.1 (W3C Recommendation, section 4.4) gives to colours; and
// swatches read off a photo.
#include <gtest/gtest.h>

#include "paint/colour_words.h"
#include "paint/swatch_photo.h"
#include "tests/support.h"

namespace nine {
namespace {

std::string wordsOf(const char* colour) {
    return colourWords(labOf(xyzOf(linearOf(*parseColour(colour))))).plain();
}

TEST(ColourWords, NamedColoursComeOutByTheirNames) {
    const std::pair<const char*, const char*> named[] = {
        {"#000000", "black"},        {"#ffffff", "white"},          {"#808080", "grey"},
        {"#ff0000", "red"},          {"#ffa500", "orange"},         {"#ffff00", "yellow"},
        {"#008000", "green"},        {"#0000ff", "blue"},           {"#808000", "olive"},
        {"#a52a2a", "red"},          {"#8b4513", "brown"},          {"#40e0d0", "turquoise"},
        {"#ff00ff", "magenta"},      {"#ee82ee", "violet"},         {"#dc143c", "crimson"},
        {"#87ceeb", "blue"},         {"#fa8072", "salmon"},         {"#ffc0cb", "pink"},
        {"#00ff00", "lime|green"},   {"#008080", "teal|turquoise"}, {"#000080", "dark blue"},
        {"#006400", "dark green"},   {"#8b0000", "dark red"},       {"#fffdd0", "cream|yellow"},
        {"#b8860b", "ochre|yellow"}, {"#d3d3d3", "light grey"},     {"#a9a9a9", "grey"}};
    for (const auto& [colour, names] : named) {
        const std::string said = wordsOf(colour);
        bool found = false;
        std::string rest = names;
        while (!rest.empty()) {
            const std::size_t bar = rest.find('|');
            found = found || said.find(rest.substr(0, bar)) != std::string::npos;
            rest = bar == std::string::npos ? "" : rest.substr(bar + 1);
        }
        EXPECT_TRUE(found) << colour << " is " << said << ", not " << names;
    }
}

TEST(ColourWords, EveryColourHasWords) {
    for (int r = 0; r < 256; r += 15)
        for (int g = 0; g < 256; g += 15)
            for (int b = 0; b < 256; b += 15)
                ASSERT_FALSE(colourWords(labOf(xyzOf(linearOf(Srgb{double(r), double(g), double(b)}))))
                                 .plain()
                                 .empty());
}

TEST(SwatchPhoto, WarmLightIsTakenOutByTheWhiteBesideIt) {
    // A card under light that gives red 90 %, green 60 % and blue 40 % of what daylight does.
    const auto lit = [](const Srgb& real) {
        const LinearRgb l = linearOf(real);
        return srgbOf(LinearRgb{.9 * l.r, .6 * l.g, .4 * l.b});
    };
    const Srgb paper = srgbOf(LinearRgb{kPatchWhite, kPatchWhite, kPatchWhite});
    for (const Srgb real : {Srgb{180, 60, 40}, Srgb{40, 90, 160}, Srgb{120, 120, 120}}) {
        const Srgb read = test::need(colourFromPhoto(lit(real), lit(paper)));
        EXPECT_NEAR(read.r, real.r, 0.6);
        EXPECT_NEAR(read.g, real.g, 0.6);
        EXPECT_NEAR(read.b, real.b, 0.6);
    }
}

TEST(SwatchPhoto, APhotoWithoutWhiteIsRefused) {
    const Srgb swatch{120, 60, 40};
    EXPECT_EQ(colourFromPhoto(swatch, {60, 60, 60}).error().code, "no_white");     // dark
    EXPECT_EQ(colourFromPhoto(swatch, {255, 250, 245}).error().code, "no_white");  // clipped
    EXPECT_EQ(colourFromPhoto(swatch, {230, 120, 60}).error().code, "no_white");   // coloured
    EXPECT_TRUE(colourFromPhoto(swatch, {230, 225, 210}));
}

}  // namespace
}  // namespace nine
