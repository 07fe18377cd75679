#include "app/leaves/layers/layers_page.h"

#include <QKeyEvent>
#include <QMouseEvent>
#include <algorithm>
#include <cmath>

#include "app/leaves/layers/layers_edits.h"
#include "app/sheet/names.h"

namespace nine::app {
namespace {

constexpr double kTop_px = 200, kTopLow_px = 170;  // above the rows
constexpr double kFoot_px = 26;
constexpr double kThin_px = 21, kLeastRow_px = 42, kMostRow_px = 58;
constexpr double kNear_px = 8, kDragFrom_px = 5;
constexpr double kNudge_mm = 1;

}  // namespace

LayersPage::LayersPage(LeafContext context, LayersDesk& desk)
    : LeafPage(context), desk_(desk), view_(new BodyView(BodyView::From::Along, this)) {
    setAccessibleName(tr("Steps of the recipe and a cut through their films"));
    setMinimumSize(420, 360);
    setMouseTracking(true);
    connect(&desk_, &LayersDesk::changed, this, [this] { follow(); });
    connect(view_, &BodyView::redrawn, this, [this] { update(); });
}

void LayersPage::setStacked(bool on) {
    stacked_ = on;
    layOut();
}

void LayersPage::layOut() {
    const double w = width(), h = height();
    const double top = h < 640 ? kTopLow_px : kTop_px;
    bodyBox_ = QRectF(18, 56, std::clamp(0.36 * w, 190.0, 420.0), top - 74);
    rowsBox_ = QRectF(10, top + 20, w - 20, h - top - 20 - kFoot_px);
    const bool narrow = w < 720;
    const double right = w - 18;
    columns_ = {44, 54, 96, 0, 0, 0, 0, 0};
    columns_.ratio = right;
    columns_.drops = right - (narrow ? 60 : 78);
    columns_.tag = columns_.drops - (narrow ? 148 : 164);
    columns_.films = columns_.words + (narrow ? 112 : 150);
    columns_.filmsEnd = columns_.tag - 14;
    const BodyResult& body = context_.results.body();
    if (body.skin) {
        BodyResult worn = body;
        if (desk_.worn() && desk_.study().on && desk_.study().isOf(body)) worn.picture = desk_.worn();
        view_->place(worn, bodyBox_.adjusted(-16, -14, 24, 26),
                     BodyView::fittingScale(*body.skin, BodyView::From::Along, bodyBox_.size()),
                     context_.view.side(), sharpness());
    }
    layOutRows();
    if (context_.view.step() != shown_) showSelected();
    update();
}

void LayersPage::layOutRows() {
    // In one piece: rows from the first step up, as high as there is room for, then from the foot of the box.
    rows_.clear();
    const auto& steps = desk_.layers().recipe.steps;
    int thick = 0, thin = 0;
    for (std::size_t s = 0; s < steps.size();) {
        Row row{s, s, 1, !paints(steps[s].act), {}};
        const std::string& group = steps[s].group;
        if (desk_.folded(group)) {
            std::size_t shown = s;
            while (shown < steps.size() && steps[shown].group == group && !paints(steps[shown].act)) ++shown;
            if (shown < steps.size() && steps[shown].group == group) {
                // What comes off goes with what was sprayed; what is laid on begins another row, whatever it
                // is called.
                std::size_t end = shown + 1;
                while (end < steps.size() && steps[end].group == group && !paints(steps[end].act) &&
                       steps[end].act != Act::MaskOn && steps[end].act != Act::NetOn)
                    ++end;
                row = {shown, s, end - s, false, {}};
            }
        }
        s += row.count;
        ++(row.thin ? thin : thick);
        rows_.push_back(row);
    }
    const double room = rowsBox_.height();
    const double high =
        thick > 0 ? std::clamp((room - thin * kThin_px) / thick, kLeastRow_px, kMostRow_px) : kMostRow_px;
    content_ = thick * high + thin * kThin_px;
    scroll_ = std::clamp(scroll_, 0.0, std::max(0.0, content_ - room));
    // The first step stands at the foot, or as far below it as was scrolled.
    double y = std::min(rowsBox_.bottom(), rowsBox_.top() + content_) + scroll_;
    if (content_ > room) y = rowsBox_.bottom() + (content_ - room) - scroll_;
    for (Row& row : rows_) {
        const double h = row.thin ? kThin_px : high;
        y -= h;
        row.box = QRectF(rowsBox_.left(), y, rowsBox_.width(), h);
    }
    perMicron_ = 0;
    if (desk_.section() && desk_.section()->thickest_um > 0)
        perMicron_ = (high - 22) / desk_.section()->thickest_um;
}

void LayersPage::showSelected() {
    shown_ = context_.view.step();
    const double room = rowsBox_.height();
    if (content_ <= room) return;
    const QRectF box = rowOf(shown_);
    if (box.isNull()) return;
    if (box.top() < rowsBox_.top() || box.bottom() > rowsBox_.bottom())
        scroll_ += box.center().y() - rowsBox_.center().y();
    layOutRows();
}

bool LayersPage::scrolls(const QPointF& page, int steps) {
    if (!rowsBox_.contains(page) || content_ <= rowsBox_.height() || stacked_) return false;
    scroll_ += 42 * steps;
    layOutRows();
    update();
    return true;
}

QRectF LayersPage::rowOf(const std::string& step) const {
    const std::size_t place = placeOf(desk_.layers().recipe, step);
    for (const Row& row : rows_)
        if (place >= row.first && place < row.first + row.count) return row.box;
    return {};
}

const LayersPage::Row* LayersPage::rowAt(const QPointF& at) const {
    if (!rowsBox_.contains(at) || stacked_) return nullptr;
    for (const Row& row : rows_)
        if (row.box.contains(at)) return &row;
    return nullptr;
}

std::size_t LayersPage::dropPlace(double y) const {
    // Of the list with the held row taken out: how many rows' middles lie below.
    std::size_t place = 0;
    for (const Row& row : rows_)
        if (row.box.center().y() >= y && !holds(row, held_)) place += row.count;
    return place;
}

bool LayersPage::holds(const Row& row, const std::string& step) const {
    const std::size_t place = placeOf(desk_.layers().recipe, step);
    return place >= row.first && place < row.first + row.count;
}

void LayersPage::nudge(int by) {
    for (std::size_t i = 0; i < rows_.size(); ++i) {
        if (!holds(rows_[i], context_.view.step())) continue;
        if (by > 0 ? i + 1 == rows_.size() : i == 0) return;
        const Row row = rows_[i], past = rows_[by > 0 ? i + 1 : i - 1];
        moveRow(row, by > 0 ? past.first + past.count - row.count : past.first);
        return showSelected();
    }
}

void LayersPage::moveRow(const Row& row, std::size_t to) {
    const std::string id = desk_.layers().recipe.steps[row.first].id;
    const Status ok = desk_.change(tr("Move a step"), [&](LayersChapter& l) {
        l.recipe = withMoved(std::move(l.recipe), id, row.count, to);
    });
    if (!ok) context_.frame.complain(ok.error());
}

double LayersPage::filmX(const RecipeSection& section, double g_mm) const {
    const double from = section.g_mm.front(), to = section.g_mm.back();
    return std::lerp(columns_.films, columns_.filmsEnd, from > to ? (from - g_mm) / (from - to) : 0);
}

QPointF LayersPage::cutKnob() const {
    const SkinPtr skin = context_.results.body().skin;
    if (!skin) return {};
    const double x = desk_.cutAt_mm();
    return view_->at(x, skin->at({Side::Left, x, skin->arcAt(x).backArc_mm()}).position.z()) - QPointF(0, 12);
}

std::optional<Vec2> LayersPage::skinUnder(const QPointF& pixel) const {
    const SkinPtr skin = context_.results.body().skin;
    if (!skin || !view_->outline().contains(pixel)) return std::nullopt;
    const double x = std::clamp(view_->bodyAt(pixel).x(), skin->noseX_mm(), skin->tailX_mm());
    const double z = view_->bodyAt(pixel).y();
    // Heights rise with g on the side that is seen.
    const SectionArc arc = skin->arcAt(x);
    double low = -arc.bellyArc_mm(), high = arc.backArc_mm();
    for (int i = 0; i < 40; ++i) {
        const double middle = 0.5 * (low + high);
        (skin->at({Side::Left, x, middle}).position.z() < z ? low : high) = middle;
    }
    return Vec2(x, 0.5 * (low + high));
}

void LayersPage::readAt(const QPointF& at) {
    pointer_ = at;
    reading_.reset();
    const auto on = desk_.study().on;
    const auto skin = skinUnder(at);
    if (on && skin && desk_.study().isOf(context_.results.body()) && !on->painted.after.empty()) {
        const SkinPoint point{context_.view.side(), skin->x(), skin->y()};
        const std::size_t step =
            desk_.study().placeOf(context_.view.step()).value_or(on->painted.after.size() - 1);
        const Coated& state = on->painted.at(step, nine::placeOf(*on, point));
        const Dullness dull = dullnessAfter(on->of.get<LayersChapter>().recipe.steps, step);
        reading_ = Reading{point, labOf(state, dull), shown(srgbOf(state, dull))};
    }
    update();
}

std::optional<LayersPage::FadeHandles> LayersPage::fadeHandles() const {
    const Step* step = desk_.step();
    const SkinPtr skin = context_.results.body().skin;
    if (!step || !skin || !paints(step->act)) return std::nullopt;
    const Where& where = step->where;
    if (where.reaches != Reaches::Fade && where.reaches != Reaches::HeldOff &&
        where.reaches != Reaches::Grazing)
        return std::nullopt;
    const double cut = desk_.cutAt_mm();
    const SectionArc arc = skin->arcAt(cut);
    // How far from where it falls off from, along the skin; the place of that on the view.
    const auto at = [&](double far) -> std::optional<QPointF> {
        double x = cut, g = 0;
        switch (where.from) {
            case FadeFrom::Back:
                g = arc.backArc_mm() - far;
                break;
            case FadeFrom::Belly:
                g = far - arc.bellyArc_mm();
                break;
            case FadeFrom::Nose:
                x = skin->noseX_mm() + far;
                break;
            case FadeFrom::Tail:
                x = skin->tailX_mm() - far;
                break;
            case FadeFrom::Landmark: {
                const auto& marks = context_.document.job().get<BlankChapter>().landmarks;
                const auto found = marks.find(where.of);
                if (found == marks.end() || found->second.points.empty()) return std::nullopt;
                x = found->second.points.front().x() + far;
                g = found->second.points.front().y();
                break;
            }
        }
        x = std::clamp(x, skin->noseX_mm(), skin->tailX_mm());
        const SectionArc here = skin->arcAt(x);
        g = std::clamp(g, -here.bellyArc_mm(), here.backArc_mm());
        return view_->at(skin->at({Side::Left, x, g}).position);
    };
    const auto reach = at(where.reach_mm), soft = at(where.reach_mm + 0.5 * where.soft_mm);
    if (!reach || !soft) return std::nullopt;
    return FadeHandles{*reach, *soft};
}

void LayersPage::dragFade(const QPointF& at) {
    const Step* step = desk_.step();
    const SkinPtr skin = context_.results.body().skin;
    if (!step || step->id != held_ || !skin) return;
    // Beside the body the nearest height at this x counts.
    const QRectF seen = view_->bounds();
    QPointF inside(std::clamp(at.x(), seen.left() + 1, seen.right() - 1), at.y());
    const double x = std::clamp(view_->bodyAt(inside).x(), skin->noseX_mm(), skin->tailX_mm());
    const SectionArc arc = skin->arcAt(x);
    double g;
    if (const auto under = skinUnder(inside))
        g = under->y();
    else
        g = view_->bodyAt(inside).y() > skin->at({Side::Left, x, 0}).position.z() ? arc.backArc_mm()
                                                                                  : -arc.bellyArc_mm();
    const Where& where = step->where;
    double far = 0;
    switch (where.from) {
        case FadeFrom::Back:
            far = arc.backArc_mm() - g;
            break;
        case FadeFrom::Belly:
            far = g + arc.bellyArc_mm();
            break;
        case FadeFrom::Nose:
            far = x - skin->noseX_mm();
            break;
        case FadeFrom::Tail:
            far = skin->tailX_mm() - x;
            break;
        case FadeFrom::Landmark: {
            const auto& marks = context_.document.job().get<BlankChapter>().landmarks;
            const auto found = marks.find(where.of);
            if (found == marks.end() || found->second.points.empty()) return;
            far = (found->second.points.front() - Vec2(x, g)).norm();
        }
    }
    const bool reach = hand_ == Hand::Reach;
    (void)desk_.changeStep(held_, reach ? tr("Move the fade") : tr("Soften the fade"), [&](Step& s) {
        const auto rounded = [](double v) { return std::round(10 * v) / 10; };
        if (reach)
            s.where.reach_mm = rounded(far);
        else
            s.where.soft_mm = std::max(0.5, rounded(2 * (far - s.where.reach_mm)));
    });
}

void LayersPage::mousePressEvent(QMouseEvent* event) {
    if (event->button() != Qt::LeftButton) return;
    const QPointF at = event->position();
    const auto near = [&](const QPointF& p) { return QLineF(p, at).length() < kNear_px; };
    pressed_ = at;
    moved_ = false;
    hand_ = Hand::Empty;
    if (switch_.contains(at)) return setStacked(!stacked_);
    if (const auto fade = fadeHandles(); fade && (near(fade->reach) || near(fade->soft))) {
        hand_ = near(fade->reach) ? Hand::Reach : Hand::Soft;
        held_ = desk_.step()->id;
        context_.document.beginGesture();
        return;
    }
    if (bodyBox_.adjusted(-8, -20, 8, 8).contains(at) && context_.results.body().skin) {
        hand_ = Hand::Cut;
        desk_.cutAt(view_->bodyAt(at).x());
        return;
    }
    if (const Row* row = rowAt(at)) {
        const auto& steps = desk_.layers().recipe.steps;
        const Step& step = steps[row->step];
        if (!step.group.empty() && at.x() < columns_.number - 24) return desk_.fold(step.group);
        held_ = step.id;
        hand_ = Hand::Row;
        desk_.select(held_);
    }
}

void LayersPage::mouseMoveEvent(QMouseEvent* event) {
    const QPointF at = event->position();
    if (!(event->buttons() & Qt::LeftButton)) {
        const auto fade = fadeHandles();
        const bool handle = fade && (QLineF(fade->reach, at).length() < kNear_px ||
                                     QLineF(fade->soft, at).length() < kNear_px);
        setCursor(handle                                      ? Qt::SizeAllCursor
                  : QLineF(cutKnob(), at).length() < kNear_px ? Qt::SizeHorCursor
                  : rowAt(at) && at.x() < columns_.number     ? Qt::OpenHandCursor
                                                              : Qt::ArrowCursor);
        return readAt(at);
    }
    if (QLineF(pressed_, at).length() > kDragFrom_px) moved_ = true;
    switch (hand_) {
        case Hand::Cut:
            desk_.cutAt(view_->bodyAt(at).x());
            break;
        case Hand::Reach:
        case Hand::Soft:
            if (moved_) dragFade(at);
            break;
        case Hand::Row:
            pointer_ = at;
            update();
            break;
        case Hand::Empty:
            break;
    }
}

void LayersPage::mouseReleaseEvent(QMouseEvent* event) {
    if (event->button() != Qt::LeftButton) return;
    const Hand hand = std::exchange(hand_, Hand::Empty);
    if (hand != Hand::Row || !moved_) return update();
    const std::size_t to = dropPlace(event->position().y());
    for (const Row& row : rows_)
        if (holds(row, held_) && row.first != to) {
            context_.document.beginGesture();
            moveRow(Row(row), to);
            break;
        }
    update();
}

void LayersPage::showEvent(QShowEvent* event) {
    desk_.setWatched(true);
    LeafPage::showEvent(event);
}

void LayersPage::leaveEvent(QEvent*) {
    reading_.reset();
    update();
}

void LayersPage::keyPressEvent(QKeyEvent* event) {
    const bool alt = event->modifiers() & Qt::AltModifier;
    const Step* step = desk_.step();
    switch (event->key()) {
        case Qt::Key_Up:
        case Qt::Key_Down: {
            const int by = event->key() == Qt::Key_Up ? 1 : -1;
            if (!alt) return desk_.selectBeside(by);
            if (!step) return;
            if (!event->isAutoRepeat()) context_.document.beginGesture();
            nudge(by);
            return showSelected();
        }
        case Qt::Key_Home:
        case Qt::Key_End: {
            const auto& steps = desk_.layers().recipe.steps;
            if (!steps.empty())
                desk_.select((event->key() == Qt::Key_Home ? steps.front() : steps.back()).id);
            return;
        }
        case Qt::Key_Left:
        case Qt::Key_Right: {
            const double towardsTail = context_.view.side() == Side::Right ? -1 : 1;
            const double mm = event->modifiers() & Qt::ShiftModifier ? 5 * kNudge_mm : kNudge_mm;
            return desk_.cutAt(desk_.cutAt_mm() + (event->key() == Qt::Key_Right ? mm : -mm) * towardsTail);
        }
        case Qt::Key_C:
            return setStacked(!stacked_);
        case Qt::Key_Delete:
            if (!step) return;
            context_.document.beginGesture();
            {
                const std::string id = step->id;
                const auto place = *desk_.stepPlace();
                (void)desk_.change(tr("Take a step out"),
                                   [&](LayersChapter& l) { l.recipe = without(std::move(l.recipe), id); });
                const auto& steps = desk_.layers().recipe.steps;
                if (!steps.empty()) desk_.select(steps[std::min(place, steps.size() - 1)].id);
            }
            return;
        case Qt::Key_Escape:
            if (hand_ == Hand::Reach || hand_ == Hand::Soft) context_.document.cancelGesture();
            hand_ = Hand::Empty;
            moved_ = false;
            return update();
        default:
            LeafPage::keyPressEvent(event);
    }
}

}  // namespace nine::app
