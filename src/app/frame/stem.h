// The stem: navigation drawn as one stem with nine leaflets, each a page of the job.
#pragma once

#include <QWidget>
#include <array>

namespace nine::app {

enum class LeafState { Nothing, Begun, Ready, Repair };

struct LeafEntry {
    QString name;
    LeafState state = LeafState::Nothing;
    bool built = false;  ///< leaves of later versions are drawn but cannot be opened
    int flags = 0;       ///< how many things there are to repair
    bool fault = false;  ///< whether any of them is a fault
    bool operator==(const LeafEntry&) const = default;
};

class Stem : public QWidget {
    Q_OBJECT
  public:
    static constexpr int kLeaves = 9;
    explicit Stem(QWidget* parent = nullptr);

    void setEntry(int index, const LeafEntry& entry);
    const LeafEntry& entry(int index) const { return entries_[static_cast<std::size_t>(index)]; }
    int current() const { return current_; }
    void setCurrent(int index);
    QString spokenName(int index) const;
    QSize sizeHint() const override { return {132, 700}; }

  signals:
    /// A leaf that is not there yet was clicked.
    void closedChosen(const QString& name);
    void chosen(int index);

  protected:
    void paintEvent(QPaintEvent*) override;
    void mousePressEvent(QMouseEvent* event) override;
    void keyPressEvent(QKeyEvent* event) override;
    bool event(QEvent* event) override;

  private:
    double rowHeight() const { return (height() - 78.0) / kLeaves; }
    double rowTop(int index) const { return 64 + index * rowHeight(); }
    int rowAt(double y) const;
    QPointF stemAt(double y) const;
    void paintLeaflet(QPainter& p, int index, const QColor& ground) const;

    std::array<LeafEntry, kLeaves> entries_;
    int current_ = 0, focus_ = 0;
};

}  // namespace nine::app
