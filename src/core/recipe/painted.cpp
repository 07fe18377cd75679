#include "recipe/painted.h"

#include <algorithm>
#include <cmath>
#include <unordered_map>

namespace nine {
namespace {

constexpr int kLevels = 96;  // of cover: two neighbours differ by less than an eye tells

}  // namespace

std::optional<Sprayable> paintOf(const Step& step, const Palette& palette) {
    std::vector<std::pair<const Sprayable*, Ratio>> parts;
    Ratio drops = 0;
    for (const MixPart& part : step.paint)
        if (const Sprayable* paint = palette.find(part.bottle)) {
            parts.emplace_back(paint, part.drops);
            drops += part.drops;
        }
    if (parts.empty()) return std::nullopt;
    Sprayable paint = mixed(parts);
    paint.solids *= drops / (drops + step.reducer);
    return paint;
}

double filmOf_um(const Step& step, const Sprayable& paint) {
    if (step.mist) return kMistFilm_um;
    // Reducer takes the place of paint in the same wet film: less of it stays.
    Ratio drops = 0;
    for (const MixPart& part : step.paint) drops += part.drops;
    constexpr Fraction kReferenceShare = 0.8;  // 4:1
    const Fraction share = drops > 0 ? drops / (drops + step.reducer) : 1;
    return step.coats * paint.wet_um * std::min(1.0, share / kReferenceShare);
}

double dryFilmOf_um(const Step& step, const Sprayable& paint) {
    return (step.mist ? kMistFilm_um : step.coats * paint.wet_um) * paint.solids;
}

Result<Painted> painted(const std::vector<Step>& steps, const Palette& palette,
                        const std::vector<std::shared_ptr<const Cover>>& covers, std::size_t places,
                        const Bands& blank, const Task& task, const PaintedBefore& begun) {
    Painted result;
    const std::size_t begin = begun.painted ? begun.steps : 0;
    if (begin > 0) {
        const auto& known = begun.painted->states;
        const PaintedStep& last = begun.painted->after[begin - 1];
        result.states.assign(known.begin(), known.begin() + static_cast<std::ptrdiff_t>(last.known));
        result.after.assign(begun.painted->after.begin(),
                            begun.painted->after.begin() + static_cast<std::ptrdiff_t>(begin));
    } else {
        result.states.push_back(bare(blank));
    }
    result.bare.assign(places, 0);
    auto now = begin > 0 ? result.after.back().state
                         : std::make_shared<const std::vector<std::uint32_t>>(result.bare);
    for (std::size_t s = begin; s < steps.size(); ++s) {
        if (task.cancelled()) return Task::cancelledError();
        const Step& step = steps[s];
        const std::optional<Sprayable> paint =
            step.on && paints(step.act) && covers[s] ? paintOf(step, palette) : std::nullopt;
        if (paint) {
            const double film_um = filmOf_um(step, *paint);
            auto next = std::make_shared<std::vector<std::uint32_t>>(*now);
            std::unordered_map<std::uint64_t, std::uint32_t> known;
            for (std::size_t p = 0; p < places; ++p) {
                const int level =
                    static_cast<int>(std::lround(std::clamp(covers[s]->share[p], 0.f, 1.f) * kLevels));
                if (level == 0) continue;
                const std::uint32_t before = (*now)[p];
                const auto [at, fresh] =
                    known.emplace(static_cast<std::uint64_t>(before) << 8 | static_cast<unsigned>(level),
                                  static_cast<std::uint32_t>(result.states.size()));
                if (fresh) {
                    const Coated ground = result.states[before];
                    const Fraction share = static_cast<Fraction>(level) / kLevels;
                    const Coated whole =
                        sprayed(ground, paint->film, (covers[s]->thins ? share : 1) * film_um, paint->wet_um,
                                kUsualDrop_um);
                    result.states.push_back(
                        covers[s]->thins || level == kLevels ? whole : averaged(ground, whole, share));
                }
                (*next)[p] = at->second;
            }
            now = std::move(next);
        }
        result.after.push_back({now, result.states.size()});
    }
    return result;
}

Dullness dullnessAfter(const std::vector<Step>& steps, std::size_t step) {
    for (std::size_t s = 0; s <= step && s < steps.size(); ++s)
        if (steps[s].on && steps[s].act == Act::Clear) return kGloss;
    return kMatt;
}

}  // namespace nine
