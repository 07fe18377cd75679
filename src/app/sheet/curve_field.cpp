#include "app/sheet/curve_field.h"

#include <QKeyEvent>
#include <QMouseEvent>
#include <QPainter>
#include <QPainterPath>
#include <algorithm>
#include <cmath>

#include "app/sheet/ink.h"
#include "app/sheet/units_text.h"

namespace nine::app {
namespace {

constexpr int kHeight = 78, kSteps = 48;
constexpr double kLeft = 44, kReach = 12, kStep_mm = 0.1;

double shareOf(CurveField::Point point) {
    return 0.5 * static_cast<int>(point);
}

}  // namespace

CurveField::CurveField(const QString& name, Shape shape, QWidget* parent)
    : QWidget(parent), shape_(std::move(shape)) {
    setAccessibleName(name);
    setFocusPolicy(Qt::StrongFocus);
    setFixedHeight(kHeight);
    setToolTip(tr("Drag a point up or down."));
}

QSize CurveField::sizeHint() const {
    return {240, kHeight};
}

void CurveField::setRun(Run run) {
    run_ = std::move(run);
    if (!held_) fit();
    say();
    update();
}

void CurveField::say() {
    setAccessibleDescription(tr("%1 at the %2, %3 in the middle, %4 at the %5")
                                 .arg(lengthText(run_(0), 2), shape_.from, lengthText(run_(0.5), 2),
                                      lengthText(run_(1), 2), shape_.to));
}

QRectF CurveField::box() const {
    return QRectF(kLeft, 8, width() - kLeft - 10, kHeight - 30);
}

void CurveField::fit() {
    double low = 0, high = 0;
    for (int k = 0; k <= kSteps; ++k) {
        const double v = run_(static_cast<double>(k) / kSteps);
        low = std::min(low, v);
        high = std::max(high, v);
    }
    if (shape_.widths) {
        low_ = 0;
        high_ = std::max(0.1, 1.4 * high);
        return;
    }
    const double room = std::max(1.0, 0.35 * (high - low));
    low_ = low - room;
    high_ = high + room;
}

double CurveField::pixelOf(double mm) const {
    const QRectF b = box();
    return b.bottom() - (mm - low_) / (high_ - low_) * b.height();
}

double CurveField::valueAt(double y) const {
    const QRectF b = box();
    return low_ + (b.bottom() - y) / b.height() * (high_ - low_);
}

QPointF CurveField::placeOf(Point point) const {
    const QRectF b = box();
    const Run& run = held_ ? held_run_ : run_;
    const double y = pixelOf(run(shareOf(point)));
    return {b.left() + shareOf(point) * b.width(), std::clamp(y, b.top() - 2, b.bottom() + 2)};
}

void CurveField::paintEvent(QPaintEvent*) {
    if (!run_) return;
    QPainter p(this);
    p.setRenderHint(QPainter::Antialiasing);
    const Tokens& t = tokens();
    const QRectF b = box();
    p.setPen(QPen(t.line, 1));
    p.drawLine(b.topLeft(), b.bottomLeft());
    const double zero = std::clamp(pixelOf(0), b.top(), b.bottom());
    p.drawLine(QPointF(b.left(), zero), QPointF(b.right(), zero));
    const Run& run = held_ ? held_run_ : run_;
    QPainterPath path;
    for (int k = 0; k <= kSteps; ++k) {
        const double s = static_cast<double>(k) / kSteps;
        const QPointF at(b.left() + s * b.width(), std::clamp(pixelOf(run(s)), 0.0, b.bottom() + 4));
        k == 0 ? path.moveTo(at) : path.lineTo(at);
    }
    if (shape_.widths) {
        QPainterPath area = path;
        area.lineTo(b.right(), zero);
        area.lineTo(b.left(), zero);
        QColor soft = t.select;
        soft.setAlpha(28);
        p.fillPath(area, soft);
    }
    p.setPen(QPen(t.select, 1.4));
    p.setBrush(Qt::NoBrush);
    p.drawPath(path);
    const QFont small = inter(10.5);
    for (const Point point : {First, Middle, Last}) {
        if (!shape_.movable[point]) continue;
        const bool chosen = held_ ? *held_ == point : hasFocus() && chosen_ == point;
        const QPointF at = placeOf(point);
        if (point == Middle) {
            ink::diamond(p, at, chosen ? 7 : 5.5, t.select);
        } else {
            p.setPen(QPen(t.select, 1.2));
            p.setBrush(t.sheet);
            p.drawEllipse(at, chosen ? 5.5 : 4, chosen ? 5.5 : 4);
        }
    }
    // Values of the two ends beside their heights, the middle's only while it is held.
    ink::text(p, QPointF(b.left() - 6, std::clamp(pixelOf(run(0)) + 4, 12.0, b.bottom() + 4)),
              lengthNumber(run(0), 2), small, t.muted, Qt::AlignRight);
    if (held_)
        ink::text(p, QPointF(b.center().x(), height() - 6), lengthText(run(shareOf(*held_)), 2),
                  inter(11, QFont::Bold), t.select, Qt::AlignHCenter);
    ink::text(p, QPointF(b.left(), height() - 6), shape_.from, small, t.muted);
    ink::text(p, QPointF(b.right(), height() - 6), QString("%1 %2").arg(shape_.to, lengthText(run(1), 2)),
              small, t.muted, Qt::AlignRight);
}

void CurveField::mousePressEvent(QMouseEvent* event) {
    for (const Point point : {Middle, First, Last}) {
        if (!shape_.movable[point]) continue;
        const QPointF off = event->position() - placeOf(point);
        if (std::hypot(off.x(), off.y()) > kReach) continue;
        held_run_ = run_;
        held_ = chosen_ = point;
        update();
        return;
    }
}

void CurveField::mouseMoveEvent(QMouseEvent* event) {
    if (!held_) return;
    held_run_ = shape_.with(*held_, valueAt(event->position().y()));
    update();
}

void CurveField::mouseReleaseEvent(QMouseEvent* event) {
    if (!held_) return;
    const Point point = *held_;
    const bool changed = std::abs(held_run_(shareOf(point)) - run_(shareOf(point))) > 1e-9;
    const double mm = std::round(100 * valueAt(event->position().y())) / 100;
    held_.reset();
    update();
    if (changed) emit moved(point, mm);
}

void CurveField::keyPressEvent(QKeyEvent* event) {
    const int key = event->key();
    if (key == Qt::Key_Left || key == Qt::Key_Right) {
        for (int next = chosen_ + (key == Qt::Key_Right ? 1 : -1); next >= First && next <= Last;
             next += key == Qt::Key_Right ? 1 : -1)
            if (shape_.movable[next]) {
                chosen_ = static_cast<Point>(next);
                break;
            }
        return update();
    }
    if (key == Qt::Key_Up || key == Qt::Key_Down) {
        const double now = run_(shareOf(chosen_));
        emit moved(chosen_, std::round(100 * (now + (key == Qt::Key_Up ? kStep_mm : -kStep_mm))) / 100);
        return;
    }
    if (key == Qt::Key_Escape && held_) {
        held_.reset();
        return update();
    }
    QWidget::keyPressEvent(event);
}

}  // namespace nine::app
