// Drives the real window as a painter would: mouse, keys, typed values, dialogs.
#include <QApplication>
#include <QLineEdit>
#include <QMessageBox>
#include <QPushButton>
#include <QTest>
#include <QTimer>
#include <random>

#include <csignal>

#include "app/frame/help.h"
#include "app/leaves/blank/begin_page.h"
#include "app/leaves/blank/blank_page.h"
#include "app/leaves/cut/cut_page.h"
#include "app/leaves/masks/masks_page.h"
#include "app/leaves/pattern/pattern_page.h"
#include "app/leaves/spray/spray_page.h"
#include "app/pictures.h"
#include "app/sheet/units_text.h"
#include "tests/app/window_fixture.h"
#include "tests/elements.h"
#include "tests/plain_job.h"

namespace nine::app {
namespace {

TEST_F(WindowTest, DemoReachesItsVerdict) {
    EXPECT_EQ(window.tellTale().verdict().kind, Verdict::Kind::Fine);
    EXPECT_TRUE(window.tellTale().verdict().sentence.contains("6 masks lie flat"));
    EXPECT_EQ(window.stem().entry(MasksNumber).state, LeafState::Ready);
    EXPECT_TRUE(window.stem().spokenName(MasksNumber).contains("ready"));
}

TEST_F(WindowTest, ReadingsAreSavedThroughTheDialogAndReadBack) {
    const test::TemporaryFolder folder;
    const QString path = QString::fromStdString(folder / "readings.csv");
    QTimer::singleShot(300, [&] {
        QWidget* dialog = QApplication::activeModalWidget();
        if (!dialog) return;
        if (auto* name = dialog->findChild<QLineEdit*>("fileNameEdit")) name->setText(path);
        QTest::keyClick(dialog, Qt::Key_Return);
    });
    leafOf<BlankLeaf>(window).saveReadings();
    ASSERT_TRUE(QFile::exists(path));
    JobDocument other;
    ASSERT_TRUE(other.openFile(path));
    EXPECT_EQ(stationTableText(other.job().get<BlankChapter>().table, ""),
              stationTableText(window.document().job().get<BlankChapter>().table, ""));
}

TEST_F(WindowTest, InchesEverywhereAtOnce) {
    window.showLeaf(PatternNumber);
    selectElement(1);
    useInches(true);
    window.view().refresh();
    QApplication::processEvents();
    EXPECT_EQ(chip("Spacing")->text(), "0.157");
    type(chip("Spacing"), "0.2");
    EXPECT_NEAR(test::dotRow(*window.document().job().get<PatternChapter>().elements[1]).spacing_mm, 5.08,
                1e-12);
    useInches(false);
}

TEST_F(WindowTest, StifferSheetIsAFaultAndTheRepairMendsIt) {
    window.showLeaf(MasksNumber);
    leafOf<MasksLeaf>(window).useMaterial(2);  // film
    ASSERT_TRUE(waitUntilSettled(window));
    EXPECT_EQ(window.tellTale().verdict().kind, Verdict::Kind::Fault);
    EXPECT_EQ(window.stem().entry(MasksNumber).state, LeafState::Repair);
    EXPECT_EQ(window.stem().entry(MasksNumber).flags, 2);  // both sides
    auto* repair = window.tellTale().findChild<QPushButton*>();
    ASSERT_TRUE(repair->isVisible());
    QTest::mouseClick(repair, Qt::LeftButton);
    ASSERT_TRUE(waitUntilSettled(window));
    EXPECT_EQ(window.tellTale().verdict().kind, Verdict::Kind::Fine);
}

/// Numbers on dimension lines are typed in place: the whole body follows, landmarks with it.
/// The mask in view follows a drag before it is judged: coarse, then exact, then with its verdict.
TEST_F(WindowTest, ElementAndMaskAreOneSelection) {
    selectElement(2);
    EXPECT_EQ(resultInView().spec->wish.elements[0],
              window.document().job().get<PatternChapter>().elements[2]->id);
    window.view().setSides(Sides::Right);
    EXPECT_EQ(resultInView().spec->side, Side::Right);
    selectMask(0);
    EXPECT_EQ(elementInView(), 0);
}

/// A mask that opens several elements stays selected while it is changed.
TEST_F(WindowTest, ASharedMaskStaysSelected) {
    Job job = window.document().job();
    auto masks = job.get<MasksChapter>().masks;
    MaskSpec shared = *masks[0];
    shared.id = "shared-L";
    shared.wish.elements = {"parr-bars", "red-dots"};
    masks.push_back(std::make_shared<const MaskSpec>(shared));
    window.document().edit(withMasks(job, masks), "add");
    const int index = static_cast<int>(masks.size()) - 1;
    selectMask(index);
    EXPECT_EQ(elementInView(), 0);
    leafOf<MasksLeaf>(window).useMaterial(4);
    EXPECT_EQ(maskInView(), index);
    EXPECT_EQ(maskSpecs(window.document().job())[static_cast<std::size_t>(index)]->wish.material,
              sheetMaterials()[4].id);
}

TEST_F(WindowTest, BothSidesAreShownTogether) {
    window.showLeaf(PatternNumber);
    QTest::keyClick(&window, Qt::Key_B);
    const auto seenAt = [&](double height) {
        return window.holder().skinAt(
            QPointF(0.5 * window.holder().width(), height * window.holder().height()));
    };
    EXPECT_TRUE(QTest::qWaitFor(
        [&] { return seenAt(0.3) && seenAt(0.7) && seenAt(0.7)->side == Side::Right; }, 20000));
    EXPECT_EQ(seenAt(0.3)->side, Side::Left);
}

TEST_F(WindowTest, ExportWritesPages) {
    const test::TemporaryFolder folder;
    const auto exported = [&](const QString& to) {
        std::optional<Status> written;
        leafOf<CutLeaf>(window).exportTo(to, {true, true, true},
                                         [&](const Status& status) { written = status; });
        EXPECT_TRUE(QTest::qWaitFor([&] { return written.has_value(); }, 20000));
        return written && *written;
    };
    ASSERT_TRUE(exported(QString::fromStdString(folder / "out")));
    EXPECT_NE(test::read(folder / "out/sheet-1.svg").find("<g id=\"CUT\""), std::string::npos);
    EXPECT_NE(test::read(folder / "out/sheet-1.dxf").find("LWPOLYLINE"), std::string::npos);
    EXPECT_EQ(test::read(folder / "out/sheets.pdf").substr(0, 5), "%PDF-");
    EXPECT_FALSE(exported("/proc/nothing"));
}

TEST_F(WindowTest, SavedJobsReadBackAndDirtyFollows) {
    const test::TemporaryFolder folder;
    const QString path = QString::fromStdString(folder / "a.nineleaves.json");
    ASSERT_TRUE(window.document().save(path));
    EXPECT_FALSE(window.document().dirty());
    window.document().beginGesture();
    Element e = *window.document().job().get<PatternChapter>().elements[0];
    e.dx_mm += 1;
    window.document().edit(withElement(window.document().job(), 0, e), "move");
    EXPECT_TRUE(window.document().dirty());
    ASSERT_TRUE(window.document().save(path));
    const std::string saved = bytes();
    ASSERT_TRUE(window.openPath(path));
    EXPECT_TRUE(bytes() == saved);
}

TEST_F(WindowTest, ABrokenFileGivesASentenceAndKeepsTheJob) {
    const test::TemporaryFolder folder;
    test::write(folder / "broken.nineleaves.json", "{\"format\": 1, \"blank\": {");
    const std::string before = bytes();
    QString said;
    QTimer::singleShot(100, [&] {
        if (auto* box = qobject_cast<QMessageBox*>(QApplication::activeModalWidget())) {
            said = box->text();
            box->accept();
        }
    });
    EXPECT_FALSE(window.openPath(QString::fromStdString(folder / "broken.nineleaves.json")));
    EXPECT_TRUE(said.contains("breaks off")) << said.toStdString();
    EXPECT_TRUE(bytes() == before);
    EXPECT_EQ(window.tellTale().verdict().kind, Verdict::Kind::Fine);
}

TEST_F(WindowTest, KeysReachEveryLeafAndSide) {
    for (const auto& [key, leaf] : {std::pair{Qt::Key_2, PatternNumber},
                                    {Qt::Key_5, MasksNumber},
                                    {Qt::Key_6, CutNumber},
                                    {Qt::Key_7, SprayNumber},
                                    {Qt::Key_1, BlankNumber}}) {
        QTest::keyClick(&window, key, Qt::AltModifier);
        EXPECT_EQ(window.currentLeaf(), leaf);
    }
    QTest::keyClick(&window, Qt::Key_S);
    EXPECT_EQ(window.view().side(), Side::Right);
    QTest::keyClick(&window, Qt::Key_B);
    EXPECT_EQ(window.view().sides(), Sides::Both);
    window.stem().setFocus();
    QTest::keyClick(&window.stem(), Qt::Key_Down);
    QTest::keyClick(&window.stem(), Qt::Key_Return);
    EXPECT_EQ(window.currentLeaf(), PatternNumber);
}

TEST_F(WindowTest, HolderPicksTheSkin) {
    window.holder().turnTo(Holder::Stop::Side);
    const auto inTheMiddle = [&] {
        return window.holder().skinAt(QPointF(0.5 * window.holder().width(), 0.5 * window.holder().height()));
    };
    // It turns there, which takes its time.
    (void)QTest::qWaitFor([&] { return inTheMiddle() && std::abs(inTheMiddle()->x_mm - 30) < 4; }, 5000);
    const auto picked = inTheMiddle();
    ASSERT_TRUE(picked);
    EXPECT_EQ(picked->side, Side::Left);
    EXPECT_NEAR(picked->x_mm, 30, 4);
    EXPECT_FALSE(window.holder().skinAt(QPointF(2, 30)));
}

TEST_F(WindowTest, NamesAreSpokenForEveryControl) {
    for (const QWidget* w : window.findChildren<QWidget*>()) {
        if (w->focusPolicy() == Qt::NoFocus || !w->isVisible() || w->inherits("QAbstractScrollArea") ||
            w->inherits("QStackedWidget"))
            continue;
        const auto* button = qobject_cast<const QAbstractButton*>(w);
        EXPECT_TRUE(!w->accessibleName().isEmpty() || (button && !button->text().isEmpty()))
            << w->metaObject()->className();
    }
}

TEST_F(WindowTest, HoldsAtSmallAndLargeSizes) {
    for (const QSize& size : {QSize(1024, 700), QSize(1920, 1080)}) {
        window.resize(size);
        for (const int leaf : {BlankNumber, PatternNumber, MasksNumber, CutNumber, SprayNumber}) {
            window.showLeaf(leaf);
            ASSERT_TRUE(waitUntilSettled(window));  // a card that is made anew has its size a turn later
            QTest::qWait(60);
            EXPECT_EQ(window.size(), size) << leaf;  // nothing pushes it larger
            QList<QWidget*> controls;
            for (QWidget* w : window.findChildren<QWidget*>()) {
                const bool control =
                    w->inherits("QAbstractButton") || w->inherits("QLabel") || w->inherits("QLineEdit");
                if (control && w->isVisible() && w->width() > 0) controls << w;
            }
            ASSERT_GT(controls.size(), 8) << leaf;
            for (const QWidget* w : controls) {
                const QRect at(w->mapTo(&window, QPoint(0, 0)), w->size());
                const std::string who =
                    (w->accessibleName() + w->property("text").toString()).left(60).toStdString() +
                    " on leaf " + std::to_string(leaf) + " at " + std::to_string(size.width());
                // Cards scroll up and down, never sideways.
                EXPECT_GE(at.left(), 0) << who;
                EXPECT_LE(at.right(), size.width()) << who;
                const bool label = w->inherits("QLabel");
                // What is typed or said on it can be read whole.
                const auto* field = qobject_cast<const QLineEdit*>(w);
                const int needed = field   ? field->fontMetrics().horizontalAdvance(field->text()) + 4
                                   : label ? 0
                                           : w->minimumSizeHint().width();
                EXPECT_GE(w->width(), needed) << who;
                for (const QWidget* other : controls) {
                    if (other == w || label || other->inherits("QLabel") ||
                        other->parentWidget() != w->parentWidget())
                        continue;
                    EXPECT_FALSE(w->geometry().adjusted(1, 1, -1, -1).intersects(other->geometry())) << who;
                }
            }
        }
    }
}

/// Nonsense in any field of any leaf: refused with a sentence, nothing changed.
TEST_F(WindowTest, WrongFilesInTheDialogGiveASentenceAndKeepTheJob) {
    const test::TemporaryFolder folder;
    const std::string before = bytes();
    test::write(folder / "picture.csv", std::string("\x89PNG\r\n\x1a\n\0\0", 10));
    test::write(folder / "late.nineleaves.json", "{\"format\": 99}");
    for (const auto& [file, part] :
         {std::pair{"picture.csv", ""}, {"late.nineleaves.json", "newer version"}}) {
        DialogAnswer answer(QString::fromStdString(folder / file));
        window.openWithDialog();
        QTest::qWait(1600);
        EXPECT_GT(answer.said.size(), 15) << file;
        EXPECT_TRUE(bytes() == before);
        if (part[0] != '\0') {
            EXPECT_TRUE(answer.said.contains(part)) << answer.said.toStdString();
        }
    }
}

TEST_F(WindowTest, AJobThatCannotBeSavedIsSaidAndStaysChanged) {
    window.document().beginGesture();
    Element e = *window.document().job().get<PatternChapter>().elements[0];
    e.dx_mm += 1;
    window.document().edit(withElement(window.document().job(), 0, e), "move");
    DialogAnswer answer("/proc/no.nineleaves.json");
    EXPECT_FALSE(window.saveAs());
    QTest::qWait(1600);
    EXPECT_TRUE(window.document().dirty());
    EXPECT_FALSE(QFile::exists("/proc/no.nineleaves.json"));
}

TEST_F(WindowTest, TheFlagKeyGoesToWhatIsWrongAndTheRepairMendsIt) {
    selectMask(0);
    leafOf<MasksLeaf>(window).useMaterial(0);  // paper cannot follow
    ASSERT_TRUE(waitUntilSettled(window));
    ASSERT_EQ(window.tellTale().verdict().kind, Verdict::Kind::Fault);
    window.showLeaf(BlankNumber);
    QTest::keyClick(&window, Qt::Key_F);
    EXPECT_EQ(window.currentLeaf(), MasksNumber);
    EXPECT_FALSE((*resultInView().mask)->report().liesFlat);
    for (QPushButton* b : window.tellTale().findChildren<QPushButton*>()) {
        if (b->isVisible() && b->text() == window.tellTale().verdict().repair) {
            b->click();
            break;
        }
    }
    ASSERT_TRUE(waitUntilSettled(window));
    EXPECT_EQ(window.tellTale().verdict().kind, Verdict::Kind::Fine);
}

/// Seeded random actions: nothing crashes, and undoing everything leads back to the start, byte for byte.
TEST_F(WindowTest, MonkeyUndoesToTheStart) {
    const unsigned seed = 4711;
    SCOPED_TRACE("seed " + std::to_string(seed));
    std::mt19937 random(seed);
    const auto roll = [&](int n) { return std::uniform_int_distribution<int>(0, n - 1)(random); };
    const std::string before = bytes();
    window.document().history().setUndoLimit(0);
    for (int i = 0; i < 300; ++i) {
        switch (roll(10)) {
            case 0:
                window.showLeaf(std::array{BlankNumber, PatternNumber, MasksNumber, CutNumber,
                                           SprayNumber}[static_cast<std::size_t>(roll(5))]);
                break;
            case 1:
                drag(blank, blank->stationHandle(1 + roll(10), roll(2)),
                     QPointF(roll(30) - 15, roll(30) - 15));
                break;
            case 2:
                selectElement(roll(4));
                break;
            case 3: {
                const int element = roll(3);
                drag(pattern, pattern->openingAt(element, roll(8)), QPointF(roll(60) - 30, roll(40) - 20));
                break;
            }
            case 4:
                QTest::keyClick(pattern, std::array{Qt::Key_Left, Qt::Key_Right, Qt::Key_Up,
                                                    Qt::Key_Down}[static_cast<std::size_t>(roll(4))]);
                break;
            case 5:
                if (roll(4) == 0)
                    leafOf<PatternLeaf>(window).addElement(*kinds()[static_cast<std::size_t>(roll(3))]);
                break;
            case 6:
                if (roll(6) == 0) leafOf<PatternLeaf>(window).removeSelected();
                break;
            case 7:
                leafOf<MasksLeaf>(window).useMaterial(roll(5));
                break;
            case 9: {
                const SprayHandle handle = kSprayHandles[static_cast<std::size_t>(roll(8))];
                auto* page = window.findChild<SprayPage*>();
                if (!page->handleAt(handle).isNull())
                    drag(page, page->handleAt(handle), QPointF(roll(60) - 30, roll(60) - 30));
                break;
            }
            case 8:
                roll(2) ? window.document().history().undo() : window.document().history().redo();
                break;
        }
        if (i % 25 == 0) QApplication::processEvents();
    }
    while (window.document().history().canUndo()) window.document().history().undo();
    EXPECT_TRUE(bytes() == before);
    EXPECT_TRUE(waitUntilSettled(window));
}

TEST_F(WindowTest, TwoWindowsDoNotWriteOneJob) {
    const test::TemporaryFolder folder;
    const QString path = QString::fromStdString(folder / "a.nineleaves.json");
    ASSERT_TRUE(window.document().save(path));
    ASSERT_TRUE(window.safekeeping().lock(path));
    JobDocument other;
    Safekeeping second(other, QString::fromStdString(folder / "state2"));
    EXPECT_FALSE(second.lock(path));
    ASSERT_TRUE(window.safekeeping().lock({}));
    EXPECT_TRUE(second.lock(path));
}

TEST_F(WindowTest, HelpHasAPageForEveryBuiltLeaf) {
    for (const int leaf : {BlankNumber, PatternNumber, MasksNumber, CutNumber, SprayNumber}) {
        EXPECT_GT(helpFor(leaf).size(), 200);
        EXPECT_NE(helpFor(leaf), helpFor(2));
    }
    QTimer::singleShot(100, [] {
        if (QWidget* dialog = QApplication::activeModalWidget()) dialog->close();
    });
    QTest::keyClick(&window, Qt::Key_F1);
}

/// A run that is killed while it has unsaved changes leaves a copy; the next one offers it with both dates.
TEST(Recovery, AKilledRunLosesNothing) {
    const test::TemporaryFolder state;
    const std::string edited = [&] {
        Job job = test::need(test::plainJob());
        Element e = *job.get<PatternChapter>().elements[1];
        e.dx_mm = 7.25;
        return jobText(withElement(job, 1, e));
    }();
    const pid_t child = ::fork();
    if (child == 0) {  // no event loop in the child: it keeps its copy and is killed as it stands
        JobDocument document;
        Safekeeping safe(document, QString::fromStdString(state.path()));
        document.open(test::need(parseJob(edited, "f")).job, "/somewhere/a.nineleaves.json");
        safe.keepNow();
        ::raise(SIGKILL);
    }
    int status = 0;
    ::waitpid(child, &status, 0);
    ASSERT_TRUE(WIFSIGNALED(status));

    MainWindow window(QString::fromStdString(state.path()));
    window.show();
    const auto left = window.safekeeping().leftBehind();
    ASSERT_EQ(left.size(), 1u);
    EXPECT_EQ(left[0].original, "/somewhere/a.nineleaves.json");
    QString said;
    QTimer::singleShot(100, [&] {
        if (auto* box = qobject_cast<QMessageBox*>(QApplication::activeModalWidget())) {
            said = box->text() + box->informativeText();
            box->buttons().first()->click();
        }
    });
    window.offerRecovery();
    EXPECT_TRUE(said.contains("/somewhere/a.nineleaves.json")) << said.toStdString();
    EXPECT_EQ(jobText(window.document().job()), edited);
    EXPECT_TRUE(window.safekeeping().leftBehind().empty());
    EXPECT_TRUE(QFile::exists(window.safekeeping().copyPath()));  // still safe until it is saved
    EXPECT_TRUE(window.document().dirty());
    // Closing asks; thought better of, it is all still there.
    int asked = 0;
    const auto closeAnd = [&](const QString& answer) {
        QTimer answers;
        QObject::connect(&answers, &QTimer::timeout, [&] {
            auto* box = qobject_cast<QMessageBox*>(QApplication::activeModalWidget());
            if (!box) return;
            ++asked;
            for (QAbstractButton* b : box->buttons())
                if (b->text().remove('&').contains(answer, Qt::CaseInsensitive)) return b->click();
            ADD_FAILURE() << "no button " << answer.toStdString();
            box->buttons().last()->click();
        });
        answers.start(50);
        return window.close();
    };
    EXPECT_FALSE(closeAnd("Cancel"));
    EXPECT_EQ(asked, 1);
    EXPECT_TRUE(QFile::exists(window.safekeeping().copyPath()));
    // Saved and closed, nothing is left behind and the file is what was edited.
    const test::TemporaryFolder elsewhere;
    const std::string file = elsewhere / "saved.nineleaves.json";
    ASSERT_TRUE(window.document().save(QString::fromStdString(file)));
    EXPECT_TRUE(window.close());
    EXPECT_EQ(asked, 1);
    EXPECT_EQ(test::need(readFile(file)), edited);
    MainWindow next(QString::fromStdString(state.path()));
    EXPECT_TRUE(next.safekeeping().leftBehind().empty());
}

/// Killed at any moment while it keeps its copies, over and over: what is found afterwards is whole, one of
/// the two jobs that were being kept.
TEST(Recovery, AKillInTheMiddleOfAutosavingLeavesAWholeCopy) {
    const Job first = test::need(test::plainJob());
    Element moved = *first.get<PatternChapter>().elements[1];
    moved.dx_mm = 7.25;
    const Job second = withElement(first, 1, moved);
    const std::string texts[] = {jobText(first), jobText(second)};
    std::mt19937 random(31);
    int copies = 0;
    for (int run = 0; run < 12; ++run) {
        const test::TemporaryFolder state;
        const pid_t child = ::fork();
        if (child == 0) {
            JobDocument document;
            Safekeeping safe(document, QString::fromStdString(state.path()));
            document.open(first, "/somewhere/a.nineleaves.json");
            for (int i = 1;; ++i) {
                document.beginGesture();
                document.edit(i % 2 ? second : first, "test");
                safe.keepNow();
            }
        }
        ::usleep(static_cast<useconds_t>(20000 + random() % 30000));
        ::kill(child, SIGKILL);
        int status = 0;
        ::waitpid(child, &status, 0);
        ASSERT_TRUE(WIFSIGNALED(status));
        JobDocument document;
        Safekeeping next(document, QString::fromStdString(state.path()));
        for (const LeftBehind& left : next.leftBehind()) {
            const std::string text = test::need(readFile(left.copy.toStdString()));
            EXPECT_TRUE(text == texts[0] || text == texts[1])
                << "run " << run << ", " << text.size() << " bytes";
            ++copies;
        }
    }
    EXPECT_GE(copies, 6);  // some are killed before their first copy
}

TEST(Start, EmptyWindowOffersReadingsAndDemo) {
    const test::TemporaryFolder state;
    MainWindow window(QString::fromStdString(state.path()));
    window.show();
    (void)QTest::qWaitForWindowExposed(&window);
    EXPECT_TRUE(window.document().empty());
    EXPECT_EQ(window.stem().entry(BlankNumber).state, LeafState::Nothing);
    EXPECT_TRUE(window.tellTale().verdict().sentence.contains("Start"));
    for (const int leaf : {PatternNumber, MasksNumber, CutNumber, SprayNumber, BlankNumber}) {
        window.showLeaf(leaf);
        EXPECT_FALSE(window.grab().isNull());
    }
    for (Tile* tile : leafOf<BlankLeaf>(window).beginPage().findChildren<Tile*>())
        if (tile->text() == "The demo") QTest::mouseClick(tile, Qt::LeftButton);
    EXPECT_FALSE(window.document().empty());
}

TEST(TypedLengths, UnitsSumsAndNonsense) {
    useInches(false);
    EXPECT_EQ(parseLength("12.5"), 12.5);
    EXPECT_EQ(parseLength(" 1,5 mm "), 1.5);
    EXPECT_EQ(parseLength("1 in"), 25.4);
    EXPECT_EQ(parseLength("1 cm + 2"), 12);
    EXPECT_EQ(parseLength("2 * 3 - 1"), 5);
    EXPECT_EQ(parseLength("3 mm / 2"), 1.5);
    EXPECT_EQ(parseLength("-4"), -4);
    for (const char* bad : {"", "mm", "1 ft", "1..2", "2 2", "4/0", "(1)"})
        EXPECT_FALSE(parseLength(bad)) << bad;
    useInches(true);
    EXPECT_EQ(parseLength("1"), 25.4);
    EXPECT_EQ(parseLength("1 mm"), 1);
    EXPECT_EQ(lengthText(25.4, 1).toStdString(), "1.000 in");
    useInches(false);
}

}  // namespace
}  // namespace nine::app
