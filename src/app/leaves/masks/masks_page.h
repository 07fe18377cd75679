// The drawing of the Masks leaf: the patch on the body above, the flat piece to the same scale below; beside
// them, or as tabs below where there is little room, where it lands, how far it stands off, and other sheets.
#pragma once

#include "app/leaves/leaf_page.h"
#include "app/leaves/masks/stretch_map.h"
#include "app/sheet/body_view.h"

namespace nine::app {

/// The selected mask: judged, or as it would be cut now while its verdict is under way.
struct MaskInView {
    MaskSpecPtr spec;           ///< null when there is none
    MaskPtr mask;               ///< null when it cannot be made
    std::vector<Piece> pieces;  ///< one a sheet, once they are lettered
    bool judged = false;
    QString error;
};

class MasksPage : public LeafPage {
    Q_OBJECT
  public:
    enum Panel { Landing, Lift, Sheets };

    explicit MasksPage(LeafContext context);
    QRectF materialBox(int index) const;
    const MaskInView& inView() const { return shown_; }
    /// Panels stand one behind the other when the page is narrow.
    bool tabbed() const;
    void showPanel(Panel panel);

  signals:
    void materialWanted(int index);

  protected:
    void layOut() override;
    void paintPage(QPainter& p) override;
    void mousePressEvent(QMouseEvent*) override;
    void keyPressEvent(QKeyEvent*) override;

  private:
    MaskInView find() const;
    void requestDrawing();
    void paintOnBody(QPainter& p) const;
    void paintMark(QPainter& p, const RegistrationMark& mark) const;
    void paintFlat(QPainter& p) const;
    void paintPanels(QPainter& p) const;
    void paintLanding(QPainter& p, const QRectF& box) const;
    void paintLift(QPainter& p, const QRectF& box) const;
    void paintSheets(QPainter& p) const;
    QPointF flatAt(const Vec2& p) const;
    /// A place of one of the sheets, which stand side by side.
    QPointF flatAt(std::size_t sheet, const Vec2& p) const;
    Box2 flatBox() const;
    QRectF tabBox(int index) const;

    BodyView side_{BodyView::From::Along, this};
    QRectF flat_, panels_, landing_, lift_, sheets_;
    Vec2 flatMiddle_ = Vec2::Zero();
    std::vector<Vec2> shifts_;  ///< of the sheets, sideBySide()
    MaskInView shown_;
    MaskDrawing drawing_;
    MapRequest requested_;
    LatestOnly<MaskDrawing> drawer_{this};
    Panel panel_ = Landing;
};

}  // namespace nine::app
