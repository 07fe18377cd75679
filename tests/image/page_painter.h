// Draws pages and photographs of them without the code under test: a page is a grey picture at kPagePerMm, a
// photograph looks at it through a pinhole.
#pragma once

#include <cmath>
#include <random>

#include "base/units.h"
#include "image/picture.h"
#include "image/tracing_sheet.h"
#include "tests/bodies.h"

namespace nine::test {

#ifdef NINE_SANITIZED
constexpr double kPagePerMm = 5;  // instrumented code is slow: the same with a quarter of the pixels
constexpr double kCameraScale = 0.5;
#else
constexpr double kPagePerMm = 10;
constexpr double kCameraScale = 1;
#endif

class PaintedPage {
  public:
    PaintedPage(double width_mm = 297, double height_mm = 210)
        : width_(width_mm),
          height_(height_mm),
          grey_(static_cast<int>(width_mm * kPagePerMm), static_cast<int>(height_mm * kPagePerMm), 0.96F) {}

    /// Frame coordinates (mm, y up) to page pixels.
    Vec2 pixel(const Vec2& frame) const {
        const Vec2 f = tracing_sheet::kFrame_mm;
        return kPagePerMm * Vec2(frame.x() + 0.5 * (width_ - f.x()), 0.5 * (height_ + f.y()) - frame.y());
    }
    /// Everything within `radius` mm of a polyline gets darker to `value`, edges smoothed.
    void stroke(const Polyline2& line, double width_mm, float value, bool closed) {
        const std::size_t n = line.size();
        for (std::size_t i = 0; i + (closed ? 0 : 1) < n; ++i) {
            const Vec2 a = pixel(line[i]), b = pixel(line[(i + 1) % n]);
            segment(a, b, 0.5 * width_mm * kPagePerMm, value);
        }
    }
    void disc(const Vec2& middle, double radius_mm, float value) {
        segment(pixel(middle), pixel(middle), radius_mm * kPagePerMm, value, true);
    }
    void marks() {
        for (const Vec2& m : tracing_sheet::kMarks_mm) {
            disc(m, tracing_sheet::kRingOuter_mm, 0.08F);
            disc(m, tracing_sheet::kRingInner_mm, 0.96F);
            disc(m, tracing_sheet::kDot_mm, 0.08F);
        }
    }
    Plane& grey() { return grey_; }
    const Plane& grey() const { return grey_; }

