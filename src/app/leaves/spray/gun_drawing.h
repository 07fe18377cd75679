// The airbrush as it is drawn on the Spray leaf, to scale; an invented gun of usual proportions.
#pragma once

#include <QColor>
#include <QPainter>
#include <QPixmap>

namespace nine::app {

/// Of the gun its front is drawn, nozzle to behind the trigger, where it ends in a break line as long things
/// do on drawings: all of it fits on the page at the scale of the body.
constexpr double kGunDrawn_mm = 76, kGunHigh_mm = 28;

/// The nozzle's tip stands at `tip`; `away` is the direction from the skin to the gun, degrees,
/// counter-clockwise from the right. The cup stays upright. `trigger` 0..1 is how far it is drawn back.
void drawGun(QPainter& p, const QPointF& tip, double away_deg, double perMm, double trigger,
             const QColor& paint);

/// Remembers the last gun: while it is only moved, it is not drawn anew.
class GunPicture {
  public:
    void paint(QPainter& p, const QPointF& tip, double away_deg, double perMm, double trigger,
               const QColor& paint);

  private:
    struct Key {
        double away_deg = 0, perMm = 0, trigger = 0, ratio = 0;
        QColor paint, ink;
        bool operator==(const Key&) const = default;
    };
    Key key_;
    QPixmap picture_;
    QPointF tip_;  ///< in the picture
};

/// The spray between nozzle and skin: its width at a tenth of the middle, and drops that thin out to its
/// sides.
void drawSpray(QPainter& p, const QPointF& tip, const QPointF& aim, double halfWidth_px, const QColor& paint);

}  // namespace nine::app
