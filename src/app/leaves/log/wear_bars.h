// How much each tool has been used, against how long one lasts.
#pragma once

#include <QWidget>

#include "log/wear.h"

namespace nine::app {

class WearBars : public QWidget {
  public:
    explicit WearBars(std::vector<Wear> wear);
    QSize sizeHint() const override;

  protected:
    void paintEvent(QPaintEvent*) override;

  private:
    std::vector<Wear> wear_;
};

}  // namespace nine::app
