// Paints by family, and what reducing makes of them.
//
// The families' figures are guesses of a usual paint of that kind (docs/MODEL.md gives the status of each); a
// shop's own measurements replace them. Mixtures count equal drops of paint and reducer.
#pragma once

#include <optional>
#include <string>
#include <string_view>
#include <vector>

#include "base/result.h"
#include "base/units.h"

namespace nine {

struct PaintFamily {
    std::string_view id;  ///< as written in job files: "opaque"
    Pattern name;         ///< as shown
    Fraction solids;      ///< volume share that stays as dry film
    Ratio swelling;       ///< volume the solids occupy in the wet paint, by their own
    double carrier_mpas;  ///< viscosity of what is between the solids
    double surface_mn_m;  ///< surface tension
    double density_kg_m3;
    double particle_um;  ///< 90 % of the pigment's volume is in particles smaller than this
    Ratio fullCoats;  ///< usual coats, 4:1, until another adds nothing to see (common practice, no published
                      ///< source)
};

/// Guesses, common practice where nothing better is known; no published source.
const std::vector<PaintFamily>& paintFamilies();
std::optional<PaintFamily> findPaint(std::string_view id);
/// The sentence that says so, with the families there are.
Words unknownPaint(const std::string& id);

/// Drops of paint to drops of reducer.
struct Reduction {
    Ratio paint = 4, reducer = 1;  ///< drops
    Fraction share() const { return paint / (paint + reducer); }
    bool operator==(const Reduction&) const = default;
};

/// "4:1". Errors: bad_value.
Result<Reduction> parseReduction(const std::string& text);

struct Mixture {
    Fraction solids;        ///< volume share that stays as dry film
    double viscosity_mpas;  ///< at the nozzle's high shear
    double surface_mn_m;
    double density_kg_m3;
};

/// Viscosity by a logarithmic mixing rule and Krieger-Dougherty (docs/MODEL.md). Errors: out_of_range for
/// shares of paint below 1 %, or solids too dense to flow.
Result<Mixture> mixed(const PaintFamily& paint, const Reduction& reduction);

}  // namespace nine
