#include "spray/plan.h"

#include <algorithm>
#include <cmath>

#include "base/number_text.h"
#include "base/units.h"
#include "spray/spray_steps.h"
#include "spray/wet_film.h"

namespace nine {
namespace {

constexpr int kMostCoats = 20;

std::string lowered(std::string_view name) {
    std::string text(name);
    if (!text.empty() && text[0] >= 'A' && text[0] <= 'Z') text[0] = static_cast<char>(text[0] - 'A' + 'a');
    return text;
}

constexpr double kMostDrops = 100;
constexpr double kSamePsi = 0.05;
constexpr double kAimSigmas = 1.3;    // onto the mask: a sharp line with a soft shadow
constexpr double kSoftWithin = 0.15;  // of the width wished for

std::string psiText(double kpa) {
    return fixedText(kpa / kKpaPerPsi, 0) + " psi (" + fixedText(kpa / 100, 2) + " bar)";
}

std::string dropsText(const Reduction& r) {
    return numberText(r.paint) + " : " + numberText(r.reducer) + " drops (" +
           fixedText(100 * (1 - r.share()), 0) + " % reducer)";
}

struct Choice {
    Gun gun;
    double psi;
};

/// The gun and the pressure, inside practice and what its regulator holds.
Result<Choice> chooseGun(const SprayPractice& practice, const SpraySetting& setting, std::vector<Gun> guns,
                         const SprayPins& pins) {
    const Result<Mixture> mixture = mixed(setting.paint, setting.reduction);
    if (!mixture) return mixture.error();
    std::sort(guns.begin(), guns.end(), [](const Gun& a, const Gun& b) { return a.needle_mm < b.needle_mm; });
    for (const Gun& gun : guns) {
        if (pins.needle_mm && std::abs(gun.needle_mm - *pins.needle_mm) > 1e-6) continue;
        const double psi = pins.pressure_kpa
                               ? *pins.pressure_kpa / kKpaPerPsi
                               : std::clamp(practice.pressure_psi.start, gun.lowest_psi, gun.highest_psi);
        if (psi < gun.lowest_psi - 1e-6 || psi > gun.highest_psi + 1e-6) continue;
        if (!pins.pressure_kpa && !practice.pressure_psi.holds(psi)) continue;
        const double largest = largestFlow_ml_min(psi * kKpaPerPsi, gun.needle_mm, *mixture);
        if (triggerFor(setting.flow_ml_min, largest) <= kMostTrigger) return Choice{gun, psi};
    }
    if (pins.needle_mm && std::none_of(guns.begin(), guns.end(), [&](const Gun& g) {
            return std::abs(g.needle_mm - *pins.needle_mm) <= 1e-6;
        })) {
        return Error{"no_gun",
                     "No gun on the bench has a needle of " + numberText(*pins.needle_mm) +
                         " mm: put one on My bench, or release the needle.",
                     "bench"};
    }
    return Error{"no_gun",
                 "No gun on the bench gives " + fixedText(setting.flow_ml_min, 1) +
                     " mL/min of this paint at " + fixedText(practice.pressure_psi.low, 0) + " to " +
                     fixedText(practice.pressure_psi.high, 0) +
                     " psi: thin it more, or take a larger needle.",
                 "bench"};
}

/// What sharpens the edge most, tried one by one in the model; pins are left alone.
std::optional<SprayRemedy> sharpest(const SprayPlan& plan, const MaskToSpray& mask, const SprayPins& pins) {
    std::vector<SprayRemedy> tried;
    const auto attempt = [&](SprayRemedy remedy, const SpraySetting& setting, double gap_mm) {
        const Result<EdgeFigures> edge = edgeFigures(setting, gap_mm);
        if (!edge || edge->width_mm >= plan.edge.width_mm) return;
        remedy.width_mm = edge->width_mm;
        tried.push_back(std::move(remedy));
    };
    const double standsOff = std::max(0.0, mask.lift_mm - mask.relief_mm);
    if (standsOff > 0)
        attempt({"press the sheet down where it stands off, or take a softer one", {}, {}, {}}, plan.setting,
                mask.gap_mm() - standsOff);
    if (mask.pads_mm > 0) {
        const double thinner = std::round(5 * mask.pads_mm) / 10;
        attempt({"take thinner pads, " + fixedText(thinner, 1) + " mm", {}, thinner, {}}, plan.setting,
                mask.gap_mm() - mask.pads_mm + thinner);
    }
    if (!pins.pressure_kpa) {
        SpraySetting other = plan.setting;
        other.gauge_kpa = std::max(plan.practice.pressure_psi.low, plan.gun.lowest_psi) * kKpaPerPsi;
        SprayPins pinned = pins;
        pinned.pressure_kpa = other.gauge_kpa;
        attempt({"turn the pressure down to " + psiText(other.gauge_kpa), {}, {}, pinned}, other,
                mask.gap_mm());
    }
    if (!pins.aim_mm) {
        SpraySetting other = plan.setting;
        other.aim_mm = std::round(kAimSigmas * sprayWidth_mm(other.distance_mm));
        SprayPins pinned = pins;
        pinned.aim_mm = other.aim_mm;
        attempt({"aim " + fixedText(other.aim_mm, 0) + " mm onto the sheet, not at the hole", {}, {}, pinned},
                other, mask.gap_mm());
    }
    const auto best = std::min_element(
        tried.begin(), tried.end(),
        [](const SprayRemedy& a, const SprayRemedy& b) { return *a.width_mm < *b.width_mm; });
    return best == tried.end() ? std::nullopt : std::optional(*best);
}

/// Pads that make an edge as wide as wanted; nothing when it is that wide without any.
std::optional<double> padsFor(const SpraySetting& setting, double gapWithout_mm, double width_mm) {
    const auto widthAt = [&](double pads) {
        const Result<EdgeFigures> edge = edgeFigures(setting, gapWithout_mm + pads);
        return edge ? edge->width_mm : 0;
    };
    double low = 0, high = kLargestGap_mm - gapWithout_mm;
    if (widthAt(0) >= width_mm || widthAt(high) < width_mm) return std::nullopt;
    for (int i = 0; i < 40; ++i) {
        const double middle = 0.5 * (low + high);
        (widthAt(middle) < width_mm ? low : high) = middle;
    }
    return 0.5 * (low + high);
}

void giveReasons(SprayPlan& plan, const MaskToSpray& mask, const SprayPins& pins) {
    const SpraySetting& s = plan.setting;
    const SprayPractice& p = plan.practice;
    plan.reasons.push_back("From practice: " + fixedText(p.pressure_psi.start, 0) + " psi (range " +
                           fixedText(p.pressure_psi.low, 0) + " to " + fixedText(p.pressure_psi.high, 0) +
                           "), " + fixedText(p.distance_mm.start, 0) + " mm away, " + dropsText(p.reduction) +
                           "; " + lowered(s.paint.name) + " takes about " + fixedText(s.paint.fullCoats, 0) +
                           " coats to its full strength.");
    if (!pins.empty()) plan.reasons.push_back("Pinned by you, kept as they are: " + pinnedText(pins) + ".");
    std::string gap = "the gap of " + fixedText(plan.gap_mm, 2) + " mm";
    if (mask.relief_mm > mask.lift_mm)
        gap += " (" + fixedText(mask.relief_mm, 2) + " of it carving under the sheet)";
    plan.reasons.push_back("Computed: " + gap + " makes the edge " + fixedText(plan.along.width_mm, 2) +
                           " mm wide with strokes along it, " + fixedText(plan.across.width_mm, 2) +
                           " mm across.");
    // A thick sheet throws its own shadow at a slant: the edge moves by so much on the far side.
    const double shadow = mask.sheet_mm * std::tan(degToRad(s.angle_deg));
    if (shadow >= 0.005)
        plan.reasons.push_back("Computed: at this slant the sheet, " + fixedText(mask.sheet_mm, 2) +
                               " mm thick, keeps paint off " + fixedText(shadow, 2) +
                               " mm beside its far edge.");
    if (plan.edge.fade_mm > 0)
        plan.reasons.push_back("Aimed " + fixedText(s.aim_mm, 1) +
                               " mm onto the sheet: a sharp line, with a shadow that fades over " +
                               fixedText(plan.edge.fade_mm, 1) + " mm.");
    const double width = plan.edge.width_mm;
    if (mask.soft) {
        plan.meetsWish = std::abs(width - mask.wantedWidth_mm) <= kSoftWithin * mask.wantedWidth_mm;
        if (plan.meetsWish) return;
        const std::string wanted = "Wanted: soft, " + fixedText(mask.wantedWidth_mm, 1) + " mm. ";
        if (const auto pads = padsFor(s, plan.gap_mm - mask.pads_mm, mask.wantedWidth_mm)) {
            const double tenth = std::round(10 * *pads) / 10;
            plan.remedy = {"hold the sheet off on pads of " + fixedText(tenth, 1) + " mm",
                           mask.wantedWidth_mm,
                           tenth,
                           {}};
            plan.reasons.push_back(wanted + "First " + plan.remedy->words + ".");
        } else {
            plan.reasons.push_back(wanted +
                                   (width > mask.wantedWidth_mm
                                        ? "It is softer as it lies: press the sheet down, or go closer."
                                        : "No gap makes it so soft here: spray it free-hand."));
        }
        return;
    }
    plan.meetsWish = width <= mask.wantedWidth_mm;
    if (plan.meetsWish) return;
    plan.remedy = sharpest(plan, mask, pins);
    plan.reasons.push_back("Wanted: at most " + fixedText(mask.wantedWidth_mm, 1) + " mm. " +
                           (plan.remedy ? "First " + plan.remedy->words + ": about " +
                                              fixedText(*plan.remedy->width_mm, 2) + " mm then."
                                        : "Nothing was found that sharpens this edge; release a pin."));
}

/// Coats until another adds nothing: the paint's usual number, more of them where each lies thinner or is
/// more reduced than usual. A mist is a mist, whatever the paint.
int coatsFor(const SprayPlan& plan, const Mixture& mixture) {
    constexpr double kCountsAsFull = 0.25;  // of a coat: nobody sprays another for that
    const SprayPractice& p = plan.practice;
    if (p.work == SprayWork::Mist) return p.leastCoats;
    SpraySetting usual = plan.setting;
    usual.reduction = {4, 1};
    usual.distance_mm = p.distance_mm.start;
    usual.angle_deg = 0;
    usual.flow_ml_min = p.flow_ml_min;
    usual.speed_mm_s = p.speed_mm_s;
    const Result<Mixture> strong = mixed(usual.paint, usual.reduction);
    const double there = plan.coat_um * mixture.solids;
    if (!strong || !(there > 0)) return p.leastCoats;
    const double share = coatFilm_um(usual, p.passes) * strong->solids / there;
    return std::clamp(static_cast<int>(std::ceil(plan.setting.paint.fullCoats * share - kCountsAsFull)),
                      p.leastCoats, std::max(p.leastCoats, kMostCoats));
}

/// The plan, without looking for what contradicts what.
Result<SprayPlan> tryPlan(const MaskToSpray& mask, const SprayBench& bench, const SprayPins& pins) {
    if (Status ok = checkPins(pins, "pins"); !ok) return ok.error();
    SprayPlan plan;
    plan.practice = bench.practiceFor(mask.work);
    const SprayPractice& p = plan.practice;
    SpraySetting& s = plan.setting;
    s.paint = mask.paint;
    s.distance_mm = pins.distance_mm.value_or(p.distance_mm.start);
    s.angle_deg = pins.angle_deg.value_or(0);
    s.reduction = pins.reduction.value_or(p.reduction);
    s.flow_ml_min = pins.flow_ml_min.value_or(p.flow_ml_min);
    s.speed_mm_s = pins.speed_mm_s.value_or(p.speed_mm_s);
    s.aim_mm = pins.aim_mm.value_or(0);
    s.stroke = pins.stroke.value_or(Stroke::Along);
    const Result<Choice> choice = chooseGun(p, s, bench.guns, pins);
    if (!choice) return choice.error();
    plan.gun = choice->gun;
    s.needle_mm = plan.gun.needle_mm;
    s.gauge_kpa = choice->psi * kKpaPerPsi;
    plan.coats = pins.coats.value_or(p.leastCoats);  // what the paint asks for is known once the film is
    plan.passes = p.passes;
    plan.gap_mm = mask.gap_mm();

    for (const auto& [stroke, figures] :
         {std::pair{Stroke::Along, &plan.along}, {Stroke::Across, &plan.across}}) {
        SpraySetting one = s;
        one.stroke = stroke;
        const Result<EdgeFigures> edge = edgeFigures(one, plan.gap_mm);
        if (!edge) return edge.error();
        *figures = *edge;
    }
    plan.edge = s.stroke == Stroke::Along ? plan.along : plan.across;
    const Mixture mixture = *mixed(s.paint, s.reduction);
    plan.coat_um = coatFilm_um(s, plan.passes);
    plan.run_um = runLimit_um(s.paint, mixture);
    if (!pins.coats) plan.coats = coatsFor(plan, mixture);

    plan.warnings = plan.edge.warnings;
    const double psi = choice->psi;
    if (psi < p.pressure_psi.low - kSamePsi || psi > p.pressure_psi.high + kSamePsi)
        plan.warnings.push_back({"outside_practice",
                                 fixedText(psi, 0) + " psi is outside what painters use here (" +
                                     fixedText(p.pressure_psi.low, 0) + " to " +
                                     fixedText(p.pressure_psi.high, 0) + " psi).",
                                 "pins.pressure_kpa"});
    if (plan.coat_um > kWettest * plan.run_um)
        plan.warnings.push_back(
            {"runs",
             "A " + wetSentence(plan.coat_um, plan.run_um) + ": fewer passes, faster, or farther away.",
             "film"});
    giveReasons(plan, mask, pins);
    plan.steps = sprayStepsFrom(plan, mask, bench);
    return plan;
}

/// Each pin by the field it is written in, with what it asks for, and the pins without it.
struct OnePin {
    std::string field, words;
    SprayPins without;
};

std::vector<OnePin> eachPin(const SprayPins& pins) {
    std::vector<OnePin> all;
    const auto add = [&](const char* field, const std::string& words, auto member) {
        OnePin pin{field, words, pins};
        (pin.without.*member).reset();
        all.push_back(std::move(pin));
    };
    if (pins.needle_mm)
        add("needle_mm", "needle " + numberText(*pins.needle_mm) + " mm", &SprayPins::needle_mm);
    if (pins.pressure_kpa) add("pressure_kpa", psiText(*pins.pressure_kpa), &SprayPins::pressure_kpa);
    if (pins.flow_ml_min)
        add("flow_ml_min", numberText(*pins.flow_ml_min) + " mL/min", &SprayPins::flow_ml_min);
    if (pins.reduction) add("reduction", dropsText(*pins.reduction), &SprayPins::reduction);
    if (pins.distance_mm)
        add("distance_mm", fixedText(*pins.distance_mm, 0) + " mm away", &SprayPins::distance_mm);
    if (pins.angle_deg)
        add("angle_deg", fixedText(*pins.angle_deg, 0) + " degrees off straight", &SprayPins::angle_deg);
    if (pins.speed_mm_s) add("speed_mm_s", fixedText(*pins.speed_mm_s, 0) + " mm/s", &SprayPins::speed_mm_s);
    if (pins.aim_mm)
        add("aim_mm", "aimed " + numberText(*pins.aim_mm) + " mm onto the sheet", &SprayPins::aim_mm);
    if (pins.coats) add("coats", std::to_string(*pins.coats) + " coats", &SprayPins::coats);
    if (pins.stroke)
        add("stroke", *pins.stroke == Stroke::Along ? "strokes along the edge" : "strokes across the edge",
            &SprayPins::stroke);
    return all;
}

}  // namespace

bool SprayPins::empty() const {
    return *this == SprayPins{};
}

SprayPins released(const SprayPins& pins, const std::string& field) {
    for (const OnePin& pin : eachPin(pins)) {
        if (pin.field == field) return pin.without;
    }
    return pins;
}

std::string pinnedText(const SprayPins& pins) {
    std::string text;
    for (const OnePin& pin : eachPin(pins)) text += (text.empty() ? "" : ", ") + pin.words;
    return text;
}

double coatFilm_um(const SpraySetting& setting, int passes) {
    SpraySetting open = setting;
    open.aim_mm = 0;  // over the open skin, whatever the edge gets
    open.film_um.reset();
    const Result<EdgeFigures> edge = edgeFigures(open, 0);
    return edge ? passes * edge->film_um : 0;
}

Status checkPins(const SprayPins& pins, const std::string& path) {
    SpraySetting s;
    s.gauge_kpa = pins.pressure_kpa.value_or(s.gauge_kpa);
    s.needle_mm = pins.needle_mm.value_or(s.needle_mm);
    s.distance_mm = pins.distance_mm.value_or(s.distance_mm);
    s.angle_deg = pins.angle_deg.value_or(s.angle_deg);
    s.flow_ml_min = pins.flow_ml_min.value_or(s.flow_ml_min);
    s.speed_mm_s = pins.speed_mm_s.value_or(s.speed_mm_s);
    s.aim_mm = pins.aim_mm.value_or(s.aim_mm);
    if (Status ok = checkSetting(s, 0); !ok) {
        Error error = ok.error();
        for (const char* field : {"pressure_kpa", "needle_mm", "distance_mm", "angle_deg", "flow_ml_min",
                                  "speed_mm_s", "aim_mm"}) {
            if (std::string_view(field).substr(0, error.where.size()) != error.where) continue;
            error.where = path + "." + field;
            break;
        }
        return error;
    }
    if (pins.reduction) {
        const auto& [paint, reducer] = *pins.reduction;
        if (!(paint > 0 && paint <= kMostDrops && reducer >= 0 && reducer <= kMostDrops))
            return Error{
                "out_of_range",
                "A mix is up to 100 drops of paint, at least a part of one, and up to 100 of reducer.",
                path + ".reduction"};
        const Result<Mixture> mixture = mixed(s.paint, *pins.reduction);
        if (!mixture) return Error{"out_of_range", mixture.error().text, path + ".reduction"};
    }
    if (pins.coats && !(*pins.coats >= 1 && *pins.coats <= 20))
        return Error{"out_of_range", "Coats are counted from 1 to 20.", path + ".coats"};
    return Done{};
}

Result<SprayPlan> planSpray(const MaskToSpray& mask, const SprayBench& bench, const SprayPins& pins) {
    Result<SprayPlan> plan = tryPlan(mask, bench, pins);
    if (plan || plan.error().code != "no_gun" || pins.empty()) return plan;
    // Which pin binds: the one without which all others can be kept. Of several the first that is looked at.
    for (const OnePin& pin : eachPin(pins)) {
        const Result<SprayPlan> without = tryPlan(mask, bench, pin.without);
        if (!without) continue;
        const std::string others = pinnedText(pin.without);
        return Error{"pins_contradict",
                     "The pinned " + pin.words + " cannot hold" +
                         (others.empty() ? " with the guns on the bench" : " together with " + others) +
                         ": release it (the plan would take " + fieldText(without->setting, pin.field) +
                         ") or change the others.",
                     "pins." + pin.field};
    }
    return plan;
}

}  // namespace nine
