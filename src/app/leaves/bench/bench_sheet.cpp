#include "app/leaves/bench/bench_sheet.h"

#include <QBuffer>
#include <QDateTime>
#include <QFileDialog>
#include <QLocale>
#include <QPdfWriter>
#include <QPrintDialog>
#include <QPrinter>
#include <QTextDocument>

#include "app/leaves/bench/bench_leaf.h"
#include "app/leaves/bench/bench_words.h"
#include "app/sheet/names.h"
#include "app/theme/theme.h"
#include "base/files.h"
#include "paint/colour_words.h"

namespace nine::app {
namespace {

QString escaped(const QString& words) {
    return words.toHtmlEscaped();
}

/// "looks dark olive over pale yellow".
QString swatchInWords(const StepOnBench& on) {
    const auto words = [](const std::string& hex) {
        const auto colour = parseColour(hex);
        return colour ? said(colourWords(labOf(xyzOf(linearOf(*colour))))) : QString();
    };
    if (on.colour.empty()) return {};
    return BenchLeaf::tr("looks %1 over %2").arg(words(on.colour), words(on.ground));
}

}  // namespace

QString benchSheetHtml(const BenchStudy& study) {
    // In one piece: one step after the other.
    if (study.jobs.empty() || study.wish.work.trays.empty()) return {};
    const JobOnBench& job = study.jobs.front();
    QString html = QString("<h2>%1</h2>").arg(escaped(QString::fromStdString(job.name)));
    int lures = 0;
    for (const BenchTray& tray : study.wish.work.trays) lures += tray.lures;
    html +=
        "<p>" +
        escaped(lures == 1 ? BenchLeaf::tr("One lure. Painted by %1, fished from %2.")
                                 .arg(dayAndClock(study.start + study.plan.schedule.hands_s, study.start),
                                      dayAndClock(study.start + study.plan.schedule.ready_s, study.start))
                           : BenchLeaf::tr("%1 lures in trays of %2. Painted by %3, fished from %4.")
                                 .arg(lures)
                                 .arg(study.wish.work.trays.front().lures)
                                 .arg(dayAndClock(study.start + study.plan.schedule.hands_s, study.start),
                                      dayAndClock(study.start + study.plan.schedule.ready_s, study.start))) +
        "</p>";
    html += "<p><b>" +
            escaped(BenchLeaf::tr("Mist, metallic and neon pigments: extraction and the respirator each "
                                  "product's data sheet names, at every spray step. "
                                  "Data sheets, local rules and licensed practice go before this sheet.")) +
            "</b></p>";
    std::optional<GunSetting> before;
    int number = 0;
    std::set<std::string> printed;
    for (const BenchTask& task : study.wish.work.trays.front().tasks) {
        // A wave of the same step on other bodies is the same line.
        std::string key;
        for (const std::string& step : task.steps) key += step + ";";
        if (!printed.insert(key + std::to_string(task.coat)).second) continue;
        html += QString("<p style='margin-bottom:2px'><b>%1. %2</b>")
                    .arg(++number)
                    .arg(escaped(taskTitle(job, task)));
        const QString how = settingText(job, task);
        if (!how.isEmpty()) html += "<br>" + escaped(how);
        if (const StepOnBench* on = mainOnBench(job, task)) {
            const QString swatch = swatchInWords(*on);
            if (!swatch.isEmpty()) html += "<br><i>" + escaped(swatch) + "</i>";
        }
        if (task.free_s > 0)
            html += "<br>" + escaped(BenchLeaf::tr("then %1 of rest").arg(spanText(task.free_s)));
        html += "</p>";
        const auto gates = gatesOf(job, task, before, false, true);
        if (!gates.empty()) {
            html += "<table cellpadding='1'>";
            for (const Gate& gate : gates)
                html += QString("<tr><td>&#9744;</td><td>%1</td></tr>").arg(escaped(said(gate.says)));
            html += "</table>";
        }
        for (const std::string& id : task.steps)
            if (const std::size_t s = job.place(id); s < job.steps.size() && job.steps[s].set)
                before = job.steps[s].set;
    }
    html +=
        "<p>" +
        escaped(BenchLeaf::tr("Stencils are printed true to size by the Cut leaf, under the names above.")) +
        "</p>";
    return html;
}

void drawBenchSheet(QPagedPaintDevice& device, const QString& html) {
    QTextDocument document;
    document.setDefaultFont(inter(11));
    QFont font = inter(11);
    font.setPointSizeF(9.5);
    document.setDefaultFont(font);
    document.setHtml("<body style='color:#000000'>" + html + "</body>");
    document.print(&device);
}

Status writeBenchSheet(const QString& html, const QString& path, QPageSize::PageSizeId paper) {
    QBuffer buffer;
    buffer.open(QIODevice::WriteOnly);
    {
        QPdfWriter pdf(&buffer);
        pdf.setPageSize(QPageSize(paper));
        pdf.setPageMargins(QMarginsF(14, 14, 14, 14), QPageLayout::Millimeter);
        pdf.setTitle(BenchLeaf::tr("Steps for the bench"));
        drawBenchSheet(pdf, html);
    }
    return writeFileAtomically(path.toStdString(), buffer.data().toStdString());
}

void BenchLeaf::putOutSheet(bool print) {
    if (!desk_.study().planned)
        return context_.frame.complain(
            {"no_steps", Words::verbatim(tr("There are no steps to print yet.").toStdString()), ""});
    const QString html = benchSheetHtml(desk_.study());
    // Where inches are used, paper is Letter.
    const bool letter = QLocale().measurementSystem() == QLocale::ImperialUSSystem;
    if (!print) {
        QString path = QFileDialog::getSaveFileName(
            context_.frame.dialogParent(), tr("Steps for the bench"),
            QString::fromStdString(desk_.study().jobs.front().name) + "-bench.pdf", tr("PDF (*.pdf)"));
        if (path.isEmpty()) return;
        if (!path.endsWith(".pdf")) path += ".pdf";
        writer_.write(
            [html, path, letter] {
                return writeBenchSheet(html, path, letter ? QPageSize::Letter : QPageSize::A4);
            },
            [this](const Status& written) {
                if (!written) context_.frame.complain(written.error());
            });
        return;
    }
    QPrinter printer(QPrinter::HighResolution);
    QPrintDialog dialog(&printer, context_.frame.dialogParent());
    if (dialog.exec() == QDialog::Accepted) drawBenchSheet(printer, html);
}

}  // namespace nine::app
