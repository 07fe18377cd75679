#include "app/leaves/blank/blank_layers.h"

#include <QPainter>
#include <cmath>

#include "app/theme/theme.h"

namespace nine::app {
namespace {

constexpr int kWrapRows = 100, kWrapColumns = 48;

/// Turns, scales and moves so that a falls on p and b on q.
QTransform similarity(const QPointF& a, const QPointF& b, const QPointF& p, const QPointF& q) {
    const QPointF from = b - a, to = q - p;
    const double length = from.x() * from.x() + from.y() * from.y();
    if (length <= 0) return {};
    const double c = (from.x() * to.x() + from.y() * to.y()) / length,
                 s = (from.x() * to.y() - from.y() * to.x()) / length;
    return QTransform(c, s, -s, c, p.x() - c * a.x() + s * a.y(), p.y() - s * a.x() - c * a.y());
}

}  // namespace

void BlankLayers::askPicture(const BackPicturePtr& picture, const QPointF& nose, const QPointF& tail,
                             const QSize& size) {
    if (!picture) {
        pictureSlot_.cancel();
        picture_ = {};
        return;
    }
    const QPointF a(picture->nose_px.x(), picture->nose_px.y()),
        b(picture->tail_px.x(), picture->tail_px.y());
    const QTransform place = similarity(a, b, nose, tail);
    if (picture_.picture == picture && picture_.place == place && picture_.size == size) return;
    picture_.picture = picture;
    picture_.place = place;
    picture_.size = size;
    pictureSlot_.request(
        [picture, place, size](const Task&) {
            QImage image(size, QImage::Format_ARGB32_Premultiplied);
            image.fill(Qt::transparent);
            const QImage copy = QImage::fromData(
                QByteArray::fromRawData(picture->jpeg.data(), static_cast<qsizetype>(picture->jpeg.size())),
                "JPG");
            QPainter p(&image);
            p.setRenderHint(QPainter::SmoothPixmapTransform);
            p.setTransform(place);
            p.drawImage(0, 0, copy);
            p.end();
            return PictureAnswer{picture, place, size, image};
        },
        [this](PictureAnswer answer) {
            picture_ = std::move(answer);
            emit changed();
        });
}

void BlankLayers::askWrap(const SkinPtr& skin, const std::string& material, bool map, double along,
                          double across) {
    const bool same = wrap_.skin == skin && wrap_.material == material &&
                      (!map || (wrap_.colours && wrap_.along == along && wrap_.across == across));
    if (same) return;
    const double limit = findMaterial(material)->strainLimit;
    const double narrow = std::min(along, across);
    wrapSlot_.request(
        [=](const Task&) {
            const SkinGrid grid = makeSkinGrid(*skin, kWrapRows, kWrapColumns);
            WrapAnswer answer{skin, material, along, across, wrapWidths(*skin, grid, limit), {}, nullptr};
            if (!map) return answer;
            answer.map = nine::wrapMap(*skin, grid, limit, along, across);
            auto image = std::make_shared<Image>();
            image->width = answer.map.columns;
            image->height = answer.map.rows;
            for (std::size_t i = 0; i < answer.map.widest_mm.size(); ++i) {
                // The strain the sheet needs here, as a share of what its material takes.
                const double w = answer.map.widest_mm[i], share = w > 0 ? narrow * narrow / (w * w) : 1;
                image->pixels.push_back(answer.map.lies[i]
                                            ? rampColour(Ramp::Stretch, 0.6 * std::min(1.0, share)).rgb()
                                            : rampColour(Ramp::Stretch, 1).rgb());
            }
            answer.colours = std::move(image);
            return answer;
        },
        [this](WrapAnswer answer) {
            wrap_ = std::move(answer);
            emit changed();
        });
}

void BlankLayers::askWay(const SkinPtr& skin, const SkinPoint& from, const SkinPoint& to) {
    way_ = {skin, from, to, {}};
    waySlot_.request(
        [skin, from, to](const Task&) {
            return Way{skin, from, to, shortestWay(*skin, from, to)};
        },
        [this](Way way) {
            way_ = std::move(way);
            emit changed();
        });
}

void BlankLayers::forgetWay() {
    waySlot_.cancel();
    way_ = {};
}

}  // namespace nine::app
