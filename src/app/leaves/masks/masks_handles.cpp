// What else is taken hold of on the Masks leaf: the edges of the sheet, its bridges; and where fingers press.
#include <QPainter>
#include <cmath>

#include "app/document/selection.h"
#include "app/leaves/masks/masks_page.h"
#include "app/sheet/ink.h"
#include "job/mask_sheet.h"

namespace nine::app {
namespace {

constexpr double kGrabReach_px = 9, kHalf_px = 4;

double off(const QPointF& a, const QPointF& b) {
    return std::hypot(a.x() - b.x(), a.y() - b.y());
}

}  // namespace

QPointF MasksPage::onBody(const SkinPlace& at) const {
    const SkinPtr& skin = context_.results.body().skin;
    if (!skin || !shown_.spec || !skin->check({Side::Left, at.x(), at.y()}, "")) return {};
    const SurfacePoint point = onSide(shown_.spec->side, skin->at({Side::Left, at.x(), at.y()}));
    return side_.faces(point) ? side_.at(point.position) : QPointF();
}

Vec2 MasksPage::skinAt(const QPointF& pixel) const {
    constexpr double kTips_mm = 0.3;
    const Skin& skin = *context_.results.body().skin;
    const Vec2 xz = side_.bodyAt(pixel);
    const double x = std::clamp(xz.x(), skin.noseX_mm() + kTips_mm, skin.tailX_mm() - kTips_mm);
    return {x, skin.onFlank(x, xz.y()).g_mm};
}

std::vector<MasksPage::EdgeHandle> MasksPage::edgeHandles() const {
    std::vector<EdgeHandle> handles;
    const SkinPtr& skin = context_.results.body().skin;
    if (!skin || !shown_.mask || !shown_.spec || shown_.mask->sheets.size() != 1) return handles;
    // Of the job as it is now: handles follow the hand.
    const int index = indexOfMask(context_.document.job(), context_.view.mask());
    if (index < 0) return handles;
    const MaskSpecPtr spec = maskSpecs(context_.document.job())[static_cast<std::size_t>(index)];
    const MaskKind* kind = findMaskKind(spec->wish.kind);
    if (!kind || kind->id() != shown_.spec->wish.kind) return handles;
    const auto valueOf = [&](const char* key) -> std::optional<double> {
        for (const Param& param : kind->params())
            if (param.key == key) return spec->wish.values.number(key);
        return std::nullopt;
    };
    const Sheet& sheet = shown_.mask->sheets.front();
    const double middle = 0.5 * (sheet.flat->patch.low().y() + sheet.flat->patch.high().y());
    if (const auto margin = valueOf("margin_mm"); margin && !sheet.windows.empty()) {
        Vec2 low(1e300, 1e300), high = -low;
        for (const Window& window : sheet.windows) {
            low = low.cwiseMin(window.reach.low);
            high = high.cwiseMax(window.reach.high);
        }
        const Vec2 centre = 0.5 * (low + high);
        handles = {{"margin_mm", {1, 0}, high.x(), {high.x() + *margin, centre.y()}},
                   {"margin_mm", {-1, 0}, -low.x(), {low.x() - *margin, centre.y()}},
                   {"margin_mm", {0, 1}, high.y(), {centre.x(), high.y() + *margin}},
                   {"margin_mm", {0, -1}, -low.y(), {centre.x(), low.y() - *margin}}};
    }
    // Of a sheet that follows its art or the body only where its edge is where the margin says.
    constexpr double kOffEdge_mm = 2;
    Polygon2 edge;
    for (const int v : sheet.flat->patch.loops.front())
        edge.push_back(sheet.flat->patch.skin[static_cast<std::size_t>(v)]);
    const bool inHand = edge_.has_value();
    std::erase_if(handles, [&](const EdgeHandle& handle) {
        double nearest = 1e300;
        for (const Vec2& p : edge) nearest = std::min(nearest, (p - handle.at).norm());
        return !inHand && nearest > kOffEdge_mm;
    });
    if (const auto nose = valueOf("nose_mm"))
        handles.push_back({"nose_mm", {1, 0}, skin->noseX_mm(), {skin->noseX_mm() + *nose, middle}});
    if (const auto tail = valueOf("tail_mm"))
        handles.push_back({"tail_mm", {-1, 0}, -skin->tailX_mm(), {skin->tailX_mm() - *tail, middle}});
    return handles;
}

std::vector<SkinPlace> MasksPage::bridges() const {
    if (bridge_) return bridge_->was;
    std::vector<SkinPlace> all;
    if (shown_.mask)
        for (const Sheet& sheet : shown_.mask->sheets)
            for (const Bridge& bridge : sheet.bridges) all.push_back(bridge.skin);
    return all;
}

QPointF MasksPage::edgeHandle(const QString& key, bool towardsTail) const {
    for (const EdgeHandle& handle : edgeHandles())
        if (key == QString::fromStdString(handle.key) && (handle.outwards.x() > 0 || !towardsTail))
            return onBody(handle.at);
    return {};
}

QPointF MasksPage::bridgeHandle(std::size_t bridge) const {
    const std::vector<SkinPlace> all = bridges();
    return bridge < all.size() ? onBody(all[bridge]) : QPointF();
}

bool MasksPage::grabEdgeOrBridge(const QPointF& at) {
    const std::vector<SkinPlace> all = bridges();
    for (std::size_t i = 0; i < all.size(); ++i) {
        const QPointF place = onBody(all[i]);
        if (place.isNull() || off(place, at) > kGrabReach_px) continue;
        bridge_ = BridgeGrip{i, all};
        context_.document.beginGesture();
        return true;
    }
    for (const EdgeHandle& handle : edgeHandles()) {
        const QPointF place = onBody(handle.at);
        if (place.isNull() || off(place, at) > kGrabReach_px) continue;
        edge_ = handle;
        context_.document.beginGesture();
        return true;
    }
    return false;
}

bool MasksPage::dragEdgeOrBridge(const QPointF& at) {
    if (bridge_) {
        bridge_->was[bridge_->which] = SkinPlace(skinAt(at));
        emit bridgesWanted({bridge_->was.begin(), bridge_->was.end()});
        update();
        return true;
    }
    if (!edge_) return false;
    // A drag goes by tenths of a millimetre, as the value on the card does.
    const double value = std::round(10 * (edge_->outwards.dot(skinAt(at)) - edge_->from_mm)) / 10;
    emit lengthWanted(QString::fromStdString(edge_->key), value);
    update();
    return true;
}

void MasksPage::paintHandles(QPainter& p) const {
    const Tokens& t = tokens();
    const QColor ink = t.dark ? QColor("#1C6E9C") : t.select;
    for (const EdgeHandle& handle : edgeHandles()) {
        const QPointF at = onBody(handle.at);
        if (at.isNull()) continue;
        p.setPen(QPen(ink, 1.4));
        p.setBrush(QColor(251, 250, 246));
        p.drawRect(QRectF(at.x() - kHalf_px, at.y() - kHalf_px, 2 * kHalf_px, 2 * kHalf_px));
    }
    for (const SkinPlace& bridge : bridges()) {
        const QPointF at = onBody(bridge);
        if (at.isNull()) continue;
        p.setPen(QPen(ink, 1.6));
        p.setBrush(QColor(251, 250, 246));
        p.drawEllipse(at, kHalf_px, kHalf_px);
        p.drawLine(at - QPointF(kHalf_px, 0), at + QPointF(kHalf_px, 0));
    }
}

void MasksPage::paintFingers(QPainter& p) const {
    if (!shown_.judged || !pressedInPlaces(*shown_.spec, *shown_.mask)) return;
    for (const Sheet& sheet : shown_.mask->sheets)
        for (const PressArea& area : sheet.press)
            for (const PressArea::Finger& finger : area.fingers) {
                const QPointF at = onBody(finger.skin);
                if (!at.isNull()) ink::pointOut(p, at, QString::number(area.number));
            }
}

}  // namespace nine::app
