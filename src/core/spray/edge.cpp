#include "spray/edge.h"

#include <algorithm>
#include <cmath>

#include "base/number_text.h"
#include "base/units.h"

namespace nine {
namespace {

// Status of each in docs/MODEL.md.
constexpr double kTurbulence = 0.21;       // cross speed of a round jet to its speed on the axis
constexpr double kDeflection = 0.5;        // how much of the outward push reaches the drops
const double kOutward = std::sqrt(114.0);  // gradient of the flow along the wall, by the pressure profile
constexpr double kSplat = 0.6, kCutEdge_mm = 0.012;
constexpr double kSprayAngle = 0.060;   // of sprayWidth_mm
constexpr double kBridging = 0.5;       // film to gap at which wet paint bridges it
constexpr double kAtHand_mm = 0.4;      // length of film whose paint is drawn in
constexpr double kDryingFlux = 2.3e-4;  // kg/(m2 s) of water
constexpr double kCreepShare = 0.05;
constexpr double kTenth = 1.2815515655446004, kTwentieth = 1.6448536269514722;  // normal quantiles
constexpr double kDryLimit = 0.10, kClogGap = 2;

Error outside(const char* field, Pattern between, double low, double high,
              Measure measure = Measure::Number) {
    const auto with = [&](Words words, const char* key, double value, int decimals) {
        return measure == Measure::Length ? std::move(words).length(key, value, decimals)
                                          : std::move(words).number(key, value, decimals);
    };
    return {
        "out_of_range",
        Words(NINE_WORDS("core", "{what}; outside it these figures do not hold."))
            .words("what", with(with(between, "low", low, low < 1 ? 1 : 0), "high", high, high < 10 ? 1 : 0)),
        field};
}

/// The spread of one drop class at the edge.
double spreadOf(double drop_um, const SpraySetting& s, const Mixture& paint, const Impingement& wall,
                double gap_mm) {
    const double tau_s = relaxation_ms(drop_um, paint.density_kg_m3, 0.3 * wall.axis_m_s) / 1000;
    const double eddy_s = 0.2 * wall.halfWidth_mm / 1000 / (kTurbulence * wall.axis_m_s);
    const double turbulent = kTurbulence / std::sqrt(1 + tau_s / eddy_s);
    const double pushed =
        1 + kDeflection * kOutward * (1 - std::exp(-0.14 * s.distance_mm / 1000 / (wall.axis_m_s * tau_s)));
    const double across = s.stroke == Stroke::Across ? kSprayAngle * pushed : 0;
    const double direction = std::hypot(turbulent, across);
    const double slant = std::cos(degToRad(s.angle_deg));
    return std::hypot(gap_mm * direction / (slant * slant), kSplat * drop_um / 1000, kCutEdge_mm);
}

/// How far the liquid is drawn into a gap, mm.
double drawnIn(const SpraySetting& s, const Mixture& paint, const Impingement& wall, double width_mm,
               double film_um, double gap_mm) {
    if (gap_mm <= 0 || film_um <= 0) return 0;
    const double gap = gap_mm / 1000, film = film_um * 1e-6, mu = paint.viscosity_mpas / 1000;
    const double bridges = 1 / (1 + std::exp(-(film / (kBridging * gap) - 1) / 0.15));
    const double blown_s = 2.5 * width_mm / s.speed_mm_s;
    const double open_s = 0.4 * (1 - paint.solids) * 1000 * film / kDryingFlux;
    const double capillary = 2 * paint.surface_mn_m / 1000 * 0.7 / gap * open_s;
    const double wicked = std::sqrt(gap * gap * (capillary + wall.pressure_pa * blown_s) / (6 * mu));
    const double atHand = film * (kAtHand_mm / 1000 + wall.shear_pa * film * blown_s / (2 * mu)) / gap;
    return 1000 * bridges * std::min(wicked, atHand);
}

/// x at which the film has fallen to a share, 1e-9 mm; `quantile` is where a single error function of spread
/// 1 has: the mean of five lies between the narrowest and the widest of them.
double fallsTo(const EdgeFigures& edge, double share, double quantile) {
    const auto [least, most] = std::minmax_element(edge.spreads_mm.begin(), edge.spreads_mm.end());
    double low = edge.shift_mm + quantile * (quantile < 0 ? *most : *least);
    double high = edge.shift_mm + quantile * (quantile < 0 ? *least : *most);
    while (high - low > 1e-9) {
        const double middle = 0.5 * (low + high);
        (edge.profileAt(middle) > share ? low : high) = middle;
    }
    return 0.5 * (low + high);
}

}  // namespace

Status checkSetting(const SpraySetting& s, double gap_mm) {
    const auto within = [](double v, double low, double high) { return v >= low && v <= high; };
    if (!within(s.gauge_kpa, kLeastPressure_kpa, kMostPressure_kpa))
        return outside("pressure",
                       NINE_WORDS("core", "The pressure lies from {low} to {high} kPa (4.4 to 60.9 psi)"),
                       kLeastPressure_kpa, kMostPressure_kpa);
    if (!within(s.needle_mm, kLeastNeedle_mm, kMostNeedle_mm))
        return outside("needle", NINE_WORDS("core", "The needle lies from {low} to {high}"), kLeastNeedle_mm,
                       kMostNeedle_mm, Measure::Length);
    if (!within(s.distance_mm, kNearest_mm, kFarthest_mm))
        return outside("distance", NINE_WORDS("core", "The distance lies from {low} to {high}"), kNearest_mm,
                       kFarthest_mm, Measure::Length);
    if (!within(s.angle_deg, 0, kSteepest_deg))
        return outside("angle",
                       NINE_WORDS("core", "The angle off straight-on lies from {low} to {high} degrees"), 0,
                       kSteepest_deg);
    if (!within(gap_mm, 0, kLargestGap_mm))
        return outside("gap", NINE_WORDS("core", "The gap lies from {low} to {high}"), 0, kLargestGap_mm,
                       Measure::Length);
    if (!within(s.flow_ml_min, 0.01, 60))
        return outside("flow", NINE_WORDS("core", "The flow of paint lies from {low} to {high} mL/min"), 0.01,
                       60);
    if (!within(s.speed_mm_s, 5, 2000))
        return outside("speed", NINE_WORDS("core", "The speed of the hand lies from {low} to {high} mm/s"), 5,
                       2000);
    if (!within(s.aim_mm, -200, 200))
        return outside("aim", NINE_WORDS("core", "The aim lies from {low} to {high} from the edge"), -200,
                       200, Measure::Length);
    if (s.film_um && !within(*s.film_um, 0.1, 500))
        return outside("film", NINE_WORDS("core", "The wet film lies from {low} to {high} um"), 0.1, 500);
    return Done{};
}

double EdgeFigures::profileAt(double x_mm) const {
    double sum = 0;
    for (const double spread : spreads_mm)
        sum += 0.5 * std::erfc((x_mm - shift_mm) / (std::sqrt(2.0) * spread));
    return sum / static_cast<double>(spreads_mm.size());
}

Result<EdgeFigures> edgeFigures(const SpraySetting& s, double gap_mm) {
    // In one piece: one chain of the model from drops to edge.
    if (Status ok = checkSetting(s, gap_mm); !ok) return ok.error();
    const Result<Mixture> paint = mixed(s.paint, s.reduction);
    if (!paint) return paint.error();
    const AirJet jet = airJet(s.gauge_kpa, s.needle_mm);
    const Impingement wall = impingement(jet, s.distance_mm);
    EdgeFigures edge{};
    edge.pressure_pa = wall.pressure_pa;
    edge.dropSize_um = sauterMean_um(jet, *paint, s.flow_ml_min, s.needle_mm);
    const double largest = largestFlow_ml_min(s.gauge_kpa, s.needle_mm, *paint);
    edge.trigger = triggerFor(s.flow_ml_min, largest);
    const auto drops = dropClasses_um(edge.dropSize_um);
    const double width = sprayWidth_mm(s.distance_mm);
    const double incidence = degToRad(s.angle_deg);

    double reaching = 0, pushed = 0;
    for (std::size_t i = 0; i < kDropClasses; ++i) {
        edge.spreads_mm[i] = spreadOf(drops[i], s, *paint, wall, gap_mm);
        const double tau = relaxation_ms(drops[i], paint->density_kg_m3, 0.3 * wall.axis_m_s);
        reaching += reachingShare(wall.gradient_1_s, tau, incidence) / static_cast<double>(kDropClasses);
        pushed +=
            (1 + kDeflection * kOutward * (1 - std::exp(-0.14 * s.distance_mm / (wall.axis_m_s * tau)))) /
            static_cast<double>(kDropClasses);
    }
    // Aimed onto the mask, drops drift away from under it; aimed at the open side, under it.
    const double drift = -s.aim_mm / s.distance_mm * pushed;
    edge.shift_mm = gap_mm * (std::tan(incidence) + drift);
    const double falloff = std::exp(-0.5 * std::pow(s.aim_mm / width, 2));
    edge.film_um = s.film_um.value_or(falloff * strokeFilm_um(s.flow_ml_min, reaching, s.speed_mm_s, width) *
                                      std::cos(incidence));
    // The flank of the spray beyond the edge: a sharp line with a soft shadow.
    const double sigmas = s.aim_mm / width;
    edge.fade_mm = sigmas > 0 ? width * (std::sqrt(sigmas * sigmas + 2) - sigmas) : 0;
    edge.liquid_mm = drawnIn(s, *paint, wall, width, edge.film_um, gap_mm);
    const double soft = fallsTo(edge, 0.1, kTenth) - fallsTo(edge, 0.9, -kTenth);
    edge.width_mm = std::hypot(soft, edge.liquid_mm);
    edge.creep_mm = std::max(0.0, fallsTo(edge, kCreepShare, kTwentieth)) + edge.liquid_mm;

    if (edge.trigger > 1) {
        edge.warnings.push_back(
            {"too_much_paint",
             Words(NINE_WORDS("core",
                              "This needle gives at most {largest} mL/min of this mixture: thin it, or "
                              "take a larger needle."))
                 .number("largest", largest, 1),
             "flow"});
    }
    if (driedShare(drops[2], s.distance_mm, jet) > kDryLimit) {
        edge.warnings.push_back(
            {"dry_spray",
             NINE_WORDS("core", "Drops dry on the way and land as dust: go closer or lower the pressure."),
             "distance"});
    }
    if (0.35 * std::min(1.0, edge.trigger) * s.needle_mm * 1000 < kClogGap * s.paint.particle_um) {
        edge.warnings.push_back(
            {"clog",
             NINE_WORDS("core",
                        "The particles of this paint are nearly as large as the open slit: "
                        "strain it, or take a larger needle."),
             "needle"});
    }
    return edge;
}

}  // namespace nine
