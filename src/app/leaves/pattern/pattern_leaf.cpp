#include "app/leaves/pattern/pattern_leaf.h"

#include <QCoreApplication>
#include <QPainter>
#include <algorithm>
#include <cmath>
#include <map>
#include <set>

#include "app/document/selection.h"
#include "app/leaves/pattern/pattern_page.h"
#include "app/sheet/names.h"
#include "app/sheet/param_sentence.h"
#include "app/sheet/units_text.h"
#include "app/theme/theme.h"

namespace nine::app {
namespace {

constexpr double kBehindCurve_mm = 0.5;  // of a new mark that follows a landmark

/// What a kind looks like, on the button that adds one. Drawn once: cards are built anew all the time, and
/// drawing marks takes milliseconds.
QIcon pictureOf(const Kind& kind) {
    constexpr int kWide_px = kChoicePicture.width(), kHigh_px = kChoicePicture.height();
    constexpr int kBesideWords_px = 6;
    constexpr double kRatio = 2;  // sharp on dense screens too
    static std::map<const Kind*, Result<ElementArt>> drawn;
    auto known = drawn.find(&kind);
    if (known == drawn.end()) known = drawn.emplace(&kind, thumbnailOf(kind)).first;
    const Result<ElementArt>& art = known->second;
    if (!art || art->outlines().empty()) return {};
    const Vec2 middle = 0.5 * (art->low + art->high), size = art->high - art->low;
    const double scale = std::min((kWide_px - kBesideWords_px) / size.x(), (kHigh_px - 1) / size.y());
    QPixmap pixmap(static_cast<int>(kRatio * kWide_px), static_cast<int>(kRatio * kHigh_px));
    pixmap.setDevicePixelRatio(kRatio);
    pixmap.fill(Qt::transparent);
    QPainter p(&pixmap);
    p.setRenderHint(QPainter::Antialiasing);
    p.setPen(Qt::NoPen);
    p.setBrush(tokens().ink);
    for (const Outline& outline : art->outlines()) {
        QPolygonF polygon;
        for (const Vec2& v : outline.skin)
            polygon << QPointF(0.5 * (kWide_px - kBesideWords_px) + scale * (v.x() - middle.x()),
                               0.5 * kHigh_px - scale * (v.y() - middle.y()));
        p.drawPolygon(polygon);
    }
    return pixmap;
}

}  // namespace

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
    context_.document.edit(inStep(withElement(job(), index, e)), label);
}

ValueChip* PatternLeaf::chip(Card& card, const QString& name, ValueChip::Kind kind, int decimals,
                             std::function<double(const Element&)> get,
                             std::function<void(Element&, double)> set) {
    ValueChip* c = card.chip(name, kind, decimals, 0.1, {});
    chips_.emplace_back(c, std::move(get));
    // Made for this element of this kind, whatever is selected when the value is taken.
    connect(c, &ValueChip::committed, this, [this, c, name, set, made = selected()](double v) {
        const ElementPtr now = elementOf(job(), made->id);
        if (!now || now->kind != made->kind) return;
        change(
            made->id, tr("Change %1").arg(name.toLower()), [&](Element& edited) { set(edited, v); }, c);
    });
    return c;
}

ValueChip* PatternLeaf::paramChip(Card& card, const Param& param) {
    const double unit = shownUnits(param);
    return chip(
        card, said(param.name), chipKind(param), param.decimals,
        [key = param.key, unit](const Element& e) { return unit * e.values.number(key); },
        [key = param.key, unit](Element& e, double v) {
            if (e.values.find(key)) e.values.set(key, v / unit);
        });
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
    const auto anchor = job().get<BlankChapter>().landmarks.find(e.anchor);
    const bool point = anchor != job().get<BlankChapter>().landmarks.end() && !anchor->second.isCurve();
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
    for (const auto& [name, ignored] : job().get<BlankChapter>().landmarks)
        if (name != "nose" || e.anchor == name)  // which is where things are measured from anyway
            anchors.append({landmarkName(name), e.anchor == name, [this, name = name] { anchorTo(name); }});
    card.muted(tr("Anchored to"));
    card.choices(anchors);
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

void PatternLeaf::rebuildCard() {
    // In one piece: a card, from top to foot.
    if (putOff()) return;
    const ElementPtr e = selected();
    const auto& errors = context_.results.body().artErrors;
    const QString shownFor =
        (e ? QString("%1 %2 %3 %4 %5")
                 .arg(QString::fromStdString(e->id), QString::fromStdString(e->kind))
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
        QList<Card::Choice> all;
        for (const Kind* kind : kinds())
            all.append({said(kind->name()), false, [this, kind] { addElement(*kind); }, pictureOf(*kind)});
        card->choices(all);
    }
    if (e) {
        card->title(QString::fromStdString(e->shownName()));
        if (const Kind* kind = findKind(e->kind))
            for (const Pattern& sentence : kind->sentences())
                paramSentence(*card, sentence, kind->params(),
                              [&](const Param& p) { return paramChip(*card, p); });
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
                            .arg(QString::fromStdString(e->kind)));
        }
        for (const Error& error : errors) card->framed(said(error), true);
        if (context_.results.body().strays.count(e->id))
            card->button(tr("Put it back on the body"), Card::Look::Primary,
                         [this, id = e->id] { putBack(id); });
        card->button(tr("Take it out"), Card::Look::Link, [this] { removeSelected(); });
    } else {
        card->words(job().get<PatternChapter>().elements.empty()
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
    Element e;
    std::string stem(kind.id());
    std::replace(stem.begin(), stem.end(), '_', '-');
    std::set<std::string> ids;
    for (const ElementPtr& other : job().get<PatternChapter>().elements) ids.insert(other->id);
    for (int n = 1; e.id.empty() || ids.count(e.id); ++n) e.id = stem + "-" + std::to_string(n);
    e.name = capital(said(kind.onMask())).toStdString();
    e.kind = kind.id();
    e.values = usualValues(kind);
    e.anchor = kind.alongCurve();
    e.dx_mm = kBehindCurve_mm;
    if (e.anchor.empty()) {
        e.dx_mm = std::round(0.35 * context_.results.body().skin->length_mm());
        e.dg_mm = freeHeight(e.dx_mm);
    }
    PatternChapter pattern = job().get<PatternChapter>();
    const std::string id = e.id;
    pattern.elements.push_back(std::make_shared<const Element>(std::move(e)));
    Job next = job();
    next = next.with(std::move(pattern));
    next = inStep(next);
    context_.document.beginGesture();
    context_.document.edit(next, tr("Add %1").arg(said(kind.name())));
    context_.view.setElement(id);
    if (!chips_.empty() && chips_.front().first->isVisible()) chips_.front().first->setFocus();
}

void PatternLeaf::removeSelected() {
    const ElementPtr e = selected();
    if (!e) return;
    PatternChapter pattern = job().get<PatternChapter>();
    std::erase(pattern.elements, e);
    Job next = job();
    next = next.with(std::move(pattern));
    next = inStep(next);
    context_.document.beginGesture();
    context_.document.edit(next, tr("Take out an element"));
}

std::vector<Flag> PatternLeaf::flags() {
    const BodyResult& body = context_.results.body();
    std::vector<Flag> flags;
    if (context_.document.empty()) return flags;
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
    e.built = true;
    if (job().get<PatternChapter>().elements.empty()) return e;
    const int errors = static_cast<int>(context_.results.body().artErrors.size());
    e.state = errors > 0 ? LeafState::Repair : LeafState::Ready;
    e.flags = errors;
    e.fault = errors > 0;
    return e;
}

}  // namespace nine::app
