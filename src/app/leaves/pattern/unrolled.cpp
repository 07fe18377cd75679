#include "app/leaves/pattern/unrolled.h"

#include <algorithm>
#include <cmath>

namespace nine::app {

namespace {

/// Between the places of the picture, round the body without a seam.
QRgb between(const Image& picture, double u, double v) {
    const double x = u * picture.width - 0.5, y = std::clamp(v, 0.0, 1.0) * (picture.height - 1);
    const int left = static_cast<int>(std::floor(x)), top = std::min(static_cast<int>(y), picture.height - 2);
    const double fx = x - left, fy = y - top;
    const auto at = [&](int dx, int dy) {
        return picture.at(((left + dx) % picture.width + picture.width) % picture.width, top + dy);
    };
    QRgb out = 0xFF000000u;
    for (const int shift : {0, 8, 16}) {
        const auto part = [&](QRgb c) { return static_cast<double>(c >> shift & 255u); };
        const double a = part(at(0, 0)) + fx * (part(at(1, 0)) - part(at(0, 0)));
        const double b = part(at(0, 1)) + fx * (part(at(1, 1)) - part(at(0, 1)));
        out |= static_cast<QRgb>(a + fy * (b - a) + 0.5) << shift;
    }
    return out;
}

}  // namespace

QImage unrolled(const DrawnBody& drawn, const Image& picture, const QSize& size, double perMm, bool back) {
    const int w = size.width(), h = size.height();
    const double half_mm = 0.5 * h / perMm;
    QImage image(w, h, QImage::Format_ARGB32_Premultiplied);
    image.fill(Qt::transparent);
    for (int x = 0; x < w; ++x) {
        const double mm = drawn.x_mm.front() + (x + 0.5) / perMm;
        const double row = drawn.rowAt(mm);
        const auto& arcs = back ? drawn.backArc_mm : drawn.bellyArc_mm;
        const double along = row * (static_cast<double>(arcs.size()) - 1);
        const std::size_t k = std::min(static_cast<std::size_t>(along), arcs.size() - 2);
        const double arc = arcs[k] + (along - static_cast<double>(k)) * (arcs[k + 1] - arcs[k]);
        for (int y = 0; y < h; ++y) {
            const double from = (1 - 2.0 * (y + 0.5) / h) * half_mm;  // + is the right side, drawn above
            if (std::abs(from) > arc) continue;
            const double quarter = 0.25 * (1 - std::abs(from) / std::max(arc, 1e-9));
            const double u =
                back ? (from > 0 ? 0.5 - quarter : quarter) : (from > 0 ? 0.5 + quarter : 1 - quarter);
            reinterpret_cast<QRgb*>(image.scanLine(y))[x] = between(picture, u, row);
        }
    }
    return image;
}

}  // namespace nine::app
