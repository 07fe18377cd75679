#include <algorithm>
#include <nlohmann/json.hpp>

#include "job/bench_file.h"
#include "job/export.h"
#include "job/spray_job.h"
#include "tests/bodies.h"
#include "tests/here.h"
#include "tests/plain_job.h"

namespace nine {
namespace {

using namespace test;

std::string demoText() {
    return jobText(need(test::plainJob()));
}

Error errorOf(const std::string& text) {
    return parseJob(text, "f.json").error();
}

std::string replaced(std::string text, const std::string& from, const std::string& to) {
    const auto at = text.find(from);
    if (at == std::string::npos) throw std::runtime_error("not in the text: " + from);
    return text.replace(at, from.size(), to);
}

TEST(JobFile, WritingIsCanonical) {
    const std::string text = demoText();
    EXPECT_EQ(jobText(need(parseJob(text, "f")).job), text);
}

/// One file of every format version, kept for ever.
TEST(JobFile, EveryVersionLoads) {
    int files = 0;
    for (const auto& entry : std::filesystem::directory_iterator(nine::sourceDir() + "/tests/formats")) {
        const LoadedJob loaded = need(loadJob(entry.path().string()));
        EXPECT_EQ(loaded.job.get<BlankChapter>().table.stations.size(), 12u) << entry.path();
        ++files;
    }
    EXPECT_GE(files, 1);
}

TEST(JobFile, NumbersSurviveToTheLastBit) {
    Job job = need(test::plainJob());
    Element e = *job.get<PatternChapter>().elements[0];
    e.dx_mm = 1.0 / 3;
    job = withElement(job, 0, e);
    EXPECT_EQ(need(parseJob(jobText(job), "f")).job.get<PatternChapter>().elements[0]->dx_mm, 1.0 / 3);
}

TEST(JobFile, SheetAndPlacesAreKept) {
    Job job = need(test::plainJob());
    EXPECT_EQ(jobText(job).find("\"cut\""), std::string::npos);  // a job that says nothing of it
    CutChapter cut;
    cut.sheet = {300, 420};
    job = job.with(cut);
    job = withPlace(job, {"red-dots-L", 1, {100.125, 1.0 / 3}});
    job = withPlace(job, {"parr-bars-R", 0, {50, 60}});
    job = withPlace(job, {"red-dots-L", 0, {80, 90}});  // the later one counts
    const std::string text = jobText(job);
    const Job again = need(parseJob(text, "f")).job;
    EXPECT_EQ(again.get<CutChapter>().places, job.get<CutChapter>().places);
    ASSERT_EQ(again.get<CutChapter>().places.size(), 2u);
    EXPECT_EQ(again.get<CutChapter>().places[1], (PiecePlace{"red-dots-L", 0, {80, 90}}));
    EXPECT_EQ(again.get<CutChapter>().sheet.height_mm, 420);
    EXPECT_EQ(jobText(again), text);
    EXPECT_EQ(errorOf(replaced(text, "\"width_mm\": 300", "\"width_mm\": 3")).code, "bad_sheet");
    EXPECT_EQ(errorOf(replaced(text, "\"sheet\": 1", "\"sheet\": 0")).code, "bad_value");
    EXPECT_EQ(errorOf(replaced(text, "\"x_mm\": 80.0", "\"x_mm\": \"left\"")).code, "bad_value");
}

TEST(JobFile, ErrorsNameLineAndField) {
    const std::string text = demoText();
    EXPECT_EQ(errorOf("").code, "bad_json");
    EXPECT_EQ(errorOf("{}").code, "not_a_job");
    EXPECT_EQ(errorOf("[1,2]").code, "bad_value");
    EXPECT_EQ(errorOf(replaced(text, "\"format\": 3", "\"format\": 4")).code, "newer_format");
    const Error number = errorOf(replaced(text, "\"top_mm\": 10.7", "\"top_mm\": \"ten\""));
    EXPECT_EQ(number.code, "bad_value");
    const auto line =
        1 + std::count(text.begin(), text.begin() + static_cast<long>(text.find("\"top_mm\": 10.7")), '\n');
    EXPECT_EQ(number.where, "f.json:" + std::to_string(line) + " blank.stations[3].top_mm");
    EXPECT_EQ(errorOf(replaced(text, "\"count\": 8", "\"count\": 8.5")).code, "bad_value");
    EXPECT_EQ(errorOf(replaced(text, "\"count\": 8", "\"count\": -8")).code, "out_of_range");
    EXPECT_EQ(errorOf(replaced(text, "\"material\": \"tape\"", "\"material\": \"jelly\"")).code,
              "unknown_material");
    EXPECT_EQ(errorOf(replaced(text, "\"id\": \"pale-spots\"", "\"id\": \"red-dots\"")).code, "bad_id");
    EXPECT_EQ(errorOf(replaced(text, "\"x_mm\": 1.8", "\"x_mm\": 1e308")).code, "out_of_range");
    EXPECT_EQ(errorOf(replaced(text, "\"x_mm\": 1.8", "\"x_mm\": 1e309")).code, "bad_json");
    EXPECT_EQ(errorOf(replaced(text, "\"x_mm\": 1.8", "\"x_mm\": NaN")).code, "bad_json");
    EXPECT_EQ(errorOf(replaced(text, "\"x_mm\": 9.5", "\"x_mm\": 95")).where.substr(0, 7), "f.json:");
}

TEST(JobFile, CutShortAnywhereIsAnErrorWithALine) {
    const std::string text = demoText();
    for (std::size_t length = 0; length + 2 < text.size(); length += 37) {
        const Error error = errorOf(text.substr(0, length));
        EXPECT_EQ(error.code, "bad_json") << length;
        EXPECT_EQ(error.where.rfind("f.json:", 0), 0u) << length;
    }
    EXPECT_NE(errorOf(text.substr(0, 700)).text().find("cut short"), std::string::npos);
}

TEST(Job, EditsShareWhatTheyDoNotTouch) {
    const Job job = need(test::plainJob());
    Element e = *job.get<PatternChapter>().elements[1];
    e.dg_mm += 1;
    const Job edited = withElement(job, 1, e);
    EXPECT_EQ(edited.part<BlankChapter>(), job.part<BlankChapter>());
    EXPECT_EQ(edited.part<MasksChapter>(), job.part<MasksChapter>());
    EXPECT_EQ(edited.get<PatternChapter>().elements[0], job.get<PatternChapter>().elements[0]);
    EXPECT_NE(edited.get<PatternChapter>().elements[1], job.get<PatternChapter>().elements[1]);
    EXPECT_FALSE(edited == job);
    EXPECT_TRUE(job == Job(job));
}

TEST(Job, WithoutMasksEveryElementGetsOneOnEachSideItStandsOn) {
    Job job = withMasks(need(test::plainJob()), {});
    EXPECT_EQ(maskSpecs(job).size(), 6u);
    Element e = *job.get<PatternChapter>().elements[0];
    e.linked = false;
    e.side = Side::Right;
    job = withElement(job, 0, e);
    const auto specs = maskSpecs(job);
    ASSERT_EQ(specs.size(), 5u);
    EXPECT_EQ(specs[0]->id, "parr-bars-R");
    EXPECT_EQ(specs[0]->wish.material, "film");
}

TEST(Derive, ADragSolvesOneMaskAndTheOthersComeFromMemory) {
    const Job job = need(test::plainJob());
    Derivations derived;
    const auto before = derived.masks(job, 200);
    Element e = *job.get<PatternChapter>().elements[0];
    e.dx_mm += 0.5;
    const auto after = derived.masks(withElement(job, 0, e), 200);
    ASSERT_EQ(before.size(), 6u);
    EXPECT_NE(*before[0].mask, *after[0].mask);
    for (std::size_t i = 2; i < 6; ++i) EXPECT_EQ(*before[i].mask, *after[i].mask) << i;
}

TEST(Derive, RightIsTheMirrorImageOfLeft) {
    const Job job = need(test::plainJob());
    Derivations derived;
    const auto masks = derived.masks(job, 200);
    const Mask &left = **masks[0].mask, &right = **masks[1].mask;
    EXPECT_EQ(masks[1].spec->side, Side::Right);
    for (std::size_t i = 0; i < left.sheets[0].windows.size(); ++i) {
        EXPECT_EQ(right.sheets[0].windows[i].centre,
                  Vec2(-left.sheets[0].windows[i].centre.x(), left.sheets[0].windows[i].centre.y()));
    }
}

/// What is drawn while something is dragged is near the exact cut, and the exact cut is the judged mask's
/// own.
TEST(Derive, SketchesComeNearTheExactMask) {
    const Job job = need(test::plainJob());
    Derivations derived;
    const MaskSpec& spec = *maskSpecs(job)[2];
    const MaskPtr preview = need(derived.cutOnly(job, spec, Precision::Preview));
    const MaskPtr exact = need(derived.cutOnly(job, spec, Precision::Exact));
    const MaskPtr judged = need(derived.mask(job, spec));
    EXPECT_LT(preview->sheets[0].flat->rest.vertexCount, exact->sheets[0].flat->rest.vertexCount / 2);
    ASSERT_EQ(preview->sheets[0].windows.size(), exact->sheets[0].windows.size());
    for (std::size_t i = 0; i < exact->sheets[0].windows.size(); ++i) {
        const auto along = [i](const MaskPtr& mask) {
            return (mask->sheets[0].windows[i].centre - mask->sheets[0].windows[0].centre).norm();
        };
        EXPECT_NEAR(along(preview), along(exact), 0.1);
        EXPECT_EQ(exact->sheets[0].windows[i].centre, judged->sheets[0].windows[i].centre);
    }
    EXPECT_EQ(preview->report().lift_mm, 0);
    EXPECT_TRUE(preview->sheets[0].report.landed.empty());
    EXPECT_GT(judged->sheets[0].report.landed.size(), 0u);
}

TEST(Derive, CancelledWorkIsNotRemembered) {
    const Job job = need(test::plainJob());
    Derivations derived;
    const Task task = Task::make();
    task.cancel();
    for (const MaskResult& r : derived.masks(job, 200, task)) EXPECT_EQ(r.mask.error().code, "cancelled");
    for (const MaskResult& r : derived.masks(job, 200)) EXPECT_TRUE(r.mask);
}

TEST(Derive, PiecesCarryNameSideAndMarks) {
    const Job job = need(test::plainJob());
    Derivations derived;
    const auto masks = derived.masks(job, 200);
    const CutPages pages = need(cutPages(job, masks));
    EXPECT_EQ(pages.overlaps(), 0);
    ASSERT_EQ(pages.pieces.size(), 6u);
    EXPECT_EQ(pages.pieces[1].piece.side, 'R');
    EXPECT_GT(pages.pieces[0].piece.pen.size(), 15u);  // two crosses, letters, arrow
    EXPECT_NE(verdictOf(*masks[0].spec, (*masks[0].mask)->report()).plain().find("lies flat"),
              std::string::npos);
}

TEST(BenchFile, ReadsBackAndKeepsWhatShips) {
    EXPECT_EQ(need(parseBench(benchText({}), "b")), Workplace{});
    Workplace own;
    own.guns = {{"old \"faithful\"", 0.3, 10, 40}};
    own.practices[1].pressure_psi = {12, 14, 18};
    own.practices[1].reduction = {3, 2};
    EXPECT_EQ(need(parseBench(benchText(own), "b")), own);
    // Only what differs is written: the rest follows what ships.
    EXPECT_EQ(benchText(own).find("\"cover\""), std::string::npos);
    EXPECT_EQ(need(parseBench("{\"format\": 1}", "b")), Workplace{});
    const test::TemporaryFolder folder;
    EXPECT_EQ(need(loadBench(folder.path() + "/none.json")), Workplace{});
    ASSERT_TRUE(saveBench(own, folder.path() + "/bench.json"));
    EXPECT_EQ(need(loadBench(folder.path() + "/bench.json")), own);
}

TEST(BenchFile, ErrorsNameLineAndField) {
    const auto where = [](const std::string& text) { return parseBench(text, "b.json").error().where; };
    EXPECT_EQ(where("{\n \"format\": 1,\n \"guns\": [\n {\"needle_mm\": 7}]}"), "b.json:4 guns[0].needle_mm");
    EXPECT_EQ(where("{\"guns\": []}"), "b.json:1 format");
    EXPECT_EQ(where("{\"format\": 1,\n\"practice\": {\"stencil\": {\"pressure_psi\": [1]}}}"),
              "b.json:2 practice.stencil.pressure_psi");
    EXPECT_EQ(where("{\"format\": 1,\n\"practice\": {\"stencil\": {\"coats\": [3, 1]}}}"),
              "b.json:2 practice.stencil.coats");
    EXPECT_EQ(parseBench("{\"format\": 9}", "b").error().code, "newer_format");
    EXPECT_EQ(parseBench("{\"format\": 1,", "b").error().code, "bad_json");
    EXPECT_EQ(parseBench("[]", "b").error().code, "bad_value");
    EXPECT_EQ(parseBench("{\"format\": 1, \"guns\": []}", "b").error().code, "no_gun");
}

TEST(JobSpray, ChapterIsKeptAndCheckedByField) {
    const auto with = [](const char* spray) {
        auto json = nlohmann::ordered_json::parse(demoText());
        json["spray"]["masks"] = nlohmann::ordered_json::parse(spray);
        return json.dump(1);
    };
    const Job job = need(parseJob(with(R"([{"mask":"red-dots-R","paint":"ink","soft_mm":2,"pads_mm":3.5,
        "relief_mm":0.4,"pins":{"pressure_kpa":110,"needle_mm":0.2,"distance_mm":60,"angle_deg":5,
        "flow_ml_min":0.3,"speed_mm_s":90,"aim_mm":4,"reduction":[3,2],"coats":2,"stroke":"across"}}])"),
                                  "f"))
                        .job;
    const SpraySpec spec = sprayOfMask(job, "red-dots-R");
    EXPECT_EQ(spec.paint, "ink");
    EXPECT_EQ(spec.soft_mm, 2);
    EXPECT_EQ(spec.pins.reduction, (Reduction{3, 2}));
    EXPECT_EQ(spec.pins.stroke, Stroke::Across);
    EXPECT_EQ(jobText(need(parseJob(jobText(job), "f")).job), jobText(job));
    EXPECT_EQ(sprayOfMask(job, "red-dots-L").paint, "opaque");
    // A reduction beside the pins, as other programs may write it, is a pin.
    EXPECT_EQ(sprayOfMask(need(parseJob(with(R"([{"mask":"red-dots-L","reduction":[2,1]}])"), "f")).job,
                          "red-dots-L")
                  .pins.reduction,
              (Reduction{2, 1}));
    const auto field = [&](const char* spray) {
        const Error error = parseJob(with(spray), "f").error();
        return error.code + " " + error.where.substr(error.where.find(' ') + 1);
    };
    EXPECT_EQ(field(R"([{"mask":"x"}])"), "unknown_mask spray.masks[0].mask");
    EXPECT_EQ(field(R"([{"mask":"red-dots-L"},{"mask":"red-dots-L"}])"), "bad_id spray.masks[1].mask");
    EXPECT_EQ(field(R"([{"mask":"red-dots-L","paint":"lead"}])"), "unknown_paint spray.masks[0].paint");
    EXPECT_EQ(field(R"([{"mask":"red-dots-L","soft_mm":0.1}])"), "out_of_range spray.masks[0].soft_mm");
    EXPECT_EQ(field(R"([{"mask":"red-dots-L","pads_mm":-1}])"), "out_of_range spray.masks[0].pads_mm");
    EXPECT_EQ(field(R"([{"mask":"red-dots-L","relief_mm":50}])"), "out_of_range spray.masks[0].relief_mm");
    EXPECT_EQ(field(R"([{"mask":"red-dots-L","pins":{"distance_mm":3}}])"),
              "out_of_range spray.masks[0].pins.distance_mm");
    EXPECT_EQ(field(R"([{"mask":"red-dots-L","pins":{"stroke":"round"}}])"),
              "bad_value spray.masks[0].pins.stroke");
    EXPECT_EQ(field(R"([{"mask":"red-dots-L","pins":{"reduction":[4]}}])"),
              "bad_value spray.masks[0].pins.reduction");
}

