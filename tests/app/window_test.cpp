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
#include "app/leaves/blank/blank_page.h"
#include "app/leaves/cut/cut_page.h"
#include "app/leaves/masks/masks_page.h"
#include "app/leaves/pattern/pattern_page.h"
#include "app/pictures.h"
#include "app/sheet/units_text.h"
#include "job/demo_job.h"
#include "tests/app/window_fixture.h"

namespace nine::app {
namespace {

TEST_F(WindowTest, DemoReachesItsVerdict) {
    EXPECT_EQ(window.tellTale().verdict().kind, Verdict::Kind::Fine);
    EXPECT_TRUE(window.tellTale().verdict().sentence.contains("6 masks lie flat"));
    EXPECT_EQ(window.stem().entry(MasksNumber).state, LeafState::Ready);
    EXPECT_EQ(window.stem().entry(2).built, false);  // Layers is drawn and says that it comes later
    EXPECT_TRUE(window.stem().spokenName(2).contains("later"));
}

TEST_F(WindowTest, DraggingAStationIsOneStepAndUndoRestoresTheBytes) {
    const std::string before = bytes();
    drag(blank, blank->stationHandle(5, true), QPointF(0, -12));
    const std::string after = bytes();
    EXPECT_NE(after, before);
    EXPECT_GT(window.document().job().blank->table.stations[5].top_mm, 13.2);
    EXPECT_EQ(window.document().history().count(), 1);
    window.document().history().undo();
    EXPECT_TRUE(bytes() == before);
    window.document().history().redo();
    EXPECT_TRUE(bytes() == after);
}

TEST_F(WindowTest, AStationStopsAtItsNeighbour) {
    window.view().setStation(5);
    const QPointF line = 0.5 * (blank->stationHandle(5, true) + blank->stationHandle(5, false));
    drag(blank, line, QPointF(400, 0));
    const auto& stations = window.document().job().blank->table.stations;
    EXPECT_LT(stations[5].x_mm, stations[6].x_mm);
    EXPECT_GT(stations[5].x_mm, 25.2);
}

TEST_F(WindowTest, StationsAreAddedByDoubleClickAndTakenOutByDelete) {
    const std::string before = bytes();
    const double girth = test::need(girthAt(*window.results().body().skin, 30, ""));
    const QPointF between = 0.5 * (blank->stationHandle(5, true) + blank->stationHandle(6, false));
    QTest::mouseDClick(blank, Qt::LeftButton, {}, between.toPoint());
    ASSERT_EQ(window.document().job().blank->table.stations.size(), 13u);
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

TEST_F(WindowTest, ReadingsAreSavedThroughTheDialogAndReadBack) {
    const test::TemporaryFolder folder;
    const QString path = QString::fromStdString(folder / "readings.csv");
    QTimer::singleShot(300, [&] {
        QWidget* dialog = QApplication::activeModalWidget();
        if (!dialog) return;
        if (auto* name = dialog->findChild<QLineEdit*>("fileNameEdit")) name->setText(path);
        QTest::keyClick(dialog, Qt::Key_Return);
    });
    window.saveReadings();
    ASSERT_TRUE(QFile::exists(path));
    JobDocument other;
    ASSERT_TRUE(other.openFile(path));
    EXPECT_EQ(stationTableText(other.job().blank->table, ""),
              stationTableText(window.document().job().blank->table, ""));
}

TEST_F(WindowTest, DraggingALandmarkMovesWhatIsAnchoredToIt) {
    const Vec2 before = window.results().body().art[1]->origin;
    drag(blank, blank->landmarkHandle("gill_plate"), QPointF(17, 0));
    ASSERT_TRUE(waitUntilSettled(window));
    EXPECT_GT(window.results().body().art[1]->origin.x(), before.x() + 1);
}

TEST_F(WindowTest, DraggingDotsMovesThemAlongTheSkin) {
    window.showLeaf(PatternNumber);
    window.view().setElement(1);
    const std::string before = bytes();
    const double dx = window.document().job().pattern->elements[1]->dx_mm;
    drag(pattern, pattern->openingAt(1, 2), QPointF(15, 0));
    EXPECT_GT(window.document().job().pattern->elements[1]->dx_mm, dx + 0.5);
    EXPECT_EQ(window.document().history().count(), 1);
    window.document().history().undo();
    EXPECT_TRUE(bytes() == before);
}

TEST_F(WindowTest, TypedValuesAreTakenWithUnitsAndNonsenseIsRefused) {
    window.showLeaf(PatternNumber);
    window.view().setElement(1);
    QApplication::processEvents();
    const auto dots = [&] { return std::get<DotRow>(window.document().job().pattern->elements[1]->shape); };
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
    const Station s = window.document().job().blank->table.stations[4];
    EXPECT_NEAR(SectionArc(Section{s.halfWidth_mm, s.top_mm, s.bottom_mm, s.section, s.sectionLower}).girth(),
                93, 0.1);
    const std::string before = bytes();
    type(chip("String girth"), "300");  // no section between these calipers is that long round
    EXPECT_TRUE(bytes() == before);
    EXPECT_TRUE(chip("String girth")->property("wrong").toBool());
}

TEST_F(WindowTest, InchesEverywhereAtOnce) {
    window.showLeaf(PatternNumber);
    window.view().setElement(1);
    useInches(true);
    window.view().refresh();
    QApplication::processEvents();
    EXPECT_EQ(chip("Spacing")->text(), "0.157");
    type(chip("Spacing"), "0.2");
    EXPECT_NEAR(std::get<DotRow>(window.document().job().pattern->elements[1]->shape).spacing_mm, 5.08,
                1e-12);
    useInches(false);
}

TEST_F(WindowTest, StifferSheetIsAFaultAndTheRepairMendsIt) {
    window.showLeaf(MasksNumber);
    window.masksLeaf().useMaterial(2);  // film
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

TEST_F(WindowTest, ElementsAreAddedUnlinkedAndTakenOut) {
    window.showLeaf(PatternNumber);
    const std::string before = bytes();
    window.patternLeaf().addElement(false);
    ASSERT_TRUE(waitUntilSettled(window));
    EXPECT_EQ(window.document().job().pattern->elements.size(), 4u);
    EXPECT_EQ(window.results().masks().masks.size(), 8u);
    window.patternLeaf().removeSelected();
    ASSERT_TRUE(waitUntilSettled(window));
    EXPECT_EQ(window.document().job().pattern->elements.size(), 3u);
    EXPECT_TRUE(bytes() == before);
    while (window.document().history().canUndo()) window.document().history().undo();
    EXPECT_TRUE(bytes() == before);
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
    ASSERT_EQ(window.document().job().cut->places.size(), 1u);
    EXPECT_EQ(window.document().history().count(), 1);
    const std::string after = bytes();

    // The masks change; the piece stays where it was put.
    window.document().beginGesture();
    Element e = *window.document().job().pattern->elements[1];
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

/// Numbers on dimension lines are typed in place: the whole body follows, landmarks with it.
TEST_F(WindowTest, DimensionsAreTypedOnTheirLines) {
    const std::string before = bytes();
    const double eye = window.document().job().blank->landmarks.at("eye").points[0].x();
    QTest::mouseClick(blank, Qt::LeftButton, {},
                      blank->typedBox(BlankPage::Typed::Length).center().toPoint());
    auto* field = chip("Dimension");
    ASSERT_NE(field, nullptr);
    type(field, "90 mm");
    EXPECT_FALSE(field->isVisible());
    EXPECT_NEAR(window.document().job().blank->table.stations.back().x_mm, 90, 0.011);
    EXPECT_NEAR(window.document().job().blank->landmarks.at("eye").points[0].x(), 1.5 * eye, 0.02);
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
    EXPECT_EQ(window.document().job().blank->table.stations[5].x_mm, 24);
    window.document().history().undo();
    EXPECT_TRUE(bytes() == before);
}

TEST_F(WindowTest, SinglePointsOfACurveAreDragged) {
    const auto points = [&] { return window.document().job().blank->landmarks.at("gill_plate").points; };
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

TEST_F(WindowTest, HandlesOfARowSpreadAndBowIt) {
    window.showLeaf(PatternNumber);
    window.view().setElement(1);
    QTest::qWait(50);
    const auto row = [&] { return std::get<DotRow>(window.document().job().pattern->elements[1]->shape); };
    const std::string before = bytes();
    const DotRow start = row();
    const double from = window.document().job().pattern->elements[1]->dx_mm;
    const QPointF first = pattern->handleAt(PatternHandle::First);
    drag(pattern, pattern->handleAt(PatternHandle::Last), QPointF(14, 0));
    EXPECT_GT(row().spacing_mm, start.spacing_mm + 0.1);
    EXPECT_EQ(window.document().job().pattern->elements[1]->dx_mm, from);
    ASSERT_TRUE(waitUntilSettled(window));
    EXPECT_NEAR(pattern->handleAt(PatternHandle::First).x(), first.x(), 0.5);
    const QPointF last = pattern->handleAt(PatternHandle::Last);
    drag(pattern, pattern->handleAt(PatternHandle::First), QPointF(10, 0));
    EXPECT_GT(window.document().job().pattern->elements[1]->dx_mm, from + 0.3);
    ASSERT_TRUE(waitUntilSettled(window));
    EXPECT_NEAR(pattern->handleAt(PatternHandle::Last).x(), last.x(), 4);  // along the skin, so only nearly
    const double bow = row().bow_mm;
    drag(pattern, pattern->handleAt(PatternHandle::Middle), QPointF(0, -12));
    EXPECT_GT(row().bow_mm, bow + 0.5);
    EXPECT_EQ(window.document().history().count(), 3);
    window.view().setElement(0);
    ASSERT_TRUE(waitUntilSettled(window));
    const double top = std::get<Bars>(window.document().job().pattern->elements[0]->shape).g1_mm;
    drag(pattern, pattern->handleAt(PatternHandle::Upper), QPointF(0, 10));
    EXPECT_LT(std::get<Bars>(window.document().job().pattern->elements[0]->shape).g1_mm, top - 0.3);
    while (window.document().history().canUndo()) window.document().history().undo();
    EXPECT_TRUE(bytes() == before);
}

TEST_F(WindowTest, AnotherAnchorLeavesTheMarkWhereItIs) {
    window.showLeaf(PatternNumber);
    window.view().setElement(1);
    QTest::qWait(50);
    const Vec2 before = window.results().body().art[1]->origin;
    for (const char* name : {"eye", "tail root", "nose", "lateral line"}) {
        bool clicked = false;
        for (QPushButton* b : window.findChildren<QPushButton*>()) {
            if (!b->isVisible() || b->text() != name) continue;
            b->click();
            clicked = true;
            break;
        }
        ASSERT_TRUE(clicked) << name;
        ASSERT_TRUE(waitUntilSettled(window));
        EXPECT_LT((window.results().body().art[1]->origin - before).norm(), 0.03) << name;
    }
}

/// The mask in view follows a drag before it is judged: coarse, then exact, then with its verdict.
TEST_F(WindowTest, TheMaskIsSketchedWhileSomethingIsDragged) {
    window.showLeaf(PatternNumber);
    window.view().setElement(1);
    ASSERT_TRUE(waitUntilSettled(window));
    const auto widest = [](const MaskPtr& mask) { return boxAround({mask->outline}).size().x(); };
    const double before = widest(window.results().sketch()->mask);
    std::vector<Precision> seen;
    bool judgedMeanwhile = false;
    QObject::connect(&window.results(), &Results::sketchChanged, &window, [&] {
        seen.push_back(window.results().sketch()->precision);
        judgedMeanwhile = judgedMeanwhile || !window.results().masksRunning();
    });
    drag(pattern, pattern->handleAt(PatternHandle::Last), QPointF(40, 0));
    ASSERT_TRUE(waitUntilSettled(window));
    ASSERT_GE(seen.size(), 2u);
    EXPECT_EQ(seen.front(), Precision::Preview);
    EXPECT_EQ(seen.back(), Precision::Exact);
    EXPECT_GT(widest(window.results().sketch()->mask), before + 1);
    const auto& judged = window.results().masks().masks[static_cast<std::size_t>(window.view().mask())].mask;
    EXPECT_EQ((*judged)->outline.size(), window.results().sketch()->mask->outline.size());
    EXPECT_NEAR(widest(*judged), widest(window.results().sketch()->mask), 1e-9);
}

TEST_F(WindowTest, ElementAndMaskAreOneSelection) {
    window.view().setElement(2);
    EXPECT_EQ(
        window.results().masks().masks[static_cast<std::size_t>(window.view().mask())].spec->elements[0],
        window.document().job().pattern->elements[2]->id);
    window.view().setSides(Sides::Right);
    EXPECT_EQ(window.results().masks().masks[static_cast<std::size_t>(window.view().mask())].spec->side,
              Side::Right);
    window.view().setMask(0);
    EXPECT_EQ(window.view().element(), 0);
}

TEST_F(WindowTest, BothSidesAreShownTogether) {
    window.showLeaf(PatternNumber);
    QTest::keyClick(&window, Qt::Key_B);
    QTest::qWait(500);
    const auto upper =
        window.holder().skinAt(QPointF(0.5 * window.holder().width(), 0.3 * window.holder().height()));
    const auto lower =
        window.holder().skinAt(QPointF(0.5 * window.holder().width(), 0.7 * window.holder().height()));
    ASSERT_TRUE(upper && lower);
    EXPECT_EQ(upper->side, Side::Left);
    EXPECT_EQ(lower->side, Side::Right);
}

TEST_F(WindowTest, PanelsBecomeTabsWhereThereIsLittleRoom) {
    window.showLeaf(MasksNumber);
    auto* page = window.findChild<MasksPage*>();
    EXPECT_FALSE(page->tabbed());
    window.resize(1024, 700);
    QTest::qWait(100);
    ASSERT_TRUE(page->tabbed());
    const std::string material = page->inView().spec->material;
    QTest::mouseClick(page, Qt::LeftButton, {}, page->materialBox(4).center().toPoint());
    EXPECT_EQ(page->inView().spec->material, material);  // another tab is in front
    page->setFocus();
    QTest::keyClick(page, Qt::Key_Left);  // round to the last tab
    QTest::mouseClick(page, Qt::LeftButton, {}, page->materialBox(4).center().toPoint());
    ASSERT_TRUE(waitUntilSettled(window));
    EXPECT_EQ(page->inView().spec->material, sheetMaterials()[4].id);
}

TEST_F(WindowTest, ExportWritesPages) {
    const test::TemporaryFolder folder;
    const auto exported = [&](const QString& to) {
        std::optional<Status> written;
        window.cutLeaf().exportTo(to, true, true, [&](const Status& status) { written = status; });
        EXPECT_TRUE(QTest::qWaitFor([&] { return written.has_value(); }, 20000));
        return written && *written;
    };
    ASSERT_TRUE(exported(QString::fromStdString(folder / "out")));
    EXPECT_NE(test::read(folder / "out/sheet-1.svg").find("<g id=\"CUT\""), std::string::npos);
    EXPECT_EQ(test::read(folder / "out/sheets.pdf").substr(0, 5), "%PDF-");
    EXPECT_FALSE(exported("/proc/nothing"));
}

TEST_F(WindowTest, SavedJobsReadBackAndDirtyFollows) {
    const test::TemporaryFolder folder;
    const QString path = QString::fromStdString(folder / "a.nineleaves.json");
    ASSERT_TRUE(window.document().save(path));
    EXPECT_FALSE(window.document().dirty());
    window.document().beginGesture();
    Element e = *window.document().job().pattern->elements[0];
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
    QTest::qWait(600);
    const auto picked =
        window.holder().skinAt(QPointF(0.5 * window.holder().width(), 0.5 * window.holder().height()));
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
        for (const int leaf : {BlankNumber, PatternNumber, MasksNumber, CutNumber}) {
            window.showLeaf(leaf);
            QTest::qWait(60);
            EXPECT_FALSE(window.grab().isNull());
        }
    }
}

/// Nonsense in any field of any leaf: refused with a sentence, nothing changed.
TEST_F(WindowTest, NonsenseIsRefusedInEveryField) {
    const std::string before = bytes();
    int fields = 0;
    for (const int leaf : {BlankNumber, PatternNumber, MasksNumber, CutNumber}) {
        for (const int element : {0, 1}) {
            window.showLeaf(leaf);
            window.view().setElement(element);
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

namespace {

/// Answers the next file dialog with a path, then notes and closes whatever message follows.
struct DialogAnswer {
    explicit DialogAnswer(const QString& path) {
        QTimer::singleShot(300, [path] {
            QWidget* dialog = QApplication::activeModalWidget();
            if (!dialog) return;
            if (auto* name = dialog->findChild<QLineEdit*>("fileNameEdit")) name->setText(path);
            QTest::keyClick(dialog, Qt::Key_Return);
        });
        for (const int later : {900, 1500}) {
            QTimer::singleShot(later, [this] {
                if (auto* box = qobject_cast<QMessageBox*>(QApplication::activeModalWidget())) {
                    said += box->text();
                    box->accept();
                }
            });
        }
    }
    QString said;
};

}  // namespace

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
    Element e = *window.document().job().pattern->elements[0];
    e.dx_mm += 1;
    window.document().edit(withElement(window.document().job(), 0, e), "move");
    DialogAnswer answer("/proc/no.nineleaves.json");
    EXPECT_FALSE(window.saveAs());
    QTest::qWait(1600);
    EXPECT_TRUE(window.document().dirty());
    EXPECT_FALSE(QFile::exists("/proc/no.nineleaves.json"));
}

TEST_F(WindowTest, TheFlagKeyGoesToWhatIsWrongAndTheRepairMendsIt) {
    window.view().setMask(0);
    window.masksLeaf().useMaterial(0);  // paper cannot follow
    ASSERT_TRUE(waitUntilSettled(window));
    ASSERT_EQ(window.tellTale().verdict().kind, Verdict::Kind::Fault);
    window.showLeaf(BlankNumber);
    QTest::keyClick(&window, Qt::Key_F);
    EXPECT_EQ(window.currentLeaf(), MasksNumber);
    EXPECT_FALSE((*window.results().masks().masks[static_cast<std::size_t>(window.view().mask())].mask)
                     ->report.liesFlat);
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
        switch (roll(9)) {
            case 0:
                window.showLeaf(std::array{BlankNumber, PatternNumber, MasksNumber,
                                           CutNumber}[static_cast<std::size_t>(roll(4))]);
                break;
            case 1:
                drag(blank, blank->stationHandle(1 + roll(10), roll(2)),
                     QPointF(roll(30) - 15, roll(30) - 15));
                break;
            case 2:
                window.view().setElement(roll(4));
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
                if (roll(4) == 0) window.patternLeaf().addElement(roll(2));
                break;
            case 6:
                if (roll(6) == 0) window.patternLeaf().removeSelected();
                break;
            case 7:
                window.masksLeaf().useMaterial(roll(5));
                break;
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
    for (const int leaf : {BlankNumber, PatternNumber, MasksNumber, CutNumber}) {
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
        Job job = test::need(demoJob());
        Element e = *job.pattern->elements[1];
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
    window.document().history().setClean();
}

TEST(Start, EmptyWindowOffersReadingsAndDemo) {
    const test::TemporaryFolder state;
    MainWindow window(QString::fromStdString(state.path()));
    window.show();
    (void)QTest::qWaitForWindowExposed(&window);
    EXPECT_TRUE(window.document().empty());
    EXPECT_EQ(window.stem().entry(BlankNumber).state, LeafState::Nothing);
    EXPECT_TRUE(window.tellTale().verdict().sentence.contains("Start"));
    for (const int leaf : {PatternNumber, MasksNumber, CutNumber, BlankNumber}) {
        window.showLeaf(leaf);
        EXPECT_FALSE(window.grab().isNull());
    }
    auto* page = window.findChild<BlankPage*>();
    QTest::mouseClick(page, Qt::LeftButton, {},
                      QPoint(page->width() / 2, static_cast<int>(0.30 * page->height()) + 58 + 62 + 20));
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
