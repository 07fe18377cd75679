#include "app/frame/main_window.h"

#include <QAbstractButton>
#include <QAction>
#include <QApplication>
#include <QCloseEvent>
#include <QFileDialog>
#include <QFileInfo>
#include <QGridLayout>
#include <QKeyEvent>
#include <QMenu>
#include <QMessageBox>
#include <QMimeData>
#include <QScreen>
#include <QSettings>
#include <QUrl>
#include <QVBoxLayout>

#include "app/frame/help.h"
#include "app/sheet/names.h"
#include "app/sheet/units_text.h"
#include "job/demo_job.h"

namespace nine::app {

std::vector<std::pair<int, Flag>> MainWindow::allFlags() const {
    std::vector<std::pair<int, Flag>> all;
    for (const auto& [number, leaf] : leaves_)
        for (Flag& flag : leaf->flags()) all.emplace_back(number, std::move(flag));
    return all;
}

Verdict MainWindow::verdict() const {
    Verdict v;
    for (const auto& [number, leaf] : leaves_) {
        const Standing standing = leaf->standing();
        v.figures += standing.figures;
        if (standing.sentence.isEmpty() || !v.sentence.isEmpty()) continue;
        v.kind = standing.fine ? Verdict::Kind::Fine : Verdict::Kind::None;
        v.sentence = standing.sentence;
        v.leaf = number;
    }
    const auto flags = allFlags();
    if (flags.empty()) return v;
    const auto& [number, worst] = flags.front();
    v.kind = worst.fault ? Verdict::Kind::Fault : Verdict::Kind::Caution;
    v.sentence = worst.words;
    v.leaf = number;
    v.repair = worst.repairName;
    return v;
}

MainWindow::MainWindow(const QString& stateFolder, std::shared_ptr<Derivations> derived)
    : document_(this),
      view_(this),
      results_(new Results(document_, view_, std::move(derived), this)),
      safe_(new Safekeeping(document_, stateFolder, this)),
      bench_(new BenchStore(stateFolder, this)),
      library_(new LibraryStore(stateFolder, this)) {
    setWindowTitle("Nine Leaves");
    setAcceptDrops(true);
    holder_ = new Holder(this);  // before the leaves: its picture is the first to follow a drag
    connect(results_, &Results::bodyChanged, holder_, [this] {
        worn_.reset();
        dressHolder(true);
    });
    const LeafContext context{document_, *results_, view_, *bench_, *library_, *this};
    for (int number = 0; const LeafPlace& place : leafPlaces())
        leaves_.emplace_back(number++, place.make(context, this));

    layOut();
    buildActions();
    connectAll();
    QApplication::instance()->installEventFilter(this);
    applyTheme(tokens().dark);
    showLeaf(0);
    refresh();
}

void MainWindow::layOut() {
    auto* whole = new QWidget(this);
    auto* grid = new QGridLayout(whole);
    grid->setContentsMargins(0, 0, 0, 0);
    grid->setSpacing(0);
    stem_ = new Stem(whole);
    strip_ = new JobStrip(document_, view_, whole);
    tellTale_ = new TellTale(whole);
    pages_ = new QStackedWidget(whole);
    side_ = new QWidget(whole);
    side_->setObjectName("side");
    side_->setFixedWidth(300);
    auto* column = new QVBoxLayout(side_);
    column->setContentsMargins(0, 0, 0, 0);
    column->setSpacing(0);
    cards_ = new QStackedWidget(side_);
    column->addWidget(cards_, 1);
    column->addWidget(holder_);
    for (const auto& [number, leaf] : leaves_) {
        pages_->addWidget(leaf->page());
        auto* scroll = new QScrollArea(cards_);
        scroll->setWidget(leaf->card());
        scroll->setWidgetResizable(true);
        scroll->setHorizontalScrollBarPolicy(Qt::ScrollBarAlwaysOff);
        scroll->viewport()->setAutoFillBackground(false);
        leaf->card()->setAutoFillBackground(false);
        cards_->addWidget(scroll);
    }
    grid->addWidget(stem_, 0, 0, 2, 1);
    grid->addWidget(strip_, 0, 1, 1, 2);
    grid->addWidget(pages_, 1, 1);
    grid->addWidget(side_, 1, 2);
    grid->addWidget(tellTale_, 2, 0, 1, 3);
    grid->setColumnStretch(1, 1);
    grid->setRowStretch(1, 1);
    setCentralWidget(whole);
    setMinimumSize(900, 600);
    resize(1280, 800);
    setTabOrder(stem_, pages_);
    setTabOrder(pages_, cards_);
    setTabOrder(cards_, holder_);
}

void MainWindow::connectAll() {
    connect(stem_, &Stem::chosen, this, &MainWindow::showLeaf);
    connect(results_, &Results::bodyChanged, this, &MainWindow::refresh);
    connect(results_, &Results::masksChanged, this, &MainWindow::refresh);
    connect(results_, &Results::progressChanged, this, &MainWindow::refresh);
    connect(&document_, &JobDocument::changed, this, &MainWindow::refresh);
    connect(&document_, &JobDocument::changed, tellTale_, &TellTale::dropOffer);
    connect(&view_, &ViewState::changed, this, [this] {
        holder_->turnToSide(view_.side());
        holder_->showBoth(view_.sides() == Sides::Both);
    });
    connect(tellTale_, &TellTale::causeWanted, this, &MainWindow::showLeaf);
    connect(tellTale_, &TellTale::cancelWanted, results_, &Results::cancelMasks);
    connect(tellTale_, &TellTale::repairWanted, this, [this] {
        const auto flags = allFlags();
        if (flags.empty()) return;
        const auto& [number, flag] = flags.front();
        if (!flag.repair) return showLeaf(number);
        flag.repair();
    });
    for (const auto& [number, leaf] : leaves_) connect(leaf, &Leaf::restless, this, &MainWindow::refresh);
    connect(bench_, &BenchStore::notWritten, this, &MainWindow::complain);
    connect(library_, &LibraryStore::notAdded, this, [this](const Error& e) {
        if (!QApplication::activeModalWidget()) complain(e);  // else the dialog says it
    });
    connect(safe_, &Safekeeping::notKept, this, [this](const Error& e) {
        tellTale_->setNotice(tr("The safety copy of this job cannot be written: %1").arg(said(e)));
    });
    connect(&Troubles::instance(), &Troubles::happened, this,
            [this](const Error& e) { tellTale_->setNotice(said(e)); });
    connect(strip_, &JobStrip::unitsToggled, this, [this] {
        useInches(!inches());
        view_.refresh();
        refresh();
    });
}

MainWindow::~MainWindow() {
    takeTyped();  // what is half typed would be taken while the window falls apart
    hide();
    writer_.drain();
}

void MainWindow::takeTyped() {
    if (QWidget* typing = focusWidget()) typing->clearFocus();
}

void MainWindow::buildActions() {
    auto* menu = new QMenu(this);
    const auto action = [&](const QString& name, const QKeySequence& keys, auto slot, bool inMenu = true) {
        auto* a = new QAction(name, this);
        a->setShortcut(keys);
        connect(a, &QAction::triggered, this, slot);
        addAction(a);
        if (inMenu) menu->addAction(a);
    };
    action(tr("New job"), QKeySequence::New, [this] { newJob(); });
    action(tr("Open a job or readings ..."), QKeySequence::Open, [this] { openWithDialog(); });
    action(tr("Open the demo"), {}, [this] { openDemo(); });
    action(tr("Save"), QKeySequence::Save, [this] { save(); });
    action(tr("Save under another name ..."), QKeySequence("Ctrl+Shift+S"), [this] { saveAs(); });
    for (const auto& [number, leaf] : leaves_)
        for (const MenuEntry& entry : leaf->menu()) action(entry.words, entry.keys, entry.chosen);
    auto* recent = menu->addMenu(tr("Recent"));
    connect(menu, &QMenu::aboutToShow, this, [this, recent] {
        recent->clear();
        for (const QString& file : Safekeeping::recentFiles()) {
            recent->addAction(QFileInfo(file).fileName(), this, [this, file] { openInstead(file); });
        }
        recent->setEnabled(!recent->isEmpty());
    });
    menu->addSeparator();
    action(tr("What is this"), QKeySequence::HelpContents, [this] { showHelp(this, currentLeaf()); });
    action(tr("Light or dark"), QKeySequence("Ctrl+D"), [this] { applyTheme(!tokens().dark); });
    action(tr("Quit"), QKeySequence::Quit, [this] { close(); });
    action(
        tr("Undo"), QKeySequence::Undo, [this] { document_.history().undo(); }, false);
    action(
        tr("Redo"), QKeySequence("Ctrl+Shift+Z"), [this] { document_.history().redo(); }, false);
    for (const auto& [number, leaf] : leaves_) {
        action(
            QString(), QKeySequence(QString("Alt+%1").arg(number + 1)), [this, n = number] { showLeaf(n); },
            false);
    }
    action(
        tr("Other side"), QKeySequence("S"),
        [this] { view_.setSides(view_.sides() == Sides::Right ? Sides::Left : Sides::Right); }, false);
    action(
        tr("Both sides"), QKeySequence("B"), [this] { view_.setSides(Sides::Both); }, false);
    action(
        tr("Next flag"), QKeySequence("F"), [this] { nextFlag(); }, false);
    action(
        tr("Menu of the job"), QKeySequence("F10"), [this] { strip_->openMenu(); }, false);
    action(
        tr("Holder large or small"), QKeySequence("H"),
        [this] {
            holderLarge_ = !holderLarge_;
            resizeEvent(nullptr);
        },
        false);
    connect(holder_, &Holder::sizeToggleWanted, this, [this] {
        holderLarge_ = !holderLarge_;
        resizeEvent(nullptr);
    });
    strip_->setMenu(menu);
}

bool MainWindow::eventFilter(QObject* on, QEvent* event) {
    if (event->type() == QEvent::KeyPress) {
        const int key = static_cast<QKeyEvent*>(event)->key();
        auto* button = qobject_cast<QAbstractButton*>(on);
        if (button && button->window()->focusWidget() == button &&
            (key == Qt::Key_Return || key == Qt::Key_Enter)) {
            button->click();
            return true;
        }
    }
    return QMainWindow::eventFilter(on, event);
}

void MainWindow::resizeEvent(QResizeEvent*) {
    side_->setFixedWidth(width() < 1200 ? 264 : width() > 1700 ? 340 : 300);
    holder_->setFixedHeight(holderLarge_ ? height() / 2 : height() < 740 ? 150 : 214);
}

void MainWindow::applyTheme(bool dark) {
    useDarkTheme(dark);
    QApplication::setPalette(themePalette());  // dialogs of the toolkit too
    setStyleSheet(themeStyleSheet() + QString("#side { background: %1; border-left: 1px solid %2; }")
                                          .arg(tokens().panel.name(), tokens().line.name()));
    view_.refresh();
    for (QWidget* w : findChildren<QWidget*>()) w->update();
}

void MainWindow::showLeaf(int number) {
    tellTale_->dropOffer();
    for (std::size_t i = 0; i < leaves_.size(); ++i) {
        if (leaves_[i].first != number) continue;
        stem_->setCurrent(number);
        pages_->setCurrentIndex(static_cast<int>(i));
        cards_->setCurrentIndex(static_cast<int>(i));
        leaves_[i].second->opened();
        holder_->pointOut(leaves_[i].second->pointedOut());
        dressHolder();
        leaves_[i].second->page()->setFocus();
    }
}

void MainWindow::dressHolder(bool anew) {
    std::shared_ptr<const Image> worn;
    QString words;
    for (std::size_t i = 0; pages_ && i < leaves_.size(); ++i)
        if (pages_->currentIndex() == static_cast<int>(i)) {
            worn = leaves_[i].second->wornOnHolder();
            words = leaves_[i].second->wornWords();
        }
    holder_->setCaption(!words.isEmpty() ? words
                        : document_.job().get<PatternChapter>().elements.empty()
                            ? tr("bare blank, drag to turn")
                            : tr("drag to turn"));
    for (std::size_t i = 0; !worn && i < leaves_.size(); ++i) worn = leaves_[i].second->bodyAsPainted();
    if (!anew && worn == worn_) return;
    worn_ = worn;
    BodyResult body = results_->body();
    if (worn) body.picture = worn;
    holder_->setBody(body);
}

void MainWindow::nextFlag() {
    const auto flags = allFlags();
    if (flags.empty()) return;
    const auto last = std::find_if(flags.begin(), flags.end(),
                                   [&](const auto& flag) { return flag.second.id == lastFlag_; });
    const auto next = last == flags.end() || last + 1 == flags.end() ? flags.begin() : last + 1;
    lastFlag_ = next->second.id;
    next->second.show();
    showLeaf(next->first);
}

void MainWindow::refresh() {
    for (const auto& [number, leaf] : leaves_) stem_->setEntry(number, leaf->entry());
    for (std::size_t i = 0; i < leaves_.size(); ++i)
        if (pages_->currentIndex() == static_cast<int>(i)) holder_->pointOut(leaves_[i].second->pointedOut());
    dressHolder();
    tellTale_->setVerdict(verdict());
    QString busy;
    for (const auto& [number, leaf] : leaves_)
        if (busy.isEmpty()) busy = leaf->busyWith();
    const bool running = results_->masksRunning();
    const std::size_t maskCount = maskSpecs(document_.job()).size();
    tellTale_->setRunning(document_.empty() ? QString()
                          : running         ? tr("Fitting masks, %1 of %2")
                                          .arg(std::lround(results_->progress() * double(maskCount)))
                                          .arg(maskCount)
                          : !busy.isEmpty() ? busy
                          : !results_->masks().whole && maskCount > 0
                              ? tr("Fitting was stopped; the next change starts it again")
                              : tr("Checked by laying each mask on the body again"),
                          running ? results_->progress() : 1);
}

void MainWindow::complain(const Error& error) {
    QMessageBox box(QMessageBox::Warning, tr("Nine Leaves"), said(error), QMessageBox::Ok, this);
    if (!error.where.empty()) box.setInformativeText(QString::fromStdString(error.where));
    box.exec();
}

bool MainWindow::openPath(const QString& path) {
    if (const Status opened = document_.openFile(path); !opened) {
        complain(opened.error());
        return false;
    }
    Safekeeping::addRecent(path);
    if (!document_.doubts().empty()) {
        const std::size_t more = document_.doubts().size() - 1;
        tellTale_->setNotice(said(document_.doubts().front()) +
                             (more > 0 ? ' ' + tr("(and %1 more like this)").arg(more) : QString()));
    }
    if (!safe_->lock(document_.path())) {
        document_.open(document_.job(), {});
        complain(
            {"locked",
             NINE_WORDS("core",
                        "This job is open in another window. It was opened here as a copy: save it under "
                        "another name."),
             path.toStdString()});
    }
    return true;
}

void MainWindow::offerRecovery() {
    for (const LeftBehind& left : safe_->leftBehind()) {
        const QString saved =
            left.saved.isValid()
                ? tr("last saved %1").arg(QLocale().toString(left.saved, QLocale::ShortFormat))
                : tr("never saved");
        QMessageBox box(QMessageBox::Question, tr("Nine Leaves"),
                        tr("The program ended before this job was saved: %1")
                            .arg(left.original.isEmpty() ? tr("a new job") : left.original),
                        QMessageBox::NoButton, this);
        box.setInformativeText(tr("The copy is from %1; the job was %2.")
                                   .arg(QLocale().toString(left.copied, QLocale::ShortFormat), saved));
        auto* take = box.addButton(tr("Take the copy"), QMessageBox::AcceptRole);
        auto* drop = box.addButton(tr("Throw it away"), QMessageBox::DestructiveRole);
        box.addButton(tr("Later"), QMessageBox::RejectRole);
        box.exec();
        if (box.clickedButton() == drop) safe_->forget(left);
        if (box.clickedButton() != take) continue;
        const Result<LoadedJob> job = loadJob(left.copy.toStdString());
        if (!job) {
            complain(job.error());
            continue;
        }
        // Without a path, so that saving asks where.
        document_.open(job->job, {}, JobDocument::Kept::Unsaved);
        safe_->keepNow();
        safe_->forget(left);
        return;
    }
}

void MainWindow::newJob() {
    takeTyped();
    if (!mayDiscard()) return;
    (void)safe_->lock({});
    document_.open(Job{}, {});
    showLeaf(0);
}

void MainWindow::restorePlace() {
    const QSettings settings("nine-leaves", "nine-leaves");
    const QByteArray kept = settings.value("window").toByteArray();
    if (!kept.isEmpty() && restoreGeometry(kept)) return;
    const QRect free = screen() ? screen()->availableGeometry() : QRect();
    if (free.isValid())
        resize(size().boundedTo(free.size() - QSize(0, 30)));  // a frame's title stays in reach
    if (free.isValid()) move(free.center() - QPoint(width() / 2, height() / 2));
}

void MainWindow::openDemo() {
    if (!mayDiscard()) return;
    const Result<Job> job = demoJob();
    if (job) document_.open(*job, {});
}

void MainWindow::openWithDialog() {
    if (!mayDiscard()) return;
    const QString path =
        QFileDialog::getOpenFileName(this, tr("Open a job or readings"), {},
                                     tr("Jobs and readings (*.nineleaves.json *.csv);;All files (*)"));
    if (!path.isEmpty()) openPath(path);
}

bool MainWindow::save() {
    takeTyped();
    if (document_.path().isEmpty()) return saveAs();
    const Status saved = document_.save(document_.path());
    if (!saved) complain(saved.error());
    return static_cast<bool>(saved);
}

bool MainWindow::saveAs() {
    takeTyped();
    if (document_.empty()) return false;
    QString path = QFileDialog::getSaveFileName(
        this, tr("Save the job"),
        QString::fromStdString(document_.job().get<BlankChapter>().name) + ".nineleaves.json",
        tr("Jobs (*.nineleaves.json)"));
    if (path.isEmpty()) return false;
    if (!path.endsWith(".json")) path += ".nineleaves.json";
    if (!safe_->lock(path)) {
        complain({"locked", NINE_WORDS("core", "That job is open in another window; choose another name."),
                  path.toStdString()});
        return false;
    }
    const Status saved = document_.save(path);
    if (!saved) complain(saved.error());
    if (saved) Safekeeping::addRecent(path);
    return static_cast<bool>(saved);
}

void MainWindow::openInstead(const QString& path) {
    if (mayDiscard()) openPath(path);
}

void MainWindow::openAsNew(Job job) {
    if (mayDiscard()) document_.open(std::move(job), {}, JobDocument::Kept::Unsaved);
}

void MainWindow::tell(const QString& sentence, const QString& offer, std::function<void()> taken) {
    tellTale_->setNotice(sentence, offer, std::move(taken));
}

bool MainWindow::mayDiscard() {
    if (document_.empty() || !document_.dirty()) return true;
    QMessageBox box(QMessageBox::Question, tr("Nine Leaves"), tr("The job has changes that are not saved."),
                    QMessageBox::NoButton, this);
    auto* keep = box.addButton(tr("Save"), QMessageBox::AcceptRole);
    auto* drop = box.addButton(tr("Discard"), QMessageBox::DestructiveRole);
    box.addButton(tr("Cancel"), QMessageBox::RejectRole);
    box.exec();
    if (box.clickedButton() == keep) return save();
    return box.clickedButton() == drop;
}

void MainWindow::closeEvent(QCloseEvent* event) {
    takeTyped();
    if (mayDiscard()) {
        QSettings("nine-leaves", "nine-leaves").setValue("window", saveGeometry());
        event->accept();
    } else {
        event->ignore();
    }
}

void MainWindow::dragEnterEvent(QDragEnterEvent* event) {
    if (event->mimeData()->hasUrls()) event->acceptProposedAction();
}

void MainWindow::dropEvent(QDropEvent* event) {
    const QList<QUrl> urls = event->mimeData()->urls();
    if (urls.isEmpty()) return;
    const QString path = urls.first().toLocalFile();
    for (const auto& [number, leaf] : leaves_)
        if (leaf->takesFile(path)) return showLeaf(number);
    openInstead(path);
}

}  // namespace nine::app
