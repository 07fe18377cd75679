// A small drawing of how a value runs from one end to the other, with a diamond in its middle and a point at
// each end that can be dragged up and down.
//
// Mouse: drag a point. Keys: Left and Right choose one, Up and Down move it by a tenth of a millimetre. What
// is dragged is shown at once and handed over when it is let go.
#pragma once

#include <QWidget>
#include <functional>
#include <optional>

namespace nine::app {

class CurveField : public QWidget {
    Q_OBJECT
  public:
    enum Point { First, Middle, Last };
    /// t from 0 to 1, mm.
    using Run = std::function<double(double)>;
    struct Shape {
        QString from, to;
        bool widths = true;  ///< drawn as what grows from nothing; else about zero
        bool movable[3] = {true, true, true};
        /// The run when a point is moved to so many mm.
        std::function<Run(Point, double)> with;
    };
    CurveField(const QString& name, Shape shape, QWidget* parent = nullptr);

    void setRun(Run run);
    /// Where a point stands, in pixels of the widget.
    QPointF placeOf(Point point) const;
    QSize sizeHint() const override;

  signals:
    void moved(int point, double mm);

  protected:
    void paintEvent(QPaintEvent*) override;
    void mousePressEvent(QMouseEvent*) override;
    void mouseMoveEvent(QMouseEvent*) override;
    void mouseReleaseEvent(QMouseEvent*) override;
    void keyPressEvent(QKeyEvent*) override;

  private:
    QRectF box() const;
    double pixelOf(double mm) const;
    double valueAt(double y) const;
    void fit();
    void say();

    Shape shape_;
    Run run_, held_run_;
    double low_ = 0, high_ = 1;  // mm at the foot and the top
    std::optional<Point> held_;
    Point chosen_ = Middle;
};

}  // namespace nine::app
