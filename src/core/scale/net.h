// Nets that scales are sprayed through, and the catalogue that ships.
//
// A cell is as long along the body and as high across it as it is on the bench, from the middle of a strand
// to the middle of the next: of a hexagon from corner to corner along and from flat to flat across, of a
// diamond its two diagonals. All stiffnesses are judgements (nobody has measured these nets); a shop writes
// its own.
#pragma once

#include <optional>
#include <string>
#include <vector>

#include "base/result.h"
#include "base/units.h"

namespace nine {

enum class Weave { Hexagon, Square, Diamond };

struct Net {
    std::string id;    ///< in job files and on the command line
    std::string name;  ///< "Tulle 1.6"
    Weave weave = Weave::Hexagon;
    double along_mm = 1.85, across_mm = 1.6;  ///< a cell, nothing pulled
    double strand_mm = 0.12;                  ///< thickness
    double stiffness_n_m = 2000;  ///< of a strand by the pitch: N for a strain of 1, per metre of net
    double knot_n_m = 50;         ///< against shearing
    Fraction stretchAlong = 0.35, stretchAcross = 0.35;  ///< of the net before strands break
    Fraction shear = 0.6;                                ///< the slope a cell can take before its knots slip
    double tear_n_m = 400;                               ///< pull along its border that tears it
    int uses = 4;                                        ///< pieces last so often
    bool liftWet = false;                                ///< may come off before the paint is dry
    bool doubles = true;                                 ///< is usually laid double
    std::string unknownJson = {};
    bool operator==(const Net&) const = default;
};

/// As they ship: invented, all figures judgements.
const std::vector<Net>& netsOfCatalogue();
std::optional<Net> findNet(std::string_view idOrName);

struct WeaveName {
    Weave weave;
    std::string_view id;
    Pattern name;  ///< "hexagons"
};
const std::vector<WeaveName>& weaveNames();
const WeaveName& nameOf(Weave weave);

constexpr double kSmallestCell_mm = 0.2, kLargestCell_mm = 40;

/// Errors with path + field: out_of_range, strand_too_thick (nothing would be open).
Status checkNet(const Net& net, const std::string& path);

/// The same threads, ten thousand times as stiff as their knots: a fishnet, the worst that shearing can do.
Net asFishnet(Net net);

}  // namespace nine
