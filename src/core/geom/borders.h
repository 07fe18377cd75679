// The borders of a flat sheet as lines that separate: what lies straight across one is no neighbour.
//
// Cost: a walk over the border segments at the same height (v); all of them for distance_mm.
#pragma once

#include <optional>

#include "geom/solid_share.h"

namespace nine {

class Borders {
  public:
    /// Closed lines: the outline, holes, and slits walked along both lips. Filling is even-odd. `openings`
    /// are too many to be borders each: they only make the sheet softer.
    explicit Borders(const PolygonSet& rings, const PolygonSet& openings = {});

    /// Whether the straight line from `a` to `b` crosses a border. Ending on one is no crossing.
    bool between(const Vec2& a, const Vec2& b) const;
    bool inside(const Vec2& p) const;
    double distance_mm(const Vec2& p) const;
    const PolygonSet& rings() const { return rings_; }
    /// Of the sheet there against the plain one.
    Ratio stiffnessAt(const Vec2& p) const { return solid_ ? solid_->stiffnessAt(p) : 1; }

  private:
    struct Segment {
        Vec2 from, to, low, high;
    };
    std::size_t rowOf(double v_mm) const;

    PolygonSet rings_;
    std::optional<SolidShare> solid_;
    std::vector<Segment> segments_;
    double lowest_mm_ = 0, row_mm_ = 1;
    std::vector<std::vector<std::size_t>> rows_;  ///< numbers of the segments that reach into each
};

}  // namespace nine
