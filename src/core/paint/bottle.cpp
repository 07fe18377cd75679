#include "paint/bottle.h"

#include <algorithm>
#include <cmath>

namespace nine {
namespace {

struct Optics {
    std::string_view family;
    FilmPrior::Sought sought;
    Figure meanLnK;
    Ratio s;
    Figure spreadLnS;
    double wet_um;
    Ratio flakeCover;
    double lobe_deg;
    Fraction glow;
};

// Wet films and constants are guesses; of white's scattering and blue's absorption they were fitted to what
// painters say of coats (docs/MODEL.md).
constexpr auto kBody = FilmPrior::Sought::Body, kFlakes = FilmPrior::Sought::Flakes;
constexpr Optics kOptics[] = {
    {"opaque", kBody, -0.5, .7, .9, 20, 0, 20, 0},
    {"craft", kBody, -0.5, .7, .9, 25, 0, 20, 0},
    {"primer", kBody, -0.5, 3.2, .6, 25, 0, 20, 0},
    {"transparent", kBody, -1.9, .03, .9, 12, 0, 20, 0},
    {"candy", kBody, -1.9, .0003, .3, 10, 0, 20, 0},
    {"ink", kBody, -0.5, .014, .9, 8, 0, 20, 0},
    {"fluorescent", kBody, -1.9, .18, .6, 15, 0, 20, .45},
    {"pearl", kFlakes, -3.5, .1, .3, 15, .32, 21, 0},
    {"metallic", kFlakes, -3.5, .1, .3, 15, 1.6, 18, 0},
};

}  // namespace

FamilyColour colourOfFamily(std::string_view family, double glow_nm) {
    const auto* found = std::find_if(std::begin(kOptics), std::end(kOptics),
                                     [&](const Optics& o) { return o.family == family; });
    const Optics& o = found == std::end(kOptics) ? kOptics[0] : *found;
    FamilyColour colour;
    colour.wet_um = o.wet_um;
    colour.prior.sought = o.sought;
    colour.prior.meanLnK = o.meanLnK;
    colour.prior.meanLnS = std::log(o.s);
    colour.prior.spreadLnS = o.spreadLnS;
    Film& usual = colour.prior.usual;
    usual.body = {evenBands(std::exp(o.meanLnK)), evenBands(o.s)};
    usual.flakeCover = o.flakeCover;
    usual.lobe_deg = o.lobe_deg;
    if (glow_nm > 0) {
        usual.glow = o.glow;
        usual.glow_nm = glow_nm;
    }
    return colour;
}

Status checkBottle(const Bottle& b, const std::string& where) {
    const auto field = [&](const char* name) {
        return where.empty() ? std::string(name) : where + "." + name;
    };
    if (b.name.empty()) return Error{"no_name", NINE_WORDS("core", "A paint needs a name."), field("name")};
    if (!findPaint(b.family)) return Error{"unknown_paint", unknownPaint(b.family), field("family")};
    const auto within = [&](const char* name, Figure v, Figure low, Figure high) -> Status {
        if (v >= low && v <= high) return Done{};
        return Error{"out_of_range",
                     Words(NINE_WORDS("core", "{field} is {value}; it must be {low} to {high}."))
                         .name("field", name)
                         .number("value", v, 2)
                         .number("low", low, 2)
                         .number("high", high, 2),
                     field(name)};
    };
    if (b.glow_nm != 0)
        if (Status ok = within("glow_nm", b.glow_nm, 420, 700); !ok) return ok;
    if (Status ok = within("flake_um", b.flake_um, 0, 500); !ok) return ok;
    if (Status ok = within("rest_min", b.rest_min, 0, 1440); !ok) return ok;
    if (Status ok = within("left_ml", b.left_ml, 0, 5000); !ok) return ok;
    const Status fit = checkSwatches(b.swatches, b.card);
    if (fit) return Done{};
    Error error = fit.error();
    error.where = field(error.where.c_str());
    return error;
}

FittedFilm filmOf(const Bottle& bottle) {
    const FilmPrior prior = colourOfFamily(bottle.family, bottle.glow_nm).prior;
    Result<FittedFilm> fit = fittedFilm(bottle.swatches, bottle.card, prior);
    return fit ? *fit : FittedFilm{prior.usual, 1e9};
}

const Bottle* findBottle(const std::vector<Bottle>& shelf, std::string_view id) {
    const auto found = std::find_if(shelf.begin(), shelf.end(), [&](const Bottle& b) { return b.id == id; });
    return found == shelf.end() ? nullptr : &*found;
}

}  // namespace nine
