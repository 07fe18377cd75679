// The drawing of a leaf. Lays itself out when it is seen, resized, or something it shows has changed while it
// is seen; pages out of sight cost nothing.
//
// Every page can be looked at from nearer: the wheel, + and - enlarge it round the pointer (or its middle),
// the middle button, Space with the left one, and Ctrl with the arrows move it, 0 shows all again. Pages draw
// and are clicked in their own coordinates and know nothing of it, but for sharpness().
#pragma once

#include <QWidget>

#include "app/leaves/leaf.h"

namespace nine::app {

class LeafPage : public QWidget {
    Q_OBJECT
  public:
    explicit LeafPage(LeafContext context);

    /// 1 shows all.
    double zoom() const { return zoom_; }
    /// Enlarges so that what is at this place of the widget stays there.
    void zoomTo(double zoom, const QPointF& round);
    void showAll();
    /// Between places of the page and of the widget.
    QPointF toWidget(const QPointF& page) const { return zoom_ * page + shift_; }
    QPointF toPage(const QPointF& widget) const { return (widget - shift_) / zoom_; }
    static constexpr double kMostZoom = 16;

  protected:
    /// Places what is drawn and asks for pictures; calls update().
    virtual void layOut() = 0;
    /// On paper, in the page's coordinates.
    virtual void paintPage(QPainter& p) = 0;
    /// Whether the wheel scrolls something at this place of the page instead of enlarging it.
    virtual bool scrolls(const QPointF& /*page*/, int /*steps*/) { return false; }
    /// Something of it is shown from nearer, or from elsewhere.
    virtual void looked() {}
    /// Pixels of the screen for one of the page, for pictures that are made for it; not above what they can
    /// be made for while one waits.
    double sharpness() const;

    void follow() {
        if (isVisible()) layOut();
    }
    bool event(QEvent* event) override;
    void paintEvent(QPaintEvent*) final;
    void resizeEvent(QResizeEvent*) override;
    void showEvent(QShowEvent*) override { layOut(); }

    LeafContext context_;

  private:
    bool lookKey(const QKeyEvent& key);
    bool lookMouse(QMouseEvent& mouse);
    void moveBy(const QPointF& by);
    QRectF badge() const;

    double zoom_ = 1;
    QPointF shift_;
    bool space_ = false;                ///< held down, and not used for anything yet
    std::optional<QPointF> movedFrom_;  ///< place of the widget, while it is moved
};

}  // namespace nine::app
