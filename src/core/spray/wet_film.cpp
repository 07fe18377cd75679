#include "spray/wet_film.h"

#include "base/number_text.h"

#include <cmath>

namespace nine {
namespace {

constexpr double kGravity = 9.81, kSag_m = 1e-3;
constexpr double kAtRest = 3, kCrowded = 0.30;  // viscosity at rest by that under shear; where solids lock
constexpr double kSetting = 0.25;               // share of the drying time in which viscosity grows e-fold
constexpr double kStillAir = 1.15e-4;           // kg/(m2 s) of water

}  // namespace

double runLimit_um(const PaintFamily& paint, const Mixture& mixture) {
    const double occupied = paint.swelling * mixture.solids;
    const double atRest = kAtRest * mixture.viscosity_mpas / 1000 * (1 + std::pow(occupied / kCrowded, 4));
    const double perMetre_s = kSetting * (1 - mixture.solids) * 1000 / kStillAir;
    return 1e6 * std::cbrt(2 * atRest * kSag_m / (mixture.density_kg_m3 * kGravity * perMetre_s));
}

Words wetSentence(double coat_um, double run_um) {
    const double most = kWettest * run_um;
    int decimals = 0;
    while (decimals < 3 && fixedText(coat_um, decimals) == fixedText(most, decimals)) ++decimals;
    return Words(NINE_WORDS("core",
                            "a coat lies {coat} um wet; more than {most} um, 0.6 of what runs, may run"))
        .number("coat", coat_um, decimals)
        .number("most", most, decimals);
}

}  // namespace nine
