// The holder: the body in 3-D as it will look, turned by drag or arrow keys.
//
// Drawn by the core's rasteriser on a thread of its own: one sample a pixel while it is turned, two by two at
// rest.
#pragma once

#include <QImage>
#include <QTimer>
#include <QWidget>

#include "app/document/results.h"
#include "app/sheet/point_on_body.h"

namespace nine::app {

class Holder : public QWidget {
    Q_OBJECT
  public:
    explicit Holder(QWidget* parent = nullptr);
    void setBody(const BodyResult& body);
    /// Both sides, one above the other, or one body to turn.
    void showBoth(bool both);
    void setCaption(const QString& caption);
    /// Rings with labels where these places face the viewer.
    void pointOut(std::vector<PointOnBody> points);

    enum class Stop { Side, Back, Belly, Nose };
    void turnTo(Stop stop);
    void turnToSide(Side side);

    QSize sizeHint() const override { return {300, 214}; }
    /// The skin point under a place of the widget, if the body is there.
    std::optional<SkinPoint> skinAt(const QPointF& at) const;

  signals:
    void picked(nine::SkinPoint point);
    void sizeToggleWanted();
    /// A new picture has come.
    void redrawn();

  protected:
    void paintEvent(QPaintEvent*) override;
    void resizeEvent(QResizeEvent*) override { draw(false); }
    void mousePressEvent(QMouseEvent*) override;
    void mouseMoveEvent(QMouseEvent*) override;
    void mouseReleaseEvent(QMouseEvent*) override;
    void keyPressEvent(QKeyEvent*) override;

  private:
    void draw(bool moving);
    View3 viewFor(double ratio) const;
    int bodies() const { return both_ ? 2 : 1; }
    QRectF stopBox(int index) const;
    void paintPoints(QPainter& p) const;

    std::shared_ptr<const DrawnBody> body_;
    std::shared_ptr<const Image> picture_;
    std::shared_ptr<const std::vector<Solid>> fittings_ = noFittings();
    Vec3 middle_ = Vec3::Zero();
    double reach_mm_ = 40;
    Side side_ = Side::Left;
    double yaw_ = 0.35, pitch_ = 0.22;
    QString caption_;
    std::vector<PointOnBody> points_;
    QPointF pressed_, last_;
    bool dragging_ = false;
    struct Drawn {
        std::vector<Rendered> bodies;  ///< from the top
        double ratio = 1;
        std::vector<View3> views = {};  ///< of them
    };
    bool both_ = false;
    Drawn drawn_;
    std::vector<QImage> images_;
    LatestOnly<Drawn> moving_{this, Urgency::Now, Overtaken::Shown}, resting_{this, Urgency::Patient};
    QTimer rest_;
};

QImage toQImage(const Image& image);

}  // namespace nine::app
