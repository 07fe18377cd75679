#include "geom/carry.h"

#include <algorithm>
#include <cmath>

namespace nine {
namespace {

constexpr std::size_t kNeighbours = 16;
constexpr double kSameSide = 0.2;  // least cosine between normals: about 78 degrees

}  // namespace

SheetCarrier::SheetCarrier(FlatPairs pairs) : pairs_(std::move(pairs)) {
    Vec3 low = pairs_.skin.front().position, high = low;
    for (const SurfacePoint& p : pairs_.skin) {
        low = low.cwiseMin(p.position);
        high = high.cwiseMax(p.position);
    }
    // Points lie on a surface about as large as the two longer sides of the box around them.
    Vec3 size = (high - low).cwiseMax(1e-6);
    std::sort(size.data(), size.data() + 3);
    cell_mm_ = 1.6 * std::sqrt(size[1] * size[2] / static_cast<double>(pairs_.skin.size()));
    for (std::size_t i = 0; i < pairs_.skin.size(); ++i) {
        const Eigen::Vector3i c = cellOf(pairs_.skin[i].position);
        cells_[keyOf(c.x(), c.y(), c.z())].push_back(i);
    }
}

Eigen::Vector3i SheetCarrier::cellOf(const Vec3& p) const {
    constexpr double far = 1 << 19;
    return (p / cell_mm_).array().floor().cwiseMax(-far).cwiseMin(far).cast<int>();
}

SheetCarrier::CellKey SheetCarrier::keyOf(int x, int y, int z) const {
    const auto part = [](int v) { return static_cast<CellKey>(v) & 0x1FFFFF; };
    return part(x) << 42 | part(y) << 21 | part(z);
}

std::vector<std::pair<double, std::size_t>> SheetCarrier::nearest(const SurfacePoint& target) const {
    const Eigen::Vector3i centre = cellOf(target.position);
    std::vector<std::pair<double, std::size_t>> near;
    const auto consider = [&](std::size_t i) {
        if (pairs_.skin[i].normal.dot(target.normal) < kSameSide) return;
        near.emplace_back((pairs_.skin[i].position - target.position).squaredNorm(), i);
    };
    for (const int reach : {1, 2, 4}) {
        near.clear();
        for (int x = -reach; x <= reach; ++x) {
            for (int y = -reach; y <= reach; ++y) {
                for (int z = -reach; z <= reach; ++z) {
                    const auto found = cells_.find(keyOf(centre.x() + x, centre.y() + y, centre.z() + z));
                    if (found != cells_.end())
                        std::for_each(found->second.begin(), found->second.end(), consider);
                }
            }
        }
        const double sure = reach * cell_mm_;  // every point nearer than this has been seen
        const auto inside =
            std::count_if(near.begin(), near.end(), [&](const auto& n) { return n.first <= sure * sure; });
        if (inside >= static_cast<long>(kNeighbours)) return near;
    }
    near.clear();
    for (std::size_t i = 0; i < pairs_.skin.size(); ++i) consider(i);
    return near;
}

SheetPlace SheetCarrier::at(const SurfacePoint& target) const {
    std::vector<std::pair<double, std::size_t>> near = nearest(target);
    const std::size_t count = std::min(kNeighbours, near.size());
    std::partial_sort(near.begin(), near.begin() + static_cast<long>(count), near.end());
    const auto basis = tangentBasis(target.normal);
    std::vector<Vec2> places;
    std::vector<Vec3> values;
    for (std::size_t k = 0; k < count; ++k) {
        const std::size_t i = near[k].second;
        places.push_back(basis.transpose() * (pairs_.skin[i].position - target.position));
        values.emplace_back(pairs_.flat[i].x(), pairs_.flat[i].y(), 0);
    }
    if (places.empty()) return {};
    return SheetPlace(fittedAtOrigin(places, values).head<2>());
}

}  // namespace nine
