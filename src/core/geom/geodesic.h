// Geodesics of a Surface.
//
// shortenPath    pulls a polyline tight between its fixed ends (a local minimum of length: the one the
//                starting path lies next to). Newton's method on the spring energy of the polyline.
// geodesicNear   the same at three subdivisions, then Romberg extrapolation. With 256 pieces the error is
//                below 1e-6 mm from tip to tip of a spheroid 100 mm long and 24 wide (tips of 2.9 mm radius);
//                2 ms.
// shootGeodesic  walks straight ahead: second order in the step.
// Lengths in mm.
//
//     Geodesic way = geodesicNear(skin, resampled(skin, {from, between, to}, 64), 64);
//     SurfacePoint there = shootGeodesic(skin, from, towards, {12.5}, 0.25)[0];
//
// Accuracy on a sphere of 20 mm (bench/accuracy.cpp):
//     geodesicNear, 22.4 mm    pieces     8        16       32       64
//                              error, mm  3.4e-8   5.2e-10  8.2e-12  1.1e-13
//     shootGeodesic, 10 mm     step, mm   2        1        0.5      0.25     0.1
//                              error, mm  1.7e-2   4.2e-3   1.0e-3   2.6e-4   4.2e-5
#pragma once

#include <vector>

#include "geom/surface.h"

namespace nine {

using SurfacePath = std::vector<SurfacePoint>;

/// Sum of the chords.
double chordLength_mm(const SurfacePath& path);

/// `pieces` equal pieces by chord length, interpolated on the chords of `path` and projected.
SurfacePath resampled(const Surface& surface, const SurfacePath& path, int pieces);

/// Ends stay fixed. Cost: O(points) an iteration, usually under ten.
SurfacePath shortenPath(const Surface& surface, SurfacePath path);

struct Geodesic {
    double length_mm;
    SurfacePath path;
};

/// The geodesic next to `start`; `pieces` is the finest of the three subdivisions (a multiple of 4).
Geodesic geodesicNear(const Surface& surface, const SurfacePath& start, int pieces);

/// Walks `length_mm` from `from` in direction `tangent` (any length, made tangent and unit) and returns the
/// points at the given ascending distances. Steps are at most `step_mm`; error about step^2 k^2 length / 6.
std::vector<SurfacePoint> shootGeodesic(const Surface& surface, const SurfacePoint& from, const Vec3& tangent,
                                        const std::vector<double>& distances_mm, double step_mm);

}  // namespace nine
