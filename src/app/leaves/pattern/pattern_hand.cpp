// What mouse and keys do on the Pattern leaf's page.
#include <QAccessible>
#include <QClipboard>
#include <QGuiApplication>
#include <QKeyEvent>
#include <QMouseEvent>
#include <algorithm>
#include <cmath>

#include "app/document/selection.h"
#include "app/leaves/pattern/pattern_page.h"
#include "app/sheet/names.h"
#include "app/sheet/param_sentence.h"
#include "app/sheet/units_text.h"
#include "blank/walk.h"

namespace nine::app {
namespace {

constexpr double kHandle_px = 12;
constexpr double kNear_mm = 0.35;    // beside an outline is on it
constexpr double kFelt = 0.25;       // of a soft mark: so much paint is on it
constexpr double kLandmark_px = 18;  // an anchor dropped so near to a landmark is on it
constexpr double kDragRow_px = 6;

bool withinOutline(const std::vector<Outline>& outlines, const Vec2& at) {
    int winding = 0;
    for (const Outline& outline : outlines) {
        const auto& ring = outline.skin;
        for (std::size_t i = 0, j = ring.size() - 1; i < ring.size(); j = i++) {
            const Vec2 &a = ring[j], &b = ring[i];
            if ((a.y() > at.y()) == (b.y() > at.y())) continue;
            if (a.x() + (at.y() - a.y()) / (b.y() - a.y()) * (b.x() - a.x()) > at.x())
                winding += b.y() > a.y() ? 1 : -1;
        }
    }
    return winding != 0;
}

/// On the mark, or so near to a small one that it is meant.
bool on(const ElementArt& art, const Vec2& at) {
    if (art.outlines().empty()) return false;
    const Vec2 room(kNear_mm, kNear_mm);
    if (((at - art.low + room).array() < 0).any() || ((art.high + room - at).array() < 0).any()) return false;
    for (const Vec2& by :
         {Vec2(0, 0), Vec2(kNear_mm, 0), Vec2(-kNear_mm, 0), Vec2(0, kNear_mm), Vec2(0, -kNear_mm)})
        if (withinOutline(art.outlines(), at + by)) return true;
    return false;
}

bool softlyOn(const ElementArt& art, const Vec2& at) {
    return std::any_of(art.passes.begin(), art.passes.end(),
                       [&](const Pass& pass) { return pass.cover && pass.cover(at.x(), at.y()) > kFelt; });
}

}  // namespace

PatternPage::Hit PatternPage::markAt(const QPointF& at) const {
    std::vector<int> order{indexOfElement(context_.document.job(), context_.view.element())};
    for (int i = static_cast<int>(elements().size()) - 1; i >= 0; --i) order.push_back(i);
    // What has an edge before what is soft: a fade lies under everything.
    for (const bool soft : {false, true}) {
        for (const Shown where : shown()) {
            if (!views_.covers(where, at)) continue;
            for (const int i : order) {
                if (i < 0 || static_cast<std::size_t>(i) >= elements().size()) continue;
                const Element& e = *elements()[static_cast<std::size_t>(i)];
                if (context_.view.hidden().count(e.id)) continue;
                for (const bool twin : copiesOn(where, e)) {
                    const ElementArt* art = artOf(static_cast<std::size_t>(i), twin);
                    auto place = views_.placeAt(where, at, twin);
                    if (!art || !place) continue;
                    if (e.isCentral() && where == Shown::Right) {  // seen from its far side
                        const SectionArc arc = context_.results.body().skin->arcAt(place->x());
                        place = Vec2(place->x(), art->high.y() > arc.backArc_mm()
                                                     ? 2 * arc.backArc_mm() - place->y()
                                                     : -2 * arc.bellyArc_mm() - place->y());
                    }
                    if (soft ? softlyOn(*art, *place) : on(*art, *place)) return {i, where, twin, soft};
                }
            }
        }
    }
    return {};
}

bool PatternPage::pressList(const QPointF& at, bool more) {
    for (int i = 0; i < static_cast<int>(elements().size()); ++i) {
        if (!listRow(i).contains(at)) continue;
        const std::string id = elements()[static_cast<std::size_t>(i)]->id;
        if (eyeOfRow(i).contains(at)) {
            std::set<std::string> hidden = context_.view.hidden();
            if (!hidden.erase(id)) hidden.insert(id);
            context_.view.setHidden(std::move(hidden));
        } else if (lockOfRow(i).contains(at)) {
            context_.document.beginGesture();
            context_.document.edit(
                withEach(context_.document.job(), {id}, [](Element& e) { e.locked = !e.locked; }),
                elements()[static_cast<std::size_t>(i)]->locked ? tr("Unlock a mark") : tr("Lock a mark"));
        } else if (more) {
            context_.view.toggleElement(id);
        } else {
            context_.view.setElement(id);
            rowDrag_ = i;
        }
        return true;
    }
    return false;
}

bool PatternPage::pressHandle(const QPointF& at) {
    const ElementPtr e = selected();
    if (!e || e->locked) return false;
    if (const QPointF anchor = anchorAt();
        !anchor.isNull() && (anchor - at).manhattanLength() <= kHandle_px && findKind(e->kind)->hasOrigin()) {
        anchorDrag_ = at;
        update();
        return true;
    }
    for (const std::string& key : handleKeys()) {
        const std::optional<Vec2> place = placeOfHandle(key);
        if (!place) continue;
        for (const Shown where : shown()) {
            for (const bool twin : copiesOn(where, *e)) {
                const auto foot = views_.pixelOf(where, *place, twin);
                if (!foot || (*foot - at).manhattanLength() > kHandle_px) continue;
                context_.document.beginGesture();
                grip_ = Grip{key, where, twin};
                inHandKey_ = key;
                return true;
            }
        }
    }
    return false;
}

bool PatternPage::pressMark(const QPointF& at, bool more) {
    const Hit hit = markAt(at);
    if (hit.element < 0) return false;
    const ElementPtr e = elements()[static_cast<std::size_t>(hit.element)];
    if (more) {
        context_.view.toggleElement(e->id);
        return true;
    }
    const bool already = context_.view.isSelected(e->id);
    if (!already) context_.view.setElement(e->id);
    // A fade lies everywhere: who presses beside a mark does not mean to drag it away.
    if (e->locked || (hit.soft && !already)) return true;
    context_.document.beginGesture();
    grip_ = Grip{std::string(kWholeMark), hit.where, hit.twin};
    inHandKey_ = kWholeMark;
    return true;
}

bool PatternPage::pressPreview(const QPointF& at) {
    for (int i = 0; i < static_cast<int>(desk_.previews().size()); ++i) {
        if (!previewBox(i).contains(at)) continue;
        const std::string& name = desk_.previews()[static_cast<std::size_t>(i)].blank.name;
        desk_.choose(desk_.chosen() == name ? std::string() : name);
        return true;
    }
    return false;
}

void PatternPage::placeNew(const QPointF& at) {
    for (const Shown where : shown()) {
        if (!views_.covers(where, at)) continue;
        const bool twin = where == Shown::Right;
        const auto place = views_.placeAt(where, at, twin);
        if (!place) continue;
        const Kind* kind = strip_.inHand();
        strip_.take(nullptr);
        emit addWanted(kind, *place);
        // The same press goes on as a drag of what it put there.
        grip_ = Grip{std::string(kWholeMark), where, twin};
        inHandKey_ = kWholeMark;
        return;
    }
}

void PatternPage::mousePressEvent(QMouseEvent* event) {
    const QPointF at = event->position();
    const bool more = event->modifiers() & Qt::ControlModifier;
    last_ = pressed_ = at;
    grip_.reset();
    rowDrag_.reset();
    closeEditor();
    if (strip_.press(at)) {
        setCursor(strip_.inHand() ? Qt::CrossCursor : Qt::ArrowCursor);
        return update();
    }
    if (strip_.inHand()) {
        placeNew(at);
        setCursor(strip_.inHand() ? Qt::CrossCursor : Qt::ArrowCursor);
        return update();
    }
    (void)(pressList(at, more) || pressPreview(at) || (!more && pressHandle(at)) || pressMark(at, more));
}

void PatternPage::mouseMoveEvent(QMouseEvent* event) {
    const QPointF at = event->position();
    if (!(event->buttons() & Qt::LeftButton)) {
        if (strip_.hover(at)) update();
        return;
    }
    if (anchorDrag_) {
        anchorDrag_ = at;
        return update();
    }
    if (rowDrag_ && std::abs(at.y() - pressed_.y()) > kDragRow_px) {
        rowDrag_ = std::clamp(firstRow_ + static_cast<int>((at.y() - list_.top() - 12) / kPatternRow_px), 0,
                              static_cast<int>(elements().size()) - 1);
        return update();
    }
    if (!grip_) return;
    const auto from = views_.placeAt(grip_->where, last_, grip_->twin);
    const auto to = views_.placeAt(grip_->where, at, grip_->twin);
    last_ = at;
    const auto& skin = context_.results.body().skin;
    if (!from || !to || !skin) return;
    // Along the skin where it is steep, not along the axis.
    const SectionArc arc = skin->arcAt(to->x());
    const double g = std::clamp(to->y(), -arc.bellyArc_mm(), arc.backArc_mm());
    const Result<double> along = distanceAlong(*skin, from->x(), to->x(), g, "");
    const bool stretched = !selected() || !selected()->anchor.empty() || grip_->key != kWholeMark;
    moveHandle(grip_->key, along && stretched ? *along : to->x() - from->x(), to->y() - from->y());
}

void PatternPage::mouseReleaseEvent(QMouseEvent* event) {
    if (anchorDrag_) dropAnchor(event->position());
    if (rowDrag_ && std::abs(event->position().y() - pressed_.y()) > kDragRow_px && selected()) {
        context_.document.beginGesture();
        context_.document.edit(withOrder(context_.document.job(), selected()->id, *rowDrag_),
                               tr("Change the order"));
    }
    anchorDrag_.reset();
    rowDrag_.reset();
    grip_.reset();
    update();
}

void PatternPage::mouseDoubleClickEvent(QMouseEvent* event) {
    openEditor(event->position());
    if (!editor_) mousePressEvent(event);
}

void PatternPage::dropAnchor(const QPointF& at) {
    const auto& landmarks = context_.document.job().get<BlankChapter>().landmarks;
    std::string nearest;
    double least = kLandmark_px;
    for (const auto& [name, landmark] : landmarks) {
        const double g = selectedArt() ? selectedArt()->origin.y() : 0;
        for (const Vec2& place : landmark.isCurve() ? std::vector<Vec2>{referencePoint(landmark, g)}
                                                    : std::vector<Vec2>{landmark.points.front()}) {
            const auto pixel = views_.pixelOf(leading(), place, leading() == Shown::Right);
            if (!pixel) continue;
            const double far = std::hypot(pixel->x() - at.x(), pixel->y() - at.y());
            if (far >= least) continue;
            least = far;
            nearest = name;
        }
    }
    if (!nearest.empty()) emit anchorWanted(nearest);
}

void PatternPage::openEditor(const QPointF& at) {
    closeEditor();
    const ElementPtr e = selected();
    if (!e || !e->known()) return;
    for (const Tag& tag : tags_) {
        if (!tag.box.contains(at)) continue;
        const Kind& kind = *findKind(e->kind);
        const Param* param = findParam(kind, tag.key);
        editor_ = new ValueChip(param ? chipKind(*param) : ValueChip::Kind::Length,
                                param ? param->decimals : 1, 0.1, this);
        editing_ = tag.key;
        editor_->setValue(param                ? shownUnits(*param) * e->values.number(tag.key)
                          : tag.key == "dx_mm" ? e->dx_mm
                                               : e->dg_mm);
        editor_->setOwner(e->id);
        editor_->setAccessibleName(param ? said(param->name) : tr("Distance"));
        connect(editor_, &ValueChip::committed, this,
                [this, key = tag.key, unit = param ? shownUnits(*param) : 1.0](double v) {
                    emit valueTyped(key, v / unit);
                });
        connect(editor_, &ValueChip::finished, this, [this] { closeEditor(); });
        const QRectF box(toWidget(tag.box.topLeft()), toWidget(tag.box.bottomRight()));
        editor_->setGeometry(box.adjusted(-4, -3, 14, 3).toRect());
        editor_->show();
        editor_->setFocus();
        editor_->selectAll();
        return;
    }
}

void PatternPage::closeEditor() {
    if (!editor_) return;
    editor_->disconnect(this);
    editor_->hide();
    editor_->deleteLater();
    editor_ = nullptr;
    setFocus();
}

void PatternPage::moveWhole(double dx, double dg) {
    // All that is selected, and what is in a group with it; the one in hand as it is shown.
    const Element lead = inHand();
    Ids ids = withGroups(context_.document.job(), selectedIds());
    bool fine = true;
    const Job next = withEach(context_.document.job(), ids, [&](Element& e) {
        if (e.id == lead.id) e = lead;
        const Kind* kind = findKind(e.kind);
        if (!kind || e.locked || kind->isDerived()) return;
        if (!kind->alongCurve().empty() && e.id != lead.id) return;
        e.dx_mm += dx;
        e.dg_mm += dg;
        fine = fine && checkElement(e, "");
    });
    if (!fine) return;
    context_.document.edit(next, ids.size() > 1
                                     ? tr("Move %1 marks").arg(ids.size())
                                     : tr("Move %1").arg(QString::fromStdString(lead.shownName())));
}

void PatternPage::moveHandle(std::string_view key, double dx, double dg) {
    const auto& skin = context_.results.body().skin;
    const ElementPtr now = selected();
    if (!now || !now->known() || now->locked || !skin) return;
    if (key == kWholeMark) return moveWhole(dx, dg);
    Element e = inHand();
    for (const Handle& handle : handles())
        if (handle.key == key)
            nine::moveHandle(handle, e, Vec2(dx, dg),
                             {*skin, context_.document.job().get<BlankChapter>().landmarks});
    if (isPathKey(key)) {
        const std::size_t place = std::stoul(std::string(key)) - 1;
        const double size = e.values.find("size") ? e.values.number("size") : 1;
        for (const Param& p : findKind(e.kind)->params()) {
            if (p.type != Param::Type::Path) continue;
            Polyline2 path = std::get<Polyline2>(*e.values.find(p.key));
            if (place < path.size()) path[place] += Vec2(dx, dg) / size;
            e.values.set(p.key, std::move(path));
        }
    }
    if (!checkElement(e, "")) return;
    context_.document.edit(
        withElement(context_.document.job(),
                    static_cast<std::size_t>(indexOfElement(context_.document.job(), e.id)), e),
        tr("Move %1").arg(QString::fromStdString(e.shownName())));
}

void PatternPage::takeHandle(int by) {
    std::vector<std::string> keys{std::string(kWholeMark)};
    for (const std::string& key : handleKeys())
        if (!handleAt(key).isNull()) keys.push_back(key);
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
    if (isPathKey(inHandKey_)) words += ", " + tr("place %1").arg(QString::fromStdString(inHandKey_));
    for (const Pattern& sentence : findKind(e->kind)->sentences())
        words += ". " + said(sentenceOf(*e, sentence));
    setAccessibleDescription(words);
    QAccessibleEvent spoken(this, QAccessible::DescriptionChanged);
    QAccessible::updateAccessibility(&spoken);
}

void PatternPage::orderSelected(int by) {
    const ElementPtr e = selected();
    if (!e) return;
    context_.document.beginGesture();
    context_.document.edit(
        withOrder(context_.document.job(), e->id, indexOfElement(context_.document.job(), e->id) + by),
        tr("Change the order"));
}

void PatternPage::copySelected() {
    const Ids ids = withGroups(context_.document.job(), selectedIds());
    if (ids.empty()) return;
    QGuiApplication::clipboard()->setText(QString::fromStdString(elementsText(context_.document.job(), ids)));
}

void PatternPage::paste() {
    Ids made;
    const Result<Job> next =
        withPasted(context_.document.job(), QGuiApplication::clipboard()->text().toStdString(), made);
    if (!next || made.empty())
        return context_.frame.tell(tr("The clipboard holds no marks. Copy some on a Pattern leaf first."), {},
                                   {});
    context_.document.beginGesture();
    context_.document.edit(*next, tr("Paste %1 marks").arg(made.size()));
    context_.view.setElement(*made.begin());
}

void PatternPage::keyPressEvent(QKeyEvent* event) {
    // In one piece: what each key does.
    const double step = event->modifiers() & Qt::ShiftModifier ? 1 : 0.1;
    const double way = leading() == Shown::Right ? -1 : 1;
    const bool ctrl = event->modifiers() & Qt::ControlModifier, alt = event->modifiers() & Qt::AltModifier;
    const auto nudge = [&](double dx, double dg) {
        if (!selected()) return;
        if (!event->isAutoRepeat()) context_.document.beginGesture();
        // A handle that went with the marks it stood on leaves the whole in hand.
        if (inHandKey_ != kWholeMark && handleAt(inHandKey_).isNull()) inHandKey_ = kWholeMark;
        moveHandle(inHandKey_, dx, dg);
        speakHandle();
    };
    if (!ctrl && !alt && event->key() == Qt::Key_D && selected()) {
        Ids made;
        const Job next =
            withDuplicates(context_.document.job(), withGroups(context_.document.job(), selectedIds()), made);
        if (made.empty()) return;
        context_.document.beginGesture();
        context_.document.edit(next, tr("Duplicate"));
        return context_.view.setElement(*made.begin());
    }
    if (event->matches(QKeySequence::Copy)) return copySelected();
    if (event->matches(QKeySequence::Paste)) return paste();
    if (event->matches(QKeySequence::Cut)) {
        copySelected();
        return emit removeWanted();
    }
    if (ctrl) return LeafPage::keyPressEvent(event);
    switch (event->key()) {
        case Qt::Key_Left:
            return nudge(-way * step, 0);
        case Qt::Key_Right:
            return nudge(way * step, 0);
        case Qt::Key_Up:
            return alt ? orderSelected(-1) : nudge(0, step);
        case Qt::Key_Down:
            return alt ? orderSelected(1) : nudge(0, -step);
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
            strip_.take(nullptr);
            setCursor(Qt::ArrowCursor);
            anchorDrag_.reset();
            if (!grip_) desk_.choose({});
            update();
            return grip_.reset();
        case Qt::Key_Delete:
            return emit removeWanted();
        case Qt::Key_Insert:
            return emit kindsWanted();
        case Qt::Key_R: {
            const auto& previews = desk_.previews();
            if (previews.empty()) return;
            std::size_t next = 0;
            for (std::size_t i = 0; i < previews.size(); ++i)
                if (previews[i].blank.name == desk_.chosen()) next = i + 1;
            return desk_.choose(next < previews.size() ? previews[next].blank.name : std::string());
        }
        default:
            LeafPage::keyPressEvent(event);
    }
}

}  // namespace nine::app
