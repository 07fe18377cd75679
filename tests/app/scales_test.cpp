// The Scales leaf as a person uses it: a net chosen, clips placed, dragged, added and taken off, lines for
// foil.
#include <QAbstractButton>

#include "app/leaves/scales/scales_leaf.h"
#include "app/leaves/scales/scales_page.h"
#include "pattern/cut_scales.h"
#include "tests/app/window_fixture.h"

namespace nine::app {
namespace {

class ScalesTest : public WindowTest {
  protected:
    void SetUp() override {
        WindowTest::SetUp();
        window.document().open(theDemo(), {});
        window.showLeaf(ScalesNumber);
        ASSERT_TRUE(waitUntilSettled(window));
        leaf = &leafOf<ScalesLeaf>(window);
        page = window.findChild<ScalesPage*>();
    }
    bool settle() {
        return QTest::qWaitFor([&] { return leaf->settled() && window.results().settled(); }, 60000) &&
               leaf->settled();
    }
    QAbstractButton* button(const QString& words) {
        for (auto* b : leaf->card()->findChildren<QAbstractButton*>())
            if (b->isVisible() && (b->text().startsWith(words) || b->accessibleName().startsWith(words)))
                return b;
        return nullptr;
    }
    void press(const QString& words) {
        ASSERT_TRUE(QTest::qWaitFor([&] { return button(words) != nullptr; }, 20000)) << words.toStdString();
        button(words)->click();
        ASSERT_TRUE(settle());
    }
    const ScalesChapter& scales() { return window.document().job().get<ScalesChapter>(); }
    void useNetWithClips() {
        Job job = window.document().job();
        ScalesChapter s;
        s.net = *findNet("tulle-1.6");
        s.clips = {{14}, {38}, {50}};
        window.document().beginGesture();
        window.document().edit(job.with(s), "net");
        ASSERT_TRUE(settle());
    }
    void mouse(QEvent::Type type, const QPointF& at) {
        const QPointF on = page->toWidget(at);
        QMouseEvent event(type, on, page->mapToGlobal(on),
                          type == QEvent::MouseMove ? Qt::NoButton : Qt::LeftButton,
                          type == QEvent::MouseButtonRelease ? Qt::NoButton : Qt::LeftButton, Qt::NoModifier);
        QApplication::sendEvent(page, &event);
    }
    ScalesLeaf* leaf = nullptr;
    ScalesPage* page = nullptr;
};

TEST_F(ScalesTest, ANetIsChosenLaidAndClippedByTwoClicks) {
    EXPECT_EQ(leaf->entry().state, LeafState::Nothing);  // an empty leaf is no fault
    EXPECT_TRUE(leaf->flags().empty());
    press("Tulle 1.2:");
    ASSERT_TRUE(scales().net);
    EXPECT_EQ(scales().net->id, "tulle-1.2");
    EXPECT_FALSE(scales().doubled);
    ASSERT_TRUE(leaf->desk().study().net);
    EXPECT_FALSE(leaf->desk().study().coarse);
    EXPECT_EQ(leaf->entry().state == LeafState::Nothing, false);
    press("Place the clips");
    ASSERT_TRUE(QTest::qWaitFor([&] { return !scales().clips.empty(); }, 60000));
    ASSERT_TRUE(settle());
    EXPECT_GE(scales().clips.size(), 3u);
    ASSERT_TRUE(leaf->desk().study().net->clipped);
    window.document().history().undo();
    EXPECT_TRUE(scales().clips.empty());
    window.document().history().undo();
    EXPECT_FALSE(scales().net);
    ASSERT_TRUE(settle());
    EXPECT_FALSE(leaf->desk().study().net);
}

TEST_F(ScalesTest, ThePullIsDraggedInOneStepWithinItsLimits) {
    useNetWithClips();
    const double before = scales().pull_n_m;
    const QPointF ring = page->pullRing();
    mouse(QEvent::MouseButtonPress, ring);
    for (int k = 1; k <= 8; ++k) mouse(QEvent::MouseMove, ring + QPointF(0, 3 * k));
    EXPECT_GT(scales().pull_n_m, 1.3 * before);
    EXPECT_NEAR(page->pullRing().y(), ring.y() + 24, 1.5);  // the ring stays under the hand
    mouse(QEvent::MouseMove, ring + QPointF(0, 4000));
    EXPECT_DOUBLE_EQ(scales().pull_n_m, kMostPull_n_m);
    mouse(QEvent::MouseMove, ring - QPointF(0, 4000));
    EXPECT_DOUBLE_EQ(scales().pull_n_m, kLeastPull_n_m);
    mouse(QEvent::MouseMove, ring + QPointF(0, 20));
    mouse(QEvent::MouseButtonRelease, ring + QPointF(0, 20));
    ASSERT_TRUE(settle());
    EXPECT_DOUBLE_EQ(leaf->desk().study().net->drape->wish.pull_n_m, scales().pull_n_m);
    EXPECT_EQ(scales().clips.size(), 3u);
    window.document().history().undo();
    EXPECT_DOUBLE_EQ(scales().pull_n_m, before);
}

TEST_F(ScalesTest, ThreadsServeAgainWhileAClipMovesAndNotForAnotherPull) {
    useNetWithClips();
    const auto threads = leaf->desk().study().threads;
    ASSERT_TRUE(threads);
    ASSERT_TRUE(leaf->desk().change("clip", [](ScalesChapter& s) { s.clips[1].x_mm += 2; }));
    ASSERT_TRUE(settle());
    EXPECT_EQ(leaf->desk().study().threads, threads);
    ASSERT_TRUE(leaf->desk().change("twice", [](ScalesChapter& s) { s.doubled = true; }));
    ASSERT_TRUE(settle());
    EXPECT_GT(leaf->desk().study().threads->size(), 1.5 * static_cast<double>(threads->size()));
    ASSERT_TRUE(leaf->desk().change("pull", [](ScalesChapter& s) {
        s.doubled = false;
        s.pull_n_m = 200;
    }));
    ASSERT_TRUE(settle());
    EXPECT_NE(leaf->desk().study().threads, threads);
    EXPECT_GT((leaf->desk().study().threads->front().from - threads->front().from).norm(), 1e-6);
}

TEST_F(ScalesTest, TheHolderWearsTheScalesWhileTheLeafIsOpen) {
    EXPECT_FALSE(leaf->wornOnHolder());
    useNetWithClips();
    ASSERT_TRUE(QTest::qWaitFor([&] { return leaf->wornOnHolder() != nullptr; }, 20000));
    const auto& bare = window.results().body().picture;
    ASSERT_EQ(leaf->wornOnHolder()->pixels.size(), bare->pixels.size());
    EXPECT_NE(leaf->wornOnHolder()->pixels, bare->pixels);
    window.document().history().undo();
    ASSERT_TRUE(settle());
    EXPECT_FALSE(leaf->wornOnHolder());
}

TEST_F(ScalesTest, AClipIsDraggedInOneStepAndStopsAtItsNeighbour) {
    useNetWithClips();
    const std::string before = jobText(window.document().job());
    const int steps = window.document().history().index();
    const QPointF from = page->clipAt(38);
    mouse(QEvent::MouseButtonPress, from);
    for (int i = 1; i <= 10; ++i) mouse(QEvent::MouseMove, from + QPointF(-3.0 * i, 0));
    mouse(QEvent::MouseButtonRelease, from + QPointF(-30, 0));
    EXPECT_LT(scales().clips[1].x_mm, 37);
    EXPECT_EQ(scales().clips[0].x_mm, 14);
    EXPECT_EQ(window.document().history().index(), steps + 1);
    // Far beyond its neighbour: it stops beside it.
    const double now = scales().clips[1].x_mm;
    mouse(QEvent::MouseButtonPress, page->clipAt(now));
    for (int i = 1; i <= 6; ++i) mouse(QEvent::MouseMove, page->clipAt(now) + QPointF(-120.0 * i, 0));
    mouse(QEvent::MouseButtonRelease, page->clipAt(now) + QPointF(-720, 0));
    EXPECT_NEAR(scales().clips[1].x_mm, 20, 1e-6);
    window.document().history().undo();
    window.document().history().undo();
    EXPECT_EQ(jobText(window.document().job()), before);
    ASSERT_TRUE(settle());
}

TEST_F(ScalesTest, EscapeTakesADragBackAndKeysNudge) {
    useNetWithClips();
    mouse(QEvent::MouseButtonPress, page->clipAt(38));
    mouse(QEvent::MouseMove, page->clipAt(38) + QPointF(40, 0));
    EXPECT_NE(scales().clips[1].x_mm, 38);
    QTest::keyClick(page, Qt::Key_Escape);
    EXPECT_EQ(scales().clips[1].x_mm, 38);
    QTest::keyClick(page, Qt::Key_Space);
    QTest::keyClick(page, Qt::Key_Right);
    EXPECT_NEAR(scales().clips[0].x_mm, 14.1, 1e-9);
    QTest::keyClick(page, Qt::Key_Left, Qt::ShiftModifier);
    EXPECT_NEAR(scales().clips[0].x_mm, 13.1, 1e-9);
    QTest::keyClick(page, Qt::Key_Delete);
    EXPECT_EQ(scales().clips.size(), 2u);
    EXPECT_EQ(scales().clips[0].x_mm, 38);
    QTest::keyClick(page, Qt::Key_Delete);  // nothing is in hand
    EXPECT_EQ(scales().clips.size(), 2u);
}

TEST_F(ScalesTest, ADoubleClickOnTheBellyAddsAClip) {
    useNetWithClips();
    // Half way between two clips, on the line itself.
    const QPointF at = 0.5 * (page->clipAt(25.5) + page->clipAt(26.5));
    mouse(QEvent::MouseButtonDblClick, at);
    ASSERT_EQ(scales().clips.size(), 4u);
    EXPECT_NEAR(scales().clips[1].x_mm, 26, 1.5);
    mouse(QEvent::MouseButtonDblClick, page->rect().center());  // not on the line
    EXPECT_EQ(scales().clips.size(), 4u);
}

TEST_F(ScalesTest, TheFlagOffersAClipThatMendsIt) {
    useNetWithClips();
    const std::vector<Flag> flags = leaf->flags();
    const auto offered =
        std::find_if(flags.begin(), flags.end(), [](const Flag& f) { return bool(f.repair); });
    ASSERT_NE(offered, flags.end());
    EXPECT_TRUE(offered->fault);
    EXPECT_EQ(leaf->entry().state, LeafState::Repair);
    offered->repair();
    EXPECT_EQ(scales().clips.size(), 4u);
    ASSERT_TRUE(settle());
}

TEST_F(ScalesTest, LinesForFoilAreDrawnAndTakenAway) {
    press("Press lines into foil");
    ASSERT_TRUE(leaf->desk().study().foil);
    EXPECT_GT(leaf->desk().study().foil->diamonds, 3);
    EXPECT_EQ(leaf->entry().state, LeafState::Ready);
    press("diamonds below");
    EXPECT_EQ(scales().foil->below, BelowLateral::Diamonds);
    press("Press lines into foil");
    EXPECT_FALSE(scales().foil);
    EXPECT_FALSE(leaf->desk().study().foil);
}

TEST_F(ScalesTest, AStencilBecomesAMarkOfThePattern) {
    const std::size_t before = window.document().job().get<PatternChapter>().elements.size();
    press("Cut a scale stencil");
    const auto& elements = window.document().job().get<PatternChapter>().elements;
    ASSERT_EQ(elements.size(), before + 1);
    EXPECT_TRUE(isCutScales(*elements.back()));
    EXPECT_TRUE(checkJob(window.document().job()));
    window.document().history().undo();
    EXPECT_EQ(window.document().job().get<PatternChapter>().elements.size(), before);
}

TEST_F(ScalesTest, NonsenseIsRefusedAndFastChangesDoNoHarm) {
    useNetWithClips();
    // Whatever is typed, the job can be saved and read again.
    QStringList names;
    (void)QTest::qWaitFor(
        [&] {
            names.clear();
            for (auto* c : leaf->card()->findChildren<ValueChip*>())
                if (c->isVisible()) names << c->accessibleName();
            return names.size() >= 6;
        },
        10000);
    ASSERT_GE(names.size(), 6);
    int refused = 0;
    for (const QString& name : names)
        for (const char* typed : {"-5", "1e9", "nonsense", "0"}) {
            ValueChip* c = nullptr;
            ASSERT_TRUE(QTest::qWaitFor([&] { return (c = chip(name)) != nullptr; }, 5000))
                << name.toStdString();
            type(c, typed);
            const Job& job = window.document().job();
            EXPECT_TRUE(checkJob(job)) << name.toStdString() << typed;
            EXPECT_TRUE(parseJob(jobText(job), "again")) << name.toStdString() << typed;
            if (ValueChip* now = chip(name); now && !now->wrong().isEmpty()) ++refused;
        }
    EXPECT_GE(refused, 10);
    useNetWithClips();
    for (int i = 0; i < 50; ++i) {
        ScalesChapter s = scales();
        s.net = netsOfCatalogue()[static_cast<std::size_t>(i) % netsOfCatalogue().size()];
        s.pull_n_m = 20 + i;
        s.doubled = i % 3 == 0;
        window.document().edit(window.document().job().with(s), "fast");
        if (i % 7 == 0) QApplication::processEvents();
    }
    ASSERT_TRUE(settle());
    ASSERT_TRUE(leaf->desk().study().net);
    EXPECT_EQ(leaf->desk().study().net->drape->wish.net.id, scales().net->id);
    EXPECT_EQ(leaf->desk().study().net->drape->wish.pull_n_m, scales().pull_n_m);
}

TEST_F(ScalesTest, ANetThatCannotBeLaidIsTold) {
    ScalesChapter s;
    s.net = *findNet("bath-4.0");
    s.net->along_mm = s.net->across_mm = 38;
    window.document().edit(window.document().job().with(s), "coarse");
    ASSERT_TRUE(settle());
    ASSERT_TRUE(leaf->desk().study().error);
    ASSERT_FALSE(leaf->flags().empty());
    EXPECT_TRUE(leaf->flags()[0].words.contains("finer net")) << leaf->flags()[0].words.toStdString();
    EXPECT_FALSE(window.grab().isNull());
}

}  // namespace
}  // namespace nine::app
