#include "geom/solid_share.h"

#include <algorithm>
#include <cmath>

namespace nine {
namespace {

constexpr double kOpenings = 2;  // wide is the square
constexpr double kPixels = 24;   // across it
constexpr Ratio kExponent = 2.5;
constexpr Ratio kSoftest = 0.02;

/// Adds one to every pixel whose middle lies inside; pixels from row to row, by the crossings of their
/// middles.
void fill(const Polygon2& ring, const Vec2& low, double pixel_mm, std::size_t columns, std::size_t rows,
          std::vector<int>& pixels) {
    const Box2 box = boxAround({ring});
    const auto rowOf = [&](double y) { return std::ceil((y - low.y()) / pixel_mm - 0.5); };
    const auto first = static_cast<std::size_t>(std::max(0.0, rowOf(box.low.y())));
    const auto end =
        static_cast<std::size_t>(std::clamp(rowOf(box.high.y()), 0.0, static_cast<double>(rows)));
    std::vector<double> crossings;
    for (std::size_t row = first; row < end; ++row) {
        const double y = low.y() + (static_cast<double>(row) + 0.5) * pixel_mm;
        crossings.clear();
        for (std::size_t i = 0; i < ring.size(); ++i) {
            const Vec2 &a = ring[i], &b = ring[(i + 1) % ring.size()];
            if ((a.y() <= y) != (b.y() <= y))
                crossings.push_back(a.x() + (y - a.y()) / (b.y() - a.y()) * (b.x() - a.x()));
        }
        std::sort(crossings.begin(), crossings.end());
        const auto columnOf = [&](double x) {
            const double column = std::ceil((x - low.x()) / pixel_mm - 0.5);
            return static_cast<std::size_t>(std::clamp(column, 0.0, static_cast<double>(columns)));
        };
        for (std::size_t k = 0; k + 1 < crossings.size(); k += 2)
            for (std::size_t c = columnOf(crossings[k]); c < columnOf(crossings[k + 1]); ++c)
                pixels[row * columns + c] = 1;
    }
}

/// Sums of all pixels below and left of each corner.
std::vector<int> summed(const std::vector<int>& pixels, std::size_t columns, std::size_t rows) {
    std::vector<int> sums((columns + 1) * (rows + 1), 0);
    for (std::size_t r = 0; r < rows; ++r)
        for (std::size_t c = 0; c < columns; ++c)
            sums[(r + 1) * (columns + 1) + c + 1] =
                pixels[r * columns + c] + sums[r * (columns + 1) + c + 1] +
                sums[(r + 1) * (columns + 1) + c] - sums[r * (columns + 1) + c];
    return sums;
}

}  // namespace

SolidShare::SolidShare(const Polygon2& outer, const PolygonSet& openings) {
    const Box2 box = boxAround({outer});
    low_ = box.low;
    PolygonSet middles(1);
    for (const Polygon2& opening : openings) {
        const Box2 own = boxAround({opening});
        middles[0].push_back(0.5 * (own.low + own.high));
    }
    double each_mm = 0;
    if (middles[0].size() > 1) {
        // n openings p apart fill (w + p) (h + p).
        const Vec2 size = boxAround(middles).size();
        const double n = static_cast<double>(middles[0].size()) - 1, sum = size.sum();
        each_mm = (sum + std::sqrt(sum * sum + 4 * n * size.x() * size.y())) / (2 * n);
    }
    half_mm_ = std::max(0.5 * kOpenings * each_mm, 0.1);
    pixel_mm_ = 2 * half_mm_ / kPixels;
    columns_ = static_cast<std::size_t>(std::ceil(box.size().x() / pixel_mm_)) + 1;
    rows_ = static_cast<std::size_t>(std::ceil(box.size().y() / pixel_mm_)) + 1;
    std::vector<int> sheet(columns_ * rows_, 0), open(columns_ * rows_, 0);
    fill(outer, low_, pixel_mm_, columns_, rows_, sheet);
    for (const Polygon2& opening : openings) fill(opening, low_, pixel_mm_, columns_, rows_, open);
    sheet_ = summed(sheet, columns_, rows_);
    open_ = summed(open, columns_, rows_);
}

Fraction SolidShare::at(const Vec2& place) const {
    const auto corner = [&](double offset, double from, double low, std::size_t most) {
        const double at = std::round((from + offset - low) / pixel_mm_);
        return static_cast<std::size_t>(std::clamp(at, 0.0, static_cast<double>(most)));
    };
    const std::size_t left = corner(-half_mm_, place.x(), low_.x(), columns_),
                      right = corner(half_mm_, place.x(), low_.x(), columns_),
                      lower = corner(-half_mm_, place.y(), low_.y(), rows_),
                      upper = corner(half_mm_, place.y(), low_.y(), rows_);
    const auto within = [&](const std::vector<int>& sums) {
        const std::size_t line = columns_ + 1;
        return sums[upper * line + right] - sums[upper * line + left] - sums[lower * line + right] +
               sums[lower * line + left];
    };
    const int sheet = within(sheet_);
    return sheet > 0 ? 1 - static_cast<double>(within(open_)) / sheet : 1;
}

Ratio SolidShare::stiffnessAt(const Vec2& place) const {
    return std::max(kSoftest, std::pow(at(place), kExponent));
}

}  // namespace nine
