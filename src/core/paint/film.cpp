#include "paint/film.h"

#include <algorithm>
#include <cmath>

namespace nine {
namespace {

constexpr Ratio kLeastS = 1e-9, kMostDepth = 40;

/// One band of a flat film.
struct Layer {
    Ratio a, b, depth;  ///< Kubelka's a and b, and b S x
    Layer(Ratio k, Ratio s, Ratio coats) {
        s = std::max(s, kLeastS);
        a = 1 + std::max(k, 0.0) / s;
        b = std::sqrt(std::max(a * a - 1, 1e-18));
        depth = std::min(b * s * coats, kMostDepth);
    }
    Ratio over(Ratio ground) const {
        if (depth <= 0) return ground;
        const Ratio less = std::expm1(-2 * depth), c = b * (2 + less) / -less;
        return (1 - ground * (a - c)) / (a - ground + c);
    }
    Ratio through() const { return b / (a * std::sinh(depth) + b * std::cosh(depth)); }
};

double middle_nm(std::size_t band) {
    return kFirstBand_nm + kBandStep_nm * static_cast<double>(band);
}

constexpr double kEmission_nm = 22;      // half width of what a dye gives off (guess)
constexpr double kShortOfPeak_nm = 10;   // what excites it is shorter than that
constexpr Fraction kUltraviolet = 0.02;  // light below 400 nm that excites it too (guess)
constexpr Ratio kSurfaceOut = (1 - kSurface) * (1 - kInnerSurface);
constexpr Ratio kDrop =
    0.23;  // thickness of a flattened drop over its diameter: spreads to 1.7 times (guess)
constexpr Ratio kClosed = 6;

/// How much one band tells of dyes that are excited at all.
bool excites(std::size_t band, double peak_nm) {
    return middle_nm(band) < peak_nm - kShortOfPeak_nm;
}

}  // namespace

Coated bare(const Bands& inner) {
    return {inner, {}};
}

Bands reflected(const KM& film, Ratio coats, const Bands& ground) {
    Bands out;
    for (std::size_t i = 0; i < kBands; ++i) out[i] = Layer(film.k[i], film.s[i], coats).over(ground[i]);
    return out;
}

Bands transmitted(const KM& film, Ratio coats) {
    Bands out;
    for (std::size_t i = 0; i < kBands; ++i) out[i] = Layer(film.k[i], film.s[i], coats).through();
    return out;
}

Coated under(const Coated& ground, const Film& film, Ratio coats, double offMirror_deg) {
    // In one piece: body, dye and flakes of one film.
    if (!(coats > 0)) return ground;
    Coated out;
    Bands through{}, alone{};
    for (std::size_t i = 0; i < kBands; ++i) {
        const Layer layer(film.body.k[i], film.body.s[i], coats);
        out.inner[i] = layer.over(ground.inner[i]);
        through[i] = layer.through();
        alone[i] = layer.over(0);
    }
    // What glows below comes up through the film, and is excited through it.
    Ratio excited = 0;
    std::size_t counted = 0;
    for (std::size_t i = 0; i < kBands && i < 4; ++i, ++counted) excited += through[i];
    excited /= static_cast<Ratio>(counted);
    for (std::size_t i = 0; i < kBands; ++i)
        out.glow[i] = ground.glow[i] * excited * through[i] / (1 - ground.inner[i] * alone[i]);
    if (film.glow > 0) {
        Ratio taken = kUltraviolet * kFirstBand_nm, given = 0;
        Bands shape{};
        for (std::size_t i = 0; i < kBands; ++i) {
            const double nm = middle_nm(i), off = (nm - film.glow_nm) / kEmission_nm;
            shape[i] = std::exp(-0.5 * off * off);
            given += shape[i] * nm;
            if (!excites(i, film.glow_nm)) continue;
            const Ratio lost =
                1 - out.inner[i] - (1 - ground.inner[i]) * through[i] / (1 - ground.inner[i] * alone[i]);
            taken += std::max(0.0, lost) * nm;
        }
        for (std::size_t i = 0; i < kBands; ++i)
            out.glow[i] +=
                film.glow * taken * shape[i] / given * 0.5 * (1 + ground.inner[i]) * std::sqrt(through[i]);
    }
    if (film.flakeCover > 0) {
        const Fraction cover = 1 - std::exp(-film.flakeCover * coats);
        const Ratio lobe = std::exp(-std::pow(offMirror_deg / std::max(film.lobe_deg, 1.0), 2));
        for (std::size_t i = 0; i < kBands; ++i) {
            const Ratio flake = film.side[i] + (film.face[i] - film.side[i]) * lobe;
            out.inner[i] = (1 - cover) * out.inner[i] + cover * flake;
            out.glow[i] *= 1 - cover;
        }
    }
    return out;
}

Bands lookOf(const Coated& place, Dullness dull) {
    Bands look = lookOf(place.inner, dull);
    for (std::size_t i = 0; i < kBands; ++i)
        look[i] += kSurfaceOut / (1 - kInnerSurface * std::min(place.inner[i], 0.95)) * place.glow[i];
    return look;
}

Srgb srgbOf(const Coated& place, Dullness dull) {
    return srgbOf(linearOf(xyzOf(lookOf(place, dull))));
}

Lab labOf(const Coated& place, Dullness dull) {
    return labOf(xyzOf(lookOf(place, dull)));
}

Coated averaged(const Coated& a, const Coated& b, Fraction shareOfB) {
    const Bands one = lookOf(a.inner, kGloss), other = lookOf(b.inner, kGloss);
    Bands mean;
    Coated out;
    for (std::size_t i = 0; i < kBands; ++i) {
        mean[i] = (1 - shareOfB) * one[i] + shareOfB * other[i];
        out.glow[i] = (1 - shareOfB) * a.glow[i] + shareOfB * b.glow[i];
    }
    out.inner = innerOf(mean, kGloss);
    return out;
}

Fraction missed(double wet_um, double drop_um) {
    if (!(wet_um > 0)) return 1;
    const Ratio lambda = wet_um / (kDrop * drop_um);
    return lambda >= kClosed ? 0 : std::exp(-lambda);
}

Coated sprayed(const Coated& ground, const Film& film, double wet_um, double reference_um, double drop_um,
               double offMirror_deg) {
    if (!(wet_um > 0)) return ground;
    const double thick_um = kDrop * drop_um;
    const Ratio lambda = wet_um / thick_um;
    if (lambda >= kClosed) return under(ground, film, wet_um / reference_um, offMirror_deg);
    const Fraction none = std::exp(-lambda), one = lambda * none, more = 1 - none - one;
    const Coated single = under(ground, film, thick_um / reference_um, offMirror_deg);
    Coated out = averaged(ground, single, one / (none + one));
    if (more > 1e-9)
        out = averaged(
            out, under(ground, film, (lambda - one) / more * thick_um / reference_um, offMirror_deg), more);
    return out;
}

}  // namespace nine
