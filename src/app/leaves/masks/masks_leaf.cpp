#include "app/leaves/masks/masks_leaf.h"

#include <algorithm>

#include "app/document/selection.h"
#include "app/leaves/leaves.h"
#include "app/leaves/masks/masks_page.h"
#include "app/sheet/names.h"
#include "app/sheet/param_sentence.h"
#include "app/sheet/units_text.h"
#include "app/theme/theme.h"

namespace nine::app {

int worstMask(const MasksResult& masks) {
    int worst = -1;
    double lift = -1;
    for (int i = 0; i < static_cast<int>(masks.masks.size()); ++i) {
        const auto& mask = masks.masks[static_cast<std::size_t>(i)].mask;
        if (!mask || (*mask)->report().liesFlat || (*mask)->report().lift_mm <= lift) continue;
        worst = i;
        lift = (*mask)->report().lift_mm;
    }
    return worst;
}

int stiffestSheetFor(double strain) {
    const auto& all = sheetMaterials();
    for (std::size_t i = 0; i < all.size(); ++i) {
        if (all[i].strainLimit >= strain) return static_cast<int>(i);
    }
    return -1;
}

MasksLeaf::MasksLeaf(LeafContext context, QObject* parent)
    : Leaf(context, parent), page_(new MasksPage(context)), card_(new CardHolder) {
    connect(page_, &MasksPage::materialWanted, this, &MasksLeaf::useMaterial);
    connect(&context_.results, &Results::masksChanged, this, &MasksLeaf::rebuildCard);
    connect(&context_.view, &ViewState::changed, this, &MasksLeaf::rebuildCard);
}

QWidget* MasksLeaf::page() {
    return page_;
}

Status MasksLeaf::changeSpec(const std::string& mask, const QString& label,
                             const std::function<void(MaskSpec&)>& edit) {
    // The twin of the other side follows: masks are wanted the same on both sides.
    std::vector<MaskSpecPtr> specs = maskSpecs(job());
    const int index = indexOfMask(job(), mask);
    if (index < 0) return Done{};
    const std::vector<std::string> elements = specs[static_cast<std::size_t>(index)]->wish.elements;
    for (MaskSpecPtr& spec : specs) {
        if (spec->wish.elements != elements) continue;
        MaskSpec changed = *spec;
        edit(changed);
        spec = std::make_shared<const MaskSpec>(std::move(changed));
    }
    const Job next = withMasks(job(), std::move(specs));
    if (Status ok = checkJob(next); !ok) return ok;
    context_.document.beginGesture();
    context_.document.edit(next, label);
    return Done{};
}

void MasksLeaf::useMaterial(int index) {
    (void)changeSpec(context_.view.mask(), tr("Change the sheet"), [&](MaskSpec& spec) {
        spec.wish.material = std::string(sheetMaterials()[static_cast<std::size_t>(index)].id);
    });
}

bool MasksLeaf::repairWorst() {
    const MasksResult& all = context_.results.masks();
    const int worst = worstMask(all);
    if (worst < 0) return false;
    context_.view.setMask(all.masks[static_cast<std::size_t>(worst)].spec->id);
    const int sheet =
        stiffestSheetFor((*all.masks[static_cast<std::size_t>(worst)].mask)->report().strainFeasibleMax);
    if (sheet >= 0) useMaterial(sheet);
    return sheet >= 0;
}

ValueChip* MasksLeaf::paramChip(Card& card, const Param& param, const MaskSpec& spec) {
    const QString name = said(param.name);
    const double unit = shownUnits(param);
    ValueChip* chip = card.chip(name, chipKind(param), param.decimals, 0.5, {});
    chip->setValue(unit * spec.wish.values.number(param.key));
    connect(chip, &ValueChip::committed, this,
            [this, chip, name, unit, key = std::string(param.key), id = spec.id](double v) {
                const Status ok = changeSpec(id, tr("Change %1").arg(name.toLower()), [&](MaskSpec& s) {
                    if (s.wish.values.find(key)) s.wish.values.set(key, v / unit);
                });
                chip->setWrong(ok ? QString() : said(ok.error()));
            });
    return chip;
}

void MasksLeaf::rebuildCard() {
    // In one piece: a card, from top to foot.
    if (putOff()) return;
    auto* card = new Card;
    const auto& masks = context_.results.masks().masks;
    const int found = indexIn(context_.results.masks(), context_.view.mask());
    const auto index = static_cast<std::size_t>(std::max(0, found));
    if (found < 0) {
        const bool coming = context_.results.masksRunning() && indexOfMask(job(), context_.view.mask()) >= 0;
        card->words(coming ? tr("This mask is being fitted; it is drawn as it would be cut now.")
                    : maskSpecs(job()).empty()
                        ? tr("No masks yet: add a mark on the Pattern leaf and it gets one for each side.")
                        : tr("No mask is selected. Page Down selects the next one."));
        card->finish();
        return card_->show(card);
    }
    const MaskSpec& spec = *masks[index].spec;
    card->title(QString("%1 %2").arg(QString::fromStdString(spec.shownName()), QChar(sideLetter(spec.side))));
    if (const MaskKind* kind = findMaskKind(spec.wish.kind))
        for (const Pattern& sentence : kind->sentences())
            paramSentence(*card, sentence, kind->params(),
                          [&](const Param& p) { return paramChip(*card, p, spec); });
    card->words(tr("It goes on"));
    QList<Card::Choice> ways;
    for (const auto& [apply, text] : {std::pair{Apply::Loose, tr("held loose at its marks")},
                                      {Apply::Lateral, tr("smoothed from the middle line")},
                                      {Apply::Back, tr("smoothed down from the back")}}) {
        ways.append({text, spec.wish.apply == apply, [this, apply = apply, id = spec.id] {
                         (void)changeSpec(id, tr("Change how it is laid on"),
                                          [&](MaskSpec& s) { s.wish.apply = apply; });
                     }});
    }
    card->radio(ways);
    if (masks[index].mask) {
        const Mask& mask = **masks[index].mask;
        card->framed((mask.report().liesFlat ? QString() : QString::fromUtf8("⚑ 1  ")) +
                         said(verdictOf(spec, mask.report())),
                     !mask.report().liesFlat)
            ->setAccessibleName(tr("Verdict"));
        if (!mask.report().liesFlat) {
            card->words(tr("Where it stands off, paint creeps under the edge and the line goes soft."));
            const int sheet = stiffestSheetFor(mask.report().strainFeasibleMax);
            if (sheet >= 0) {
                const auto id = sheetMaterials()[static_cast<std::size_t>(sheet)].id;
                card->button(tr("Take %1").arg(materialName(id).toLower()), Card::Look::Primary,
                             [this, sheet] { useMaterial(sheet); });
            }
        }
        for (std::size_t k = 0; k < mask.sheets.size(); ++k)
            for (const RegistrationMark& mark : mask.sheets[k].marks)
                card->muted(k == 0 ? tr("Mark %1").arg(said(markSentence(mark)))
                                   : tr("Sheet %1, mark %2").arg(k + 1).arg(said(markSentence(mark))));
        for (const Warning& w : masks[index].warnings) card->caution(said(w));
    } else {
        card->framed(said(masks[index].mask.error()), true);
    }
    card->muted(tr("Masks of this pattern"));
    QList<Card::Choice> all;
    for (std::size_t i = 0; i < masks.size(); ++i) {
        const MaskSpec& other = *masks[i].spec;
        const bool fault = !masks[i].mask || !(*masks[i].mask)->report().liesFlat;
        const QString name =
            QString("%1 %2").arg(QString::fromStdString(other.shownName()), QChar(sideLetter(other.side)));
        all.append({name + (fault ? QString::fromUtf8("  ⚑") : QString()), i == index,
                    [this, id = other.id] { context_.view.setMask(id); }});
    }
    card->choices(all);
    card->finish();
    card_->show(card);
}

std::vector<Flag> MasksLeaf::flags() {
    const MasksResult& all = context_.results.masks();
    const auto& masks = all.masks;
    std::vector<Flag> flags;
    if (context_.document.empty() || masks.size() < maskSpecs(job()).size()) return flags;
    const auto flat = std::count_if(masks.begin(), masks.end(), [](const MaskResult& m) {
        return m.mask && (*m.mask)->report().liesFlat;
    });
    const int worst = worstMask(all);
    for (int i = 0; i < static_cast<int>(masks.size()); ++i) {
        const MaskResult& m = masks[static_cast<std::size_t>(i)];
        if (m.mask && (*m.mask)->report().liesFlat) continue;
        Flag flag{"mask " + m.spec->id, {}, true, [this, id = m.spec->id] { context_.view.setMask(id); }};
        if (!m.mask) {
            flag.words = said(m.mask.error());
            flags.insert(flags.begin(), std::move(flag));
            continue;
        }
        flag.words =
            tr("%1 of %2 masks lie flat; %3 stands off %4: take a softer sheet or split it.")
                .arg(QString::number(flat), QString::number(masks.size()),
                     QString::fromStdString(m.spec->shownName()) + ' ' + QChar(sideLetter(m.spec->side)),
                     lengthText((*m.mask)->report().lift_mm));
        flag.repairName = tr("softer sheet");
        flag.repair = [this] {
            if (!repairWorst()) context_.frame.showLeaf(MasksNumber);
        };
        // Errors before it, the others behind the worst.
        const auto errors =
            std::find_if(flags.begin(), flags.end(), [](const Flag& f) { return !f.repairName.isEmpty(); });
        flags.insert(i == worst ? errors : flags.end(), std::move(flag));
    }
    return flags;
}

Standing MasksLeaf::standing() const {
    const auto& masks = context_.results.masks().masks;
    if (context_.document.empty() || job().get<PatternChapter>().elements.empty()) return {};
    if (masks.size() < maskSpecs(job()).size())
        return {context_.results.masksRunning() ? tr("Fitting the masks ...")
                                                : tr("The masks are not fitted yet.")};
    double landing = 0;
    QString figures;
    for (const MaskResult& m : masks) {
        if (!m.mask) continue;
        const FitReport& r = (*m.mask)->report();
        landing = std::max(landing, r.landing.max_mm);
        figures += QString("%1 %2: %3, %4; ")
                       .arg(QString::fromStdString(m.spec->shownName()), QChar(sideLetter(m.spec->side)),
                            percentText(r.strainFeasibleMax), lengthText(r.landing.max_mm, 2));
    }
    return {tr("All %1 masks lie flat, and every mark lands within %2 of where it was drawn.")
                .arg(QString::number(masks.size()), lengthText(std::max(landing, 0.01), 2)),
            true, figures};
}

LeafEntry MasksLeaf::entry() const {
    LeafEntry e;
    e.built = true;
    const auto& masks = context_.results.masks().masks;
    if (masks.empty()) return e;
    e.state = LeafState::Ready;
    for (const MaskResult& m : masks) {
        if (m.mask && (*m.mask)->report().liesFlat) continue;
        ++e.flags;
        e.fault = true;
        e.state = LeafState::Repair;
    }
    return e;
}

}  // namespace nine::app
