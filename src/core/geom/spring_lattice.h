// A flat sheet as a lattice of equilateral triangles of equal springs, which is an isotropic sheet of Poisson
// ratio 1/3 (Ostoja-Starzewski 2002, Lattice models in micromechanics). Internal to the landing check.
//
// Triangles at the edge carry the share of them that is sheet; their corners beyond the edge are nodes too,
// so that no strip of sheet is lost. Beside a slit such a corner stands where the other lip's sheet is: it is
// a ghost, one for each side that sees it, and the two sides share no node.
#pragma once

#include <array>
#include <vector>

#include "geom/places.h"
#include "geom/scattered.h"
#include "geom/surface.h"

namespace nine {

struct Spring {
    int a, b;
    double rest_mm;
    Ratio weight;
};

/// A mark holds a place of one triangle.
struct Hold {
    std::array<int, 3> nodes;
    std::array<Fraction, 3> share;
    Vec3 target;
};

struct SpringLattice {
    double spacing_mm = 1;
    std::vector<Vec2> flat;
    std::vector<SurfacePoint> place;
    std::vector<char> ghost;  ///< of each node: stands beyond the sheet it belongs to
    std::vector<std::array<int, 3>> triangles;
    std::vector<Spring> springs;
    std::vector<Hold> holds;
};

/// About 1200 nodes, 5000 with borders, each on the surface where `sheet` says. With borders, those of the
/// sheet.
SpringLattice cutLattice(const Surface& surface, const ScatteredMap& sheet, double area_mm2,
                         const Borders* borders);

/// The lattice triangle a mark lies in, or the nearest one, with the mark's shares of its corners; never one
/// of the other lip.
Hold holdAt(const SpringLattice& lattice, const SheetPlace& mark, const Vec3& skin, const Borders* borders);

}  // namespace nine
