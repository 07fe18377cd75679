// A BLANK argument: a station table or a job.
#pragma once

#include "job/job_file.h"

namespace nine::cli {

struct Body {
    Job job;
    Skin skin;
    Warnings warnings;
};

/// Errors: those of the files; not_yet for a mesh.
Result<Body> loadBody(const std::string& path);

/// Largest flat map or table of points read: fifty times a dense one.
constexpr std::size_t kMaxMapPoints = 1000000;

/// Whether a path is meant as a job, by its name.
bool isJobPath(const std::string& path);

}  // namespace nine::cli
