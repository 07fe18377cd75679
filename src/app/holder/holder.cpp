#include "app/holder/holder.h"

#include <QKeyEvent>
#include <QMouseEvent>
#include <QPainter>
#include <cmath>

#include "app/sheet/ink.h"

namespace nine::app {
namespace {

constexpr int kRest_ms = 120;
constexpr double kStep_rad = 5 * M_PI / 180;

}  // namespace

QImage toQImage(const Image& image) {
    if (image.pixels.empty()) return {};
    const QImage borrowed(reinterpret_cast<const uchar*>(image.pixels.data()), image.width, image.height,
                          QImage::Format_ARGB32_Premultiplied);
    return borrowed.copy();
}

Holder::Holder(QWidget* parent) : QWidget(parent) {
    setFocusPolicy(Qt::StrongFocus);
    setAttribute(Qt::WA_OpaquePaintEvent);
    setMinimumHeight(150);
    setAccessibleName(tr("Holder: the body in three dimensions"));
    setToolTip(tr("Drag or arrow keys turn the body; S shows the other side, H makes it larger"));
    rest_.setSingleShot(true);
    connect(&rest_, &QTimer::timeout, this, [this] { draw(false); });
}

void Holder::setBody(const BodyResult& body) {
    if (body_ == body.drawn && picture_ == body.picture) return;
    body_ = body.drawn;
    picture_ = body.picture;
    fittings_ = body.fittings ? body.fittings : noFittings();
    if (body.skin) {
        const Loft& loft = body.skin->loft();
        middle_ = Vec3(0.5 * (loft.noseX_mm() + loft.tailX_mm()), 0, 0);
        double top = 0, bottom = 0;
        for (const Station& s : loft.stations()) {
            top = std::max(top, s.top_mm);
            bottom = std::max(bottom, s.bottom_mm);
        }
        middle_.z() = 0.5 * (top - bottom);
        reach_mm_ = 0.5 * std::hypot(loft.tailX_mm() - loft.noseX_mm(), 0.6 * (top + bottom));
    }
    draw(true);
    rest_.start(kRest_ms);
}

void Holder::showBoth(bool both) {
    if (both == both_) return;
    both_ = both;
    draw(false);
}

void Holder::setCaption(const QString& caption) {
    caption_ = caption;
    update();
}

void Holder::pointOut(std::vector<PointOnBody> points) {
    points_ = std::move(points);
    update();
}

void Holder::paintPoints(QPainter& p) const {
    double y = 22;
    for (std::size_t i = 0; i < drawn_.bodies.size(); ++i) {
        const Image& image = drawn_.bodies[i].image;
        for (const PointOnBody& point : points_) {
            if (facing(drawn_.views[i], point.at) <= 0) continue;
            const Vec2 pixel = projected(drawn_.views[i], image.width, image.height, point.at.position);
            ink::pointOut(p, QPointF(pixel.x(), pixel.y()) / drawn_.ratio + QPointF(0, y), point.label);
        }
        y += image.height / drawn_.ratio;
    }
}

void Holder::turnTo(Stop stop) {
    yaw_ = stop == Stop::Nose ? M_PI / 2 : 0;
    pitch_ = stop == Stop::Back ? M_PI / 2 : stop == Stop::Belly ? -M_PI / 2 : 0;
    draw(false);
}

void Holder::turnToSide(Side side) {
    if (side == side_) return;  // whoever turned it by hand keeps the view
    side_ = side;
    yaw_ = side == Side::Left ? 0.35 : M_PI - 0.35;
    pitch_ = 0.22;
    draw(false);
}

View3 Holder::viewFor(double ratio) const {
    View3 view;
    view.yaw_rad = yaw_;
    view.pitch_rad = pitch_;
    view.target = middle_;
    view.distance_mm = 9 * reach_mm_;
    view.pixelsPerMm =
        ratio * std::min(width() / (2.25 * reach_mm_), (height() - 64.0) / bodies() / (1.25 * reach_mm_));
    return view;
}

void Holder::draw(bool moving) {
    if (!body_ || !picture_ || width() < 20) {
        images_.clear();
        update();
        return;
    }
    const double ratio = devicePixelRatioF();
    const int w = static_cast<int>(width() * ratio), h = static_cast<int>((height() - 44) * ratio / bodies());
    std::vector<View3> views{viewFor(ratio)};
    if (both_) {
        views.push_back(views.front());
        views.back().yaw_rad = M_PI - views.front().yaw_rad;  // the other side, mirrored
    }
    (moving ? resting_ : moving_).cancel();
    (moving ? moving_ : resting_)
        .request(
            [body = body_, picture = picture_, fittings = fittings_, views, w, h, ratio,
             moving](const Task& task) {
                Drawn drawn{{}, ratio, views};
                for (const View3& view : views)
                    drawn.bodies.push_back(
                        nine::render(body->mesh, *picture, *fittings, view, w, h, moving ? 1 : 2, task));
                return drawn;
            },
            [this](Drawn drawn) {
                drawn_ = std::move(drawn);
                images_.clear();
                for (const Rendered& rendered : drawn_.bodies) {
                    images_.push_back(toQImage(rendered.image));
                    images_.back().setDevicePixelRatio(drawn_.ratio);
                }
                update();
                emit redrawn();
            });
    if (moving) rest_.start(kRest_ms);
}

std::optional<SkinPoint> Holder::skinAt(const QPointF& at) const {
    if (!body_ || drawn_.bodies.empty() || at.y() < 22) return std::nullopt;
    const double tall = drawn_.bodies.front().image.height / drawn_.ratio;
    const auto which = static_cast<std::size_t>((at.y() - 22) / tall);
    if (which >= drawn_.bodies.size()) return std::nullopt;
    const Rendered& r = drawn_.bodies[which];
    const int x = static_cast<int>(at.x() * drawn_.ratio),
              y = static_cast<int>((at.y() - 22 - static_cast<double>(which) * tall) * drawn_.ratio);
    if (x < 0 || y < 0 || x >= r.image.width || y >= r.image.height) return std::nullopt;
    const Vec2 uv = r.texture[static_cast<std::size_t>(y * r.image.width + x)];
    if (uv.x() < 0) return std::nullopt;
    return body_->skinAt(uv);
}

QRectF Holder::stopBox(int index) const {
    return QRectF(16 + 43 * index, height() - 24, 40, 20);
}

void Holder::paintEvent(QPaintEvent*) {
    QPainter p(this);
    p.setRenderHint(QPainter::Antialiasing);
    const Tokens& t = tokens();
    p.fillRect(rect(), t.panel);
    p.setPen(QPen(t.line, 1));
    p.drawLine(QPointF(0, 0.5), QPointF(width(), 0.5));
    if (!images_.empty()) {
        // A soft shadow on the bench.
        QRadialGradient shadow(QPointF(0, 0), 1);
        shadow.setColorAt(0, QColor(0, 0, 0, t.dark ? 90 : 46));
        shadow.setColorAt(1, QColor(0, 0, 0, 0));
        p.save();
        p.translate(0.5 * width(), height() - 36);
        p.scale(0.40 * width(), 8);
        p.setPen(Qt::NoPen);
        p.setBrush(shadow);
        p.drawEllipse(QPointF(0, 0), 1, 1);
        p.restore();
        double y = 22;
        for (const QImage& image : images_) {
            p.drawImage(QPointF(0, y), image);
            y += image.height() / drawn_.ratio;
        }
    }
    paintPoints(p);
    ink::heading(p, QPointF(16, 20), tr("Holder"), caption_);
    const QStringList stops{tr("side"), tr("back"), tr("belly"), tr("nose")};
    for (int i = 0; i < 4; ++i) {
        const QRectF box = stopBox(i);
        ink::text(p, QPointF(box.left(), box.bottom() - 6), stops[i], inter(11.5, QFont::DemiBold), t.ink);
        p.setPen(QPen(t.line, 1));
        p.drawLine(box.bottomLeft() + QPointF(0, -2), box.bottomLeft() + QPointF(30, -2));
    }
    ink::text(p, QPointF(width() - 16, height() - 10), tr("H larger"), inter(11), t.muted, Qt::AlignRight);
    if (hasFocus()) {
        p.setPen(QPen(t.select, 1.4));
        p.setBrush(Qt::NoBrush);
        p.drawRoundedRect(QRectF(rect()).adjusted(2, 3, -2, -2), 6, 6);
    }
}

void Holder::mousePressEvent(QMouseEvent* event) {
    pressed_ = last_ = event->position();
    dragging_ = false;
    for (int i = 0; i < 4; ++i) {
        if (stopBox(i).contains(event->position())) turnTo(static_cast<Stop>(i));
    }
    if (QRectF(width() - 70, height() - 26, 70, 26).contains(event->position())) emit sizeToggleWanted();
}

void Holder::mouseMoveEvent(QMouseEvent* event) {
    if (!(event->buttons() & Qt::LeftButton)) return;
    const QPointF by = event->position() - last_;
    last_ = event->position();
    dragging_ = dragging_ || (last_ - pressed_).manhattanLength() > 3;
    if (!dragging_) return;
    yaw_ -= by.x() * 0.01;
    pitch_ = std::clamp(pitch_ + by.y() * 0.01, -M_PI / 2, M_PI / 2);
    draw(true);
}

void Holder::mouseReleaseEvent(QMouseEvent* event) {
    if (dragging_) return;
    if (const auto point = skinAt(event->position())) emit picked(*point);
}

void Holder::keyPressEvent(QKeyEvent* event) {
    switch (event->key()) {
        case Qt::Key_Left:
            yaw_ += kStep_rad;
            break;
        case Qt::Key_Right:
            yaw_ -= kStep_rad;
            break;
        case Qt::Key_Up:
            pitch_ = std::max(-M_PI / 2, pitch_ - kStep_rad);
            break;
        case Qt::Key_Down:
            pitch_ = std::min(M_PI / 2, pitch_ + kStep_rad);
            break;
        default:
            QWidget::keyPressEvent(event);
            return;
    }
    draw(true);
}

}  // namespace nine::app
