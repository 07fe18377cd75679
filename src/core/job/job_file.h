// The job file, *.nineleaves.json: the only place that knows its JSON. docs/FORMAT.md describes it.
//
// Keys this version does not know are kept and written back. Writing is canonical: the same job gives the
// same bytes, known keys first. Reading errors carry "file:line field" as their place.
#pragma once

#include "base/files.h"
#include "job/job.h"

namespace nine {

struct LoadedJob {
    Job job;
    Warnings warnings;
};

/// Elements and pins this version does not know are kept and told in the warnings.
/// Errors: bad_json, too_deep, not_a_job, newer_format, missing, bad_value, those of checkStations,
/// checkLandmarks, checkJob.
Result<LoadedJob> parseJob(std::string_view text, const std::string& source);
std::string jobText(const Job& job);

/// Files: those of readFile and writeFileAtomically besides.
Result<LoadedJob> loadJob(const std::string& path);
/// Also too_large: what could not be read back is not written.
Status saveJob(const Job& job, const std::string& path, Readers readers = Readers::Everyone);

/// The error with "file:line " before a field path of this job file; unchanged when it is about something
/// else.
Error withLine(Error error, const std::string& path);

}  // namespace nine
