// The stem: navigation drawn as one stem with a leaflet for each page of the job.
#pragma once

#include <QWidget>
#include <vector>

#include "app/leaves/leaf_entry.h"

namespace nine::app {

class Stem : public QWidget {
    Q_OBJECT
  public:
    explicit Stem(QWidget* parent = nullptr);

    void setEntry(int index, const LeafEntry& entry);
    const LeafEntry& entry(int index) const { return entries_[static_cast<std::size_t>(index)]; }
    int current() const { return current_; }
    void setCurrent(int index);
    QString spokenName(int index) const;
    QSize sizeHint() const override { return {132, 700}; }

  signals:
    /// A leaf that is not there yet was clicked.
    void chosen(int index);

  protected:
    void paintEvent(QPaintEvent*) override;
    void mousePressEvent(QMouseEvent* event) override;
    void keyPressEvent(QKeyEvent* event) override;
    bool event(QEvent* event) override;

  private:
    int leafCount() const { return static_cast<int>(entries_.size()); }
    double rowHeight() const { return (height() - 78.0) / leafCount(); }
    double rowTop(int index) const { return 64 + index * rowHeight(); }
    int rowAt(double y) const;
    QPointF stemAt(double y) const;
    void paintLeaflet(QPainter& p, int index, const QColor& ground) const;

    std::vector<LeafEntry> entries_;
    int current_ = 0, focus_ = 0;
};

}  // namespace nine::app
