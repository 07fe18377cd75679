// Finds the marks of the tracing sheet in a picture of it, and from them how the page is seen.
#pragma once

#include "base/task.h"
#include "image/homography.h"
#include "image/picture.h"

namespace nine {

/// Middles of all rings round a dot, pixels, whatever their size; to about a twentieth of a pixel. Any
/// shading across the picture; rings at least 14 pixels across. About 60 ms a megapixel.
std::vector<Vec2> findRings(const Picture& picture, const Task& task = {});

struct SeenPage {
    PlaneView view;                ///< mm of the frame to pixels
    std::vector<PointPair> marks;  ///< that are used: mm, pixels
    double miss_mm = 0;            ///< root mean square of the marks
};

/// Which ring is which mark. Errors: marks_missing (fewer than five, with how many were found and which are
/// missing), page_mirrored, page_not_flat (they do not fit a flat page within kFlat_mm).
Result<SeenPage> seePage(const std::vector<Vec2>& rings, const Vec2& size_px);

/// Where the marks stand that were not seen, or left out because they do not agree with the others, in words;
/// empty when all are used.
Words missingMarks(const SeenPage& page);

/// Whether a picture shows the tracing sheet, mirrored or bent as may be. About 50 ms.
bool showsTracingSheet(const Picture& picture, const Task& task = {});

constexpr std::size_t kFewestMarks = 5;
constexpr double kFlat_mm = 0.4;  ///< a page that bends more spoils what is read off it

}  // namespace nine
