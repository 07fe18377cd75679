#include "base/result.h"

#include <gtest/gtest.h>

namespace nine {
namespace {

TEST(Words, KeysStandAnyNumberOfTimesInAnyOrder) {
    const Words words =
        Words(NINE_WORDS("test", "{b} after {a}, and {b} again.")).length("a", 12.345, 1).number("b", 3, 0);
    EXPECT_EQ(words.plain(), "3 after 12.3 mm, and 3 again.");
    EXPECT_EQ(filled("{a} vor {b}", words, [](const Said& said) { return "<" + said.key + ">"; }),
              "<a> vor <b>");
}

TEST(Words, BracesOfTheSentenceAndOfValuesStay) {
    EXPECT_EQ(Words(NINE_WORDS("test", "Write an object in braces { }, not {.")).plain(),
              "Write an object in braces { }, not {.");
    EXPECT_EQ(Words(NINE_WORDS("test", "{name} is taken")).name("name", "{name}").plain(), "{name} is taken");
    EXPECT_EQ(Words::verbatim("a {b} 100 %").plain(), "a {b} 100 %");
    EXPECT_TRUE(Words::verbatim("").empty());
}

TEST(Words, NumbersAreShownAsTheirMeasureSays) {
    const auto shown = [](Words words) { return words.plain(); };
    const Pattern v = NINE_WORDS("test", "{v}");
    EXPECT_EQ(shown(Words(v).length("v", 2, kShortest)), "2 mm");
    EXPECT_EQ(shown(Words(v).length("v", 0.1, kShortest)), "0.1 mm");
    EXPECT_EQ(shown(Words(v).length("v", -0.004, 2)), "0.00 mm");
    EXPECT_EQ(shown(Words(v).share("v", 0.0271)), "2.7 %");
    EXPECT_EQ(shown(Words(v).share("v", 0.0034)), "0.34 %");
    EXPECT_EQ(shown(Words(v).number("v", 1234.6, 0)), "1235");
}

TEST(Words, ListsAreSpoken) {
    const auto item = [](const char* text) { return Words::verbatim(text); };
    EXPECT_TRUE(listed({}).empty());
    EXPECT_EQ(listed({item("a")}).plain(), "a");
    EXPECT_EQ(listed({item("a"), item("b")}).plain(), "a and b");
    EXPECT_EQ(listed({item("a"), item("b"), item("c")}).plain(), "a, b and c");
    EXPECT_EQ(parted({item("a"), item("b"), item("c")}).plain(), "a, b, c");
}

TEST(Words, AnErrorSaysItsSentence) {
    const Error error{"off_body", Words(NINE_WORDS("test", "x is {x}.")).length("x", 5, 0), "masks[0]"};
    EXPECT_EQ(error.text(), "x is 5 mm.");
}

}  // namespace
}  // namespace nine
