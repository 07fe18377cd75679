// What the card of the Scales leaf says.
#include <QApplication>
#include <QFontMetrics>
#include <QLineEdit>
#include <algorithm>
#include <cmath>

#include "app/leaves/scales/scales_edits.h"
#include "app/leaves/scales/scales_leaf.h"
#include "app/sheet/names.h"
#include "app/sheet/units_text.h"
#include "job/export.h"

namespace nine::app {
namespace {

constexpr int kNetsShown = 5;
constexpr int kFlagsShown = 3;
constexpr int kNetName_px = 140;

/// "Tulle 1.6, double: 1.31 mm, × 4.7", to be read in a narrow card.
QString netWords(const NetChoice& c) {
    QString name = QString::fromStdString(c.net.name);
    if (c.doubled) name = ScalesLeaf::tr("%1, double").arg(name);
    // Nets of one's own may be called anything; the card stays as narrow as it is.
    name = QFontMetrics(QApplication::font()).elidedText(name, Qt::ElideMiddle, kNetName_px);
    const QString words = ScalesLeaf::tr("%1: %2 ×%3")
                              .arg(name, lengthText(c.scale_mm, inches() ? 1 : 2))
                              .arg(c.ratio, 0, 'f', c.ratio < 10 ? 1 : 0);
    if (c.good) return ScalesLeaf::tr("%1, good").arg(words);
    return words;
}

}  // namespace

ValueChip* ScalesLeaf::chip(Card& card, const QString& name, ValueChip::Kind kind, int decimals, double step,
                            double value, std::function<void(ScalesChapter&, double)> set) {
    ValueChip* c = card.chip(name, kind, decimals, step, {});
    c->setValue(value);
    connect(c, &ValueChip::committed, this, [this, c, name, set = std::move(set)](double v) {
        context_.document.beginGesture();
        const Status ok =
            desk_.change(tr("Change %1").arg(name.toLower()), [&](ScalesChapter& s) { set(s, v); });
        c->setWrong(ok ? QString() : said(ok.error()));
    });
    return c;
}

void ScalesLeaf::sayFish(Card& card) {
    using Kind = ValueChip::Kind;
    const ScaleWish& wish = desk_.wish().wish;
    const SkinPtr skin = context_.results.body().skin;
    card.title(tr("Scales against the fish"), false);
    card.choices(
        {{tr("as on the fish"), wish.from == ScaleFrom::Fish,
          [this] {
              change(tr("Scales of the fish"), [](ScalesChapter& s) { s.wish.from = ScaleFrom::Fish; });
          }},
         {tr("by count"), wish.from == ScaleFrom::Count,
          [this] {
              change(tr("Scales by count"), [](ScalesChapter& s) { s.wish.from = ScaleFrom::Count; });
          }},
         {tr("by eye"), wish.from == ScaleFrom::Eye,
          [this] { change(tr("Scales by eye"), [](ScalesChapter& s) { s.wish.from = ScaleFrom::Eye; }); }}});
    if (wish.from == ScaleFrom::Fish) {
        card.sentence(withUnit(tr("A fish of %1 %U has about %2 scales along its side.")),
                      {chip(card, tr("Length of the fish"), Kind::Length, 0, 10, wish.fish_mm,
                            [](ScalesChapter& s, double v) { s.wish.fish_mm = v; }),
                       chip(card, tr("Scales along the side of the fish"), Kind::Count, 0, 1, wish.fishCount,
                            [](ScalesChapter& s, double v) { s.wish.fishCount = static_cast<int>(v); })});
        QList<Card::Choice> fish;
        for (const FishCount& f : fishCounts())
            fish.append({tr("%1: %2 to %3").arg(said(Words(f.name))).arg(f.least).arg(f.most),
                         wish.fishCount == f.usual, [this, f] {
                             change(tr("Scales of the fish"), [&](ScalesChapter& s) {
                                 s.wish.fishCount = f.usual;
                                 s.wish.fish_mm = f.length_mm;
                             });
                         }});
        card.menu(tr("Counts of some fish"), fish);
    } else if (wish.from == ScaleFrom::Count) {
        card.sentence(tr("%1 scales between gill and tail."),
                      {chip(card, tr("Scales between gill and tail"), Kind::Count, 0, 1, wish.count,
                            [](ScalesChapter& s, double v) { s.wish.count = static_cast<int>(v); })});
    } else {
        card.sentence(withUnit(tr("One scale is %1 %U long.")),
                      {chip(card, tr("Length of a scale"), Kind::Length, 2, 0.1, wish.eye_mm,
                            [](ScalesChapter& s, double v) { s.wish.eye_mm = v; })});
    }
    card.sentence(tr("Within %1 % of that is good."),
                  {chip(card, tr("Tolerance"), Kind::Number, 0, 5, 100 * wish.tolerance,
                        [](ScalesChapter& s, double v) { s.wish.tolerance = v / 100; })});
    if (!skin) return;
    const NetRanking ranking = desk_.ranking();
    ranking.tooCoarse ? card.caution(said(ranking.summary)) : card.words(said(ranking.summary));
}

void ScalesLeaf::sayNets(Card& card) {
    const ScalesChapter& s = desk_.wish();
    const NetRanking ranking = desk_.ranking();
    QList<Card::Choice> near, all;
    const auto on = [&](const NetChoice& c) {
        return s.net && s.net->id == c.net.id && s.doubled == c.doubled;
    };
    for (std::size_t i = 0; i < ranking.choices.size(); ++i) {
        const NetChoice& c = ranking.choices[i];
        const Card::Choice choice{netWords(c), on(c), [this, c] { useNet(c.net, c.doubled); }};
        if (static_cast<int>(i) < kNetsShown || on(c)) near.append(choice);
        all.append(choice);
    }
    near.append({tr("no net"), !s.net, [this] {
                     change(tr("Use no net"), [](ScalesChapter& x) {
                         x.net.reset();
                         x.clips.clear();
                     });
                 }});
    card.radio(near);
    card.menu(tr("All nets"), all);
}

void ScalesLeaf::sayNet(Card& card) {
    // In one piece: sentences in the order a net is put on.
    using Kind = ValueChip::Kind;
    const ScalesChapter& s = desk_.wish();
    const Net& net = *s.net;
    card.sentence(tr("Pulled with %1 N/m of border,"),
                  {chip(card, tr("Pull"), Kind::Number, 0, 10, s.pull_n_m,
                        [](ScalesChapter& x, double v) { x.pull_n_m = v; })});
    card.choices(
        {{tr("gathered at the belly"), s.gather == Gather::Belly,
          [this] { change(tr("Gather at the belly"), [](ScalesChapter& x) { x.gather = Gather::Belly; }); }},
         {tr("at the back"), s.gather == Gather::Back,
          [this] { change(tr("Gather at the back"), [](ScalesChapter& x) { x.gather = Gather::Back; }); }}});
    card.button(editing_ ? tr("Done with the net itself") : tr("The net itself ..."), Card::Look::Link,
                [this] {
                    editing_ = !editing_;
                    rebuildCard();
                });
    if (editing_) sayNetItself(card);
    QList<Card::Choice> hooks{{tr("hooked at the tail"), s.hook == "tail", [this] {
                                   change(tr("Hook the net"), [](ScalesChapter& x) { x.hook = "tail"; });
                               }}};
    for (const auto& [name, mark] : job().get<BlankChapter>().landmarks)
        if (const LandmarkKind* kind = landmarkKind(name); kind && !kind->curve && kind->central &&
                                                           kind->felt && name != "tail_hanger" &&
                                                           name != "line_tie")
            hooks.append({tr("at the %1").arg(landmarkName(name)), s.hook == name, [this, name = name] {
                              change(tr("Hook the net"), [&](ScalesChapter& x) { x.hook = name; });
                          }});
    card.choices(hooks);
    const SkinPtr skin = context_.results.body().skin;
    const double middle = skin ? 0.35 * skin->length_mm() : 20;
    card.choices({{tr("over the whole body"), s.reach.whole() && s.reach.downTo == 1,
                   [this] { change(tr("Net over the whole body"), [](ScalesChapter& x) { x.reach = {}; }); }},
                  {tr("over a piece of it"), !s.reach.whole(), [this, middle] {
                       change(tr("Net over a piece"), [&](ScalesChapter& x) { x.reach = {1, middle, 0.7}; });
                   }}});
    if (!s.reach.whole())
        card.sentence(withUnit(tr("From %1 to %2 %U from the nose, down %3 % of the side.")),
                      {chip(card, tr("Net begins"), Kind::Length, 1, 1, s.reach.fromX_mm,
                            [](ScalesChapter& x, double v) { x.reach.fromX_mm = v; }),
                       chip(card, tr("Net ends"), Kind::Length, 1, 1, s.reach.toX_mm,
                            [](ScalesChapter& x, double v) { x.reach.toX_mm = v; }),
                       chip(card, tr("Net reaches down"), Kind::Number, 0, 5, 100 * s.reach.downTo,
                            [](ScalesChapter& x, double v) { x.reach.downTo = v / 100; })});
    if (s.doubled)
        card.sentence(
            withUnit(tr("The second layer is moved by %1 along and %2 %U across, and turned by %3°.")),
            {chip(card, tr("Second layer along"), Kind::Length, 2, 0.1, s.second.along_mm,
                  [](ScalesChapter& x, double v) { x.second.along_mm = v; }),
             chip(card, tr("Second layer across"), Kind::Length, 2, 0.1, s.second.across_mm,
                  [](ScalesChapter& x, double v) { x.second.across_mm = v; }),
             chip(card, tr("Second layer turned"), Kind::Number, 1, 1, s.second.angle_deg,
                  [](ScalesChapter& x, double v) { x.second.angle_deg = v; })});
    card.sentence(tr("This piece is good for %1 more uses."),
                  {chip(card, tr("Uses left"), Kind::Count, 0, 1, s.usesLeft < 0 ? net.uses : s.usesLeft,
                        [](ScalesChapter& x, double v) { x.usesLeft = static_cast<int>(v); })});
    card.choices({{tr("lifted dry"), !s.liftWet,
                   [this] { change(tr("Lift the net dry"), [](ScalesChapter& x) { x.liftWet = false; }); }},
                  {tr("lifted wet"), s.liftWet,
                   [this] { change(tr("Lift the net wet"), [](ScalesChapter& x) { x.liftWet = true; }); }}});
    if (s.liftWet && !net.liftWet)
        card.caution(tr("A fabric net lifted wet drags the paint: let it dry first."));
    QList<Card::Choice> masks{
        {tr("no mask with it"), s.mask.empty(),
         [this] { change(tr("No mask with the net"), [](ScalesChapter& x) { x.mask.clear(); }); }}};
    for (const MaskSpecPtr& mask : maskSpecs(job()))
        for (const bool under : {true, false})
            masks.append({(under ? tr("under the mask %1 %2") : tr("over the mask %1 %2"))
                              .arg(QString::fromStdString(mask->shownName()), QChar(sideLetter(mask->side))),
                          s.mask == mask->id && s.netUnder == under, [this, id = mask->id, under] {
                              change(tr("Stack net and mask"), [&](ScalesChapter& x) {
                                  x.mask = id;
                                  x.netUnder = under;
                              });
                          }});
    QString stacked = tr("With no mask");
    for (const Card::Choice& c : masks)
        if (c.on && !s.mask.empty()) stacked = capital(c.words);
    card.menu(stacked, masks);
}

void ScalesLeaf::sayNetItself(Card& card) {
    using Kind = ValueChip::Kind;
    const Net& net = *desk_.wish().net;
    auto* name = new QLineEdit(QString::fromStdString(net.name));
    name->setAccessibleName(tr("Name of the net"));
    name->setMaxLength(60);
    connect(name, &QLineEdit::editingFinished, this, [this, name] {
        const std::string words = name->text().trimmed().toStdString();
        if (words.empty() || !desk_.wish().net || words == desk_.wish().net->name) return;
        change(tr("Name the net"), [&](ScalesChapter& s) {
            s.net->name = words;
            s.net->id = fileStem(words);  // another net
        });
    });
    card.add(name);
    const auto of = [&](const QString& called, Kind kind, int decimals, double step, double shown,
                        std::function<void(Net&, double)> set) {
        ValueChip* c = card.chip(called, kind, decimals, step, {});
        c->setValue(shown);
        connect(c, &ValueChip::committed, this, [this, c, called, set = std::move(set)](double v) {
            if (!desk_.wish().net) return;
            Net next = *desk_.wish().net;
            set(next, v);
            const Status ok = checkNet(next, "");
            c->setWrong(ok ? QString() : said(ok.error()));
            if (ok) change(tr("Change %1").arg(called.toLower()), [&](ScalesChapter& s) { s.net = next; });
        });
        return c;
    };
    QList<Card::Choice> weaves;
    for (const WeaveName& w : weaveNames())
        weaves.append({said(Words(w.name)), net.weave == w.weave, [this, w] {
                           change(tr("Weave of the net"), [&](ScalesChapter& s) { s.net->weave = w.weave; });
                       }});
    card.choices(weaves);
    card.sentence(
        withUnit(tr("A cell is %1 long and %2 high, of strands %3 %U thick.")),
        {of(tr("Length of a cell"), Kind::Length, 2, 0.05, net.along_mm,
            [](Net& n, double v) { n.along_mm = v; }),
         of(tr("Height of a cell"), Kind::Length, 2, 0.05, net.across_mm,
            [](Net& n, double v) { n.across_mm = v; }),
         of(tr("Strand"), Kind::Length, 2, 0.01, net.strand_mm, [](Net& n, double v) { n.strand_mm = v; })});
    card.sentence(
        tr("It stretches by %1 % along and %2 % across; strands take %3 N/m, knots %4 N/m; it tears at %5 "
           "N/m."),
        {of(tr("Stretch along"), Kind::Number, 0, 1, 100 * net.stretchAlong,
            [](Net& n, double v) { n.stretchAlong = v / 100; }),
         of(tr("Stretch across"), Kind::Number, 0, 1, 100 * net.stretchAcross,
            [](Net& n, double v) { n.stretchAcross = v / 100; }),
         of(tr("Stiffness of strands"), Kind::Number, 0, 100, net.stiffness_n_m,
            [](Net& n, double v) { n.stiffness_n_m = v; }),
         of(tr("Stiffness of knots"), Kind::Number, 0, 5, net.knot_n_m,
            [](Net& n, double v) { n.knot_n_m = v; }),
         of(tr("Tears at"), Kind::Number, 0, 10, net.tear_n_m, [](Net& n, double v) { n.tear_n_m = v; })});
    card.muted(tr("Stiffnesses are judgements until you have pulled a piece against a scale."));
    card.button(tr("Keep this net in the workshop"), Card::Look::Second, [this] { desk_.keepNet(); });
}

void ScalesLeaf::sayClips(Card& card) {
    using Kind = ValueChip::Kind;
    const ScalesChapter& s = desk_.wish();
    const ScalesStudy& study = desk_.study();
    card.title(tr("Clips"), false);
    card.sentence(withUnit(tr("Clips %1 %U wide; a gap of %2 %U is allowed.")),
                  {chip(card, tr("Width of a clip"), Kind::Length, 1, 0.5, s.clip_mm,
                        [](ScalesChapter& x, double v) { x.clip_mm = v; }),
                   chip(card, tr("Gap allowed"), Kind::Length, 2, 0.1, s.allowed_mm,
                        [](ScalesChapter& x, double v) { x.allowed_mm = v; })});
    if (!s.reach.whole()) {
        card.words(tr("A piece over part of the body is held by hand or tape; clips are for the whole."));
        return;
    }
    if (desk_.planning())
        card.button(tr("Seeking; stop and take the best so far"), Card::Look::Second,
                    [this] { desk_.stopPlanning(); });
    else
        card.button(s.clips.empty() ? tr("Place the clips") : tr("Place the clips anew"),
                    s.clips.empty() ? Card::Look::Primary : Card::Look::Second, [this] { desk_.plan(); });
    if (!s.clips.empty()) {
        QStringList places;
        for (const Clip& clip : s.clips) places << lengthNumber(clip.x_mm, 1);
        card.words(
            tr("%1 clips, %2 %3 from the nose.").arg(s.clips.size()).arg(places.join(", "), lengthUnit()));
        card.choices({{tr("Strip of clips as PDF ..."), false, [this] { putOutClips(false); }},
                      {tr("Take all off"), false, [this] {
                           change(tr("Take all clips off"), [](ScalesChapter& x) { x.clips.clear(); });
                       }}});
    }
    if (study.net && study.net->clipError) card.framed(said(*study.net->clipError), true);
    if (!study.net) return;
    int shown = 0;
    for (const NetFlag& flag : study.net->flags) {
        if (shown++ == kFlagsShown) break;
        card.framed(tr("%1  %2").arg(shown).arg(said(flag.words)), flag.fault);
        if (flag.clip)
            card.button(tr("Add a clip at %1").arg(lengthText(flag.clip->x_mm, 1)), Card::Look::Primary,
                        [this, x = flag.clip->x_mm] {
                            change(tr("One more clip"),
                                   [&](ScalesChapter& c) { c = withClip(std::move(c), x); });
                        });
    }
}

void ScalesLeaf::sayCells(Card& card) {
    const ScalesStudy& study = desk_.study();
    if (!study.net) return;
    const NetReading& r = study.net->reading;
    const auto range = [](double low, double high) {
        return tr("%1 to %2").arg(low, 0, 'f', 2).arg(high, 0, 'f', 2);
    };
    Card::Facts facts{
        {tr("Cells, height over length"), range(r.aspect_min, r.aspect_max)},
        {tr("Open between strands"),
         tr("%1 to %2 %").arg(100 * r.opening_min, 0, 'f', 0).arg(100 * r.opening_max, 0, 'f', 0)}};
    if (const auto& stiff = desk_.fishnet())
        facts.append({tr("Were threads not to stretch"), range(stiff->aspect_min, stiff->aspect_max)});
    facts.append({tr("Piece to cut"), tr("%1 by %2%3")
                                          .arg(lengthText(r.piece_mm[0], 0),
                                               lengthText(r.piece_mm[1] * (desk_.wish().doubled ? 2 : 1), 0),
                                               desk_.wish().doubled ? tr(", folded") : QString())});
    card.facts(facts);
    card.muted(tr("Commonly %1 to %2 of net, folded double, serve most bodies.")
                   .arg(lengthText(200, 0), lengthText(230, 0)));
}

void ScalesLeaf::sayMist(Card& card) {
    using Kind = ValueChip::Kind;
    const ScalesChapter& s = desk_.wish();
    card.title(tr("Mist"), false);
    card.sentence(tr("It comes %1° off straight."),
                  {chip(card, tr("Slant of the mist"), Kind::Number, 0, 5, s.slant_deg,
                        [](ScalesChapter& x, double v) { x.slant_deg = v; })});
    if (s.slant_deg > 0)
        card.choices(
            {{tr("from the back"), s.from_deg == 90,
              [this] { change(tr("Mist from the back"), [](ScalesChapter& x) { x.from_deg = 90; }); }},
             {tr("from the belly"), s.from_deg == -90,
              [this] { change(tr("Mist from the belly"), [](ScalesChapter& x) { x.from_deg = -90; }); }},
             {tr("from the tail"), s.from_deg == 0,
              [this] { change(tr("Mist from the tail"), [](ScalesChapter& x) { x.from_deg = 0; }); }},
             {tr("from the head"), s.from_deg == 180,
              [this] { change(tr("Mist from the head"), [](ScalesChapter& x) { x.from_deg = 180; }); }}});
    if (s.slant_deg < 60)
        card.button(tr("Graze it at %1° for raised scales").arg(kRaisedSlant_deg, 0, 'f', 0),
                    Card::Look::Link, [this] {
                        change(tr("Graze the net"), [](ScalesChapter& x) { x.slant_deg = kRaisedSlant_deg; });
                    });
    card.button(tr("Show these scales in the pattern"), Card::Look::Link, [this] { showInPattern(); });
}

void ScalesLeaf::sayFoil(Card& card) {
    using Kind = ValueChip::Kind;
    const ScalesChapter& s = desk_.wish();
    card.title(tr("Without a net"), false);
    card.choices({{tr("Cut a scale stencil"), false, [this] { addStencil(); }},
                  {tr("Press lines into foil"), s.foil.has_value(), [this, has = s.foil.has_value()] {
                       change(has ? tr("No lines on foil") : tr("Lines on foil"), [&](ScalesChapter& x) {
                           if (has)
                               x.foil.reset();
                           else
                               x.foil = FoilWish();
                       });
                   }}});
    if (!s.foil) return;
    const auto foilChip = [&](const QString& name, Kind kind, int decimals, double step,
                              double FoilWish::*member) {
        return chip(card, name, kind, decimals, step, (*s.foil).*member,
                    [member](ScalesChapter& x, double v) {
                        if (x.foil) (*x.foil).*member = v;
                    });
    };
    card.sentence(withUnit(tr("Diamonds %1 %U wide; lines lean %2° off the girth, begin %3 %U behind the "
                              "gill cover and end %4 %U before the tail.")),
                  {foilChip(tr("Width of a diamond"), Kind::Length, 1, 0.5, &FoilWish::width_mm),
                   foilChip(tr("Lean"), Kind::Number, 0, 1, &FoilWish::lean_deg),
                   foilChip(tr("Short of the gill cover"), Kind::Length, 1, 0.5, &FoilWish::short_mm),
                   foilChip(tr("Short of the tail"), Kind::Length, 1, 0.5, &FoilWish::tail_mm)});
    const auto below = [&](const QString& words, BelowLateral b) {
        return Card::Choice{words, s.foil->below == b, [this, b] {
                                change(tr("Lines below"), [&](ScalesChapter& x) {
                                    if (x.foil) x.foil->below = b;
                                });
                            }};
    };
    card.choices({below(tr("ribs below"), BelowLateral::Ribs),
                  below(tr("diamonds below"), BelowLateral::Diamonds),
                  below(tr("nothing below"), BelowLateral::Nothing)});
    const ScalesStudy& study = desk_.study();
    if (study.foilError) card.framed(said(*study.foilError), true);
    if (study.foil)
        card.facts({{tr("Diamonds along"), QString::number(study.foil->diamonds)},
                    {tr("High"), lengthText(study.foil->height_mm, 1)},
                    {tr("Lines"), QString::number(study.foil->above.size() + study.foil->below.size())}});
    card.button(tr("Strip to wrap as PDF ..."), Card::Look::Second, [this] { putOutFoil(false); });
    card.caution(
        tr("Blades: a blunted one presses, a sharp one cuts through. Work away from the holding hand."));
}

void ScalesLeaf::saySteps(Card& card) {
    const ScalesStudy& study = desk_.study();
    if (study.steps.empty()) return;
    card.title(tr("To put it on and take it off"), false);
    int number = 0;
    for (const Words& step : study.steps) card.words(tr("%1. %2").arg(++number).arg(said(step)));
}

}  // namespace nine::app
