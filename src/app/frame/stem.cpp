#include "app/frame/stem.h"

#include <QCoreApplication>
#include <QHelpEvent>
#include <QKeyEvent>
#include <QPainter>
#include <QPainterPath>
#include <QToolTip>
#include <algorithm>
#include <cmath>

#include "app/leaves/leaves.h"
#include "app/sheet/ink.h"

namespace nine::app {
namespace {

/// Leaflet coordinates: along from its base (0) to its tip (1), across towards its belly, in lengths.
struct LeafFrame {
    QPointF base, along, across;
    QPointF at(double a, double b) const { return base + a * along + b * across; }
};

QPainterPath outline(const LeafFrame& f) {
    QPainterPath path(f.at(0, 0));
    path.cubicTo(f.at(0.115, -0.238), f.at(0.529, -0.321), f.at(1, 0));
    path.cubicTo(f.at(0.575, 0.281), f.at(0.161, 0.256), f.at(0, 0));
    return path;
}

QPainterPath lowerHalf(const LeafFrame& f) {
    QPainterPath path(f.at(0, 0));
    path.lineTo(f.at(1, 0));
    path.cubicTo(f.at(0.575, 0.281), f.at(0.161, 0.256), f.at(0, 0));
    return path;
}

}  // namespace

Stem::Stem(QWidget* parent) : QWidget(parent) {
    setFixedWidth(132);
    setFocusPolicy(Qt::StrongFocus);
    setAccessibleName(tr("Leaves of the job"));
    for (const LeafPlace& place : leafPlaces()) {
        entries_.emplace_back();
        entries_.back().name = QCoreApplication::translate("leaf", place.name);
    }
}

void Stem::setEntry(int index, const LeafEntry& entry) {
    LeafEntry named = entry;
    LeafEntry& shown = entries_[static_cast<std::size_t>(index)];
    named.name = shown.name;
    if (named == shown) return;
    shown = named;
    setAccessibleDescription(spokenName(current_));
    update();
}

void Stem::setCurrent(int index) {
    current_ = focus_ = index;
    setAccessibleDescription(spokenName(index));
    update();
}

QString Stem::spokenName(int index) const {
    const LeafEntry& e = entry(index);
    QString state = tr("nothing yet");
    if (e.state == LeafState::Repair)
        state = tr("to repair, %n flag(s)", nullptr, e.flags);
    else if (e.state == LeafState::Ready)
        state = tr("ready");
    else if (e.state == LeafState::Begun)
        state = tr("begun");
    return QString("%1 %2, %3").arg(index + 1).arg(e.name, state);
}

QPointF Stem::stemAt(double y) const {
    return {66 + 3.6 * std::sin(2 * M_PI * (y - 40) / (height() - 40)), y};
}

int Stem::rowAt(double y) const {
    const int row = static_cast<int>(std::floor((y - 64) / rowHeight()));
    return row >= 0 && row < leafCount() ? row : -1;
}

void Stem::paintEvent(QPaintEvent*) {
    QPainter p(this);
    p.setRenderHint(QPainter::Antialiasing);
    const Tokens& t = tokens();
    p.fillRect(rect(), t.panel);
    ink::text(p, QPointF(66, 18), tr("Nine Leaves"), inter(12, QFont::DemiBold), t.ink, Qt::AlignHCenter);

    // The open row runs into the page.
    const QRectF open(6, rowTop(current_) + 2, width() - 6, rowHeight() - 2);
    QPainterPath row;
    row.setFillRule(Qt::WindingFill);
    row.addRoundedRect(open, 6, 6);
    row.addRect(open.adjusted(20, 0, 0, 0));
    p.fillPath(row, t.paper);
    p.setPen(QPen(t.line, 1));
    p.drawLine(QPointF(width() - 0.5, 0), QPointF(width() - 0.5, open.top()));
    p.drawLine(QPointF(width() - 0.5, open.bottom()), QPointF(width() - 0.5, height()));
    if (hasFocus()) {
        p.setPen(QPen(t.select, 1.4));
        p.setBrush(Qt::NoBrush);
        p.drawRoundedRect(QRectF(4, rowTop(focus_) + 2, width() - 10, rowHeight() - 4), 6, 6);
    }

    // One tapering stroke.
    const double end = rowTop(8) + 0.5 * rowHeight();
    QPolygonF left, right;
    for (double y = 26; y <= end; y += 4) {
        const double half = 0.5 * (7 + (1.5 - 7) * (y - 26) / (end - 26));
        left << stemAt(y) - QPointF(half, 0);
        right.prepend(stemAt(y) + QPointF(half, 0));
    }
    p.setPen(Qt::NoPen);
    p.setBrush(t.accent);
    p.drawPolygon(left + right);
    for (int i = 0; i < leafCount(); ++i) paintLeaflet(p, i, i == current_ ? t.paper : t.panel);
}

void Stem::paintLeaflet(QPainter& p, int index, const QColor& ground) const {
    // In one piece: one drawing; its parts share the scale.
    const Tokens& t = tokens();
    const LeafEntry& e = entry(index);
    const bool onLeft = index % 2 == 0, last = index == leafCount() - 1;
    const double row = rowHeight(), centre = rowTop(index) + 0.5 * row;
    const QPointF node = stemAt(centre - 9);
    const double length = std::min(55.0, 0.80 * row), degrees = last ? 97 : 24;
    const double angle = degrees * M_PI / 180;
    const QPointF unit(onLeft && !last ? -std::cos(angle) : std::cos(angle), std::sin(angle));
    const double side = onLeft && !last ? -1 : 1;
    // The belly is on the lower side. Lengths across are in leaflet lengths.
    LeafFrame f{node + 6.5 * unit, length * 0.87 * unit,
                length * 0.87 * QPointF(-unit.y() * side, unit.x() * side)};
    if (last) f = {node + QPointF(0, 4), length * 0.8 * unit, length * 0.8 * QPointF(-unit.y(), unit.x())};

    const QColor colour = e.state == LeafState::Nothing  ? t.muted
                          : e.state == LeafState::Repair ? t.caution
                                                         : t.accent;
    p.setPen(QPen(colour, 1.7, Qt::SolidLine, Qt::RoundCap));
    p.drawLine(node, f.base);
    const QPainterPath shape = outline(f);
    p.save();
    if (e.state == LeafState::Repair) {  // two bites out of the lower edge
        QPainterPath bites;
        bites.addEllipse(f.at(0.48, 0.255), 0.085 * length, 0.085 * length);
        bites.addEllipse(f.at(0.66, 0.20), 0.075 * length, 0.075 * length);
        QPainterPath all;
        all.addRect(QRectF(rect()));
        p.setClipPath(all.subtracted(bites));
    }
    const bool filled = e.state == LeafState::Ready || e.state == LeafState::Repair;
    p.setPen(QPen(colour, 1.35, Qt::SolidLine, Qt::RoundCap, Qt::RoundJoin));
    p.setBrush(filled ? colour : ground);
    p.drawPath(shape);
    if (e.state == LeafState::Begun) {
        p.setPen(Qt::NoPen);
        p.setBrush(colour);
        p.drawPath(lowerHalf(f));
    }
    p.setPen(QPen(filled ? ground : colour, 1.0));
    p.drawLine(f.at(0, 0), f.at(filled ? 0.885 : 0.84, 0));
    if (filled || e.state == LeafState::Begun) {
        for (const double a : {0.172, 0.345, 0.517, 0.678}) {
            p.setPen(QPen(filled ? ground : colour, 0.85));
            p.drawLine(f.at(a, 0), f.at(a + 0.15, -0.14 + 0.05 * a));
            p.setPen(QPen(ground, 0.85));
            p.drawLine(f.at(a, 0), f.at(a + 0.15, 0.145 - 0.05 * a));
        }
    }
    p.restore();
    if (index == current_) {
        p.setPen(QPen(t.ink, 1.2));
        p.setBrush(Qt::NoBrush);
        const LeafFrame wide{f.base - 0.06 * f.along, 1.13 * f.along, 1.22 * f.across};
        p.drawPath(outline(wide));
    }

    // Names stand opposite the leaflet; numbers climb the stem like nodes.
    const double x = onLeft ? stemAt(centre).x() + 11 : stemAt(centre).x() - 11;
    const Qt::Alignment nameSide = onLeft ? Qt::AlignLeft : Qt::AlignRight;
    ink::text(p, QPointF(x, centre - 8), QString::number(index + 1), inter(10.5), t.muted, nameSide);
    ink::text(p, QPointF(x, centre + 7), e.name, inter(13.5, index == current_ ? QFont::Bold : QFont::Medium),
              t.ink, nameSide);
    if (e.state == LeafState::Repair && e.flags > 0) {
        const QPointF at(onLeft ? x + 12 : x - 34, centre - 22);
        ink::flagShape(p, at, e.fault ? ink::Severity::Fault : ink::Severity::Caution,
                       QString::number(e.flags));
    }
}

void Stem::mousePressEvent(QMouseEvent* event) {
    const int row = rowAt(event->position().y());
    if (row >= 0) emit chosen(row);
}

void Stem::keyPressEvent(QKeyEvent* event) {
    const auto step = [&](int way) {
        focus_ = std::clamp(focus_ + way, 0, leafCount() - 1);
        update();
    };
    switch (event->key()) {
        case Qt::Key_Down:
            step(1);
            break;
        case Qt::Key_Up:
            step(-1);
            break;
        case Qt::Key_Return:
        case Qt::Key_Enter:
        case Qt::Key_Space:
            emit chosen(focus_);
            break;
        default:
            QWidget::keyPressEvent(event);
    }
}

bool Stem::event(QEvent* event) {
    if (event->type() == QEvent::ToolTip) {
        const auto* help = static_cast<QHelpEvent*>(event);
        const int row = rowAt(help->pos().y());
        if (row >= 0)
            QToolTip::showText(help->globalPos(), spokenName(row) + QString(" (Alt+%1)").arg(row + 1), this);
        return true;
    }
    return QWidget::event(event);
}

}  // namespace nine::app
