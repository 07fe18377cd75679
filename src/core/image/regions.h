// Parts of a picture: smoothing, thresholds, connected parts, distances, outlines. Each costs a few
// nanoseconds to tens of nanoseconds a pixel.
#pragma once

#include "base/units.h"
#include "image/picture.h"

namespace nine {

/// Yes or no for each pixel.
struct PixelSet {
    int width = 0, height = 0;
    std::vector<std::uint8_t> on;

    PixelSet() = default;
    PixelSet(int w, int h, bool value = false)
        : width(w), height(h), on(static_cast<std::size_t>(w) * static_cast<std::size_t>(h), value ? 1 : 0) {}
    std::size_t index(int x, int y) const {
        return static_cast<std::size_t>(y) * static_cast<std::size_t>(width) + static_cast<std::size_t>(x);
    }
    bool inside(int x, int y) const { return x >= 0 && y >= 0 && x < width && y < height; }
    bool at(int x, int y) const { return on[index(x, y)] != 0; }
    void set(int x, int y, bool value) { on[index(x, y)] = value ? 1 : 0; }
};

/// Means of squares of `factor` pixels; an odd rest at the right and lower edge is left out.
Plane reduced(const Plane& plane, int factor);
/// Mean over a square of 2 radius + 1 pixels, smaller at the edges.
Plane boxMean(const Plane& plane, int radius);
/// Three box means: a Gaussian of about `sigma` pixels.
Plane smoothed(const Plane& plane, double sigma_px);
/// Largest then smallest value within a square of 2 radius + 1 pixels: takes dark things narrower than that
/// out.
Plane closed(const Plane& plane, int radius);
PixelSet above(const Plane& plane, float level);

struct Part {
    std::vector<std::size_t> pixels;
    int left = 0, top = 0, right = 0, bottom = 0;  ///< inclusive
    std::size_t area() const { return pixels.size(); }
    int width() const { return right - left + 1; }
    int height() const { return bottom - top + 1; }
    Vec2 centroid(int pictureWidth) const;
    /// The unit direction the part is longest in, from its second moments.
    Vec2 direction(int pictureWidth) const;
};
/// Connected parts (over edges, or over corners too), the largest first.
std::vector<Part> partsOf(const PixelSet& mask, bool overCorners);
PixelSet pixelsOf(const Part& part, int width, int height);
PixelSet inverse(PixelSet mask);
/// Parts that do not touch the border of the picture and are off are switched on.
PixelSet filled(const PixelSet& mask);

/// Distance of each pixel's middle to the nearest pixel that is on, pixels; huge when there is none. Source:
/// Felzenszwalb and Huttenlocher 2012, Distance Transforms of Sampled Functions, section 2.
Plane distanceTo(const PixelSet& mask);
/// Grown by `radius` pixels; shrunk; shrunk and grown again (thin things go).
PixelSet grown(const PixelSet& mask, double radius_px);
PixelSet shrunk(const PixelSet& mask, double radius_px);
PixelSet opened(const PixelSet& mask, double radius_px);

/// Otsu's threshold: the level that parts the values best into two groups (Otsu 1979).
float otsuLevel(const std::vector<float>& values);
/// The value below which this share of all values lies.
float quantile(std::vector<float> values, Fraction share);

/// Closed lines where the plane passes `level`, between pixel middles, high side on the left. Lines that
/// leave the picture run along its edge. The longest first.
std::vector<Polyline2> levelLines(const Plane& plane, float level);

/// A closed line with points `step` apart; smoothed by a Gaussian of `sigma` along it, in the same unit, with
/// its shrinking of curves put back to second order. `sigma` 0 only resamples.
Polyline2 evenlySpaced(const Polyline2& closed, double step_px, double sigma_px = 0);

}  // namespace nine
