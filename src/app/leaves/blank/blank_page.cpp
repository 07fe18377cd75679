#include "app/leaves/blank/blank_page.h"

#include <QKeyEvent>
#include <QMouseEvent>
#include <QPainter>
#include <cmath>
#include <set>

#include "app/leaves/blank/blank_edits.h"
#include "app/sheet/ink.h"
#include "app/sheet/names.h"
#include "app/sheet/units_text.h"
#include "blank/landmark_curve.h"

namespace nine::app {
namespace {

constexpr double kGrip_px = 9;

/// Drawn without their names unless they are in hand.
bool isQuiet(const std::string& name) {
    static const std::set<std::string> quiet{"nose",      "pectoral_root", "dorsal_root", "pelvic_root",
                                             "anal_root", "fish_line",     "back_line",   "belly_line",
                                             "seam",      "mouth_corner"};
    return quiet.count(name) > 0;
}

}  // namespace

BlankPage::BlankPage(LeafContext context)
    : LeafPage(context), editor_(new ValueChip(ValueChip::Kind::Length, 1, 0.1, this)) {
    editor_->hide();
    editor_->setAccessibleName(tr("Dimension"));
    connect(editor_, &ValueChip::committed, this, &BlankPage::takeTyped);
    connect(editor_, &ValueChip::finished, editor_, &QWidget::hide);
    setMouseTracking(true);
    setAccessibleName(tr("Outline of the blank with its stations"));
    connect(&side_, &BodyView::redrawn, this, [this] { update(); });
    connect(&above_, &BodyView::redrawn, this, [this] { update(); });
    connect(&layers_, &BlankLayers::changed, this, [this] { follow(); });
}

void BlankPage::layOut() {
    const BodyResult& body = context_.results.body();
    if (body.skin) {
        const double w = width(), h = height();
        const BlankLayers::WrapAnswer& wrap = layers_.wrap();
        const bool map = context_.view.wrapMap() && wrap.colours && wrap.skin == body.skin;
        constexpr double kStrip_px = 92, kMapLegend_px = 22;
        const double stripHeight = kStrip_px + (context_.view.wrapMap() ? kMapLegend_px : 0);
        const QSizeF room(w - 250, h - stripHeight - 148);
        const Extent2 e = extents(*body.skin);
        const double perMm =
            std::min(room.width() / body.skin->length_mm(), room.height() / (e.tall + e.wide));
        const double tall = e.tall * perMm, wide = e.wide * perMm, len = body.skin->length_mm() * perMm;
        const double left = std::max(110.0, 0.5 * (w - len) - 20);
        const double spare = std::max(0.0, h - stripHeight - 134 - tall - wide);
        const double y0 = 62 + 0.3 * spare, y1 = y0 + tall + 50 + 0.4 * spare;
        const double ratio = sharpness();
        BodyResult dressed = body;
        if (map) dressed.bare = wrap.colours;
        side_.place(dressed, QRectF(left - 8, y0 - 8, len + 16, tall + 16), perMm, context_.view.side(),
                    ratio, false, !map);
        above_.place(dressed, QRectF(left - 8, y1 - 8, len + 16, wide + 16), perMm, Side::Left, ratio, false,
                     !map);
        strip_ = QRectF(left, h - kStrip_px + 16, len, 30);
        placeLandmarks();
        requestLayers();
    }
    update();
}

BlankPage::Extent2 BlankPage::extents(const Skin& skin) const {
    Extent2 e{0, 0};
    double top = 0, bottom = 0;
    for (int i = 0; i <= 200; ++i) {
        const Section s = skin.loft().sectionAt(skin.noseX_mm() + skin.length_mm() * i / 200);
        top = std::max(top, s.top_mm);
        bottom = std::max(bottom, s.bottom_mm);
        e.wide = std::max(e.wide, 2 * s.halfWidth_mm);
    }
    e.tall = top + bottom;
    return e;
}

QPointF BlankPage::stationHandle(int index, bool top) const {
    const Station& s = stations()[static_cast<std::size_t>(index)];
    return side_.at(s.x_mm, top ? s.top_mm : -s.bottom_mm);
}

QPointF BlankPage::landmarkPoint(const std::string& name, int point) const {
    for (const DrawnLandmark& drawn : landmarks_) {
        if (drawn.name == name && point < drawn.points.size()) return drawn.points[point];
    }
    return {};
}

QPointF BlankPage::landmarkHandle(const std::string& name) const {
    for (const DrawnLandmark& drawn : landmarks_) {
        if (drawn.name == name) return drawn.points[drawn.points.size() / 2];
    }
    return {};
}

void BlankPage::placeLandmarks() {
    const Skin& skin = *context_.results.body().skin;
    landmarks_.clear();
    for (const auto& [name, landmark] : context_.document.job().get<BlankChapter>().landmarks) {
        DrawnLandmark drawn{name, landmark, {}, {}, isQuiet(name)};
        const auto draw = [&](QPolygonF& polygon, const std::vector<Vec2>& places) {
            for (const Vec2& v : places) {
                if (!skin.check({Side::Left, v.x(), v.y()}, "")) continue;
                polygon << side_.at(skin.at({context_.view.side(), v.x(), v.y()}).position);
            }
        };
        draw(drawn.points, landmark.points);
        if (landmark.isCurve()) draw(drawn.line, curveOf(landmark));
        if (!drawn.points.isEmpty()) landmarks_.push_back(std::move(drawn));
    }
}

void BlankPage::requestLayers() {
    const BodyResult& body = context_.results.body();
    layers_.askWrap(body.skin, context_.view.material(), context_.view.wrapMap(),
                    context_.view.sheetAlong_mm(), context_.view.sheetAcross_mm());
    BackPicturePtr under;
    for (const BackPicturePtr& picture : context_.document.job().get<BlankChapter>().pictures)
        if (!picture->fromAbove && !under) under = picture;
    if (!context_.view.pictureUnder() || context_.view.side() == Side::Right) under = nullptr;
    layers_.askPicture(under, side_.at(body.skin->noseX_mm(), 0), side_.at(body.skin->tailX_mm(), 0), size());
}

SkinPoint BlankPage::skinAt(const QPointF& at) const {
    const Vec2 xz = side_.bodyAt(at);
    SkinPoint point = context_.results.body().skin->onFlank(xz.x(), xz.y());
    point.side = context_.view.side();
    return point;
}

void BlankPage::measure(const SkinPoint& from, const SkinPoint& to) {
    layers_.askWay(context_.results.body().skin, from, to);
    measuredFrom_.reset();
    update();
}

void BlankPage::closeZone() {
    std::vector<Vec2> corners = std::move(corners_);
    corners_.clear();
    if (corners.size() < 3) return update();
    Zone zone;
    zone.name = tr("bare area").toStdString();
    zone.polygon = std::move(corners);
    context_.document.beginGesture();
    apply(withZone(context_.document.job(), zone), tr("Draw a bare area"));
    context_.view.setBlankTool(ViewState::BlankTool::Stations);
}

bool BlankPage::pressTool(const QPointF& at) {
    if (context_.view.blankTool() == ViewState::BlankTool::Stations) return false;
    if (side_.outline().contains(at)) setToolPoint(skinAt(at));
    return true;
}

void BlankPage::setToolPoint(const SkinPoint& point) {
    const ViewState::BlankTool tool = context_.view.blankTool();
    toolCursor_ = point;
    if (tool == ViewState::BlankTool::Zone) {
        const auto hundredth = [](double v) { return std::round(100 * v) / 100; };
        corners_.emplace_back(hundredth(point.x_mm), hundredth(point.g_mm));
    } else if (measuredFrom_) {
        measure(*measuredFrom_, point);
    } else {
        layers_.forgetWay();
        measuredFrom_ = point;
    }
    update();
}

bool BlankPage::keyForTool(const QKeyEvent& event) {
    const ViewState::BlankTool tool = context_.view.blankTool();
    if (tool == ViewState::BlankTool::Stations || !context_.results.body().skin) return false;
    const Skin& skin = *context_.results.body().skin;
    if (!toolCursor_)
        toolCursor_ = SkinPoint{context_.view.side(), skin.noseX_mm() + 0.5 * skin.length_mm(), 0};
    const double step = event.modifiers() & Qt::ShiftModifier ? 2 : 0.25;
    SkinPoint to = *toolCursor_;
    to.side = context_.view.side();
    switch (event.key()) {
        case Qt::Key_Left:
            to.x_mm -= step;
            break;
        case Qt::Key_Right:
            to.x_mm += step;
            break;
        case Qt::Key_Up:
            to.g_mm += step;
            break;
        case Qt::Key_Down:
            to.g_mm -= step;
            break;
        case Qt::Key_Space:
            setToolPoint(to);
            return true;
        default:
            return false;
    }
    if (skin.check(to, "")) toolCursor_ = to;  // stops at nose, tail and the far side line
    update();
    return true;
}

QRectF BlankPage::typedBox(Typed which) const {
    const auto found = typedBoxes_.find(which);
    return found == typedBoxes_.end() ? QRectF() : found->second;
}

double BlankPage::typedValue(Typed which) const {
    const Skin& skin = *context_.results.body().skin;
    if (which == Typed::Length) return skin.length_mm();
    if (which == Typed::Station) {
        const auto index = static_cast<std::size_t>(context_.view.station());
        return index < stations().size() ? stations()[index].x_mm : 0;
    }
    const Extent2 e = extents(skin);
    return which == Typed::Height ? e.tall : e.wide;
}

void BlankPage::typeInto(Typed which) {
    const QRectF box = typedBox(which);
    if (box.isNull()) return;
    typing_ = which;
    const auto selected = static_cast<std::size_t>(context_.view.station());
    typingStation_mm_ = selected < stations().size() ? stations()[selected].x_mm : 0;
    editor_->setWrong({});
    editor_->setValue(typedValue(which));
    editor_->move(
        (toWidget(box.center()) - QPointF(0.5 * editor_->width(), 0.5 * editor_->height())).toPoint());
    editor_->show();
    editor_->setFocus();
    editor_->selectAll();
}

void BlankPage::takeTyped(double value) {
    const double before = typedValue(typing_);
    BodyScale scale;
    const auto found = std::find_if(stations().begin(), stations().end(),
                                    [&](const Station& s) { return s.x_mm == typingStation_mm_; });
    if (typing_ == Typed::Station && found == stations().end()) return;  // it was taken out meanwhile
    const auto index = static_cast<std::size_t>(found - stations().begin());
    context_.document.beginGesture();
    Result<Job> edited = Error{};
    if (typing_ == Typed::Station) {
        Station s = stations()[index];
        s.x_mm = value;
        edited = withStation(context_.document.job(), index, s);
    } else {
        (typing_ == Typed::Length   ? scale.along
         : typing_ == Typed::Height ? scale.height
                                    : scale.width) = value / before;
        edited = withScale(context_.document.job(), scale);
    }
    editor_->setWrong(edited ? QString() : said(edited.error()));
    apply(edited, typing_ == Typed::Station ? tr("Move station %1").arg(index) : tr("Resize the body"));
}

void BlankPage::mousePressEvent(QMouseEvent* event) {
    const QPointF at = event->position();
    if (context_.document.empty()) return;
    if (!context_.results.body().skin) return;
    const auto near = [&](const QPointF& p) { return std::hypot(p.x() - at.x(), p.y() - at.y()) < kGrip_px; };
    grip_ = Grip::None;
    last_ = at;
    wrong_.clear();
    context_.document.beginGesture();
    for (const auto& [which, box] : typedBoxes_) {
        if (box.adjusted(-4, -4, 4, 4).contains(at)) return typeInto(which);
    }
    editor_->hide();
    if (pressTool(at)) return;
    for (const DrawnLandmark& drawn : landmarks_) {
        // All of it by its middle; single points of the curve that is selected.
        if (near(landmarkHandle(drawn.name))) {
            grip_ = Grip::Landmark;
            context_.view.setLandmark(drawn.name);
            return update();
        }
        for (int i = 0;
             drawn.landmark.isCurve() && drawn.name == context_.view.landmark() && i < drawn.points.size();
             ++i) {
            if (!near(drawn.points[i])) continue;
            grip_ = Grip::LandmarkPoint;
            landmarkPoint_ = i;
            return;
        }
    }
    context_.view.setLandmark("");
    for (const Zone& zone : context_.document.job().get<BlankChapter>().zones) {
        QPolygonF corners;
        for (const Vec2& v : zone.polygon)
            corners << side_.at(
                context_.results.body().skin->at({context_.view.side(), v.x(), v.y()}).position);
        if (corners.containsPoint(at, Qt::OddEvenFill)) context_.view.setLandmark("zone:" + zone.id);
    }
    const auto& all = stations();
    for (int i = 0; i < static_cast<int>(all.size()); ++i) {
        const Station& s = all[static_cast<std::size_t>(i)];
        if (s.halfWidth_mm == 0) continue;
        if (near(stationHandle(i, true)))
            grip_ = Grip::Top;
        else if (near(stationHandle(i, false)))
            grip_ = Grip::Bottom;
        else if (near(above_.at(s.x_mm, s.halfWidth_mm)) || near(above_.at(s.x_mm, -s.halfWidth_mm)))
            grip_ = Grip::Width;
        else if (std::abs(at.x() - stationHandle(i, true).x()) < 4 &&
                 (side_.bounds().contains(at) || above_.bounds().contains(at)))
            grip_ = Grip::Line;
        if (grip_ == Grip::None) continue;
        context_.view.setStation(i);
        return;
    }
}

void BlankPage::mouseMoveEvent(QMouseEvent* event) {
    if (grip_ != Grip::None && (event->buttons() & Qt::LeftButton)) drag(event->position());
}

void BlankPage::mouseReleaseEvent(QMouseEvent*) {
    grip_ = Grip::None;
}

void BlankPage::mouseDoubleClickEvent(QMouseEvent* event) {
    if (context_.document.empty() || !context_.results.body().skin) return;
    if (context_.view.blankTool() == ViewState::BlankTool::Zone) return closeZone();
    context_.document.beginGesture();
    apply(withStationAt(context_.document.job(), side_.bodyAt(event->position()).x()), tr("Add a station"));
}

void BlankPage::drag(const QPointF& to) {
    const Vec2 side = side_.bodyAt(to), above = above_.bodyAt(to), before = side_.bodyAt(last_);
    last_ = to;
    if (grip_ == Grip::Landmark || grip_ == Grip::LandmarkPoint) {
        const Skin& skin = *context_.results.body().skin;
        const std::string& landmark = context_.view.landmark();
        const SkinPoint is = skin.onFlank(side.x(), side.y()), was = skin.onFlank(before.x(), before.y());
        const Job& job = context_.document.job();
        const Vec2 at(is.x_mm, is.g_mm);
        apply(grip_ == Grip::Landmark
                  ? withLandmark(job, landmark, at - Vec2(was.x_mm, was.g_mm))
                  : withLandmarkPoint(job, landmark, static_cast<std::size_t>(landmarkPoint_), at),
              tr("Move %1").arg(landmarkName(landmark)));
        return;
    }
    const auto index = static_cast<std::size_t>(context_.view.station());
    Station s = stations()[index];
    constexpr double least_mm = 0.3;
    const auto tenth = [](double v) { return std::round(20 * v) / 20; };  // a caliper reads no finer
    if (grip_ == Grip::Top) s.top_mm = tenth(std::max(least_mm, side.y()));
    if (grip_ == Grip::Bottom) s.bottom_mm = tenth(std::max(least_mm, -side.y()));
    if (grip_ == Grip::Width) s.halfWidth_mm = tenth(std::max(least_mm, std::abs(above.y())));
    const Range room = roomForStation(context_.document.job(), index);
    // A line dragged past its neighbour stops there.
    if (grip_ == Grip::Line) s.x_mm = std::clamp(tenth(side.x()), room.low, room.high);
    apply(withStation(context_.document.job(), index, s), tr("Move station %1").arg(index));
}

void BlankPage::apply(const Result<Job>& job, const QString& label) {
    if (job) {
        if (!wrong_.isEmpty()) update();
        wrong_.clear();
        context_.document.edit(*job, label);  // drawn once the new body is there, a moment later
    } else {
        wrong_ = said(job.error());
        update();
    }
}

void BlankPage::keyPressEvent(QKeyEvent* event) {
    // In one piece: a table of keys.
    if (context_.document.empty()) return QWidget::keyPressEvent(event);
    if (keyForTool(*event)) return;
    // A landmark in hand takes the arrows: along the body, and round it.
    const std::string& held = context_.view.landmark();
    if (context_.document.job().get<BlankChapter>().landmarks.count(held) > 0) {
        const double by = event->modifiers() & Qt::ShiftModifier ? 1 : 0.1;
        const Vec2 shift = event->key() == Qt::Key_Left    ? Vec2(-by, 0)
                           : event->key() == Qt::Key_Right ? Vec2(by, 0)
                           : event->key() == Qt::Key_Up    ? Vec2(0, by)
                           : event->key() == Qt::Key_Down  ? Vec2(0, -by)
                                                           : Vec2(0, 0);
        if (shift != Vec2(0, 0)) {
            if (!event->isAutoRepeat()) context_.document.beginGesture();
            return apply(withLandmark(context_.document.job(), held, shift),
                         tr("Move %1").arg(landmarkName(held)));
        }
        if (event->key() == Qt::Key_Delete) {
            context_.document.beginGesture();
            return apply(withoutLandmark(context_.document.job(), held),
                         tr("Take out %1").arg(landmarkName(held)));
        }
    }
    const int count = static_cast<int>(stations().size());
    const double step = event->modifiers() & Qt::ShiftModifier ? 1 : 0.1;
    const auto index = static_cast<std::size_t>(std::clamp(context_.view.station(), 0, count - 1));
    Station s = stations()[index];
    switch (event->key()) {
        case Qt::Key_PageDown:
            context_.view.setStation(std::min(count - 2, context_.view.station() + 1));
            return;
        case Qt::Key_PageUp:
            context_.view.setStation(std::max(1, context_.view.station() - 1));
            return;
        case Qt::Key_Return:
        case Qt::Key_Enter:
            if (context_.view.blankTool() == ViewState::BlankTool::Zone) return closeZone();
            return typeInto(event->modifiers() & Qt::ShiftModifier ? Typed::Length : Typed::Station);
        case Qt::Key_Escape:
            if (grip_ != Grip::None) context_.document.cancelGesture();
            grip_ = Grip::None;
            measuredFrom_.reset();
            toolCursor_.reset();
            corners_.clear();
            layers_.forgetWay();
            context_.view.setBlankTool(ViewState::BlankTool::Stations);
            return update();
        case Qt::Key_Delete:
            context_.document.beginGesture();
            apply(withoutStation(context_.document.job(), index), tr("Take out station %1").arg(index));
            return;
        case Qt::Key_Up:
            s.top_mm += step;
            break;
        case Qt::Key_Down:
            s.top_mm = std::max(0.3, s.top_mm - step);
            break;
        case Qt::Key_Right:
            s.x_mm += step;
            break;
        case Qt::Key_Left:
            s.x_mm -= step;
            break;
        default:
            QWidget::keyPressEvent(event);
            return;
    }
    if (!event->isAutoRepeat()) context_.document.beginGesture();
    if (s.halfWidth_mm > 0)
        apply(withStation(context_.document.job(), index, s), tr("Move station %1").arg(index));
}

}  // namespace nine::app
