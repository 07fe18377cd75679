#include "pattern/scatter.h"

#include <cmath>
#include <optional>
#include <unordered_map>

#include "base/rng.h"

namespace nine {

std::vector<Dart> scattered(const Chart& chart, const DartSize& size, std::uint64_t seed) {
    Rng rng(seed);
    double reach = 0.1;
    std::vector<std::optional<Vec2>> sizes(chart.size());
    for (int r = 0; r < chart.rows(); ++r)
        for (int c = 0; c < chart.columns(); ++c) {
            sizes[chart.index(r, c)] = size(r, c);
            if (const auto& s = sizes[chart.index(r, c)]) reach = std::max(reach, 2 * s->x() + s->y());
        }
    // Darts by cubes as wide as the farthest they can matter to each other.
    const auto cube = [&](const Vec3& p, int dx, int dy, int dz) {
        const auto at = [&](double v, int d) {
            return static_cast<std::uint64_t>(static_cast<std::int64_t>(std::floor(v / reach)) + d + 100000);
        };
        return at(p.x(), dx) << 42 | at(p.y(), dy) << 21 | at(p.z(), dz);
    };
    std::unordered_map<std::uint64_t, std::vector<std::size_t>> near;
    std::vector<Dart> darts;
    for (const std::size_t cell : rng.shuffled(chart.size())) {
        if (!sizes[cell]) continue;
        const Vec3& p = chart.point(cell);
        const Dart dart{
            chart.place(static_cast<int>(cell) / chart.columns(), static_cast<int>(cell) % chart.columns()),
            p, sizes[cell]->x(), sizes[cell]->y()};
        bool room = true;
        for (int k = 0; k < 27 && room; ++k) {
            const auto found = near.find(cube(p, k % 3 - 1, k / 3 % 3 - 1, k / 9 - 1));
            if (found == near.end()) continue;
            for (const std::size_t other : found->second) {
                const Dart& o = darts[other];
                const double least = dart.radius_mm + o.radius_mm + std::max(dart.gap_mm, o.gap_mm);
                room = room && (p - o.point).squaredNorm() >= least * least;
            }
        }
        if (!room) continue;
        near[cube(p, 0, 0, 0)].push_back(darts.size());
        darts.push_back(dart);
    }
    return darts;
}

}  // namespace nine
