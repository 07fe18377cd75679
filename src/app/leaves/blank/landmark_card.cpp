#include "app/leaves/blank/landmark_card.h"

#include <cmath>

#include "app/leaves/blank/blank_edits.h"
#include "app/sheet/names.h"
#include "app/sheet/units_text.h"
#include "app/theme/theme.h"

namespace nine::app {

LandmarkCard::LandmarkCard(LeafContext context, CardHolder& holder, QObject* parent)
    : QObject(parent), context_(context), holder_(holder) {}

const Landmark* LandmarkCard::landmark() const {
    const auto found = job().get<BlankChapter>().landmarks.find(context_.view.landmark());
    return found == job().get<BlankChapter>().landmarks.end() ? nullptr : &found->second;
}

const Zone* LandmarkCard::zone() const {
    for (const Zone& z : job().get<BlankChapter>().zones)
        if ("zone:" + z.id == context_.view.landmark()) return &z;
    return nullptr;
}

void LandmarkCard::take(const Result<Job>& edited, const QString& label, ValueChip* typed) {
    if (typed) typed->setWrong(edited ? QString() : said(edited.error()));
    if (wrong_) {
        wrong_->setText(edited ? QString() : said(edited.error()));
        wrong_->setVisible(!edited);
    }
    if (!edited) return;
    context_.document.beginGesture();
    context_.document.edit(*edited, label);
}

bool LandmarkCard::show() {
    const std::string& name = context_.view.landmark();
    const Landmark* mark = landmark();
    const Zone* area = zone();
    if (!mark && !area) return false;
    const QString key = QString::fromStdString(name) + lengthUnit() + (tokens().dark ? "d" : "l") +
                        (mark ? QString::fromStdString(mark->eyeType) + (mark->diameter_mm > 0 ? "e" : "")
                              : QString::fromStdString(area->kind) + QString::number(area->relief_mm));
    if (key != shownFor_) {
        shownFor_ = key;
        chips_.clear();
        mark ? landmarkCard(name) : zoneCard(area->id);
    }
    for (const Shown& shown : chips_)
        if (shown.chip) shown.chip->setValue(shown.value());
    if (mark && facts_) {
        Card::Facts rows;
        if (mark->diameter_mm > 0) {
            const std::optional<double> stock = stockEyeFor(*mark);
            rows.append({tr("Stock eye that goes in"), stock ? lengthText(*stock, 0) : tr("none")});
            const std::optional<double> pupil = pupilDirection(*mark);
            rows.append({tr("Pupil points"), !pupil        ? tr("nowhere: round")
                                             : *pupil == 0 ? tr("to the nose, on both sides")
                                                           : tr("upright")});
        }
        if (mark->assumed) rows.append({tr("Place"), tr("assumed, drag it to where it is")});
        facts_->setText(Card::factTable(rows));
        facts_->setVisible(!rows.isEmpty());
    }
    if (area && facts_) {
        const auto known = context_.results.zoneAreas().find(area->id);
        facts_->setText(known == context_.results.zoneAreas().end()
                            ? QString()
                            : Card::factTable({{tr("Area"), tr("%1 mm²").arg(known->second, 0, 'f', 1)}}));
    }
    return true;
}

void LandmarkCard::landmarkCard(const std::string& name) {
    // In one piece: a card, from top to foot.
    auto* card = new Card;
    const Landmark& mark = *landmark();
    card->title(capital(landmarkName(name)));
    if (const LandmarkKind* kind = landmarkKind(name)) {
        card->muted(capital(said(kind->meaning)) + ". " +
                    (kind->central ? tr("On the middle of the fish.") : tr("One on each side, mirrored.")));
    }
    const auto chip = [&](const QString& what, ValueChip::Kind kind, int decimals,
                          std::function<double(const Landmark&)> get,
                          std::function<void(Landmark&, double)> set) {
        ValueChip* c = card->chip(what, kind, decimals, kind == ValueChip::Kind::Length ? 0.1 : 1, {});
        connect(c, &ValueChip::committed, this, [this, c, name, set](double v) {
            const auto found = job().get<BlankChapter>().landmarks.find(name);  // whatever is selected by now
            if (found == job().get<BlankChapter>().landmarks.end()) return;
            Landmark changed = found->second;
            set(changed, v);
            take(withLandmarkAs(job(), name, std::move(changed)), tr("Change %1").arg(landmarkName(name)), c);
        });
        chips_.push_back({c, [this, get] { return landmark() ? get(*landmark()) : 0.0; }});
        return c;
    };
    // A curve moves as a whole by its first point; its points are dragged on the drawing.
    const auto along = chip(
        tr("Distance from the nose"), ValueChip::Kind::Length, 1,
        [](const Landmark& l) { return l.points.front().x(); },
        [](Landmark& l, double v) {
            const double by = v - l.points.front().x();
            for (Vec2& p : l.points) p.x() += by;
        });
    const auto round = chip(
        tr("Height along the skin"), ValueChip::Kind::Length, 1,
        [](const Landmark& l) { return l.points.front().y(); },
        [](Landmark& l, double v) {
            const double by = v - l.points.front().y();
            for (Vec2& p : l.points) p.y() += by;
        });
    card->sentence(
        withUnit(mark.isCurve() ? tr("It begins %1 %U from the nose, %2 %U along the skin above the axis.")
                                : tr("It sits %1 %U from the nose, %2 %U along the skin above the axis.")),
        {along, round});
    if (mark.diameter_mm > 0 || name == "eye") {
        const auto wide = chip(
            tr("Diameter of the socket"), ValueChip::Kind::Length, 1,
            [](const Landmark& l) { return l.diameter_mm; },
            [](Landmark& l, double v) { l.diameter_mm = v; });
        const auto paint = chip(
            tr("Paint build-up"), ValueChip::Kind::Length, 2, [](const Landmark& l) { return l.buildUp_mm; },
            [](Landmark& l, double v) { l.buildUp_mm = v; });
        card->sentence(withUnit(tr("The socket is %1 %U wide; paint takes %2 %U of it all round.")),
                       {wide, paint});
        QList<Card::Choice> types;
        for (const auto& [id, words] : {std::pair{"", tr("Round pupil")},
                                        {"forward", tr("Looks forward")},
                                        {"cat", tr("Upright slit")}}) {
            types.append({words, mark.eyeType == id, [this, name, id = std::string(id)] {
                              const auto found = job().get<BlankChapter>().landmarks.find(name);
                              if (found == job().get<BlankChapter>().landmarks.end()) return;
                              Landmark changed = found->second;
                              changed.eyeType = id;
                              take(withLandmarkAs(job(), name, std::move(changed)), tr("Change the eye"));
                          }});
        }
        card->choices(types);
    }
    if (name == "bill_slot") {
        const auto angle = chip(
            tr("Angle of the bill"), ValueChip::Kind::Number, 0,
            [](const Landmark& l) { return l.angle_deg; }, [](Landmark& l, double v) { l.angle_deg = v; });
        const auto length = chip(
            tr("Length of the bill"), ValueChip::Kind::Length, 1,
            [](const Landmark& l) { return l.length_mm; }, [](Landmark& l, double v) { l.length_mm = v; });
        const auto width = chip(
            tr("Width of the bill"), ValueChip::Kind::Length, 1, [](const Landmark& l) { return l.width_mm; },
            [](Landmark& l, double v) { l.width_mm = v; });
        card->sentence(withUnit(tr("The bill stands %1° down, %2 %U long and %3 %U wide. It is taped before "
                                   "anything is sprayed.")),
                       {angle, length, width});
    }
    facts_ = card->facts({});
    wrong_ = card->framed({}, true);
    wrong_->hide();
    card->button(tr("Take it out"), Card::Look::Link, [this, name] {
        take(withoutLandmark(job(), name), tr("Take out %1").arg(landmarkName(name)));
        if (!landmark()) context_.view.setLandmark("");
    });
    card->button(tr("Back to the stations"), Card::Look::Link, [this] { context_.view.setLandmark(""); });
    card->finish();
    holder_.show(card);
}

void LandmarkCard::zoneCard(const std::string& id) {
    auto* card = new Card;
    const Zone& area = *zone();
    card->title(area.noPaint ? tr("Bare area") : tr("Carved area"));
    card->words(
        area.noPaint
            ? tr("No paint goes here: no mask may open over it.")
            : tr("The carving holds every sheet off the skin here; the spray plan counts with that gap."));
    const auto ofId = [this, id]() -> const Zone* {
        for (const Zone& z : job().get<BlankChapter>().zones)
            if (z.id == id) return &z;
        return nullptr;
    };
    const auto change = [this, ofId](std::function<void(Zone&)> set) {
        return [this, set, ofId] {
            if (!ofId()) return;
            Zone changed = *ofId();
            set(changed);
            take(withZone(job(), std::move(changed)), tr("Change the area"));
        };
    };
    QList<Card::Choice> kinds;
    for (const ZoneKind& kind : zoneKinds()) {
        kinds.append({said(kind.name), area.kind == kind.id, change([kind](Zone& z) {
                          z.kind = std::string(kind.id);
                          z.name = kind.name.text();
                          z.noPaint = kind.noPaint;
                          if (!kind.noPaint && z.relief_mm == 0) z.relief_mm = 0.15;
                          if (kind.noPaint) z.relief_mm = 0;
                      })});
    }
    card->choices(kinds);
    if (!area.noPaint) {
        QList<Card::Choice> depths;
        for (const ReliefName& depth : reliefNames())
            depths.append({said(depth.name), area.relief_mm == depth.depth_mm,
                           change([depth](Zone& z) { z.relief_mm = depth.depth_mm; })});
        card->choices(depths);
        ValueChip* deep =
            card->chip(tr("Depth of the carving"), ValueChip::Kind::Length, 2, 0.05, [this, ofId](double v) {
                if (!ofId()) return;
                Zone changed = *ofId();
                changed.relief_mm = v;
                take(withZone(job(), std::move(changed)), tr("Depth of the carving"));
            });
        chips_.push_back({deep, [this] { return zone() ? zone()->relief_mm : 0.0; }});
        card->sentence(withUnit(tr("It is %1 %U deep.")), {deep});
    }
    facts_ = card->facts({});
    wrong_ = card->framed({}, true);
    wrong_->hide();
    card->button(tr("Take it away"), Card::Look::Link, [this, id] {
        take(withoutZone(job(), id), tr("Take an area away"));
        context_.view.setLandmark("");
    });
    card->button(tr("Back to the stations"), Card::Look::Link, [this] { context_.view.setLandmark(""); });
    card->finish();
    holder_.show(card);
}

}  // namespace nine::app
