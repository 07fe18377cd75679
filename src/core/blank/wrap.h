// How hard a body is to wrap: the widest strip of a sheet that lies flat, along the body.
#pragma once

#include "blank/skin_grid.h"

namespace nine {

struct WrapWidth {
    double x_mm;
    double width_mm;  ///< at most kWidestStrip_mm
};
constexpr double kWidestStrip_mm = 100;
constexpr double kAveragedAlong_mm = 4;  ///< a strip does not feel the joints between stations

/// For a sheet that takes `strainLimit`. A strip of width w on a surface of Gaussian curvature K needs a
/// strain of about K w^2 / 16 (rule of thumb, tried beforehand: docs/MODEL.md); K is the mean over
/// the flank, the half of the girth nearest the datum lines, and over kAveragedAlong_mm along the body. The 4
/// % of the length next to a closed end are left out: nothing lies there.
std::vector<WrapWidth> wrapWidths(const Skin& skin, const SkinGrid& grid, double strainLimit);

/// Where a sheet lies flat without a cut: for each cell of the grid the widest sheet that would, mm, and
/// whether one of the size asked for does with its middle there.
struct WrapMap {
    int rows = 0, columns = 0;      ///< of cells: grid.rows - 1 and grid.columns
    std::vector<double> widest_mm;  ///< at most kWidestStrip_mm; 0 at the poles, where nothing lies
    std::vector<double>
        need;          ///< strain the sheet asked for needs, over what its material takes; 1 and more: no
    double share = 0;  ///< of the skin where it lies
    std::size_t index(int row, int column) const {
        return static_cast<std::size_t>(row * columns + column % columns);
    }
};

/// A sheet `along` by `across` mm needs a strain of about K w^2 / 16, w its smaller side and K the mean
/// Gaussian curvature under it (the rule above). About 10 ms for 100 x 48 cells.
WrapMap wrapMap(const Skin& skin, const SkinGrid& grid, double strainLimit, double along_mm,
                double across_mm);

}  // namespace nine
