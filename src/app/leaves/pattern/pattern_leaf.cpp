#include "app/leaves/pattern/pattern_leaf.h"

#include <QMenu>
#include <algorithm>
#include <cmath>

#include "app/document/selection.h"
#include "app/leaves/pattern/pattern_page.h"
#include "app/sheet/curve_field.h"
#include "app/sheet/names.h"
#include "app/sheet/units_text.h"

namespace nine::app {

PatternLeaf::PatternLeaf(LeafContext context, QObject* parent)
    : Leaf(context, parent),
      desk_(context, this),
      page_(new PatternPage(context, desk_)),
      card_(new CardHolder) {
    connect(&context_.document, &JobDocument::changed, this, &PatternLeaf::rebuildCard);
    connect(&context_.view, &ViewState::changed, this, &PatternLeaf::rebuildCard);
    connect(&context_.results, &Results::bodyChanged, this, &PatternLeaf::rebuildCard);
    connect(&desk_, &RefitDesk::changed, this, &PatternLeaf::rebuildCard);
    connect(page_, &PatternPage::removeWanted, this, &PatternLeaf::removeSelected);
    connect(page_, &PatternPage::kindsWanted, this, &PatternLeaf::showKinds);
    connect(page_, &PatternPage::anchorWanted, this, &PatternLeaf::anchorTo);
    connect(page_, &PatternPage::addWanted, this, [this](const Kind* kind, const Vec2& at) {
        if (!kind) return;
        if (kind->isDerived())
            addDerived(*kind);
        else
            addElementAt(*kind, at);
    });
    connect(page_, &PatternPage::valueTyped, this, [this](const std::string& key, double v) {
        const ElementPtr e = selected();
        if (!e) return;
        change(e->id, tr("Type a value"), [&](Element& x) {
            if (key == "dx_mm")
                x.dx_mm = v;
            else if (key == "dg_mm")
                x.dg_mm = v;
            else if (x.values.find(key))
                x.values.set(key, v);
        });
    });
}

QWidget* PatternLeaf::page() {
    return page_;
}

ElementPtr PatternLeaf::selected() const {
    return elementOf(job(), context_.view.element());
}

void PatternLeaf::change(const std::string& id, const QString& label,
                         const std::function<void(Element&)>& edit, ValueChip* chip) {
    const ElementPtr before = elementOf(job(), id);
    if (!before) return;
    Element e = *before;
    edit(e);
    if (e.isCentral()) e.linked = false;
    const Status ok = checkElement(e, "");
    if (chip) chip->setWrong(ok ? QString() : said(ok.error()));
    if (!ok) return;
    const auto index = static_cast<std::size_t>(indexOfElement(job(), id));
    context_.document.beginGesture();
    context_.document.edit(inStep(withElement(job(), index, e)), label);
}

void PatternLeaf::anchorTo(const std::string& landmark) {
    const BodyResult& body = context_.results.body();
    const ElementPtr e = selected();
    if (!e || !body.skin) return;
    const Result<Element> moved =
        reanchored(*body.skin, job().get<BlankChapter>().landmarks, *e, landmark, "");
    if (!moved) return;
    context_.document.beginGesture();
    context_.document.edit(withElement(job(), static_cast<std::size_t>(indexOfElement(job(), e->id)), *moved),
                           tr("Change the anchor"));
}

bool PatternLeaf::putBack(const std::string& element) {
    const auto& strays = context_.results.body().strays;
    const auto stray = strays.find(element);
    const int index = indexOfElement(job(), element);
    if (stray == strays.end() || index < 0) return false;
    context_.view.setElement(element);
    context_.document.beginGesture();
    context_.document.edit(withElement(job(), static_cast<std::size_t>(index), stray->second.brought),
                           tr("Put %1 back").arg(QString::fromStdString(stray->second.brought.shownName())));
    return true;
}

void PatternLeaf::refreshValues() {
    const ElementPtr e = selected();
    if (!e) return;
    for (const auto& [chip, get] : chips_) chip->setValue(get(*e));
    for (const auto& [field, curve] : curves_)
        field->setRun([values = e->values, at = curve->at](double t) { return at(values, t); });
}

double PatternLeaf::freeHeight(double x_mm) const {
    constexpr double kRoom_mm = 1.5;
    const BodyResult& body = context_.results.body();
    const SectionArc arc = body.skin->arcAt(x_mm);
    for (const double height : {0.0, 4.0, -4.0, 8.0, -8.0, 12.0, -12.0}) {
        if (height > arc.backArc_mm() - kRoom_mm || height < kRoom_mm - arc.bellyArc_mm()) continue;
        const bool taken = std::any_of(body.art.begin(), body.art.end(), [&](const ArtPtr& art) {
            return art && !art->outlines().empty() && art->high.x() > x_mm - kRoom_mm &&
                   art->low.y() < height + kRoom_mm && art->high.y() > height - kRoom_mm;
        });
        if (!taken) return height;
    }
    return 0;
}

void PatternLeaf::addElement(const Kind& kind) {
    if (context_.document.empty() || !context_.results.body().skin) return;
    if (kind.isDerived()) return addDerived(kind);
    const double x = std::round(0.35 * context_.results.body().skin->length_mm());
    addElementAt(kind, Vec2(x, freeHeight(x)));
}

void PatternLeaf::addElementAt(const Kind& kind, const Vec2& at) {
    const BodyResult& body = context_.results.body();
    if (context_.document.empty() || !body.skin) return;
    Element e = newElement(job(), *body.skin, kind, capital(said(kind.onMask())), at);
    const std::string id = e.id;
    context_.document.beginGesture();
    context_.document.edit(withAdded(job(), std::move(e)), tr("Add %1").arg(said(kind.name())));
    context_.view.setElement(id);
    if (!chips_.empty() && chips_.front().first->isVisible()) chips_.front().first->setFocus();
}

void PatternLeaf::addDerived(const Kind& kind) {
    const ElementPtr source = selected();
    const BodyResult& body = context_.results.body();
    if (!source || !source->known() || !body.skin || findKind(source->kind)->isDerived())
        return context_.frame.tell(tr("Select the mark first that \"%1\" belongs to.").arg(said(kind.name())),
                                   {}, {});
    Element e = newElement(
        job(), *body.skin, kind,
        tr("%1 of %2").arg(capital(said(kind.onMask())), QString::fromStdString(source->shownName())),
        Vec2::Zero());
    e.of = source->id;
    e.linked = source->linked;
    e.side = source->side;
    const std::string id = e.id;
    const bool under = kind.goesUnder(e.values);
    Job next = withAdded(job(), std::move(e));
    if (under) next = withOrder(next, id, indexOfElement(next, source->id));
    context_.document.beginGesture();
    context_.document.edit(inStep(next), tr("Add %1").arg(said(kind.name())));
    context_.view.setElement(id);
}

void PatternLeaf::removeSelected() {
    const ElementPtr e = selected();
    if (!e) return;
    Ids ids = context_.view.alsoSelected();
    ids.insert(e->id);
    context_.document.beginGesture();
    context_.document.edit(withRemoved(job(), ids), ids.size() > 1 ? tr("Take out %1 marks").arg(ids.size())
                                                                   : tr("Take out an element"));
}

void PatternLeaf::showKinds() {
    auto* menu = new QMenu(page_);
    menu->setAttribute(Qt::WA_DeleteOnClose);
    for (const Family family : families()) {
        QMenu* under = menu->addMenu(said(nameOf(family)));
        for (const Kind* kind : kinds())
            if (kind->family() == family)
                under->addAction(said(kind->name()), this, [this, kind] { addElement(*kind); });
    }
    menu->popup(page_->mapToGlobal(QPoint(24, 84)));
}

std::vector<MenuEntry> PatternLeaf::menu() {
    return {{tr("Add a mark"), QKeySequence(), [this] { showKinds(); }}};
}

void PatternLeaf::makeJobOfRefit() {
    const RefitPreview* preview = desk_.chosenPreview();
    if (!preview || !preview->refit) return;
    const Job job = preview->refit->job;
    desk_.choose({});
    context_.frame.openAsNew(job);
}

void PatternLeaf::requestFeatures() {
    const int index = indexOfElement(job(), context_.view.element());
    const auto& art = context_.results.body().art;
    if (index < 0 || static_cast<std::size_t>(index) >= art.size()) return;
    const ArtPtr now = art[static_cast<std::size_t>(index)];
    if (!now || !now->cut || now == found_.art) return;
    featuresSlot_.request(
        [now](const Task&) {
            return Found{now, featuresOf(*now)};
        },
        [this](Found found) {
            found_ = std::move(found);
            rebuildCard();
            emit restless();
        });
}

std::vector<Flag> PatternLeaf::flags() {
    const BodyResult& body = context_.results.body();
    std::vector<Flag> flags;
    if (context_.document.empty() || !body.pattern) return flags;
    std::size_t error = 0;
    for (std::size_t i = 0; i < body.art.size() && error < body.artErrors.size(); ++i) {
        if (body.art[i]) continue;
        const std::string id = body.pattern->elements[i]->id;
        Flag flag{"element " + id, said(body.artErrors[error++]), true,
                  [this, id] { context_.view.setElement(id); }};
        if (body.strays.count(id)) {
            flag.repairName = tr("put it back");
            flag.repair = [this, id] { (void)putBack(id); };
        }
        flags.push_back(std::move(flag));
    }
    return flags;
}

Standing PatternLeaf::standing() const {
    if (context_.document.empty() || !job().get<PatternChapter>().elements.empty()) return {};
    return {tr("The body is ready; the pattern is still empty.")};
}

LeafEntry PatternLeaf::entry() const {
    LeafEntry e;
    if (job().get<PatternChapter>().elements.empty()) return e;
    const int errors = static_cast<int>(context_.results.body().artErrors.size());
    e.state = errors > 0 ? LeafState::Repair : LeafState::Ready;
    e.flags = errors;
    e.fault = errors > 0;
    return e;
}

}  // namespace nine::app
