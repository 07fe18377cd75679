// Slits as a painter makes them: planned by a button, dragged, lengthened, kept and taken out, undone.
#include <QMenu>
#include <QPushButton>

#include "app/leaves/masks/masks_page.h"
#include "app/leaves/masks/slit_edits.h"
#include "tests/app/window_fixture.h"

namespace nine::app {
namespace {

class SlitsTest : public WindowTest {
  protected:
    void SetUp() override {
        WindowTest::SetUp();
        // The red dots on a sheet over the whole side: tape does not lie there without slits.
        std::vector<MaskSpecPtr> specs = maskSpecs(theDemo());
        for (MaskSpecPtr& spec : specs) {
            if (spec->wish.elements != std::vector<std::string>{"red-dots"}) continue;
            MaskSpec changed = *spec;
            changed.wish.kind = "full_side";
            changed.wish.values = usualValues(findMaskKind("full_side")->params());
            changed.wish.material = "tape";
            if (changed.side == Side::Left) mask = changed.id;
            spec = std::make_shared<const MaskSpec>(changed);
        }
        window.document().open(withMasks(theDemo(), std::move(specs)), {});
        window.showLeaf(MasksNumber);
        window.view().setMask(mask);
        page = window.findChild<MasksPage*>();
        ASSERT_TRUE(page);
        ASSERT_TRUE(waitUntilSettled(window));
    }
    QPushButton* button(const QString& words) {
        for (auto* b : window.findChildren<QPushButton*>())
            if (b->isVisible() && b->text().contains(words)) return b;
        return nullptr;
    }
    std::vector<Slit> slits(Side side = Side::Left) {
        for (const MaskSpecPtr& spec : maskSpecs(window.document().job()))
            if (spec->wish.kind == "full_side" && spec->side == side) return spec->wish.slits;
        return {};
    }
    bool waitForButton(const QString& words) {
        return QTest::qWaitFor([&] { return button(words) != nullptr; }, 120000);
    }
    bool lies() {
        for (const MaskResult& m : window.results().masks().masks)
            if (m.spec->id == mask) return m.mask && (*m.mask)->report().liesFlat;
        return false;
    }
    std::string mask;
    MasksPage* page = nullptr;
};

TEST_F(SlitsTest, AreCutByAButtonOnBothSidesAndTheSheetLies) {
    EXPECT_FALSE(lies());
    ASSERT_TRUE(waitForButton("Cut "));
    QTest::mouseClick(button("Cut "), Qt::LeftButton);
    ASSERT_TRUE(waitUntilSettled(window));
    ASSERT_GE(slits().size(), 2u);
    EXPECT_EQ(slits(), slits(Side::Right));
    EXPECT_TRUE(lies());
    EXPECT_EQ(page->inView().mask->sheets[0].slits.size(), slits().size());
    window.document().history().undo();
    ASSERT_TRUE(waitUntilSettled(window));
    EXPECT_TRUE(slits().empty());
    EXPECT_FALSE(lies());
}

TEST_F(SlitsTest, AreDraggedByTheirRingAndTheirLineInOneStepEach) {
    ASSERT_TRUE(waitForButton("Add a slit"));
    QTest::mouseClick(button("Add a slit"), Qt::LeftButton);
    ASSERT_TRUE(waitUntilSettled(window));
    ASSERT_EQ(slits().size(), 1u);
    const Slit first = slits().front();
    EXPECT_LT(first.line.back().y(), first.line.front().y());  // from the back down
    const int steps = window.document().history().count();

    const QPointF tip = page->slitTip(0);
    ASSERT_FALSE(tip.isNull());
    drag(page, tip, QPointF(0, 24));
    const Slit longer = slits().front();
    EXPECT_GT(lengthOf_mm(longer), lengthOf_mm(first) + 2);
    EXPECT_EQ(longer.line.front(), first.line.front());
    EXPECT_EQ(window.document().history().count(), steps + 1);
    EXPECT_EQ(page->slit(), 0);

    const QPointF middle = 0.5 * (page->slitTip(0) + page->slitMouth(0));
    drag(page, middle, QPointF(-40, 0));
    const Slit moved = slits().front();
    EXPECT_LT(moved.line.front().x(), longer.line.front().x() - 2);
    EXPECT_EQ(window.document().history().count(), steps + 2);
    EXPECT_EQ(slits(), slits(Side::Right));
    ASSERT_TRUE(waitUntilSettled(window));
    const SlitOnSheet& cut = page->inView().mask->sheets[0].slits.front();
    EXPECT_NEAR(cut.skin.line.front().x(), moved.line.front().x(), 1e-6);

    window.document().history().undo();
    EXPECT_EQ(slits().front(), longer);
}

TEST_F(SlitsTest, AreTypedKeptAndTakenOut) {
    ASSERT_TRUE(waitForButton("Add a slit"));
    for (int i = 0; i < 2; ++i) {
        QTest::mouseClick(button("Add a slit"), Qt::LeftButton);
        ASSERT_TRUE(waitUntilSettled(window));
    }
    ASSERT_EQ(slits().size(), 2u);
    EXPECT_GE(std::abs(slits()[0].line[0].x() - slits()[1].line[0].x()), 6);
    page->selectSlit(1);
    ValueChip* x = nullptr;
    for (auto* chip : window.findChildren<ValueChip*>())
        if (chip->isVisible() && chip->accessibleName() == "Slit behind the nose") x = chip;
    ASSERT_TRUE(x);
    x->setFocus();
    x->selectAll();
    QTest::keyClicks(x, "41.5");
    QTest::keyClick(x, Qt::Key_Return);
    const double nose = window.results().body().skin->noseX_mm();
    EXPECT_NEAR(slits()[1].line.front().x() - nose, 41.5, 1e-6);
    ASSERT_TRUE(waitUntilSettled(window));
    page->selectSlit(1);
    ASSERT_TRUE(waitForButton("stays where it is"));
    QTest::mouseClick(button("stays where it is"), Qt::LeftButton);
    EXPECT_TRUE(slits()[1].locked);
    const Slit kept = slits()[1];
    // Planning leaves it; the other one may go.
    ASSERT_TRUE(waitUntilSettled(window));
    if (!lies()) {
        ASSERT_TRUE(waitForButton("Cut "));
        QTest::mouseClick(button("Cut "), Qt::LeftButton);
        const std::vector<Slit> planned = slits();
        EXPECT_NE(std::find(planned.begin(), planned.end(), kept), planned.end());
    }
    // A key takes out the one in hand.
    const std::size_t count = slits().size();
    page->selectSlit(0);
    page->setFocus();
    QTest::keyClick(page, Qt::Key_Delete);
    EXPECT_EQ(slits().size(), count - 1);
    EXPECT_EQ(page->slit(), -1);
    QTest::keyClick(page, Qt::Key_Delete);  // none in hand: nothing happens
    EXPECT_EQ(slits().size(), count - 1);
}

/// A slit in hand is of its mask: the key takes nothing out of another one, nor after an undo.
TEST_F(SlitsTest, InHandIsForgottenWithItsMask) {
    ASSERT_TRUE(waitForButton("Add a slit"));
    QTest::mouseClick(button("Add a slit"), Qt::LeftButton);
    ASSERT_TRUE(waitUntilSettled(window));
    page->selectSlit(0);
    std::string twin;
    for (const MaskSpecPtr& spec : maskSpecs(window.document().job()))
        if (spec->wish.kind == "full_side" && spec->id != mask) twin = spec->id;
    window.view().setMask(twin);
    page->setFocus();
    QTest::keyClick(page, Qt::Key_Delete);
    EXPECT_EQ(slits().size(), 1u);
    EXPECT_EQ(page->slit(), -1);
    window.view().setMask(mask);
    page->selectSlit(0);
    window.document().history().undo();
    ASSERT_TRUE(waitUntilSettled(window));
    EXPECT_EQ(page->slit(), -1);
    window.document().history().redo();
    ASSERT_TRUE(waitUntilSettled(window));
    QTest::keyClick(page, Qt::Key_Delete);
    EXPECT_EQ(slits().size(), 1u);
}

TEST_F(SlitsTest, AWholeBodyHasNoTwinAndGivesItBack) {
    const auto count = [&] {
        int found = 0;
        for (const MaskSpecPtr& spec : maskSpecs(window.document().job()))
            found += spec->wish.elements == std::vector<std::string>{"red-dots"} ? 1 : 0;
        return found;
    };
    const auto choose = [&](const QString& words) {
        for (auto* b : window.findChildren<QPushButton*>())
            if (b->isVisible() && b->menu())
                for (QAction* action : b->menu()->actions())
                    if (action->text().contains(words, Qt::CaseInsensitive)) return action->trigger(), true;
        return false;
    };
    EXPECT_EQ(count(), 2);
    ASSERT_TRUE(choose("whole body"));
    EXPECT_EQ(count(), 1);
    ASSERT_TRUE(waitUntilSettled(window));
    ASSERT_TRUE(page->inView().mask);
    EXPECT_EQ(page->inView().mask->sheets[0].windows.size(), 16u);
    ASSERT_TRUE(choose("one side"));
    EXPECT_EQ(count(), 2);
    ASSERT_TRUE(waitUntilSettled(window));
}

TEST_F(SlitsTest, ASlitThroughAWindowIsToldAndCanBePlannedAnew) {
    ASSERT_TRUE(waitForButton("Add a slit"));
    QTest::mouseClick(button("Add a slit"), Qt::LeftButton);
    ASSERT_TRUE(waitUntilSettled(window));
    // Dragged down over the row of dots, and along until it meets one.
    drag(page, page->slitTip(0), QPointF(0, 110));
    bool told = false;
    for (int i = 0; i < 8 && !told; ++i) {
        ASSERT_TRUE(waitUntilSettled(window));
        told = page->inView().error.contains("runs through a window");
        if (!told) {
            page->selectSlit(0);
            drag(page, 0.3 * page->slitTip(0) + 0.7 * page->slitMouth(0), QPointF(-7, 0));
        }
    }
    EXPECT_TRUE(told);
    ASSERT_TRUE(waitForButton("Take all slits out"));
    QTest::mouseClick(button("Take all slits out"), Qt::LeftButton);
    ASSERT_TRUE(waitUntilSettled(window));
    EXPECT_TRUE(page->inView().error.isEmpty());
    EXPECT_TRUE(page->inView().mask);
}

}  // namespace
}  // namespace nine::app
