// Plans against a referee, a slow search of all plans, and a bound.
#include "bench/schedule.h"

#include <gtest/gtest.h>

#include <climits>
#include <functional>

#include "bench/residue.h"
#include "bench/workday.h"
#include "tests/bench/bench_works.h"
#include "tests/support.h"

namespace nine {
namespace {

using namespace test;

/// Every plan of one painter: he does the next task of some tray with some gun, or cleans a gun, always as
/// soon as it goes. Knows nothing of the code it checks; no racks, masks, needles or breaks.
int soonest_s(const BenchWish& wish) {
    struct Gun {
        int cup = -1, free_s = 0;
    };
    struct State {
        int hands_s = 0, ready_s = 0;
        std::vector<int> next, tray_s;
        std::vector<Gun> guns;
    };
    int best_s = INT_MAX;
    const std::function<void(const State&)> go = [&](const State& now) {
        bool any = false;
        int work_s = 0;
        for (std::size_t t = 0; t < wish.work.trays.size(); ++t) {
            int way_s = now.tray_s[t];
            for (std::size_t k = static_cast<std::size_t>(now.next[t]); k < wish.work.trays[t].tasks.size();
                 ++k) {
                way_s += wish.work.trays[t].tasks[k].hands_s + wish.work.trays[t].tasks[k].free_s;
                work_s += wish.work.trays[t].tasks[k].hands_s;
            }
            if (way_s >= best_s) return;
        }
        if (now.hands_s + work_s >= best_s) return;
        for (std::size_t t = 0; t < wish.work.trays.size(); ++t) {
            const auto& tasks = wish.work.trays[t].tasks;
            if (now.next[t] == static_cast<int>(tasks.size())) continue;
            any = true;
            const BenchTask& task = tasks[static_cast<std::size_t>(now.next[t])];
            for (std::size_t g = 0; g < now.guns.size(); ++g) {
                State then = now;
                int start_s = std::max(now.hands_s, now.tray_s[t]);
                if (task.cup >= 0) {
                    Gun& gun = then.guns[g];
                    const bool dried =
                        gun.cup >= 0 && std::max(start_s, now.hands_s) - gun.free_s > wish.shop.stand_s;
                    if (gun.cup >= 0 && (gun.cup != task.cup || dried)) continue;  // to be cleaned first
                    if (gun.cup < 0) start_s = std::max(now.hands_s + wish.shop.fill_s, now.tray_s[t]);
                    gun = {task.cup, start_s + task.hands_s};
                } else if (g > 0) {
                    continue;
                }
                then.hands_s = start_s + task.hands_s;
                then.tray_s[t] = then.hands_s + task.free_s;
                then.ready_s = std::max(now.ready_s, then.tray_s[t]);
                ++then.next[t];
                go(then);
            }
        }
        if (!any) {
            best_s = std::min(best_s, now.ready_s);
            return;
        }
        for (std::size_t g = 0; g < now.guns.size(); ++g) {
            if (now.guns[g].cup < 0) continue;
            State then = now;
            then.hands_s = std::max(now.hands_s, now.guns[g].free_s) + wish.shop.clean_s;
            then.guns[g] = {-1, then.hands_s};
            go(then);
        }
    };
    State start;
    start.next.assign(wish.work.trays.size(), 0);
    start.tray_s.assign(wish.work.trays.size(), 0);
    start.guns.resize(wish.guns.size());
    go(start);
    return best_s;
}

std::vector<StepTimes> someSteps(Rng& rng, int count, int cups) {
    std::vector<StepTimes> steps;
    for (int k = 0; k < count; ++k)
        steps.push_back({60 + 30 * static_cast<int>(rng.next() % 10), 60 * static_cast<int>(rng.next() % 12),
                         static_cast<int>(rng.next() % static_cast<std::uint64_t>(cups))});
    return steps;
}

TEST(Schedule, IsAsGoodAsTheBestOfAllPlansOfSmallBenches) {
    Rng rng(4);
    double worst = 1;
    for (int round = 0; round < 12; ++round) {
        const int trays = 2 + static_cast<int>(rng.next() % 2), count = trays == 2 ? 4 : 3;
        BenchWish wish = benchOf(trays, someSteps(rng, count, 3), 2);
        if (rng.next() % 2) wish.guns.pop_back();
        const BenchPlan plan = need(planBench(wish));
        EXPECT_EQ(firstOf(wrongWith(wish, plan.schedule)), "") << round;
        const int best_s = soonest_s(wish);
        EXPECT_GE(best_s, plan.bound_s) << round << ": the bound is none";
        EXPECT_GE(plan.schedule.ready_s, best_s) << round << ": better than the best";
        worst = std::max(worst, static_cast<double>(plan.schedule.ready_s) / best_s);
    }
    EXPECT_LE(worst, 1.02);
}

/// Twelve steps of a usual recipe.
std::vector<StepTimes> twelve() {
    return {{240, 300, 0}, {240, 300, 0}, {200, 300, 1}, {200, 300, 2}, {220, 360, 3},   {480, 300, 4},
            {260, 300, 5}, {200, 300, 1}, {420, 360, 6}, {180, 300, 7}, {300, 1200, -1}, {600, 86400, -1}};
}

TEST(Schedule, TwentyLuresByTwelveStepsComeWithinTwoPerCentOfTheBound) {
    BenchWish wish = benchOf(3, twelve(), 7);
    const BenchPlan plan = need(planBench(wish));
    EXPECT_EQ(firstOf(wrongWith(wish, plan.schedule)), "");
    EXPECT_LE(plan.schedule.ready_s, 1.02 * plan.bound_s);
}

TEST(Schedule, KeepsAllRulesWithMasksRackTurnerBreaksAndTwoPainters) {
    Rng rng(9);
    for (int round = 0; round < 30; ++round) {
        BenchWish wish = benchOf(4, someSteps(rng, 9, 4), 4);
        wish.shop.painters = 1 + static_cast<int>(rng.next() % 2);
        wish.shop.rack = 8 + static_cast<int>(rng.next() % 5);
        wish.shop.turner = 6;
        wish.shop.stand_s = 600;
        wish.closed = {{3600, 5400}, {20000, 60000}};
        wish.work.tools = {{"mask", "mask", 4}, {"net", "net", 6}};
        for (BenchTray& tray : wish.work.trays) {
            tray.tasks[2].takes = 0;
            tray.tasks[3].takes = 1;
            tray.tasks[5].frees = 1;
            tray.tasks[6].frees = 0;
            tray.tasks[8].rests = Rests::Turner;
        }
        const BenchPlan plan = need(planBench(wish, 300));
        EXPECT_EQ(firstOf(wrongWith(wish, plan.schedule)), "") << round;
        EXPECT_GE(plan.schedule.ready_s, plan.bound_s) << round;
    }
}

TEST(Schedule, OneColourGoesOverAllTraysBeforeTheCupIsCleaned) {
    BenchWish wish = benchOf(3, {{300, 300, 0}, {300, 300, 1}, {300, 300, 2}, {300, 300, 3}}, 8);
    const BenchPlan plan = need(planBench(wish));
    EXPECT_EQ(plan.schedule.fills, 4);
    EXPECT_EQ(plan.schedule.cleanings, 2);  // two guns begin clean
    EXPECT_EQ(cleaningsLureByLure(wish), 4 * 24 - 1);
    EXPECT_EQ(leastReadying_s(wish, wish.work.trays[0]), 4 * wish.shop.fill_s + 2 * wish.shop.clean_s);
}

TEST(Schedule, APaintThatWouldStandTooLongIsCleanedOut) {
    BenchWish wish = benchOf(1, {{300, 7200, 0}, {300, 0, 0}}, 8);
    wish.guns.pop_back();
    const Schedule plan = need(planBench(wish)).schedule;
    ASSERT_EQ(plan.stood.size(), 1u);
    EXPECT_EQ(plan.stood[0].from_s, plan.tasks[0].end_s);
    EXPECT_EQ(plan.cleanings, 1);
    wish.shop.stand_s = 7300;
    EXPECT_EQ(need(planBench(wish)).schedule.cleanings, 0);
}

TEST(Schedule, NothingIsLeftHalfSprayedOverTheNight) {
    BenchWish wish = benchOf(1, {{1000, 0, 0}, {1000, 0, 1}, {1000, 0, -1}}, 8);
    wish.closed = {{1500, 50000}};
    wish.done.now_s = 0;
    const Schedule plan = need(planBench(wish)).schedule;
    EXPECT_EQ(firstOf(wrongWith(wish, plan)), "");
    EXPECT_EQ(plan.tasks[0].end_s, 1060);
    EXPECT_GE(plan.tasks[1].start_s, 50000);
    // A short break does paint no harm; a task longer than any day has to rest.
    wish.closed = {{1500, 2000}};
    EXPECT_LT(need(planBench(wish)).schedule.tasks[1].start_s, 1500);
    wish.closed = {{500, 50000}, {50600, 90000}};
    EXPECT_EQ(need(planBench(wish)).schedule.tasks[0].start_s, 60);
}

TEST(Schedule, CancelledTheBestSoFarIsWholeAndEachThatWasShownIsBetter) {
    Rng rng(5);
    const BenchWish wish = benchOf(6, someSteps(rng, 9, 5), 8);
    Task cancelled = Task::make({});
    cancelled.cancel();
    std::vector<double> shown;
    const auto note = [&](const BenchPlan& plan) { shown.push_back(plan.schedule.cost()); };
    const BenchPlan first = need(planBench(wish, 400, cancelled, note));
    EXPECT_EQ(firstOf(wrongWith(wish, first.schedule)), "");
    EXPECT_EQ(shown.back(), first.schedule.cost());
    shown.clear();
    const BenchPlan best = need(planBench(wish, 400, {}, note));
    EXPECT_LT(best.schedule.cost(), first.schedule.cost());
    EXPECT_EQ(shown.back(), best.schedule.cost());
    for (std::size_t i = 1; i < shown.size(); ++i) EXPECT_LT(shown[i], shown[i - 1]);
}

TEST(Schedule, TheBoundKnowsOfPlacesThatTraysTakeInTurns) {
    // Three trays, one place for a tray on the turner: 100 of hands before each rest of 1000.
    BenchWish turning = benchOf(3, {{100, 1000, -1}}, 8);
    for (BenchTray& tray : turning.work.trays) tray.tasks[0].rests = Rests::Turner;
    turning.shop.turner = 8;
    EXPECT_EQ(readyBound_s(turning), 3100);
    EXPECT_EQ(need(planBench(turning)).schedule.ready_s, 3100);
    turning.closed = {{1150, 20000}};  // the third comes off the turner by night
    EXPECT_EQ(readyBound_s(turning), 21000);
    EXPECT_EQ(need(planBench(turning)).schedule.ready_s, 21100);
    turning.shop.turner = 24;
    EXPECT_EQ(readyBound_s(turning), 1300);
    // One mask for each body of a tray, held for 400.
    BenchWish masked = benchOf(3, {{100, 200, -1}, {100, 0, -1}}, 8);
    masked.work.tools = {{"m", "Bars", 8}};
    for (BenchTray& tray : masked.work.trays) tray.tasks[0].takes = tray.tasks[1].frees = 0;
    EXPECT_EQ(readyBound_s(masked), 1200);
    EXPECT_EQ(need(planBench(masked)).schedule.ready_s, 1200);
    masked.work.tools[0].copies = 16;
    EXPECT_LT(readyBound_s(masked), 1000);
}

TEST(Schedule, WhatIsDraggedBeginsNoSoonerAndTheRestFollows) {
    const BenchWish free = benchOf(2, {{300, 300, 0}, {300, 300, 1}, {300, 300, 2}}, 8);
    BenchWish wish = free;
    wish.locks = {{"A/1", 5000}};
    const Schedule plan = need(planBench(wish)).schedule;
    EXPECT_EQ(firstOf(wrongWith(wish, plan)), "");
    for (const PlacedTask& p : plan.tasks) {
        if (p.tray == 0 && p.task == 1) {
            EXPECT_EQ(p.start_s, 5000);
        }
        if (p.tray == 0 && p.task == 2) {
            EXPECT_GE(p.start_s, 5600);
        }
        if (p.tray == 1) {
            EXPECT_LT(p.start_s, 3000);
        }
    }
}

TEST(Schedule, WhatIsDoneStaysAndTheRestBeginsNow) {
    BenchWish wish = benchOf(2, {{300, 300, 0}, {300, 300, 1}, {300, 300, 2}}, 8);
    wish.done.ended_s = {{"A/0", 350}, {"B/0", 900}, {"A/1", 1500}};
    wish.done.now_s = 4000;
    wish.done.cups = {0, 1};
    const Schedule plan = need(planBench(wish)).schedule;
    EXPECT_EQ(firstOf(wrongWith(wish, plan)), "");
    for (const PlacedTask& p : plan.tasks) EXPECT_EQ(p.wasDone, p.task == 0 || (p.task == 1 && p.tray == 0));
    // Cup 1 is in a gun, and what stood in it since now is good.
    EXPECT_EQ(plan.fills, 1);
}

TEST(Schedule, TheOtherSchoolCarriesOnIntoDarkerAndNeverIntoNeon) {
    const CupContent cream = cup("cream", {85, 2, 20}), olive = cup("olive", {50, -5, 35}),
                     neon = cup("neon", {80, 5, 22}, "fluorescent"),
                     pearl = cup("pearl", {86, 1, 18}, "pearl");
    EXPECT_TRUE(carriesOn(Residue::CarryOn, cream, olive));
    EXPECT_FALSE(carriesOn(Residue::CarryOn, olive, cream));
    EXPECT_FALSE(carriesOn(Residue::CarryOn, cream, neon));
    EXPECT_FALSE(carriesOn(Residue::CarryOn, pearl, olive));
    EXPECT_TRUE(carriesOn(Residue::CarryOn, pearl, cup("pearl 2", {84, 2, 20}, "pearl")));
    EXPECT_FALSE(carriesOn(Residue::CleanAlways, cream, olive));
    EXPECT_TRUE(carriesOn(Residue::CleanAlways, cream, cream));
    CupContent lacquer = cup("lacquer", {40, 0, 0});
    lacquer.solvent = true;
    EXPECT_FALSE(carriesOn(Residue::CarryOn, cream, lacquer));
}

TEST(Schedule, WrongWishesAreRefusedWithASentence) {
    const auto codeOf = [](const BenchWish& wish) {
        const Result<BenchPlan> plan = planBench(wish, 1);
        return plan ? std::string("planned") : plan.error().code;
    };
    const BenchWish good = benchOf(1, {{60, 0, 0}}, 4);
    EXPECT_EQ(codeOf(good), "planned");
    BenchWish wish = good;
    wish.guns.clear();
    EXPECT_EQ(codeOf(wish), "no_gun");
    wish = good;
    wish.work.trays[0].tasks[0].needle_mm = 0.2;
    EXPECT_EQ(codeOf(wish), "no_needle");
    wish.guns[1].needles_mm.push_back(0.2);
    EXPECT_EQ(codeOf(wish), "planned");
    wish = good;
    wish.work.trays[0].lures = 0;
    EXPECT_EQ(codeOf(wish), "out_of_range");
    wish.work.trays[0].lures = 501;
    EXPECT_EQ(codeOf(wish), "out_of_range");
    wish = good;
    wish.shop.rack = 3;
    wish.work.trays[0].tasks[0].free_s = 60;
    EXPECT_EQ(codeOf(wish), "too_few_places");
    wish = good;
    wish.shop.painters = 0;
    EXPECT_EQ(codeOf(wish), "out_of_range");
    // Two trays that take two masks the other way round, and one of each: no order but one after the other.
    wish = benchOf(2, {{60, 0, -1}, {60, 0, -1}, {60, 0, -1}, {60, 0, -1}}, 1);
    wish.work.tools = {{"m", "m", 1}, {"n", "n", 1}};
    for (int t = 0; t < 2; ++t) {
        auto& tasks = wish.work.trays[static_cast<std::size_t>(t)].tasks;
        tasks[0].takes = t;
        tasks[1].takes = 1 - t;
        tasks[2].frees = 1 - t;
        tasks[3].frees = t;
    }
    EXPECT_EQ(codeOf(wish), "planned");
    wish.work.tools[0].copies = 0;
    EXPECT_EQ(codeOf(wish), "too_few_copies");
}

TEST(Workday, WorkRestsWhileItIsClosed) {
    const std::vector<Span> closed{{100, 200}, {300, 400}};
    EXPECT_EQ(openFrom(closed, 50), 50);
    EXPECT_EQ(openFrom(closed, 100), 200);
    EXPECT_EQ(openFrom(closed, 399), 400);
    EXPECT_EQ(finished(closed, 50, 50), 100);
    EXPECT_EQ(finished(closed, 50, 51), 201);
    EXPECT_EQ(finished(closed, 250, 200), 550);
}

TEST(Load, IsTheMostThatRunsAtOneTime) {
    BenchWish wish = benchOf(2, {{300, 600, 0}, {300, 600, 1}}, 4);
    for (BenchTray& tray : wish.work.trays)
        for (BenchTask& task : tray.tasks) task.heated = true;
    const Schedule plan = need(planBench(wish)).schedule;
    EXPECT_EQ(loadOf(wish, plan).peak_w, 450 + 120 + 60 + 1500);  // B is sprayed while A dries
    wish.shop.dryer = Dryer::Air;
    EXPECT_EQ(loadOf(wish, plan).peak_w, 450 + 120 + 60);
    const auto rack = rackOf(wish, plan, Rests::Rack);
    EXPECT_EQ(std::max_element(rack.begin(), rack.end(), [](auto& a, auto& b) { return a.bodies < b.bodies; })
                  ->bodies,
              8);
    EXPECT_EQ(rack.back().bodies, 0);
}

}  // namespace
}  // namespace nine
