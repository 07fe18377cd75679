// The longest event on the GUI thread during scripted drags, as a table for docs/BENCH.md.
//
//   build/bench-app/bench/nine-app-bench [PHOTO]
#include <QApplication>
#include <QElapsedTimer>
#include <QMouseEvent>
#include <QProcess>
#include <QTest>
#include <QTimer>
#include <ctime>
#include <functional>
#include <iostream>
#include <set>

#include "app/leaves/blank/blank_leaf.h"
#include "app/leaves/blank/blank_page.h"
#include "app/leaves/blank/picture_page.h"
#include "app/leaves/leaves.h"
#include "app/leaves/pattern/pattern_page.h"
#include "app/leaves/spray/spray_page.h"
#include "app/pictures.h"
#include "base/number_text.h"
#include "base/thread_role.h"
#include "pattern/kinds.h"

namespace {

/// Times every event that is delivered, by the clock and in processor time of this thread: on a machine with
/// two busy cores the clock also counts the time in which others ran.
class TimedApplication : public QApplication {
  public:
    using QApplication::QApplication;
    bool notify(QObject* receiver, QEvent* event) override {
        const auto type = event->type();
        const double wall = now(CLOCK_MONOTONIC), cpu = now(CLOCK_THREAD_CPUTIME_ID);
        const char* receiverIs = receiver->metaObject()->className();  // it may be gone afterwards
        ++depth_;
        const bool done = QApplication::notify(receiver, event);
        --depth_;
        wall_ms = std::max(wall_ms, now(CLOCK_MONOTONIC) - wall);
        const double spent = now(CLOCK_THREAD_CPUTIME_ID) - cpu;
        if (depth_ == 0) outer_ms.push_back(spent);
        if (spent > cpu_ms) {
            cpu_ms = spent;
            longest = QString("%1 to %2").arg(type).arg(receiverIs);
        }
        if (verbose && spent > 0.3) std::cerr << type << " to " << receiverIs << ' ' << spent << '\n';
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

/// As a running program waits: events are served as they come. (QTest's waits sleep between looks.)
void serve(int most_ms, const std::function<bool()>& until = {}) {
    QElapsedTimer since;
    since.start();
    QTimer wake;  // an event at the end at the latest
    wake.setTimerType(Qt::PreciseTimer);
    wake.start(most_ms);
    while (since.elapsed() < most_ms && !(until && until()))
        QCoreApplication::processEvents(QEventLoop::AllEvents | QEventLoop::WaitForMoreEvents);
}

void mouse(QWidget* on, QEvent::Type type, const QPointF& at, Qt::MouseButton button, Qt::MouseButtons held) {
    QMouseEvent event(type, at, on->mapToGlobal(at), button, held, Qt::NoModifier);
    QApplication::sendEvent(on, &event);
}

void drag(QWidget* on, const QPointF& from, const QPointF& by) {
    mouse(on, QEvent::MouseButtonPress, from, Qt::LeftButton, Qt::LeftButton);
    for (int i = 1; i <= 60; ++i) {
        mouse(on, QEvent::MouseMove, from + by * i / 60, Qt::NoButton, Qt::LeftButton);
        serve(16);
    }
    mouse(on, QEvent::MouseButtonRelease, from + by, Qt::LeftButton, Qt::NoButton);
}

/// Milliseconds from one step of a drag to what follows from it, step after step.
class Latency {
  public:
    explicit Latency(nine::app::MainWindow& window) : window_(window) {
        using namespace nine::app;
        QObject::connect(&window.holder(), &Holder::redrawn, &window, [this] {
            const nine::Job& job = window_.document().job();
            const BodyResult& body = window_.results().body();
            if (body.blank == job.part<nine::BlankChapter>() &&
                body.pattern == job.part<nine::PatternChapter>())
                note(holder_);
        });
        QObject::connect(&window.results(), &Results::bodyChanged, &window, [this] {
            if (window_.results().body().blank == window_.document().job().part<nine::BlankChapter>() &&
                window_.results().body().pattern == window_.document().job().part<nine::PatternChapter>())
                note(body_);
        });
        QObject::connect(&window.results(), &Results::sketchChanged, &window, [this] {
            const auto& sketch = window_.results().sketch();
            if (sketch) note(sketch->precision == nine::Precision::Preview ? preview_ : exact_);
        });
    }

    /// Drags in single steps, waiting after each until everything that follows has come.
    void drag(QWidget* on, const QPointF& from, const QPointF& step, const char* what) {
        mouse(on, QEvent::MouseButtonPress, from, Qt::LeftButton, Qt::LeftButton);
        constexpr int kSteps = 12;
        for (int i = 1; i <= kSteps; ++i) {
            open_ = {&body_, &holder_, &preview_, &exact_};
            since_.start();
            mouse(on, QEvent::MouseMove, from + step * i, Qt::NoButton, Qt::LeftButton);
            serve(3000, [this] { return open_.empty(); });
            serve(30);
        }
        mouse(on, QEvent::MouseButtonRelease, from + step * kSteps, Qt::LeftButton, Qt::NoButton);
        print(what, "body and its art at a glance", body_, 30);
        print(what, "new picture on the holder", holder_, 40);
        print(what, "mask sketched", preview_, 60);
        print(what, "mask cut exactly", exact_, 300);
    }

  private:
    void note(std::vector<double>& into) {
        if (open_.erase(&into) > 0) into.push_back(static_cast<double>(since_.nsecsElapsed()) * 1e-6);
    }
    static void print(const char* drag, const char* what, std::vector<double>& all, int target) {
        std::sort(all.begin(), all.end());
        if (all.empty()) return;
        std::cout << "| " << drag << ": " << what << " | " << nine::fixedText(all[all.size() / 2], 0) << " | "
                  << nine::fixedText(all.back(), 0) << " | " << target << " |\n";
        all.clear();
    }
    nine::app::MainWindow& window_;
    std::vector<double> body_, holder_, preview_, exact_;
    std::set<std::vector<double>*> open_;
    QElapsedTimer since_;
};

/// From the start of a process of its own to its end right after the first picture of the window, ms.
double coldStart(const QString& program) {
    QElapsedTimer timer;
    timer.start();
    QProcess process;
    process.start(program, {"--quit-when-shown"});
    process.waitForFinished(20000);
    return process.exitCode() == 0 ? static_cast<double>(timer.nsecsElapsed()) * 1e-6 : -1;
}

/// The first row of dots of the job.
int selectRow(nine::app::MainWindow& window) {
    const auto& all = window.document().job().get<nine::PatternChapter>().elements;
    for (std::size_t i = 0; i < all.size(); ++i)
        if (all[i]->kind == "dot_row") {
            window.view().setElement(all[i]->id);
            return static_cast<int>(i);
        }
    return 0;
}

/// The demo's body with so many rows of dots on it, some hundred points each.
nine::Job manyRows(const nine::Job& demo, int count) {
    nine::PatternChapter pattern;
    for (int i = 0; i < count; ++i) {
        nine::Element e;
        e.id = "row-" + std::to_string(i);
        e.kind = "dot_row";
        e.values = nine::usualValues(*nine::findKind(e.kind));
        e.values.set("first_mm", 0.6);
        e.values.set("last_mm", 0.6);
        e.values.set("spacing_mm", 4.0);
        e.dx_mm = 12 + 0.6 * (i % 10);
        e.dg_mm = -8 + 0.08 * i;
        pattern.elements.push_back(std::make_shared<const nine::Element>(e));
    }
    nine::Job job = demo.with(std::move(pattern));
    job = job.with(nine::MasksChapter());
    return job.with(nine::SprayChapter());
}

}  // namespace

int main(int count, char** words) {
    using namespace nine::app;
    if (qEnvironmentVariableIsEmpty("DISPLAY")) qputenv("QT_QPA_PLATFORM", "offscreen");
    TimedApplication application(count, words);
    loadFonts();
    nine::thisThreadPaints = true;
    MainWindow window("/tmp/nine-app-bench");
    window.show();
    (void)QTest::qWaitForWindowExposed(&window);
    std::cout << "| what | longest event, ms of processor | by the clock | 95 % of events within | target | "
                 "which |\n"
                 "|---|---|---|---|---|---|\n";
    window.openDemo();
    waitUntilSettled(window);
    auto* blank = window.findChild<BlankPage*>();
    auto* pattern = window.findChild<PatternPage*>();
    application.forget();
    drag(blank, blank->stationHandle(5, true), QPointF(6, -20));
    row(application, "drag a station");
    waitUntilSettled(window);
    application.forget();
    drag(blank, blank->landmarkHandle("eye"), QPointF(30, 12));
    row(application, "drag a landmark");
    waitUntilSettled(window);
    application.forget();
    const nine::SkinPoint at{nine::Side::Left, 12, 2};
    for (int i = 1; i <= 60; ++i) {
        blank->measure(at, {nine::Side::Left, 12 + 0.7 * i, 0.1 * i - 3});
        serve(16);
    }
    row(application, "drag the end of a measured distance");
    blank->layers().forgetWay();
    window.view().setWrapMap(true);
    waitUntilSettled(window);
    application.forget();
    drag(blank, blank->stationHandle(5, true), QPointF(6, 20));
    row(application, "drag a station under the map of how hard to wrap");
    window.view().setWrapMap(false);
    waitUntilSettled(window);
    BlankDesk& desk = leafOf<BlankLeaf>(window).desk();
    const auto looked = [&] { serve(20000, [&] { return !desk.running(); }); };
    desk.start(BlankDesk::Way::Photo);
    application.forget();
    desk.openPicture(count > 1 ? words[1] : ":/demo/sedge60-photo.jpg");
    desk.setLength(60);
    looked();
    serve(300);
    row(application, "open a photo");
    PicturePage& photo = leafOf<BlankLeaf>(window).picturePage();
    drag(&photo, photo.handle(PicturePage::Grip::Nose), QPointF(-10, 20));
    looked();
    row(application, "drag the axis on it");
    desk.setTool(BlankDesk::Tool::TakeOut);
    drag(&photo, photo.handle(PicturePage::Grip::Tail) + QPointF(-40, -60), QPointF(0, 120));
    looked();
    row(application, "paint a stroke over it");
    desk.leave();
    waitUntilSettled(window);
    window.showLeaf(PatternNumber);
    const int dots = selectRow(window);
    serve(300);
    application.forget();
    drag(pattern, pattern->openingAt(dots, 3), QPointF(20, 10));
    row(application, "drag a row of dots");
    waitUntilSettled(window);
    application.forget();
    window.showLeaf(MasksNumber);
    serve(300);
    row(application, "open Masks");
    window.showLeaf(CutNumber);
    serve(300);
    row(application, "open Cut");

    application.forget();
    window.showLeaf(SprayNumber);
    serve(300);
    row(application, "open Spray");
    auto* spray = window.findChild<SprayPage*>();
    application.forget();
    drag(spray, spray->handleAt(SprayHandle::Distance), QPointF(-60, 20));
    row(application, "drag the gun");
    serve(300);
    application.forget();
    drag(spray, spray->handleAt(SprayHandle::Section), QPointF(80, 0));
    row(application, "drag the section along the body");

    const auto once = [&](const char* what, const auto& work) {
        QElapsedTimer timer;
        std::vector<double> all;
        for (int i = 0; i < 7; ++i) {
            timer.start();
            work();
            all.push_back(static_cast<double>(timer.nsecsElapsed()) * 1e-6);
        }
        std::sort(all.begin(), all.end());
        std::cout << "| " << what << " | " << nine::fixedText(all[3], 1) << " | "
                  << nine::fixedText(all[6], 1) << " | 16 |\n";
    };
    std::cout << "\n| on the GUI thread | median, ms | longest | target |\n|---|---|---|---|\n";
    const QString kept = "/tmp/nine-app-bench/bench.nineleaves.json";
    once("save the job", [&] { (void)window.document().save(kept); });
    once("open it", [&] { (void)window.document().openFile(kept); });
    waitUntilSettled(window);

    std::cout << "\n| step of a drag | median, ms | longest | target |\n|---|---|---|---|\n";
    Latency latency(window);
    window.showLeaf(BlankNumber);
    waitUntilSettled(window);
    latency.drag(blank, blank->stationHandle(5, true), QPointF(0, 1.5), "a station");
    waitUntilSettled(window);
    window.showLeaf(PatternNumber);
    selectRow(window);
    waitUntilSettled(window);
    latency.drag(pattern, pattern->openingAt(dots, 3), QPointF(-1, 1), "a row of dots");
    waitUntilSettled(window);

    // Two hundred elements, some twenty thousand points.
    window.document().edit(manyRows(window.document().job(), 200), "two hundred rows");
    waitUntilSettled(window);
    std::size_t points = 0;
    for (const nine::ArtPtr& art : window.results().body().art)
        if (art)
            for (const nine::Outline& outline : art->outlines()) points += outline.points.size();
    const int among = selectRow(window);
    application.forget();
    drag(pattern, pattern->openingAt(among, 3), QPointF(20, 10));
    const std::string what = "drag a row among 200 elements of " + std::to_string(points) + " points";
    row(application, what.c_str());
    waitUntilSettled(window);
    latency.drag(pattern, pattern->openingAt(among, 3), QPointF(-1, 1), what.c_str());
    waitUntilSettled(window);

    std::vector<double> starts;
    for (int i = 0; i < 5; ++i)
        starts.push_back(coldStart(QCoreApplication::applicationDirPath() + "/../src/app/nine-leaves"));
    std::sort(starts.begin(), starts.end());
    std::cout << "| program started, window painted, program ended | " << nine::fixedText(starts[2], 0)
              << " | " << nine::fixedText(starts[4], 0) << " | 500 |\n";
    return 0;
}
