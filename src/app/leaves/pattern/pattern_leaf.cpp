#include "app/leaves/pattern/pattern_leaf.h"

#include <cmath>
#include <set>

#include "app/document/selection.h"
#include "app/leaves/pattern/pattern_page.h"
#include "app/sheet/names.h"
#include "app/sheet/units_text.h"
#include "app/theme/theme.h"

namespace nine::app {
PatternLeaf::PatternLeaf(LeafContext context, QObject* parent)
    : Leaf(context, parent), page_(new PatternPage(context)), card_(new CardHolder) {
    connect(&context_.document, &JobDocument::changed, this, &PatternLeaf::rebuildCard);
    connect(&context_.view, &ViewState::changed, this, &PatternLeaf::rebuildCard);
    connect(&context_.results, &Results::bodyChanged, this, &PatternLeaf::rebuildCard);
    connect(page_, &PatternPage::removeWanted, this, &PatternLeaf::removeSelected);
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
    const Status ok = checkElement(e, "");
    if (chip) chip->setWrong(ok ? QString() : said(ok.error()));
    if (!ok) return;
    const auto index = static_cast<std::size_t>(indexOfElement(job(), id));
    context_.document.beginGesture();
    context_.document.edit(withMasksInStep(withElement(job(), index, e)), label);
}

ValueChip* PatternLeaf::chip(Card& card, const QString& name, ValueChip::Kind kind, int decimals,
                             std::function<double(const Element&)> get,
                             std::function<void(Element&, double)> set) {
    ValueChip* c = card.chip(name, kind, decimals, 0.1, {});
    chips_.emplace_back(c, std::move(get));
    // Made for this element, whatever is selected when the value is taken.
    connect(c, &ValueChip::committed, this, [this, c, name, set, id = context_.view.element()](double v) {
        change(
            id, tr("Change %1").arg(name.toLower()), [&](Element& edited) { set(edited, v); }, c);
    });
    return c;
}

template <typename Shape, typename Number>
ValueChip* PatternLeaf::shapeChip(Card& card, const QString& name, int decimals, Number Shape::*member) {
    const auto kind = std::is_integral_v<Number> ? ValueChip::Kind::Count : ValueChip::Kind::Length;
    return chip(
        card, name, kind, decimals,
        [member](const Element& e) {
            const Shape* shape = std::get_if<Shape>(&e.shape);
            return shape ? static_cast<double>(shape->*member) : 0.0;
        },
        [member](Element& e, double v) {
            if (Shape* shape = std::get_if<Shape>(&e.shape)) shape->*member = static_cast<Number>(v);
        });
}

void PatternLeaf::dotSentence(Card& card) {
    card.sentence(
        withUnit(tr("%1 dots, from Ø %2 %U at the shoulder to Ø %3 %U at the tail, %4 %U apart along the "
                    "skin, the middle of the row lifted by %5 %U.")),
        {shapeChip(card, tr("Count"), 0, &DotRow::count),
         shapeChip(card, tr("First diameter"), 2, &DotRow::first_mm),
         shapeChip(card, tr("Last diameter"), 2, &DotRow::last_mm),
         shapeChip(card, tr("Spacing"), 1, &DotRow::spacing_mm),
         shapeChip(card, tr("Bow"), 1, &DotRow::bow_mm)});
}

void PatternLeaf::barSentence(Card& card) {
    card.sentence(
        withUnit(tr(
            "%1 bars, %2 %U apart along the skin, %3 %U wide towards the back and %4 %U towards the belly, "
            "reaching from %5 %U up to %6 %U.")),
        {shapeChip(card, tr("Count"), 0, &Bars::count), shapeChip(card, tr("Spacing"), 1, &Bars::spacing_mm),
         shapeChip(card, tr("Width at the back"), 2, &Bars::widthBack_mm),
         shapeChip(card, tr("Width at the belly"), 2, &Bars::widthBelly_mm),
         shapeChip(card, tr("Lower end"), 1, &Bars::g0_mm),
         shapeChip(card, tr("Upper end"), 1, &Bars::g1_mm)});
}

void PatternLeaf::gillSentence(Card& card) {
    const auto number = ValueChip::Kind::Number;
    const auto percent = [&](const QString& name, double GillMark::*member) {
        return chip(
            card, name, number, 0,
            [member](const Element& e) {
                const GillMark* mark = std::get_if<GillMark>(&e.shape);
                return mark ? 100 * (mark->*member) : 0.0;
            },
            [member](Element& e, double v) {
                if (GillMark* mark = std::get_if<GillMark>(&e.shape)) mark->*member = v / 100;
            });
    };
    card.sentence(
        withUnit(
            tr("A crescent %1 %U wide in the middle, along the gill plate from %2 % to %3 % of its length.")),
        {shapeChip(card, tr("Width"), 1, &GillMark::width_mm), percent(tr("First end"), &GillMark::from),
         percent(tr("Last end"), &GillMark::to)});
    card.sentence(
        withUnit(tr("Sprayed twice, the sheet moved by %1 %U towards the tail between; 0 is once.")),
        {shapeChip(card, tr("Move between the passes"), 1, &GillMark::pair_mm)});
}

void PatternLeaf::placeSentence(Card& card, const Element& e) {
    const auto length = ValueChip::Kind::Length;
    auto* dx = chip(
        card, tr("Distance"), length, 1, [](const Element& x) { return x.dx_mm; },
        [](Element& x, double v) { x.dx_mm = v; });
    auto* dg = chip(
        card, tr("Height"), length, 1, [](const Element& x) { return x.dg_mm; },
        [](Element& x, double v) { x.dg_mm = v; });
    // The landmark is no value to type: it is put into the words before they are laid out.
    const auto anchor = job().blank->landmarks.find(e.anchor);
    const bool point = anchor != job().blank->landmarks.end() && !anchor->second.isCurve();
    card.sentence(
        withUnit(point ? tr("It starts %1 %U behind the %3 and %2 %U above it.")
                       : tr("It starts %1 %U behind the %3 and %2 %U along the skin above the axis."))
            .replace("%3", e.anchor.empty() ? tr("nose") : landmarkName(e.anchor)),
        {dx, dg});
    if (e.dx_mm < 0 || e.dg_mm < 0)
        card.muted(e.dx_mm >= 0 ? tr("A negative height is below it, towards the belly.")
                   : e.dg_mm >= 0
                       ? tr("A negative distance is ahead of it, towards the nose.")
                       : tr("Negative: ahead of it, towards the nose, and below it, towards the belly."));
    QList<Card::Choice> anchors{{tr("nose"), e.anchor.empty(), [this] { anchorTo({}); }}};
    for (const auto& [name, ignored] : job().blank->landmarks)
        if (name != "nose" || e.anchor == name)  // which is where things are measured from anyway
            anchors.append({landmarkName(name), e.anchor == name, [this, name = name] { anchorTo(name); }});
    card.muted(tr("Anchored to"));
    card.choices(anchors);
}

void PatternLeaf::anchorTo(const std::string& landmark) {
    const BodyResult& body = context_.results.body();
    const ElementPtr e = selected();
    if (!e || !body.skin) return;
    const Result<Element> moved = reanchored(*body.skin, job().blank->landmarks, *e, landmark, "");
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

bool PatternLeaf::putBackFirst() {
    const auto& strays = context_.results.body().strays;
    return !strays.empty() && putBack(strays.begin()->first);
}

void PatternLeaf::rebuildCard() {
    if (putOff()) return;
    const ElementPtr e = selected();
    const auto& errors = context_.results.body().artErrors;
    const QString shownFor =
        (e ? QString("%1 %2 %3 %4 %5")
                 .arg(QString::fromStdString(e->id), QString::fromStdString(kindName(*e)))
                 .arg(e->linked)
                 .arg(QString::fromStdString(e->anchor), QString::fromStdString(e->shownName()))
           : QString("none %1").arg(context_.document.empty())) +
        (tokens().dark ? "d" : "l") + lengthUnit() + (errors.empty() ? "" : said(errors.front())) +
        (e && context_.results.body().strays.count(e->id) ? "s" : "") + (e && e->dx_mm < 0 ? "x" : "") +
        (e && e->dg_mm < 0 ? "g" : "");
    if (shownFor == shownFor_) return refreshValues();
    shownFor_ = shownFor;
    chips_.clear();
    auto* card = new Card;
    if (!context_.document.empty()) {
        card->muted(tr("Add"));
        card->choices({{tr("row of dots"), false, [this] { addElement(NewElement::Dots); }},
                       {tr("bars"), false, [this] { addElement(NewElement::Bars); }},
                       {tr("gill mark"), false, [this] { addElement(NewElement::GillMark); }}});
    }
    if (e) {
        card->title(QString::fromStdString(e->shownName()));
        if (std::holds_alternative<DotRow>(e->shape)) dotSentence(*card);
        if (std::holds_alternative<Bars>(e->shape)) barSentence(*card);
        if (std::holds_alternative<GillMark>(e->shape)) gillSentence(*card);
        if (e->known()) {
            placeSentence(*card, *e);
            card->radio(
                {{tr("both sides the same"), e->linked,
                  [this, id = e->id] { change(id, tr("Link sides"), [](Element& x) { x.linked = true; }); }},
                 {tr("this side only"), !e->linked, [this, id = e->id] {
                      change(id, tr("Unlink sides"), [this](Element& x) {
                          x.linked = false;
                          x.side = context_.view.side();
                      });
                  }}});
        } else {
            card->words(tr("A mark of the kind \"%1\", which this version of the program does not know. It "
                           "is kept as "
                           "it is, but not drawn and in no mask; a newer version shows it.")
                            .arg(QString::fromStdString(kindName(*e))));
        }
        for (const Error& error : errors) card->framed(said(error), true);
        if (context_.results.body().strays.count(e->id))
            card->button(tr("Put it back on the body"), Card::Look::Primary,
                         [this, id = e->id] { putBack(id); });
        card->button(tr("Take it out"), Card::Look::Link, [this] { removeSelected(); });
    } else {
        card->words(job().pattern->elements.empty()
                        ? tr("Nothing yet. A row of dots along the side is a good beginning.")
                        : tr("Nothing is selected. Click a mark on the body or in the list."));
    }
    card->finish();
    card_->show(card);
    refreshValues();
}

void PatternLeaf::refreshValues() {
    const ElementPtr e = selected();
    if (!e) return;
    for (const auto& [chip, get] : chips_) chip->setValue(get(*e));
}

double PatternLeaf::freeHeight(double x_mm) const {
    constexpr double kRoom_mm = 1.5;
    const BodyResult& body = context_.results.body();
    const SectionArc arc = body.skin->arcAt(x_mm);
    for (const double height : {0.0, 4.0, -4.0, 8.0, -8.0, 12.0, -12.0}) {
        if (height > arc.backArc() - kRoom_mm || height < kRoom_mm - arc.bellyArc()) continue;
        const bool taken = std::any_of(body.art.begin(), body.art.end(), [&](const ArtPtr& art) {
            return art && !art->outlines.empty() && art->high.x() > x_mm - kRoom_mm &&
                   art->low.y() < height + kRoom_mm && art->high.y() > height - kRoom_mm;
        });
        if (!taken) return height;
    }
    return 0;
}

void PatternLeaf::addElement(NewElement kind) {
    if (context_.document.empty() || !context_.results.body().skin) return;
    const bool bars = kind == NewElement::Bars, gill = kind == NewElement::GillMark;
    const std::string stem = bars ? "bars-" : gill ? "gill-mark-" : "dots-";
    Element e;
    std::set<std::string> ids;
    for (const ElementPtr& other : job().pattern->elements) ids.insert(other->id);
    for (int n = 1; e.id.empty() || ids.count(e.id); ++n) e.id = stem + std::to_string(n);
    e.name = (bars ? tr("Bars") : gill ? tr("Gill mark") : tr("Dots")).toStdString();
    const double length = context_.results.body().skin->length_mm();
    e.dx_mm = gill ? 0.5 : std::round(0.35 * length);
    if (!gill) e.dg_mm = freeHeight(e.dx_mm);
    if (gill) {
        e.anchor = "gill_plate";
        e.shape = GillMark{};
    } else if (bars) {
        e.shape = Bars{};
    } else {
        e.shape = DotRow{};
    }
    PatternChapter pattern = *job().pattern;
    const std::string id = e.id;
    pattern.elements.push_back(std::make_shared<const Element>(std::move(e)));
    Job next = job();
    next.pattern = std::make_shared<const PatternChapter>(std::move(pattern));
    next = withMasksInStep(next);
    context_.document.beginGesture();
    context_.document.edit(next, bars   ? tr("Add bars")
                                 : gill ? tr("Add a gill mark")
                                        : tr("Add a row of dots"));
    context_.view.setElement(id);
    if (!chips_.empty() && chips_.front().first->isVisible()) chips_.front().first->setFocus();
}

void PatternLeaf::removeSelected() {
    const ElementPtr e = selected();
    if (!e) return;
    PatternChapter pattern = *job().pattern;
    std::erase(pattern.elements, e);
    Job next = job();
    next.pattern = std::make_shared<const PatternChapter>(std::move(pattern));
    next = withMasksInStep(next);
    context_.document.beginGesture();
    context_.document.edit(next, tr("Take out an element"));
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
