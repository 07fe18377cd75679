// A flat sheet with windows laid on a surface and let go: a membrane in Hencky strain on triangles of its
// own, which end on the sheet's borders. Internal to the landing check.
//
// The spring lattice of geom/spring_lattice.h is cut off at borders by shares of its triangles, an error of
// first order: long strips beside windows, which bend easily in their own plane, come back 0.1 to 0.2 mm off
// on it (83 mm of strip 5 mm wide: .22 mm with 5000 nodes, .09 with 60000). Here the triangles follow the
// border and 4000 of them do. It shares with the flattener the energy of a triangle, and nothing of its mesh
// or map.
#pragma once

#include <memory>
#include <optional>

#include "geom/borders.h"
#include "geom/rewrap.h"

namespace nine {

/// Places of the flat sheet and where they came to rest.
struct Settled {
    std::vector<Vec2> flat;
    std::vector<Vec3> skin;
};

/// `sheet` says where each place of the flat sheet is to begin with; `borders` are its own, the outer one
/// the largest. Nothing when the borders are no plain sheet (rings that cross, lips of a slit that lie on
/// each other), or it does not settle. Errors: cancelled. Cost: 0.1-0.4 s.
Result<std::optional<Settled>> settledMembrane(const Surface& surface, const ScatteredMap& sheet,
                                               const Borders& borders, const std::vector<HeldMark>& marks,
                                               const Task& task);

}  // namespace nine
