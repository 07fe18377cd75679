// The one interpolation between stations.
//
// top^2, bottom^2 and half_width^2 are piecewise cubic in x: cubic Hermite with three-point parabolic slopes
// (one-sided at the ends). So spheroids, cylinders, cones and round or pointed ends come out exactly.
//  - A segment either of whose ends is the middle of a collinear triple of readings is straight; two straight
//    runs meet in a crease. With two stations only, the body is straight.
//  - A segment that leaves [1/4 of the smaller, 3/2 of the larger] of its end squares gets Fritsch-Carlson
//    slopes at both ends; if it still reaches 0 it is refused, with the station.
//
//     Result<Loft> loft = Loft::through(table.stations);
//
// Accuracy between readings of r = 12 sin(pi t)^0.7 (1 - 0.3 t), 60 mm long, which no cubic is
// (bench/accuracy.cpp); stations closer to each other towards the ends:
//     stations                       6      8      11     15     21     31
//     error, mm                     .53    .29    .13    .04    .016   .004
//     but for 3 mm at both ends     .33    .08    .03    .01    .004   .001
//
// Section exponents are linear in x. Sources: de Boor, A Practical Guide to Splines, IV (Hermite, Bessel
// slopes); Fritsch and Carlson 1980, Monotone Piecewise Cubic Interpolation.
#pragma once

#include <vector>

#include "base/result.h"
#include "base/units.h"
#include "blank/station_table.h"

namespace nine {

/// One half-size squared, a piecewise cubic of x.
class SquaredRadius {
  public:
    /// `radii` at ascending `x`. On error, `where` is the index of the first station of the bad segment.
    static Result<SquaredRadius> through(const std::vector<double>& x_mm,
                                         const std::vector<double>& radii_mm);

    struct Value {
        double square_mm2;  ///< mm^2
        double slope_mm;    ///< d(square)/dx
    };
    /// Beyond the ends the last cubic goes on (negative squares beyond a closed end).
    Value at(std::size_t segment, double x_mm) const;

    /// Square divided by the distance from the closed end to the power at which it vanishes there (1 for a
    /// round end, 2 for a point), so that ratios of radii stay finite at a pole.
    Value reduced(std::size_t segment, double x_mm) const;

    /// How often the square vanishes at the end of `segment` that is closed; 0 if neither is.
    int order(std::size_t segment) const { return cubics_[segment].order; }

  private:
    struct Cubic {
        double from_mm;  ///< x of the end the powers count from: the closed end, if there is one
        Ratio sign;      ///< +1 if powers grow with x, -1 if against it
        Figure a[4];     ///< coefficients by powers of sign * (x - from)
        int order;       ///< leading coefficients that are exactly 0
    };
    std::vector<Cubic> cubics_;
};

/// The cross section at one x, with its derivatives by x.
struct Section {
    double halfWidth_mm, top_mm, bottom_mm;
    Ratio exponentUpper, exponentLower;
};

class Loft {
  public:
    static Result<Loft> through(const std::vector<Station>& stations);

    double noseX_mm() const { return stations_.front().x_mm; }
    double tailX_mm() const { return stations_.back().x_mm; }
    bool noseClosed() const { return stations_.front().halfWidth_mm == 0; }
    bool tailClosed() const { return stations_.back().halfWidth_mm == 0; }
    const std::vector<Station>& stations() const { return stations_; }

    /// x inside the body; at a closed end all sizes are 0.
    Section sectionAt(double x_mm) const;

    /// Segment that holds x (the first or last one beyond the ends).
    std::size_t segmentAt(double x_mm) const;

    /// What the level function of the skin needs at x: squares, and the ratio k = half_width / half_height
    /// of the upper or lower half, all finite at the poles and smooth beyond them.
    struct Profile {
        double square_mm2, squareSlope_mm;  ///< half_width^2
        Ratio ratio;
        double ratioSlope_1_mm;  ///< (half_width / h)^2
        Ratio exponent;
        double exponentSlope_1_mm;
    };
    Profile profileAt(double x_mm, bool upper) const;

  private:
    std::vector<Station> stations_;
    SquaredRadius width_, top_, bottom_;
};

}  // namespace nine
