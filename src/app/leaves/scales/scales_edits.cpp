#include "app/leaves/scales/scales_edits.h"

#include <algorithm>
#include <cmath>

namespace nine::app {
namespace {

bool isAt(const Clip& clip, double x_mm) {
    return std::abs(clip.x_mm - x_mm) < 1e-6;
}

}  // namespace

Result<Job> withScales(const Job& job, const std::function<void(ScalesChapter&)>& edit) {
    ScalesChapter scales = job.get<ScalesChapter>();
    edit(scales);
    Job next = job.with(std::move(scales));
    if (Status ok = checkJob(next); !ok) return ok.error();
    return next;
}

ScalesChapter withClipMoved(ScalesChapter scales, double from_mm, double to_mm, double low_mm,
                            double high_mm) {
    const auto found = std::find_if(scales.clips.begin(), scales.clips.end(),
                                    [&](const Clip& c) { return isAt(c, from_mm); });
    if (found == scales.clips.end()) return scales;
    double low = low_mm, high = high_mm;
    if (found != scales.clips.begin()) low = std::max(low, (found - 1)->x_mm + scales.clip_mm);
    if (found + 1 != scales.clips.end()) high = std::min(high, (found + 1)->x_mm - scales.clip_mm);
    if (low <= high) found->x_mm = std::clamp(std::round(10 * to_mm) / 10, low, high);
    return scales;
}

ScalesChapter withClip(ScalesChapter scales, double x_mm) {
    for (const Clip& clip : scales.clips)
        if (std::abs(clip.x_mm - x_mm) < scales.clip_mm) return scales;
    if (scales.clips.size() >= kMostClips) return scales;
    scales.clips.push_back({std::round(10 * x_mm) / 10});
    std::sort(scales.clips.begin(), scales.clips.end(),
              [](const Clip& a, const Clip& b) { return a.x_mm < b.x_mm; });
    return scales;
}

ScalesChapter withoutClip(ScalesChapter scales, double x_mm) {
    std::erase_if(scales.clips, [&](const Clip& c) { return isAt(c, x_mm); });
    return scales;
}

}  // namespace nine::app
