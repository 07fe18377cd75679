// Draws photographs of bodies from their lofts, on a ground whose light falls off.
#pragma once

#include <cmath>
#include <functional>
#include <random>

#include "blank/skin.h"
#include "image/picture.h"

namespace nine::test {

/// A body on a ground whose light falls off, with a bill and a hook.
inline Picture bodyOnGround(const Skin& skin, const Vec3& body, const Vec3& ground, double perPx_mm,
                            bool bill, double noise = 0.01) {
    Picture picture(1600, 1100);
    std::mt19937 random(3);
    std::normal_distribution<double> grain(0, 255 * noise);
    const double x0 = 0.5 * (1600 * perPx_mm - skin.length_mm()), z0 = 550 * perPx_mm;
    // Sections once a column, not once a pixel.
    std::vector<Section> sections;
    for (int i = 0; i < 2 * picture.width; ++i)
        sections.push_back(
            skin.loft().sectionAt(std::clamp((0.5 * i + 0.25) * perPx_mm - x0, 0.0, skin.length_mm())));
    for (int y = 0; y < picture.height; ++y) {
        for (int x = 0; x < picture.width; ++x) {
            double cover = 0;
            for (const double sy : {0.25, 0.75}) {
                for (const double sx : {0.25, 0.75}) {
                    const Vec2 p((x + sx) * perPx_mm - x0, z0 - (y + sy) * perPx_mm);
                    bool in = false;
                    if (p.x() > 0 && p.x() < skin.length_mm()) {
                        const Section& s = sections[static_cast<std::size_t>(2 * x + (sx > 0.5 ? 1 : 0))];
                        in = p.y() < s.top_mm && p.y() > -s.bottom_mm;
                    }
                    if (bill) {
                        const double along = (p.x() - 8) * -0.79 + (p.y() + 8) * -0.61,
                                     across = (p.x() - 8) * 0.61 - (p.y() + 8) * 0.79;
                        in = in || (along > 0 && along < 22 && std::abs(across) < 0.5);
                        in = in || (std::abs(p.x() - 30) < 0.4 && p.y() < -10 && p.y() > -26);
                    }
                    cover += in ? 0.25 : 0;
                }
            }
            const double light = 1 - 0.25 * y / 1100.0;
            for (int c = 0; c < 3; ++c)
                picture.at(x, y)[c] = static_cast<std::uint8_t>(std::clamp(
                    light * ((1 - cover) * ground[c] + cover * body[c]) + grain(random), 0.0, 255.0));
        }
    }
    return picture;
}

inline const Vec3 kWood(150, 120, 70), kPaper(235, 238, 240);

/// Darkens the ground round the body as a lamp from above does.
inline Picture withShadow(Picture picture, const Skin& skin, double perPx_mm, const Vec3& ground) {
    const double x0 = 0.5 * (1600 * perPx_mm - skin.length_mm()), z0 = 550 * perPx_mm;
    for (int y = 0; y < picture.height; ++y) {
        for (int x = 0; x < picture.width; ++x) {
            const Vec2 p((x + 0.5) * perPx_mm - x0 - 1.5, z0 - (y + 0.5) * perPx_mm + 3.5);
            const Section s = skin.loft().sectionAt(std::clamp(p.x(), 0.0, skin.length_mm()));
            const double over =
                std::max({p.y() - s.top_mm, -s.bottom_mm - p.y(), -p.x(), p.x() - skin.length_mm()});
            const double shade = 1 - 0.45 / (1 + std::exp(over / 0.6));
            std::uint8_t* c = picture.at(x, y);
            const double light = 1 - 0.25 * y / 1100.0;
            const bool onGround =
                std::abs(c[0] - light * ground.x()) + std::abs(c[2] - light * ground.z()) < 40;
            for (int k = 0; k < 3 && onGround; ++k)
                c[k] =
                    static_cast<std::uint8_t>(255 * std::pow(std::pow(c[k] / 255.0, 2.2) * shade, 1 / 2.2));
        }
    }
    return picture;
}

/// Paints what `inside` says, pixel by pixel, in mm of the body (x from the nose, y up).
inline void paintOver(Picture& picture, const Skin& skin, double perPx_mm,
                      const std::function<Vec3(const Vec2&)>& colour,
                      const std::function<bool(const Vec2&)>& inside) {
    const double x0 = 0.5 * (1600 * perPx_mm - skin.length_mm()), z0 = 550 * perPx_mm;
    for (int y = 0; y < picture.height; ++y) {
        const double light = 1 - 0.25 * y / 1100.0;
        for (int x = 0; x < picture.width; ++x) {
            const Vec2 p((x + 0.5) * perPx_mm - x0, z0 - (y + 0.5) * perPx_mm);
            if (!inside(p)) continue;
            const Vec3 lit = light * colour(p);
            for (int c = 0; c < 3; ++c) picture.at(x, y)[c] = static_cast<std::uint8_t>(lit[c]);
        }
    }
}

/// One colour all over.
inline std::function<Vec3(const Vec2&)> plain(const Vec3& colour) {
    return [colour](const Vec2&) { return colour; };
}

}  // namespace nine::test
