// The JSON of jobs: what this version does not know is kept, whatever it is; what is hostile is refused with
// a sentence.
#include <nlohmann/json.hpp>
#include <random>

#include "job/bench_file.h"
#include "job/derive.h"
#include "job/job_file.h"
#include "job/json_place.h"
#include "tests/plain_job.h"
#include "tests/support.h"

namespace nine {
namespace {

using test::need;
using Tree = nlohmann::ordered_json;

std::string wholeDemo() {
    return jobText(need(test::plainJob()));
}

/// The demo with everything in it that a job can hold.
Tree fullJob() {
    Tree json = Tree::parse(wholeDemo());
    json["blank"]["landmarks"]["keel"] = Tree::parse(R"({"points":[[20,-3],[30,-3]]})");
    json["blank"]["landmarks"]["bill_slot"] = Tree::parse(
        R"({"points":[[4,-1],[6,-1],[6,-2],[4,-1]],"angle_deg":30.0,"length_mm":20.0,"width_mm":14.0})");
    json["blank"]["zones"] = Tree::parse(
        R"([{"id":"z","name":"cheek","kind":"relief","no_paint":false,"relief_mm":0.5,"polygon":[[10,1],[14,1],[12,3]]}])");
    json["blank"]["soft_tail"] = Tree::parse(R"({"length_mm":12.0,"height_mm":8.0})");
    json["blank"]["pictures"] =
        Tree::parse(R"([{"file":"a.jpg","hash":"00","ends_px":[[1,2],[3,4]],"jpeg":"AAEC"}])");
    json["cut"] = Tree::parse(
        R"({"sheet":{"width_mm":300.0,"height_mm":420.0},"places":[{"mask":"red-dots-L","sheet":1,"x_mm":80.0,"y_mm":90.0}]})");
    json["spray"] =
        Tree::parse(R"({"masks":[{"mask":"red-dots-L","paint":"ink","pins":{"distance_mm":64.5}}]})");
    return json;
}

/// Paths of all objects of a tree.
void objectsOf(const Tree& json, const Tree::json_pointer& at, std::vector<Tree::json_pointer>& found) {
    if (json.is_object()) {
        found.push_back(at);
        for (const auto& [key, value] : json.items()) objectsOf(value, at / key, found);
    } else if (json.is_array()) {
        for (std::size_t i = 0; i < json.size(); ++i) objectsOf(json[i], at / i, found);
    }
}

/// One unknown key in each object the file has, one at a time and all at once; nothing may be lost or moved.
TEST(JobJson, UnknownKeysArePreservedAtEveryDepth) {
    const Tree whole = fullJob();
    std::vector<Tree::json_pointer> objects;
    objectsOf(whole, Tree::json_pointer(), objects);
    ASSERT_GT(objects.size(), 40u);
    Tree all = whole;
    for (const auto& at : objects) {
        if (at.to_string() == "/blank/landmarks") continue;  // every key there is the name of a landmark
        Tree one = whole;
        for (Tree* json : {&one, &all}) (*json)[at]["zz_later"] = Tree::parse(R"({"b":[1,{"c":null}]})");
        const auto loaded = parseJob(one.dump(), "f");
        ASSERT_TRUE(loaded) << at << ": " << loaded.error().text();
        EXPECT_EQ(nlohmann::json::parse(
                      jobText(loaded->job))[nlohmann::json::json_pointer(at.to_string())]["zz_later"],
                  nlohmann::json::parse(R"({"b":[1,{"c":null}]})"))
            << at;
    }
    const std::string text = jobText(need(parseJob(all.dump(), "f")).job);
    EXPECT_EQ(nlohmann::json::parse(text), nlohmann::json::parse(all.dump()));
    EXPECT_EQ(jobText(need(parseJob(text, "f")).job), text);
}

TEST(JobJson, UnknownValuesKeepTheirDigits) {
    const std::string raw =
        R"({"big":123456789012345678901234567890,"zero":-0,"tiny":1e-400,"long":0.10000000000000000001,"one":1.0,)"
        R"("e":1E5,"text":"\u00e9\/","list":[ 1,2 ]})";
    std::string text = wholeDemo();
    text.replace(text.find("\"format\""), 0, "\"later\": " + raw + ", ");
    const std::string again = jobText(need(parseJob(text, "f")).job);
    EXPECT_NE(again.find(raw), std::string::npos) << again.substr(again.size() - 300);
    EXPECT_EQ(jobText(need(parseJob(again, "f")).job), again);
}

TEST(JobJson, AnElementOfAnUnknownKindIsKeptDrawnAsNothingAndTold) {
    const std::string strange =
        R"({"id":"worms","kind":"worm_tracks","name":17,"density":0.5,"side":"R","linked":false,"dx_mm":"far"})";
    Tree json = fullJob();
    json["pattern"]["elements"].insert(json["pattern"]["elements"].begin() + 1, Tree::parse(strange));
    json["masks"]["masks"].push_back(Tree::parse(R"({"id":"worms-R","elements":["worms"],"side":"R"})"));
    json["masks"]["masks"][0]["elements"].push_back("worms");
    json["masks"]["masks"][0]["side"] = "R";
    const LoadedJob loaded = need(parseJob(json.dump(), "f"));
    ASSERT_EQ(loaded.warnings.size(), 1u);
    EXPECT_EQ(loaded.warnings[0].code, "unknown_kind");
    EXPECT_EQ(loaded.warnings[0].where, "pattern.elements[1].kind");
    EXPECT_NE(loaded.warnings[0].text().find("worms"), std::string::npos);
    EXPECT_NE(jobText(loaded.job).find(strange), std::string::npos);

    Derivations derived;
    EXPECT_TRUE(need(derived.art(loaded.job, 1))->outlines().empty());
    const auto masks = derived.masks(loaded.job, 200);
    EXPECT_TRUE(masks[0].mask);  // it opens another element too
    EXPECT_EQ(masks.back().mask.error().code, "nothing_to_open");
    // Without masks of its own the job makes none for it; and edits leave it alone.
    Job job = withMasks(loaded.job, {});
    for (const MaskSpecPtr& spec : maskSpecs(job)) EXPECT_NE(spec->wish.elements[0], "worms");
    EXPECT_NE(jobText(inStep(loaded.job)).find(strange), std::string::npos);
}

TEST(JobJson, AnUnknownPinIsKeptAndTold) {
    Tree json = fullJob();
    json["spray"]["masks"][0]["pins"]["luck"] = 7;
    const LoadedJob loaded = need(parseJob(json.dump(), "f"));
    ASSERT_EQ(loaded.warnings.size(), 1u);
    EXPECT_EQ(loaded.warnings[0].code, "unknown_pin");
    EXPECT_EQ(nlohmann::json::parse(jobText(loaded.job))["spray"]["masks"][0]["pins"],
              nlohmann::json::parse(json["spray"]["masks"][0]["pins"].dump()));
}

TEST(JobJson, FormatsAreExactNumbers) {
    const auto code = [](const char* format) {
        std::string text = wholeDemo();
        return parseJob(text.replace(text.find("\"format\": 3"), 11, std::string("\"format\": ") + format),
                        "f")
            .error()
            .code;
    };
    EXPECT_EQ(code("4294967297"), "newer_format");            // 1 in 32 bits
    EXPECT_EQ(code("18446744073709551617"), "newer_format");  // 1 in 64 bits
    EXPECT_EQ(code("123456789012345678901234567890"), "newer_format");
    EXPECT_EQ(code("-4294967295"), "not_a_job");
    EXPECT_EQ(code("3.5"), "newer_format");
    EXPECT_EQ(code("2.5"), "not_a_job");
    EXPECT_EQ(code("1.5"), "not_a_job");
    EXPECT_EQ(code("0.5"), "not_a_job");
    EXPECT_EQ(code("true"), "not_a_job");
}

TEST(JobJson, BracketsWithinBracketsEndInASentence) {
    for (const std::string open : {"[", "{\"a\":"}) {
        for (const std::size_t depth : {101u, 5000u, 60000u, 400000u}) {
            std::string deep;
            for (std::size_t i = 0; i < depth; ++i) deep += open;
            std::string closed = deep + "1";
            for (std::size_t i = 0; i < depth; ++i) closed += open == "[" ? "]" : "}";
            for (const std::string& value : {deep, closed}) {
                std::string text = wholeDemo();
                text.replace(text.find("\"format\""), 0, "\"later\": " + value + ", ");
                for (const std::string& file : {value, text}) {
                    EXPECT_EQ(parseJob(file, "f").error().code, "too_deep") << depth;
                    EXPECT_EQ(parseBench(file, "f").error().code, "too_deep") << depth;
                }
            }
        }
    }
    // What is as deep as allowed is read, written without growing, and read again.
    std::string deep(98, '['), text = wholeDemo();
    deep += std::string(98, ']');
    text.replace(text.find("\"format\""), 0, "\"later\": " + deep + ", ");
    const std::string again = jobText(need(parseJob(text, "f")).job);
    EXPECT_LT(again.size(), text.size() + 200);
    EXPECT_TRUE(parseJob(again, "f"));
}

TEST(JobJson, WhatCouldNotBeReadBackIsNotWritten) {
    const test::TemporaryFolder folder;
    test::write(folder / "job", "previous");
    Job job = need(test::plainJob());
    job.unknownJson = "{\"pasted\": \"" + std::string(kMaxTextFileBytes, 'x') + "\"}";
    EXPECT_EQ(saveJob(job, folder / "job").error().code, "too_large");
    EXPECT_EQ(test::read(folder / "job"), "previous");
}

TEST(JobJson, NamesAndListsHaveLimits) {
    const auto refused = [](const char* at, const Tree& value) {
        Tree json = fullJob();
        json[Tree::json_pointer(at)] = value;
        const auto loaded = parseJob(json.dump(), "f");
        return loaded ? "read"
                      : loaded.error().code + loaded.error().where.substr(loaded.error().where.find(' '));
    };
    const std::string longName(201, 'n');
    EXPECT_EQ(refused("/pattern/elements/0/name", longName), "out_of_range pattern.elements[0].name");
    EXPECT_EQ(refused("/masks/masks/1/name", longName), "out_of_range masks.masks[1].name");
    EXPECT_EQ(refused("/blank/name", longName), "out_of_range blank.name");
    EXPECT_EQ(refused("/blank/zones/0/name", longName), "out_of_range blank.zones[0].name");
    std::string letters;
    for (int i = 0; i < 200; ++i) letters += "\u00e9";  // letters count, not bytes
    EXPECT_EQ(refused("/blank/name", letters), "read");
    EXPECT_EQ(refused("/masks/masks/0/elements", Tree::array({"parr-bars", "parr-bars"})),
              "bad_id masks.masks[0].elements");
}

/// Unknown keys by the ten thousand: what is quadratic does not come to an end here within the test's time.
TEST(JobJson, VeryManyUnknownKeysAreReadAndWritten) {
    std::string text = wholeDemo(), keys;
    for (int i = 0; i < 100000; ++i)
        keys += "\"later" + std::to_string(i) + "\": " + std::to_string(i) + ", ";
    text.replace(text.find("\"format\""), 0, keys);
    const Job job = need(parseJob(text, "f")).job;
    const std::string again = jobText(job);
    EXPECT_NE(again.find("\"later99999\": 99999"), std::string::npos);
    EXPECT_EQ(jobText(need(parseJob(again, "f")).job), again);
}

TEST(JobJson, BrokenTextNeverCrashes) {
    std::mt19937 random(3);
    const std::string text = fullJob().dump(1);
    std::uniform_int_distribution<std::size_t> place(0, text.size() - 1);
    // Bytes as a fuzzer likes them: brackets that are never closed, quotes, signs, ends of UTF-8.
    const std::string bytes = "[]{}\"\\,:-+eE.0918tfn \n\x80\xC3\xFF";
    std::uniform_int_distribution<std::size_t> byte(0, bytes.size() - 1);
    int refused = 0, read = 0;
    for (int i = 0; i < 1500; ++i) {
        std::string broken = text;
        for (int k = 0; k <= i % 3; ++k) {
            const std::size_t at = place(random) % broken.size();
            const char c = bytes[byte(random)];
            if (i % 5 == 0) {
                broken.erase(at, 1 + place(random) % 40);
            } else if (i % 5 == 1) {
                broken.insert(at, std::string(1 + place(random) % 300, c));
            } else {
                broken[at] = c;
            }
        }
        const auto loaded = parseJob(broken, "f");
        if (loaded) {
            ++read;
            const std::string again = jobText(loaded->job);
            const auto twice = parseJob(again, "f");
            ASSERT_TRUE(twice) << i << ": what was read is written so that it cannot be read";
            EXPECT_EQ(jobText(twice->job), again) << i;
        } else {
            ++refused;
            EXPECT_FALSE(loaded.error().text().empty());
            EXPECT_EQ(loaded.error().where.rfind("f:", 0), 0u) << loaded.error().where;
        }
    }
    EXPECT_GT(refused, 300);
    EXPECT_GT(read, 50);
}

TEST(BenchFile, UnknownKeysArePreserved) {
    const std::string text =
        R"({"format":1,"later":-0,"guns":[{"name":"a","needle_mm":0.3,"lowest_psi":10.0,"highest_psi":40.0,"hung":"left"}],)"
        R"("practice":{"stencil":{"passes":2,"mood":1},"gilding":{"passes":9}}})";
    const auto again = nlohmann::json::parse(benchText(need(parseBench(text, "b"))));
    EXPECT_EQ(again["later"].dump(), "0");  // (this reader knows no -0; the text has it:)
    EXPECT_NE(benchText(need(parseBench(text, "b"))).find("\"later\": -0"), std::string::npos);
    EXPECT_EQ(again["guns"][0]["hung"], "left");
    EXPECT_EQ(again["practice"]["stencil"]["mood"], 1);
    EXPECT_EQ(again["practice"]["gilding"]["passes"], 9);
    EXPECT_EQ(benchText(need(parseBench(benchText(need(parseBench(text, "b"))), "b"))),
              benchText(need(parseBench(text, "b"))));
}

TEST(JsonPlace, FindsLines) {
    const std::string text = "{\n \"a\": {\n  \"b\": [1,\n   {\"c\": \"x,]}\"},\n   3]\n }\n}";
    EXPECT_EQ(lineOfField(text, "a.b[0]"), 3u);
    EXPECT_EQ(lineOfField(text, "a.b[1].c"), 4u);
    EXPECT_EQ(lineOfField(text, "a.b[2]"), 5u);
    EXPECT_EQ(lineOfField(text, "a.missing"), 2u);  // its nearest ancestor
    EXPECT_EQ(lastKeyBefore(text, 40), "c");
}

}  // namespace
}  // namespace nine
