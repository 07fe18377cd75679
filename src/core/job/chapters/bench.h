// How the job goes over the bench: how many there are of each mask, what is asked before steps, what was put
// at a time by hand. Where things stand in the shop itself is My bench (job/bench_file.h).
#pragma once

#include "bench/schedule.h"
#include "job/chapter.h"

namespace nine {

/// How many of a mask (with its twin) or of the net ("net") there are.
struct ToolCopies {
    std::string tool;  ///< id of the mask
    int copies = 1;
    std::string unknownJson = {};
};

struct BenchChapter {
    std::vector<ToolCopies> copies;     ///< where there is more than one
    std::vector<std::string> gatesOff;  ///< ids of gates that are not asked, but still printed
    std::vector<TaskLock> locks;      ///< counted from `begins`
    std::string begins;               ///< UTC, "2026-11-30T08:30:00Z"; empty or past: a plan begins now
    std::vector<std::string> others;  ///< files of jobs on the same bench, as seen from this job's folder
    std::string unknownJson = {};
};

constexpr int kMostCopies = 500;
constexpr std::size_t kMostOthers = 12;
inline constexpr const char* kNetTool = "net";

template <>
struct ChapterOf<BenchChapter> : UsualChapter<BenchChapter> {
    static constexpr const char* key = "bench";
    static BenchChapter read(json::Fields& fields, Warnings& warnings);
    static void write(json::Json& into, const BenchChapter& bench);
    /// Errors: out_of_range, bad_value (a date). What names a mask or a task that is gone says nothing.
    static Status check(const Job& job);
};

int copiesOf(const BenchChapter& bench, const std::string& tool);
BenchChapter withCopies(BenchChapter bench, const std::string& tool, int copies);
/// Dragged there; a time below 0 lets it go.
BenchChapter withLock(BenchChapter bench, const std::string& task, int start_s);
bool asksGate(const BenchChapter& bench, std::string_view gate);
BenchChapter withGate(BenchChapter bench, const std::string& gate, bool asked);

}  // namespace nine
