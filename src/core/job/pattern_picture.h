// The whole pattern of a job painted and drawn, for pictures that are asked for once: the command line,
// blanks side by side.
#pragma once

#include "job/derive.h"
#include "pattern/fittings.h"
#include "pattern/skin_picture.h"

namespace nine {

struct PatternPicture {
    SkinPtr skin;
    DrawnBody body;
    Image picture;  ///< of the skin
    std::vector<Solid> fittings;
    Warnings warnings;          ///< of the art
    std::vector<Error> errors;  ///< of elements that could not be drawn
};

/// Errors: those of the body; cancelled.
Result<PatternPicture> patternPicture(const Job& job, Derivations& derived, Fineness fineness, int columns,
                                      int rows, const Task& task = {});

/// Seen straight from a side, from the back or from the belly, with room for bill and hooks; the nose lies
/// left but for the right side. `background` 0 is transparent.
enum class Seen { Left, Right, Back, Belly };
Image drawnPattern(const PatternPicture& picture, Seen seen, double pixelsPerMm, std::uint32_t background);

}  // namespace nine
