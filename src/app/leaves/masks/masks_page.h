// The drawing of the Masks leaf: the patch on the body above, the flat piece to the same scale below; beside
// them, or as tabs below where there is little room, where it lands, how far it stands off, and other sheets.
#pragma once

#include "app/leaves/leaf_page.h"
#include "app/leaves/masks/slit_desk.h"
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

    /// `desk` outlives it.
    MasksPage(LeafContext context, const SlitDesk& desk);
    QRectF materialBox(int index) const;
    /// Where the tip and the mouth of a slit of the mask in view stand; null points for none.
    QPointF slitTip(std::size_t slit) const;
    QPointF slitMouth(std::size_t slit) const;
    /// Which slit is selected; -1 for none.
    int slit() const { return slit_; }
    void selectSlit(int slit);
    const MaskInView& inView() const { return shown_; }
    /// Where the handle of the sheet's edge for a length of its kind stands; null when it has none.
    QPointF edgeHandle(const QString& key, bool towardsTail = true) const;
    QPointF bridgeHandle(std::size_t bridge) const;
    /// Panels stand one behind the other when the page is narrow.
    bool tabbed() const;
    void showPanel(Panel panel);

  signals:
    void materialWanted(int index);
    /// The slits as they are being dragged, or after one was taken out with a key.
    void slitsWanted(std::vector<nine::Slit> slits);
    void slitSelected();
    /// A length of the mask's kind, by its key, as it is being dragged; mm.
    void lengthWanted(QString key, double value);
    /// All bridges of the mask as one of them is being dragged.
    void bridgesWanted(std::vector<nine::Vec2> at);

  protected:
    void layOut() override;
    void paintPage(QPainter& p) override;
    void showEvent(QShowEvent*) override;
    void mousePressEvent(QMouseEvent*) override;
    void mouseMoveEvent(QMouseEvent*) override;
    void mouseReleaseEvent(QMouseEvent*) override;
    void keyPressEvent(QKeyEvent*) override;

  private:
    MaskInView find() const;
    /// The first mask, when the page is looked at and none is.
    void selectFirst();
    void requestDrawing();
    void paintOnBody(QPainter& p) const;
    void paintMark(QPainter& p, const RegistrationMark& mark) const;
    void paintFlat(QPainter& p) const;
    void paintSlits(QPainter& p) const;
    void paintMouths(QPainter& p) const;
    QString sheetAnswer(int material, bool& lies) const;
    std::vector<Slit> slits() const;
    QPolygonF slitOnBody(const Slit& slit) const;
    bool grab(const QPointF& at);
    struct EdgeHandle {
        std::string key;  ///< the length it changes
        Vec2 outwards;    ///< x, g: the way the edge goes when it grows
        double from_mm;   ///< along that way, where the length is 0
        SkinPlace at;
    };
    std::vector<EdgeHandle> edgeHandles() const;
    std::vector<SkinPlace> bridges() const;
    QPointF onBody(const SkinPlace& at) const;
    Vec2 skinAt(const QPointF& pixel) const;
    bool grabEdgeOrBridge(const QPointF& at);
    bool dragEdgeOrBridge(const QPointF& at);
    void paintHandles(QPainter& p) const;
    void paintFingers(QPainter& p) const;
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
    const SlitDesk& desk_;
    int slit_ = -1;
    /// Of which mask, and of how many, that slit was: of others its number says nothing.
    std::string slitOf_;
    std::size_t slitsThen_ = 0;
    struct Grip {
        bool tip;               ///< else all of it along the body
        std::vector<Slit> was;  ///< as they were when it was taken
        QPointF from;
    };
    std::optional<Grip> grip_;
    std::optional<EdgeHandle> edge_;  ///< in hand
    struct BridgeGrip {
        std::size_t which;
        std::vector<SkinPlace> was;
    };
    std::optional<BridgeGrip> bridge_;
};

}  // namespace nine::app
