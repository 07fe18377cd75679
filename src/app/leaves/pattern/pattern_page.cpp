#include "app/leaves/pattern/pattern_page.h"

#include <QKeyEvent>
#include <QMouseEvent>
#include <QPainter>
#include <cmath>

#include "app/sheet/ink.h"
#include "app/sheet/units_text.h"

namespace nine::app {
namespace {

constexpr double kRow_px = 34;

QColor shown(const Element& e, std::size_t index) {
    return QColor::fromRgb(colourOf(e, index));
}

}  // namespace

PatternPage::PatternPage(LeafContext context) : context_(context) {
    setFocusPolicy(Qt::StrongFocus);
    setMouseTracking(true);
    setAccessibleName(tr("The pattern on the body"));
    connect(&side_, &BodyView::redrawn, this, [this] { update(); });
    connect(&context_.results, &Results::bodyChanged, this, [this] { layOut(); });
    connect(&context_.view, &ViewState::changed, this, [this] { layOut(); });
}

void PatternPage::layOut() {
    const BodyResult& body = context_.results.body();
    if (body.skin) {
        const double w = width(), h = height();
        const double listWidth = std::min(214.0, 0.26 * w);
        const double stripHeight = std::max(48.0, 0.115 * h);
        const QRectF room(60, 64, w - listWidth - 110, h - 2 * stripHeight - 190);
        const double perMm = BodyView::fittingScale(*body.skin, BodyView::From::Along, room.size());
        const double len = body.skin->length_mm() * perMm;
        side_.place(body, QRectF(room.center().x() - 0.5 * len - 8, room.top(), len + 16, room.height()),
                    perMm, context_.view.side(), devicePixelRatioF());
        const double left = room.center().x() - 0.5 * len;
        belly_ = QRectF(left, h - stripHeight - 26, len, stripHeight);
        back_ = QRectF(left, belly_.top() - stripHeight - 26, len, stripHeight);
        list_ = QRectF(w - listWidth - 12, 64, listWidth, h - 90);
        if (body.picture && (stripsFor_ != body.picture || backStrip_.size() != back_.size().toSize())) {
            stripsFor_ = body.picture;
            backStrip_ = unrolled(back_, true);
            bellyStrip_ = unrolled(belly_, false);
        }
    }
    update();
}

QPolygonF PatternPage::onSide(const Outline& outline) const {
    QPolygonF polygon;
    for (const SurfacePoint& p : outline.points) {
        const bool right = context_.view.side() == Side::Right;
        const Vec3 at(p.position.x(), right ? -p.position.y() : p.position.y(), p.position.z());
        polygon << side_.at(at);
    }
    return polygon;
}

QPointF PatternPage::openingAt(int element, int index) const {
    const auto& art = context_.results.body().art;
    if (element < 0 || element >= static_cast<int>(art.size()) || !art[static_cast<std::size_t>(element)])
        return {};
    const auto& outlines = art[static_cast<std::size_t>(element)]->outlines;
    if (outlines.empty()) return {};
    return onSide(outlines[static_cast<std::size_t>(
                      std::min<int>(index, static_cast<int>(outlines.size()) - 1))])
        .boundingRect()
        .center();
}

QRectF PatternPage::listRow(int index) const {
    return QRectF(list_.left(), list_.top() + 12 + index * kRow_px, list_.width(), kRow_px - 5);
}

void PatternPage::paintEvent(QPaintEvent*) {
    QPainter p(this);
    p.setRenderHint(QPainter::Antialiasing);
    const Tokens& t = tokens();
    p.fillRect(rect(), t.paper);
    const BodyResult& body = context_.results.body();
    if (!body.skin) {
        ink::text(p, QPointF(18, 26), tr("The pattern needs a body first: open one on the Blank leaf."),
                  inter(12.5), t.muted);
        return;
    }
    const bool left = context_.view.side() == Side::Left;
    ink::heading(p, QPointF(18, 26), left ? tr("Left side") : tr("Right side"),
                 left ? tr("linked marks stand mirrored on the right")
                      : tr("linked marks stand mirrored on the left"));
    side_.paint(p);
    paintArt(p);
    paintSelected(p);
    ink::text(p, QPointF(18, back_.top() - 8), tr("Back"), inter(12, QFont::Bold), t.ink);
    ink::text(p, QPointF(52, back_.top() - 8), tr("unrolled"), inter(11), t.muted);
    ink::text(p, QPointF(18, belly_.top() - 8), tr("Belly"), inter(12, QFont::Bold), t.ink);
    ink::text(p, QPointF(56, belly_.top() - 8), tr("unrolled"), inter(11), t.muted);
    paintStrip(p, back_, true);
    paintStrip(p, belly_, false);
    paintList(p);
}

void PatternPage::paintArt(QPainter& p) {
    const BodyResult& body = context_.results.body();
    for (std::size_t i = 0; i < body.art.size() && i < elements().size(); ++i) {
        if (!body.art[i] || !elements()[i]->standsOn(context_.view.side())) continue;
        const QColor colour = shown(*elements()[i], i);
        for (const Outline& outline : body.art[i]->outlines) {
            p.setPen(QPen(colour.darker(150), 0.7));
            p.setBrush(colour);
            p.drawPolygon(onSide(outline));
        }
    }
}

void PatternPage::paintSelected(QPainter& p) {
    const BodyResult& body = context_.results.body();
    const auto index = static_cast<std::size_t>(context_.view.element());
    if (index >= body.art.size() || index >= elements().size() || !body.art[index]) return;
    const Tokens& t = tokens();
    const Element& e = *elements()[index];
    if (!e.standsOn(context_.view.side())) return;
    const auto& outlines = body.art[index]->outlines;
    p.setPen(QPen(t.select, 1.5));
    p.setBrush(Qt::NoBrush);
    QPolygonF line;
    for (const Outline& outline : outlines) {
        const QPolygonF polygon = onSide(outline);
        p.drawPolygon(polygon);
        line << polygon.boundingRect().center();
    }
    p.setPen(QPen(t.select, 0.9));
    p.drawPolyline(line);
    for (const QPointF& at : {line.first(), line[line.size() / 2], line.last()})
        ink::diamond(p, at, 5, t.select);
    const auto tag = [&](const QPointF& at, const QString& words, double up) {
        const QFont f = inter(11, QFont::DemiBold);
        const double w = QFontMetricsF(f).horizontalAdvance(words) + 12;
        const QRectF box(at.x() - 0.5 * w, at.y() - up - 18, w, 18);
        p.setPen(QPen(t.select, 1));
        p.drawLine(at, QPointF(at.x(), box.bottom()));
        p.setBrush(t.sheet);
        p.drawRoundedRect(box, 4, 4);
        ink::text(p, QPointF(box.center().x(), box.bottom() - 5), words, f, t.ink, Qt::AlignHCenter);
    };
    if (const auto* dots = std::get_if<DotRow>(&e.shape)) {
        tag(line.first(), QString("Ø %1").arg(lengthNumber(dots->first_mm, 2)), 26);
        if (dots->count > 1) tag(line.last(), QString("Ø %1").arg(lengthNumber(dots->last_mm, 2)), 26);
    }

    // Anchor lines: from the landmark to the first mark, from there to the last, along the lower edge of the
    // body.
    const QRectF b = side_.bounds();
    const double y = b.bottom() + 22;
    const QPointF first = line.first(), last = line.last();
    p.setPen(QPen(t.select, 0.6));
    p.drawLine(QPointF(first.x(), first.y() + 6), QPointF(first.x(), y + 5));
    p.drawLine(QPointF(last.x(), last.y() + 6), QPointF(last.x(), y + 5));
    const auto landmark = context_.document.job().blank->landmarks.find(e.anchor);
    if (landmark != context_.document.job().blank->landmarks.end()) {
        const Vec2 from = referencePoint(landmark->second, body.art[index]->origin.y());
        const QPointF at = side_.at(body.skin->at({context_.view.side(), from.x(), from.y()}).position);
        p.setPen(QPen(t.select, 0.6));
        p.drawLine(at, QPointF(at.x(), y + 5));
        ink::diamond(p, at, 4, t.select);
        const bool mirrored = context_.view.side() == Side::Right;
        const QString words = QString("%1 %2 %3")
                                  .arg(QString::fromStdString(spokenName(e.anchor)), e.dx_mm < 0 ? "−" : "+",
                                       lengthText(std::abs(e.dx_mm)));
        p.setPen(QPen(t.select, 1.3));
        for (const double x : {at.x(), first.x()}) p.drawLine(QPointF(x - 3, y + 3), QPointF(x + 3, y - 3));
        ink::text(p, QPointF(mirrored ? at.x() + 8 : at.x() - 8, y + 4), words, inter(11, QFont::DemiBold),
                  t.select, mirrored ? Qt::AlignLeft : Qt::AlignRight);
    }
    if (outlines.size() > 1 && std::abs(last.x() - first.x()) > 60) {
        const double along =
            std::visit([](const auto& shape) { return (shape.count - 1) * shape.spacing_mm; }, e.shape);
        ink::dimension(p, QPointF(first.x(), y), QPointF(last.x(), y), tr("row %1").arg(lengthText(along)),
                       true);
    }
}

QImage PatternPage::unrolled(const QRectF& box, bool back) const {
    const BodyResult& body = context_.results.body();
    // Half a girth wide, centred on the back or belly line, each column of pixels one x.
    const Image& picture = *body.picture;
    const int w = box.size().toSize().width(), h = box.size().toSize().height();
    const double half_mm = 0.5 * box.height() / side_.perMm();
    QImage image(w, h, QImage::Format_ARGB32_Premultiplied);
    image.fill(Qt::transparent);
    for (int x = 0; x < w; ++x) {
        const double mm = body.skin->noseX() + (x + 0.5) / side_.perMm();
        const double row = body.drawn->rowAt(mm);
        const auto& arcs = back ? body.drawn->backArc_mm : body.drawn->bellyArc_mm;
        const double along = row * (static_cast<double>(arcs.size()) - 1);
        const std::size_t k = std::min(static_cast<std::size_t>(along), arcs.size() - 2);
        const double arc = arcs[k] + (along - static_cast<double>(k)) * (arcs[k + 1] - arcs[k]);
        for (int y = 0; y < h; ++y) {
            const double from = (1 - 2.0 * (y + 0.5) / h) * half_mm;  // + is the right side, drawn above
            if (std::abs(from) > arc) continue;
            const double quarter = 0.25 * (1 - std::abs(from) / std::max(arc, 1e-9));
            const double u =
                back ? (from > 0 ? 0.5 - quarter : quarter) : (from > 0 ? 0.5 + quarter : 1 - quarter);
            const int column = std::clamp(static_cast<int>(u * picture.width), 0, picture.width - 1);
            const int line = std::clamp(static_cast<int>(row * (picture.height - 1)), 0, picture.height - 1);
            reinterpret_cast<QRgb*>(image.scanLine(y))[x] = picture.at(column, line);
        }
    }
    return image;
}

void PatternPage::paintStrip(QPainter& p, const QRectF& box, bool back) {
    const BodyResult& body = context_.results.body();
    const Tokens& t = tokens();
    if (!body.picture) return;
    p.drawImage(box.topLeft(), back ? backStrip_ : bellyStrip_);
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
                   lengthText(box.height() / side_.perMm(), 0));
}

