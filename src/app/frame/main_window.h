// The window: stem, job strip, page, card, holder and tell-tale line round the open leaf.
#pragma once

#include <QMainWindow>
#include <QScrollArea>
#include <QStackedWidget>

#include "app/document/exports.h"
#include "app/document/library_store.h"
#include "app/document/safekeeping.h"
#include "app/document/selection.h"
#include "app/frame/job_strip.h"
#include "app/holder/holder.h"
#include "app/leaves/blank/blank_leaf.h"
#include "app/leaves/cut/cut_leaf.h"
#include "app/leaves/masks/masks_leaf.h"
#include "app/leaves/pattern/pattern_leaf.h"
#include "app/leaves/spray/spray_card.h"
#include "app/leaves/spray/spray_leaf.h"

namespace nine::app {

enum LeafNumber { BlankNumber = 0, PatternNumber = 1, MasksNumber = 4, CutNumber = 5, SprayNumber = 6 };

class MainWindow : public QMainWindow {
    Q_OBJECT
  public:
    /// `stateFolder` is where autosaved copies are kept; the user's own by default.
    explicit MainWindow(const QString& stateFolder = {},
                        std::shared_ptr<Derivations> derived = std::make_shared<Derivations>());

    ~MainWindow() override;

    JobDocument& document() { return document_; }
    Results& results() { return *results_; }
    ViewState& view() { return view_; }
    Holder& holder() { return *holder_; }
    Stem& stem() { return *stem_; }
    TellTale& tellTale() { return *tellTale_; }
    CutLeaf& cutLeaf() { return *cut_; }
    PatternLeaf& patternLeaf() { return *pattern_; }
    MasksLeaf& masksLeaf() { return *masks_; }
    SprayLeaf& sprayLeaf() { return *spray_; }
    BenchStore& bench() { return *bench_; }
    BlankLeaf& blankLeaf() { return *blank_; }
    LibraryStore& library() { return *library_; }

    void showLeaf(int number);
    int currentLeaf() const { return stem_->current(); }
    /// Shows what is wrong in a dialog when the file cannot be opened; the open job stays.
    bool openPath(const QString& path);
    void openDemo();
    /// Offers what a run that ended badly has left behind. Call once, after the window is shown.
    void offerRecovery();
    /// Where it was when it was closed last, or as large as the screen has room for. Call before it is shown.
    void restorePlace();
    Safekeeping& safekeeping() { return *safe_; }
    void applyTheme(bool dark);

  public slots:
    void newJob();
    void openWithDialog();
    bool save();
    bool saveAs();
    void saveReadings();
    /// Asks for a folder, and before anything strange is replaced or a flagged mask is cut.
    void exportWithDialog(PageFormats formats);
    void exportInto(const QString& folder, PageFormats formats);
    void print();
    /// Cards for the bench, one for each mask that can be planned: into a file, or printed.
    void sprayCards(bool print);
    void showBench();
    /// The painter's blanks.
    void showLibrary();
    /// A page of lines, true to size: printed, or into a PDF.
    void putOut(const Drawing& drawing, const QString& name, bool print);

  public:
    /// Of all masks that have a plan; a few milliseconds each.
    std::vector<SprayCard> allCards();

  protected:
    void closeEvent(QCloseEvent*) override;
    void dragEnterEvent(QDragEnterEvent*) override;
    void dropEvent(QDropEvent*) override;
    void resizeEvent(QResizeEvent*) override;
    /// Enter presses the button that has the focus, in the window and in its dialogs.
    bool eventFilter(QObject* on, QEvent* event) override;

  private:
    void buildActions();
    /// A number that is being typed counts before the job is saved or closed.
    void takeTyped();
    void refresh();
    /// Selects the next thing that is wrong and shows its leaf.
    void nextFlag();
    void complain(const Error& error);
    void printDrawings(const std::vector<Drawing>& drawings);
    bool ask(const QString& question, const QString& more, const QString& yes);
    /// Whether the pages may be printed or written now; says why not.
    bool mayTakePages();
    /// False when masks are flagged and the user thinks better of it.
    bool mayCutFlagged();
    /// What the names of exported files begin with.
    std::string exportStem() const;
    /// False when the user wants to keep the open job.
    bool mayDiscard();

    JobDocument document_;
    ViewState view_;
    Selection selection_{document_, view_, nullptr};
    Results* results_;
    Safekeeping* safe_;
    Stem* stem_;
    JobStrip* strip_;
    TellTale* tellTale_;
    Holder* holder_;
    QStackedWidget *pages_, *cards_;
    QWidget* side_;
    BlankLeaf* blank_;
    PatternLeaf* pattern_;
    MasksLeaf* masks_;
    CutLeaf* cut_;
    BenchStore* bench_;
    LibraryStore* library_;
    SprayLeaf* spray_;
    std::vector<std::pair<int, Leaf*>> leaves_;
    Writer writer_;  ///< of cards and drawings
    Exports exports_;
    QString exportFolder_;
    bool holderLarge_ = false;
};

/// The one verdict of the job.
Verdict verdictOfJob(const JobDocument& document, const Results& results, const SprayDesk& spray);

}  // namespace nine::app
