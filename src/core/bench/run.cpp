#include "bench/run.h"

#include <algorithm>

namespace nine {
namespace {

constexpr HappenedName kNames[] = {
    {Happened::Began, "began", NINE_WORDS("core", "begun")},
    {Happened::Order, "order", NINE_WORDS("core", "in another order")},
    {Happened::Gate, "gate", NINE_WORDS("core", "checked")},
    {Happened::Done, "done", NINE_WORDS("core", "done")},
    {Happened::Back, "back", NINE_WORDS("core", "taken back")},
    {Happened::Skipped, "skipped", NINE_WORDS("core", "left out")},
    {Happened::Inserted, "inserted", NINE_WORDS("core", "done besides")},
    {Happened::Repeated, "repeated", NINE_WORDS("core", "done once more")},
    {Happened::Changed, "changed", NINE_WORDS("core", "changed")},
    {Happened::Mishap, "mishap", NINE_WORDS("core", "mishap")},
    {Happened::Paused, "paused", NINE_WORDS("core", "paused")},
    {Happened::Resumed, "resumed", NINE_WORDS("core", "gone on")},
    {Happened::Note, "note", NINE_WORDS("core", "note")},
    {Happened::Ended, "ended", NINE_WORDS("core", "ended")},
};

constexpr MishapKind kMishaps[] = {
    {"creep", '1', NINE_WORDS("core", "crept under the mask")},
    {"foggy", '2', NINE_WORDS("core", "opening left foggy")},
    {"lifted", '3', NINE_WORDS("core", "paint lifted")},
    {"run", '4', NINE_WORDS("core", "paint ran")},
    {"dry_spray", '5', NINE_WORDS("core", "dry and grainy")},
    {"unequal", '6', NINE_WORDS("core", "sides unequal")},
    {"colour", '7', NINE_WORDS("core", "colour wrong")},
    {"clog", '8', NINE_WORDS("core", "gun clogged")},
    {"dropped", '9', NINE_WORDS("core", "touched or dropped")},
};

}  // namespace

std::span<const HappenedName> happenedNames() {
    return kNames;
}
std::span<const MishapKind> mishaps() {
    return kMishaps;
}

std::string RunState::current() const {
    for (const std::string& task : order) {
        const auto fate = fates.find(task);
        if (fate == fates.end() || fate->second == TaskFate::Waiting) return task;
    }
    return {};
}

int RunState::done() const {
    return static_cast<int>(std::count_if(fates.begin(), fates.end(),
                                          [](const auto& f) { return f.second != TaskFate::Waiting; }));
}

RunState after(RunState s, const RunEvent& e) {
    // In one piece: one case a kind of event.
    const auto settle = [&](TaskFate fate) {
        s.fates[e.task] = fate;
        s.ended[e.task] = e.at;
        s.past.push_back(e.task);
        s.taskBegan = e.at;
    };
    switch (e.what) {
        case Happened::Began:
            s.began = s.taskBegan = e.at;
            s.id = e.value;
            break;
        case Happened::Order: {
            s.order.clear();
            for (std::size_t from = 0; from < e.value.size();) {
                const std::size_t end = std::min(e.value.find('\n', from), e.value.size());
                s.order.push_back(e.value.substr(from, end - from));
                from = end + 1;
            }
            break;
        }
        case Happened::Gate:
            // A step begins with the last of what is asked before it.
            if (e.key != "step" && !s.gates[e.task].count("step")) s.taskBegan = e.at;
            s.gates[e.task].insert(e.key);
            break;
        case Happened::Done:
            settle(TaskFate::Done);
            break;
        case Happened::Skipped:
            settle(TaskFate::Skipped);
            break;
        case Happened::Back:
            if (!s.past.empty()) {
                s.fates[s.past.back()] = TaskFate::Waiting;
                s.ended.erase(s.past.back());
                s.gates.erase(s.past.back());
                s.past.pop_back();
                s.over.reset();
                s.taskBegan = e.at;
            }
            break;
        case Happened::Inserted:
            s.inserted.push_back(e);
            break;
        case Happened::Repeated:
            ++s.repeats[e.task];
            s.gates.erase(e.task);
            s.taskBegan = e.at;
            break;
        case Happened::Changed:
            s.changes[e.step][e.key] = e.value;
            break;
        case Happened::Mishap:
            s.mishapsSeen.push_back(e);
            break;
        case Happened::Paused:
            if (!s.pausedAt) s.pausedAt = e.at;
            break;
        case Happened::Resumed:
            if (s.pausedAt) {
                const Moment paused = e.at - *s.pausedAt;
                s.paused_s += static_cast<int>(paused);
                // The task in hand is as old as it was.
                if (s.taskBegan) *s.taskBegan += paused;
                s.pausedAt.reset();
            }
            break;
        case Happened::Note:
            s.notes.push_back(e);
            break;
        case Happened::Ended:
            s.over = e.at;
            break;
    }
    s.last = std::max(s.last, e.at);
    return s;
}

RunState folded(const std::vector<RunEvent>& events) {
    RunState state;
    for (const RunEvent& event : events) state = after(std::move(state), event);
    return state;
}

RunEvent eventNow(const Clock& clock, const RunState& state, Happened what) {
    RunEvent event;
    event.what = what;
    event.at = clock();
    if (event.at < state.last) {
        event.at = state.last;
        event.clockWentBack = true;
    }
    event.task = state.current();
    return event;
}

}  // namespace nine