void PatternPage::paintList(QPainter& p) {
    const Tokens& t = tokens();
    ink::text(p, QPointF(list_.left(), list_.top()), tr("Made of"), inter(12, QFont::Bold), t.ink);
    for (int i = 0; i < static_cast<int>(elements().size()); ++i) {
        const Element& e = *elements()[static_cast<std::size_t>(i)];
        const QRectF row = listRow(i);
        if (i == context_.view.element()) {
            p.setPen(QPen(t.select, 1.4));
            p.setBrush(t.panel);
            p.drawRoundedRect(row, 5, 5);
        }
        const QRectF swatch(row.left() + 8, row.top() + 6, 24, row.height() - 12);
        p.setPen(QPen(t.ink, 0.8));
        p.setBrush(shown(e, static_cast<std::size_t>(i)));
        p.drawRoundedRect(swatch, 3, 3);
        const QFont f = inter(12, i == context_.view.element() ? QFont::Bold : QFont::Normal);
        const QString name = QFontMetricsF(f).elidedText(QString::fromStdString(e.shownName()),
                                                         Qt::ElideRight, row.width() - 48);
        ink::text(p, QPointF(swatch.right() + 10, row.center().y() + 4), name, f, t.ink);
        const auto& errors = context_.results.body().art;
        if (i < static_cast<int>(errors.size()) && !errors[static_cast<std::size_t>(i)]) {
            ink::flagShape(p, QPointF(row.right() - 26, row.top() + 6), ink::Severity::Fault, "!");
        }
    }
    const double y = listRow(static_cast<int>(elements().size())).top() + 8;
    addDots_ = QRectF(list_.left(), y, 100, 22);
    addBars_ = QRectF(list_.left() + 108, y, 100, 22);
    for (const auto& [box, words] : {std::pair{addDots_, tr("+ row of dots")}, {addBars_, tr("+ bars")}}) {
        ink::text(p, QPointF(box.left(), box.bottom() - 6), words, inter(12, QFont::DemiBold), t.ink);
        p.setPen(QPen(t.accent, 1));
        p.drawLine(QPointF(box.left(), box.bottom() - 1),
                   QPointF(box.left() + QFontMetricsF(inter(12, QFont::DemiBold)).horizontalAdvance(words),
                           box.bottom() - 1));
    }
    if (elements().empty()) {
        ink::text(p, QPointF(list_.left(), y + 50), tr("Nothing yet. A row of dots along"), inter(12),
                  t.muted);
        ink::text(p, QPointF(list_.left(), y + 68), tr("the side is a good beginning."), inter(12), t.muted);
    }
}

