// The air of an airbrush: from the gauge to the jet, and where the jet strikes the body.
//
// One-dimensional nozzle flow of a perfect gas, the far field of a free round jet, and the impinging region
// as classic wall-jet data give it. Not valid nearer than kNearest_mm, where the jet has no far field yet.
#pragma once

#include "base/units.h"

namespace nine {

constexpr double kNearest_mm = 10;

/// Ratios of a perfect gas with gamma 1.4 at a Mach number.
struct Isentropic {
    Ratio pressure, density, temperature;  ///< to those at rest
    Ratio area;                            ///< to that of the throat
};
Isentropic isentropic(Ratio mach);

struct AirJet {
    bool choked;         ///< the nozzle runs at the speed of sound
    double speed_m_s;    ///< of the fully expanded jet
    double flow_l_min;   ///< of free air
    double momentum_mn;  ///< millinewton
    double decay_m2_s;   ///< speed on the axis times distance
    double speedAt_m_s(double distance_mm) const { return 1000 * decay_m2_s / distance_mm; }
};

/// `gauge_kpa` is read with the air flowing, more than 0; `needle_mm` the size of the nozzle.
AirJet airJet(double gauge_kpa, double needle_mm);

/// Where the jet meets a wall square on.
struct Impingement {
    double axis_m_s;      ///< speed the jet would have there
    double pressure_pa;   ///< at the middle, over that of the room
    double gradient_1_s;  ///< of the speed along the wall
    double shear_pa;      ///< largest, on the wall
    double halfWidth_mm;  ///< radius at half the speed
};
Impingement impingement(const AirJet& jet, double distance_mm);

}  // namespace nine
