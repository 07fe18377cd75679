#include "app/leaves/layers/layers_leaf.h"

#include <QFileDialog>
#include <algorithm>

#include "app/leaves/layers/layers_edits.h"
#include "app/leaves/layers/layers_page.h"
#include "app/leaves/layers/shelf_dialog.h"
#include "app/leaves/layers/step_words.h"
#include "app/leaves/layers/swatches.h"
#include "app/sheet/names.h"

namespace nine::app {
namespace {

constexpr int kCardFollows_ms = 120;

}  // namespace

LayersLeaf::LayersLeaf(LeafContext context, QObject* parent)
    : Leaf(context, parent),
      desk_(context, this),
      page_(new LayersPage(context, desk_)),
      card_(new CardHolder) {
    calm_.setSingleShot(true);
    calm_.setInterval(kCardFollows_ms);
    connect(&calm_, &QTimer::timeout, this, &LayersLeaf::rebuildCard);
    connect(&desk_, &LayersDesk::changed, this, [this] {
        calm_.start();  // a drag is not followed step by step
        showEverywhere(everywhere_);
        emit restless();
    });
    // What is dragged is seen in the pattern's own colours until the recipe has followed.
    connect(&context_.document, &JobDocument::changed, this, [this] { showEverywhere(everywhere_); });
    connect(&context_.results, &Results::bodyChanged, this, [this] { calm_.start(); });
    connect(&context_.document, &JobDocument::opened, this, [this] { cup_.reset(); });
}

QWidget* LayersLeaf::page() {
    return page_;
}

bool LayersLeaf::draft() const {
    return isDraft(job().get<LayersChapter>());
}

std::shared_ptr<const Image> LayersLeaf::bodyAsPainted() const {
    return draft() ? nullptr : desk_.finished();
}

QString LayersLeaf::wornWords() const {
    const auto place = desk_.stepPlace();
    if (!desk_.worn() || !place) return {};
    const std::size_t left = desk_.layers().recipe.steps.size() - 1 - *place;
    return left == 0 ? tr("after the last step") : tr("after step %1, %2 to come").arg(*place + 1).arg(left);
}

void LayersLeaf::showEverywhere(bool on) {
    everywhere_ = on;
    context_.view.setPaintedSkin(on ? bodyAsPainted() : nullptr);
}

LeafEntry LayersLeaf::entry() const {
    LeafEntry e;
    if (context_.document.empty() || job().get<LayersChapter>().recipe.steps.empty()) return e;
    e.state = draft() ? LeafState::Begun : LeafState::Ready;
    if (draft()) return e;
    for (const RuleFinding& finding : desk_.study().findings) {
        if (finding.severity == Severity::Hint) continue;
        ++e.flags;
        e.fault = e.fault || finding.severity == Severity::Fault;
    }
    if (desk_.study().error) {
        ++e.flags;
        e.fault = true;
    }
    if (e.flags) e.state = LeafState::Repair;
    return e;
}

std::vector<Flag> LayersLeaf::flags() {
    std::vector<Flag> all;
    if (draft()) return all;
    if (desk_.study().error)
        all.push_back({"layers:" + desk_.study().error->code, said(*desk_.study().error), true, [] {}});
    for (const RuleFinding& finding : desk_.study().findings) {
        if (finding.severity == Severity::Hint) continue;
        Flag flag{"layers:" + finding.rule + ":" + finding.step, said(finding.says),
                  finding.severity == Severity::Fault, [this, id = finding.step] { desk_.select(id); }};
        if (!finding.repair.plain().empty()) {
            flag.repairName = said(finding.repair);
            flag.repair = [this, finding] { desk_.repair(finding); };
        }
        all.push_back(std::move(flag));
    }
    return all;
}

QString LayersLeaf::busyWith() const {
    if (desk_.beginning()) return tr("Making a recipe");
    if (desk_.seeking()) return tr("Seeking the nearest paint");
    return desk_.settled() ? QString() : tr("Painting the steps");
}

std::vector<MenuEntry> LayersLeaf::menu() {
    return {{tr("Shelf of paints ..."), {}, [this] { openShelf(); }},
            {tr("Take paints from a file ..."), {}, [this] { importShelf(); }},
            {tr("Shelf of paints as a file ..."), {}, [this] { exportShelf(); }}};
}

void LayersLeaf::change(const std::string& step, const QString& label,
                        const std::function<void(Step&)>& edit) {
    context_.document.beginGesture();
    const Status ok = desk_.changeStep(step, label, edit);
    if (!ok) context_.frame.complain(ok.error());
}

ValueChip* LayersLeaf::chip(Card& card, const std::string& step, const QString& name, ValueChip::Kind kind,
                            int decimals, double by, double value, std::function<void(Step&, double)> set) {
    ValueChip* c = card.chip(name, kind, decimals, by, {});
    c->setValue(value);
    c->setOwner(step);
    connect(c, &ValueChip::committed, this, [this, c, name, set = std::move(set)](double v) {
        context_.document.beginGesture();
        const Status ok =
            desk_.changeStep(c->owner(), tr("Change %1").arg(name.toLower()), [&](Step& s) { set(s, v); });
        c->setWrong(ok ? QString() : said(ok.error()));
    });
    return c;
}

void LayersLeaf::add(Act act) {
    std::string added;
    const std::string below = desk_.step() ? desk_.step()->id : std::string();
    context_.document.beginGesture();
    const Status ok = desk_.change(tr("Add a step"), [&](LayersChapter& l) {
        l.recipe = withNew(std::move(l.recipe), act, below, desk_.paints(), added);
        Step& step = l.recipe.steps[placeOf(l.recipe, added)];
        const auto& masks = maskSpecs(job());
        if ((act == Act::MaskOn || act == Act::MaskOff) && !masks.empty()) step.mask = masks.front()->id;
    });
    if (!ok) return context_.frame.complain(ok.error());
    desk_.select(added);
}

QList<Card::Choice> LayersLeaf::paintChoices(const std::string& now,
                                             std::function<void(const Bottle&)> chosen) {
    QList<Card::Choice> all;
    for (const Bottle& bottle : desk_.paints()) {
        // The last swatch over white is what the paint looks like.
        QColor colour = Qt::transparent;
        for (const Swatch& s : bottle.swatches)
            if (s.overWhite) colour = QColor::fromRgb(shown(s.seen));
        all.append({QString::fromStdString(bottle.name), bottle.id == now,
                    [chosen, bottle] { chosen(bottle); }, QIcon(patch(colour))});
    }
    return all;
}

void LayersLeaf::rebuildCard() {
    if (putOff()) return;
    context_.library.open();
    desk_.readShelf();
    auto* card = new Card;
    if (context_.document.empty()) {
        card->title(tr("Layers"), false);
        card->words(tr("Nothing to paint yet."));
    } else if (job().get<LayersChapter>().recipe.steps.empty()) {
        sayBegin(*card);
    } else {
        if (draft()) {
            card->framed(tr("These steps stand for the colours of the pattern, nothing more. Begin a recipe "
                            "with the paints of your shelf, or work on from here."),
                         false);
            sayBegin(*card);
        }
        if (const Step* step = desk_.step()) sayStep(*card, *step);
        sayRecipe(*card);
    }
    card->finish();
    card_->show(card);
}

void LayersLeaf::openShelf() {
    context_.library.open();
    ShelfDialog dialog(context_, desk_, context_.frame.dialogParent());
    dialog.exec();
}

void LayersLeaf::importShelf() {
    context_.library.open();
    const QString path = QFileDialog::getOpenFileName(
        context_.frame.dialogParent(), tr("Take paints from a file"), {}, tr("Shelf of paints (*.json)"));
    if (path.isEmpty()) return;
    const Result<int> taken = takeShelf(context_, path);
    if (!taken) return context_.frame.complain(taken.error());
    desk_.readShelf();
    context_.frame.tell(tr("Paints taken onto the shelf: %1.").arg(*taken), {}, {});
}

void LayersLeaf::exportShelf() {
    const QString path =
        QFileDialog::getSaveFileName(context_.frame.dialogParent(), tr("Shelf of paints as a file"),
                                     "shelf.json", tr("Shelf of paints (*.json)"));
    if (path.isEmpty()) return;
    if (Status ok = writeShelf(path, desk_.shelf()); !ok) context_.frame.complain(ok.error());
}

}  // namespace nine::app
