// A job on the bench: its tasks, its gates, what really happened and the card of it, rows of the log.
#include <gtest/gtest.h>

#include <algorithm>
#include <set>

#include "job/bench_job.h"
#include "job/demo_job.h"
#include "job/log_book.h"
#include "job/paint_shelf.h"
#include "job/run_card.h"
#include "tests/support.h"

namespace nine {
namespace {

using namespace test;

/// The brook char with its recipe; worked out once for all tests.
const JobOnBench& charOnBench() {
    static const JobOnBench job = [] {
        const Job loaded = need(loadJob(example("sedge60-brook-char.nineleaves.json"))).job;
        Derivations derived;
        auto on = std::make_shared<const RecipeOnBody>(
            need(recipeOnBody(loaded, derived, {96, 64}, Fineness::Glance)));
        return need(jobOnBench(on, derived, Workplace{}));
    }();
    return job;
}
JobOnBench withLures(int lures, int copies = 1) {
    JobOnBench job = charOnBench();
    job.lures = lures;
    job.bench.copies.clear();
    if (copies > 1) {
        for (const MaskFact& mask : job.facts.masks) job.bench = withCopies(job.bench, mask.id, copies);
        job.bench = withCopies(job.bench, kNetTool, copies);
    }
    return job;
}

std::vector<std::string> stepsOf(const BenchTray& tray) {
    std::vector<std::string> steps;
    for (const BenchTask& task : tray.tasks)
        for (const std::string& step : task.steps)
            if (steps.empty() || steps.back() != step) steps.push_back(step);
    return steps;
}

TEST(BenchJob, EveryTrayGoesThroughEveryStepInItsOrder) {
    const JobOnBench job = withLures(20, 8);
    const BenchWork work = workOf({job}, BenchShop{});
    ASSERT_EQ(work.trays.size(), 3u);
    std::vector<std::string> recipe;
    for (const Step& step : job.recipe().steps)
        if (step.on) recipe.push_back(step.id);
    int lures = 0, next = 1;
    for (const BenchTray& tray : work.trays) {
        EXPECT_EQ(stepsOf(tray), recipe);
        EXPECT_EQ(tray.firstLure, next);
        next += tray.lures;
        lures += tray.lures;
        EXPECT_LE(tray.lures, 8);
        EXPECT_GE(tray.lures, 6) << "trays are alike";
    }
    EXPECT_EQ(lures, 20);
    std::set<std::string> ids;
    for (const BenchTray& tray : work.trays)
        for (const BenchTask& task : tray.tasks) EXPECT_TRUE(ids.insert(task.id).second) << task.id;
}

TEST(BenchJob, OneMaskOnlyGoesFromBodyToBody) {
    const BenchWork one = workOf({withLures(8)}, BenchShop{}), eight = workOf({withLures(8, 8)}, BenchShop{});
    const auto taking = [](const BenchWork& work) {
        int bodies = 0;
        for (const BenchTask& task : work.trays[0].tasks)
            if (task.takes >= 0) {
                EXPECT_TRUE(task.bodyByBody ||
                            task.lures <= work.tools[static_cast<std::size_t>(task.takes)].copies)
                    << task.id;
                bodies += task.lures;
            }
        return bodies;
    };
    // Every mask lies on every body once, however many there are of it.
    EXPECT_EQ(taking(one), taking(eight));
    EXPECT_EQ(taking(one), 8 * static_cast<int>(one.tools.size()));
}

TEST(BenchJob, AMetalNetComesOffWet) {
    JobOnBench job = withLures(1);
    const auto restsAfter = [](const BenchWork& work, const std::string& step) {
        for (const BenchTask& task : work.trays[0].tasks)
            if (task.steps.back() == step) return task.free_s;
        return -1;
    };
    job.facts.fabricNet = true;
    const BenchWork fabric = workOf({job}, BenchShop{});
    EXPECT_GT(restsAfter(fabric, "scales"), 0) << "fabric comes off dry";
    EXPECT_EQ(restsAfter(fabric, "net-off"), 0);
    job.facts.fabricNet = false;
    const BenchWork metal = workOf({job}, BenchShop{});
    EXPECT_EQ(restsAfter(metal, "scales"), 0);
    EXPECT_GT(restsAfter(metal, "net-off"), 0) << "it dries without the net";
}

TEST(BenchJob, TheSameMixIsTheSameCup) {
    // White is mixed 4 : 1 for the base and 1 : .25 for the sides: one cup.
    const BenchWork work = workOf({withLures(1)}, BenchShop{});
    int whites = 0;
    for (const CupContent& cup : work.cups) whites += cup.name == "White";
    EXPECT_EQ(whites, 1);
}

TEST(BenchJob, AColourTakesAsLongAsItsAmountTakesAtTheGun) {
    const JobOnBench& job = charOnBench();
    for (std::size_t s = 0; s < job.steps.size(); ++s) {
        const StepOnBench& on = job.steps[s];
        if (!on.set) continue;
        EXPECT_GE(on.set->body_s, 6) << on.step;
        EXPECT_LT(on.set->body_s, 120) << on.step;
        EXPECT_GT(on.coat_ml, 0) << on.step;
        const Step& step = job.recipe().steps[s];
        EXPECT_EQ(on.set->coats, step.mist ? 1 : static_cast<int>(std::lround(step.coats)));
    }
}

TEST(BenchJob, APlanOfTheDemoKeepsTheOrderOfColours) {
    const std::vector<JobOnBench> jobs{withLures(16, 8)};
    const BenchWish wish = wishOf(jobs, Workplace{}, 1764491400);
    const BenchPlan plan = need(planBench(wish, 100));
    EXPECT_EQ(plan.schedule.tasks.size(), wish.work.count());
    EXPECT_GE(plan.schedule.ready_s, plan.bound_s);
    EXPECT_LT(plan.schedule.cleanings, cleaningsLureByLure(wish) / 5);
}

TEST(BenchJob, NightsAreKeptToTheEndOfALongPlanAndANameTwiceIsOneGun) {
    Workplace place;
    place.guns = {{"one", 0.35, 8, 45, {}}, {"two", 0.3, 8, 45, {}}, {"one", 0.2, 8, 45, {}}};
    place.shop.opens_min = 9 * 60;
    place.shop.closes_min = 12 * 60;
    const BenchWish wish = wishOf({withLures(200, 8)}, place, 1764491400);
    ASSERT_EQ(wish.guns.size(), 2u);
    EXPECT_EQ(wish.guns[0].needles_mm, (std::vector<double>{0.35, 0.2}));
    BenchOrder trayByTray;
    for (std::size_t t = 0; t < wish.work.trays.size(); ++t)
        trayByTray.insert(trayByTray.end(), wish.work.trays[t].tasks.size(), static_cast<int>(t));
    const auto plan = scheduled(wish, trayByTray);
    ASSERT_TRUE(plan);
    EXPECT_GT(plan->hands_s, 40 * 86400);
    EXPECT_GT(wish.closed.back().to_s, plan->hands_s);
}

TEST(BenchJob, AStepWhosePaintIsGoneAndAMaskForOneSideAreTold) {
    const Job loaded = need(loadJob(example("sedge60-brook-char.nineleaves.json"))).job;
    LayersChapter layers = loaded.get<LayersChapter>();
    layers.recipe.steps[placeOf(layers.recipe, "olive")].paint = {{"no-such-paint", 4}};
    std::vector<MaskSpecPtr> masks = loaded.get<MasksChapter>().masks;
    std::erase_if(masks, [](const MaskSpecPtr& m) { return m->id == "tracks-R"; });
    // As a file may have it: nothing that brings it in step.
    MasksChapter chapter = loaded.get<MasksChapter>();
    chapter.masks = masks;
    const Job spoilt = loaded.with(layers).with(chapter);
    Derivations derived;
    auto on =
        std::make_shared<const RecipeOnBody>(need(recipeOnBody(spoilt, derived, {96, 64}, Fineness::Glance)));
    const JobOnBench job = need(jobOnBench(on, derived, Workplace{}));
    std::set<std::string> codes;
    for (const Warning& w : job.warnings) codes.insert(w.code);
    EXPECT_TRUE(codes.count("no_paint"));
    EXPECT_TRUE(codes.count("one_side_only"));
    const BenchWish wish = wishOf({job}, Workplace{}, 0);
    EXPECT_TRUE(planBench(wish, 10)) << "it is planned all the same";
    // No recipe at all is a sentence.
    LayersChapter none = layers;
    none.recipe.steps.clear();
    auto bare = std::make_shared<const RecipeOnBody>(
        need(recipeOnBody(loaded.with(none), derived, {96, 64}, Fineness::Glance)));
    EXPECT_EQ(jobOnBench(bare, derived, Workplace{}).error().code, "no_steps");
}

RunHead headOf(const JobOnBench& job) {
    RunHead head;
    head.title = "Brook char";
    head.began = 1764491400;
    head.lures = job.lures;
    head.work = workOf({job}, BenchShop{});
    return head;
}
RunEvent happened(Moment at, Happened what, const std::string& task = "", const std::string& key = "",
                  const std::string& value = "", const std::string& step = "") {
    RunEvent e;
    e.at = at;
    e.what = what;
    e.task = task;
    e.key = key;
    e.value = value;
    e.step = step;
    return e;
}
/// Everything done, a minute a task, but for what a test adds.
std::vector<RunEvent> wholeRun(const RunHead& head,
                               const std::map<std::string, std::vector<RunEvent>>& before = {},
                               const std::set<std::string>& skippedSteps = {}) {
    std::vector<RunEvent> events{happened(head.began, Happened::Began, "", "", head.title)};
    RunEvent order = happened(head.began, Happened::Order);
    for (const BenchTray& tray : head.work.trays)
        for (const BenchTask& task : tray.tasks) order.value += task.id + "\n";
    events.push_back(order);
    Moment at = head.began;
    for (const BenchTray& tray : head.work.trays)
        for (const BenchTask& task : tray.tasks) {
            at += 60;
            if (const auto extra = before.find(task.id); extra != before.end())
                for (RunEvent e : extra->second) {
                    e.at = at - 30;
                    events.push_back(e);
                }
            events.push_back(happened(
                at, skippedSteps.count(task.steps.front()) ? Happened::Skipped : Happened::Done, task.id));
        }
    events.push_back(happened(at, Happened::Ended));
    return events;
}

TEST(RunCard, HoldsWhatWasReallyDone) {
    const JobOnBench job = withLures(2, 8);
    const RunHead head = headOf(job);
    const std::string olive = "A/olive:1";
    ASSERT_TRUE(taskIn(head.work, olive));
    const auto events = wholeRun(head,
                                 {{olive,
                                   {happened(0, Happened::Changed, olive, "pressure_kpa", "96.5", "olive"),
                                    happened(0, Happened::Changed, olive, "coats", "3", "olive"),
                                    happened(0, Happened::Inserted, olive, "", "a mist of lime"),
                                    happened(0, Happened::Mishap, olive, "run", "", "olive")}}},
                                 {"scarlet"});
    const RecipeCard card = cardOf(job, head, events);
    EXPECT_TRUE(checkCard(card, "card"));
    EXPECT_EQ(card.blank, "Sedge 60");
    EXPECT_EQ(card.lures, 2);
    const auto named = [&](const std::string& step) {
        return *std::find_if(card.steps.begin(), card.steps.end(),
                             [&](const LaidStep& s) { return s.step == step; });
    };
    EXPECT_DOUBLE_EQ(named("olive").set.pressure_kpa, 96.5);
    EXPECT_EQ(named("olive").coats, 3);
    EXPECT_EQ(named("olive").changed.size(), 2u);
    EXPECT_TRUE(named("scarlet").skipped);
    EXPECT_FALSE(named("moss").skipped);
    const auto lime = std::find_if(card.steps.begin(), card.steps.end(),
                                   [](const LaidStep& s) { return s.name == "a mist of lime"; });
    ASSERT_NE(lime, card.steps.end());
    EXPECT_EQ((lime + 1)->step, "olive");
    ASSERT_EQ(card.mishaps.size(), 1u);
    EXPECT_EQ(card.mishaps[0].kind, "run");
    EXPECT_EQ(named("moss").took_s, 120);  // two coats
    // Three coats instead of two need half as much again; what was left out needs none.
    const RecipeCard plain = cardOf(job, head, wholeRun(head));
    const auto usedOf = [](const RecipeCard& c, const std::string& id) {
        for (const CardAmount& a : c.amounts)
            if (a.id == id) return a.used_ml;
        return 0.0;
    };
    EXPECT_GT(usedOf(card, "green-glaze"), usedOf(plain, "green-glaze"));
    EXPECT_LT(usedOf(card, "candy-amber"), 0.01);
    EXPECT_GT(usedOf(plain, "candy-amber"), 0.01);
    // Two bodies: each mask was laid on twice.
    const auto tracks = std::find_if(plain.tools.begin(), plain.tools.end(),
                                     [](const CardTool& t) { return t.name == "Worm tracks"; });
    ASSERT_NE(tracks, plain.tools.end());
    EXPECT_EQ(tracks->kind, "mask");
}

TEST(RunCard, WhatHappenedBecomesTheRecipe) {
    const JobOnBench job = withLures(1);
    const RunHead head = headOf(job);
    const auto events =
        wholeRun(head,
                 {{"A/olive:1",
                   {happened(0, Happened::Changed, "A/olive:1", "coats", "3", "olive"),
                    happened(0, Happened::Changed, "A/olive:1", "drops:yellow", "7", "olive"),
                    happened(0, Happened::Changed, "A/olive:1", "pressure_kpa", "96.5", "olive"),
                    happened(0, Happened::Inserted, "A/olive:1", "", "a mist of lime"),
                    happened(0, Happened::Changed, "A/olive:1", "coats", "nonsense", "moss")}},
                  {"A/moss:1", {happened(0, Happened::Repeated, "A/moss:1")}}},
                 {"scarlet"});
    const JobAsItHappened made = withWhatHappened(job.on->of, head.work, events);
    EXPECT_TRUE(checkJob(made.job));
    const LayersChapter& layers = made.job.get<LayersChapter>();
    const auto step = [&](const std::string& id) { return layers.recipe.steps[placeOf(layers.recipe, id)]; };
    EXPECT_EQ(step("olive").coats, 3);
    EXPECT_EQ(step("olive").paint[1].drops, 7);
    EXPECT_NEAR(*pinsOfStep(layers, "olive").pressure_kpa, 96.5, 1e-9);
    EXPECT_FALSE(step("scarlet").on);
    EXPECT_EQ(step("moss").coats, 3);
    EXPECT_EQ(layers.recipe.steps[placeOf(layers.recipe, "olive") - 1].note, "a mist of lime");
    EXPECT_EQ(made.warnings.size(), 1u) << "nonsense is told";
    // A run as planned changes nothing.
    const JobAsItHappened same = withWhatHappened(job.on->of, head.work, wholeRun(head));
    EXPECT_TRUE(same.changed.empty());
    EXPECT_EQ(jobText(same.job), jobText(job.on->of));
}

TEST(RunFile, ComesBackAsItWas) {
    const TemporaryFolder folder;
    const JobOnBench job = withLures(2);
    const RunHead head = headOf(job);
    const auto events = wholeRun(head);
    std::string where;
    {
        RunFile run = need(RunFile::begin(folder / "runs", head, job.on->of));
        where = run.folder();
        for (const RunEvent& e : events) ASSERT_TRUE(run.add(e));
        EXPECT_EQ(RunFile::open(where).error().code, "in_use");
    }
    const RunFile again = need(RunFile::open(where));
    EXPECT_EQ(again.events(), events);
    EXPECT_EQ(jobText(need(again.job())), jobText(job.on->of));
    EXPECT_EQ(again.head().work.count(), head.work.count());
    const auto known = runsIn(folder / "runs");
    ASSERT_EQ(known.size(), 1u);
    EXPECT_TRUE(known[0].state.isOver());
    ASSERT_TRUE(markCarded(where));
    EXPECT_TRUE(runsIn(folder / "runs")[0].head.carded);
    // A second of the same day has a folder of its own.
    EXPECT_NE(need(RunFile::begin(folder / "runs", head, job.on->of)).folder(), where);
}

TEST(RunFile, LinesOfALaterVersionAreTold) {
    EXPECT_EQ(parseEvent(R"({"at": "2026-11-30T08:30:00Z", "what": "teleported"})", "x").error().code,
              "newer_format");
    EXPECT_EQ(parseEvent(R"({"at": "yesterday", "what": "done"})", "x").error().code, "bad_value");
    EXPECT_FALSE(parseEvent("{", "x"));
    EXPECT_EQ(parseRunHead(R"({"format": 9, "id": "x", "began": "2026-11-30T08:30:00Z", "trays": []})", "x")
                  .error()
                  .code,
              "newer_format");
    EXPECT_EQ(
        parseRunHead(
            R"({"format": 1, "id": "x", "began": "2026-11-30T08:30:00Z", "trays": [{"tasks": [{"id": "a", "steps": ["b"], "cup": 3}]}]})",
            "x")
            .error()
            .code,
        "bad_value");
}

WholeCard someCard() {
    const JobOnBench job = withLures(4);
    const RunHead head = headOf(job);
    WholeCard whole{
        cardOf(job, head, wholeRun(head)), jobText(job.on->of), {"not really a picture", "nor this"}};
    whole.card.text = "Halo reads well,\nsays the painter.";
    whole.card.seen = {"crisp", "lifted"};
    SideReading r;
    r.mark = "dot 1";
    r.leftX_mm = 20.1;
    r.rightX_mm = 20.7;
    whole.card.sides = {r};
    return whole;
}

TEST(LogBook, CardsComeBackAndTakeFromTheShelf) {
    const TemporaryFolder folder;
    Workshop workshop = need(Workshop::open(folder / "w.sqlite"));
    const double before_ml = findBottle(need(shelfOf(workshop)), "white")->left_ml;
    const WholeCard card = someCard();
    const std::string id = need(putCard(workshop, card, true));
    const WholeCard back = *need(wholeCard(workshop, id));
    EXPECT_EQ(back.card.text, card.card.text);
    EXPECT_EQ(back.card.sides, card.card.sides);
    EXPECT_EQ(back.card.steps.size(), card.card.steps.size());
    EXPECT_EQ(back.pictures, card.pictures);
    EXPECT_EQ(back.jobText, card.jobText);
    double used_ml = 0;
    for (const CardAmount& a : card.card.amounts)
        if (a.id == "white") used_ml = a.used_ml;
    EXPECT_GT(used_ml, 0.5);
    EXPECT_NEAR(findBottle(need(shelfOf(workshop)), "white")->left_ml, before_ml - used_ml, 0.011);
    const StockAnswer stock = stockFor(back.card, need(shelfOf(workshop)), 500);
    EXPECT_LT(stock.lures, 500);
    EXPECT_FALSE(stock.paint.empty());
    EXPECT_EQ(stockFor(back.card, need(shelfOf(workshop)), 1).lures, 1);
    // Another copy holds the file: nothing is half written, and the card can be made later.
    Workshop second = need(Workshop::open(folder / "w.sqlite"));
    EXPECT_TRUE(second.readOnly());
    EXPECT_EQ(putCard(second, card, true).error().code, "read_only");
    EXPECT_EQ(need(cardsOf(workshop)).size(), 1u);
    EXPECT_NEAR(findBottle(need(shelfOf(workshop)), "white")->left_ml, before_ml - used_ml, 0.011);
    // The same file for another thread of this program writes too.
    EXPECT_FALSE(need(workshop.another()).readOnly());
    // Out, and back.
    ASSERT_TRUE(takeCard(workshop, id));
    EXPECT_TRUE(need(cardsOf(workshop)).empty());
    ASSERT_TRUE(workshop.restore(kCardKind, id));
    EXPECT_EQ(need(cardsOf(workshop)).size(), 1u);
}

TEST(LogBook, ARunsCardIsPutOnce) {
    const TemporaryFolder folder;
    Workshop workshop = need(Workshop::open(folder / "w.sqlite"));
    WholeCard card = someCard();
    card.card.id = "2025-11-30-brook-char";
    EXPECT_EQ(need(putRunCard(workshop, card)), card.card.id);
    const double left_ml = findBottle(need(shelfOf(workshop)), "white")->left_ml;
    // A crash before the run was marked: it is asked for again, with the painter's words on the card by now.
    RecipeCard worded = card.card;
    worded.text = "kept";
    ASSERT_TRUE(changeCard(workshop, worded));
    EXPECT_EQ(need(putRunCard(workshop, card)), card.card.id);
    EXPECT_EQ(need(cardsOf(workshop))[0].text, "kept");
    EXPECT_EQ(findBottle(need(shelfOf(workshop)), "white")->left_ml, left_ml);
    // Another run that happens to have that id.
    card.card.began -= 86400;
    EXPECT_NE(need(putRunCard(workshop, card)), card.card.id);
    EXPECT_EQ(need(cardsOf(workshop)).size(), 2u);
    EXPECT_LT(findBottle(need(shelfOf(workshop)), "white")->left_ml, left_ml);
}

TEST(LogBook, AFileOfCardsIsTakenInOnce) {
    const TemporaryFolder folder;
    Workshop here = need(Workshop::open(folder / "here.sqlite")),
             there = need(Workshop::open(folder / "there.sqlite"));
    WholeCard card = someCard();
    card.card.id = need(putCard(here, card, false));
    const std::string text = cardsText({*need(wholeCard(here, card.card.id))});
    const auto read = need(parseCards(text, "cards"));
    EXPECT_EQ(need(importCards(there, read)).size(), 1u);
    EXPECT_EQ(need(importCards(there, read)).size(), 0u) << "here already";
    EXPECT_TRUE(cardsText({*need(wholeCard(there, card.card.id))}) == text);
    // Another card of the same id: both stay.
    auto other = read;
    other[0].card.text = "quite different";
    EXPECT_EQ(need(importCards(there, other)).size(), 1u);
    EXPECT_EQ(need(cardsOf(there)).size(), 2u);
    // Half a file, a later version, a broken picture: nothing of it, with a sentence.
    EXPECT_FALSE(parseCards(text.substr(0, text.size() / 2), "cards"));
    EXPECT_EQ(parseCards(R"({"format": 7, "cards": []})", "cards").error().code, "newer_format");
    EXPECT_EQ(
        parseCards(
            R"({"format": 1, "cards": [{"title": "x", "began": "2026-11-30T08:30:00Z", "ended": "2026-11-30T08:30:00Z", "pictures": ["!"]}]})",
            "cards")
            .error()
            .code,
        "bad_value");
    EXPECT_EQ(
        parseCards(
            R"({"format": 1, "cards": [{"title": "x", "began": "2026-11-30T08:30:00Z", "ended": "2026-11-29T08:30:00Z"}]})",
            "cards")
            .error()
            .code,
        "out_of_range");
}

TEST(LogBook, TheSameAgainIsAJobForSoMany) {
    const WholeCard card = someCard();
    EXPECT_EQ(need(jobOfCard(card, 12)).get<LayersChapter>().lures, 12);
    EXPECT_EQ(jobOfCard(card, 0).error().code, "out_of_range");
    EXPECT_EQ(jobOfCard(card, 501).error().code, "out_of_range");
    WholeCard bare = card;
    bare.jobText.clear();
    EXPECT_EQ(jobOfCard(bare, 1).error().code, "no_job");
}

TEST(LogBook, CatchesToolsAndLeftoversAreRows) {
    const TemporaryFolder folder;
    Workshop workshop = need(Workshop::open(folder / "w.sqlite"));
    ASSERT_TRUE(putCatch(workshop, {"", "c", "Brook char", "olive", "2026-11-30", 3, "3 at dusk"}));
    ASSERT_TRUE(putCatch(workshop, {"", "c", "Brook char", "red", "2026-11-30", 1, "1 at noon"}));
    ASSERT_TRUE(putCatch(workshop, {"", "c", "Smelt", "olive", "2026-11-30", 2, "2"}));
    EXPECT_EQ(putCatch(workshop, {"", "", "", "", "", -1, ""}).error().code, "out_of_range");
    const auto lines = need(catchesOf(workshop));
    EXPECT_EQ(fishBy(lines, &Catch::pattern),
              (std::vector<std::pair<std::string, int>>{{"Brook char", 4}, {"Smelt", 2}}));
    EXPECT_EQ(fishBy(lines, &Catch::colour).front(), (std::pair<std::string, int>{"olive", 5}));
    ASSERT_TRUE(putToolRow(workshop, {"net", "mesh", "Craft mesh", "metal", 10, 12.5, 1500, 2, ""}));
    const auto tools = need(toolRows(workshop));
    ASSERT_EQ(tools.size(), 1u);
    EXPECT_EQ(tools[0].id, "mesh");
    EXPECT_EQ(tools[0].newSince, 1500);
    EXPECT_EQ(tools[0].cleaned, 2);
    ASSERT_TRUE(putLeftover(workshop, {"", "Olive", "yellow 5", 2.5, 1764491400}));
    EXPECT_EQ(need(leftoversOf(workshop))[0].mixed, 1764491400);
    EXPECT_FALSE(putLeftover(workshop, {"", "Olive", "", -1, 0}));
}

TEST(BenchChapter, GoesThroughAFileAndRefusesNonsense) {
    Job job = need(loadJob(example("sedge60-brook-char.nineleaves.json"))).job;
    BenchChapter bench;
    bench = withCopies(bench, "tracks-L", 4);
    bench = withGate(bench, "bill", false);
    bench = withLock(bench, "A/olive:1", 3600);
    bench.begins = "2026-12-01T08:30:00Z";
    bench.others = {"other.nineleaves.json"};
    job = job.with(bench);
    const Job back = need(parseJob(jobText(job), "job")).job;
    EXPECT_EQ(jobText(back), jobText(job));
    EXPECT_EQ(copiesOf(back.get<BenchChapter>(), "tracks-L"), 4);
    EXPECT_EQ(copiesOf(back.get<BenchChapter>(), "halo-L"), 1);
    EXPECT_FALSE(asksGate(back.get<BenchChapter>(), "bill"));
    EXPECT_TRUE(asksGate(back.get<BenchChapter>(), "air"));
    EXPECT_EQ(back.get<BenchChapter>().locks, bench.locks);
    EXPECT_TRUE(withLock(bench, "A/olive:1", -1).locks.empty());
    EXPECT_TRUE(withCopies(bench, "tracks-L", 1).copies.empty());
    const auto bad = [&](const std::function<void(BenchChapter&)>& spoil) {
        BenchChapter b = bench;
        spoil(b);
        const Status status = ChapterOf<BenchChapter>::check(job.with(std::move(b)));
        return status ? std::string() : status.error().code;
    };
    EXPECT_EQ(bad([](BenchChapter& b) { b.copies[0].copies = 0; }), "out_of_range");
    EXPECT_EQ(bad([](BenchChapter& b) { b.copies[0].copies = 501; }), "out_of_range");
    EXPECT_EQ(bad([](BenchChapter& b) { b.locks[0].start_s = -5; }), "out_of_range");
    EXPECT_EQ(bad([](BenchChapter& b) { b.begins = "tomorrow"; }), "bad_value");
    EXPECT_EQ(bad([](BenchChapter& b) { b.others.assign(13, "x"); }), "too_many");
}

}  // namespace
}  // namespace nine
