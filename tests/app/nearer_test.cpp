// Looking from nearer: wheel, middle button, Space and keys, the same on every page.
#include <QWheelEvent>

#include "app/leaves/blank/picture_page.h"
#include "app/leaves/cut/cut_page.h"
#include "app/leaves/masks/masks_page.h"
#include "app/leaves/spray/spray_page.h"
#include "tests/app/window_fixture.h"

namespace nine::app {
namespace {

class Nearer : public WindowTest {
  protected:
    void wheel(QWidget* on, const QPointF& at, int notches) {
        QWheelEvent event(at, on->mapToGlobal(at), {}, QPoint(0, 120 * notches), Qt::NoButton, Qt::NoModifier,
                          Qt::NoScrollPhase, false);
        QApplication::sendEvent(on, &event);
    }
    void mouse(QWidget* on, QEvent::Type type, const QPointF& at, Qt::MouseButton button,
               Qt::MouseButtons held) {
        QMouseEvent event(type, at, on->mapToGlobal(at), button, held, {});
        QApplication::sendEvent(on, &event);
    }
};

TEST_F(Nearer, EveryPageIsEnlargedRoundThePointerAndMoved) {
    const std::pair<int, LeafPage*> pages[] = {{BlankNumber, blank},
                                               {PatternNumber, pattern},
                                               {MasksNumber, window.findChild<MasksPage*>()},
                                               {CutNumber, window.findChild<CutPage*>()},
                                               {SprayNumber, window.findChild<SprayPage*>()}};
    const std::string before = bytes();
    for (const auto& [number, page] : pages) {
        window.showLeaf(number);
        ASSERT_TRUE(page->isVisible()) << number;
        const QPointF at(0.4 * page->width(), 0.45 * page->height());
        const QPointF under = page->toPage(at);
        wheel(page, at, 3);
        EXPECT_NEAR(page->zoom(), std::pow(1.25, 3), 1e-9) << number;
        EXPECT_LT(QLineF(page->toPage(at), under).length(), 1e-6) << number;  // stays under the pointer
        // The middle button takes it along.
        mouse(page, QEvent::MouseButtonPress, at, Qt::MiddleButton, Qt::MiddleButton);
        mouse(page, QEvent::MouseMove, at + QPointF(-30, 12), Qt::NoButton, Qt::MiddleButton);
        mouse(page, QEvent::MouseButtonRelease, at + QPointF(-30, 12), Qt::MiddleButton, Qt::NoButton);
        EXPECT_LT(QLineF(page->toPage(at + QPointF(-30, 12)), under).length(), 1e-6) << number;
        // Space with the left button as well, and then Space does nothing else.
        page->setFocus();
        QTest::keyPress(page, Qt::Key_Space);
        mouse(page, QEvent::MouseButtonPress, at, Qt::LeftButton, Qt::LeftButton);
        mouse(page, QEvent::MouseMove, at + QPointF(20, 0), Qt::NoButton, Qt::LeftButton);
        mouse(page, QEvent::MouseButtonRelease, at + QPointF(20, 0), Qt::LeftButton, Qt::NoButton);
        QTest::keyRelease(page, Qt::Key_Space);
        EXPECT_LT(QLineF(page->toPage(at + QPointF(-10, 12)), under).length(), 1e-6) << number;
        // Keys: nearer, along, all again.
        const QPointF corner = page->toPage({0, 0});
        QTest::keyClick(page, Qt::Key_Right, Qt::ControlModifier);
        EXPECT_GT(page->toPage({0, 0}).x(), corner.x()) << number;
        const double zoom = page->zoom();
        QTest::keyClick(page, Qt::Key_Plus);
        EXPECT_NEAR(page->zoom(), 1.25 * zoom, 1e-9) << number;
        QTest::keyClick(page, Qt::Key_Minus);
        EXPECT_NEAR(page->zoom(), zoom, 1e-9) << number;
        for (int i = 0; i < 40; ++i) wheel(page, {5, 5}, 1);
        EXPECT_EQ(page->zoom(), LeafPage::kMostZoom) << number;
        EXPECT_GE(page->toPage({0, 0}).x(), 0) << number;  // never beside the page
        QTest::keyClick(page, Qt::Key_0);
        EXPECT_EQ(page->zoom(), 1) << number;
        EXPECT_EQ(page->toPage({7, 9}), QPointF(7, 9)) << number;
        ASSERT_TRUE(waitUntilSettled(window));
    }
    EXPECT_EQ(bytes(), before);  // looking changes nothing
}

/// From nearer what is drawn is taken hold of where it is seen, and moved by less.
TEST_F(Nearer, HandlesAreWhereTheyAreSeen) {
    window.showLeaf(PatternNumber);
    selectElement(0);
    ASSERT_TRUE(waitUntilSettled(window));
    const auto dx = [&] { return window.document().job().get<PatternChapter>().elements[0]->dx_mm; };
    const double start = dx();
    drag(pattern, pattern->handleAt("first"), QPointF(40, 0));
    ASSERT_TRUE(waitUntilSettled(window));
    const double plain = dx() - start;
    ASSERT_GT(plain, 0.5);
    window.document().history().undo();
    ASSERT_TRUE(waitUntilSettled(window));
    const QPointF on = pattern->handleAt("first");
    pattern->zoomTo(2, on);
    drag(pattern, pattern->toWidget(pattern->handleAt("first")), QPointF(40, 0));
    ASSERT_TRUE(waitUntilSettled(window));
    EXPECT_NEAR(dx() - start, 0.5 * plain, 0.1 * plain);
    pattern->showAll();
}

/// The painted body is there from nearer too, and drawn for it.
TEST_F(Nearer, TheBodyIsStillPainted) {
    window.showLeaf(PatternNumber);
    ASSERT_TRUE(waitUntilSettled(window));
    const QPointF at = pattern->openingAt(0, 0) + QPointF(60, 70);  // on the flank, beside the marks
    const auto colourAt = [&](const QPointF& widget) {
        return pattern->grab().toImage().pixelColor(widget.toPoint());
    };
    ASSERT_TRUE(QTest::qWaitFor([&] { return colourAt(at).lightness() < 200; }, 5000));
    const QColor before = colourAt(at);
    for (const double zoom : {1.4, 2.4, 6.0}) {
        pattern->zoomTo(zoom, at);
        EXPECT_LT(std::abs(colourAt(at).lightness() - before.lightness()), 60) << zoom << " at once";
        QTest::qWait(1500);
        EXPECT_LT(std::abs(colourAt(at).lightness() - before.lightness()), 60) << zoom << " later";
    }
    pattern->showAll();
}

TEST_F(Nearer, SpaceByItselfKeepsItsMeaning) {
    window.showLeaf(CutNumber);
    auto* page = window.findChild<CutPage*>();
    page->setFocus();
    QTest::keyClick(page, Qt::Key_Space);  // the next piece
    const QPointF before = page->pieceCentre(0);
    QTest::keyClick(page, Qt::Key_Down, Qt::ShiftModifier);
    ASSERT_TRUE(waitUntilSettled(window));
    EXPECT_NE(page->pieceCentre(0), before);
}

/// A photograph looked at from nearer shows more than the copy it is shown by.
TEST_F(Nearer, PicturesGetSharper) {
    window.showLeaf(BlankNumber);
    BlankDesk& desk = leafOf<BlankLeaf>(window).desk();
    desk.start(BlankDesk::Way::Photo);
    desk.openPicture(":/demo/sedge60-photo.jpg");
    ASSERT_TRUE(QTest::qWaitFor([&] { return !desk.running(); }, 60000));
    PicturePage& page = leafOf<BlankLeaf>(window).picturePage();
    QTest::qWait(300);
    const QPointF at = page.handle(PicturePage::Grip::Nose);
    page.zoomTo(6, at);
    // What is rough at first is replaced by the picture's own pixels in the place that is seen.
    const QImage rough = page.grab().toImage();
    QTest::qWait(600);
    const QImage sharp = page.grab().toImage();
    EXPECT_NE(rough, sharp);
    // The handle is taken hold of from nearer too.
    const Vec2 nose = desk.side().outline->axis_px.nose;
    drag(&page, page.toWidget(page.handle(PicturePage::Grip::Nose)), QPointF(0, 30));
    ASSERT_TRUE(QTest::qWaitFor([&] { return !desk.running(); }, 60000));
    const double moved = (desk.side().outline->axis_px.nose - nose).norm();
    EXPECT_GT(moved, 1);
    page.showAll();
    desk.leave();
}

}  // namespace
}  // namespace nine::app
