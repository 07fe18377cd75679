// What leaves the window: pages of lines, into files or onto paper.
#include <QFileDialog>
#include <QMessageBox>
#include <QPainter>
#include <QPrintDialog>
#include <QPrinter>
#include <QPushButton>

#include "app/frame/main_window.h"
#include "app/sheet/names.h"
#include "app/sheet/paper.h"
#include "app/sheet/units_text.h"
#include "base/files.h"

namespace nine::app {

bool MainWindow::ask(const QString& question, const QString& more, const QString& yes) {
    QMessageBox box(QMessageBox::Question, tr("Nine Leaves"), question, QMessageBox::NoButton, this);
    box.setInformativeText(more);
    QPushButton* go = box.addButton(yes, QMessageBox::AcceptRole);
    box.setDefaultButton(box.addButton(tr("Cancel"), QMessageBox::RejectRole));
    box.exec();
    return box.clickedButton() == go;
}

void MainWindow::printPages(const std::vector<Drawing>& drawings) {
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
    if (print) return printPages({drawing});
    QString path = QFileDialog::getSaveFileName(this, name, name + ".pdf", tr("PDF (*.pdf)"));
    if (path.isEmpty()) return;
    if (!path.endsWith(".pdf")) path += ".pdf";
    writer_.write([drawing, path] { return writeFileAtomically(path.toStdString(), pdfText({drawing})); },
                  [this](const Status& written) {
                      if (!written) complain(written.error());
                  });
}

}  // namespace nine::app
