// Coat upon coat: what each adds, and when another adds nothing to see.
#pragma once

#include <vector>

#include "paint/film.h"

namespace nine {

/// Below this nobody adds another coat. Fitted: with it white takes 2, neon 2 to 3, transparent blue over
/// silver about 6 (common practice, no published source).
constexpr Figure kNothingMore = 2.5;
/// Over black and over white alike within this: it covers. Fitted in the same way.
constexpr Figure kCovers = 6;

struct BuildUp {
    std::vector<Coated> after;  ///< the ground, then after each coat
    std::vector<Figure> gains;  ///< CIEDE2000 each coat added to the one before
    int enough = 0;             ///< coats after which another adds less than kNothingMore; 0: not within all
};
/// `coats` 1 to 40.
BuildUp buildUp(const Coated& ground, const Film& film, int coats, Dullness dull);

/// CIEDE2000 between these coats over black and over white.
Figure showsThrough(const Film& film, Ratio coats, Dullness dull);

}  // namespace nine
