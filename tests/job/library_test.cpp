// Blanks in files and in the library; what zones do to masks and sprays.
#include "base/base64.h"
#include "blank/families.h"
#include "job/blank_library.h"
#include "job/blank_table.h"
#include "job/derive.h"
#include "job/spray_job.h"
#include "job/tracing_page.h"
#include "tests/bodies.h"
#include "tests/plain_job.h"

namespace nine {
namespace {

using test::need;

TEST(Base64, PublishedExamples) {
    // RFC 4648, section 10.
    const std::pair<const char*, const char*> examples[] = {{"", ""},
                                                            {"f", "Zg=="},
                                                            {"fo", "Zm8="},
                                                            {"foo", "Zm9v"},
                                                            {"foob", "Zm9vYg=="},
                                                            {"fooba", "Zm9vYmE="},
                                                            {"foobar", "Zm9vYmFy"}};
    for (const auto& [bytes, text] : examples) {
        EXPECT_EQ(base64Of(bytes), text);
        EXPECT_EQ(bytesOfBase64(text), bytes);
    }
    for (const char* bad : {"Zg", "Z===", "Zm9v!A==", "Zg==Zg=="}) EXPECT_FALSE(bytesOfBase64(bad)) << bad;
    // FNV-1a of "foobar", from its authors' test vectors.
    EXPECT_EQ(fingerprintOf("foobar"), "85944171f73967e8");
}

BlankChapter full() {
    FamilyReadings r;
    r.length_mm = 70;
    FamilyBody body = need(bodyOfFamily("round", r));
    BlankChapter blank;
    blank.name = "Ünusual \"blank\"";
    blank.family = "round";
    blank.source = "family";
    blank.table = std::move(body.table);
    blank.landmarks = std::move(body.landmarks);
    blank.landmarks["eye"].eyeType = "forward";
    blank.landmarks["eye"].buildUp_mm = 0.1;
    blank.table.stations[3].girth_mm = 80;
    blank.zones.push_back(
        {"zone-1", "gill", "relief", false, 0.15, {{10, 0}, {20, 0}, {20, 5}}, "{\"note\":\"kept\"}"});
    BackPicture picture{"a.jpg", "0123", std::string("\xFF\xD8\0jpeg", 7), {1.5, 2}, {30, 4}, false};
    blank.pictures.push_back(std::make_shared<const BackPicture>(picture));
    blank.softTail = {22, 14};
    return blank;
}

TEST(BlankFile, EverythingComesBackByteForByte) {
    const std::string text = blankText(full());
    const BlankChapter back = need(parseBlank(text, "test"));
    EXPECT_EQ(blankText(back), text);
    EXPECT_EQ(back.landmarks.at("eye").eyeType, "forward");
    EXPECT_TRUE(back.landmarks.at("gill_plate").assumed);
    EXPECT_TRUE(back.landmarks.at("bill_slot").isOutline());
    EXPECT_EQ(back.table.stations[3].assumed, static_cast<unsigned>(kAssumedAll));
    EXPECT_EQ(back.pictures.at(0)->jpeg, full().pictures.at(0)->jpeg);
    EXPECT_EQ(back.softTail.length_mm, 22);
    EXPECT_NE(text.find("\"note\": \"kept\""), std::string::npos);
}

TEST(BlankFile, WrongFieldsAreNamedWithTheirLine) {
    const std::string text = blankText(full());
    const auto with = [&](const std::string& from, const std::string& to) {
        std::string changed = text;
        const std::size_t at = changed.find(from);
        EXPECT_NE(at, std::string::npos) << from;
        return parseBlank(changed.replace(at, from.size(), to), "b.json");
    };
    EXPECT_EQ(with("\"relief\"", "\"relieve\"").error().code, "bad_value");
    EXPECT_NE(with("\"relief\"", "\"relieve\"").error().where.find("blank.zones[0].kind"), std::string::npos);
    EXPECT_EQ(with("\"half_width_mm\",\n", "\"width\",\n").error().code, "bad_value");
    EXPECT_EQ(with("\"jpeg\": \"", "\"jpeg\": \"!").error().code, "bad_value");
    EXPECT_EQ(with("\"diameter_mm\": ", "\"diameter_mm\": 9").error().code, "eye_too_large");
}

TEST(Library, HoldsTheSevenBlanksOfTheDemo) {
    const test::TemporaryFolder folder;
    Workshop w = need(Workshop::open(folder / "w.sqlite"));
    ASSERT_TRUE(seedLibrary(w));
    ASSERT_TRUE(seedLibrary(w));  // once is enough
    const std::vector<LibraryBlank> blanks = need(libraryBlanks(w));
    ASSERT_EQ(blanks.size(), 7u);
    const std::pair<const char*, double> expected[] = {
        {"Burdock 78", 78}, {"Dock 65", 65},   {"Reed 118", 118},  {"Rush 150", 150},
        {"Sedge 60", 60},   {"Sorrel 70", 70}, {"Willow 104", 104}};
    for (std::size_t i = 0; i < 7; ++i) {
        EXPECT_EQ(blanks[i].name, expected[i].first);
        EXPECT_EQ(blanks[i].length_mm, expected[i].second);
        EXPECT_EQ(blanks[i].thumbnail.substr(1, 3), "PNG");
        const BlankChapter blank = need(blankFromLibrary(w, blanks[i].id));
        for (const LandmarkKind& kind : landmarkKinds()) {
            if (kind.name == "bill_slot") continue;  // four of the seven have none
            const auto mark = blank.landmarks.find(std::string(kind.name));
            ASSERT_NE(mark, blank.landmarks.end()) << blank.name << kind.name;
            EXPECT_FALSE(mark->second.assumed) << blank.name << kind.name;
        }
    }
    EXPECT_EQ(need(libraryBlanks(w, "popper")).size(), 1u);
    EXPECT_EQ(need(libraryBlanks(w, "118mm")).front().name, "Reed 118");
    EXPECT_EQ(blankFromLibrary(w, "nobody").error().code, "unknown_row");
}

TEST(Library, TheDemoBlanksAreTheSampleReadings) {
    for (const BlankChapter& blank : demoBlanks()) {
        for (const auto& [name, file] : {std::pair{"Willow 104", "willow104"},
                                         {"Dock 65", "dock65"},
                                         {"Reed 118", "reed118"},
                                         {"Sorrel 70", "sorrel70"},
                                         {"Sedge 60", "sedge60"}}) {
            if (blank.name != name) continue;
            const Skin sample = test::sampleSkin(file);
            ASSERT_EQ(sample.loft().stations().size(), blank.table.stations.size()) << name;
            for (std::size_t i = 0; i < blank.table.stations.size(); ++i)
                EXPECT_EQ(sample.loft().stations()[i].top_mm, blank.table.stations[i].top_mm) << name;
        }
    }
}

TEST(Zones, OpeningsOverBareSkinAreSaidAndCarvingReachesTheSpray) {
    const Job demo = need(test::plainJob());
    BlankChapter blank = demo.get<BlankChapter>();
    const auto art = [](const Job& job) {
        Derivations derived;
        return need(derived.art(job, 1));
    };
    EXPECT_TRUE(art(demo)->warnings.empty());
    // Over the red dots, a bare area; then carving instead.
    blank.zones.push_back({"z", "clip", "clip_void", true, 0, {{22, -6}, {34, -6}, {34, 8}, {22, 8}}, {}});
    const auto warned = art(demo.with(blank))->warnings;
    ASSERT_EQ(warned.size(), 1u);
    EXPECT_EQ(warned.front().code, "cut_at_bare");
    blank.zones.front().noPaint = false;
    blank.zones.front().kind = "relief";
    blank.zones.front().relief_mm = 0.4;
    Derivations derived;
    const Job carved = demo.with(blank);
    const MaskSpecPtr spec = maskSpecs(carved)[2];
    const MaskPtr mask = need(derived.mask(carved, *spec, 400));
    EXPECT_EQ(mask->report().relief_mm, 0.4);
    EXPECT_GE(sprayOf(*spec, mask->report(), sprayOfMask(carved, spec->id)).gap_mm(), 0.4);
}

TEST(BenchTable, NamesEveryStationAndLandmark) {
    const BlankChapter blank = demoBlanks().front();
    const Skin skin = need(Skin::of(blank.table));
    const std::string csv = benchTableText(blank, skin);
    EXPECT_EQ(std::count(csv.begin(), csv.end(), '\n'), static_cast<long>(blank.table.stations.size()) + 1);
    const Drawing page = benchTable(blank, skin, {210, 297});
    for (const Layer& layer : page.layers)
        for (const DrawnLine& line : layer.lines)
            for (const Vec2& p : line.points) {
                EXPECT_GE(p.x(), 5);
                EXPECT_LE(p.x(), 205);
                EXPECT_GE(p.y(), 5);
            }
}

TEST(TracingPage, FitsBothPapers) {
    for (const Vec2& paper : {kTracingA4_mm, kTracingLetter_mm}) {
        const Drawing page = tracingPage(paper);
        int filled = 0;
        for (const Layer& layer : page.layers) {
            for (const DrawnLine& line : layer.lines) {
                filled += line.filled;
                for (const Vec2& p : line.points) {
                    EXPECT_GT(p.x(), 8);
                    EXPECT_LT(p.x(), paper.x() - 8);
                    EXPECT_GT(p.y(), 8);
                    EXPECT_LT(p.y(), paper.y() - 8);
                }
            }
        }
        EXPECT_EQ(filled, 16);  // eight rings, eight dots
    }
}

}  // namespace
}  // namespace nine
