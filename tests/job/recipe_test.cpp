// The layers chapter: kept in files, in step with the pattern; the recipe on the body.
#include "job/recipe_job.h"

#include <gtest/gtest.h>

#include <cmath>

#include "blank/measure.h"
#include "job/shelf_file.h"
#include "tests/bodies.h"
#include "tests/here.h"
#include "tests/plain_job.h"

namespace nine {
namespace {

using namespace test;

Job plain() {
    return need(plainJob());
}
const Recipe& recipeOf(const Job& job) {
    return job.get<LayersChapter>().recipe;
}
Job with(const Job& job, const std::function<void(LayersChapter&)>& edit) {
    LayersChapter layers = job.get<LayersChapter>();
    edit(layers);
    return job.with(std::move(layers));
}
RecipeOnBody onBody(const Job& job, SkinRaster raster = {128, 96}) {
    Derivations derived;
    return need(recipeOnBody(job, derived, raster, Fineness::Glance));
}
std::vector<std::string> rulesSaid(const Job& job) {
    std::vector<std::string> ids;
    for (const RuleFinding& f : findingsOf(onBody(job))) ids.push_back(f.rule);
    return ids;
}

TEST(LayersChapter, ComesBackFromItsFileAsItWas) {
    const Job job = with(plain(), [](LayersChapter& l) {
        Step step;
        step.id = "odd";
        step.act = Act::ByHand;
        step.name = "A mist of lime";
        step.on = false;
        step.group = "g";
        step.paint = {{"neon-green", 2.5}, {"white", .5}};
        step.reducer = 3;
        step.coats = 1.5;
        step.mist = true;
        step.where = {Reaches::Grazing, "bars-L", FadeFrom::Landmark, 12, 3};
        step.dry = Dry::Rest;
        step.rest_min = 12;
        step.note = "n";
        l.recipe.steps.push_back(step);
        Step eyes;
        eyes.id = "eyes";
        eyes.act = Act::Eyes;
        eyes.eye_mm = 6;
        eyes.glue = "gel";
        eyes.wait_min = 30;
        l.recipe.steps.push_back(eyes);
        Step clear;
        clear.id = "clear";
        clear.act = Act::Clear;
        clear.clear = "uv_dip";
        clear.does = {"hook_eyes"};
        l.recipe.steps.push_back(clear);
        l.recipe.accepted = {"no_paper_test"};
        l.severities = {{"muddy", Severity::Fault}};
        l.school = School::BackFirst;
        l.paints.push_back(genericShelf()[25]);
    });
    ASSERT_TRUE(checkJob(job));
    const std::string text = jobText(job);
    const Job again = need(parseJob(text, "a.nineleaves.json")).job;
    EXPECT_EQ(jobText(again), text);
    EXPECT_EQ(recipeOf(again), recipeOf(job));
    EXPECT_EQ(again.get<LayersChapter>().paints, job.get<LayersChapter>().paints);
    EXPECT_EQ(again.get<LayersChapter>().severities, job.get<LayersChapter>().severities);
    EXPECT_EQ(again.get<LayersChapter>().school, School::BackFirst);
}

TEST(LayersChapter, WrongOnesAreRefusedWithTheirPlace) {
    const auto where = [](auto&& spoil) {
        const Status ok = checkJob(with(plain(), spoil));
        return ok ? std::string() : ok.error().code + " " + ok.error().where;
    };
    EXPECT_EQ(where([](LayersChapter&) {}), "");
    EXPECT_EQ(where([](LayersChapter& l) { l.recipe.steps[1].id = l.recipe.steps[0].id; }),
              "duplicate_id layers.steps[1].id");
    EXPECT_EQ(where([](LayersChapter& l) { l.recipe.steps[2].coats = 1000; }),
              "out_of_range layers.steps[2].coats");
    EXPECT_EQ(where([](LayersChapter& l) { l.paints[1].id = l.paints[0].id; }),
              "duplicate_id layers.paints[1].id");
    EXPECT_EQ(where([](LayersChapter& l) { l.paints[1].swatches[0].coats = 0; }),
              "out_of_range layers.paints[1].swatches");
    EXPECT_EQ(where([](LayersChapter& l) {
                  const Step step = l.recipe.steps[0];
                  for (int k = 0; k < 2100; ++k) {
                      l.recipe.steps.push_back(step);
                      l.recipe.steps.back().id = "s" + std::to_string(k);
                  }
              }),
              "too_many layers.steps");
    std::string text = jobText(plain());
    text.replace(text.find("\"act\": \"mask_on\""), 16, "\"act\": \"mask_in\"");
    const auto loaded = parseJob(text, "f");
    ASSERT_FALSE(loaded);
    EXPECT_NE(loaded.error().where.find("layers.steps[3].act"), std::string::npos) << loaded.error().where;
}

TEST(LayersChapter, RulesOfLaterVersionsAndLongNames) {
    std::string text = jobText(plain());
    const std::string rule = "\"severities\": {\"rule_of_later\": \"odd\", \"muddy\": \"fault\"}, ";
    text.insert(text.find("\"paints\""), rule);
    const Job job = need(parseJob(text, "f")).job;
    EXPECT_EQ(job.get<LayersChapter>().severities, (Severities{{"muddy", Severity::Fault}}));
    EXPECT_NE(jobText(job).find("\"rule_of_later\": \"odd\""), std::string::npos);
    EXPECT_EQ(
        checkJob(with(job, [](LayersChapter& l) { l.recipe.steps[1].id.assign(300, 'x'); })).error().where,
        "layers.steps[1].id");
    EXPECT_EQ(checkJob(with(job, [](LayersChapter& l) { l.paints[1].name.assign(300, 'x'); })).error().where,
              "layers.paints[1].name");
}

TEST(LayersChapter, ANewMarkGetsItsStepsAndALostOneIsTold) {
    const Job job = plain();
    PatternChapter pattern = job.get<PatternChapter>();
    Element more = *pattern.elements[1];
    more.id = more.name = "more";
    more.colour = "#00A0E0";
    pattern.elements.push_back(std::make_shared<const Element>(more));
    const Job next = inStep(job.with(pattern));
    const auto sprays = [](const Job& j, const std::string& mask) {
        const auto& steps = recipeOf(j).steps;
        return std::count_if(steps.begin(), steps.end(),
                             [&](const Step& s) { return paints(s.act) && s.where.of == mask; });
    };
    EXPECT_EQ(sprays(next, "more-L"), 1);
    EXPECT_EQ(recipeOf(next).steps.size(), recipeOf(job).steps.size() + 3);
    EXPECT_EQ(inStep(next).part<LayersChapter>(), next.part<LayersChapter>());
    EXPECT_TRUE(checkJob(next));
    // Taken out again: what the program made, and nobody touched, goes with it, paint and all.
    EXPECT_EQ(jobText(inStep(next.with(job.get<PatternChapter>()).withPart(job.part<MasksChapter>()))),
              jobText(job));
    // What was touched stays, and is told; nothing is dropped.
    const Job touched = with(next, [](LayersChapter& l) {
        for (Step& s : l.recipe.steps) s.made = false;
    });
    const Job without = inStep(touched.with(job.get<PatternChapter>()).withPart(job.part<MasksChapter>()));
    EXPECT_EQ(recipeOf(without).steps.size(), recipeOf(next).steps.size());
    const auto said = rulesSaid(without);
    EXPECT_GE(std::count(said.begin(), said.end(), "mask_gone"), 1);
    // A job without a recipe stays without one.
    const Job empty = with(job, [](LayersChapter& l) { l.recipe.steps.clear(); });
    EXPECT_TRUE(recipeOf(inStep(empty.with(pattern))).steps.empty());
}

/// Of a small outline as it lies in space.
double trueArea(const Outline& outline) {
    Vec3 sum = Vec3::Zero();
    for (std::size_t i = 0; i < outline.points.size(); ++i)
        sum += outline.points[i].position.cross(outline.points[(i + 1) % outline.points.size()].position);
    return 0.5 * sum.norm();
}

TEST(RecipeOnBody, CoversHaveTheAreasOfTheSkin) {
    Job job = plain();
    job = with(job, [](LayersChapter& l) {
        for (Step& s : l.recipe.steps)
            if (s.id == "side") s.where = {};
    });
    const RecipeOnBody on = onBody(job, {256, 200});
    const Skin skin = need(Skin::of(job.get<BlankChapter>().table));
    const auto& steps = recipeOf(job).steps;
    // Everything: the area of the body as the Blank leaf measures it.
    const std::size_t side = placeOf(recipeOf(job), "side");
    EXPECT_NEAR(on.areas_mm2[side] / on.skin_mm2, 1, 1e-6);
    EXPECT_NEAR(on.skin_mm2, measureBody(skin).area_mm2, .01 * measureBody(skin).area_mm2);
    // Windows: the area of the marks, both sides.
    for (std::size_t s = 0; s < steps.size(); ++s) {
        if (steps[s].where.reaches != Reaches::Windows) continue;
        double art = 0;
        Derivations derived;
        for (const MaskFact& mask : recipeFacts(job).masks)
            if (mask.id == steps[s].where.of)
                for (std::size_t i = 0; i < job.get<PatternChapter>().elements.size(); ++i)
                    if (job.get<PatternChapter>().elements[i]->id == mask.elements[0]) {
                        const ArtPtr drawn = need(derived.art(job, i));
                        for (const Outline& o : drawn->outlines()) art += trueArea(o);
                    }
        EXPECT_NEAR(on.areas_mm2[s], 2 * art, .04 * 2 * art) << steps[s].id;
    }
}

TEST(RecipeOnBody, FadesFallOffFromTheirLine) {
    const Skin skin = cylinder(12, 80);
    Landmark eye;
    eye.points = {{20, 4}};
    const Landmarks landmarks{{"eye", eye}};
    const SectionArc arc = skin.arcAt(40);
    const auto at = [&](FadeFrom from, double reach, double soft, double x, double g) {
        return fadeAt({Reaches::Fade, "eye", from, reach, soft}, skin, landmarks, arc, {x, g});
    };
    const double back = arc.backArc_mm();
    EXPECT_NEAR(at(FadeFrom::Back, 6, 4, 40, back), 1, 1e-9);
    EXPECT_NEAR(at(FadeFrom::Back, 6, 4, 40, back - 6), .5, 1e-9);
    EXPECT_NEAR(at(FadeFrom::Back, 6, 4, 40, back - 8.1), 0, 1e-9);
    EXPECT_NEAR(at(FadeFrom::Belly, 6, 4, 40, -arc.bellyArc_mm() + 6), .5, 1e-9);
    EXPECT_NEAR(at(FadeFrom::Nose, 10, 4, 10, 0), .5, 1e-9);
    EXPECT_NEAR(at(FadeFrom::Tail, 10, 4, 70, 0), .5, 1e-9);
    EXPECT_NEAR(at(FadeFrom::Landmark, 5, 2, 23, 8), .5, 1e-9);
}

TEST(RecipeOnBody, ColoursOfTheDesignComeBackOnTheBody) {
    const Job job = plain();
    const RecipeOnBody on = onBody(job, {256, 200});
    // Middle of the back, the belly: within what eyes take for the same colour, under a clear coat.
    const PatternChapter& pattern = job.get<PatternChapter>();
    const auto off = [&](std::size_t step, const std::string& colour, double turn) {
        const auto place = static_cast<std::size_t>(std::lround(.62 * on.raster.rows)) * 256 +
                           static_cast<std::size_t>(turn * 256);
        return difference(labOf(on.painted.at(step, place), kGloss),
                          labOf(xyzOf(linearOf(*parseColour(colour)))));
    };
    const std::size_t last = recipeOf(job).steps.size() - 1;
    EXPECT_LT(off(last, pattern.groundBack, .25), 3);
    EXPECT_LT(off(last, pattern.groundBelly, .75), 3);
    EXPECT_GT(off(0, pattern.groundBelly, .75), 20);
    // As pictures: matt until a clear coat comes, deeper under it.
    const Job cleared = with(job, [](LayersChapter& l) {
        Step clear;
        clear.id = "clear";
        clear.act = Act::Clear;
        clear.clear = "epoxy";
        l.recipe.steps.push_back(clear);
    });
    const auto lightness = [](const Image& image) {
        double sum = 0;
        for (const std::uint32_t pixel : image.pixels) sum += labOf(xyzOf(linearOf(srgbOf(pixel)))).l;
        return sum / static_cast<double>(image.pixels.size());
    };
    const RecipeOnBody glossy = onBody(cleared, {256, 200});
    EXPECT_LT(lightness(colourAfter(glossy, last + 1)),
              lightness(colourAfter(glossy, last)) - 3);
    EXPECT_GT(lightness(colourAfter(glossy, std::nullopt)), 50);
}

TEST(RecipeOnBody, AFirstRecipeOfBothSchoolsRaisesNothing) {
    const LoadedJob demo = need(loadJob(nine::sourceDir() + "/examples/sedge60-brook-char.nineleaves.json"));
    for (const School school : {School::LightToDark, School::BackFirst}) {
#ifdef NINE_SANITIZED
        if (school == School::BackFirst) continue;  // ten times as long
#endif
        Derivations derived;
        const Job job = need(withBegunRecipe(demo.job, derived, genericShelf(), school));
        ASSERT_TRUE(checkJob(job));
        EXPECT_EQ(rulesSaid(job), std::vector<std::string>{});
        EXPECT_GT(recipeOf(job).steps.size(), 30u);
        for (const Bottle& b : job.get<LayersChapter>().paints) EXPECT_FALSE(isColourOnly(b)) << b.id;
        // Its file opens again, paints and all.
        EXPECT_EQ(recipeOf(need(parseJob(jobText(job), "f")).job), recipeOf(job));
    }
}

TEST(ShelfFiles, GoOutAndComeBack) {
    const std::string text = shelfText(genericShelf());
    EXPECT_EQ(need(parseShelf(text, "s.json")), genericShelf());
    EXPECT_EQ(parseShelf(text.substr(0, text.size() / 2), "s.json").error().code, "bad_json");
    EXPECT_EQ(parseShelf("{\"paints\": [{\"name\": \"A\"}]}", "s.json").error().code, "missing");
    const auto twice = parseShelf(R"({"paints": [
{"name": "A", "family": "opaque", "swatches": [{"seen": "#102030"}]},
{"name": "A", "family": "opaque", "swatches": [{"seen": "#102030"}]}]})",
                                  "s.json");
    EXPECT_EQ(twice.error().code, "duplicate_id");
    EXPECT_NE(twice.error().where.find("s.json:3 paints[1]"), std::string::npos) << twice.error().where;
}

}  // namespace
}  // namespace nine
