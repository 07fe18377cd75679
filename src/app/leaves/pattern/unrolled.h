// Back or belly of the body as a flat strip.
#pragma once

#include <QImage>

#include "pattern/skin_picture.h"

namespace nine::app {

/// As wide as `size` says at so many pixels a mm, centred on the back or belly line, the right side above;
/// each column of pixels is one x. For a worker's thread.
QImage unrolled(const DrawnBody& drawn, const Image& picture, const QSize& size, double perMm, bool back);

}  // namespace nine::app
