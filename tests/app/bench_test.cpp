// The Bench leaf as it is used: plan, dragging, the step runner by its keys, what is written down; and the
// Log after it.
#include "app/leaves/bench/bench_leaf.h"

#include <QSignalSpy>
#include <future>

#include "app/leaves/bench/bench_page.h"
#include "app/leaves/bench/bench_sheet.h"
#include "app/leaves/bench/bench_words.h"
#include "app/leaves/bench/runner.h"
#include "app/leaves/log/log_leaf.h"
#include "app/leaves/log/log_page.h"
#include "app/leaves/log/sides_dialog.h"
#include "job/recipe_job.h"
#include "tests/app/window_fixture.h"

namespace nine::app {
namespace {

/// The plain job with a recipe and ten lures; made once.
const Job& begun() {
    static const Job job = std::async(std::launch::async, [] {
                               Derivations derived(kTestVertices);
                               Job made = test::need(withBegunRecipe(test::need(test::plainJob()), derived,
                                                                     genericShelf(), School::LightToDark));
                               LayersChapter layers = made.get<LayersChapter>();
                               layers.lures = 10;
                               return made.with(std::move(layers));
                           }).get();
    return job;
}

class BenchTest : public ::testing::Test {
  protected:
    void SetUp() override {
        useInches(false);
        open();
    }
    void TearDown() override { window->document().history().setClean(); }
    /// A window on the same folder, as after a start anew.
    void open() {
        window = std::make_unique<MainWindow>(QString::fromStdString(folder.path()), theDerivations());
        window->show();
        (void)QTest::qWaitForWindowExposed(window.get());
        window->document().open(begun(), {});
        desk().setClock([this] { return now; });
        window->showLeaf(BenchNumber);
        // Masks come after the plan, and change it once more.
        ASSERT_TRUE(waitUntilSettled(*window));
        ASSERT_TRUE(settle());
    }
    BenchLeaf& leaf() { return leafOf<BenchLeaf>(*window); }
    BenchDesk& desk() { return leaf().desk(); }
    BenchRun& run() { return desk().run(); }
    Runner& runner() { return leaf().runner(); }
    BenchPage& page() { return *window->findChild<BenchPage*>(); }
    bool settle() {
        return QTest::qWaitFor([&] { return leaf().settled() && desk().study().planned; }, 60000);
    }
    void key(int k) { QTest::keyClick(&runner(), static_cast<Qt::Key>(k)); }
    void openRunner() {
        leaf().openRunner();
        ASSERT_TRUE(run().going());
        (void)QTest::qWaitForWindowExposed(&runner());
    }
    /// Space until the task in hand is another one.
    void finishTask() {
        const std::string task = run().state().current();
        for (int k = 0; k < 30 && run().state().current() == task; ++k) key(Qt::Key_Space);
    }
    std::string currentAct() { return run().task() ? run().task()->steps.front() : ""; }

