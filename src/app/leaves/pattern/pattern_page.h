// The drawing of the Pattern leaf: art on the side of the body with handles, or on both sides; back and belly
// unrolled; the list of elements; the mask the selected one needs, followed while it is dragged.
#pragma once

#include "app/leaves/leaf_page.h"
#include "app/sheet/body_view.h"

namespace nine::app {

/// What can be dragged of any element besides the handles of its kind: all of it.
constexpr std::string_view kWholeMark = "whole";

constexpr double kPatternRow_px = 34;  ///< of the list
class PatternPage : public LeafPage {
    Q_OBJECT
  public:
    explicit PatternPage(LeafContext context);

    /// Middle of an opening of an element; for tests, like all places below.
    QPointF openingAt(int element, int index) const;
    /// Where a handle of the selected element stands (by its key); a null point if it has none such.
    QPointF handleAt(std::string_view handle) const;
    /// The handle that the arrow keys move, and what is spoken of it: "first dot, 3.4 mm behind ...".
    const std::string& handleInHand() const { return inHandKey_; }
    QRectF listRow(int index) const;

  signals:
    void removeWanted();

  protected:
    void layOut() override;
    void paintPage(QPainter& p) override;
    void mousePressEvent(QMouseEvent*) override;
    void mouseMoveEvent(QMouseEvent*) override;
    void mouseReleaseEvent(QMouseEvent*) override { grip_.reset(); }
    void keyPressEvent(QKeyEvent*) override;
    bool scrolls(const QPointF& page, int steps) override;

  private:
    /// Rows of the list that there is room for.
    int rowsShown() const;
    void scrollList(int rows);
    /// One of up to two views of the body from the side.
    struct SideView {
        BodyView* view;
        Side side;
    };
    std::vector<SideView> sideViews() const;
    /// The view the selected element is drawn and handled in.
    SideView leading() const;
    QPolygonF drawn(const SideView& on, const Outline& outline) const;
    void paintArt(QPainter& p, const SideView& on) const;
    void paintStray(QPainter& p, const SideView& on, const ElementArt& art) const;
    void paintSelected(QPainter& p) const;
    void paintAnchor(QPainter& p, const QPointF& first, double y) const;
    void paintStrip(QPainter& p, const QRectF& box, bool back) const;
    void paintList(QPainter& p) const;
    void paintMask(QPainter& p) const;
    void requestStrips();
    /// Moves a handle of the selected element by mm on the skin; an impossible move is not made.
    void moveHandle(std::string_view handle, double dx, double dg);
    /// The next handle of the selected element, or the one before; after the last, all of it.
    void takeHandle(int by);
    void speakHandle();
    std::span<const Handle> handles() const;
    const std::vector<ElementPtr>& elements() const {
        return context_.document.job().get<PatternChapter>().elements;
    }
    ElementPtr selected() const;
    const ElementArt* selectedArt() const;
    /// Whether the mark reaches off the body and is shown where it could be.
    bool isStray(const std::string& element) const;
    /// The selected mark as it is shown.
    Element inHand() const;

    BodyView left_{BodyView::From::Along, this}, right_{BodyView::From::Along, this};
    QRectF back_, belly_, list_, mask_;
    int firstRow_ = 0;     ///< of the list, the uppermost that is shown
    std::string listFor_;  ///< what was selected when the list was scrolled to it
    struct Strips {
        std::shared_ptr<const Image> picture;
        QSize size;
        double perMm = 0;
        QImage back, belly;
    };
    Strips strips_;
    LatestOnly<Strips> stripSlot_{this, Urgency::Now, Overtaken::Shown};
    std::optional<std::string> grip_;
    std::string inHandKey_{kWholeMark};
    QPointF last_;
};

}  // namespace nine::app
