// What a recipe is judged and begun by, from the rest of the job; nothing is solved for it.
#pragma once

#include "recipe/recipe.h"

namespace nine {

struct Job;

/// Masks of both sides that open the same marks are one fact, by the left one's id. Cost: microseconds.
RecipeFacts recipeFacts(const Job& job);
/// With these paints besides the job's own, which come first.
RecipeFacts recipeFacts(const Job& job, const std::vector<Bottle>& shelf);

}  // namespace nine
