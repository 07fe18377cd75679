// What the painted body says to its finish: paint in the eye sockets, and how it looks from below.
#pragma once

#include "job/recipe_job.h"
#include "recipe/finish.h"

namespace nine {

struct EyeAdvice {
    double eye_mm = 0;      ///< the largest stock eye that goes in (blank/landmarks.h); 0: none
    double smaller_mm = 0;  ///< the stock size below it, for who wants it so; 0: none
    double film_um = 0;     ///< of dry paint on the wall of the socket, by this recipe
    Words says;
};
/// Nothing when the blank has no eye socket. Paint in the socket is that of the recipe, or what the painter
/// measured (Landmark::buildUp_mm) where that is more; none where it is covered before the first coat.
std::optional<EyeAdvice> eyesFor(const RecipeOnBody& on);

/// Against the bright surface a fish sees from below, the belly has only the light that comes up out of the
/// water: a few per cent of what comes down (Kirk, Light and Photosynthesis in Aquatic Ecosystems, from
/// memory).
struct BellyFromBelow {
    Fraction share;  ///< as bright as the surface
};
constexpr Fraction kComesUp = 0.04;
BellyFromBelow seenFromBelow(const RecipeOnBody& on);

}  // namespace nine
