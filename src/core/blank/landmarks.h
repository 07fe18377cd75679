// Named places on the body that art and masks are lined up by.
//
// A landmark is a point or a curve on the skin, given for the left side. Paired ones are mirrored to the
// right; central ones lie on the back or belly line, or are the same seen from either side. A curve is smooth
// through its points in x, g (blank/landmark_curve.h; the gill plate from back to belly, the lateral line
// from nose to tail). Names are free; what the program's own mean is said by landmarkKinds.
#pragma once

#include <map>
#include <optional>
#include <string>
#include <string_view>
#include <vector>

#include "blank/skin.h"

namespace nine {

struct Landmark {
    std::vector<Vec2> points;  ///< x, g in mm; one for a point, more for a curve
    double diameter_mm = 0;    ///< of an eye socket; 0 elsewhere
    std::string unknownJson;   ///< keys of the file this version does not know
    bool assumed = false;      ///< where such lures usually have it; nobody has looked yet
    // Of an eye.
    double buildUp_mm = 0;     ///< paint on the wall of the socket, which makes it smaller all round
    std::string eyeType = {};  ///< "round", "forward", "cat"; empty: round
    // Of a bill slot.
    double angle_deg = 0;                ///< of the bill, down from the axis
    double length_mm = 0, width_mm = 0;  ///< of the bill outside the body; 0: no bill is drawn

    bool isCurve() const { return points.size() > 1; }
    bool isOutline() const { return points.size() > 2 && points.front() == points.back(); }
};

using Landmarks = std::map<std::string, Landmark>;

struct LandmarkKind {
    std::string_view name;  ///< as in job files
    Pattern spoken;
    bool curve = false;
    bool central = false;  ///< not paired: on the middle of the fish
    Pattern meaning;
    bool felt = false;  ///< can be seen or felt on the bare body: a sheet can be lined up on it
};
/// The program's own, in the order of a fish from nose to tail.
const std::vector<LandmarkKind>& landmarkKinds();
/// Null for names of the painter's own.
const LandmarkKind* landmarkKind(std::string_view name);

/// "gill plate" for "gill_plate"; of the painter's own names what they gave.
Words spokenName(std::string_view landmark);

/// The point of a landmark that things are measured from at height `g_mm`: a point itself; on a curve the
/// place where it passes that height, or its nearest end.
Vec2 referencePoint(const Landmark& landmark, double g_mm);

/// Every landmark on the skin, eyes no larger than the head, bills at a possible angle. Errors with the field
/// path: off_body, eye_too_large, out_of_range.
Status checkLandmarks(const Skin& skin, const Landmarks& landmarks);

/// Eyes are sold by diameter, mm. Common practice, no published source.
inline constexpr double kStockEyes_mm[] = {3, 4, 5, 6, 7, 8, 9, 10, 12};
/// The largest stock eye that still goes into a socket when its paint is on; nothing if none does.
std::optional<double> stockEyeFor(const Landmark& eye);
constexpr double kEyePlay_mm =
    0.1;  ///< all round, or the eye does not go in (common practice, no published source)

/// Which way the pupil points, degrees up from straight ahead (towards the nose); nothing for a round pupil
/// in the middle. The same on both sides, mirrored.
std::optional<double> pupilDirection(const Landmark& eye);

}  // namespace nine
