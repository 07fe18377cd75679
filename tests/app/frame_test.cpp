// The frame of the window: what fits, what scrolls, what is said of leaves that are not there, keys of a
// desktop program.
#include <QMenu>
#include <QPushButton>
#include <QSettings>

#include "app/frame/stem.h"
#include "app/leaves/blank/begin_page.h"
#include "app/leaves/blank/library_dialog.h"
#include "tests/app/window_fixture.h"
#include "tests/elements.h"

namespace nine::app {
namespace {

Job withManyDots(int count) {
    Job job = theDemo();
    PatternChapter pattern;
    for (int i = 0; i < count; ++i) {
        Element e;
        e.id = "d" + std::to_string(i);
        e.dx_mm = 15 + 0.5 * i;
        e.dg_mm = 1;
        test::shape(e, test::DotRow{1, 4, 0.4, 0.4, 0});
        pattern.elements.push_back(std::make_shared<const Element>(e));
    }
    job = job.with(pattern);
    return withMasks(job, {});
}

TEST_F(WindowTest, AListOfFortyScrolls) {
    window.document().open(withManyDots(40), {});
    window.showLeaf(PatternNumber);
    ASSERT_TRUE(QTest::qWaitFor([&] { return window.results().body().art.size() == 40; }, 20000));
    QApplication::processEvents();
    EXPECT_FALSE(pattern->listRow(0).isNull());
    EXPECT_TRUE(pattern->listRow(39).isNull());
    for (int i = 0; i < 40; ++i) {
        EXPECT_LE(pattern->listRow(i).bottom(), pattern->height()) << i;
    }
    // The wheel brings the last one, a click selects it.
    const QPointF over = pattern->listRow(2).center();
    for (int i = 0; i < 40; ++i) {
        QWheelEvent wheel(over, pattern->mapToGlobal(over), {}, QPoint(0, -120), Qt::NoButton, Qt::NoModifier,
                          Qt::NoScrollPhase, false);
        QApplication::sendEvent(pattern, &wheel);
    }
    ASSERT_FALSE(pattern->listRow(39).isNull());
    QTest::mouseClick(pattern, Qt::LeftButton, {}, pattern->listRow(39).center().toPoint());
    EXPECT_EQ(window.view().element(), "d39");
    // What is selected by keys comes into sight.
    window.view().setElement("d0");
    QApplication::processEvents();
    EXPECT_FALSE(pattern->listRow(0).isNull());
}

TEST_F(WindowTest, EveryLeafOpensByAClickAndByItsKey) {
    auto* stem = window.findChild<Stem*>();
    std::set<int> opened;
    for (int y = 40; y < stem->height(); y += 20) {
        QTest::mouseClick(stem, Qt::LeftButton, {}, QPoint(40, y));
        opened.insert(window.currentLeaf());
    }
    EXPECT_EQ(opened.size(), 9u);
    for (int leaf = 0; leaf < 9; ++leaf) {
        QTest::keyClick(&window, static_cast<Qt::Key>(Qt::Key_1 + leaf), Qt::AltModifier);
        EXPECT_EQ(window.currentLeaf(), leaf);
    }
}

TEST_F(WindowTest, ANewJobIsEmptyAndUndoStartsAfresh) {
    QTest::keyClick(&window, Qt::Key_N, Qt::ControlModifier);
    EXPECT_TRUE(window.document().empty());
    EXPECT_FALSE(window.document().history().canUndo());
    EXPECT_EQ(window.currentLeaf(), BlankNumber);
}

TEST_F(WindowTest, ADirtyJobIsAskedForBeforeANewOne) {
    Element e = *window.document().job().get<PatternChapter>().elements[1];
    e.dx_mm += 1;
    window.document().edit(withElement(window.document().job(), 1, e), "edit");
    int asked = 0;
    QTimer::singleShot(200, [&] {
        if (auto* box = qobject_cast<QMessageBox*>(QApplication::activeModalWidget())) {
            ++asked;
            for (QAbstractButton* b : box->buttons())
                if (b->text() == "Cancel") return b->click();
        }
    });
    window.newJob();
    EXPECT_EQ(asked, 1);
    EXPECT_FALSE(window.document().empty());
}

TEST_F(WindowTest, EnterPressesTheFocusedButton) {
    window.showLeaf(PatternNumber);
    QApplication::processEvents();
    selectElement(1);
    QApplication::processEvents();
    QPushButton* out = nullptr;
    for (auto* b : window.findChildren<QPushButton*>())
        if (b->isVisible() && b->text() == "Take it out") out = b;
    ASSERT_TRUE(out);
    out->setFocus();
    QTest::keyClick(out, Qt::Key_Return);
    EXPECT_EQ(window.document().job().get<PatternChapter>().elements.size(), 2u);
    // Also in a dialog.
    window.library().open();
    ASSERT_TRUE(QTest::qWaitFor([&] { return window.library().ready(); }, 20000));
    LibraryDialog dialog(window.library(), window.document(), &window);
    dialog.show();
    for (auto* b : dialog.findChildren<QPushButton*>()) {
        if (b->text() != "Close") continue;
        b->setFocus();
        QTest::keyClick(b, Qt::Key_Return);
    }
    EXPECT_FALSE(dialog.isVisible());
}

TEST_F(WindowTest, TheWindowFitsItsScreenAndRemembersItsPlace) {
    const QSettings before("nine-leaves", "nine-leaves");
    QSettings("nine-leaves", "nine-leaves").remove("window");
    test::TemporaryFolder other;
    {
        MainWindow first(QString::fromStdString(other.path()), theDerivations());
        first.restorePlace();
        first.show();
        const QRect free = first.screen()->availableGeometry();
        // As large as there is room for, and no smaller than it can be used.
        EXPECT_LE(first.width(), std::max(free.width(), first.minimumWidth()));
        EXPECT_LE(first.height(), std::max(free.height(), first.minimumHeight()));
        first.resize(1000, 650);
        first.close();
    }
    MainWindow second(QString::fromStdString(other.path()), theDerivations());
    second.restorePlace();
    EXPECT_EQ(second.size(), QSize(1000, 650));
    QSettings("nine-leaves", "nine-leaves").remove("window");
}

TEST_F(WindowTest, AtTenTwentyFourBySevenHundredNothingIsOffScreen) {
    window.resize(1024, 700);
    QApplication::processEvents();
    EXPECT_LE(window.minimumSizeHint().width(), 1024);
    EXPECT_LE(window.minimumSizeHint().height(), 700);
    for (const int leaf : {BlankNumber, PatternNumber, MasksNumber, CutNumber, SprayNumber}) {
        window.showLeaf(leaf);
        QApplication::processEvents();
        EXPECT_EQ(window.width(), 1024) << leaf;
        EXPECT_EQ(window.height(), 700) << leaf;
    }
}

TEST_F(WindowTest, DialogsOfTheToolkitAreDarkToo) {
    window.applyTheme(true);
    EXPECT_LT(QApplication::palette().color(QPalette::Base).lightness(), 100);
    EXPECT_GT(QApplication::palette().color(QPalette::Text).lightness(), 150);
    window.applyTheme(false);
    EXPECT_GT(QApplication::palette().color(QPalette::Base).lightness(), 150);
}

TEST_F(WindowTest, AnUnknownKindIsToldWhenItsJobIsOpened) {
    const test::TemporaryFolder folder;
    std::string text = jobText(theDemo());
    const std::size_t at = text.find("\"dot_row\"");
    text.replace(at, 9, "\"spiral\"");
    test::write(folder / "a.nineleaves.json", text);
    ASSERT_TRUE(window.openPath(QString::fromStdString(folder / "a.nineleaves.json")));
    EXPECT_TRUE(window.tellTale().notice().contains("spiral")) << window.tellTale().notice().toStdString();
    ASSERT_TRUE(waitUntilSettled(window));
    window.showLeaf(PatternNumber);
    for (const ElementPtr& e :
         window.document().job().get<PatternChapter>().elements) {  // each can be looked at
        window.view().setElement(e->id);
        QApplication::processEvents();
    }
    leafOf<PatternLeaf>(window).removeSelected();
    EXPECT_EQ(window.document().job().get<PatternChapter>().elements.size(), 2u);
}

TEST_F(WindowTest, FieldsOfTheKindPageKeepTheFocusAndNothingJumps) {
    window.newJob();
    leafOf<BlankLeaf>(window).desk().start(BlankDesk::Way::Kind);
    QApplication::processEvents();
    ValueChip* length = chip("Length");
    ASSERT_TRUE(length);
    length->setFocus();
    length->selectAll();
    QTest::keyClicks(length, "72");
    const QPoint before = length->mapTo(&window, QPoint());
    QTest::keyClick(length, Qt::Key_Return);
    QApplication::processEvents();
    ValueChip* after = chip("Length");
    ASSERT_TRUE(after);
    EXPECT_TRUE(after->hasFocus());
    EXPECT_EQ(after->text(), "72.0");
    EXPECT_EQ(after->mapTo(&window, QPoint()), before);
}

}  // namespace
}  // namespace nine::app
