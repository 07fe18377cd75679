// How the Pattern leaf's page is painted.
#include <QPainter>
#include <algorithm>
#include <cmath>

#include "app/document/selection.h"
#include "app/leaves/pattern/pattern_page.h"
#include "app/sheet/ink.h"
#include "app/sheet/names.h"
#include "app/sheet/units_text.h"

namespace nine::app {
namespace {

QColor shownColour(const Element& e, std::size_t index) {
    return QColor::fromRgb(colourOf(e, index));
}

/// Under the drawing so that it can be read on paint.
void written(QPainter& p, const QRectF& box, const QString& words, const QFont& f, const QColor& frame) {
    const Tokens& t = tokens();
    p.setPen(QPen(frame, 1));
    p.setBrush(t.sheet);
    p.drawRoundedRect(box, 4, 4);
    ink::text(p, QPointF(box.center().x(), box.bottom() - 5), words, f, t.ink, Qt::AlignHCenter);
}

/// The first value a tag names.
std::string keyOf(const Pattern& tag) {
    const std::string_view text = tag.text();
    const std::size_t open = text.find('{'), close = text.find('}');
    return open == text.npos ? std::string() : std::string(text.substr(open + 1, close - open - 1));
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
    tags_.clear();
    strip_.paint(p);
    for (const Shown where : shown()) {
        if (where == Shown::Back || where == Shown::Belly) {
            paintStrip(p, where);
            continue;
        }
        const BodyView& view = views_.view(where);
        if (where == Shown::Nose) {
            ink::heading(p, QPointF(list_.left(), noseBox_.top() - 10), tr("Nose"), tr("seen from ahead"));
        } else {
            const double y = view.box().top() + (context_.view.sides() == Sides::Both ? 16 : 14);
            ink::heading(p, QPointF(18, y), where == Shown::Left ? tr("Left side") : tr("Right side"),
                         where == Shown::Left ? tr("linked marks stand mirrored on the right")
                                              : tr("linked marks stand mirrored on the left"));
        }
        view.paint(p);
        for (std::size_t i = 0; i < elements().size() && where != Shown::Nose; ++i)
            if (isStray(elements()[i]->id))
                if (const ElementArt* art = artOf(i, false)) paintStray(p, where, *art);
    }
    paintSelected(p);
    if (anchorDrag_) paintLandmarks(p);
    paintList(p);
    paintMask(p);
    paintPreviews(p);
}

/// Hollow and dashed, at the edge it went over.
void PatternPage::paintStray(QPainter& p, Shown where, const ElementArt& art) const {
    QPen dash(tokens().fault, 1.6);
    dash.setDashPattern({4, 3});
    p.setPen(dash);
    p.setBrush(Qt::NoBrush);
    const QPainterPath path = drawn(where, art, where == Shown::Right);
    p.drawPath(path);
    const QRectF around = path.boundingRect();
    ink::text(p, QPointF(around.center().x(), around.top() - 8),
              tr("reaches off the body; it could lie here"), inter(11.5, QFont::DemiBold), tokens().fault,
              Qt::AlignHCenter);
}

void PatternPage::paintHandles(QPainter& p, Shown where, bool twin) const {
    const Tokens& t = tokens();
    for (const std::string& key : handleKeys()) {
        const std::optional<Vec2> place = placeOfHandle(key);
        if (!place) continue;
        if (const auto at = views_.pixelOf(where, *place, twin))
            ink::diamond(p, *at, key == handleInHand() ? 7 : 5, t.select);
    }
}

void PatternPage::paintSelected(QPainter& p) const {
    const Tokens& t = tokens();
    for (std::size_t i = 0; i < elements().size(); ++i) {
        const Element& e = *elements()[i];
        if (!context_.view.isSelected(e.id)) continue;
        const bool lead = e.id == context_.view.element();
        for (const Shown where : shown()) {
            for (const bool twin : copiesOn(where, e)) {
                const ElementArt* art = artOf(i, twin);
                if (!art) continue;
                // A light line under the blue one shows it on any paint.
                const QPainterPath path = drawn(where, *art, twin);
                p.setBrush(Qt::NoBrush);
                p.setPen(QPen(QColor(255, 255, 255, 150), lead ? 2.6 : 2));
                p.drawPath(path);
                p.setPen(QPen(t.select, lead ? 1.4 : 1));
                p.drawPath(path);
                if (lead) paintCutAway(p, where, *art, twin);
                if (lead && !e.locked) paintHandles(p, where, twin);
            }
        }
    }
    paintTags(p);
}

/// What no paint reaches, and why, on the drawing itself.
void PatternPage::paintCutAway(QPainter& p, Shown where, const ElementArt& art, bool twin) const {
    const QColor colour = tokens().fault;
    for (const CutAway& away : art.cutAway) {
        const QPainterPath path = pathOf(where, away.lost, twin);
        if (path.isEmpty()) continue;
        QPen dash(colour, 1.2);
        dash.setDashPattern({3, 2});
        p.setPen(dash);
        p.setBrush(QBrush(colour, Qt::BDiagPattern));
        p.drawPath(path);
        if (where != leading()) continue;
        const QRectF around = path.boundingRect();
        const QString words = tr("cut off: %1").arg(said(away.zone));
        const QFont f = inter(11, QFont::DemiBold);
        const QRectF box(around.right() + 12, around.bottom() + 6, ink::widthOf(words, f) + 12, 18);
        p.drawLine(around.center(), box.topLeft() + QPointF(4, 0));
        written(p, box, words, f, colour);
    }
}

void PatternPage::paintTags(QPainter& p) const {
    const ElementPtr e = selected();
    const ElementArt* art = selectedArt();
    if (!art || !e || !e->known()) return;
    const Tokens& t = tokens();
    const QFont f = inter(11, QFont::DemiBold);
    QPointF tagged;
    for (const Handle& handle : handles()) {
        const QPointF at = handleAt(handle.key);
        if (handle.tag.empty() || at.isNull()) continue;
        if (!tagged.isNull() && std::abs(at.x() - tagged.x()) <= 70) continue;  // no room beside the other
        const QString words = said(sentenceOf(*e, handle.tag));
        const double w = ink::widthOf(words, f) + 12;
        const QRectF box(at.x() - 0.5 * w, at.y() - 44, w, 18);
        p.setPen(QPen(t.select, 1));
        p.drawLine(at, QPointF(at.x(), box.bottom()));
        written(p, box, words, f, t.select);
        tags_.push_back({box, keyOf(handle.tag)});
        tagged = at;
    }
    const Shown where = leading();
    const Kind& kind = *findKind(e->kind);
    if (where == Shown::Back || where == Shown::Belly || where == Shown::Nose || !kind.hasOrigin()) return;
    // Anchor lines: from the landmark to the first mark, from there to the last, under the body.
    const double y = views_.view(where).bounds().bottom() + 16;
    const bool twin = where == Shown::Right && !e->isCentral();
    const auto first = views_.pixelOf(where, art->origin, twin);
    if (!first) return;
    p.setPen(QPen(t.select, 0.6));
    p.drawLine(*first + QPointF(0, 6), QPointF(first->x(), y + 5));
    paintAnchor(p, *first, y);
    const std::optional<Vec2> end = art->place("last");
    const auto last = end ? views_.pixelOf(where, *end, twin) : std::nullopt;
    const double along = kind.rowLength_mm(e->values);
    if (along > 0 && last && std::abs(last->x() - first->x()) > 60) {
        p.setPen(QPen(t.select, 0.6));
        p.drawLine(*last + QPointF(0, 6), QPointF(last->x(), y + 5));
        const QRectF box = ink::dimension(p, QPointF(first->x(), y), QPointF(last->x(), y),
                                          tr("row %1").arg(lengthText(along)), true);
        tags_.push_back({box.adjusted(-4, -8, 4, 8), "spacing_mm"});
    }
}

void PatternPage::paintAnchor(QPainter& p, const QPointF& first, double y) const {
    const Element& e = *selected();
    const QPointF at = anchorAt();
    if (at.isNull()) return;
    const QColor colour = tokens().select;
    p.setPen(QPen(colour, 0.6));
    p.drawLine(at, QPointF(at.x(), y + 5));
    p.setBrush(colour);
    ink::diamond(p, at, 5, colour);
    p.setPen(QPen(colour, 1.3));
    for (const double x : {at.x(), first.x()}) p.drawLine(QPointF(x - 3, y + 3), QPointF(x + 3, y - 3));
    const QString words =
        QString("%1 %2 %3")
            .arg(landmarkName(e.anchor), e.dx_mm < 0 ? "−" : "+", lengthText(std::abs(e.dx_mm)));
    // On the side away from the row.
    const bool before = at.x() < first.x();
    const QFont f = inter(11, QFont::DemiBold);
    ink::text(p, QPointF(before ? at.x() - 8 : at.x() + 8, y + 4), words, f, colour,
              before ? Qt::AlignRight : Qt::AlignLeft);
    const double w = ink::widthOf(words, f);
    tags_.push_back({QRectF(before ? at.x() - 8 - w : at.x() + 8, y - 9, w, 18), "dx_mm"});
}

/// Where the anchor may be dropped.
void PatternPage::paintLandmarks(QPainter& p) const {
    const Tokens& t = tokens();
    const Shown where = leading();
    const double g = selectedArt() ? selectedArt()->origin.y() : 0;
    for (const auto& [name, landmark] : context_.document.job().get<BlankChapter>().landmarks) {
        const Vec2 place = landmark.isCurve() ? referencePoint(landmark, g) : landmark.points.front();
        const auto at = views_.pixelOf(where, place, where == Shown::Right);
        if (!at) continue;
        const bool near = std::hypot(at->x() - anchorDrag_->x(), at->y() - anchorDrag_->y()) < 18;
        ink::diamond(p, *at, near ? 7 : 4, t.select);
        const QFont f = inter(10.5, near ? QFont::Bold : QFont::DemiBold);
        const double w = ink::widthOf(landmarkName(name), f) + 8;
        p.setPen(Qt::NoPen);
        p.setBrush(t.sheet);
        p.drawRoundedRect(QRectF(at->x() + 8, at->y() - 15, w, 15), 3, 3);
        ink::text(p, *at + QPointF(12, -4), landmarkName(name), f, t.select);
    }
    p.setPen(QPen(t.select, 1));
    const QPointF from = anchorAt();
    if (!from.isNull()) p.drawLine(from, *anchorDrag_);
    ink::diamond(p, *anchorDrag_, 6, t.select);
}

void PatternPage::paintStrip(QPainter& p, Shown where) const {
    const BodyResult& body = context_.results.body();
    const Tokens& t = tokens();
    const QRectF& box = views_.strip(where);
    if (!body.picture || box.isEmpty()) return;
    const bool back = where == Shown::Back;
    ink::heading(p, QPointF(18, box.top() - 7), back ? tr("Back") : tr("Belly"), tr("unrolled"));
    p.drawImage(box, back ? strips_.back : strips_.belly);
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
                   lengthText(box.height() / views_.view(leading()).perMm(), 0));
}

void PatternPage::paintRow(QPainter& p, int index) const {
    // In one piece: one row of the list from left to right.
    const Tokens& t = tokens();
    const auto i = static_cast<std::size_t>(index);
    const Element& e = *elements()[i];
    const QRectF row = listRow(index);
    const bool lead = e.id == context_.view.element(), also = context_.view.isSelected(e.id);
    if (also) {
        p.setPen(QPen(t.select, lead ? 1.4 : 0.9));
        p.setBrush(t.panel);
        p.drawRoundedRect(row, 5, 5);
    }
    // Its picture in its own colour, on what it lies on.
    const QRectF swatch(row.left() + 6, row.top() + 3, 30, row.height() - 6);
    const Kind* kind = findKind(e.kind);
    p.setPen(Qt::NoPen);
    const QColor colour = shownColour(e, i);
    const bool pale = colour.lightnessF() > 0.6;
    p.setBrush(pale ? QColor("#4f5236") : QColor("#e4dfcf"));
    p.drawRoundedRect(swatch, 3, 3);
    const QImage picture = kind ? pictures_.of(*kind, colour) : QImage();
    if (!picture.isNull()) {
        p.save();
        p.setClipRect(swatch);
        const double scale = std::max(swatch.width() / picture.width(), swatch.height() / picture.height());
        const QSizeF size = QSizeF(picture.size()) * scale;
        p.setRenderHint(QPainter::SmoothPixmapTransform);
        p.drawImage(QRectF(swatch.center() - QPointF(0.5 * size.width(), 0.5 * size.height()), size),
                    picture);
        p.restore();
    }
    p.setPen(QPen(t.line, 0.8));
    p.setBrush(Qt::NoBrush);
    p.drawRoundedRect(swatch, 3, 3);
    const bool hidden = context_.view.hidden().count(e.id) > 0;
    const QFont f = inter(11.5, lead ? QFont::Bold : QFont::Normal);
    const QString name =
        QFontMetricsF(f).elidedText(QString::fromStdString(e.shownName()), Qt::ElideRight, row.width() - 90);
    ink::text(p, QPointF(swatch.right() + 8, row.center().y() + 4), name, f, hidden ? t.muted : t.ink);
    // Eye: open or struck through. Lock: closed, or a faint open one.
    const QPointF eye = eyeOfRow(index).center(), lock = lockOfRow(index).center();
    p.setPen(QPen(hidden ? t.muted : t.ink, 1.1));
    p.setBrush(Qt::NoBrush);
    p.drawEllipse(eye, 5.5, 3.2);
    if (hidden)
        p.drawLine(eye + QPointF(-5, 4), eye + QPointF(5, -4));
    else
        p.drawEllipse(eye, 1.3, 1.3);
    p.setPen(QPen(e.locked ? t.ink : t.line, 1.2));
    p.setBrush(e.locked ? QBrush(t.ink) : QBrush(Qt::NoBrush));
    p.drawRoundedRect(QRectF(lock.x() - 4, lock.y() - 1, 8, 6), 1, 1);
    p.setBrush(Qt::NoBrush);
    p.drawArc(QRectF(lock.x() - 2.6, lock.y() - 6 - (e.locked ? 0 : 1.5), 5.2, 9), 0, 180 * 16);
    const BodyResult& body = context_.results.body();
    if (i < body.art.size() && !body.art[i])
        ink::flagShape(p, QPointF(swatch.left() - 4, row.top() + 2), ink::Severity::Fault, "!");
}

void PatternPage::paintList(QPainter& p) const {
    const Tokens& t = tokens();
    ink::text(p, QPointF(list_.left(), list_.top()), tr("Made of"), inter(12, QFont::Bold), t.ink);
    const int count = static_cast<int>(elements().size());
    for (int i = 0; i < count; ++i)
        if (!listRow(i).isNull()) paintRow(p, i);
    if (rowDrag_ && std::abs(last_.y() - pressed_.y()) >= 0 && selected() &&
        *rowDrag_ != indexOfElement(context_.document.job(), selected()->id)) {
        const QRectF row = listRow(*rowDrag_);
        if (!row.isNull()) {
            const bool down = *rowDrag_ > indexOfElement(context_.document.job(), selected()->id);
            p.setPen(QPen(t.select, 2));
            const double y = down ? row.bottom() + 1 : row.top() - 1;
            p.drawLine(QPointF(row.left(), y), QPointF(row.right(), y));
        }
    }
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
    } else if (count > 0) {
        ink::text(p, QPointF(list_.right(), list_.top()), tr("first painted first"), inter(10.5), t.muted,
                  Qt::AlignRight);
    }
    if (elements().empty())
        ink::text(p, QPointF(list_.left(), list_.top() + 26), tr("nothing yet"), inter(12), t.muted);
}

