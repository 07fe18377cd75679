// The demo: an invented job of an invented shop, built in from examples/ so that it is always at hand.
#pragma once

#include "job/job_file.h"

namespace nine {

inline constexpr const char* kDemoFileName = "sedge60-brook-char.nineleaves.json";

Result<Job> demoJob();

}  // namespace nine
