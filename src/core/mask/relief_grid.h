// The strip as rows across the body and columns along it, to try slits on: a slit runs along a row or a
// column, so that trying another one changes no triangle. Internal to mask/.
#pragma once

#include <array>
#include <optional>

#include "geom/flatten.h"
#include "mask/strip.h"

namespace nine {

/// A slit in the grid: from an edge along one row to a column, or from an end along one column to a row.
struct GridSlit {
    bool across;        ///< along a row; else along a column
    bool fromLow;       ///< from the low edge, or from the nose end
    Figure line;        ///< row or column, fractional: the nearest one is moved there
    int tip;            ///< column, or row, where it ends
    bool kept = false;  ///< the painter's own

    bool operator==(const GridSlit&) const = default;
};

/// The strip with slits cut into it.
struct CutGrid {
    SheetMesh mesh;
    std::vector<int> source;                  ///< the vertex of the uncut grid that each came from
    std::vector<std::pair<int, int>> mouths;  ///< both lips of each slit at the edge
};

class ReliefGrid {
  public:
    /// Rows and columns about `step_mm` apart where the strip is longest and widest.
    ReliefGrid(const Skin& skin, const Strip& strip, double step_mm);

    int rows() const { return static_cast<int>(x_mm_.size()); }
    int columns() const { return columns_; }
    int coreColumn() const { return core_; }
    int at(int row, int column) const { return row * columns_ + column; }
    double rowStep_mm() const { return length_mm_ / (rows() - 1); }
    double x_mm(Figure row) const;
    Figure rowAt(double x_mm) const;
    /// Along a row between two columns.
    double across_mm(int row, int from, int to) const;
    const std::vector<Vec2>& skin() const { return skin_; }  ///< x, g of each vertex
    const SheetMesh& mesh() const { return mesh_; }

    /// Integrated Gaussian curvature at each vertex inside, rad; 0 on the border (angle defect).
    std::vector<double> curvature_rad() const;

    CutGrid cut(const std::vector<GridSlit>& slits) const;
    /// On the skin, mouth first.
    Slit onSkin(const GridSlit& slit) const;

  private:
    SurfacePoint vertexAt(Figure row, Figure column, Vec2* place) const;
    int nearestRow(Figure row) const;
    int nearestColumn(Figure column) const;

    const Skin* skinOfBody_;
    Strip strip_;
    int columns_ = 0, core_ = 0;
    double length_mm_ = 0;
    std::vector<double> sampleX_mm_, sampleS_mm_;  ///< length along the strip's longest line
    std::vector<double> x_mm_;                     ///< of each row
    std::vector<Vec2> skin_;
    SheetMesh mesh_;
};

}  // namespace nine
