// What no plan can do better, what is told of a plan, and what cannot be planned.
#include <algorithm>
#include <climits>
#include <cmath>

#include "bench/places.h"
#include "bench/residue.h"
#include "bench/schedule.h"
#include "bench/workday.h"
#include "recipe/amounts.h"

namespace nine {
namespace {

/// A task as the hands see it: not before its head, and what its tray still needs after it.
struct Piece {
    int head_s, hands_s, tail_s;
};

/// One painter who may put down a task at any time and take it up again, always what has the longest way
/// behind it: no plan for one painter is ready sooner (Jackson's preemptive schedule; Carlier 1982).
int preemptive_s(std::vector<Piece> pieces, const std::vector<Span>& closed, int now_s) {
    std::sort(pieces.begin(), pieces.end(),
              [](const Piece& a, const Piece& b) { return a.head_s < b.head_s; });
    std::vector<std::pair<int, int>> open;  // tail, hands left; a heap
    std::size_t next = 0;
    int at_s = now_s, ready_s = now_s;
    while (next < pieces.size() || !open.empty()) {
        if (open.empty()) at_s = std::max(at_s, pieces[next].head_s);
        at_s = openFrom(closed, at_s);
        for (; next < pieces.size() && pieces[next].head_s <= at_s; ++next) {
            open.emplace_back(pieces[next].tail_s, pieces[next].hands_s);
            std::push_heap(open.begin(), open.end());
        }
        if (open.empty()) continue;
        std::pop_heap(open.begin(), open.end());
        auto [tail_s, left_s] = open.back();
        open.pop_back();
        const int end_s = finished(closed, at_s, left_s);
        const int till_s =
            next < pieces.size() ? std::min(end_s, std::max(pieces[next].head_s, at_s)) : end_s;
        if (till_s == end_s) {
            ready_s = std::max(ready_s, end_s + tail_s);
            at_s = end_s;
            continue;
        }
        // What was worked till then, breaks left out.
        int worked_s = till_s - at_s;
        for (const Span& span : closed)
            worked_s -= std::max(0, std::min(span.to_s, till_s) - std::max(span.from_s, at_s));
        open.emplace_back(tail_s, left_s - worked_s);
        std::push_heap(open.begin(), open.end());
        at_s = till_s;
    }
    return ready_s;
}

/// The least time between a tray taking a tool and freeing it: hands and free time of all between, `freeing`
/// included.
int heldFor_s(const BenchTray& tray, const BenchTask& freeing) {
    int held_s = 0;
    for (const BenchTask* task = &freeing;; --task) {
        held_s += task->hands_s;
        if (task->takes == freeing.frees || task == tray.tasks.data()) return held_s;
        held_s += (task - 1)->free_s;
    }
}

}  // namespace

int leastReadying_s(const BenchWish& wish, const BenchTray& tray) {
    // In one piece: what is in the guns after each task, with the least time it took to get there.
    const std::size_t guns = wish.guns.size();
    constexpr std::size_t kMostStates = 20000;
    std::map<std::vector<int>, int> states;
    std::vector<int> start = wish.done.cups;
    start.resize(guns, -1);
    states[start] = 0;
    for (const BenchTask& task : tray.tasks) {
        if (task.cup < 0 || wish.done.ended_s.count(task.id)) continue;
        std::map<std::vector<int>, int> next;
        for (const auto& [cups, spent_s] : states)
            for (std::size_t g = 0; g < guns; ++g) {
                int more_s = 0;
                if (cups[g] != task.cup) {
                    more_s = wish.shop.fill_s;
                    if (cups[g] >= 0 &&
                        !carriesOn(wish.shop.residue, wish.work.cups[static_cast<std::size_t>(cups[g])],
                                   wish.work.cups[static_cast<std::size_t>(task.cup)]))
                        more_s += wish.shop.clean_s;
                }
                std::vector<int> after = cups;
                after[g] = task.cup;
                // Guns are alike here: needles are left out, which can only lower the figure.
                std::sort(after.begin(), after.end());
                const auto [at, fresh] = next.emplace(std::move(after), spent_s + more_s);
                if (!fresh) at->second = std::min(at->second, spent_s + more_s);
            }
        if (next.size() > kMostStates) return wish.shop.fill_s;
        states = std::move(next);
    }
    int least_s = INT_MAX;
    for (const auto& [cups, spent_s] : states) least_s = std::min(least_s, spent_s);
    return least_s;
}

int readyBound_s(const BenchWish& wish) {
    const int now_s = wish.done.now_s, longestOpen = longestOpen_s(wish.closed);
    int longest_s = now_s, readying_s = 0, work_s = 0;
    int afterSpray_s = INT_MAX;  // a gun is made ready for something that is sprayed, and all that follows it
    std::vector<Piece> pieces;
    std::vector<Stay> rack, turner;
    std::vector<std::vector<Stay>> tools(wish.work.tools.size());
    for (const BenchTray& tray : wish.work.trays) {
        int tail_s = 0;
        for (const BenchTask& task : tray.tasks)
            if (!wish.done.ended_s.count(task.id)) tail_s += task.hands_s + task.free_s;
        std::map<int, int> taken;  // heads by tool
        int at_s = now_s;
        for (const BenchTask& task : tray.tasks) {
            const auto done = wish.done.ended_s.find(task.id);
            if (done != wish.done.ended_s.end()) {
                at_s = std::max(at_s, done->second + task.free_s);
                continue;
            }
            const int rest_s = task.cup >= 0 ? wish.shop.stand_s : kNight_s;
            if (task.hands_s > 0) at_s = unbrokenFrom(wish.closed, at_s, task.hands_s, rest_s, longestOpen);
            tail_s -= task.hands_s;
            pieces.push_back({at_s, task.hands_s, tail_s});
            if (task.takes >= 0) taken[task.takes] = at_s;
            at_s = finished(wish.closed, at_s, task.hands_s);
            if (const auto from = taken.find(task.frees); from != taken.end()) {
                const BenchTool& tool = wish.work.tools[static_cast<std::size_t>(task.frees)];
                tools[static_cast<std::size_t>(task.frees)].push_back(
                    {from->second, heldFor_s(tray, task), tail_s, std::min(task.lures, tool.copies)});
            }
            if (task.cup >= 0) afterSpray_s = std::min(afterSpray_s, task.hands_s + tail_s);
            tail_s -= task.free_s;
            if (task.rests != Rests::Nowhere)
                (task.rests == Rests::Rack ? rack : turner)
                    .push_back({at_s, task.free_s, tail_s, task.lures});
            at_s += task.free_s;
            work_s += task.hands_s;
        }
        longest_s = std::max(longest_s, at_s);
        readying_s = std::max(readying_s, leastReadying_s(wish, tray));
    }
    if (pieces.empty()) return longest_s;
    longest_s = std::max(longest_s, placesBound_s(rack, wish.shop.rack, wish.closed));
    longest_s = std::max(longest_s, placesBound_s(turner, wish.shop.turner, wish.closed));
    for (std::size_t k = 0; k < tools.size(); ++k)
        longest_s = std::max(longest_s, placesBound_s(tools[k], wish.work.tools[k].copies, wish.closed));
    if (wish.shop.painters == 1) {
        if (readying_s > 0) pieces.push_back({now_s, readying_s, afterSpray_s});
        return std::max(longest_s, preemptive_s(std::move(pieces), wish.closed, now_s));
    }
    int tail_s = INT_MAX;
    for (const Piece& piece : pieces) tail_s = std::min(tail_s, piece.tail_s);
    const int shared_s = (work_s + readying_s + wish.shop.painters - 1) / wish.shop.painters;
    return std::max(longest_s, finished(wish.closed, openFrom(wish.closed, now_s), shared_s) + tail_s);
}

int cleaningsLureByLure(const BenchWish& wish) {
    int cleanings = 0, cup = -1;
    for (const BenchTray& tray : wish.work.trays)
        for (int lure = 0; lure < tray.lures; ++lure)
            for (const BenchTask& task : tray.tasks) {
                const int tag = tray.firstLure + lure;
                if (task.cup < 0 || tag < task.firstLure || tag >= task.firstLure + task.lures) continue;
                if (cup >= 0 && !carriesOn(wish.shop.residue, wish.work.cups[static_cast<std::size_t>(cup)],
                                           wish.work.cups[static_cast<std::size_t>(task.cup)]))
                    ++cleanings;
                cup = task.cup;
            }
    return cleanings;
}

Load loadOf(const BenchWish& wish, const Schedule& schedule) {
    std::vector<Span> warm;
    for (const PlacedTask& placed : schedule.tasks) {
        const BenchTask& task = wish.work.trays[static_cast<std::size_t>(placed.tray)]
                                    .tasks[static_cast<std::size_t>(placed.task)];
        if (task.heated && wish.shop.dryer == Dryer::Stand && placed.free_s > placed.end_s)
            warm.push_back({placed.end_s, placed.free_s});
        if (task.heated && wish.shop.dryer == Dryer::Hand) warm.push_back({placed.start_s, placed.end_s});
    }
    const auto within = [](const Span& span, int at_s) { return span.from_s <= at_s && at_s < span.to_s; };
    Load load;
    const auto look = [&](int at_s) {
        double watts = wish.shop.lamp_w;
        bool sprays = false;
        for (const PlacedTask& placed : schedule.tasks) {
            const BenchTask& task = wish.work.trays[static_cast<std::size_t>(placed.tray)]
                                        .tasks[static_cast<std::size_t>(placed.task)];
            sprays = sprays || (task.cup >= 0 && within({placed.start_s, placed.end_s}, at_s));
        }
        if (sprays) watts += wish.shop.compressor_w + wish.shop.fan_w;
        if (std::any_of(warm.begin(), warm.end(), [&](const Span& s) { return within(s, at_s); }))
            watts += wish.shop.dryer_w;
        if (watts > load.peak_w) load = {watts, at_s};
    };
    for (const PlacedTask& placed : schedule.tasks) {
        look(placed.start_s);
        look(placed.end_s);
    }
    return load;
}

std::vector<RackLevel> rackOf(const BenchWish& wish, const Schedule& schedule, Rests where) {
    std::map<int, int> changes;
    for (const PlacedTask& placed : schedule.tasks) {
        const BenchTask& task = wish.work.trays[static_cast<std::size_t>(placed.tray)]
                                    .tasks[static_cast<std::size_t>(placed.task)];
        if (task.rests != where || placed.free_s <= placed.end_s) continue;
        changes[placed.end_s] += task.lures;
        changes[placed.free_s] -= task.lures;
    }
    std::vector<RackLevel> levels;
    int bodies = 0;
    for (const auto& [at_s, change] : changes) levels.push_back({at_s, bodies += change});
    return levels;
}

Status checkWish(const BenchWish& wish) {
    // In one piece: one thing after the other that would make planning meaningless.
    if (Status ok = checkShop(wish.shop, "shop"); !ok) return ok.error();
    int lures = 0;
    bool sprays = false;
    for (const BenchTray& tray : wish.work.trays) lures += tray.lures;
    if (lures < 1 || lures > kMostLures) return luresError(lures, "lures");
    for (const BenchTray& tray : wish.work.trays)
        for (const BenchTask& task : tray.tasks) {
            sprays = sprays || task.cup >= 0;
            const int places = task.rests == Rests::Rack ? wish.shop.rack : wish.shop.turner;
            if (task.rests != Rests::Nowhere && task.free_s > 0 && task.lures > places)
                return Error{
                    "too_few_places",
                    Words(task.rests == Rests::Rack
                              ? NINE_WORDS(
                                    "core",
                                    "{lures} bodies of tray {tray} rest at once, and the drying rack has "
                                    "{places} places: take smaller trays, or add places on My bench.")
                              : NINE_WORDS(
                                    "core",
                                    "{lures} bodies of tray {tray} turn at once, and the turning motor has "
                                    "{places} places: take smaller trays, or add places on My bench."))
                        .number("lures", task.lures, 0)
                        .name("tray", tray.tag)
                        .number("places", places, 0),
                    task.rests == Rests::Rack ? "shop.rack" : "shop.turner"};
        }
    if (sprays && wish.guns.empty())
        return Error{"no_gun", NINE_WORDS("core", "There is no gun on My bench: add one, with its needle."),
                     "guns"};
    for (const BenchTray& tray : wish.work.trays)
        for (const BenchTask& task : tray.tasks) {
            if (task.cup < 0 || task.needle_mm <= 0) continue;
            const bool have = std::any_of(wish.guns.begin(), wish.guns.end(), [&](const BenchGun& gun) {
                return std::any_of(gun.needles_mm.begin(), gun.needles_mm.end(),
                                   [&](double n) { return std::abs(n - task.needle_mm) < 0.011; });
            });
            if (!have)
                return Error{
                    "no_needle",
                    Words(NINE_WORDS(
                              "core",
                              "{task} of tray {tray} wants a {needle} mm needle, and no gun on My bench has "
                              "one: add it there, or release the pin on the Spray leaf."))
                        .name("task", wish.work.cups[static_cast<std::size_t>(task.cup)].name)
                        .name("tray", tray.tag)
                        .number("needle", task.needle_mm, 2),
                    "guns"};
        }
    for (const BenchTool& tool : wish.work.tools)
        if (tool.copies < 1)
            return Error{
                "too_few_copies",
                Words(NINE_WORDS("core", "There is no {mask} to lay on: cut one.")).name("mask", tool.name),
                "masks." + tool.id};
    return Done{};
}

}  // namespace nine
