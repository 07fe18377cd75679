#include "app/leaves/pattern/pattern_page.h"

#include <QAccessible>
#include <QKeyEvent>
#include <QMouseEvent>
#include <QPainter>
#include <QWheelEvent>
#include <cmath>

#include "app/document/selection.h"
#include "app/sheet/ink.h"
#include "app/sheet/names.h"
#include "app/sheet/units_text.h"
#include "blank/landmark_curve.h"

namespace nine::app {
namespace {

constexpr double kHandle_px = 8;

/// Half a girth wide, centred on the back or belly line, each column of pixels one x.
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
            const int column = std::clamp(static_cast<int>(u * picture.width), 0, picture.width - 1);
            const int line = std::clamp(static_cast<int>(row * (picture.height - 1)), 0, picture.height - 1);
            reinterpret_cast<QRgb*>(image.scanLine(y))[x] = picture.at(column, line);
        }
    }
    return image;
}

}  // namespace

PatternPage::PatternPage(LeafContext context) : LeafPage(context) {
    setMouseTracking(true);
    setAccessibleName(tr("The pattern on the body"));
    for (BodyView* view : {&left_, &right_}) connect(view, &BodyView::redrawn, this, [this] { update(); });
    connect(&context_.results, &Results::sketchChanged, this, [this] { update(); });
    connect(&context_.results, &Results::masksChanged, this, [this] { update(); });
}

std::vector<PatternPage::SideView> PatternPage::sideViews() const {
    auto* left = const_cast<BodyView*>(&left_);
    auto* right = const_cast<BodyView*>(&right_);
    switch (context_.view.sides()) {
        case Sides::Both:
            return {{left, Side::Left}, {right, Side::Right}};
        case Sides::Right:
            return {{right, Side::Right}};
        default:
            return {{left, Side::Left}};
    }
}

PatternPage::SideView PatternPage::leading() const {
    const std::vector<SideView> all = sideViews();
    const ElementPtr e = selected();
    for (const SideView& on : all) {
        if (e && e->standsOn(on.side)) return on;
    }
    return all.front();
}

ElementPtr PatternPage::selected() const {
    return elementOf(context_.document.job(), context_.view.element());
}

const ElementArt* PatternPage::selectedArt() const {
    const BodyResult& body = context_.results.body();
    for (std::size_t i = 0; i < body.art.size(); ++i) {
        const ArtPtr art = body.artOrStray(i);
        if (art && art->element == context_.view.element() && !art->outlines().empty()) return art.get();
    }
    return nullptr;
}

bool PatternPage::isStray(const std::string& element) const {
    return context_.results.body().strays.count(element) > 0;
}

Element PatternPage::inHand() const {
    const BodyResult& body = context_.results.body();
    const auto stray = body.strays.find(selected()->id);
    // What is shown may be older than what the hand has done since.
    const bool now =
        stray != body.strays.end() && body.pattern == context_.document.job().part<PatternChapter>();
    return now ? stray->second.brought : *selected();
}

void PatternPage::layOut() {
    const BodyResult& body = context_.results.body();
    if (!body.skin) return update();
    const double w = width(), h = height();
    const double listWidth = std::min(214.0, 0.26 * w);
    const std::vector<SideView> views = sideViews();
    const bool both = views.size() > 1;
    const double stripHeight = both ? 0 : std::max(48.0, 0.115 * h);
    const double roomTall = both ? 0.5 * (h - 110) - 48 : h - 2 * stripHeight - 190;
    const QSizeF room(w - listWidth - 110, roomTall);
    const double perMm = BodyView::fittingScale(*body.skin, BodyView::From::Along, room);
    const double len = body.skin->length_mm() * perMm, left = 60 + 0.5 * (room.width() - len);
    double y = 56;
    for (const SideView& on : views) {
        on.view->place(body, QRectF(left - 8, y, len + 16, roomTall), perMm, on.side, sharpness());
        y += roomTall + 78;
    }
    if (!both) {  // strips are drawn to the scale of whichever side is seen
        belly_ = QRectF(left, h - stripHeight - 26, len, stripHeight);
        back_ = QRectF(left, belly_.top() - stripHeight - 26, len, stripHeight);
        requestStrips();
    }
    const double listTall = std::min(0.5 * h, 20 + kPatternRow_px * static_cast<double>(elements().size()));
    list_ = QRectF(w - listWidth - 12, 64, listWidth, listTall);
    if (listFor_ != context_.view.element()) {  // what is selected comes into sight
        inHandKey_ = kWholeMark;
        listFor_ = context_.view.element();
        const int row = indexOfElement(context_.document.job(), listFor_);
        if (row >= 0 && row < firstRow_) firstRow_ = row;
        if (row >= firstRow_ + rowsShown()) firstRow_ = row - rowsShown() + 1;
    }
    scrollList(0);
    const double below = list_.bottom() + 44;
    mask_ = QRectF(list_.left(), below, listWidth, std::max(0.0, std::min(270.0, h - below - 26)));
    update();
}

