// What a pencil left on paper: dark strokes, and pale ones followed as far as they stand out of the grain.
#pragma once

#include <optional>

#include "base/units.h"
#include "image/regions.h"

namespace nine {

/// A box of the page put flat: paper grey 0..1 and how much each place may be believed.
struct FlatBox {
    Plane grey;
    PixelSet covered;  ///< something lies on the page here (a hand): neither line nor paper
    double pixelsPerMm = 8;
    Vec2 upperLeft_mm;  ///< of the frame
    Vec2 mmOf(const Vec2& pixel) const {
        return {upperLeft_mm.x() + pixel.x() / pixelsPerMm, upperLeft_mm.y() - pixel.y() / pixelsPerMm};
    }
};

struct Drawn {
    Plane ink;       ///< how much darker than the paper beside it: 0 paper, 1 black
    PixelSet dark;   ///< strokes that one level for the whole box finds
    PixelSet lines;  ///< and the pale ones, where a ridge runs on for 4 mm or from one dark stroke to another
    Plane away;      ///< distance from the lines, pixels
    Figure level = 0;  ///< of ink, for the dark ones
    Figure faint = 0;  ///< ink that just stands out of the paper's grain
};

/// Nothing when no stroke stands out of the grain of the paper. A stroke is at most 2.6 mm wide. A pale one
/// is told from grain by its mean over 2.4 mm along it, so it may be three times as pale as the darkest
/// grain. About 0.2 s for a box of 230 x 65 mm.
std::optional<Drawn> drawnIn(const FlatBox& box);

}  // namespace nine
