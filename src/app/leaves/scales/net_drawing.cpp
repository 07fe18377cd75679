#include "app/leaves/scales/net_drawing.h"

#include <QPainter>
#include <cmath>

#include "app/sheet/ink.h"
#include "app/theme/theme.h"
#include "geom/distortion.h"

namespace nine::app {
namespace {

void paintCells(QPainter& p, const NetPictureWish& wish) {
    const Drape& drape = *wish.study.net->drape;
    p.setRenderHint(QPainter::Antialiasing, false);
    for (const Triangle& t : drape.grid.triangles) {
        const SignedSvd svd = signedSvd(stretchOf(drape, t));
        const double share = (svd.s1 / std::max(svd.s2, 1e-3) - 1) / (kMostStretchShown - 1);
        QPolygonF corners;
        for (const int v : t)
            corners << wish.view.at(drape.grid.points[static_cast<std::size_t>(v)].position);
        QColor colour = rampColour(Ramp::Stretch, std::clamp(share, 0.0, 1.0));
        p.setPen(QPen(colour, 1));  // closes the seams
        p.setBrush(colour);
        p.drawPolygon(corners);
    }
    p.setRenderHint(QPainter::Antialiasing, true);
}

void paintLoose(QPainter& p, const NetPictureWish& wish) {
    const ClippedNet& net = *wish.study.net->clipped;
    QColor red = ink::colourOf(ink::Severity::Fault);
    p.setPen(QPen(red, 1.4 * wish.ratio));
    p.setBrush(Qt::NoBrush);
    for (const Triangle& t : net.grid.triangles) {
        QPolygonF corners;
        double least = 1e9;
        for (const int v : t) {
            corners << wish.view.at(net.places[static_cast<std::size_t>(v)]);
            least = std::min(least, net.most_mm[static_cast<std::size_t>(v)]);
        }
        if (least > wish.allowed_mm) p.drawPolyline(corners);
    }
}

}  // namespace

QImage netPicture(const NetPictureWish& wish, const Task& task) {
    QImage image(wish.size, QImage::Format_ARGB32_Premultiplied);
    image.fill(Qt::transparent);
    if (!wish.study.net) return image;
    QPainter p(&image);
    paintCells(p, wish);
    const QColor ink = inkOnSheet();
    for (const bool second : {false, true}) {
        QVector<QLineF> lines;
        for (const ThreadLine& line : *wish.study.threads) {
            if (line.second != second) continue;
            lines << QLineF(wish.view.at(line.from), wish.view.at(line.middle))
                  << QLineF(wish.view.at(line.middle), wish.view.at(line.to));
        }
        if (task.cancelled()) break;
        QColor colour = ink;
        if (second) colour.setAlpha(120);
        p.setPen(QPen(colour, (second ? 0.7 : 0.9) * wish.ratio, Qt::SolidLine, Qt::RoundCap));
        p.drawLines(lines);
    }
    if (wish.study.net->clipped) paintLoose(p, wish);
    p.end();
    image.setDevicePixelRatio(wish.ratio);
    return image;
}

NearPicture nearPicture(const NearWish& wish) {
    const LightPatch patch = lightUnder(wish.net, wish.stretch, wish.gap_mm, wish.from, wish.size_mm,
                                        wish.pixels, wish.doubled ? &wish.second : nullptr);
    NearPicture picture{QImage(wish.pixels, wish.pixels, QImage::Format_RGB32), patch.mean};
    // Sprayed in a dark colour over a light one: what the threads keep off stays light.
    const QColor under("#E8C77B"), sprayed("#4A3418");
    for (int y = 0; y < wish.pixels; ++y)
        for (int x = 0; x < wish.pixels; ++x) {
            const double a = patch.arrives[static_cast<std::size_t>(y * wish.pixels + x)];
            const auto mix = [&](int u, int s) { return static_cast<int>(std::lround((1 - a) * u + a * s)); };
            picture.image.setPixel(x, y,
                                   qRgb(mix(under.red(), sprayed.red()), mix(under.green(), sprayed.green()),
                                        mix(under.blue(), sprayed.blue())));
        }
    return picture;
}

}  // namespace nine::app
