// Nothing is lost and nothing lands where it was not meant: selection by id, the queue of writing, recovery,
// unreadable files kept aside, exceptions at thread edges.
#include <sys/stat.h>
#include <sys/wait.h>

#include <csignal>
#include <new>
#include <numeric>

#include "app/document/troubles.h"
#include "app/document/writer.h"
#include "app/frame/job_strip.h"
#include "app/leaves/blank/library_dialog.h"
#include "tests/app/window_fixture.h"
#include "tests/elements.h"

namespace nine::app {
namespace {

namespace fs = std::filesystem;

int countOf(const Job& job, const std::string& id) {
    const ElementPtr e = elementOf(job, id);
    return e ? static_cast<int>(e->values.number("count")) : -1;
}

// Selection
// ---------------------------------------------------------------------------------------------------

/// A number half typed for one mark while another comes back to its place in the list.
TEST_F(WindowTest, AValueHalfTypedStaysWithItsElement) {
    window.showLeaf(PatternNumber);
    selectElement(0);
    ASSERT_EQ(window.view().element(), "parr-bars");
    leafOf<PatternLeaf>(window).removeSelected();
    QApplication::processEvents();
    ASSERT_EQ(window.view().element(), "red-dots");  // its neighbour
    ValueChip* count = chip("Count");
    ASSERT_TRUE(count);
    count->setFocus();
    count->selectAll();
    QTest::keyClicks(count, "7");
    auto* strip = window.findChild<JobStrip*>();
    QTest::mouseClick(strip, Qt::LeftButton, {}, QPoint(strip->width() - 66, 22));  // undo
    QApplication::processEvents();
    ASSERT_EQ(window.document().job().get<PatternChapter>().elements.size(), 3u);
    EXPECT_EQ(window.view().element(), "red-dots");
    if (ValueChip* still = chip("Count")) QTest::keyClick(still, Qt::Key_Return);
    EXPECT_EQ(countOf(window.document().job(), "parr-bars"), 5);
    const int now = countOf(window.document().job(), "red-dots");
    EXPECT_TRUE(now == 7 || now == 8) << now;
}

TEST_F(WindowTest, AChipWhoseElementIsGoneChangesNothing) {
    window.showLeaf(PatternNumber);
    selectElement(1);
    QApplication::processEvents();
    ValueChip* count = chip("Count");
    count->setFocus();
    count->selectAll();
    QTest::keyClicks(count, "3");
    // Another kind of mark takes the id meanwhile, then the mark goes altogether.
    Element e = *window.document().job().get<PatternChapter>().elements[1];
    test::shape(e, test::Bars{});
    window.document().edit(withElement(window.document().job(), 1, e), "kind");
    emit count->committed(3);
    EXPECT_EQ(countOf(window.document().job(), "red-dots"), 5);
    leafOf<PatternLeaf>(window).removeSelected();
    const std::string before = bytes();
    emit count->committed(4);
    EXPECT_EQ(bytes(), before);
}

TEST_F(WindowTest, AStationsValueStaysWithItsStation) {
    window.showLeaf(BlankNumber);
    window.view().setStation(5);
    QApplication::processEvents();
    ValueChip* height = chip("Height above the axis");
    ASSERT_TRUE(height);
    height->setFocus();
    height->selectAll();
    QTest::keyClicks(height, "9");
    const Station six = window.document().job().get<BlankChapter>().table.stations[6];
    window.view().setStation(6);
    QTest::keyClick(height, Qt::Key_Return);
    EXPECT_EQ(window.document().job().get<BlankChapter>().table.stations[6].top_mm, six.top_mm);
    EXPECT_EQ(window.document().job().get<BlankChapter>().table.stations[5].top_mm, 9);
}

TEST_F(WindowTest, ALandmarksValueStaysWithItsLandmark) {
    window.showLeaf(BlankNumber);
    window.view().setLandmark("eye");
    QApplication::processEvents();
    ValueChip* along = chip("Distance from the nose");
    ASSERT_TRUE(along);
    const auto tie = window.document().job().get<BlankChapter>().landmarks.at("line_tie").points;
    window.view().setLandmark("line_tie");
    emit along->committed(10);
    EXPECT_EQ(window.document().job().get<BlankChapter>().landmarks.at("line_tie").points, tie);
    EXPECT_EQ(window.document().job().get<BlankChapter>().landmarks.at("eye").points.front().x(), 10);
}

TEST_F(WindowTest, TheNeighbourIsSelectedWhenTheSelectedGoes) {
    selectElement(2);
    leafOf<PatternLeaf>(window).removeSelected();
    EXPECT_EQ(window.view().element(), "red-dots");
    window.document().history().undo();
    EXPECT_EQ(window.view().element(), "red-dots");  // what is selected stays selected
    leafOf<PatternLeaf>(window).addElement(*findKind("dot_row"));
    const std::string added = window.view().element();
    EXPECT_EQ(countOf(window.document().job(), added), 8);
    window.document().history().undo();
    EXPECT_EQ(window.view().element(), "pale-spots");
}

// Writing
// -----------------------------------------------------------------------------------------------------

TEST(Writing, EverythingAskedIsWrittenInOrderAndReported) {
    std::vector<int> written, reported;
    {
        Writer writer;
        for (int i = 0; i < 50; ++i) {
            writer.write(
                [&written, i]() -> Status {
                    written.push_back(i);
                    if (i % 10 == 3) return Error{"cannot_write", Words::verbatim("no"), ""};
                    if (i % 10 == 7) throw std::bad_alloc();
                    return Done{};
                },
                [&reported, i](const Status& status) {
                    reported.push_back(i);
                    EXPECT_EQ(status ? "" : status.error().code, i % 10 == 3   ? "cannot_write"
                                                                 : i % 10 == 7 ? "internal"
                                                                               : "");
                });
        }
        EXPECT_TRUE(writer.busy());
    }  // drained at its end at the latest
    std::vector<int> all(50);
    std::iota(all.begin(), all.end(), 0);
    EXPECT_EQ(written, all);
    EXPECT_EQ(reported, all);
}

TEST(Writing, AFailureNobodyAskedForIsTold) {
    std::vector<std::string> told;
    QObject ear;
    QObject::connect(&Troubles::instance(), &Troubles::happened, &ear,
                     [&](const Error& e) { told.push_back(e.code); });
    Writer writer;
    writer.write([]() -> Status { return Error{"cannot_write", Words::verbatim("full"), ""}; });
    writer.drain();
    EXPECT_EQ(told, std::vector<std::string>{"cannot_write"});
}

TEST_F(WindowTest, ThreeExportsAreThreeExports) {
    const test::TemporaryFolder folder;
    int ended = 0;
    for (const char* name : {"a", "b", "c"}) {
        leafOf<CutLeaf>(window).exportTo(QString::fromStdString(folder / name), {true, true, true},
                                         [&](const Status& s) {
                                             EXPECT_TRUE(s);
                                             ++ended;
                                         });
    }
    ASSERT_TRUE(QTest::qWaitFor([&] { return ended == 3; }, 30000));
    for (const char* name : {"a", "b", "c"}) EXPECT_FALSE(fs::is_empty(folder / name)) << name;
}

TEST_F(WindowTest, ABlankKeptAndTheLibraryClosedAtOnceIsKept) {
    window.library().open();
    ASSERT_TRUE(QTest::qWaitFor([&] { return window.library().ready(); }, 20000));
    const std::size_t before = test::need(libraryBlanks(window.library().workshop())).size();
    {
        LibraryDialog dialog(window.library(), window.document(), &window);
        dialog.show();
        dialog.keepOpen();
        dialog.keepOpen();
        dialog.reject();
    }
    ASSERT_TRUE(QTest::qWaitFor(
        [&] { return test::need(libraryBlanks(window.library().workshop())).size() == before + 2; }, 20000));
}

TEST(Writing, ABlankKeptIsThereWhenTheProgramEnds) {
    const test::TemporaryFolder state;
    const QString folder = QString::fromStdString(state.path());
    std::size_t before = 0;
    {
        LibraryStore store(folder, nullptr);
        store.open();
        ASSERT_TRUE(QTest::qWaitFor([&] { return store.ready(); }, 20000));
        before = test::need(libraryBlanks(store.workshop())).size();
        store.add(*theDemo().part<BlankChapter>());
    }  // at once
    const Workshop workshop = test::need(Workshop::open(state / "workshop.sqlite", Workshop::Access::Read));
    EXPECT_EQ(test::need(libraryBlanks(workshop)).size(), before + 1);
}

TEST(Writing, ASecondUnreadableBenchIsKeptAsideToo) {
    const test::TemporaryFolder state;
    const QString folder = QString::fromStdString(state.path());
    Workplace bench;
    for (int i = 0; i < 3; ++i) {
        test::write(state / "bench.json", "unreadable " + std::to_string(i));
        BenchStore store(folder, nullptr);
        ASSERT_TRUE(store.problem());
        bench.guns[0].needle_mm = 0.3 + 0.05 * (i + 1);
        ASSERT_TRUE(store.edit(bench));
    }
    EXPECT_EQ(test::read(state / "bench.json.unread"), "unreadable 0");
    EXPECT_EQ(test::read(state / "bench.json.unread-2"), "unreadable 1");
    EXPECT_EQ(test::read(state / "bench.json.unread-3"), "unreadable 2");
    EXPECT_EQ(BenchStore(folder, nullptr).bench(), bench);
}

// Exceptions at thread edges
// ----------------------------------------------------------------------------------

TEST(ThreadEdge, WhatWorkThrowsIsAnErrorAndTheSlotGoesOn) {
    std::vector<std::string> told;
    QObject context;
    QObject::connect(&Troubles::instance(), &Troubles::happened, &context,
                     [&](const Error& e) { told.push_back(e.code); });
    LatestOnly<int> numbers(&context);
    numbers.request([](const Task&) -> int { throw std::bad_alloc(); }, [](int) { FAIL(); });
    ASSERT_TRUE(QTest::qWaitFor([&] { return !numbers.running(); }, 3000));
    EXPECT_EQ(told, std::vector<std::string>{"internal"});
    LatestOnly<nine::Result<int>> results(&context);
    std::string code;
    results.request([](const Task&) -> nine::Result<int> { throw std::runtime_error("x"); },
                    [&](nine::Result<int> r) { code = r ? "" : r.error().code; });
    ASSERT_TRUE(QTest::qWaitFor([&] { return !results.running(); }, 3000));
    EXPECT_EQ(code, "internal");
    int got = 0;
    numbers.request([](const Task&) { return 5; }, [&](int v) { got = v; });
    ASSERT_TRUE(QTest::qWaitFor([&] { return !numbers.running(); }, 3000));
    EXPECT_EQ(got, 5);
}

TEST_F(WindowTest, AfterATroubleTheWindowLivesAndTheJobIsIntact) {
    const std::string before = bytes();
    emit Troubles::instance().happened({"internal", Words::verbatim("The memory was not enough."), ""});
    EXPECT_TRUE(window.tellTale().notice().contains("memory"));
    QTest::mouseClick(&window.tellTale(), Qt::LeftButton, {}, QPoint(300, 15));
    EXPECT_TRUE(window.tellTale().notice().isEmpty());
    EXPECT_EQ(bytes(), before);
}

// Recovery
// ----------------------------------------------------------------------------------------------------

Job withDotsAt(double dx_mm) {
    Job job = theDemo();
    Element e = *job.get<PatternChapter>().elements[1];
    e.dx_mm = dx_mm;
    return withElement(job, 1, e);
}

TEST(Recovery, TheFirstEditAfterOpeningAndAfterSavingLeavesACopy) {
    const test::TemporaryFolder state, jobs;
    JobDocument document;
    Safekeeping safe(document, QString::fromStdString(state.path()));
    const QString path = QString::fromStdString(jobs / "a.nineleaves.json");
    document.open(theDemo(), path);
    const auto copyHolds = [&](double dx) {
        const auto copy = loadJob(safe.copyPath().toStdString());
        return copy && copy->job.get<PatternChapter>().elements[1]->dx_mm == dx;
    };
    document.beginGesture();
    document.edit(withDotsAt(7.25), "one");  // one edit, and nothing after it
    EXPECT_TRUE(QTest::qWaitFor([&] { return copyHolds(7.25); }, 4000));
    ASSERT_TRUE(document.save(path));
    EXPECT_TRUE(QTest::qWaitFor([&] { return !QFile::exists(safe.copyPath()); }, 4000));
    document.beginGesture();
    document.edit(withDotsAt(8.5), "two");
    EXPECT_TRUE(QTest::qWaitFor([&] { return copyHolds(8.5); }, 4000));
}

/// As a person has it: edit once, wait, and the power is cut.
TEST(Recovery, OneEditThenKilledIsOffered) {
    const test::TemporaryFolder state;
    const pid_t child = ::fork();
    if (child == 0) {
        ::setenv("QT_QPA_PLATFORM", "offscreen", 1);
        ::execl("/proc/self/exe", "test_app", "--one-edit", state.path().c_str(), nullptr);
        ::_exit(9);
    }
    int status = 0;
    ::waitpid(child, &status, 0);
    ASSERT_TRUE(WIFSIGNALED(status) && WTERMSIG(status) == SIGKILL) << status;
    JobDocument document;
    const Safekeeping safe(document, QString::fromStdString(state.path()));
    const auto left = safe.leftBehind();
    ASSERT_EQ(left.size(), 1u);
    EXPECT_EQ(test::need(loadJob(left[0].copy.toStdString())).job.get<PatternChapter>().elements[1]->dx_mm,
              7.25);
}

TEST(Recovery, ARecoveredJobIsUnsavedUntilItIsSaved) {
    const test::TemporaryFolder state, jobs;
    JobDocument document;
    Safekeeping safe(document, QString::fromStdString(state.path()));
    document.open(withDotsAt(7.25), {}, JobDocument::Kept::Unsaved);
    safe.keepNow();
    EXPECT_TRUE(document.dirty());
    ASSERT_TRUE(QFile::exists(safe.copyPath()));
    document.beginGesture();
    document.edit(withDotsAt(8), "edit");
    document.history().undo();
    QTest::qWait(50);
    EXPECT_TRUE(document.dirty());
    EXPECT_TRUE(QFile::exists(safe.copyPath()));
    ASSERT_TRUE(document.save(QString::fromStdString(jobs / "a.nineleaves.json")));
    EXPECT_FALSE(document.dirty());
    EXPECT_TRUE(QTest::qWaitFor([&] { return !QFile::exists(safe.copyPath()); }, 4000));
}

TEST_F(WindowTest, ClosingARecoveredJobAsks) {
    window.document().open(theDemo(), {}, JobDocument::Kept::Unsaved);
    QString asked;
    QTimer::singleShot(200, [&] {
        if (auto* box = qobject_cast<QMessageBox*>(QApplication::activeModalWidget())) {
            asked = box->text();
            box->buttons().last()->click();
        }
    });
    window.close();
    EXPECT_TRUE(asked.contains("not saved")) << asked.toStdString();
    window.document().open(theDemo(), {});
}

TEST(Recovery, CopiesAreTheUsersAlone) {
    const test::TemporaryFolder state;
    const QString folder = QString::fromStdString(state / "deep/state");
    JobDocument document;
    Safekeeping safe(document, folder);
    document.open(theDemo(), {}, JobDocument::Kept::Unsaved);
    safe.keepNow();
    int files = 0;
    for (const auto& entry : fs::directory_iterator(state / "deep/state")) {
        if (entry.path().extension() == ".lock") continue;  // holds a process number
        EXPECT_EQ(static_cast<int>(entry.status().permissions()) & 077, 0) << entry.path();
        ++files;
    }
    EXPECT_EQ(files, 2);
    EXPECT_EQ(static_cast<int>(fs::status(state / "deep/state").permissions()) & 077, 0);
}

TEST(Recovery, ACopyThatCannotBeWrittenIsSaidOnce) {
    const test::TemporaryFolder state;
    JobDocument document;
    test::write(state / "file", "in the way");
    Safekeeping safe(document, QString::fromStdString(state / "file/below"));
    std::vector<std::string> told;
    QObject::connect(&safe, &Safekeeping::notKept, &safe, [&](const Error& e) { told.push_back(e.code); });
    document.open(theDemo(), {}, JobDocument::Kept::Unsaved);
    safe.keepNow();
    safe.keepNow();
    EXPECT_EQ(told, std::vector<std::string>{"cannot_write"});
}

TEST(Recovery, WhatAKillLeftIsSweptAtTheNextStart) {
    const test::TemporaryFolder state;
    test::write(state / ".nine-leaves-0123456789abcdef.part", "half a copy");
    JobDocument document;
    const Safekeeping safe(document, QString::fromStdString(state.path()));
    EXPECT_FALSE(fs::exists(state / ".nine-leaves-0123456789abcdef.part"));
}

}  // namespace

/// What OneEditThenKilledIsOffered runs in a process of its own.
void editOnceAndBeKilled(const QString& state) {
    JobDocument document;
    Safekeeping safe(document, state);
    document.open(theDemo(), "/somewhere/a.nineleaves.json");
    document.beginGesture();
    document.edit(withDotsAt(7.25), "one");
    QTest::qWait(Safekeeping::kDelay_ms + 1500);
    ::raise(SIGKILL);
}

}  // namespace nine::app
