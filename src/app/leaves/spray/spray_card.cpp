#include "app/leaves/spray/spray_card.h"

#include <QBuffer>
#include <QPdfWriter>
#include <QTextDocument>

#include "app/sheet/names.h"
#include "app/sheet/units_text.h"
#include "app/theme/theme.h"
#include "base/files.h"
#include "geom/polygon_set.h"

namespace nine::app {
namespace {

constexpr double kMargin_mm = 10;

QString drops(double v) {
    return QString::number(v, 'g', 3);
}

/// The steps in the order of work, cautions inside the step they belong to.
QStringList stepsOf(const SprayCard& card) {
    const SprayPlan& plan = *card.study.plan;
    const SpraySetting& s = plan.setting;
    QStringList steps;
    steps << QObject::tr(
                 "Extraction on, respirator matched to the paint's data sheet. Mix %1 : %2, drops of paint "
                 "to drops of reducer; strain it.")
                 .arg(drops(s.reduction.paint), drops(s.reduction.reducer));
    QString lay =
        QObject::tr("Body dry. Lay the stencil with its crosses on their places, press its edges down");
    QStringList places;
    for (const Sheet& sheet : card.study.mask->sheets)
        for (const RegistrationMark& mark : sheet.marks) places << said(markSentence(mark));
    lay += " (" + places.join(", ") + ")";
    if (card.study.asked.pads_mm > 0)
        lay += QObject::tr("; hold it off on pads of %1").arg(lengthText(card.study.asked.pads_mm));
    steps << lay + ".";
    steps << QObject::tr(
        "Set the pressure with the air flowing. First strokes on paper: the line must be fine and even.");
    steps << QObject::tr(
                 "Coats: %1, of %2 strokes each, %3 the edge, starting and stopping off the body: one body "
                 "length in %4 s. "
                 "Every opening before it comes off.")
                 .arg(plan.coats)
                 .arg(plan.passes)
                 .arg(s.stroke == Stroke::Along ? QObject::tr("along") : QObject::tr("across"))
                 .arg(card.bodyLength_mm / s.speed_mm_s, 0, 'f', 1);
    if (s.aim_mm > 0.5)
        steps << QObject::tr("Aim %1 onto the sheet, not at the hole.").arg(lengthText(s.aim_mm, 0));
    steps << QObject::tr(
        "Dry between coats until the gloss turns matt; heat only on low, never on hollow bodies, never near "
        "solvent.");
    if (card.secondPass_mm > 0)
        steps << QObject::tr(
                     "Second pass: dry, slide the sheet %1 towards the tail, its ticks where the crosses "
                     "stood, and spray again.")
                     .arg(lengthText(card.secondPass_mm));
    steps << QObject::tr(
        "Peel low and away when dry. Wipe and dry the stencil before it is turned over. Clog: pressure off "
        "first, never a "
        "finger over the nozzle.");
    return steps;
}

constexpr const char *kInk = "#1D2A25", *kMuted = "#5A665E", *kCaution = "#8F5500", *kLine = "#C9C5B8";

/// A card while it is drawn: what comes next stands below `y`. Pixels.
struct CardPen {
    QPainter& p;
    double perMm;
    QRectF page;
    double left, right, wide, y;

