// Hand-drafted parts shared by all drawings: dimension lines, flags, leaders, landmarks, rulers, legends.
// Coordinates are pixels of the widget.
#pragma once

#include <QPainter>
#include <QRectF>
#include <QString>
#include <functional>

#include "app/theme/theme.h"

namespace nine::app::ink {

enum class Severity { Note, Caution, Fault };

/// Title in bold with a muted remark beside it; returns the width used.
double heading(QPainter& p, const QPointF& at, const QString& title, const QString& remark);

/// A dimension line between two points with its value in the middle, standing on the paper. Returns the
/// value's box.
QRectF dimension(QPainter& p, const QPointF& from, const QPointF& to, const QString& value,
                 bool selected = false);

/// Text with a leader to `target`; the text starts at `at` (left, middle), or ends there if `rightAligned`.
void leader(QPainter& p, const QPointF& target, const QPointF& at, const QString& text,
            bool rightAligned = false);

void stationPoint(QPainter& p, const QPointF& at, bool selected);
void diamond(QPainter& p, const QPointF& at, double half, const QColor& outline);

/// A flag whose foot stands on the exact place.
void flag(QPainter& p, const QPointF& foot, Severity severity, int number, bool toLeft = false);
/// The flag's shape alone, for the tell-tale line and cards; 17 px wide.
void flagShape(QPainter& p, const QPointF& upperLeft, Severity severity, const QString& number);
/// A ring with a letter or number in it, to be seen on any paint.
void pointOut(QPainter& p, const QPointF& centre, const QString& label);
void tick(QPainter& p, const QPointF& centre);
QColor colourOf(Severity severity);

/// A ruler along the bottom, 0 at `left`; `perMm` pixels.
void ruler(QPainter& p, const QPointF& left, double length_mm, double perMm);

/// A ramp with its end values and unit.
void legend(QPainter& p, const QRectF& bar, Ramp ramp, const QString& from, const QString& middle,
            const QString& to);

double widthOf(const QString& words, const QFont& font);

/// All words drawn on pages go through here.
void text(QPainter& p, const QPointF& baseline, const QString& words, const QFont& font, const QColor& colour,
          Qt::Alignment alignment = Qt::AlignLeft);

/// Called with each text as it is drawn and the box it fills, in pixels of the widget; for checks of the
/// interface. An empty function takes it away.
using Witness = std::function<void(const QPainter& p, const QString& words, const QRectF& box)>;
void setWitness(Witness witness);

}  // namespace nine::app::ink
