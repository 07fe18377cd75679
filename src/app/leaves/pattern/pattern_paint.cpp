// How the Pattern leaf's page is painted.
#include <QPainter>
#include <cmath>

#include "app/leaves/pattern/pattern_page.h"
#include "app/sheet/ink.h"
#include "app/sheet/names.h"
#include "app/sheet/units_text.h"

namespace nine::app {
namespace {

QColor shown(const Element& e, std::size_t index) {
    return QColor::fromRgb(colourOf(e, index));
}

}  // namespace

void PatternPage::paintPage(QPainter& p) {
    const Tokens& t = tokens();
    const BodyResult& body = context_.results.body();
    if (!body.skin) {
        ink::text(p, QPointF(18, 26), tr("The pattern needs a body first: open one on the Blank leaf."),
                  inter(12.5), t.muted);
        return;
    }
    for (const SideView& on : sideViews()) {
        const bool left = on.side == Side::Left;
        const double y = on.view->box().top() - 30;
        ink::heading(p, QPointF(18, y), left ? tr("Left side") : tr("Right side"),
                     left ? tr("linked marks stand mirrored on the right")
                          : tr("linked marks stand mirrored on the left"));
        on.view->paint(p);
        paintArt(p, on);
    }
    paintSelected(p);
    if (context_.view.sides() != Sides::Both) {
        for (const bool back : {true, false}) {
            const QRectF& box = back ? back_ : belly_;
            ink::heading(p, QPointF(18, box.top() - 8), back ? tr("Back") : tr("Belly"), tr("unrolled"));
            paintStrip(p, box, back);
        }
    }
    paintList(p);
    paintMask(p);
}

void PatternPage::paintArt(QPainter& p, const SideView& on) const {
    const BodyResult& body = context_.results.body();
    for (std::size_t i = 0; i < body.art.size() && i < elements().size(); ++i) {
        if (!elements()[i]->standsOn(on.side)) continue;
        if (isStray(elements()[i]->id)) paintStray(p, on, *body.artOrStray(i));
        if (!body.art[i]) continue;
        const QColor colour = shown(*elements()[i], i);
        p.setPen(QPen(colour.darker(150), 0.7));
        for (const Pass& pass : body.art[i]->passes) {
            p.setBrush(QColor::fromRgb(colourOf(pass.colour, colour.rgb())));
            for (const Outline& outline : pass.outlines) p.drawPolygon(drawn(on, outline));
        }
    }
}

/// Hollow and dashed, at the edge it went over.
void PatternPage::paintStray(QPainter& p, const SideView& on, const ElementArt& art) const {
    QPen dash(tokens().fault, 1.6);
    dash.setDashPattern({4, 3});
    p.setPen(dash);
    p.setBrush(Qt::NoBrush);
    QRectF around;
    for (const Outline& outline : art.outlines()) {
        const QPolygonF polygon = drawn(on, outline);
        p.drawPolygon(polygon);
        around |= polygon.boundingRect();
    }
    ink::text(p, QPointF(around.center().x(), around.top() - 8),
              tr("reaches off the body; it could lie here"), inter(11.5, QFont::DemiBold), tokens().fault,
              Qt::AlignHCenter);
}

void PatternPage::paintSelected(QPainter& p) const {
    const ElementArt* art = selectedArt();
    const ElementPtr e = selected();
    const SideView on = leading();
    if (!art || !e || !e->standsOn(on.side)) return;
    const Tokens& t = tokens();
    p.setPen(QPen(t.select, 1.5));
    p.setBrush(Qt::NoBrush);
    QPolygonF line;
    for (const Outline& outline : art->outlines()) {
        const QPolygonF polygon = drawn(on, outline);
        p.drawPolygon(polygon);
        line << polygon.boundingRect().center();
    }
    p.setPen(QPen(t.select, 0.9));
    p.drawPolyline(line);
    for (const Handle& handle : handles()) {
        const QPointF at = handleAt(handle.key);
        if (!at.isNull()) ink::diamond(p, at, handle.key == handleInHand() ? 7 : 5, t.select);
    }
    const auto tag = [&](const QPointF& at, const QString& words, double up) {
        const QFont f = inter(11, QFont::DemiBold);
        const double w = ink::widthOf(words, f) + 12;
        const QRectF box(at.x() - 0.5 * w, at.y() - up - 18, w, 18);
        p.setPen(QPen(t.select, 1));
        p.drawLine(at, QPointF(at.x(), box.bottom()));
        p.setBrush(t.sheet);
        p.drawRoundedRect(box, 4, 4);
        ink::text(p, QPointF(box.center().x(), box.bottom() - 5), words, f, t.ink, Qt::AlignHCenter);
    };
    QPointF tagged;
    for (const Handle& handle : handles()) {
        const QPointF at = handleAt(handle.key);
        if (handle.tag.empty() || at.isNull()) continue;
        if (!tagged.isNull() && std::abs(at.x() - tagged.x()) <= 70) continue;  // no room beside the other
        tag(at, said(sentenceOf(*e, handle.tag)), 26);
        tagged = at;
    }

    // Anchor lines: from the landmark to the first mark, from there to the last, under the body.
    const double y = on.view->bounds().bottom() + 22;
    const QPointF first = line.first(), last = line.last();
    p.setPen(QPen(t.select, 0.6));
    p.drawLine(QPointF(first.x(), first.y() + 6), QPointF(first.x(), y + 5));
    p.drawLine(QPointF(last.x(), last.y() + 6), QPointF(last.x(), y + 5));
    paintAnchor(p, first, y);
    if (art->outlines().size() > 1 && std::abs(last.x() - first.x()) > 60) {
        const double along = findKind(e->kind)->rowLength_mm(e->values);
        ink::dimension(p, QPointF(first.x(), y), QPointF(last.x(), y), tr("row %1").arg(lengthText(along)),
                       true);
    }
}

void PatternPage::paintAnchor(QPainter& p, const QPointF& first, double y) const {
    const Element& e = *selected();
    const auto& landmarks = context_.document.job().get<BlankChapter>().landmarks;
    const auto landmark = landmarks.find(e.anchor);
    if (landmark == landmarks.end()) return;
    const SideView on = leading();
    const Skin& skin = *context_.results.body().skin;
    const Vec2 from = referencePoint(landmark->second, selectedArt()->origin.y());
    const SkinPoint point{on.side, from.x(), from.y()};
    if (!skin.check(point, "")) return;
    const QPointF at = on.view->at(skin.at(point).position);
    const QColor colour = tokens().select;
    p.setPen(QPen(colour, 0.6));
    p.drawLine(at, QPointF(at.x(), y + 5));
    ink::diamond(p, at, 4, colour);
    p.setPen(QPen(colour, 1.3));
    for (const double x : {at.x(), first.x()}) p.drawLine(QPointF(x - 3, y + 3), QPointF(x + 3, y - 3));
    const QString words =
        QString("%1 %2 %3")
            .arg(landmarkName(e.anchor), e.dx_mm < 0 ? "−" : "+", lengthText(std::abs(e.dx_mm)));
    // On the side away from the row.
    const bool before = at.x() < first.x();
    ink::text(p, QPointF(before ? at.x() - 8 : at.x() + 8, y + 4), words, inter(11, QFont::DemiBold), colour,
              before ? Qt::AlignRight : Qt::AlignLeft);
}

void PatternPage::paintStrip(QPainter& p, const QRectF& box, bool back) const {
    const BodyResult& body = context_.results.body();
    const Tokens& t = tokens();
    if (!body.picture) return;
    p.drawImage(box.topLeft(), back ? strips_.back : strips_.belly);
    p.setPen(QPen(t.ink, 1.1));
    p.setBrush(Qt::NoBrush);
    p.drawRect(box);
    QPen dash(QColor(255, 255, 255, 150), 0.9);
    dash.setDashPattern({9, 3, 2, 3});
    p.setPen(dash);
    p.drawLine(QPointF(box.left(), box.center().y()), QPointF(box.right(), box.center().y()));
    ink::text(p, QPointF(box.left() - 10, box.top() + 14), tr("R"), inter(11), t.muted, Qt::AlignRight);
    ink::text(p, QPointF(box.left() - 10, box.bottom() - 4), tr("L"), inter(11), t.muted, Qt::AlignRight);
    ink::dimension(p, QPointF(box.right() + 16, box.top()), QPointF(box.right() + 16, box.bottom()),
                   lengthText(box.height() / leading().view->perMm(), 0));
}

void PatternPage::paintList(QPainter& p) const {
    const Tokens& t = tokens();
    ink::text(p, QPointF(list_.left(), list_.top()), tr("Made of"), inter(12, QFont::Bold), t.ink);
    for (int i = 0; i < static_cast<int>(elements().size()); ++i) {
        const Element& e = *elements()[static_cast<std::size_t>(i)];
        const QRectF row = listRow(i);
        if (row.isNull()) continue;
        const bool on = e.id == context_.view.element();
        if (on) {
            p.setPen(QPen(t.select, 1.4));
            p.setBrush(t.panel);
            p.drawRoundedRect(row, 5, 5);
        }
        const QRectF swatch(row.left() + 8, row.top() + 6, 24, row.height() - 12);
        p.setPen(QPen(t.ink, 0.8));
        p.setBrush(shown(e, static_cast<std::size_t>(i)));
        p.drawRoundedRect(swatch, 3, 3);
        const QFont f = inter(12, on ? QFont::Bold : QFont::Normal);
        const QString name = QFontMetricsF(f).elidedText(QString::fromStdString(e.shownName()),
                                                         Qt::ElideRight, row.width() - 48);
        ink::text(p, QPointF(swatch.right() + 10, row.center().y() + 4), name, f, t.ink);
        const auto& art = context_.results.body().art;
        if (i < static_cast<int>(art.size()) && !art[static_cast<std::size_t>(i)])
            ink::flagShape(p, QPointF(row.right() - 26, row.top() + 6), ink::Severity::Fault, "!");
    }
    const int count = static_cast<int>(elements().size());
    if (count > rowsShown()) {  // how far the list is scrolled
        const QRectF bar(list_.right() - 4, list_.top() + 12, 3, rowsShown() * kPatternRow_px - 5);
        p.setPen(Qt::NoPen);
        p.setBrush(t.line);
        p.drawRoundedRect(bar, 1.5, 1.5);
        p.setBrush(t.muted);
        p.drawRoundedRect(QRectF(bar.left(), bar.top() + bar.height() * firstRow_ / count, 3,
                                 bar.height() * rowsShown() / count),
                          1.5, 1.5);
        ink::text(p, QPointF(list_.right(), list_.top()),
                  tr("%1–%2 of %3").arg(firstRow_ + 1).arg(firstRow_ + rowsShown()).arg(count), inter(11),
                  t.muted, Qt::AlignRight);
    }
    if (elements().empty())
        ink::text(p, QPointF(list_.left(), list_.top() + 26), tr("nothing yet"), inter(12), t.muted);
}

void PatternPage::paintMask(QPainter& p) const {
    // In one piece: one drawing; its parts share the scale.
    const auto& sketch = context_.results.sketch();
    if (!sketch || mask_.height() < 90 || !selected()) return;
    const Tokens& t = tokens();
    const Mask& mask = *sketch->mask;
    const Box2 box = boxSideBySide(mask);
    const std::vector<Vec2> shifts = sideBySide(mask);
    const Vec2 size = box.size();
    ink::heading(p, mask_.topLeft() - QPointF(0, 12), tr("Its mask"),
                 tr("flat, %1 × %2").arg(lengthNumber(size.x()), lengthText(size.y())));
    const QRectF frame = mask_.adjusted(0, 0, 0, -46);
    const double scale = std::min({(frame.width() - 20) / size.x(), (frame.height() - 20) / size.y(), 8.0});
    const Vec2 middle = 0.5 * (box.low + box.high);
    const QPointF centre(frame.center().x(), frame.top() + 10 + 0.5 * scale * size.y());
    for (std::size_t k = 0; k < mask.sheets.size(); ++k) {
        const Sheet& sheet = mask.sheets[k];
        const auto polygonOf = [&](const Polygon2& ring) {
            QPolygonF polygon;
            for (const Vec2& v : ring) {
                const Vec2 from = v + shifts[k] - middle;
                polygon << centre + scale * QPointF(from.x(), -from.y());
            }
            return polygon;
        };
        p.setPen(QPen(t.dark ? t.line : t.ink, 1.1));
        p.setBrush(materialColour(sketch->spec->wish.material));
        p.drawPolygon(polygonOf(sheet.outline));
        p.setPen(QPen(inkOnSheet(), 0.8));
        p.setBrush(t.paper);
        for (const Window& window : sheet.windows) p.drawPolygon(polygonOf(window.outline));
        for (const Polygon2& hole : sheet.holes) p.drawPolygon(polygonOf(hole));
        p.setBrush(materialColour(sketch->spec->wish.material));
        for (const Window& window : sheet.windows)
            for (const Polygon2& island : window.islands) p.drawPolygon(polygonOf(island));
    }
    const double y = centre.y() + 0.5 * scale * size.y() + 22;
    const auto& all = context_.results.masks().masks;
    const int found = indexIn(context_.results.masks(), sketch->spec->id);
    const auto index = static_cast<std::size_t>(std::max(0, found));
    const bool judged =
        found >= 0 && isCurrent(context_.results.masks(), sketch->spec->id) && all[index].mask;
    const QString stock = materialName(sketch->spec->wish.material).toLower();
    if (!judged) {
        ink::text(p, QPointF(mask_.left(), y), tr("follows what you drag;"), inter(11), t.muted);
        ink::text(p, QPointF(mask_.left(), y + 16), tr("its verdict is under way"), inter(11), t.muted);
        return;
    }
    const FitReport report = (*all[index].mask)->report();
    if (report.liesFlat) {
        ink::tick(p, QPointF(mask_.left() + 7, y - 4));
    } else {
        ink::flagShape(p, QPointF(mask_.left(), y - 13), ink::Severity::Fault, "");
    }
    ink::text(p, QPointF(mask_.left() + 26, y),
              report.liesFlat ? tr("lies flat in %1").arg(stock) : tr("cannot lie in %1").arg(stock),
              inter(11.5, QFont::DemiBold), t.ink);
    ink::text(p, QPointF(mask_.left() + 26, y + 16),
              tr("must stretch %1").arg(percentText(report.strainFeasibleMax)), inter(11), t.muted);
    ink::text(p, QPointF(mask_.left() + 26, y + 32), tr("it takes %1").arg(percentText(report.strainLimit)),
              inter(11), t.muted);
}

}  // namespace nine::app
