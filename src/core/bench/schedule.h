// A plan of the bench: which task starts when, with which gun, and what is cleaned for it.
//
// The model: a tray's tasks follow one another, each after the free time of the one before. A task takes one
// painter without a pause but for breaks; over a night nothing is left half done, and nothing is sprayed over
// a break in which the paint would dry in the gun, unless it takes longer than there is time (Span); a spray
// task takes a gun besides, which is made ready first: cleaned where the residue would do harm, its needle
// changed, its cup filled. Paint that would stand in a gun longer than BenchShop::stand_s is cleaned out and
// filled anew. Masks and nets are held from the task that takes them to the end of the one that frees them;
// bodies rest on the rack or the turner while they are left alone.
#pragma once

#include <map>
#include <optional>

#include "base/task.h"
#include "bench/shop.h"
#include "bench/work.h"

namespace nine {

struct BenchGun {
    std::string name;
    std::vector<double> needles_mm = {0.3};  ///< the first is in it; the others lie beside it
};

/// From here to there nobody works; seconds from the start of the plan.
struct Span {
    int from_s = 0, to_s = 0;
};

/// A task dragged by hand: it never starts before start_s, and nothing is put in its way there.
struct TaskLock {
    std::string task;
    int start_s = 0;
    bool operator==(const TaskLock&) const = default;
};

/// What has been done already: tasks by id with their ends. The others begin at now_s or later.
struct BenchDone {
    std::map<std::string, int> ended_s;
    int now_s = 0;
    std::vector<int> cups;  ///< in each gun now; -1: clean. Empty: all clean
};

struct BenchWish {
    BenchWork work;
    BenchShop shop;
    std::vector<BenchGun> guns;
    std::vector<Span> closed;  ///< breaks and nights, ascending, apart
    std::vector<TaskLock> locks;
    BenchDone done;
};

struct PlacedTask {
    int tray = 0, task = 0;  ///< places in BenchWork
    int painter = 0;
    int start_s = 0, end_s = 0, free_s = 0;  ///< of the hands; when it has rested
    int gun = -1;
    /// When the gun began to be cleaned, and its cup to be filled, for this task; else start_s.
    int clean_s = 0, fill_s = 0;
    bool cleaned = false, needle = false, filled = false;
    bool stood = false;  ///< what was in the gun was the same, but had stood too long
    bool wasDone = false;
};

/// Paint that would have dried in a gun, and was cleaned out instead.
struct StoodTooLong {
    int gun = 0, cup = 0;
    int from_s = 0, to_s = 0;
};

struct Schedule {
    std::vector<PlacedTask> tasks;  ///< by start
    int ready_s = 0;                ///< all bodies are done and have rested
    int hands_s = 0;                ///< the last time anybody's hands are needed
    std::vector<int> trayReady_s;
    int cleanings = 0, needles = 0, fills = 0;
    int late_s = 0;  ///< by which tasks dragged by hand start later than wished, in all
    std::vector<StoodTooLong> stood;
    /// Lower is better: when all is ready, then when hands are free, then cleanings.
    Figure cost() const;
};

/// Trays in the order in which their next tasks are put into the plan: each number as often as its tray has
/// tasks that are not done.
using BenchOrder = std::vector<int>;

/// Errors: no_gun, no_needle (a task wants one that no gun takes), too_few_places (a tray does not fit rack
/// or turner), too_few_copies, out_of_range (no bodies, or more than 500).
Status checkWish(const BenchWish& wish);

/// The plan an order makes; every order makes one. `gunOf` chooses guns for the places of the order, -1 for
/// what suits best; empty: all so. Nothing if trays wait for one another's masks for ever. Cost: about 0.2 us
/// a task and gun.
std::optional<Schedule> scheduled(const BenchWish& wish, const BenchOrder& order,
                                  const std::vector<int>& gunOf = {});

struct BenchPlan {
    Schedule schedule;
    BenchOrder order;
    std::vector<int> gunOf;
    int bound_s = 0;  ///< no plan is ready sooner
};

/// Orders tried after the start before planning ends.
constexpr int kUsualTries = 1500;
/// The best plan found: the best of several greedy ones, then local search, always the same for the same
/// wish. `better(plan)` is called with each that is better than the one before. `from`: an order to begin
/// with besides, so that a small change changes little. Cancelled: the best so far. Errors: checkWish's.
Result<BenchPlan> planBench(const BenchWish& wish, int tries = kUsualTries, const Task& task = {},
                            const std::function<void(const BenchPlan&)>& better = {},
                            const std::optional<BenchOrder>& from = std::nullopt);

/// No plan of this wish is ready sooner: the hands' work with the least readying a single tray needs, for one
/// painter by heads and tails, for two shared; or the longest tray by itself; or what trays that take places
/// on rack and turner or the copies of a mask in turns need (bench/places.h).
int readyBound_s(const BenchWish& wish);
/// The least time guns can be made ready in, for a tray's own sequence of cups (each gun holds one; which to
/// give up is chosen with the whole sequence known).
int leastReadying_s(const BenchWish& wish, const BenchTray& tray);

/// How many times a cup would be cleaned if each body were finished before the next is begun, with one gun.
int cleaningsLureByLure(const BenchWish& wish);

/// The most watts at one time, and when: sprays draw compressor and fan, heated rests the dryer (once), a
/// dryer in the hand as long as hands work.
struct Load {
    Figure peak_w = 0;
    int at_s = 0;
};
Load loadOf(const BenchWish& wish, const Schedule& schedule);

/// Bodies on the rack: from each of these times on.
struct RackLevel {
    int from_s = 0, bodies = 0;
};
std::vector<RackLevel> rackOf(const BenchWish& wish, const Schedule& schedule, Rests where);

}  // namespace nine
