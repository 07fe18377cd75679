// What really happened at the bench: events with their moment, and what follows from them.
//
// A run is a list of events that only grows; where it stands is folded from them, so that what was written
// down is all there is to lose. Events name tasks, steps and bodies by their ids and tags.
#pragma once

#include <map>
#include <optional>
#include <set>
#include <span>
#include <string>
#include <vector>

#include "base/calendar.h"
#include "base/result.h"
#include "bench/work.h"

namespace nine {

enum class Happened {
    Began,     ///< value: the run's id
    Order,     ///< value: task ids, one a line: from here on in this order
    Gate,      ///< key: of the gate; value: "no" where it was not so and the painter went on
    Done,      ///< the task
    Back,      ///< the last task that was done or skipped is not
    Skipped,   ///< the task; key "all": on every tray
    Inserted,  ///< value: what was done, in the painter's words; before the task
    Repeated,  ///< the task once more
    Changed,   ///< key: what of the step ("pressure_kpa", "coats", "drops:ID"); value: to what
    Mishap,    ///< key: of mishaps(); value: a note
    Paused,
    Resumed,
    Note,   ///< value
    Ended,  ///< value "early" where tasks were left
};
struct HappenedName {
    Happened what;
    std::string_view id;  ///< in files
    Pattern name;
};
std::span<const HappenedName> happenedNames();

struct RunEvent {
    Moment at = 0;
    Happened what = Happened::Note;
    std::string task;
    std::string step;  ///< of the recipe
    int lure = 0;      ///< tag; 0: the whole tray
    std::string key, value;
    bool clockWentBack = false;  ///< the clock showed an earlier time than before; `at` was kept from falling
    bool operator==(const RunEvent&) const = default;
};

/// A mishap, told with one key.
struct MishapKind {
    std::string_view id;
    char letter;
    Pattern name;
};
std::span<const MishapKind> mishaps();

enum class TaskFate { Waiting, Done, Skipped };

/// Where a run stands.
struct RunState {
    std::string id;
    std::vector<std::string> order;  ///< of task ids, those done first
    std::map<std::string, TaskFate> fates;
    std::map<std::string, Moment> ended;
    std::map<std::string, std::set<std::string>>
        gates;  ///< answered, of each task; a repeated task asks again
    std::map<std::string, std::map<std::string, std::string>>
        changes;                         ///< step -> key -> value; the last counts
    std::map<std::string, int> repeats;  ///< of tasks
    std::vector<RunEvent> inserted, mishapsSeen, notes;
    std::vector<std::string> past;  ///< tasks done or skipped, in the order it happened: Back takes the last
    std::optional<Moment> began, taskBegan, over, pausedAt;
    Moment last = 0;
    int paused_s = 0;  ///< in all

    bool paused() const { return pausedAt.has_value(); }
    bool isOver() const { return over.has_value(); }
    /// The task in hand; empty when none is left.
    std::string current() const;
    int done() const;
};
RunState after(RunState state, const RunEvent& event);
RunState folded(const std::vector<RunEvent>& events);

/// An event now: never earlier than the one before it.
RunEvent eventNow(const Clock& clock, const RunState& state, Happened what);

}  // namespace nine
