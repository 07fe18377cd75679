#include "cut/free_space.h"

#include <algorithm>
#include <cmath>

namespace nine {

FreeSpace::FreeSpace(const PolygonSet& allowed) : box_{Vec2::Zero(), Vec2::Zero()} {
    if (allowed.empty()) return;
    box_ = boxAround(allowed);
    columns_ = static_cast<int>(box_.size().x() / kCell_mm) + 1;
    rows_ = static_cast<int>(box_.size().y() / kCell_mm) + 1;
    const std::size_t stride = static_cast<std::size_t>(columns_) + 1;
    sums_.assign(stride * (static_cast<std::size_t>(rows_) + 1), 0);
    for (int r = 0; r < rows_; ++r) {
        const double y = box_.low.y() + (r + 0.5) * kCell_mm;
        std::vector<double> crossings;
        for (const Polygon2& polygon : allowed) {
            for (std::size_t i = 0; i < polygon.size(); ++i) {
                const Vec2 &a = polygon[i], &b = polygon[(i + 1) % polygon.size()];
                if ((a.y() > y) == (b.y() > y)) continue;
                crossings.push_back(a.x() + (y - a.y()) / (b.y() - a.y()) * (b.x() - a.x()));
            }
        }
        std::sort(crossings.begin(), crossings.end());
        int inRow = 0;
        for (int c = 0; c < columns_; ++c) {
            const double x = box_.low.x() + (c + 0.5) * kCell_mm;
            const auto passed = std::upper_bound(crossings.begin(), crossings.end(), x) - crossings.begin();
            inRow += passed % 2;
            const std::size_t at =
                (static_cast<std::size_t>(r) + 1) * stride + static_cast<std::size_t>(c) + 1;
            sums_[at] = sums_[at - stride] + inRow;
        }
    }
}

int FreeSpace::freeCells(int column, int row, int width, int height) const {
    const auto sum = [&](int c, int r) {
        return sums_[static_cast<std::size_t>(r) * (static_cast<std::size_t>(columns_) + 1) +
                     static_cast<std::size_t>(c)];
    };
    return sum(column + width, row + height) - sum(column, row + height) - sum(column + width, row) +
           sum(column, row);
}

std::optional<Vec2> FreeSpace::place(const Vec2& size, const Vec2& wish) const {
    const int width = static_cast<int>(std::ceil(size.x() / kCell_mm)) + 1;
    const int height = static_cast<int>(std::ceil(size.y() / kCell_mm)) + 1;
    std::optional<Vec2> best;
    double bestMiss = 0;
    for (int r = 0; r + height <= rows_; ++r) {
        for (int c = 0; c + width <= columns_; ++c) {
            if (freeCells(c, r, width, height) != width * height) continue;
            const Vec2 corner = box_.low + kCell_mm * Vec2(c + 0.5, r + 0.5);
            const double miss = (corner + 0.5 * size - wish).squaredNorm();
            if (best && miss >= bestMiss) continue;
            best = corner;
            bestMiss = miss;
        }
    }
    return best;
}

}  // namespace nine
