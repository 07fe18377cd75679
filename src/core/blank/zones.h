// Areas of the skin that paint or masks must respect: where no paint goes, and where carving holds a sheet
// off.
//
// A zone is a polygon in x, g of the left side; on the right it is mirrored. A zone on the middle of the fish
// reaches over the back or belly line, or is drawn up to it.
#pragma once

#include <string>
#include <string_view>
#include <vector>

#include "blank/landmarks.h"

namespace nine {

struct Zone {
    std::string id, name;
    std::string kind = "drawn";  ///< of zoneKinds()
    bool noPaint = true;
    double relief_mm = 0;       ///< depth of the carving: no sheet lies closer here
    std::vector<Vec2> polygon;  ///< x, g
    std::string unknownJson;
};

/// What to call it in a sentence: the landmark it follows from, or what the painter named it.
Words spokenName(const Zone& zone);

struct ZoneKind {
    std::string_view id;
    Pattern name;
    bool noPaint;
};
/// bill, mouth, slit, eye_socket, hook_eye, clip_void, drawn (no paint); relief.
const std::vector<ZoneKind>& zoneKinds();

/// How deep carving is in words: "smooth" 0, "lightly carved" 0.15 mm, "deep" 0.5 mm (common practice, no
/// published source).
struct ReliefName {
    std::string_view id;
    Pattern name;
    double depth_mm;
};
const std::vector<ReliefName>& reliefNames();

constexpr double kDeepestRelief_mm = 5;

/// Errors with the field path: bad_value (fewer than three corners, unknown kind), off_body, out_of_range.
Status checkZones(const Skin& skin, const std::vector<Zone>& zones);

/// Skin area within a polygon in x, g, mm^2. Gauss-Legendre over the straight pieces; relative error below
/// 1e-5 for smooth bodies. About 1 ms a hundred mm of length.
double zoneArea_mm2(const Skin& skin, const std::vector<Vec2>& polygon);

/// Zones that follow from landmarks: a ring round each hook eye and the line tie, the eye socket, the bill
/// slot.
std::vector<Zone> zonesOfLandmarks(const Skin& skin, const Landmarks& landmarks);

/// Depth of the carving at a point of the left side: the deepest zone there, else 0.
double reliefAt_mm(const std::vector<Zone>& zones, const Vec2& xg);

/// Skin that paint may go on, both sides, mm^2: `wholeArea` less what zones keep bare. Zones are taken one by
/// one: where two overlap, more is taken off than is bare.
double paintedArea_mm2(const Skin& skin, double wholeArea_mm2, const std::vector<Zone>& zones);

}  // namespace nine
