// Arc length along one cross section, and back.
//
// A half section is |y / w|^n + |z / h|^n = 1 (a superellipse quarter on either side). It is run through by
// the angle v of the point (y / w, z / h), which is smooth for every exponent; arc lengths are integrated by
// Gauss-Legendre panels graded towards the ends of the quarter, where exponents other than 2 are not smooth.
// Accuracy of lengths: 1e-9 of the quarter for exponents up to 4, 1e-7 up to 12. Cost: about 1 us to
// build where the exponent is one of the last few, else 20 us.
#pragma once

#include <vector>

#include "blank/loft.h"
#include "geom/vec.h"

namespace nine {

/// A quarter of a superellipse from (width, 0) to (0, height).
class QuarterArc {
  public:
    QuarterArc(double width, double height, double exponent);

    double length() const { return cumulative_.back(); }
    /// Point (y, z) at arc length `s` in 0..length(), from the side.
    Vec2 point(double s) const;
    /// Arc length at the point, or nearest to it in angle; y, z >= 0.
    double arcAt(const Vec2& point) const;

    /// Calls f(y, z, weight) at the nodes of the quadrature; the weights add up to length().
    template <typename F>
    void forEachNode(F f) const;

  private:
    static double angleOf(double t);
    double arcSpeed(double t) const;  ///< ds/dt
    Vec2 pointAtAngle(double v) const;
    double partial(std::size_t panel, double t) const;
    double panelStart(std::size_t panel) const;
    double firstGuess(std::size_t panel, double share) const;  ///< of t at a share of the panel's length

    double width_, height_, exponent_;
    std::vector<double> cumulative_;  ///< arc length up to each panel end
};

/// The whole section of the fish's left side and, mirrored, of its right.
class SectionArc {
  public:
    explicit SectionArc(const Section& section);

    double backArc() const { return upper_.length(); }   ///< from the datum line up to the back line
    double bellyArc() const { return lower_.length(); }  ///< from the datum line down to the belly line
    double girth() const { return 2 * (backArc() + bellyArc()); }

    /// (y, z) at `g`, seen from the left side: beyond the back or belly line y turns negative.
    /// g in -2 bellyArc .. 2 backArc.
    Vec2 point(double g) const { return pointOf(g >= 0 ? upper_ : lower_, g); }
    /// The same from the one quarter that g lies on (upper for g >= 0), for single points.
    static Vec2 pointOf(const QuarterArc& quarter, double g);
    /// g of a point of the section, positive above the datum line, in -bellyArc .. backArc. Points of the
    /// right half give the g of their mirror image; the caller knows the side.
    double arcAt(const Vec2& yz) const;

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
    const std::size_t panels = cumulative_.size() - 1;
    const double h = 1.0 / static_cast<double>(panels);
    for (std::size_t k = 0; k < panels; ++k) {
        for (const GaussNode& node : kGauss6) {
            const double t = panelStart(k) + h * node.position;
            const Vec2 p = pointAtAngle(angleOf(t));
            f(p.x(), p.y(), node.weight * h * arcSpeed(t));
        }
    }
}

}  // namespace nine
