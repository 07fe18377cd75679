// The Layers leaf as a person uses it: a recipe begun, steps moved by mouse and keys, a fade dragged on the
// body, what spoils mended, paints mixed and looked up, the shelf changed.
#include "app/leaves/layers/layers_leaf.h"

#include <QAbstractButton>
#include <QComboBox>
#include <QLabel>
#include <QMenu>
#include <future>

#include "app/leaves/layers/layers_edits.h"
#include "app/leaves/layers/layers_page.h"
#include "app/leaves/layers/shelf_dialog.h"
#include "base/files.h"
#include "job/paint_shelf.h"
#include "tests/app/window_fixture.h"

namespace nine::app {
namespace {

class LayersTest : public WindowTest {
  protected:
    void SetUp() override {
        WindowTest::SetUp();
        leaf = &leafOf<LayersLeaf>(window);
        page = window.findChild<LayersPage*>();
        window.showLeaf(LayersNumber);
        ASSERT_TRUE(settle());
    }
    bool settle() {
        return QTest::qWaitFor([&] { return leaf->settled() && window.results().settled(); }, 60000) &&
               leaf->settled();
    }
    QAbstractButton* button(const QString& words, QWidget* within = nullptr) {
        for (auto* b : (within ? within : leaf->card())->findChildren<QAbstractButton*>())
            if (b->isVisible() && b->text().startsWith(words)) return b;
        return nullptr;
    }
    void press(const QString& words) {
        ASSERT_TRUE(QTest::qWaitFor([&] { return button(words) != nullptr; }, 10000)) << words.toStdString();
        button(words)->click();
        ASSERT_TRUE(settle());
    }
    /// An entry of the menu a button opens.
    void choose(const QString& words, const QString& entry, QWidget* within = nullptr) {
        ASSERT_TRUE(QTest::qWaitFor([&] { return button(words, within) != nullptr; }, 10000))
            << words.toStdString();
        auto* opener = qobject_cast<QPushButton*>(button(words, within));
        ASSERT_TRUE(opener && opener->menu()) << words.toStdString();
        for (QAction* action : opener->menu()->actions())
            if (action->text().startsWith(entry)) {
                action->trigger();
                ASSERT_TRUE(settle());
                return;
            }
        FAIL() << entry.toStdString();
    }
    QString cardText() {
        QString all;
        for (auto* label : leaf->card()->findChildren<QLabel*>())
            if (label->isVisible()) all += label->text() + "\n";
        return all;
    }
    /// By its button.
    void beginByHand() {
        press("Light to dark");
        ASSERT_TRUE(QTest::qWaitFor([&] { return !first(Act::Clear).empty(); }, 60000));
        ASSERT_TRUE(settle());
    }
    /// The same, made once for all tests.
    void begin() {
        static const Job begun = [] {
            // Derivations belong on a worker thread.
            return std::async(std::launch::async,
                              [] {
                                  return test::need(withBegunRecipe(theDemo(), *theDerivations(),
                                                                    genericShelf(), School::LightToDark));
                              })
                .get();
        }();
        window.document().open(begun, {});
        ASSERT_TRUE(settle());
    }
    const std::vector<Step>& steps() { return window.document().job().get<LayersChapter>().recipe.steps; }
    std::vector<std::string> ids() {
        std::vector<std::string> all;
        for (const Step& s : steps()) all.push_back(s.id);
        return all;
    }
    const Step& step(const std::string& id) {
        return steps().at(placeOf(window.document().job().get<LayersChapter>().recipe, id));
    }
    std::string first(Act act) {
        for (const Step& s : steps())
            if (s.act == act) return s.id;
        return {};
    }
    void select(const std::string& id) {
        leaf->desk().select(id);
        ASSERT_TRUE(settle());
    }
    void mouse(QEvent::Type type, const QPointF& at) {
        const QPointF on = page->toWidget(at);
        QMouseEvent event(type, on, page->mapToGlobal(on),
                          type == QEvent::MouseMove ? Qt::NoButton : Qt::LeftButton,
                          type == QEvent::MouseButtonRelease ? Qt::NoButton : Qt::LeftButton, Qt::NoModifier);
        QApplication::sendEvent(page, &event);
    }
    void pull(const QPointF& from, const QPointF& to) {
        mouse(QEvent::MouseButtonPress, from);
        for (int k = 1; k <= 6; ++k) mouse(QEvent::MouseMove, from + (to - from) * k / 6);
        mouse(QEvent::MouseButtonRelease, to);
        ASSERT_TRUE(settle());
    }
    LayersLeaf* leaf = nullptr;
    LayersPage* page = nullptr;
};

TEST_F(LayersTest, ColoursOfAnEarlierFileAreADraftUntilARecipeIsBegun) {
    // The plain job comes from a file that knew no steps.
    EXPECT_FALSE(steps().empty());
    EXPECT_EQ(leaf->entry().state, LeafState::Begun);
    EXPECT_TRUE(leaf->flags().empty());
    EXPECT_EQ(leaf->bodyAsPainted(), nullptr);
    const std::string before = bytes();
    beginByHand();
    EXPECT_EQ(leaf->entry().state, LeafState::Ready);
    EXPECT_TRUE(leaf->flags().empty()) << leaf->flags().front().words.toStdString();
    EXPECT_EQ(steps().front().act, Act::Prepare);
    EXPECT_FALSE(first(Act::Clear).empty());
    EXPECT_NE(leaf->bodyAsPainted(), nullptr);
    window.document().history().undo();
    EXPECT_EQ(bytes(), before);
}

TEST_F(LayersTest, AnEmptyRecipeOffersToBeginAndAOneColourJobIsThreeSteps) {
    Job job = window.document().job();
    PatternChapter bare;
    bare.groundSide = "#cc3311";
    job = job.with(std::move(bare)).with(MasksChapter{}).with(LayersChapter{});
    window.document().open(job, {});
    ASSERT_TRUE(settle());
    EXPECT_EQ(leaf->entry().state, LeafState::Nothing);
    beginByHand();
    int sprayed = 0;
    for (const Step& s : steps()) sprayed += s.act == Act::Colour;
    EXPECT_EQ(sprayed, 1);
    EXPECT_LE(steps().size(), 5u) << [&] {
        std::string all;
        for (const auto& id : ids()) all += id + " ";
        return all;
    }();
}

TEST_F(LayersTest, TheSelectedStepIsWhatTheHolderWears) {
    begin();
    const std::string mark = [&] {
        for (const Step& s : steps())
            if (s.where.reaches == Reaches::Windows) return s.id;
        return std::string();
    }();
    select(first(Act::Prepare));
    const auto bare = leaf->wornOnHolder();
    select(mark);
    const auto after = leaf->wornOnHolder();
    ASSERT_TRUE(bare && after);
    EXPECT_NE(bare->pixels, after->pixels);
    // Nothing but the blank before the first paint: one colour.
    EXPECT_EQ(std::set<std::uint32_t>(bare->pixels.begin(), bare->pixels.end()).size(), 1u);
    EXPECT_TRUE(leaf->wornWords().contains(
        QString::number(placeOf(window.document().job().get<LayersChapter>().recipe, mark) + 1)));
    EXPECT_EQ(leaf->bodyAsPainted()->pixels.size(), after->pixels.size());
}

TEST_F(LayersTest, ArrowsGoAlongTheStepsAndAltMovesThem) {
    begin();
    page->setFocus();
    QTest::keyClick(page, Qt::Key_Home);
    EXPECT_EQ(window.view().step(), steps().front().id);
    QTest::keyClick(page, Qt::Key_Up);
    EXPECT_EQ(window.view().step(), steps()[1].id);
    QTest::keyClick(page, Qt::Key_Down);
    QTest::keyClick(page, Qt::Key_Down);
    EXPECT_EQ(window.view().step(), steps().front().id);  // stops at the end
    QTest::keyClick(page, Qt::Key_End);
    EXPECT_EQ(window.view().step(), steps().back().id);
    // The base up past the next one, and back.
    const std::string base = first(Act::Base);
    select(base);
    const auto before = ids();
    QTest::keyClick(page, Qt::Key_Up, Qt::AltModifier);
    ASSERT_TRUE(settle());
    EXPECT_NE(ids(), before);
    EXPECT_EQ(window.view().step(), base);
    QTest::keyClick(page, Qt::Key_Down, Qt::AltModifier);
    ASSERT_TRUE(settle());
    EXPECT_EQ(ids(), before);
    window.document().history().undo();
    window.document().history().undo();
    EXPECT_EQ(ids(), before);
    // Delete, and what is beside it is selected.
    QTest::keyClick(page, Qt::Key_Delete);
    ASSERT_TRUE(settle());
    EXPECT_EQ(steps().size(), before.size() - 1);
    EXPECT_LT(placeOf(window.document().job().get<LayersChapter>().recipe, window.view().step()),
              steps().size());
}

TEST_F(LayersTest, AMarkIsDraggedWithWhatIsLaidAndLiftedForIt) {
    begin();
    std::string mark;
    for (const Step& s : steps())
        if (s.where.reaches == Reaches::Windows && s.act == Act::Colour && mark.empty()) mark = s.id;
    const std::string group = step(mark).group;
    ASSERT_FALSE(group.empty());
    select(mark);
    const QRectF from = page->rowOf(mark), to = page->rowOf(first(Act::Base));
    ASSERT_FALSE(from.isNull() || to.isNull());
    pull(from.center(), QPointF(from.center().x(), to.bottom() - 2));
    // All of the group, side by side in their order, before the base now.
    std::vector<std::string> of;
    std::size_t last = 0;
    for (std::size_t s = 0; s < steps().size(); ++s)
        if (steps()[s].group == group) {
            of.push_back(steps()[s].id);
            last = s;
        }
    ASSERT_GE(of.size(), 3u);
    EXPECT_EQ(step(of.front()).act, Act::MaskOn);
    EXPECT_EQ(step(of.back()).act, Act::MaskOff);
    EXPECT_LT(last, placeOf(window.document().job().get<LayersChapter>().recipe, first(Act::Base)));
    EXPECT_FALSE(leaf->flags().empty());  // a stencil before any paint is no good order
    window.document().history().undo();
    ASSERT_TRUE(settle());
    EXPECT_TRUE(leaf->flags().empty());
    // Rows of masks of one name keep apart: one up and one down is as it was.
    ASSERT_TRUE(leaf->desk().change("one name", [](LayersChapter& l) {
        for (Step& s : l.recipe.steps)
            if (!s.group.empty()) s.group = "same";
    }));
    ASSERT_TRUE(settle());
    const auto before = ids();
    for (const std::string& id : before) {
        if (step(id).group != "same") continue;
        select(id);
        page->nudge(1);
        page->nudge(-1);
        ASSERT_EQ(ids(), before) << id;
    }
    ASSERT_TRUE(leaf->desk().change("its name", [&](LayersChapter& l) {
        for (Step& s : l.recipe.steps)
            if (std::find(of.begin(), of.end(), s.id) != of.end()) s.group = group;
    }));
    ASSERT_TRUE(settle());
    // Unfolded, a step moves alone.
    leaf->desk().fold(group);
    ASSERT_TRUE(settle());
    EXPECT_NE(page->rowOf(of.front()), page->rowOf(mark));
}

TEST_F(LayersTest, AFadeIsDraggedOnTheBodyInOneStep) {
    begin();
    std::string fade;
    for (const Step& s : steps())
        if (s.where.reaches == Reaches::Fade && s.where.from == FadeFrom::Back) fade = s.id;
    if (fade.empty()) {
        leaf->desk()
            .changeStep(first(Act::Colour), "fade",
                        [](Step& s) {
                            s.where = {Reaches::Fade, "", FadeFrom::Back, 8, 6};
                        })
            .value();
        fade = first(Act::Colour);
    }
    select(fade);
    const auto handles = page->fadeHandles();
    ASSERT_TRUE(handles);
    const double before = step(fade).where.reach_mm;
    const auto count = window.document().history().count();
    pull(handles->reach, handles->reach + QPointF(0, 14));
    EXPECT_GT(step(fade).where.reach_mm, before + 1);
    EXPECT_EQ(window.document().history().count(), count + 1);
    EXPECT_NEAR(page->fadeHandles()->reach.y(), handles->reach.y() + 14, 2);  // under the hand
    const double soft = step(fade).where.soft_mm;
    const auto now = page->fadeHandles();
    pull(now->soft, now->soft + QPointF(0, 10));
    EXPECT_GT(step(fade).where.soft_mm, soft + 1);
    window.document().history().undo();
    window.document().history().undo();
    EXPECT_DOUBLE_EQ(step(fade).where.reach_mm, before);
    // Far off the body it stops at the belly line, and the job stays one.
    ASSERT_TRUE(settle());
    pull(page->fadeHandles()->reach, page->fadeHandles()->reach + QPointF(0, 900));
    EXPECT_TRUE(checkJob(window.document().job()));
}

TEST_F(LayersTest, TheCutIsDraggedAlongTheBodyAndTheColourIsReadUnderThePointer) {
    begin();
    const double before = leaf->desk().cutAt_mm();
    pull(page->cutKnob(), page->cutKnob() + QPointF(40, 0));
    EXPECT_GT(leaf->desk().cutAt_mm(), before + 3);
    ASSERT_TRUE(leaf->desk().section());
    EXPECT_NEAR(leaf->desk().section()->x_mm, leaf->desk().cutAt_mm(), 0.3);
    pull(page->cutKnob(), page->cutKnob() - QPointF(4000, 0));
    EXPECT_GT(leaf->desk().cutAt_mm(), window.results().body().skin->noseX_mm());
    // Read at the middle of the body, after the white and after the last step.
    const SkinPtr skin = window.results().body().skin;
    select(first(Act::Base));
    QPointF middle;
    for (double x = 20; x < page->width(); x += 6)
        for (double y = 40; y < 190; y += 6)
            if (const auto at = page->skinUnder({x, y});
                at && std::abs(at->x() - 30) < 1 && std::abs(at->y()) < 1.5)
                middle = {x, y};
    ASSERT_FALSE(middle.isNull());
    QMouseEvent hover(QEvent::MouseMove, page->toWidget(middle), page->mapToGlobal(page->toWidget(middle)),
                      Qt::NoButton, Qt::NoButton, {});
    QApplication::sendEvent(page, &hover);
    ASSERT_TRUE(page->reading());
    EXPECT_GT(page->reading()->colour.l, 80);  // white
    EXPECT_NEAR(page->reading()->skin.x_mm, 30, 1.2);
}

TEST_F(LayersTest, WhatSpoilsIsFlaggedAndMendedByItsButton) {
    begin();
    // Cover nothing: the bill is bare.
    const std::string cover = first(Act::Cover);
    ASSERT_FALSE(cover.empty());
    ASSERT_TRUE(leaf->desk().changeStep(cover, "bare", [](Step& s) { s.does.clear(); }));
    ASSERT_TRUE(settle());
    ASSERT_FALSE(leaf->flags().empty());
    EXPECT_EQ(leaf->entry().state, LeafState::Repair);
    const auto flags = leaf->flags();
    const auto bill = std::find_if(flags.begin(), flags.end(),
                                   [](const Flag& f) { return f.id.find("bill") != std::string::npos; });
    ASSERT_NE(bill, flags.end());
    EXPECT_FALSE(bill->repairName.isEmpty());
    bill->show();
    bill->repair();
    ASSERT_TRUE(settle());
    EXPECT_TRUE(step(cover).doing("bill"));
    for (const Flag& f : leaf->flags()) EXPECT_EQ(f.id.find("bill"), std::string::npos);
    window.document().history().undo();
    EXPECT_FALSE(step(cover).doing("bill"));
    ASSERT_TRUE(settle());
    // Left be, it is not said again; said again when asked.
    const std::size_t said = leaf->flags().size();
    bill->show();
    ASSERT_TRUE(settle());
    choose("Leave it, or weigh", "leave it");
    EXPECT_LT(leaf->flags().size(), said);
    press("Say the rules again");
    EXPECT_EQ(leaf->flags().size(), said);
    // As a hint it is no flag.
    bill->show();
    ASSERT_TRUE(settle());
    choose("Leave it, or weigh", "only a hint");
    EXPECT_LT(leaf->flags().size(), said);
}

TEST_F(LayersTest, NumbersAreTypedAndNonsenseIsRefusedInPlace) {
    begin();
    const std::string base = first(Act::Base);
    select(base);
    ASSERT_NE(chip("Coats"), nullptr);
    type(chip("Coats"), "3");
    ASSERT_TRUE(settle());
    EXPECT_DOUBLE_EQ(step(base).coats, 3);
    const std::string kept = bytes();
    for (const char* nonsense : {"0", "-1", "1000", "nan", "1e99"}) {
        type(chip("Coats"), nonsense);
        EXPECT_EQ(bytes(), kept) << nonsense;
        QTest::keyClick(chip("Coats"), Qt::Key_Escape);
    }
    type(chip("Drops of White"), "0");
    EXPECT_EQ(bytes(), kept);
    QTest::keyClick(chip("Drops of White"), Qt::Key_Escape);
    type(chip("Lures"), "501");
    EXPECT_EQ(bytes(), kept);
    EXPECT_FALSE(chip("Lures")->wrong().isEmpty());
    type(chip("Lures"), "24");
    ASSERT_TRUE(settle());
    EXPECT_EQ(window.document().job().get<LayersChapter>().lures, 24);
    EXPECT_TRUE(QTest::qWaitFor([&] { return cardText().contains("24 lures"); }, 5000));
}

TEST_F(LayersTest, AmountsFollowTheNumberOfLures) {
    begin();
    const std::string base = first(Act::Base);
    const auto* one = leaf->desk().study().amountOf(base);
    ASSERT_NE(one, nullptr);
    const double ml = one->paint_ml + one->reducer_ml;
    ASSERT_TRUE(leaf->desk().change("many", [](LayersChapter& l) { l.lures = 11; }));
    ASSERT_TRUE(settle());
    const auto* many = leaf->desk().study().amountOf(base);
    // What stays in the cup stays once.
    EXPECT_NEAR(many->paint_ml + many->reducer_ml, 11 * (ml - kStaysInCup_ml) + kStaysInCup_ml, 1e-6);
}

TEST_F(LayersTest, ANearerBottleIsSoughtAndUsed) {
    begin();
    // A paint nobody has on the shelf, of the colour of one that is.
    Bottle lost = *findBottle(genericShelf(), "orange");
    lost.id = "lost";
    lost.name = "A friend's orange";
    const std::string base = first(Act::Colour);
    ASSERT_TRUE(leaf->desk().change("lost", [&](LayersChapter& l) {
        l.paints.push_back(lost);
        Step& s = l.recipe.steps[placeOf(l.recipe, base)];
        s.paint = {{"lost", 4}};
        s.coats = 6;
        s.where = {};
    }));
    ASSERT_TRUE(settle());
    select(base);
    EXPECT_TRUE(QTest::qWaitFor([&] { return cardText().contains("Not on this shelf"); }, 5000));
    press("Which of my bottles");
    ASSERT_TRUE(leaf->desk().sought() && leaf->desk().sought()->found);
    const FoundMix& best = leaf->desk().sought()->found->found.front();
    EXPECT_EQ(best.parts.front().bottle, "orange");
    EXPECT_LT(best.difference, 1.5);
    press("Use Orange");
    EXPECT_EQ(step(base).paint.front().bottle, "orange");
    EXPECT_TRUE(findBottle(window.document().job().get<LayersChapter>().paints, "orange"));
}

TEST_F(LayersTest, ACupIsMixedDropByDropAndMadeTheStep) {
    begin();
    const std::string base = first(Act::Base);
    select(base);
    const Step before = step(base);
    press("Try it out in the cup");
    ASSERT_TRUE(leaf->cup());
    EXPECT_EQ(leaf->cup()->parts, before.paint);
    press("+½ White");
    EXPECT_DOUBLE_EQ(leaf->cup()->parts.front().drops, before.paint.front().drops + 0.5);
    press("+1 reducer");
    choose("A drop of another paint", "Black");
    ASSERT_EQ(leaf->cup()->parts.size(), 2u);
    EXPECT_EQ(step(base), before);  // nothing of it is the step's yet
    press("half of it sprayed");
    EXPECT_DOUBLE_EQ(leaf->cup()->parts.back().drops, 0.5);
    press("Make this the step");
    EXPECT_EQ(step(base).paint.size(), 2u);
    EXPECT_EQ(step(base).paint.back().bottle, "black");
    EXPECT_FALSE(leaf->cup());
    window.document().history().undo();
    EXPECT_EQ(step(base), before);
}

TEST_F(LayersTest, EveryActCanBeAddedAndTheJobStaysOne) {
    begin();
    for (const auto& name : actNames()) {
        const std::size_t before = steps().size();
        QString words = QString::fromStdString(Words(name.name).plain());
        words[0] = words[0].toUpper();
        choose("Add a step", words);
        ASSERT_EQ(steps().size(), before + 1) << words.toStdString();
        EXPECT_EQ(step(window.view().step()).act, name.value);
        EXPECT_TRUE(checkJob(window.document().job()));
    }
    press("copy");
    EXPECT_EQ(step(window.view().step()).act, Act::Note);
    press("take out");
    // Sixty steps on a small window: the selected one is in view.
    window.resize(1024, 700);
    for (std::size_t i = 0; i < steps().size(); i += 6) {
        select(steps()[i].id);
        const QRectF row = page->rowOf(window.view().step());
        EXPECT_GE(row.bottom(), 150);
        EXPECT_LE(row.top(), page->height());
    }
    EXPECT_TRUE(page->grab().toImage().pixelColor(5, 5).isValid());
}

TEST_F(LayersTest, AllFilmsInOneStackAndBack) {
    begin();
    const QImage apart = page->grab().toImage();
    mouse(QEvent::MouseButtonPress, page->stackSwitch().center());
    mouse(QEvent::MouseButtonRelease, page->stackSwitch().center());
    EXPECT_TRUE(page->stacked());
    ASSERT_TRUE(settle());
    EXPECT_NE(page->grab().toImage(), apart);
    page->setFocus();
    QTest::keyClick(page, Qt::Key_C);
    EXPECT_FALSE(page->stacked());
}

TEST_F(LayersTest, FiftyEditsInARowEndWhereTheLastOneLed) {
    begin();
    const std::string base = first(Act::Base);
    for (int i = 1; i <= 50; ++i) {
        ASSERT_TRUE(leaf->desk().changeStep(base, "coats", [&](Step& s) { s.coats = 1 + i % 7; }));
        if (i % 9 == 0) QApplication::processEvents();
    }
    ASSERT_TRUE(settle());
    EXPECT_FALSE(leaf->desk().study().coarse);
    ASSERT_TRUE(leaf->desk().current());
    const Recipe& seen = leaf->desk().study().on->of.get<LayersChapter>().recipe;
    EXPECT_DOUBLE_EQ(seen.steps[placeOf(seen, base)].coats, 1 + 50 % 7);
}

TEST_F(LayersTest, BeginningIsStoppedByAnotherJobAndKeepsWhatWasEditedMeanwhile) {
    leaf->desk().begin(School::BackFirst);
    PatternChapter repainted = window.document().job().get<PatternChapter>();
    repainted.groundSide = "#123456";
    window.document().edit(window.document().job().with(PatternChapter(repainted)), "meanwhile");
    ASSERT_TRUE(QTest::qWaitFor([&] { return !leaf->desk().beginning(); }, 60000));
    EXPECT_EQ(window.document().job().get<PatternChapter>().groundSide, "#123456");
    EXPECT_FALSE(first(Act::Clear).empty());
    leaf->desk().begin(School::LightToDark);
    window.document().open(theDemo(), {});
    ASSERT_TRUE(settle());
    EXPECT_EQ(bytes(), jobText(theDemo()));
}

TEST_F(LayersTest, AStepOfAMaskThatIsGoneIsKeptAndFlagged) {
    begin();
    std::string mark;
    for (const Step& s : steps())
        if (s.where.reaches == Reaches::Windows) mark = s.id;
    ASSERT_TRUE(leaf->desk().changeStep(mark, "lost", [](Step& s) { s.where.of = "nobody"; }));
    ASSERT_TRUE(settle());
    EXPECT_EQ(step(mark).where.of, "nobody");
    const auto flags = leaf->flags();
    EXPECT_TRUE(std::any_of(flags.begin(), flags.end(),
                            [&](const Flag& f) { return f.id.find(mark) != std::string::npos; }));
    select(mark);
    EXPECT_FALSE(page->grab().isNull());
}

TEST_F(LayersTest, ThePatternIsShownAsPaintedWhenAskedForAndInItsOwnColoursWhileItMoves) {
    begin();
    EXPECT_EQ(window.view().paintedSkin(), nullptr);
    press("Pattern as painted");
    ASSERT_NE(leaf->bodyAsPainted(), nullptr);
    EXPECT_EQ(window.view().paintedSkin(), leaf->bodyAsPainted());
    window.showLeaf(PatternNumber);
    ASSERT_TRUE(settle());
    const QImage painted = pattern->grab().toImage();
    Element moved = *window.document().job().get<PatternChapter>().elements[0];
    moved.dx_mm += 0.5;
    PatternChapter next = window.document().job().get<PatternChapter>();
    next.elements[0] = std::make_shared<const Element>(moved);
    window.document().edit(window.document().job().with(std::move(next)), "move");
    EXPECT_EQ(window.view().paintedSkin(), nullptr);
    ASSERT_TRUE(settle());
    EXPECT_NE(window.view().paintedSkin(), nullptr);
    window.document().history().undo();
    ASSERT_TRUE(settle());
    window.showLeaf(LayersNumber);
    press("Pattern as painted");
    EXPECT_EQ(window.view().paintedSkin(), nullptr);
    window.showLeaf(PatternNumber);
    ASSERT_TRUE(settle());
    EXPECT_NE(pattern->grab().toImage(), painted);
}

class ShelfTest : public LayersTest {
  protected:
    void SetUp() override {
        LayersTest::SetUp();
        LeafContext context{window.document(), window.results(), window.view(),
                            window.bench(),    window.library(), window};
        window.library().open();
        ASSERT_TRUE(QTest::qWaitFor([&] { return window.library().ready(); }, 20000));
        dialog = std::make_unique<ShelfDialog>(context, leaf->desk(), &window);
        dialog->show();
        (void)QTest::qWaitForWindowExposed(dialog.get());
    }
    std::vector<Bottle> shelf() { return test::need(shelfOf(window.library().workshop())); }
    void pressIn(const QString& words) {
        ASSERT_TRUE(QTest::qWaitFor([&] { return button(words, dialog.get()) != nullptr; }, 5000))
            << words.toStdString();
        button(words, dialog.get())->click();
        QApplication::processEvents();
    }
    std::unique_ptr<ShelfDialog> dialog;
};

TEST_F(ShelfTest, APaintIsMadeNamedAndTakenOffAgain) {
    const std::size_t before = shelf().size();
    pressIn("New paint");
    ASSERT_EQ(shelf().size(), before + 1);
    auto* name = [&] {
        for (auto* e : dialog->findChildren<QLineEdit*>())
            if (e->isVisible() && e->accessibleName() == "Name of the paint") return e;
        return static_cast<QLineEdit*>(nullptr);
    }();
    ASSERT_NE(name, nullptr);
    name->setFocus();
    name->selectAll();
    QTest::keyClicks(name, "Pond scum");
    QTest::keyClick(name, Qt::Key_Return);
    QApplication::processEvents();
    const auto shown = shelf();
    EXPECT_TRUE(
        std::any_of(shown.begin(), shown.end(), [](const Bottle& b) { return b.name == "Pond scum"; }));
    EXPECT_EQ(leaf->desk().shelf(), shown);
    pressIn("never heated");
    const auto hot = shelf();
    EXPECT_TRUE(std::any_of(hot.begin(), hot.end(),
                            [](const Bottle& b) { return b.name == "Pond scum" && b.noHeat; }));
    pressIn("Take it off");
    EXPECT_EQ(shelf().size(), before);
    EXPECT_EQ(shelf(), genericShelf());  // what was half typed for one is no other's name
}

TEST_F(ShelfTest, ASwatchIsReadOffAPhotoWithWhiteBesideIt) {
    const test::TemporaryFolder folder;
    // Warm light: white comes out yellowish.
    QImage photo(400, 300, QImage::Format_RGB32);
    photo.fill(QColor(236, 214, 170));
    for (int y = 80; y < 220; ++y)
        for (int x = 40; x < 180; ++x) photo.setPixelColor(x, y, QColor(150, 60, 30));
    for (int y = 80; y < 220; ++y)
        for (int x = 220; x < 380; ++x) photo.setPixelColor(x, y, QColor(30, 30, 30));
    ASSERT_TRUE(photo.save(QString::fromStdString(folder / "card.png")));
    auto* view = dialog->findChild<SwatchPhoto*>();
    ASSERT_FALSE(view->load(QString::fromStdString(folder / "none.png")));
    ASSERT_TRUE(view->load(QString::fromStdString(folder / "card.png")));
    view->grab();
    pressIn("New paint");
    const auto swatches = [&] {
        std::size_t n = 0;
        for (const Bottle& b : shelf())
            if (b.name == "New paint") n = b.swatches.size();
        return n;
    };
    const std::size_t before = swatches();
    auto* said = dialog->findChild<QLabel*>("said");
    // Black is not white: said, and nothing taken.
    QTest::mouseClick(view, Qt::LeftButton, {}, view->at({300, 150}).toPoint());
    EXPECT_TRUE(said->text().contains("white")) << said->text().toStdString();
    QTest::mouseClick(view, Qt::LeftButton, {}, view->at({200, 30}).toPoint());
    QTest::mouseClick(view, Qt::LeftButton, {}, view->at({110, 150}).toPoint());
    QApplication::processEvents();
    ASSERT_EQ(swatches(), before + 1);
    for (const Bottle& b : shelf())
        if (b.name == "New paint") {
            // Under that light red is nearly as it was, blue was taken more: it comes back.
            EXPECT_GT(b.swatches.back().seen.b, 30 + 4);
            EXPECT_NEAR(b.swatches.back().seen.r, 150 * std::pow(0.88, 1 / 2.2) * 255 / 236, 6);
        }
}

TEST_F(ShelfTest, AFileOfPaintsIsTakenAndACutOffOneRefused) {
    const test::TemporaryFolder folder;
    Bottle own = genericShelf().front();
    own.id = "mine";
    own.name = "Mine";
    const QString path = QString::fromStdString(folder / "shelf.json");
    ASSERT_TRUE(writeShelf(path, {own}));
    LeafContext context{window.document(), window.results(), window.view(),
                        window.bench(),    window.library(), window};
    EXPECT_EQ(test::need(takeShelf(context, path)), 1);
    EXPECT_TRUE(findBottle(shelf(), "mine"));
    const auto before = shelf();
    const std::string text = test::need(readFile(path.toStdString()));
    ASSERT_TRUE(writeFileAtomically(path.toStdString(), text.substr(0, text.size() / 2)));
    EXPECT_EQ(takeShelf(context, path).error().code, "bad_json");
    EXPECT_EQ(shelf(), before);
    // What was written is read by the command line's reader too.
    ASSERT_TRUE(writeShelf(path, before));
    EXPECT_EQ(test::need(parseShelf(test::need(readFile(path.toStdString())), "shelf")), before);
}

TEST(LayersEdits, BlocksMoveAsOneAndOthersKeepTheirOrder) {
    Recipe r;
    for (const char* id : {"a", "b", "c", "d", "e"}) {
        Step s;
        s.id = id;
        r.steps.push_back(s);
    }
    const auto order = [](const Recipe& x) {
        std::string all;
        for (const Step& s : x.steps) all += s.id;
        return all;
    };
    EXPECT_EQ(order(withMoved(r, "b", 2, 0)), "bcade");
    EXPECT_EQ(order(withMoved(r, "b", 2, 3)), "adebc");
    EXPECT_EQ(order(withMoved(r, "b", 2, 1)), "abcde");
    EXPECT_EQ(order(withMoved(r, "d", 9, 0)), "deabc");
    EXPECT_EQ(order(withMoved(r, "a", 1, 99)), "bcdea");
    EXPECT_EQ(order(withMoved(r, "nobody", 1, 0)), "abcde");
}

}  // namespace
}  // namespace nine::app
