// How hard a body is to wrap: the strain a piece of sheet needs at each place, and the widest strip that
// lies.
//
// A piece of w by l mm, w its shorter side, needs a strain of about K w^2 / (16 + 23 (w/l)^1.5): rule tried
// beforehand against solved sheets (docs/MODEL.md). K is not the plain mean of the Gaussian curvature under
// it. Across the piece curvature counts by how far it is from the edge: a fibre d beside the middle differs
// in length by the double integral of K (geodesic deviation, Jacobi 1836), so what lies at the edge bends
// nothing. Along the piece it does not average out over more than about two widths: the worst such stretch
// counts. Against the least strain that any way of laying reaches, three bodies at five places each agree
// within 30 % (WrapLaw.AgreesWithTheLeastStrain); a plain mean is off by up to a factor of two.
#pragma once

#include "base/units.h"
#include "blank/skin_grid.h"

namespace nine {

/// The skin cut into cells, each with its place and curvature; 2 ms for 100 x 48.
class WrapField {
  public:
    WrapField(const Skin& skin, const SkinGrid& grid);

    int rows() const { return rows_; }  ///< of cells
    int columns() const { return columns_; }
    /// Along the axis, of the middle of a row.
    double x_mm(int row) const { return x_[static_cast<std::size_t>(row)]; }
    double girth_mm(int row) const { return girth_[static_cast<std::size_t>(row)]; }
    double area_mm2(int row, int column) const { return area_[index(row, column)]; }
    /// The 4 % of the length next to a closed end, where nothing lies.
    bool tip(int row) const { return row < first_ || row > last_; }
    std::size_t index(int row, int column) const {
        return static_cast<std::size_t>(row * columns_ + column % columns_);
    }

    /// Strain that a piece of `along` by `across` mm with its middle in the cell needs, for every cell;
    /// infinite in the tips. Where the body ends sooner the piece is moved or cut to fit between the tips;
    /// one wider than the girth reaches once round. About 4 ms for all.
    std::vector<double> strains(double along_mm, double across_mm) const;
    /// The same for some columns only; the others stay infinite.
    std::vector<double> strains(double along_mm, double across_mm, int firstColumn, int endColumn) const;

  private:
    std::vector<double> weighedAcross(double across_mm, int firstColumn, int endColumn,
                                      std::vector<double>& areas) const;

    int rows_, columns_, first_ = 0, last_ = 0;
    std::vector<double> x_, girth_;
    std::vector<double> area_, curvature_;  ///< of each cell: mm^2, rad (absolute)
    std::vector<double> way_;               ///< along the meridian of the column to each cell's front edge
    std::vector<double> wide_, round_;      ///< of each cell: width, and girth up to its middle
};

constexpr double kStripLength_mm = 20;

struct WrapWidth {
    double x_mm;
    double width_mm;  ///< at most half the girth there: a strip for one side of the body
    bool whole;       ///< half the girth lies
};

/// The widest strip of kStripLength_mm along the lateral line that lies flat when the sheet takes
/// `strainLimit`, at each row between the tips.
std::vector<WrapWidth> wrapWidths(const WrapField& field, Fraction strainLimit);

/// Where a sheet of `along` by `across` mm lies flat without a cut.
struct WrapMap {
    int rows = 0, columns = 0;  ///< of cells
    std::vector<double> need;   ///< strain it needs over what its material takes; 1 and more: no
    Fraction share = 0;         ///< of the skin where it lies
    std::size_t index(int row, int column) const {
        return static_cast<std::size_t>(row * columns + column % columns);
    }
};
WrapMap wrapMap(const WrapField& field, Fraction strainLimit, double along_mm, double across_mm);

}  // namespace nine
