// The drawing of the Spray leaf: gun, spray, mask and the section of the body at one scale; below, the edge
// this gives and where on the mask it gets how wide. Everything that can be set is set where it is drawn.
#pragma once

#include <array>

#include "app/leaves/leaf_page.h"
#include "app/leaves/spray/gun_drawing.h"
#include "app/leaves/spray/section_scene.h"
#include "app/leaves/spray/spray_desk.h"
#include "app/sheet/body_view.h"

namespace nine::app {

/// What can be dragged; the last two only look elsewhere.
enum class SprayHandle { Distance, Angle, Pressure, Trigger, Speed, Pads, Aim, Section };
inline constexpr std::array kSprayHandles{SprayHandle::Distance, SprayHandle::Angle,  SprayHandle::Pressure,
                                          SprayHandle::Trigger,  SprayHandle::Speed,  SprayHandle::Pads,
                                          SprayHandle::Aim,      SprayHandle::Section};

class SprayPage : public LeafPage {
    Q_OBJECT
  public:
    SprayPage(LeafContext context, SprayDesk& desk);

    /// Where a handle stands, for tests and accessibility; null when it is not drawn.
    QPointF handleAt(SprayHandle handle) const;
    QRectF needleBox(int gun) const;
    SprayHandle selected() const { return selected_; }
    /// In the handle's unit: mm, degrees, psi, share of travel, mm/s.
    double valueOf(SprayHandle handle) const;
    /// Pins it (or looks there), inside what the handle can reach.
    void set(SprayHandle handle, double value);
    static QString nameOf(SprayHandle handle);
    /// Curve and map stand one behind the other when the page is narrow.
    bool tabbed() const;

  protected:
    void layOut() override;
    void paintPage(QPainter& p) override;
    void mousePressEvent(QMouseEvent*) override;
    void mouseMoveEvent(QMouseEvent*) override;
    void mouseReleaseEvent(QMouseEvent*) override;
    void keyPressEvent(QKeyEvent*) override;

  private:
    struct Reach {
        double low, high, step;
    };
    Reach reachOf(SprayHandle handle) const;
    void place();
    QPointF at(const Vec2& mm) const;
    Vec2 mmAt(const QPointF& pixel) const;
    QPointF tip() const;
    double awayDegrees() const;
    QColor paintColour() const;
    void dragTo(const QPointF& to);
    void release(SprayHandle handle);

    void paintScene(QPainter& p) const;
    void paintSection(QPainter& p) const;
    void paintDimensions(QPainter& p) const;
    void paintControls(QPainter& p) const;
    void paintHandle(QPainter& p, SprayHandle handle) const;
    void paintEdge(QPainter& p) const;
    void paintAxes(QPainter& p) const;
    void paintWidthAndCreep(QPainter& p) const;
    void paintCurveNotes(QPainter& p, bool elsewhere) const;
    void paintCurve(QPainter& p, const EdgeHere& here, const QPen& pen, bool filled) const;
    void paintMap(QPainter& p) const;
    void paintTabs(QPainter& p) const;
    QRectF tabBox(int index) const;

    SprayDesk& desk_;
    BodyView side_{BodyView::From::Along, this};
    SectionScene scene_;
    mutable GunPicture gun_;
    std::optional<EdgeHere> here_, worst_;
    QRectF sceneBox_, edgeBox_, plot_, mapBox_, pressure_, trigger_, speed_;
    double perMm_ = 4;
    QPointF origin_;  ///< of the section's axis
    double halfSpan_mm_ = 0.5, tallest_um_ = 5;
    struct ColouredEdge {
        QPolygonF ring;
        std::vector<double> width_mm;
    };
    std::vector<ColouredEdge> edges_;
    double widest_mm_ = 0;
    QPointF worstAt_;
    SprayHandle selected_ = SprayHandle::Distance;
    std::optional<SprayHandle> grip_;
    bool showMap_ = false;
};

}  // namespace nine::app
