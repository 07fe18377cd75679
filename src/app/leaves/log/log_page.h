// The drawing of the Log leaf: the recipe card in view, with its picture, how it was laid down and what came
// of it; below it left against right, as measured.
#pragma once

#include "app/leaves/leaf_page.h"
#include "app/leaves/log/log_desk.h"

namespace nine::app {

class LogPage : public LeafPage {
    Q_OBJECT
  public:
    LogPage(LeafContext context, LogDesk& desk);
    QRectF picturePlace() const { return picture_; }

  signals:
    void pictureWanted();

  protected:
    void layOut() override { update(); }
    void paintPage(QPainter& p) override;
    bool scrolls(const QPointF& page, int steps) override;
    void mousePressEvent(QMouseEvent*) override;
    void keyPressEvent(QKeyEvent*) override;
    void showEvent(QShowEvent*) override;

  private:
    void paintEmpty(QPainter& p);
    double paintCard(QPainter& p, const RecipeCard& card, double top);
    void paintPicture(QPainter& p, const QRectF& box);
    double paintOutcome(QPainter& p, const RecipeCard& card, const QRectF& box);
    double paintSteps(QPainter& p, const RecipeCard& card, const QRectF& box);
    double paintSides(QPainter& p, const RecipeCard& card, double top);

    LogDesk& desk_;
    QRectF picture_;
    double scroll_ = 0, scrollMost_ = 0, sheetHigh_ = 0;
    std::string shown_;
};

/// "8 : 3", drops of paint to drops of reducer.
QString dropsOf(const LaidStep& step);
/// What was done otherwise, in words.
QString changeText(const std::string& change);

}  // namespace nine::app
