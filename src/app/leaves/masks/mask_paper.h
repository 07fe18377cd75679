// The printed sheet of one mask: its pieces true to size, its marks in words, the steps to lay it on, where
// to press, which cut-out is which, and cautions.
#pragma once

#include <QColor>
#include <QPageSize>
#include <QString>

#include "cut/piece.h"
#include "job/mask_sheet.h"

class QPagedPaintDevice;
class QPainter;

namespace nine::app {

struct MaskPaper {
    QString blank;
    MaskSheet words;
    std::vector<Piece> pieces;
    QColor material;
    QPageSize::PageSizeId paper = QPageSize::A4;
};

/// Draws it from page to page. Pieces are true to size; one that is larger than the page is drawn smaller,
/// which is said. `perMm` units of the painter are a millimetre.
void drawMaskPaper(QPagedPaintDevice& device, QPainter& p, const MaskPaper& paper, double perMm);

/// As a PDF. Errors: cannot_write.
Status writeMaskPaper(const MaskPaper& paper, const QString& path);

}  // namespace nine::app
