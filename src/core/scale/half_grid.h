// A grid of points over one half of the skin, or a piece of it: rows are sections, columns equal shares of
// the half girth between the line where the net is whole (the back, usually) and the one where it is
// gathered.
//
// Half a net is enough: a net hangs the same on both sides of a blank that is the same on both sides.
#pragma once

#include <vector>

#include "blank/skin.h"
#include "geom/sheet_mesh.h"

namespace nine {

/// Which middle line the net's two borders come together on; it is whole over the other.
enum class Gather { Belly, Back };

/// The piece of skin a net lies on.
struct NetReach {
    double fromX_mm = 0, toX_mm = 0;  ///< from == to: the whole body
    Fraction downTo = 1;              ///< of the half girth, from the line where the net is whole
    bool whole() const { return !(toX_mm > fromX_mm); }
    bool operator==(const NetReach&) const = default;
};

struct HalfGrid {
    int rows = 0, columns = 0;
    std::vector<double> x_mm;      ///< of each row
    std::vector<double> shares;    ///< of each column: 0 where the net is whole, `downTo` at its border
    std::vector<double> along_mm;  ///< of each row: arc of the line where the net is whole
    std::vector<double> g_mm;      ///< of each point, row-major
    std::vector<SurfacePoint> points;
    std::vector<Triangle> triangles;

    int at(int row, int column) const { return row * columns + column; }
    std::size_t size() const { return points.size(); }
};

/// Ends of the body where a net gathers to nothing are left out: that share of the length.
constexpr Fraction kEndsLeftOut = 0.012;

/// x of the rows: equal in arc along the line where the net is whole.
std::vector<double> evenRows(const Skin& skin, Gather gather, const NetReach& reach, double spacing_mm);

HalfGrid makeHalfGrid(const Skin& skin, Gather gather, std::vector<double> x_mm, std::vector<double> shares);

/// g of a share of the half girth at x.
double girthAtShare_mm(const Skin& skin, Gather gather, double x_mm, Fraction share);

/// Values given at the points of one grid, read off at another of the same reach: linear between rows and
/// columns.
std::vector<Vec2> carried(const HalfGrid& from, const std::vector<Vec2>& values, const HalfGrid& to);

/// The two edges of a triangle laid flat by its surface arcs (first along x), mm; `chord`: by its straight
/// edges.
Eigen::Matrix2d laidEdges(const HalfGrid& grid, const Triangle& triangle, bool chord);

}  // namespace nine
