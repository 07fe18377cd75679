#include "app/leaves/masks/stretch_map.h"

#include <cmath>

namespace nine::app {

std::vector<double> averagedStretch(const FlatPatch& flat) {
    const std::size_t vertices = flat.map.size();
    const auto& triangles = flat.rest.triangles;
    std::vector<double> value(triangles.size());
    for (std::size_t t = 0; t < triangles.size(); ++t) value[t] = flat.strains[t].worst();
    // Passing through the vertices and back averages over about one spacing each time; passes add up like a
    // walk.
    const double spacing = std::sqrt(flat.rest.area_mm2 / static_cast<double>(vertices));
    const int passes =
        std::max(1, static_cast<int>(std::lround(std::pow(0.5 * kAveragedOver_mm / spacing, 2) * 2)));
    for (int pass = 0; pass < passes; ++pass) {
        std::vector<double> sum(vertices, 0.0), weight(vertices, 0.0);
        for (std::size_t t = 0; t < triangles.size(); ++t) {
            for (const int v : triangles[t]) {
                sum[static_cast<std::size_t>(v)] += flat.rest.shapes[t].area_mm2 * value[t];
                weight[static_cast<std::size_t>(v)] += flat.rest.shapes[t].area_mm2;
            }
        }
        for (std::size_t t = 0; t < triangles.size(); ++t) {
            value[t] = 0;
            for (const int v : triangles[t])
                value[t] += sum[static_cast<std::size_t>(v)] / weight[static_cast<std::size_t>(v)] / 3;
        }
    }
    return value;
}

}  // namespace nine::app
