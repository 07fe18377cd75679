#include "recipe/finish.h"

#include <algorithm>
#include <cmath>

#include "recipe/amounts.h"

namespace nine {
namespace {

// What is lost: in cup and brush of a mix, on the drip tin of a dip (guesses).
constexpr double kInCupAndBrush_ml = 0.6;
constexpr Fraction kDripsAway = 0.25, kBrushedAway = 0.1;
// Volume of solvent clears that stays (guess).
constexpr Fraction kSolventSolids = 0.35;
constexpr double kGlitter_g_ml = 0.01;  // "small": a guess

bool isDipped(const ClearKind& kind) {
    return kind.id.find("dip") != std::string_view::npos;
}
bool isMixed(const ClearKind& kind) {
    return kind.working_min > 0;
}

void sayHow(const ClearKind& kind, ClearPlan& plan) {
    // In one piece: one line after the other, by what the kind is.
    const auto say = [&](Pattern words) { plan.says.push_back(words); };
    const auto warn = [&](Pattern words) { plan.cautions.push_back(words); };
    if (kind.id == "epoxy")
        say(NINE_WORDS("core",
                       "Let the mix stand 5 to 10 minutes, then tight places first, thin, and turn the "
                       "bodies on a motor for about a day. Some fish after 2 days, others after 5 or 6."));
    if (kind.id == "epoxy_30")
        say(NINE_WORDS("core",
                       "Warmed thin and spread at once, tight places first; turn the bodies on a motor "
                       "for about a day. Some fish after 2 days, others after 5 or 6."));
    if (kind.id == "uv_brush")
        say(NINE_WORDS("core",
                       "Brush it on, take off the excess, tack it with a torch lamp so that bodies do not "
                       "stick, then cure in a box. The lamp must have the wavelength the resin asks for."));
    if (kind.id == "uv_dip")
        say(NINE_WORDS("core",
                       "Dip, let it hang 3 to 5 minutes, then cure in a box. The lamp must have the "
                       "wavelength the resin asks for."));
    if (kind.id == "solvent_dip")
        say(NINE_WORDS("core",
                       "Dip and hang over a drip tin; dry to the touch in a day, through in about two."));
    if (kind.id == "two_part")
        say(NINE_WORDS("core",
                       "Thin wet coats with the pause the data sheet names; the mix is used up within its "
                       "working time and the gun cleaned at once."));
    if (kind.isResin)
        warn(NINE_WORDS("core",
                        "Resin on skin can make you allergic for life: gloves its data sheet names, no "
                        "solvent to wash it off with."));
    if (kind.id == "uv_brush" || kind.id == "uv_dip")
        warn(NINE_WORDS("core", "UV lamp: never into the eyes, cover the box, glasses for its wavelength."));
    if (kind.solvent)
        warn(NINE_WORDS("core",
                        "Solvent vapour: no flame, no heat gun, extraction on, a respirator its data sheet "
                        "names."));
    if (kind.isocyanates)
        warn(NINE_WORDS("core",
                        "Isocyanates: breathing protection as the data sheet and local rules ask, often "
                        "supplied air; some places keep it to licensed people. Decide this before you buy."));
    if (isMixed(kind) && kind.isResin)
        warn(NINE_WORDS("core", "Warmed resin sets faster, and a large mix in one cup can grow hot."));
}

}  // namespace

Result<ClearPlan> planClear(const ClearKind& kind, double skin_mm2, int lures) {
    if (lures < 1 || lures > kMostLures) return luresError(lures, "lures");
    if (!(skin_mm2 > 0))
        return Error{"out_of_range", NINE_WORDS("core", "There is no skin to put clear on."), "skin"};
    ClearPlan plan;
    const double cured_ml = lures * skin_mm2 * kind.film_um * 1e-6;  // mm2 um to ml
    double laid_ml = cured_ml / (kind.solvent ? kSolventSolids : 1);
    if (kind.isocyanates)
        laid_ml /= kLands;  // sprayed
    else
        laid_ml /= 1 - (isDipped(kind) ? kDripsAway : kBrushedAway);
    if (isMixed(kind)) {
        plan.bodiesInOneMix = std::max(1, static_cast<int>(std::floor(kind.working_min / kind.spread_min)));
        plan.mixes = (lures + plan.bodiesInOneMix - 1) / plan.bodiesInOneMix;
        plan.all_ml = laid_ml + plan.mixes * kInCupAndBrush_ml;
        plan.partA_ml = plan.all_ml / plan.mixes / 2;
    } else {
        plan.all_ml = laid_ml + (isDipped(kind) ? 0 : kInCupAndBrush_ml);
    }
    if (kind.isResin) plan.glitter_g = kGlitter_g_ml * plan.all_ml;
    sayHow(kind, plan);
    return plan;
}

}  // namespace nine
