#include "spray/droplets.h"

#include <algorithm>
#include <cmath>

#include "base/units.h"

namespace nine {
namespace {

constexpr double kAirViscosity = 1.81e-5;  // Pa s
constexpr double kAirDensity_kg_m3 = 1.204;
constexpr double kSpread = 2.8;  // Rosin-Rammler's exponent; sprays have 2-4

}  // namespace

double nukiyamaTanasawa_um(double speed, double surface, double density, double viscosity,
                           double liquidToAir) {
    return 585 / speed * std::sqrt(surface / density) +
           597 * std::pow(viscosity / std::sqrt(surface * density), 0.45) * std::pow(1000 * liquidToAir, 1.5);
}

double sauterMean_um(const AirJet& jet, const Mixture& paint, double flow_ml_min, double needle_mm) {
    const double base =
        nukiyamaTanasawa_um(jet.speed_m_s, paint.surface_mn_m, paint.density_kg_m3 / 1000,
                            paint.viscosity_mpas / 100, flow_ml_min / (1000 * jet.flow_l_min));
    return base * std::sqrt(needle_mm / 0.30);
}

double largestFlow_ml_min(double gauge_kpa, double needle_mm, const Mixture& paint) {
    const double needle = needle_mm / 1000, gap = 0.35 * needle;
    const double drive =
        0.04 * 1000 * gauge_kpa + paint.density_kg_m3 * 9.81 * 0.03;  // suction and 30 mm of paint
    const double flow = drive * kPi * needle * gap * gap * gap / (12 * paint.viscosity_mpas / 1000 * needle);
    return flow * 6e7;  // m3/s to mL/min
}

double triggerFor(double flow_ml_min, double largest_ml_min) {
    return std::cbrt(flow_ml_min / largest_ml_min);
}

std::array<double, kDropClasses> dropClasses_um(double sauter) {
    const double scale = sauter * std::tgamma(1 - 1 / kSpread);
    std::array<double, kDropClasses> classes{};
    const std::array<double, kDropClasses> shares{0.1, 0.3, 0.5, 0.7, 0.9};
    for (std::size_t i = 0; i < kDropClasses; ++i)
        classes[i] = scale * std::pow(-std::log(1 - shares[i]), 1 / kSpread);
    return classes;
}

double relaxation_ms(double diameter_um, double density, double slip_m_s) {
    const double d = diameter_um * 1e-6;
    const double reynolds = kAirDensity_kg_m3 * slip_m_s * d / kAirViscosity;
    return 1000 * density * d * d / (18 * kAirViscosity) / (1 + 0.15 * std::pow(reynolds, 0.687));
}

double reachingShare(double gradient_1_s, double relaxation, double incidence_rad) {
    // Drops with gradient times relaxation above 1/8 cannot stop before the wall.
    const double inertia = gradient_1_s * relaxation / 1000 * std::cos(incidence_rad);
    return 1 / (1 + std::pow(0.125 / inertia, 2));
}

double cutSize_um(double gradient_1_s, double density) {
    return 1e6 * std::sqrt(0.125 / gradient_1_s * 18 * kAirViscosity / density);
}

double driedShare(double diameter_um, double distance_mm, const AirJet& jet) {
    constexpr double law = 6.4e-10, ventilation = 1.7;  // m2/s of water; guess for moving air
    const double z = distance_mm / 1000, time = z * z / (2 * jet.decay_m2_s), d = diameter_um * 1e-6;
    return 1 - std::pow(std::max(0.0, 1 - ventilation * law * time / (d * d)), 1.5);
}

double sprayWidth_mm(double distance_mm) {
    return std::hypot(0.35, 0.060 * distance_mm);
}

double strokeFilm_um(double flow_ml_min, double reaching, double speed_mm_s, double width_mm) {
    const double flow_mm3_s = flow_ml_min * 1000 / 60;
    return 1000 * flow_mm3_s * reaching / (speed_mm_s * std::sqrt(2 * kPi) * width_mm);
}

}  // namespace nine
