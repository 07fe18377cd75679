// The blank chapter of the job file, which is also how a blank stands in the library. Only files in this
// room include this.
#pragma once

#include "job/job.h"
#include "job/json_fields.h"

namespace nine::json {

/// Throws Bad.
BlankChapter readBlank(const Value& json);
Json writeBlank(const BlankChapter& blank);

}  // namespace nine::json
