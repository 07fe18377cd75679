// What leaves the window: readings, pages, cards and tables, into files or onto paper.
#include <QFileDialog>
#include <QPainter>
#include <QPrintDialog>
#include <QPrinter>

#include "app/frame/main_window.h"
#include "app/sheet/paper.h"
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

void MainWindow::exportWithDialog(PageFormats formats) {
    const QString folder = QFileDialog::getExistingDirectory(this, tr("Folder for the pages"));
    if (folder.isEmpty()) return;
    cut_->exportTo(folder, formats, [this](const Status& written) {
        if (!written) complain(written.error());
        refresh();
    });
    refresh();
}

void MainWindow::print() {
    const MasksResult& masks = results_->masks();
    if (!masks.pages)
        return complain({"nothing_to_cut", tr("There are no pages to print yet.").toStdString(), ""});
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
        return complain({"paper_too_small",
                         tr("The printer's paper is %1 × %2 mm, smaller than the sheet. Choose larger paper "
                            "or another sheet size.")
                             .arg(paper.width(), 0, 'f', 0)
                             .arg(paper.height(), 0, 'f', 0)
                             .toStdString(),
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
    writer_.write(
        [drawing, path] { return writeFileAtomically(path.toStdString(), pdfText({drawing})); },
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
                       0,
                       Qt::black};
        const auto& elements = job.pattern->elements;
        for (std::size_t e = 0; e < elements.size(); ++e) {
            const auto& ids = card.study.spec->elements;
            if (std::find(ids.begin(), ids.end(), elements[e]->id) == ids.end()) continue;
            card.secondPass_mm = std::max(card.secondPass_mm, pairShift_mm(*elements[e]));
            card.paint = QColor::fromRgb(colourOf(*elements[e], e));
        }
        cards.push_back(std::move(card));
    }
    return cards;
}

void MainWindow::sprayCards(bool print) {
    const std::vector<SprayCard> cards = allCards();
    if (cards.empty())
        return complain({"nothing_to_spray",
                         tr("There is no mask with a plan to write a card for yet.").toStdString(), ""});
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
