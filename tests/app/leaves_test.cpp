// Each leaf as a painter works on it: dragging, typing, undoing.
#include <QApplication>
#include <QLineEdit>
#include <QMenu>
#include <QMessageBox>
#include <QPushButton>
#include <QTest>
#include <QTimer>
#include <random>

#include <csignal>

#include "app/frame/help.h"
#include "app/leaves/blank/blank_page.h"
#include "app/leaves/cut/cut_page.h"
#include "app/leaves/masks/masks_page.h"
#include "app/leaves/pattern/pattern_page.h"
#include "app/pictures.h"
#include "app/sheet/units_text.h"
#include "job/demo_job.h"
#include "tests/app/window_fixture.h"
#include "tests/elements.h"

namespace nine::app {
namespace {

TEST_F(WindowTest, DraggingAStationIsOneStepAndUndoRestoresTheBytes) {
    const std::string before = bytes();
    drag(blank, blank->stationHandle(5, true), QPointF(0, -12));
    const std::string after = bytes();
    EXPECT_NE(after, before);
    EXPECT_GT(window.document().job().get<BlankChapter>().table.stations[5].top_mm, 13.2);
    EXPECT_EQ(window.document().history().count(), 1);
    window.document().history().undo();
    EXPECT_TRUE(bytes() == before);
    window.document().history().redo();
    EXPECT_TRUE(bytes() == after);
}

TEST_F(WindowTest, EscapeTakesADragBack) {
    const std::string before = bytes();
    const auto half = [&](QWidget* on, const QPointF& from) {
        QTest::mousePress(on, Qt::LeftButton, {}, from.toPoint());
        QMouseEvent move(QEvent::MouseMove, from + QPointF(20, -9), on->mapToGlobal(from + QPointF(20, -9)),
                         Qt::NoButton, Qt::LeftButton, {});
        QApplication::sendEvent(on, &move);
        EXPECT_FALSE(bytes() == before);
        QTest::keyClick(on, Qt::Key_Escape);
        EXPECT_TRUE(bytes() == before);
        QApplication::sendEvent(on, &move);  // the button is still down: nothing moves any more
        EXPECT_TRUE(bytes() == before);
        QTest::mouseRelease(on, Qt::LeftButton, {}, from.toPoint());
    };
    half(blank, blank->stationHandle(5, true));
    window.showLeaf(PatternNumber);
    selectElement(1);
    QTest::qWait(50);
    half(pattern, pattern->openingAt(1, 2));
    EXPECT_TRUE(bytes() == before);
}

TEST_F(WindowTest, AStationStopsAtItsNeighbour) {
    window.view().setStation(5);
    const QPointF line = 0.5 * (blank->stationHandle(5, true) + blank->stationHandle(5, false));
    drag(blank, line, QPointF(400, 0));
    const auto& stations = window.document().job().get<BlankChapter>().table.stations;
    EXPECT_LT(stations[5].x_mm, stations[6].x_mm);
    EXPECT_GT(stations[5].x_mm, 25.2);
}

TEST_F(WindowTest, StationsAreAddedByDoubleClickAndTakenOutByDelete) {
    const std::string before = bytes();
    const double girth = test::need(girthAt(*window.results().body().skin, 30, ""));
    const QPointF between = 0.5 * (blank->stationHandle(5, true) + blank->stationHandle(6, false));
    QTest::mouseDClick(blank, Qt::LeftButton, {}, between.toPoint());
    ASSERT_EQ(window.document().job().get<BlankChapter>().table.stations.size(), 13u);
    ASSERT_TRUE(waitUntilSettled(window));
    EXPECT_NEAR(test::need(girthAt(*window.results().body().skin, 30, "")), girth, 0.3);  // the shape stays
    window.view().setStation(6);
    QTest::keyClick(blank, Qt::Key_Delete);
    EXPECT_TRUE(bytes() == before);
    window.view().setStation(0);
    QTest::keyClick(blank, Qt::Key_Delete);  // the nose stays
    EXPECT_TRUE(bytes() == before);
    while (window.document().history().canUndo()) window.document().history().undo();
    EXPECT_TRUE(bytes() == before);
}

TEST_F(WindowTest, DraggingALandmarkMovesWhatIsAnchoredToIt) {
    const Vec2 before = window.results().body().art[1]->origin;
    drag(blank, blank->landmarkHandle("gill_plate"), QPointF(17, 0));
    ASSERT_TRUE(waitUntilSettled(window));
    EXPECT_GT(window.results().body().art[1]->origin.x(), before.x() + 1);
}

TEST_F(WindowTest, DraggingDotsMovesThemAlongTheSkin) {
    window.showLeaf(PatternNumber);
    selectElement(1);
    const std::string before = bytes();
    const double dx = window.document().job().get<PatternChapter>().elements[1]->dx_mm;
    drag(pattern, pattern->openingAt(1, 2), QPointF(15, 0));
    EXPECT_GT(window.document().job().get<PatternChapter>().elements[1]->dx_mm, dx + 0.5);
    EXPECT_EQ(window.document().history().count(), 1);
    window.document().history().undo();
    EXPECT_TRUE(bytes() == before);
}

TEST_F(WindowTest, TypedValuesAreTakenWithUnitsAndNonsenseIsRefused) {
    window.showLeaf(PatternNumber);
    selectElement(1);
    QApplication::processEvents();
    const auto dots = [&] {
        return test::dotRow(*window.document().job().get<PatternChapter>().elements[1]);
    };
    type(chip("Count"), "9");
    EXPECT_EQ(dots().count, 9);
    type(chip("First diameter"), "0.1 in");
    EXPECT_NEAR(dots().first_mm, 2.54, 1e-12);
    type(chip("Spacing"), "3*1,5");
    EXPECT_NEAR(dots().spacing_mm, 4.5, 1e-12);
    const std::string before = bytes();
    for (const char* nonsense : {"many", "", "1.5", "-4", "1e99", "9999"}) {
        type(chip("Count"), nonsense);
        EXPECT_TRUE(bytes() == before) << nonsense;
        EXPECT_TRUE(chip("Count")->property("wrong").toBool()) << nonsense;
        EXPECT_FALSE(chip("Count")->toolTip().isEmpty()) << nonsense;
    }
    QTest::keyClick(chip("Count"), Qt::Key_Escape);
    EXPECT_EQ(chip("Count")->text(), "9");
}

TEST_F(WindowTest, TypedStringGirthSolvesTheFullness) {
    window.view().setStation(4);
    QApplication::processEvents();
    type(chip("String girth"), "93");
    const Station s = window.document().job().get<BlankChapter>().table.stations[4];
    EXPECT_NEAR(
        SectionArc(Section{s.halfWidth_mm, s.top_mm, s.bottom_mm, s.section, s.sectionLower}).girth_mm(), 93,
        0.1);
    const std::string before = bytes();
    type(chip("String girth"), "300");  // no section between these calipers is that long round
    EXPECT_TRUE(bytes() == before);
    EXPECT_TRUE(chip("String girth")->property("wrong").toBool());
}

TEST_F(WindowTest, ElementsAreAddedUnlinkedAndTakenOut) {
    window.showLeaf(PatternNumber);
    const std::string before = bytes();
    leafOf<PatternLeaf>(window).addElement(*findKind("dot_row"));
    ASSERT_TRUE(waitUntilSettled(window));
    EXPECT_EQ(window.document().job().get<PatternChapter>().elements.size(), 4u);
    EXPECT_EQ(window.results().masks().masks.size(), 8u);
    leafOf<PatternLeaf>(window).removeSelected();
    ASSERT_TRUE(waitUntilSettled(window));
    EXPECT_EQ(window.document().job().get<PatternChapter>().elements.size(), 3u);
    EXPECT_TRUE(bytes() == before);
    while (window.document().history().canUndo()) window.document().history().undo();
    EXPECT_TRUE(bytes() == before);
}

TEST_F(WindowTest, AMarkOffTheBodyIsShownAtTheEdgeDraggedBackAndPutBack) {
    window.showLeaf(PatternNumber);
    const auto& job = window.document().job();
    const std::string id = job.get<PatternChapter>().elements[0]->id;
    const auto push = [&](double dx) {
        Element e = *elementOf(window.document().job(), id);
        e.dx_mm = dx;
        window.document().beginGesture();
        window.document().edit(withElement(window.document().job(), 0, e), "far");
        ASSERT_TRUE(waitUntilSettled(window));
    };
    push(300);
    window.view().setElement(id);
    const BodyResult& body = window.results().body();
    ASSERT_EQ(body.artErrors.size(), 1u);
    ASSERT_EQ(body.strays.count(id), 1u);
    EXPECT_EQ(window.tellTale().verdict().repair, "put it back");
    const QPointF last = pattern->handleAt("last");
    ASSERT_FALSE(last.isNull());  // hollow, at the edge, with handles
    // Dragged towards the nose with the mouse it lies again.
    const QPointF on = pattern->openingAt(0, 1);
    drag(pattern, on, QPointF(-60, 0));
    ASSERT_TRUE(waitUntilSettled(window));
    EXPECT_TRUE(window.results().body().artErrors.empty());
    EXPECT_TRUE(window.results().body().strays.empty());
    EXPECT_NEAR(pattern->openingAt(0, 1).x(), on.x() - 60, 6);
    // And by the button of the card.
    push(300);
    QPushButton* back = nullptr;
    ASSERT_TRUE(QTest::qWaitFor(
        [&] {
            for (QPushButton* b : window.findChildren<QPushButton*>())
                if (b->text() == "Put it back on the body" && b->isVisible()) back = b;
            return back != nullptr;
        },
        3000));
    QTest::mouseClick(back, Qt::LeftButton);
    ASSERT_TRUE(waitUntilSettled(window));
    EXPECT_TRUE(window.results().body().artErrors.empty());
    EXPECT_NEAR(elementOf(window.document().job(), id)->dg_mm, elementOf(theDemo(), id)->dg_mm, 0.5);
}

TEST_F(WindowTest, PiecesAreDraggedButNeverOverlap) {
    window.showLeaf(CutNumber);
    auto* page = window.findChild<CutPage*>();
    const QPointF before = page->pieceCentre(0);
    drag(page, before + QPointF(0, -18), QPointF(0, 150));
    EXPECT_GT(page->pieceCentre(0).y(), before.y() + 20);
    EXPECT_EQ(window.results().masks().pages->overlaps(), 0);
    drag(page, page->pieceCentre(1) + QPointF(0, -18),
         page->pieceCentre(0) - page->pieceCentre(1));  // onto the other one
    EXPECT_EQ(window.results().masks().pages->overlaps(), 0);
}

TEST_F(WindowTest, MovedPiecesBelongToTheJobAndCanBeUndone) {
    window.showLeaf(CutNumber);
    auto* page = window.findChild<CutPage*>();
    const std::string before = bytes();
    const QPointF start = page->pieceCentre(0);
    drag(page, start + QPointF(0, -18), QPointF(0, 150));
    ASSERT_TRUE(waitUntilSettled(window));
    const QPointF moved = page->pieceCentre(0);
    EXPECT_GT(moved.y(), start.y() + 20);
    ASSERT_EQ(window.document().job().get<CutChapter>().places.size(), 1u);
    EXPECT_EQ(window.document().history().count(), 1);
    const std::string after = bytes();

    // The masks change; the piece stays where it was put.
    window.document().beginGesture();
    Element e = *window.document().job().get<PatternChapter>().elements[1];
    e.dx_mm += 1;
    window.document().edit(withElement(window.document().job(), 1, e), "move");
    ASSERT_TRUE(waitUntilSettled(window));
    EXPECT_NEAR(page->pieceCentre(0).y(), moved.y(), 1.5);
    window.document().history().undo();
    ASSERT_TRUE(waitUntilSettled(window));
    EXPECT_TRUE(bytes() == after);
    window.document().history().undo();
    ASSERT_TRUE(waitUntilSettled(window));
    EXPECT_TRUE(bytes() == before);
    EXPECT_NEAR(page->pieceCentre(0).y(), start.y(), 1.5);
}

TEST_F(WindowTest, TheSheetSizeIsTypedAndCheckedAndUndone) {
    window.showLeaf(CutNumber);
    const std::string before = bytes();
    QTest::qWait(50);
    ASSERT_NE(chip("Sheet width"), nullptr);
    type(chip("Sheet width"), "20");
    EXPECT_TRUE(bytes() == before);
    EXPECT_TRUE(chip("Sheet width")->property("wrong").toBool());
    type(chip("Sheet width"), "300");
    ASSERT_TRUE(waitUntilSettled(window));
    EXPECT_EQ(window.results().masks().pages->sheet.width_mm, 300);
    window.document().history().undo();
    EXPECT_TRUE(bytes() == before);
}

TEST_F(WindowTest, DimensionsAreTypedOnTheirLines) {
    const std::string before = bytes();
    const double eye = window.document().job().get<BlankChapter>().landmarks.at("eye").points[0].x();
    QTest::mouseClick(blank, Qt::LeftButton, {},
                      blank->typedBox(BlankPage::Typed::Length).center().toPoint());
    auto* field = chip("Dimension");
    ASSERT_NE(field, nullptr);
    type(field, "90 mm");
    EXPECT_FALSE(field->isVisible());
    EXPECT_NEAR(window.document().job().get<BlankChapter>().table.stations.back().x_mm, 90, 0.011);
    EXPECT_NEAR(window.document().job().get<BlankChapter>().landmarks.at("eye").points[0].x(), 1.5 * eye,
                0.02);
    ASSERT_TRUE(waitUntilSettled(window));
    EXPECT_NEAR(window.results().body().skin->length_mm(), 90, 0.011);
    window.document().history().undo();
    EXPECT_TRUE(bytes() == before);
    ASSERT_TRUE(waitUntilSettled(window));

    for (const auto which : {BlankPage::Typed::Height, BlankPage::Typed::Width}) {
        blank->typeInto(which);
        for (const char* wrong : {"0", "-3", "900", "wide"}) {
            type(field, wrong);
            EXPECT_TRUE(bytes() == before) << wrong;
            EXPECT_TRUE(field->property("wrong").toBool()) << wrong;
            EXPECT_FALSE(field->toolTip().isEmpty());
        }
        QTest::keyClick(field, Qt::Key_Escape);
        EXPECT_FALSE(field->isVisible());
    }
    window.view().setStation(5);
    QTest::qWait(50);
    blank->setFocus();
    QTest::keyClick(blank, Qt::Key_Return);  // by keyboard: the distance of the selected station
    type(field, "24");
    EXPECT_EQ(window.document().job().get<BlankChapter>().table.stations[5].x_mm, 24);
    window.document().history().undo();
    EXPECT_TRUE(bytes() == before);
}

TEST_F(WindowTest, SinglePointsOfACurveAreDragged) {
    const auto points = [&] {
        return window.document().job().get<BlankChapter>().landmarks.at("gill_plate").points;
    };
    const std::string before = bytes();
    const auto start = points();
    QTest::mouseClick(blank, Qt::LeftButton, {}, blank->landmarkHandle("gill_plate").toPoint());
    drag(blank, blank->landmarkPoint("gill_plate", 0), QPointF(-12, 0));
    const auto moved = points();
    EXPECT_LT(moved[0].x(), start[0].x() - 0.5);
    EXPECT_EQ(moved[1], start[1]);
    EXPECT_EQ(moved.back(), start.back());
    while (window.document().history().canUndo()) window.document().history().undo();
    EXPECT_TRUE(bytes() == before);
}

/// Space goes through the handles, arrows move the one in hand, and both are spoken.
TEST_F(WindowTest, HandlesAreReachedByKeys) {
    window.showLeaf(PatternNumber);
    selectElement(1);
    QApplication::processEvents();
    const auto row = [&] { return test::dotRow(*window.document().job().get<PatternChapter>().elements[1]); };
    const auto start = row();
    const double dx = window.document().job().get<PatternChapter>().elements[1]->dx_mm;
    pattern->setFocus();
    QTest::keyClick(pattern, Qt::Key_Space);
    ASSERT_EQ(pattern->handleInHand(), "middle");
    EXPECT_TRUE(pattern->accessibleDescription().contains("middle of the row"));
    QTest::keyClick(pattern, Qt::Key_Up, Qt::ShiftModifier);
    EXPECT_NEAR(row().bow_mm, start.bow_mm + 1, 1e-9);
    QTest::keyClick(pattern, Qt::Key_Space);
    QTest::keyClick(pattern, Qt::Key_Space);
    ASSERT_EQ(pattern->handleInHand(), "last");
    QTest::keyClick(pattern, Qt::Key_Right, Qt::ShiftModifier);
    EXPECT_NEAR(row().spacing_mm, start.spacing_mm + 1.0 / (start.count - 1), 1e-9);
    EXPECT_EQ(window.document().job().get<PatternChapter>().elements[1]->dx_mm, dx);
    QTest::keyClick(pattern, Qt::Key_Space);  // after the last the whole
    QTest::keyClick(pattern, Qt::Key_Right);
    EXPECT_NEAR(window.document().job().get<PatternChapter>().elements[1]->dx_mm, dx + 0.1, 1e-9);
    EXPECT_EQ(row().first_mm, start.first_mm);
}

TEST_F(WindowTest, HandlesOfARowSpreadAndBowIt) {
    window.showLeaf(PatternNumber);
    selectElement(1);
    QTest::qWait(50);
    const auto row = [&] { return test::dotRow(*window.document().job().get<PatternChapter>().elements[1]); };
    const std::string before = bytes();
    const test::DotRow start = row();
    const double from = window.document().job().get<PatternChapter>().elements[1]->dx_mm;
    const QPointF first = pattern->handleAt("first");
    drag(pattern, pattern->handleAt("last"), QPointF(14, 0));
    EXPECT_GT(row().spacing_mm, start.spacing_mm + 0.1);
    EXPECT_EQ(window.document().job().get<PatternChapter>().elements[1]->dx_mm, from);
    ASSERT_TRUE(waitUntilSettled(window));
    EXPECT_NEAR(pattern->handleAt("first").x(), first.x(), 0.5);
    const QPointF last = pattern->handleAt("last");
    drag(pattern, pattern->handleAt("first"), QPointF(10, 0));
    EXPECT_GT(window.document().job().get<PatternChapter>().elements[1]->dx_mm, from + 0.3);
    ASSERT_TRUE(waitUntilSettled(window));
    EXPECT_NEAR(pattern->handleAt("last").x(), last.x(), 4);  // along the skin, so only nearly
    const double bow = row().bow_mm;
    drag(pattern, pattern->handleAt("middle"), QPointF(0, -12));
    EXPECT_GT(row().bow_mm, bow + 0.5);
    EXPECT_EQ(window.document().history().count(), 3);
    selectElement(0);
    ASSERT_TRUE(waitUntilSettled(window));
    const double top = test::bars(*window.document().job().get<PatternChapter>().elements[0]).g1_mm;
    drag(pattern, pattern->handleAt("upper"), QPointF(0, 10));
    EXPECT_LT(test::bars(*window.document().job().get<PatternChapter>().elements[0]).g1_mm, top - 0.3);
    while (window.document().history().canUndo()) window.document().history().undo();
    EXPECT_TRUE(bytes() == before);
}

TEST_F(WindowTest, AnotherAnchorLeavesTheMarkWhereItIs) {
    window.showLeaf(PatternNumber);
    selectElement(1);
    QTest::qWait(50);
    const Vec2 before = window.results().body().art[1]->origin;
    for (const char* name : {"eye", "tail root", "nose", "lateral line"}) {
        // A card made anew becomes visible a turn of the event loop later.
        const auto choice = [&]() -> QAction* {
            for (QPushButton* b : window.findChildren<QPushButton*>())
                if (b->isVisible() && b->accessibleName() == "Anchored to" && b->menu())
                    for (QAction* action : b->menu()->actions())
                        if (action->text() == name) return action;
            return nullptr;
        };
        const bool chosen = QTest::qWaitFor([&] { return choice() != nullptr; }, 10000);
        if (chosen) choice()->trigger();
        ASSERT_TRUE(chosen) << name;
        ASSERT_TRUE(waitUntilSettled(window));
        EXPECT_LT((window.results().body().art[1]->origin - before).norm(), 0.03) << name;
    }
}

TEST_F(WindowTest, TheMaskIsSketchedWhileSomethingIsDragged) {
    window.showLeaf(PatternNumber);
    selectElement(1);
    ASSERT_TRUE(waitUntilSettled(window));
    const auto widest = [](const MaskPtr& mask) { return boxAround({mask->sheets[0].outline}).size().x(); };
    const double before = widest(window.results().sketch()->mask);
    std::vector<Precision> seen;
    bool judgedMeanwhile = false;
    QObject::connect(&window.results(), &Results::sketchChanged, &window, [&] {
        seen.push_back(window.results().sketch()->precision);
        judgedMeanwhile = judgedMeanwhile || !window.results().masksRunning();
    });
    drag(pattern, pattern->handleAt("last"), QPointF(40, 0));
    ASSERT_TRUE(waitUntilSettled(window));
    ASSERT_GE(seen.size(), 2u);
    EXPECT_EQ(seen.front(), Precision::Preview);
    EXPECT_EQ(seen.back(), Precision::Exact);
    EXPECT_GT(widest(window.results().sketch()->mask), before + 1);
    const auto& judged = resultInView().mask;
    EXPECT_EQ((*judged)->sheets[0].outline.size(), window.results().sketch()->mask->sheets[0].outline.size());
    EXPECT_NEAR(widest(*judged), widest(window.results().sketch()->mask), 1e-9);
}

TEST_F(WindowTest, PicturesFollowAHandThatNeverRests) {
    window.showLeaf(BlankNumber);
    ASSERT_TRUE(waitUntilSettled(window));
    int bodies = 0, pictures = 0, sketches = 0;
    QObject::connect(&window.results(), &Results::bodyChanged, &window, [&] { ++bodies; });
    QObject::connect(&window.holder(), &Holder::redrawn, &window, [&] { ++pictures; });
    QObject::connect(&window.results(), &Results::sketchChanged, &window, [&] { ++sketches; });
    // Moves come faster than a body is made, for much longer than one takes.
    const QPointF from = blank->stationHandle(5, true);
    QTest::mousePress(blank, Qt::LeftButton, {}, from.toPoint());
    for (int i = 1; i <= 150; ++i) {
        const QPointF to = from - QPointF(0, 10 + i % 20);
        QMouseEvent move(QEvent::MouseMove, to, blank->mapToGlobal(to), Qt::NoButton, Qt::LeftButton, {});
        QApplication::sendEvent(blank, &move);
        QApplication::processEvents();
        QThread::msleep(2);
    }
    EXPECT_GE(bodies, 5);
    EXPECT_GE(pictures, 3);
    EXPECT_GE(sketches, 2);
    QTest::mouseRelease(blank, Qt::LeftButton, {}, (from - QPointF(0, 10)).toPoint());
    ASSERT_TRUE(waitUntilSettled(window));
    EXPECT_EQ(window.results().body().blank, window.document().job().part<BlankChapter>());
    EXPECT_EQ(window.results().sketch()->precision, Precision::Exact);
}

TEST_F(WindowTest, PanelsBecomeTabsWhereThereIsLittleRoom) {
    window.showLeaf(MasksNumber);
    auto* page = window.findChild<MasksPage*>();
    EXPECT_FALSE(page->tabbed());
    window.resize(1024, 700);
    QTest::qWait(100);
    ASSERT_TRUE(page->tabbed());
    const std::string material = page->inView().spec->wish.material;
    QTest::mouseClick(page, Qt::LeftButton, {}, page->materialBox(4).center().toPoint());
    EXPECT_EQ(page->inView().spec->wish.material, material);  // another tab is in front
    page->setFocus();
    QTest::keyClick(page, Qt::Key_Left);  // round to the last tab
    QTest::mouseClick(page, Qt::LeftButton, {}, page->materialBox(4).center().toPoint());
    ASSERT_TRUE(waitUntilSettled(window));
    EXPECT_EQ(page->inView().spec->wish.material, sheetMaterials()[4].id);
}

TEST_F(WindowTest, NonsenseIsRefusedInEveryField) {
    const std::string before = bytes();
    int fields = 0;
    for (const int leaf : {BlankNumber, PatternNumber, MasksNumber, CutNumber, SprayNumber}) {
        for (const int element : {0, 1}) {
            window.showLeaf(leaf);
            selectElement(element);
            QTest::qWait(60);
            QStringList names;
            for (const ValueChip* c : window.findChildren<ValueChip*>()) {
                if (c->isVisible()) names << c->accessibleName();
            }
            for (const QString& name : names) {
                for (const char* nonsense : {"wide", "", "4 4", "1e400", "999999", "nan"}) {
                    ASSERT_NE(chip(name), nullptr) << name.toStdString();
                    type(chip(name), nonsense);
                    EXPECT_TRUE(bytes() == before) << name.toStdString() << " took " << nonsense;
                    ASSERT_NE(chip(name), nullptr);
                    EXPECT_TRUE(chip(name)->property("wrong").toBool())
                        << name.toStdString() << ' ' << nonsense;
                    EXPECT_GT(chip(name)->toolTip().size(), 10) << name.toStdString();
                }
                QTest::keyClick(chip(name), Qt::Key_Escape);
                EXPECT_FALSE(chip(name)->property("wrong").toBool());
                ++fields;
            }
        }
    }
    EXPECT_GE(fields, 25);
}

}  // namespace
}  // namespace nine::app
