// Strokes: bands of changing width along a line on the skin. Bars, lines, rays, ribs, bones and the edges of
// fins are strokes.
//
// A spine is a line on the skin with its arc lengths; a stroke reaches so far to its left and right along the
// skin, across it. Walked nose to tail, left is towards the back. Widths are geodesic. A stroke that runs
// over itself in a tight bend is made whole. Cost: about 10 us a place and millimetre of width.
//
//     const Result<Spine> spine = spineThrough(skin, {{20, 2}, {30, 4}, {41, 1}}, 0.4, path);
//     Result<std::vector<Outline>> line = drawStroke(skin, *spine, {evenWidth(0.8)}, fineness, path);
#pragma once

#include <functional>

#include "blank/skin.h"
#include "pattern/outline.h"
#include "pattern/param.h"

namespace nine {

struct Spine {
    std::vector<Vec2> at;  ///< x, g
    std::vector<SurfacePoint> points;
    std::vector<double> along_mm;  ///< arc length from the first place to each
    double length_mm() const { return along_mm.empty() ? 0 : along_mm.back(); }
    /// Direction of travel at a place, unit, tangent to the skin.
    Vec3 ahead(std::size_t place) const;
    /// x, g at an arc length.
    Vec2 placeAt(double s_mm) const;
    /// Number of the place nearest to an arc length.
    std::size_t nearest(double s_mm) const;
};

/// Straight in x, g between places not farther apart than `step_mm`. Errors: off_body.
Result<Spine> spineOf(const Skin& skin, const std::vector<Vec2>& places, double step_mm,
                      const std::string& path);

/// Smooth through the places (Catmull-Rom, centripetal: no loops and no cusps between places; Yuksel,
/// Schaefer, Keyser: Parameterization and applications of Catmull-Rom curves, CAD 43, 2011), sampled every
/// `step_mm`.
std::vector<Vec2> smoothThrough(const std::vector<Vec2>& places, bool closed, double step_mm);
Result<Spine> spineThrough(const Skin& skin, const std::vector<Vec2>& places, double step_mm,
                           const std::string& path);

/// From a place along the skin: `length_mm` long, rising by `rise_mm` of girth from end to end and lifted by
/// `bow_mm` in the middle. Errors: off_body.
Result<Spine> spineAlong(const Skin& skin, const Vec2& from, double length_mm, double rise_mm, double bow_mm,
                         double step_mm, const std::string& path);

/// Across the body at a place: from one girth to another, the middle moved `bow_mm` towards the tail, the
/// upper end `lean_mm`. All along the skin. Errors: off_body.
Result<Spine> spineAcross(const Skin& skin, const Vec2& at, double fromG_mm, double toG_mm, double bow_mm,
                          double lean_mm, double step_mm, const std::string& path);

/// On the back line or the belly line, from x on.
Result<Spine> spineOnMiddle(const Skin& skin, double x_mm, double length_mm, bool back, double step_mm,
                            const std::string& path);

/// How a stroke ends.
enum class StrokeEnd { Square, Round, Pointed };
inline constexpr Choice kStrokeEnds[] = {{"square", NINE_WORDS("core", "square")},
                                         {"round", NINE_WORDS("core", "round")},
                                         {"pointed", NINE_WORDS("core", "pointed")}};
StrokeEnd strokeEndOf(const std::string& id);

/// Half a width, mm, at a share of the length.
using HalfWidth = std::function<double(Fraction)>;
HalfWidth evenWidth(double width_mm);
/// Start, middle, end; a parabola through them, never below `least_mm`.
HalfWidth threeWidths(double start_mm, double middle_mm, double end_mm, double least_mm = 0.02);

struct StrokeShape {
    HalfWidth half;
    StrokeEnd start = StrokeEnd::Round, end = StrokeEnd::Round;
    HalfWidth right = {};  ///< of the right side when it is not as the left
};

/// As closed outlines, the openings first. Errors: off_body.
Result<PolygonSet> strokeRings(const Skin& skin, const Spine& spine, const StrokeShape& shape,
                               Fineness fineness, const std::string& path);
Result<std::vector<Outline>> drawStroke(const Skin& skin, const Spine& spine, const StrokeShape& shape,
                                        Fineness fineness, const std::string& path);

}  // namespace nine
