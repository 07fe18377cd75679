// The printed tracing sheet (image/tracing_sheet.h says where everything stands).
#pragma once

#include "cut/drawing.h"

namespace nine {

/// Papers the sheet is made for, lying on their side.
inline const Vec2 kTracingA4_mm{297, 210}, kTracingLetter_mm{279.4, 215.9};

/// The page true to size; the frame stands in the middle of `paper_mm`, which must be one of the above or
/// larger.
Drawing tracingPage(const Vec2& paper_mm);

}  // namespace nine
