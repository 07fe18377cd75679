// The window driven by itself: for pictures of its views, and for the demo where there is no display.
#pragma once

#include <QTextStream>

#include "app/frame/main_window.h"

namespace nine::app {

/// Waits until nothing is being worked out any more. False after `limit_ms`.
bool waitUntilSettled(MainWindow& window, int limit_ms = 120000);

/// NAME.png (or NAME-dark.png) for every leaf, or the one named. Returns the exit code.
int takePictures(MainWindow& window, const QString& folder, const QString& leaf, const QString& theme,
                 QTextStream& err);

/// Drags a station and the row of dots with the mouse, reads the verdict, writes pages and a picture.
int doTheJob(MainWindow& window, const QString& folder, QTextStream& err);

}  // namespace nine::app
