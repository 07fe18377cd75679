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

OverWhatAt overWhat(const Painted& painted, const std::vector<std::shared_ptr<const Cover>>& covers,
                    std::vector<Step> steps) {
    return [&painted, covers, steps = std::move(steps)](std::size_t s) -> std::optional<OverWhat> {
        if (s >= covers.size() || !covers[s]) return std::nullopt;
        const Cover& cover = *covers[s];
        Bands before{}, after{};
        double all = 0;
        const auto stateOf = [&](bool then, std::size_t p) -> const Coated& {
            return then ? painted.at(s, p) : s > 0 ? painted.at(s - 1, p) : painted.states[painted.bare[p]];
        };
        for (std::size_t p = 0; p < cover.share.size(); ++p) {
            const double w = cover.share[p] > 0.2f ? cover.share[p] : 0;
            if (w <= 0) continue;
            const Bands one = lookOf(stateOf(false, p), kMatt), other = lookOf(stateOf(true, p), kMatt);
            for (std::size_t i = 0; i < kBands; ++i) {
                before[i] += w * one[i];
                after[i] += w * other[i];
            }
            all += w;
        }
        if (!(all > 0)) return std::nullopt;
        for (std::size_t i = 0; i < kBands; ++i) {
            before[i] /= all;
            after[i] /= all;
        }
        return OverWhat{labOf(xyzOf(before)), labOf(xyzOf(after))};
    };
}

}  // namespace nine
