// Droplets: how finely a paint is torn up, and which of the droplets reach the body.
#pragma once

#include <array>

#include "base/units.h"
#include "paint/paint.h"
#include "spray/air.h"

namespace nine {

/// Nukiyama and Tanasawa's law in its classic units: m/s, dyn/cm, g/cm3, poise; `liquidToAir` is the ratio of
/// volume flows. Returns the Sauter mean diameter, um.
double nukiyamaTanasawa_um(double speed_m_s, double surface_dyn_cm, double density_g_cm3, double viscosity_p,
                           Ratio liquidToAir);

/// The same for an airbrush, with the factor that makes a smaller nozzle spray finer. `flow_ml_min` is of
/// paint.
double sauterMean_um(const AirJet& jet, const Mixture& paint, double flow_ml_min, double needle_mm);

/// Largest flow of paint, trigger full back, mL/min.
double largestFlow_ml_min(double gauge_kpa, double needle_mm, const Mixture& paint);
/// How far back the trigger is for a flow, 0..1; above 1 it cannot be reached.
Fraction triggerFor(double flow_ml_min, double largest_ml_min);

/// Diameters below which 10, 30, 50, 70, 90 % of the volume lie (Rosin-Rammler), um.
constexpr std::size_t kDropClasses = 5;
std::array<double, kDropClasses> dropClasses_um(double sauterMean_um);

/// Time in which a drop takes up the speed of the air, ms; `slip_m_s` is the difference of the two.
double relaxation_ms(double diameter_um, double density_kg_m3, double slip_m_s);
/// Share of the drops of a size that reach a wall they are blown at.
Fraction reachingShare(double gradient_1_s, double relaxation_ms, double incidence_rad);
/// Diameter of which half reach it without slip correction, um.
double cutSize_um(double gradient_1_s, double density_kg_m3);

/// Share of a drop that dries on the way, in air of 20 C and 50 % humidity.
Fraction driedShare(double diameter_um, double distance_mm, const AirJet& jet);

/// Standard deviation of the spray's cross section at a distance, mm.
double sprayWidth_mm(double distance_mm);
/// Wet film at the middle of one stroke, um.
double strokeFilm_um(double flow_ml_min, Fraction reaching, double speed_mm_s, double width_mm);

}  // namespace nine
