// Sentences with values in them: words flow and wrap, values are edited in place.
#pragma once

#include <QLayout>
#include <QLineEdit>
#include <QWidget>
#include <functional>
#include <optional>

namespace nine::app {

/// A value in a sentence. A click selects all of it; Return takes what was typed, shows what was taken and
/// keeps the focus; Esc puts the old one back. The wheel works only when focused. Undo and redo are the job's
/// while nothing is half typed. A value belongs to something with an id: what is typed for one thing is never
/// taken for another.
class ValueChip : public QLineEdit {
    Q_OBJECT
  public:
    enum class Kind { Length, Count, Number };
    ValueChip(Kind kind, int decimals, double step, QWidget* parent = nullptr);

    /// For what is read from across the bench.
    void setLarge();
    void setValue(double value);
    double value() const { return value_; }
    /// Says what is wrong with the last typed value; empty when nothing is.
    void setWrong(const QString& why);
    const QString& wrong() const { return wrong_; }

    /// What the value is of. While something is half typed, that stays the thing it was typed for.
    void setOwner(const std::string& id);
    const std::string& owner() const { return owner_; }

  signals:
    void wrongChanged();
    void committed(double value);
    /// Enter with a value that was taken, Esc, or the focus has gone.
    void finished();

  protected:
    void keyPressEvent(QKeyEvent*) override;
    bool event(QEvent*) override;
    void focusInEvent(QFocusEvent*) override;
    void focusOutEvent(QFocusEvent*) override;
    void mousePressEvent(QMouseEvent*) override;
    void mouseDoubleClickEvent(QMouseEvent*) override;
    void wheelEvent(QWheelEvent*) override;
    QSize sizeHint() const override;

  private:
    void commit();
    void step(double by);
    void restore();
    void display(double value);

    Kind kind_;
    int decimals_;
    double step_, value_ = 0;
    QString wrong_;
    std::string owner_, nextOwner_;
};

/// Lays widgets out like words.
class FlowLayout : public QLayout {
  public:
    explicit FlowLayout(QWidget* parent, int lineStep = 25);
    ~FlowLayout() override;
    void addItem(QLayoutItem* item) override { items_.push_back(item); }
    int count() const override { return static_cast<int>(items_.size()); }
    QLayoutItem* itemAt(int i) const override { return items_.value(i); }
    QLayoutItem* takeAt(int i) override { return i >= 0 && i < count() ? items_.takeAt(i) : nullptr; }
    bool hasHeightForWidth() const override { return true; }
    int heightForWidth(int width) const override { return arrange(QRect(0, 0, width, 0), false); }
    QSize sizeHint() const override { return {200, heightForWidth(268)}; }
    QSize minimumSize() const override { return {100, lineStep_}; }
    void setGeometry(const QRect& rect) override;

  private:
    int arrange(const QRect& rect, bool apply) const;
    QList<QLayoutItem*> items_;
    int lineStep_;
};

/// One translated template such as "%1 dots, from %2 to %3." with a widget for each placeholder.
class Sentence : public QWidget {
    Q_OBJECT
  public:
    Sentence(const QString& words, const QList<QWidget*>& values, QWidget* parent = nullptr);
};

}  // namespace nine::app
