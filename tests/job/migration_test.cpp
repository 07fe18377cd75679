// Files of format 1, and what the list of chapters makes of a job.
#include <gtest/gtest.h>

#include <nlohmann/json.hpp>

#include "job/derive.h"
#include "job/export.h"
#include "job/job_file.h"
#include "job/migrate.h"
#include "tests/here.h"
#include "tests/plain_job.h"
#include "tests/support.h"

namespace nine {
namespace {

using test::need;
using Tree = nlohmann::ordered_json;

std::string formatFile(int version) {
    return need(readFile(nine::sourceDir() + "/tests/formats/v" + std::to_string(version) +
                         "-sedge60.nineleaves.json"));
}

/// The demo as format 1 had it, taken apart by another JSON library.
Tree demoInFormat1() {
    Tree json = Tree::parse(jobText(need(test::plainJob())));
    json["format"] = 1;
    for (const char* key : {"masks", "spray"}) json[key] = Tree(json[key]["masks"]);
    for (Tree& mask : json["masks"]) mask.erase("kind");
    return json;
}

TEST(Migration, TheSameJobComesOutOfBothFormats) {
    const LoadedJob old = need(parseJob(demoInFormat1().dump(1), "f"));
    EXPECT_TRUE(old.warnings.empty());
    EXPECT_EQ(jobText(old.job), jobText(need(test::plainJob())));
    // The kept file of format 3 is what is written today, byte for byte; those before are written as 3.
    EXPECT_EQ(jobText(need(parseJob(formatFile(3), "f")).job), formatFile(3));
    const Tree written = Tree::parse(jobText(need(parseJob(formatFile(1), "f")).job));
    EXPECT_EQ(written["format"], 3);
    EXPECT_EQ(written["masks"]["masks"].size(), Tree::parse(formatFile(1))["masks"].size());
    EXPECT_EQ(written["masks"]["masks"][0]["margin_mm"], 6);
}

/// Format 2 knew colours without steps: each becomes a step and a paint, in order, and nothing else changes.
TEST(Migration, ColoursOfFormat2BecomeStepsAndPaints) {
    const Tree before = Tree::parse(formatFile(2));
    Tree after = Tree::parse(jobText(need(parseJob(formatFile(2), "f")).job));
    const Tree layers = after["layers"];
    after.erase("layers");
    after["format"] = 2;
    EXPECT_EQ(after, before);
    std::vector<std::string> colours;
    for (const Tree& step : layers["steps"]) {
        if (!step.contains("paint")) continue;
        for (const Tree& paint : layers["paints"])
            if (paint["id"] == step["paint"][0]["of"]) colours.push_back(paint["swatches"][0]["seen"]);
    }
    std::vector<std::string> wanted;
    const auto add = [&](std::string colour) {
        for (char& c : colour) c = static_cast<char>(std::toupper(c));
        wanted.push_back(colour);
    };
    for (const char* part : {"side", "belly", "back"}) add(before["pattern"]["ground"][part]);
    for (const Tree& element : before["pattern"]["elements"]) add(element["colour"]);
    EXPECT_EQ(colours, wanted);
    // Every mask is laid on, sprayed through and taken off, once for both sides.
    EXPECT_EQ(layers["steps"].size(), 3 + 3 * before["pattern"]["elements"].size());
}

/// Lines stay where they are, so that an error names the line of the file; and nothing else is touched.
TEST(Migration, AddsNoLineAndTouchesNothingElse) {
    const std::string before = formatFile(1), after = format2From1(before);
    EXPECT_EQ(std::count(before.begin(), before.end(), '\n'), std::count(after.begin(), after.end(), '\n'));
    Tree expected = Tree::parse(before);
    expected["format"] = 2;
    expected["masks"] = Tree{{"masks", expected["masks"]}};
    EXPECT_EQ(Tree::parse(after), expected);
    EXPECT_EQ(format2From1(R"({"masks":[],"format":1,"later":{"masks":[1]},"masks":[{"id":"a"}]})"),
              R"({"masks":{"masks": []},"format":2,"later":{"masks":[1]},"masks":{"masks": [{"id":"a"}]}})");
}

TEST(Migration, ErrorsNameThePlacesOfTheFileThatWasRead) {
    const auto where = [](const Tree& json) {
        const std::string text = json.dump(1);
        const auto loaded = parseJob(text, "f");
        return loaded ? std::string("read") : loaded.error().where;
    };
    const auto lineOf = [](const Tree& json, const char* words) {
        const std::string text = json.dump(1);
        const auto at = text.find(words);
        return std::to_string(1 + std::count(text.begin(), text.begin() + static_cast<long>(at), '\n'));
    };
    Tree old = demoInFormat1();
    old["masks"][1]["material"] = "jelly";
    EXPECT_EQ(where(old), "f:" + lineOf(old, "\"jelly\"") + " masks[1].material");
    old = demoInFormat1();
    old["spray"][0]["paint"] = "lead";
    EXPECT_EQ(where(old), "f:" + lineOf(old, "\"lead\"") + " spray[0].paint");
    old = demoInFormat1();
    old["masks"] = 7;
    EXPECT_EQ(where(old).substr(where(old).find(' ')), " masks");
    old["masks"] = Tree::object();  // an object is of format 2
    EXPECT_EQ(where(old).substr(where(old).find(' ')), " masks");
    Tree today = Tree::parse(jobText(need(test::plainJob())));
    today["masks"]["masks"][1]["material"] = "jelly";
    EXPECT_EQ(where(today), "f:" + lineOf(today, "\"jelly\"") + " masks.masks[1].material");
    today["masks"] = Tree::array();  // a list is of format 1
    EXPECT_EQ(where(today).substr(where(today).find(' ')), " masks");
}

TEST(Migration, AByteOrderMarkIsNoHindrance) {
    EXPECT_TRUE(parseJob("\xEF\xBB\xBF" + demoInFormat1().dump(1), "f"));
    EXPECT_TRUE(parseJob("\xEF\xBB\xBF" + jobText(need(test::plainJob())), "f"));
}

TEST(Chapters, AMaskOfAnUnknownKindIsKeptMakesNoSheetAndIsTold) {
    const std::string strange =
        R"({"id":"later-L","kind":"of_later","elements":["red-dots"],"side":"R","pieces":[1,{"x":-0}],"margin_mm":"wide"})";
    Tree json = Tree::parse(jobText(need(test::plainJob())));
    std::string text = json.dump();
    text.replace(text.find("{\"id\":\"parr-bars-L\""), 0, strange + ",");
    const LoadedJob loaded = need(parseJob(text, "f"));
    ASSERT_EQ(loaded.warnings.size(), 1u);
    EXPECT_EQ(loaded.warnings[0].code, "unknown_kind");
    EXPECT_EQ(loaded.warnings[0].where, "masks.masks[0].kind");
    EXPECT_NE(jobText(loaded.job).find(strange), std::string::npos);
    // Edits leave it alone, also when the element it names goes.
    PatternChapter pattern = loaded.job.get<PatternChapter>();
    std::erase_if(pattern.elements, [](const ElementPtr& e) { return e->id == "red-dots"; });
    const Job fewer = inStep(loaded.job.with(pattern));
    EXPECT_NE(jobText(fewer).find(strange), std::string::npos);
    EXPECT_TRUE(parseJob(jobText(fewer), "f"));
    Derivations derived;
    const auto masks = derived.masks(loaded.job, 200);
    ASSERT_FALSE(masks[0].mask);
    EXPECT_EQ(masks[0].mask.error().code, "unknown_kind");
    EXPECT_EQ(masks[0].mask.error().where, "masks.masks[0]");
    EXPECT_TRUE(masks[1].mask);
    // The others are cut all the same.
    const CutPages pages = need(cutPages(loaded.job, masks));
    EXPECT_EQ(pages.pieces.size(), masks.size() - 1);
}

TEST(Chapters, WhatDiffersIsToldByTheList) {
    const Job demo = need(test::plainJob());
    EXPECT_TRUE(differing(demo, demo).none());
    CutChapter cut = demo.get<CutChapter>();
    cut.sheet.width_mm += 10;
    EXPECT_EQ(differing(demo, demo.with(cut)), partsOf<CutChapter>());
    EXPECT_EQ(differing(demo, demo.with(cut).with(PatternChapter{})),
              (partsOf<CutChapter, PatternChapter>()));
    EXPECT_EQ(differing(demo, Job{}), allParts());
    EXPECT_EQ(allParts().count(), Chapters::count);
    // Equal values that are not shared differ: that is what undo and memory go by.
    EXPECT_EQ(differing(demo, demo.with(demo.get<CutChapter>())), partsOf<CutChapter>());
}

TEST(Chapters, OneThatSaysNothingIsLeftOutOfTheFile) {
    const Job demo = need(test::plainJob());
    const Tree bare = Tree::parse(jobText(withMasks(demo, {}).with(SprayChapter{})));
    EXPECT_FALSE(bare.contains("masks"));
    EXPECT_FALSE(bare.contains("spray"));
    EXPECT_FALSE(bare.contains("cut"));
    EXPECT_TRUE(bare.contains("pattern"));
    std::vector<std::string> order;
    const Tree whole = Tree::parse(jobText(demo));
    for (const auto& [key, value] : whole.items()) order.push_back(key);
    EXPECT_EQ(order, (std::vector<std::string>{"format", "blank", "pattern", "masks", "spray", "layers"}));
}

/// What is remembered of a mask hangs on its whole wish: any field that is changed solves anew, side, name
/// and id do not.
TEST(Chapters, AMaskIsRememberedByItsWholeWish) {
    const Job demo = need(test::plainJob());
    const MaskSpec spec = *maskSpecs(demo)[0];
    Derivations derived;
    const MaskPtr first = need(derived.mask(demo, spec, 200));
    MaskSpec same = spec;
    same.id = "another";
    same.name = "Another";
    EXPECT_EQ(need(derived.mask(demo, same, 200)), first);
    const std::function<void(MaskWish&)> changes[] = {[](MaskWish& w) { w.material = "paper"; },
                                                      [](MaskWish& w) { w.apply = Apply::Back; },
                                                      [](MaskWish& w) { w.values.set("margin_mm", 7.0); },
                                                      [](MaskWish& w) { w.elements.push_back("red-dots"); }};
    for (const auto& change : changes) {
        MaskSpec other = spec;
        change(other.wish);
        EXPECT_NE(need(derived.mask(demo, other, 200)), first);
    }
}

}  // namespace
}  // namespace nine
