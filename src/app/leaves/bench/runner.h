// The step runner: one step at a time, to be read from two metres, in a window of its own so that it stays
// while one looks elsewhere. Space goes on, whatever is asked; a foot switch is any key that does what Space
// does.
//
// It shows what BenchRun says and records what the painter does; nothing of the run is kept here but which
// question is in view. Drawn at 1280 x 800 and scaled to the window.
#pragma once

#include <QLineEdit>
#include <QWidget>

#include "app/leaves/bench/bench_desk.h"
#include "app/sheet/body_view.h"

namespace nine::app {

/// Margins at 1280 x 800, left and right of the words.
constexpr double kRunnerSide = 60, kRunnerRight = 440;

class Runner : public QWidget {
    Q_OBJECT
  public:
    Runner(LeafContext context, BenchDesk& desk, QWidget* parent = nullptr);

    enum class Mode { Step, Mishap, Change, Insert, Rescue, Over };
    Mode mode() const { return mode_; }
    /// The question in view; null when the step itself is.
    const Gate* gate() const;
    /// Gates of the task in hand that are answered, and all of them.
    int answered() const;
    const std::vector<Gate>& gates() const { return gates_; }
    /// The opening ticked off, of the question for openings.
    const std::set<int>& ticked() const { return ticked_; }
    QRectF bigButton() const { return button_; }
    QRectF bodyBox(int lure) const;
    /// The body in hand, by its tag.
    int lure() const { return lure_; }

    /// What Space does: answers what is asked, else the step is done.
    void goOn();
    void goBack();

  protected:
    void paintEvent(QPaintEvent*) override;
    void resizeEvent(QResizeEvent*) override { layOutPose(); }
    void keyPressEvent(QKeyEvent*) override;
    void mousePressEvent(QMouseEvent*) override;
    void showEvent(QShowEvent*) override;
    void hideEvent(QHideEvent*) override { tick_.stop(); }
    bool eventFilter(QObject* on, QEvent* event) override;

  private:
    void follow();
    void layOutPose();
    void setMode(Mode mode);
    void choose(int number);
    void takeTyped();
    void askFor(const QString& prompt, std::function<void(const QString&)> taken);
    double scale() const;
    QFont font(double size, int weight = QFont::Normal) const;
    /// Drawn as large as fits, not above `size`; elided when even a third of it is too large.
    double line(QPainter& p, const QPointF& at, const QString& words, double size, int weight,
                const QColor& colour, double wide);
    /// Wrapped; returns the foot.
    double paragraph(QPainter& p, const QRectF& box, const QString& words, double size, int weight,
                     const QColor& colour);
    void paintHead(QPainter& p);
    void paintTitle(QPainter& p);
    void paintSettings(QPainter& p);
    void paintGates(QPainter& p);
    void paintBodies(QPainter& p);
    void paintDrop(QPainter& p);
    void paintPose(QPainter& p);
    void paintOpenings(QPainter& p);
    /// Openings of the masks a task has to do with, as they lie in the picture of the body.
    std::vector<QPolygonF> openingsOf(const BenchTask& task) const;
    void paintTimer(QPainter& p);
    void paintFoot(QPainter& p);
    void paintList(QPainter& p, const QString& title, const QStringList& rows);
    void paintRescue(QPainter& p);
    void paintOver(QPainter& p);
    int secondsLeft() const;
    int secondsOf(const BenchTask& task) const;
    int bodyNow() const;
    bool fault(QString& words) const;

    LeafContext context_;
    BenchDesk& desk_;
    Mode mode_ = Mode::Step;
    std::string taskShown_;
    std::vector<Gate> gates_;
    std::set<int> ticked_;
    int lure_ = 0;  ///< chosen by hand; 0: as the time says
    std::function<void(const QString&)> taken_;
    QLineEdit* typed_;
    QString prompt_;
    QRectF button_;
    std::vector<std::pair<int, QRectF>> bodies_, openings_, choices_;
    BodyView* pose_;
    BodyResult posed_;
    QRectF poseBox_;
    std::tuple<SkinPtr, std::shared_ptr<const Image>, QRectF, bool, double> placed_;  ///< what pose_ shows
    std::shared_ptr<const Image> posedSkin_;
    std::string posedStep_;
    LatestOnly<std::shared_ptr<const Image>> skinSlot_{this, Urgency::Soon};
    QTimer tick_;
};

}  // namespace nine::app
