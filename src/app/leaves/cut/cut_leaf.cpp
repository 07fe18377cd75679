#include "app/leaves/cut/cut_leaf.h"

#include "app/leaves/cut/cut_page.h"
#include "app/sheet/names.h"
#include "app/sheet/units_text.h"
#include "app/theme/theme.h"
#include "cut/estimate.h"

namespace nine::app {

CutLeaf::CutLeaf(LeafContext context, QObject* parent)
    : Leaf(context, parent), page_(new CutPage(context)), card_(new CardHolder) {
    connect(&context_.results, &Results::masksChanged, this, &CutLeaf::rebuildCard);
    connect(&context_.view, &ViewState::changed, this, &CutLeaf::rebuildCard);
}

QWidget* CutLeaf::page() {
    return page_;
}

void CutLeaf::exportTo(const QString& folder, PageFormats formats, std::function<void(Status)> done,
                       const std::string& stem, const std::vector<std::string>& obsolete) {
    const MasksResult& masks = context_.results.masks();
    if (!masks.pages) {
        return done(Error{"nothing_to_cut",
                          Words::verbatim(tr("There are no pieces to write yet.").toStdString()), "masks"});
    }
    exporter_.write(
        [folder = folder.toStdString(), formats, job = masks.job, all = masks.masks, pages = *masks.pages,
         stem, obsolete]() -> Status {
            return writeFilesAtomically(folder, pageFiles(drawPages(job, all, pages), formats, stem),
                                        obsolete);
        },
        std::move(done));
}

void CutLeaf::useSheet(SheetSize sheet) {
    context_.document.beginGesture();
    CutChapter cut = job().get<CutChapter>();
    cut.sheet = sheet;
    cut.places.clear();  // they belong to the sheet they were made on
    context_.document.edit(job().with(std::move(cut)), tr("Change the sheet size"));
}

void CutLeaf::useTool(const std::string& id) {
    context_.document.beginGesture();
    CutChapter cut = job().get<CutChapter>();
    cut.tool = id;
    context_.document.edit(job().with(std::move(cut)), tr("Change the tool"));
}

void CutLeaf::rebuildCard() {
    // In one piece: a card, from top to foot.
    if (putOff()) return;
    auto* card = new Card;
    card->title(tr("To cut"), false);
    const auto& pages = context_.results.masks().pages;
    if (!pages) {
        card->words(tr("Nothing to cut yet."));
        card->finish();
        return card_->show(card);
    }
    const CutTool& tool = toolOf(job().get<CutChapter>());
    const CutEstimate& e = context_.results.masks().toCut;
    const bool known = e.contours > 0;
    const QString yet = tr("being worked out");
    double used = 0;
    for (std::size_t i = 0; i < pages->pages; ++i)
        used += pages->utilisation(i) / static_cast<double>(pages->pages);
    card->facts({{tr("Pieces"), QString::number(pages->pieces.size())},
                 {tr("Sheets"), tr("%1, %2 % used").arg(pages->pages).arg(100 * used, 0, 'f', 0)},
                 {tr("To cut"), known ? tr("%1 m").arg(e.length_mm / 1000, 0, 'f', 2) : yet},
                 {tr("By %1").arg(said(tool.name)),
                  known ? tr("about %1 min").arg(e.time_s(tool) / 60, 0, 'f', 0) : yet},
                 {tr("Narrowest feature"), known ? lengthText(e.smallestFeature_mm, 2) : yet}});
    if (e.smallestFeature_mm > 0 && e.smallestFeature_mm < tool.smallest_mm)
        card->framed(tr("That is finer than a %1 manages, about %2. Widen it, or cut it with a finer tool.")
                         .arg(said(tool.name), lengthText(tool.smallest_mm, 1)),
                     false);
    card->muted(tr("Cut with"));
    QList<Card::Choice> tools;
    for (const CutTool& other : cutTools())
        tools.append(
            {said(other.name), other.id == tool.id, [this, id = other.id] { useTool(std::string(id)); }});
    card->choices(tools);
    card->muted(tr("Sheet"));
    QList<Card::Choice> sizes;
    const SheetSize& now = job().get<CutChapter>().sheet;
    for (const auto& [name, size] :
         {std::pair{tr("A4"), SheetSize{210, 297}}, {tr("Letter"), SheetSize{215.9, 279.4}}}) {
        sizes.append({name, now.width_mm == size.width_mm && now.height_mm == size.height_mm,
                      [this, size = size] { useSheet(size); }});
    }
    card->choices(sizes);
    auto* width = card->chip(tr("Sheet width"), ValueChip::Kind::Length, 0, 10, {});
    auto* height = card->chip(tr("Sheet height"), ValueChip::Kind::Length, 0, 10, {});
    width->setValue(now.width_mm);
    height->setValue(now.height_mm);
    for (ValueChip* chip : {width, height}) {
        connect(chip, &ValueChip::committed, this, [this, chip, wide = chip == width](double v) {
            SheetSize size = job().get<CutChapter>().sheet;
            (wide ? size.width_mm : size.height_mm) = v;
            const Status ok = checkSheet(size, "sheet");
            chip->setWrong(ok ? QString() : said(ok.error()));
            if (ok) useSheet(size);
        });
    }
    card->sentence(tr("or %1 wide and %2 high, in %3.").arg("%1", "%2", lengthUnit()), {width, height});
    card->muted(tr("True to size, for the machine or to cut by hand"));
    card->choices({{tr("Export SVG"), true,
                    [this] {
                        exportWithDialog({true, false, false});
                    }},
                   {tr("Export DXF"), false,
                    [this] {
                        exportWithDialog({false, false, true});
                    }},
                   {tr("Export PDF"), false,
                    [this] {
                        exportWithDialog({false, true, false});
                    }},
                   {tr("Print ..."), false, [this] { print(); }}});
    card->words(tr("Print at 100 % and measure the 100 mm line and the 50 mm square before you cut."));
    card->caution(
        tr("Blade: cut away from the holding hand, cap the knife. Vinyl or PVC is never cut hot or with a "
           "laser."));
    card->finish();
    card_->show(card);
}

LeafEntry CutLeaf::entry() const {
    LeafEntry e;
    const MasksResult& masks = context_.results.masks();
    if (masks.pages) e.state = LeafState::Ready;
    if (masks.pagesError && !masks.masks.empty()) {
        e.state = LeafState::Repair;
        e.flags = 1;
        e.fault = true;
    }
    return e;
}

}  // namespace nine::app
