// The Pattern leaf with mouse and keys: taking marks from the strip, list, anchors, other blanks.
#include <gtest/gtest.h>

#include <QClipboard>
#include <QLabel>
#include <QMenu>

#include "app/leaves/pattern/pattern_edits.h"
#include "app/pictures.h"
#include "app/sheet/curve_field.h"
#include "app/sheet/ink.h"
#include "job/job_file.h"
#include "tests/app/window_fixture.h"

namespace nine::app {
namespace {

class MarksTest : public WindowTest {
  protected:
    void SetUp() override {
        WindowTest::SetUp();
        window.showLeaf(1);
        QTest::qWait(50);
    }
    const std::vector<ElementPtr>& elements() {
        return window.document().job().get<PatternChapter>().elements;
    }
    void click(const QPointF& at, Qt::KeyboardModifiers keys = {}) {
        QTest::mouseClick(pattern, Qt::LeftButton, keys, at.toPoint());
    }
    void take(std::string_view kind) {
        const Kind& k = *findKind(kind);
        click(pattern->strip().familyBox(k.family()).center());
        click(pattern->strip().tile(k).center());
        ASSERT_EQ(pattern->strip().inHand(), &k);
    }
};

/// Every kind there is can be taken from the strip and put on the body by hand.
TEST_F(MarksTest, EveryKindIsPutWhereOneClicks) {
    const QPointF on = pattern->openingAt(1, 4) + QPointF(0, 30);
    for (const Kind* kind : kinds()) {
        const std::size_t before = elements().size();
        selectElement(1);  // what derived ones are made from
        take(kind->id());
        click(on);
        ASSERT_EQ(elements().size(), before + 1) << kind->id();
        EXPECT_FALSE(pattern->strip().inHand());
        const Element& made = *elementOf(window.document().job(), window.view().element());
        EXPECT_EQ(made.kind, kind->id());
        EXPECT_EQ(made.of.empty(), !kind->isDerived());
        window.document().history().undo();
        ASSERT_EQ(elements().size(), before);
    }
    ASSERT_TRUE(waitUntilSettled(window));
}

TEST_F(MarksTest, ANewMarkStartsUnderThePointerAndEscPutsItBack) {
    take("dot_row");
    QTest::keyClick(pattern, Qt::Key_Escape);
    EXPECT_FALSE(pattern->strip().inHand());
    take("dot_row");
    const QPointF at = pattern->openingAt(1, 2) + QPointF(0, 40);
    click(at);
    ASSERT_EQ(elements().size(), 4u);
    ASSERT_TRUE(waitUntilSettled(window));
    EXPECT_LT((pattern->openingAt(3, 0) - at).manhattanLength(), 4);
    EXPECT_EQ(elements()[3]->anchor, "gill_plate");
}

TEST_F(MarksTest, AHaloGoesUnderItsMarkAndFollowsIt) {
    selectElement(1);
    const std::string row = elements()[1]->id;
    take("rim");
    click(pattern->openingAt(1, 4));
    ASSERT_EQ(elements().size(), 4u);
    EXPECT_EQ(elements()[1]->kind, "rim");
    EXPECT_EQ(elements()[1]->of, row);
    EXPECT_EQ(elements()[2]->id, row);
    ASSERT_TRUE(waitUntilSettled(window));
    const Vec2 before = window.results().body().art[1]->outlines()[3].centre;
    window.view().setElement(row);
    drag(pattern, pattern->openingAt(2, 3), QPointF(0, -20));
    ASSERT_TRUE(waitUntilSettled(window));
    EXPECT_GT(window.results().body().art[1]->outlines()[3].centre.y(), before.y() + 0.5);
}

TEST_F(MarksTest, EyeLockAndOrderOfTheList) {
    const std::string first = elements()[0]->id;
    click(pattern->eyeOfRow(0).center());
    EXPECT_TRUE(window.view().hidden().count(first));
    ASSERT_TRUE(waitUntilSettled(window));
    click(pattern->eyeOfRow(0).center());
    EXPECT_TRUE(window.view().hidden().empty());
    click(pattern->lockOfRow(1).center());
    ASSERT_TRUE(elements()[1]->locked);
    const std::string before = bytes();
    selectElement(1);
    drag(pattern, pattern->openingAt(1, 3), QPointF(20, 10));
    QTest::keyClick(pattern, Qt::Key_Right);
    EXPECT_EQ(bytes(), before);  // held where it is
    click(pattern->lockOfRow(1).center());
    EXPECT_FALSE(elements()[1]->locked);
    drag(pattern, pattern->listRow(0).center() - QPointF(40, 0), QPointF(0, 2 * kPatternRow_px));
    EXPECT_EQ(elements()[2]->id, first);
    window.view().setElement(first);
    QTest::keyClick(pattern, Qt::Key_Up, Qt::AltModifier);
    EXPECT_EQ(elements()[1]->id, first);
}

TEST_F(MarksTest, SeveralAreMovedTogetherDoubledAndTakenOut) {
    click(pattern->listRow(0).center() - QPointF(40, 0));
    click(pattern->listRow(2).center() - QPointF(40, 0), Qt::ControlModifier);
    EXPECT_TRUE(window.view().isSelected(elements()[0]->id) && window.view().isSelected(elements()[2]->id));
    EXPECT_FALSE(window.view().isSelected(elements()[1]->id));
    const double a = elements()[0]->dg_mm, b = elements()[1]->dg_mm, c = elements()[2]->dg_mm;
    QTest::keyClick(pattern, Qt::Key_Up, Qt::ShiftModifier);
    EXPECT_NEAR(elements()[0]->dg_mm, a + 1, 1e-9);
    EXPECT_EQ(elements()[1]->dg_mm, b);
    EXPECT_NEAR(elements()[2]->dg_mm, c + 1, 1e-9);
    QTest::keyClick(pattern, Qt::Key_D);
    EXPECT_EQ(elements().size(), 5u);
    window.document().history().undo();
    click(pattern->listRow(0).center() - QPointF(40, 0));
    click(pattern->listRow(2).center() - QPointF(40, 0), Qt::ControlModifier);
    QTest::keyClick(pattern, Qt::Key_Delete);
    EXPECT_EQ(elements().size(), 1u);
}

TEST_F(MarksTest, CopiedMarksComeOutInAnotherJobWithTheirHalo) {
    Ids made;
    const Job job = window.document().job();
    Element halo;
    halo.id = "halo";
    halo.kind = "rim";
    halo.values = usualValues(*findKind("rim"));
    halo.of = elements()[1]->id;
    window.document().edit(withAdded(job, halo), "x");
    const std::string text = elementsText(window.document().job(), {elements()[1]->id, "halo"});
    const Job pasted = test::need(withPasted(job, text, made));
    ASSERT_EQ(made.size(), 2u);
    const auto& all = pasted.get<PatternChapter>().elements;
    ASSERT_EQ(all.size(), 5u);
    EXPECT_EQ(all[4]->of, all[3]->id);  // the copy's halo, not the original's
    EXPECT_NE(all[3]->id, all[1]->id);
    EXPECT_FALSE(withPasted(job, "a shopping list", made));
    QGuiApplication::clipboard()->setText("a shopping list");
    const std::string before = bytes();
    QTest::keyClick(pattern, Qt::Key_V, Qt::ControlModifier);
    EXPECT_EQ(bytes(), before);
}

TEST_F(MarksTest, TheAnchorIsDraggedOntoAnotherLandmark) {
    selectElement(1);
    QTest::qWait(30);
    const QPointF from = pattern->anchorAt();
    ASSERT_FALSE(from.isNull());
    const Vec2 origin = window.results().body().art[1]->origin;
    // Onto the eye: where it is drawn is where its landmark lies.
    const auto& skin = *window.results().body().skin;
    const Vec2 eye = window.document().job().get<BlankChapter>().landmarks.at("eye").points.front();
    const Vec2 gill =
        referencePoint(window.document().job().get<BlankChapter>().landmarks.at("gill_plate"), origin.y());
    const double perMm = (pattern->openingAt(1, 4).x() - pattern->openingAt(1, 0).x()) /
                         (window.results().body().art[1]->outlines()[4].centre.x() -
                          window.results().body().art[1]->outlines()[0].centre.x());
    const Vec3 at = skin.at({Side::Left, eye.x(), eye.y()}).position,
               was = skin.at({Side::Left, gill.x(), gill.y()}).position;
    drag(pattern, from, QPointF((at.x() - was.x()) * perMm, (was.z() - at.z()) * perMm));
    EXPECT_EQ(elements()[1]->anchor, "eye");
    ASSERT_TRUE(waitUntilSettled(window));
    EXPECT_LT((window.results().body().art[1]->origin - origin).norm(), 0.03);
}

TEST_F(MarksTest, MarksAreDraggedOnTheUnrolledBackToo) {
    selectElement(2);
    Element high = *elements()[2];
    high.dg_mm = 19.4;
    window.document().edit(withElement(window.document().job(), 2, high), "x");
    ASSERT_TRUE(waitUntilSettled(window));
    const QRectF back = pattern->stripBox(true);
    ASSERT_FALSE(back.isEmpty());
    // Below the middle line lies the left side: dragged up, a mark goes towards the back and over it.
    const double g = elements()[2]->dg_mm;
    const ArtPtr art = window.results().body().art[2];
    const Outline& dot = art->outlines()[0];
    const SectionArc arc = window.results().body().skin->arcAt(dot.centre.x());
    const double perMm = back.width() / window.results().body().skin->length_mm();
    const QPointF at(back.left() + dot.centre.x() * perMm,
                     back.center().y() + (arc.backArc_mm() - dot.centre.y()) * perMm);
    ASSERT_TRUE(back.contains(at));
    drag(pattern, at, QPointF(0, -10));
    EXPECT_NEAR(elements()[2]->dg_mm - g, 10 / perMm, 0.25);
}

TEST_F(MarksTest, AValueOnTheDrawingIsTypedThere) {
    selectElement(1);
    QTest::qWait(60);
    const QPointF first = pattern->handleAt("first");
    QTest::mouseDClick(pattern, Qt::LeftButton, {}, (first - QPointF(0, 35)).toPoint());
    ValueChip* editor = pattern->findChild<ValueChip*>();
    ASSERT_TRUE(editor && editor->isVisible());
    editor->selectAll();
    QTest::keyClicks(editor, "3.1");
    QTest::keyClick(editor, Qt::Key_Return);
    EXPECT_NEAR(elements()[1]->values.number("first_mm"), 3.1, 1e-9);
}

TEST_F(MarksTest, CurvesOnTheCardAreDragged) {
    selectElement(1);  // a row of dots from 2 to 2 mm
    ASSERT_TRUE(waitUntilSettled(window));
    const auto field = [&](const char* name) -> CurveField* {
        for (CurveField* f : window.findChildren<CurveField*>())
            if (f->accessibleName() == name && f->isVisible()) return f;
        return nullptr;
    };
    ASSERT_TRUE(QTest::qWaitFor([&] { return field("How the dots change") != nullptr; }, 5000));
    const auto value = [&](const char* key) { return elements()[1]->values.number(key); };
    const double first = value("first_mm"), last = value("last_mm"), even = 0.5 * (first + last);
    CurveField* sizes = field("How the dots change");
    EXPECT_TRUE(sizes->accessibleDescription().contains("in the middle"));
    const QPointF middle = sizes->placeOf(CurveField::Middle), foot(middle.x(), sizes->height() - 22);
    // Half as high above the foot: half as wide.
    const double half = 0.5 * (foot.y() - middle.y());
    drag(sizes, middle, QPointF(0, half));
    EXPECT_NEAR(value("bulge") * even, 0.5 * even, 0.06 * even);
    EXPECT_EQ(value("first_mm"), first);
    QTest::keyClick(sizes, Qt::Key_Right);  // the last one
    QTest::keyClick(sizes, Qt::Key_Up);
    EXPECT_NEAR(value("last_mm"), last + 0.1, 0.006);
    // Far beyond the limit it stays at the limit.
    drag(sizes, sizes->placeOf(CurveField::Middle), QPointF(0, -900));
    EXPECT_EQ(value("bulge"), findParam(*findKind("dot_row"), "bulge")->high);
    CurveField* run = field("How the row runs");
    ASSERT_TRUE(run);
    const double bow = value("bow_mm");
    drag(run, run->placeOf(CurveField::Middle), QPointF(0, -6));
    EXPECT_GT(value("bow_mm"), bow + 0.05);
    // A press beside the points does nothing, Esc lets go.
    const int steps = window.document().history().count();
    drag(run, run->placeOf(CurveField::Middle) + QPointF(30, 18), QPointF(0, -9));
    QTest::mousePress(run, Qt::LeftButton, {}, run->placeOf(CurveField::Middle).toPoint());
    QTest::keyClick(run, Qt::Key_Escape);
    QTest::mouseRelease(run, Qt::LeftButton, {}, QPoint(60, 5));
    EXPECT_EQ(window.document().history().count(), steps);
}

TEST_F(MarksTest, OneMoreOnThisSideOrOnBoth) {
    selectElement(1);
    ASSERT_TRUE(waitUntilSettled(window));
    const auto press = [&](const char* words) {
        for (QPushButton* b : window.findChildren<QPushButton*>())
            if (b->isVisible() && b->text() == words) {
                QTest::mouseClick(b, Qt::LeftButton);
                return true;
            }
        return false;
    };
    const std::size_t before = elements().size();
    ASSERT_TRUE(QTest::qWaitFor([&] { return press("on this side"); }, 5000));
    ASSERT_EQ(elements().size(), before + 1);
    const Element& one = *elementOf(window.document().job(), window.view().element());
    EXPECT_FALSE(one.linked);
    EXPECT_EQ(one.side, window.view().side());
    EXPECT_EQ(one.values.number("count"), elements()[1]->values.number("count"));
    ASSERT_TRUE(waitUntilSettled(window));
    ASSERT_TRUE(QTest::qWaitFor([&] { return press("on both sides"); }, 5000));
    EXPECT_TRUE(elementOf(window.document().job(), window.view().element())->linked);
    EXPECT_EQ(elements().size(), before + 2);
}

/// What a way of cutting manages is said while designing, for the one that is chosen.
TEST_F(MarksTest, FinenessIsMeasuredByTheToolThatIsChosen) {
    selectElement(1);
    ASSERT_TRUE(waitUntilSettled(window));
    const auto says = [&](const QString& words) {
        for (QLabel* label : window.findChildren<QLabel*>())
            if (label->isVisible() && label->text().contains(words)) return true;
        return false;
    };
    const auto change = [&](double size) {
        Element e = *elements()[1];
        e.values.set("first_mm", size);
        e.values.set("last_mm", size);
        window.document().edit(withElement(window.document().job(), 1, e), "size");
    };
    change(0.6);
    EXPECT_TRUE(QTest::qWaitFor([&] { return says("a craft knife manages"); }, 10000));
    window.showLeaf(5);
    ASSERT_TRUE(waitUntilSettled(window));
    QPushButton* plotter = nullptr;
    ASSERT_TRUE(QTest::qWaitFor(
        [&] {
            for (QPushButton* b : window.findChildren<QPushButton*>())
                if (b->isVisible() && b->text() == "drag-knife cutter") plotter = b;
            return plotter != nullptr;
        },
        10000));
    QTest::mouseClick(plotter, Qt::LeftButton);
    EXPECT_EQ(window.document().job().get<CutChapter>().tool, "plotter");
    window.showLeaf(1);
    EXPECT_TRUE(QTest::qWaitFor([&] { return !says("manages"); }, 10000));
    const Result<LoadedJob> read = parseJob(jobText(window.document().job()), "");
    ASSERT_TRUE(read);
    EXPECT_EQ(read->job.get<CutChapter>().tool, "plotter");
}

/// What reaches over bare skin is shown where it is lost.
TEST_F(MarksTest, WhatIsCutOffIsShownOnTheDrawing) {
    selectElement(1);
    Element e = *elements()[1];
    e.anchor.clear();
    e.dx_mm = 4;
    e.dg_mm = 4;  // over the eye
    e.values.set("count", 12.0);
    window.document().edit(withElement(window.document().job(), 1, e), "over the eye");
    ASSERT_TRUE(waitUntilSettled(window));
    const ArtPtr art = window.results().body().art[1];
    ASSERT_TRUE(art && !art->cutAway.empty());
    double lost = 0;
    for (const Outline& outline : art->cutAway.front().lost) lost += polygonArea(outline.skin);
    EXPECT_GT(lost, 0.1);
    QStringList drawn;
    ink::setWitness([&](const QPainter&, const QString& words, const QRectF&) { drawn << words; });
    pattern->grab();
    ink::setWitness({});
    EXPECT_TRUE(drawn.join("|").contains("cut off: eye")) << drawn.join("|").toStdString();
}

TEST_F(MarksTest, TheSamePatternOnOtherBlanksBecomesAJob) {
    auto* leaf = window.findChild<PatternLeaf*>();
    ASSERT_TRUE(leaf);
    ASSERT_TRUE(QTest::qWaitFor(
        [&] { return !leaf->refitDesk().running() && !leaf->refitDesk().previews().empty(); }, 30000));
    QTest::keyClick(pattern, Qt::Key_R);
    EXPECT_EQ(leaf->refitDesk().chosen(), leaf->refitDesk().previews()[0].blank.name);
    QTest::keyClick(pattern, Qt::Key_Escape);
    EXPECT_TRUE(leaf->refitDesk().chosen().empty());
    click(pattern->previewBox(1).center());
    const RefitPreview* preview = leaf->refitDesk().chosenPreview();
    ASSERT_TRUE(preview && preview->refit);
    const std::string name = preview->blank.name, wanted = jobText(preview->refit->job);
    QTest::qWait(30);
    QPushButton* make = nullptr;
    for (QPushButton* b : window.findChildren<QPushButton*>())
        if (b->isVisible() && b->text() == "Make this a job") make = b;
    ASSERT_TRUE(make);
    make->click();
    EXPECT_EQ(window.document().job().get<BlankChapter>().name, name);
    EXPECT_EQ(bytes(), wanted);
    EXPECT_TRUE(window.document().dirty());
    ASSERT_TRUE(waitUntilSettled(window));
}

TEST_F(MarksTest, AFadeUnderThePointerIsSelectedBeforeItIsDragged) {
    Element fade;
    fade.id = "fade";
    fade.kind = "girth_fade";
    fade.values = usualValues(*findKind("girth_fade"));
    fade.values.set("none", 0.0);
    fade.values.set("full", 1.0);
    window.document().edit(withAdded(window.document().job(), fade), "x");
    selectElement(1);
    ASSERT_TRUE(waitUntilSettled(window));
    const QPointF belly = pattern->openingAt(1, 4) + QPointF(0, 70);
    const std::string before = bytes();
    drag(pattern, belly, QPointF(30, 0));
    EXPECT_EQ(window.view().element(), "fade");
    EXPECT_EQ(bytes(), before);
    drag(pattern, belly, QPointF(30, 0));
    EXPECT_GT(elements().back()->dx_mm, 1);
}

TEST_F(MarksTest, FortyMarksAndWrongOrderDoNoHarm) {
    for (int i = 0; i < 40; ++i) {
        take(kinds()[static_cast<std::size_t>(i) % kinds().size()]->id());
        click(pattern->strip()
                  .tile(*kinds()[static_cast<std::size_t>(i) % kinds().size()])
                  .center());  // put back
        if (i % 3) continue;
        take("dot_row");
        click(pattern->listRow(0).center());  // no body there: still in hand
        QTest::keyClick(pattern, Qt::Key_Escape);
        QTest::keyClick(pattern, Qt::Key_D);
        QTest::keyClick(pattern, Qt::Key_Delete);
        QTest::keyClick(pattern, Qt::Key_D);
    }
    EXPECT_GE(elements().size(), 3u);
    for (int i = 0; i < 60; ++i) window.document().history().undo();
    EXPECT_EQ(elements().size(), 3u);
    ASSERT_TRUE(waitUntilSettled(window));
}

}  // namespace
}  // namespace nine::app