    test::TemporaryFolder folder;
    Moment now = 1764491400;  // a Sunday, 08:30 UTC
    std::unique_ptr<MainWindow> window;
};

TEST_F(BenchTest, APlanIsThereWithItsDaysAndItsTrays) {
    const BenchStudy& study = desk().study();
    EXPECT_EQ(study.wish.work.trays.size(), 2u);
    EXPECT_GE(study.plan.schedule.ready_s, study.plan.bound_s);
    EXPECT_FALSE(page().days().empty());
    EXPECT_EQ(page().days().front(), QDateTime::fromSecsSinceEpoch(now).date());
    // Every task is drawn on some day.
    std::set<std::string> drawn;
    for (int day = 0; day < static_cast<int>(page().days().size()); ++day) {
        page().showDay(day);
        for (const PlacedTask& p : study.plan.schedule.tasks)
            if (!page().boxOf(study.taskOf(p).id).isEmpty()) drawn.insert(study.taskOf(p).id);
    }
    EXPECT_EQ(drawn.size(), study.wish.work.count());
    EXPECT_EQ(window->stem().entry(BenchNumber).state, LeafState::Ready);
}

TEST_F(BenchTest, APlanIsShownWhileBetterOnesAreSoughtAndGivesWayAtOnce) {
    const auto bodies = [&] {
        int n = 0;
        for (const BenchTray& tray : desk().study().wish.work.trays) n += tray.lures;
        return desk().study().planned ? n : 0;
    };
    ASSERT_TRUE(desk().setLures(500));
    ASSERT_TRUE(QTest::qWaitFor([&] { return bodies() == 500; }, 60000));
    EXPECT_TRUE(desk().planning());
    EXPECT_FALSE(leaf().busyWith().isEmpty());
    ASSERT_TRUE(desk().setLures(8));
    ASSERT_TRUE(QTest::qWaitFor([&] { return bodies() == 8 && !desk().planning(); }, 10000));
}

TEST_F(BenchTest, ATaskIsDraggedAndLetGoAgain) {
    page().showDay(0);
    const std::string task = desk().study().taskOf(desk().study().plan.schedule.tasks[4]).id;
    const int before_s = desk().study().placed(task)->start_s;
    const QRectF box = page().boxOf(task);
    ASSERT_FALSE(box.isEmpty());
    const QPoint from = box.center().toPoint();
    QTest::mousePress(&page(), Qt::LeftButton, {}, from);
    QTest::mouseMove(&page(), from + QPoint(30, 0));
    QMouseEvent move(QEvent::MouseMove, from + QPointF(60, 0), page().mapToGlobal(from + QPointF(60, 0)),
                     Qt::NoButton, Qt::LeftButton, {});
    QApplication::sendEvent(&page(), &move);
    QTest::mouseRelease(&page(), Qt::LeftButton, {}, from + QPoint(60, 0));
    const auto& locks = window->document().job().get<BenchChapter>().locks;
    ASSERT_EQ(locks.size(), 1u);
    EXPECT_EQ(locks[0].task, task);
    EXPECT_GT(locks[0].start_s, before_s);
    ASSERT_TRUE(settle());
    EXPECT_GE(desk().study().placed(task)->start_s, locks[0].start_s);
    // A quarter of an hour later it stands where it stood on the wall.
    const Moment put = desk().study().start + desk().study().wish.locks[0].start_s;
    now += 900;
    desk().replan();
    ASSERT_TRUE(settle());
    EXPECT_EQ(desk().study().start + desk().study().wish.locks[0].start_s, put);
    window->document().history().undo();
    EXPECT_TRUE(window->document().job().get<BenchChapter>().locks.empty());
    ASSERT_TRUE(settle());
    // By keys.
    page().setFocus();
    desk().select(task);
    QTest::keyClick(&page(), Qt::Key_Right);
    EXPECT_EQ(window->document().job().get<BenchChapter>().locks.size(), 1u);
    QTest::keyClick(&page(), Qt::Key_Delete);
    EXPECT_TRUE(window->document().job().get<BenchChapter>().locks.empty());
}

TEST_F(BenchTest, OneLureIsAListOfSteps) {
    ASSERT_TRUE(desk().setLures(1));
    ASSERT_TRUE(settle());
    EXPECT_TRUE(desk().study().isShort());
    EXPECT_FALSE(page().grab().isNull());
    EXPECT_EQ(desk().setLures(0).error().code, "out_of_range");
    EXPECT_EQ(desk().setLures(501).error().code, "out_of_range");
    EXPECT_EQ(desk().study().wish.work.trays.front().lures, 1);
}

TEST_F(BenchTest, SpaceAnswersWhatIsAskedAndEndsTheStep) {
    openRunner();
    const std::string first = run().state().current();
    finishTask();
    EXPECT_NE(run().state().current(), first);
    // To the first spraying: its checks come one by one before it.
    for (int k = 0;
         k < 200 && (runner().gates().empty() || runner().gate() == nullptr || runner().gate()->id != "bill");
         ++k)
        key(Qt::Key_Space);
    ASSERT_NE(runner().gate(), nullptr);
    EXPECT_EQ(runner().gate()->id, "bill");
    const std::string task = run().state().current();
    std::vector<std::string> asked;
    while (runner().gate()) {
        asked.push_back(runner().gate()->id);
        key(Qt::Key_Space);
        ASSERT_EQ(run().state().current(), task) << "a check is no step";
    }
    EXPECT_EQ(asked.size(), runner().gates().size());
    EXPECT_NE(std::find(asked.begin(), asked.end(), "air"), asked.end());
    key(Qt::Key_Space);
    EXPECT_NE(run().state().current(), task);
    key(Qt::Key_Backspace);
    EXPECT_EQ(run().state().current(), task);
    EXPECT_NE(runner().gate(), nullptr) << "asked again";
    // Any other key is a foot switch; one that is held down counts once.
    key(Qt::Key_F7);
    const int answered = runner().answered();
    QKeyEvent held(QEvent::KeyPress, Qt::Key_F7, Qt::NoModifier, QString(), true);
    QApplication::sendEvent(&runner(), &held);
    EXPECT_EQ(runner().answered(), answered);
    // The large button does what Space does.
    (void)runner().grab();
    QTest::mouseClick(&runner(), Qt::LeftButton, {}, runner().bigButton().center().toPoint());
    EXPECT_EQ(runner().answered(), answered + 1);
}

TEST_F(BenchTest, WhatReallyHappensIsKeptWithItsBody) {
    openRunner();
    for (int k = 0; k < 300 && !(desk().jobOfRun() && mainOnBench(*desk().jobOfRun(), *run().task()) &&
                                 mainOnBench(*desk().jobOfRun(), *run().task())->set && !runner().gate());
         ++k)
        key(Qt::Key_Space);
    const BenchTask task = *run().task();
    ASSERT_GT(task.lures, 2);
    key(Qt::Key_Right);
    key(Qt::Key_Right);
    key(Qt::Key_M);
    EXPECT_EQ(runner().mode(), Runner::Mode::Mishap);
    key(Qt::Key_4);
    ASSERT_EQ(run().state().mishapsSeen.size(), 1u);
    EXPECT_EQ(run().state().mishapsSeen[0].key, "run");
    EXPECT_EQ(run().state().mishapsSeen[0].lure, task.firstLure + 2);
    // Pressure, in psi.
    key(Qt::Key_C);
    key(Qt::Key_1);
    auto* typed = runner().findChild<QLineEdit*>();
    ASSERT_TRUE(typed->isVisible());
    QTest::keyClicks(typed, "999");
    QTest::keyClick(typed, Qt::Key_Return);
    EXPECT_TRUE(run().state().changes.empty()) << "no gun bears that";
    EXPECT_TRUE(typed->isVisible());
    typed->clear();
    QTest::keyClicks(typed, "12,5");
    QTest::keyClick(typed, Qt::Key_Return);
    ASSERT_EQ(run().state().changes.size(), 1u);
    EXPECT_NEAR(std::stod(run().state().changes.begin()->second.at("pressure_kpa")), 12.5 * kKpaPerPsi, 1e-6);
    // Done besides; left out; once more.
    key(Qt::Key_I);
    QTest::keyClicks(typed, "a mist of lime");
    QTest::keyClick(typed, Qt::Key_Return);
    ASSERT_EQ(run().state().inserted.size(), 1u);
    EXPECT_EQ(run().state().inserted[0].value, "a mist of lime");
    key(Qt::Key_R);
    EXPECT_EQ(run().state().repeats.at(task.id), 1);
    key(Qt::Key_S);
    EXPECT_EQ(run().state().fates.at(task.id), TaskFate::Skipped);
    // A pause: the timer stands still, and whatever key goes on.
    now += 60;
    key(Qt::Key_P);
    EXPECT_TRUE(run().state().paused());
    now += 600;
    key(Qt::Key_Space);
    EXPECT_FALSE(run().state().paused());
    EXPECT_EQ(run().state().paused_s, 600);
    // Rescue, and back.
    key(Qt::Key_H);
    EXPECT_EQ(runner().mode(), Runner::Mode::Rescue);
    EXPECT_FALSE(runner().grab().isNull());
    key(Qt::Key_Space);
    EXPECT_EQ(runner().mode(), Runner::Mode::Step);
}

TEST_F(BenchTest, AfterAPowerCutTheRunGoesOnWhereItWas) {
    openRunner();
    for (int k = 0; k < 5; ++k) finishTask();
    const RunState before = run().state();
    ASSERT_TRUE(QTest::qWaitFor([&] { return run().written(); }, 10000));
    window->document().history().setClean();
    window.reset();  // nothing is ended, nothing is said
    open();
    ASSERT_TRUE(QTest::qWaitFor([&] { return !desk().leftRuns().empty(); }, 10000));
    ASSERT_TRUE(run().resume(desk().leftRuns().front().folder));
    EXPECT_EQ(run().state().current(), before.current());
    EXPECT_EQ(run().state().past, before.past);
    desk().replan();
    ASSERT_TRUE(settle());
    // What is done stays where it was, what is left begins now.
    for (const PlacedTask& p : desk().study().plan.schedule.tasks)
        EXPECT_EQ(p.wasDone, std::find(before.past.begin(), before.past.end(), desk().study().taskOf(p).id) !=
                                 before.past.end());
    // Another window on the same run is told.
    MainWindow second(QString::fromStdString(folder.path()), theDerivations());
    EXPECT_EQ(leafOf<BenchLeaf>(second).desk().run().resume(desk().leftRuns().front().folder).error().code,
              "in_use");
}

TEST_F(BenchTest, AFolderThatCannotBeWrittenDoesNotStopTheWork) {
    test::write(folder / "runs", "a file where a folder should be");
    openRunner();
    for (int k = 0; k < 3; ++k) finishTask();
    EXPECT_EQ(run().state().done(), 3);
    ASSERT_TRUE(QTest::qWaitFor([&] { return run().trouble().has_value(); }, 10000));
    EXPECT_FALSE(runner().grab().isNull());
    // And is written as soon as it can be, all of it.
    std::filesystem::remove(folder / "runs");
    ASSERT_TRUE(QTest::qWaitFor([&] { return run().written(); }, 15000));
    const auto known = runsIn(folder / "runs");
    ASSERT_EQ(known.size(), 1u);
    EXPECT_EQ(known[0].state.past, run().state().past);
}

TEST_F(BenchTest, TheRunnerCanBeReadInEverySize) {
    openRunner();
    for (int k = 0; k < 4; ++k) finishTask();
    for (const QSize size : {QSize(1280, 800), QSize(1024, 700), QSize(800, 480)}) {
        runner().resize(size);
        QStringList outside;
        ink::setWitness([&](const QPainter& p, const QString& words, const QRectF& box) {
            if (p.device() == &runner() && !QRectF(runner().rect()).adjusted(-2, -2, 2, 2).contains(box))
                outside << words;
        });
        (void)runner().grab();
        ink::setWitness({});
        EXPECT_TRUE(outside.isEmpty()) << size.width() << ": " << outside.join(" | ").toStdString();
        EXPECT_GT(runner().bigButton().width(), 100);
    }
}

TEST_F(BenchTest, TheStepsArePrinted) {
    const QString html = benchSheetHtml(desk().study());
    EXPECT_TRUE(html.contains("&#9744;"));
    // What is switched off is still printed.
    ASSERT_TRUE(
        desk().change("x", [](BenchChapter& bench) { bench = withGate(std::move(bench), "bill", false); }));
    ASSERT_TRUE(settle());
    EXPECT_EQ(benchSheetHtml(desk().study()), html);
    const QString path = QString::fromStdString(folder / "steps.pdf");
    ASSERT_TRUE(writeBenchSheet(html, path, QPageSize::A4));
    EXPECT_EQ(test::read(path.toStdString()).substr(0, 5), "%PDF-");
}

TEST_F(BenchTest, ARunBecomesACardAndACardAJob) {
    openRunner();
    run().add(Happened::Changed, "coats", "3", begun().get<LayersChapter>().recipe.steps[3].id);
    for (int k = 0; k < 2000 && run().task(); ++k) {
        now += 30;
        key(Qt::Key_Space);
    }
    ASSERT_EQ(run().task(), nullptr);
    EXPECT_EQ(runner().mode(), Runner::Mode::Over);
    key(Qt::Key_Space);
    EXPECT_TRUE(run().state().isOver());
    ASSERT_TRUE(QTest::qWaitFor([&] { return run().written(); }, 10000));
    window->showLeaf(LogNumber);
    LogLeaf& logLeaf = leafOf<LogLeaf>(*window);
    LogDesk& log = logLeaf.desk();
    ASSERT_TRUE(QTest::qWaitFor([&] { return log.settled() && log.book() && !log.runs().empty(); }, 20000));
    log.makeCard(log.runs().front().folder);
    ASSERT_TRUE(QTest::qWaitFor([&] { return log.settled() && log.card() != nullptr; }, 30000));
    EXPECT_EQ(log.book()->cards.size(), 1u);
    EXPECT_TRUE(log.runs().empty()) << "it is not offered again";
    EXPECT_EQ(log.card()->lures, 10);
    EXPECT_FALSE(log.card()->steps.empty());
    // Words, a mark and a picture; found by them after a start anew.
    const std::string id = log.card()->id;
    log.change([](RecipeCard& card) {
        card.text = "Reads well at arm's length";
        card.seen = {"crisp"};
    });
    QImage picture(300, 200, QImage::Format_RGB32);
    picture.fill(Qt::darkGreen);
    picture.save(QString::fromStdString(folder / "lure.png"));
    EXPECT_TRUE(logLeaf.takesFile(QString::fromStdString(folder / "lure.png")));
    ASSERT_TRUE(QTest::qWaitFor([&] { return log.settled() && !log.pictures().empty(); }, 10000));
    log.setSearch("ARM length");
    EXPECT_EQ(log.found().size(), 1u);
    log.setSearch("no such word");
    EXPECT_TRUE(log.found().empty());
    log.setSearch("");
    EXPECT_FALSE(window->findChild<LogPage*>()->grab().isNull());
    // Out and in again as a file, beside the one that is here.
    const QString file = QString::fromStdString(folder / "cards.json");
    QSignalSpy told(&log, &LogDesk::told);
    log.exportTo(file, true);
    ASSERT_TRUE(QTest::qWaitFor([&] { return told.count() == 1; }, 10000));
    log.takeOut();
    ASSERT_TRUE(QTest::qWaitFor([&] { return log.settled() && log.book()->cards.empty(); }, 10000));
    log.putBack();
    ASSERT_TRUE(QTest::qWaitFor([&] { return log.settled() && log.book()->cards.size() == 1; }, 10000));
    log.importFrom(file);
    ASSERT_TRUE(QTest::qWaitFor([&] { return told.count() == 2 && log.settled(); }, 10000));
    EXPECT_EQ(log.book()->cards.size(), 1u);
    // The same again.
    window->document().history().setClean();
    log.select(id);
    log.doAgain(7, "");
    ASSERT_TRUE(
        QTest::qWaitFor([&] { return window->document().job().get<LayersChapter>().lures == 7; }, 20000));
    EXPECT_EQ(window->currentLeaf(), BlankNumber);
}

TEST_F(BenchTest, BothSidesAreTypedOrClickedOnPhotos) {
    std::vector<SideReading> planned(2);
    planned[0].mark = "dot 1";
    planned[0].mask = "Dots";
    planned[0].plannedX_mm = 20;
    planned[0].plannedUp_mm = 10;
    planned[1] = planned[0];
    planned[1].mark = "dot 2";
    planned[1].plannedX_mm = 40;
    SidesDialog dialog(planned, 3, 60, nullptr);
    dialog.show();
    // A body of 600 pixels, nose at the left; the right side has its nose at the right.
    QImage photo(700, 300, QImage::Format_RGB32);
    photo.fill(Qt::white);
    for (const bool right : {false, true}) {
        SidePhoto& side = dialog.photo(right);
        side.setPicture(photo, 60);
        const auto click = [&](double x, double y) {
            QTest::mouseClick(&side, Qt::LeftButton, {},
                              side.pictureToWidget({right ? 700 - x : x, y}).toPoint());
        };
        click(50, 150);
        click(650, 150);
        click(350, 250);
        EXPECT_EQ(side.known(), 3);
        dialog.table().selectRow(0);
        click(250, 150);
        click(450, 150);
    }
    const auto found = dialog.readings();
    ASSERT_EQ(found.size(), 2u);
    const double pixel = 60.0 / 600 * 2.5;  // of the photo, shown smaller
    for (int i = 0; i < 2; ++i) {
        EXPECT_NEAR(*found[static_cast<std::size_t>(i)].leftX_mm, 20 + 20 * i, pixel);
        EXPECT_NEAR(*found[static_cast<std::size_t>(i)].rightX_mm, 20 + 20 * i, pixel);
        EXPECT_NEAR(*found[static_cast<std::size_t>(i)].leftUp_mm, 10, pixel);
        EXPECT_NEAR(*found[static_cast<std::size_t>(i)].rightUp_mm, 10, pixel);
    }
    dialog.table().item(0, 6)->setText("21,3");
    EXPECT_NEAR(*dialog.readings()[0].rightX_mm, 21.3, 1e-9);
}

}  // namespace
}  // namespace nine::app
