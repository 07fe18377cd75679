// The card of a selected step: what it is in a sentence, what it makes of what is beneath, what to mend.
#include <algorithm>
#include <cmath>

#include "app/leaves/layers/layers_edits.h"
#include "app/leaves/layers/layers_leaf.h"
#include "app/leaves/layers/layers_page.h"
#include "app/leaves/layers/step_words.h"
#include "app/leaves/layers/swatches.h"
#include "app/sheet/names.h"
#include "app/sheet/units_text.h"
#include "paint/build_up.h"
#include "paint/colour_words.h"

namespace nine::app {
namespace {

QColor colourOf(const Coated& place) {
    return QColor::fromRgb(shown(srgbOf(place, kMatt)));
}

QString paintNames(const std::vector<Bottle>& paints, const std::vector<MixPart>& parts) {
    QStringList names;
    for (const MixPart& part : parts) {
        const Bottle* bottle = findBottle(paints, part.bottle);
        const QString name = QString::fromStdString(bottle ? bottle->name : part.bottle);
        names << (parts.size() > 1 ? LayersLeaf::tr("%1 of %2").arg(part.drops).arg(name) : name);
    }
    return names.join(", ");
}

}  // namespace

void LayersLeaf::sayStep(Card& card, const Step& step) {
    const std::size_t number = placeOf(desk_.layers().recipe, step.id) + 1;
    card.title(tr("%1  %2").arg(number).arg(stepTitle(step)));
    for (const RuleFinding& finding : desk_.study().findings)
        if (finding.step == step.id && !draft()) sayFinding(card, finding);
    if (paints(step.act)) {
        sayFigures(card, step);
        sayPaint(card, step);
        sayWhere(card, step);
        sayDry(card, step);
        sayNearest(card, step);
        sayCup(card, step);
        card.caution(tr("Mist in the air: extraction and a respirator the paint's data sheet names."));
    } else if (step.act == Act::Eyes) {
        sayEyes(card, step);
    } else if (step.act == Act::Clear) {
        sayClear(card, step);
    } else {
        sayDoings(card, step);
    }
    sayHands(card, step);
}

void LayersLeaf::sayFinding(Card& card, const RuleFinding& finding) {
    card.framed(said(finding.says), finding.severity == Severity::Fault);
    if (!finding.repair.plain().empty())
        card.button(said(finding.repair), Card::Look::Primary, [this, finding] { desk_.repair(finding); });
    const auto weigh = [this, rule = finding.rule](Severity severity) {
        context_.document.beginGesture();
        (void)desk_.change(tr("Weigh a rule"), [&](LayersChapter& l) {
            std::erase_if(l.severities, [&](const auto& s) { return s.first == rule; });
            l.severities.emplace_back(rule, severity);
        });
    };
    card.menu(
        tr("Leave it, or weigh it otherwise"),
        {{tr("leave it: do not say this again in this job"), false,
          [this, rule = finding.rule] {
              context_.document.beginGesture();
              (void)desk_.change(tr("Leave a rule be"),
                                 [&](LayersChapter& l) { l.recipe.accepted.push_back(rule); });
          }},
         {tr("only a hint"), finding.severity == Severity::Hint, [weigh] { weigh(Severity::Hint); }},
         {tr("a caution"), finding.severity == Severity::Caution, [weigh] { weigh(Severity::Caution); }},
         {tr("a fault"), finding.severity == Severity::Fault, [weigh] { weigh(Severity::Fault); }}});
}

void LayersLeaf::sayFigures(Card& card, const Step& step) {
    // In one piece: the paint over three grounds, then what follows from it.
    const LayersStudy& study = desk_.study();
    if (!study.on) return;
    const auto paint = paintOf(step, study.on->palette);
    if (!paint) return;
    const Ratio coats = step.mist ? kMistFilm_um / paint->wet_um : filmOf_um(step, *paint) / paint->wet_um;
    const auto over = study.overOf(step.id);
    const Coated white = bare(evenBands(0.93)), black = bare(evenBands(0.02));
    const auto on = [&](const Coated& ground) { return under(ground, paint->film, coats); };
    const Lab best = labOf(on(white), kMatt);
    const auto from = [&](const Coated& seen) {
        const Figure off = difference(best, labOf(seen, kMatt));
        return off < 1 ? tr("the same") : tr("off by %1").arg(off, 0, 'f', 0);
    };
    QList<SwatchRow::Swatch> drops{
        {colourOf(white), colourOf(on(white)), tr("over white"), tr("at its best")}};
    if (over)
        drops.append({colourOf(over->groundPlace), colourOf(over->afterPlace),
                      capital(said(colourWords(over->ground))), tr("now, %1").arg(from(over->afterPlace))});
    drops.append({colourOf(black), colourOf(on(black)), tr("over black"), from(on(black))});
    card.muted(tr("The same %1 over").arg(coatsText(step)));
    card.add(new SwatchRow(drops));
    Card::Facts facts;
    if (over) {
        const bool narrow = step.where.reaches == Reaches::Windows || step.where.reaches == Reaches::Element;
        const ToldApart told = toldApart(over->after, over->ground, narrow);
        facts.append({tr("Against its ground"),
                      tr("%1, %2").arg(apartName(told.word)).arg(told.difference, 0, 'f', 0)});
        // The mark of another step it comes nearest to, where both are still seen.
        const Step* nearest = nullptr;
        Figure least = 1e9;
        for (const Step& other : desk_.layers().recipe.steps) {
            if (other.id == step.id || !other.on || other.where.of == step.where.of ||
                other.paint == step.paint || other.where.reaches == Reaches::Everything)
                continue;
            const auto its = study.overOf(other.id);
            const Figure off = its ? difference(its->after, over->after) : 1e9;
            if (off < least) {
                least = off;
                nearest = &other;
            }
        }
        if (nearest && narrow)
            facts.append(
                {tr("Against %1").arg(stepTitle(*nearest)),
                 tr("%1, %2")
                     .arg(apartName(toldApart(over->after, study.overOf(nearest->id)->after, narrow).word))
                     .arg(least, 0, 'f', 0)});
    }
    facts.append({tr("Dry film"), tr("%1 µm").arg(dryFilmOf_um(step, *paint), 0, 'f', 1)});
    int hides = 0;
    for (int n = 1; n <= 20 && hides == 0; ++n)
        if (showsThrough(paint->film, n, kMatt) < kCovers) hides = n;
    facts.append({tr("Black and white alike"),
                  hides > 0 ? tr("after %1").arg(coatCount(hides)) : tr("never: it stays clear")});
    if (const StepAmount* a = study.amountOf(step.id)) {
        facts.append({capital(forLures(desk_.layers().lures)),
                      tr("%1 drops, %2 ml").arg(a->drops).arg(a->paint_ml + a->reducer_ml, 0, 'f', 2)});
        if (a->fills > 1)
            facts.append({tr("Fills of a %1 ml cup").arg(kCupFill_ml), QString::number(a->fills)});
        facts.append({tr("Skin it reaches"),
                      tr("%1 %").arg(100 * a->area_mm2 / std::max(1.0, study.on->skin_mm2), 0, 'f', 0)});
    }
    card.facts(facts);
}

void LayersLeaf::sayPaint(Card& card, const Step& step) {
    using Kind = ValueChip::Kind;
    const std::string id = step.id;
    // Coats or one mist; then each paint in the cup; then the reducer.
    if (!step.mist)
        card.sentence(tr("%1 coats."), {chip(card, id, tr("Coats"), Kind::Number, 1, 1, step.coats,
                                             [](Step& s, double v) { s.coats = v; })});
    card.choices(
        {{tr("coats"), !step.mist, [=, this] { change(id, tr("Coats"), [](Step& s) { s.mist = false; }); }},
         {tr("one mist"), step.mist,
          [=, this] { change(id, tr("One mist"), [](Step& s) { s.mist = true; }); }}});
    for (std::size_t i = 0; i < step.paint.size(); ++i) {
        const MixPart& part = step.paint[i];
        const std::vector<Bottle> paints = desk_.paints();
        const Bottle* bottle = findBottle(paints, part.bottle);
        const QString name = QString::fromStdString(bottle ? bottle->name : part.bottle);
        card.sentence(
            tr("%1 drops of %2"),
            {chip(card, id, tr("Drops of %1").arg(name), Kind::Number, 1, 1, part.drops,
                  [of = part.bottle](Step& s, double v) {
                      for (MixPart& p : s.paint)
                          if (p.bottle == of) p.drops = v;
                  }),
             card.menuButton(name, paintChoices(part.bottle, [=, this, of = part.bottle](const Bottle& b) {
                                 change(id, tr("Another paint"), [&](Step& s) {
                                     const bool named = s.name == name.toStdString();
                                     for (MixPart& p : s.paint)
                                         if (p.bottle == of) p.bottle = b.id;
                                     if (named) s.name = b.name;
                                 });
                             }))});
        if (!bottle)
            card.caution(
                tr("No paint of this name is on the shelf or in the job: the step lays nothing down."));
        else if (!findBottle(desk_.shelf(), part.bottle) && !isColourOnly(*bottle))
            card.muted(tr("Not on this shelf: the job's own record of it is used."));
    }
    QList<Card::Choice> more = paintChoices({}, [=, this](const Bottle& b) {
        change(id, tr("One more paint"), [&](Step& s) {
            for (MixPart& p : s.paint)
                if (p.bottle == b.id) return;
            s.paint.push_back({b.id, 1});
        });
    });
    card.sentence(tr("and %1 drops of reducer; %2"),
                  {chip(card, id, tr("Reducer"), Kind::Number, 1, 1, step.reducer,
                        [](Step& s, double v) { s.reducer = v; }),
                   card.menuButton(tr("one more paint"), more)});
    if (step.paint.size() > 1) {
        QList<Card::Choice> out;
        for (const MixPart& part : step.paint)
            out.append({paintNames(desk_.paints(), {part}), false, [=, this, of = part.bottle] {
                            change(id, tr("One paint less"), [&](Step& s) {
                                std::erase_if(s.paint, [&](const MixPart& p) { return p.bottle == of; });
                            });
                        }});
        card.menu(tr("Leave one out"), out);
    }
}

void LayersLeaf::sayWhere(Card& card, const Step& step) {
    // In one piece: a menu of all places, then what a fade needs besides.
    using Kind = ValueChip::Kind;
    const std::string id = step.id;
    QList<Card::Choice> ways;
    const auto way = [&](const QString& words, Reaches reaches, const std::string& of) {
        const bool on = step.where.reaches == reaches && (of.empty() || step.where.of == of);
        ways.append({words, on, [=, this] {
                         change(id, tr("Where it goes"), [&](Step& s) {
                             s.where.reaches = reaches;
                             s.where.of = of;
                             if (reaches == Reaches::Fade && of.empty() && s.where.from == FadeFrom::Landmark)
                                 s.where.from = FadeFrom::Back;
                         });
                     }});
    };
    way(tr("everywhere"), Reaches::Everything, {});
    way(tr("faded over skin"), Reaches::Fade, {});
    way(tr("past a card held off"), Reaches::HeldOff, {});
    for (const MaskSpecPtr& mask : maskSpecs(job())) {
        if (mask->side == Side::Right && step.where.of != mask->id) continue;  // its twin stands for both
        const QString name = QString::fromStdString(mask->shownName());
        way(tr("windows of %1").arg(name), Reaches::Windows, mask->id);
        way(tr("round the cut-outs of %1").arg(name), Reaches::Negatives, mask->id);
    }
    if (job().get<ScalesChapter>().net) {
        way(tr("through the net"), Reaches::Net, {});
        way(tr("grazing over the net"), Reaches::Grazing, {});
    }
    for (const ElementPtr& element : job().get<PatternChapter>().elements)
        way(tr("%1, freehand").arg(QString::fromStdString(element->shownName())), Reaches::Element,
            element->id);
    card.menu(tr("Where: %1, %2").arg(whereTag(job(), step), whereKind(step)), ways);
    const Where& w = step.where;
    if (w.reaches != Reaches::Fade && w.reaches != Reaches::HeldOff && w.reaches != Reaches::Grazing) return;
    QList<Card::Choice> from;
    for (const auto& name : fadeNames()) {
        if (name.value == FadeFrom::Landmark) continue;
        from.append({said(Words(name.name)), w.from == name.value, [=, this, value = name.value] {
                         change(id, tr("Where the fade begins"), [&](Step& s) {
                             s.where.from = value;
                             s.where.of.clear();
                         });
                     }});
    }
    const auto round = [&](const QString& words, const std::string& of) {
        from.append({tr("round %1").arg(words), w.from == FadeFrom::Landmark && w.of == of, [=, this] {
                         change(id, tr("Where the fade begins"), [&](Step& s) {
                             s.where.from = FadeFrom::Landmark;
                             s.where.of = of;
                         });
                     }});
    };
    for (const auto& [name, landmark] : job().get<BlankChapter>().landmarks)
        if (!landmark.points.empty()) round(tr("the %1").arg(landmarkName(name)), name);
    for (const ElementPtr& element : job().get<PatternChapter>().elements)
        if (element->isCut()) round(QString::fromStdString(element->shownName()), element->id);
    card.sentence(
        withUnit(tr("It falls off %1, half of it left at %2 %U, over %3 %U of skin, both sides alike.")),
        {card.menuButton(whereTag(job(), step), from),
         chip(card, id, tr("Reach of the fade"), Kind::Length, 1, 0.5, w.reach_mm,
              [](Step& s, double v) { s.where.reach_mm = v; }),
         chip(card, id, tr("Softness of the fade"), Kind::Length, 1, 0.5, w.soft_mm,
              [](Step& s, double v) { s.where.soft_mm = v; })});
}

void LayersLeaf::sayDry(Card& card, const Step& step) {
    const std::string id = step.id;
    QList<Card::Choice> all;
    for (const auto& name : dryNames())
        all.append({said(Words(name.name)), step.dry == name.value, [=, this, value = name.value] {
                        change(id, tr("How dry before the next"), [&](Step& s) { s.dry = value; });
                    }});
    QList<QWidget*> parts{card.menuButton(dryName(step.dry), all)};
    if (step.dry == Dry::Rest) {
        parts.append(chip(card, id, tr("Rest"), ValueChip::Kind::Count, 0, 5, step.rest_min,
                          [](Step& s, double v) { s.rest_min = v; }));
        card.sentence(tr("Before the next step: %1 for %2 min."), parts);
    } else {
        card.sentence(tr("Before the next step: %1."), parts);
    }
}

void LayersLeaf::sayNearest(Card& card, const Step& step) {
    const auto over = desk_.study().overOf(step.id);
    const auto& sought = desk_.sought();
    if (!over) return;
    if (!sought || sought->step != step.id) {
        card.button(tr("Which of my bottles come nearest to this colour?"), Card::Look::Link,
                    [this, over, id = step.id] {
                        SoughtColour colour;
                        colour.step = id;
                        colour.wanted.colour = over->after;
                        Bands ground{};
                        for (std::size_t i = 0; i < kBands; ++i) ground[i] = over->groundPlace.inner[i];
                        colour.wanted.ground = ground;
                        if (const Step* s = desk_.step()) colour.wanted.coats = std::max(1.0, s->coats);
                        desk_.seek(std::move(colour));
                    });
        return;
    }
    sayFound(card, step.id);
}

void LayersLeaf::sayFound(Card& card, const std::string& step) {
    // In one piece: swatches against the wanted colour, then what can be done with each.
    const auto& sought = desk_.sought();
    if (!sought->found) {
        card.muted(tr("Seeking among the bottles of the shelf ..."));
        return;
    }
    card.title(tr("Nearest on my shelf"), false);
    QList<SwatchRow::Swatch> rows;
    const auto seen = [](const Lab& lab) { return QColor::fromRgb(shown(srgbOf(linearOf(xyzOf(lab))))); };
    for (const FoundMix& mix : sought->found->found)
        rows.append({seen(sought->wanted.colour), seen(mix.colour),
                     tr("off by %1").arg(mix.difference, 0, 'f', 1),
                     mix.parts.size() == 1 ? tr("one bottle") : tr("%1 bottles").arg(mix.parts.size())});
    card.add(new SwatchRow(rows));
    card.muted(tr("The drop lies on the wanted colour; below 1 nobody sees the difference."));
    for (std::size_t i = 0; i < sought->found->found.size(); ++i) {
        const FoundMix mix = sought->found->found[i];
        const QString names = paintNames(*sought->shelf, mix.parts);
        if (step.empty()) {
            card.words(names);
            continue;
        }
        card.button(tr("Use %1").arg(names),
                    i == sought->found->offered ? Card::Look::Second : Card::Look::Link, [this, step, mix] {
                        change(step, tr("Use the nearest paint"), [&](Step& s) {
                            s.paint = mix.parts;
                            Ratio drops = 0;
                            for (const MixPart& p : mix.parts) drops += p.drops;
                            s.reducer = std::max(0.5, std::round(2 * drops / 4) / 2);
                        });
                    });
    }
}

void LayersLeaf::sayCup(Card& card, const Step& step) {
    // In one piece: what is in it, its colour, drops to add, what becomes of it.
    if (!cup_ || cupOf_ != step.id) {
        card.button(tr("Try it out in the cup, drop by drop"), Card::Look::Link, [this, step] {
            cup_ = Cup{step.paint, step.reducer};
            cupOf_ = step.id;
            rebuildCard();
        });
        return;
    }
    const auto become = [this](const Result<Cup>& cup) {
        if (!cup) return context_.frame.complain(cup.error());
        cup_ = *cup;
        rebuildCard();
    };
    card.title(tr("In the cup now"), false);
    const std::vector<Bottle> paints = desk_.paints();
    card.words(tr("%1; reducer %2 %, %3 ml in all.")
                   .arg(cup_->parts.empty() ? tr("empty") : paintNames(paints, cup_->parts))
                   .arg(100 * cup_->reducerShare(), 0, 'f', 0)
                   .arg(cup_->volume_ml(), 0, 'f', 2));
    const auto over = desk_.study().overOf(step.id);
    const Coated ground = over ? over->groundPlace : bare(evenBands(0.93));
    std::vector<Bottle> inCup;
    for (const MixPart& part : cup_->parts)
        if (const Bottle* b = findBottle(paints, part.bottle)) inCup.push_back(*b);
    if (!inCup.empty())
        if (const auto mix = mixed(paletteOf(inCup), cup_->parts, "cup"))
            card.add(new SwatchRow(
                {{colourOf(ground), colourOf(under(ground, mix->film, step.mist ? 0.3 : step.coats)),
                  tr("over what is there"), coatsText(step)},
                 {colourOf(bare(evenBands(0.93))),
                  colourOf(under(bare(evenBands(0.93)), mix->film, step.coats)), tr("over white"),
                  coatsText(step)}}));
    QList<Card::Choice> drops;
    for (const MixPart& part : cup_->parts) {
        const QString name = paintNames(paints, {{part.bottle, 1}});
        drops.append({tr("+1 %1").arg(name), false, [=, this] { become(withDrops(*cup_, part.bottle, 1)); }});
        drops.append(
            {tr("+½ %1").arg(name), false, [=, this] { become(withDrops(*cup_, part.bottle, 0.5)); }});
    }
    drops.append({tr("+1 reducer"), false, [=, this] { become(thinned(*cup_, 1)); }});
    drops.append({tr("half of it sprayed"), false, [=, this] { become(Result<Cup>(used(*cup_, 0.5))); }});
    card.choices(drops);
    card.menu(tr("A drop of another paint"), paintChoices({}, [=, this](const Bottle& b) {
                  // Not of the job yet: it is taken along when the mix becomes the step's.
                  become(withDrops(*cup_, b.id, 1));
              }));
    card.choices({{tr("Make this the step"), true,
                   [this, id = step.id] {
                       const Cup cup = *cup_;
                       cup_.reset();
                       change(id, tr("Take the mix of the cup"), [&](Step& s) {
                           s.paint = cup.parts;
                           s.reducer = cup.reducer;
                       });
                   }},
                  {tr("pour it away"), false, [this] {
                       cup_.reset();
                       rebuildCard();
                   }}});
}

void LayersLeaf::sayDoings(Card& card, const Step& step) {
    const std::string id = step.id;
    QList<Card::Choice> all;
    for (const WordName& word : doingsOf(step.act))
        all.append({said(Words(word.name)), step.doing(word.id), [=, this, what = std::string(word.id)] {
                        change(id, tr("What is done in it"), [&](Step& s) {
                            if (std::erase(s.does, what) == 0) s.does.push_back(what);
                        });
                    }});
    if (!all.isEmpty()) card.choices(all);
    if (step.act == Act::MaskOn || step.act == Act::MaskOff) {
        QList<Card::Choice> masks;
        for (const MaskSpecPtr& mask : maskSpecs(job()))
            masks.append(
                {tr("%1 %2").arg(QString::fromStdString(mask->shownName()), QChar(sideLetter(mask->side))),
                 step.mask == mask->id, [=, this, of = mask->id] {
                     change(id, tr("Another mask"), [&](Step& s) { s.mask = of; });
                 }});
        card.menu(tr("Mask: %1").arg(nameOf(job(), step.mask)), masks);
    }
    if (step.act == Act::Lock || step.act == Act::Cure || step.act == Act::Note)
        card.sentence(tr("Wait %1 min before the next step."),
                      {chip(card, id, tr("Wait"), ValueChip::Kind::Count, 0, 10, step.wait_min,
                            [](Step& s, double v) { s.wait_min = v; })});
    if (step.act == Act::Prepare)
        card.caution(tr("Sanding dust: wet, or with extraction and a mask its data sheet names."));
}

void LayersLeaf::sayHands(Card& card, const Step& step) {
    // In one piece: name, note and a row of buttons.
    const std::string id = step.id;
    auto* name = new QLineEdit(QString::fromStdString(step.name));
    name->setAccessibleName(tr("Name of the step"));
    name->setProperty(kOwner, QString::fromStdString(id));
    name->setPlaceholderText(capital(actName(step.act)));
    name->setMaxLength(60);
    connect(name, &QLineEdit::editingFinished, this, [this, name, id] {
        const std::string words = name->text().trimmed().toStdString();
        const Recipe& recipe = desk_.layers().recipe;
        const std::size_t at = placeOf(recipe, id);
        if (at < recipe.steps.size() && recipe.steps[at].name != words)
            change(id, tr("Name a step"), [&](Step& s) { s.name = words; });
    });
    card.add(name);
    auto* note = new QLineEdit(QString::fromStdString(step.note));
    note->setAccessibleName(tr("Note on the step"));
    note->setProperty(kOwner, QString::fromStdString(id));
    note->setPlaceholderText(tr("a note"));
    note->setMaxLength(400);
    connect(note, &QLineEdit::editingFinished, this, [this, note, id] {
        const std::string words = note->text().trimmed().toStdString();
        const Recipe& recipe = desk_.layers().recipe;
        const std::size_t at = placeOf(recipe, id);
        if (at < recipe.steps.size() && recipe.steps[at].note != words)
            change(id, tr("Note on a step"), [&](Step& s) { s.note = words; });
    });
    card.add(note);
    const auto edit = [this](const QString& label, auto how) {
        context_.document.beginGesture();
        const Status ok = desk_.change(label, [&](LayersChapter& l) { l.recipe = how(std::move(l.recipe)); });
        if (!ok) context_.frame.complain(ok.error());
    };
    card.choices({{step.on ? tr("switch off") : tr("switch on"), !step.on,
                   [=, this] { change(id, tr("Switch a step"), [](Step& s) { s.on = !s.on; }); }},
                  {tr("copy"), false,
                   [=, this] {
                       std::string copy;
                       edit(tr("Copy a step"), [&](Recipe r) { return withCopy(std::move(r), id, copy); });
                       desk_.select(copy);
                   }},
                  {tr("up"), false,
                   [this] {
                       context_.document.beginGesture();
                       page_->nudge(1);
                   }},
                  {tr("down"), false,
                   [this] {
                       context_.document.beginGesture();
                       page_->nudge(-1);
                   }},
                  {step.group.empty() ? tr("group with the one below") : tr("out of the group"), false,
                   [=, this, grouped = !step.group.empty()] {
                       if (grouped)
                           change(id, tr("Take a step out of its group"), [](Step& s) { s.group.clear(); });
                       else
                           edit(tr("Group steps"), [&](Recipe r) {
                               return withGroupedBelow(std::move(r), id, tr("group").toStdString());
                           });
                   }},
                  {tr("take out"), false, [=, this] {
                       edit(tr("Take a step out"), [&](Recipe r) { return without(std::move(r), id); });
                   }}});
}

}  // namespace nine::app
