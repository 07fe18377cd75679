// The ways to a body in the window, driven as a painter would.
#include <QListWidget>
#include <QMenu>
#include <QPushButton>
#include <QSignalSpy>

#include "app/leaves/blank/begin_page.h"
#include "app/leaves/blank/blank_edits.h"
#include "app/leaves/blank/library_dialog.h"
#include "app/leaves/blank/picture_page.h"
#include "app/sheet/paper.h"
#include "geom/polygon_set.h"
#include "image/tracing.h"
#include "job/tracing_page.h"
#include "tests/app/window_fixture.h"

namespace nine::app {
namespace {

class Ways : public WindowTest {
  protected:
    BlankDesk& desk() { return leafOf<BlankLeaf>(window).desk(); }
    bool looked() {
        return QTest::qWaitFor([&] { return !desk().running(); }, 60000);
    }
    QPushButton* button(const QString& words) {
        QApplication::processEvents();  // a new card shows its buttons a moment later
        for (QPushButton* b : window.findChildren<QPushButton*>())
            if (b->text() == words && b->isVisible()) return b;
        return nullptr;
    }
    void click(const QString& words) {
        ASSERT_TRUE(QTest::qWaitFor([&] { return button(words) != nullptr; }, 3000)) << words.toStdString();
        QTest::mouseClick(button(words), Qt::LeftButton);
    }
    void type(const QString& name, const QString& text) {
        ASSERT_TRUE(QTest::qWaitFor([&] { return chip(name) != nullptr; }, 3000)) << name.toStdString();
        WindowTest::type(chip(name), text);
    }
    /// All words of the card.
    QString cardText() {
        QApplication::processEvents();
        QString text;
        for (const QLabel* label : window.findChildren<QLabel*>())
            if (label->isVisible()) text += label->text() + '\n';
        return text;
    }
    /// An entry of the menu behind a button.
    void pick(const QString& words, const QString& entry) {
        ASSERT_TRUE(QTest::qWaitFor([&] { return button(words) != nullptr; }, 3000)) << words.toStdString();
        for (QAction* action : button(words)->menu()->actions())
            if (action->text() == entry) return action->trigger();
        FAIL() << entry.toStdString();
    }
    const BlankChapter& body() { return window.document().job().get<BlankChapter>(); }
};

TEST_F(Ways, FromNothingToATracedBody) {
    window.document().open(Job{}, {});
    window.showLeaf(BlankNumber);
    auto* begin = &leafOf<BlankLeaf>(window).beginPage();
    ASSERT_TRUE(begin->isVisible());
    Tile* trace = nullptr;
    for (Tile* tile : begin->findChildren<Tile*>())
        if (tile->text() == "Trace it") trace = tile;
    ASSERT_NE(trace, nullptr);
    trace->setFocus();
    QTest::keyClick(trace, Qt::Key_Space);  // tiles are buttons: by keyboard too
    EXPECT_TRUE(leafOf<BlankLeaf>(window).picturePage().isVisible());
    click("Try it with the demo's tracing");
    ASSERT_TRUE(looked());
    ASSERT_TRUE(desk().made() && *desk().made());
    click("Make the body");
    ASSERT_TRUE(waitUntilSettled(window));
    EXPECT_TRUE(blank->isVisible());
    EXPECT_NEAR(body().table.stations.back().x_mm, 60, 0.1);
    EXPECT_EQ(body().source, "tracing");
    EXPECT_EQ(body().pictures.size(), 1u);
    EXPECT_FALSE(body().landmarks.at("eye").assumed);
    EXPECT_TRUE(body().landmarks.at("belly_hanger").assumed);
}

TEST_F(Ways, ATracingIsHelpedByHandBeforeTheBodyIsMade) {
    window.showLeaf(BlankNumber);
    desk().start(BlankDesk::Way::Tracing);
    click("Try it with the demo's tracing");
    ASSERT_TRUE(looked());
    ASSERT_TRUE(desk().side().reading);
    PicturePage& page = leafOf<BlankLeaf>(window).picturePage();
    const auto axis = [&] { return desk().side().reading->side->axis; };
    const auto turn = [&] {
        const Vec2 along = axis().tail - axis().nose;
        return std::atan2(along.y(), along.x());
    };
    const double before = turn(), length = axis().length();
    drag(&page, page.handle(PicturePage::Grip::Nose), QPointF(0, 8));
    ASSERT_TRUE(looked());
    EXPECT_GT(std::abs(turn() - before), 0.01);
    // The one from above has handles of its own.
    const double top = desk().side().reading->top->axis.nose.y();
    drag(&page, page.handle(PicturePage::Grip::TopTail), QPointF(0, -8));
    ASSERT_TRUE(looked());
    EXPECT_NE(desk().side().reading->top->axis.nose.y(), top);
    // Painted across near the tail: the rest is left; taken back it is whole again.
    click("Paint out");
    const QPointF tail = page.handle(PicturePage::Grip::Tail);
    drag(&page, tail + QPointF(-50, -60), QPointF(0, 120));
    ASSERT_TRUE(looked());
    EXPECT_LT(axis().length(), length - 5);
    click("Take the last stroke back");
    ASSERT_TRUE(looked());
    EXPECT_NEAR(axis().length(), length, 0.3);
    // By keyboard: Page down from the brush to the nose; three quick steps are three steps.
    desk().setTool(BlankDesk::Tool::Axis);
    page.setFocus();
    QTest::keyClick(&page, Qt::Key_PageDown);
    const QPointF stood = page.handle(PicturePage::Grip::Nose);
    for (int i = 0; i < 3; ++i) QTest::keyClick(&page, Qt::Key_Up, Qt::ShiftModifier);
    const double step = page.at(Vec2(0, 0)).y() - page.at(Vec2(0, 10)).y();
    EXPECT_NEAR(page.handle(PicturePage::Grip::Nose).y() - stood.y(), 3 * step, 0.5);
    ASSERT_TRUE(looked());
    EXPECT_NEAR(page.handle(PicturePage::Grip::Nose).y() - stood.y(), 3 * step, 1.5);
    click("Make the body");
    ASSERT_TRUE(waitUntilSettled(window));
    EXPECT_NEAR(body().table.stations.back().x_mm, 60, 0.6);
}

TEST_F(Ways, ABodyFromPhotosIsOneStepOfTheHistory) {
    const std::string before = bytes();
    window.showLeaf(BlankNumber);
    desk().start(BlankDesk::Way::Photo);
    click("Try it with the demo's photos");
    ASSERT_TRUE(looked());
    ASSERT_TRUE(desk().side().outline && desk().above().outline);
    type("Length of the body", "61");
    ASSERT_TRUE(looked());
    // Dragging the nose changes the axis, not the job.
    PicturePage& page = leafOf<BlankLeaf>(window).picturePage();
    const Vec2 nose = desk().side().outline->axis_px.nose;
    drag(&page, page.handle(PicturePage::Grip::Nose), QPointF(0, 12));
    ASSERT_TRUE(looked());
    EXPECT_GT((desk().side().outline->axis_px.nose - nose).norm(), 5);
    EXPECT_EQ(bytes(), before);
    // A stroke over the hind half takes it out; it can be taken back.
    desk().setTool(BlankDesk::Tool::TakeOut);
    const QPointF tail = page.handle(PicturePage::Grip::Tail);
    const double length = desk().side().outline->axis_px.length();
    drag(&page, tail + QPointF(-60, -60), QPointF(0, 160));
    ASSERT_TRUE(looked());
    EXPECT_LT(desk().side().outline->axis_px.length(), length - 20);
    click("Take the last stroke back");
    ASSERT_TRUE(looked());
    EXPECT_NEAR(desk().side().outline->axis_px.length(), length, 3);
    click("Make the body");
    ASSERT_TRUE(waitUntilSettled(window));
    EXPECT_NEAR(body().table.stations.back().x_mm, 61, 0.3);
    EXPECT_EQ(body().pictures.size(), 2u);
    window.document().history().undo();
    EXPECT_EQ(bytes(), before);
}

TEST_F(Ways, APhotoIsLaidOverTheBodyOfTheJob) {
    const std::string before = bytes();
    window.showLeaf(BlankNumber);
    leafOf<BlankLeaf>(window).openPicture(":/demo/sedge60-photo.jpg");
    ASSERT_TRUE(looked());
    // Without a length it is made to fit; the drawn demo body is the demo's own.
    ASSERT_TRUE(desk().side().check);
    EXPECT_LT(desk().side().check->rms_mm, 0.15);
    const QString fitted = cardText();
    EXPECT_TRUE(fitted.contains("Laid over the body of this job")) << fitted.toStdString();
    EXPECT_TRUE(fitted.contains("made to fit in size"));
    type("Length of the body", "63");
    ASSERT_TRUE(looked());
    EXPECT_GT(desk().side().check->worst.off_mm, 1);
    EXPECT_FALSE(cardText().contains("made to fit in size"));
    // It is laid over the body as it is now, whatever happens to that meanwhile.
    type("Length of the body", "60");
    ASSERT_TRUE(looked());
    EXPECT_LT(std::abs(desk().side().check->worst.off_mm), 0.5);
    BlankChapter taller = body();
    for (Station& station : taller.table.stations)
        if (station.top_mm > 0) station.top_mm += 2;
    window.document().beginGesture();
    window.document().edit(window.document().job().with(taller), "taller");
    ASSERT_TRUE(looked());
    EXPECT_GT(std::abs(desk().side().check->worst.off_mm), 0.8);
    window.document().history().undo();
    ASSERT_TRUE(looked());
    EXPECT_LT(std::abs(desk().side().check->worst.off_mm), 0.5);
    click("Leave this");
    EXPECT_EQ(bytes(), before);
}

TEST_F(Ways, WhatWasTakenOffIsHatchedAndAClickPutsItBack) {
    window.showLeaf(BlankNumber);
    desk().start(BlankDesk::Way::Photo);
    click("Try it with the demo's photos");
    ASSERT_TRUE(looked());
    const auto things = [&]() -> const std::vector<TakenOff>& { return desk().side().silhouette->takenOff; };
    const auto bill = std::find_if(things().begin(), things().end(),
                                   [](const TakenOff& t) { return t.kind == TakenOff::Kind::Bill; });
    ASSERT_NE(bill, things().end());
    PicturePage& page = leafOf<BlankLeaf>(window).picturePage();
    const Box2 box = boxAround({bill->outline});
    const QPoint place = page.at(0.5 * (box.low + box.high)).toPoint();
    const double low = boxAround({desk().side().silhouette->outline}).high.y();
    QTest::mouseClick(&page, Qt::LeftButton, {}, place);
    ASSERT_TRUE(looked());
    EXPECT_GT(boxAround({desk().side().silhouette->outline}).high.y(), low + 50);
    QTest::mouseClick(&page, Qt::LeftButton, {}, place);
    ASSERT_TRUE(looked());
    EXPECT_NEAR(boxAround({desk().side().silhouette->outline}).high.y(), low, 2);
    for (int i = 0; i < 50; ++i)
        QTest::mouseClick(&page, Qt::LeftButton, {}, place);  // an even number of times
    ASSERT_TRUE(looked());
    EXPECT_NEAR(boxAround({desk().side().silhouette->outline}).high.y(), low, 2);
    // Beside everything a click does nothing.
    QTest::mouseClick(&page, Qt::LeftButton, {}, page.at({40, 40}).toPoint());
    EXPECT_FALSE(desk().running());
    // Where no coin lies that is said, and nothing is lost.
    click("A coin");
    QTest::mouseClick(&page, Qt::LeftButton, {}, page.at({60, 60}).toPoint());
    ASSERT_TRUE(looked());
    ASSERT_TRUE(desk().coinError());
    EXPECT_EQ(desk().coinError()->code, "no_coin");
    EXPECT_TRUE(desk().made() && *desk().made());
    // The scale is the side's alone: from above there is no such tool in hand, and a new picture has none
    // yet.
    click("From above");
    EXPECT_EQ(desk().tool(), BlankDesk::Tool::Axis);
    EXPECT_EQ(button("A coin"), nullptr);
    click("From the side");
    // The brush has a size that keys and buttons change.
    click("Paint out");
    const double brush = desk().brush();
    page.setFocus();
    QTest::keyClick(&page, Qt::Key_BracketRight);
    EXPECT_GT(desk().brush(), 1.2 * brush);
    click("Finer brush");
    EXPECT_NEAR(desk().brush(), brush, 1e-9);
}

TEST_F(Ways, ThePencilsStandOffIsTakenFromOneSize) {
    window.showLeaf(BlankNumber);
    desk().start(BlankDesk::Way::Tracing);
    click("Try it with the demo's tracing");
    ASSERT_TRUE(looked());
    const double length = desk().side().reading->side->axis.length();
    EXPECT_EQ(desk().side().reading->sideStandOff_mm, 0);
    click("Pencil leaning");
    ASSERT_TRUE(looked());
    const double half = 0.5 * desk().side().reading->side->lineWidth_mm;
    EXPECT_NEAR(desk().side().reading->sideStandOff_mm, half, 1e-9);
    type("Length by ruler", QString::number(length - 1.2, 'f', 2));
    ASSERT_TRUE(looked());
    EXPECT_NEAR(desk().side().reading->side->axis.length(), length - 1.2, 0.05);
    ASSERT_TRUE(desk().made() && *desk().made());
    EXPECT_NEAR((**desk().made()).blank.table.stations.back().x_mm, length - 1.2, 0.06);
    type("Length by ruler", "90");  // no pencil stands so far off: said, the size can be typed again
    ASSERT_TRUE(looked());
    ASSERT_TRUE(desk().side().error);
    EXPECT_EQ(desk().side().error->code, "known_size_off");
    type("Length by ruler", "0");
    ASSERT_TRUE(looked());
    EXPECT_FALSE(desk().side().error);
    click("Nose is at the left");
    ASSERT_TRUE(looked());
    EXPECT_GT(desk().side().reading->side->axis.nose.x(), desk().side().reading->side->axis.tail.x());
}

TEST_F(Ways, ThePictureFromAboveIsWorkedOnToo) {
    window.showLeaf(BlankNumber);
    desk().start(BlankDesk::Way::Photo);
    click("Try it with the demo's photos");
    ASSERT_TRUE(looked());
    ASSERT_TRUE(desk().made() && *desk().made());
    const auto largest = [&](auto size) {
        double most = 0;
        for (const Station& s : (**desk().made()).blank.table.stations) most = std::max(most, size(s));
        return most;
    };
    const auto width = [](const Station& s) { return 2 * s.halfWidth_mm; };
    const auto height = [](const Station& s) { return s.top_mm + s.bottom_mm; };
    const double wide = largest(width), high = largest(height);
    click("From above");
    EXPECT_TRUE(desk().showsAbove());
    // A strip along one flank is painted out: the body gets narrower, the side view stays as it is.
    PicturePage& page = leafOf<BlankLeaf>(window).picturePage();
    desk().setTool(BlankDesk::Tool::TakeOut);
    const QPointF nose = page.handle(PicturePage::Grip::Nose), tail = page.handle(PicturePage::Grip::Tail);
    drag(&page, nose + QPointF(0, 75), tail - nose);
    ASSERT_TRUE(looked());
    ASSERT_TRUE(desk().made() && *desk().made());
    EXPECT_LT(largest(width), wide - 1);
    EXPECT_NEAR(largest(height), high, 0.1);
    click("Take the last stroke back");
    ASSERT_TRUE(looked());
    EXPECT_NEAR(largest(width), wide, 0.05);
    click("From the side");
    EXPECT_FALSE(desk().showsAbove());
    EXPECT_TRUE(desk().shownWish().silhouette.strokes.empty());
    desk().leave();
}

TEST_F(Ways, TheBlankIsNamed) {
    window.showLeaf(BlankNumber);
    desk().start(BlankDesk::Way::Kind);
    type("Length", "70");
    ASSERT_TRUE(QTest::qWaitFor([&] { return button("Make the body") != nullptr; }, 3000));
    QLineEdit* name = nullptr;
    for (QLineEdit* field : window.findChildren<QLineEdit*>())
        if (field->accessibleName() == "Name of the blank" && field->isVisible()) name = field;
    ASSERT_NE(name, nullptr);
    QTest::keyClicks(name, "Tansy 70");
    click("Make the body");
    EXPECT_EQ(body().name, "Tansy 70");
}

TEST_F(Ways, TheSheetOnPaperIsReadBack) {
    // What the printer paints, 10 dots a millimetre, goes to the reader of tracings: all rings, and square.
    const Drawing sheet = tracingPage(kTracingLetter_mm);
    QImage paper(2794, 2159, QImage::Format_RGB32);
    paper.fill(Qt::white);
    QPainter p(&paper);
    p.setRenderHint(QPainter::Antialiasing);
    paintDrawing(p, sheet, 10);
    p.end();
    Picture picture(paper.width(), paper.height());
    for (int y = 0; y < picture.height; ++y) {
        for (int x = 0; x < picture.width; ++x) {
            const QRgb c = paper.pixel(x, y);
            picture.at(x, y)[0] = static_cast<std::uint8_t>(qRed(c));
            picture.at(x, y)[1] = static_cast<std::uint8_t>(qGreen(c));
            picture.at(x, y)[2] = static_cast<std::uint8_t>(qBlue(c));
        }
    }
    const SeenPage seen = test::need(seePage(findRings(picture), Vec2(picture.width, picture.height)));
    EXPECT_EQ(seen.marks.size(), 8u);
    EXPECT_LT(seen.miss_mm, 0.02);
    EXPECT_NEAR(seen.view.pixelsPerMm({125, 90}), 10, 0.005);
    EXPECT_EQ(readTracing(picture, {}).error().code, "nothing_drawn");  // its own lines are no body
}

TEST_F(Ways, WrongPicturesAreSaidAndNothingIsLost) {
    const std::string before = bytes();
    test::write(state / "no.jpg", "no picture");
    leafOf<BlankLeaf>(window).openPicture(QString::fromStdString(state / "no.jpg"));
    ASSERT_TRUE(looked());
    ASSERT_TRUE(desk().side().error);
    EXPECT_EQ(desk().side().error->code, "not_a_picture");
    desk().start(BlankDesk::Way::Tracing);
    desk().openPicture(":/demo/sedge60-photo.jpg");
    ASSERT_TRUE(looked());
    EXPECT_EQ(desk().side().error->code, "marks_missing");
    EXPECT_FALSE(desk().make());
    EXPECT_EQ(button("Make the body"), nullptr);
    click("Leave this");
    EXPECT_EQ(bytes(), before);
    EXPECT_TRUE(blank->isVisible());
}

TEST_F(Ways, AKindWithReadings) {
    window.showLeaf(BlankNumber);
    desk().start(BlankDesk::Way::Kind);
    desk().setFamily("minnow");
    EXPECT_FALSE(button("Make the body")->isEnabled());  // no length yet
    type("Length", "9.6 cm");
    type("Height", "17");
    click("Add a place");
    type("Place 1", "40");
    type("Height at place 1", "19");
    EXPECT_FALSE(button("Make the body")->isEnabled());  // higher than the highest: said, not made
    type("Height at place 1", "16");
    type("Width at place 1", "13");
    click("Make the body");
    ASSERT_TRUE(waitUntilSettled(window));
    EXPECT_EQ(body().table.stations.back().x_mm, 96);
    EXPECT_EQ(body().family, "minnow");
    const auto measured = std::find_if(body().table.stations.begin(), body().table.stations.end(),
                                       [](const Station& s) { return s.x_mm == 40; });
    ASSERT_NE(measured, body().table.stations.end());
    EXPECT_EQ(measured->assumed, static_cast<unsigned>(kAssumedSection));
    // What is dragged is measured.
    const int index = 3;
    EXPECT_TRUE(body().table.stations[index].assumed & kAssumedTop);
    drag(blank, blank->stationHandle(index, true), QPointF(0, -8));
    EXPECT_FALSE(body().table.stations[index].assumed & kAssumedTop);
    EXPECT_TRUE(body().table.stations[index].assumed & kAssumedBottom);
}

TEST_F(Ways, TheEyeInHand) {
    window.showLeaf(BlankNumber);
    window.view().setLandmark("eye");
    type("Diameter of the socket", "5");
    EXPECT_EQ(body().landmarks.at("eye").diameter_mm, 5);
    type("Diameter of the socket", "40");  // larger than the head
    EXPECT_EQ(body().landmarks.at("eye").diameter_mm, 5);
    click("Looks forward");
    EXPECT_EQ(body().landmarks.at("eye").eyeType, "forward");
    blank->setFocus();
    const double x = body().landmarks.at("eye").points[0].x();
    QTest::keyClick(blank, Qt::Key_Right, Qt::ShiftModifier);
    EXPECT_NEAR(body().landmarks.at("eye").points[0].x(), x + 1, 1e-9);
    click("Back to the stations");
    EXPECT_TRUE(window.view().landmark().empty());
}

TEST_F(Ways, LandmarksComeAndGo) {
    window.showLeaf(BlankNumber);
    pick("Landmarks", "gill plate");
    click("Take it out");  // the pattern is anchored to it
    EXPECT_EQ(body().landmarks.count("gill_plate"), 1u);
    window.view().setLandmark("seam");
    click("Take it out");
    EXPECT_EQ(body().landmarks.count("seam"), 0u);
    pick("Mark another", "seam");
    EXPECT_EQ(body().landmarks.count("seam"), 1u);
    EXPECT_TRUE(body().landmarks.at("seam").assumed);
    EXPECT_EQ(window.view().landmark(), "seam");
}

TEST_F(Ways, ABareAreaIsDrawnAndChanged) {
    window.showLeaf(BlankNumber);
    const double painted = window.results().painted_mm2();
    window.view().setBlankTool(ViewState::BlankTool::Zone);
    const QPointF middle = 0.5 * (blank->stationHandle(5, true) + blank->stationHandle(6, false));
    for (const QPointF& corner : {QPointF(-25, -20), QPointF(25, -20), QPointF(25, 20), QPointF(-25, 20)})
        QTest::mouseClick(blank, Qt::LeftButton, {}, (middle + corner).toPoint());
    blank->setFocus();
    QTest::keyClick(blank, Qt::Key_Return);
    ASSERT_EQ(body().zones.size(), 1u);
    ASSERT_TRUE(waitUntilSettled(window));
    EXPECT_LT(window.results().painted_mm2(), painted - 20);
    QTest::mouseClick(blank, Qt::LeftButton, {}, middle.toPoint());
    EXPECT_EQ(window.view().landmark(), "zone:" + body().zones[0].id);
    click("carved area");
    EXPECT_FALSE(body().zones[0].noPaint);
    click("deep");
    EXPECT_EQ(body().zones[0].relief_mm, 0.5);
    click("Take it away");
    EXPECT_TRUE(body().zones.empty());
}

TEST_F(Ways, MeasuringAlongTheSkin) {
    window.showLeaf(BlankNumber);
    window.view().setBlankTool(ViewState::BlankTool::Measure);
    const Skin skin = test::need(Skin::of(body().table));
    const Vec2 eye = body().landmarks.at("eye").points[0], root = body().landmarks.at("tail_root").points[0];
    QTest::mouseClick(blank, Qt::LeftButton, {}, blank->landmarkHandle("eye").toPoint());
    QTest::mouseClick(blank, Qt::LeftButton, {}, blank->landmarkHandle("tail_root").toPoint());
    ASSERT_TRUE(QTest::qWaitFor([&] { return blank->layers().way().found.has_value(); }, 5000));
    const double expected =
        test::need(shortestWay(skin, {Side::Left, eye.x(), eye.y()}, {Side::Left, root.x(), root.y()}))
            .length_mm;
    EXPECT_NEAR((*blank->layers().way().found)->length_mm, expected,
                0.3);  // a pixel is an eighth of a millimetre
    QTest::keyClick(blank, Qt::Key_Escape);
    EXPECT_EQ(window.view().blankTool(), ViewState::BlankTool::Stations);
}

TEST_F(Ways, ToolsByKeyboard) {
    window.showLeaf(BlankNumber);
    window.view().setBlankTool(ViewState::BlankTool::Zone);
    blank->setFocus();
    const auto go = [&](Qt::Key key, int times) {
        for (int i = 0; i < times; ++i) QTest::keyClick(blank, key, Qt::ShiftModifier);
        QTest::keyClick(blank, Qt::Key_Space);
    };
    go(Qt::Key_Right, 1);
    go(Qt::Key_Up, 3);
    go(Qt::Key_Right, 4);
    go(Qt::Key_Down, 3);
    QTest::keyClick(blank, Qt::Key_Return);
    ASSERT_EQ(body().zones.size(), 1u);
    EXPECT_EQ(body().zones[0].polygon, (std::vector<Vec2>{{32, 0}, {32, 6}, {40, 6}, {40, 0}}));
    window.view().setBlankTool(ViewState::BlankTool::Measure);
    go(Qt::Key_Right, 1);
    go(Qt::Key_Left, 5);
    ASSERT_TRUE(QTest::qWaitFor([&] { return blank->layers().way().found.has_value(); }, 5000));
    const Skin skin = test::need(Skin::of(body().table));
    const double expected = test::need(shortestWay(skin, {Side::Left, 42, 0}, {Side::Left, 32, 0})).length_mm;
    EXPECT_NEAR((*blank->layers().way().found)->length_mm, expected, 1e-6);
}

TEST_F(Ways, LookingCanBeStopped) {
    const std::string before = bytes();
    window.showLeaf(BlankNumber);
    desk().start(BlankDesk::Way::Photo);
    desk().openPicture(":/demo/sedge60-photo.jpg");
    EXPECT_TRUE(desk().running());
    desk().cancel();
    EXPECT_FALSE(desk().running());
    QTest::qWait(400);
    EXPECT_FALSE(desk().side().outline);
    EXPECT_TRUE(desk().stopped());
    EXPECT_EQ(desk().make().error().code, "not_ready");
    EXPECT_EQ(bytes(), before);
    desk().leave();
}

TEST_F(Ways, TheMapSaysWhereASheetLies) {
    window.showLeaf(BlankNumber);
    window.view().setWrapMap(true);
    ASSERT_TRUE(QTest::qWaitFor([&] { return blank->layers().wrap().colours != nullptr; }, 10000));
    const double small = blank->layers().wrap().map.share;
    type("Sheet round the body", "30");
    ASSERT_TRUE(QTest::qWaitFor([&] { return blank->layers().wrap().across == 30; }, 10000));
    EXPECT_LT(blank->layers().wrap().map.share, small);
}

TEST_F(Ways, TheStringCorrectsOneHalf) {
    window.showLeaf(BlankNumber);
    window.view().setStation(5);
    const Station before = body().table.stations[5];
    click("Above the axis");
    type("String girth", "96");
    const Station after = body().table.stations[5];
    EXPECT_GT(after.section, before.section);
    EXPECT_EQ(after.sectionLower, before.sectionLower);
    EXPECT_EQ(after.girth_mm, 96);
    EXPECT_NEAR(girthResidual_mm(after), 0, 0.02);
    type("String girth", "150");  // no section has it
    EXPECT_EQ(body().table.stations[5].girth_mm, 96);
}

TEST_F(Ways, TheLibraryKeepsTakesAndGivesBack) {
    window.library().open();
    ASSERT_TRUE(QTest::qWaitFor([&] { return window.library().ready(); }, 20000));
    const std::string before = bytes();
    LibraryDialog dialog(window.library(), window.document(), &window);
    dialog.show();
    EXPECT_EQ(dialog.list().count(), 7);
    dialog.keepOpen();
    ASSERT_TRUE(QTest::qWaitFor([&] { return dialog.list().count() == 8; }, 10000));
    QTest::keyClicks(&dialog.search(), "willow");
    ASSERT_EQ(dialog.list().count(), 1);
    ASSERT_TRUE(QTest::qWaitFor([&] { return dialog.figures().text().contains("+44"); }, 10000))
        << dialog.figures().text().toStdString();
    dialog.remove();
    EXPECT_EQ(dialog.list().count(), 0);
    dialog.putBack();
    ASSERT_EQ(dialog.list().count(), 1);
    dialog.duplicate();
    ASSERT_TRUE(QTest::qWaitFor([&] { return dialog.list().count() == 2; }, 10000));
    dialog.list().item(0)->setSelected(true);
    dialog.use();
    EXPECT_EQ(body().table.stations.back().x_mm, 104);
    window.document().history().undo();
    EXPECT_EQ(bytes(), before);
}

}  // namespace
}  // namespace nine::app
