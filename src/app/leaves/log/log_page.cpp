#include "app/leaves/log/log_page.h"

#include <QDateTime>
#include <QKeyEvent>
#include <QLocale>
#include <QMouseEvent>
#include <algorithm>
#include <cmath>

#include "app/sheet/ink.h"
#include "app/sheet/names.h"
#include "app/sheet/units_text.h"

namespace nine::app {
namespace {

constexpr double kMargin = 18, kPad = 24;

/// Words on as many lines as they need; returns the foot.
double wrapped(QPainter& p, const QPointF& at, const QString& words, const QFont& font, const QColor& colour,
               double wide, int most = 6) {
    const QFontMetricsF metrics(font);
    double y = at.y();
    QStringList left = words.split(' ', Qt::SkipEmptyParts);
    for (int n = 0; n < most && !left.isEmpty(); ++n) {
        QString row = left.takeFirst();
        while (!left.isEmpty() && metrics.horizontalAdvance(row + " " + left.first()) <= wide)
            row += " " + left.takeFirst();
        if (n == most - 1 && !left.isEmpty()) row += " " + left.join(' ');
        ink::text(p, {at.x(), y}, metrics.elidedText(row, Qt::ElideRight, wide), font, colour);
        y += metrics.lineSpacing() + 2;
    }
    return y;
}

bool lays(const LaidStep& step) {
    return paints(step.act) || step.act == Act::Clear || step.act == Act::Eyes || step.act == Act::Lock ||
           step.step.empty();
}

}  // namespace

QString dropsOf(const LaidStep& step) {
    Ratio drops = 0;
    for (const CardPaint& paint : step.paint) drops += paint.drops;
    return QString("%1 : %2").arg(drops, 0, 'g', 3).arg(step.reducer, 0, 'g', 3);
}

QString changeText(const std::string& change) {
    const QString words = QString::fromStdString(change);
    const QString key = words.section(' ', 0, 0), value = words.section(' ', 1);
    for (const BenchKey& known : benchKeys())
        if (key.section(':', 0, 0) ==
            QString::fromUtf8(known.id.data(), static_cast<qsizetype>(known.id.size()))) {
            if (known.id == "pressure_kpa")
                return LogDesk::tr("%1 psi").arg(value.toDouble() / kKpaPerPsi, 0, 'f', 0);
            if (known.id == "distance_mm") return lengthText(value.toDouble(), 0);
            return said(Words(known.name)) + " " + value;
        }
    return words;
}

LogPage::LogPage(LeafContext context, LogDesk& desk) : LeafPage(context), desk_(desk) {
    setFocusPolicy(Qt::StrongFocus);
    setAccessibleName(tr("Recipe card"));
    connect(&desk_, &LogDesk::changed, this, [this] {
        const std::string now = desk_.card() ? desk_.card()->id : std::string();
        if (now != shown_) scroll_ = 0;
        shown_ = now;
        follow();
    });
}

void LogPage::showEvent(QShowEvent* event) {
    LeafPage::showEvent(event);
    desk_.read();
}

bool LogPage::scrolls(const QPointF&, int steps) {
    if (scrollMost_ <= 0) return false;
    scroll_ = std::clamp(scroll_ - 36.0 * steps, 0.0, scrollMost_);
    update();
    return true;
}

void LogPage::mousePressEvent(QMouseEvent* event) {
    if (desk_.card() && picture_.contains(event->position())) emit pictureWanted();
}

void LogPage::keyPressEvent(QKeyEvent* event) {
    switch (event->key()) {
        case Qt::Key_Up:
            return desk_.selectBeside(-1);
        case Qt::Key_Down:
            return desk_.selectBeside(1);
        default:
            LeafPage::keyPressEvent(event);
    }
}

void LogPage::paintPage(QPainter& p) {
    const RecipeCard* card = desk_.card();
    picture_ = {};
    if (!card) return paintEmpty(p);
    double y = 20 - scroll_;
    y = paintCard(p, *card, y);
    if (!card->sides.empty()) y = paintSides(p, *card, y + 22);
    scrollMost_ = std::max(0.0, y + scroll_ + 14 - height());
}

void LogPage::paintEmpty(QPainter& p) {
    ink::heading(p, {kMargin, 30}, tr("What worked, and how to do it again"), {});
    QString words =
        tr("A recipe card is made here of each run that was recorded at the bench. None has been made yet.");
    if (desk_.problem())
        words = said(*desk_.problem());
    else if (!desk_.book())
        words = tr("Reading the workshop file ...");
    else if (!desk_.book()->cards.empty())
        words = tr("No card holds all of these words.");
    wrapped(p, {kMargin, 62}, words, inter(13), tokens().ink, std::min(620.0, width() - 2 * kMargin));
    // How one will look.
    const QRectF sheet(kMargin, 100, std::min(620.0, width() - 2 * kMargin), 300);
    p.setPen(QPen(tokens().line, 1, Qt::DashLine));
    p.setBrush(Qt::NoBrush);
    p.drawRoundedRect(sheet, 6, 6);
    for (int i = 0; i < 8; ++i)
        p.drawRect(QRectF(sheet.left() + kPad + i * (sheet.width() - 2 * kPad) / 8, sheet.bottom() - 90,
                          (sheet.width() - 2 * kPad) / 8 - 6, 34));
    p.drawRect(QRectF(sheet.left() + kPad, sheet.top() + 24, 200, 130));
    ink::text(p, {sheet.left() + kPad + 216, sheet.top() + 44}, tr("what came of it"), inter(11.5),
              tokens().muted);
    ink::text(p, {sheet.left() + kPad, sheet.bottom() - 100}, tr("how it was laid down"), inter(11.5),
              tokens().muted);
}

double LogPage::paintCard(QPainter& p, const RecipeCard& card, double top) {
    // In one piece: the sheet, then all that stands on it.
    const double wide = width() - 2 * kMargin;
    const QRectF inner(kMargin + kPad, top + 16, wide - 2 * kPad, 0);
    const double pictureWide = std::min(336.0, inner.width() * 0.42);
    const QRectF picture(inner.left(), inner.top() + 50, pictureWide, pictureWide * 0.62);
    const QRectF outcome(picture.right() + 26, picture.top(), inner.right() - picture.right() - 26,
                         picture.height());
    const auto laidOut = [&](QPainter& on) {
        const double used = ink::widthOf(QString::fromStdString(card.title), inter(24, QFont::Bold));
        ink::text(on, {inner.left(), inner.top() + 26},
                  QFontMetricsF(inter(24, QFont::Bold))
                      .elidedText(QString::fromStdString(card.title), Qt::ElideRight, inner.width() * 0.6),
                  inter(24, QFont::Bold), tokens().ink);
        const QString lures = card.lures == 1 ? tr("one lure") : tr("%1 lures").arg(card.lures);
        const QString more = tr("on %1, %2").arg(QString::fromStdString(card.blank), lures);
        const QString date =
            QLocale().toString(QDateTime::fromSecsSinceEpoch(card.ended).date(), QLocale::ShortFormat);
        const double room =
            inner.width() - std::min(used, inner.width() * 0.6) - ink::widthOf(date, inter(12)) - 40;
        if (room > 60)
            ink::text(on, {inner.left() + std::min(used, inner.width() * 0.6) + 16, inner.top() + 26},
                      QFontMetricsF(inter(12.5)).elidedText(more, Qt::ElideRight, room), inter(12.5),
                      tokens().muted);
        ink::text(on, {inner.right(), inner.top() + 26}, date, inter(12), tokens().muted, Qt::AlignRight);
        on.setPen(QPen(tokens().line, 1));
        on.drawLine(QPointF(inner.left(), inner.top() + 38), QPointF(inner.right(), inner.top() + 38));
        paintPicture(on, picture);
        const double foot = paintOutcome(on, card, outcome);
        return paintSteps(on, card,
                          QRectF(inner.left(), std::max(picture.bottom(), foot) + 24, inner.width(), 0));
    };
    p.setPen(QPen(tokens().line, 1));
    p.setBrush(tokens().dark ? tokens().panel : tokens().sheet);
    p.drawRoundedRect(QRectF(kMargin, top, wide, std::max(120.0, sheetHigh_)), 6, 6);
    const double foot = laidOut(p) + 18;
    // As high as it turned out: known from the second look on.
    if (std::abs(foot - top - sheetHigh_) > 0.5) {
        sheetHigh_ = foot - top;
        update();
    }
    picture_ = picture;
    return foot;
}

void LogPage::paintPicture(QPainter& p, const QRectF& box) {
    p.setPen(Qt::NoPen);
    p.setBrush(tokens().deep);
    p.drawRect(box);
    if (!desk_.pictures().empty()) {
        const QImage& image = desk_.pictures().front();
        const QSizeF size = QSizeF(image.size()).scaled(box.size() - QSizeF(12, 12), Qt::KeepAspectRatio);
        const QRectF place(box.center() - QPointF(size.width() / 2, size.height() / 2), size);
        p.setRenderHint(QPainter::SmoothPixmapTransform);
        p.drawImage(place, image);
        if (desk_.pictures().size() > 1)
            ink::text(p, {box.right() - 8, box.bottom() - 8}, tr("one of %1").arg(desk_.pictures().size()),
                      inter(11), tokens().ink, Qt::AlignRight);
        return;
    }
    // Corners, as photos are kept in an album.
    p.setBrush(tokens().paper);
    p.setPen(QPen(tokens().line, 1));
    const double c = 20;
    for (const auto& [x, y, dx, dy] : {std::tuple{box.left(), box.top(), 1, 1},
                                       {box.right(), box.top(), -1, 1},
                                       {box.left(), box.bottom(), 1, -1},
                                       {box.right(), box.bottom(), -1, -1}})
        p.drawPolygon(QPolygonF({{x, y}, {x + dx * c, y}, {x, y + dy * c}}));
    ink::text(p, box.center() + QPointF(0, 4), tr("drop a photo of the finished lure here"), inter(12),
              tokens().ink, Qt::AlignHCenter);
}

double LogPage::paintOutcome(QPainter& p, const RecipeCard& card, const QRectF& box) {
    // In one piece: words, what was done otherwise, mishaps, what is seen.
    double y = box.top() + 12;
    ink::text(p, {box.left(), y}, tr("What came of it"), inter(12.5, QFont::Bold), tokens().ink);
    y += 20;
    const QFont font = inter(12);
    if (!card.text.empty())
        y = wrapped(p, {box.left(), y}, QString::fromStdString(card.text), font, tokens().ink, box.width(),
                    4) +
            4;
    QStringList otherwise;
    for (const LaidStep& step : card.steps) {
        if (step.skipped) otherwise << tr("%1 left out").arg(QString::fromStdString(step.name));
        if (step.step.empty()) otherwise << tr("besides: %1").arg(QString::fromStdString(step.name));
        for (const std::string& change : step.changed)
            otherwise << tr("%1: %2").arg(QString::fromStdString(step.name), changeText(change));
    }
    if (!otherwise.isEmpty())
        y = wrapped(p, {box.left(), y}, tr("Otherwise than planned: %1.").arg(otherwise.join("; ")), font,
                    tokens().ink, box.width(), 4) +
            4;
    QStringList mishapsSeen;
    for (const CardMishap& mishap : card.mishaps)
        for (const MishapKind& kind : mishaps())
            if (kind.id == mishap.kind)
                mishapsSeen << (mishap.lure > 0
                                    ? tr("lure %1 %2").arg(mishap.lure).arg(said(Words(kind.name)))
                                    : said(Words(kind.name)));
    if (!mishapsSeen.isEmpty())
        y = wrapped(p, {box.left(), y}, tr("Mishaps: %1.").arg(mishapsSeen.join(", ")), font, tokens().ink,
                    box.width(), 3) +
            4;
    double ml = 0;
    for (const CardAmount& amount : card.amounts) ml += amount.used_ml;
    const int minutes = (card.painted_s + 30) / 60;
    y = wrapped(p, {box.left(), y},
                tr("It took %1 h %2 and %3 ml of paint.")
                    .arg(minutes / 60)
                    .arg(minutes % 60, 2, 10, QChar('0'))
                    .arg(ml, 0, 'f', 1),
                font, tokens().muted, box.width(), 2) +
        6;
    double x = box.left();
    for (const ResultMark& mark : resultMarks()) {
        if (std::find(card.seen.begin(), card.seen.end(), mark.id) == card.seen.end()) continue;
        const QString words = said(Words(mark.name));
        const double wide = ink::widthOf(words, inter(11.5)) + 46;
        if (x + wide > box.right()) x = box.left(), y += 30;
        const QRectF pill(x, y - 4, wide, 24);
        p.setPen(QPen(tokens().line, 1));
        p.setBrush(tokens().paper);
        p.drawRoundedRect(pill, 12, 12);
        if (mark.good)
            ink::tick(p, {pill.left() + 15, pill.center().y()});
        else
            ink::flagShape(p, {pill.left() + 7, pill.center().y() - 6}, ink::Severity::Caution, {});
        ink::text(p, {pill.left() + 34, pill.center().y() + 4}, words, inter(11.5), tokens().ink);
        x = pill.right() + 8;
    }
    return y + 26;
}

double LogPage::paintSteps(QPainter& p, const RecipeCard& card, const QRectF& box) {
    // In one piece: a swatch a step, first to last, as many in a row as there is room for.
    double y = box.top();
    const double used = ink::widthOf(tr("How it was laid down"), inter(12.5, QFont::Bold));
    ink::text(p, {box.left(), y}, tr("How it was laid down"), inter(12.5, QFont::Bold), tokens().ink);
    ink::text(p, {box.left() + used + 10, y}, tr("first to last; the lower strip is what it went over"),
              inter(11), tokens().muted);
    y += 10;
    const int inRow = std::clamp(static_cast<int>(box.width() / 92), 4, 12);
    const double step = box.width() / inRow, wide = step - 6;
    constexpr double kHigh = 108;
    int n = 0;
    for (const LaidStep& laid : card.steps) {
        if (!lays(laid)) continue;
        const double x = box.left() + (n % inRow) * step, top = y + (n / inRow) * kHigh;
        ++n;
        p.setPen(QPen(tokens().ink, 0.9));
        p.setBrush(laid.colour.empty() ? tokens().paper : QColor(QString::fromStdString(laid.colour)));
        p.drawRect(QRectF(x, top, wide, 26));
        if (!laid.ground.empty()) {
            p.setBrush(QColor(QString::fromStdString(laid.ground)));
            p.drawRect(QRectF(x, top + 26, wide, 9));
        }
        if (laid.skipped) p.drawLine(QPointF(x, top + 26), QPointF(x + wide, top));
        const auto row = [&](int k, const QString& words, const QFont& font, const QColor& colour) {
            if (!words.isEmpty())
                ink::text(p, {x, top + 48 + 14.0 * k},
                          QFontMetricsF(font).elidedText(words, Qt::ElideRight, wide), font, colour);
        };
        // A long name takes two lines.
        const QString name = QString::fromStdString(laid.name);
        const QFont bold = inter(11.5, QFont::DemiBold);
        const qsizetype blank =
            ink::widthOf(name, bold) > wide ? name.lastIndexOf(' ', name.size() * 2 / 3) : -1;
        row(0, blank > 0 ? name.left(blank) : name, bold, tokens().ink);
        const int k = blank > 0 ? 1 : 0;
        if (blank > 0) row(1, name.mid(blank + 1), bold, tokens().ink);
        QString how;
        if (!laid.paint.empty())
            how = dropsOf(laid) + (laid.set.pressure_kpa > 0
                                       ? tr("  %1 psi").arg(laid.set.pressure_kpa / kKpaPerPsi, 0, 'f', 0)
                                       : QString());
        row(k + 1, how, inter(10.5), tokens().muted);
        QString through = laid.mask.empty() ? (paints(laid.act) ? tr("free") : QString())
                                            : QString::fromStdString(laid.mask);
        if (laid.mask == laid.name) through = tr("through its mask");
        row(k + 2, through, inter(10.5), laid.mask.empty() ? tokens().muted : tokens().select);
    }
    return y + ((n + inRow - 1) / inRow) * kHigh;
}

double LogPage::paintSides(QPainter& p, const RecipeCard& card, double top) {
    // In one piece: both sides with what was found on them, then the differences as bars.
    const QString remark =
        card.measuredLure > 0
            ? tr("lure %1; above %2 it is seen").arg(card.measuredLure).arg(lengthText(kSeen_mm, 1))
            : tr("above %1 it is seen").arg(lengthText(kSeen_mm, 1));
    ink::heading(p, {kMargin, top + 12}, tr("Left against right, measured"), remark);
    double longest = 1, highest = 1;
    for (const SideReading& r : card.sides) {
        longest = std::max({longest, r.plannedX_mm, r.leftX_mm.value_or(0), r.rightX_mm.value_or(0)});
        highest = std::max({highest, r.plannedUp_mm, r.leftUp_mm.value_or(0), r.rightUp_mm.value_or(0)});
    }
    const double bodyWide = std::min(250.0, (width() - 2 * kMargin) * 0.30),
                 perMm = bodyWide / (1.12 * longest);
    const double high = 1.35 * highest * perMm;
    for (const bool right : {false, true}) {
        const double left = kMargin + (right ? bodyWide + 24 : 0), base = top + 36 + high;
        const auto at = [&](double x_mm, double up_mm) {
            return QPointF(right ? left + bodyWide - 6 - x_mm * perMm : left + 6 + x_mm * perMm,
                           base - up_mm * perMm);
        };
        p.setPen(QPen(tokens().line, 1));
        p.drawLine(at(0, 0), at(1.08 * longest, 0));
        p.drawLine(at(0, 0), at(0, 1.2 * highest));
        for (const SideReading& r : card.sides) {
            const auto& x = right ? r.rightX_mm : r.leftX_mm;
            const auto& up = right ? r.rightUp_mm : r.leftUp_mm;
            p.setBrush(Qt::NoBrush);
            p.setPen(QPen(tokens().muted, 1));
            p.drawEllipse(at(r.plannedX_mm, r.plannedUp_mm), 4, 4);
            if (!x && !up) continue;
            p.setPen(Qt::NoPen);
            p.setBrush(tokens().select);
            p.drawEllipse(at(x.value_or(r.plannedX_mm), up.value_or(r.plannedUp_mm)), 2.6, 2.6);
        }
        ink::text(p, {left + bodyWide / 2, base + 18}, right ? tr("right, nose at the right") : tr("left"),
                  inter(11.5, QFont::DemiBold), tokens().ink, Qt::AlignHCenter);
    }
    ink::text(p, {kMargin, top + 36 + high + 34}, tr("rings: as planned; dots: as found"), inter(10.5),
              tokens().muted);
    const double x0 = kMargin + 2 * bodyWide + 60, x1 = width() - kMargin;
    const double middle = x0 + 0.66 * (x1 - x0);
    ink::text(p, {x0, top + 32}, tr("right minus left, mm: along, up"), inter(11), tokens().muted);
    double most = 1;
    for (const MarkDifference& d : desk_.sides().differences)
        most = std::max({most, std::abs(d.along_mm.value_or(0)), std::abs(d.up_mm.value_or(0))});
    const double scale = 0.30 * (x1 - x0) / most;
    double y = top + 50;
    for (const MarkDifference& d : desk_.sides().differences) {
        ink::text(p, {x0, y + 4},
                  QFontMetricsF(inter(11.5))
                      .elidedText(QString::fromStdString(d.mark), Qt::ElideRight,
                                  middle - x0 - 0.30 * (x1 - x0) - 30),
                  inter(11.5), tokens().ink);
        int k = 0;
        for (const auto& value : {d.along_mm, d.up_mm}) {
            if (value) {
                const bool seen = std::abs(*value) > kSeen_mm;
                const QRectF bar =
                    QRectF(QPointF(middle, y - 6 + 8 * k), QSizeF(*value * scale, 6)).normalized();
                p.setPen(Qt::NoPen);
                p.setBrush(seen ? tokens().caution : tokens().ink);
                p.drawRect(bar);
                ink::text(p, {*value < 0 ? bar.left() - 4 : bar.right() + 4, bar.bottom() + 1},
                          QString("%1%2").arg(*value > 0 ? "+" : "").arg(*value, 0, 'f', 1),
                          inter(10.5, seen ? QFont::Bold : QFont::Normal), tokens().ink,
                          *value < 0 ? Qt::AlignRight : Qt::AlignLeft);
            }
            ++k;
        }
        y += 24;
    }
    p.setPen(QPen(tokens().line, 1));
    p.drawLine(QPointF(middle, top + 40), QPointF(middle, y - 10));
    p.setPen(QPen(tokens().caution, 1, Qt::DashLine));
    for (const double limit : {-kSeen_mm, kSeen_mm})
        p.drawLine(QPointF(middle + limit * scale, top + 40), QPointF(middle + limit * scale, y - 10));
    return std::max(y, top + 36 + high + 44);
}

}  // namespace nine::app
