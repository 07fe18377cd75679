// Arc length along one cross section, and back.
//
// A half section is |y / w|^n + |z / h|^n = 1 (a superellipse quarter on either side). It is run through by
// the angle v of the point (y / w, z / h), which is smooth for every exponent; arc lengths are integrated by
// Gauss-Legendre panels graded towards the ends of the quarter, where exponents other than 2 are not smooth.
// Accuracy of lengths: 1e-9 of the quarter for exponents up to 4, 1e-7 up to 12. Cost: about 1 us to
// build where the exponent is one of the last few, else 20 us.
#pragma once

#include <vector>

#include "base/units.h"
#include "blank/loft.h"
#include "geom/vec.h"

namespace nine {

/// A quarter of a superellipse from (width, 0) to (0, height).
class QuarterArc {
  public:
    QuarterArc(double width_mm, double height_mm, Ratio exponent);

    double length_mm() const { return cumulative_mm_.back(); }
    /// Point (y, z) at arc length `s` in 0..length(), from the side.
    Vec2 point(double s_mm) const;
    /// Arc length at the point, or nearest to it in angle; y, z >= 0.
    double gAt_mm(const Vec2& point) const;

    /// Calls f(y, z, weight) at the nodes of the quadrature; the weights add up to length().
    template <typename F>
    void forEachNode(F f) const;

  private:
    static double angleOf_rad(Ratio t);
    double arcSpeed_mm(Ratio t) const;  ///< ds/dt
    Vec2 pointAtAngle(double v_rad) const;
    double partial_mm(std::size_t panel, Ratio t) const;
    Ratio panelStart(std::size_t panel) const;
    Ratio firstGuess(std::size_t panel, Fraction share) const;  ///< of t at a share of the panel's length

    double width_mm_, height_mm_;
    Ratio exponent_;
    std::vector<double> cumulative_mm_;  ///< arc length up to each panel end
};

/// The whole section of the fish's left side and, mirrored, of its right.
class SectionArc {
  public:
    explicit SectionArc(const Section& section);

    double backArc_mm() const { return upper_.length_mm(); }   ///< from the datum line up to the back line
    double bellyArc_mm() const { return lower_.length_mm(); }  ///< from the datum line down to the belly line
    double girth_mm() const { return 2 * (backArc_mm() + bellyArc_mm()); }

    /// (y, z) at `g`, seen from the left side: beyond the back or belly line y turns negative.
    /// g from the back line the long way down to the back line again: -2 bellyArc - backArc .. 2 backArc +
    /// bellyArc.
    Vec2 point(double g_mm) const;
    /// The same from the one quarter that g lies on (upper for g >= 0), for single points up to the far datum
    /// line.
    static Vec2 pointOf(const QuarterArc& quarter, double g_mm);
    /// g of a point of the section, positive above the datum line, in -bellyArc .. backArc. Points of the
    /// right half give the g of their mirror image; the caller knows the side.
    double gAt_mm(const Vec2& yz) const;

    const QuarterArc& upper() const { return upper_; }
    const QuarterArc& lower() const { return lower_; }

  private:
    QuarterArc upper_, lower_;
};

}  // namespace nine

#include "geom/quadrature.h"

namespace nine {

template <typename F>
void QuarterArc::forEachNode(F f) const {
    const std::size_t panels = cumulative_mm_.size() - 1;
    const Ratio h = 1.0 / static_cast<double>(panels);
    for (std::size_t k = 0; k < panels; ++k) {
        for (const GaussNode& node : kGauss6) {
            const Ratio t = panelStart(k) + h * node.position;
            const Vec2 p = pointAtAngle(angleOf_rad(t));
            f(p.x(), p.y(), node.weight * h * arcSpeed_mm(t));
        }
    }
}

}  // namespace nine
