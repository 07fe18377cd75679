#include "app/pictures.h"

#include <QApplication>
#include <QDir>
#include <QElapsedTimer>
#include <QMouseEvent>
#include <QThread>
#include <algorithm>

#include "app/leaves/bench/bench_leaf.h"
#include "app/leaves/bench/runner.h"
#include "app/leaves/blank/blank_leaf.h"
#include "app/leaves/blank/blank_page.h"
#include "app/leaves/blank/library_dialog.h"
#include "app/leaves/cut/cut_leaf.h"
#include "app/leaves/log/log_leaf.h"
#include "app/leaves/masks/masks_leaf.h"
#include "app/leaves/pattern/pattern_leaf.h"
#include "app/leaves/pattern/pattern_page.h"
#include "app/leaves/spray/spray_leaf.h"
#include "app/sheet/names.h"
#include "app/sheet/units_text.h"

namespace nine::app {
namespace {

constexpr int kShown_ms = 120;  // what was worked out is on the screen
constexpr int kStill_ms = 400;  // two-by-two pictures follow a little after the results

void mouse(QWidget* on, QEvent::Type type, const QPointF& at, Qt::MouseButtons held) {
    QMouseEvent event(type, at, on->mapToGlobal(at),
                      type == QEvent::MouseMove ? Qt::NoButton : Qt::LeftButton, held, Qt::NoModifier);
    QApplication::sendEvent(on, &event);
}

void drag(QWidget* on, const QPointF& from, const QPointF& by) {
    mouse(on, QEvent::MouseButtonPress, from, Qt::LeftButton);
    for (int i = 1; i <= 8; ++i) {
        mouse(on, QEvent::MouseMove, from + by * i / 8, Qt::LeftButton);
        QApplication::processEvents();
    }
    mouse(on, QEvent::MouseButtonRelease, from + by, Qt::NoButton);
}

void pause(int ms) {
    QElapsedTimer timer;
    timer.start();
    while (timer.elapsed() < ms) {
        QApplication::processEvents(QEventLoop::AllEvents, 20);
        QThread::msleep(5);
    }
}

/// A step through a mask, for its films and figures.
void selectMark(MainWindow& window) {
    int marks = 0;
    for (const Step& step : window.document().job().get<LayersChapter>().recipe.steps)
        if (step.where.reaches == Reaches::Windows && step.act == Act::Colour && ++marks == 4)
            window.view().setStep(step.id);
}

}  // namespace

bool waitUntilSettled(MainWindow& window, int limit_ms) {
    QElapsedTimer timer;
    timer.start();
    do {
        pause(30);
        if (timer.elapsed() > limit_ms) return false;
    } while (!window.results().settled() || !leafOf<SprayLeaf>(window).desk().settled());
    pause(kShown_ms);
    return true;
}

void takeBlankPictures(MainWindow& window, const std::function<void(const char*, QWidget*)>& keep);
void takeSlitPicture(MainWindow& window, const std::function<void(const char*, QWidget*)>& keep);
void takeRunnerPicture(MainWindow& window, const std::function<void(const char*, QWidget*)>& keep);

int takePictures(MainWindow& window, const QString& folder, const QString& leaf, const QString& theme,
                 QTextStream& err) {
    if (!QDir().mkpath(folder)) {
        err << QObject::tr("Cannot make the folder %1.").arg(folder) << Qt::endl;
        return 1;
    }
    if (!window.document().empty() && !waitUntilSettled(window)) return 3;
    const auto keep = [&](const char* name, QWidget* shown) {
        const QString path = QDir(folder).filePath(QString(name) + (theme == "dark" ? "-dark" : "") + ".png");
        if (!shown->grab().save(path)) err << QObject::tr("Cannot write %1.").arg(path) << Qt::endl;
    };
    for (int place = 0; const LeafPlace& at : leafPlaces()) {
        const int number = place++;
        const char* name = at.id;
        const bool runs = number == LogNumber && !window.document().empty();
        if (!leaf.isEmpty() && leaf != name) continue;
        if (runs) takeRunnerPicture(window, keep);
        window.showLeaf(number);
        pause(kStill_ms);
        // The same pattern on other blanks is drawn once the leaf is seen.
        for (int k = 0; k < 600 && leafOf<PatternLeaf>(window).refitDesk().running(); ++k) pause(50);
        for (int k = 0; k < 400 && number == MasksNumber && leafOf<MasksLeaf>(window).desk().running(); ++k)
            pause(50);
        if (number == LayersNumber) selectMark(window);
        const auto settled = [&] {
            const auto leaves = window.findChildren<Leaf*>();
            return std::all_of(leaves.begin(), leaves.end(), [](const Leaf* l) { return l->settled(); });
        };
        for (int k = 0; k < 400 && !settled(); ++k) pause(50);
        waitUntilSettled(window);
        pause(kStill_ms);
        const QString path =
            QDir(folder).filePath(QString(name) + (window.document().empty() ? "-empty" : "") +
                                  (theme == "dark" ? "-dark" : "") + ".png");
        if (!window.grab().save(path)) {
            err << QObject::tr("Cannot write %1.").arg(path) << Qt::endl;
            return 1;
        }
    }
    if (leaf.isEmpty() || leaf == "masks") takeSlitPicture(window, keep);
    if (leaf.isEmpty() || leaf == "blank") takeBlankPictures(window, keep);
    return 0;
}

/// The demo goes over the bench, with a slip or two, and its card into the log.
void takeRunnerPicture(MainWindow& window, const std::function<void(const char*, QWidget*)>& keep) {
    // In one piece: a run as a painter makes one.
    window.showLeaf(BenchNumber);
    BenchLeaf& bench = leafOf<BenchLeaf>(window);
    BenchDesk& desk = bench.desk();
    const auto settled = [&] {
        pause(kStill_ms);
        for (int k = 0; k < 1200 && !desk.settled(); ++k) pause(50);
    };
    settled();
    Moment now = desk.now();
    desk.setClock([&now] { return now; });
    if (!desk.beginRun()) return;
    settled();
    Runner& runner = bench.runner();
    runner.resize(window.size());
    runner.show();
    const auto stepOf = [&]() -> const Step* {
        const BenchTask* task = desk.run().task();
        const JobOnBench* job = desk.jobOfRun();
        for (const std::string& id : task&& job ? task->steps : std::vector<std::string>())
            if (const std::size_t s = job->place(id);
                s < job->steps.size() && paints(job->recipe().steps[s].act))
                return &job->recipe().steps[s];
        return nullptr;
    };
    bool kept = false, changed = false;
    int marks = 0;
    while (const BenchTask* task = desk.run().task()) {
        const Step* step = stepOf();
        const bool masked = step && step->where.reaches == Reaches::Windows;
        if (masked && !kept && !runner.gate() && ++marks > 3) {
            now += task->hands_s * 5 / 8;
            runner.update();
            pause(2500);
            keep("bench-runner", &runner);
            kept = true;
        }
        if (masked && kept && !changed) {
            desk.run().add(Happened::Changed, "pressure_kpa", "89.63", step->id);
            desk.run().add(Happened::Mishap, "lifted", {}, step->id, task->firstLure + 3);
            desk.run().add(Happened::Inserted, {}, QObject::tr("a mist of lime over the back").toStdString());
            changed = true;
        }
        if (!runner.gate()) now += task->hands_s + std::min(task->free_s, 600);
        runner.goOn();
        QApplication::processEvents();
    }
    runner.goOn();
    runner.hide();
    for (int k = 0; k < 200 && !desk.run().written(); ++k) pause(20);
    desk.run().close();
    window.showLeaf(LogNumber);
    LogDesk& log = leafOf<LogLeaf>(window).desk();
    const auto logged = [&] {
        pause(kStill_ms);
        for (int k = 0; k < 1200 && !log.settled(); ++k) pause(50);
    };
    logged();
    if (log.runs().empty()) return;
    log.makeCard(log.runs().front().folder);
    logged();
    std::vector<SideReading> sides = log.plannedReadings();
    int n = 0;
    for (SideReading& side : sides) {
        side.leftX_mm = side.plannedX_mm + 0.1 * (n % 3 - 1);
        side.leftUp_mm = side.plannedUp_mm + 0.1 * ((n + 1) % 3 - 1);
        const bool moved = side.mask == sides.back().mask;
        side.rightX_mm = side.plannedX_mm + (moved ? 0.7 : 0.1 * (n % 2));
        side.rightUp_mm = side.plannedUp_mm + 0.1 * (n % 3 - 1);
        ++n;
    }
    log.change([&](RecipeCard& card) {
        card.text =
            QObject::tr(
                "The halo at 0.6 mm reads well at arm's length. White under the red dots: yes, always.")
                .toStdString();
        card.seen = {"crisp", "bright", "lifted"};
        card.sides = sides;
        card.measuredLure = 11;
    });
    logged();
    desk.setClock(systemClock());
}

/// The last dots of the pattern through one sheet over the whole side, with the slits that tape needs there.
void takeSlitPicture(MainWindow& window, const std::function<void(const char*, QWidget*)>& keep) {
    if (window.document().empty() || maskKinds().size() < 2) return;
    const MaskKind& whole = *maskKinds()[1];
    const Job before = window.document().job();
    std::vector<MaskSpecPtr> specs = maskSpecs(before);
    std::string dots;
    for (const ElementPtr& e : before.get<PatternChapter>().elements)
        if (e->known() && e->isCut() && e->onBothSides() && e->of.empty() && e->values.number("count") > 0)
            dots = e->id;
    std::string shown;
    for (MaskSpecPtr& spec : specs) {
        if (spec->wish.elements != std::vector<std::string>{dots}) continue;
        MaskSpec changed = *spec;
        changed.wish.kind = whole.id();
        changed.wish.values = usualValues(whole.params());
        changed.wish.material = "tape";
        if (changed.side == Side::Left) shown = changed.id;
        spec = std::make_shared<const MaskSpec>(std::move(changed));
    }
    if (shown.empty()) return;
    window.document().edit(withMasks(before, specs), {});
    window.showLeaf(MasksNumber);
    window.view().setMask(shown);
    waitUntilSettled(window);
    const SlitDesk& desk = leafOf<MasksLeaf>(window).desk();
    const auto looked = [&] {
        pause(kStill_ms);
        for (int k = 0; k < 400 && desk.running(); ++k) pause(50);
        waitUntilSettled(window);
        pause(kStill_ms);
    };
    looked();
    std::vector<Slit> slits;
    for (const MaskSpecPtr& spec : specs)
        if (spec->id == shown)
            if (const MaterialAnswer* answer = desk.answerFor(*spec)) slits = answer->plan.slits;
    for (MaskSpecPtr& spec : specs) {
        if (spec->wish.kind != whole.id()) continue;
        MaskSpec changed = *spec;
        changed.wish.slits = slits;
        spec = std::make_shared<const MaskSpec>(std::move(changed));
    }
    window.document().edit(withMasks(before, specs), {});
    looked();
    keep("masks-slits", &window);
    window.document().beginGesture();
    window.document().edit(before, {});
    waitUntilSettled(window);
}

/// The ways to a body and what the Blank leaf can wear, from the demo's own pictures.
void takeBlankPictures(MainWindow& window, const std::function<void(const char*, QWidget*)>& keep) {
    BlankDesk& desk = leafOf<BlankLeaf>(window).desk();
    const auto looked = [&] {
        do pause(60);
        while (desk.running());
        pause(kStill_ms);
    };
    window.showLeaf(BlankNumber);
    desk.start(BlankDesk::Way::Tracing);
    looked();
    keep("blank-tracing-begin", &window);
    desk.openPicture(":/demo/sedge60-tracing.jpg");
    looked();
    keep("blank-tracing", &window);
    desk.start(BlankDesk::Way::Photo);
    desk.openPicture(":/demo/sedge60-photo.jpg");
    looked();
    desk.openPicture(":/demo/sedge60-above.jpg", true);
    desk.showAbove(false);
    desk.setLength(60);
    looked();
    keep("blank-photo", &window);
    desk.start(BlankDesk::Way::Kind);
    desk.setFamily("minnow");
    FamilyReadings readings;
    readings.length_mm = 96;
    readings.height_mm = 17;
    readings.places.push_back({40, 17.0, 13.2, 47.0});
    desk.setReadings(readings);
    looked();
    keep("blank-kind", &window);
    desk.leave();
    LibraryDialog library(window.library(), window.document(), &window);
    library.show();
    do pause(60);
    while (!window.library().ready() && !window.library().problem());
    pause(800);
    keep("blanks", &library);
    library.close();
    if (window.document().empty()) return;
    window.view().setWrapMap(true);
    for (int i = 0; i < 50 && !window.findChild<BlankPage*>()->mapShown(); ++i) pause(100);
    pause(300);
    waitUntilSettled(window);
    keep("blank-map", &window);
    window.view().setWrapMap(false);
    window.view().setLandmark("eye");
    auto* blank = window.findChild<BlankPage*>();
    blank->measure({Side::Left, 9.5, 4.2}, {Side::Left, 52, -4});
    pause(800);
    keep("blank-landmark", &window);
    window.view().setLandmark("");
}

int doTheJob(MainWindow& window, const QString& folder, QTextStream& err) {
    // In one piece: the steps a first user takes, one after the other.
    QTextStream out(stdout);
    if (window.document().empty()) window.openDemo();
    if (!waitUntilSettled(window)) return 3;
    auto* blank = window.findChild<BlankPage*>();
    auto* pattern = window.findChild<PatternPage*>();
    const double before = window.document().job().get<BlankChapter>().table.stations[5].top_mm;
    drag(blank, blank->stationHandle(5, true), QPointF(0, -4));
    if (!waitUntilSettled(window)) return 3;
    out << QObject::tr("Station 5 dragged from %1 to %2 mm high.")
               .arg(before)
               .arg(window.document().job().get<BlankChapter>().table.stations[5].top_mm)
        << Qt::endl;
    window.showLeaf(PatternNumber);
    const auto elements = [&] { return window.document().job().get<PatternChapter>().elements; };
    int dots = 0;  // the first mark that is placed by a landmark and cut
    const auto isDots = [&](const ElementPtr& e) { return !e->anchor.empty() && e->dx_mm > 1; };
    while (dots < static_cast<int>(elements().size()) && !isDots(elements()[static_cast<std::size_t>(dots)]))
        ++dots;
    if (dots == static_cast<int>(elements().size())) return 3;
    const auto mark = [&] { return elements()[static_cast<std::size_t>(dots)]; };
    window.view().setElement(mark()->id);
    const double dx = mark()->dx_mm;
    drag(pattern, pattern->openingAt(dots, 0), QPointF(10, 0));
    if (!waitUntilSettled(window)) return 3;
    if (mark()->dx_mm == dx) {
        err << QObject::tr("A mark was dragged and did not move.") << Qt::endl;
        return 3;
    }
    out << QObject::tr("%1 dragged from %2 to %3 mm behind the gill plate.")
               .arg(QString::fromStdString(mark()->name))
               .arg(dx)
               .arg(mark()->dx_mm, 0, 'f', 1)
        << Qt::endl;
    window.showLeaf(MasksNumber);
    pause(kStill_ms);
    out << window.tellTale().verdict().sentence << Qt::endl;
    std::optional<Status> written;
    leafOf<CutLeaf>(window).exportTo(folder, {true, true, false},
                                     [&](const Status& status) { written = status; });
    while (!written) pause(20);
    if (!*written) {
        err << said(written->error()) << Qt::endl;
        return 1;
    }
    window.showLeaf(SprayNumber);
    pause(kStill_ms);
    const SprayStudy& study = leafOf<SprayLeaf>(window).desk().study();
    if (study.ready()) {
        out << QObject::tr("%1: %2 psi from %3, edge %4 wide.")
                   .arg(QString::fromStdString(study.spec->shownName()))
                   .arg(study.plan->setting.gauge_kpa / kKpaPerPsi, 0, 'f', 0)
                   .arg(lengthText(study.plan->setting.distance_mm, 0),
                        lengthText(study.plan->edge.width_mm, 2))
            << Qt::endl;
    }
    const Status cards =
        writeSprayCards(leafOf<SprayLeaf>(window).allCards(), QDir(folder).filePath("cards.pdf"));
    if (!cards) err << said(cards.error()) << Qt::endl;
    const std::optional<MaskPaper> paper = leafOf<MasksLeaf>(window).paperOfSelected();
    if (paper)
        if (const Status sheet = writeMaskPaper(*paper, QDir(folder).filePath("mask-sheet.pdf")); !sheet)
            err << said(sheet.error()) << Qt::endl;
    const Status saved = window.document().save(QDir(folder).filePath("demo.nineleaves.json"));
    const QString picture = QDir(folder).filePath("spray.png");
    if (!cards || !saved || !window.grab().save(picture)) {
        err << QObject::tr("Cannot write into %1.").arg(folder) << Qt::endl;
        return 1;
    }
    out << QObject::tr("Pages, cards for the bench, job and picture are in %1.").arg(folder) << Qt::endl;
    return window.tellTale().verdict().kind == Verdict::Kind::Fine ? 0 : 3;
}

}  // namespace nine::app