void PatternPage::paintPreviews(QPainter& p) const {
    const Tokens& t = tokens();
    p.setPen(QPen(t.line, 1));
    p.drawLine(QPointF(previews_.left(), previews_.top() - 8),
               QPointF(previews_.right(), previews_.top() - 8));
    const auto& all = desk_.previews();
    const double end =
        ink::heading(p, QPointF(previews_.left(), previews_.top() + 10), tr("The same pattern on"),
                     all.empty() && !desk_.running() ? tr("no other blank in the library yet")
                                                     : tr("anchors carry it; sizes follow by their rules"));
    if (desk_.running())
        ink::text(p, QPointF(previews_.left() + end + 16, previews_.top() + 10), tr("following ..."),
                  inter(11), t.muted);
    for (int i = 0; i < static_cast<int>(all.size()); ++i) {
        const RefitPreview& preview = all[static_cast<std::size_t>(i)];
        const QRectF box = previewBox(i);
        const bool on = preview.blank.name == desk_.chosen();
        if (on) {
            p.setPen(QPen(t.select, 1.4));
            p.setBrush(t.panel);
            p.drawRoundedRect(box.adjusted(1, 2, -1, 0), 6, 6);
        }
        const double ratio = std::max(1.0, preview.picture.devicePixelRatio());
        QSizeF size = QSizeF(preview.picture.size()) / ratio;
        const double room = box.height() - 38;
        if (size.height() > room) size *= room / size.height();
        p.setRenderHint(QPainter::SmoothPixmapTransform);
        p.drawImage(QRectF(box.center().x() - 0.5 * size.width(),
                           box.top() + 4 + 0.5 * (room - size.height()), size.width(), size.height()),
                    preview.picture);
        const QFont bold = inter(11, QFont::DemiBold), plain = inter(10.5);
        ink::text(p, QPointF(box.center().x(), box.bottom() - 20),
                  QFontMetricsF(bold).elidedText(QString::fromStdString(preview.blank.name), Qt::ElideRight,
                                                 box.width() - 4),
                  bold, t.ink, Qt::AlignHCenter);
        const int troubles = preview.troubles();
        const QString words = !preview.refit  ? tr("no body")
                              : troubles == 0 ? tr("fits")
                                              : tr("%n to look at", "", troubles);
        const double w = ink::widthOf(words, plain);
        ink::text(p, QPointF(box.center().x(), box.bottom() - 6), words, plain,
                  troubles ? t.caution : t.muted, Qt::AlignHCenter);
        if (troubles)
            ink::flagShape(p, QPointF(box.center().x() - 0.5 * w - 20, box.bottom() - 19),
                           ink::Severity::Caution, QString::number(troubles));
    }
}

void PatternPage::paintMask(QPainter& p) const {
    // In one piece: one drawing; its parts share the scale.
    const auto& sketch = context_.results.sketch();
    if (!sketch || mask_.height() < 90 || !selected() || !selected()->isCut()) return;
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
