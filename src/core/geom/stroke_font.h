// Lettering as single pen strokes, for marking pieces (a filled font would be cut or drawn as outlines).
// Glyphs: Hershey Simplex Roman. Accented Latin letters lose their accents, other characters become '?'.
#pragma once

#include <string>
#include <string_view>

#include "geom/vec.h"

namespace nine {

/// Strokes of one line of text (UTF-8), y upwards; the baseline starts at 0,0 and capitals are `height_mm`
/// high.
std::vector<Polyline2> strokeText(std::string_view text, double height_mm);

/// Those of the letters that become '?', each once.
std::string lettersWithoutStrokes(std::string_view text);

/// Width that strokeText takes up, mm.
double strokeTextWidth_mm(std::string_view text, double height_mm);

}  // namespace nine
