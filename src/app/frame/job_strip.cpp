#include "app/frame/job_strip.h"

#include <QFileInfo>
#include <QKeyEvent>
#include <QMenu>
#include <QMouseEvent>
#include <QPainter>
#include <QPainterPath>

#include "app/sheet/ink.h"
#include "app/sheet/units_text.h"

namespace nine::app {

JobStrip::JobStrip(JobDocument& document, ViewState& view, QWidget* parent)
    : QWidget(parent), document_(document), view_(view) {
    setFixedHeight(44);
    setAttribute(Qt::WA_OpaquePaintEvent);
    setFocusPolicy(Qt::TabFocus);
    setToolTip(tr("Click the name, or press F10, for the job's menu"));
    setAccessibleName(tr("Job"));
    connect(&document, &JobDocument::changed, this, [this] { update(); });
    connect(&document, &JobDocument::fileChanged, this, [this] { update(); });
    connect(&document.history(), &QUndoStack::indexChanged, this, [this] { update(); });
    connect(&view, &ViewState::changed, this, [this] { update(); });
}

QRectF JobStrip::sideBox(int index) const {
    static constexpr double widths[] = {44, 50, 48};
    double x = right() - 386;
    for (int i = 0; i < index; ++i) x += widths[i];
    return QRectF(x, 10, widths[index], 24);
}
QRectF JobStrip::unitsBox() const {
    return QRectF(right() - 222, 10, 42, 24);
}
QRectF JobStrip::undoBox(bool redo) const {
    return QRectF(right() - (redo ? 26 : 60), 8, 28, 28);
}

void JobStrip::paintEvent(QPaintEvent*) {
    // In one piece: one drawing; its parts share the scale.
    QPainter p(this);
    p.setRenderHint(QPainter::Antialiasing);
    const Tokens& t = tokens();
    p.fillRect(rect(), t.panel);
    p.setPen(QPen(t.line, 1));
    p.drawLine(QPointF(0, height() - 0.5), QPointF(width(), height() - 0.5));

    const Job& job = document_.job();
    const double room = sideBox(0).left() - 30;
    const QFont bold = inter(15, QFont::Bold);
    const QString blank =
        document_.empty() ? tr("No blank yet") : QString::fromStdString(job.get<BlankChapter>().name);
    const QString pattern = QString::fromStdString(job.get<PatternChapter>().name);
    const QFontMetricsF metrics(bold);
    const double share = pattern.isEmpty() ? room - 40 : 0.5 * (room - 100);
    const QString shownBlank = metrics.elidedText(blank, Qt::ElideRight, share);
    double x = 18;
    ink::text(p, QPointF(x, 28), shownBlank, bold, t.ink);
    x += metrics.horizontalAdvance(shownBlank) + 8;
    if (!pattern.isEmpty()) {
        ink::text(p, QPointF(x, 28), tr("wears"), inter(12), t.muted);
        x += QFontMetricsF(inter(12)).horizontalAdvance(tr("wears")) + 8;
        const QString shownPattern = metrics.elidedText(pattern, Qt::ElideRight, share);
        ink::text(p, QPointF(x, 28), shownPattern, bold, t.ink);
        x += metrics.horizontalAdvance(shownPattern) + 8;
    }
    p.setPen(QPen(t.ink, 1.3, Qt::SolidLine, Qt::RoundCap, Qt::RoundJoin));
    p.drawPolyline(QPolygonF{QPointF(x, 21), QPointF(x + 4, 25), QPointF(x + 8, 21)});
    nameBox_ = QRectF(12, 6, x + 4, 32);

    const QRectF all(sideBox(0).topLeft() - QPointF(2, 2), sideBox(2).bottomRight() + QPointF(2, 2));
    p.setPen(QPen(t.line, 1));
    p.setBrush(t.sheet);
    p.drawRoundedRect(all, 14, 14);
    const QStringList names{tr("Left"), tr("Both"), tr("Right")};
    for (int i = 0; i < 3; ++i) {
        const bool on = static_cast<int>(view_.sides()) == i;
        if (on) {
            p.setPen(Qt::NoPen);
            p.setBrush(t.ink);
            p.drawRoundedRect(sideBox(i), 12, 12);
        }
        ink::text(p, QPointF(sideBox(i).center().x(), 26.5), names[i],
                  inter(12, on ? QFont::DemiBold : QFont::Medium), on ? t.paper : t.ink, Qt::AlignHCenter);
    }
    const QRectF units = unitsBox();
    ink::text(p, QPointF(units.center().x(), 26.5), inches() ? tr("inch") : tr("mm"),
              inter(12, QFont::DemiBold), t.ink, Qt::AlignHCenter);
    p.setPen(QPen(t.accent, 1));
    p.drawLine(QPointF(units.left() + 7, 31), QPointF(units.right() - 7, 31));
    const QString state = document_.empty()            ? QString()
                          : document_.path().isEmpty() ? tr("not saved yet")
                          : document_.dirty()          ? tr("changed")
                                                       : tr("saved");
    ink::text(p, QPointF(right() - 72, 26.5), state, inter(11), t.muted, Qt::AlignRight);
    for (const bool redo : {false, true}) {
        const bool can = redo ? document_.history().canRedo() : document_.history().canUndo();
        const QPointF c = undoBox(redo).center();
        const double way = redo ? -1 : 1;
        p.setPen(QPen(can ? t.ink : t.line, 1.6, Qt::SolidLine, Qt::RoundCap, Qt::RoundJoin));
        p.setBrush(Qt::NoBrush);
        QPainterPath path(c + QPointF(-7 * way, -2));
        path.cubicTo(c + QPointF(0, -5), c + QPointF(8 * way, -3), c + QPointF(6 * way, 5));
        p.drawPath(path);
        p.drawPolyline(
            QPolygonF{c + QPointF(-2.5 * way, -7), c + QPointF(-7 * way, -2), c + QPointF(-2.5 * way, 2)});
    }
    if (hasFocus()) {
        p.setPen(QPen(t.select, 1.4));
        p.setBrush(Qt::NoBrush);
        p.drawRoundedRect(QRectF(rect()).adjusted(3, 3, -3, -4), 6, 6);
    }
}

void JobStrip::mousePressEvent(QMouseEvent* event) {
    const QPointF at = event->position();
    for (int i = 0; i < 3; ++i) {
        if (sideBox(i).contains(at)) view_.setSides(static_cast<Sides>(i));
    }
    if (unitsBox().contains(at)) emit unitsToggled();
    if (undoBox(false).contains(at)) document_.history().undo();
    if (undoBox(true).contains(at)) document_.history().redo();
    if (nameBox_.contains(at)) openMenu();
}

void JobStrip::openMenu() {
    if (menu_) menu_->popup(mapToGlobal(QPoint(12, height())));
}

void JobStrip::keyPressEvent(QKeyEvent* event) {
    const int side = static_cast<int>(view_.sides());
    switch (event->key()) {
        case Qt::Key_Left:
            return view_.setSides(static_cast<Sides>(std::max(0, side - 1)));
        case Qt::Key_Right:
            return view_.setSides(static_cast<Sides>(std::min(2, side + 1)));
        case Qt::Key_Space:
        case Qt::Key_Return:
        case Qt::Key_Down:
            return openMenu();
        default:
            QWidget::keyPressEvent(event);
    }
}

}  // namespace nine::app
