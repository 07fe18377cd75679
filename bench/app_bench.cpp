// The longest event on the GUI thread during scripted drags, as a table for docs/BENCH.md.
//
//   build/bench-app/bench/nine-app-bench
#include <QApplication>
#include <QElapsedTimer>
#include <QMouseEvent>
#include <QTest>
#include <QTimer>
#include <ctime>
#include <iostream>

#include "app/leaves/blank/blank_page.h"
#include "app/leaves/pattern/pattern_page.h"
#include "app/pictures.h"
#include "base/number_text.h"
#include "base/thread_role.h"

namespace {

/// Times every event that is delivered, by the clock and in processor time of this thread: on a machine with
/// two busy cores the clock also counts the time in which others ran.
class TimedApplication : public QApplication {
  public:
    using QApplication::QApplication;
    bool notify(QObject* receiver, QEvent* event) override {
        const auto type = event->type();
        const double wall = now(CLOCK_MONOTONIC), cpu = now(CLOCK_THREAD_CPUTIME_ID);
        ++depth_;
        const bool done = QApplication::notify(receiver, event);
        --depth_;
        wall_ms = std::max(wall_ms, now(CLOCK_MONOTONIC) - wall);
        const double spent = now(CLOCK_THREAD_CPUTIME_ID) - cpu;
        if (depth_ == 0) outer_ms.push_back(spent);
        if (spent > cpu_ms) {
            cpu_ms = spent;
            longest = QString("%1 to %2").arg(type).arg(receiver->metaObject()->className());
        }
        if (verbose && spent > 0.3)
            std::cerr << type << " to " << receiver->metaObject()->className() << ' ' << spent << '\n';
        return done;
    }
    void forget() {
        wall_ms = cpu_ms = 0;
        outer_ms.clear();
    }
    static double now(clockid_t clock) {
        timespec t{};
        clock_gettime(clock, &t);
        return 1e3 * static_cast<double>(t.tv_sec) + 1e-6 * static_cast<double>(t.tv_nsec);
    }
    double wall_ms = 0, cpu_ms = 0;
    std::vector<double> outer_ms;
    QString longest;
    bool verbose = qEnvironmentVariableIsSet("NINE_BENCH_EVENTS");

  private:
    int depth_ = 0;
};

void row(TimedApplication& application, const char* what) {
    auto& all = application.outer_ms;
    std::sort(all.begin(), all.end());
    const double usual = all.empty() ? 0 : all[all.size() * 95 / 100];
    std::cout << "| " << what << " | " << nine::fixedText(application.cpu_ms, 1) << " | "
              << nine::fixedText(application.wall_ms, 1) << " | " << nine::fixedText(usual, 1) << " | 16 | "
              << application.longest.toStdString() << " |\n";
    application.forget();
}

void drag(QWidget* on, const QPointF& from, const QPointF& by) {
    const auto send = [&](QEvent::Type type, const QPointF& at, Qt::MouseButton button,
                          Qt::MouseButtons held) {
        QMouseEvent event(type, at, on->mapToGlobal(at), button, held, Qt::NoModifier);
        QApplication::sendEvent(on, &event);
    };
    send(QEvent::MouseButtonPress, from, Qt::LeftButton, Qt::LeftButton);
    for (int i = 1; i <= 60; ++i) {
        send(QEvent::MouseMove, from + by * i / 60, Qt::NoButton, Qt::LeftButton);
        QTest::qWait(16);
    }
    send(QEvent::MouseButtonRelease, from + by, Qt::LeftButton, Qt::NoButton);
}

}  // namespace

int main(int count, char** words) {
    using namespace nine::app;
    if (qEnvironmentVariableIsEmpty("DISPLAY")) qputenv("QT_QPA_PLATFORM", "offscreen");
    TimedApplication application(count, words);
    loadFonts();
    nine::thisThreadPaints = true;
    MainWindow window("/tmp/nine-app-bench");
    QElapsedTimer start;
    start.start();
    window.show();
    (void)QTest::qWaitForWindowExposed(&window);
    std::cout << "| what | longest event, ms of processor | by the clock | 95 % of events within | target | which |\n"
                 "|---|---|---|---|---|---|\n";
    std::cout << "| window shown (after the program has started) | " << start.elapsed() << " | | | 500 | |\n";
    window.openDemo();
    waitUntilSettled(window);
    auto* blank = window.findChild<BlankPage*>();
    auto* pattern = window.findChild<PatternPage*>();
    application.forget();
    drag(blank, blank->stationHandle(5, true), QPointF(6, -20));
    row(application, "drag a station");
    waitUntilSettled(window);
    window.showLeaf(PatternNumber);
    window.view().setElement(1);
    QTest::qWait(300);
    application.forget();
    drag(pattern, pattern->openingAt(1, 3), QPointF(20, 10));
    row(application, "drag a row of dots");
    waitUntilSettled(window);
    application.forget();
    window.showLeaf(MasksNumber);
    QTest::qWait(300);
    row(application, "open Masks");
    window.showLeaf(CutNumber);
    QTest::qWait(300);
    row(application, "open Cut");
    return 0;
}
