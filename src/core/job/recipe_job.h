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
    bool operator==(const SkinRaster&) const = default;
};

/// All that the cover of a step is worked out from, besides body and marks.
struct CoverWish {
    Where where;
    std::size_t pass = 0;  ///< of a mask's colours
    double soft_mm = 0;    ///< width of the edge that was wished for on the Spray leaf, 10 to 90 % of the film
    bool operator==(const CoverWish&) const = default;
};

struct RecipeOnBody {
    Job of;
    Fineness fineness = Fineness::Cut;
    SkinPtr skin;
    DrawnBody body;
    SkinRaster raster;
    std::vector<std::optional<CoverWish>> wishes;      ///< of each step; nothing where it lays nothing down
    std::vector<std::shared_ptr<const Cover>> covers;  ///< likewise; steps that wish the same share one
    double skin_mm2 = 0;                               ///< of the whole body
    std::vector<double> areas_mm2;                     ///< of skin each step reaches
    Palette palette;
    Painted painted;
    /// The eyes that will be glued in, over black, and how much of each place they hide (its blue).
    std::shared_ptr<const Image> eyes, eyesHide;
    Warnings warnings;  ///< of marks and nets that could not be drawn; their steps lay nothing down
};

/// Art of fineness `Cut` is exact, of `Glance` soon there. Errors: those of the body; cancelled. Cost: art as
/// Derivations, then 0.1 to 0.6 s.
/// The place of the raster a point of the skin lies in.
std::size_t placeOf(const RecipeOnBody& on, const SkinPoint& skin);

/// What `before` has of the same body, marks and steps serves again, so that a changed step costs itself and
/// those above it.
Result<RecipeOnBody> recipeOnBody(const Job& job, Derivations& derived, const SkinRaster& raster,
                                  Fineness fineness = Fineness::Cut, const Task& task = {},
                                  const RecipeOnBody* before = nullptr);

/// The skin as it looks after a step (all steps: steps.size() - 1; before the first: nothing done), with eyes
/// once they are in.
Image colourAfter(const RecipeOnBody& on, std::optional<std::size_t> step);

/// The job with a recipe begun anew from its pattern, masks and net; the paints it uses are taken from the
/// job's own and the shelf. What the rules find in it is mended, so that it raises none but those that only
/// ask to be read. Errors: those of beginRecipe. Cost: 25 ms a colour and some seconds of rules.
Result<Job> withBegunRecipe(const Job& job, Derivations& derived, const std::vector<Bottle>& shelf,
                            School school, const Task& task = {});
/// All repairs, one after the other, until no rule that has one says anything. Errors: cancelled.
Result<Job> withRepairs(const Job& job, Derivations& derived, const std::vector<Bottle>& shelf,
                        const Task& task = {});

/// One finding mended, or accepted where it has no repair; the paints its steps then need are taken along.
Job withRepair(const Job& job, const RuleFinding& finding, const std::vector<Bottle>& shelf);
/// The paints its steps name, from the shelf where the job does not have them yet.
Job withPaintsOf(const Job& job, const std::vector<Bottle>& shelf);

std::vector<RuleFinding> findingsOf(const RecipeOnBody& on);

/// Of one step: film that falls off from a line of the body, 0 to 1 at x, g of the left side.
Fraction fadeAt(const Where& where, const Skin& skin, const Landmarks& landmarks, const SectionArc& arc,
                const SkinPlace& place);

}  // namespace nine
