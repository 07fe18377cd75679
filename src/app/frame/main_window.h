// The window: stem, job strip, page, card, holder and tell-tale line round the open leaf.
#pragma once

#include <QMainWindow>
#include <QScrollArea>
#include <QStackedWidget>

#include "app/document/safekeeping.h"
#include "app/document/selection.h"
#include "app/frame/job_strip.h"
#include "app/frame/stem.h"
#include "app/frame/tell_tale.h"
#include "app/holder/holder.h"
#include "app/leaves/leaves.h"

namespace nine::app {

class MainWindow : public QMainWindow, public Frame {
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
    BenchStore& bench() { return *bench_; }
    LibraryStore& library() { return *library_; }

    void showLeaf(int number) override;
    int currentLeaf() const { return stem_->current(); }
    /// Shows what is wrong in a dialog when the file cannot be opened; the open job stays.
    bool openPath(const QString& path);
    void openDemo() override;
    /// Offers what a run that ended badly has left behind. Call once, after the window is shown.
    void offerRecovery();
    /// Where it was when it was closed last, or as large as the screen has room for. Call before it is shown.
    void restorePlace();
    Safekeeping& safekeeping() { return *safe_; }
    void applyTheme(bool dark);

    void newJob();
    void openWithDialog() override;
    bool save();
    bool saveAs();

    void complain(const Error& error) override;
    bool ask(const QString& question, const QString& more, const QString& yes) override;
    void tell(const QString& sentence, const QString& offer, std::function<void()> taken) override;
    void printPages(const std::vector<Drawing>& pages) override;
    void putOut(const Drawing& drawing, const QString& name, bool print) override;
    void takeTyped() override;
    void openInstead(const QString& path) override;
    void openAsNew(Job job) override;
    QWidget* dialogParent() override { return this; }

  protected:
    void closeEvent(QCloseEvent*) override;
    void dragEnterEvent(QDragEnterEvent*) override;
    void dropEvent(QDropEvent*) override;
    void resizeEvent(QResizeEvent*) override;
    /// Enter presses the button that has the focus, in the window and in its dialogs.
    bool eventFilter(QObject* on, QEvent* event) override;

  private:
    void layOut();
    void connectAll();
    void buildActions();
    /// The holder shows the body as the open leaf has it; `anew` when the body is another.
    void dressHolder(bool anew = false);
    void refresh();
    /// Selects the next thing that is wrong and shows its leaf.
    void nextFlag();
    /// The one verdict of the job.
    Verdict verdict() const;
    /// What is wrong on all leaves, from the ground up, each with its leaf.
    std::vector<std::pair<int, Flag>> allFlags() const;
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
    QStackedWidget *pages_ = nullptr, *cards_ = nullptr;
    QWidget* side_;
    BenchStore* bench_;
    LibraryStore* library_;
    std::vector<std::pair<int, Leaf*>> leaves_;
    Writer writer_;                      ///< of drawings
    std::shared_ptr<const Image> worn_;  ///< of the open leaf, on the holder
    std::string lastFlag_;               ///< shown by F
    bool holderLarge_ = false;
};

}  // namespace nine::app
