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
    const WrapQuestion question{skin, material, map, map ? along : 0, map ? across : 0};
    if (question == asked_) return;
    asked_ = question;
    const double limit = findMaterial(material)->strainLimit;
    wrapSlot_.request(
        [=](const Task&) {
            const WrapField field(*skin, makeSkinGrid(*skin, kWrapRows, kWrapColumns));
            WrapAnswer answer{skin, material, along, across, wrapWidths(field, limit), {}, nullptr};
            if (!map) return answer;
            answer.map = nine::wrapMap(field, limit, along, across);
            // Finer than the cells, so that the edge of where it lies is a line and not a stair.
            constexpr int kFiner = 6;
            auto image = std::make_shared<Image>();
            image->width = kFiner * answer.map.columns;
            image->height = kFiner * answer.map.rows;
            for (int y = 0; y < image->height; ++y) {
                for (int x = 0; x < image->width; ++x) {
                    const double r = std::clamp((y + 0.5) / kFiner - 0.5, 0.0, answer.map.rows - 1.0);
                    const double c = (x + 0.5) / kFiner - 0.5 + answer.map.columns;
                    const int r0 = std::min(static_cast<int>(r), answer.map.rows - 2),
                              c0 = static_cast<int>(c);
                    const auto need = [&](int row, int column) {
                        return answer.map.need[answer.map.index(row, column)];
                    };
                    const double u = c - c0, v = r - r0;
                    const double share = (1 - v) * ((1 - u) * need(r0, c0) + u * need(r0, c0 + 1)) +
                                         v * ((1 - u) * need(r0 + 1, c0) + u * need(r0 + 1, c0 + 1));
                    image->pixels.push_back(
                        rampColour(Ramp::Stretch, share <= 1 ? BlankLayers::kLimitOfRamp * share : 1).rgb());
                }
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
