#include "app/leaves/pattern/skin_views.h"

#include <algorithm>
#include <cmath>

namespace nine::app {
namespace {

constexpr double kTip_mm = 1e-3;

SurfacePoint mirrored(SurfacePoint p) {
    p.position.y() = -p.position.y();
    p.normal.y() = -p.normal.y();
    return p;
}

bool isStrip(Shown where) {
    return where == Shown::Back || where == Shown::Belly;
}

}  // namespace

SkinViews::SkinViews(QObject* parent) : QObject(parent) {
    for (BodyView* view : {&left_, &right_, &nose_})
        connect(view, &BodyView::redrawn, this, &SkinViews::redrawn);
}

void SkinViews::placeStrip(Shown where, const QRectF& box, double perMm) {
    (where == Shown::Back ? back_ : belly_) = box;
    perMm_ = perMm;
}

void SkinViews::setBody(std::shared_ptr<const DrawnBody> drawn, SkinPtr skin) {
    drawn_ = std::move(drawn);
    skin_ = std::move(skin);
}

std::optional<QPointF> SkinViews::pixelOf(Shown where, const Vec2& at, const SurfacePoint& point,
                                          bool twin) const {
    if (!skin_) return std::nullopt;
    if (!isStrip(where)) {
        const SurfacePoint p = twin ? mirrored(point) : point;
        if (!view(where).faces(p)) return std::nullopt;
        return view(where).at(p.position);
    }
    const QRectF& box = strip(where);
    if (box.isEmpty() || !drawn_) return std::nullopt;
    const double row = drawn_->rowAt(at.x());
    const auto& arcs = where == Shown::Back ? drawn_->backArc_mm : drawn_->bellyArc_mm;
    const double along = row * (static_cast<double>(arcs.size()) - 1);
    const std::size_t k = std::min(static_cast<std::size_t>(along), arcs.size() - 2);
    const double arc = arcs[k] + (along - static_cast<double>(k)) * (arcs[k + 1] - arcs[k]);
    // Below the middle of a strip lies the left side.
    const double down = (where == Shown::Back ? arc - at.y() : at.y() + arc) * (twin ? -1 : 1);
    const QPointF pixel(box.left() + (at.x() - drawn_->x_mm.front()) * perMm_,
                        box.center().y() + down * perMm_);
    if (!box.adjusted(-1, -1, 1, 1).contains(pixel)) return std::nullopt;
    return pixel;
}

std::optional<QPointF> SkinViews::pixelOf(Shown where, const Vec2& at, bool twin) const {
    if (!skin_ || !skin_->check({Side::Left, at.x(), at.y()}, "")) return std::nullopt;
    return pixelOf(where, at, skin_->at({Side::Left, at.x(), at.y()}), twin);
}

std::optional<Vec2> SkinViews::placeAt(Shown where, const QPointF& pixel, bool twin) const {
    if (!skin_) return std::nullopt;
    const double nose = skin_->noseX_mm() + kTip_mm, tail = skin_->tailX_mm() - kTip_mm;
    if (isStrip(where)) {
        const QRectF& box = strip(where);
        if (box.isEmpty() || !drawn_) return std::nullopt;
        const double x = std::clamp(drawn_->x_mm.front() + (pixel.x() - box.left()) / perMm_, nose, tail);
        const SectionArc arc = skin_->arcAt(x);
        const double down = (pixel.y() - box.center().y()) / perMm_ * (twin ? -1 : 1);
        return Vec2(x, where == Shown::Back ? arc.backArc_mm() - down : down - arc.bellyArc_mm());
    }
    const Vec2 seen = view(where).bodyAt(pixel);
    if (where == Shown::Nose) {
        // Of all sections the one whose outline passes under the pixel, on the nose's side of the widest.
        double low = nose, high = nose;
        double widest = 0;
        for (int k = 0; k <= 60; ++k) {
            const double x = nose + (tail - nose) * k / 60;
            if (const double w = skin_->loft().sectionAt(x).halfWidth_mm; w > widest) {
                widest = w;
                high = x;
            }
        }
        Vec3 gradient;
        for (int k = 0; k < 40; ++k) {
            const double x = 0.5 * (low + high);
            const bool inside = skin_->level(Vec3(x, seen.x(), seen.y()), gradient) < 0;
            (inside ? high : low) = x;
        }
        const SkinPoint at = skin_->locate(Vec3(0.5 * (low + high), seen.x(), seen.y()));
        return Vec2(at.x_mm, at.g_mm);
    }
    const double x = std::clamp(seen.x(), nose, tail), z = seen.y();
    const Section section = skin_->loft().sectionAt(x);
    const double g = skin_->onFlank(x, z).g_mm;
    return Vec2(x, g + std::max(0.0, z - section.top_mm) - std::max(0.0, -z - section.bottom_mm));
}

bool SkinViews::covers(Shown where, const QPointF& pixel) const {
    if (isStrip(where)) return strip(where).contains(pixel);
    return view(where).outline().contains(pixel);
}

}  // namespace nine::app