QPolygonF PatternPage::drawn(const SideView& on, const Outline& outline) const {
    QPolygonF polygon;
    for (const SurfacePoint& p : outline.points) {
        const double y = on.side == Side::Right ? -p.position.y() : p.position.y();
        polygon << on.view->at(Vec3(p.position.x(), y, p.position.z()));
    }
    return polygon;
}

QPointF PatternPage::openingAt(int element, int index) const {
    const ArtPtr art =
        element < 0 ? nullptr : context_.results.body().artOrStray(static_cast<std::size_t>(element));
    if (!art || art->outlines().empty()) return {};
    const auto& outlines = art->outlines();
    const auto last = static_cast<int>(outlines.size()) - 1;
    return drawn(leading(), outlines[static_cast<std::size_t>(std::min(index, last))])
        .boundingRect()
        .center();
}

std::span<const Handle> PatternPage::handles() const {
    const ElementPtr e = selected();
    const Kind* kind = e ? findKind(e->kind) : nullptr;
    return kind ? kind->handles() : std::span<const Handle>();
}

QPointF PatternPage::handleAt(std::string_view key) const {
    const ElementArt* art = selectedArt();
    const auto& skin = context_.results.body().skin;
    if (!art || !skin) return {};
    const SideView on = leading();
    for (const Handle& handle : handles()) {
        if (handle.key != key) continue;
        const std::optional<Vec2> at = art->place(handle.key);
        const SkinPoint point{on.side, at ? at->x() : 0, at ? at->y() : 0};
        if (!at || !skin->check(point, "")) return {};
        return on.view->at(skin->at(point).position);
    }
    return {};
}

QRectF PatternPage::listRow(int index) const {
    const int row = index - firstRow_;
    if (row < 0 || row >= rowsShown()) return {};
    return QRectF(list_.left(), list_.top() + 12 + row * kPatternRow_px, list_.width() - 8,
                  kPatternRow_px - 5);
}

int PatternPage::rowsShown() const {
    return std::max(1, static_cast<int>((list_.height() - 12) / kPatternRow_px));
}

void PatternPage::scrollList(int rows) {
    const int most = std::max(0, static_cast<int>(elements().size()) - rowsShown());
    firstRow_ = std::clamp(firstRow_ + rows, 0, most);
    update();
}

bool PatternPage::scrolls(const QPointF& page, int steps) {
    if (!list_.adjusted(0, -20, 8, 8).contains(page)) return false;
    scrollList(steps);
    return true;
}

void PatternPage::requestStrips() {
    const BodyResult& body = context_.results.body();
    const Strips wanted{body.picture, back_.size().toSize(), leading().view->perMm(), {}, {}};
    if (!body.picture ||
        (wanted.picture == strips_.picture && wanted.size == strips_.size && wanted.perMm == strips_.perMm))
        return;
    stripSlot_.request(
        [wanted, drawn = body.drawn](const Task&) {
            Strips strips = wanted;
            strips.back = unrolled(*drawn, *wanted.picture, wanted.size, wanted.perMm, true);
            strips.belly = unrolled(*drawn, *wanted.picture, wanted.size, wanted.perMm, false);
            return strips;
        },
        [this](Strips strips) {
            strips_ = std::move(strips);
            update();
        });
}

void PatternPage::mousePressEvent(QMouseEvent* event) {
    const QPointF at = event->position();
    last_ = at;
    grip_.reset();
    for (int i = 0; i < static_cast<int>(elements().size()); ++i) {
        if (listRow(i).contains(at))
            return context_.view.setElement(elements()[static_cast<std::size_t>(i)]->id);
    }
    for (const Handle& handle : handles()) {
        const QPointF foot = handleAt(handle.key);
        if (foot.isNull() || (foot - at).manhattanLength() > kHandle_px) continue;
        context_.document.beginGesture();
        grip_ = inHandKey_ = handle.key;
        return;
    }
    const auto& art = context_.results.body().art;
    // The selected element first, so that it can be dragged from under others.
    std::vector<int> order{indexOfElement(context_.document.job(), context_.view.element())};
    for (int i = static_cast<int>(art.size()) - 1; i >= 0; --i) order.push_back(i);
    for (const SideView& on : sideViews()) {
        for (const int i : order) {
            const auto index = static_cast<std::size_t>(i);
            const ArtPtr here = i < 0 ? nullptr : context_.results.body().artOrStray(index);
            if (!here || index >= elements().size() || !elements()[index]->standsOn(on.side)) continue;
            for (const Outline& outline : here->outlines()) {
                const QPolygonF polygon = drawn(on, outline);
                if (!polygon.containsPoint(at, Qt::OddEvenFill) &&
                    !polygon.boundingRect().adjusted(-4, -4, 4, 4).contains(at))
                    continue;
                context_.view.setElement(elements()[index]->id);
                context_.document.beginGesture();
                grip_ = inHandKey_ = kWholeMark;
                return;
            }
        }
    }
}