/// A job that was edited must stay one that can be opened again.
TEST(JobSpray, MasksAndSpraysStayInStepWithThePattern) {
    const Job demo = need(parseJob(demoText(), "f")).job;
    EXPECT_EQ(inStep(demo), demo);
    Element alone = *demo.get<PatternChapter>().elements[1];
    alone.linked = false;
    const Job unlinked = inStep(withElement(demo, 1, alone));
    EXPECT_EQ(maskSpecs(unlinked).size(), 5u);
    EXPECT_EQ(unlinked.get<SprayChapter>().masks.size(), demo.get<SprayChapter>().masks.size() - 1);
    EXPECT_TRUE(checkJob(unlinked));
    EXPECT_TRUE(parseJob(jobText(unlinked), "f"));
    // Linked again, the other side gets its mask back, like that of this side.
    alone.linked = true;
    const Job again = inStep(withElement(unlinked, 1, alone));
    ASSERT_EQ(maskSpecs(again).size(), 6u);
    EXPECT_EQ(maskSpecs(again).back()->id, "red-dots-R");
    EXPECT_EQ(maskSpecs(again).back()->wish.material, "tape");
    EXPECT_TRUE(checkJob(again));
    Job fewer = demo;
    PatternChapter pattern = demo.get<PatternChapter>();
    pattern.elements.erase(pattern.elements.begin());
    fewer = fewer.with(pattern);
    EXPECT_FALSE(checkJob(fewer));
    EXPECT_TRUE(checkJob(inStep(fewer)));
    EXPECT_EQ(maskSpecs(inStep(fewer)).size(), 4u);
}

