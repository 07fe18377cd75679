// Masks of whole sides and whole bodies, and slits, as a job holds them.
#include <gtest/gtest.h>

#include <numeric>

#include "job/blank_library.h"
#include "job/refit.h"
#include "tests/plain_job.h"

namespace nine {
namespace {

using namespace test;

Job withMask(const std::string& kind, std::vector<std::string> elements, std::vector<Slit> slits = {}) {
    MaskSpec spec;
    spec.id = "whole";
    spec.wish.kind = kind;
    spec.wish.elements = std::move(elements);
    spec.wish.material = "tape";
    spec.wish.values = usualValues(findMaskKind(kind)->params());
    spec.wish.slits = std::move(slits);
    return withMasks(need(plainJob()).with(SprayChapter{}), {std::make_shared<const MaskSpec>(spec)});
}

MaskPtr solved(const Job& job) {
    Derivations derived;
    return need(derived.mask(job, *maskSpecs(job).front(), 1200));
}

TEST(WholeMasks, SlitsAreWrittenAndReadBack) {
    const std::vector<Slit> slits{{{{15.5, 20}, {15.5, 8}}, true},
                                  {{{30.25, -24}, {31, -20}, {31, -9}}, false}};
    const Job job = withMask("full_side", {"red-dots"}, slits);
    const std::string text = jobText(job);
    const Job again = need(parseJob(text, "f")).job;
    EXPECT_EQ(maskSpecs(again).front()->wish, maskSpecs(job).front()->wish);
    EXPECT_EQ(jobText(again), text);
    const auto errorOf = [&](const std::string& from, const std::string& to) {
        std::string wrong = text;
        const auto at = wrong.find(from);
        EXPECT_NE(at, std::string::npos) << from;
        wrong.replace(at, from.size(), to);
        const auto read = parseJob(wrong, "f");
        return read ? std::string() : read.error().code;
    };
    EXPECT_EQ(errorOf("\"locked\": true", "\"locked\": 7"), "bad_value");
    EXPECT_EQ(errorOf("15.5", "\"far\""), "bad_value");
    EXPECT_EQ(errorOf("\"kind\": \"full_side\"", "\"kind\": \"full_body\", \"seam\": \"nose\""),
              "out_of_range");
}

TEST(WholeMasks, ASideGoesFromBellyToBackRoundWhatIsInItsWay) {
    const Job job = withMask("full_side", {"red-dots"});
    Derivations derived;
    const SkinPtr skin = need(derived.skin(job));
    const MaskPtr mask = solved(job);
    ASSERT_EQ(mask->sheets.size(), 1u);
    const PatchMesh& patch = mask->sheets[0].flat->patch;
    const double x = 30;
    double low = 1e300, high = -1e300;
    for (const Vec2& p : patch.skin)
        if (std::abs(p.x() - x) < 1.5) {
            low = std::min(low, p.y());
            high = std::max(high, p.y());
        }
    const SectionArc arc = skin->arcAt(x);
    EXPECT_NEAR(high, arc.backArc_mm(), 0.3);
    EXPECT_NEAR(low, -arc.bellyArc_mm(), 0.3);
    EXPECT_NEAR(patch.low().x(), skin->noseX_mm() + 4, 0.01);
    EXPECT_NEAR(patch.high().x(), skin->tailX_mm() - 4, 0.01);
    EXPECT_EQ(mask->sheets[0].windows.size(), 8u);
    // Nothing of it lies over the eye, where no paint goes and nothing is glued yet.
    const Landmark& eye = job.get<BlankChapter>().landmarks.at("eye");
    for (const Triangle& t : patch.mesh.triangles) {
        Vec2 middle = Vec2::Zero();
        for (const int v : t) middle += patch.skin[static_cast<std::size_t>(v)] / 3;
        EXPECT_GT((middle - referencePoint(eye, 0)).norm(), 0.4 * eye.diameter_mm);
    }
}

TEST(WholeMasks, OnASlitSheetEveryMarkLandsAndTheVerdictIsBetter) {
    const MaskPtr plain = solved(withMask("full_side", {"red-dots"}));
    EXPECT_FALSE(plain->report().liesFlat);
    Derivations derived;
    const Job unslit = withMask("full_side", {"red-dots"});
    const MaterialAnswer answer = need(derived.answer(unslit, *maskSpecs(unslit).front()));
    ASSERT_EQ(answer.how, MaterialAnswer::How::Slits);
    const MaskPtr slit = solved(withMask("full_side", {"red-dots"}, answer.plan.slits));
    EXPECT_TRUE(slit->report().liesFlat);
    EXPECT_LE(slit->report().landing.rms_mm, 0.03);
    EXPECT_LE(slit->report().landing.max_mm, 0.08);
    EXPECT_EQ(slit->sheets[0].slits.size(), answer.plan.slits.size());
    EXPECT_GE(slit->sheets[0].marks.size(), plain->sheets[0].marks.size() + 4);
}

TEST(WholeMasks, AWrapOpensBothSidesAlikeAndHasNoTwin) {
    Job job = inStep(withMask("full_body", {"red-dots"}));
    for (const MaskSpecPtr& spec : maskSpecs(job)) {
        const auto& ids = spec->wish.elements;
        const bool dots = std::find(ids.begin(), ids.end(), "red-dots") != ids.end();
        EXPECT_EQ(dots, spec->id == "whole") << spec->id;
    }
    Derivations derived;
    const SkinPtr skin = need(derived.skin(job));
    const MaskPtr mask = solved(job);
    const std::vector<Window>& windows = mask->sheets[0].windows;
    ASSERT_EQ(windows.size(), 16u);
    // The two sides are mirror images of each other about the back line.
    const Sheet& sheet = mask->sheets[0];
    double left = 0, right = 0;
    std::vector<double> areas;
    for (const Window& w : windows) areas.push_back(w.area_mm2);
    std::sort(areas.begin(), areas.end());
    for (std::size_t i = 0; i + 1 < areas.size(); i += 2)
        EXPECT_NEAR(areas[i], areas[i + 1], 0.02 * areas[i]);
    for (const Window& w : windows) (w.centre.y() > 0 ? left : right) += w.area_mm2;
    EXPECT_NEAR(left, right, 0.01 * left);
    EXPECT_NEAR(sheet.marks.front().flat.y(), 0, 0.1);
    // A wrap on the right side makes no sense and is told.
    MaskSpec wrong = *maskSpecs(job).front();
    wrong.side = Side::Right;
    const Status told = checkJob(withMasks(job, {std::make_shared<const MaskSpec>(wrong)}));
    ASSERT_FALSE(told);
    EXPECT_EQ(told.error().code, "wrong_side");
}

TEST(WholeMasks, ArtBeyondTheSheetIsToldByName) {
    Job job = withMask("full_side", {"red-dots"});
    Element e = *job.get<PatternChapter>().elements[1];
    for (std::size_t i = 0; i < job.get<PatternChapter>().elements.size(); ++i) {
        if (job.get<PatternChapter>().elements[i]->id != "red-dots") continue;
        e = *job.get<PatternChapter>().elements[i];
        e.dg_mm += 40;
        job = withElement(job, i, e);
    }
    Derivations derived;
    const Result<MaskPtr> mask = derived.mask(job, *maskSpecs(job).front(), 800);
    ASSERT_FALSE(mask);
    EXPECT_TRUE(mask.error().code == "art_beyond" || mask.error().code == "off_body") << mask.error().code;
}

TEST(WholeMasks, SlitsGoAlongToAnotherBlankAtTheirShareOfIt) {
    const std::vector<Slit> slits{{{{30, 20}, {30, 8}}, false}};
    MaskSpec held = *maskSpecs(withMask("full_side", {"red-dots"}, slits)).front();
    held.wish.bridges.at = {{30, 8}};
    const Job job = withMasks(withMask("full_side", {"red-dots"}), {std::make_shared<const MaskSpec>(held)});
    BlankChapter longer = job.get<BlankChapter>();
    longer.name = "twice";
    for (Station& s : longer.table.stations) s.x_mm *= 2;
    for (auto& [name, landmark] : longer.landmarks)
        for (Vec2& p : landmark.points) p.x() *= 2;
    Derivations derived;
    const RefittedJob refit = need(refitJob(job, longer, derived));
    const auto& there = maskSpecs(refit.job).front()->wish.slits;
    ASSERT_EQ(there.size(), 1u);
    EXPECT_NEAR(there[0].line[0].x(), 60, 1e-6);
    EXPECT_NEAR(there[0].line[1].y(), 8, 1e-6);
    const std::vector<Vec2>& bridges = maskSpecs(refit.job).front()->wish.bridges.at;
    ASSERT_EQ(bridges.size(), 1u);
    EXPECT_NEAR((bridges[0] - Vec2(60, 8)).norm(), 0, 1e-6);
}

}  // namespace
}  // namespace nine