void PatternPage::mouseMoveEvent(QMouseEvent* event) {
    if (!grip_ || !(event->buttons() & Qt::LeftButton)) return;
    const SideView on = leading();
    const Vec2 from = on.view->bodyAt(last_), to = on.view->bodyAt(event->position());
    last_ = event->position();
    moveHandle(*grip_, to.x() - from.x(), to.y() - from.y());
}

void PatternPage::moveHandle(std::string_view key, double dx, double dg) {
    const auto& skin = context_.results.body().skin;
    if (!selected() || !skin) return;
    Element e = inHand();
    if (key == kWholeMark) {
        e.dx_mm += dx;
        e.dg_mm += dg;
    }
    for (const Handle& handle : handles())
        if (handle.key == key)
            nine::moveHandle(handle, e, Vec2(dx, dg),
                             {*skin, context_.document.job().get<BlankChapter>().landmarks});
    if (!checkElement(e, "")) return;
    context_.document.edit(
        withElement(context_.document.job(),
                    static_cast<std::size_t>(indexOfElement(context_.document.job(), e.id)), e),
        tr("Move %1").arg(QString::fromStdString(e.shownName())));
}

void PatternPage::takeHandle(int by) {
    std::vector<std::string_view> keys{kWholeMark};
    for (const Handle& handle : handles())
        if (!handleAt(handle.key).isNull()) keys.push_back(handle.key);
    const auto now = std::find(keys.begin(), keys.end(), inHandKey_);
    const auto count = static_cast<std::ptrdiff_t>(keys.size());
    const std::ptrdiff_t index = now == keys.end() ? 0 : now - keys.begin();
    inHandKey_ = keys[static_cast<std::size_t>((index + by + count) % count)];
    speakHandle();
    update();
}

void PatternPage::speakHandle() {
    const ElementPtr e = selected();
    if (!e || !e->known()) return;
    QString words = QString::fromStdString(e->shownName());
    for (const Handle& handle : handles())
        if (handle.key == inHandKey_) words += ", " + said(handle.name);
    for (const Pattern& sentence : findKind(e->kind)->sentences())
        words += ". " + said(sentenceOf(*e, sentence));
    setAccessibleDescription(words);
    QAccessibleEvent spoken(this, QAccessible::DescriptionChanged);
    QAccessible::updateAccessibility(&spoken);
}

void PatternPage::keyPressEvent(QKeyEvent* event) {
    const double step = event->modifiers() & Qt::ShiftModifier ? 1 : 0.1;
    const double way = leading().side == Side::Left ? 1 : -1;
    const auto nudge = [&](double dx, double dg) {
        if (!event->isAutoRepeat()) context_.document.beginGesture();
        // A handle that went with the marks it stood on leaves the whole in hand.
        if (inHandKey_ != kWholeMark && handleAt(inHandKey_).isNull()) inHandKey_ = kWholeMark;
        moveHandle(inHandKey_, dx, dg);
        speakHandle();
    };
    switch (event->key()) {
        case Qt::Key_Left:
            return nudge(-way * step, 0);
        case Qt::Key_Right:
            return nudge(way * step, 0);
        case Qt::Key_Up:
            return nudge(0, step);
        case Qt::Key_Down:
            return nudge(0, -step);
        case Qt::Key_Space:
            return takeHandle(event->modifiers() & Qt::ShiftModifier ? -1 : 1);
        case Qt::Key_PageDown:
            return context_.view.setElement(
                elementBeside(context_.document.job(), context_.view.element(), 1));
        case Qt::Key_PageUp:
            return context_.view.setElement(
                elementBeside(context_.document.job(), context_.view.element(), -1));
        case Qt::Key_Escape:
            if (grip_) context_.document.cancelGesture();
            return grip_.reset();
        case Qt::Key_Delete:
            return emit removeWanted();
        default:
            LeafPage::keyPressEvent(event);
    }
}

}  // namespace nine::app