void PatternPage::mousePressEvent(QMouseEvent* event) {
    const QPointF at = event->position();
    last_ = at;
    dragging_ = false;
    for (int i = 0; i < static_cast<int>(elements().size()); ++i) {
        if (listRow(i).contains(at)) return context_.view.setElement(i);
    }
    if (addDots_.contains(at)) return emit addWanted(false);
    if (addBars_.contains(at)) return emit addWanted(true);
    const auto& art = context_.results.body().art;
    // The selected element first, so that it can be dragged from under others.
    std::vector<int> order{context_.view.element()};
    for (int i = static_cast<int>(art.size()) - 1; i >= 0; --i) order.push_back(i);
    for (const int i : order) {
        if (i < 0 || i >= static_cast<int>(art.size()) || !art[static_cast<std::size_t>(i)]) continue;
        for (const Outline& outline : art[static_cast<std::size_t>(i)]->outlines) {
            const QPolygonF polygon = onSide(outline);
            if (!polygon.containsPoint(at, Qt::OddEvenFill) &&
                !polygon.boundingRect().adjusted(-4, -4, 4, 4).contains(at))
                continue;
            context_.view.setElement(i);
            context_.document.beginGesture();
            dragging_ = true;
            return;
        }
    }
}

void PatternPage::mouseMoveEvent(QMouseEvent* event) {
    if (!dragging_ || !(event->buttons() & Qt::LeftButton)) return;
    const Vec2 from = side_.bodyAt(last_), to = side_.bodyAt(event->position());
    last_ = event->position();
    move(to.x() - from.x(), to.y() - from.y());
}

void PatternPage::move(double dx, double dg) {
    const auto index = static_cast<std::size_t>(context_.view.element());
    if (index >= elements().size()) return;
    Element e = *elements()[index];
    e.dx_mm += dx;
    e.dg_mm += dg;
    context_.document.edit(withElement(context_.document.job(), index, e),
                           tr("Move %1").arg(QString::fromStdString(e.shownName())));
}

void PatternPage::keyPressEvent(QKeyEvent* event) {
    const double step = event->modifiers() & Qt::ShiftModifier ? 1 : 0.1;
    if (!event->isAutoRepeat()) context_.document.beginGesture();
    const double way = context_.view.side() == Side::Left ? 1 : -1;
    switch (event->key()) {
        case Qt::Key_Left:
            move(-way * step, 0);
            break;
        case Qt::Key_Right:
            move(way * step, 0);
            break;
        case Qt::Key_Up:
            move(0, step);
            break;
        case Qt::Key_Down:
            move(0, -step);
            break;
        default:
            QWidget::keyPressEvent(event);
    }
}

}  // namespace nine::app
