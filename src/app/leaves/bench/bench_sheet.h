// The steps on paper, for the wall of the bench: black and white, A4 or Letter.
#pragma once

#include <QPageSize>
#include <QString>

#include "app/leaves/bench/bench_desk.h"

class QPagedPaintDevice;

namespace nine::app {

/// All steps in order with mix, setting and swatch in words, what is checked with a box to tick, cautions
/// where they arise, stencils by their name.
QString benchSheetHtml(const BenchStudy& study);
/// On a worker's thread. Errors: cannot_write.
Status writeBenchSheet(const QString& html, const QString& path, QPageSize::PageSizeId paper);
void drawBenchSheet(QPagedPaintDevice& device, const QString& html);

}  // namespace nine::app
