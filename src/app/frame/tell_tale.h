// The tell-tale line: one verdict for the job in a sentence with its repair, and what is running.
#pragma once

#include <QPushButton>
#include <QWidget>
#include <functional>

#include "app/sheet/ink.h"

namespace nine::app {

struct Verdict {
    enum class Kind { None, Fine, Caution, Fault } kind = Kind::None;
    QString sentence;
    QString repair;   ///< words of the button; empty for none
    int leaf = -1;    ///< where the cause is
    QString figures;  ///< unfolds on demand
    bool operator==(const Verdict&) const = default;
};

class TellTale : public QWidget {
    Q_OBJECT
  public:
    explicit TellTale(QWidget* parent = nullptr);
    void setVerdict(const Verdict& verdict);
    const Verdict& verdict() const { return verdict_; }
    /// Something the user must know that is no verdict of the job, instead of it until it is clicked away.
    void setNotice(const QString& sentence, const QString& action = {}, std::function<void()> act = {});
    const QString& notice() const { return notice_; }
    /// A notice that only offers something goes; one that warns stays until it is clicked.
    void dropOffer() {
        if (noticeAct_) setNotice({});
    }
    /// Progress 0..1 of what is running, or a finished remark with 1.
    void setRunning(const QString& what, double share);

  signals:
    void causeWanted(int leaf);
    void repairWanted(int leaf);
    void cancelWanted();

  protected:
    void paintEvent(QPaintEvent*) override;
    void mousePressEvent(QMouseEvent*) override;
    void resizeEvent(QResizeEvent*) override;

  private:
    Verdict verdict_;
    QString running_, notice_;
    std::function<void()> noticeAct_;
    double share_ = 1;
    bool unfolded_ = false;
    QPushButton* repair_;
    QPushButton* cancel_;
};

}  // namespace nine::app
