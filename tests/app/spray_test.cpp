// The Spray leaf in the real window: what is dragged is pinned, what contradicts is said, the bench decides
// the needles, and cards come out on paper.
#include <QLabel>
#include <QProcess>
#include <QPushButton>

#include "app/leaves/spray/my_bench.h"
#include "app/leaves/spray/spray_page.h"
#include "base/units.h"
#include "tests/app/window_fixture.h"
#include "tests/elements.h"

namespace nine::app {
namespace {

class SprayTest : public WindowTest {
  protected:
    void SetUp() override {
        WindowTest::SetUp();
        page = window.findChild<SprayPage*>();
        window.showLeaf(SprayNumber);
        selectMask(4);  // pale spots: nothing is pinned
        QApplication::processEvents();
    }
    const SprayStudy& study() { return leafOf<SprayLeaf>(window).desk().study(); }
    const SpraySetting& setting() { return study().plan->setting; }
    SpraySpec wish() { return sprayOfMask(window.document().job(), study().spec->id); }
    void change(const std::function<void(SpraySpec&)>& edit) {
        window.document().beginGesture();
        const Status ok = leafOf<SprayLeaf>(window).desk().change("test", edit);
        ASSERT_TRUE(ok) << (ok ? "" : ok.error().text());
        QApplication::processEvents();
    }
    QPushButton* button(const QString& words) {
        for (QPushButton* b : leafOf<SprayLeaf>(window).card()->findChildren<QPushButton*>()) {
            if (b->text() == words && b->isVisible()) return b;
        }
        return nullptr;
    }
    QString verdict() {
        for (const QLabel* label : leafOf<SprayLeaf>(window).card()->findChildren<QLabel*>()) {
            if (label->accessibleName() == "Verdict" && label->isVisible()) return label->text();
        }
        return {};
    }

