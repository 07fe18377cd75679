#include "app/leaves/spray/spray_leaf.h"

#include <cmath>

#include "app/leaves/leaves.h"
#include "app/leaves/spray/spray_page.h"
#include "app/sheet/names.h"
#include "app/sheet/units_text.h"
#include "app/theme/theme.h"

namespace nine::app {
namespace {

/// The pins a painter can release, by the field they are written in.
struct NamedPin {
    const char* field;
    QString name;
    bool set;
    std::function<void(SprayPins&)> release;
};

std::vector<NamedPin> namedPins(const SprayPins& p) {
    return {
        {"needle_mm", SprayLeaf::tr("needle"), p.needle_mm.has_value(),
         [](SprayPins& x) { x.needle_mm.reset(); }},
        {"pressure_kpa", SprayLeaf::tr("pressure"), p.pressure_kpa.has_value(),
         [](SprayPins& x) { x.pressure_kpa.reset(); }},
        {"distance_mm", SprayLeaf::tr("distance"), p.distance_mm.has_value(),
         [](SprayPins& x) { x.distance_mm.reset(); }},
        {"angle_deg", SprayLeaf::tr("angle"), p.angle_deg.has_value(),
         [](SprayPins& x) { x.angle_deg.reset(); }},
        {"flow_ml_min", SprayLeaf::tr("trigger"), p.flow_ml_min.has_value(),
         [](SprayPins& x) { x.flow_ml_min.reset(); }},
        {"speed_mm_s", SprayLeaf::tr("speed"), p.speed_mm_s.has_value(),
         [](SprayPins& x) { x.speed_mm_s.reset(); }},
        {"reduction", SprayLeaf::tr("mix"), p.reduction.has_value(),
         [](SprayPins& x) { x.reduction.reset(); }},
        {"coats", SprayLeaf::tr("coats"), p.coats.has_value(), [](SprayPins& x) { x.coats.reset(); }},
        {"aim_mm", SprayLeaf::tr("aim"), p.aim_mm.has_value(), [](SprayPins& x) { x.aim_mm.reset(); }},
        {"stroke", SprayLeaf::tr("stroke"), p.stroke.has_value(), [](SprayPins& x) { x.stroke.reset(); }}};
}

QString wayName(SprayStep::Way way) {
    using Way = SprayStep::Way;
    switch (way) {
        case Way::LowerPressure:
            return SprayLeaf::tr("lower pressure");
        case Way::HigherPressure:
            return SprayLeaf::tr("higher pressure");
        case Way::Closer:
            return SprayLeaf::tr("closer");
        case Way::Farther:
            return SprayLeaf::tr("farther");
        case Way::SmallerNeedle:
            return SprayLeaf::tr("smaller needle");
        case Way::LargerNeedle:
            return SprayLeaf::tr("larger needle");
        default:
            return SprayLeaf::tr("thinner");
    }
}

QString whyText(const SprayStudy& s) {
    QString html;
    const auto line = [&](const QString& words) {
        html += QString("<p style='margin:0 0 5px 0'>%1</p>").arg(words);
    };
    for (const Words& reason : s.plan->reasons) line(said(reason).toHtmlEscaped());
    for (const SprayStep& step : s.plan->steps) {
        line(QString("<span style='color:%1'>›</span> <b>%2:</b> <span style='color:%3'>%4</span>")
                 .arg(tokens().accent.name(), wayName(step.way), tokens().muted.name(),
                      said(step.words).toHtmlEscaped()));
    }
    return html;
}

/// What a painter calls an edge of this width (common practice, no published source).
QString edgeWord(double width_mm) {
    return width_mm < 0.1   ? SprayLeaf::tr("crisp")
           : width_mm < 0.3 ? SprayLeaf::tr("clean")
           : width_mm < 1   ? SprayLeaf::tr("slightly soft")
                            : SprayLeaf::tr("soft");
}

QString verdictText(const SprayStudy& s) {
    if (s.error) return said(*s.error);
    const QString width = lengthText(s.plan->edge.width_mm, 2), creep = lengthText(s.plan->edge.creep_mm, 2);
    const QString where =
        s.worst.lift_mm > 0.005
            ? SprayLeaf::tr("Where it stands off most, at %1,").arg(said(placeSentence(s.worst)))
            : SprayLeaf::tr("Everywhere");
    return SprayLeaf::tr("%1 the edge is %2 wide and paint creeps %3; wanted %4.")
        .arg(where, width, creep,
             s.asked.soft ? SprayLeaf::tr("soft, %1").arg(lengthText(s.asked.wantedWidth_mm))
                          : SprayLeaf::tr("sharp, %1 at most").arg(lengthText(s.asked.wantedWidth_mm)));
}

}  // namespace

SprayLeaf::SprayLeaf(LeafContext context, QObject* parent)
    : Leaf(context, parent),
      desk_(context, this),
      page_(new SprayPage(context, desk_)),
      card_(new CardHolder) {
    connect(&desk_, &SprayDesk::changed, this, &SprayLeaf::rebuildCard);
    connect(&desk_, &SprayDesk::verdictsChanged, this, &SprayLeaf::restless);
}

QWidget* SprayLeaf::page() {
    return page_;
}

void SprayLeaf::pin(const QString& what, ValueChip* from, const std::function<void(SpraySpec&)>& edit) {
    context_.document.beginGesture();
    const Status ok = desk_.change(tr("Change %1").arg(what.toLower()), edit);
    if (from) from->setWrong(ok ? QString() : said(ok.error()));
}

ValueChip* SprayLeaf::chip(Card& card, const QString& name, ValueChip::Kind kind, int decimals, double step,
                           std::function<double(const SprayStudy&)> get,
                           std::function<void(SpraySpec&, double)> set) {
    ValueChip* c = card.chip(name, kind, decimals, step, {});
    chips_.emplace_back(c, std::move(get));
    connect(c, &ValueChip::committed, this, [this, c, name, set = std::move(set)](double v) {
        context_.document.beginGesture();
        const Status ok = desk_.change(c->owner(), tr("Change %1").arg(name.toLower()),
                                       [&](SpraySpec& spec) { set(spec, v); });
        c->setWrong(ok ? QString() : said(ok.error()));
    });
    return c;
}

void SprayLeaf::sayPlan(Card& card) {
    using Kind = ValueChip::Kind;
    const auto reduce = [](SpraySpec& spec, const SprayDesk& desk) -> Reduction& {
        if (!spec.pins.reduction) spec.pins.reduction = desk.shown().plan->setting.reduction;
        return *spec.pins.reduction;
    };
    const auto large = [](ValueChip* c) {
        c->setLarge();
        return c;
    };
    // In the order they are set.
    card.sentence(tr("Needle %1 mm"), {large(chip(
                                          card, tr("Needle"), Kind::Number, 2, 0.05,
                                          [](const SprayStudy& s) { return s.plan->setting.needle_mm; },
                                          [](SpraySpec& x, double v) { x.pins.needle_mm = v; }))});
    mix_ = new QLabel;
    card.sentence(tr("Mix %1 : %2 drops, %3"),
                  {large(chip(
                       card, tr("Drops of paint"), Kind::Number, 0, 1,
                       [](const SprayStudy& s) { return s.plan->setting.reduction.paint; },
                       [this, reduce](SpraySpec& x, double v) { reduce(x, desk_).paint = v; })),
                   large(chip(
                       card, tr("Drops of reducer"), Kind::Number, 0, 1,
                       [](const SprayStudy& s) { return s.plan->setting.reduction.reducer; },
                       [this, reduce](SpraySpec& x, double v) { reduce(x, desk_).reducer = v; })),
                   mix_});
    bar_ = new QLabel;
    card.sentence(tr("Pressure %1 psi, %2"),
                  {large(chip(
                       card, tr("Pressure"), Kind::Number, 1, 0.5,
                       [](const SprayStudy& s) { return s.plan->setting.gauge_kpa / kKpaPerPsi; },
                       [](SpraySpec& x, double v) { x.pins.pressure_kpa = v * kKpaPerPsi; })),
                   bar_});
    card.sentence(withUnit(tr("Distance %1 %U from the skin")),
                  {large(chip(
                      card, tr("Distance"), Kind::Length, 0, 1,
                      [](const SprayStudy& s) { return s.plan->setting.distance_mm; },
                      [](SpraySpec& x, double v) { x.pins.distance_mm = v; }))});
    card.sentence(tr("Angle %1° off straight"),
                  {large(chip(
                      card, tr("Angle"), Kind::Number, 0, 1,
                      [](const SprayStudy& s) { return s.plan->setting.angle_deg; },
                      [](SpraySpec& x, double v) { x.pins.angle_deg = v; }))});
    pace_ = new QLabel;
    card.sentence(tr("Hand %1 mm/s, %2"), {large(chip(
                                               card, tr("Speed"), Kind::Number, 0, 5,
                                               [](const SprayStudy& s) { return s.plan->setting.speed_mm_s; },
                                               [](SpraySpec& x, double v) { x.pins.speed_mm_s = v; })),
                                           pace_});
    strokes_ = new QLabel;
    card.sentence(
        tr("Coats %1 %2"),
        {large(chip(
             card, tr("Coats"), Kind::Count, 0, 1, [](const SprayStudy& s) { return s.plan->coats; },
             [](SpraySpec& x, double v) { x.pins.coats = static_cast<int>(v); })),
         strokes_});
}

void SprayLeaf::sayPaint(Card& card) {
    const SprayStudy& s = desk_.study();
    const Recipe& recipe = job().get<LayersChapter>().recipe;
    if (const std::size_t place = placeOf(recipe, s.step); place < recipe.steps.size()) {
        card.words(tr("Paint, drops and coats as step %1 of the recipe says: %2.")
                       .arg(place + 1)
                       .arg(QString::fromStdString(recipe.steps[place].name)));
        card.button(tr("Change it there"), Card::Look::Link, [this, id = s.step] {
            context_.view.setStep(id);
            context_.frame.showLeaf(LayersNumber);
        });
        return;
    }
    card.muted(tr("Paint"));
    QList<Card::Choice> paints;
    for (const PaintFamily& family : paintFamilies()) {
        paints.append({paintName(family.id), s.wish.paint == family.id, [this, id = std::string(family.id)] {
                           pin(tr("Paint"), nullptr, [&](SpraySpec& x) { x.paint = id; });
                       }});
    }
    card.choices(paints);
}

void SprayLeaf::sayWish(Card& card) {
    const SprayStudy& s = desk_.study();
    card.muted(tr("The edge shall be"));
    card.radio({{tr("sharp, %1 at most").arg(lengthText(kSharp_mm)), !s.wish.soft_mm,
                 [this] { pin(tr("Edge"), nullptr, [](SpraySpec& x) { x.soft_mm.reset(); }); }},
                {tr("soft"), s.wish.soft_mm.has_value(), [this] {
                     pin(tr("Edge"), nullptr, [](SpraySpec& x) {
                         if (!x.soft_mm) x.soft_mm = 1.5;
                     });
                 }}});
    using Kind = ValueChip::Kind;
    if (s.wish.soft_mm) {
        card.sentence(withUnit(tr("fading over %1 %U.")),
                      {chip(
                          card, tr("Width of the soft edge"), Kind::Length, 1, 0.1,
                          [](const SprayStudy& x) { return x.wish.soft_mm.value_or(1.5); },
                          [](SpraySpec& x, double v) { x.soft_mm = v; })});
    }
    card.sentence(
        withUnit(tr("Held off on pads of %1 %U; carving under it %2 %U deep.")),
        {chip(
             card, tr("Pads"), Kind::Length, 1, 0.1, [](const SprayStudy& x) { return x.wish.pads_mm; },
             [](SpraySpec& x, double v) { x.pads_mm = v; }),
         chip(
             card, tr("Relief"), Kind::Length, 1, 0.1, [](const SprayStudy& x) { return x.wish.relief_mm; },
             [](SpraySpec& x, double v) { x.relief_mm = v; })});
    const bool across = s.wish.pins.stroke == Stroke::Across;
    card.choices({{tr("strokes along the edge"), !across,
                   [this] { pin(tr("Stroke"), nullptr, [](SpraySpec& x) { x.pins.stroke.reset(); }); }},
                  {tr("across it"), across, [this] {
                       pin(tr("Stroke"), nullptr, [](SpraySpec& x) { x.pins.stroke = Stroke::Across; });
                   }}});
}

void SprayLeaf::sayPins(Card& card) {
    QList<Card::Choice> pinned;
    for (const NamedPin& p : namedPins(desk_.study().wish.pins)) {
        if (!p.set || QString(p.field) == "stroke") continue;
        pinned.append({p.name + QString::fromUtf8(" ×"), false,
                       [this, p] { pin(p.name, nullptr, [&](SpraySpec& x) { p.release(x.pins); }); }});
    }
    if (pinned.isEmpty()) return;
    card.muted(tr("Pinned by you; click to give back to the plan"));
    card.choices(pinned);
}

void SprayLeaf::releaseBinding() {
    const SprayStudy& s = desk_.study();
    if (!s.error || s.error->code != "pins_contradict") return;
    for (const NamedPin& p : namedPins(s.wish.pins)) {
        if (s.error->where != "pins." + std::string(p.field)) continue;
        pin(p.name, nullptr, [&](SpraySpec& x) { p.release(x.pins); });
        return;
    }
}

bool SprayLeaf::applyRemedy() {
    const SprayStudy& s = desk_.study();
    if (s.error) {
        releaseBinding();
        return s.error && s.error->code == "pins_contradict";
    }
    if (!s.plan || !s.plan->remedy || !(s.plan->remedy->pads_mm || s.plan->remedy->pins)) return false;
    const SprayRemedy remedy = *s.plan->remedy;
    pin(tr("Remedy"), nullptr, [&](SpraySpec& x) {
        if (remedy.pads_mm) x.pads_mm = *remedy.pads_mm;
        if (remedy.pins) x.pins = *remedy.pins;
    });
    return true;
}

void SprayLeaf::saySteps(Card& card) {
    // In one piece: which step, then its settings.
    using Kind = ValueChip::Kind;
    const std::vector<StepVerdict>& steps = desk_.steps();
    if (steps.empty()) return;
    const auto found = std::find_if(steps.begin(), steps.end(),
                                    [&](const StepVerdict& v) { return v.step == context_.view.step(); });
    const StepVerdict& v = found == steps.end() ? steps.front() : *found;
    card.title(tr("Steps without a mask"), false);
    QList<Card::Choice> all;
    for (const StepVerdict& s : steps)
        all.append({QString::fromStdString(s.name), s.step == v.step,
                    [this, id = s.step] { context_.view.setStep(id); }});
    card.menu(QString::fromStdString(v.name), all);
    if (!v.plan) {
        card.framed(said(v.plan.error()), true);
        if (!v.pins.empty())
            card.button(tr("Release its pins"), Card::Look::Second, [this, id = v.step] {
                context_.document.beginGesture();
                (void)desk_.changeStep(id, tr("Release pins"), [](SprayPins& p) { p = {}; });
            });
        return;
    }
    const SprayPlan& plan = *v.plan;
    card.muted(capital(said(Words(plan.practice.name))));
    const auto pinned = [&](const QString& name, Kind kind, int decimals, double by, double value,
                            std::function<void(SprayPins&, double)> set) {
        ValueChip* c = card.chip(name, kind, decimals, by, {});
        c->setValue(value);
        c->setOwner(v.step);
        connect(c, &ValueChip::committed, this, [this, c, name, set = std::move(set)](double to) {
            context_.document.beginGesture();
            const Status ok = desk_.changeStep(c->owner(), tr("Change %1").arg(name.toLower()),
                                               [&](SprayPins& p) { set(p, to); });
            c->setWrong(ok ? QString() : said(ok.error()));
        });
        return c;
    };
    card.sentence(
        withUnit(tr("Needle %1 mm, %2 psi, %3 %U away.")),
        {pinned(tr("Needle of the step"), Kind::Number, 2, 0.05, plan.setting.needle_mm,
                [](SprayPins& p, double mm) { p.needle_mm = mm; }),
         pinned(tr("Pressure of the step"), Kind::Number, 1, 0.5, plan.setting.gauge_kpa / kKpaPerPsi,
                [](SprayPins& p, double psi) { p.pressure_kpa = psi * kKpaPerPsi; }),
         pinned(tr("Distance of the step"), Kind::Length, 0, 5, plan.setting.distance_mm,
                [](SprayPins& p, double mm) { p.distance_mm = mm; })});
    card.facts({{tr("Coats"), QString::number(plan.coats)},
                {tr("Wet film of a coat"),
                 tr("%1 µm, runs at %2").arg(plan.coat_um, 0, 'f', 0).arg(plan.run_um, 0, 'f', 0)}});
    if (!v.pins.empty())
        card.button(tr("Give it back to practice"), Card::Look::Link, [this, id = v.step] {
            context_.document.beginGesture();
            (void)desk_.changeStep(id, tr("Release pins"), [](SprayPins& p) { p = {}; });
        });
}

/// What the card is made of: while it stays the same, only values and words change.
QString SprayLeaf::shapeOfSteps() {
    QString shape = QString::fromStdString(context_.view.step());
    for (const StepVerdict& v : desk_.steps())
        shape += QString("|%1 %2")
                     .arg(QString::fromStdString(v.name))
                     .arg(v.plan ? v.plan->setting.gauge_kpa + 1e3 * v.plan->setting.distance_mm +
                                       1e6 * v.plan->setting.needle_mm + 1e8 * v.plan->coats
                                 : 0,
                          0, 'g', 12);
    return shape;
}

QString SprayLeaf::shapeOfCard() {
    const SprayStudy& s = desk_.study();
    if (!s.ready())
        return QString("none %1 %2").arg(context_.document.empty()).arg(s.error ? said(*s.error) : "");
    QString shape =
        QString("%1 %2 %3 %4 %5 %6")
            .arg(QString::fromStdString(s.spec->id), QString::fromStdString(s.spec->shownName()),
                 QString::fromStdString(s.wish.paint))
            .arg(s.wish.soft_mm.has_value())
            .arg(s.error ? QString::fromStdString(s.error->where) : QString::number(s.plan->meetsWish))
            .arg(tokens().dark) +
        lengthUnit() + QString::number(s.plan->passes) + (s.plan->warnings.empty() ? "" : "w") +
        (desk_.kept() ? "k" : "") + (s.plan->remedy ? "r" : "");
    for (const NamedPin& p : namedPins(s.wish.pins)) shape += p.set ? '1' : '0';
    return shape + shapeOfSteps();
}

void SprayLeaf::rebuildCard() {
    // In one piece: the card from top to foot.
    if (putOff()) return;
    const QString shape = shapeOfCard();
    if (shape == shape_ || (desk_.dragging() && desk_.study().ready())) return refreshValues();
    shape_ = shape;
    chips_.clear();
    const SprayStudy& s = desk_.study();
    auto* card = new Card;
    if (!s.ready()) {
        card->title(tr("Suggested start"), false);
        card->words(s.error ? said(*s.error) : tr("A plan stands here once a mask is fitted."));
        if (!context_.document.empty() && s.error)
            card->button(tr("My bench ..."), Card::Look::Link, [this] { showBench(); });
        saySteps(*card);
        card->finish();
        return card_->show(card);
    }
    card->title(tr("Set on the gun"), false);
    // Before the first stroke, so before the first number.
    card->caution(
        tr("Mist: extraction on, and a respirator matched to the paint; its data sheet says which. Never a "
           "finger over the nozzle."));
    sayPlan(*card);
    edge_ = card->title({}, false);
    verdict_ = card->framed({}, s.error.has_value() || !s.plan->meetsWish);
    verdict_->setAccessibleName(tr("Verdict"));
    if (s.error && s.error->code == "pins_contradict") {
        card->button(tr("Release that pin"), Card::Look::Primary, [this] { releaseBinding(); });
    } else if (s.error) {
        card->button(tr("My bench ..."), Card::Look::Primary, [this] { showBench(); });
    } else if (s.plan->remedy) {
        const bool here = s.plan->remedy->pads_mm || s.plan->remedy->pins;
        repair_ = card->button({}, Card::Look::Primary, [this, here] {
            if (here)
                applyRemedy();
            else
                context_.frame.showLeaf(MasksNumber);
        });
    }
    if (!s.plan->warnings.empty()) warnings_ = card->caution({});
    sayPaint(*card);
    films_ = card->muted({});
    sayPins(*card);
    card->choices({{desk_.kept() ? tr("Forget what was kept") : tr("Keep this edge to compare"), false,
                    [this] { desk_.kept() ? desk_.forget() : desk_.keep(); }}});
    card->muted(tr("Why"));
    why_ = card->words({});
    card->muted(
        tr("Ranges are the trade's; what changes round them was computed. No card was sprayed with this gun: "
           "take edges "
           "for what changes, and try on paper first."));
    sayWish(*card);
    saySteps(*card);
    card->muted(tr("A card for the bench, one for each stencil"));
    card->choices({{tr("PDF"), true, [this] { putOutCards(false); }},
                   {tr("Print ..."), false, [this] { putOutCards(true); }},
                   {tr("My bench ..."), false, [this] { showBench(); }}});
    card->finish();
    refreshValues();
    card_->show(card);
}

void SprayLeaf::refreshValues() {
    const SprayStudy& s = desk_.study();
    if (!s.ready()) return;
    for (const auto& [chip, get] : chips_) {
        if (!chip) continue;
        chip->setOwner(s.spec->id);
        chip->setValue(get(s));
    }
    if (verdict_) verdict_->setText(verdictText(s));
    const SprayPlan& plan = *s.plan;
    if (mix_) mix_->setText(tr("%1 % reducer").arg(100 * (1 - plan.setting.reduction.share()), 0, 'f', 0));
    if (bar_) bar_->setText(tr("%1 bar").arg(plan.setting.gauge_kpa / 100, 0, 'f', 2));
    if (pace_)
        pace_->setText(
            tr("one body in %1 s")
                .arg(context_.results.body().skin->length_mm() / plan.setting.speed_mm_s, 0, 'f', 1));
    if (strokes_)
        strokes_->setText(plan.passes == 1 ? tr("of one stroke, each left to dry")
                                           : tr("of %1 strokes, each left to dry").arg(plan.passes));
    if (edge_)
        edge_->setText(
            tr("Edge: %1, %2").arg(edgeWord(plan.edge.width_mm), lengthText(plan.edge.width_mm, 2)));
    if (films_)
        films_->setText(tr("A coat lies %1 µm wet; this mixture runs at %2 µm.")
                            .arg(plan.coat_um, 0, 'f', plan.coat_um < 10 ? 1 : 0)
                            .arg(plan.run_um, 0, 'f', plan.run_um < 10 ? 1 : 0));
    if (desk_.dragging()) return;  // long words are broken anew when it ends
    if (why_) why_->setText(whyText(s));
    if (repair_ && s.plan->remedy) {
        QString words = said(s.plan->remedy->words);
        if (!s.plan->remedy->pads_mm && !s.plan->remedy->pins) words = tr("See the mask");
        words[0] = words[0].toUpper();
        repair_->setText(words);
    }
    if (warnings_) {
        QStringList all;
        for (const Warning& w : s.plan->warnings) all << said(w);
        warnings_->setText(all.join(' '));
    }
}

std::vector<Flag> SprayLeaf::flags() {
    const MasksResult& masks = context_.results.masks();
    std::vector<Flag> flags;
    if (context_.document.empty() || masks.masks.size() < maskSpecs(job()).size()) return flags;
    for (const SprayVerdict& v : desk_.verdicts()) {
        if (v.meets) continue;
        const QString name =
            QString::fromStdString(v.spec->shownName()) + ' ' + QChar(sideLetter(v.spec->side));
        Flag flag{"spray " + v.spec->id,
                  v.planned ? tr("All masks lie flat; the edge of %1 gets %2 wide: %3.")
                                  .arg(name, lengthText(v.width_mm, 2),
                                       v.first.empty() ? tr("not what is wanted") : said(v.first))
                            : name + ": " + said(v.first),
                  !v.planned,
                  [this, id = v.spec->id] { context_.view.setMask(id); },
                  tr("see Spray"),
                  {}};
        flag.repair = [this, id = v.spec->id] {
            context_.view.setMask(id);
            context_.frame.showLeaf(SprayNumber);
        };
        flags.push_back(std::move(flag));
    }
    return flags;
}

LeafEntry SprayLeaf::entry() const {
    LeafEntry e;
    if (context_.document.empty() || desk_.verdicts().empty()) return e;
    e.state = job().get<SprayChapter>().masks.empty() ? LeafState::Begun : LeafState::Ready;
    for (const SprayVerdict& v : desk_.verdicts()) {
        if (v.meets) continue;
        ++e.flags;
        e.fault = e.fault || !v.planned;
        e.state = LeafState::Repair;
    }
    return e;
}

}  // namespace nine::app
