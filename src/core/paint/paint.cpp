#include "paint/paint.h"

#include <algorithm>
#include <cmath>

#include "base/number_text.h"

namespace nine {
namespace {

// Water-based reducer; guesses.
constexpr double kReducer_mpas = 2, kReducerSurface_mn_m = 29, kReducerDensity_kg_m3 = 985;
constexpr double kPacking = 0.64;   // random close packing of spheres
constexpr double kIntrinsic = 2.5;  // Einstein's coefficient, the exponent of Krieger and Dougherty
constexpr double kLeastShare = 0.01;

}  // namespace

const std::vector<PaintFamily>& paintFamilies() {
    static const std::vector<PaintFamily> all{
        {"opaque", NINE_WORDS("core", "opaque"), 0.30, 1.50, 6, 35, 1120, 5, 2},
        {"pearl", NINE_WORDS("core", "pearl"), 0.28, 1.60, 6, 35, 1100, 30, 3},
        {"transparent", NINE_WORDS("core", "transparent"), 0.18, 1.50, 5, 34, 1050, 2, 6},
        {"candy", NINE_WORDS("core", "candy"), 0.15, 1.50, 5, 33, 1040, 1, 6},
        {"metallic", NINE_WORDS("core", "metallic"), 0.28, 1.60, 6, 35, 1150, 25, 2},
        {"fluorescent", NINE_WORDS("core", "fluorescent"), 0.28, 1.50, 6, 35, 1080, 6, 3},
        {"craft", NINE_WORDS("core", "craft acrylic"), 0.38, 1.60, 8, 36, 1200, 15, 2},
        {"ink", NINE_WORDS("core", "ink"), 0.07, 1.30, 3, 32, 1020, 0.5, 8},
        {"primer", NINE_WORDS("core", "primer"), 0.32, 1.45, 6, 36, 1200, 12, 2},
    };
    return all;
}

std::optional<PaintFamily> findPaint(std::string_view id) {
    const auto& all = paintFamilies();
    const auto found = std::find_if(all.begin(), all.end(), [&](const PaintFamily& p) { return p.id == id; });
    return found == all.end() ? std::nullopt : std::optional(*found);
}

Words unknownPaint(const std::string& id) {
    std::string known;
    for (const PaintFamily& p : paintFamilies()) known += (known.empty() ? "" : ", ") + std::string(p.id);
    return Words(NINE_WORDS("core", "\"{paint}\" is not a paint family; choose {known}."))
        .name("paint", id)
        .name("known", known);
}

Result<Reduction> parseReduction(const std::string& text) {
    const auto colon = text.find(':');
    const auto paint = parseNumber(text.substr(0, colon));
    const auto reducer = colon == std::string::npos ? std::nullopt : parseNumber(text.substr(colon + 1));
    if (!paint || !reducer || !(*paint > 0 && *paint <= 1000) || !(*reducer >= 0 && *reducer <= 1000)) {
        return Error{"bad_value",
                     Words(NINE_WORDS("core",
                                      "\"{text}\" is not a reduction; write drops of paint to drops of "
                                      "reducer, such as 4:1 or 4:0."))
                         .name("text", text),
                     "reduction"};
    }
    return Reduction{*paint, *reducer};
}

Result<Mixture> mixed(const PaintFamily& paint, const Reduction& reduction) {
    const double share = reduction.share();
    if (!(share >= kLeastShare && share <= 1)) {
        return Error{"out_of_range",
                     NINE_WORDS("core", "Less than one part paint in a hundred is no paint any more."),
                     "reduction"};
    }
    Mixture m{};
    m.solids = paint.solids * share;
    const double occupied = paint.swelling * m.solids;
    if (!(occupied < kPacking)) {
        return Error{"out_of_range", NINE_WORDS("core", "So many solids do not flow; reduce the paint."),
                     "reduction"};
    }
    const double liquid = share * (1 - paint.swelling * paint.solids);
    const double carrier = liquid / (liquid + (1 - share));
    const double between =
        std::exp(carrier * std::log(paint.carrier_mpas) + (1 - carrier) * std::log(kReducer_mpas));
    m.viscosity_mpas = between * std::pow(1 - occupied / kPacking, -kIntrinsic * kPacking);
    m.surface_mn_m = share * paint.surface_mn_m + (1 - share) * kReducerSurface_mn_m;
    m.density_kg_m3 = share * paint.density_kg_m3 + (1 - share) * kReducerDensity_kg_m3;
    return m;
}

}  // namespace nine
