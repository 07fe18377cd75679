// Swatches of paint: a drop over what it goes on, rows of them on a card. Never tinted by the theme.
#pragma once

#include <QColor>
#include <QPainter>
#include <QWidget>

namespace nine::app {

void drawDrop(QPainter& p, const QRectF& box, const QColor& ground, const QColor& drop);

/// A few drops side by side, each with one or two words under it.
class SwatchRow : public QWidget {
    Q_OBJECT
  public:
    struct Swatch {
        QColor ground, drop;
        QString name, remark;
    };
    explicit SwatchRow(QList<Swatch> swatches, QWidget* parent = nullptr);
    QSize sizeHint() const override { return {240, kHigh_px + 34}; }
    QSize minimumSizeHint() const override { return {100, kHigh_px + 34}; }

  protected:
    void paintEvent(QPaintEvent*) override;

  private:
    static constexpr int kHigh_px = 62;
    QList<Swatch> swatches_;
};

/// A button with a small patch of colour.
QPixmap patch(const QColor& colour, const QColor& beside = {});

}  // namespace nine::app
