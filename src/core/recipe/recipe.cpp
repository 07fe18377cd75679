#include "recipe/recipe.h"

#include <algorithm>

namespace nine {

std::size_t placeOf(const Recipe& recipe, std::string_view id) {
    const auto found =
        std::find_if(recipe.steps.begin(), recipe.steps.end(), [&](const Step& s) { return s.id == id; });
    return static_cast<std::size_t>(found - recipe.steps.begin());
}

std::string freshId(const Recipe& recipe, const std::string& word) {
    std::string id = word;
    for (int n = 2; placeOf(recipe, id) < recipe.steps.size(); ++n) id = word + "-" + std::to_string(n);
    return id;
}

namespace {

/// The mean look of states by their weights.
Bands meanLook(const std::vector<Coated>& states, const std::vector<double>& weights, double all) {
    Bands mean{};
    for (std::size_t k = 0; k < weights.size(); ++k) {
        if (weights[k] <= 0) continue;
        const Bands look = lookOf(states[k], kMatt);
        for (std::size_t i = 0; i < kBands; ++i) mean[i] += weights[k] / all * look[i];
    }
    return mean;
}

}  // namespace

OverWhatAt overWhat(const Painted& painted, const std::vector<std::shared_ptr<const Cover>>& covers) {
    return [&painted, covers](std::size_t s) -> std::optional<OverWhat> {
        if (s >= covers.size() || !covers[s]) return std::nullopt;
        const std::vector<float>& share = covers[s]->share;
        const auto& before = s > 0 ? *painted.after[s - 1].state : painted.bare;
        const auto& after = *painted.after[s].state;
        // Places are many, states few.
        std::vector<double> under(painted.states.size()), over(painted.states.size());
        double all = 0;
        // Of a mark its inside, not the places its edge runs through; of one so fine that it has none, all.
        constexpr float kWhole = 0.9f, kPart = 0.2f;
        constexpr std::ptrdiff_t kEnough = 4;
        const bool inside = !covers[s]->thins && std::count_if(share.begin(), share.end(),
                                                               [](float w) { return w > kWhole; }) >= kEnough;
        for (std::size_t p = 0; p < share.size(); ++p) {
            if (!(share[p] > (inside ? kWhole : kPart))) continue;
            under[before[p]] += share[p];
            over[after[p]] += share[p];
            all += share[p];
        }
        if (!(all > 0)) return std::nullopt;
        const Bands ground = meanLook(painted.states, under, all), now = meanLook(painted.states, over, all);
        return OverWhat{labOf(xyzOf(ground)), labOf(xyzOf(now)), bare(innerOf(ground, kMatt)),
                        bare(innerOf(now, kMatt))};
    };
}

}  // namespace nine
