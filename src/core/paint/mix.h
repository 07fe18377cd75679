// Paints dropped into one cup: what they make together, and which drops come nearest to a wanted colour.
//
// Drops are equal, of 20 to the millilitre (common practice, no published source). K and S add up by the
// share of drops, each for the film it makes. Reducer thins the film and takes nothing from its colour. Cost:
// a mix 0.2 us, nearestMixes over 40 paints 15-30 ms.
#pragma once

#include <string>
#include <vector>

#include "base/result.h"
#include "base/task.h"
#include "paint/bottle.h"

namespace nine {

constexpr double kDrop_ml = 0.05;
constexpr int kMostDrops = 12;  ///< of a mix that is offered

struct MixPart {
    std::string bottle;  ///< Bottle::id
    Ratio drops = 1;     ///< a tint may be less than one
    std::string unknownJson = {};
    bool operator==(const MixPart&) const = default;
};

/// A paint as it is sprayed: its film, and how thick one reference coat of it is.
struct Sprayable {
    Film film;
    double wet_um = 15;  ///< of one reference coat
    Fraction solids = 0.3;
};
Sprayable sprayableOf(const Bottle& bottle);
/// A shelf as it is sprayed, worked out once: 2 ms a bottle.
struct Palette {
    std::vector<std::string> ids;
    std::vector<Sprayable> paints;
    const Sprayable* find(std::string_view id) const;
};
Palette paletteOf(const std::vector<Bottle>& shelf);
/// Shares need not add up to 1; at least one must be above 0.
Sprayable mixed(const std::vector<std::pair<const Sprayable*, Ratio>>& parts);
/// Errors: unknown_bottle, out_of_range (no drops at all).
Result<Sprayable> mixed(const Palette& palette, const std::vector<MixPart>& parts, const std::string& where);

/// What the eye makes of a paint over a ground.
struct Wanted {
    Lab colour;
    Bands ground = evenBands(0.93);  ///< it will lie on
    Ratio coats = 4;
    Dullness dull = kMatt;
};
struct FoundMix {
    std::vector<MixPart> parts;
    Figure difference = 0;  ///< CIEDE2000 from the wanted colour
    Lab colour;
};
/// The best single bottle, the best pair and the best three, in whole drops, at most kMostDrops; those with
/// more bottles only where they are nearer. `offered` is the first with fewest bottles within 1 of the best.
/// Empty for an empty palette. Errors: cancelled.
struct NearestMixes {
    std::vector<FoundMix> found;
    std::size_t offered = 0;
};
Result<NearestMixes> nearestMixes(const Palette& palette, const Wanted& wanted, const Task& task = {});
/// All of up to three bottles in all whole drops: the twin of the above, seconds instead of milliseconds.
Result<NearestMixes> nearestByTryingAll(const Palette& palette, const Wanted& wanted);

}  // namespace nine
