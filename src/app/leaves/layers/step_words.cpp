#include "app/leaves/layers/step_words.h"

#include "app/document/selection.h"
#include "app/leaves/layers/layers_leaf.h"
#include "app/sheet/names.h"
#include "app/sheet/units_text.h"

namespace nine::app {
namespace {

template <typename E>
QString nameIn(E value, std::span<const EnumName<E>> names) {
    for (const EnumName<E>& name : names)
        if (name.value == value) return said(Words(name.name));
    return {};
}

QString wordIn(std::string_view id, std::span<const WordName> names) {
    for (const WordName& name : names)
        if (name.id == id) return said(Words(name.name));
    return QString::fromUtf8(id.data(), static_cast<qsizetype>(id.size()));
}

}  // namespace

QString actName(Act act) {
    return nameIn(act, actNames());
}
QString dryName(Dry dry) {
    return nameIn(dry, dryNames());
}

QString maskName(const Job& job, const std::string& id) {
    for (const MaskSpecPtr& spec : maskSpecs(job))
        if (spec->id == id) return QString::fromStdString(spec->shownName());
    return {};
}

QString nameOf(const Job& job, const std::string& id) {
    if (const QString mask = maskName(job, id); !mask.isEmpty()) return mask;
    if (const ElementPtr element = elementOf(job, id)) return QString::fromStdString(element->shownName());
    if (job.get<BlankChapter>().landmarks.count(id)) return landmarkName(id);
    return QString::fromStdString(id);
}

QString stepTitle(const Step& step) {
    return step.name.empty() ? capital(actName(step.act)) : QString::fromStdString(step.name);
}

QString forLures(int lures) {
    return lures == 1 ? LayersLeaf::tr("for one lure") : LayersLeaf::tr("for %1 lures").arg(lures);
}

QString coatCount(int coats) {
    return coats == 1 ? LayersLeaf::tr("one coat") : LayersLeaf::tr("%1 coats").arg(coats);
}

QString coatsText(const Step& step) {
    if (step.mist) return LayersLeaf::tr("one mist");
    if (step.coats == 1) return LayersLeaf::tr("one coat");
    return LayersLeaf::tr("%1 coats").arg(step.coats);
}

QString stepRemark(const Job& job, const Step& step) {
    // In one piece: a phrase for each act.
    QStringList parts;
    if (!step.on) parts << LayersLeaf::tr("switched off");
    switch (step.act) {
        case Act::Prepare:
        case Act::Cover:
            for (const std::string& what : step.does) parts << wordIn(what, doingsOf(step.act));
            break;
        case Act::Base:
        case Act::Colour:
        case Act::ByHand:
            parts << coatsText(step) << dryName(step.dry);
            break;
        case Act::MaskOn:
            parts << LayersLeaf::tr("lay %1 on").arg(nameOf(job, step.mask));
            for (const std::string& what : step.does) parts << wordIn(what, doingsOf(step.act));
            break;
        case Act::MaskOff:
            parts << LayersLeaf::tr("lift %1").arg(nameOf(job, step.mask));
            break;
        case Act::NetOn:
        case Act::NetOff:
            if (const auto& net = job.get<ScalesChapter>().net) parts << QString::fromStdString(net->name);
            break;
        case Act::Eyes:
            if (step.eye_mm > 0) parts << LayersLeaf::tr("eyes of %1").arg(lengthText(step.eye_mm, 1));
            if (!step.glue.empty()) parts << wordIn(step.glue, glues());
            break;
        case Act::Lock:
            parts << LayersLeaf::tr("thin, so that the clear does not move the paint");
            break;
        case Act::Clear:
            if (const ClearKind* kind = findClear(step.clear)) parts << said(Words(kind->name));
            for (const std::string& what : step.does) parts << wordIn(what, doingsOf(step.act));
            break;
        case Act::Cure:
        case Act::Note:
            break;
    }
    if (step.wait_min >= 120)
        parts << LayersLeaf::tr("wait %1 h").arg(step.wait_min / 60, 0, 'g', 3);
    else if (step.wait_min > 0)
        parts << LayersLeaf::tr("wait %1 min").arg(step.wait_min);
    if (!step.note.empty()) parts << QString::fromStdString(step.note);
    parts.removeAll(QString());
    return parts.join(", ");
}

QString whereTag(const Job& job, const Step& step) {
    const Where& w = step.where;
    const auto from = [&] {
        return w.from == FadeFrom::Landmark && !w.of.empty()
                   ? LayersLeaf::tr("round %1").arg(nameOf(job, w.of))
                   : nameIn(w.from, fadeNames());
    };
    switch (w.reaches) {
        case Reaches::Everything:
            return LayersLeaf::tr("everywhere");
        case Reaches::Windows:
        case Reaches::Negatives:
        case Reaches::Element:
            return nameOf(job, w.of);
        case Reaches::Net:
            return LayersLeaf::tr("the net");
        case Reaches::Fade:
        case Reaches::HeldOff:
        case Reaches::Grazing:
            return from();
    }
    return {};
}

QString whereKind(const Step& step) {
    const Where& w = step.where;
    switch (w.reaches) {
        case Reaches::Everything:
            return LayersLeaf::tr("no mask");
        case Reaches::Windows:
            return LayersLeaf::tr("windows");
        case Reaches::Negatives:
            return LayersLeaf::tr("negatives");
        case Reaches::Element:
            return LayersLeaf::tr("freehand");
        case Reaches::Net:
            return LayersLeaf::tr("through it");
        case Reaches::Grazing:
            return LayersLeaf::tr("grazing the net");
        case Reaches::Fade:
            return LayersLeaf::tr("fades over %1").arg(lengthText(w.reach_mm, 0));
        case Reaches::HeldOff:
            return LayersLeaf::tr("past a card");
    }
    return {};
}

QString apartName(Apart apart) {
    switch (apart) {
        case Apart::Hardly:
            return LayersLeaf::tr("hardly told apart");
        case Apart::Close:
            return LayersLeaf::tr("told apart at a close look");
        case Apart::Clear:
            return LayersLeaf::tr("clear");
        case Apart::Strong:
            return LayersLeaf::tr("strong");
        case Apart::Loud:
            return LayersLeaf::tr("loud");
    }
    return {};
}

ink::Severity severityOf(Severity severity) {
    return severity == Severity::Fault     ? ink::Severity::Fault
           : severity == Severity::Caution ? ink::Severity::Caution
                                           : ink::Severity::Note;
}

}  // namespace nine::app
