#include "app/sheet/body_view.h"

#include <cmath>

#include "app/holder/holder.h"
#include "app/theme/theme.h"

namespace nine::app {
namespace {

constexpr int kOutlineSteps = 120;
constexpr double kManyPixels = 2;  // of the screen for one of the page
constexpr int kRest_ms = 120;      // two samples a pixel each way once nothing has moved for so long

/// x more closely spaced towards both ends, where round noses are steep.
double stepX(const Loft& loft, int i) {
    const double t = 0.5 - 0.5 * std::cos(M_PI * i / kOutlineSteps);
    return loft.noseX_mm() + t * (loft.tailX_mm() - loft.noseX_mm());
}

struct Extent {
    double above = 0, below = 0, wide = 0;
};

Extent extentOf(const Loft& loft, BodyView::From from) {
    Extent e;
    for (int i = 0; i <= kOutlineSteps; ++i) {
        const Section s = loft.sectionAt(stepX(loft, i));
        e.above = std::max(e.above, from == BodyView::From::Above ? s.halfWidth_mm : s.top_mm);
        e.below = std::max(e.below, from == BodyView::From::Above ? s.halfWidth_mm : s.bottom_mm);
        e.wide = std::max(e.wide, s.halfWidth_mm);
    }
    return e;
}

}  // namespace

BodyView::BodyView(From from, QObject* parent) : QObject(parent), from_(from) {
    rest_.setSingleShot(true);
    rest_.setInterval(kRest_ms);
    connect(&rest_, &QTimer::timeout, this, [this] { draw(false); });
}

double BodyView::fittingScale(const Skin& skin, From from, const QSizeF& box) {
    const Extent e = extentOf(skin.loft(), from);
    const double long_mm = from == From::Ahead ? 2 * e.wide : skin.length_mm();
    return std::min(box.width() / long_mm, box.height() / (e.above + e.below));
}

View3 BodyView::view3() const {
    View3 view;
    view.yaw_rad = from_ == From::Ahead ? M_PI / 2 : side_ == Side::Right && from_ == From::Along ? M_PI : 0;
    view.pitch_rad = from_ == From::Above ? M_PI / 2 : 0;
    view.target = middle_;
    view.pixelsPerMm = perMm_ * ratio_;
    return view;
}

void BodyView::place(const BodyResult& body, const QRectF& box, double perMm, Side side, double ratio,
                     bool painted, bool shaded) {
    if (!body.skin) return;
    const auto& picture = painted ? body.picture : body.bare;
    const double scale = perMm > 0 ? perMm : fittingScale(*body.skin, from_, box.size());
    const bool same = skin_ == body.skin && drawn_ == body.drawn && picture_ == picture && box == box_ &&
                      scale == perMm_ && side == side_ && ratio == ratio_ && shaded == shaded_;
    if (same) return;
    skin_ = body.skin;
    drawn_ = body.drawn;
    picture_ = picture;
    fittings_ = body.fittings && painted ? body.fittings : noFittings();
    box_ = box;
    perMm_ = scale;
    side_ = side;
    ratio_ = ratio;
    shaded_ = shaded;
    const Loft& loft = skin_->loft();
    const Extent e = extentOf(loft, from_);
    middle_ = Vec3(0.5 * (loft.noseX_mm() + loft.tailX_mm()), 0,
                   from_ == From::Above ? 0 : 0.5 * (e.above - e.below));

    QPolygonF top, bottom;
    for (int i = 0; i <= kOutlineSteps; ++i) {
        const double x = stepX(loft, i);
        const Section s = loft.sectionAt(x);
        top << at(x, from_ == From::Along ? s.top_mm : s.halfWidth_mm);
        bottom.prepend(at(x, from_ == From::Along ? -s.bottom_mm : -s.halfWidth_mm));
    }
    outline_ = {};
    if (from_ == From::Ahead) {  // the sections one behind the other
        outline_ = silhouette();
    } else {
        outline_.addPolygon(top + bottom);
        outline_.closeSubpath();
    }

    ++places_;
    draw(true);
    rest_.start();
}

/// Seen from ahead: in each direction as far as the largest section there.
QPainterPath BodyView::silhouette() const {
    constexpr int kDirections = 96;
    QPolygonF ring;
    for (int k = 0; k < kDirections; ++k) {
        const double angle = 2 * M_PI * k / kDirections, c = std::cos(angle), s = std::sin(angle);
        double reach = 0;
        for (int i = 1; i < kOutlineSteps; i += 3) {
            const Section section = skin_->loft().sectionAt(stepX(skin_->loft(), i));
            const double high = s >= 0 ? section.top_mm : section.bottom_mm;
            const double n = s >= 0 ? section.exponentUpper : section.exponentLower;
            const double r = std::pow(std::pow(std::abs(c) / std::max(1e-6, section.halfWidth_mm), n) +
                                          std::pow(std::abs(s) / std::max(1e-6, high), n),
                                      -1 / n);
            reach = std::max(reach, r);
        }
        ring << at(reach * c, reach * s);
    }
    QPainterPath path;
    path.addPolygon(ring);
    path.closeSubpath();
    return path;
}

/// While something moves, a quarter of the pixels; at rest four samples in each, unless there are so many
/// pixels already that one will do.
void BodyView::draw(bool moving) {
    const double ratio = moving ? 0.5 * ratio_ : ratio_;
    const int w = static_cast<int>(box_.width() * ratio), h = static_cast<int>(box_.height() * ratio);
    if (w < 4 || h < 4) return;
    View3 view = view3();
    view.pixelsPerMm *= ratio / ratio_;
    view.shaded = shaded_;
    // What was drawn in motion is shown even when it comes late; on a busy machine it is all there is for
    // long.
    if (moving) resting_.cancel();
    (moving ? moving_ : resting_)
        .request(
            [drawn = drawn_, picture = picture_, fittings = fittings_, view, w, h, whole = ratio_, moving,
             samples = moving || ratio_ >= kManyPixels ? 1 : 2](const Task& task) {
                QImage image =
                    toQImage(render(drawn->mesh, *picture, *fittings, view, w, h, samples, task).image);
                // Made as large as it is shown here, not each time it is painted.
                if (moving && !image.isNull())
                    image = image.scaled(2 * image.size(), Qt::IgnoreAspectRatio, Qt::SmoothTransformation);
                image.setDevicePixelRatio(whole);
                return image;
            },
            [this, box = box_, scale = perMm_, moving, place = places_](QImage image) {
                if (image.isNull() || (moving && restsAt_ == place)) return;
                if (!moving) restsAt_ = place;
                image_ = std::move(image);
                imageBox_ = box;
                imagePerMm_ = scale;
                emit redrawn();
            });
}

QPointF BodyView::at(const Vec3& point) const {
    const Vec2 p = projected(view3(), static_cast<int>(box_.width() * ratio_),
                             static_cast<int>(box_.height() * ratio_), point);
    return box_.topLeft() + QPointF(p.x(), p.y()) / ratio_;
}

QPointF BodyView::at(double x, double other) const {
    if (from_ == From::Ahead) return at(Vec3(middle_.x(), x, other));
    return at(from_ == From::Along ? Vec3(x, 0, other) : Vec3(x, other, 0));
}

Vec2 BodyView::bodyAt(const QPointF& pixel) const {
    // The views are orthographic: two known points give the whole map.
    const QPointF origin = at(0, 0), one = at(1, 1);
    return {(pixel.x() - origin.x()) / (one.x() - origin.x()),
            (pixel.y() - origin.y()) / (one.y() - origin.y())};
}

bool BodyView::faces(const SurfacePoint& point) const {
    return facing(view3(), point) > 0;
}

void BodyView::paint(QPainter& p) const {
    if (!image_.isNull() && imageBox_ == box_ && imagePerMm_ == perMm_) {
        p.drawImage(box_.topLeft(), image_);
    } else if (!image_.isNull() && imagePerMm_ > 0) {  // of the place before: until the new one is drawn
        QRectF fitted(QPointF(), imageBox_.size() * (perMm_ / imagePerMm_));
        fitted.moveCenter(box_.center());
        p.drawImage(fitted, image_);
    }
    p.setPen(
        QPen(tokens().ink, 1.5, Qt::SolidLine, Qt::FlatCap, Qt::BevelJoin));  // round joins cost most of it
    p.setBrush(Qt::NoBrush);
    p.drawPath(outline_);
}

}  // namespace nine::app
