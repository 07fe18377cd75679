// Both sides of a finished body, measured: typed, or clicked on a photo of each side.
#pragma once

#include <QDialog>
#include <QImage>
#include <QLabel>
#include <QSpinBox>
#include <QTableWidget>

#include "log/card.h"

namespace nine::app {

/// A photo of one side on which nose, tail and the lowest point are clicked, then marks.
class SidePhoto : public QWidget {
    Q_OBJECT
  public:
    SidePhoto();
    void setPicture(QImage picture, double length_mm);
    bool has() const { return !picture_.isNull(); }
    /// How many of nose, tail and lowest point are known.
    int known() const { return static_cast<int>(places_.size()); }
    /// Clicked again from the nose on.
    void restart();
    QPointF pictureToWidget(const QPointF& place) const;

  signals:
    /// A mark was clicked: mm behind the nose, above the lowest point.
    void found(double x_mm, double up_mm);
    void changed();

  protected:
    void paintEvent(QPaintEvent*) override;
    void mousePressEvent(QMouseEvent*) override;
    QSize sizeHint() const override { return {520, 260}; }

  private:
    double scale() const;
    QImage picture_;
    double length_mm_ = 60;
    std::vector<QPointF> places_;  ///< nose, tail, lowest point, in pixels of the picture
    std::vector<QPointF> marks_;
};

class SidesDialog : public QDialog {
    Q_OBJECT
  public:
    SidesDialog(std::vector<SideReading> readings, int lure, double length_mm, QWidget* parent);

    /// Those with anything measured.
    std::vector<SideReading> readings() const;
    int lure() const { return lure_->value(); }
    SidePhoto& photo(bool right) { return right ? *right_ : *left_; }
    QTableWidget& table() { return *table_; }

  private:
    void addRow(const SideReading& reading);
    void openPhoto(bool right);
    void take(bool right, double x_mm, double up_mm);
    void sayNext();
    void finish();

    double length_mm_;
    QTableWidget* table_;
    QSpinBox* lure_;
    QLabel* hint_;
    SidePhoto *left_, *right_;
};

}  // namespace nine::app
