// The card of the Masks leaf: what is cut out, what holds islands, where fingers press, the bill; and the
// printed sheet of a mask.
#include <QFileDialog>
#include <QPainter>
#include <QPrintDialog>
#include <QPrinter>

#include "app/document/selection.h"
#include "app/leaves/masks/masks_leaf.h"
#include "app/leaves/masks/masks_page.h"
#include "app/sheet/names.h"
#include "app/sheet/units_text.h"
#include "app/theme/theme.h"
#include "job/bill_cover.h"
#include "job/export.h"
#include "mask/press.h"

namespace nine::app {

void MasksLeaf::cutouts(Card& card, const MaskSpec& spec) {
    card.words(tr("What is cut out is"));
    QList<Card::Choice> kept;
    for (const auto& [how, text] : {std::pair{Cutouts::Dropped, tr("thrown away")},
                                    {Cutouts::Kept, tr("kept by number")},
                                    {Cutouts::OnCarrier, tr("kept on carrier film")}})
        kept.append({text, spec.cutouts == how, [this, how = how, id = spec.id] {
                         (void)changeSpec(id, tr("Change what becomes of cut-outs"), [&](MaskSpec& s) {
                             s.cutouts = how;
                             if (how == Cutouts::Dropped) s.covers = Covers::Sheet;
                         });
                     }});
    card.choices(kept);
    if (!spec.keepsCutouts()) return;
    card.words(tr("What covers while it is sprayed"));
    QList<Card::Choice> covers;
    for (const auto& [what, text] : {std::pair{Covers::Sheet, tr("the sheet")},
                                     {Covers::Cutouts, tr("its cut-outs")},
                                     {Covers::InTurn, tr("the sheet, then its cut-outs")}})
        covers.append({text, spec.covers == what, [this, what = what, id = spec.id] {
                           (void)changeSpec(id, tr("Change what covers"),
                                            [&](MaskSpec& s) { s.covers = what; });
                       }});
    card.choices(covers);
}

void MasksLeaf::bridges(Card& card, const MaskSpec& spec, const Mask& mask) {
    std::size_t held = 0, islands = 0;
    for (const Sheet& sheet : mask.sheets) {
        held += sheet.bridges.size();
        for (const Window& window : sheet.windows) islands += window.islands.size();
    }
    if (held == 0 && !(islands > 0 && spec.wish.bridges.loose)) return;
    card.words(tr("What would fall out of a window is"));
    QList<Card::Choice> ways;
    for (const auto& [loose, text] : {std::pair{false, tr("held by bridges")}, {true, tr("laid by itself")}})
        ways.append({text, spec.wish.bridges.loose == loose, [this, loose = loose, id = spec.id] {
                         (void)changeSpec(id, tr("Change how islands are held"), [&](MaskSpec& s) {
                             s.wish.bridges.loose = loose;
                             if (loose && s.cutouts == Cutouts::Dropped) s.cutouts = Cutouts::Kept;
                         });
                     }});
    card.choices(ways);
    if (spec.wish.bridges.loose) return;
    ValueChip* width = card.chip(tr("Width of a bridge"), ValueChip::Kind::Length, 1, 0.1, {});
    width->setValue(wishOf(job(), spec).bridges.width_mm);
    connect(width, &ValueChip::committed, this, [this, width, id = spec.id](double v) {
        const bool fits = v >= kNarrowestBridge_mm && v <= kWidestBridge_mm;
        width->setWrong(fits ? QString() : tr("A bridge is 0.2 to 10 mm wide."));
        if (fits)
            (void)changeSpec(id, tr("Change the width of bridges"),
                             [&](MaskSpec& s) { s.wish.bridges.width_mm = v; });
    });
    card.sentence(tr("Each is %1 wide; drag its ring on the body."), {width});
    if (spec.wish.bridges != BridgeWish{})
        card.button(tr("Put bridges where they cost least"), Card::Look::Link, [this, id = spec.id] {
            (void)changeSpec(id, tr("Put bridges back"), [](MaskSpec& s) { s.wish.bridges = {}; });
        });
}

void MasksLeaf::pressPlaces(Card& card, const MaskSpec& spec, const Mask& mask) {
    for (const Sheet& sheet : mask.sheets)
        for (const CardStep& step : sheet.steps)
            card.muted(tr("Laid for the %1. time it fits within %2.")
                           .arg(step.number)
                           .arg(lengthText(std::max(0.01, step.off_mm), 2)));
    if (!pressedInPlaces(spec, mask)) return;
    const SkinPtr& skin = context_.results.body().skin;
    if (!skin) return;
    card.muted(tr("Two fingers hold it, in this order:"));
    for (const Sheet& sheet : mask.sheets)
        for (const PressArea& area : sheet.press) card.muted(said(pressSentence(area, skin->noseX_mm())));
}

void MasksLeaf::billCover(Card& card) {
    if (!hasBill(job())) return;
    const bool now = job().get<MasksChapter>().billCover;
    card.choices({{tr("a cover for the bill is cut too"), now, [this, now] {
                       MasksChapter masks = job().get<MasksChapter>();
                       if (masks.masks.empty()) masks.masks = maskSpecs(job());
                       masks.billCover = !now;
                       context_.document.beginGesture();
                       context_.document.edit(job().with(std::move(masks)), tr("Cover the bill"));
                   }}});
}

std::vector<PointOnBody> MasksLeaf::pointedOut() const {
    const MasksResult& all = context_.results.masks();
    const int index = indexIn(all, context_.view.mask());
    const SkinPtr& skin = context_.results.body().skin;
    if (index < 0 || !skin) return {};
    const MaskResult& result = all.masks[static_cast<std::size_t>(index)];
    std::vector<PointOnBody> points;
    if (!result.mask || !pressedInPlaces(*result.spec, **result.mask)) return points;
    for (const Sheet& sheet : (*result.mask)->sheets)
        for (const PressArea& area : sheet.press)
            for (const PressArea::Finger& finger : area.fingers)
                points.push_back({skin->at({result.spec->side, finger.skin.x(), finger.skin.y()}),
                                  QString::number(area.number)});
    return points;
}

std::optional<MaskPaper> MasksLeaf::paperOfSelected() const {
    constexpr double kLetterWide_mm = 215.9;
    const MasksResult& all = context_.results.masks();
    const int index = indexIn(all, context_.view.mask());
    const SkinPtr& skin = context_.results.body().skin;
    if (index < 0 || !skin || !isCurrent(all, context_.view.mask())) return std::nullopt;
    const MaskResult& result = all.masks[static_cast<std::size_t>(index)];
    if (!result.mask || static_cast<std::size_t>(index) >= all.pieces.size()) return std::nullopt;
    return MaskPaper{
        QString::fromStdString(job().get<BlankChapter>().name),
        maskSheet(job(), *skin, *result.spec, **result.mask), piecesOf(job(), *result.spec, **result.mask),
        materialColour(result.spec->wish.material),
        job().get<CutChapter>().sheet.width_mm == kLetterWide_mm ? QPageSize::Letter : QPageSize::A4};
}

void MasksLeaf::putOutPaper(bool print) {
    const std::optional<MaskPaper> paper = paperOfSelected();
    if (!paper)
        return context_.frame.complain(
            {"no_mask",
             Words::verbatim(tr("Select a mask that has been fitted first; then its sheet can be printed.")
                                 .toStdString()),
             ""});
    if (!print) {
        QString path = QFileDialog::getSaveFileName(
            context_.frame.dialogParent(), tr("Sheet of this mask"),
            QString::fromStdString(fileStem(said(paper->words.title).toStdString())) + ".pdf",
            tr("PDF (*.pdf)"));
        if (path.isEmpty()) return;
        if (!path.endsWith(".pdf")) path += ".pdf";
        writer_.write([paper = *paper, path] { return writeMaskPaper(paper, path); },
                      [this](const Status& written) {
                          if (!written) context_.frame.complain(written.error());
                      });
        return;
    }
    QPrinter printer(QPrinter::HighResolution);
    printer.setFullPage(true);
    printer.setPageSize(QPageSize(paper->paper));
    QPrintDialog dialog(&printer, context_.frame.dialogParent());
    if (dialog.exec() != QDialog::Accepted) return;
    QPainter p(&printer);
    drawMaskPaper(printer, p, *paper, printer.resolution() / 25.4);
}

std::vector<MenuEntry> MasksLeaf::menu() {
    return {{tr("Sheet of this mask ..."), {}, [this] { putOutPaper(false); }},
            {tr("Print the sheet of this mask ..."), {}, [this] { putOutPaper(true); }}};
}

}  // namespace nine::app
