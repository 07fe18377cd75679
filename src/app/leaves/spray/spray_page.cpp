#include "app/leaves/spray/spray_page.h"

#include <QKeyEvent>
#include <QMouseEvent>
#include <algorithm>
#include <cmath>

#include "app/document/selection.h"
#include "app/leaves/masks/stretch_map.h"
#include "app/leaves/spray/gun_drawing.h"
#include "app/sheet/ink.h"
#include "app/sheet/units_text.h"
#include "base/units.h"

namespace nine::app {
namespace {

constexpr double kTabbedBelow_px = 700;
constexpr double kControls_px = 142;

/// Edge width at every gap there is on a mask, by a table: thousands of places ask.
class WidthOfGap {
  public:
    WidthOfGap(const SpraySetting& setting, double from_mm, double to_mm) : from_(from_mm) {
        step_ = std::max(1e-6, (to_mm - from_mm) / kSteps);
        for (int i = 0; i <= kSteps; ++i) {
            const Result<EdgeFigures> edge =
                edgeFigures(setting, std::min(from_ + step_ * i, kLargestGap_mm));
            width_.push_back(edge ? edge->width_mm : 0);
        }
    }
    double at(double gap_mm) const {
        const double s = std::clamp((gap_mm - from_) / step_, 0.0, double(kSteps));
        const auto k = std::min<std::size_t>(static_cast<std::size_t>(s), kSteps - 1);
        return width_[k] + (s - static_cast<double>(k)) * (width_[k + 1] - width_[k]);
    }

