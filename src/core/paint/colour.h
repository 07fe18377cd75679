// Colours as ten bands of light, and what an eye, a screen and a comparison make of them.
//
// Bands are 30 nm wide from 400 nm; light below and above is in the end bands. The light is D65, the observer
// that of 1931. Ten bands differ from a calculation at 10 nm by CIEDE2000 0.2 to 0.9 on average for
// reflectances that rise or fall over 20 to 50 nm, by 1.7 (2.9 at most) for narrow bumps (tests/paint). Cost:
// nanoseconds. Sources: IEC 61966-2-1 (sRGB), CIE 15 (Lab), ISO/CIE 11664-6 (CIEDE2000), Saunderson 1942
// (surface).
#pragma once

#include <array>
#include <cstdint>
#include <optional>
#include <string>
#include <string_view>

#include "base/units.h"

namespace nine {

constexpr std::size_t kBands = 10;
constexpr double kFirstBand_nm = 415, kBandStep_nm = 30;  ///< middles
/// Of each band, shares of the light that arrives (above 1 where something glows).
using Bands = std::array<Ratio, kBands>;

constexpr Bands evenBands(Ratio share) {
    Bands all{};
    for (Ratio& band : all) band = share;
    return all;
}

struct Xyz {
    Ratio x = 0, y = 0, z = 0;  ///< the white of D65 has y 1
};
struct LinearRgb {
    Ratio r = 0, g = 0, b = 0;  ///< of sRGB's primaries, not clipped
};
/// 0 to 255; fractions and values beyond are kept until something is shown.
struct Srgb {
    Figure r = 0, g = 0, b = 0;
};
struct Lab {
    Figure l = 0, a = 0, b = 0;  ///< against D65
};

Xyz xyzOf(const Bands& look);
LinearRgb linearOf(const Xyz& xyz);
Xyz xyzOf(const LinearRgb& linear);
/// Not clipped: below nothing the curve goes on as its mirror image.
Srgb srgbOf(const LinearRgb& linear);
LinearRgb linearOf(const Srgb& colour);
Lab labOf(const Xyz& xyz);
Xyz xyzOf(const Lab& lab);
/// 0xFFRRGGBB, clipped.
std::uint32_t shown(const Srgb& colour);
Srgb srgbOf(std::uint32_t rgb);
/// "#RRGGBB"; nothing when it is none.
std::optional<Srgb> parseColour(std::string_view text);
std::string colourText(const Srgb& colour);

/// CIEDE2000. Below 1 nobody sees it; from 3 a close look does.
Figure difference(const Lab& a, const Lab& b);

/// How much of the light at a surface is thrown back there at once: Saunderson's k1 from outside, k2 from
/// inside (.04 and .6, handbook values from memory).
constexpr Fraction kSurface = 0.04, kInnerSurface = 0.6;
/// How dull a surface is: 1 throws its share of the light at the eye wherever it comes from, 0 away from it.
struct Dullness {
    Fraction share = 1;
};
constexpr Dullness kMatt{1}, kSatin{0.5}, kGloss{0};

/// What is seen of a film whose own reflectance, below its surface, is `inner`.
Bands lookOf(const Bands& inner, Dullness dull);
Bands innerOf(const Bands& look, Dullness dull);

/// Words for how well two colours are told apart; `narrow` for marks under 3 mm at arm's length, where colour
/// (not lightness) counts for less. The steps are guesses.
enum class Apart { Hardly, Close, Clear, Strong, Loud };
struct ToldApart {
    Figure difference;
    Apart word;
};
ToldApart toldApart(const Lab& mark, const Lab& ground, bool narrow);

}  // namespace nine
