// Pictures in memory: colours as they come from a file, and planes of one number a pixel for measuring.
//
// Row-major from the upper left; pixel (x, y) has its middle at (x + 0.5, y + 0.5), so a reduced picture and
// its original share one frame up to the factor.
#pragma once

#include <cstddef>
#include <cstdint>
#include <vector>

#include "geom/vec.h"

namespace nine {

/// 8-bit sRGB, three bytes a pixel.
struct Picture {
    int width = 0, height = 0;
    std::vector<std::uint8_t> rgb;

    Picture() = default;
    Picture(int w, int h, std::uint8_t value = 255)
        : width(w), height(h), rgb(3 * static_cast<std::size_t>(w) * static_cast<std::size_t>(h), value) {}
    const std::uint8_t* at(int x, int y) const { return rgb.data() + 3 * index(x, y); }
    std::uint8_t* at(int x, int y) { return rgb.data() + 3 * index(x, y); }
    std::size_t index(int x, int y) const {
        return static_cast<std::size_t>(y) * static_cast<std::size_t>(width) + static_cast<std::size_t>(x);
    }
    bool empty() const { return rgb.empty(); }
};

/// One number a pixel.
struct Plane {
    int width = 0, height = 0;
    std::vector<float> values;

    Plane() = default;
    Plane(int w, int h, float value = 0)
        : width(w), height(h), values(static_cast<std::size_t>(w) * static_cast<std::size_t>(h), value) {}
    std::size_t index(int x, int y) const {
        return static_cast<std::size_t>(y) * static_cast<std::size_t>(width) + static_cast<std::size_t>(x);
    }
    float at(int x, int y) const { return values[index(x, y)]; }
    float& at(int x, int y) { return values[index(x, y)]; }
    bool inside(int x, int y) const { return x >= 0 && y >= 0 && x < width && y < height; }
    /// Between pixel middles, bilinear; beyond the edge the edge's value.
    float sample(const Vec2& p) const;
};

/// Means of `factor` x `factor` pixels; rows and columns left over are dropped.
Picture reduced(const Picture& picture, int factor);
/// The factor that brings the longer side down to `longest` pixels or less.
int factorFor(const Picture& picture, int longest);
/// The colours between pixel middles, bilinear.
Vec3 sampleRgb(const Picture& picture, const Vec2& p);

/// Luma, 0 black to 1 white (ITU-R BT.601 weights on sRGB values).
Plane luma(const Picture& picture);

/// CIE L*a*b* of an sRGB colour, rounded to 8 bits, white D65. Source: IEC 61966-2-1, CIE 15.
Vec3 labOf(const Vec3& rgb255);
/// Three planes L*, a*, b*.
std::vector<Plane> labPlanes(const Picture& picture);

}  // namespace nine
