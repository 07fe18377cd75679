// The card that hangs at the bench while a stencil is sprayed: settings large enough to be read at arm's
// length, what to watch, and the cautions in the steps where they arise.
#pragma once

#include <QPainter>
#include <QSizeF>

#include "app/leaves/spray/spray_desk.h"

namespace nine::app {

inline constexpr QSizeF kSprayCard_mm{148, 210};  // A5

struct SprayCard {
    QString blank, pattern;
    SprayStudy study;
    double bodyLength_mm = 0;
    double secondPass_mm = 0;  ///< the sheet is moved so far for a second pass; 0: once
    QColor paint;
};

/// Draws the card with its upper left corner at 0, 0; `perMm` units of the painter are a millimetre.
void drawSprayCard(QPainter& p, const SprayCard& card, double perMm);

/// All cards as a PDF, a page each. Errors: cannot_write.
Status writeSprayCards(const std::vector<SprayCard>& cards, const QString& path);

}  // namespace nine::app
