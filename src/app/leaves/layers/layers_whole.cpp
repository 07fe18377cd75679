// The card of the whole recipe: beginning one, eyes and clear, amounts for the lures, what else is to mend.
#include <QColorDialog>
#include <QDate>
#include <algorithm>
#include <cmath>

#include "app/leaves/layers/layers_leaf.h"
#include "app/leaves/layers/step_words.h"
#include "app/sheet/names.h"
#include "app/sheet/units_text.h"
#include "job/finish_job.h"

namespace nine::app {

void LayersLeaf::sayBegin(Card& card) {
    card.title(tr("Begin a recipe"), false);
    if (desk_.beginning()) {
        card.words(tr("Making a recipe from the pattern, its masks and the net ..."));
        card.button(tr("Stop"), Card::Look::Second, [this] { desk_.stopBeginning(); });
        return;
    }
    card.words(
        tr("From the pattern, its masks and the net, with the paints that come nearest on your shelf. What "
           "its own rules find is mended."));
    card.button(tr("Light to dark"), Card::Look::Primary, [this] { desk_.begin(School::LightToDark); });
    card.button(tr("Back first, and let it fall"), Card::Look::Second,
                [this] { desk_.begin(School::BackFirst); });
    if (job().get<LayersChapter>().recipe.steps.empty()) sayAdd(card);
}

void LayersLeaf::sayAdd(Card& card) {
    QList<Card::Choice> acts;
    for (const auto& name : actNames())
        acts.append({capital(said(Words(name.name))), false, [this, act = name.value] { add(act); }});
    card.menu(tr("Add a step"), acts);
}

void LayersLeaf::sayRecipe(Card& card) {
    // In one piece: adding, the shelf, amounts, then what is to mend elsewhere.
    const LayersStudy& study = desk_.study();
    const LayersChapter& l = desk_.layers();
    card.title(tr("The recipe"), false);
    sayAdd(card);
    if (study.error) card.framed(said(*study.error), true);
    if (study.on)
        for (const Warning& warning : study.on->warnings) card.caution(said(warning));
    auto* lures = card.chip(tr("Lures"), ValueChip::Kind::Count, 0, 1, {});
    lures->setValue(l.lures);
    connect(lures, &ValueChip::committed, this, [this, lures](double v) {
        context_.document.beginGesture();
        const Status ok = desk_.change(tr("Change the number of lures"), [v](LayersChapter& x) {
            x.lures = static_cast<int>(std::lround(std::clamp(v, -1e6, 1e6)));
        });
        lures->setWrong(ok ? QString() : said(ok.error()));
    });
    card.sentence(tr("%1 lures painted alike."), {lures});
    // Of each bottle over all steps.
    std::vector<std::pair<std::string, double>> drops;
    double reducer_ml = 0;
    for (const StepAmount& a : study.amounts) {
        const std::size_t place = placeOf(l.recipe, a.step);
        if (place >= l.recipe.steps.size()) continue;
        const Step& step = l.recipe.steps[place];
        Ratio all = 0;
        for (const MixPart& part : step.paint) all += part.drops;
        for (const MixPart& part : step.paint) {
            const double ml = all > 0 ? a.paint_ml * part.drops / all : 0;
            const auto known = std::find_if(drops.begin(), drops.end(),
                                            [&](const auto& d) { return d.first == part.bottle; });
            if (known == drops.end())
                drops.emplace_back(part.bottle, ml);
            else
                known->second += ml;
        }
        reducer_ml += a.reducer_ml;
    }
    Card::Facts facts;
    for (const auto& [id, ml] : drops) {
        const Bottle* bottle = findBottle(l.paints, id);
        QString amount = tr("%1 ml").arg(ml, 0, 'f', 2);
        if (bottle && bottle->left_ml > 0 && ml > bottle->left_ml) amount += tr(", more than is left");
        facts.append({QString::fromStdString(bottle ? bottle->name : id), amount});
    }
    if (reducer_ml > 0) facts.append({tr("Reducer"), tr("%1 ml").arg(reducer_ml, 0, 'f', 2)});
    if (!facts.isEmpty()) card.facts(facts);
    card.muted(
        tr("With what flies past (about two thirds) and what stays in the cup: guesses until you have "
           "weighed a bottle before and after."));
    card.choices({{tr("Shelf of paints ..."), false, [this] { openShelf(); }},
                  {tr("Bottles for a colour ..."), false, [this] { seekColour(); }},
                  {tr("Pattern as painted"), everywhere_, [this] {
                       showEverywhere(!everywhere_);
                       rebuildCard();
                   }}});
    if (desk_.sought() && desk_.sought()->step.empty()) sayFound(card, {});
    if (study.on && !study.coarse) {
        const BellyFromBelow below = seenFromBelow(*study.on);
        card.facts({{tr("From below, against the surface"),
                     tr("%1 % as bright: a dark shape").arg(100 * below.share, 0, 'f', 1)}});
    }
    if (draft()) return;
    int elsewhere = 0;
    for (const RuleFinding& finding : study.findings) {
        if (desk_.step() && finding.step == desk_.step()->id) continue;
        if (elsewhere++ == 0) card.title(tr("To read before you begin"), false);
        const std::size_t place = placeOf(l.recipe, finding.step);
        if (place < l.recipe.steps.size())
            card.button(tr("Step %1, %2").arg(place + 1).arg(stepTitle(l.recipe.steps[place])),
                        Card::Look::Link, [this, id = finding.step] { desk_.select(id); });
        sayFinding(card, finding);
    }
    if (!l.recipe.accepted.empty())
        card.button(tr("Say the rules again that were left be (%1)").arg(l.recipe.accepted.size()),
                    Card::Look::Link, [this] {
                        context_.document.beginGesture();
                        (void)desk_.change(tr("Say all rules again"),
                                           [](LayersChapter& x) { x.recipe.accepted.clear(); });
                    });
    QList<Card::Choice> anew{
        {tr("light to dark"), false, [this] { desk_.begin(School::LightToDark); }},
        {tr("back first, and let it fall"), false, [this] { desk_.begin(School::BackFirst); }}};
    if (desk_.beginning())
        card.button(tr("Making a recipe; stop"), Card::Look::Second, [this] { desk_.stopBeginning(); });
    else
        card.menu(tr("Begin anew from the pattern"), anew);
}

void LayersLeaf::seekColour() {
    const QColor colour = QColorDialog::getColor(QColor(120, 105, 60), context_.frame.dialogParent(),
                                                 tr("A colour to be mixed"));
    if (!colour.isValid()) return;
    SoughtColour sought;
    sought.wanted.colour = labOf(xyzOf(linearOf(srgbOf(colour.rgb()))));
    desk_.seek(std::move(sought));
}

void LayersLeaf::sayEyes(Card& card, const Step& step) {
    const std::string id = step.id;
    card.sentence(withUnit(tr("Eyes %1 %U across, glued; wait %2 min before the clear.")),
                  {chip(card, id, tr("Eyes"), ValueChip::Kind::Length, 1, 0.5, step.eye_mm,
                        [](Step& s, double v) { s.eye_mm = v; }),
                   chip(card, id, tr("Wait"), ValueChip::Kind::Count, 0, 5, step.wait_min,
                        [](Step& s, double v) { s.wait_min = v; })});
    QList<Card::Choice> all;
    for (const WordName& glue : glues())
        all.append({said(Words(glue.name)), step.glue == glue.id, [=, this, of = std::string(glue.id)] {
                        change(id, tr("Another glue"), [&](Step& s) { s.glue = of; });
                    }});
    card.choices(all);
    const LayersStudy& study = desk_.study();
    if (const auto advice = study.on ? eyesFor(*study.on) : std::nullopt) {
        card.words(said(advice->says));
        if (advice->eye_mm > 0 && std::abs(advice->eye_mm - step.eye_mm) > 0.01)
            card.button(tr("Take eyes of %1").arg(lengthText(advice->eye_mm, 1)), Card::Look::Second,
                        [=, this, mm = advice->eye_mm] {
                            change(id, tr("Eyes that fit"), [&](Step& s) { s.eye_mm = mm; });
                        });
        if (advice->smaller_mm > 0 && std::abs(advice->smaller_mm - step.eye_mm) > 0.01)
            card.button(tr("Smaller on purpose: %1").arg(lengthText(advice->smaller_mm, 1)), Card::Look::Link,
                        [=, this, mm = advice->smaller_mm] {
                            change(id, tr("Smaller eyes"), [&](Step& s) { s.eye_mm = mm; });
                        });
    } else if (study.on) {
        card.muted(tr("The blank has no eye socket marked: the size is yours to give."));
    }
    card.words(desk_.layers().lures == 1 ? tr("One pair.") : tr("%1 pairs.").arg(desk_.layers().lures));
}

void LayersLeaf::sayClear(Card& card, const Step& step) {
    // In one piece: kind, amounts, working time, dates, cautions.
    const std::string id = step.id;
    QList<Card::Choice> kinds;
    for (const ClearKind& kind : clears())
        kinds.append({said(Words(kind.name)), step.clear == kind.id, [=, this, of = std::string(kind.id)] {
                          change(id, tr("Another clear"), [&](Step& s) { s.clear = of; });
                      }});
    const ClearKind* kind = findClear(step.clear);
    card.menu(kind ? capital(said(Words(kind->name))) : tr("Which clear?"), kinds);
    QList<Card::Choice> keeps;
    for (const WordName& word : doingsOf(step.act))
        keeps.append({said(Words(word.name)), step.doing(word.id), [=, this, what = std::string(word.id)] {
                          change(id, tr("Where to keep off"), [&](Step& s) {
                              if (std::erase(s.does, what) == 0) s.does.push_back(what);
                          });
                      }});
    card.choices(keeps);
    const LayersStudy& study = desk_.study();
    if (kind && study.on) {
        const int lures = desk_.layers().lures;
        const Result<ClearPlan> plan = planClear(*kind, study.on->skin_mm2, lures);
        if (plan) {
            Card::Facts facts{{capital(forLures(lures)), tr("%1 ml").arg(plan->all_ml, 0, 'f', 1)}};
            if (plan->partA_ml > 0)
                facts.append({tr("Each mix, 1 : 1"), tr("%1 + %1 ml").arg(plan->partA_ml, 0, 'f', 1)});
            if (plan->bodiesInOneMix > 0)
                facts.append({tr("Bodies in one mix"),
                              tr("%1, within %2 min").arg(plan->bodiesInOneMix).arg(kind->working_min)});
            if (plan->mixes > 1) facts.append({tr("Mixes"), QString::number(plan->mixes)});
            if (plan->glitter_g > 0)
                facts.append({tr("Glitter, if wanted"), tr("%1 g").arg(plan->glitter_g, 0, 'f', 2)});
            const QDateTime now = QDateTime::currentDateTime();
            const auto after = [&](double hours) {
                return QLocale().toString(now.addSecs(static_cast<qint64>(3600 * hours)),
                                          QLocale::ShortFormat);
            };
            facts.append({tr("Put on now, handled from"), after(kind->dry_h)});
            facts.append({tr("Fished from"), after(kind->fish_h)});
            card.facts(facts);
            for (const Words& line : plan->says) card.words(said(line));
            for (const Words& line : plan->cautions) card.caution(said(line));
        }
    }
    card.sentence(tr("Wait %1 min before anything else."),
                  {chip(card, id, tr("Wait"), ValueChip::Kind::Count, 0, 60, step.wait_min,
                        [](Step& s, double v) { s.wait_min = v; })});
}

}  // namespace nine::app
