// Masks as a painter sets them: another kind, edges and bridges dragged on the body, cut-outs kept, fingers,
// a cover for the bill, the printed sheet.
#include <QMenu>
#include <QProcess>
#include <QPushButton>
#include <QRegularExpression>

#include "app/leaves/masks/masks_page.h"
#include "job/bill_cover.h"
#include "tests/app/window_fixture.h"
#include "tests/elements.h"

namespace nine::app {
namespace {

class MaskWaysTest : public WindowTest {
  protected:
    void SetUp() override {
        WindowTest::SetUp();
        for (const MaskSpecPtr& spec : maskSpecs(theDemo()))
            if (spec->wish.elements == std::vector<std::string>{"red-dots"} && spec->side == Side::Left)
                mask = spec->id;
        open(theDemo(), mask);
    }
    void open(const Job& job, const std::string& id) {
        mask = id;
        window.document().open(job, {});
        window.showLeaf(MasksNumber);
        window.view().setMask(mask);
        page = window.findChild<MasksPage*>();
        ASSERT_TRUE(page);
        ASSERT_TRUE(waitUntilSettled(window));
    }
    QPushButton* button(const QString& words) {
        for (auto* b : window.findChildren<QPushButton*>())
            if (b->isVisible() && b->text() == words) return b;
        return nullptr;
    }
    void press(const QString& words) {
        ASSERT_TRUE(QTest::qWaitFor([&] { return button(words) != nullptr; }, 10000)) << words.toStdString();
        QTest::mouseClick(button(words), Qt::LeftButton);
        ASSERT_TRUE(waitUntilSettled(window));
    }
    const MaskSpec& spec(Side side = Side::Left) {
        const std::vector<std::string> elements = specOf(mask).wish.elements;
        for (const MaskSpecPtr& s : maskSpecs(window.document().job()))
            if (s->wish.elements == elements && s->side == side) return *s;
        throw std::runtime_error("no such mask");
    }
    const MaskSpec& specOf(const std::string& id) {
        for (const MaskSpecPtr& s : maskSpecs(window.document().job()))
            if (s->id == id) return *s;
        throw std::runtime_error("no such mask");
    }
    std::string mask;
    MasksPage* page = nullptr;
};

TEST_F(MaskWaysTest, TheEdgeOfTheSheetIsDraggedOnTheBodyInOneStep) {
    const double margin = spec().wish.values.number("margin_mm");
    const int steps = window.document().history().count();
    const QPointF handle = page->edgeHandle("margin_mm");
    ASSERT_FALSE(handle.isNull());
    const double before = boxAround({page->inView().mask->sheets[0].outline}).size().x();
    drag(page, handle, QPointF(-20, 0));
    const double now = spec().wish.values.number("margin_mm");
    EXPECT_LT(now, margin - 1);
    EXPECT_EQ(spec(Side::Right).wish.values.number("margin_mm"), now);
    EXPECT_NEAR(10 * now, std::round(10 * now), 1e-9);  // by tenths
    EXPECT_EQ(window.document().history().count(), steps + 1);
    ASSERT_TRUE(waitUntilSettled(window));
    EXPECT_LT(boxAround({page->inView().mask->sheets[0].outline}).size().x(), before - 2);
    // Far beyond what a margin may be it stays where the hand last was within it.
    drag(page, page->edgeHandle("margin_mm"), QPointF(-400, 0));
    EXPECT_GE(spec().wish.values.number("margin_mm"), 1);
    window.document().history().undo();
    window.document().history().undo();
    EXPECT_EQ(spec().wish.values.number("margin_mm"), margin);
}

TEST_F(MaskWaysTest, EachKindIsChosenFromTheMenuAndMakesItsSheets) {
    for (const MaskKind* kind : maskKinds()) {
        QPushButton* menu = nullptr;
        for (auto* b : window.findChildren<QPushButton*>())
            if (b->isVisible() && b->menu() && b->menu()->actions().size() == qsizetype(maskKinds().size()))
                menu = b;
        ASSERT_TRUE(menu);
        for (QAction* action : menu->menu()->actions())
            if (action->text().compare(QString(kind->name().text()), Qt::CaseInsensitive) == 0) {
                action->trigger();
                break;
            }
        ASSERT_TRUE(waitUntilSettled(window));
        EXPECT_EQ(spec().wish.kind, kind->id());
        ASSERT_TRUE(page->inView().mask) << kind->id();
        EXPECT_GE(page->inView().mask->sheets.size(), 1u);
        EXPECT_FALSE(window.grab().isNull());
    }
    EXPECT_EQ(spec().wish.kind, maskKinds().back()->id());
}

TEST_F(MaskWaysTest, CutOutsAreKeptAndThrownAwayAgain) {
    press("kept on carrier film");
    EXPECT_EQ(spec().cutouts, Cutouts::OnCarrier);
    EXPECT_EQ(spec(Side::Right).cutouts, Cutouts::OnCarrier);
    press("the sheet, then its cut-outs");
    EXPECT_EQ(spec().covers, Covers::InTurn);
    press("thrown away");
    EXPECT_EQ(spec().cutouts, Cutouts::Dropped);
    EXPECT_EQ(spec().covers, Covers::Sheet);  // what is gone covers nothing
    EXPECT_FALSE(button("the sheet, then its cut-outs"));
}

TEST_F(MaskWaysTest, FingersAreShownWhereAStiffSheetIsHeld) {
    EXPECT_TRUE(leafOf<MasksLeaf>(window).pointedOut().empty());
    std::vector<MaskSpecPtr> specs = maskSpecs(theDemo());
    for (MaskSpecPtr& s : specs) {
        MaskSpec changed = *s;
        changed.wish.material = "film";
        s = std::make_shared<const MaskSpec>(changed);
    }
    open(withMasks(theDemo(), specs), mask);
    press("held by two fingers");
    const std::size_t areas = page->inView().mask->sheets[0].press.size();
    ASSERT_GE(areas, 2u);
    EXPECT_EQ(leafOf<MasksLeaf>(window).pointedOut().size(), 2 * areas);
    EXPECT_EQ(leafOf<MasksLeaf>(window).pointedOut().front().label, "1");
    int told = 0;
    for (auto* label : window.findChildren<QLabel*>())
        told += label->isVisible() && label->text().contains("press beside window");
    EXPECT_EQ(told, int(areas));
    press("lightly");
    EXPECT_TRUE(leafOf<MasksLeaf>(window).pointedOut().empty());
}

TEST_F(MaskWaysTest, TheBillGetsACoverOfItsOwn) {
    const std::size_t pieces = window.results().masks().pages->pieces.size();
    press("a cover for the bill is cut too");
    const auto& now = window.results().masks().pages->pieces;
    ASSERT_EQ(now.size(), pieces + 1);
    EXPECT_TRUE(
        std::any_of(now.begin(), now.end(), [](const auto& p) { return p.piece.id == kBillCoverId; }));
    window.showLeaf(CutNumber);  // a piece without a mask is drawn as any other
    ASSERT_TRUE(waitUntilSettled(window));
    EXPECT_FALSE(window.grab().isNull());
    window.document().history().undo();
    ASSERT_TRUE(waitUntilSettled(window));
    EXPECT_EQ(window.results().masks().pages->pieces.size(), pieces);
}

TEST_F(MaskWaysTest, ABridgeIsDraggedAndPutBack) {
    // Dots in a ring hold a piece of sheet in their middle.
    Job job = theDemo();
    PatternChapter marks;
    MaskSpec spec;
    spec.id = "ring";
    spec.wish.material = "tape";
    for (int i = 0; i < 10; ++i) {
        Element e;
        e.id = "d" + std::to_string(i);
        e.dx_mm = 28 + 4 * std::cos(2 * kPi * i / 10);
        e.dg_mm = 1 + 4 * std::sin(2 * kPi * i / 10);
        test::shape(e, test::DotRow{1, 4, 3.2, 3.2, 0});
        spec.wish.elements.push_back(e.id);
        marks.elements.push_back(std::make_shared<const Element>(e));
    }
    open(withMasks(job.with(SprayChapter{}).with(marks), {std::make_shared<const MaskSpec>(spec)}), "ring");
    ASSERT_EQ(page->inView().mask->sheets[0].bridges.size(), 2u);
    const Vec2 other = page->inView().mask->sheets[0].bridges[1].skin;
    const QPointF handle = page->bridgeHandle(0);
    ASSERT_FALSE(handle.isNull());
    drag(page, handle, QPointF(14, 14));
    ASSERT_EQ(specOf("ring").wish.bridges.at.size(), 2u);
    EXPECT_LT((specOf("ring").wish.bridges.at[1] - other).norm(), 1e-9);  // the other one stays
    ASSERT_TRUE(waitUntilSettled(window));
    EXPECT_EQ(page->inView().mask->sheets[0].bridges.size(), 2u);
    press("Put bridges where they cost least");
    EXPECT_TRUE(specOf("ring").wish.bridges.at.empty());
    press("laid by itself");
    EXPECT_TRUE(specOf("ring").wish.bridges.loose);
    EXPECT_EQ(specOf("ring").cutouts, Cutouts::Kept);  // or it would be lost
    EXPECT_EQ(page->inView().mask->sheets[0].windows[0].islands.size(), 1u);
}

/// pdftotext is a program of its own: what it reads is what a printer gets.
TEST_F(MaskWaysTest, ThePrintedSheetSaysMarksStepsAndCautions) {
    press("kept by number");
    const std::optional<MaskPaper> paper = leafOf<MasksLeaf>(window).paperOfSelected();
    ASSERT_TRUE(paper);
    test::TemporaryFolder folder;
    const QString path = QString::fromStdString(folder.path()) + "/sheet.pdf";
    ASSERT_TRUE(writeMaskPaper(*paper, path));
    QProcess reader;
    reader.start("pdftotext", {"-layout", path, "-"});
    if (!reader.waitForStarted(3000)) GTEST_SKIP() << "pdftotext is not here";
    ASSERT_TRUE(reader.waitForFinished(10000));
    const QString text = QString::fromUtf8(reader.readAllStandardOutput()).simplified();
    EXPECT_TRUE(text.contains("left side"));
    for (const RegistrationMark& mark : page->inView().mask->sheets[0].marks)
        EXPECT_TRUE(text.contains(QString("%1 ").arg(QChar(mark.name))));
    EXPECT_TRUE(text.contains("respirator"));
    EXPECT_TRUE(text.contains("Blade:"));
    for (const Window& opening : page->inView().mask->sheets[0].windows)
        EXPECT_TRUE(text.contains(QRegularExpression(QString("%1:? Red dots, ").arg(opening.number))))
            << opening.number;
    // A folder that takes nothing is told, and nothing is lost.
    EXPECT_FALSE(writeMaskPaper(*paper, "/proc/nowhere/sheet.pdf"));
}

}  // namespace
}  // namespace nine::app
