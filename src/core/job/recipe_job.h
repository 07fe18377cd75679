// The job's recipe on its body: how much of each step reaches where, the colour after any step, what the
// rules say, how much paint it takes.
#pragma once

#include "job/derive.h"
#include "job/recipe_facts.h"
#include "pattern/skin_picture.h"
#include "recipe/amounts.h"
#include "recipe/begin.h"

namespace nine {

/// Places of the skin as a picture has them (pattern/skin_picture.h): columns round it, rows from nose to
/// tail.
struct SkinRaster {
    int columns = 256, rows = 160;
    std::size_t places() const { return static_cast<std::size_t>(columns) * static_cast<std::size_t>(rows); }
};

struct RecipeOnBody {
    SkinPtr skin;
    DrawnBody body;
    SkinRaster raster;
    std::vector<std::shared_ptr<const Cover>> covers;  ///< of each step; null where it lays nothing down
    double skin_mm2 = 0;                               ///< of the whole body
    std::vector<double> areas_mm2;                     ///< of skin each step reaches
    Palette palette;
    Painted painted;
    Warnings warnings;  ///< of marks and nets that could not be drawn; their steps lay nothing down
};

/// Art of fineness `Cut` is exact, of `Glance` soon there. Errors: those of the body; cancelled. Cost: art as
/// Derivations, then 0.1 to 0.6 s.
Result<RecipeOnBody> recipeOnBody(const Job& job, Derivations& derived, const SkinRaster& raster,
                                  Fineness fineness = Fineness::Cut, const Task& task = {});

/// The skin as it looks after a step (all steps: steps.size() - 1; before the first: nothing done).
Image colourAfter(const RecipeOnBody& on, const Job& job, std::optional<std::size_t> step);

/// The job with a recipe begun anew from its pattern, masks and net; the paints it uses are taken from the
/// job's own and the shelf. What the rules find in it is mended, so that it raises none but those that only
/// ask to be read. Errors: those of beginRecipe. Cost: 25 ms a colour and some seconds of rules.
Result<Job> withBegunRecipe(const Job& job, Derivations& derived, const std::vector<Bottle>& shelf,
                            School school, const Task& task = {});
/// All repairs, one after the other, until no rule that has one says anything. Errors: cancelled.
Result<Job> withRepairs(const Job& job, Derivations& derived, const std::vector<Bottle>& shelf,
                        const Task& task = {});

std::vector<RuleFinding> findingsOf(const Job& job, const RecipeOnBody& on);

/// Of one step: film that falls off from a line of the body, 0 to 1 at x, g of the left side.
Fraction fadeAt(const Where& where, const Skin& skin, const Landmarks& landmarks, const SectionArc& arc,
                const SkinPlace& place);

}  // namespace nine
