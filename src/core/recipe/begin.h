// A first recipe from what the pattern, its masks and the net ask for.
#pragma once

#include "recipe/recipe.h"

namespace nine {

/// Prepares, covers, lays white where something bright comes, then the ground, soft marks and masks in the
/// order of the pattern (light to dark: paler fades first; back first: darker ones), the net over the
/// colours, eyes, lock and clear. A job of one colour is prepare, colour, clear. Paints are the nearest of
/// the facts' shelf. What depends on the colours beneath is left to the rules (job/recipe_job.h mends it).
/// Errors: no_shelf, cancelled. Cost: 25 ms a colour.
Result<Recipe> beginRecipe(const RecipeFacts& facts, School school, const Task& task = {});

}  // namespace nine
