// The edge a mask leaves: how wide it is, and how far paint creeps under the mask.
//
// Drops reach the mask's edge from a spread of directions, so a gap under it blurs the edge; wet paint is
// drawn into a narrow gap besides. Equations, sources and the status of every constant: docs/MODEL.md. No
// spray was measured: use it for what changes, not for absolute figures.
#pragma once

#include "base/result.h"
#include "base/units.h"
#include "spray/droplets.h"

namespace nine {

/// Strokes run along the mask's edge or across it.
enum class Stroke { Along, Across };

struct SpraySetting {
    double gauge_kpa = 103.42;  ///< 15 psi
    double needle_mm = 0.2;
    double distance_mm = 70;
    double angle_deg = 0;  ///< of the gun off straight-on
    PaintFamily paint = *findPaint("opaque");
    Reduction reduction;
    double flow_ml_min = 0.4;
    double speed_mm_s = 120;
    Stroke stroke = Stroke::Along;
    double aim_mm = 0;                   ///< middle of the spray from the edge, positive onto the mask
    std::optional<double> film_um = {};  ///< wet film at the edge; by default that of one stroke
};

/// Where the model may be asked; outside it says so and gives no figure.
constexpr double kLeastPressure_kpa = 30, kMostPressure_kpa = 420, kFarthest_mm = 300, kSteepest_deg = 75;
constexpr double kLeastNeedle_mm = 0.1, kMostNeedle_mm = 1.0, kLargestGap_mm = 20;
/// Farther back the trigger no longer meters (common practice, no published source).
constexpr Fraction kMostTrigger = 0.95;

/// Whether the model may be asked. Errors: out_of_range, naming the field: pressure, needle, distance, angle,
/// gap, flow, speed, aim, film.
Status checkSetting(const SpraySetting& setting, double gap_mm);

struct EdgeFigures {
    double width_mm;     ///< from 10 to 90 % of the film
    double creep_mm;     ///< from the edge to 5 % of the film, with what is drawn in
    double liquid_mm;    ///< of that, drawn in wet
    double shift_mm;     ///< of the whole edge by the slant
    double film_um;      ///< wet, at the edge
    double pressure_pa;  ///< of the air on the mask
    double dropSize_um;  ///< Sauter mean
    double fade_mm;  ///< aimed onto the mask: over which the film falls to 1 / e, away from the edge; else 0
    Fraction trigger;                             ///< how far back, 0..1
    std::array<double, kDropClasses> spreads_mm;  ///< standard deviation of the edge by drop class
    /// Share of the open film at x mm from the edge, negative where the body is open.
    Fraction profileAt(double x_mm) const;
    Warnings warnings;  ///< too_much_paint, dry_spray, clog
};

/// `gap_mm` is the whole gap between skin and mask at the edge. Errors: out_of_range, naming the field.
/// Cost: about 20 us.
Result<EdgeFigures> edgeFigures(const SpraySetting& setting, double gap_mm);

}  // namespace nine
