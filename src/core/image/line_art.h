// Pencil lines on paper: what is drawn in one box of a flat page.
#pragma once

#include "image/regions.h"
#include "image/tracing.h"

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

/// The closed outline in a box with the lines inside of it. `name` is said in messages ("side tracing").
/// Errors: nothing_drawn, line_open.
Result<TracedBox> outlineIn(const FlatBox& box, const std::string& name, const Task& task);

/// All lines of a box, the longest first; those shorter than 3 mm are dropped.
std::vector<GuideLine> linesIn(const FlatBox& box);

}  // namespace nine
