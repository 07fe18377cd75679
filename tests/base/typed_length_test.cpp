// The grammar of typed lengths, in a unit of mm and of inches. Expected values by hand; 1 in = 25.4 mm
// exactly (ISO 31-1).
#include "base/typed_length.h"

#include <gtest/gtest.h>

#include <random>

#include "base/number_text.h"

namespace nine {
namespace {

struct Case {
    const char* text;
    double mm, inch;  ///< the length where a bare number is in mm, in inches
};

TEST(TypedLength, NumbersFractionsAndUnits) {
    constexpr double in = 25.4;
    const Case cases[] = {
        {"2.4", 2.4, 2.4 * in},
        {"2,4", 2.4, 2.4 * in},
        {".5", 0.5, 0.5 * in},
        {" 2.4 mm ", 2.4, 2.4},
        {"2.4mm", 2.4, 2.4},
        {"1 cm", 10, 10},
        {"0.1 in", 2.54, 2.54},
        {"1/2 in", 12.7, 12.7},
        {"1/2", 0.5, 12.7},
        {"3/8\"", 9.525, 9.525},
        {"3/8 \"", 9.525, 9.525},
        {"3/8\u2033", 9.525, 9.525},
        {"3/8 inch", 9.525, 9.525},
        {"5/16 inches", 7.9375, 7.9375},
        {"1 1/2 in", 38.1, 38.1},
        {"1 1/2", 1.5, 38.1},
        {"10 3/4\"", 273.05, 273.05},
        {"1  1/2   in", 38.1, 38.1},
        {"-1/2 in", -12.7, -12.7},
        {"-1 1/2 in", -38.1, -38.1},
        {"1/2 IN", 12.7, 12.7},
        {"1/2 in + 1 mm", 13.7, 13.7},
        {"1 in - 1/4 in", 19.05, 19.05},
        {"3*4.5 + 2", 15.5, 15.5 * in},
        {"3 * 4.5 mm + 2 mm", 15.5, 15.5},
        {"2 * 3/8 in", 19.05, 19.05},
        {"3/8 in * 2", 19.05, 19.05},
        {"10 mm / 4", 2.5, 2.5},
        {"10/4", 2.5, 2.5 * in},
        {"10/4*2", 5, 5 * in},
        {"10/2.5", 4, 4 * in},
        {"12 / 4", 3, 3 * in},
        {"1 + 1/2 in", 1 + 12.7, in + 12.7},
    };
    for (const Case& c : cases) {
        const auto mm = typedLength(c.text, 1), inch = typedLength(c.text, in);
        ASSERT_TRUE(mm && inch) << c.text;
        EXPECT_NEAR(*mm, c.mm, 1e-9) << c.text;
        EXPECT_NEAR(*inch, c.inch, 1e-9) << c.text;
    }
}

TEST(TypedLength, WhatIsNoLengthIsNone) {
    for (const char* text :
         {"",         " ",           "mm",       "in",          "\"",        "abc",     "1 2",
          "1 2 mm",   "1/",          "/2",       "1//2",        "1/0",       "1/0 in",  "1 1/0",
          "1 3/2 in", "2 mm * 3 mm", "2 / 1 in", "2 mm / 1 mm", "1e3",       "1e99",    "inf",
          "nan",      "0x10",        "1..2",     "1,2,3",       "2 ft",      "2 mm mm", "1 mm 1/2",
          "(2)",      "2 +",         "+ + 2",    "--2",         "1 1/2 1/2", "\xff",    "1/2 in/2 in"}) {
        EXPECT_FALSE(typedLength(text, 1)) << text;
        EXPECT_FALSE(typedLength(text, 25.4)) << text;
    }
    EXPECT_FALSE(typedLength(std::string(5000, '9'), 1));
}

TEST(TypedNumber, HasNoUnits) {
    EXPECT_EQ(typedNumber("12"), 12);
    EXPECT_EQ(typedNumber("1/2"), 0.5);
    EXPECT_EQ(typedNumber("2 1/2"), 2.5);
    EXPECT_EQ(typedNumber("3*4"), 12);
    EXPECT_FALSE(typedNumber("3 mm"));
    EXPECT_FALSE(typedNumber("3 in"));
    EXPECT_FALSE(typedNumber("1e99"));
}

/// Every sixty-fourth of an inch up to 4 in, as people write it, against the plain quotient.
TEST(TypedLength, EverySixtyFourth) {
    for (int n = 1; n <= 256; ++n) {
        int above = n % 64, below = 64;
        while (above > 0 && above % 2 == 0) {
            above /= 2;
            below /= 2;
        }
        const int whole = n / 64;
        std::string text = whole > 0 ? std::to_string(whole) : "";
        if (above > 0) text += (whole > 0 ? " " : "") + std::to_string(above) + "/" + std::to_string(below);
        const auto mm = typedLength(text + " in", 1);
        ASSERT_TRUE(mm) << text;
        EXPECT_NEAR(*mm, n * 25.4 / 64, 1e-9) << text;
    }
}

TEST(TypedLength, RandomTextIsALengthOrNone) {
    std::mt19937 random(11);
    const std::string letters = "0123456789 /*+-.,imnch\"";
    for (int i = 0; i < 20000; ++i) {
        std::string text;
        for (int k = 0; k < 1 + i % 12; ++k) text += letters[random() % letters.size()];
        const auto mm = typedLength(text, 1);
        if (mm) {
            EXPECT_TRUE(std::isfinite(*mm)) << text;
            // What is written out and typed again is the same.
            EXPECT_NEAR(typedLength(fixedText(*mm, 9) + " mm", 25.4).value_or(1e300), *mm,
                        1e-6 + 1e-9 * std::abs(*mm))
                << text;
        }
    }
}

}  // namespace
}  // namespace nine
