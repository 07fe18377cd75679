// A run as it is written down: a folder with the job as it was when the run began, its tasks, and a journal
// of events, one JSON object a line.
#pragma once

#include "bench/run.h"
#include "job/job_file.h"
#include "store/journal.h"

namespace nine {

std::string eventLine(const RunEvent& event);
/// Errors: bad_json, bad_value, newer_format (an event this version does not know).
Result<RunEvent> parseEvent(std::string_view line, const std::string& source);

/// What a run was begun with.
struct RunHead {
    std::string id;  ///< "2026-11-30-brook-char", of its folder
    std::string jobPath, title;
    Moment began = 0;
    int lures = 1;
    bool carded = false;  ///< its recipe card is in the workshop file
    BenchWork work;
    std::string unknownJson = {};
};
std::string runHeadText(const RunHead& head);
Result<RunHead> parseRunHead(std::string_view text, const std::string& source);

/// A run that is being recorded. Not thread-safe.
class RunFile {
  public:
    /// Makes the folder `runs`/ID with job and head, and the journal with its first event. Errors: those of
    /// writing.
    static Result<RunFile> begin(const std::string& runs, RunHead head, const Job& job);
    /// Errors: in_use, cannot_open, those of parseRunHead. Events that cannot be read are told in `warnings`.
    static Result<RunFile> open(const std::string& folder, Warnings* warnings = nullptr);

    const RunHead& head() const { return head_; }
    const std::string& folder() const { return folder_; }
    const std::vector<RunEvent>& events() const { return events_; }
    /// The job as it was when the run began. Errors: those of loadJob.
    Result<Job> job() const;
    /// Errors: cannot_write; the event is kept and written with the next.
    Status add(const RunEvent& event);
    Status retry() { return journal_.retry(); }

  private:
    explicit RunFile(Journal journal) : journal_(std::move(journal)) {}
    std::string folder_;
    RunHead head_;
    std::vector<RunEvent> events_;
    Journal journal_;
};

/// The card of a run is in the workshop file. Errors: those of reading and writing its head.
Status markCarded(const std::string& folder);

/// A run as it stands on the disk, whoever records it: job text, head, events. Errors: those of reading.
struct RunOnDisk {
    RunHead head;
    std::string jobText;
    std::vector<RunEvent> events;
};
Result<RunOnDisk> readRun(const std::string& folder, Warnings* warnings = nullptr);

struct KnownRun {
    std::string folder;
    RunHead head;
    RunState state;
};
/// Runs of a folder, the newest first, those that cannot be read left out and told.
std::vector<KnownRun> runsIn(const std::string& runs, Warnings* warnings = nullptr);

}  // namespace nine
