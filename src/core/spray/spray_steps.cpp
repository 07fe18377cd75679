#include "spray/spray_steps.h"

#include <algorithm>
#include <cmath>
#include <functional>

#include "base/number_text.h"
#include "spray/wet_film.h"

namespace nine {
namespace {

constexpr double kCoarsest_um = 18;     // drops larger than this show as grain (chosen: T in docs/MODEL.md)
constexpr double kMostDried = 0.10;     // of the middle drop: more lands as dust
constexpr double kSteadyTrigger = 0.6;  // less open, and the flow jumps with the finger

/// How a setting stands to each limit: 1 is the limit.
struct Strain {
    double share;
    Words words;
};

std::vector<Strain> strainsOf(const SpraySetting& s, const SprayPlan& plan, const MaskToSpray& mask) {
    const Result<EdgeFigures> edge = edgeFigures(s, plan.gap_mm);
    const Result<Mixture> mixture = mixed(s.paint, s.reduction);
    if (!edge || !mixture) return {};
    const double dried =
        driedShare(dropClasses_um(edge->dropSize_um)[2], s.distance_mm, airJet(s.gauge_kpa, s.needle_mm));
    const double coat = coatFilm_um(s, plan.passes), run = runLimit_um(s.paint, *mixture);
    const double width = mask.wantedWidth_mm;
    std::vector<Strain> all{
        {edge->dropSize_um / kCoarsest_um,
         Words(NINE_WORDS("core", "drops are {size} um, the grain shows (limit {limit})"))
             .number("size", edge->dropSize_um, 0)
             .number("limit", kCoarsest_um, 0)},
        {dried / kMostDried,
         Words(NINE_WORDS("core", "{share} % of a drop dries on the way and lands as dust"))
             .number("share", 100 * dried, 0)},
        {coat / (kWettest * run), wetSentence(coat, run)},
        {edge->trigger / kMostTrigger, NINE_WORDS("core", "the needle cannot give this flow")}};
    if (!mask.soft) {
        all.push_back(
            {edge->width_mm / width,
             Words(NINE_WORDS("core", "the edge gets {width} wide")).length("width", edge->width_mm, 2)});
        all.push_back(
            {edge->creep_mm / width, Words(NINE_WORDS("core", "paint creeps {creep} under the sheet"))
                                         .length("creep", edge->creep_mm, 2)});
    }
    return all;
}

struct Direction {
    SprayStep::Way way;
    std::function<bool(SpraySetting&)> step;  ///< false at the end of practice
    std::function<Words(const SpraySetting&)> name;
};

std::vector<Direction> directionsOf(const SprayPlan& plan, const SprayBench& bench) {
    using Way = SprayStep::Way;
    const PracticeRange& psi = plan.practice.pressure_psi;
    const PracticeRange& far = plan.practice.distance_mm;
    const auto pressure = [&plan, psi](double way) {
        return [&plan, psi, way](SpraySetting& s) {
            const double next = s.gauge_kpa / kKpaPerPsi + way;
            s.gauge_kpa = next * kKpaPerPsi;
            return next >= std::max(psi.low, plan.gun.lowest_psi) - 0.01 &&
                   next <= std::min(psi.high, plan.gun.highest_psi) + 0.01;
        };
    };
    const auto distance = [far](double way) {
        return [far, way](SpraySetting& s) {
            s.distance_mm += 5 * way;
            return s.distance_mm >= far.low - 0.01 && s.distance_mm <= far.high + 0.01;
        };
    };
    const auto needle = [&plan, &bench](bool larger) {
        return [&plan, &bench, larger](SpraySetting& s) {
            std::optional<double> next;
            for (const Gun& gun : bench.guns) {
                if (larger ? gun.needle_mm <= s.needle_mm : gun.needle_mm >= s.needle_mm) continue;
                const double psiNow = plan.setting.gauge_kpa / kKpaPerPsi;
                if (psiNow < gun.lowest_psi || psiNow > gun.highest_psi) continue;
                if (!next || (larger ? gun.needle_mm < *next : gun.needle_mm > *next)) next = gun.needle_mm;
            }
            if (next) s.needle_mm = *next;
            return next.has_value();
        };
    };
    const auto thinner = [](SpraySetting& s) {
        s.reduction.reducer += 1;
        return s.reduction.share() >= 0.33;
    };
    const auto atPsi = [](const SpraySetting& s) { return fieldText(s, "pressure_kpa"); };
    const auto atDistance = [](const SpraySetting& s) { return fieldText(s, "distance_mm"); };
    const auto withNeedle = [](const SpraySetting& s) { return fieldText(s, "needle_mm"); };
    return {{Way::LowerPressure, pressure(-1), atPsi},
            {Way::HigherPressure, pressure(1), atPsi},
            {Way::Closer, distance(-1), atDistance},
            {Way::Farther, distance(1), atDistance},
            {Way::SmallerNeedle, needle(false), withNeedle},
            {Way::LargerNeedle, needle(true), withNeedle},
            {Way::Thinner, thinner, [](const SpraySetting& s) { return fieldText(s, "reduction"); }}};
}

}  // namespace

Words fieldText(const SpraySetting& s, const std::string& field) {
    if (field == "needle_mm")
        return Words(NINE_WORDS("core", "needle {needle}")).length("needle", s.needle_mm, kShortest);
    if (field == "pressure_kpa") return psiText(s.gauge_kpa);
    if (field == "flow_ml_min")
        return Words(NINE_WORDS("core", "{flow} mL/min")).number("flow", s.flow_ml_min, 2);
    if (field == "reduction")
        return Words(NINE_WORDS("core", "{paint} : {reducer}"))
            .number("paint", s.reduction.paint, kShortest)
            .number("reducer", s.reduction.reducer, kShortest);
    if (field == "distance_mm")
        return Words(NINE_WORDS("core", "{distance}")).length("distance", s.distance_mm, 0);
    if (field == "angle_deg")
        return Words(NINE_WORDS("core", "{angle} degrees")).number("angle", s.angle_deg, 0);
    if (field == "speed_mm_s")
        return Words(NINE_WORDS("core", "{speed} mm/s")).number("speed", s.speed_mm_s, 0);
    if (field == "aim_mm") return Words(NINE_WORDS("core", "aim {aim}")).length("aim", s.aim_mm, 1);
    return NINE_WORDS("core", "its own choice");
}

Words psiText(double kpa) {
    return Words(NINE_WORDS("core", "{psi} psi ({bar} bar)"))
        .number("psi", kpa / kKpaPerPsi, 0)
        .number("bar", kpa / 100, 2);
}

std::vector<SprayStep> sprayStepsFrom(const SprayPlan& plan, const MaskToSpray& mask,
                                      const SprayBench& bench) {
    const std::vector<Strain> now = strainsOf(plan.setting, plan, mask);
    std::vector<SprayStep> steps;
    for (const Direction& direction : directionsOf(plan, bench)) {
        SpraySetting s = plan.setting, last = s;
        SprayStep step{direction.way, {}, false};
        while (!step.spoils && direction.step(s)) {
            last = s;
            const std::vector<Strain> then = strainsOf(s, plan, mask);
            for (std::size_t i = 0; i < then.size() && i < now.size(); ++i) {
                if (now[i].share > 1 || then[i].share <= 1) continue;
                step.spoils = true;
                step.words = Words(NINE_WORDS("core", "{there}: {spoilt}."))
                                 .words("there", direction.name(s))
                                 .words("spoilt", then[i].words);
                break;
            }
        }
        const Result<EdgeFigures> edge = edgeFigures(s, plan.gap_mm);
        const bool needle = direction.way == SprayStep::Way::LargerNeedle;
        if (needle && edge && s.needle_mm > plan.setting.needle_mm && !step.spoils &&
            edge->trigger < kSteadyTrigger && plan.edge.trigger >= kSteadyTrigger) {
            step.spoils = true;
            step.words =
                Words(NINE_WORDS("core", "{there}: the trigger is only {share} % back, the flow is uneven."))
                    .words("there", direction.name(s))
                    .number("share", 100 * edge->trigger, 0);
        }
        if (!step.spoils) {
            const Words there = direction.name(last);
            if (there.plain() == direction.name(plan.setting).plain())
                continue;  // at the end of what there is
            Pattern unspoilt = NINE_WORDS("core", "down to the end of practice, {there}: nothing is spoilt.");
            if (direction.way == SprayStep::Way::HigherPressure || direction.way == SprayStep::Way::Farther)
                unspoilt = NINE_WORDS("core", "up to the end of practice, {there}: nothing is spoilt.");
            if (direction.way == SprayStep::Way::SmallerNeedle || needle ||
                direction.way == SprayStep::Way::Thinner)
                unspoilt = NINE_WORDS("core", "{there}: nothing is spoilt.");
            step.words = Words(unspoilt).words("there", there);
        }
        steps.push_back(std::move(step));
    }
    return steps;
}

}  // namespace nine
