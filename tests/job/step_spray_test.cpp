// Spray settings by step of the recipe: the kind of work, what the recipe says, pins of steps in files.
#include "job/step_spray.h"

#include <gtest/gtest.h>

#include "job/job_file.h"
#include "job/recipe_job.h"
#include "tests/here.h"
#include "tests/plain_job.h"

namespace nine {
namespace {

using namespace test;

const Job& demo() {
    static const Job job = need(loadJob(sourceDir() + "/examples/sedge60-brook-char.nineleaves.json")).job;
    return job;
}
const Step& stepOf(const Job& job, const std::string& id) {
    const Recipe& r = job.get<LayersChapter>().recipe;
    return r.steps.at(placeOf(r, id));
}
Job edited(const Job& job, const std::string& id, const std::function<void(Step&)>& edit) {
    LayersChapter layers = job.get<LayersChapter>();
    edit(layers.recipe.steps.at(placeOf(layers.recipe, id)));
    return job.with(std::move(layers));
}

TEST(StepSpray, EachKindOfStepIsItsOwnWork) {
    EXPECT_EQ(workOf(demo(), stepOf(demo(), "base")), SprayWork::Cover);
    EXPECT_EQ(workOf(demo(), stepOf(demo(), "belly")), SprayWork::Cover);
    EXPECT_EQ(workOf(demo(), stepOf(demo(), "scales")), SprayWork::Net);
    const Job misted = edited(demo(), "belly", [](Step& s) { s.mist = true; });
    EXPECT_EQ(workOf(misted, stepOf(misted, "belly")), SprayWork::Mist);
    const Job hand = edited(demo(), "belly", [](Step& s) { s.act = Act::ByHand; });
    EXPECT_EQ(workOf(hand, stepOf(hand, "belly")), SprayWork::Detail);
    for (const MaskSpecPtr& spec : maskSpecs(demo())) {
        const Job through = edited(demo(), "belly", [&](Step& s) { s.where = {Reaches::Windows, spec->id}; });
        EXPECT_EQ(workOf(through, stepOf(through, "belly")),
                  spec->wish.material == "tape" ? SprayWork::Tape : SprayWork::Stencil);
    }
}

TEST(StepSpray, ThePlanOfACoverStartsFromPracticeWithTheRecipesDropsAndCoats) {
    const SprayBench bench;
    const Job job = edited(demo(), "base", [](Step& s) {
        s.paint.front().drops = 6;
        s.reducer = 3;
        s.coats = 3;
    });
    const SprayPlan plan = need(planStep(job, stepOf(job, "base"), bench));
    const SprayPractice& practice = bench.practiceFor(SprayWork::Cover);
    EXPECT_NEAR(plan.setting.gauge_kpa / kKpaPerPsi, practice.pressure_psi.start, 1e-6);
    EXPECT_DOUBLE_EQ(plan.setting.distance_mm, practice.distance_mm.start);
    EXPECT_DOUBLE_EQ(plan.setting.reduction.paint, 6);
    EXPECT_DOUBLE_EQ(plan.setting.reduction.reducer, 3);
    EXPECT_EQ(plan.coats, 3);
    for (const Words& reason : plan.reasons) EXPECT_EQ(reason.plain().find("edge"), std::string::npos);
    // A mist is one, whatever the recipe has for coats.
    const Job misted = edited(job, "base", [](Step& s) { s.mist = true; });
    EXPECT_EQ(need(planStep(misted, stepOf(misted, "base"), bench)).coats, 1);
}

TEST(StepSpray, PinsOfAStepHoldAndComeBackFromItsFile) {
    SprayPins pins;
    pins.pressure_kpa = 22 * kKpaPerPsi;
    pins.distance_mm = 140;
    pins.coats = 5;
    const Job job = demo().with(withStepPins(demo().get<LayersChapter>(), "base", pins));
    const Job back = need(parseJob(jobText(job), "again")).job;
    EXPECT_EQ(pinsOfStep(back.get<LayersChapter>(), "base"), pins);
    const SprayPlan plan = need(planStep(back, stepOf(back, "base"), {}));
    EXPECT_DOUBLE_EQ(plan.setting.distance_mm, 140);
    EXPECT_EQ(plan.coats, 5);  // what is pinned goes before the recipe
    // Of a step that is gone nothing is written; nonsense is refused with its place.
    LayersChapter gone = job.get<LayersChapter>();
    gone.recipe.steps.erase(gone.recipe.steps.begin() +
                            static_cast<std::ptrdiff_t>(placeOf(gone.recipe, "base")));
    EXPECT_EQ(jobText(job.with(std::move(gone))).find("sprays"), std::string::npos);
    pins.distance_mm = -4;
    const Status wrong = checkJob(demo().with(withStepPins(demo().get<LayersChapter>(), "base", pins)));
    ASSERT_FALSE(wrong);
    EXPECT_NE(wrong.error().where.find("layers.sprays[0].pins"), std::string::npos);
}

TEST(StepSpray, AMaskTakesPaintDropsAndCoatsFromItsStepUnlessPinned) {
    const Step& dots = stepOf(demo(), "red-dots-L");
    const SpraySpec told = sprayOfMaskInRecipe(demo(), dots.where.of);
    EXPECT_EQ(told.paint, familyOf(demo(), dots).id);
    ASSERT_TRUE(told.pins.coats && told.pins.reduction);
    EXPECT_EQ(*told.pins.coats, static_cast<int>(dots.coats));
    // Its twin of the other side is told the same.
    for (const MaskSpecPtr& spec : maskSpecs(demo()))
        if (spec->side == Side::Right && spec->wish.elements == std::vector<std::string>{"red-dots"}) {
            EXPECT_EQ(sprayOfMaskInRecipe(demo(), spec->id).pins, told.pins);
        }
    SpraySpec own = sprayOfMask(demo(), dots.where.of);
    own.pins.coats = 7;
    EXPECT_EQ(*sprayOfMaskInRecipe(withSpray(demo(), own), dots.where.of).pins.coats, 7);
    // Steps that only stand for colours say nothing.
    const Job plain = need(plainJob());
    const std::string mask = maskSpecs(plain).front()->id;
    EXPECT_EQ(sprayOfMaskInRecipe(plain, mask).pins, sprayOfMask(plain, mask).pins);
    EXPECT_EQ(stepThrough(plain, mask), nullptr);
}

}  // namespace
}  // namespace nine
