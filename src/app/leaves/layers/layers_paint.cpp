// How the rows and the stack of the Layers leaf's page are painted.
#include <algorithm>
#include <cmath>

#include "app/leaves/layers/layers_edits.h"
#include "app/leaves/layers/layers_page.h"
#include "app/leaves/layers/step_words.h"
#include "app/leaves/layers/swatches.h"
#include "app/sheet/ink.h"
#include "app/sheet/names.h"
#include "app/sheet/units_text.h"
#include "paint/build_up.h"

namespace nine::app {
namespace {

QString elided(const QString& words, const QFont& font, double width) {
    return QFontMetricsF(font).elidedText(words, Qt::ElideRight, width);
}

}  // namespace

void LayersPage::paintPage(QPainter& p) {
    const auto& steps = desk_.layers().recipe.steps;
    if (context_.document.empty() || steps.empty()) return paintEmpty(p);
    const Tokens& t = tokens();
    const auto& section = desk_.section();
    const double along = section ? (columns_.filmsEnd - columns_.films) /
                                       std::max(1e-6, section->g_mm.front() - section->g_mm.back())
                                 : 0;
    const double scale = section && stacked_ && section->stack_um > 0
                             ? (rowsBox_.height() - 60) / section->stack_um
                             : perMicron_;
    ink::heading(p, {18, 26}, tr("Layers"),
                 section && along > 0
                     ? tr("cut at %1 from back line to belly line; films drawn %2 × too thick")
                           .arg(lengthText(section->x_mm, 1))
                           .arg(std::lround(1000 * scale / along / 10) * 10)
                     : tr("being worked out ..."));
    paintBody(p);
    // Heads of the columns.
    const double y = rowsBox_.top() - 8;
    const auto head = [&](double x, const QString& words, Qt::Alignment align) {
        ink::text(p, {x, y}, words, inter(10.5), t.muted, align);
    };
    if (!stacked_) {
        head(columns_.words, tr("read upwards"), Qt::AlignLeft);
        head(columns_.tag, tr("where"), Qt::AlignLeft);
        head(columns_.drops, forLures(desk_.layers().lures), Qt::AlignRight);
        head(columns_.ratio, tr("thinned"), Qt::AlignRight);
    }
    const QString words = stacked_ ? tr("films apart") : tr("one stack");
    const double w = ink::widthOf(words, inter(11)) + 20;
    switch_ = QRectF(columns_.films + 0.5 * (columns_.filmsEnd - columns_.films - w), y - 15, w, 20);
    p.setPen(QPen(t.line, 1));
    p.setBrush(t.sheet.lightness() > 128 && t.dark ? t.deep : t.sheet);
    p.drawRoundedRect(switch_, 10, 10);
    ink::text(p, switch_.center() + QPointF(0, 4), words, inter(11), t.ink, Qt::AlignHCenter);
    stacked_ ? paintStack(p) : paintRows(p);
    paintAxis(p, rowsBox_.bottom() + 16);
}

void LayersPage::paintEmpty(QPainter& p) {
    const Tokens& t = tokens();
    const bool body = context_.results.body().skin && !context_.document.empty();
    ink::heading(p, {18, 26}, tr("Layers"), {});
    if (body) view_->paint(p);
    p.setPen(t.muted);
    p.setFont(inter(13));
    p.drawText(QRectF(60, body ? rowsBox_.top() + 20 : 0.4 * height(), width() - 120, 110),
               Qt::AlignHCenter | Qt::TextWordWrap,
               !body ? tr("Nothing to paint yet: this leaf needs a body.")
               : desk_.beginning()
                   ? tr("Making a recipe from the pattern, its masks and the net ...")
                   : tr("No steps yet. The card begins a recipe from the pattern, its masks and the net, "
                        "light to dark or from the back down, with paints of your shelf; then every step "
                        "is seen here over what is really beneath it."));
}

void LayersPage::paintAxis(QPainter& p, double y) {
    const Tokens& t = tokens();
    const auto& section = desk_.section();
    if (!section) return;
    ink::text(p, {columns_.films, y}, tr("back line"), inter(10.5), t.muted);
    ink::text(p, {columns_.filmsEnd, y}, tr("belly line"), inter(10.5), t.muted, Qt::AlignRight);
    const double middle = filmX(*section, 0);
    if (middle - columns_.films > 80 && columns_.filmsEnd - middle > 80)
        ink::text(p, {middle, y}, tr("lateral line"), inter(10.5), t.muted, Qt::AlignHCenter);
    p.setPen(QPen(t.line, 0.8, Qt::CustomDashLine));
    QPen pen(t.line, 0.8);
    pen.setDashPattern({9, 3, 2, 3});
    p.setPen(pen);
    p.drawLine(QPointF(middle, rowsBox_.top()), QPointF(middle, rowsBox_.bottom()));
}

void LayersPage::paintRows(QPainter& p) {
    p.save();
    p.setClipRect(rowsBox_.adjusted(-6, 0, 6, 1));
    for (const Row& row : rows_)
        if (row.box.bottom() > rowsBox_.top() && row.box.top() < rowsBox_.bottom()) paintRow(p, row);
    if (hand_ == Hand::Row && moved_) {
        // Where it would come down.
        const std::size_t to = dropPlace(pointer_.y());
        double y = rowsBox_.bottom();
        std::size_t below = 0;
        for (const Row& row : rows_) {
            if (below == to) {
                y = row.box.bottom();
                break;
            }
            if (!holds(row, held_)) below += row.count;
            y = row.box.top();
        }
        p.setPen(QPen(tokens().select, 2.4));
        p.drawLine(QPointF(rowsBox_.left() + 8, y), QPointF(rowsBox_.right() - 8, y));
    }
    p.restore();
    if (content_ > rowsBox_.height()) {
        const double room = rowsBox_.height(), bar = std::max(24.0, room * room / content_);
        const double at = rowsBox_.top() + (room - bar) * scroll_ / (content_ - room);
        p.setPen(Qt::NoPen);
        p.setBrush(tokens().line);
        p.drawRoundedRect(QRectF(width() - 7, at, 4, bar), 2, 2);
    }
}

void LayersPage::paintRow(QPainter& p, const Row& row) {
    // In one piece: frame, number, swatch, words, film with what is seen, then the columns.
    const Tokens& t = tokens();
    const auto& steps = desk_.layers().recipe.steps;
    if (row.step >= steps.size()) return;
    const Step& step = steps[row.step];
    const LayersStudy& study = desk_.study();
    const bool selected = holds(row, context_.view.step());
    const QRectF box = row.box.adjusted(1, 1, -1, -1);
    if (selected) {
        p.setPen(QPen(t.select, 1.5));
        p.setBrush(t.panel);
        p.drawRoundedRect(box, 6, 6);
    }
    const double middle = box.center().y();
    const QColor colour = step.on ? t.ink : t.muted;
    if (!step.group.empty()) {
        p.setPen(QPen(t.muted, 1.2));
        p.drawLine(QPointF(box.left() + 6, box.top()), QPointF(box.left() + 6, box.bottom()));
    }
    for (int i = -1; i <= 1; ++i) {  // the grip
        p.setPen(QPen(t.muted, 1));
        p.drawLine(QPointF(box.left() + 11, middle + 4 * i), QPointF(box.left() + 16, middle + 4 * i));
    }
    ink::text(p, {columns_.number, middle + 4}, QString::number(row.step + 1),
              inter(11.5, selected ? QFont::Bold : QFont::Normal), selected ? t.select : t.muted,
              Qt::AlignRight);
    const auto finding = std::find_if(study.findings.begin(), study.findings.end(),
                                      [&](const RuleFinding& f) { return holds(row, f.step); });
    const int flagNumber = static_cast<int>(finding - study.findings.begin()) + 1;
    const double room = columns_.films - columns_.words - 8;
    if (row.thin) {
        const QFont font = inter(11.5, QFont::Medium);
        ink::text(p, {columns_.words, middle + 4}, elided(stepTitle(step), font, room + 24), font, colour);
        const QString more = elided(stepRemark(context_.document.job(), step), inter(11),
                                    columns_.ratio - columns_.films - 34);
        ink::text(p, {columns_.films + 18, middle + 4}, more, inter(11), t.muted);
        if (finding != study.findings.end())
            ink::flag(p, {columns_.ratio - 16, middle + 8}, severityOf(finding->severity), flagNumber);
        return;
    }
    // The paint as a drop over what it goes on.
    const double side = std::min(36.0, box.height() - 8);
    const QRectF swatch(columns_.swatch, middle - side / 2, side, side);
    const auto what = study.overOf(step.id);
    drawDrop(p, swatch, what ? QColor::fromRgb(shown(srgbOf(what->groundPlace, kMatt))) : t.deep,
             what ? QColor::fromRgb(shown(srgbOf(what->afterPlace, kMatt))) : t.deep);
    const QFont bold = inter(12.5, QFont::DemiBold);
    ink::text(p, {columns_.words, middle - 2}, elided(stepTitle(step), bold, room), bold, colour);
    ink::text(p, {columns_.words, middle + 13},
              elided(stepRemark(context_.document.job(), step), inter(11), room), inter(11), t.muted);
    const QRectF film(columns_.films, box.top() + 3, columns_.filmsEnd - columns_.films, box.height() - 7);
    if (desk_.section())
        for (const FilmInSection& f : desk_.section()->films)
            if (f.step == study.placeOf(step.id)) paintFilm(p, f, film, !step.on);
    if (finding != study.findings.end())
        ink::flag(p, {film.right() - 8, film.bottom() - 8}, severityOf(finding->severity), flagNumber, true);
    // Where, how much, how thin.
    const double tagRoom = columns_.drops - columns_.tag - 66;
    const QString tag = whereTag(context_.document.job(), step), kind = whereKind(step);
    const bool boxed = step.where.reaches == Reaches::Windows || step.where.reaches == Reaches::Negatives ||
                       step.where.reaches == Reaches::Net;
    if (boxed) {
        const double w = std::min(tagRoom, ink::widthOf(tag, inter(11.5, QFont::DemiBold)) + 26);
        const QRectF frame(columns_.tag, middle - 17, w, 19);
        p.setPen(QPen(t.ink, 1));
        p.setBrush(t.dark ? t.deep : t.sheet);
        p.drawRoundedRect(frame, 3, 3);
        const bool negative = step.where.reaches == Reaches::Negatives;
        p.setBrush(negative ? QBrush(t.ink) : Qt::NoBrush);
        p.drawEllipse(frame.topLeft() + QPointF(9, 6), 2.6, 2.6);
        p.drawEllipse(frame.topLeft() + QPointF(9, 13.5), 2.6, 2.6);
        ink::text(p, frame.topLeft() + QPointF(18, 14), elided(tag, inter(11.5, QFont::DemiBold), w - 22),
                  inter(11.5, QFont::DemiBold), t.ink);
    } else {
        ink::text(p, {columns_.tag, middle - 3}, elided(tag, inter(11.5), tagRoom), inter(11.5), colour);
    }
    ink::text(p, {columns_.tag, middle + 13}, elided(kind, inter(11), tagRoom), inter(11), t.muted);
    if (const StepAmount* amount = study.amountOf(step.id)) {
        ink::text(p, {columns_.drops, middle - 2}, tr("%1 drops").arg(amount->drops),
                  inter(12, QFont::DemiBold), t.ink, Qt::AlignRight);
        ink::text(p, {columns_.drops, middle + 13},
                  tr("%1 ml").arg(amount->paint_ml + amount->reducer_ml, 0, 'f', 2), inter(11), t.muted,
                  Qt::AlignRight);
    }
    ink::text(p, {columns_.ratio, middle - 2}, QString::fromStdString(ratioText(step)),
              inter(12, QFont::DemiBold), colour, Qt::AlignRight);
    Ratio drops = 0;
    for (const MixPart& part : step.paint) drops += part.drops;
    if (drops > 0)
        ink::text(p, {columns_.ratio, middle + 13},
                  (width() < 720 ? tr("%1 %") : tr("%1 % paint"))
                      .arg(100 * drops / (drops + step.reducer), 0, 'f', 0),
                  inter(11), t.muted, Qt::AlignRight);
}

void LayersPage::paintSeen(QPainter& p, const std::vector<std::uint32_t>& seen, const QRectF& box) {
    QImage line(static_cast<int>(seen.size()), 1, QImage::Format_RGB32);
    for (std::size_t k = 0; k < seen.size(); ++k) line.setPixel(static_cast<int>(k), 0, seen[k]);
    p.drawImage(box, line);
}

void LayersPage::paintFilm(QPainter& p, const FilmInSection& film, const QRectF& box, bool off) {
    const RecipeSection& section = *desk_.section();
    constexpr double kSeen_px = 7;
    const double base = box.bottom() - kSeen_px;
    QPolygonF top;
    for (std::size_t k = 0; k < film.dry_um.size(); ++k)
        top << QPointF(filmX(section, section.g_mm[k]), base - perMicron_ * film.dry_um[k]);
    QPolygonF area = top;
    area << QPointF(box.right(), base) << QPointF(box.left(), base);
    if (off) p.setOpacity(0.35);
    p.setPen(Qt::NoPen);
    p.setBrush(QColor::fromRgb(film.paint));
    p.drawPolygon(area);
    p.setPen(QPen(tokens().ink, 1));
    p.drawPolyline(top);
    paintSeen(p, film.seen, QRectF(box.left(), base, box.width(), kSeen_px));
    p.setPen(QPen(tokens().line, 0.8));
    p.drawLine(QPointF(box.left(), base), QPointF(box.right(), base));
    p.setOpacity(1);
}

void LayersPage::paintStack(QPainter& p) {
    // One film upon another, all at one scale; the selected one outlined, its name beside it.
    const auto& section = desk_.section();
    if (!section || section->stack_um <= 0) return;
    const Tokens& t = tokens();
    const double base = rowsBox_.bottom() - 22, scale = (rowsBox_.height() - 60) / section->stack_um;
    const QRectF ground(columns_.films, base, columns_.filmsEnd - columns_.films, 14);
    p.setPen(Qt::NoPen);
    p.setBrush(QBrush(t.muted, Qt::BDiagPattern));
    p.drawRect(ground);
    ink::text(p, {columns_.films - 10, base + 11}, tr("blank"), inter(11), t.muted, Qt::AlignRight);
    std::vector<double> under(section->g_mm.size());
    const auto& steps = desk_.study().on->of.get<LayersChapter>().recipe.steps;
    double lastName = 1e9;
    for (const FilmInSection& film : section->films) {
        QPolygonF area, top;
        for (std::size_t k = 0; k < under.size(); ++k) {
            const double x = filmX(*section, section->g_mm[k]);
            area << QPointF(x, base - scale * under[k]);
            under[k] += film.dry_um[k];
            top << QPointF(x, base - scale * under[k]);
        }
        for (auto it = top.rbegin(); it != top.rend(); ++it) area << *it;
        const Step& step = steps[film.step];
        const bool selected = step.id == context_.view.step();
        p.setPen(QPen(selected ? t.select : QColor(0, 0, 0, 90), selected ? 2 : 0.6));
        p.setBrush(QColor::fromRgb(film.paint));
        p.drawPolygon(area);
        // Named where it ends on the right, or where it is thickest; names keep clear of each other.
        const auto thickest = std::max_element(film.dry_um.begin(), film.dry_um.end());
        const auto k = static_cast<int>(thickest - film.dry_um.begin());
        const QPointF at(top[k].x(), top[k].y() + 0.5 * scale * *thickest);
        const double y = std::min(at.y(), lastName - 15);
        constexpr double kSeen_um = 0.2;  // thinner here than a line
        if (*thickest < kSeen_um || y < rowsBox_.top() + 6) continue;
        lastName = y;
        const QPointF from(columns_.filmsEnd + 16, y);
        p.setPen(QPen(selected ? t.select : t.muted, 0.7));
        p.drawLine(from - QPointF(2, 0), at);
        ink::text(
            p, from + QPointF(2, 4),
            elided(tr("%1  %2, %3 µm").arg(film.step + 1).arg(stepTitle(step)).arg(*thickest, 0, 'f', 1),
                   inter(11.5), width() - from.x() - 14),
            inter(11.5, selected ? QFont::Bold : QFont::Normal), selected ? t.select : t.ink);
    }
    if (!section->films.empty())
        paintSeen(p, section->films.back().seen,
                  QRectF(columns_.films, rowsBox_.top() + 8, ground.width(), 12));
    ink::text(p, {columns_.films - 10, rowsBox_.top() + 18}, tr("what is seen"), inter(11), t.muted,
              Qt::AlignRight);
}

}  // namespace nine::app
