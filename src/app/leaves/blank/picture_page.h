// The drawing while a body is made from a picture: the picture with what was found in it, and what is dragged
// or painted on it.
//
// Keys: Page down goes through nose, tail (of both tracings), both points of the scale and the brush; arrows
// move the one in hand by a pixel of the picture, with Shift by ten; Space begins and ends a stroke of the
// brush; [ and ] make the brush finer and broader. A click on hatching puts back what was taken off there.
#pragma once

#include <QWidget>

#include "app/leaves/blank/blank_desk.h"
#include "app/leaves/leaf_page.h"

namespace nine::app {

class PicturePage : public LeafPage {
    Q_OBJECT
  public:
    PicturePage(LeafContext context, BlankDesk& desk);

    enum class Grip { None, Nose, Tail, TopNose, TopTail, ScaleFrom, ScaleTo, Brush };
    /// Where a handle stands, for tests; and where a pixel of the picture does.
    QPointF handle(Grip grip) const;
    QPointF at(const Vec2& pixel) const;

  signals:
    void pictureWanted(bool above);

  protected:
    void layOut() override;
    void paintPage(QPainter& p) override;
    void mousePressEvent(QMouseEvent*) override;
    void mouseMoveEvent(QMouseEvent*) override;
    void mouseReleaseEvent(QMouseEvent*) override;
    void keyPressEvent(QKeyEvent*) override;
    void looked() override;

  private:
    Vec2 pixelAt(const QPointF& at) const;
    void paintNothing(QPainter& p);
    void paintTracing(QPainter& p);
    void paintPhoto(QPainter& p);
    void paintLine(QPainter& p, const QPolygonF& line, const QColor& colour, bool closed);
    /// Whether such a handle stands on the picture now.
    bool has(Grip grip) const;
    std::pair<Vec2, Vec2> axis(bool above) const;
    void paintEnds(QPainter& p, bool above);
    void paintStrokes(QPainter& p);
    void paintDoubts(QPainter& p);
    void paintWorst(QPainter& p);
    void paintFarthest(QPainter& p, const PhotoCheck& check);
    void paintBrush(QPainter& p);
    /// A line of words on a light plate, its left lower corner given.
    void paintPlate(QPainter& p, const QPointF& corner, const QString& words);
    void requestScaled();
    PhotoWish::Known scalePoints() const;
    void moveHandle(Grip grip, const Vec2& to, bool done);
    void endStroke();
    double brush_px() const;

    BlankDesk& desk_;
    /// The part of the picture in view, at the pixels of the screen; a rough one is drawn until it is there.
    struct Part {
        qint64 of = 0;  ///< key of the picture
        QRect pixels;   ///< of the picture
        QSize size;
        bool operator==(const Part&) const = default;
    };
    QImage scaled_;
    Part scaledPart_, wantedPart_;
    LatestOnly<QImage> scaler_{this, Urgency::Soon};
    QRectF box_;        ///< where the picture stands
    double scale_ = 1;  ///< widget pixels for one of the picture
    Grip grip_ = Grip::None, selected_ = Grip::Nose;
    std::optional<std::pair<Vec2, Vec2>> draggedAxis_;
    bool draggedAbove_ = false;  ///< which of the two axes of a tracing
    std::optional<PhotoWish::Known> draggedScale_;
    std::optional<Stroke2> stroke_;
    Vec2 cursor_ = Vec2::Zero();
};

}  // namespace nine::app
