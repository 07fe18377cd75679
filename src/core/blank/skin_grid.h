// The skin as one structured grid, for drawing, colouring and whole-body sums.
//
// Rows are sections, spaced evenly along the longest meridian (so noses and tails are not starved); each row
// is resampled by arc length. Column 0 is the left datum line; columns run over the back to the right and
// back under the belly, `columns` of them in a closed ring (no seam). A pole is a row of equal points.
#pragma once

#include <vector>

#include "blank/skin.h"

namespace nine {

struct SkinGrid {
    int rows = 0;
    int columns = 0;
    std::vector<double> x_mm;           ///< of each row
    std::vector<SurfacePoint> points;   ///< row-major, rows * columns
    std::vector<double> curvature_rad;  ///< integrated Gaussian curvature of each cell, (rows-1) * columns

    const SurfacePoint& at(int row, int column) const {
        return points[static_cast<std::size_t>(row * columns + column % columns)];
    }
};

/// `columns` a multiple of 4. Cost: about 1 us a point and 20 us a row.
SkinGrid makeSkinGrid(const Skin& skin, int rows, int columns);

}  // namespace nine
