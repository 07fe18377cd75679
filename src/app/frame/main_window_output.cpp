// What leaves the window: readings, pages, cards and tables, into files or onto paper.
#include <QDesktopServices>
#include <QDir>
#include <QFileDialog>
#include <QMessageBox>
#include <QPainter>
#include <QPrintDialog>
#include <QPrinter>
#include <QPushButton>
#include <QUrl>

#include "app/frame/folder_dialog.h"
#include "app/frame/main_window.h"
#include "app/sheet/names.h"
#include "app/sheet/paper.h"
#include "app/sheet/units_text.h"
#include "base/files.h"

namespace nine::app {

void MainWindow::saveReadings() {
    if (document_.empty()) return;
    const BlankChapter& blank = *document_.job().blank;
    QString path = QFileDialog::getSaveFileName(this, tr("Save the readings"),
                                                QString::fromStdString(blank.name) + ".csv",
                                                tr("Station tables (*.csv)"));
    if (path.isEmpty()) return;
    if (!path.endsWith(".csv")) path += ".csv";
    const Status saved = writeFileAtomically(path.toStdString(), stationTableText(blank.table, blank.name));
    if (!saved) complain(saved.error());
}

bool MainWindow::ask(const QString& question, const QString& more, const QString& yes) {
    QMessageBox box(QMessageBox::Question, tr("Nine Leaves"), question, QMessageBox::NoButton, this);
    box.setInformativeText(more);
    QPushButton* go = box.addButton(yes, QMessageBox::AcceptRole);
    box.setDefaultButton(box.addButton(tr("Cancel"), QMessageBox::RejectRole));
    box.exec();
    return box.clickedButton() == go;
}

bool MainWindow::mayTakePages() {
    const MasksResult& masks = results_->masks();
    if (!masks.whole && !maskSpecs(document_.job()).empty()) {
        complain({"masks_coming",
                  Words::verbatim(
                      (results_->masksRunning()
                           ? tr("The masks are still being fitted to your last change. Take the pages when "
                                "the line "
                                "at the foot of the window says that they are checked.")
                           : tr("The masks are not fitted to your last change: fitting was stopped. Change "
                                "something, or undo and redo, and let it run to its end."))
                          .toStdString()),
                  ""});
        return false;
    }
    if (!masks.pages) {
        complain(
            {"nothing_to_cut", Words::verbatim(tr("There are no pieces to cut yet.").toStdString()), ""});
        return false;
    }
    return mayCutFlagged();
}

bool MainWindow::mayCutFlagged() {
    QStringList flagged;
    for (const MaskResult& m : results_->masks().masks) {
        const bool island = m.mask && std::any_of((*m.mask)->windows.begin(), (*m.mask)->windows.end(),
                                                  [](const Window& w) { return !w.islands.empty(); });
        if (m.mask && (*m.mask)->report.liesFlat && !island) continue;
        flagged << QString("%1 %2: %3")
                       .arg(QString::fromStdString(m.spec->shownName()), QChar(sideLetter(m.spec->side)),
                            !m.mask  ? said(m.mask.error())
                            : island ? tr("a piece inside a window falls out")
                                     : tr("cannot lie flat, stands off by up to %1")
                                           .arg(lengthText((*m.mask)->report.lift_mm)));
    }
    constexpr qsizetype kMostLines = 6;
    if (flagged.isEmpty()) return true;
    if (flagged.size() > kMostLines)
        flagged = flagged.mid(0, kMostLines) << tr("and %1 more").arg(flagged.size() - kMostLines);
    return ask(tr("Some masks are flagged: what is cut from them will not give clean edges."),
               flagged.join('\n'), tr("Export all the same"));
}

std::string MainWindow::exportStem() const {
    QString words = QFileInfo(document_.path()).fileName();
    for (const char* ending : {".json", ".nineleaves"})
        if (words.endsWith(ending)) words.chop(static_cast<int>(qstrlen(ending)));
    if (words.isEmpty())
        words = QString::fromStdString(document_.job().blank->name + " " + document_.job().pattern->name);
    return fileStem(words.toStdString());
}

void MainWindow::exportWithDialog(PageFormats formats) {
    takeTyped();
    if (!mayTakePages()) return;
    FolderDialog dialog(this, tr("Folder for the pages"), exportFolder_);
    if (dialog.exec() != QDialog::Accepted) return;
    exportInto(dialog.folder(), formats);
}

void MainWindow::exportInto(const QString& folder, PageFormats formats) {
    const std::string stem = exportStem();
    const std::size_t pages = results_->masks().pages->pages;
    const std::vector<std::string> names = pageFileNames(pages, formats, stem);
    Exports::Meeting meeting = exports_.meet(folder, stem, names);
    // Sheets of an earlier, longer export of this job that nobody remembers: asked for together.
    std::vector<std::string> there;
    for (const QString& name : QDir(folder).entryList(QDir::Files)) there.push_back(name.toStdString());
    std::vector<std::string> leftovers = sheetsBeyond(there, pages, formats, stem);
    std::erase_if(leftovers, [&](const std::string& name) {
        return std::find(meeting.obsolete.begin(), meeting.obsolete.end(), name) != meeting.obsolete.end();
    });
    if (!meeting.strange.empty() || !leftovers.empty()) {
        QStringList lines;
        const auto list = [&](const QString& words, const std::vector<std::string>& files) {
            if (files.empty()) return;
            QStringList some;
            for (const std::string& name : files)
                if (some.size() < 4) some << QString::fromStdString(name);
            const int more = static_cast<int>(files.size()) - static_cast<int>(some.size());
            lines << words.arg(some.join(", ") + (more > 0 ? tr(" and %1 more").arg(more) : QString()));
        };
        list(tr("To be replaced: %1."), meeting.strange);
        list(tr("To be taken away, for the job has fewer sheets now: %1."), leftovers);
        if (!ask(tr("The folder holds files that were not written for this job a moment ago."),
                 lines.join('\n'), tr("Replace them")))
            return;
    }
    std::vector<std::string> obsolete = meeting.obsolete;
    obsolete.insert(obsolete.end(), leftovers.begin(), leftovers.end());
    exportFolder_ = folder;
    cut_->exportTo(
        folder, formats,
        [this, folder, stem, names](const Status& written) {
            if (written) {
                exports_.written(folder, stem, names);
                tellTale_->setNotice(tr("Written to %1.").arg(folder), tr("open the folder"),
                                     [folder] { QDesktopServices::openUrl(QUrl::fromLocalFile(folder)); });
            } else {
                complain(written.error());
            }
            refresh();
        },
        stem, obsolete);
    refresh();
}

void MainWindow::print() {
    const MasksResult& masks = results_->masks();
    if (!mayTakePages()) return;
    printDrawings(drawPages(masks.job, masks.masks, *masks.pages));
}

void MainWindow::printDrawings(const std::vector<Drawing>& drawings) {
    QPrinter printer(QPrinter::HighResolution);
    printer.setFullPage(true);
    const Vec2 sheet = drawings.front().size_mm;
    const bool lying = sheet.x() > sheet.y();  // a printer's paper stands; a page that lies is turned
    printer.setPageSize(QPageSize(lying ? QSizeF(sheet.y(), sheet.x()) : QSizeF(sheet.x(), sheet.y()),
                                  QPageSize::Millimeter));
    printer.setPageOrientation(lying ? QPageLayout::Landscape : QPageLayout::Portrait);
    QPrintDialog dialog(&printer, this);
    if (dialog.exec() != QDialog::Accepted) return;
    const QSizeF paper = printer.pageLayout().fullRect(QPageLayout::Millimeter).size();
    if (paper.width() + 0.5 < sheet.x() || paper.height() + 0.5 < sheet.y()) {
        return complain(
            {"paper_too_small",
             Words(NINE_WORDS("core",
                              "The printer's paper is {width} x {height}, smaller than the sheet. Choose "
                              "larger paper or another sheet size."))
                 .length("width", paper.width(), 0)
                 .length("height", paper.height(), 0),
             ""});
    }
    QPainter p(&printer);
    const double perMm = printer.resolution() / 25.4;  // 100 %: one mm on paper for one mm of the sheet
    for (std::size_t i = 0; i < drawings.size(); ++i) {
        if (i > 0) printer.newPage();
        paintDrawing(p, drawings[i], perMm);
    }
}

void MainWindow::putOut(const Drawing& drawing, const QString& name, bool print) {
    if (print) return printDrawings({drawing});
    QString path = QFileDialog::getSaveFileName(this, name, name + ".pdf", tr("PDF (*.pdf)"));
    if (path.isEmpty()) return;
    if (!path.endsWith(".pdf")) path += ".pdf";
    writer_.write([drawing, path] { return writeFileAtomically(path.toStdString(), pdfText({drawing})); },
                  [this](const Status& written) {
                      if (!written) complain(written.error());
                  });
}

std::vector<SprayCard> MainWindow::allCards() {
    std::vector<SprayCard> cards;
    const Job& job = document_.job();
    for (const MaskResult& mask : results_->masks().masks) {
        SprayStudy study = spray_->desk().studyOf(mask.spec->id);
        if (!study.ready() || study.error) continue;
        SprayCard card{QString::fromStdString(job.blank->name),
                       QString::fromStdString(job.pattern->name),
                       std::move(study),
                       results_->body().skin->length_mm(),
                       (*mask.mask)->moved_mm,
                       Qt::black};
        const auto& elements = job.pattern->elements;
        for (std::size_t e = 0; e < elements.size(); ++e) {
            const auto& ids = card.study.spec->elements;
            if (std::find(ids.begin(), ids.end(), elements[e]->id) == ids.end()) continue;
            card.paint = QColor::fromRgb(colourOf(*elements[e], e));
        }
        cards.push_back(std::move(card));
    }
    return cards;
}

void MainWindow::sprayCards(bool print) {
    const std::vector<SprayCard> cards = allCards();
    if (cards.empty())
        return complain(
            {"nothing_to_spray",
             Words::verbatim(tr("There is no mask with a plan to write a card for yet.").toStdString()), ""});
    if (!print) {
        QString path = QFileDialog::getSaveFileName(
            this, tr("Cards for the bench"),
            QString::fromStdString(document_.job().blank->name) + "-cards.pdf", tr("PDF (*.pdf)"));
        if (path.isEmpty()) return;
        if (!path.endsWith(".pdf")) path += ".pdf";
        writer_.write([cards, path] { return writeSprayCards(cards, path); },
                      [this](const Status& written) {
                          if (!written) complain(written.error());
                      });
        return;
    }
    QPrinter printer(QPrinter::HighResolution);
    printer.setFullPage(true);
    printer.setPageSize(QPageSize(kSprayCard_mm, QPageSize::Millimeter));
    QPrintDialog dialog(&printer, this);
    if (dialog.exec() != QDialog::Accepted) return;
    QPainter p(&printer);
    for (std::size_t i = 0; i < cards.size(); ++i) {
        if (i > 0) printer.newPage();
        drawSprayCard(p, cards[i], printer.resolution() / 25.4);
    }
}

}  // namespace nine::app