TEST(JobSpray, LiftIsMostInTheMiddleOfWhatIsBridged) {
    const Job job = need(parseJob(demoText(), "f")).job;
    MaskSpec film = *maskSpecs(job)[0];
    film.wish.material = "film";
    Derivations derived;
    const MaskPtr mask = need(derived.mask(job, film));
    const auto art = need(derived.artOf(job, film));
    ASSERT_FALSE(mask->report().liesFlat);
    // Measured on the body itself: how far the skin stands over the chord of the patch, across and along. The
    // sheet follows one way and bridges the other, whichever leaves less.
    const PatchMesh& patch = mask->sheets[0].flat->patch;
    const Vec2 middle = 0.5 * (patch.low() + patch.high());
    const SkinPtr skin = need(derived.skin(job));
    const auto over = [&](const Vec2& from, const Vec2& to) {
        const auto place = [&](double t) {
            const Vec2 p = (1 - t) * from + t * to;
            return skin->at({Side::Left, p.x(), p.y()}).position;
        };
        const Vec3 start = place(0), chord = (place(1) - start).normalized();
        double most = 0;
        for (int i = 0; i <= 60; ++i) {
            const Vec3 way = place(i / 60.0) - start;
            most = std::max(most, (way - way.dot(chord) * chord).norm());
        }
        return most;
    };
    const double across_mm = over({middle.x(), patch.low().y()}, {middle.x(), patch.high().y()}),
                 along_mm = over({patch.low().x(), middle.y()}, {patch.high().x(), middle.y()});
    const double least = std::min(across_mm, along_mm);
    EXPECT_GT(mask->report().lift_mm, 0.5 * least);  // the law is good within a factor of two (mask/fit.h)
    EXPECT_LT(mask->report().lift_mm, 2 * least);
    EXPECT_NEAR(liftAt_mm(*mask, SkinPlace(middle)), mask->report().lift_mm, 0.01 * mask->report().lift_mm);
    const bool across = across_mm <= along_mm;
    // At its border nothing is bridged; the edge of film bends up a little.
    EXPECT_LT(liftAt_mm(*mask, across ? SkinPlace(middle.x(), patch.low().y())
                                      : SkinPlace(patch.low().x(), middle.y())),
              0.3 * mask->report().lift_mm);
    const EdgePlace worst = worstEdge(*mask, {art[0].get()});
    for (const Outline& outline : art[0]->outlines()) {
        for (const Vec2& p : outline.skin) EXPECT_LE(liftAt_mm(*mask, SkinPlace(p)), worst.lift_mm + 1e-12);
    }
    EXPECT_GT(worst.lift_mm, 0.9 * mask->report().lift_mm);
    EXPECT_NE(placeSentence(worst).plain().find("of parr-bars"), std::string::npos)
        << placeSentence(worst).plain();
    const MaskToSpray asked = sprayOf(film, mask->report(), sprayOfMask(job, "parr-bars-L"));
    EXPECT_EQ(asked.work, SprayWork::Stencil);
    EXPECT_NEAR(asked.gap_mm(), kSheetContact_mm + mask->report().lift_mm, 1e-12);
    EXPECT_EQ(asked.paint.id, "transparent");
}

}  // namespace
}  // namespace nine
