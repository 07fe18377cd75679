// Where the Pattern page shows skin: the body from its sides and its nose, back and belly unrolled. Each
// knows where a place of the skin is drawn on it, and which place lies under a pixel.
//
// Places are x, g of the left side (mm). A mark that is mirrored is drawn and dragged on the right as its
// mirror image, in the same numbers; g beyond the back or belly line goes on over the other side.
#pragma once

#include "app/sheet/body_view.h"

namespace nine::app {

enum class Shown { Left, Right, Back, Belly, Nose };

class SkinViews : public QObject {
    Q_OBJECT
  public:
    explicit SkinViews(QObject* parent);

    BodyView& view(Shown where) {
        return where == Shown::Right ? right_ : where == Shown::Nose ? nose_ : left_;
    }
    const BodyView& view(Shown where) const {
        return where == Shown::Right ? right_ : where == Shown::Nose ? nose_ : left_;
    }
    /// A strip of unrolled skin: its box and scale. An empty box is not shown.
    void placeStrip(Shown where, const QRectF& box, double perMm);
    const QRectF& strip(Shown where) const { return where == Shown::Back ? back_ : belly_; }
    void setBody(std::shared_ptr<const DrawnBody> drawn, SkinPtr skin);

    /// Where a place is drawn; nothing when it is on the far side or off the strip. `twin` draws the mirror
    /// image of what stands on the left.
    std::optional<QPointF> pixelOf(Shown where, const Vec2& at, const SurfacePoint& point, bool twin) const;
    std::optional<QPointF> pixelOf(Shown where, const Vec2& at, bool twin) const;
    /// The place under a pixel, as one of the left side or, with `twin`, of its mirror image. Beyond the
    /// outline of the body it goes on over back or belly.
    std::optional<Vec2> placeAt(Shown where, const QPointF& pixel, bool twin) const;
    /// Whether the pixel is on the view.
    bool covers(Shown where, const QPointF& pixel) const;

  signals:
    void redrawn();

  private:
    BodyView left_{BodyView::From::Along, this}, right_{BodyView::From::Along, this},
        nose_{BodyView::From::Ahead, this};
    QRectF back_, belly_;
    double perMm_ = 1;
    std::shared_ptr<const DrawnBody> drawn_;
    SkinPtr skin_;
};

}  // namespace nine::app
