// How much goes through each cup: bars in the colour of the paint.
#pragma once

#include <QColor>
#include <QWidget>
#include <vector>

namespace nine::app {

struct CupBar {
    QColor colour;
    QString name;
    double ml;
};

class CupBars : public QWidget {
  public:
    explicit CupBars(std::vector<CupBar> bars);
    QSize sizeHint() const override;

  protected:
    void paintEvent(QPaintEvent*) override;

  private:
    std::vector<CupBar> bars_;
};

}  // namespace nine::app
