// A flat view of the body inside a page: the shaded picture under its exact outline, true to scale.
//
// Views are orthographic. `Along` shows x to the right (the fish's right side: to the left) and z up; `Above`
// shows the fish's left below the centre line, `Ahead` looks at the nose, the fish's left to the right.
#pragma once

#include <QImage>
#include <QObject>
#include <QPainter>
#include <QPainterPath>
#include <QTimer>

#include "app/document/results.h"

namespace nine::app {

class BodyView : public QObject {
    Q_OBJECT
  public:
    enum class From { Along, Above, Ahead };
    BodyView(From from, QObject* parent);

    /// The body fills `box` (pixels) as far as its proportions allow; `perMm` 0 chooses the scale.
    void place(const BodyResult& body, const QRectF& box, double perMm, Side side, double ratio,
               bool painted = true, bool shaded = true);
    /// Largest scale at which the body fits into a box.
    static double fittingScale(const Skin& skin, From from, const QSizeF& box);

    double perMm() const { return perMm_; }
    QPointF at(const Vec3& point) const;
    /// x along the axis, and z (Along) or y (Above); y and z (Ahead).
    QPointF at(double x_mm, double other_mm) const;
    /// Back from pixels to x and z or y, or y and z, mm.
    Vec2 bodyAt(const QPointF& pixel) const;
    /// Whether a skin point faces the viewer of this view.
    bool faces(const SurfacePoint& point) const;

    QPainterPath outline() const { return outline_; }
    QRectF bounds() const { return outline_.boundingRect(); }
    void paint(QPainter& p) const;

    /// What draws something else over the picture at the same place: the view, in device pixels of `box`.
    View3 view3() const;
    const QRectF& box() const { return box_; }

  signals:
    void redrawn();

  private:
    void draw(bool moving);
    QPainterPath silhouette() const;

    From from_;
    Side side_ = Side::Left;
    bool shaded_ = true;  ///< maps with a legend are not
    double perMm_ = 1, ratio_ = 1;
    QRectF box_;
    Vec3 middle_ = Vec3::Zero();
    SkinPtr skin_;
    std::shared_ptr<const DrawnBody> drawn_;
    std::shared_ptr<const Image> picture_;
    std::shared_ptr<const std::vector<Solid>> fittings_ = noFittings();
    QPainterPath outline_;
    QImage image_;
    QRectF imageBox_;  ///< where, and at what scale, it was drawn
    double imagePerMm_ = 0;
    LatestOnly<QImage> moving_{this, Urgency::Soon, Overtaken::Shown}, resting_{this, Urgency::Patient};
    quint64 places_ = 0, restsAt_ = 0;  ///< how often it was placed, and which of these is drawn at rest
    QTimer rest_;
};

}  // namespace nine::app
