#include "app/sheet/ink.h"

#include <QFontMetricsF>
#include <QHash>
#include <QPainterPath>
#include <QStaticText>
#include <cmath>

namespace nine::app::ink {

namespace {

/// Words ready to be drawn: shaping them anew at every painting would take most of its time.
struct Shaped {
    QStaticText text;
    double width, ascent;
};

const Shaped& shaped(const QString& words, const QFont& f) {
    constexpr qsizetype kKept = 600;
    static QHash<QString, Shaped> known;
    const QString key = QString::number(f.pixelSize()) + '/' + QString::number(f.weight()) + '/' + words;
    const auto found = known.constFind(key);
    if (found != known.constEnd()) return *found;
    if (known.size() >= kKept) known.clear();
    Shaped s{QStaticText(words), QFontMetricsF(f).horizontalAdvance(words), QFontMetricsF(f).ascent()};
    s.text.setTextFormat(Qt::PlainText);
    s.text.setPerformanceHint(QStaticText::AggressiveCaching);
    s.text.prepare({}, f);
    return *known.insert(key, s);
}

Witness witness;

}  // namespace

void setWitness(Witness w) {
    witness = std::move(w);
}

double widthOf(const QString& words, const QFont& f) {
    return shaped(words, f).width;
}

void text(QPainter& p, const QPointF& baseline, const QString& words, const QFont& f, const QColor& colour,
          Qt::Alignment alignment) {
    if (words.isEmpty()) return;
    const Shaped& s = shaped(words, f);
    const double shift = alignment & Qt::AlignRight     ? -s.width
                         : alignment & Qt::AlignHCenter ? -0.5 * s.width
                                                        : 0;
    p.setFont(f);
    p.setPen(colour);
    p.drawStaticText(baseline + QPointF(shift, -s.ascent), s.text);
    if (witness) {
        const QRectF box(baseline.x() + shift, baseline.y() - 0.75 * f.pixelSize(), s.width,
                         0.95 * f.pixelSize());
        witness(p, words, p.transform().mapRect(box));
    }
}

double heading(QPainter& p, const QPointF& at, const QString& title, const QString& remark) {
    const QFont bold = inter(12, QFont::Bold), plain = inter(11);
    text(p, at, title, bold, tokens().ink);
    const double width = widthOf(title, bold) + 8;
    text(p, at + QPointF(width, 0), remark, plain, tokens().muted);
    return width + widthOf(remark, plain);
}

QRectF dimension(QPainter& p, const QPointF& from, const QPointF& to, const QString& value, bool selected) {
    const QColor colour = selected ? tokens().select : tokens().ink;
    const QPointF along = to - from;
    const double length = std::hypot(along.x(), along.y());
    if (length < 1) return {};
    const QPointF unit = along / length;
    const bool upright = std::abs(unit.y()) > 0.7;
    const QFont f = inter(11, QFont::DemiBold);
    const double width = widthOf(value, f);
    const QPointF middle = 0.5 * (from + to);
    const double gap = 0.5 * width + 6;
    p.setPen(QPen(colour, 0.9));
    if (length > 2 * gap + 8) {
        p.drawLine(from, middle - unit * gap);
        p.drawLine(middle + unit * gap, to);
    } else {
        p.drawLine(from, to);
    }
    p.setPen(QPen(colour, 1.3));
    for (const QPointF& end : {from, to}) p.drawLine(end + QPointF(-3.2, 3.2), end + QPointF(3.2, -3.2));
    p.save();
    p.translate(length > 2 * gap + 8 ? middle : middle + QPointF(upright ? 12 : 0, upright ? 0 : -12));
    if (upright) p.rotate(-90);
    const QRectF box(-0.5 * width - 3, -9, width + 6, 18);
    text(p, QPointF(-0.5 * width, 4), value, f, colour);
    p.restore();
    return upright ? QRectF(middle.x() - 9, middle.y() - 0.5 * width - 3, 18, width + 6)
                   : box.translated(middle);
}

void leader(QPainter& p, const QPointF& target, const QPointF& at, const QString& words, bool rightAligned) {
    p.setPen(QPen(tokens().muted, 0.7));
    p.drawLine(target, at + QPointF(rightAligned ? 4 : -4, 0));
    text(p, at + QPointF(0, 4), words, inter(11, QFont::Medium), tokens().ink,
         rightAligned ? Qt::AlignRight : Qt::AlignLeft);
}

void stationPoint(QPainter& p, const QPointF& at, bool selected) {
    p.setPen(QPen(selected ? tokens().select : tokens().ink, 1.3));
    p.setBrush(selected ? tokens().select : tokens().paper);
    p.drawEllipse(at, selected ? 4.6 : 3.3, selected ? 4.6 : 3.3);
}

void diamond(QPainter& p, const QPointF& at, double half, const QColor& outline) {
    p.setPen(QPen(outline, 1.2));
    p.setBrush(tokens().paper);
    p.drawPolygon(QPolygonF{at + QPointF(0, -half), at + QPointF(half, 0), at + QPointF(0, half),
                            at + QPointF(-half, 0)});
}

QColor colourOf(Severity severity) {
    return severity == Severity::Fault     ? tokens().fault
           : severity == Severity::Caution ? tokens().caution
                                           : tokens().select;
}

void flagShape(QPainter& p, const QPointF& at, Severity severity, const QString& number) {
    p.setPen(Qt::NoPen);
    p.setBrush(colourOf(severity));
    QPointF middle = at + QPointF(8, 8);
    if (severity == Severity::Note) {
        p.drawEllipse(middle, 7.4, 7.4);
    } else if (severity == Severity::Caution) {
        p.drawPolygon(QPolygonF{at, at + QPointF(20, 8), at + QPointF(0, 16)});
        middle = at + QPointF(6.2, 8);
    } else {
        p.drawPolygon(QPolygonF{at, at + QPointF(21, 0), at + QPointF(16, 8), at + QPointF(21, 16),
                                at + QPointF(0, 16)});
    }
    text(p, middle + QPointF(0, 4), number, inter(10, QFont::Bold), tokens().onAccent, Qt::AlignHCenter);
}

void flag(QPainter& p, const QPointF& foot, Severity severity, int number, bool toLeft) {
    p.setPen(QPen(colourOf(severity), 1.4));
    p.drawLine(foot, foot + QPointF(0, -23));
    p.setBrush(colourOf(severity));
    p.setPen(Qt::NoPen);
    p.drawEllipse(foot, 2.1, 2.1);
    flagShape(p, foot + QPointF(toLeft ? -21 : 0, -24), severity, QString::number(number));
}

void pointOut(QPainter& p, const QPointF& centre, const QString& label) {
    constexpr double kRadius = 7.5;
    p.setPen(QPen(inkOnSheet(), 1.2));
    p.setBrush(QColor(251, 250, 246, 215));
    p.drawEllipse(centre, kRadius, kRadius);
    text(p, centre + QPointF(0, 4), label, inter(10.5, QFont::Bold), inkOnSheet(), Qt::AlignHCenter);
}

void tick(QPainter& p, const QPointF& c) {
    p.setPen(QPen(tokens().accent, 1.5, Qt::SolidLine, Qt::RoundCap, Qt::RoundJoin));
    p.setBrush(Qt::NoBrush);
    p.drawEllipse(c, 5.2, 5.2);
    p.drawPolyline(QPolygonF{c + QPointF(-2.4, 0), c + QPointF(-0.6, 1.9), c + QPointF(2.4, -1.7)});
}

void ruler(QPainter& p, const QPointF& left, double length_mm, double perMm) {
    p.setPen(QPen(tokens().muted, 0.8));
    p.drawLine(left, left + QPointF(length_mm * perMm, 0));
    const int step = perMm < 2 ? 50 : perMm < 5 ? 20 : 10;
    for (int mm = 0; mm <= static_cast<int>(length_mm + 1e-9); ++mm) {
        const bool major = mm % step == 0;
        if (!major && perMm * 1.0 < 3 && mm % 5 != 0) continue;
        const double x = left.x() + mm * perMm;
        p.setPen(QPen(tokens().muted, 0.8));
        p.drawLine(QPointF(x, left.y()), QPointF(x, left.y() + (major ? 6 : mm % 5 == 0 ? 4 : 2.5)));
        if (!major) continue;
        const QString label = mm == 0 ? QString("0 mm") : QString::number(mm);
        text(p, QPointF(x, left.y() + 17), label, inter(10.5), tokens().muted, Qt::AlignHCenter);
    }
}

void legend(QPainter& p, const QRectF& bar, Ramp ramp, const QString& from, const QString& middle,
            const QString& to) {
    QLinearGradient gradient(bar.topLeft(), bar.topRight());
    for (int k = 0; k <= 5; ++k) gradient.setColorAt(k / 5.0, rampColour(ramp, k / 5.0));
    p.setPen(QPen(tokens().line, 0.8));
    p.setBrush(gradient);
    p.drawRect(bar);
    const QFont f = inter(10.5);
    const double y = bar.bottom() + 13;
    text(p, QPointF(bar.left(), y), from, f, tokens().muted);
    text(p, QPointF(bar.center().x(), y), middle, f, tokens().muted, Qt::AlignHCenter);
    text(p, QPointF(bar.right(), y), to, f, tokens().muted, Qt::AlignRight);
}

}  // namespace nine::app::ink
