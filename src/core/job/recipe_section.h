// A cut through the skin of a side, from the back line to the belly line: the films that lie there, in the
// order they went on, and the colour after each.
#pragma once

#include "job/recipe_job.h"

namespace nine {

struct FilmInSection {
    std::size_t step;                 ///< its place among the steps
    std::vector<double> dry_um;       ///< of this film alone, at each place from back to belly
    std::vector<std::uint32_t> seen;  ///< likewise, 0xFFRRGGBB, once it is dry
    std::uint32_t paint;              ///< of the paint itself, thick over white
};
struct RecipeSection {
    double x_mm = 0;  ///< of the row of places next to the wanted x
    Side side = Side::Left;
    std::vector<double> g_mm;  ///< of the places, falling
    std::vector<FilmInSection> films;
    std::vector<std::uint32_t> bare;  ///< before the first film
    double thickest_um = 0;           ///< of any film
    double stack_um = 0;              ///< of all, where they are thickest together
};

/// Steps that lay nothing down have no film. Cost: some milliseconds for 40 steps.
RecipeSection sectionOf(const RecipeOnBody& on, double x_mm, Side side);

}  // namespace nine
