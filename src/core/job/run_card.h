// From what happened at the bench to a recipe card, and back into the job's recipe.
#pragma once

#include <string_view>
#include <unordered_map>

#include "job/bench_job.h"
#include "job/log_book.h"
#include "job/run_file.h"

namespace nine {

/// The card of a run: steps as they were laid down, with what was changed, left out and done besides; times,
/// amounts, tools, mishaps. `job` is that of the run, as it was when it began. Pure.
RecipeCard cardOf(const JobOnBench& job, const RunHead& head, const std::vector<RunEvent>& events);

/// The job with the run made its recipe: coats, drops and paints as they were, steps left out on every tray
/// switched off, what was done besides put in as notes, what was changed at the gun pinned. Values that
/// cannot be are told.
struct JobAsItHappened {
    Job job;
    std::vector<Words> changed;  ///< what is different now
    Warnings warnings;           ///< what could not be taken over
};
JobAsItHappened withWhatHappened(const Job& job, const BenchWork& work, const std::vector<RunEvent>& events);

/// Which keys of a step can be changed at the bench.
struct BenchKey {
    std::string_view id;
    Pattern name;
};
std::span<const BenchKey> benchKeys();
/// Whether a value may be taken for a key. Errors: bad_value, out_of_range.
Status checkChange(const std::string& key, const std::string& value);

/// All tasks by id, for who asks for many; as long as the work lives.
struct TaskPlace {
    const BenchTask* task = nullptr;
    const BenchTray* tray = nullptr;
};
std::unordered_map<std::string_view, TaskPlace> tasksById(const BenchWork& work);
/// One task of a run by id; null when there is none.
const BenchTask* taskIn(const BenchWork& work, const std::string& id);
const BenchTray* trayIn(const BenchWork& work, const std::string& id);

}  // namespace nine
