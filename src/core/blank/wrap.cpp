#include "blank/wrap.h"

#include <algorithm>
#include <cmath>

namespace nine {

std::vector<WrapWidth> wrapWidths(const Skin& skin, const SkinGrid& grid, double strainLimit) {
    struct Ring {
        double x, curvature, area;
    };
    std::vector<Ring> rings;
    for (int r = 0; r + 1 < grid.rows; ++r) {
        const auto k = static_cast<std::size_t>(r);
        Ring ring{0.5 * (grid.x_mm[k] + grid.x_mm[k + 1]), 0, 0};
        for (int c = 0; c < grid.columns; ++c) {
            const double quarter = 4.0 * (c + 0.5) / grid.columns;
            const double fromDatum = std::min({quarter, std::abs(quarter - 2), 4 - quarter});
            if (fromDatum > 0.5) continue;
            const Vec3 across = grid.at(r, c + 1).position - grid.at(r, c).position;
            const Vec3 along = grid.at(r + 1, c).position - grid.at(r, c).position;
            ring.area += across.cross(along).norm();
            ring.curvature += std::abs(grid.curvature_rad[static_cast<std::size_t>(r * grid.columns + c)]);
        }
        rings.push_back(ring);
    }
    std::vector<WrapWidth> widths;
    const double margin = 0.04 * skin.length_mm();
    for (const Ring& at : rings) {
        if (skin.loft().noseClosed() && at.x < skin.noseX() + margin) continue;
        if (skin.loft().tailClosed() && at.x > skin.tailX() - margin) continue;
        double curvature = 0, area = 0;
        for (const Ring& near : rings) {
            if (std::abs(near.x - at.x) > 0.5 * kAveragedAlong_mm) continue;
            curvature += near.curvature;
            area += near.area;
        }
        const double k = area > 0 ? curvature / area : 0;
        const double width = k > 0 ? std::sqrt(16 * strainLimit / k) : kWidestStrip_mm;
        widths.push_back({at.x, std::min(width, kWidestStrip_mm)});
    }
    return widths;
}

}  // namespace nine
