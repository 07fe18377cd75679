// Cards found again, sides compared, wear counted.
#include <gtest/gtest.h>

#include <cmath>

#include "log/sides.h"
#include "log/wear.h"
#include "tests/support.h"

namespace nine {
namespace {

RecipeCard logCard(const std::string& title, Moment ended) {
    RecipeCard c;
    c.id = c.title = title;
    c.blank = "Sedge 60";
    c.began = c.ended = ended;
    return c;
}

TEST(Cards, AreFoundByAnyWordOfThem) {
    RecipeCard c = logCard("Brook char", 1764500000);  // 2025-11-30
    LaidStep step;
    step.name = "Räucherton";
    step.colour = "#C03020";
    step.paint = {{"x", "Opaque white", 4}};
    c.steps = {step};
    c.mishaps = {{1764500000, "creep", "", "", 4}};
    c.text = "Halo reads well";
    CardIndex index;
    index.put("char", c.ended, searchTextOf(c));
    index.put("newer", c.ended + 86400, searchTextOf(logCard("Smelt", c.ended + 86400)));
    for (const char* words :
         {"brook", "CHAR sedge", "opaque", "räucher", "RÄUCHER", "red", "2025-11-30", "crept", "halo well"})
        EXPECT_EQ(index.find(words), std::vector<std::string>{"char"}) << words;
    EXPECT_EQ(index.find(""), (std::vector<std::string>{"newer", "char"}));
    EXPECT_EQ(index.find("sedge"), (std::vector<std::string>{"newer", "char"}));
    EXPECT_TRUE(index.find("brook smelt").empty());
    index.take("char");
    EXPECT_TRUE(index.find("brook").empty());
}

/// Marks of a sheet that was laid elsewhere: moved, then turned about the middle of its marks.
std::vector<SideReading> laidMask(const std::string& mask, double along_mm, double up_mm, double turned_rad,
                                  double startX_mm = 20) {
    std::vector<SideReading> all;
    constexpr int kMarks = 6;
    const double midX_mm = startX_mm + 2.5 * 6, midUp_mm = 12;
    for (int i = 0; i < kMarks; ++i) {
        SideReading r;
        r.mark = mask + " " + std::to_string(i + 1);
        r.mask = mask;
        r.plannedX_mm = startX_mm + 6 * i;
        r.plannedUp_mm = 12 + (i % 2);
        r.leftX_mm = r.plannedX_mm;
        r.leftUp_mm = r.plannedUp_mm;
        const double x = r.plannedX_mm - midX_mm, up = r.plannedUp_mm - midUp_mm;
        r.rightX_mm = midX_mm + along_mm + std::cos(turned_rad) * x - std::sin(turned_rad) * up;
        r.rightUp_mm = midUp_mm + up_mm + std::sin(turned_rad) * x + std::cos(turned_rad) * up;
        all.push_back(r);
    }
    return all;
}

TEST(Sides, AMaskThatLayElsewhereIsNamed) {
    auto readings = laidMask("Red dots", 0.6, 0.1, 0);
    for (const SideReading& r : laidMask("Bars", 0.1, 0, 0, 40)) readings.push_back(r);
    const SideReport report = compareSides(readings);
    ASSERT_EQ(report.findings.size(), 1u);
    EXPECT_EQ(report.findings[0].cause, SideCause::MaskMoved);
    EXPECT_EQ(report.findings[0].mask, "Red dots");
    EXPECT_TRUE(report.findings[0].right);
    EXPECT_NEAR(report.findings[0].along_mm, 0.6, 1e-9);
    EXPECT_EQ(report.findings[0].says.plain(),
              "Red dots lay 0.6 mm towards the tail on the right, all 6 of its marks alike.");
    EXPECT_EQ(
        std::count_if(report.differences.begin(), report.differences.end(), [](auto& d) { return d.seen(); }),
        6);
}

TEST(Sides, ASheetThatLayAskewIsTold) {
    const SideReport report = compareSides(laidMask("Red dots", 0, 0, 0.06));
    ASSERT_EQ(report.findings.size(), 1u);
    EXPECT_EQ(report.findings[0].cause, SideCause::MaskTurned);
    EXPECT_NEAR(report.findings[0].turned_deg, radToDeg(0.06), 0.02);
}

TEST(Sides, OneMarkAloneIsNotBlamedOnItsMask) {
    auto readings = laidMask("Red dots", 0, 0, 0);
    *readings[5].rightX_mm += 0.9;  // at the end: it must not look like a turn
    const SideReport report = compareSides(readings);
    ASSERT_EQ(report.findings.size(), 1u);
    EXPECT_EQ(report.findings[0].cause, SideCause::OneMark);
    EXPECT_EQ(report.findings[0].mark, "Red dots 6");
}

TEST(Sides, WhatAllMasksHaveInCommonIsTheMeasuring) {
    auto readings = laidMask("Red dots", 0.8, 0, 0);
    for (const SideReading& r : laidMask("Bars", 0.75, 0.05, 0, 40)) readings.push_back(r);
    const SideReport report = compareSides(readings);
    ASSERT_EQ(report.findings.size(), 1u);
    EXPECT_EQ(report.findings[0].cause, SideCause::WholeSide);
}

TEST(Sides, AlikeIsAlikeAndHalfMeasuredSaysNothing) {
    EXPECT_TRUE(compareSides(laidMask("Red dots", 0.3, 0.2, 0.005)).findings.empty());
    SideReading half;
    half.mark = "dot";
    half.leftX_mm = 20;
    EXPECT_TRUE(compareSides({half}).differences.empty());
}

TEST(Wear, CountsUsesOfCardsSinceTheToolWasNew) {
    RecipeCard old = logCard("one", 1000), young = logCard("two", 2000);
    old.tools = {{"net", "mesh", "Craft mesh", "metal", 5}, {"mask", "m", "Bars", "film", 8}};
    young.tools = {{"net", "mesh", "Craft mesh", "metal", 1}, {"brush", "b", "Clear brush", "", 24}};
    auto wear = wearOf({old, young}, {});
    const auto named = [&](const std::string& id) {
        return *std::find_if(wear.begin(), wear.end(), [&](const Wear& w) { return w.id == id; });
    };
    EXPECT_EQ(wear.front().id, "mesh");  // 6 of 7
    EXPECT_EQ(named("mesh").uses, 6);
    EXPECT_EQ(named("mesh").left(), 1);
    EXPECT_TRUE(named("mesh").soon());
    EXPECT_EQ(named("b").life, 100);
    EXPECT_EQ(named("m").life, 0);  // nobody says how long film lasts
    EXPECT_FALSE(named("m").soon());
    wear = wearOf({old, young}, {{"net", "mesh", "Craft mesh", "metal", 10, 12.5, 1500, 2, ""}});
    EXPECT_EQ(named("mesh").uses, 1);
    EXPECT_EQ(named("mesh").left(), 9);
    EXPECT_DOUBLE_EQ(named("mesh").perUse, 1.25);
    EXPECT_DOUBLE_EQ(named("mesh").wider_mm, 2 * kFiled_mm);
}

}  // namespace
}  // namespace nine