  private:
    static constexpr int kSteps = 24;
    double from_, step_;
    std::vector<double> width_;
};

}  // namespace

SprayPage::SprayPage(LeafContext context, SprayDesk& desk) : LeafPage(context), desk_(desk) {
    setAccessibleName(tr("Gun, mask and body in section, and the edge this gives"));
    connect(&side_, &BodyView::redrawn, this, [this] { update(); });
    connect(&desk_, &SprayDesk::changed, this, &SprayPage::follow);
}

bool SprayPage::tabbed() const {
    return width() < kTabbedBelow_px;
}

QString SprayPage::nameOf(SprayHandle handle) {
    switch (handle) {
        case SprayHandle::Distance:
            return tr("distance");
        case SprayHandle::Angle:
            return tr("angle");
        case SprayHandle::Pressure:
            return tr("pressure");
        case SprayHandle::Trigger:
            return tr("trigger");
        case SprayHandle::Speed:
            return tr("speed of the hand");
        case SprayHandle::Pads:
            return tr("pads");
        case SprayHandle::Aim:
            return tr("place on the section");
        case SprayHandle::Section:
            return tr("place of the section");
    }
    return {};
}

SprayPage::Reach SprayPage::reachOf(SprayHandle handle) const {
    switch (handle) {
        case SprayHandle::Distance:
            return {kNearest_mm, kFarthest_mm, 1};
        case SprayHandle::Angle:
            return {0, kSteepest_deg, 1};
        case SprayHandle::Pressure:
            return {5, 45, 0.5};
        case SprayHandle::Trigger:
            return {0.1, 0.95, 0.01};
        case SprayHandle::Speed:
            return {20, 400, 5};
        case SprayHandle::Pads:
            return {0, kMostPads_mm, 0.1};
        default: {
            const BodyResult& body = context_.results.body();
            if (!body.skin) return {0, 0, 0.1};
            if (handle == SprayHandle::Section) return {body.skin->noseX_mm(), body.skin->tailX_mm(), 0.1};
            const SectionArc arc = body.skin->arcAt(desk_.aim().x());
            return {-arc.bellyArc_mm(), arc.backArc_mm(), 0.1};
        }
    }
}

double SprayPage::valueOf(SprayHandle handle) const {
    const SprayStudy& s = desk_.study();
    if (!s.ready()) return 0;
    const SpraySetting& setting = s.plan->setting;
    switch (handle) {
        case SprayHandle::Distance:
            return setting.distance_mm;
        case SprayHandle::Angle:
            return setting.angle_deg;
        case SprayHandle::Pressure:
            return setting.gauge_kpa / kKpaPerPsi;
        case SprayHandle::Trigger:
            return s.plan->edge.trigger;
        case SprayHandle::Speed:
            return setting.speed_mm_s;
        case SprayHandle::Pads:
            return s.wish.pads_mm;
        case SprayHandle::Aim:
            return desk_.aim().y();
        default:
            return desk_.aim().x();
    }
}

void SprayPage::set(SprayHandle handle, double value) {
    const SprayStudy& s = desk_.study();
    if (!s.ready()) return;
    const Reach reach = reachOf(handle);
    const double v = std::clamp(std::round(value / reach.step) * reach.step, reach.low, reach.high);
    const Vec2 aim = desk_.aim();
    if (handle == SprayHandle::Aim) return desk_.lookAt({aim.x(), v});
    if (handle == SprayHandle::Section) {
        // Round the body the place stays as high as it was.
        const Skin& skin = *context_.results.body().skin;
        return desk_.lookAt({v, nearestG(skin, v, scene_.aim)});
    }
    (void)desk_.change(tr("Change %1").arg(nameOf(handle)), [&](SpraySpec& spec) {
        SprayPins& pins = spec.pins;
        if (handle == SprayHandle::Distance) pins.distance_mm = v;
        if (handle == SprayHandle::Angle) pins.angle_deg = v;
        if (handle == SprayHandle::Pressure) pins.pressure_kpa = v * kKpaPerPsi;
        if (handle == SprayHandle::Speed) pins.speed_mm_s = v;
        if (handle == SprayHandle::Pads) spec.pads_mm = v;
        if (handle == SprayHandle::Trigger) {
            const SpraySetting& setting = s.plan->setting;
            const Mixture mixture = *mixed(setting.paint, setting.reduction);
            const double largest = largestFlow_ml_min(setting.gauge_kpa, setting.needle_mm, mixture);
            pins.flow_ml_min = std::max(0.01, std::round(1000 * largest * v * v * v) / 1000);
        }
    });
}

void SprayPage::release(SprayHandle handle) {
    context_.document.beginGesture();
    (void)desk_.change(tr("Release %1").arg(nameOf(handle)), [&](SpraySpec& spec) {
        SprayPins& pins = spec.pins;
        if (handle == SprayHandle::Distance) pins.distance_mm.reset();
        if (handle == SprayHandle::Angle) pins.angle_deg.reset();
        if (handle == SprayHandle::Pressure) pins.pressure_kpa.reset();
        if (handle == SprayHandle::Trigger) pins.flow_ml_min.reset();
        if (handle == SprayHandle::Speed) pins.speed_mm_s.reset();
        if (handle == SprayHandle::Pads) spec.pads_mm = 0;
    });
    if (handle == SprayHandle::Aim || handle == SprayHandle::Section) desk_.lookAtWorst();
}

QColor SprayPage::paintColour() const {
    const SprayStudy& s = desk_.study();
    const auto& elements = context_.document.job().get<PatternChapter>().elements;
    for (std::size_t i = 0; i < elements.size(); ++i) {
        if (s.spec &&
            std::count(s.spec->wish.elements.begin(), s.spec->wish.elements.end(), elements[i]->id)) {
            const QColor colour = QColor::fromRgb(colourOf(*elements[i], i));
            // Dark paint on a dark page would not be seen.
            return tokens().dark && colour.lightness() < 110 ? colour.lighter(190) : colour;
        }
    }
    return tokens().muted;
}

QPointF SprayPage::at(const Vec2& mm) const {
    return origin_ + perMm_ * QPointF(mm.x(), -mm.y());
}

Vec2 SprayPage::mmAt(const QPointF& pixel) const {
    const QPointF d = (pixel - origin_) / perMm_;
    return {d.x(), -d.y()};
}

QPointF SprayPage::tip() const {
    const Vec2 away = scene_.towardsGun(degToRad(valueOf(SprayHandle::Angle)));
    return at(scene_.aim + valueOf(SprayHandle::Distance) * away);
}

double SprayPage::awayDegrees() const {
    const Vec2 away = scene_.towardsGun(degToRad(valueOf(SprayHandle::Angle)));
    return radToDeg(std::atan2(away.y(), away.x()));
}

/// Boxes of the page, and the scale at which section, spray and the front of the gun fit.
void SprayPage::place() {
    const double w = width(), h = height(), upper = std::round((tabbed() ? 0.60 : 0.575) * h);
    sceneBox_ = QRectF(0, 34, w, upper - 34);
    // What is set on the gun stands in a column of its own, so that the gun is never under it.
    const double column = w - kControls_px;
    pressure_ = QRectF(column, sceneBox_.top() + 30, 12, std::clamp(sceneBox_.height() - 214, 60.0, 150.0));
    trigger_ = QRectF(column, sceneBox_.bottom() - 36, 112, 5);
    speed_ = QRectF(24, 76, 112, 5);
    const double low = upper + 10;
    edgeBox_ = tabbed() ? QRectF(0, low, w, h - low) : QRectF(0, low, std::round(0.5 * w), h - low);
    mapBox_ = tabbed() ? edgeBox_ : QRectF(edgeBox_.right(), low, w - edgeBox_.right(), h - low);
    plot_ = edgeBox_.adjusted(58, tabbed() ? 62 : 50, -26, -64);

    if (grip_) return;  // what is dragged keeps its scale
    Vec2 boxLow = scene_.low, boxHigh = scene_.high;
    const Vec2 away = scene_.towardsGun(degToRad(valueOf(SprayHandle::Angle))), side(-away.y(), away.x());
    const Vec2 nozzle = scene_.aim + valueOf(SprayHandle::Distance) * away;
    for (const double along : {0.0, kGunDrawn_mm}) {
        for (const double across :
             {-kGunHigh_mm, kGunHigh_mm}) {  // the cup is on one side, the valve on the other
            boxLow = boxLow.cwiseMin(nozzle + along * away + across * side);
            boxHigh = boxHigh.cwiseMax(nozzle + along * away + across * side);
        }
    }
    // The distance is written beside the spray, below it.
    const QRectF room = sceneBox_.adjusted(40, 14, -kControls_px - 14, -36);
    const Vec2 size = boxHigh - boxLow;
    perMm_ = std::clamp(
        std::min(room.width() / std::max(1.0, size.x()), room.height() / std::max(1.0, size.y())), 0.5, 6.5);
    const QPointF corner(room.left() + 0.5 * (room.width() - size.x() * perMm_),
                         room.center().y() + 0.5 * size.y() * perMm_);
    origin_ = {corner.x() - boxLow.x() * perMm_, corner.y() + boxLow.y() * perMm_};
    // The body beside the speed of the hand, not under it, where there is room to spare.
    const double bodyTop = at(Vec2(0, scene_.high.y())).y(), bodyLeft = at(Vec2(scene_.low.x(), 0)).x();
    if (bodyTop < speed_.bottom() + 50 && bodyLeft < speed_.right() + 30) {
        origin_.rx() +=
            std::min(speed_.right() + 30 - bodyLeft, room.right() - (corner.x() + size.x() * perMm_));
        const double spare = room.bottom() - corner.y();
        origin_.ry() += std::min(speed_.bottom() + 50 - bodyTop, std::max(0.0, spare));
    }
}

void SprayPage::layOut() {
    // In one piece: every box rests on the one before.
    const BodyResult& body = context_.results.body();
    const SprayStudy& s = desk_.study();
    edges_.clear();
    here_.reset();
    worst_.reset();
    if (!body.skin || !s.ready()) {
        place();
        return update();
    }
    scene_ = sectionScene(*body.skin, *s.mask, s.artPointers(), desk_.aim());
    place();
    here_ = desk_.edgeAt(desk_.aim());
    worst_ = desk_.edgeAt(s.worst.skin);

    // Scales of the curve: round numbers, still while something is dragged unless it would leave the plot.
    double half = 0.2, tall = 1;
    const auto reach = [&](const EdgeHere& e) {
        half = std::max({half, 0.9 * e.edge.width_mm, 1.15 * e.edge.creep_mm + std::abs(e.edge.shift_mm)});
    };
    for (const auto* e : {&here_, &worst_}) {
        if (*e) reach(**e);
    }
    if (desk_.kept()) reach(desk_.kept()->here);
    const Mixture mixture = *mixed(s.plan->setting.paint, s.plan->setting.reduction);
    tall = s.plan->coats * s.plan->coat_um * mixture.solids * 1.15;
    const auto rounded = [](double v) {
        const double power = std::pow(10, std::floor(std::log10(std::max(1e-6, v))));
        for (const double step : {1.0, 1.5, 2.0, 2.5, 3.0, 4.0, 5.0, 6.0, 8.0, 10.0}) {
            if (v <= step * power) return step * power;
        }
        return 10 * power;
    };
    halfSpan_mm_ = rounded(half);
    tallest_um_ = rounded(tall);

    // The map: the body from the side, every opening's edge in the colour of its width.
    const QRectF room = mapBox_.adjusted(24, tabbed() ? 58 : 44, -34, -62);
    if (room.width() > 20 && room.height() > 20) {
        side_.place(body, room, 0, s.spec->side, sharpness(), false);
        const double contact = s.asked.contact_mm + s.asked.pads_mm;
        const WidthOfGap widths(s.plan->setting, contact,
                                contact + std::max({s.asked.lift_mm, s.asked.relief_mm, 0.001}));
        widest_mm_ = 0;
        for (const ArtPtr& art : s.art) {
            for (const Outline& outline : art->outlines()) {
                ColouredEdge edge;
                for (std::size_t i = 0; i < outline.points.size(); ++i) {
                    edge.ring << side_.at(onSide(s.spec->side, outline.points[i]).position);
                    const double lift =
                        std::max(liftAt_mm(*s.mask, SkinPlace(outline.skin[i])), s.asked.relief_mm);
                    edge.width_mm.push_back(widths.at(contact + lift));
                    widest_mm_ = std::max(widest_mm_, edge.width_mm.back());
                }
                edges_.push_back(std::move(edge));
            }
        }
        worstAt_ = side_.at(body.skin->at({s.spec->side, s.worst.skin.x(), s.worst.skin.y()}).position);
    }
    update();
}

QPointF SprayPage::handleAt(SprayHandle handle) const {
    const SprayStudy& s = desk_.study();
    if (!s.ready()) return {};
    const QPointF aim = at(scene_.aim), gun = tip();
    const QPointF along = gun - aim;
    const double length = std::max(1.0, std::hypot(along.x(), along.y()));
    const QPointF unit = along / length, below = QPointF(-unit.y(), unit.x()) * (unit.x() >= 0 ? 1 : -1);
    switch (handle) {
        case SprayHandle::Distance:
            return gun + below * 44;
        case SprayHandle::Angle:
            return aim + 0.62 * along;
        case SprayHandle::Aim:
            return aim;
        case SprayHandle::Pads: {
            // At the end of the sheet that is nearest to where the gun points.
            if (scene_.sheet.empty()) return {};
            QPointF best;
            double nearest = 1e300;
            for (const auto& strip : scene_.sheet) {
                for (const std::size_t i : {std::size_t{0}, strip.points.size() - 1}) {
                    const double d = (strip.points[i] - scene_.aim).norm();
                    if (d < 2.5 || d >= nearest) continue;
                    nearest = d;
                    best = at(strip.points[i] + (s.wish.pads_mm + strip.lift_mm[i]) * strip.normals[i]) +
                           9 * QPointF(strip.normals[i].x(), -strip.normals[i].y());
                }
            }
            return best;
        }
        case SprayHandle::Pressure:
            return {pressure_.center().x(), pressure_.bottom() - pressure_.height() * valueOf(handle) / 45};
        case SprayHandle::Trigger:
            return {trigger_.left() + trigger_.width() * std::min(1.0, valueOf(handle)),
                    trigger_.center().y()};
        case SprayHandle::Speed:
            return {speed_.left() + speed_.width() * std::min(1.0, valueOf(handle) / 400),
                    speed_.center().y()};
        case SprayHandle::Section: {
            if (edges_.empty() || (tabbed() && !showMap_)) return {};
            return {side_.at(desk_.aim().x(), 0).x(), mapBox_.top() + (tabbed() ? 58 : 40)};
        }
    }
    return {};
}

QRectF SprayPage::needleBox(int gun) const {
    return {trigger_.left() + 37.0 * gun, trigger_.top() - 106, 33, 70};
}

QRectF SprayPage::tabBox(int index) const {
    return {18 + 150.0 * index, edgeBox_.top() + 2, 146, 24};
}

void SprayPage::mousePressEvent(QMouseEvent* event) {
    const QPointF at = event->position();
    const SprayStudy& s = desk_.study();
    if (!s.ready()) return;
    if (tabbed()) {
        for (int i = 0; i < 2; ++i) {
            if (!tabBox(i).contains(at)) continue;
            showMap_ = i == 1;
            return layOut();
        }
    }
    const auto& guns = context_.bench.bench().guns;
    for (int i = 0; i < static_cast<int>(guns.size()); ++i) {
        if (!needleBox(i).contains(at)) continue;
        context_.document.beginGesture();
        const double needle = guns[static_cast<std::size_t>(i)].needle_mm;
        (void)desk_.change(tr("Change the needle"), [&](SpraySpec& spec) {
            // A second click on the pinned needle leaves the choice to the plan.
            if (spec.pins.needle_mm == needle)
                spec.pins.needle_mm.reset();
            else
                spec.pins.needle_mm = needle;
        });
        return;
    }
    grip_.reset();
    double nearest = 14;
    for (const SprayHandle handle : kSprayHandles) {
        const QPointF d = handleAt(handle) - at;
        const double distance = std::hypot(d.x(), d.y());
        if (handleAt(handle).isNull() || distance >= nearest) continue;
        nearest = distance;
        grip_ = handle;
    }
    // The columns, and the body below, are taken hold of anywhere.
    if (!grip_ && pressure_.adjusted(-10, -6, 10, 6).contains(at)) grip_ = SprayHandle::Pressure;
    if (!grip_ && trigger_.adjusted(-6, -10, 6, 10).contains(at)) grip_ = SprayHandle::Trigger;
    if (!grip_ && speed_.adjusted(-6, -10, 6, 10).contains(at)) grip_ = SprayHandle::Speed;
    if (!grip_ && !edges_.empty() && (!tabbed() || showMap_) && side_.outline().contains(at))
        grip_ = SprayHandle::Section;
    if (!grip_) return;
    selected_ = *grip_;
    context_.document.beginGesture();
    desk_.setDragging(true);
    if (nearest >= 14) dragTo(at);
    update();
}

void SprayPage::dragTo(const QPointF& to) {
    const Vec2 mm = mmAt(to), from = mm - scene_.aim;
    switch (*grip_) {
        case SprayHandle::Distance:
            return set(*grip_, from.dot(scene_.towardsGun(degToRad(valueOf(SprayHandle::Angle)))));
        case SprayHandle::Angle: {
            const Vec2 up = scene_.towardsGun(degToRad(90));
            return set(*grip_, radToDeg(std::atan2(from.dot(up), std::max(1e-6, from.dot(scene_.normal)))));
        }
        case SprayHandle::Pressure:
            return set(*grip_, 45 * (pressure_.bottom() - to.y()) / pressure_.height());
        case SprayHandle::Trigger:
            return set(*grip_, (to.x() - trigger_.left()) / trigger_.width());
        case SprayHandle::Speed:
            return set(*grip_, 400 * (to.x() - speed_.left()) / speed_.width());
        case SprayHandle::Pads: {
            double best = 0, nearest = 1e300;
            for (const auto& strip : scene_.sheet) {
                for (const std::size_t i : {std::size_t{0}, strip.points.size() - 1}) {
                    const double d = (strip.points[i] - mm).norm();
                    if ((strip.points[i] - scene_.aim).norm() < 2.5 || d >= nearest) continue;
                    nearest = d;
                    best = (mm - strip.points[i]).dot(strip.normals[i]) - strip.lift_mm[i] - 9 / perMm_;
                }
            }
            return set(*grip_, best);
        }
        case SprayHandle::Aim:
            return set(*grip_, nearestG(*context_.results.body().skin, desk_.aim().x(), mm));
        case SprayHandle::Section:
            return set(*grip_, side_.bodyAt(to).x());
    }
}

void SprayPage::mouseMoveEvent(QMouseEvent* event) {
    if (grip_ && event->buttons() & Qt::LeftButton && desk_.study().ready()) dragTo(event->position());
}

void SprayPage::mouseReleaseEvent(QMouseEvent*) {
    if (!grip_) return;
    grip_.reset();
    desk_.setDragging(false);
    layOut();
}

void SprayPage::keyPressEvent(QKeyEvent* event) {
    const auto step = [&](double way) {
        if (!event->isAutoRepeat()) context_.document.beginGesture();
        const double by = reachOf(selected_).step * (event->modifiers() & Qt::ShiftModifier ? 10 : 1);
        set(selected_, valueOf(selected_) + way * by);
    };
    switch (event->key()) {
        case Qt::Key_Space:
        case Qt::Key_Backspace: {
            const auto now =
                std::find(kSprayHandles.begin(), kSprayHandles.end(), selected_) - kSprayHandles.begin();
            const auto all = static_cast<std::ptrdiff_t>(kSprayHandles.size());
            selected_ = kSprayHandles[static_cast<std::size_t>(
                (now + (event->key() == Qt::Key_Space ? 1 : all - 1)) % all)];
            return update();
        }
        case Qt::Key_Up:
        case Qt::Key_Right:
            return step(1);
        case Qt::Key_Down:
        case Qt::Key_Left:
            return step(-1);
        case Qt::Key_Delete:
            return release(selected_);
        case Qt::Key_PageDown:
            return context_.view.setMask(maskBeside(context_.document.job(), context_.view.mask(), 1));
        case Qt::Key_PageUp:
            return context_.view.setMask(maskBeside(context_.document.job(), context_.view.mask(), -1));
        case Qt::Key_M:
            showMap_ = !showMap_;
            return layOut();
        case Qt::Key_Escape:
            if (grip_) context_.document.cancelGesture();
            grip_.reset();
            desk_.setDragging(false);
            return layOut();
        default:
            LeafPage::keyPressEvent(event);
    }
}

}  // namespace nine::app
