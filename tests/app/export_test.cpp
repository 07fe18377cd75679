// Exports through the window: what is asked before, what is replaced and taken away, what is said afterwards.
#include "app/leaves/cut/folder_dialog.h"
#include "tests/app/window_fixture.h"

namespace nine::app {
namespace {

namespace fs = std::filesystem;

class ExportTest : public WindowTest {
  protected:
    /// Exports SVG into the folder as a person does; questions are answered with their first button or the
    /// last.
    QStringList exportTo(const std::string& to, bool yes = true) {
        QStringList asked;
        QTimer answers;
        QObject::connect(&answers, &QTimer::timeout, [&] {
            QWidget* modal = QApplication::activeModalWidget();
            if (auto* box = qobject_cast<QMessageBox*>(modal)) {
                asked << box->text() + "\n" + box->informativeText();
                (yes ? box->buttons().first() : box->buttons().last())->click();
            } else if (auto* dialog = qobject_cast<FolderDialog*>(modal)) {
                auto* line = dialog->findChild<QLineEdit*>("folder");
                line->selectAll();
                QTest::keyClicks(line, QString::fromStdString(to));
                QTest::keyClick(line, Qt::Key_Return);
            }
        });
        answers.start(150);
        window.tellTale().setNotice({});
        leafOf<CutLeaf>(window).exportWithDialog({true, false, false});
        answers.stop();
        (void)QTest::qWaitFor([&] { return !leafOf<CutLeaf>(window).exporting(); }, 20000);
        return asked;
    }
    std::vector<std::string> names(const std::string& in) {
        std::vector<std::string> all;
        for (const auto& entry : fs::directory_iterator(in)) all.push_back(entry.path().filename());
        std::sort(all.begin(), all.end());
        return all;
    }
    test::TemporaryFolder folder;
};

TEST_F(ExportTest, TheTypedFolderIsMadeAndUsedUnderTheJobsName) {
    EXPECT_TRUE(exportTo(folder / "new/one").isEmpty());
    EXPECT_EQ(names(folder / "new/one"), std::vector<std::string>{"sedge-60-brook-char-sheet-1.svg"});
    EXPECT_TRUE(window.tellTale().notice().contains("Written to"))
        << window.tellTale().notice().toStdString();
    EXPECT_TRUE(window.tellTale().notice().contains("new/one"));
    leafOf<PatternLeaf>(window).removeSelected();  // the verdict is back with the next edit
    EXPECT_TRUE(window.tellTale().notice().isEmpty());
}

TEST_F(ExportTest, ItsOwnFilesAreReplacedWithoutAQuestionOthersAreNot) {
    EXPECT_TRUE(exportTo(folder.path()).isEmpty());
    EXPECT_TRUE(exportTo(folder.path()).isEmpty());  // a moment later: nothing to ask
    const std::string file = folder / "sedge-60-brook-char-sheet-1.svg";
    test::write(file, "edited by the painter");
    QStringList asked = exportTo(folder.path(), false);
    ASSERT_EQ(asked.size(), 1);
    EXPECT_TRUE(asked[0].contains("sedge-60-brook-char-sheet-1.svg")) << asked[0].toStdString();
    EXPECT_EQ(test::read(file), "edited by the painter");
    EXPECT_TRUE(window.tellTale().notice().isEmpty());
    asked = exportTo(folder.path(), true);
    EXPECT_EQ(asked.size(), 1);
    EXPECT_NE(test::read(file).find("<svg"), std::string::npos);
}

TEST_F(ExportTest, SheetsThatAreNoLongerThereAreTakenAway) {
    CutChapter cut;
    cut.sheet = {130, 130};  // small: several sheets
    window.document().edit(window.document().job().with(cut), "small");
    ASSERT_TRUE(waitUntilSettled(window));
    EXPECT_TRUE(exportTo(folder.path()).isEmpty());
    const std::size_t many = names(folder.path()).size();
    ASSERT_GE(many, 2u);
    test::write(folder / "other-sheet-7.svg", "not ours");
    window.document().edit(window.document().job().with(CutChapter{}), "large");
    ASSERT_TRUE(waitUntilSettled(window));
    EXPECT_TRUE(exportTo(folder.path()).isEmpty());
    EXPECT_EQ(names(folder.path()),
              (std::vector<std::string>{"other-sheet-7.svg", "sedge-60-brook-char-sheet-1.svg"}));
    // Left by another run: asked for.
    test::write(folder / "sedge-60-brook-char-sheet-9.svg", "from last week");
    const QStringList asked = exportTo(folder.path());
    ASSERT_EQ(asked.size(), 1);
    EXPECT_TRUE(asked[0].contains("sheet-9.svg"));
    EXPECT_FALSE(fs::exists(folder / "sedge-60-brook-char-sheet-9.svg"));
}

TEST_F(ExportTest, AFlaggedMaskIsExportedOnlyAfterAQuestion) {
    leafOf<MasksLeaf>(window).useMaterial(2);  // film does not lie
    ASSERT_TRUE(waitUntilSettled(window));
    const QStringList refused = exportTo(folder / "a", false);
    ASSERT_EQ(refused.size(), 1);
    EXPECT_TRUE(refused[0].contains("cannot lie flat")) << refused[0].toStdString();
    EXPECT_FALSE(fs::exists(folder / "a"));
    EXPECT_EQ(exportTo(folder / "a", true).size(), 1);
    EXPECT_EQ(names(folder / "a").size(), 2u);  // film and tape
}

TEST_F(ExportTest, ASavedJobGivesItsFilesItsOwnName) {
    ASSERT_TRUE(window.document().save(QString::fromStdString(folder / "Order 24.nineleaves.json")));
    EXPECT_TRUE(exportTo(folder / "o").isEmpty());
    EXPECT_EQ(names(folder / "o"), std::vector<std::string>{"order-24-sheet-1.svg"});
}

TEST_F(ExportTest, SavingIntoAMissingFolderNamesTheFolder) {
    const Status saved = window.document().save(QString::fromStdString(folder / "none/a.nineleaves.json"));
    ASSERT_FALSE(saved);
    EXPECT_NE(saved.error().text().find("the folder " + (folder / "none") + " does not exist"),
              std::string::npos)
        << saved.error().text();
}

}  // namespace
}  // namespace nine::app
