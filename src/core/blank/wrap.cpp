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

WrapMap wrapMap(const Skin& skin, const SkinGrid& grid, double strainLimit, double along_mm,
                double across_mm) {
    WrapMap map;
    map.rows = grid.rows - 1;
    map.columns = grid.columns;
    const auto cells = static_cast<std::size_t>(map.rows * map.columns);
    std::vector<double> area(cells), along(static_cast<std::size_t>(map.rows)), step(along.size());
    double way = 0;
    for (int r = 0; r < map.rows; ++r) {
        double girth = 0, longest = 0;
        for (int c = 0; c < map.columns; ++c) {
            const Vec3 across = grid.at(r, c + 1).position - grid.at(r, c).position;
            const Vec3 down = grid.at(r + 1, c).position - grid.at(r, c).position;
            const Vec3 other = grid.at(r + 1, c + 1).position - grid.at(r, c + 1).position;
            const Vec3 far = grid.at(r + 1, c + 1).position - grid.at(r + 1, c).position;
            area[map.index(r, c)] = 0.5 * (across.cross(down).norm() + far.cross(other).norm());
            girth += 0.5 * (across.norm() + far.norm());
            longest = std::max(longest, down.norm());
        }
        along[static_cast<std::size_t>(r)] = way + 0.5 * longest;
        way += longest;
        step[static_cast<std::size_t>(r)] = girth / map.columns;
    }
    const auto meanUnder = [&](int row, int column, double length, double width) {
        double curvature = 0, all = 0;
        for (int r = 0; r < map.rows; ++r) {
            const auto k = static_cast<std::size_t>(r);
            if (std::abs(along[k] - along[static_cast<std::size_t>(row)]) > 0.5 * length && r != row)
                continue;
            const int reach =
                std::min(map.columns / 2, static_cast<int>(0.5 * width / std::max(1e-6, step[k])));
            for (int d = -reach; d <= reach; ++d) {
                const std::size_t i = map.index(r, column + d + map.columns);
                curvature += std::abs(grid.curvature_rad[i]);
                all += area[i];
            }
        }
        return all > 0 ? curvature / all : 0.0;
    };
    const double margin = 0.04 * skin.length_mm(), narrow = std::min(along_mm, across_mm);
    map.widest_mm.assign(cells, 0);
    constexpr double kNever = 9;  // at the tips
    map.need.assign(cells, kNever);
    double whole = 0, flat = 0;
    for (int r = 0; r < map.rows; ++r) {
        const auto k = static_cast<std::size_t>(r);
        const double x = 0.5 * (grid.x_mm[k] + grid.x_mm[k + 1]);
        const bool tip = (skin.loft().noseClosed() && x < skin.noseX() + margin) ||
                         (skin.loft().tailClosed() && x > skin.tailX() - margin);
        for (int c = 0; c < map.columns; ++c) {
            const std::size_t i = map.index(r, c);
            whole += area[i];
            if (tip) continue;
            const double near = meanUnder(r, c, kAveragedAlong_mm, kAveragedAlong_mm);
            map.widest_mm[i] =
                near > 0 ? std::min(kWidestStrip_mm, std::sqrt(16 * strainLimit / near)) : kWidestStrip_mm;
            map.need[i] = meanUnder(r, c, along_mm, across_mm) * narrow * narrow / 16 / strainLimit;
            if (map.need[i] <= 1) flat += area[i];
        }
    }
    map.share = whole > 0 ? flat / whole : 0;
    return map;
}

}  // namespace nine
