#include "job/finish_job.h"

#include <algorithm>

namespace nine {
namespace {

double filmInSocket_um(const RecipeOnBody& on, const Vec2& eye) {
    const std::size_t place = placeOf(on, {Side::Left, eye.x(), eye.y()});
    const auto& steps = on.of.get<LayersChapter>().recipe.steps;
    double film_um = 0;
    for (std::size_t s = 0; s < steps.size() && s < on.covers.size(); ++s) {
        if (steps[s].on && steps[s].act == Act::Cover && steps[s].doing("sockets")) return film_um;
        if (!on.covers[s]) continue;
        if (const auto paint = paintOf(steps[s], on.palette))
            film_um += dryFilmOf_um(steps[s], *paint) * on.covers[s]->share[place];
    }
    return film_um;
}

}  // namespace

std::optional<EyeAdvice> eyesFor(const RecipeOnBody& on) {
    const Landmarks& landmarks = on.of.get<BlankChapter>().landmarks;
    const auto found = landmarks.find("eye");
    if (found == landmarks.end() || found->second.points.empty() || found->second.diameter_mm <= 0)
        return std::nullopt;
    Landmark eye = found->second;
    EyeAdvice advice;
    advice.film_um = filmInSocket_um(on, eye.points.front());
    eye.buildUp_mm = std::max(eye.buildUp_mm, advice.film_um / 1000);
    advice.eye_mm = stockEyeFor(eye).value_or(0);
    for (const double size : kStockEyes_mm)
        if (size < advice.eye_mm) advice.smaller_mm = size;
    if (advice.eye_mm <= 0) {
        advice.says =
            Words(NINE_WORDS("core",
                             "No eye that is commonly sold goes into this socket of {socket}, painted."))
                .length("socket", eye.diameter_mm, 1);
        return advice;
    }
    const Pattern fits =
        pupilDirection(eye)
            ? NINE_WORDS(
                  "core",
                  "The socket of {socket}, with {film} µm of paint on its wall, takes eyes of {eye}: dry-fit "
                  "one first. They are sold left and right; the pupil points the same way on both sides.")
            : NINE_WORDS(
                  "core",
                  "The socket of {socket}, with {film} µm of paint on its wall, takes eyes of {eye}: dry-fit "
                  "one first.");
    advice.says = Words(fits)
                      .length("socket", eye.diameter_mm, 1)
                      .number("film", 1000 * eye.buildUp_mm, 0)
                      .length("eye", advice.eye_mm, 0);
    return advice;
}

BellyFromBelow seenFromBelow(const RecipeOnBody& on) {
    // The eighth of the girth on each side of the belly line.
    const auto columns = static_cast<std::size_t>(on.raster.columns);
    const auto& state = on.painted.after.empty() ? on.painted.bare : *on.painted.after.back().state;
    double sum = 0;
    std::size_t places = 0;
    for (std::size_t p = 0; p < state.size(); ++p) {
        const std::size_t column = p % columns;
        if (8 * column < 5 * columns || 8 * column >= 7 * columns) continue;
        sum += xyzOf(lookOf(on.painted.states[state[p]], kMatt)).y;
        ++places;
    }
    return {kComesUp * (places > 0 ? sum / static_cast<double>(places) : 0)};
}

}  // namespace nine
