#include "app/leaves/pattern/pattern_leaf.h"

#include <QPushButton>
#include <cmath>
#include <set>

#include "app/leaves/pattern/pattern_page.h"
#include "app/theme/theme.h"

namespace nine::app {

PatternLeaf::PatternLeaf(LeafContext context, QObject* parent)
    : Leaf(context, parent),
      page_(new PatternPage(context)),
      card_(new QWidget),
      layout_(new QVBoxLayout(card_)) {
    layout_->setContentsMargins(16, 14, 16, 12);
    connect(page_, &PatternPage::addWanted, this, &PatternLeaf::addElement);
    connect(&context_.document, &JobDocument::changed, this, &PatternLeaf::rebuildCard);
    connect(&context_.view, &ViewState::changed, this, &PatternLeaf::rebuildCard);
    connect(&context_.results, &Results::bodyChanged, this, &PatternLeaf::rebuildCard);
}

QWidget* PatternLeaf::page() {
    return page_;
}

const Element* PatternLeaf::selected() const {
    const auto& elements = job().pattern->elements;
    const auto index = static_cast<std::size_t>(context_.view.element());
    return index < elements.size() ? elements[index].get() : nullptr;
}

void PatternLeaf::change(const QString& label, const std::function<void(Element&)>& edit, ValueChip* chip) {
    if (!selected()) return;
    Element e = *selected();
    edit(e);
    const Status ok = checkElement(e, "");
    if (chip) chip->setWrong(ok ? QString() : QString::fromStdString(ok.error().text));
    if (!ok) return;
    context_.document.beginGesture();
    context_.document.edit(withElement(job(), static_cast<std::size_t>(context_.view.element()), e), label);
}

void PatternLeaf::rebuildCard() {
    if (putOff()) return;
    const Element* e = selected();
    const QString shownFor =
        e ? QString("%1 %2 %3").arg(context_.view.element()).arg(kindName(*e)).arg(e->linked) +
                QString::fromStdString(e->anchor) + (tokens().dark ? "d" : "l")
          : QString("none");
    if (shownFor == shownFor_) return refreshValues();
    shownFor_ = shownFor;
    chips_.clear();
    discard(layout_, body_);
    body_ = new QWidget(card_);
    auto* layout = new QVBoxLayout(body_);
    layout->setContentsMargins(0, 0, 0, 0);
    layout->setSpacing(8);
    layout_->addWidget(body_);
    if (!e) {
        auto* words = new QLabel(tr("Nothing is selected. Click a mark on the body or in the list."), body_);
        words->setWordWrap(true);
        layout->addWidget(words);
        layout->addStretch();
        return;
    }
    auto* title = new QLabel(QString::fromStdString(e->shownName()), body_);
    title->setWordWrap(true);
    title->setStyleSheet("font-size: 15px; font-weight: 700; color: " + tokens().select.name());
    layout->addWidget(title);

    const auto chip = [&](const QString& name, ValueChip::Kind kind, int decimals,
                          std::function<double(const Element&)> get,
                          std::function<void(Element&, double)> set) {
        auto* c = new ValueChip(kind, decimals, 0.1, body_);
        c->setAccessibleName(name);
        chips_.emplace_back(c, std::move(get));
        connect(c, &ValueChip::committed, this, [this, c, name, set](double v) {
            change(
                tr("Change %1").arg(name.toLower()), [&](Element& edited) { set(edited, v); }, c);
        });
        return c;
    };
    const auto length = ValueChip::Kind::Length;
    const QString from =
        e->anchor.empty() ? tr("the nose") : tr("the %1").arg(QString::fromStdString(spokenName(e->anchor)));
    auto* dx = chip(
        tr("Distance"), length, 1, [](const Element& x) { return x.dx_mm; },
        [](Element& x, double v) { x.dx_mm = v; });
    auto* dg = chip(
        tr("Height"), length, 1, [](const Element& x) { return x.dg_mm; },
        [](Element& x, double v) { x.dg_mm = v; });
    if (std::holds_alternative<DotRow>(e->shape)) {
        const auto dots = [](const Element& x) -> const DotRow& { return std::get<DotRow>(x.shape); };
        const auto edit = [](Element& x) -> DotRow& { return std::get<DotRow>(x.shape); };
        auto* count = chip(
            tr("Count"), ValueChip::Kind::Count, 0, [=](const Element& x) { return dots(x).count; },
            [=](Element& x, double v) { edit(x).count = static_cast<int>(v); });
        auto* first = chip(
            tr("First diameter"), length, 2, [=](const Element& x) { return dots(x).first_mm; },
            [=](Element& x, double v) { edit(x).first_mm = v; });
        auto* last = chip(
            tr("Last diameter"), length, 2, [=](const Element& x) { return dots(x).last_mm; },
            [=](Element& x, double v) { edit(x).last_mm = v; });
        auto* spacing = chip(
            tr("Spacing"), length, 1, [=](const Element& x) { return dots(x).spacing_mm; },
            [=](Element& x, double v) { edit(x).spacing_mm = v; });
        auto* bow = chip(
            tr("Bow"), length, 1, [=](const Element& x) { return dots(x).bow_mm; },
            [=](Element& x, double v) { edit(x).bow_mm = v; });
        layout->addWidget(new Sentence(
            tr("%1 dots, from Ø %2 at the shoulder to Ø %3 at the tail, %4 apart along the skin, the "
               "middle of the row lifted by %5."),
            {count, first, last, spacing, bow}, body_));
    } else {
        const auto bars = [](const Element& x) -> const Bars& { return std::get<Bars>(x.shape); };
        const auto edit = [](Element& x) -> Bars& { return std::get<Bars>(x.shape); };
        auto* count = chip(
            tr("Count"), ValueChip::Kind::Count, 0, [=](const Element& x) { return bars(x).count; },
            [=](Element& x, double v) { edit(x).count = static_cast<int>(v); });
        auto* spacing = chip(
            tr("Spacing"), length, 1, [=](const Element& x) { return bars(x).spacing_mm; },
            [=](Element& x, double v) { edit(x).spacing_mm = v; });
        auto* back = chip(
            tr("Width at the back"), length, 2, [=](const Element& x) { return bars(x).widthBack_mm; },
            [=](Element& x, double v) { edit(x).widthBack_mm = v; });
        auto* belly = chip(
            tr("Width at the belly"), length, 2, [=](const Element& x) { return bars(x).widthBelly_mm; },
            [=](Element& x, double v) { edit(x).widthBelly_mm = v; });
        auto* low = chip(
            tr("Lower end"), length, 1, [=](const Element& x) { return bars(x).g0_mm; },
            [=](Element& x, double v) { edit(x).g0_mm = v; });
        auto* high = chip(
            tr("Upper end"), length, 1, [=](const Element& x) { return bars(x).g1_mm; },
            [=](Element& x, double v) { edit(x).g1_mm = v; });
        layout->addWidget(new Sentence(
            tr("%1 bars, %2 apart along the skin, %3 wide towards the back and %4 towards the belly, "
               "reaching from %5 up to %6."),
            {count, spacing, back, belly, low, high}, body_));
    }
    layout->addWidget(new Sentence(
        tr("It starts %1 behind %2 and %3 above the datum line.").replace("%2", from).replace("%3", "%2"),
        {dx, dg}, body_));
    auto* linked = new QPushButton(
        e->linked ? tr("Linked: both sides the same") : tr("Unlinked: this side only"), body_);
    linked->setObjectName("second");
    linked->setCheckable(true);
    linked->setChecked(e->linked);
    connect(linked, &QPushButton::clicked, this, [this](bool on) {
        change(on ? tr("Link sides") : tr("Unlink sides"), [&](Element& x) {
            x.linked = on;
            x.side = context_.view.side();
        });
    });
    auto* remove = new QPushButton(tr("Take it out"), body_);
    remove->setObjectName("link");
    connect(remove, &QPushButton::clicked, this, &PatternLeaf::removeSelected);
    layout->addWidget(linked, 0, Qt::AlignLeft);
    layout->addWidget(remove, 0, Qt::AlignLeft);
    for (const Error& error : context_.results.body().artErrors) {
        auto* wrong = new QLabel(QString::fromStdString(error.text), body_);
        wrong->setWordWrap(true);
        wrong->setStyleSheet("color: " + tokens().fault.name());
        layout->addWidget(wrong);
    }
    layout->addStretch();
    refreshValues();
}

void PatternLeaf::refreshValues() {
    const Element* e = selected();
    if (!e) return;
    for (const auto& [chip, get] : chips_) chip->setValue(get(*e));
}

void PatternLeaf::addElement(bool bars) {
    if (context_.document.empty() || !context_.results.body().skin) return;
    Element e;
    std::set<std::string> ids;
    for (const ElementPtr& other : job().pattern->elements) ids.insert(other->id);
    for (int n = 1; e.id.empty() || ids.count(e.id); ++n)
        e.id = (bars ? "bars-" : "dots-") + std::to_string(n);
    e.name = bars ? tr("Bars").toStdString() : tr("Dots").toStdString();
    const double length = context_.results.body().skin->length_mm();
    e.dx_mm = std::round(0.35 * length);
    if (bars) {
        e.shape = Bars{};
    } else {
        e.shape = DotRow{};
    }
    PatternChapter pattern = *job().pattern;
    pattern.elements.push_back(std::make_shared<const Element>(std::move(e)));
    Job next = job();
    const int index = static_cast<int>(pattern.elements.size()) - 1;
    next.pattern = std::make_shared<const PatternChapter>(std::move(pattern));
    if (!next.masks->masks.empty()) {  // masks that are named one by one: the new element gets its own too
        auto masks = next.masks->masks;
        for (const Side side : {Side::Left, Side::Right}) {
            MaskSpec spec;
            const Element& added = *next.pattern->elements.back();
            spec.id = added.id + "-" + sideLetter(side);
            spec.name = added.name;
            spec.elements = {added.id};
            spec.side = side;
            spec.material = masks.front()->material;
            masks.push_back(std::make_shared<const MaskSpec>(std::move(spec)));
        }
        next = withMasks(next, std::move(masks));
    }
    context_.document.beginGesture();
    context_.document.edit(next, bars ? tr("Add bars") : tr("Add a row of dots"));
    context_.view.setElement(index);
}

void PatternLeaf::removeSelected() {
    const Element* e = selected();
    if (!e) return;
    const std::string id = e->id;
    PatternChapter pattern = *job().pattern;
    pattern.elements.erase(pattern.elements.begin() + context_.view.element());
    Job next = job();
    next.pattern = std::make_shared<const PatternChapter>(std::move(pattern));
    std::vector<MaskSpecPtr> masks;
    for (const MaskSpecPtr& mask : next.masks->masks) {
        MaskSpec spec = *mask;
        std::erase(spec.elements, id);
        if (spec.elements.empty()) continue;
        masks.push_back(
            spec.elements.size() == mask->elements.size() ? mask : std::make_shared<const MaskSpec>(spec));
    }
    if (masks.size() != next.masks->masks.size()) next = withMasks(next, std::move(masks));
    context_.document.beginGesture();
    context_.document.edit(next, tr("Take out an element"));
    context_.view.setElement(std::max(0, context_.view.element() - 1));
}

LeafEntry PatternLeaf::entry() const {
    LeafEntry e;
    e.built = true;
    if (job().pattern->elements.empty()) return e;
    const int errors = static_cast<int>(context_.results.body().artErrors.size());
    e.state = errors > 0 ? LeafState::Repair : LeafState::Ready;
    e.flags = errors;
    e.fault = errors > 0;
    return e;
}

}  // namespace nine::app
