#include "app/leaves/pattern/mark_pictures.h"

#include <QColor>
#include <QPainter>
#include <QPainterPath>
#include <cmath>

namespace nine::app {
namespace {

constexpr int kRatio = 2;
constexpr double kMargin_px = 3;
constexpr double kShown_mm = 36;  // of the plain body, for what has no outlines

QImage pictureOf(const ElementArt& art) {
    QImage image(kRatio * MarkPictures::kSize, QImage::Format_ARGB32_Premultiplied);
    image.setDevicePixelRatio(kRatio);
    image.fill(Qt::transparent);
    const double wide = MarkPictures::kSize.width(), high = MarkPictures::kSize.height();
    if (!art.passes.empty() && art.passes.front().cover) {
        const SoftCover& cover = art.passes.front().cover;
        const double perMm = wide / kShown_mm;
        for (int y = 0; y < image.height(); ++y) {
            for (int x = 0; x < image.width(); ++x) {
                const double along = 12 + (x + 0.5) / kRatio / perMm;
                const double g = (0.5 * high - (y + 0.5) / kRatio) / perMm;
                const int alpha = static_cast<int>(255 * std::clamp(cover(along, g), 0.0, 1.0));
                image.setPixelColor(x, y, QColor(255, 255, 255, alpha));
            }
        }
        return image;
    }
    if (art.outlines().empty()) return image;
    const Vec2 middle = 0.5 * (art.low + art.high), size = art.high - art.low;
    const double scale = std::min((wide - 2 * kMargin_px) / size.x(), (high - 2 * kMargin_px) / size.y());
    QPainter p(&image);
    p.setRenderHint(QPainter::Antialiasing);
    p.setPen(Qt::NoPen);
    for (const Pass& pass : art.passes) {
        QPainterPath path;
        path.setFillRule(Qt::WindingFill);
        for (const Outline& outline : pass.outlines) {
            QPolygonF polygon;
            for (const Vec2& v : outline.skin)
                polygon << QPointF(0.5 * wide + scale * (v.x() - middle.x()),
                                   0.5 * high - scale * (v.y() - middle.y()));
            path.addPolygon(polygon);
            path.closeSubpath();
        }
        p.setBrush(QColor(255, 255, 255, static_cast<int>(255 * pass.strength)));
        p.drawPath(path);
    }
    return image;
}

MarkPictures::Pictures ofAllKinds() {
    MarkPictures::Pictures all;
    for (const Kind* kind : kinds()) {
        if (const Result<ElementArt> art = thumbnailOf(*kind)) all[kind] = pictureOf(*art);
    }
    return all;
}

}  // namespace

MarkPictures::MarkPictures(QObject* parent) : QObject(parent) {
    slot_.request(
        [](const Task&) {
            static const Pictures all = ofAllKinds();  // the same for every window
            return all;
        },
        [this](Pictures all) {
            pictures_ = std::move(all);
            emit drawn();
        });
}

QImage MarkPictures::of(const Kind& kind) const {
    const auto found = pictures_.find(&kind);
    return found == pictures_.end() ? QImage() : found->second;
}

QImage MarkPictures::of(const Kind& kind, const QColor& colour) const {
    QImage image = of(kind);
    if (image.isNull()) return image;
    QPainter p(&image);
    p.setCompositionMode(QPainter::CompositionMode_SourceIn);
    p.fillRect(QRect(QPoint(0, 0), kSize), colour);
    return image;
}

}  // namespace nine::app
