// A job of three rows of marks on Sedge 60, six masks that all lie flat: what most tests are made with. The
// demo has twenty marks and takes its time.
#pragma once

#include "job/job_file.h"
#include "tests/support.h"

namespace nine::test {

inline Result<Job> plainJob() {
    const Result<LoadedJob> loaded = loadJob(plainJobPath());
    if (!loaded) return loaded.error();
    return loaded->job;
}

}  // namespace nine::test
