// Masks as they come: shown one by one, never taken for the whole, pages not cut before their time.
#include "app/leaves/cut/cut_page.h"
#include "app/leaves/masks/masks_page.h"
#include "tests/app/window_fixture.h"
#include "tests/elements.h"

namespace nine::app {
namespace {

/// A job of many masks that takes a while: dots of different sizes along the flank, one mask each side.
Job manyMasks(int elements) {
    Job job = theDemo();
    PatternChapter pattern = job.get<PatternChapter>();
    pattern.elements.clear();
    for (int i = 0; i < elements; ++i) {
        Element e;
        e.id = "row" + std::to_string(i);
        e.dx_mm = 12 + i % 6 * 4;
        e.dg_mm = -3 + i;
        test::shape(e, test::DotRow{2, 5, 1.5 + 0.1 * i, 1.5, 0});
        pattern.elements.push_back(std::make_shared<const Element>(e));
    }
    job = job.with(pattern);
    job = job.with(MasksChapter{});
    return job;
}

/// What the window says instead of asking for a folder.
QString saidOnExport(MainWindow& window) {
    QString said;
    QTimer answers;
    QObject::connect(&answers, &QTimer::timeout, [&] {
        if (auto* box = qobject_cast<QMessageBox*>(QApplication::activeModalWidget())) {
            said = box->text();
            box->buttons().first()->click();
        } else if (auto* other = qobject_cast<QDialog*>(QApplication::activeModalWidget())) {
            said = "a dialog";
            other->reject();
        }
    });
    answers.start(50);
    leafOf<CutLeaf>(window).exportWithDialog({true, false, false});
    return said;
}

TEST_F(WindowTest, MasksAreShownOneByOneAsTheyCome) {
    window.showLeaf(CutNumber);
    std::vector<std::size_t> seen;
    bool partialWasWhole = false, foreign = false;
    QObject::connect(&window.results(), &Results::masksChanged, &window, [&] {
        const MasksResult& masks = window.results().masks();
        seen.push_back(masks.masks.size());
        if (masks.masks.size() < 12 && masks.whole) partialWasWhole = true;
        for (const MaskResult& m : masks.masks) foreign = foreign || m.spec->id.rfind("row", 0) != 0;
        const std::size_t pieces = masks.pages ? masks.pages->pieces.size() : masks.masks.size();
        EXPECT_EQ(pieces, masks.masks.size());
    });
    window.document().open(manyMasks(6), {});
    ASSERT_TRUE(waitUntilSettled(window));
    window.results().disconnect(&window);
    ASSERT_EQ(window.results().masks().masks.size(), 12u);
    EXPECT_TRUE(window.results().masks().whole);
    std::set<std::size_t> different(seen.begin(), seen.end());
    EXPECT_GE(different.size(), 3u);  // some, more, all
    EXPECT_FALSE(partialWasWhole);
    EXPECT_FALSE(foreign);  // masks of the job before are not shown for this one's
}

TEST_F(WindowTest, AMaskThatIsDoneIsShownWhileOthersAreStillSolved) {
    window.showLeaf(MasksNumber);
    auto* page = window.findChild<MasksPage*>();
    window.document().open(manyMasks(6), {});
    bool shown = false;
    for (int i = 0; i < 600 && !shown; ++i) {
        QTest::qWait(10);
        const auto& masks = window.results().masks().masks;
        if (!window.results().masksRunning() || masks.empty()) continue;
        window.view().setMask(masks.front().spec->id);
        const MaskInView found = page->inView();
        shown = found.mask && found.judged && window.results().masksRunning();
    }
    EXPECT_TRUE(shown);
    ASSERT_TRUE(waitUntilSettled(window));
}

TEST_F(WindowTest, WhatChangedIsNotCutFromTheMasksBefore) {
    window.showLeaf(CutNumber);
    EXPECT_TRUE(window.results().masks().whole);
    Element e = *window.document().job().get<PatternChapter>().elements[1];
    e.dx_mm += 1;
    window.document().edit(withElement(window.document().job(), 1, e), "move");
    EXPECT_FALSE(window.results().masks().whole);
    // The pages of before stay in view meanwhile, but are not given out.
    EXPECT_TRUE(window.results().masks().pages);
    QString said = saidOnExport(window);
    EXPECT_TRUE(said.contains("still being fitted")) << said.toStdString();
    ASSERT_TRUE(waitUntilSettled(window));
    EXPECT_TRUE(window.results().masks().whole);
    // Stopped: said so, and still not given out.
    e.dx_mm += 1;
    window.document().edit(withElement(window.document().job(), 1, e), "move");
    window.results().cancelMasks();
    said = saidOnExport(window);
    EXPECT_TRUE(said.contains("fitting was stopped")) << said.toStdString();
}

}  // namespace
}  // namespace nine::app
