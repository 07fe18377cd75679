// The same pattern on another blank.
#include "job/refit.h"

#include <gtest/gtest.h>

#include "job/blank_library.h"
#include "job/job_file.h"
#include "tests/bodies.h"
#include "tests/plain_job.h"

namespace nine {
namespace {

using namespace test;

BlankChapter demoBlank(const std::string& name) {
    for (const BlankChapter& blank : demoBlanks())
        if (blank.name == name) return blank;
    ADD_FAILURE() << name;
    return {};
}

/// Every size of the blank and all its landmarks by a factor.
BlankChapter scaled(BlankChapter blank, double factor) {
    for (Station& s : blank.table.stations)
        for (double* size : {&s.x_mm, &s.top_mm, &s.bottom_mm, &s.halfWidth_mm}) *size *= factor;
    for (auto& [name, landmark] : blank.landmarks)
        for (Vec2& p : landmark.points) p *= factor;
    blank.name += " larger";
    return blank;
}

const Element& at(const Job& job, std::size_t i) {
    return *job.get<PatternChapter>().elements[i];
}

TEST(Refit, ToTheSameBlankNothingIsTouched) {
    const Job job = need(plainJob());
    Derivations derived;
    const RefittedJob same = need(refitJob(job, job.get<BlankChapter>(), derived));
    EXPECT_EQ(same.job.part<PatternChapter>(), job.part<PatternChapter>());
    EXPECT_EQ(jobText(same.job), jobText(job));
    for (const RefittedElement& e : same.elements) EXPECT_EQ(e.fate, Fate::Kept);
}

TEST(Refit, OnABodyAQuarterLargerFixedSizesStayAndLengthsGrow) {
    const Job job = need(plainJob());
    Derivations derived;
    const RefittedJob larger = need(refitJob(job, scaled(job.get<BlankChapter>(), 1.25), derived));
    for (std::size_t i = 0; i < 3; ++i) {
        const Element &was = at(job, i), &is = at(larger.job, i);
        EXPECT_NEAR(is.dx_mm, 1.25 * was.dx_mm, 1e-9);
        EXPECT_NEAR(is.dg_mm, 1.25 * was.dg_mm, 1e-9);
        for (const Param& p : findKind(is.kind)->params()) {
            if (!p.isNumber()) continue;
            const double factor = p.refit == Refit::Fixed ? 1 : 1.25;
            EXPECT_NEAR(is.values.number(p.key), factor * was.values.number(p.key), 1e-9) << is.id << p.key;
        }
        EXPECT_EQ(larger.elements[i].fate, Fate::Rescaled);
    }
    // What is derived from them scales too: places of the art, at the same shares of the body.
    const Vec2 before = need(derived.art(job, 1))->outlines()[3].centre;
    const Vec2 after = need(derived.art(larger.job, 1))->outlines()[3].centre;
    EXPECT_LT((after - 1.25 * before).norm(), 0.01);
}

TEST(Refit, ThereAndBackIsTheSameAndAThirdBodyChangesNothing) {
    const Job job = need(plainJob());
    Derivations derived;
    const RefittedJob there = need(refitJob(job, demoBlank("Willow 104"), derived));
    EXPECT_TRUE(at(there.job, 0).home);
    const RefittedJob back = need(refitJob(there.job, job.get<BlankChapter>(), derived));
    EXPECT_EQ(jobText(back.job), jobText(job));
    const RefittedJob on = need(refitJob(there.job, demoBlank("Reed 118"), derived));
    const RefittedJob straight = need(refitJob(job, demoBlank("Reed 118"), derived));
    EXPECT_EQ(jobText(on.job), jobText(straight.job));
    // What a hand has changed there is at home there.
    Element moved = at(there.job, 0);
    moved.dx_mm += 1;
    const RefittedJob later =
        need(refitJob(withElement(there.job, 0, moved), job.get<BlankChapter>(), derived));
    EXPECT_NE(at(later.job, 0).dx_mm, at(job, 0).dx_mm);
    EXPECT_EQ(jobText(need(refitJob(there.job, job.get<BlankChapter>(), derived)).job), jobText(job));
}

TEST(Refit, ThroughAFileTheHomeIsKept) {
    const Job job = need(plainJob());
    Derivations derived;
    const RefittedJob there = need(refitJob(job, demoBlank("Sorrel 70"), derived));
    const Job read = need(parseJob(jobText(there.job), "f")).job;
    EXPECT_EQ(jobText(need(refitJob(read, job.get<BlankChapter>(), derived)).job), jobText(job));
}

TEST(Refit, ThePaintersRulesAndCountsAreFollowed) {
    Job job = need(plainJob());
    Element row = at(job, 1);
    row.rules = {{"spacing_mm", Refit::Fixed}, {"count", Refit::WithLength}, {"dx_mm", Refit::Fixed}};
    job = withElement(job, 1, row);
    Derivations derived;
    const RefittedJob larger = need(refitJob(job, scaled(job.get<BlankChapter>(), 1.25), derived));
    EXPECT_EQ(at(larger.job, 1).values.number("spacing_mm"), row.values.number("spacing_mm"));
    EXPECT_EQ(at(larger.job, 1).values.number("count"), 10);  // 8 on the shorter body
    EXPECT_EQ(at(larger.job, 1).dx_mm, row.dx_mm);
    EXPECT_EQ(larger.elements[1].fate, Fate::More);
    const RefittedJob smaller = need(refitJob(job, scaled(job.get<BlankChapter>(), 0.75), derived));
    EXPECT_EQ(smaller.elements[1].fate, Fate::Fewer);
}

TEST(Refit, WhatFallsOffIsSaidAndBroughtBack) {
    Job job = need(plainJob());
    Element row = at(job, 1);
    row.rules = {{"spacing_mm", Refit::Fixed}};
    job = withElement(job, 1, row);
    Derivations derived;
    const RefittedJob third = need(refitJob(job, scaled(job.get<BlankChapter>(), 1.0 / 3), derived));
    ASSERT_EQ(third.elements[1].fate, Fate::FallsOff);
    EXPECT_FALSE(third.elements[1].says.plain().empty());
    ASSERT_TRUE(third.elements[1].repaired);
    const Job mended = withRepairs(third, {row.id});
    Derivations again;
    EXPECT_TRUE(again.art(mended, 1));
    EXPECT_EQ(mended.get<PatternChapter>().elements[0], third.job.get<PatternChapter>().elements[0]);
}

TEST(Refit, WhatCollidesWithAHookEyeIsSaidAndMovedClear) {
    Job job = need(plainJob());
    BlankChapter blank = job.get<BlankChapter>();
    blank.name = "other";
    const Vec2 dot = need(Derivations().art(job, 1))->outlines()[4].centre;
    blank.landmarks["belly_hanger"].points = {dot};
    Derivations derived;
    const RefittedJob refit = need(refitJob(job, blank, derived));
    ASSERT_EQ(refit.elements[1].fate, Fate::Collides);
    EXPECT_NE(refit.elements[1].says.plain().find("belly hanger"), std::string::npos)
        << refit.elements[1].says.plain();
    ASSERT_TRUE(refit.elements[1].repaired);
    const ArtPtr clear = need(derived.art(withRepairs(refit, {at(job, 1).id}), 1));
    EXPECT_TRUE(clear->warnings.empty());
}

TEST(Refit, ANeighbourItOverlapsIsNamed) {
    Job job = need(plainJob());
    // Two rows a little apart on a high body lie over each other on a low one.
    Element upper = at(job, 1), lower = at(job, 2);
    lower.anchor = upper.anchor;
    lower.kind = upper.kind;
    lower.values = upper.values;
    lower.dx_mm = upper.dx_mm;
    lower.dg_mm = upper.dg_mm - 2.6;
    job = withElement(withElement(job, 1, upper), 2, lower);
    BlankChapter low = job.get<BlankChapter>();
    low.name = "low";
    for (Station& s : low.table.stations)
        for (double* size : {&s.top_mm, &s.bottom_mm, &s.halfWidth_mm}) *size *= 0.6;
    for (auto& [name, landmark] : low.landmarks)
        for (Vec2& p : landmark.points) p.y() *= 0.6;
    Derivations derived;
    const RefittedJob refit = need(refitJob(job, low, derived));
    EXPECT_EQ(refit.elements[1].fate, Fate::Overlaps);
    EXPECT_NE(refit.elements[1].says.plain().find(lower.shownName()), std::string::npos);
}

TEST(Refit, AnAnchorTheBlankHasNotIsOfferedOrMissed) {
    const Job job = need(plainJob());
    BlankChapter bare = demoBlank("Dock 65");
    bare.landmarks.clear();
    Derivations derived;
    const RefittedJob offered = need(refitJob(job, bare, derived));
    EXPECT_EQ(offered.offered, std::vector<std::string>{"gill_plate"});
    EXPECT_TRUE(offered.job.get<BlankChapter>().landmarks.at("gill_plate").assumed);
    ASSERT_FALSE(offered.warnings.empty());
    EXPECT_EQ(offered.warnings[0].code, "landmark_offered");
    // A landmark of the painter's own is usual on no blank.
    BlankChapter own = job.get<BlankChapter>();
    own.landmarks["scar"].points = {{30, 2}};
    Element e = at(job, 1);
    e.anchor = "scar";
    e.dx_mm = 1;
    e.dg_mm = 0;
    const Job scarred = withElement(job.with(own), 1, e);
    const RefittedJob missed = need(refitJob(scarred, demoBlank("Dock 65"), derived));
    ASSERT_EQ(missed.elements[1].fate, Fate::AnchorMissing);
    ASSERT_TRUE(missed.elements[1].repaired);
    EXPECT_TRUE(missed.elements[1].repaired->anchor.empty());
    EXPECT_TRUE(derived.art(withRepairs(missed, {e.id}), 1));
}

TEST(Refit, UnknownKindsAreKeptAsTheyStand) {
    std::string text = jobText(need(plainJob()));
    const std::string from = "\"kind\": \"bars\"";
    text.replace(text.find(from), from.size(), "\"kind\": \"swirls\"");
    const Job job = need(parseJob(text, "f")).job;
    Derivations derived;
    const RefittedJob refit = need(refitJob(job, demoBlank("Willow 104"), derived));
    EXPECT_EQ(refit.elements[0].fate, Fate::Unknown);
    EXPECT_EQ(refit.job.get<PatternChapter>().elements[0], job.get<PatternChapter>().elements[0]);
    Task stopped = Task::make();
    stopped.cancel();
    EXPECT_EQ(refitJob(job, demoBlank("Willow 104"), derived, stopped).error().code, "cancelled");
}

/// The shipped patterns: everything is drawn, nothing goes round in a circle.
TEST(Examples, AreDrawnWhole) {
    for (const char* name : {"sedge60-brook-char", "dock65-grayling", "sedge60-ruffe", "willow104-smelt",
                             "reed118-burbot", "sorrel70-bittern"}) {
        const LoadedJob loaded = need(loadJob(example(std::string(name) + ".nineleaves.json")));
        EXPECT_TRUE(loaded.warnings.empty()) << name;
        Derivations derived;
        for (std::size_t i = 0; i < loaded.job.get<PatternChapter>().elements.size(); ++i) {
            const Result<ArtPtr> art = derived.art(loaded.job, i);
            EXPECT_TRUE(art) << name << " " << at(loaded.job, i).id << (art ? "" : art.error().words.plain());
        }
    }
}

TEST(Derive, ACircleOfMarksIsSaid) {
    Job job = need(plainJob());
    Element a = at(job, 0), b = at(job, 1);
    a.clearOf = {b.id};
    b.clearOf = {a.id};
    job = withElement(withElement(job, 0, a), 1, b);
    Derivations derived;
    EXPECT_EQ(derived.art(job, 0).error().code, "circle");
    EXPECT_EQ(need(derived.art(job, 2))->element, at(job, 2).id);
}

TEST(Derive, SidesOfTheirOwnDifferAndMirroredOnesDoNot) {
    Job job = need(plainJob());
    Element row = at(job, 1);
    row.values.set("wander_mm", 0.8);
    job = withElement(job, 1, row);
    Derivations derived;
    EXPECT_EQ(need(derived.art(job, 1, Side::Left)), need(derived.art(job, 1, Side::Right)));
    row.ownSides = true;
    job = withElement(job, 1, row);
    EXPECT_TRUE(derived.differsBySide(job, 1));
    const ArtPtr left = need(derived.art(job, 1, Side::Left)), right = need(derived.art(job, 1, Side::Right));
    EXPECT_GT((left->outlines()[3].centre - right->outlines()[3].centre).norm(), 1e-3);
    // The mask of the right side opens the right side's marks.
    const auto specs = maskSpecs(job);
    const auto mask = [&](Side side) {
        for (const MaskSpecPtr& spec : specs)
            if (spec->side == side && spec->wish.elements == std::vector<std::string>{row.id})
                return need(derived.cutOnly(job, *spec, Precision::Preview));
        return MaskPtr();
    };
    const MaskPtr l = mask(Side::Left), r = mask(Side::Right);
    ASSERT_TRUE(l && r);
    double differ = 0;
    for (std::size_t i = 0; i < l->sheets[0].windows.size(); ++i)
        differ = std::max(differ,
                          std::abs(l->sheets[0].windows[i].centre.x() + r->sheets[0].windows[i].centre.x()));
    EXPECT_GT(differ, 0.05);
}

}  // namespace
}  // namespace nine