  private:
    void segment(const Vec2& a, const Vec2& b, double radius, float value, bool replace = false) {
        const int x0 = std::max(0, static_cast<int>(std::min(a.x(), b.x()) - radius - 1)),
                  x1 = std::min(grey_.width - 1, static_cast<int>(std::max(a.x(), b.x()) + radius + 1));
        const int y0 = std::max(0, static_cast<int>(std::min(a.y(), b.y()) - radius - 1)),
                  y1 = std::min(grey_.height - 1, static_cast<int>(std::max(a.y(), b.y()) + radius + 1));
        for (int y = y0; y <= y1; ++y) {
            for (int x = x0; x <= x1; ++x) {
                const Vec2 p(x + 0.5, y + 0.5), d = b - a;
                const double t =
                    d.squaredNorm() > 0 ? std::clamp((p - a).dot(d) / d.squaredNorm(), 0.0, 1.0) : 0;
                const double cover = std::clamp(radius + 0.5 - (p - a - t * d).norm(), 0.0, 1.0);
                float& v = grey_.at(x, y);
                const auto mixed = static_cast<float>((1 - cover) * v + cover * value);
                v = replace ? mixed : std::min(v, mixed);
            }
        }
    }
    double width_, height_;
    Plane grey_;
};

/// Side or top outline of a body, nose at `nose` in frame mm.
inline Polyline2 outlineAt(const Skin& skin, bool above, const Vec2& nose, int steps = 300) {
    Polyline2 line;
    for (const bool upper : {true, false}) {
        for (int i = 0; i <= steps; ++i) {
            const double share = 0.5 * (1 - std::cos(kPi * (upper ? i : steps - i) / steps));
            const Section s = skin.loft().sectionAt(skin.noseX_mm() + share * skin.length_mm());
            const double h =
                above ? (upper ? s.halfWidth_mm : -s.halfWidth_mm) : (upper ? s.top_mm : -s.bottom_mm);
            line.push_back(nose + Vec2(share * skin.length_mm(), h));
        }
    }
    return line;
}

struct Camera {
    int width = 2400, height = 1800;
    double distance_mm = 480, focal_px = 2800;
    double tilt_deg = 0, turn_deg = 0;
    double noise = 0;                                    ///< standard deviation, 0..1
    double falloff = 0;                                  ///< how much darker the far corner is, 0..1
    bool table = true;                                   ///< brown wood round the page
    std::function<double(const Vec2& pagePixel)> shade;  ///< of the light at a place of the page
    double bend_mm = 0;                                  ///< the page bulges up by so much in its middle
};

/// 8-bit picture of a page as the camera sees it.
inline Picture photographed(const PaintedPage& page, Camera camera, unsigned seed = 1) {
    camera.width = static_cast<int>(camera.width * kCameraScale);
    camera.height = static_cast<int>(camera.height * kCameraScale);
    camera.focal_px *= kCameraScale;
    Picture out(camera.width, camera.height);
    const double tilt = degToRad(camera.tilt_deg), turn = degToRad(camera.turn_deg);
    const Plane& grey = page.grey();
    const Vec2 middle(0.5 * grey.width, 0.5 * grey.height);
    std::mt19937 random(seed);
    std::normal_distribution<double> grain(0, camera.noise);
    for (int y = 0; y < out.height; ++y) {
        for (int x = 0; x < out.width; ++x) {
            // A ray through the pixel meets the page, which is turned by `turn` and tilted about the
            // picture's x axis.
            const double u = (x + 0.5 - 0.5 * out.width) / camera.focal_px,
                         v = (0.5 * out.height - y - 0.5) / camera.focal_px;
            double height = 0;
            double px = 0, py = 0;
            for (int k = 0; k < (camera.bend_mm > 0 ? 4 : 1); ++k) {
                const double d = camera.distance_mm - height;
                const double py0 = v * d / (std::cos(tilt) - v * std::sin(tilt));
                px = u * (d + py0 * std::sin(tilt));
                py = py0;
                const double r = px / 150;
                height = camera.bend_mm * std::max(0.0, 1 - r * r);
            }
            const double ax = px * std::cos(turn) + py * std::sin(turn),
                         ay = -px * std::sin(turn) + py * std::cos(turn);
            const Vec2 at = middle + kPagePerMm * Vec2(ax, -ay);
            Vec3 colour(122, 90, 60);
            if (at.x() >= 0 && at.y() >= 0 && at.x() < grey.width && at.y() < grey.height) {
                double light = 255 * grey.sample(at);
                if (camera.shade) light *= camera.shade(at);
                colour = Vec3(light, light, light);
            } else if (!camera.table) {
                colour = Vec3(245, 245, 245);
            }
            colour *= 1 - camera.falloff *
                              (static_cast<double>(x) / out.width + static_cast<double>(y) / out.height) / 2;
            for (int c = 0; c < 3; ++c)
                out.at(x, y)[c] = static_cast<std::uint8_t>(std::clamp(
                    std::lround(colour[c] + (camera.noise > 0 ? 255 * grain(random) : 0)), 0L, 255L));
        }
    }
    return out;
}

/// The page as a flatbed scanner gives it.
inline Picture scanned(const PaintedPage& page) {
    Picture out(page.grey().width, page.grey().height);
    for (std::size_t i = 0; i < page.grey().values.size(); ++i)
        for (std::size_t c = 0; c < 3; ++c)
            out.rgb[3 * i + c] = static_cast<std::uint8_t>(std::lround(255 * page.grey().values[i]));
    return out;
}

}  // namespace nine::test
