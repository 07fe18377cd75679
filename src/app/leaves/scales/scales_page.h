// The drawing of the Scales leaf: the net as the model lays it on the body, with clips to be dragged; one
// scale, the piece to cut, the section at a clip and what the net lets through beside it; or the lines for
// foil.
#pragma once

#include "app/leaves/leaf_page.h"
#include "app/leaves/scales/net_drawing.h"
#include "app/sheet/body_view.h"

namespace nine::app {

class ScalesPage : public LeafPage {
    Q_OBJECT
  public:
    ScalesPage(LeafContext context, ScalesDesk& desk);

    /// Where the clip at x is drawn; for tests and for who drags it.
    QPointF clipAt(double x_mm) const;
    /// The ring at the end of the arrow that says how hard the net is pulled; for tests and who drags it.
    QPointF pullRing() const;
    static constexpr double kSideColumn_px = 176;  ///< beside the body: one scale, the legend
    bool picturesSettled() const { return !picture_.running() && !near_.running(); }

  protected:
    void layOut() override;
    void paintPage(QPainter& p) override;
    void looked() override { layOut(); }
    void mousePressEvent(QMouseEvent*) override;
    void mouseMoveEvent(QMouseEvent*) override;
    void mouseReleaseEvent(QMouseEvent*) override;
    void mouseDoubleClickEvent(QMouseEvent*) override;
    void keyPressEvent(QKeyEvent*) override;

  private:
    void paintBody(QPainter& p);
    void paintClips(QPainter& p);
    void paintFlags(QPainter& p);
    void paintFoil(QPainter& p);
    void paintScale(QPainter& p, const QRectF& box);
    void paintPiece(QPainter& p, const QRectF& box);
    void paintSection(QPainter& p, const QRectF& box);
    void paintNear(QPainter& p, const QRectF& box);
    void paintStencil(QPainter& p, const QRectF& box);
    /// The line the net is gathered along, in the view.
    QPointF gatheredAt(double x_mm) const;
    /// Where the arrow begins: under the hook, beside the body.
    QPointF pullFrom() const;
    std::optional<double> clipUnder(const QPointF& at) const;
    void moveClip(double to_mm);
    void pullTo(const QPointF& at);
    bool onPullRing(const QPointF& at) const;
    double standOffAt(const Vec2& skin) const;
    /// g and the middle of the range of stand-off, of the section next to x, from the whole line to the
    /// gathered one; without clips the pulled net, which lies on the skin.
    std::vector<std::pair<double, double>> standOffAlong(double x_mm) const;
    /// A mask of the pattern's cut scales, if it has any.
    MaskPtr stencil() const;

    ScalesDesk& desk_;
    BodyView* view_;
    QRectF bodyBox_;
    double floor_ = 0;  ///< under the body's half of the page
    QImage net_;
    QPointF netAt_;
    NearPicture nearBy_;
    NearWish nearFor_;
    enum class Hand { Empty, Clip, Pull };
    Hand hand_ = Hand::Empty;
    LatestOnly<QImage> picture_{this, Urgency::Soon, Overtaken::Shown};
    LatestOnly<NearPicture> near_{this, Urgency::Soon, Overtaken::Shown};
};

}  // namespace nine::app
