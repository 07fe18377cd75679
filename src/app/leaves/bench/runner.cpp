#include "app/leaves/bench/runner.h"

#include <QKeyEvent>
#include <QMouseEvent>
#include <QPainter>
#include <algorithm>
#include <cmath>

#include "app/leaves/bench/bench_words.h"
#include "app/sheet/names.h"
#include "app/theme/theme.h"

namespace nine::app {

Runner::Runner(LeafContext context, BenchDesk& desk, QWidget* parent)
    : QWidget(parent, Qt::Window),
      context_(context),
      desk_(desk),
      typed_(new QLineEdit(this)),
      pose_(new BodyView(BodyView::From::Along, this)) {
    setWindowTitle(tr("At the bench"));
    setAccessibleName(tr("Step runner"));
    setObjectName("runner");
    setFocusPolicy(Qt::StrongFocus);
    setMinimumSize(640, 400);
    resize(1280, 800);
    typed_->hide();
    typed_->installEventFilter(this);
    connect(&desk_, &BenchDesk::changed, this, &Runner::follow);
    connect(pose_, &BodyView::redrawn, this, [this] { update(); });
    constexpr int kTick_ms = 500;
    tick_.setInterval(kTick_ms);
    connect(&tick_, &QTimer::timeout, this, [this] { update(); });
    follow();
}

void Runner::showEvent(QShowEvent*) {
    tick_.start();
    follow();
    setFocus();
}

double Runner::scale() const {
    return std::min(width() / 1280.0, height() / 800.0);
}
QFont Runner::font(double size, int weight) const {
    return inter(std::max(10.5, size * scale()), weight);
}

const Gate* Runner::gate() const {
    const BenchTask* task = desk_.run().task();
    if (!task || mode_ == Mode::Over) return nullptr;
    const auto& answered = desk_.run().state().gates;
    const auto of = answered.find(task->id);
    for (const Gate& g : gates_) {
        // What is asked afterwards waits until the painter says that the step is done.
        const bool yet = of != answered.end() && of->second.count(g.id);
        if (!yet && (!g.after || (of != answered.end() && of->second.count("step")))) return &g;
    }
    return nullptr;
}

int Runner::answered() const {
    const BenchTask* task = desk_.run().task();
    const auto of = task ? desk_.run().state().gates.find(task->id) : desk_.run().state().gates.end();
    if (of == desk_.run().state().gates.end()) return 0;
    return static_cast<int>(std::count_if(gates_.begin(), gates_.end(),
                                          [&](const Gate& g) { return of->second.count(g.id) > 0; }));
}

void Runner::follow() {
    const BenchTask* task = desk_.run().task();
    const std::string now = task ? task->id : std::string();
    if (now != taskShown_) {
        taskShown_ = now;
        ticked_.clear();
        lure_ = 0;
        typed_->hide();
        if (mode_ != Mode::Over) mode_ = Mode::Step;
    }
    gates_ = task ? desk_.gatesOfRun(*task) : std::vector<Gate>();
    if (desk_.run().there() && !task) mode_ = Mode::Over;
    if (task && mode_ == Mode::Over) mode_ = Mode::Step;
    layOutPose();
    update();
}

void Runner::goOn() {
    BenchRun& run = desk_.run();
    const BenchTask* task = run.task();
    if (run.state().paused()) {
        run.add(Happened::Resumed);
        return;
    }
    if (mode_ == Mode::Over) {
        if (!run.state().isOver()) run.add(Happened::Ended);
        close();
        return;
    }
    if (mode_ != Mode::Step) return setMode(Mode::Step);
    if (!task) return;
    if (const Gate* g = gate()) {
        run.add(Happened::Gate, g->id);
    } else {
        const bool asksAfter =
            std::any_of(gates_.begin(), gates_.end(), [](const Gate& x) { return x.after; });
        const auto of = run.state().gates.find(task->id);
        if (asksAfter && (of == run.state().gates.end() || !of->second.count("step"))) {
            run.add(Happened::Gate, "step");
            return;
        }
        run.add(Happened::Done);
        return;
    }
    // The last answer after a step ends it.
    const auto of = run.state().gates.find(task->id);
    if (!gate() && of != run.state().gates.end() && of->second.count("step")) run.add(Happened::Done);
}

void Runner::goBack() {
    if (mode_ != Mode::Step && mode_ != Mode::Over) return setMode(Mode::Step);
    mode_ = Mode::Step;
    desk_.run().add(Happened::Back);
}

void Runner::setMode(Mode mode) {
    mode_ = mode;
    typed_->hide();
    setFocus();
    update();
}

void Runner::askFor(const QString& prompt, std::function<void(const QString&)> taken) {
    prompt_ = prompt;
    taken_ = std::move(taken);
    typed_->clear();
    typed_->setPlaceholderText(prompt);
    typed_->setAccessibleName(prompt);
    typed_->setFont(font(30, QFont::DemiBold));
    const double s = scale();
    typed_->setGeometry(QRectF(60 * s, 330 * s, std::min(760 * s, width() - 120 * s), 58 * s).toRect());
    typed_->show();
    typed_->raise();
    typed_->setFocus();
    update();
}

void Runner::takeTyped() {
    const QString text = typed_->text().trimmed();
    if (taken_) {
        const auto taken = taken_;
        taken(text);
    }
}

bool Runner::eventFilter(QObject* on, QEvent* event) {
    if (on == typed_ && event->type() == QEvent::KeyPress) {
        // Neither goes on to the runner, where it would end the step.
        const int key = static_cast<QKeyEvent*>(event)->key();
        if (key == Qt::Key_Escape) {
            setMode(Mode::Step);
            return true;
        }
        if (key == Qt::Key_Return || key == Qt::Key_Enter) {
            takeTyped();
            return true;
        }
    }
    return QWidget::eventFilter(on, event);
}

bool Runner::fault(QString& words) const {
    if (!desk_.run().trouble()) return false;
    words = said(*desk_.run().trouble());
    return true;
}

/// A choice of a list, by its number from 1.
void Runner::choose(int number) {
    BenchRun& run = desk_.run();
    const BenchTask* task = run.task();
    const JobOnBench* job = desk_.jobOfRun();
    if (mode_ == Mode::Mishap) {
        if (number > static_cast<int>(mishaps().size())) return;
        run.add(Happened::Mishap, std::string(mishaps()[static_cast<std::size_t>(number - 1)].id), {},
                task && !task->steps.empty() ? task->steps.front() : "", bodyNow());
        return setMode(Mode::Step);
    }
    if (mode_ != Mode::Change || !task || !job) return;
    const Step* step = mainStep(*job, *task);
    const auto keys = benchKeys();
    if (!step || number > static_cast<int>(keys.size())) return;
    const BenchKey& key = keys[static_cast<std::size_t>(number - 1)];
    const std::string id(key.id), stepId = step->id;
    askFor(id == "pressure_kpa" ? tr("%1, psi").arg(capital(said(Words(key.name))))
                                : capital(said(Words(key.name))),
           [this, id, stepId](const QString& text) {
               std::string value = text.toStdString();
               bool number_ = false;
               const double typed = QString(text).replace(',', '.').toDouble(&number_);
               if (id == "pressure_kpa" && number_)
                   value = QString::number(typed * kKpaPerPsi, 'g', 12).toStdString();
               else if (id != "paint" && number_)
                   value = QString::number(typed, 'g', 12).toStdString();
               if (id == "paint")  // by its name, as it stands on the bottle
                   if (const JobOnBench* now = desk_.jobOfRun())
                       for (const Bottle& b : now->facts.paints)
                           if (QString::fromStdString(b.name).compare(text, Qt::CaseInsensitive) == 0)
                               value = b.id;
               if (const Status ok = checkChange(id, value); !ok) {
                   prompt_ = said(ok.error());
                   update();
                   return;
               }
               desk_.run().add(Happened::Changed, id, value, stepId, lure_);
               setMode(Mode::Step);
           });
}

void Runner::keyPressEvent(QKeyEvent* event) {
    // In one piece: one key after the other.
    BenchRun& run = desk_.run();
    const bool list = mode_ == Mode::Mishap || mode_ == Mode::Change;
    if (list && event->key() >= Qt::Key_1 && event->key() <= Qt::Key_9)
        return choose(event->key() - Qt::Key_0);
    if (run.state().paused() && event->key() != Qt::Key_P && event->key() != Qt::Key_Escape) {
        if (!event->isAutoRepeat()) goOn();
        return;
    }
    switch (event->key()) {
        case Qt::Key_Backspace:
            if (!event->isAutoRepeat()) goBack();
            return;
        case Qt::Key_Escape:
            if (mode_ != Mode::Step && mode_ != Mode::Over) return setMode(Mode::Step);
            close();
            return;
        case Qt::Key_P:
            if (mode_ != Mode::Over) run.add(run.state().paused() ? Happened::Resumed : Happened::Paused);
            return;
        case Qt::Key_M:
            if (run.task()) setMode(mode_ == Mode::Mishap ? Mode::Step : Mode::Mishap);
            return;
        case Qt::Key_C:
            if (run.task()) setMode(mode_ == Mode::Change ? Mode::Step : Mode::Change);
            return;
        case Qt::Key_H:
            if (run.task()) setMode(mode_ == Mode::Rescue ? Mode::Step : Mode::Rescue);
            return;
        case Qt::Key_I:
            if (!run.task()) return;
            setMode(Mode::Insert);
            askFor(tr("What was done besides? A mist of lime ..."), [this](const QString& text) {
                if (!text.isEmpty()) desk_.run().add(Happened::Inserted, {}, text.toStdString());
                setMode(Mode::Step);
            });
            return;
        case Qt::Key_S:
            if (run.task() && mode_ == Mode::Step) run.add(Happened::Skipped);
            return;
        case Qt::Key_R:
            if (run.task() && mode_ == Mode::Step) run.add(Happened::Repeated);
            return;
        case Qt::Key_N:  // it is not so: go on, but keep it
            if (const Gate* g = gate(); g && mode_ == Mode::Step) run.add(Happened::Gate, g->id, "no");
            return;
        case Qt::Key_Left:
        case Qt::Key_Right: {
            const BenchTask* task = run.task();
            if (!task) return;
            const int by = event->key() == Qt::Key_Right ? 1 : -1;
            lure_ = std::clamp(bodyNow() + by, task->firstLure, task->firstLure + task->lures - 1);
            update();
            return;
        }
        case Qt::Key_F11:
            setWindowState(windowState() ^ Qt::WindowFullScreen);
            return;
        case Qt::Key_Shift:
        case Qt::Key_Control:
        case Qt::Key_Alt:
        case Qt::Key_Meta:
        case Qt::Key_Tab:
        case Qt::Key_Up:
        case Qt::Key_Down:
            return QWidget::keyPressEvent(event);
        default:
            // Space, Return, or whatever a foot switch sends. A key that is held down counts once.
            if (!event->isAutoRepeat()) goOn();
    }
}

void Runner::mousePressEvent(QMouseEvent* event) {
    const QPointF at = event->position();
    setFocus();
    if (button_.contains(at)) return goOn();
    for (const auto& [number, box] : choices_)
        if (box.contains(at)) return choose(number);
    for (const auto& [lure, box] : bodies_)
        if (box.contains(at)) {
            lure_ = lure;
            update();
            return;
        }
    for (const auto& [opening, box] : openings_)
        if (box.contains(at)) {
            if (!ticked_.erase(opening)) ticked_.insert(opening);
            if (const Gate* g = gate();
                g && g->openings > 0 &&
                static_cast<int>(ticked_.size()) >= static_cast<int>(openings_.size()))
                goOn();
            update();
            return;
        }
}

QRectF Runner::bodyBox(int lure) const {
    for (const auto& [tag, box] : bodies_)
        if (tag == lure) return box;
    return {};
}

int Runner::secondsOf(const BenchTask& task) const {
    return task.hands_s;
}

int Runner::secondsLeft() const {
    const BenchTask* task = desk_.run().task();
    const RunState& state = desk_.run().state();
    if (!task || !state.taskBegan) return 0;
    if (const Gate* g = gate(); g && !g->after) return secondsOf(*task);  // not begun yet
    const Moment now = state.pausedAt ? *state.pausedAt : std::max(desk_.now(), *state.taskBegan);
    return secondsOf(*task) - static_cast<int>(now - *state.taskBegan);
}

/// The body that is in hand, as the time says unless one was chosen.
int Runner::bodyNow() const {
    const BenchTask* task = desk_.run().task();
    if (!task) return 0;
    if (lure_ > 0) return lure_;
    const int each_s = std::max(1, task->hands_s / std::max(1, task->lures));
    const int gone_s = std::max(0, task->hands_s - secondsLeft());
    return task->firstLure + std::clamp(gone_s / each_s, 0, task->lures - 1);
}

void Runner::layOutPose() {
    const BenchTask* task = desk_.run().task();
    const JobOnBench* job = desk_.jobOfRun();
    const double s = scale();
    poseBox_ = QRectF(width() - 400 * s, 372 * s, 350 * s, 170 * s);
    if (!task || !job || !job->on || context_.results.body().skin == nullptr) return;
    const Step* step = mainStep(*job, *task);
    if (!step) return;
    const auto pose = poseOf(*job, *step);
    posed_ = context_.results.body();
    posed_.skin = job->on->skin;
    posed_.drawn = std::make_shared<const DrawnBody>(job->on->body);
    posed_.picture = posedSkin_ ? posedSkin_ : posed_.bare;
    const bool above = pose && pose->view == PoseView::Back;
    if ((above ? BodyView::From::Above : BodyView::From::Along) !=
        (pose_->property("above").toBool() ? BodyView::From::Above : BodyView::From::Along)) {
        delete pose_;
        pose_ = new BodyView(above ? BodyView::From::Above : BodyView::From::Along, this);
        pose_->setProperty("above", above);
        connect(pose_, &BodyView::redrawn, this, [this] { update(); });
    }
    // Placing costs milliseconds: only where something is different.
    const auto now = std::tuple(posed_.skin, posed_.picture, poseBox_, above, devicePixelRatioF());
    if (now != placed_) {
        placed_ = now;
        pose_->place(posed_, poseBox_, 0, Side::Left, devicePixelRatioF());
    }
    if (posedStep_ == step->id) return;
    posedStep_ = step->id;
    const auto on = job->on;
    const std::size_t place = job->place(step->id);
    skinSlot_.request(
        [on, place](const Task&) { return std::make_shared<const Image>(colourAfter(*on, place)); },
        [this](std::shared_ptr<const Image> skin) {
            posedSkin_ = std::move(skin);
            layOutPose();
            update();
        });
}

}  // namespace nine::app
