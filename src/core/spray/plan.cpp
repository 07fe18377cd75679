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

constexpr double kMostDrops = 100;
constexpr double kSamePsi = 0.05;
constexpr double kAimSigmas = 1.3;    // onto the mask: a sharp line with a soft shadow
constexpr double kSoftWithin = 0.15;  // of the width wished for

Words dropsText(const Reduction& r) {
    return Words(NINE_WORDS("core", "{paint} : {reducer} drops ({share} % reducer)"))
        .number("paint", r.paint, kShortest)
        .number("reducer", r.reducer, kShortest)
        .number("share", 100 * (1 - r.share()), 0);
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
                     Words(NINE_WORDS("core",
                                      "No gun on the bench has a needle of {needle}: put one on My bench, or "
                                      "release the needle."))
                         .length("needle", *pins.needle_mm, kShortest),
                     "bench"};
    }
    return Error{"no_gun",
                 Words(NINE_WORDS("core",
                                  "No gun on the bench gives {flow} mL/min of this paint at {low} "
                                  "to {high} psi: thin it more, or take a larger needle."))
                     .number("flow", setting.flow_ml_min, 1)
                     .number("low", practice.pressure_psi.low, 0)
                     .number("high", practice.pressure_psi.high, 0),
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
        attempt({NINE_WORDS("core", "press the sheet down where it stands off, or take a softer one"),
                 {},
                 {},
                 {}},
                plan.setting, mask.gap_mm() - standsOff);
    if (mask.pads_mm > 0) {
        const double thinner = std::round(5 * mask.pads_mm) / 10;
        attempt({Words(NINE_WORDS("core", "take thinner pads, {pads}")).length("pads", thinner, 1),
                 {},
                 thinner,
                 {}},
                plan.setting, mask.gap_mm() - mask.pads_mm + thinner);
    }
    if (!pins.pressure_kpa) {
        SpraySetting other = plan.setting;
        other.gauge_kpa = std::max(plan.practice.pressure_psi.low, plan.gun.lowest_psi) * kKpaPerPsi;
        SprayPins pinned = pins;
        pinned.pressure_kpa = other.gauge_kpa;
        attempt({Words(NINE_WORDS("core", "turn the pressure down to {pressure}"))
                     .words("pressure", psiText(other.gauge_kpa)),
                 {},
                 {},
                 pinned},
                other, mask.gap_mm());
    }
    if (!pins.aim_mm) {
        SpraySetting other = plan.setting;
        other.aim_mm = std::round(kAimSigmas * sprayWidth_mm(other.distance_mm));
        SprayPins pinned = pins;
        pinned.aim_mm = other.aim_mm;
        attempt({Words(NINE_WORDS("core", "aim {aim} onto the sheet, not at the hole"))
                     .length("aim", other.aim_mm, 0),
                 {},
                 {},
                 pinned},
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
    // In one piece: one reason a line, in the order they are read.
    const SpraySetting& s = plan.setting;
    const SprayPractice& p = plan.practice;
    const auto because = [&](Words words) { plan.reasons.push_back(std::move(words)); };
    because(Words(NINE_WORDS(
                      "core",
                      "From practice: {start} psi (range {low} to {high}), {distance} away, {drops}; {paint} "
                      "takes about {coats} coats to its full strength."))
                .number("start", p.pressure_psi.start, 0)
                .number("low", p.pressure_psi.low, 0)
                .number("high", p.pressure_psi.high, 0)
                .length("distance", p.distance_mm.start, 0)
                .words("drops", dropsText(p.reduction))
                .words("paint", s.paint.name)
                .number("coats", s.paint.fullCoats, 0));
    if (!pins.empty())
        because(Words(NINE_WORDS("core", "Kept as they are, pinned by you or said by the recipe: {pins}."))
                    .words("pins", pinnedText(pins)));
    because(
        Words(
            mask.relief_mm > mask.lift_mm
                ? NINE_WORDS(
                      "core",
                      "Computed: the gap of {gap} ({carving} of it carving under the sheet) makes the edge "
                      "{along} wide with strokes along it, {across} across.")
                : NINE_WORDS("core",
                             "Computed: the gap of {gap} makes the edge {along} wide with strokes along it, "
                             "{across} across."))
            .length("gap", plan.gap_mm, 2)
            .length("carving", mask.relief_mm, 2)
            .length("along", plan.along.width_mm, 2)
            .length("across", plan.across.width_mm, 2));
    // A thick sheet throws its own shadow at a slant: the edge moves by so much on the far side.
    const double shadow = mask.sheet_mm * std::tan(degToRad(s.angle_deg));
    if (shadow >= 0.005)
        because(Words(NINE_WORDS(
                          "core",
                          "Computed: at this slant the sheet, {thick} thick, keeps paint off {shadow} beside "
                          "its far edge."))
                    .length("thick", mask.sheet_mm, 2)
                    .length("shadow", shadow, 2));
    if (plan.edge.fade_mm > 0)
        because(Words(NINE_WORDS(
                          "core",
                          "Aimed {aim} onto the sheet: a sharp line, with a shadow that fades over {fade}."))
                    .length("aim", s.aim_mm, 1)
                    .length("fade", plan.edge.fade_mm, 1));
    const double width = plan.edge.width_mm;
    if (mask.soft) {
        plan.meetsWish = std::abs(width - mask.wantedWidth_mm) <= kSoftWithin * mask.wantedWidth_mm;
        if (plan.meetsWish) return;
        Words what = width > mask.wantedWidth_mm
                         ? NINE_WORDS("core", "It is softer as it lies: press the sheet down, or go closer.")
                         : NINE_WORDS("core", "No gap makes it so soft here: spray it free-hand.");
        if (const auto pads = padsFor(s, plan.gap_mm - mask.pads_mm, mask.wantedWidth_mm)) {
            const double tenth = std::round(10 * *pads) / 10;
            plan.remedy = {
                Words(NINE_WORDS("core", "hold the sheet off on pads of {pads}")).length("pads", tenth, 1),
                mask.wantedWidth_mm,
                tenth,
                {}};
            what = Words(NINE_WORDS("core", "First {remedy}.")).words("remedy", plan.remedy->words);
        }
        because(Words(NINE_WORDS("core", "Wanted: soft, {width}. {what}"))
                    .length("width", mask.wantedWidth_mm, 1)
                    .words("what", what));
        return;
    }
    plan.meetsWish = width <= mask.wantedWidth_mm;
    if (plan.meetsWish) return;
    plan.remedy = sharpest(plan, mask, pins);
    because(
        Words(NINE_WORDS("core", "Wanted: at most {width}. {what}"))
            .length("width", mask.wantedWidth_mm, 1)
            .words("what", plan.remedy
                               ? Words(NINE_WORDS("core", "First {remedy}: about {then} then."))
                                     .words("remedy", plan.remedy->words)
                                     .length("then", *plan.remedy->width_mm, 2)
                               : Words(NINE_WORDS(
                                     "core", "Nothing was found that sharpens this edge; release a pin."))));
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
        plan.warnings.push_back(
            {"outside_practice",
             Words(NINE_WORDS("core", "{psi} psi is outside what painters use here ({low} to {high} psi)."))
                 .number("psi", psi, 0)
                 .number("low", p.pressure_psi.low, 0)
                 .number("high", p.pressure_psi.high, 0),
             "pins.pressure_kpa"});
    if (plan.coat_um > kWettest * plan.run_um)
        plan.warnings.push_back(
            {"runs",
             Words(NINE_WORDS("core", "Here {wet}: fewer passes, faster, or farther away."))
                 .words("wet", wetSentence(plan.coat_um, plan.run_um)),
             "film"});
    giveReasons(plan, mask, pins);
    plan.steps = sprayStepsFrom(plan, mask, bench);
    return plan;
}

/// Each pin by the field it is written in, with what it asks for, and the pins without it.
struct OnePin {
    std::string field;
    Words words;
    SprayPins without;
};

std::vector<OnePin> eachPin(const SprayPins& pins) {
    std::vector<OnePin> all;
    const auto add = [&](const char* field, Words words, auto member) {
        OnePin pin{field, std::move(words), pins};
        (pin.without.*member).reset();
        all.push_back(std::move(pin));
    };
    if (pins.needle_mm)
        add("needle_mm",
            Words(NINE_WORDS("core", "needle {needle}")).length("needle", *pins.needle_mm, kShortest),
            &SprayPins::needle_mm);
    if (pins.pressure_kpa) add("pressure_kpa", psiText(*pins.pressure_kpa), &SprayPins::pressure_kpa);
    if (pins.flow_ml_min)
        add("flow_ml_min",
            Words(NINE_WORDS("core", "{flow} mL/min")).number("flow", *pins.flow_ml_min, kShortest),
            &SprayPins::flow_ml_min);
    if (pins.reduction) add("reduction", dropsText(*pins.reduction), &SprayPins::reduction);
    if (pins.distance_mm)
        add("distance_mm",
            Words(NINE_WORDS("core", "{distance} away")).length("distance", *pins.distance_mm, 0),
            &SprayPins::distance_mm);
    if (pins.angle_deg)
        add("angle_deg",
            Words(NINE_WORDS("core", "{angle} degrees off straight")).number("angle", *pins.angle_deg, 0),
            &SprayPins::angle_deg);
    if (pins.speed_mm_s)
        add("speed_mm_s", Words(NINE_WORDS("core", "{speed} mm/s")).number("speed", *pins.speed_mm_s, 0),
            &SprayPins::speed_mm_s);
    if (pins.aim_mm)
        add("aim_mm",
            Words(NINE_WORDS("core", "aimed {aim} onto the sheet")).length("aim", *pins.aim_mm, kShortest),
            &SprayPins::aim_mm);
    if (pins.coats)
        add("coats", Words(NINE_WORDS("core", "{coats} coats")).number("coats", *pins.coats, 0),
            &SprayPins::coats);
    if (pins.stroke)
        add("stroke",
            *pins.stroke == Stroke::Along ? NINE_WORDS("core", "strokes along the edge")
                                          : NINE_WORDS("core", "strokes across the edge"),
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

Words pinnedText(const SprayPins& pins) {
    std::vector<Words> all;
    for (const OnePin& pin : eachPin(pins)) all.push_back(pin.words);
    return parted(all);
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
            return Error{"out_of_range",
                         NINE_WORDS("core",
                                    "A mix is up to 100 drops of paint, at least a part of one, and up to "
                                    "100 of reducer."),
                         path + ".reduction"};
        const Result<Mixture> mixture = mixed(s.paint, *pins.reduction);
        if (!mixture) return Error{"out_of_range", mixture.error().words, path + ".reduction"};
    }
    if (pins.coats && !(*pins.coats >= 1 && *pins.coats <= 20))
        return Error{"out_of_range", NINE_WORDS("core", "Coats are counted from 1 to 20."), path + ".coats"};
    return Done{};
}

Result<SprayPlan> planSpray(const MaskToSpray& mask, const SprayBench& bench, const SprayPins& pins) {
    Result<SprayPlan> plan = tryPlan(mask, bench, pins);
    if (plan || plan.error().code != "no_gun" || pins.empty()) return plan;
    // Which pin binds: the one without which all others can be kept. Of several the first that is looked at.
    for (const OnePin& pin : eachPin(pins)) {
        const Result<SprayPlan> without = tryPlan(mask, bench, pin.without);
        if (!without) continue;
        const Words others = pinnedText(pin.without);
        return Error{
            "pins_contradict",
            Words(others.empty()
                      ? NINE_WORDS(
                            "core",
                            "The pinned {pin} cannot hold with the guns on the bench: release it (the plan "
                            "would take {free}) or change the others.")
                      : NINE_WORDS(
                            "core",
                            "The pinned {pin} cannot hold together with {others}: release it (the plan would "
                            "take {free}) or change the others."))
                .words("pin", pin.words)
                .words("others", others)
                .words("free", fieldText(without->setting, pin.field)),
            "pins." + pin.field};
    }
    return plan;
}

}  // namespace nine
