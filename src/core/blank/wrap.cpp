#include "blank/wrap.h"

#include <algorithm>
#include <cmath>

namespace nine {

std::vector<WrapWidth> wrapWidths(const Skin& skin, const SkinGrid& grid, double strainLimit) {
    std::vector<WrapWidth> widths;
    const double margin = 0.04 * skin.length_mm();
    for (int r = 0; r + 1 < grid.rows; ++r) {
        const double x = 0.5 * (grid.x_mm[static_cast<std::size_t>(r)] + grid.x_mm[static_cast<std::size_t>(r) + 1]);
        if (skin.loft().noseClosed() && x < skin.noseX() + margin) continue;
        if (skin.loft().tailClosed() && x > skin.tailX() - margin) continue;
        double curvature = 0, area = 0;
        for (int c = 0; c < grid.columns; ++c) {
            const double quarter = 4.0 * (c + 0.5) / grid.columns;
            const double fromDatum = std::min({quarter, std::abs(quarter - 2), 4 - quarter});
            if (fromDatum > 0.5) continue;
            const Vec3 across = grid.at(r, c + 1).position - grid.at(r, c).position;
            const Vec3 along = grid.at(r + 1, c).position - grid.at(r, c).position;
            area += across.cross(along).norm();
            curvature += std::abs(grid.curvature_rad[static_cast<std::size_t>(r * grid.columns + c)]);
        }
        const double k = area > 0 ? curvature / area : 0;
        const double width = k > 0 ? std::sqrt(16 * strainLimit / k) : kWidestStrip_mm;
        widths.push_back({x, std::min(width, kWidestStrip_mm)});
    }
    return widths;
}

}  // namespace nine
