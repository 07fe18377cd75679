// Pencil lines on paper: what is drawn in one box of a flat page.
#pragma once

#include "image/pencil.h"
#include "image/tracing.h"

namespace nine {

/// The closed outline in a box with the lines inside of it. `name` is said in messages ("side tracing").
/// Errors: nothing_drawn, line_open, two_bodies, over_the_edge.
Result<TracedBox> outlineIn(const FlatBox& box, const std::string& name, const Task& task);

/// All lines of a box, the longest first; those shorter than 3 mm are dropped.
std::vector<GuideLine> linesIn(const FlatBox& box);

}  // namespace nine
