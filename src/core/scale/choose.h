// Which net gives scales of a wanted size.
//
// The wanted size is the length of one scale along the body: from the real fish (its length over its count
// along the side, scaled to the blank), from a count between gill and tail, or as the eye has it. Nets are
// ranked by how far their cells are from it, by ratio; a double layer halves the cell (two layers offset by
// half, by area, no published source). When even the finest is too coarse that is a hint: no net makes scales
// so fine.
#pragma once

#include <string>
#include <vector>

#include "scale/net.h"

namespace nine {

enum class ScaleFrom { Fish, Count, Eye };

struct ScaleWish {
    ScaleFrom from = ScaleFrom::Fish;
    double fish_mm = 180;  ///< length of the real fish
    int fishCount = 215;   ///< scales along its side
    int count = 40;        ///< between gill and tail
    double eye_mm = 1.6;   ///< one scale, by eye on the body
    Fraction tolerance = 0.2;
    bool operator==(const ScaleWish&) const = default;
};
/// Errors: out_of_range with path + field.
Status checkScaleWish(const ScaleWish& wish, const std::string& path);

/// Length of a scale along the body, mm. `side_mm`: along the side from the gill to the tail root.
double wantedScale_mm(const ScaleWish& wish, double body_mm, double side_mm);

struct NetChoice {
    Net net;
    bool doubled = false;
    double scale_mm = 0;  ///< length of its scales
    Ratio ratio = 1;      ///< to the wanted
    bool good = false;    ///< within the tolerance
    Words reason;         ///< "scales of 1.6 mm, 6 % larger than wanted"
};
struct NetRanking {
    double wanted_mm = 0;
    std::vector<NetChoice> choices;  ///< best first
    bool tooCoarse = false;          ///< all of them: the scales are a hint, no likeness
    Words summary;
};
NetRanking rankNets(const std::vector<Net>& nets, double wanted_mm, Fraction tolerance);

/// Scales along the side of three fish, from memory, for a first figure; ranges in the docs.
struct FishCount {
    std::string_view id;
    Pattern name;
    int least, usual, most;
    double length_mm;
};
const std::vector<FishCount>& fishCounts();

}  // namespace nine
