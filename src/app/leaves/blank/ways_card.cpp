#include "app/leaves/blank/ways_card.h"

#include <cmath>

#include "app/sheet/names.h"
#include "app/sheet/units_text.h"
#include "blank/string_girth.h"
#include "image/tracing_sheet.h"

namespace nine::app {
namespace {

QString familyName(std::string_view id) {
    const BodyFamily* family = findFamily(id);
    return family ? said(family->name) : QString();
}

}  // namespace

WaysCard::WaysCard(BlankDesk& desk, CardHolder& holder, QObject* parent)
    : QObject(parent), desk_(desk), holder_(holder) {}

QString WaysCard::shape() const {
    const BlankDesk::Look& side = desk_.side();
    QString key = QString("%1|%2|%3|%4|%5|%6|%7|%8|")
                      .arg(static_cast<int>(desk_.way()))
                      .arg(side.name, desk_.above().name)
                      .arg(!side.shown.isNull())
                      .arg(desk_.body().girths.size())
                      .arg(QString::fromStdString(desk_.body().family), lengthUnit())
                      .arg(static_cast<int>(desk_.tool()));
    key += QString("%1|%2|%3")
               .arg(desk_.strokes().size())
               .arg(desk_.noseLeft())
               .arg(desk_.photo().known.has_value());
    key += QString("|%1|%2")
               .arg(static_cast<int>(desk_.tracing().tracedWith))
               .arg(desk_.coinError() ? said(*desk_.coinError()) : QString());
    key += QString("|%1|%2|%3")
               .arg(side.reading != nullptr)
               .arg(side.error ? said(*side.error) : QString())
               .arg(desk_.readings().places.size());
    if (desk_.made())
        key += *desk_.made() ? QString("|made") + QString::fromStdString((**desk_.made()).blank.family)
                             : "|" + said(desk_.made()->error());
    if (const auto& check = desk_.shown().check) key += said(checkSentence(*check, desk_.showsAbove()));
    key += QString("|%1%2").arg(desk_.showsAbove()).arg(desk_.stopped());
    if (desk_.above().error) key += said(*desk_.above().error);
    if (desk_.way() == BlankDesk::Way::Kind) {
        const Result<FamilyBody> body = desk_.familyBody();
        key += body ? QString("|ok") : "|" + said(body.error());
    }
    return key;
}

void WaysCard::show() {
    const QString key = shape();
    if (key != shownFor_ && !(desk_.running() && !shownFor_.isEmpty() && desk_.side().file)) {
        shownFor_ = key;
        chips_.clear();
        state_ = nullptr;
        Card* card = desk_.way() == BlankDesk::Way::Tracing ? tracingCard()
                     : desk_.way() == BlankDesk::Way::Photo ? photoCard()
                                                            : kindCard();
        card->finish();
        holder_.show(card);
    }
    refresh();
}

void WaysCard::refresh() {
    for (const Shown& shown : chips_)
        if (shown.chip) shown.chip->setValue(shown.value());
    if (stop_) stop_->setVisible(desk_.running());
    if (!state_) return;
    state_->show();
    if (desk_.running()) {
        state_->setText(tr("Looking at the picture ..."));
        return;
    }
    if (desk_.stopped()) {
        state_->setText(tr("Stopped. Change something, or open the picture again."));
        return;
    }
    const bool hasBody = desk_.made() && *desk_.made();
    state_->setVisible(hasBody);
    if (!hasBody) return;
    const MadeBlank& made = **desk_.made();
    const auto& stations = made.blank.table.stations;
    double tall = 0, wide = 0;
    for (const Station& s : stations) {
        tall = std::max(tall, s.top_mm + s.bottom_mm);
        wide = std::max(wide, 2 * s.halfWidth_mm);
    }
    const bool guessed = !made.body.warnings.empty() && made.body.warnings.front().code == "widths_assumed";
    Card::Facts facts{{tr("Long"), lengthText(stations.back().x_mm)},
                      {tr("High"), lengthText(tall)},
                      {guessed ? tr("Wide, assumed") : tr("Wide"), lengthText(wide)},
                      {tr("Outline met within"), lengthText(std::max(0.01, made.body.worst_mm), 2)}};
    if (made.body.asymmetry_mm > 0)
        facts.append({tr("Both sides agree within"), lengthText(std::max(0.05, made.body.asymmetry_mm), 2)});
    state_->setText(Card::factTable(facts));
}

void WaysCard::addState(Card& card) {
    state_ = card.words({});
    stop_ = card.button(tr("Stop looking"), Card::Look::Link, [this] { desk_.cancel(); });
    stop_->setVisible(desk_.running());
    // Why there is no body yet stands first: what helps lies below it.
    const BlankDesk::Look& side = desk_.side();
    if (side.error && !side.shown.isNull()) card.framed(said(*side.error), true);
    if (desk_.above().error) card.framed(said(*desk_.above().error), true);
    if (desk_.made() && !*desk_.made()) card.framed(said(desk_.made()->error()), true);
    if (desk_.shown().check)
        card.framed(said(checkSentence(*desk_.shown().check, desk_.showsAbove())), false);
}

void WaysCard::addGirths(Card& card, bool above) {
    card.words(above ? tr("A string tells how full the sections are.")
                     : tr("Widths come from a string laid round the body, or are assumed."));
    for (std::size_t i = 0; i < desk_.body().girths.size(); ++i) {
        const auto reading = [this, i] {
            return i < desk_.body().girths.size() ? desk_.body().girths[i] : StringReading{0, 0};
        };
        ValueChip* x = card.chip(tr("Place of string %1").arg(i + 1), ValueChip::Kind::Length, 1, 0.5,
                                 [this, i, reading](double v) {
                                     desk_.setGirth(i, {v, reading().girth_mm});
                                 });
        ValueChip* girth = card.chip(tr("Girth at string %1").arg(i + 1), ValueChip::Kind::Length, 1, 0.5,
                                     [this, i, reading](double v) {
                                         desk_.setGirth(i, {reading().x_mm, v});
                                     });
        chips_.push_back({x, [reading] { return reading().x_mm; }});
        chips_.push_back({girth, [reading] { return reading().girth_mm; }});
        card.sentence(withUnit(tr("At %1 %U from the nose the string measures %2 %U.")), {x, girth});
    }
    QList<Card::Choice> buttons{{tr("Add a string"), false, [this] { desk_.addGirth(); }}};
    if (!desk_.body().girths.empty())
        buttons.append(
            {tr("Take the last away"), false, [this] { desk_.removeGirth(desk_.body().girths.size() - 1); }});
    card.choices(buttons);
}

void WaysCard::addFamilies(Card& card) {
    const std::string shown =
        desk_.made() && *desk_.made() ? (**desk_.made()).blank.family : desk_.body().family;
    card.muted(desk_.body().family.empty() ? tr("Kind, taken for the likeliest: it gives the usual landmarks")
                                           : tr("Kind"));
    QList<Card::Choice> kinds;
    for (const BodyFamily& family : bodyFamilies())
        kinds.append({familyName(family.id), family.id == shown,
                      [this, id = std::string(family.id)] { desk_.setFamily(id); }});
    card.choices(kinds);
}

void WaysCard::addName(Card& card) {
    auto* name = new QLineEdit(QString::fromStdString(desk_.body().name), &card);
    name->setAccessibleName(tr("Name of the blank"));
    name->setPlaceholderText(tr("Name of the blank"));
    name->setMaxLength(120);
    connect(name, &QLineEdit::textChanged, this, [this](const QString& text) { desk_.setName(text); });
    card.add(name);
}

void WaysCard::addMake(Card& card) {
    if (desk_.made() && *desk_.made()) {
        for (const Warning& w : (**desk_.made()).body.warnings) card.framed(said(w), false);
        addName(card);
        card.button(tr("Make the body"), Card::Look::Primary, [this] { (void)desk_.make(); });
    }
    card.button(tr("Leave this"), Card::Look::Link, [this] { desk_.leave(); });
}

void WaysCard::addTools(Card& card) {
    const bool photo = desk_.way() == BlankDesk::Way::Photo;
    QList<Card::Choice> tools;
    const auto tool = [&](BlankDesk::Tool t, const QString& words) {
        tools.append({words, desk_.tool() == t, [this, t] { desk_.setTool(t); }});
    };
    tool(BlankDesk::Tool::Axis, tr("Axis"));
    if (photo && !desk_.showsAbove()) {  // the side alone has a scale of its own
        tool(BlankDesk::Tool::Scale, tr("Two points"));
        tool(BlankDesk::Tool::Coin, tr("A coin"));
    }
    tool(BlankDesk::Tool::TakeOut, tr("Paint out"));
    tool(BlankDesk::Tool::PutIn, tr("Paint in"));
    card.choices(tools);
    if (desk_.tool() == BlankDesk::Tool::Coin) {
        card.muted(tr("Click on a coin that lies beside the body, then say what it measures."));
        if (desk_.coinError()) card.framed(said(*desk_.coinError()), true);
    }
    if (desk_.tool() == BlankDesk::Tool::TakeOut || desk_.tool() == BlankDesk::Tool::PutIn)
        card.choices({{tr("Finer brush"), false, [this] { desk_.setBrush(desk_.brush() / 1.3); }},
                      {tr("Broader brush"), false, [this] { desk_.setBrush(desk_.brush() * 1.3); }}});
    if (!desk_.strokes().empty())
        card.button(tr("Take the last stroke back"), Card::Look::Link, [this] { desk_.takeStrokeBack(); });
}

/// How far the line stands off the body: one size by ruler, or how the pencil was held.
void WaysCard::addStandOff(Card& card) {
    ValueChip* length = card.chip(tr("Length by ruler"), ValueChip::Kind::Length, 1, 0.5,
                                  [this](double v) { desk_.setKnownSize(false, v); });
    ValueChip* height = card.chip(tr("Height by ruler"), ValueChip::Kind::Length, 1, 0.5,
                                  [this](double v) { desk_.setKnownSize(true, v); });
    chips_.push_back({length, [this] { return desk_.tracing().knownLength_mm.value_or(0); }});
    chips_.push_back({height, [this] { return desk_.tracing().knownHeight_mm.value_or(0); }});
    card.sentence(withUnit(tr("By ruler the body is %1 %U long or %2 %U high; 0 where not measured.")),
                  {length, height});
    const TracedWith with = desk_.tracing().tracedWith;
    card.muted(tr("Not measured: what the line is to the body"));
    card.choices(
        {{tr("Its edge"), with == TracedWith::Edge, [this] { desk_.setTracedWith(TracedWith::Edge); }},
         {tr("Pencil leaning"), with == TracedWith::Leaning,
          [this] { desk_.setTracedWith(TracedWith::Leaning); }},
         {tr("Pencil upright"), with == TracedWith::Upright,
          [this] { desk_.setTracedWith(TracedWith::Upright); }}});
    card.choices({{desk_.noseLeft() ? tr("Nose is at the left") : tr("Nose is at the right"), false,
                   [this] { desk_.setNoseLeft(!desk_.noseLeft()); }}});
}

Card* WaysCard::tracingCard() {
    auto* card = new Card;
    card->title(tr("Trace it"), false);
    const bool open = !desk_.side().shown.isNull();
    if (!open) {
        card->words(tr("1. Print the sheet at 100 %."));
        card->choices({{tr("Print the sheet ..."), false, [this] { emit sheetWanted(true); }},
                       {tr("Sheet as a file ..."), false, [this] { emit sheetWanted(false); }}});
        card->words(
            tr("2. Lay the body in the upper box, nose to the left, and draw round it with a soft pencil "
               "held upright. "
               "From above in the second box, if it stands; a string does as well."));
        card->words(
            tr("3. Scan the sheet, or photograph it with all rings in the picture. A slant does no harm."));
    }
    card->button(open ? tr("Another picture ...") : tr("Open the scan or photo ..."),
                 open ? Card::Look::Link : Card::Look::Primary, [this] { emit pictureWanted(false); });
    if (!open) {
        card->button(tr("Try it with the demo's tracing"), Card::Look::Link,
                     [this] { desk_.openPicture(":/demo/sedge60-tracing.jpg"); });
        addMake(*card);
        return card;
    }
    addState(*card);
    card->muted(
        tr("Drag nose and tail if the axis runs wrong. Paint out what is not the body; paint in what is "
           "missing, or along the line where it is open."));
    addTools(*card);
    const auto& reading = desk_.side().reading;
    if (reading)
        card->muted(tr("%1 of %2 rings seen, the page is flat within %3")
                        .arg(reading->page.marks.size())
                        .arg(tracing_sheet::kMarks_mm.size())
                        .arg(lengthText(std::max(0.01, reading->page.miss_mm), 2)));
    // Here whether it could be read or not: a size typed wrong must be there to be mended.
    ValueChip* ruler = card->chip(tr("What the printed line measures"), ValueChip::Kind::Length, 1, 0.1,
                                  [this](double v) { desk_.setRuler(v); });
    chips_.push_back({ruler, [this] {
                          const auto& r = desk_.side().reading;
                          return r ? r->scale * tracing_sheet::kRuler_mm
                                   : desk_.tracing().ruler_mm.value_or(tracing_sheet::kRuler_mm);
                      }});
    card->sentence(withUnit(tr("On the paper, the printed line of 100 mm measures %1 %U.")), {ruler});
    addStandOff(*card);
    if (reading) {
        addGirths(*card, reading->top.has_value());
        addFamilies(*card);
    }
    addMake(*card);
    return card;
}

Card* WaysCard::photoCard() {
    auto* card = new Card;
    card->title(tr("Photograph it"), false);
    const bool open = !desk_.side().shown.isNull();
    if (!open) {
        card->words(
            tr("Lay the body on plain paper of another colour, its left side up, in even light. Hold the "
               "camera far away and "
               "straight above: near and slanting pictures bend the outline."));
        card->button(tr("Open the photo ..."), Card::Look::Primary, [this] { emit pictureWanted(false); });
        card->button(tr("Try it with the demo's photos"), Card::Look::Link, [this] {
            desk_.openPicture(":/demo/sedge60-photo.jpg");
            desk_.openPicture(":/demo/sedge60-above.jpg", true);
            desk_.showAbove(false);
            desk_.setLength(60);
        });
        addMake(*card);
        return card;
    }
    addState(*card);
    ValueChip* length = card->chip(tr("Length of the body"), ValueChip::Kind::Length, 1, 0.5,
                                   [this](double v) { desk_.setLength(v); });
    chips_.push_back({length, [this] {
                          const auto& o = desk_.side().outline;
                          if (desk_.photo().length_mm) return *desk_.photo().length_mm;
                          return o && desk_.photo().known && desk_.photo().known->mm > 0
                                     ? o->mmPerPx * o->axis_px.length()
                                     : 0.0;
                      }});
    card->sentence(withUnit(tr("Nose to tail, without bill and rings, it is %1 %U long.")), {length});
    if (desk_.photo().known) {
        ValueChip* apart =
            card->chip(tr("Distance of the two points"), ValueChip::Kind::Length, 1, 1, [this](double v) {
                PhotoWish::Known known = *desk_.photo().known;
                known.mm = v;
                desk_.setKnown(known);
            });
        chips_.push_back({apart, [this] { return desk_.photo().known ? desk_.photo().known->mm : 0.0; }});
        card->sentence(withUnit(tr("On the table, the two brown points are %1 %U apart.")), {apart});
    }
    card->muted(
        tr("Drag nose and tail until the line runs along the body. Paint out bill and hooks that were taken "
           "for body."));
    addTools(*card);
    card->choices({{desk_.photo().noseLeft ? tr("Nose is at the left") : tr("Nose is at the right"), false,
                    [this] { desk_.setNoseLeft(!desk_.photo().noseLeft); }}});
    if (desk_.above().name.isEmpty()) {
        card->choices({{tr("Photo from above ..."), false, [this] { emit pictureWanted(true); }},
                       {tr("Another photo ..."), false, [this] { emit pictureWanted(false); }}});
    } else {
        card->choices({{tr("From the side"), !desk_.showsAbove(), [this] { desk_.showAbove(false); }},
                       {tr("From above"), desk_.showsAbove(), [this] { desk_.showAbove(true); }},
                       {tr("Another photo ..."), false, [this] { emit pictureWanted(desk_.showsAbove()); }}});
    }
    addGirths(*card, desk_.above().outline.has_value());
    addFamilies(*card);
    addMake(*card);
    return card;
}

Card* WaysCard::kindCard() {
    // In one piece: a card, from top to foot.
    auto* card = new Card;
    card->title(tr("Kind and readings"), false);
    const auto edit = [this](auto change) {
        return [this, change](double v) {
            FamilyReadings r = desk_.readings();
            change(r, v);
            desk_.setReadings(std::move(r));
        };
    };
    ValueChip* length = card->chip(tr("Length"), ValueChip::Kind::Length, 1, 0.5,
                                   edit([](FamilyReadings& r, double v) { r.length_mm = v; }));
    chips_.push_back({length, [this] { return desk_.readings().length_mm; }});
    ValueChip* height = card->chip(
        tr("Height"), ValueChip::Kind::Length, 1, 0.5,
        edit([](FamilyReadings& r, double v) { r.height_mm = v > 0 ? std::optional(v) : std::nullopt; }));
    chips_.push_back({height, [this] { return desk_.readings().height_mm.value_or(0); }});
    ValueChip* width = card->chip(
        tr("Width"), ValueChip::Kind::Length, 1, 0.5,
        edit([](FamilyReadings& r, double v) { r.width_mm = v > 0 ? std::optional(v) : std::nullopt; }));
    chips_.push_back({width, [this] { return desk_.readings().width_mm.value_or(0); }});
    card->sentence(withUnit(tr("Nose to tail it is %1 %U long, at most %2 %U high and %3 %U wide.")),
                   {length, height, width});
    card->muted(tr("0 stands for what you have not measured: it is assumed, and drawn dashed."));
    for (std::size_t i = 0; i < desk_.readings().places.size(); ++i) {
        const auto place = [this, i] {
            return i < desk_.readings().places.size() ? desk_.readings().places[i] : FamilyReading{};
        };
        const auto some = [](double v) { return v > 0 ? std::optional(v) : std::nullopt; };
        const struct {
            QString name;
            std::function<void(FamilyReading&, double)> set;
            std::function<double()> get;
        } fields[] = {
            {tr("Place %1").arg(i + 1), [](FamilyReading& p, double v) { p.x_mm = v; },
             [place] { return place().x_mm; }},
            {tr("Height at place %1").arg(i + 1),
             [some](FamilyReading& p, double v) { p.height_mm = some(v); },
             [place] { return place().height_mm.value_or(0); }},
            {tr("Width at place %1").arg(i + 1), [some](FamilyReading& p, double v) { p.width_mm = some(v); },
             [place] { return place().width_mm.value_or(0); }},
            {tr("String at place %1").arg(i + 1),
             [some](FamilyReading& p, double v) { p.girth_mm = some(v); },
             [place] { return place().girth_mm.value_or(0); }}};
        QList<QWidget*> chips;
        for (const auto& field : fields) {
            ValueChip* chip = card->chip(field.name, ValueChip::Kind::Length, 1, 0.5,
                                         edit([i, set = field.set](FamilyReadings& r, double v) {
                                             if (i < r.places.size()) set(r.places[i], v);
                                         }));
            chips_.push_back({chip, field.get});
            chips << chip;
        }
        card->sentence(withUnit(tr("%1 %U from the nose: %2 %U high, %3 %U wide, a string measures %4 %U.")),
                       chips);
    }
    QList<Card::Choice> buttons{
        {tr("Add a place"), false, [this] {
             FamilyReadings r = desk_.readings();
             FamilyReading place;
             place.x_mm = std::round((0.3 + 0.15 * static_cast<double>(r.places.size() % 4)) * r.length_mm);
             r.places.push_back(place);
             desk_.setReadings(std::move(r));
         }}};
    if (!desk_.readings().places.empty())
        buttons.append({tr("Take the last away"), false, [this] {
                            FamilyReadings r = desk_.readings();
                            r.places.pop_back();
                            desk_.setReadings(std::move(r));
                        }});
    card->choices(buttons);
    const Result<FamilyBody> body = desk_.familyBody();
    // Here from the start, so that nothing moves when the readings are enough.
    addName(*card);
    card->button(tr("Make the body"), Card::Look::Primary, [this] { (void)desk_.makeFamily(); })
        ->setEnabled(static_cast<bool>(body));
    if (!body && desk_.readings().length_mm > 0) card->framed(said(body.error()), true);
    card->button(tr("Leave this"), Card::Look::Link, [this] { desk_.leave(); });
    return card;
}

}  // namespace nine::app
