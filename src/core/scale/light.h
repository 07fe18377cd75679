// What a net lets through to the skin under it: how dark its strands print.
//
// Mist comes straight along a direction. A strand lying on the skin keeps off what would land beneath it and,
// when the mist comes at a slant, a strip on its lee side: raised scales. A net that stands off is printed
// softer, over what the mist's own spread and the gap make of an edge. Source: the shadow of a cylinder on a
// plane, width d sqrt(1 + tan^2 sin^2), exact for straight strands; blur a Gaussian of the gap times the
// spread (a judgement, no published source).
#pragma once

#include "scale/cells.h"

namespace nine {

struct MistFrom {
    double slant_deg = 0;  ///< off the skin's normal, 0 to 80
    double direction_deg =
        0;  ///< where it comes from: 0 the tail, 90 the line where the net is whole, seen on the skin
    Fraction spread = 0.35;  ///< of the gap: how far an edge is blurred (one standard deviation)
};

/// A picture of the skin under a few cells: 1 where all arrives, 0 in the shadow.
struct LightPatch {
    int pixels = 0;              ///< a side
    double size_mm = 0;          ///< of a side
    std::vector<float> arrives;  ///< row-major, along first; the first row is nearest to the whole line
    Fraction mean = 0;
};

/// Under a net that lies by `stretch` and stands off by `gap_mm`; `second` a layer over it. Cost: about 1 us
/// a pixel.
LightPatch lightUnder(const Net& net, const Eigen::Matrix2d& stretch, double gap_mm, const MistFrom& from,
                      double size_mm, int pixels, const NetShift* second = nullptr);

/// Width of the shadow of a strand along `strand_deg` (from along the body) and where it lies beside the
/// strand's middle, mm, positive to the lee.
struct StrandShadow {
    double toWindward_mm, toLee_mm;
};
StrandShadow shadowOf(double strand_mm, double strand_deg, const MistFrom& from);

/// Grazing from that line gives raised scales; the shadow reaches about 2 strands to the lee.
constexpr double kRaisedSlant_deg = 67;

}  // namespace nine
