// The longest event on the GUI thread during scripted drags, as a table for docs/BENCH.md.
//
//   build/bench-app/bench/nine-app-bench
#include <QApplication>
#include <QElapsedTimer>
#include <QMouseEvent>
#include <QTest>
#include <QTimer>
#include <iostream>

#include "app/leaves/blank/blank_page.h"
#include "app/leaves/pattern/pattern_page.h"
#include "app/pictures.h"
#include "base/number_text.h"
#include "base/thread_role.h"

namespace {

/// Times every event that is delivered.
class TimedApplication : public QApplication {
  public:
    using QApplication::QApplication;
    bool notify(QObject* receiver, QEvent* event) override {
        QElapsedTimer timer;
        timer.start();
        const auto type = event->type();
        const bool done = QApplication::notify(receiver, event);
        const double ms = static_cast<double>(timer.nsecsElapsed()) * 1e-6;
        // The window's repaint holds those of its parts: the parts say more.
        if (ms > longest_ms && type != QEvent::UpdateRequest) {
            longest_ms = ms;
            longest = QString("%1 to %2").arg(type).arg(receiver->metaObject()->className());
        }
        return done;
    }
    double longest_ms = 0;
    QString longest;
};

void row(TimedApplication& application, const char* what) {
    std::cout << "| " << what << " | " << nine::fixedText(application.longest_ms, 1) << " | 16 | "
              << application.longest.toStdString() << " |\n";
    application.longest_ms = 0;
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
    std::cout << "| what | longest event, ms | target | which |\n|---|---|---|---|\n";
    std::cout << "| window shown (after the program has started) | " << start.elapsed() << " | 500 | |\n";
    window.openDemo();
    waitUntilSettled(window);
    auto* blank = window.findChild<BlankPage*>();
    auto* pattern = window.findChild<PatternPage*>();
    application.longest_ms = 0;
    drag(blank, blank->stationHandle(5, true), QPointF(6, -20));
    row(application, "drag a station");
    waitUntilSettled(window);
    window.showLeaf(PatternNumber);
    window.view().setElement(1);
    QTest::qWait(300);
    application.longest_ms = 0;
    drag(pattern, pattern->openingAt(1, 3), QPointF(20, 10));
    row(application, "drag a row of dots");
    waitUntilSettled(window);
    application.longest_ms = 0;
    window.showLeaf(MasksNumber);
    QTest::qWait(300);
    row(application, "open Masks");
    window.showLeaf(CutNumber);
    QTest::qWait(300);
    row(application, "open Cut");
    return 0;
}
