// The card of the Pattern leaf: what the selected mark is, in sentences with its values; what can be made of
// it; the same pattern on another blank.
#include <QColorDialog>
#include <QLineEdit>
#include <QMenu>
#include <algorithm>
#include <cmath>

#include "app/document/selection.h"
#include "app/leaves/pattern/pattern_leaf.h"
#include "app/leaves/pattern/pattern_page.h"
#include "app/sheet/curve_field.h"
#include "app/sheet/names.h"
#include "app/sheet/param_sentence.h"
#include "app/sheet/units_text.h"
#include "app/theme/theme.h"
#include "cut/estimate.h"
#include "pattern/natural.h"

namespace nine::app {
namespace {

constexpr double kClear_mm = 0.5;  // kept from a mark when nothing else is said

QString ruleWord(Refit refit) {
    switch (refit) {
        case Refit::WithLength:
            return PatternLeaf::tr("with the length");
        case Refit::WithGirth:
            return PatternLeaf::tr("with the girth");
        case Refit::WithGirthRoot:
            return PatternLeaf::tr("with the root of the girth");
        case Refit::Fixed:
            break;
    }
    return PatternLeaf::tr("stays");
}

/// A row of marks as chance leaves it: punched, natural, wild.
QIcon naturalIcon(int level) {
    constexpr double kDense = 2;
    QPixmap pixmap(static_cast<int>(kDense * kChoicePicture.width()),
                   static_cast<int>(kDense * kChoicePicture.height()));
    pixmap.setDevicePixelRatio(kDense);
    pixmap.fill(Qt::transparent);
    QPainter p(&pixmap);
    p.setRenderHint(QPainter::Antialiasing);
    p.setPen(Qt::NoPen);
    p.setBrush(tokens().ink);
    const std::vector<Off> offs = offsOf({level * 1.1, level * 0.14, 0, 3}, 5, 12);
    for (std::size_t i = 0; i < offs.size(); ++i) {
        const double x = 3.5 + 5.8 * static_cast<double>(i) + offs[i].along_mm,
                     y = 7 + 1.7 * offs[i].across_mm;
        p.drawEllipse(QPointF(x, y), 2.1 * offs[i].size, 2.1 * offs[i].size);
    }
    return pixmap;
}

/// The size that wandering is measured by.
double sizeOf(const Element& e) {
    for (const char* key : {"first_mm", "width_back_mm", "along_mm"})
        if (e.values.find(key)) return e.values.number(key);
    return 2;
}

int naturalLevel(const Element& e) {
    for (int level = 0; level < 3; ++level) {
        const Natural now = nine::naturalOf(e.values),
                      would = nine::naturalOf(withNatural(e.values, level, sizeOf(e)));
        if (now.wander_mm == would.wander_mm && now.vary == would.vary && now.rough == would.rough)
            return level;
    }
    return -1;
}

}  // namespace

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

QWidget* PatternLeaf::paramChip(Card& card, const Param& param) {
    const ElementPtr made = selected();
    if (param.type == Param::Type::Choice) {
        QPushButton* word = choiceChip(param, [this, id = made->id, &param](const std::string& value) {
            change(id, tr("Change %1").arg(said(param.name).toLower()),
                   [&](Element& e) { e.values.set(param.key, value); });
        });
        word->setText(choiceWord(param, made->values.text(param.key)));
        return word;
    }
    if (!param.isNumber()) {
        auto* field = new QLineEdit(QString::fromStdString(made->values.text(param.key)));
        field->setObjectName("chip");
        field->setAccessibleName(said(param.name));
        field->setMaximumWidth(140);
        connect(field, &QLineEdit::editingFinished, this, [this, field, id = made->id, &param] {
            const ElementPtr now = elementOf(job(), id);
            const std::string typed = field->text().toStdString();
            if (!now || now->values.text(param.key) == typed) return;
            change(id, tr("Change %1").arg(said(param.name).toLower()),
                   [&](Element& e) { e.values.set(param.key, typed); });
        });
        return field;
    }
    const double unit = shownUnits(param);
    return chip(
        card, said(param.name), chipKind(param), param.decimals,
        [key = param.key, unit](const Element& e) { return unit * e.values.number(key); },
        [key = param.key, unit](Element& e, double v) {
            if (e.values.find(key)) e.values.set(key, v / unit);
        });
}

void PatternLeaf::placeSentence(Card& card, const Element& e) {
    const Kind& kind = *findKind(e.kind);
    if (kind.isDerived()) return;
    const auto length = ValueChip::Kind::Length;
    auto* dx = chip(
        card, tr("Distance"), length, 1, [](const Element& x) { return x.dx_mm; },
        [](Element& x, double v) { x.dx_mm = v; });
    auto* dg = chip(
        card, tr("Height"), length, 1, [](const Element& x) { return x.dg_mm; },
        [](Element& x, double v) { x.dg_mm = v; });
    if (!kind.hasOrigin()) {
        card.sentence(withUnit(tr("All of it moved %1 %U to the tail and %2 %U to the back.")), {dx, dg});
        return;
    }
    auto* from = new QPushButton(e.anchor.empty() ? tr("nose") : landmarkName(e.anchor));
    from->setObjectName("word");
    from->setAccessibleName(tr("Anchored to"));
    auto* menu = new QMenu(from);
    menu->addAction(tr("nose"), this, [this] { anchorTo({}); });
    for (const auto& [name, ignored] : job().get<BlankChapter>().landmarks)
        if (name != "nose" || e.anchor == name)  // which is where things are measured from anyway
            menu->addAction(landmarkName(name), this, [this, name = name] { anchorTo(name); });
    from->setMenu(menu);
    const auto anchor = job().get<BlankChapter>().landmarks.find(e.anchor);
    const bool point = anchor != job().get<BlankChapter>().landmarks.end() && !anchor->second.isCurve();
    card.sentence(
        withUnit(point ? tr("It starts %1 %U behind the %3 and %2 %U above it.")
                       : tr("It starts %1 %U behind the %3 and %2 %U along the skin above the axis.")),
        {dx, dg, from});
    if (e.dx_mm < 0 || e.dg_mm < 0)
        card.muted(e.dx_mm >= 0 ? tr("A negative height is below it, towards the belly.")
                   : e.dg_mm >= 0
                       ? tr("A negative distance is ahead of it, towards the nose.")
                       : tr("Negative: ahead of it, towards the nose, and below it, towards the belly."));
}

namespace {

/// The values when a point of a curve is moved to so many mm, each within its limits.
Values withPoint(const Kind& kind, Values values, const Curve& curve, int point, double mm) {
    const std::string_view key = point == CurveField::First  ? curve.first
                                 : point == CurveField::Last ? curve.last
                                                             : curve.middle;
    if (point == CurveField::Middle)
        curve.setMiddle(values, mm);
    else
        values.set(key, mm);
    if (const Param* p = findParam(kind, key))
        values.set(key, std::clamp(values.number(key), p->low, p->high));
    return values;
}

}  // namespace

void PatternLeaf::curvesOf(Card& card, const Kind& kind) {
    for (const Curve& curve : kind.curves()) {
        card.muted(said(curve.name));
        CurveField::Shape shape;
        shape.from = said(curve.from);
        shape.to = said(curve.to);
        shape.widths = curve.ofWidths;
        shape.movable[CurveField::First] = !curve.first.empty();
        shape.movable[CurveField::Middle] = curve.setMiddle != nullptr;
        shape.movable[CurveField::Last] = !curve.last.empty();
        const std::string id = selected()->id;
        shape.with = [this, id, &kind, &curve](CurveField::Point point, double mm) -> CurveField::Run {
            const ElementPtr e = elementOf(job(), id);
            if (!e || e->kind != kind.id()) return [](double) { return 0.0; };
            return [values = withPoint(kind, e->values, curve, point, mm), at = curve.at](double t) {
                return at(values, t);
            };
        };
        auto* field = new CurveField(said(curve.name), std::move(shape));
        curves_.emplace_back(field, &curve);
        connect(field, &CurveField::moved, this,
                [this, id, &curve](int point, double mm) { setCurve(id, curve, point, mm); });
        card.add(field);
    }
}

void PatternLeaf::setCurve(const std::string& id, const Curve& curve, int point, double mm) {
    const ElementPtr e = elementOf(job(), id);
    const Kind* kind = e ? findKind(e->kind) : nullptr;
    if (!kind) return;
    change(id, tr("Change %1").arg(said(curve.name).toLower()),
           [&](Element& x) { x.values = withPoint(*kind, x.values, curve, point, mm); });
}

void PatternLeaf::oneMore(Card& card, const Element& e) {
    if (e.isCentral() || findKind(e.kind)->isDerived()) return;
    const auto add = [this, id = e.id](bool both) {
        Ids made;
        Job next = withDuplicates(job(), withGroups(job(), {id}), made);
        next = withEach(next, made, [&](Element& x) {
            if (x.isCentral()) return;
            x.linked = both;
            x.side = both ? Side::Left : context_.view.side();
        });
        context_.document.beginGesture();
        context_.document.edit(inStep(std::move(next)), tr("One more"));
        if (!made.empty()) context_.view.setElement(*made.begin());
    };
    card.muted(tr("One more of it"));
    card.choices({{tr("on this side"), false, [add] { add(false); }},
                  {tr("on both sides"), false, [add] { add(true); }}});
}

void PatternLeaf::sidesOf(Card& card, const Element& e) {
    if (e.isCentral()) {
        card.muted(tr("One piece for both sides."));
        return;
    }
    const bool chance = e.values.find(kSeedKey) != nullptr;
    QList<Card::Choice> all{{tr("both sides the same"), e.linked && !e.ownSides, [this, id = e.id] {
                                 change(id, tr("Link sides"), [](Element& x) {
                                     x.linked = true;
                                     x.ownSides = false;
                                 });
                             }}};
    if (chance)
        all.append({tr("both sides, each its own"), e.linked && e.ownSides, [this, id = e.id] {
                        change(id, tr("Sides of their own"), [](Element& x) {
                            x.linked = true;
                            x.ownSides = true;
                        });
                    }});
    all.append({tr("this side only"), !e.linked, [this, id = e.id] {
                    change(id, tr("Unlink sides"), [this](Element& x) {
                        x.linked = false;
                        x.side = context_.view.side();
                    });
                }});
    card.radio(all);
}

void PatternLeaf::naturalOf(Card& card, const Element& e) {
    if (!e.values.find("vary")) return;
    card.muted(tr("How natural"));
    QList<Card::Choice> all;
    const int now = naturalLevel(e);
    const QStringList names{tr("punched"), tr("natural"), tr("wild")};
    for (int level = 0; level < 3; ++level)
        all.append({names[level], now == level,
                    [this, id = e.id, level] {
                        change(id, tr("How natural"),
                               [&](Element& x) { x.values = withNatural(x.values, level, sizeOf(x)); });
                    },
                    naturalIcon(level)});
    card.choices(all);
    const Kind& kind = *findKind(e.kind);
    if (now == 0 && e.values.number(kSeedKey) == 1) return;
    QList<QWidget*> values;
    for (const char* key : {"wander_mm", "vary", "rough", "seed"})
        if (const Param* p = findParam(kind, key)) values.append(paramChip(card, *p));
    card.sentence(withUnit(tr("Wander %1 %U, size ± %2 %, outline ± %3 %, seed %4.")), values);
    card.button(tr("Another seed"), Card::Look::Link, [this, id = e.id] {
        change(id, tr("Another seed"),
               [](Element& x) { x.values.set(kSeedKey, std::fmod(x.values.number(kSeedKey) + 1, 10000)); });
    });
}

void PatternLeaf::fineness(Card& card, const Element& e) {
    if (!e.isCut()) {
        card.muted(tr("Sprayed free-hand or through a net: it needs no mask."));
        return;
    }
    if (!found_.art || found_.art->element != e.id) return;
    const CutTool& tool = toolOf(job().get<CutChapter>());
    const Features& f = found_.features;
    const bool fine = f.narrowest_mm >= tool.smallest_mm && (f.web_mm == 0 || f.web_mm >= tool.smallest_mm);
    if (fine) return;
    card.framed(
        (f.narrowest_mm < tool.smallest_mm
             ? tr("Its narrowest opening is %1 wide").arg(lengthText(f.narrowest_mm, 2))
             : tr("Only %1 of sheet is left between two of its openings").arg(lengthText(f.web_mm, 2))) +
            tr("; a %1 manages %2. Make it larger or farther apart, or leave it to a net.")
                .arg(said(tool.name), lengthText(tool.smallest_mm, 1)),
        false);
}

void PatternLeaf::derivedOf(Card& card, const Element& e) {
    if (findKind(e.kind)->isDerived() || !e.isCut()) return;
    card.muted(tr("Round this mark"));
    QList<Card::Choice> all;
    for (const Kind* kind : kinds())
        if (kind->isDerived()) all.append({said(kind->onMask()), false, [this, kind] { addDerived(*kind); }});
    card.choices(all);
}

void PatternLeaf::neighboursOf(Card& card, const Element& e) {
    QList<Card::Choice> all;
    for (const ElementPtr& other : job().get<PatternChapter>().elements) {
        if (other->id == e.id || !other->isCut()) continue;
        const bool on = std::find(e.clearOf.begin(), e.clearOf.end(), other->id) != e.clearOf.end();
        all.append({(on ? QString::fromUtf8("✓ ") : QString()) + QString::fromStdString(other->shownName()),
                    on, [this, id = e.id, otherId = other->id, on] {
                        change(id, tr("Keep clear of a mark"), [&](Element& x) {
                            if (on)
                                std::erase(x.clearOf, otherId);
                            else
                                x.clearOf.push_back(otherId);
                            if (!on && x.clear_mm == 0) x.clear_mm = kClear_mm;
                        });
                    }});
    }
    if (all.isEmpty()) return;
    card.menu(e.clearOf.empty() ? tr("Keeps clear of nothing")
                                : tr("Keeps clear of %n mark(s)", "", static_cast<int>(e.clearOf.size())),
              all);
    if (e.clearOf.empty()) return;
    auto* by = chip(
        card, tr("Distance kept clear"), ValueChip::Kind::Length, 2,
        [](const Element& x) { return x.clear_mm; }, [](Element& x, double v) { x.clear_mm = v; });
    card.sentence(withUnit(tr("by %1 %U; what is nearer is cut off, spots that would be are left out.")),
                  {by});
}

void PatternLeaf::rulesOf(Card& card, const Element& e) {
    QList<Card::Choice> all;
    const auto entry = [&](const std::string& key, const QString& name) {
        const Refit now = ruleOf(e, key);
        all.append({tr("%1: %2").arg(name, ruleWord(now)), false, [this, id = e.id, key, now] {
                        change(id, tr("Change a rule"), [&](Element& x) {
                            x.rules[key] = static_cast<Refit>((static_cast<int>(now) + 1) % 4);
                        });
                    }});
    };
    entry("dx_mm", tr("Distance"));
    entry("dg_mm", tr("Height"));
    for (const Param& p : findKind(e.kind)->params())
        if (p.type == Param::Type::Length || p.type == Param::Type::Count || p.type == Param::Type::Path)
            entry(std::string(p.key), said(p.name));
    card.menu(tr("On another blank ..."), all);
}

void PatternLeaf::refitCard(Card& card, const RefitPreview& preview) {
    card.title(tr("%1 on %2")
                   .arg(QString::fromStdString(job().get<PatternChapter>().name),
                        QString::fromStdString(preview.blank.name)));
    if (!preview.refit) {
        card.words(tr("This blank has no body that can be worn."));
    } else {
        const RefittedJob& refit = *preview.refit;
        int well = 0;
        for (const RefittedElement& e : refit.elements) well += isTrouble(e.fate) ? 0 : 1;
        card.words(tr("%1 of %2 marks lie well.").arg(well).arg(refit.elements.size()));
        std::vector<std::string> mendable;
        for (const RefittedElement& e : refit.elements) {
            if (!isTrouble(e.fate)) continue;
            card.framed(said(e.says), true);
            if (!e.repaired) continue;
            mendable.push_back(e.id);
            card.button(capital(said(e.repair)), Card::Look::Link, [this, id = e.id] { desk_.mend({id}); });
        }
        if (mendable.size() > 1)
            card.button(tr("Mend all that can be"), Card::Look::Second,
                        [this, mendable] { desk_.mend(mendable); });
        for (const Warning& warning : refit.warnings) card.muted(said(warning.words));
        card.button(tr("Make this a job"), Card::Look::Primary, [this] { makeJobOfRefit(); });
        QString rest;
        for (const RefittedElement& e : refit.elements)
            if (!isTrouble(e.fate)) rest += (rest.isEmpty() ? "" : "<br>") + said(e.says).toHtmlEscaped();
        card.muted(rest);
    }
    card.button(tr("Back to the marks"), Card::Look::Link, [this] { desk_.choose({}); });
}

QString PatternLeaf::cardShape() const {
    const ElementPtr e = selected();
    const BodyResult& body = context_.results.body();
    if (const RefitPreview* preview = desk_.chosenPreview())
        return QString("refit %1 %2 %3")
            .arg(QString::fromStdString(preview->blank.name))
            .arg(desk_.revision())
            .arg(tokens().dark);
    QString shape = (tokens().dark ? "d" : "l") + lengthUnit();
    if (!body.artErrors.empty()) shape += said(body.artErrors.front());
    if (!e)
        return shape + QString("none %1 %2")
                           .arg(context_.document.empty())
                           .arg(job().get<PatternChapter>().elements.empty());
    shape += QString("%1 %2 %3%4%5 %6 %7 %8 %9")
                 .arg(QString::fromStdString(e->id), QString::fromStdString(e->kind))
                 .arg(e->linked)
                 .arg(e->ownSides)
                 .arg(e->locked)
                 .arg(QString::fromStdString(e->anchor), QString::fromStdString(e->shownName()),
                      QString::fromStdString(e->colour), QString::fromStdString(e->of));
    shape += QString::fromStdString(job().get<CutChapter>().tool);
    for (const std::string& id : e->clearOf) shape += ' ' + QString::fromStdString(id);
    for (const auto& [key, refit] : e->rules)
        shape += ' ' + QString::fromStdString(key) + QString::number(static_cast<int>(refit));
    if (const Kind* kind = findKind(e->kind))
        for (const Param& p : kind->params())
            if (!p.isNumber()) shape += ' ' + QString::fromStdString(e->values.text(p.key));
    shape += QString(" n%1 %2").arg(naturalLevel(*e)).arg(job().get<PatternChapter>().elements.size());
    if (found_.art && found_.art->element == e->id)
        shape += QString(" %1 %2")
                     .arg(found_.features.narrowest_mm, 0, 'f', 1)
                     .arg(found_.features.web_mm, 0, 'f', 1);
    return shape + (body.strays.count(e->id) ? "s" : "") + (e->dx_mm < 0 ? "x" : "") +
           (e->dg_mm < 0 ? "g" : "") + QString::number(context_.view.alsoSelected().size());
}

void PatternLeaf::rebuildCard() {
    // In one piece: a card, from top to foot.
    if (putOff()) return;
    requestFeatures();
    const ElementPtr e = selected();
    const auto& errors = context_.results.body().artErrors;
    const QString shape = cardShape();
    if (shape == shownFor_) return refreshValues();
    shownFor_ = shape;
    chips_.clear();
    curves_.clear();
    auto* card = new Card;
    if (const RefitPreview* preview = desk_.chosenPreview()) {
        refitCard(*card, *preview);
    } else if (e) {
        card->title(QString::fromStdString(e->shownName()));
        if (!context_.view.alsoSelected().empty())
            card->muted(tr("%n more selected: they move and are copied together.", "",
                           static_cast<int>(context_.view.alsoSelected().size())));
        const Kind* kind = findKind(e->kind);
        if (kind) {
            for (const Pattern& sentence : kind->sentences())
                paramSentence(*card, sentence, kind->params(),
                              [&](const Param& p) { return paramChip(*card, p); });
            placeSentence(*card, *e);
            curvesOf(*card, *kind);
            naturalOf(*card, *e);
            sidesOf(*card, *e);
            oneMore(*card, *e);
            fineness(*card, *e);
        } else {
            card->words(tr("A mark of the kind \"%1\", which this version of the program does not know. It "
                           "is kept as "
                           "it is, but not drawn and in no mask; a newer version shows it.")
                            .arg(QString::fromStdString(e->kind)));
        }
        const int index = indexOfElement(job(), e->id);
        const auto& art = context_.results.body().art;
        if (index >= 0 && static_cast<std::size_t>(index) < art.size() &&
            art[static_cast<std::size_t>(index)])
            for (const Warning& w : art[static_cast<std::size_t>(index)]->warnings)
                card->framed(said(w.words), false);
        for (const Error& error : errors) card->framed(said(error), true);
        if (context_.results.body().strays.count(e->id))
            card->button(tr("Put it back on the body"), Card::Look::Primary,
                         [this, id = e->id] { putBack(id); });
        if (kind) {
            card->button(tr("Colour ..."), Card::Look::Link, [this, id = e->id, now = e->colour, index] {
                const QColor from = QColor::fromRgb(
                    colourOf(*elementOf(job(), id), static_cast<std::size_t>(std::max(0, index))));
                const QColor picked =
                    QColorDialog::getColor(from, context_.frame.dialogParent(), tr("Colour of the mark"),
                                           QColorDialog::DontUseNativeDialog);
                if (picked.isValid())
                    change(id, tr("Change the colour"),
                           [&](Element& x) { x.colour = picked.name().toStdString(); });
            });
            derivedOf(*card, *e);
            neighboursOf(*card, *e);
            rulesOf(*card, *e);
        }
        card->button(tr("Take it out"), Card::Look::Link, [this] { removeSelected(); });
    } else {
        card->words(
            job().get<PatternChapter>().elements.empty()
                ? tr("Nothing yet. Take a mark from the strip above the body and click where it is to "
                     "start; a row of dots along the side is a good beginning.")
                : tr("Nothing is selected. Click a mark on the body or in the list."));
    }
    card->finish();
    card_->show(card);
    refreshValues();
}

}  // namespace nine::app
