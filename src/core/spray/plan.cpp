#include "spray/plan.h"

#include <algorithm>

#include "base/number_text.h"

namespace nine {
namespace {

constexpr double kMostTrigger = 0.95;
constexpr double kAimSigmas = 1.3;  // onto the mask: a sharp line with a soft shadow

/// The gun and the pressure, inside practice and what its regulator holds.
Result<std::pair<Gun, double>> chooseGun(const SprayPractice& practice, const PaintFamily& paint,
                                         std::vector<Gun> bench) {
    const Result<Mixture> mixture = mixed(paint, practice.reduction);
    if (!mixture) return mixture.error();
    std::sort(bench.begin(), bench.end(),
              [](const Gun& a, const Gun& b) { return a.needle_mm < b.needle_mm; });
    for (const Gun& gun : bench) {
        const double psi = std::clamp(practice.pressure_psi.start, gun.lowest_psi, gun.highest_psi);
        if (!practice.pressure_psi.holds(psi)) continue;
        const double largest = largestFlow_ml_min(psi * kKpaPerPsi, gun.needle_mm, *mixture);
        if (triggerFor(practice.flow_ml_min, largest) <= kMostTrigger) return std::pair{gun, psi};
    }
    return Error{"no_gun",
                 "No gun on the bench gives " + fixedText(practice.flow_ml_min, 1) +
                     " mL/min of this paint at " + fixedText(practice.pressure_psi.low, 0) + " to " +
                     fixedText(practice.pressure_psi.high, 0) +
                     " psi: thin it more, or take a larger needle.",
                 "bench"};
}

struct Remedy {
    std::string words;
    double width_mm;
};

/// What sharpens the edge most, tried one by one in the model.
Result<Remedy> bestRemedy(const SprayPlan& plan, const MaskToSpray& mask) {
    std::vector<Remedy> tried;
    const auto attempt = [&](const std::string& words, SpraySetting setting, double gap_mm) {
        if (const Result<EdgeFigures> edge = edgeFigures(setting, gap_mm))
            tried.push_back({words, edge->width_mm});
    };
    if (mask.lift_mm > 0)
        attempt("press the sheet down where it stands off, or take a softer one", plan.setting,
                mask.gap_mm() - mask.lift_mm);
    if (mask.pads_mm > 0) attempt("take thinner pads", plan.setting, mask.gap_mm() - 0.5 * mask.pads_mm);
    SpraySetting other = plan.setting;
    other.gauge_kpa = plan.practice->pressure_psi.low * kKpaPerPsi;
    attempt("turn the pressure down to " + fixedText(plan.practice->pressure_psi.low, 0) + " psi", other,
            mask.gap_mm());
    other = plan.setting;
    other.aim_mm = kAimSigmas * sprayWidth_mm(other.distance_mm);
    attempt("aim " + fixedText(other.aim_mm, 0) + " mm onto the sheet, not at the hole", other,
            mask.gap_mm());
    if (tried.empty()) return Error{"no_remedy", "Nothing was found that sharpens this edge.", ""};
    return *std::min_element(tried.begin(), tried.end(),
                             [](const Remedy& a, const Remedy& b) { return a.width_mm < b.width_mm; });
}

}  // namespace

Result<SprayPlan> planSpray(const MaskToSpray& mask, const std::vector<Gun>& bench) {
    SprayPlan plan;
    plan.practice = &practiceFor(mask.work);
    const Result<std::pair<Gun, double>> gun = chooseGun(*plan.practice, mask.paint, bench);
    if (!gun) return gun.error();
    plan.gun = gun->first;
    SpraySetting& s = plan.setting;
    s.gauge_kpa = gun->second * kKpaPerPsi;
    s.needle_mm = plan.gun.needle_mm;
    s.distance_mm = plan.practice->distance_mm.start;
    s.paint = mask.paint;
    s.reduction = plan.practice->reduction;
    s.flow_ml_min = plan.practice->flow_ml_min;
    s.speed_mm_s = plan.practice->speed_mm_s;
    plan.coats = plan.practice->leastCoats;
    plan.passes = plan.practice->passes;
    plan.gap_mm = mask.gap_mm();
    const Result<EdgeFigures> along = edgeFigures(s, plan.gap_mm);
    if (!along) return along.error();
    SpraySetting crossing = s;
    crossing.stroke = Stroke::Across;
    const Result<EdgeFigures> across = edgeFigures(crossing, plan.gap_mm);
    if (!across) return across.error();
    plan.edge = *along;
    plan.across = *across;

    plan.reasons.push_back("From practice: " + fixedText(gun->second, 0) + " psi (range " +
                           fixedText(plan.practice->pressure_psi.low, 0) + " to " +
                           fixedText(plan.practice->pressure_psi.high, 0) + "), " +
                           fixedText(s.distance_mm, 0) + " mm away, " + fixedText(s.reduction.paint, 0) +
                           " : " + fixedText(s.reduction.reducer, 0) + " drops, " +
                           std::to_string(plan.practice->leastCoats) + " to " +
                           std::to_string(plan.practice->mostCoats) + " coats.");
    plan.reasons.push_back("Computed: the gap of " + fixedText(plan.gap_mm, 2) + " mm makes the edge " +
                           fixedText(plan.edge.width_mm, 2) + " mm wide with strokes along it, " +
                           fixedText(plan.across.width_mm, 2) + " mm across.");
    if (plan.edge.width_mm > mask.wantedWidth_mm) {
        const Result<Remedy> remedy = bestRemedy(plan, mask);
        plan.reasons.push_back(
            "Wanted: at most " + fixedText(mask.wantedWidth_mm, 1) + " mm. " +
            (remedy ? "First " + remedy->words + ": about " + fixedText(remedy->width_mm, 2) + " mm then."
                    : remedy.error().text));
    }
    return plan;
}

}  // namespace nine