    QFont font(double mm, int weight) const { return inter(mm * perMm, weight); }
    void text(const QString& words, double mm, int weight, const QColor& colour, double gap_mm) {
        p.setFont(font(mm, weight));
        p.setPen(colour);
        QRectF used;
        p.drawText(QRectF(left, y, wide, page.height()), Qt::TextWordWrap | Qt::AlignLeft, words, &used);
        y = used.bottom() + gap_mm * perMm;
    }
};

/// The settings, three in a row.
void drawSettings(CardPen& c, const SprayCard& card) {
    auto& [p, perMm, page, left, right, wide, y] = c;
    const SprayPlan& plan = *card.study.plan;
    const SpraySetting& s = plan.setting;
    const QColor ink(kInk), muted(kMuted), line(kLine);
    struct Reading {
        QString value, unit, what;
    };
    const QString psi = QString::number(s.gauge_kpa / kKpaPerPsi, 'f', 1);
    const std::vector<Reading> figures{
        {psi.endsWith(".0") ? psi.chopped(2) : psi, "psi",
         QObject::tr("%1 bar; usual %2–%3 psi")
             .arg(s.gauge_kpa / 100, 0, 'f', 2)
             .arg(plan.practice.pressure_psi.low)
             .arg(plan.practice.pressure_psi.high)},
        {lengthNumber(s.distance_mm, 0), lengthUnit(), QObject::tr("from the skin")},
        {QString::number(s.angle_deg, 'f', 0), QString::fromUtf8("°"), QObject::tr("off straight")},
        {QString::number(s.needle_mm, 'f', 2), "mm",
         QObject::tr("needle, gun %1").arg(QString::fromStdString(plan.gun.name))},
        {QString("%1 : %2").arg(drops(s.reduction.paint), drops(s.reduction.reducer)),
         {},
         QObject::tr("drops, %1 % reducer, %2")
             .arg(100 * (1 - s.reduction.share()), 0, 'f', 0)
             .arg(paintName(s.paint.id).toLower())},
        {QString::number(plan.coats), QString::fromUtf8("× %1").arg(plan.passes),
         QObject::tr("coats of strokes")}};
    const double cell = wide / 3, tall = 21 * perMm;
    for (std::size_t i = 0; i < figures.size(); ++i) {
        const QRectF box(left + cell * static_cast<double>(i % 3), y + tall * static_cast<double>(i / 3),
                         cell, tall);
        p.setPen(QPen(line, 0.25 * perMm));
        p.drawRect(box);
        const QRectF inside = box.adjusted(2 * perMm, 2 * perMm, -1 * perMm, -2 * perMm);
        p.setFont(c.font(8.4, QFont::Bold));
        p.setPen(ink);
        QRectF used;
        p.drawText(inside, Qt::AlignLeft | Qt::AlignTop, figures[i].value, &used);
        p.setFont(c.font(4, QFont::Normal));
        p.drawText(QPointF(used.right() + 1.2 * perMm, used.bottom() - 2.1 * perMm), figures[i].unit);
        p.setFont(c.font(3.1, QFont::Normal));
        p.setPen(muted);
        p.drawText(inside, Qt::AlignLeft | Qt::AlignBottom | Qt::TextWordWrap, figures[i].what);
    }
    y += 2 * tall + 4 * perMm;
}

void drawEdgeLine(CardPen& c, const SprayCard& card) {
    auto& [p, perMm, page, left, right, wide, y] = c;
    const SprayPlan& plan = *card.study.plan;
    const QColor ink(kInk), line(kLine);
    p.fillRect(QRectF(left, y, 8 * perMm, 5 * perMm), card.paint);
    p.setPen(QPen(line, 0.25 * perMm));
    p.drawRect(QRectF(left, y, 8 * perMm, 5 * perMm));
    p.setFont(c.font(3.6, QFont::Normal));
    p.setPen(ink);
    QRectF told;
    p.drawText(QRectF(left + 10 * perMm, y, wide - 10 * perMm, page.height()),
               Qt::TextWordWrap | Qt::AlignLeft,
               QObject::tr("Edge about %1 wide, creep %2: computed, no test card was sprayed with this gun.")
                   .arg(lengthText(plan.edge.width_mm, 2), lengthText(plan.edge.creep_mm, 2)),
               &told);
    y = std::max(y + 5 * perMm, told.bottom()) + 3.5 * perMm;
}

void drawSteps(CardPen& c, const SprayCard& card) {
    auto& [p, perMm, page, left, right, wide, y] = c;
    const QColor ink(kInk);
    int number = 1;
    for (const QString& step : stepsOf(card)) {
        p.setFont(c.font(3.7, QFont::Bold));
        p.setPen(ink);
        p.drawText(QPointF(left, y + 3.6 * perMm), QString::number(number++));
        p.setFont(c.font(3.7, QFont::Normal));
        QRectF used;
        p.drawText(QRectF(left + 7 * perMm, y, wide - 7 * perMm, page.height()),
                   Qt::TextWordWrap | Qt::AlignLeft, step, &used);
        y = used.bottom() + 2 * perMm;
    }
}

/// Which stencil it is: true size where there is room.
void drawStencil(CardPen& c, const SprayCard& card) {
    auto& [p, perMm, page, left, right, wide, y] = c;
    const QColor muted(kMuted);
    const Box2 box = boxSideBySide(*card.study.mask);
    const QSizeF size(box.size().x() * perMm, box.size().y() * perMm);
    const double foot = page.height() - 16 * perMm;
    if (size.width() < wide && size.height() < foot - y - 5 * perMm) {
        const auto at = [&](const Vec2& v) {
            return QPointF(right - (box.high.x() - v.x()) * perMm, foot - (v.y() - box.low.y()) * perMm);
        };
        const std::vector<Sheet>& sheets = card.study.mask->sheets;
        const std::vector<Vec2> shifts = sideBySide(*card.study.mask);
        for (std::size_t k = 0; k < sheets.size(); ++k) {
            const auto ring = [&](const Polygon2& outline) {
                QPolygonF polygon;
                for (const Vec2& v : outline) polygon << at(v + shifts[k]);
                return polygon;
            };
            p.setPen(QPen(muted, 0.3 * perMm));
            p.setBrush(materialColour(card.study.spec->wish.material));
            p.drawPolygon(ring(sheets[k].outline));
            p.setBrush(card.paint);
            for (const Window& window : sheets[k].windows) p.drawPolygon(ring(window.outline));
            p.setBrush(Qt::white);
            for (const Polygon2& hole : sheets[k].holes) p.drawPolygon(ring(hole));
        }
        p.setFont(c.font(3.1, QFont::Normal));
        p.setPen(muted);
        p.drawText(QPointF(right - size.width(), foot + 4.5 * perMm), QObject::tr("true size"));
    }
}

}  // namespace

void drawSprayCard(QPainter& p, const SprayCard& card, double perMm) {
    p.save();
    p.setRenderHint(QPainter::Antialiasing);
    const QRectF page(QPointF(0, 0), kSprayCard_mm * perMm);
    p.fillRect(page, Qt::white);
    const double margin = kMargin_mm * perMm;
    CardPen c{p, perMm, page, margin, page.width() - margin, page.width() - 2 * margin, margin};
    const QString side = card.study.spec->side == Side::Left ? QObject::tr("LEFT") : QObject::tr("RIGHT");
    c.text(QString("%1, %2").arg(QString::fromStdString(card.study.spec->shownName()), side), 7, QFont::Bold,
           QColor(kInk), 0.5);
    c.text(QObject::tr("on %1, %2")
               .arg(card.blank, card.pattern.isEmpty() ? QObject::tr("no pattern name") : card.pattern),
           3.6, QFont::Normal, QColor(kMuted), 3);
    drawSettings(c, card);
    drawEdgeLine(c, card);
    drawSteps(c, card);
    for (const Warning& w : card.study.plan->warnings)
        c.text(said(w), 3.5, QFont::Medium, QColor(kCaution), 1);
    drawStencil(c, card);
    p.setFont(c.font(2.9, QFont::Normal));
    p.setPen(QColor(kMuted));
    p.drawText(QRectF(margin, page.height() - 15 * perMm, c.wide, 10 * perMm),
               Qt::TextWordWrap | Qt::AlignLeft | Qt::AlignBottom,
               QObject::tr("The product's data sheet and local rules come first. Nine Leaves."));
    p.restore();
}

Status writeSprayCards(const std::vector<SprayCard>& cards, const QString& path) {
    QByteArray bytes;
    QBuffer buffer(&bytes);
    buffer.open(QIODevice::WriteOnly);
    {
        QPdfWriter pdf(&buffer);
        pdf.setResolution(600);
        pdf.setTitle(QObject::tr("Spray cards"));
        pdf.setPageSize(QPageSize(kSprayCard_mm, QPageSize::Millimeter));
        pdf.setPageMargins(QMarginsF());
        QPainter p(&pdf);
        for (std::size_t i = 0; i < cards.size(); ++i) {
            if (i > 0) pdf.newPage();
            drawSprayCard(p, cards[i], 600 / 25.4);
        }
    }
    return writeFileAtomically(path.toStdString(), bytes.toStdString());
}

}  // namespace nine::app
