#include "paint/colour.h"

#include <algorithm>
#include <cmath>

namespace nine {
namespace {

// D65 times the 1931 observer (CIE 15, tables at 10 nm, linear between), summed over each band, tails in the
// end bands, scaled so that an even reflectance of 1 has the white of sRGB.
constexpr Ratio kWeights[kBands][3] = {{0.02755, 0.00093, 0.13299}, {0.09916, 0.01002, 0.51606},
                                       {0.05103, 0.03844, 0.35324}, {0.00609, 0.12817, 0.07417},
                                       {0.06822, 0.26488, 0.01097}, {0.18663, 0.27030, 0.00110},
                                       {0.26062, 0.17985, 0.00026}, {0.18433, 0.08221, 0.00004},
                                       {0.05659, 0.02148, 0.00000}, {0.01024, 0.00372, 0.00000}};

constexpr Ratio kWhiteX = .95047, kWhiteZ = 1.08883;

Ratio curve(Ratio linear) {
    if (linear < 0) return -curve(-linear);
    return linear <= .0031308 ? 12.92 * linear : 1.055 * std::pow(linear, 1 / 2.4) - .055;
}
Ratio uncurve(Ratio v) {
    if (v < 0) return -uncurve(-v);
    return v <= .04045 ? v / 12.92 : std::pow((v + .055) / 1.055, 2.4);
}

constexpr double kDegree = kPi / 180;

}  // namespace

Xyz xyzOf(const Bands& look) {
    Xyz sum;
    for (std::size_t i = 0; i < kBands; ++i) {
        sum.x += kWeights[i][0] * look[i];
        sum.y += kWeights[i][1] * look[i];
        sum.z += kWeights[i][2] * look[i];
    }
    return sum;
}

LinearRgb linearOf(const Xyz& c) {
    return {3.2404542 * c.x - 1.5371385 * c.y - .4985314 * c.z,
            -.9692660 * c.x + 1.8760108 * c.y + .0415560 * c.z,
            .0556434 * c.x - .2040259 * c.y + 1.0572252 * c.z};
}

Xyz xyzOf(const LinearRgb& c) {
    return {.4124564 * c.r + .3575761 * c.g + .1804375 * c.b,
            .2126729 * c.r + .7151522 * c.g + .0721750 * c.b,
            .0193339 * c.r + .1191920 * c.g + .9503041 * c.b};
}

Srgb srgbOf(const LinearRgb& linear) {
    return {255 * curve(linear.r), 255 * curve(linear.g), 255 * curve(linear.b)};
}

LinearRgb linearOf(const Srgb& colour) {
    return {uncurve(colour.r / 255), uncurve(colour.g / 255), uncurve(colour.b / 255)};
}

Lab labOf(const Xyz& c) {
    const auto f = [](Ratio t) {
        constexpr Ratio kLeast = 216.0 / 24389, kSlope = 24389.0 / 27;
        return t > kLeast ? std::cbrt(t) : (kSlope * t + 16) / 116;
    };
    const Ratio x = f(c.x / kWhiteX), y = f(c.y), z = f(c.z / kWhiteZ);
    return {116 * y - 16, 500 * (x - y), 200 * (y - z)};
}

Xyz xyzOf(const Lab& lab) {
    const auto uncubed = [](Ratio f) {
        return f > 6.0 / 29 ? f * f * f : 3 * (6.0 / 29) * (6.0 / 29) * (f - 4.0 / 29);
    };
    const Ratio y = (lab.l + 16) / 116;
    return {kWhiteX * uncubed(y + lab.a / 500), uncubed(y), kWhiteZ * uncubed(y - lab.b / 200)};
}

std::uint32_t shown(const Srgb& colour) {
    const auto step = [](Figure v) {
        return static_cast<std::uint32_t>(std::lround(std::clamp(v, 0.0, 255.0)));
    };
    return 0xFF000000u | step(colour.r) << 16 | step(colour.g) << 8 | step(colour.b);
}

Srgb srgbOf(std::uint32_t rgb) {
    return {static_cast<Figure>(rgb >> 16 & 0xFF), static_cast<Figure>(rgb >> 8 & 0xFF),
            static_cast<Figure>(rgb & 0xFF)};
}

std::optional<Srgb> parseColour(std::string_view text) {
    if (text.size() != 7 || text.front() != '#') return std::nullopt;
    std::uint32_t value = 0;
    for (const char c : text.substr(1)) {
        int digit = -1;
        if (c >= '0' && c <= '9') digit = c - '0';
        if (c >= 'a' && c <= 'f') digit = c - 'a' + 10;
        if (c >= 'A' && c <= 'F') digit = c - 'A' + 10;
        if (digit < 0) return std::nullopt;
        value = value << 4 | static_cast<std::uint32_t>(digit);
    }
    return srgbOf(value);
}

std::string colourText(const Srgb& colour) {
    constexpr const char* kDigits = "0123456789ABCDEF";
    const std::uint32_t value = shown(colour);
    std::string text = "#";
    for (int shift = 20; shift >= 0; shift -= 4) text += kDigits[value >> shift & 0xF];
    return text;
}

Figure difference(const Lab& one, const Lab& other) {
    // In one piece: the formula of the standard, in its own letters.
    const Figure mean = 0.5 * (std::hypot(one.a, one.b) + std::hypot(other.a, other.b));
    const Figure mean7 = std::pow(mean, 7), g = 0.5 * (1 - std::sqrt(mean7 / (mean7 + 6103515625.0)));
    const Figure a1 = (1 + g) * one.a, a2 = (1 + g) * other.a;
    const Figure c1 = std::hypot(a1, one.b), c2 = std::hypot(a2, other.b);
    const auto hue = [](Figure a, Figure b) {
        if (a == 0 && b == 0) return 0.0;
        const double h = std::atan2(b, a) / kDegree;
        return h < 0 ? h + 360 : h;
    };
    const Figure h1 = hue(a1, one.b), h2 = hue(a2, other.b);
    const bool grey = c1 * c2 == 0;
    Figure turn = grey ? 0 : h2 - h1;
    if (turn > 180) turn -= 360;
    if (turn < -180) turn += 360;
    const Figure dl = other.l - one.l, dc = c2 - c1,
                 dh = 2 * std::sqrt(c1 * c2) * std::sin(0.5 * turn * kDegree);
    const Figure l = 0.5 * (one.l + other.l), c = 0.5 * (c1 + c2);
    Figure h = h1 + h2;
    if (!grey) {
        if (std::abs(h1 - h2) > 180) h += h < 360 ? 360 : -360;
        h *= 0.5;
    }
    const Figure t = 1 - .17 * std::cos((h - 30) * kDegree) + .24 * std::cos(2 * h * kDegree) +
                     .32 * std::cos((3 * h + 6) * kDegree) - .20 * std::cos((4 * h - 63) * kDegree);
    const Figure c7 = std::pow(c, 7), l50 = (l - 50) * (l - 50);
    const Figure sl = 1 + .015 * l50 / std::sqrt(20 + l50), sc = 1 + .045 * c, sh = 1 + .015 * c * t;
    const Figure twist = -2 * std::sqrt(c7 / (c7 + 6103515625.0)) *
                         std::sin(60 * std::exp(-std::pow((h - 275) / 25, 2)) * kDegree);
    const Figure tl = dl / sl, tc = dc / sc, th = dh / sh;
    return std::sqrt(std::max(0.0, tl * tl + tc * tc + th * th + twist * tc * th));
}

Bands lookOf(const Bands& inner, Dullness dull) {
    Bands look;
    for (std::size_t i = 0; i < kBands; ++i)
        look[i] = dull.share * kSurface +
                  (1 - kSurface) * (1 - kInnerSurface) * inner[i] / (1 - kInnerSurface * inner[i]);
    return look;
}

Bands innerOf(const Bands& look, Dullness dull) {
    Bands inner;
    for (std::size_t i = 0; i < kBands; ++i) {
        const Ratio y = std::max(0.0, look[i] - dull.share * kSurface);
        inner[i] = y / ((1 - kSurface) * (1 - kInnerSurface) + kInnerSurface * y);
    }
    return inner;
}

ToldApart toldApart(const Lab& mark, const Lab& ground, bool narrow) {
    Lab seen = mark;
    if (narrow) {
        constexpr Ratio kLeftOfColour = 0.65;
        seen.a = ground.a + kLeftOfColour * (mark.a - ground.a);
        seen.b = ground.b + kLeftOfColour * (mark.b - ground.b);
    }
    const Figure d = difference(seen, ground);
    return {d, d < 3    ? Apart::Hardly
               : d < 10 ? Apart::Close
               : d < 25 ? Apart::Clear
               : d < 40 ? Apart::Strong
                        : Apart::Loud};
}

}  // namespace nine
