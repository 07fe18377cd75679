// Made-up benches for tests, and a referee that reads a plan with rules of its own.
#pragma once

#include <gtest/gtest.h>

#include <algorithm>
#include <map>

#include "base/rng.h"
#include "bench/schedule.h"

namespace nine::test {

inline CupContent cup(const std::string& key, Lab lab, const std::string& family = "opaque") {
    return {key, key, "#808080", lab, family, false};
}

/// Trays that go through the same steps: minutes of hands, minutes of rest, a cup each.
struct StepTimes {
    int hands_s, free_s, cup;
};
inline BenchWish benchOf(int trays, const std::vector<StepTimes>& steps, int lures = 8) {
    BenchWish wish;
    wish.guns = {{"Gun 1", {0.35}}, {"Gun 2", {0.3}}};
    wish.shop.rack = wish.shop.turner = 500;
    int cups = 0;
    for (const StepTimes& s : steps) cups = std::max(cups, s.cup + 1);
    for (int c = 0; c < cups; ++c)
        wish.work.cups.push_back(
            cup("cup " + std::to_string(c), {20.0 + 12 * (c % 6), 40.0 * (c % 3 - 1), 30.0 * (c % 2)}));
    for (int t = 0; t < trays; ++t) {
        BenchTray tray;
        tray.tag = std::string(1, static_cast<char>('A' + t));
        tray.firstLure = 1 + t * lures;
        tray.lures = lures;
        for (std::size_t k = 0; k < steps.size(); ++k) {
            BenchTask task;
            task.id = tray.tag + "/" + std::to_string(k);
            task.firstLure = tray.firstLure;
            task.lures = lures;
            task.hands_s = steps[k].hands_s;
            task.free_s = steps[k].free_s;
            task.cup = steps[k].cup;
            task.rests = Rests::Rack;
            tray.tasks.push_back(task);
        }
        wish.work.trays.push_back(tray);
    }
    return wish;
}

/// All that is wrong with a plan, by the rules of schedule.h read once more.
inline std::vector<std::string> wrongWith(const BenchWish& wish, const Schedule& plan) {
    std::vector<std::string> wrong;
    std::size_t placed = 0;
    std::map<int, std::vector<Span>> hands;
    std::map<int, std::vector<PlacedTask>> guns;
    std::map<std::pair<int, int>, PlacedTask> byPlace;
    for (const PlacedTask& p : plan.tasks) {
        byPlace[{p.tray, p.task}] = p;
        ++placed;
        if (p.wasDone) continue;
        hands[p.painter].push_back({p.fill_s, p.end_s});
        if (p.cleaned || p.needle)
            hands[p.painter].push_back({p.clean_s, p.clean_s + (p.cleaned ? wish.shop.clean_s : 0) +
                                                       (p.needle ? wish.shop.needle_s : 0)});
        if (p.gun >= 0) guns[p.gun].push_back(p);
    }
    if (placed != wish.work.count()) wrong.push_back("tasks are missing");
    const auto closedIn = [&](int from_s, int to_s) {
        int closed_s = 0;
        for (const Span& span : wish.closed)
            closed_s += std::max(0, std::min(span.to_s, to_s) - std::max(span.from_s, from_s));
        return closed_s;
    };
    int ready_s = 0;
    for (const auto& [place, p] : byPlace) {
        const auto& tasks = wish.work.trays[static_cast<std::size_t>(p.tray)].tasks;
        const BenchTask& task = tasks[static_cast<std::size_t>(p.task)];
        ready_s = std::max(ready_s, p.free_s);
        if (p.free_s != p.end_s + task.free_s) wrong.push_back(task.id + " rests another time");
        if (p.wasDone) continue;
        if (p.end_s - p.start_s - closedIn(p.start_s, p.end_s) != task.hands_s)
            wrong.push_back(task.id + " takes another time");
        if (p.start_s < wish.done.now_s) wrong.push_back(task.id + " is in the past");
        if (task.cup >= 0)
            for (const Span& span : wish.closed)
                if (p.fill_s < span.from_s && span.from_s < p.end_s &&
                    span.to_s - span.from_s > wish.shop.stand_s)
                    wrong.push_back(task.id + " lets its paint dry over a break");
        for (const Span& span : wish.closed)
            if (span.from_s <= p.start_s && p.start_s < span.to_s)
                wrong.push_back(task.id + " begins while it is closed");
        if (p.task > 0 && byPlace.at({p.tray, p.task - 1}).free_s > p.start_s)
            wrong.push_back(task.id + " begins before its tray is ready");
    }
    if (ready_s != plan.ready_s) wrong.push_back("ready at another time");
    for (auto& [painter, spans] : hands) {
        std::sort(spans.begin(), spans.end(),
                  [](const Span& a, const Span& b) { return a.from_s < b.from_s; });
        for (std::size_t i = 1; i < spans.size(); ++i)
            if (spans[i].from_s < spans[i - 1].to_s)
                wrong.push_back("painter does two things at " + std::to_string(spans[i].from_s));
    }
    for (auto& [gun, tasks] : guns) {
        std::sort(tasks.begin(), tasks.end(),
                  [](const PlacedTask& a, const PlacedTask& b) { return a.start_s < b.start_s; });
        int inIt = wish.done.cups.empty() ? -1 : wish.done.cups[static_cast<std::size_t>(gun)],
            last_s = wish.done.now_s;
        for (const PlacedTask& p : tasks) {
            const int wanted =
                wish.work.trays[static_cast<std::size_t>(p.tray)].tasks[static_cast<std::size_t>(p.task)].cup;
            if (p.clean_s < last_s || p.fill_s < last_s)
                wrong.push_back("gun is used twice at " + std::to_string(p.clean_s));
            if (inIt != wanted && !p.filled) wrong.push_back("cup not filled");
            const bool dried = inIt >= 0 && p.start_s - last_s > wish.shop.stand_s;
            const bool harm = inIt >= 0 && inIt != wanted && wish.shop.residue == Residue::CleanAlways;
            if ((dried || harm) && !p.cleaned)
                wrong.push_back("cup not cleaned at " + std::to_string(p.start_s));
            inIt = wanted;
            last_s = p.end_s;
        }
    }
    // How many of each tool, and how many bodies, at each moment something begins.
    for (const auto& [place, at] : byPlace) {
        int rack = 0, turner = 0;
        std::map<int, int> tools;
        for (std::size_t t = 0; t < wish.work.trays.size(); ++t) {
            const auto& tasks = wish.work.trays[t].tasks;
            std::map<int, int> held;
            for (std::size_t k = 0; k < tasks.size(); ++k) {
                const PlacedTask& p = byPlace.at({static_cast<int>(t), static_cast<int>(k)});
                if (p.start_s <= at.start_s && tasks[k].takes >= 0)
                    held[tasks[k].takes] = std::min(
                        tasks[k].lures, wish.work.tools[static_cast<std::size_t>(tasks[k].takes)].copies);
                if (p.end_s <= at.start_s && tasks[k].frees >= 0) held[tasks[k].frees] = 0;
                if (p.end_s <= at.end_s && at.end_s < p.free_s)
                    (tasks[k].rests == Rests::Rack     ? rack
                     : tasks[k].rests == Rests::Turner ? turner
                                                       : tools[-1]) += tasks[k].lures;
            }
            for (const auto& [tool, n] : held) tools[tool] += n;
        }
        tools.erase(-1);
        for (const auto& [tool, n] : tools)
            if (n > wish.work.tools[static_cast<std::size_t>(tool)].copies)
                wrong.push_back("too few copies of " + std::to_string(tool));
        if (rack > wish.shop.rack) wrong.push_back("rack is over full");
        if (turner > wish.shop.turner) wrong.push_back("turner is over full");
    }
    return wrong;
}

inline std::string firstOf(const std::vector<std::string>& wrong) {
    return wrong.empty() ? "" : wrong.front();
}

}  // namespace nine::test
