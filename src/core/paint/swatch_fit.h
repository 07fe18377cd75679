// From swatches a painter makes to the film that gave them: K and S in ten bands.
//
// All swatches are fitted at once (their prediction against what was read, in steps of sRGB) with what is
// usual of such a paint as a prior, so that four colours give twenty numbers. What the swatches leave open
// the prior fills in: a paint that hides completely says nothing of its strength. Limits: no real paint was
// measured. Cost: 3-10 ms. Source: regularised least squares (Levenberg and Marquardt); priors are judgements
// from invented pigments.
#pragma once

#include <vector>

#include "base/result.h"
#include "paint/film.h"

namespace nine {

/// A patch of a card, painted with coats and dried, its colour read off.
struct Swatch {
    Ratio coats = 1;
    bool overWhite = true;
    Srgb seen;
    std::string unknownJson = {};
    bool operator==(const Swatch& other) const {
        return coats == other.coats && overWhite == other.overWhite && shown(seen) == shown(other.seen) &&
               unknownJson == other.unknownJson;
    }
};

/// What the swatches were painted on and how they were read.
struct SwatchCard {
    Fraction white = 0.93, black = 0.04;  ///< reflectance below the surface, of its white and black half
    Fraction dull = 1;                    ///< of the dried paint: 1 matt
    Figure readTo = 2;                    ///< steps of 255: about 1 by an instrument, 2 from a photo
    std::string unknownJson = {};
    bool operator==(const SwatchCard&) const = default;
};

/// Which prior a fit starts from, and what is sought.
struct FilmPrior {
    enum class Sought { Body, Flakes } sought = Sought::Body;
    Figure meanLnK = -1.9, meanLnS = 0, spreadLnS = 0.9;
    Film usual;  ///< glow and flakes of the family; the body too where flakes are sought
};

struct FittedFilm {
    Film film;
    Figure misfit_steps = 0;  ///< the worst channel of any swatch
    bool fits() const { return misfit_steps <= kMisfit; }
    static constexpr Figure kMisfit = 8;
};

/// What fittedFilm would refuse. Cost: microseconds.
Status checkSwatches(const std::vector<Swatch>& swatches, const SwatchCard& card);
/// Errors: out_of_range (no swatches, coats that are none, colours that are no numbers, a card whose white is
/// darker than its black); swatches_swapped, when all are darker over white than over black.
Result<FittedFilm> fittedFilm(const std::vector<Swatch>& swatches, const SwatchCard& card,
                              const FilmPrior& prior);

}  // namespace nine
