// Numbers typed as people type them, with real keys and clicks.
#include "app/sheet/names.h"
#include "tests/app/window_fixture.h"
#include "tests/elements.h"

namespace nine::app {
namespace {

double spacingOf(const Job& job) {
    return test::dotRow(*job.get<PatternChapter>().elements[1]).spacing_mm;
}

class NumberTest : public WindowTest {
  protected:
    void SetUp() override {
        WindowTest::SetUp();
        window.showLeaf(PatternNumber);
        selectElement(1);
        QApplication::processEvents();
    }
    void TearDown() override {
        useInches(false);
        WindowTest::TearDown();
    }
    QLabel* refused() {
        for (QLabel* label : window.findChildren<QLabel*>("refused"))
            if (label->isVisible()) return label;
        return nullptr;
    }
};

TEST_F(NumberTest, FractionsOfInchesInBothUnits) {
    type(chip("Spacing"), "1/8 in");
    EXPECT_NEAR(spacingOf(window.document().job()), 3.175, 1e-9);
    useInches(true);
    window.view().refresh();
    QApplication::processEvents();
    type(chip("Spacing"), "3/16");
    EXPECT_NEAR(spacingOf(window.document().job()), 4.7625, 1e-9);
    type(chip("Spacing"), "4 mm");
    EXPECT_NEAR(spacingOf(window.document().job()), 4, 1e-9);
}

TEST_F(NumberTest, AClickSelectsAllOfItAndReturnKeepsTheFocus) {
    ValueChip* spacing = chip("Spacing");
    for (const bool twice : {false, true}) {
        window.setFocus();
        twice ? QTest::mouseDClick(spacing, Qt::LeftButton, {}, QPoint(4, 10))
              : QTest::mouseClick(spacing, Qt::LeftButton, {}, QPoint(4, 10));
        EXPECT_EQ(spacing->selectedText(), spacing->text()) << twice;
    }
    QTest::keyClicks(spacing, "4,46");  // replaces what was there
    QTest::keyClick(spacing, Qt::Key_Return);
    ASSERT_EQ(chip("Spacing"), spacing);
    EXPECT_TRUE(spacing->hasFocus());
    EXPECT_EQ(spacing->text(), "4.5");  // as it is shown
    EXPECT_EQ(spacing->selectedText(), "4.5");
    EXPECT_NEAR(spacingOf(window.document().job()), 4.46, 1e-9);
    QTest::keyClicks(spacing, "5");
    QTest::keyClick(spacing, Qt::Key_Escape);
    EXPECT_EQ(spacing->text(), "4.5");
}

TEST_F(NumberTest, ARefusalIsSaidUnderTheNumberUntilItIsRight) {
    const std::string before = bytes();
    type(chip("Spacing"), "9999");
    ASSERT_TRUE(refused());
    EXPECT_TRUE(refused()->text().contains("between")) << refused()->text().toStdString();
    EXPECT_EQ(bytes(), before);
    EXPECT_EQ(chip("Spacing")->text(), "9999");  // to be mended
    type(chip("Bow"), "1");                      // another one is taken; this one is still wrong
    EXPECT_NE(bytes(), before);
    ASSERT_TRUE(refused());
    EXPECT_FALSE(chip("Spacing")->wrong().isEmpty());
    type(chip("Spacing"), "five");
    EXPECT_TRUE(refused()->text().contains(QString::fromUtf8("“five” is no length")))
        << refused()->text().toStdString();
    type(chip("Spacing"), "5");
    EXPECT_FALSE(refused());
    EXPECT_TRUE(chip("Spacing")->wrong().isEmpty());
    type(chip("Spacing"), "1e99");
    EXPECT_TRUE(refused());
    QTest::keyClick(chip("Spacing"), Qt::Key_Escape);
    EXPECT_FALSE(refused());
    EXPECT_EQ(chip("Spacing")->text(), "5.0");
    type(chip("Count"), "99999999999");
    EXPECT_TRUE(refused());
    EXPECT_EQ(test::dotRow(*window.document().job().get<PatternChapter>().elements[1]).count, 8);
}

TEST_F(NumberTest, UndoIsTheJobsWhileNothingIsHalfTyped) {
    type(chip("Spacing"), "5");
    ASSERT_TRUE(chip("Spacing")->hasFocus());
    QTest::keyClick(chip("Spacing"), Qt::Key_Z, Qt::ControlModifier);
    EXPECT_NEAR(spacingOf(window.document().job()), 4, 1e-9);
    EXPECT_EQ(chip("Spacing")->text(), "4.0");
    QTest::keyClick(chip("Spacing"), Qt::Key_Z, Qt::ControlModifier | Qt::ShiftModifier);
    EXPECT_NEAR(spacingOf(window.document().job()), 5, 1e-9);
    QTest::keyClicks(chip("Spacing"), "77");  // half typed: undo is the number's own
    QTest::keyClick(chip("Spacing"), Qt::Key_Z, Qt::ControlModifier);
    EXPECT_NEAR(spacingOf(window.document().job()), 5, 1e-9);
}

TEST_F(NumberTest, LettersTypedIntoANumberAreNoCommands) {
    const Sides before = window.view().sides();
    chip("Spacing")->setFocus();
    QTest::keyClicks(chip("Spacing"), "sbhf");
    EXPECT_EQ(window.view().sides(), before);
    QTest::keyClick(chip("Spacing"), Qt::Key_Escape);
}

TEST(UnitsInSentences, LengthsFollowTheUnitSwitchAndNothingElseDoes) {
    const Words words =
        Words(Pattern("lands within {landing} at 120 mm/s, {a} x {b}, {n} coats, {need} of {who}."))
            .length("landing", 0.03, 2)
            .length("a", 38, 0)
            .length("b", 12.7, kShortest)
            .number("n", 2, 0)
            .share("need", 0.0271)
            .name("who", "5 mm {a}");  // what people type is no pattern
    useInches(true);
    EXPECT_EQ(said(words),
              "lands within 0.0012 in at 120 mm/s, 1.50 in x 0.500 in, 2 coats, 2.7 % of 5 mm {a}.");
    useInches(false);
    EXPECT_EQ(said(words), "lands within 0.03 mm at 120 mm/s, 38 mm x 12.7 mm, 2 coats, 2.7 % of 5 mm {a}.");
    EXPECT_EQ(said(words).toStdString(), words.plain());
}

TEST_F(NumberTest, VerdictsFollowTheUnitSwitch) {
    useInches(true);
    window.view().refresh();
    window.showLeaf(MasksNumber);
    QApplication::processEvents();
    int lengths = 0;
    for (QLabel* label : window.findChildren<QLabel*>()) {
        if (!label->isVisible()) continue;
        EXPECT_FALSE(label->text().contains(QRegularExpression("\\d mm\\b"))) << label->text().toStdString();
        lengths += label->text().contains(QRegularExpression("\\d in\\b")) ? 1 : 0;
    }
    EXPECT_GE(lengths, 3);  // the verdict and the marks
}

}  // namespace
}  // namespace nine::app
