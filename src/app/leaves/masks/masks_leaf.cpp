#include "app/leaves/masks/masks_leaf.h"

#include <QIcon>
#include <QPainter>
#include <QPixmap>
#include <QPushButton>
#include <algorithm>

#include "app/document/selection.h"
#include "app/leaves/leaves.h"
#include "app/leaves/masks/masks_page.h"
#include "app/leaves/masks/slit_edits.h"
#include "app/sheet/names.h"
#include "app/sheet/param_sentence.h"
#include "app/sheet/units_text.h"
#include "app/theme/theme.h"

namespace nine::app {
namespace {

constexpr double kBendTold_mm = 0.05;

/// A mask as small as a word: its sheets with their windows, coarsely. 0.2 ms.
QIcon pictureOf(const Mask& mask, const std::string& material, double ratio) {
    constexpr std::size_t kMostWindows = 60, kMostCorners = 24;
    const Box2 box = boxSideBySide(mask);
    const std::vector<Vec2> shifts = sideBySide(mask);
    const QSizeF room(kChoicePicture.width() - 2.0, kChoicePicture.height() - 2.0);
    const Vec2 size = box.size().cwiseMax(Vec2(1e-3, 1e-3));
    const double scale = std::min(room.width() / size.x(), room.height() / size.y());
    const Vec2 middle = 0.5 * (box.low + box.high);
    QPixmap pixmap(kChoicePicture * ratio);
    pixmap.setDevicePixelRatio(ratio);
    pixmap.fill(Qt::transparent);
    QPainter p(&pixmap);
    p.setRenderHint(QPainter::Antialiasing);
    const auto coarse = [&](const Polygon2& ring, std::size_t sheet) {
        QPolygonF polygon;
        const std::size_t stride = std::max<std::size_t>(1, ring.size() / kMostCorners);
        for (std::size_t i = 0; i < ring.size(); i += stride) {
            const Vec2 at = scale * (ring[i] + shifts[sheet] - middle);
            polygon << QPointF(0.5 * kChoicePicture.width() + at.x(), 0.5 * kChoicePicture.height() - at.y());
        }
        return polygon;
    };
    for (std::size_t k = 0; k < mask.sheets.size(); ++k) {
        const Sheet& sheet = mask.sheets[k];
        p.setPen(QPen(inkOnSheet(), 0.7));
        p.setBrush(materialColour(material));
        p.drawPolygon(coarse(sheet.outline, k));
        p.setPen(Qt::NoPen);
        p.setBrush(inkOnSheet());
        for (std::size_t w = 0; w < std::min(kMostWindows, sheet.windows.size()); ++w)
            p.drawPolygon(coarse(sheet.windows[w].outline, k));
    }
    return QIcon(pixmap);
}

}  // namespace

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
    : Leaf(context, parent),
      desk_(context, this),
      page_(new MasksPage(context, desk_)),
      card_(new CardHolder) {
    connect(page_, &MasksPage::materialWanted, this, &MasksLeaf::useMaterial);
    connect(page_, &MasksPage::slitsWanted, this,
            [this](std::vector<Slit> slits) { useSlits(context_.view.mask(), std::move(slits), false); });
    connect(page_, &MasksPage::lengthWanted, this, [this](const QString& key, double value) {
        // Beyond its limits it stays as it was: the hand has gone too far.
        (void)changeSpec(
            context_.view.mask(), tr("Drag the edge of the sheet"),
            [&](MaskSpec& s) {
                if (s.wish.values.find(key.toStdString())) s.wish.values.set(key.toStdString(), value);
            },
            false);
    });
    connect(page_, &MasksPage::bridgesWanted, this, [this](const std::vector<Vec2>& at) {
        (void)changeSpec(
            context_.view.mask(), tr("Drag a bridge"), [&](MaskSpec& s) { s.wish.bridges.at = at; }, false);
    });
    connect(page_, &MasksPage::slitSelected, this, &MasksLeaf::rebuildCard);
    connect(&desk_, &SlitDesk::changed, this, [this] {
        rebuildCard();
        emit restless();
    });
    connect(&context_.results, &Results::masksChanged, this, &MasksLeaf::rebuildCard);
    connect(&context_.view, &ViewState::changed, this, &MasksLeaf::rebuildCard);
    // Values on the card follow the hand a moment later; a card takes tens of milliseconds to build.
    constexpr int kCalm_ms = 150;
    calm_.setSingleShot(true);
    calm_.setInterval(kCalm_ms);
    connect(&context_.document, &JobDocument::changed, &calm_, qOverload<>(&QTimer::start));
    connect(&calm_, &QTimer::timeout, this, &MasksLeaf::rebuildCard);
}

QWidget* MasksLeaf::page() {
    return page_;
}

Status MasksLeaf::changeSpec(const std::string& mask, const QString& label,
                             const std::function<void(MaskSpec&)>& edit, bool ownStep) {
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
    // One sheet for both sides has no twin; when it becomes one for a side, the other side gets its own
    // again.
    const bool sidesChange = std::any_of(specs.begin(), specs.end(), [&](const MaskSpecPtr& spec) {
        const int before = indexOfMask(job(), spec->id);
        return before >= 0 &&
               maskSpecs(job())[static_cast<std::size_t>(before)]->wish.kind != spec->wish.kind;
    });
    std::erase_if(specs, [](const MaskSpecPtr& spec) {
        const MaskKind* kind = findMaskKind(spec->wish.kind);
        return kind && kind->bothSides() && spec->side == Side::Right;
    });
    Job next = withMasks(job(), std::move(specs));
    if (sidesChange) next = inStep(next);
    if (Status ok = checkJob(next); !ok) return ok;
    if (ownStep) context_.document.beginGesture();
    context_.document.edit(next, label);
    return Done{};
}

void MasksLeaf::useMaterial(int index) {
    const int found = indexOfMask(job(), context_.view.mask());
    if (found < 0) return;
    const MaskSpecPtr now = maskSpecs(job())[static_cast<std::size_t>(found)];
    const std::vector<MaterialAnswer>* answers = desk_.answersFor(*now);
    std::optional<std::vector<Slit>> slits;
    if (answers) {
        // With the slits it needs, and no others but the painter's own.
        const MaterialAnswer& answer = (*answers)[static_cast<std::size_t>(index)];
        const bool slit = answer.how == MaterialAnswer::How::Slits;
        if (slit || answer.how == MaterialAnswer::How::Plain) slits = answer.plan.slits;
    }
    (void)changeSpec(context_.view.mask(), tr("Change the sheet"), [&](MaskSpec& spec) {
        spec.wish.material = std::string(sheetMaterials()[static_cast<std::size_t>(index)].id);
        if (slits) spec.wish.slits = *slits;
    });
}

void MasksLeaf::useKind(const std::string& mask, const std::string& kind) {
    (void)changeSpec(mask, tr("Change the kind of mask"), [&](MaskSpec& spec) {
        spec.wish.kind = kind;
        spec.wish.values = usualValues(findMaskKind(kind)->params());
        spec.wish.slits.clear();
    });
}

void MasksLeaf::useSlits(const std::string& mask, std::vector<Slit> slits, bool ownStep) {
    const Status ok = changeSpec(
        mask, tr("Change the slits"), [&](MaskSpec& spec) { spec.wish.slits = slits; }, ownStep);
    if (!ok) context_.frame.complain(ok.error());
}

void MasksLeaf::changeSlit(const std::string& mask, const Slit& was, const QString& label,
                           const std::function<void(Slit&)>& edit) {
    (void)changeSpec(mask, label, [&](MaskSpec& spec) {
        // The one that was meant, wherever it stands in the list now; if it is gone, nothing.
        const auto found = std::find(spec.wish.slits.begin(), spec.wish.slits.end(), was);
        if (found != spec.wish.slits.end()) edit(*found);
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

QWidget* MasksLeaf::paramChip(Card& card, const Param& param, const MaskSpec& spec) {
    const QString name = said(param.name);
    if (param.type == Param::Type::Choice) {
        QPushButton* word = choiceChip(
            param, [this, key = std::string(param.key), id = spec.id, name](const std::string& chosen) {
                (void)changeSpec(id, tr("Change %1").arg(name.toLower()), [&](MaskSpec& s) {
                    if (s.wish.values.find(key)) s.wish.values.set(key, chosen);
                });
            });
        word->setText(choiceWord(param, spec.wish.values.text(param.key)));
        return word;
    }
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

void MasksLeaf::kindAndSlits(Card& card, const MaskSpec& spec, const Mask* mask) {
    const MaskKind* own = findMaskKind(spec.wish.kind);
    if (!own) return;
    QList<Card::Choice> kinds;
    for (const MaskKind* kind : maskKinds())
        kinds.append({said(kind->name()), kind == own,
                      [this, id = spec.id, kind = std::string(kind->id())] { useKind(id, kind); }});
    card.menu(capital(said(own->name())), kinds);
    desk_.want(spec);
    const MaterialAnswer* answer = desk_.answerFor(spec);
    const bool lies = mask && mask->report().liesFlat;
    if (answer && !lies && answer->how == MaterialAnswer::How::Slits && answer->plan.lies)
        card.button(tr("Cut %1").arg(slitCount(answer->slits())), Card::Look::Primary,
                    [this, id = spec.id, slits = answer->plan.slits] { useSlits(id, slits, true); });
    const std::size_t split = answer && !lies ? answer->sheets.size() : 0;
    if (split > 1 && answer->how == MaterialAnswer::How::Pieces && spec.wish.values.find("sheets"))
        card.button(tr("Cut it in %n sheets", nullptr, static_cast<int>(split)), Card::Look::Primary,
                    [this, id = spec.id, split] {
                        (void)changeSpec(id, tr("Change the number of sheets"), [&](MaskSpec& s) {
                            s.wish.values.set("sheets", static_cast<double>(split));
                            s.wish.slits.clear();
                        });
                    });
    if (answer && !lies) {
        const auto material = findMaterial(spec.wish.material);
        if (material) card.words(capital(said(answerSentence(*answer, *material))));
    } else if (!lies && desk_.running()) {
        card.muted(tr("Looking for slits that let it lie ..."));
    }
    slitInHand(card, spec);
    if (mask && !mask->sheets.empty()) {
        const std::optional<Slit> more = oneMore(mask->sheets.front(), spec.wish.slits);
        if (more)
            card.button(tr("Add a slit"), Card::Look::Link,
                        [this, id = spec.id, slits = spec.wish.slits, more = *more]() mutable {
                            slits.push_back(more);
                            useSlits(id, slits, true);
                            page_->selectSlit(static_cast<int>(slits.size()) - 1);
                        });
    }
    if (!spec.wish.slits.empty())
        card.button(tr("Take all slits out"), Card::Look::Link,
                    [this, id = spec.id] { useSlits(id, {}, true); });
}

void MasksLeaf::slitInHand(Card& card, const MaskSpec& spec) {
    const int count = static_cast<int>(spec.wish.slits.size()), s = page_->slit();
    if (count == 0) return;
    if (s < 0 || s >= count) {
        card.muted(
            capital(tr("%1. Click one to change it; drag its ring or its line.").arg(slitCount(count))));
        return;
    }
    const Slit slit = spec.wish.slits[static_cast<std::size_t>(s)];
    const BodyResult& body = context_.results.body();
    if (!body.skin) return;
    ValueChip* x = card.chip(tr("Slit behind the nose"), ValueChip::Kind::Length, 1, 0.5, {});
    x->setValue(slit.line.front().x() - body.skin->noseX_mm());
    connect(x, &ValueChip::committed, this, [this, id = spec.id, slit, skin = body.skin](double v) {
        changeSlit(id, slit, tr("Move a slit"),
                   [&](Slit& moved) { moved = movedTo(moved, skin->noseX_mm() + v, *skin); });
    });
    ValueChip* length = card.chip(tr("Length of the slit"), ValueChip::Kind::Length, 1, 0.5, {});
    length->setValue(lengthOf_mm(slit));
    connect(length, &ValueChip::committed, this, [this, id = spec.id, slit](double v) {
        changeSlit(id, slit, tr("Change the length of a slit"), [&](Slit& s2) { s2 = ofLength(s2, v); });
    });
    card.words(tr("Slit %1").arg(s + 1));
    card.sentence(tr("It begins %1 behind the nose and is %2 long."), {x, length});
    card.choices({{tr("stays where it is"), slit.locked,
                   [this, id = spec.id, slit] {
                       changeSlit(id, slit, tr("Keep a slit"), [](Slit& s2) { s2.locked = !s2.locked; });
                   }},
                  {tr("take it out"), false, [this, id = spec.id, slit, all = spec.wish.slits]() mutable {
                       std::erase(all, slit);
                       useSlits(id, all, true);
                       page_->selectSlit(-1);
                   }}});
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
    // What is asked for now, beside what was last judged.
    const int asked = indexOfMask(job(), masks[index].spec->id);
    const MaskSpecPtr now = asked < 0 ? masks[index].spec : maskSpecs(job())[static_cast<std::size_t>(asked)];
    const MaskSpec& spec = *now;
    card->title(QString("%1 %2").arg(QString::fromStdString(spec.shownName()), QChar(sideLetter(spec.side))));
    if (const MaskKind* kind = findMaskKind(spec.wish.kind))
        for (const Pattern& sentence : kind->sentences())
            paramSentence(*card, sentence, kind->params(),
                          [&](const Param& p) { return paramChip(*card, p, spec); });
    kindAndSlits(*card, spec, masks[index].mask ? masks[index].mask->get() : nullptr);
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
    card->words(tr("Pressed down"));
    QList<Card::Choice> presses;
    for (const auto& [pressed, text] : {std::pair{Pressed::Light, tr("lightly")},
                                        {Pressed::Fingertip, tr("by a fingertip")},
                                        {Pressed::Held, tr("held by two fingers")}})
        presses.append({text, spec.wish.pressed == pressed, [this, pressed = pressed, id = spec.id] {
                            (void)changeSpec(id, tr("Change how it is pressed down"),
                                             [&](MaskSpec& s) { s.wish.pressed = pressed; });
                        }});
    card->choices(presses);
    cutouts(*card, spec);
    if (masks[index].mask) {
        const Mask& mask = **masks[index].mask;
        bridges(*card, spec, mask);
        pressPlaces(*card, spec, mask);
        card->framed((mask.report().liesFlat ? QString() : QString::fromUtf8("⚑ 1  ")) +
                         said(verdictOf(*masks[index].spec, mask.report())),
                     !mask.report().liesFlat)
            ->setAccessibleName(tr("Verdict"));
        card->words(
            tr("Pulled straight as well as can be it must stretch by %1; let go it stretches by up to %2.")
                .arg(percentText(mask.report().strainFeasibleMax), percentText(mask.report().strainMax)));
        if (!mask.report().liesFlat) {
            card->words(tr("Where it stands off, paint creeps under the edge and the line goes soft."));
            const int sheet = stiffestSheetFor(mask.report().strainFeasibleMax);
            if (sheet >= 0) {
                const auto id = sheetMaterials()[static_cast<std::size_t>(sheet)].id;
                card->button(tr("Take %1").arg(materialName(id).toLower()), Card::Look::Primary,
                             [this, sheet] { useMaterial(sheet); });
            }
        }
        if (mask.report().hand_mm > 0)
            card->words(tr("Laid by hand at its marks you will be within %1.")
                            .arg(lengthText(mask.report().hand_mm)));
        double unchanged = 0;
        for (const Sheet& sheet : mask.sheets) unchanged = std::max(unchanged, sheet.compensated_mm);
        if (unchanged > 0)
            card->muted(tr("Its piece allows for sticking as it goes on; cut as if it lay loose it would be "
                           "off by %1.")
                            .arg(lengthText(unchanged, 2)));
        const double bend = mask.report().bend_mm;
        if (bend >= kBendTold_mm && spec.wish.pressed != Pressed::Held)
            card->words(
                tr("This sheet is stiff: its free edges stand off by up to %1. Hold it down beside each "
                   "window while you spray, or take one that sticks.")
                    .arg(lengthText(bend, 2)));
        for (std::size_t k = 0; k < mask.sheets.size(); ++k)
            for (const RegistrationMark& mark : mask.sheets[k].marks)
                card->muted(k == 0 ? tr("Mark %1").arg(said(markSentence(mark)))
                                   : tr("Sheet %1, mark %2").arg(k + 1).arg(said(markSentence(mark))));
        for (const Warning& w : masks[index].warnings) card->caution(said(w));
        card->choices({{tr("Its sheet as PDF ..."), false, [this] { putOutPaper(false); }},
                       {tr("Print it ..."), false, [this] { putOutPaper(true); }}});
    } else {
        card->framed(said(masks[index].mask.error()), true);
    }
    card->muted(tr("Masks of this pattern"));
    QList<Card::Choice> all;
    std::map<MaskPtr, QIcon> drawn;  // again only what is new
    for (std::size_t i = 0; i < masks.size(); ++i) {
        const MaskSpec& other = *masks[i].spec;
        const bool fault = !masks[i].mask || !(*masks[i].mask)->report().liesFlat;
        const QString name =
            QString("%1 %2").arg(QString::fromStdString(other.shownName()), QChar(sideLetter(other.side)));
        QIcon picture;
        if (masks[i].mask) {
            const auto known = pictures_.find(*masks[i].mask);
            picture = known != pictures_.end()
                          ? known->second
                          : pictureOf(**masks[i].mask, other.wish.material, card_->devicePixelRatioF());
            drawn.emplace(*masks[i].mask, picture);
        }
        all.append({name + (fault ? QString::fromUtf8("  ⚑") : QString()), i == index,
                    [this, id = other.id] { context_.view.setMask(id); }, picture});
    }
    pictures_ = std::move(drawn);
    card->choices(all);
    billCover(*card);
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
        const MaterialAnswer* answer = desk_.answerFor(*m.spec);
        const bool slit = answer && answer->how == MaterialAnswer::How::Slits && answer->plan.lies;
        flag.words =
            (slit ? tr("%1 of %2 masks lie flat; %3 stands off %4: slit it or take a softer sheet.")
                  : tr("%1 of %2 masks lie flat; %3 stands off %4: take a softer sheet or split it."))
                .arg(QString::number(flat), QString::number(masks.size()),
                     QString::fromStdString(m.spec->shownName()) + ' ' + QChar(sideLetter(m.spec->side)),
                     lengthText((*m.mask)->report().lift_mm));
        if (slit) {
            flag.repairName = tr("cut the slits");
            flag.repair = [this, id = m.spec->id, slits = answer->plan.slits] {
                context_.view.setMask(id);
                useSlits(id, slits, true);
            };
        } else {
            flag.repairName = tr("softer sheet");
            flag.repair = [this] {
                if (!repairWorst()) context_.frame.showLeaf(MasksNumber);
            };
        }
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
