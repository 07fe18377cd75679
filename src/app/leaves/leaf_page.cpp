#include "app/leaves/leaf_page.h"

#include <QKeyEvent>
#include <QMouseEvent>
#include <QPainter>
#include <QWheelEvent>
#include <algorithm>
#include <cmath>

#include "app/sheet/ink.h"

namespace nine::app {
namespace {

constexpr double kStep = 1.25;     // of a key or a notch of the wheel
constexpr double kSharpest = 2.5;  // pictures are made this much larger, not more
constexpr double kKeyMove_px = 60;
constexpr int kNotch = 120;  // of QWheelEvent

}  // namespace

LeafPage::LeafPage(LeafContext context) : context_(context) {
    setFocusPolicy(Qt::StrongFocus);
    setAttribute(Qt::WA_OpaquePaintEvent);
    connect(&context_.results, &Results::bodyChanged, this, &LeafPage::follow);
    connect(&context_.view, &ViewState::changed, this, &LeafPage::follow);
}

double LeafPage::sharpness() const {
    return devicePixelRatioF() * (zoom_ <= 1 ? 1 : zoom_ < 1.6 ? 1.6 : kSharpest);
}

void LeafPage::zoomTo(double zoom, const QPointF& round) {
    const QPointF page = toPage(round);
    zoom_ = std::clamp(zoom, 1.0, kMostZoom);
    if (zoom_ < 1.02) zoom_ = 1;
    shift_ = round - zoom_ * page;
    moveBy({});
    layOut();
}

void LeafPage::showAll() {
    zoomTo(1, {});
}

void LeafPage::moveBy(const QPointF& by) {
    // Something of the page is always in view, and nothing beside it.
    const QPointF least(width() * (1 - zoom_), height() * (1 - zoom_)), to = shift_ + by;
    shift_ = {std::clamp(to.x(), least.x(), 0.0), std::clamp(to.y(), least.y(), 0.0)};
    looked();
    update();
}

void LeafPage::resizeEvent(QResizeEvent*) {
    moveBy({});
    layOut();
}

QRectF LeafPage::badge() const {
    return {width() - 164.0, 8, 152, 24};
}

void LeafPage::paintEvent(QPaintEvent*) {
    const Tokens& t = tokens();
    QPainter p(this);
    p.setRenderHint(QPainter::Antialiasing);
    p.fillRect(rect(), t.paper);
    p.save();
    p.translate(shift_);
    p.scale(zoom_, zoom_);
    if (zoom_ > 1) p.setRenderHint(QPainter::SmoothPixmapTransform);
    paintPage(p);
    p.restore();
    if (zoom_ == 1) return;
    p.setPen(QPen(t.line, 1));
    p.setBrush(t.sheet);
    p.drawRoundedRect(badge(), 4, 4);
    ink::text(p, badge().center() + QPointF(0, 4), tr("%1 ×, show all: 0").arg(zoom_, 0, 'f', 1),
              inter(12, QFont::Medium), t.ink, Qt::AlignHCenter);
}

bool LeafPage::event(QEvent* event) {
    switch (event->type()) {
        case QEvent::Wheel: {
            auto* wheel = static_cast<QWheelEvent*>(event);
            const QPointF at = wheel->position();
            const double notches = wheel->angleDelta().y() / static_cast<double>(kNotch);
            if (notches == 0) break;
            if (!scrolls(toPage(at), notches > 0 ? -1 : 1)) zoomTo(zoom_ * std::pow(kStep, notches), at);
            wheel->accept();
            return true;
        }
        case QEvent::MouseButtonPress:
        case QEvent::MouseButtonDblClick:
        case QEvent::MouseMove:
        case QEvent::MouseButtonRelease: {
            auto* mouse = static_cast<QMouseEvent*>(event);
            if (lookMouse(*mouse)) return true;
            if (zoom_ == 1) break;
            QMouseEvent there(mouse->type(), toPage(mouse->position()), mouse->globalPosition(),
                              mouse->button(), mouse->buttons(), mouse->modifiers());
            const bool done = QWidget::event(&there);
            mouse->setAccepted(there.isAccepted());
            return done;
        }
        case QEvent::KeyPress:
            if (lookKey(*static_cast<QKeyEvent*>(event))) return true;
            break;
        case QEvent::KeyRelease: {
            const auto* key = static_cast<QKeyEvent*>(event);
            if (key->key() != Qt::Key_Space || key->isAutoRepeat()) break;
            if (!std::exchange(space_, false)) return true;
            // Nothing was moved with it: it means what it means on this page.
            QKeyEvent meant(QEvent::KeyPress, Qt::Key_Space, key->modifiers(), " ");
            keyPressEvent(&meant);
            return true;
        }
        case QEvent::FocusOut:
            space_ = false;
            break;
        default:
            break;
    }
    return QWidget::event(event);
}

bool LeafPage::lookMouse(QMouseEvent& mouse) {
    const QPointF at = mouse.position();
    if (movedFrom_) {
        if (mouse.type() == QEvent::MouseMove) moveBy(at - *movedFrom_);
        movedFrom_ = at;
        const bool held = mouse.buttons() & (Qt::MiddleButton | Qt::LeftButton);
        if (mouse.type() == QEvent::MouseButtonRelease && !held) {
            movedFrom_.reset();
            unsetCursor();
        }
        return true;
    }
    if (mouse.type() != QEvent::MouseButtonPress) return false;
    if (zoom_ > 1 && mouse.button() == Qt::LeftButton && badge().contains(at)) {
        showAll();
        return true;
    }
    if (mouse.button() != Qt::MiddleButton && !(mouse.button() == Qt::LeftButton && space_)) return false;
    movedFrom_ = at;
    space_ = false;
    setCursor(Qt::ClosedHandCursor);
    return true;
}

bool LeafPage::lookKey(const QKeyEvent& key) {
    const QPointF middle(0.5 * width(), 0.5 * height());
    switch (key.key()) {
        case Qt::Key_Plus:
        case Qt::Key_Equal:
            zoomTo(zoom_ * kStep, middle);
            return true;
        case Qt::Key_Minus:
            zoomTo(zoom_ / kStep, middle);
            return true;
        case Qt::Key_0:
            showAll();
            return true;
        case Qt::Key_Space:
            if (!key.isAutoRepeat()) space_ = true;
            return true;
        default:
            break;
    }
    if (!(key.modifiers() & Qt::ControlModifier)) return false;
    QPointF by;
    if (key.key() == Qt::Key_Left) by.setX(kKeyMove_px);
    if (key.key() == Qt::Key_Right) by.setX(-kKeyMove_px);
    if (key.key() == Qt::Key_Up) by.setY(kKeyMove_px);
    if (key.key() == Qt::Key_Down) by.setY(-kKeyMove_px);
    if (by.isNull()) return false;
    moveBy(by);
    return true;
}

}  // namespace nine::app
