#include "spray/air.h"

#include <cmath>

#include "base/units.h"

namespace nine {
namespace {

constexpr double kGamma = 1.4, kGas = 287.05, kHeat = 1004.7;  // dry air, J/(kg K)
constexpr double kRoom_k = 293.15, kRoom_pa = 101325, kAirDensity = 1.204;
constexpr double kCriticalRatio = 0.52828;  // (2/2.4)^3.5

/// Area the air goes through, discharge coefficient included: chosen so that 8-15 L/min come out.
double outlet_m2(double needle_mm) {
    return (0.18 + 0.84 * needle_mm) * 1e-6;
}

}  // namespace

Isentropic isentropic(double mach) {
    const double t = 1 / (1 + 0.5 * (kGamma - 1) * mach * mach);
    return {std::pow(t, kGamma / (kGamma - 1)), std::pow(t, 1 / (kGamma - 1)), t,
            std::pow((1 + 0.2 * mach * mach) / 1.2, 3) / mach};
}

AirJet airJet(double gauge_kpa, double needle_mm) {
    const double p0 = kRoom_pa + 1000 * gauge_kpa, ratio = kRoom_pa / p0, area = outlet_m2(needle_mm);
    AirJet jet{};
    jet.speed_m_s = std::sqrt(2 * kHeat * kRoom_k * (1 - std::pow(ratio, 2.0 / 7)));
    jet.choked = ratio < kCriticalRatio;
    double mass, momentum;  // kg/s, N
    if (jet.choked) {
        mass = area * p0 * std::sqrt(kGamma / (kGas * kRoom_k)) * std::pow(2 / (kGamma + 1), 3);
        momentum = p0 * area * ((kGamma + 1) * kCriticalRatio - ratio);
    } else {
        mass = area * p0 *
               std::sqrt(2 * kGamma / ((kGamma - 1) * kGas * kRoom_k) *
                         (std::pow(ratio, 2 / kGamma) - std::pow(ratio, (kGamma + 1) / kGamma)));
        momentum = mass * jet.speed_m_s;
    }
    jet.flow_l_min = mass / kAirDensity * 60000;
    jet.momentum_mn = 1000 * momentum;
    constexpr double decay = 5.8;  // of the speed on the axis, in nozzle diameters; textbooks give 5.8-6.1
    jet.decay_m2_s = decay * std::sqrt(4 * momentum / (kPi * kAirDensity));
    return jet;
}

Impingement impingement(const AirJet& jet, double distance_mm) {
    Impingement at{};
    at.axis_m_s = jet.speedAt_m_s(distance_mm);
    at.pressure_pa = 0.5 * kAirDensity * at.axis_m_s * at.axis_m_s;
    at.gradient_1_s = std::sqrt(114.0) * at.axis_m_s / (distance_mm / 1000);
    at.shear_pa = 0.16 * kAirDensity * std::pow(at.axis_m_s / 5.8, 2);
    at.halfWidth_mm = 0.094 * distance_mm;
    return at;
}

}  // namespace nine
