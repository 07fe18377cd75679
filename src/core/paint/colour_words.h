// A colour in a painter's words: "dark olive", "pale yellow", "nearly black".
//
// Borders between hues are a judgement, set so that the named colours of SVG 1.1 (W3C, section 4.4) come out
// by their own names (tests/paint).
#pragma once

#include "base/words.h"
#include "paint/colour.h"

namespace nine {

/// One sentence part, no value in it but the name. Cost: nanoseconds.
Words colourWords(const Lab& colour);

}  // namespace nine
