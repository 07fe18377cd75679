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
#include "app/leaves/blank/library_dialog.h"
#include "app/leaves/spray/my_bench.h"
#include "app/sheet/names.h"
#include "app/sheet/units_text.h"
#include "job/demo_job.h"

namespace nine::app {

Verdict verdictOfJob(const JobDocument& document, const Results& results, const SprayDesk& spray) {
    Verdict v;
    if (document.empty()) {
        v.sentence = QObject::tr("Start with a body: trace it, photograph it, or look at the demo.");
        return v;
    }
    const BodyResult& body = results.body();
    if (body.error) {
        return {Verdict::Kind::Fault, said(*body.error), {}, BlankNumber, {}};
    }
    if (!body.artErrors.empty()) {
        return {Verdict::Kind::Fault,
                said(body.artErrors.front()),
                body.strays.empty() ? QString() : QObject::tr("put it back"),
                PatternNumber,
                {}};
    }
    const auto& masks = results.masks().masks;
    if (document.job().pattern->elements.empty()) {
        v.sentence = QObject::tr("The body is ready; the pattern is still empty.");
        v.leaf = PatternNumber;
        return v;
    }
    if (masks.size() < maskSpecs(document.job()).size()) {
        v.sentence = results.masksRunning() ? QObject::tr("Fitting the masks ...")
                                            : QObject::tr("The masks are not fitted yet.");
        return v;
    }
    double landing = 0;
    int flat = 0;
    for (const MaskResult& m : masks) {
        if (!m.mask) return {Verdict::Kind::Fault, said(m.mask.error()), {}, MasksNumber, {}};
        const FitReport& r = (*m.mask)->report;
        landing = std::max(landing, r.landing.max_mm);
        flat += r.liesFlat ? 1 : 0;
        v.figures += QString("%1 %2: %3, %4; ")
                         .arg(QString::fromStdString(m.spec->shownName()), QChar(sideLetter(m.spec->side)),
                              percentText(r.strainFeasibleMax), lengthText(r.landing.max_mm, 2));
    }
    v.leaf = MasksNumber;
    const int worst = worstMask(results.masks());
    if (const int missed = worst < 0 ? spray.firstMissed() : -1; missed >= 0) {
        const SprayVerdict& s = spray.verdicts()[static_cast<std::size_t>(missed)];
        const QString name =
            QString::fromStdString(s.spec->shownName()) + ' ' + QChar(sideLetter(s.spec->side));
        v.leaf = SprayNumber;
        v.kind = s.planned ? Verdict::Kind::Caution : Verdict::Kind::Fault;
        v.sentence = s.planned ? QObject::tr("All masks lie flat; the edge of %1 gets %2 wide: %3.")
                                     .arg(name, lengthText(s.width_mm, 2),
                                          s.first.empty() ? QObject::tr("not what is wanted") : said(s.first))
                               : name + ": " + said(s.first);
        v.repair = QObject::tr("see Spray");
        return v;
    }
    if (worst < 0) {
        v.kind = Verdict::Kind::Fine;
        v.sentence =
            QObject::tr("All %1 masks lie flat, and every mark lands within %2 of where it was drawn.")
                .arg(QString::number(masks.size()), lengthText(std::max(landing, 0.01), 2));
        return v;
    }
    const MaskResult& off = masks[static_cast<std::size_t>(worst)];
    v.kind = Verdict::Kind::Fault;
    v.sentence =
        QObject::tr("%1 of %2 masks lie flat; %3 stands off %4: take a softer sheet or split it.")
            .arg(QString::number(flat), QString::number(masks.size()),
                 QString::fromStdString(off.spec->shownName()) + ' ' + QChar(sideLetter(off.spec->side)),
                 lengthText((*off.mask)->report.lift_mm));
    v.repair = QObject::tr("softer sheet");
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
    connect(results_, &Results::bodyChanged, holder_, [this] { holder_->setBody(results_->body()); });
    const LeafContext context{document_, *results_, view_, *bench_};
    blank_ = new BlankLeaf(context, this);
    pattern_ = new PatternLeaf(context, this);
    masks_ = new MasksLeaf(context, this);
    cut_ = new CutLeaf(context, this);
    spray_ = new SprayLeaf(context, this);
    leaves_ = {{BlankNumber, blank_},
               {PatternNumber, pattern_},
               {MasksNumber, masks_},
               {CutNumber, cut_},
               {SprayNumber, spray_}};

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

    buildActions();
    connect(stem_, &Stem::chosen, this, &MainWindow::showLeaf);
    connect(stem_, &Stem::closedChosen, this, [this](const QString& name) {
        tellTale_->setNotice(
            tr("%1 is not yet in this version of the program; the job is whole without it.").arg(name), {},
            [] {});  // no warning: it goes with the next leaf or edit
    });
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
        const Verdict& now = tellTale_->verdict();
        if (now.leaf == SprayNumber) {
            const int missed = spray_->desk().firstMissed();
            if (missed >= 0)
                view_.setMask(spray_->desk().verdicts()[static_cast<std::size_t>(missed)].spec->id);
            return showLeaf(SprayNumber);
        }
        if (now.leaf == PatternNumber) {
            (void)pattern_->putBackFirst();
            return showLeaf(PatternNumber);
        }
        if (!masks_->repairWorst()) showLeaf(MasksNumber);
    });
    connect(blank_, &BlankLeaf::openWanted, this, &MainWindow::openWithDialog);
    connect(blank_, &BlankLeaf::demoWanted, this, &MainWindow::openDemo);
    connect(blank_, &BlankLeaf::recentWanted, this, [this](const QString& file) {
        if (mayDiscard()) openPath(file);
    });
    connect(blank_, &BlankLeaf::libraryWanted, this, &MainWindow::showLibrary);
    connect(blank_, &BlankLeaf::drawingWanted, this, &MainWindow::putOut);
    connect(blank_, &BlankLeaf::failed, this, &MainWindow::complain);
    connect(cut_, &CutLeaf::exportWanted, this, &MainWindow::exportWithDialog);
    connect(cut_, &CutLeaf::printWanted, this, &MainWindow::print);
    connect(spray_, &SprayLeaf::cardsWanted, this, &MainWindow::sprayCards);
    connect(spray_, &SprayLeaf::benchWanted, this, &MainWindow::showBench);
    connect(spray_, &SprayLeaf::masksWanted, this, [this] { showLeaf(MasksNumber); });
    connect(&spray_->desk(), &SprayDesk::verdictsChanged, this, &MainWindow::refresh);
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
    QApplication::instance()->installEventFilter(this);
    applyTheme(tokens().dark);
    showLeaf(BlankNumber);
    refresh();
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
    action(tr("Save the readings ..."), {}, [this] { saveReadings(); });
    action(tr("Export the pages ..."), QKeySequence("Ctrl+E"), [this] {
        exportWithDialog({true, true, false});
    });
    action(tr("Print the pages ..."), QKeySequence::Print, [this] { print(); });
    action(tr("Cards for the bench ..."), {}, [this] { sprayCards(false); });
    action(tr("My bench ..."), {}, [this] { showBench(); });
    action(tr("My blanks ..."), QKeySequence("Ctrl+L"), [this] { showLibrary(); });
    action(tr("Print the tracing sheet ..."), {}, [this] { blank_->putOutSheet(true); });
    auto* recent = menu->addMenu(tr("Recent"));
    connect(menu, &QMenu::aboutToShow, this, [this, recent] {
        recent->clear();
        for (const QString& file : Safekeeping::recentFiles()) {
            recent->addAction(QFileInfo(file).fileName(), this, [this, file] {
                if (mayDiscard()) openPath(file);
            });
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
        leaves_[i].second->page()->setFocus();
    }
}

void MainWindow::nextFlag() {
    const auto& elements = results_->body().art;
    for (std::size_t i = 0; i < elements.size(); ++i) {
        if (elements[i]) continue;
        view_.setElement(results_->body().pattern->elements[i]->id);
        return showLeaf(PatternNumber);
    }
    const auto& masks = results_->masks().masks;
    const int count = static_cast<int>(masks.size());
    const int now = std::max(0, indexIn(results_->masks(), view_.mask()));
    for (int step = 1; step <= count; ++step) {
        const int i = (now + step) % count;
        const auto& mask = masks[static_cast<std::size_t>(i)].mask;
        if (mask && (*mask)->report.liesFlat) continue;
        view_.setMask(masks[static_cast<std::size_t>(i)].spec->id);
        return showLeaf(MasksNumber);
    }
    if (const int missed = spray_->desk().firstMissed(); missed >= 0) {
        view_.setMask(spray_->desk().verdicts()[static_cast<std::size_t>(missed)].spec->id);
        showLeaf(SprayNumber);
    }
}

void MainWindow::refresh() {
    for (const auto& [number, leaf] : leaves_) stem_->setEntry(number, leaf->entry());
    holder_->setCaption(document_.job().pattern->elements.empty() ? tr("bare blank, drag to turn")
                                                                  : tr("drag to turn"));
    tellTale_->setVerdict(verdictOfJob(document_, *results_, spray_->desk()));
    const bool running = results_->masksRunning();
    const std::size_t maskCount = maskSpecs(document_.job()).size();
    tellTale_->setRunning(document_.empty() ? QString()
                          : running         ? tr("Fitting masks, %1 of %2")
                                          .arg(std::lround(results_->progress() * double(maskCount)))
                                          .arg(maskCount)
                          : cut_->exporting() ? tr("Writing the pages")
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
    showLeaf(BlankNumber);
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
        this, tr("Save the job"), QString::fromStdString(document_.job().blank->name) + ".nineleaves.json",
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

void MainWindow::showLibrary() {
    LibraryDialog dialog(*library_, document_, this);
    dialog.exec();
}

void MainWindow::showBench() {
    MyBench dialog(*bench_, this);
    dialog.exec();
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
    const QString path = urls.first().toLocalFile(), suffix = QFileInfo(path).suffix().toLower();
    if (suffix == "jpg" || suffix == "jpeg" ||
        suffix == "png") {  // the open job stays until a body is made of it
        showLeaf(BlankNumber);
        return blank_->openPicture(path);
    }
    if (mayDiscard()) openPath(path);
}

}  // namespace nine::app
