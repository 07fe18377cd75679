// A part of the skin as a grid of cells, for fields: labyrinths, mottling and what is random but even.
//
// Rows are sections, evenly apart along the longest meridian; columns are even shares of the half girth, from
// one share to another (0 the back line, 1 the belly line of the left side, below 0 the right side beyond the
// back). Cells are nearly square, about `cell_mm`, and know their lengths on the skin, so nothing is bent by
// the page. A field is a number a cell; where it is above zero there will be paint.
//
// Diffusion is implicit and split by direction (Peaceman, Rachford: The numerical solution of parabolic and
// elliptic differential equations, J. SIAM 3, 1955; here backward Euler, first order, a few small steps, so
// that what comes out is round); distances by fast sweeping (Zhao: A fast sweeping method for Eikonal
// equations, Math. Comp. 74, 2005), good to about a tenth of a cell near the border. All loops run in one
// order: the same field on any number of threads. Cost: about 1 us a cell to make, 0.05 us a cell and
// diffusion step.
#pragma once

#include "base/task.h"
#include "blank/skin.h"
#include "pattern/outline.h"

namespace nine {

using Field = std::vector<float>;

class Chart {
  public:
    struct Wish {
        double from_x_mm, to_x_mm;
        Fraction fromShare, toShare;  ///< of the half girth, ascending
        double cell_mm;
    };
    /// Kept off the tips by a share of the length; at least 8 by 8 cells, at most 1200 each way.
    Chart(const Skin& skin, const Wish& wish);

    int rows() const { return rows_; }
    int columns() const { return columns_; }
    std::size_t size() const { return points_.size(); }
    std::size_t index(int row, int column) const {
        return static_cast<std::size_t>(row) * static_cast<std::size_t>(columns_) +
               static_cast<std::size_t>(column);
    }
    double x_mm(int row) const { return x_[static_cast<std::size_t>(row)]; }
    Fraction share(int column) const;
    Vec2 place(int row, int column) const { return placeAt(row, column); }  ///< x, g
    /// Between cells.
    Vec2 placeAt(double row_mm, double column_mm) const;
    const Vec3& point(std::size_t cell) const { return points_[cell]; }
    Figure area_mm2(std::size_t cell) const { return static_cast<double>(along_[cell]) * across_[cell]; }

    /// Spread as heat does: afterwards a point is a bump of so many mm (standard deviation).
    void diffuse(Field& field, double sigma_mm, int steps = 3) const;
    /// The same, but wider along the body by a factor.
    void diffuse(Field& field, double sigma_mm, Ratio alongPull, int steps) const;

    /// Distance to the border between above and below zero, mm, with the field's sign.
    Field distances(const Field& field) const;

    /// Bays and necks narrower than 2 `close_mm` filled, then what is narrower than 2 `open_mm` taken away.
    Field cleaned(const Field& field, double close_mm, double open_mm) const;

    /// Without islands, above or below zero, of less than an area; they take the sign of what is round them.
    Field withoutSmall(Field field, Figure least_mm2) const;

    /// Where the field is above zero, in x, g; open at the edges of the grid, where it is closed along them.
    PolygonSet rings(const Field& field) const;

  private:
    void diffuseAlong(Field& field, double sigma2_mm2) const;
    void diffuseAcross(Field& field, double sigma2_mm2) const;

    int rows_ = 0, columns_ = 0;
    Fraction fromShare_ = 0, toShare_ = 1;
    std::vector<double> x_, back_, half_;  ///< of rows: x, arc to the back, half girth
    std::vector<Vec3> points_;
    std::vector<float> along_, across_;  ///< size of each cell, mm
};

}  // namespace nine
