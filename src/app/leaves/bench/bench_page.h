// The drawing of the Bench leaf: one day of the plan, guns above, trays below them, what dries on the rack at
// the foot, the time of now across all; for one body a list of steps with what is checked before each.
#pragma once

#include <QDate>

#include "app/leaves/bench/bench_desk.h"
#include "app/leaves/leaf_page.h"

namespace nine::app {

class BenchPage : public LeafPage {
    Q_OBJECT
  public:
    BenchPage(LeafContext context, BenchDesk& desk);

    /// Days the plan has work on; which of them is shown.
    const std::vector<QDate>& days() const { return days_; }
    int day() const { return day_; }
    void showDay(int day);
    /// For tests: where a task is drawn on its tray; empty when it is not on this day.
    QRectF boxOf(const std::string& task) const;
    QRectF dayTab(int day) const;

  protected:
    void layOut() override;
    void paintPage(QPainter& p) override;
    bool scrolls(const QPointF& page, int steps) override;
    void mousePressEvent(QMouseEvent*) override;
    void mouseMoveEvent(QMouseEvent*) override;
    void mouseReleaseEvent(QMouseEvent*) override;
    void keyPressEvent(QKeyEvent*) override;
    void showEvent(QShowEvent*) override;
    void hideEvent(QHideEvent*) override { desk_.setWatched(false); }

  private:
    struct Box {
        std::string task;
        QRectF band, rest, gun;  ///< on its tray, its rest after it, on its gun
        int placed = 0;
    };
    double xAt(int s) const;
    int secondAt(double x) const;
    void layOutDay();
    void paintChart(QPainter& p);
    void paintLanes(QPainter& p);
    void paintTask(QPainter& p, const Box& box);
    void restInBreaks(QPainter& p, const QRectF& band) const;
    void paintRack(QPainter& p);
    void paintLegend(QPainter& p);
    void paintList(QPainter& p);
    void paintEmpty(QPainter& p);
    std::string taskAt(const QPointF& at) const;
    void nudge(int by_s);
    void selectBeside(int by);

    BenchDesk& desk_;
    std::vector<QDate> days_;
    int day_ = 0;
    int from_s_ = 0, to_s_ = 1;  ///< of the day that is shown
    QRectF chart_;
    double gunHeight_ = 40, trayHeight_ = 90;
    QRectF rack_;
    std::vector<Box> boxes_;
    std::vector<QRectF> tabs_;
    std::vector<std::pair<std::string, QRectF>> rows_;  ///< of the list
    double scroll_ = 0, scrollMost_ = 0;
    struct Drag {
        std::string task;
        double from, grabbed_s;
        std::optional<int> to_s;
    };
    std::optional<Drag> drag_;
    QTimer minute_;
};

}  // namespace nine::app
