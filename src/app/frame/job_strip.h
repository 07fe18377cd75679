// The job strip: which blank wears which pattern, the side looked at, units, saved state, undo and redo, the
// file menu.
#pragma once

#include <QToolButton>
#include <QWidget>

#include "app/document/job_document.h"
#include "app/document/view_state.h"

namespace nine::app {

class JobStrip : public QWidget {
    Q_OBJECT
  public:
    JobStrip(JobDocument& document, ViewState& view, QWidget* parent = nullptr);
    void setMenu(QMenu* menu) { menu_ = menu; }
    void openMenu();

  signals:
    void unitsToggled();

  protected:
    void paintEvent(QPaintEvent*) override;
    void mousePressEvent(QMouseEvent*) override;
    void keyPressEvent(QKeyEvent*) override;

  private:
    QRectF sideBox(int index) const;
    QRectF unitsBox() const;
    QRectF undoBox(bool redo) const;
    double right() const { return width() - 20.0; }

    JobDocument& document_;
    ViewState& view_;
    QMenu* menu_ = nullptr;
    QRectF nameBox_;
};

}  // namespace nine::app
