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

/// Whether a path is meant as a job, by its name.
bool isJobPath(const std::string& path);

}  // namespace nine::cli
