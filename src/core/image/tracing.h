// Reads a tracing sheet back: from a scan or a photograph of the page to outlines in mm.
//
//     Result<TracingReading> r = readTracing(picture, {}, task);
//     r->side->outline    // closed, mm of paper, y up, as it lies in its box
//
// The page is put flat by its marks. In each box the drawn line is what is darker than the paper close by, so
// soft or hard shadows do not matter; the outline is the middle of the line, between what is outside and
// what is inside of it. Gaps up to kWidestGap_mm are bridged, wider ones are refused with their place. A box
// whose body is filled or photographed instead of drawn gives its silhouette. Lines inside the outline come
// out as guides. 12 megapixels take about two seconds.
#pragma once

#include <optional>

#include "base/units.h"
#include "image/marks.h"
#include "image/outline.h"
#include "image/stroke.h"

namespace nine {

constexpr double kWidestGap_mm = 3;

/// A line found on the page, mm, in the order it runs; a closed one is a circle or the like.
struct GuideLine {
    Polyline2 points;
    bool closed = false;
};

struct TracedBox {
    Polyline2 outline;  ///< closed, mm
    BodyAxis axis;
    bool filled = false;  ///< a silhouette, not a line
    double lineWidth_mm = 0;
    std::vector<GuideLine> guides;  ///< within the outline
};

/// What the drawn line is to the body: its very edge, or that of a pencil held leaning, its side along the
/// edge (or of a scribing point), or held upright.
enum class TracedWith { Edge, Leaning, Upright };

struct TracingWish {
    /// What a ruler says the printed line of 100 mm measures; without it a scan's own density tells, if it
    /// has one.
    std::optional<double> ruler_mm;
    double scanPerMm = 0;  ///< pixels per mm that the file claims, 0 if none
    /// Painted on the picture. What is put in or taken out changes the outline there; where the line is open
    /// or too faint to be found, the middle of a stroke that puts in stands for the pencil.
    std::vector<Stroke2> strokes = {};
    bool noseLeft = true;  ///< as the sheet asks
    /// How it was traced, for the usual stand-off (stand_off.h); one size by ruler takes its place.
    TracedWith tracedWith = TracedWith::Edge;
    std::optional<double> knownLength_mm = {}, knownHeight_mm = {};  ///< of the body, from the side
    /// Nose and tail, pixels, when dragged straight: the axis keeps this line and ends where the outline
    /// does.
    std::optional<std::pair<Vec2, Vec2>> sideAxis_px = {}, topAxis_px = {};
};

struct TracingReading {
    SeenPage page;
    Ratio scale = 1;  ///< true mm for each mm of the frame: 0.97 when the page was printed at 97 %
    bool scaleMeasured = false;
    std::optional<TracedBox> side, top;
    double sideStandOff_mm = 0, topStandOff_mm = 0;  ///< by which the outlines were drawn in
    std::vector<GuideLine>
        rubbing;  ///< lines of the rubbing box, mm from its left edge and its middle height
    Warnings warnings;
};

/// Errors: marks_missing, page_not_flat, page_mirrored, page_too_small (fewer than kFewestPixelsPerMm),
/// nothing_drawn, line_open, over_the_edge (with the place), two_bodies, ruler_wrong, no_axis (its ends
/// coincide), known_size_off, cancelled.
Result<TracingReading> readTracing(const Picture& picture, const TracingWish& wish, const Task& task = {});

/// The side box of the page in colour, put flat, at kPicturePerMm; nose at the left, y down.
Picture flatSide(const Picture& picture, const SeenPage& page);
/// Where a point of the side box (mm as read, before the page's scale) lies in that picture.
Vec2 onFlatSide(const Vec2& mm);
constexpr double kPicturePerMm = 6;

constexpr double kFewestPixelsPerMm = 3;

}  // namespace nine
