// What the Layers leaf shows: the cut through the films, what serves again when a step changes, the shop's
// shelf, eyes and clear.
#include <gtest/gtest.h>

#include <cmath>

#include "job/finish_job.h"
#include "job/paint_shelf.h"
#include "job/recipe_section.h"
#include "pattern/fittings.h"
#include "tests/bodies.h"
#include "tests/plain_job.h"
#include "tests/support.h"

namespace nine {
namespace {

using namespace test;

Step sprayed(const char* id, const char* paint, Where where, Ratio coats) {
    Step s;
    s.id = id;
    s.act = Act::Colour;
    s.paint = {{paint, 4}};
    s.reducer = 1;
    s.where = where;
    s.coats = coats;
    return s;
}
Job withSteps(const Job& job, std::vector<Step> steps) {
    LayersChapter layers = job.get<LayersChapter>();
    layers.recipe.steps = std::move(steps);
    return withPaintsOf(job.with(std::move(layers)), genericShelf());
}
Job threeSteps() {
    return withSteps(need(plainJob()),
                     {sprayed("white", "white", {}, 2),
                      sprayed("back", "black", {Reaches::Fade, "", FadeFrom::Back, 8, 6}, 1),
                      sprayed("belly", "orange", {Reaches::Fade, "", FadeFrom::Belly, 6, 4}, 1)});
}

TEST(RecipeSection, FilmsLieWhereTheFadePutsThemInTheirOrder) {
    const Job job = threeSteps();
    Derivations derived;
    const RecipeOnBody on = need(recipeOnBody(job, derived, {512, 120}, Fineness::Glance));
    const double x = on.skin->noseX_mm() + 0.4 * on.skin->length_mm();
    for (const Side side : {Side::Left, Side::Right}) {
        const RecipeSection cut = sectionOf(on, x, side);
        ASSERT_EQ(cut.films.size(), 3u);
        EXPECT_NEAR(cut.x_mm, x, on.skin->length_mm() / 100);
        const SectionArc arc = on.skin->arcAt(cut.x_mm);
        // From the back line to the belly line, all of it.
        EXPECT_NEAR(cut.g_mm.front(), arc.backArc_mm(), 0.4);
        EXPECT_NEAR(cut.g_mm.back(), -arc.bellyArc_mm(), 0.4);
        for (std::size_t k = 1; k < cut.g_mm.size(); ++k) EXPECT_LT(cut.g_mm[k], cut.g_mm[k - 1]);
        // White is as thick everywhere: two coats of 15 um wet, of which solids stay, a fifth of it reducer.
        const Sprayable white = *on.palette.find("white");
        for (const double um : cut.films[0].dry_um)
            EXPECT_NEAR(um, 2 * white.wet_um * white.solids * 0.8, 1e-6);
        // Half of black is left 8 mm of skin below the back line, none beyond 11.
        double half = 0;
        for (std::size_t k = 1; k < cut.g_mm.size(); ++k) {
            const double whole = cut.films[1].dry_um.front();
            if (cut.films[1].dry_um[k - 1] >= 0.5 * whole && cut.films[1].dry_um[k] < 0.5 * whole)
                half = arc.backArc_mm() - cut.g_mm[k];
            if (arc.backArc_mm() - cut.g_mm[k] > 11.4) {
                EXPECT_LT(cut.films[1].dry_um[k], 1e-6);
            }
        }
        EXPECT_NEAR(half, 8, 0.4);
        // What is seen: dark at the back, orange at the belly, white between and before.
        const auto red = [](std::uint32_t c) { return c >> 16 & 255u; };
        const auto blue = [](std::uint32_t c) { return c & 255u; };
        EXPECT_LT(red(cut.films[2].seen.front()), 90u);
        EXPECT_GT(red(cut.films[2].seen.back()), blue(cut.films[2].seen.back()) + 60u);
        EXPECT_GT(blue(cut.films[0].seen.back()), 190u);
        EXPECT_NEAR(cut.stack_um,
                    std::max(cut.films[0].dry_um.front() + cut.films[1].dry_um.front(),
                             cut.films[0].dry_um.back() + cut.films[2].dry_um.back()),
                    1e-6);
    }
}

TEST(RecipeOnBody, APlaceIsWhereItsSkinIs) {
    const Job job = threeSteps();
    Derivations derived;
    const RecipeOnBody on = need(recipeOnBody(job, derived, {256, 160}, Fineness::Glance));
    for (const std::size_t place :
         {5u * 256u + 7u, 80u * 256u + 100u, 80u * 256u + 180u, 120u * 256u + 250u}) {
        const double v = static_cast<double>(place / 256) / 159,
                     u = (static_cast<double>(place % 256) + 0.5) / 256;
        EXPECT_EQ(placeOf(on, on.body.skinAt({u, v})), place);
    }
}

TEST(RecipeOnBody, AChangedStepIsTheSameAsWorkingAllOutAnew) {
    const Job job = threeSteps();
    Derivations derived;
    const SkinRaster raster{128, 80};
    const RecipeOnBody before = need(recipeOnBody(job, derived, raster));
    const auto changed = [&](const std::function<void(LayersChapter&)>& edit) {
        LayersChapter layers = job.get<LayersChapter>();
        edit(layers);
        return withPaintsOf(job.with(std::move(layers)), genericShelf());
    };
    const Job jobs[] = {changed([](LayersChapter& l) { l.recipe.steps[1].coats = 3; }),
                        changed([](LayersChapter& l) { l.recipe.steps[2].where.reach_mm = 9; }),
                        changed([](LayersChapter& l) { l.recipe.steps[0].on = false; }),
                        changed([](LayersChapter& l) { std::swap(l.recipe.steps[0], l.recipe.steps[2]); }),
                        changed([](LayersChapter& l) { l.recipe.steps.erase(l.recipe.steps.begin() + 1); }),
                        changed([](LayersChapter& l) {
                            l.recipe.steps[1].paint = {{"red", 3}};
                        }),
                        changed([](LayersChapter& l) {
                            for (Bottle& b : l.paints)
                                if (b.id == "black")
                                    b.swatches = {{1, true, {30, 60, 200}}, {4, true, {20, 40, 190}}};
                        })};
    for (const Job& next : jobs) {
        const RecipeOnBody quick = need(recipeOnBody(next, derived, raster, Fineness::Cut, {}, &before));
        const RecipeOnBody anew = need(recipeOnBody(next, derived, raster));
        ASSERT_EQ(quick.painted.after.size(), anew.painted.after.size());
        for (std::size_t s = 0; s < anew.painted.after.size(); ++s)
            EXPECT_EQ(colourAfter(quick, s).pixels, colourAfter(anew, s).pixels) << s;
        EXPECT_EQ(quick.areas_mm2, anew.areas_mm2);
    }
    // What did not change is not worked out again.
    const RecipeOnBody last = need(recipeOnBody(jobs[1], derived, raster, Fineness::Cut, {}, &before));
    EXPECT_EQ(last.covers[0], before.covers[0]);
    EXPECT_EQ(last.painted.after[1].state, before.painted.after[1].state);
    EXPECT_NE(last.covers[2], before.covers[2]);
    const RecipeOnBody first = need(recipeOnBody(jobs[2], derived, raster, Fineness::Cut, {}, &before));
    EXPECT_NE(first.painted.after[1].state, before.painted.after[1].state);
}

TEST(RecipeOnBody, IdenticalStepsShareTheirCover) {
    const Job job =
        withSteps(need(plainJob()), {sprayed("a", "white", {Reaches::Fade, "", FadeFrom::Belly, 6, 4}, 1),
                                     sprayed("b", "orange", {Reaches::Fade, "", FadeFrom::Belly, 6, 4}, 1)});
    Derivations derived;
    const RecipeOnBody on = need(recipeOnBody(job, derived, {128, 80}));
    EXPECT_EQ(on.covers[0], on.covers[1]);
}

TEST(RecipeOnBody, AFadeGoesRoundAMarkAsFarAsItReaches) {
    const Job plain = need(plainJob());
    const std::string mark = plain.get<PatternChapter>().elements.front()->id;
    Derivations derived;
    const ArtPtr art = need(derived.art(plain, 0));
    const Job job =
        withSteps(plain, {sprayed("halo", "white", {Reaches::Fade, mark, FadeFrom::Landmark, 2, 0.5}, 1)});
    const RecipeOnBody on = need(recipeOnBody(job, derived, {512, 300}));
    ASSERT_TRUE(on.covers[0]);
    // By every point of the mark's outlines, not the few the program asks.
    int inside = 0, outside = 0;
    for (std::size_t place = 0; place < on.raster.places(); place += 97) {
        const double u = (static_cast<double>(place % 512) + 0.5) / 512,
                     v = static_cast<double>(place / 512) / 299;
        const SkinPoint at = on.body.skinAt({u, v});
        if (at.side != Side::Left) continue;
        double far = 1e9;
        for (const Outline& outline : art->outlines())
            for (const Vec2& p : outline.skin) far = std::min(far, (p - Vec2(at.x_mm, at.g_mm)).norm());
        if (far < 1.4) {
            EXPECT_GT(on.covers[0]->share[place], 0.9f) << far;
            ++inside;
        } else if (far > 2.6) {
            EXPECT_LT(on.covers[0]->share[place], 0.1f) << far;
            ++outside;
        }
    }
    EXPECT_GT(inside, 10);
    EXPECT_GT(outside, 100);
}

TEST(RecipeOnBody, ASoftEdgeOfAMaskIsAsWideAsWasWished) {
    Job job = need(plainJob());
    const MaskSpecPtr mask = maskSpecs(job).front();
    job = withSteps(job, {sprayed("marks", "black", {Reaches::Windows, mask->id}, 1)});
    SpraySpec spray = sprayOfMask(job, mask->id);
    spray.soft_mm = 2;
    const Job soft = withSpray(job, spray);
    Derivations derived;
    const SkinRaster raster{1024, 600};
    const RecipeOnBody sharp = need(recipeOnBody(job, derived, raster));
    const RecipeOnBody on = need(recipeOnBody(soft, derived, raster, Fineness::Cut, {}, &sharp));
    // Along the body through a mark, where its film goes from 10 to 90 per cent of the most it reaches:
    // between two marks or in a small one less than 2 mm of it are left, never more; the mean film stays.
    double before = 0, after = 0;
    for (std::size_t p = 0; p < raster.places(); ++p) {
        before += sharp.covers[0]->share[p] * 1.0;
        after += on.covers[0]->share[p] * 1.0;
    }
    EXPECT_NEAR(after / before, 1, 0.03);
    EXPECT_TRUE(on.covers[0]->thins);
    // A disc much larger than the edge is wide would show it whole; here the steepest place tells: a normal
    // distribution rises by 1 / (sigma sqrt(2 pi)) a mm, sigma 2 / 2.563 mm, and no edge is steeper than
    // that.
    double steepest = 0;
    for (std::size_t r = 1; r < 600; ++r)
        for (std::size_t c = 0; c < 1024; ++c) {
            const auto at = [&](std::size_t row) {
                const SkinPoint s =
                    on.body.skinAt({(static_cast<double>(c) + 0.5) / 1024, static_cast<double>(row) / 599});
                return on.skin->at(s).position;
            };
            const double rise =
                std::abs(on.covers[0]->share[r * 1024 + c] - on.covers[0]->share[(r - 1) * 1024 + c]);
            if (rise > 0.01) steepest = std::max(steepest, rise / (at(r) - at(r - 1)).norm());
        }
    const double most = 2.563 / 2 / std::sqrt(2 * 3.14159265);
    EXPECT_LT(steepest, 1.05 * most);
    EXPECT_GT(steepest, 0.4 * most);  // marks of some mm come near it
}

TEST(RecipeOnBody, EyesAreThereOnceTheyAreIn) {
    const Job before = threeSteps();
    LayersChapter layers = before.get<LayersChapter>();
    Step eyes;
    eyes.id = "eyes";
    eyes.act = Act::Eyes;
    layers.recipe.steps.insert(layers.recipe.steps.begin() + 1, eyes);
    const Job job = before.with(std::move(layers));
    Derivations derived;
    const RecipeOnBody on = need(recipeOnBody(job, derived, {256, 160}));
    const Landmark& eye = job.get<BlankChapter>().landmarks.at("eye");
    const auto at = [&](std::optional<std::size_t> step, Side side) {
        return colourAfter(on, step)
            .pixels[placeOf(on, {side, eye.points.front().x(), eye.points.front().y()})];
    };
    const std::uint32_t pupil = eyeRings(*on.skin, job.get<BlankChapter>().landmarks).back().colour;
    for (const Side side : {Side::Left, Side::Right}) {
        EXPECT_NE(at(0, side), pupil);
        EXPECT_NE(at(std::nullopt, side), pupil);
        EXPECT_EQ(at(1, side), pupil);
        EXPECT_EQ(at(3, side), pupil);  // what is sprayed later does not hide a glued-in eye in the picture
    }
}

TEST(PaintShelf, IsTheOneThatShipsWithTheShopsOwnInItsPlace) {
    const TemporaryFolder folder;
    Workshop workshop = need(Workshop::open(folder / "w.sqlite"));
    EXPECT_EQ(need(shelfOf(workshop)), genericShelf());
    Bottle own = genericShelf().front();
    own.left_ml = 12.5;
    own.swatches[0].seen = {1, 2, 3};
    EXPECT_EQ(need(putBottle(workshop, own)), own.id);
    Bottle other = own;
    other.id.clear();
    other.name = own.name;  // of the same name as one that ships
    const std::string id = need(putBottle(workshop, other));
    EXPECT_NE(id, own.id);
    std::vector<Bottle> shelf = need(shelfOf(workshop));
    EXPECT_EQ(shelf.size(), genericShelf().size() + 1);
    EXPECT_EQ(*findBottle(shelf, own.id), own);
    ASSERT_TRUE(findBottle(shelf, id));
    // Taken off, and there again.
    ASSERT_TRUE(takeBottle(workshop, own));
    ASSERT_TRUE(takeBottle(workshop, *findBottle(shelf, id)));
    shelf = need(shelfOf(workshop));
    EXPECT_EQ(shelf.size(), genericShelf().size() - 1);
    EXPECT_FALSE(findBottle(shelf, own.id));
    ASSERT_TRUE(putBottle(workshop, own));
    EXPECT_TRUE(findBottle(need(shelfOf(workshop)), own.id));
    own.swatches.clear();
    EXPECT_FALSE(putBottle(workshop, own));  // no swatch, no colour
    EXPECT_FALSE(need(shelfOf(workshop)).empty());
}

TEST(PaintShelf, ARowThatCannotBeReadIsLeftOutAndTold) {
    const TemporaryFolder folder;
    Workshop workshop = need(Workshop::open(folder / "w.sqlite"));
    ASSERT_TRUE(workshop.put({kPaintKind, "odd", "Odd", "", "{\"paints\": [{\"name\": \"cut o", {}, {}}));
    Warnings warnings;
    EXPECT_EQ(need(shelfOf(workshop, &warnings)), genericShelf());
    ASSERT_EQ(warnings.size(), 1u);
    EXPECT_NE(warnings[0].where.find("odd"), std::string::npos);
}

TEST(Finish, EyesFitTheSocketLessThePaintOnItsWall) {
    Job job = threeSteps();
    BlankChapter blank = job.get<BlankChapter>();
    ASSERT_TRUE(blank.landmarks.count("eye"));
    blank.landmarks["eye"].diameter_mm = 6.21;
    blank.landmarks["eye"].buildUp_mm = 0;
    job = job.with(BlankChapter(blank));
    Derivations derived;
    const auto eyes = [&](const Job& j) { return *eyesFor(need(recipeOnBody(j, derived, {256, 160}))); };
    // .1 mm of play all round leaves 6.01: only bare does an eye of 6 go in.
    EXPECT_DOUBLE_EQ(eyes(job).eye_mm, 5);
    EXPECT_DOUBLE_EQ(eyes(job).smaller_mm, 4);
    EXPECT_GT(eyes(job).film_um, 5);
    LayersChapter covered = job.get<LayersChapter>();
    Step cover;
    cover.id = "cover";
    cover.act = Act::Cover;
    cover.does = {"sockets"};
    covered.recipe.steps.insert(covered.recipe.steps.begin(), cover);
    const Job kept = job.with(LayersChapter(covered));
    EXPECT_DOUBLE_EQ(eyes(kept).eye_mm, 6);
    EXPECT_DOUBLE_EQ(eyes(kept).film_um, 0);
    // What was measured counts where it is more.
    blank.landmarks["eye"].buildUp_mm = 0.7;
    EXPECT_DOUBLE_EQ(eyes(kept.with(BlankChapter(blank))).eye_mm, 4);
    blank.landmarks.erase("eye");
    EXPECT_FALSE(eyesFor(need(recipeOnBody(kept.with(BlankChapter(blank)), derived, {64, 40}))));
}

TEST(Finish, ClearIsAreaTimesFilmAndMixesFollowTheWorkingTime) {
    const ClearKind& slow = *findClear("epoxy");
    const double skin_mm2 = 5000;
    const ClearPlan one = need(planClear(slow, skin_mm2, 1));
    // 5000 mm2 of .4 mm are 2 ml; a tenth is brushed away and .6 ml stay in cup and brush.
    EXPECT_NEAR(one.all_ml, 2 / 0.9 + 0.6, 1e-9);
    EXPECT_NEAR(2 * one.partA_ml, one.all_ml, 1e-9);
    EXPECT_EQ(one.bodiesInOneMix, 10);  // 40 minutes, 4 a body
    const ClearPlan many = need(planClear(slow, skin_mm2, 24));
    EXPECT_EQ(many.mixes, 3);
    EXPECT_NEAR(many.all_ml, 24 * 2 / 0.9 + 3 * 0.6, 1e-9);
    EXPECT_EQ(need(planClear(*findClear("epoxy_30"), skin_mm2, 24)).mixes, 5);
    // A dip has no mix; solvent leaves; what is sprayed mostly misses.
    const ClearPlan dip = need(planClear(*findClear("uv_dip"), skin_mm2, 24));
    EXPECT_EQ(dip.partA_ml, 0);
    EXPECT_EQ(dip.bodiesInOneMix, 0);
    EXPECT_GT(need(planClear(*findClear("two_part"), skin_mm2, 1)).all_ml, 0.5 / 0.35 / 0.35);
    EXPECT_EQ(planClear(slow, skin_mm2, 0).error().code, "out_of_range");
    EXPECT_EQ(planClear(slow, skin_mm2, 501).error().code, "out_of_range");
    EXPECT_EQ(planClear(slow, 0, 1).error().code, "out_of_range");
}

TEST(Finish, EveryClearSaysHowAndWarns) {
    for (const ClearKind& kind : clears()) {
        const ClearPlan plan = need(planClear(kind, 5000, 3));
        EXPECT_FALSE(plan.says.empty()) << kind.id;
        EXPECT_FALSE(plan.cautions.empty()) << kind.id;
        bool told = false;
        for (const Words& w : plan.cautions)
            told = told || w.plain().find("Isocyanates") != std::string::npos;
        EXPECT_EQ(told, kind.isocyanates) << kind.id;
    }
}

TEST(Finish, FromBelowABellyIsADarkShape) {
    Derivations derived;
    const auto share = [&](const char* paint) {
        const Job job = withSteps(need(plainJob()), {sprayed("all", paint, {}, 6)});
        return seenFromBelow(need(recipeOnBody(job, derived, {128, 80}))).share;
    };
    EXPECT_LT(share("white"), 0.04);
    EXPECT_GT(share("white"), 0.025);
    EXPECT_LT(share("black"), 0.2 * share("white"));
    // The back does not count.
    const Job backed =
        withSteps(need(plainJob()), {sprayed("all", "white", {}, 6),
                                     sprayed("back", "black", {Reaches::Fade, "", FadeFrom::Back, 4, 2}, 4)});
    EXPECT_NEAR(seenFromBelow(need(recipeOnBody(backed, derived, {128, 80}))).share, share("white"), 3e-3);
}

}  // namespace
}  // namespace nine
