// A body from its outlines: the fewest stations whose loft follows them.
//
//     Result<OutlinedBody> body = bodyFromOutlines({side, top, {{22, 96}}, 0.9});
//
// The side outline gives heights above and below the axis. Widths come from an outline seen from above; or
// from string girths, each of which gives the width at its place; or, with neither, from a guess (then they
// are marked as assumed). With an outline from above, girths give the fullness of the sections instead.
#pragma once

#include <optional>

#include "base/units.h"
#include "blank/loft.h"
#include "geom/vec.h"

namespace nine {

struct StringReading {
    double x_mm, girth_mm;
};

struct Outlines {
    Polyline2 side;                ///< closed; x from the nose along the axis, z up; mm
    std::optional<Polyline2> top;  ///< closed; x from the nose, y to either side; mm
    std::vector<StringReading> girths;
    Ratio widthShare = 0.8;  ///< guess of width over height, where nothing tells
    Ratio section = 2;       ///< exponent where no girth tells
    bool noseFlat = false, tailFlat = false;
};

struct OutlinedBody {
    StationTable table;
    double miss_mm = 0;  ///< root mean square of loft against outlines, across the outline
    double worst_mm = 0, worst_x_mm = 0;
    double asymmetry_mm = 0;  ///< largest difference of both sides in the outline from above
    Warnings warnings;
};

/// Errors: no_outline (fewer than 20 points, or shorter than 10 mm), zero_inside (the outline leaves its
/// axis), lengths_differ (outlines of different bodies), off_body and contradiction (strings beyond the body,
/// or two at one place), girth_impossible, those of Loft. A few milliseconds.
Result<OutlinedBody> bodyFromOutlines(const Outlines& outlines);

/// Outlines agree with the loft to this, if kMostOutlineStations are enough.
constexpr double kOutlineFit_mm = 0.05;
constexpr std::size_t kMostOutlineStations = 24;

}  // namespace nine
