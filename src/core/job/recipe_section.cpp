#include "job/recipe_section.h"

#include <algorithm>

namespace nine {

RecipeSection sectionOf(const RecipeOnBody& on, double x_mm, Side side) {
    RecipeSection section;
    section.side = side;
    const auto columns = static_cast<std::size_t>(on.raster.columns);
    const std::size_t row = placeOf(on, {side, x_mm, 0}) / columns;
    const double v = on.raster.rows > 1 ? static_cast<double>(row) / (on.raster.rows - 1) : 0;
    // Columns run from the left datum line over the back and the right side to the belly.
    std::vector<std::size_t> places;
    for (std::size_t k = 0; k < columns / 2; ++k) {
        const std::size_t quarter = columns / 4;
        const std::size_t column =
            side == Side::Left ? (quarter + columns - 1 - k) % columns : (quarter + k) % columns;
        places.push_back(row * columns + column);
        const SkinPoint skin =
            on.body.skinAt({(static_cast<double>(column) + 0.5) / static_cast<double>(columns), v});
        section.x_mm = skin.x_mm;
        section.g_mm.push_back(skin.g_mm);
        section.bare.push_back(shown(srgbOf(on.painted.states[on.painted.bare[places.back()]], kMatt)));
    }
    const auto& steps = on.of.get<LayersChapter>().recipe.steps;
    std::vector<double> stack(places.size());
    for (std::size_t s = 0; s < steps.size() && s < on.covers.size(); ++s) {
        if (!on.covers[s]) continue;
        const std::optional<Sprayable> paint = paintOf(steps[s], on.palette);
        if (!paint) continue;
        constexpr Ratio kThick = 12;  // coats
        FilmInSection film{
            s, {}, {}, shown(srgbOf(under(bare(evenBands(0.93)), paint->film, kThick), kMatt))};
        const double whole_um = dryFilmOf_um(steps[s], *paint);
        for (std::size_t k = 0; k < places.size(); ++k) {
            film.dry_um.push_back(whole_um * on.covers[s]->share[places[k]]);
            film.seen.push_back(shown(srgbOf(on.painted.at(s, places[k]), kMatt)));
            stack[k] += film.dry_um.back();
            section.thickest_um = std::max(section.thickest_um, film.dry_um.back());
            section.stack_um = std::max(section.stack_um, stack[k]);
        }
        section.films.push_back(std::move(film));
    }
    return section;
}

}  // namespace nine
