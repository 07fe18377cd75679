#include "recipe/amounts.h"

#include <cmath>

namespace nine {

Error luresError(int lures, const std::string& where) {
    return {"out_of_range",
            Words(NINE_WORDS("core", "{lures} lures were asked for; 1 to 500 can be worked out."))
                .number("lures", lures, 0),
            where};
}

Result<std::vector<StepAmount>> amountsOf(const Recipe& recipe, const Palette& palette,
                                          const std::vector<double>& areas_mm2, int lures) {
    if (lures < 1 || lures > kMostLures) return luresError(lures, "lures");
    std::vector<StepAmount> all;
    for (std::size_t s = 0; s < recipe.steps.size(); ++s) {
        const Step& step = recipe.steps[s];
        if (!step.on || !paints(step.act)) continue;
        const std::optional<Sprayable> paint = paintOf(step, palette);
        if (!paint) continue;
        StepAmount amount{step.id, areas_mm2[s]};
        const double laid_ml = areas_mm2[s] * filmOf_um(step, *paint) * 1e-6;  // mm2 um to ml
        const double sprayed_ml = lures * laid_ml / kLands + kStaysInCup_ml;
        Ratio drops = 0;
        for (const MixPart& part : step.paint) drops += part.drops;
        const Fraction reducer = step.reducer / (drops + step.reducer);
        amount.reducer_ml = sprayed_ml * reducer;
        amount.paint_ml = sprayed_ml - amount.reducer_ml;
        amount.drops = std::ceil(2 * sprayed_ml / kDrop_ml) / 2;
        amount.fills = static_cast<int>(std::ceil(sprayed_ml / kCupFill_ml));
        all.push_back(amount);
    }
    return all;
}

}  // namespace nine
