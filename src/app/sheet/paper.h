// Pages of lines as they are painted on paper, or on anything else of known resolution.
#pragma once

#include <QPainter>

#include "cut/drawing.h"

namespace nine::app {

/// The page true to size: `perMm` dots of the painter's device for a millimetre. Filled shapes are filled,
/// greys are grey.
void paintDrawing(QPainter& p, const Drawing& drawing, double perMm);

}  // namespace nine::app
