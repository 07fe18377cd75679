// A paint as it stands on the shelf: its family, the swatches that say its colour, what it must not be done.
//
// The film of a paint is not kept: it follows from its swatches (filmOf), so that a new swatch is all it
// takes.
#pragma once

#include <string>
#include <vector>

#include "base/result.h"
#include "paint/paint.h"
#include "paint/swatch_fit.h"

namespace nine {

struct Bottle {
    std::string id;  ///< unique on a shelf, and in a job
    std::string name;
    std::string family;  ///< PaintFamily::id
    SwatchCard card = {};
    std::vector<Swatch> swatches = {};
    double glow_nm = 0;   ///< where what it gives off peaks; fluorescent paint only
    double flake_um = 0;  ///< the largest flakes; 0: none
    bool noHeat = false;
    double rest_min = 0;     ///< before anything else is done to it
    bool wantsLock = false;  ///< a lock coat over it, or it runs into what comes next
    bool solvent = false;    ///< thinned with solvent, not water
    double left_ml = 0;
    std::string unknownJson = {};

    bool operator==(const Bottle&) const = default;
};

/// What is usual of a family's colour: the prior of a fit, and the film of one coat.
struct FamilyColour {
    FilmPrior prior;
    double wet_um = 15;  ///< of one reference coat (guess)
};
/// The family must be known (findPaint).
FamilyColour colourOfFamily(std::string_view family, double glow_nm);

/// Errors: out_of_range, unknown_paint, no_name, those of fittedFilm but a misfit; `where` is put before the
/// field.
Status checkBottle(const Bottle& bottle, const std::string& where);

/// The film of one reference coat; the bottle must pass checkBottle. Cost: that of fittedFilm.
FittedFilm filmOf(const Bottle& bottle);

/// About thirty plainly named paints to start from. Invented: no real paint was measured.
const std::vector<Bottle>& genericShelf();
const Bottle* findBottle(const std::vector<Bottle>& shelf, std::string_view id);

}  // namespace nine
