// What is in the cup now: drops in, reducer in, some sprayed, the rest left as the start of the next colour.
#pragma once

#include "paint/mix.h"

namespace nine {

struct Cup {
    std::vector<MixPart> parts;  ///< paint, by bottle, in the order it first went in
    Ratio reducer = 0;           ///< drops

    Ratio paintDrops() const;
    Ratio drops() const { return paintDrops() + reducer; }
    /// Of reducer in all there is; 0 in an empty cup.
    Fraction reducerShare() const { return drops() > 0 ? reducer / drops() : 0; }
    double volume_ml() const { return drops() * kDrop_ml; }
    bool operator==(const Cup&) const = default;
};

/// Errors: out_of_range (less than nothing, more than a cup of 30 ml holds).
Result<Cup> withDrops(Cup cup, const std::string& bottle, Ratio drops);
Result<Cup> thinned(Cup cup, Ratio drops);
/// A share of it sprayed or poured away; what is left keeps its colour. share 0 to 1.
Cup used(Cup cup, Fraction share);

/// The reducer to add so that it is that share of all (below 1); none when it is thinner already.
Ratio reducerFor(const Cup& cup, Fraction share);

}  // namespace nine
