// The drawing of the Pattern leaf: art on the side of the body with handles, back and belly unrolled, the
// list of elements.
#pragma once

#include <QWidget>

#include "app/leaves/leaf.h"
#include "app/sheet/body_view.h"

namespace nine::app {

class PatternPage : public QWidget {
    Q_OBJECT
  public:
    explicit PatternPage(LeafContext context);

    /// Middle of an opening of the selected element, for tests.
    QPointF openingAt(int element, int index) const;
    QRectF listRow(int index) const;

  signals:
    void addWanted(bool bars);

  protected:
    void paintEvent(QPaintEvent*) override;
    void resizeEvent(QResizeEvent*) override { layOut(); }
    void mousePressEvent(QMouseEvent*) override;
    void mouseMoveEvent(QMouseEvent*) override;
    void mouseReleaseEvent(QMouseEvent*) override { dragging_ = false; }
    void keyPressEvent(QKeyEvent*) override;

  private:
    void layOut();
    void paintArt(QPainter& p);
    void paintSelected(QPainter& p);
    QImage unrolled(const QRectF& box, bool back) const;
    void paintStrip(QPainter& p, const QRectF& box, bool back);
    void paintList(QPainter& p);
    void move(double dx, double dg);
    QPolygonF onSide(const Outline& outline) const;
    const std::vector<ElementPtr>& elements() const { return context_.document.job().pattern->elements; }

    LeafContext context_;
    BodyView side_{BodyView::From::Along, this};
    QRectF back_, belly_, list_, addDots_, addBars_;
    std::shared_ptr<const Image> stripsFor_;
    QImage backStrip_, bellyStrip_;
    bool dragging_ = false;
    QPointF last_;
};

}  // namespace nine::app
