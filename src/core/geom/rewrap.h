// The landing check: lays a flat sheet back on the body, knowing nothing of how the sheet was made.
//
// The sheet is a lattice of equilateral triangles of equal springs cut from the flat outline (such a lattice
// is an isotropic sheet of Poisson ratio 1/3); its nodes lie on the surface, and it is held at registration
// marks. Loose: it slides to least energy (Gauss-Newton); with windows or slits it is a membrane whose
// triangles end on them instead (geom/membrane.h), because a lattice's edges are too rough for slender
// strips. Sticking: it is smoothed outward from a line, row by row, and what has been laid stays.
//
//     Result<LaidSheet> laid = LaidSheet::lay(skin, patch.pairedWith(map), {{flatA, skinA}, {flatB, skinB}},
//                                             Laying::Loose);
//     double off = (laid->at(flat) - drawn.position).norm();
//
// Accuracy, the exact map of a cylinder of 9 mm, 30 x 16 mm, held at two marks (bench/accuracy.cpp):
//     spacing of the pairs, mm   0.5      0.8      1.2      2.0
//     error, mm                 2.2e-4   1.7e-4   1.3e-4   2.2e-4
//
// It shares with the flattener only the surface and arcLength. A correct map comes back to within 0.005-0.02
// mm (the floor of this check); a wrong map comes back as wrong as it is. Errors: bad_map (too few points, or
// no sheet between them), cancelled. Cost: 0.1-0.3 s for 1200 nodes.
#pragma once

#include <optional>
#include <vector>

#include "base/result.h"
#include "base/task.h"
#include "geom/carry.h"

namespace nine {

struct HeldMark {
    SheetPlace flat;
    Vec3 skin;
};

enum class Laying {
    Loose,        ///< held at the marks, free elsewhere
    FromMidline,  ///< smoothed outward from the line between the marks
    FromTopEdge,  ///< smoothed down from the edge with the largest v
};

class LaidSheet {
  public:
    /// Lattice: never the membrane, to check one by the other.
    enum class LaidAs { Best, Lattice };
    /// `borders` are those of the flat sheet as it is cut, for one with slits or holes: nothing pulls
    /// straight across them.
    static Result<LaidSheet> lay(const Surface& surface, const FlatPairs& pairs,
                                 const std::vector<HeldMark>& marks, Laying laying, const Task& task = {},
                                 std::shared_ptr<const Borders> borders = {}, LaidAs how = LaidAs::Best);

    /// Where a place of the sheet lies on the surface now.
    Vec3 at(const SheetPlace& flat) const { return surface_->project(laid_->at(flat)).position; }

  private:
    const Surface* surface_ = nullptr;
    std::optional<ScatteredMap> laid_;
};

}  // namespace nine
