// Edits of the scales chapter: pure functions from job to job.
#pragma once

#include <functional>

#include "job/job.h"

namespace nine::app {

/// The chapter changed by `edit`. Errors: checkJob's; the job is as it was then.
Result<Job> withScales(const Job& job, const std::function<void(ScalesChapter&)>& edit);

/// The clip at `from_mm` moved to `to_mm`, kept on the net and off its neighbours; clips stay in order.
ScalesChapter withClipMoved(ScalesChapter scales, double from_mm, double to_mm, double low_mm,
                            double high_mm);
/// One more, in order, if there is room for it beside its neighbours.
ScalesChapter withClip(ScalesChapter scales, double x_mm);
ScalesChapter withoutClip(ScalesChapter scales, double x_mm);

}  // namespace nine::app
