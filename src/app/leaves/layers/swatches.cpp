#include "app/leaves/layers/swatches.h"

#include <QPainterPath>
#include <QPixmap>

#include "app/sheet/ink.h"

namespace nine::app {

void drawDrop(QPainter& p, const QRectF& box, const QColor& ground, const QColor& drop) {
    const Tokens& t = tokens();
    p.setPen(QPen(t.muted, 1));
    p.setBrush(ground);
    p.drawRoundedRect(box, 3, 3);
    const double r = 0.25 * std::min(box.width(), box.height());
    const QPointF c = box.center() + QPointF(0, 0.35 * r);
    QPainterPath path(c + QPointF(0, -2 * r));
    path.cubicTo(c + QPointF(0.25 * r, -1.2 * r), c + QPointF(r, -0.7 * r), c + QPointF(r, 0));
    path.cubicTo(c + QPointF(r, 0.55 * r), c + QPointF(0.55 * r, r), c + QPointF(0, r));
    path.cubicTo(c + QPointF(-0.55 * r, r), c + QPointF(-r, 0.55 * r), c + QPointF(-r, 0));
    path.cubicTo(c + QPointF(-r, -0.7 * r), c + QPointF(-0.25 * r, -1.2 * r), c + QPointF(0, -2 * r));
    // Seen on any ground.
    p.setPen(QPen(ground.lightness() > 110 ? QColor(0, 0, 0, 150) : QColor(255, 255, 255, 170), 1));
    p.setBrush(drop);
    p.drawPath(path);
}

SwatchRow::SwatchRow(QList<Swatch> swatches, QWidget* parent)
    : QWidget(parent), swatches_(std::move(swatches)) {
    QStringList spoken;
    for (const Swatch& s : swatches_) spoken << s.name + " " + s.remark;
    setAccessibleName(spoken.join(", "));
    setSizePolicy(QSizePolicy::Preferred, QSizePolicy::Fixed);
}

void SwatchRow::paintEvent(QPaintEvent*) {
    QPainter p(this);
    p.setRenderHint(QPainter::Antialiasing);
    if (swatches_.isEmpty()) return;
    constexpr double kGap = 8;
    const double n = static_cast<double>(swatches_.size());
    const double w = std::min(92.0, (width() - (n - 1) * kGap) / n);
    double x = 0;
    for (const Swatch& s : swatches_) {
        drawDrop(p, QRectF(x + 0.5, 0.5, w - 1, kHigh_px), s.ground, s.drop);
        const QFont bold = inter(11, QFont::DemiBold), plain = inter(11);
        ink::text(p, {x, kHigh_px + 15.0}, QFontMetricsF(bold).elidedText(s.name, Qt::ElideRight, w), bold,
                  tokens().ink);
        ink::text(p, {x, kHigh_px + 29.0}, QFontMetricsF(plain).elidedText(s.remark, Qt::ElideRight, w),
                  plain, tokens().muted);
        x += w + kGap;
    }
}

QPixmap patch(const QColor& colour, const QColor& beside) {
    QPixmap pixmap(30, 14);
    pixmap.fill(colour);
    if (beside.isValid()) {
        QPainter p(&pixmap);
        p.fillRect(QRect(15, 0, 15, 14), beside);
    }
    return pixmap;
}

}  // namespace nine::app
