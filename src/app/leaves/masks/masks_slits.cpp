// Slits on the Masks leaf: drawn on the body and at their mouths on the flat sheet, dragged on the body.
#include <QMouseEvent>
#include <QPainter>
#include <cmath>

#include "app/document/selection.h"
#include "app/leaves/masks/masks_page.h"
#include "app/leaves/masks/slit_edits.h"
#include "app/sheet/ink.h"
#include "app/sheet/units_text.h"
#include "mask/slits_on_sheet.h"

namespace nine::app {
namespace {

constexpr double kReach_px = 9;  // of a handle, for a hand
constexpr double kNumberOff_px = 13;

void number(QPainter& p, const QPointF& at, std::size_t slit, bool selected) {
    const Tokens& t = tokens();
    ink::text(p, at + QPointF(0, 4), QString::number(slit + 1), inter(11.5, QFont::Bold),
              selected ? t.ink : t.select, Qt::AlignHCenter);
}

double distanceTo(const QPolygonF& line, const QPointF& at) {
    double nearest = 1e300;
    for (qsizetype i = 0; i + 1 < line.size(); ++i) {
        const QPointF way = line[i + 1] - line[i], from = at - line[i];
        const double length = QPointF::dotProduct(way, way);
        const double share = length > 0 ? std::clamp(QPointF::dotProduct(way, from) / length, 0.0, 1.0) : 0.0;
        const QPointF off = from - share * way;
        nearest = std::min(nearest, std::hypot(off.x(), off.y()));
    }
    return nearest;
}

}  // namespace

std::vector<Slit> MasksPage::slits() const {
    // Of the job as it is now, not of what was solved: handles follow the hand.
    const Job& job = context_.document.job();
    const int index = indexOfMask(job, context_.view.mask());
    return index < 0 ? std::vector<Slit>{} : maskSpecs(job)[static_cast<std::size_t>(index)]->wish.slits;
}

void MasksPage::selectSlit(int slit) {
    if (slit == slit_) return;
    slit_ = slit;
    slitOf_ = context_.view.mask();
    slitsThen_ = slits().size();
    update();
    emit slitSelected();
}

QPolygonF MasksPage::slitOnBody(const Slit& slit) const {
    constexpr int kSteps = 16;
    QPolygonF line;
    const SkinPtr& skin = context_.results.body().skin;
    if (!skin || !shown_.spec) return line;
    for (std::size_t i = 0; i + 1 < slit.line.size(); ++i)
        for (int k = i == 0 ? 0 : 1; k <= kSteps; ++k) {
            const Vec2 xg =
                slit.line[i] + k / static_cast<double>(kSteps) * (slit.line[i + 1] - slit.line[i]);
            if (!skin->check({Side::Left, xg.x(), xg.y()}, "")) continue;
            const SurfacePoint at = onSide(shown_.spec->side, skin->at({Side::Left, xg.x(), xg.y()}));
            // A wrap goes on behind the body: only what is seen is drawn.
            if (side_.faces(at)) line << side_.at(at.position);
        }
    return line;
}

QPointF MasksPage::slitTip(std::size_t slit) const {
    const std::vector<Slit> all = slits();
    const QPolygonF line = slit < all.size() ? slitOnBody(all[slit]) : QPolygonF();
    return line.isEmpty() ? QPointF() : line.last();
}

QPointF MasksPage::slitMouth(std::size_t slit) const {
    const std::vector<Slit> all = slits();
    const QPolygonF line = slit < all.size() ? slitOnBody(all[slit]) : QPolygonF();
    return line.isEmpty() ? QPointF() : line.first();
}

void MasksPage::paintSlits(QPainter& p) const {
    const Tokens& t = tokens();
    const std::vector<Slit> all = slits();
    for (std::size_t s = 0; s < all.size(); ++s) {
        const QPolygonF line = slitOnBody(all[s]);
        if (line.size() < 2) continue;
        const bool on = static_cast<int>(s) == slit_;
        p.setBrush(Qt::NoBrush);
        p.setPen(QPen(QColor(251, 250, 246), on ? 5 : 4));
        p.drawPolyline(line);
        p.setPen(QPen(t.dark ? QColor("#1C6E9C") : t.select, on ? 2.6 : 1.8));
        p.drawPolyline(line);
        p.setBrush(QColor(251, 250, 246));
        p.drawEllipse(line.last(), on ? 5.0 : 4.0, on ? 5.0 : 4.0);
        if (all[s].locked) {
            p.setBrush(t.dark ? QColor("#1C6E9C") : t.select);
            p.drawEllipse(line.last(), 1.8, 1.8);
        }
        const QPointF out = line.first() - line[1];
        const double far = std::hypot(out.x(), out.y());
        number(p, line.first() + (far > 0 ? kNumberOff_px / far : 0) * out, s, on);
    }
}

void MasksPage::paintMouths(QPainter& p) const {
    const Tokens& t = tokens();
    const std::vector<Slit>& asked = shown_.spec->wish.slits;
    for (std::size_t k = 0; k < shown_.mask->sheets.size(); ++k)
        for (const SlitOnSheet& slit : shown_.mask->sheets[k].slits) {
            const QPointF a = flatAt(k, slit.lip.front()), b = flatAt(k, slit.otherLip.front());
            const QPointF tip = flatAt(k, slit.lip.back()), middle = 0.5 * (a + b);
            std::size_t which = 0;
            for (std::size_t s = 0; s < asked.size(); ++s)
                if ((asked[s].line.back() - slit.skin.line.back()).norm() < 1e-6) which = s;
            const bool on = static_cast<int>(which) == slit_;
            p.setBrush(t.paper);
            p.setPen(QPen(t.select, on ? 2 : 1.3));
            p.drawEllipse(tip, 3.2, 3.2);
            const QPointF out = middle - tip;
            const double far = std::hypot(out.x(), out.y());
            if (far <= 0) continue;
            // In the wedge where it is wide enough, else before it; lettering may stand below the piece.
            const bool wide = std::hypot((b - a).x(), (b - a).y()) > 2.4 * kNumberOff_px;
            const QPointF at = middle + ((wide ? -kNumberOff_px : kNumberOff_px) / far) * out;
            number(p, at, which, on);
            if (on)
                ink::text(p, middle + (kNumberOff_px / far) * out + QPointF(wide ? -20 : 10, 4),
                          slit.lapped
                              ? tr("opens %1, lapped %2").arg(lengthText(slit.mouth_mm), lengthText(kLap_mm))
                              : tr("opens %1").arg(lengthText(slit.mouth_mm)),
                          inter(11), t.muted);
        }
}

bool MasksPage::grab(const QPointF& at) {
    const std::vector<Slit> all = slits();
    for (const bool tips : {true, false})
        for (std::size_t s = 0; s < all.size(); ++s) {
            const QPolygonF line = slitOnBody(all[s]);
            if (line.size() < 2) continue;
            const QPointF off = line.last() - at;
            const double away = tips ? std::hypot(off.x(), off.y()) : distanceTo(line, at);
            if (away > kReach_px) continue;
            selectSlit(static_cast<int>(s));
            context_.document.beginGesture();
            grip_ = Grip{tips, all, at};
            return true;
        }
    if (grabEdgeOrBridge(at)) return true;
    if (side_.box().contains(at) || flat_.contains(at)) selectSlit(-1);
    return false;
}

void MasksPage::mouseMoveEvent(QMouseEvent* event) {
    const SkinPtr& skin = context_.results.body().skin;
    if (skin && (event->buttons() & Qt::LeftButton) && dragEdgeOrBridge(event->position())) return;
    if (!grip_ || !skin || !(event->buttons() & Qt::LeftButton)) return;
    const auto s = static_cast<std::size_t>(slit_);
    if (slit_ < 0 || s >= grip_->was.size()) return;
    std::vector<Slit> now = grip_->was;
    if (grip_->tip) {
        now[s] = endedAt(now[s], skinAt(event->position()));
    } else {
        const double by = skinAt(event->position()).x() - skinAt(grip_->from).x();
        now[s] = movedTo(now[s], now[s].line.front().x() + by, *skin);
    }
    emit slitsWanted(std::move(now));
}

void MasksPage::mouseReleaseEvent(QMouseEvent*) {
    if (grip_ || edge_ || bridge_) context_.document.beginGesture();
    grip_.reset();
    edge_.reset();
    bridge_.reset();
}

}  // namespace nine::app
