// What the steps of a recipe make of the body: colour at places of the skin, after each step, over what is
// really beneath.
//
// A place is a piece of skin with one colour; how much of a step's film reaches it is its cover, 0 to 1.
// Fades are film that falls off, marks and nets are shares of a place; both go by the same rule of drops that
// do not quite close (paint/film.h). Places alike in all that was done to them are worked out once. Cost: 12
// steps on 50 000 places 0.1-0.6 s of one core.
#pragma once

#include <memory>

#include "base/task.h"
#include "recipe/step.h"

namespace nine {

/// How much of a step reaches each place.
struct Cover {
    std::vector<float> share;
    bool thins = false;  ///< of the film (fades); else a share of the place has all of it (windows, nets)
};

/// What drops of a usual fine mist are like; of a barrier mist from far off.
constexpr double kMistFilm_um = 4, kUsualDrop_um = 20;

struct PaintedStep {
    std::shared_ptr<const std::vector<std::uint32_t>> state;  ///< of each place, into `states`
    std::size_t known = 1;  ///< states there are by then: those of later steps come after them
};
struct Painted {
    std::vector<Coated> states;
    std::vector<PaintedStep> after;  ///< of each step; those that lay nothing down share the one before
    std::vector<std::uint32_t> bare;
    const Coated& at(std::size_t step, std::size_t place) const {
        return states[(*after[step].state)[place]];
    }
};

/// What was worked out before, of which the first `steps` are the same as now.
struct PaintedBefore {
    const Painted* painted = nullptr;
    std::size_t steps = 0;
};
/// Covers have the places of one another; null ones of steps that lay nothing down. Steps that are off, and
/// paint that is not in the palette, change nothing. `blank` is the skin before the first. Errors: cancelled.
Result<Painted> painted(const std::vector<Step>& steps, const Palette& palette,
                        const std::vector<std::shared_ptr<const Cover>>& covers, std::size_t places,
                        const Bands& blank, const Task& task = {}, const PaintedBefore& before = {});

/// Film of one step where its cover is 1, micrometres wet.
double filmOf_um(const Step& step, const Sprayable& paint);
/// What is left of it once it is dry.
double dryFilmOf_um(const Step& step, const Sprayable& paint);
/// The paint of a step, thinned; nothing when it has none that is known.
std::optional<Sprayable> paintOf(const Step& step, const Palette& palette);

/// Below the clear coat all is matt, with it gloss.
Dullness dullnessAfter(const std::vector<Step>& steps, std::size_t step);

}  // namespace nine
