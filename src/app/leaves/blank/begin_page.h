// The empty state of the Blank leaf: the ways to a body, the easy ones first; and the seven kinds to choose
// from.
#pragma once

#include <QAbstractButton>
#include <QLabel>
#include <QPushButton>

#include "app/leaves/blank/blank_desk.h"

namespace nine::app {

/// A large button with a drawing, a title and a line of words.
class Tile : public QAbstractButton {
  public:
    using Art = std::function<void(QPainter&, const QRectF&)>;
    Tile(const QString& title, const QString& words, Art art, QWidget* parent);

  protected:
    void paintEvent(QPaintEvent*) override;
    void enterEvent(QEnterEvent*) override { update(); }
    void leaveEvent(QEvent*) override { update(); }

  private:
    QString words_;
    Art art_;
};

class BeginPage : public QWidget {
    Q_OBJECT
  public:
    explicit BeginPage(QWidget* parent = nullptr);

  signals:
    void tracingWanted();
    void photoWanted();
    void kindWanted();
    void libraryWanted();
    void openWanted();
    void demoWanted();
    void recentWanted(const QString& file);

  protected:
    void paintEvent(QPaintEvent*) override;
    void resizeEvent(QResizeEvent*) override;
    void showEvent(QShowEvent*) override;

  private:
    std::vector<Tile*> large_, small_;
    std::vector<QPushButton*> recent_;  ///< jobs worked on last
};

/// Seven kinds; the chosen one is drawn large with what is measured and what is assumed.
class KindPage : public QWidget {
    Q_OBJECT
  public:
    KindPage(BlankDesk& desk, QWidget* parent = nullptr);

  protected:
    void paintEvent(QPaintEvent*) override;
    void resizeEvent(QResizeEvent*) override;

  private:
    BlankDesk& desk_;
    std::vector<Tile*> kinds_;
};

/// The outline of a body in a box, as large as it fits: stations measured and assumed drawn differently.
void paintOutline(QPainter& p, const QRectF& box, const StationTable& table, const Landmarks& landmarks,
                  bool points);

}  // namespace nine::app
