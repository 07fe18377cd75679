// What leaves the Spray leaf: cards for the bench.
#include <QFileDialog>
#include <QPrintDialog>
#include <QPrinter>

#include "app/leaves/spray/my_bench.h"
#include "app/leaves/spray/spray_leaf.h"

namespace nine::app {

std::vector<SprayCard> SprayLeaf::allCards() const {
    std::vector<SprayCard> cards;
    for (const MaskResult& mask : context_.results.masks().masks) {
        SprayStudy study = desk_.studyOf(mask.spec->id);
        if (!study.ready() || study.error) continue;
        SprayCard card{QString::fromStdString(job().get<BlankChapter>().name),
                       QString::fromStdString(job().get<PatternChapter>().name),
                       std::move(study),
                       context_.results.body().skin->length_mm(),
                       (*mask.mask)->moved_mm,
                       Qt::black};
        const auto& elements = job().get<PatternChapter>().elements;
        for (std::size_t e = 0; e < elements.size(); ++e) {
            const auto& ids = card.study.spec->wish.elements;
            if (std::find(ids.begin(), ids.end(), elements[e]->id) == ids.end()) continue;
            card.paint = QColor::fromRgb(colourOf(*elements[e], e));
        }
        cards.push_back(std::move(card));
    }
    return cards;
}

void SprayLeaf::putOutCards(bool print) {
    const std::vector<SprayCard> cards = allCards();
    if (cards.empty())
        return context_.frame.complain(
            {"nothing_to_spray",
             Words::verbatim(tr("There is no mask with a plan to write a card for yet.").toStdString()), ""});
    if (!print) {
        QString path = QFileDialog::getSaveFileName(
            context_.frame.dialogParent(), tr("Cards for the bench"),
            QString::fromStdString(job().get<BlankChapter>().name) + "-cards.pdf", tr("PDF (*.pdf)"));
        if (path.isEmpty()) return;
        if (!path.endsWith(".pdf")) path += ".pdf";
        writer_.write([cards, path] { return writeSprayCards(cards, path); },
                      [this](const Status& written) {
                          if (!written) context_.frame.complain(written.error());
                      });
        return;
    }
    QPrinter printer(QPrinter::HighResolution);
    printer.setFullPage(true);
    printer.setPageSize(QPageSize(kSprayCard_mm, QPageSize::Millimeter));
    QPrintDialog dialog(&printer, context_.frame.dialogParent());
    if (dialog.exec() != QDialog::Accepted) return;
    QPainter p(&printer);
    for (std::size_t i = 0; i < cards.size(); ++i) {
        if (i > 0) printer.newPage();
        drawSprayCard(p, cards[i], printer.resolution() / 25.4);
    }
}

void SprayLeaf::showBench() {
    MyBench dialog(context_.bench, context_.frame.dialogParent());
    dialog.exec();
}

std::vector<MenuEntry> SprayLeaf::menu() {
    return {{tr("Cards for the bench ..."), {}, [this] { putOutCards(false); }},
            {tr("My bench ..."), {}, [this] { showBench(); }}};
}

}  // namespace nine::app