    SprayPage* page = nullptr;
};

TEST_F(SprayTest, TheDemoIsPlannedFromPractice) {
    ASSERT_TRUE(study().ready());
    EXPECT_NEAR(setting().gauge_kpa, 15 * kKpaPerPsi, 1e-9);
    EXPECT_TRUE(study().plan->meetsWish);
    EXPECT_EQ(chip("Pressure")->text(), "15.0");
    EXPECT_TRUE(verdict().contains("0.04 mm wide")) << verdict().toStdString();
    EXPECT_EQ(window.stem().entry(SprayNumber).state, LeafState::Ready);
    EXPECT_EQ(window.tellTale().verdict().kind, Verdict::Kind::Fine);
}

TEST_F(SprayTest, DraggingTheGunPinsDistanceOnBothSidesInOneStep) {
    const std::string before = bytes();
    const double start = page->valueOf(SprayHandle::Distance);
    const QPointF handle = page->handleAt(SprayHandle::Distance), aim = page->handleAt(SprayHandle::Aim);
    const QPointF away = (handle - aim) / std::hypot(handle.x() - aim.x(), handle.y() - aim.y());
    drag(page, handle, -60 * away);
    EXPECT_LT(setting().distance_mm, start - 5);
    EXPECT_EQ(wish().pins.distance_mm, setting().distance_mm);
    EXPECT_EQ(sprayOfMask(window.document().job(), "pale-spots-R").pins.distance_mm, setting().distance_mm);
    QApplication::processEvents();
    ASSERT_NE(chip("Distance"), nullptr);
    EXPECT_EQ(chip("Distance")->text(), QString::number(setting().distance_mm, 'f', 0));
    EXPECT_EQ(window.document().history().count(), 1);
    window.document().history().undo();
    EXPECT_TRUE(bytes() == before);
    EXPECT_EQ(setting().distance_mm, start);
}

TEST_F(SprayTest, EveryHandleIsDraggedAndTakenByKeys) {
    const struct {
        SprayHandle handle;
        QPointF by;
    } drags[] = {{SprayHandle::Angle, {0, -40}},  {SprayHandle::Pressure, {0, -20}},
                 {SprayHandle::Trigger, {12, 0}}, {SprayHandle::Speed, {20, 0}},
                 {SprayHandle::Pads, {25, 0}},    {SprayHandle::Aim, {0, 12}},
                 {SprayHandle::Section, {30, 0}}};
    for (const auto& d : drags) {
        const std::string name = SprayPage::nameOf(d.handle).toStdString();
        const double before = page->valueOf(d.handle);
        ASSERT_FALSE(page->handleAt(d.handle).isNull()) << name;
        drag(page, page->handleAt(d.handle), d.by);
        EXPECT_GT(std::abs(page->valueOf(d.handle) - before), 0.01) << name;
        EXPECT_EQ(page->selected(), d.handle) << name;
        const double dragged = page->valueOf(d.handle);
        page->setFocus();
        QTest::keyClick(page, Qt::Key_Down);
        EXPECT_NE(page->valueOf(d.handle), dragged) << name;
        QTest::keyClick(page, Qt::Key_Delete);  // back to the plan
        EXPECT_NEAR(page->valueOf(d.handle), before, 1e-9) << name;
    }
    QTest::keyClick(page, Qt::Key_Space);
    EXPECT_EQ(page->selected(), SprayHandle::Distance);  // round again
}

TEST_F(SprayTest, EscapeTakesADragOfTheGunBack) {
    const std::string before = bytes();
    const QPointF at = page->handleAt(SprayHandle::Pressure);
    QTest::mousePress(page, Qt::LeftButton, {}, at.toPoint());
    QMouseEvent move(QEvent::MouseMove, at + QPointF(0, -30), page->mapToGlobal(at + QPointF(0, -30)),
                     Qt::NoButton, Qt::LeftButton, {});
    QApplication::sendEvent(page, &move);
    EXPECT_FALSE(bytes() == before);
    QTest::keyClick(page, Qt::Key_Escape);
    EXPECT_TRUE(bytes() == before);
    QTest::mouseRelease(page, Qt::LeftButton, {}, at.toPoint());
    EXPECT_TRUE(bytes() == before);
}

TEST_F(SprayTest, TypedValuesArePinnedAndWhatIsOutsideTheModelIsRefused) {
    type(chip("Pressure"), "17");
    EXPECT_NEAR(setting().gauge_kpa, 17 * kKpaPerPsi, 1e-9);
    QApplication::processEvents();
    type(chip("Distance"), "65");
    QApplication::processEvents();
    EXPECT_EQ(setting().distance_mm, 65);
    const std::string before = bytes();
    const std::pair<const char*, const char*> wrong[] = {
        {"Pressure", "0"}, {"Pressure", "200"}, {"Distance", "3"},  {"Angle", "89"}, {"Pads", "-1"},
        {"Speed", "0"},    {"Relief", "99"},    {"Needle", "lots"}, {"Coats", "0"},  {"Drops of paint", "0"}};
    for (const auto& [field, value] : wrong) {
        type(chip(field), value);
        EXPECT_TRUE(bytes() == before) << field << ' ' << value;
        EXPECT_TRUE(chip(field)->property("wrong").toBool()) << field << ' ' << value;
        EXPECT_GT(chip(field)->toolTip().size(), 15) << field;
        QTest::keyClick(chip(field), Qt::Key_Escape);
    }
    ASSERT_NE(button(QString::fromUtf8("distance ×")), nullptr);
    QTest::mouseClick(button(QString::fromUtf8("distance ×")), Qt::LeftButton);
    EXPECT_EQ(setting().distance_mm, 90);  // where practice starts along tape
}

TEST_F(SprayTest, ContradictingPinsAreNamedAndTheBindingOneReleased) {
    change([](SpraySpec& s) {
        s.pins.needle_mm = 0.2;
        s.pins.flow_ml_min = 3;
    });
    ASSERT_TRUE(study().error);
    EXPECT_EQ(study().error->code, "pins_contradict");
    EXPECT_EQ(study().error->where, "pins.needle_mm");
    EXPECT_TRUE(verdict().contains("needle 0.2 mm")) << verdict().toStdString();
    EXPECT_TRUE(study().plan);  // the page goes on without the pin that binds
    EXPECT_EQ(setting().needle_mm, 0.35);
    ASSERT_TRUE(waitUntilSettled(window));
    EXPECT_EQ(window.stem().entry(SprayNumber).state, LeafState::Repair);
    EXPECT_EQ(window.tellTale().verdict().kind, Verdict::Kind::Fault);
    ASSERT_NE(button("Release that pin"), nullptr);
    QTest::mouseClick(button("Release that pin"), Qt::LeftButton);
    EXPECT_FALSE(study().error);
    EXPECT_EQ(setting().flow_ml_min, 3);
    EXPECT_FALSE(wish().pins.needle_mm);
}

TEST_F(SprayTest, ASoftEdgeIsReachedByItsRemedy) {
    change([](SpraySpec& s) { s.soft_mm = 2; });
    EXPECT_FALSE(study().plan->meetsWish);
    ASSERT_TRUE(study().plan->remedy && study().plan->remedy->pads_mm);
    ASSERT_TRUE(leafOf<SprayLeaf>(window).applyRemedy());
    EXPECT_TRUE(study().plan->meetsWish);
    EXPECT_NEAR(study().plan->edge.width_mm, 2, 0.1);
    EXPECT_GT(wish().pads_mm, 1);
}

TEST_F(SprayTest, AMaskThatStandsOffShowsWhereAndTheFlagKeyLeadsThere) {
    window.document().beginGesture();
    std::vector<MaskSpecPtr> masks = maskSpecs(window.document().job());
    for (const std::size_t i : {std::size_t{0}, std::size_t{1}}) {
        MaskSpec spec = *masks[i];
        spec.wish.material = "film";
        masks[i] = std::make_shared<const MaskSpec>(spec);
    }
    window.document().edit(withMasks(window.document().job(), masks), "test");
    ASSERT_TRUE(waitUntilSettled(window));
    selectMask(0);
    QApplication::processEvents();
    ASSERT_TRUE(study().ready());
    EXPECT_GT(study().worst.lift_mm, 0.9 * study().mask->report().lift_mm);
    EXPECT_FALSE(study().plan->meetsWish);
    EXPECT_TRUE(verdict().contains("opening 3 of parr-bars")) << verdict().toStdString();
    // Away from the worst place the sheet stands off less and the edge is sharper.
    const auto worst = leafOf<SprayLeaf>(window).desk().edgeAt(study().worst.skin);
    const auto end = leafOf<SprayLeaf>(window).desk().edgeAt(study().mask->sheets[0].flat->patch.high());
    ASSERT_TRUE(worst && end);
    EXPECT_GT(worst->edge.width_mm, end->edge.width_mm + 0.5);
    ASSERT_NE(button("See the mask"), nullptr);
    QTest::mouseClick(button("See the mask"), Qt::LeftButton);
    EXPECT_EQ(window.currentLeaf(), MasksNumber);
}

TEST_F(SprayTest, AnEdgeIsKeptAndComparedWith) {
    QTest::mouseClick(button("Keep this edge to compare"), Qt::LeftButton);
    ASSERT_TRUE(leafOf<SprayLeaf>(window).desk().kept());
    const double kept = leafOf<SprayLeaf>(window).desk().kept()->here.edge.width_mm;
    change([](SpraySpec& s) { s.pads_mm = 3; });
    EXPECT_GT(study().plan->edge.width_mm, kept + 0.3);
    EXPECT_EQ(leafOf<SprayLeaf>(window).desk().kept()->here.edge.width_mm, kept);
    ASSERT_NE(button("Forget what was kept"), nullptr);
    QTest::mouseClick(button("Forget what was kept"), Qt::LeftButton);
    EXPECT_FALSE(leafOf<SprayLeaf>(window).desk().kept());
}

TEST_F(SprayTest, NeedlesOfTheBenchArePinnedByAClickAndReleasedByASecond) {
    QTest::mouseClick(page, Qt::LeftButton, {}, page->needleBox(1).center().toPoint());
    EXPECT_EQ(wish().pins.needle_mm, 0.35);
    EXPECT_EQ(setting().needle_mm, 0.35);
    QTest::mouseClick(page, Qt::LeftButton, {}, page->needleBox(1).center().toPoint());
    EXPECT_FALSE(wish().pins.needle_mm);
    EXPECT_EQ(setting().needle_mm, 0.2);
}

TEST_F(SprayTest, MyBenchIsEditedCheckedAndKept) {
    MyBench dialog(window.bench(), &window);
    dialog.guns().item(0, 1)->setText("thin");
    dialog.accept();
    EXPECT_TRUE(dialog.problem().text().contains("number")) << dialog.problem().text().toStdString();
    EXPECT_EQ(window.bench().bench(), Workplace{});
    dialog.guns().item(0, 1)->setText("0.25");
    dialog.practices().item(2, 0)->setText("13 / 30 / 20");  // starts outside its range
    dialog.accept();
    EXPECT_TRUE(dialog.problem().text().contains("range")) << dialog.problem().text().toStdString();
    dialog.practices().item(2, 0)->setText("12 / 14 / 20");
    dialog.addGun();
    dialog.removeGun();
    dialog.accept();
    EXPECT_EQ(dialog.result(), QDialog::Accepted);
    EXPECT_EQ(setting().needle_mm, 0.25);
    EXPECT_NEAR(setting().gauge_kpa, 14 * kKpaPerPsi, 1e-9);
    // In its file, and there again in the next window.
    const std::string file = window.bench().path().toStdString();
    ASSERT_TRUE(QTest::qWaitFor([&] { return test::need(loadBench(file)) == window.bench().bench(); }, 5000));
    MainWindow next(QString::fromStdString(state.path()));
    EXPECT_EQ(next.bench().bench().guns.front().needle_mm, 0.25);
}

TEST(Bench, AFileThatCannotBeReadIsSaidAndKept) {
    const test::TemporaryFolder folder;
    const QString path = QString::fromStdString(folder.path()) + "/bench.json";
    ASSERT_TRUE(writeFileAtomically(path.toStdString(), "{\"format\": 1, \"guns\": [{}]}"));
    BenchStore store(QString::fromStdString(folder.path()), nullptr);
    ASSERT_TRUE(store.problem());
    EXPECT_TRUE(QString::fromStdString(store.problem()->where).contains("needle_mm"));
    EXPECT_EQ(store.bench(), Workplace{});
    Workplace own;
    own.guns.pop_back();
    ASSERT_TRUE(store.edit(own));
    ASSERT_TRUE(QTest::qWaitFor([&] { return QFile::exists(path); }, 5000));
    EXPECT_TRUE(QFile::exists(path + ".unread"));
    Workplace none;
    none.guns.clear();
    EXPECT_EQ(store.edit(none).error().code, "no_gun");
    EXPECT_EQ(store.bench(), own);
}

TEST(Bench, WhatWasChangedLastIsKeptWhenTheProgramEnds) {
    const test::TemporaryFolder folder;
    Workplace own;
    own.guns.pop_back();
    std::string path;
    {
        BenchStore store(QString::fromStdString(folder.path()), nullptr);
        path = store.path().toStdString();
        ASSERT_TRUE(store.edit(own));
    }
    EXPECT_EQ(test::need(loadBench(path)), own);
}

/// pdftotext is a program of its own: what it reads is what a printer gets.
TEST_F(SprayTest, CardsCarrySettingsAndCautions) {
    change([](SpraySpec& s) { s.pins.pressure_kpa = 16 * kKpaPerPsi; });
    const QString path = QString::fromStdString(state.path()) + "/cards.pdf";
    DialogAnswer answer(path);
    leafOf<SprayLeaf>(window).putOutCards(false);
    ASSERT_TRUE(QTest::qWaitFor([&] { return QFile::exists(path); }, 10000)) << answer.said.toStdString();
    QProcess reader;
    reader.start("pdftotext", {"-layout", path, "-"});
    if (!reader.waitForStarted(3000)) GTEST_SKIP() << "pdftotext is not here";
    ASSERT_TRUE(reader.waitForFinished(20000));
    const QString text = QString::fromUtf8(reader.readAllStandardOutput());
    EXPECT_EQ(text.count(QChar('\f')), 6) << "one page for each mask";
    EXPECT_EQ(text.count("RIGHT"), 3);
    EXPECT_TRUE(text.contains("16 psi") || text.contains("16psi")) << text.toStdString();
    EXPECT_EQ(text.count("Extraction on"), 6);
    EXPECT_EQ(text.count("never a finger"), 6);
    EXPECT_FALSE(text.contains("safe", Qt::CaseInsensitive));
    QProcess info;
    info.start("pdfinfo", {path});
    ASSERT_TRUE(info.waitForFinished(20000));
    EXPECT_TRUE(info.readAllStandardOutput().contains("420 x 595")) << "A5, in points";
}

TEST_F(SprayTest, TheBodyIsBehindATabWhereThereIsLittleRoom) {
    window.resize(1024, 700);
    ASSERT_TRUE(QTest::qWaitFor([&] { return page->tabbed(); }, 3000));
    EXPECT_TRUE(page->handleAt(SprayHandle::Section).isNull());
    QTest::keyClick(page, Qt::Key_M);
    EXPECT_FALSE(page->handleAt(SprayHandle::Section).isNull());
}

TEST_F(WindowTest, AGillMarkIsAddedDraggedAndSprayedTwice) {
    window.showLeaf(PatternNumber);
    const std::string before = bytes();
    leafOf<PatternLeaf>(window).addElement(*findKind("gill_mark"));
    ASSERT_TRUE(waitUntilSettled(window));
    const auto mark = [&] {
        return test::gillMark(*window.document().job().get<PatternChapter>().elements[3]);
    };
    ASSERT_EQ(window.results().body().art.size(), 4u);
    ASSERT_TRUE(window.results().body().art[3]);
    type(chip("Move between the passes"), "0.8");
    EXPECT_EQ(mark().pair_mm, 0.8);
    type(chip("Move between the passes"), "9");  // farther than the marks on the sheet can show
    EXPECT_TRUE(chip("Move between the passes")->property("wrong").toBool());
    EXPECT_EQ(mark().pair_mm, 0.8);
    const test::GillMark typed = mark();
    drag(pattern, pattern->handleAt("middle"), QPointF(12, 0));
    EXPECT_GT(mark().width_mm, typed.width_mm + 0.3);
    drag(pattern, pattern->handleAt("upper"), QPointF(0, 20));
    EXPECT_GT(mark().from, typed.from + 0.02);
    ASSERT_TRUE(waitUntilSettled(window));
    EXPECT_EQ(window.results().body().art[3]->passes.size(), 2u);
    while (window.document().history().canUndo()) window.document().history().undo();
    EXPECT_TRUE(bytes() == before);
}

}  // namespace
}  // namespace nine::app
