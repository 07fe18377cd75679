// Films of paint one over another: Kubelka and Munk's two streams, flakes, and paint that glows.
//
// A film's K (absorbs) and S (scatters) are those of one reference coat of its family; `coats` is how many of
// them lie there, any share. State of a place: what comes back from below the surface, and what glows.
// Limits: flat films that do not mix with what is under them; light straight on and diffuse alike.
// Cost: 0.4 us a film. Source: Kubelka 1948, J. Opt. Soc. Am. 38, 448; glow: a judgement (docs/MODEL.md).
#pragma once

#include "paint/colour.h"

namespace nine {

struct KM {
    Bands k{}, s{};
};
/// Per reference coat: what a flat film is made of, the flakes in it, the dye that glows.
struct Film {
    KM body;
    Ratio flakeCover = 0;  ///< A: flakes cover 1 - exp(-A coats)
    Bands face{}, side{};  ///< reflectance of flakes, seen in the mirror direction and far off it
    double lobe_deg = 20;  ///< from one to the other
    Fraction glow = 0;     ///< Phi: quanta given back for those taken in; 0 does not glow
    double glow_nm = 0;    ///< where the emission peaks
};

/// At a place: reflectance below the surface, and light given off there.
struct Coated {
    Bands inner{}, glow{};
};
Coated bare(const Bands& inner);

/// `offMirror_deg`: how far the eye is off the mirror direction; only flakes care. coats >= 0.
Coated under(const Coated& ground, const Film& film, Ratio coats, double offMirror_deg = 0);

/// What a flat film lets through, once.
Bands transmitted(const KM& film, Ratio coats);
/// Reflectance of the film alone over a ground.
Bands reflected(const KM& film, Ratio coats, const Bands& ground);

/// Seen, glow and surface with it.
Bands lookOf(const Coated& place, Dullness dull);
Srgb srgbOf(const Coated& place, Dullness dull);
Lab labOf(const Coated& place, Dullness dull);

/// Places side by side too small for an eye: the means of their looks, as one place. Shares add up to 1.
Coated averaged(const Coated& a, const Coated& b, Fraction shareOfB);

/// Paint in drops that do not quite close: some places bare, some under one drop, the rest under more.
/// `wet_um` of the film if it were even, `reference_um` of one reference coat, `drop_um` the median drop
/// (half the volume is in smaller ones). Above six drops' thickness the film is even.
Coated sprayed(const Coated& ground, const Film& film, double wet_um, double reference_um, double drop_um,
               double offMirror_deg = 0);
/// Share that no drop reaches.
Fraction missed(double wet_um, double drop_um);

}  // namespace nine
