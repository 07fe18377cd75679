#include "app/leaves/spray/gun_drawing.h"

#include <QPainterPath>
#include <cmath>
#include <random>

#include "app/theme/theme.h"

namespace nine::app {
namespace {

/// All that is drawn of it, cup and valve too; the upside-down gun as well.
const QRectF kAround_mm(-2, -40, kGunDrawn_mm + 4, 80);

/// Half widths of the body along its axis, mm.
struct Ring {
    double x, half;
};
constexpr Ring kBody[] = {{0, 0.7},  {3, 1.0},  {6, 2.1},  {13, 3.6},  {13, 4.3},  {20, 4.6}, {24, 5.6},
                          {92, 5.6}, {95, 4.8}, {99, 4.8}, {100, 5.4}, {146, 4.6}, {150, 2.6}};

QPainterPath bodyPath() {
    QPainterPath path;
    path.moveTo(kBody[0].x, -kBody[0].half);
    for (const Ring& r : kBody) path.lineTo(r.x, -r.half);
    for (auto r = std::rbegin(kBody); r != std::rend(kBody); ++r) path.lineTo(r->x, r->half);
    path.closeSubpath();
    return path;
}

/// What is drawn: up to a zigzag across the body.
const QPainterPath& drawnPart() {
    static const QPainterPath path = [] {
        QPainterPath part;
        part.moveTo(-2, -60);
        part.lineTo(kGunDrawn_mm - 3, -60);
        for (int i = 0; i < 8; ++i) part.lineTo(kGunDrawn_mm - (i % 2 ? 3 : 0), -8 + 16.0 * i / 7);
        part.lineTo(kGunDrawn_mm - 3, 60);
        part.lineTo(-2, 60);
        part.closeSubpath();
        return part;
    }();
    return path;
}

QLinearGradient metal(double from, double to) {
    const bool dark = tokens().dark;
    QLinearGradient g(0, from, 0, to);
    g.setColorAt(0, dark ? "#8d938c" : "#fdfcf8");
    g.setColorAt(0.45, dark ? "#6d746d" : "#d8d6cc");
    g.setColorAt(1, dark ? "#4a514b" : "#a9a79c");
    return g;
}

}  // namespace

void drawGun(QPainter& p, const QPointF& tip, double away_deg, double perMm, double trigger,
             const QColor& paint) {
    const QColor line = tokens().ink;
    p.save();
    p.translate(tip);
    p.rotate(-away_deg);
    p.scale(perMm, perMm);
    if (std::cos(away_deg * M_PI / 180) < 0) p.scale(1, -1);
    const QPen pen(line, 1.3 / perMm, Qt::SolidLine, Qt::RoundCap, Qt::RoundJoin);
    p.setPen(pen);

    p.setBrush(metal(-5, 26));
    p.drawRoundedRect(QRectF(55, 5, 10, 14), 1, 1);
    p.drawRoundedRect(QRectF(54, 18, 12, 9), 1.5, 1.5);

    // Cup with what is left in it.
    QPainterPath cup;
    cup.moveTo(31, -5.5);
    cup.cubicTo(29, -10, 21, -13, 21, -24);
    cup.lineTo(53, -24);
    cup.cubicTo(53, -13, 45, -10, 43, -5.5);
    cup.closeSubpath();
    p.setBrush(metal(-24, -5));
    p.drawPath(cup);
    QPainterPath paintIn = cup.intersected([] {
        QPainterPath lower;
        lower.addRect(QRectF(0, -15, 100, 12));
        return lower;
    }());
    QColor wet = paint;
    wet.setAlpha(210);
    p.setPen(Qt::NoPen);
    p.setBrush(wet);
    p.drawPath(paintIn);
    p.setPen(pen);
    p.setBrush(metal(-27, -23));
    p.drawRoundedRect(QRectF(19, -27, 36, 3.2), 1.2, 1.2);

    p.setBrush(metal(-5.6, 5.6));
    p.drawPath(bodyPath().intersected(drawnPart()));
    p.setPen(QPen(line, 0.8 / perMm));
    for (const double x : {13.0, 20.0, 24.0}) p.drawLine(QPointF(x, -4), QPointF(x, 4));

    // Trigger: a button that tilts as it is drawn back.
    p.setPen(pen);
    p.save();
    p.translate(60, -5);
    p.rotate(25 * trigger);
    p.setBrush(metal(-10, 0));
    p.drawRoundedRect(QRectF(-1.6, -8, 3.2, 9), 0.8, 0.8);
    p.drawRoundedRect(QRectF(-5.5, -11, 11, 3.6), 1.8, 1.8);
    p.restore();
    p.restore();
}

void GunPicture::paint(QPainter& p, const QPointF& tip, double away_deg, double perMm, double trigger,
                       const QColor& paint) {
    const Key key{away_deg, perMm, trigger, p.device()->devicePixelRatioF(), paint, tokens().ink};
    if (p.worldTransform().m11() > 1) return drawGun(p, tip, away_deg, perMm, trigger, paint);  // from nearer
    if (!(key == key_)) {  // a picture pays once it is used again
        key_ = key;
        picture_ = {};
        return drawGun(p, tip, away_deg, perMm, trigger, paint);
    }
    if (picture_.isNull()) {
        QTransform turn;
        turn.rotate(-away_deg);
        turn.scale(perMm, perMm);
        const QRectF box = turn.mapRect(kAround_mm).adjusted(-2, -2, 2, 2);
        picture_ = QPixmap((box.size() * key.ratio).toSize());
        picture_.setDevicePixelRatio(key.ratio);
        picture_.fill(Qt::transparent);
        tip_ = -box.topLeft();
        QPainter on(&picture_);
        on.setRenderHint(QPainter::Antialiasing);
        drawGun(on, tip_, away_deg, perMm, trigger, paint);
    }
    const QPointF corner = tip - tip_;
    p.drawPixmap(QPointF(std::round(corner.x() * key.ratio), std::round(corner.y() * key.ratio)) / key.ratio,
                 picture_);
}

void drawSpray(QPainter& p, const QPointF& tip, const QPointF& aim, double halfWidth_px,
               const QColor& paint) {
    const QPointF along = aim - tip;
    const double length = std::hypot(along.x(), along.y());
    if (length < 2) return;
    const QPointF unit = along / length, side(-unit.y(), unit.x());
    p.setPen(Qt::NoPen);
    for (const auto& [share, alpha] : {std::pair{1.0, 48}, {0.62, 52}, {0.3, 62}}) {
        QColor cone = paint;
        cone.setAlpha(alpha);
        p.setBrush(cone);
        p.drawPolygon(QPolygonF{tip, aim + side * halfWidth_px * share, aim - side * halfWidth_px * share});
    }
    // A fixed scatter, normal across the spray as the model has it.
    std::mt19937 chance(7);
    std::uniform_real_distribution<double> along01(0.08, 1);
    std::normal_distribution<double> across(0, 0.466);
    QColor drop = paint.darker(125);
    drop.setAlpha(150);
    QVector<QPointF> drops;
    for (int i = 0; i < 170; ++i) {
        const double t = std::sqrt(along01(chance));
        drops << tip + along * t + side * (halfWidth_px * t * across(chance));
    }
    p.setPen(QPen(drop, 1.6, Qt::SolidLine, Qt::RoundCap));
    p.drawPoints(drops.constData(), static_cast<int>(drops.size()));
}

}  // namespace nine::app
