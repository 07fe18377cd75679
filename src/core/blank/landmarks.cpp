#include "blank/landmarks.h"

#include <algorithm>
#include <cmath>

#include "base/number_text.h"
#include "blank/landmark_curve.h"

namespace nine {

const std::vector<LandmarkKind>& landmarkKinds() {
    static const std::vector<LandmarkKind> kinds{
        {"nose", false, true, "the foremost point; lengths are measured from it"},
        {"line_tie", false, true, "the ring the line is tied to; masks are lined up on it, it stays bare",
         true},
        {"bill_slot", true, true, "where the bill leaves the body; the bill stays unpainted", true},
        {"mouth_corner", false, false, "the end of the mouth; no paint is sprayed into the mouth"},
        {"eye", false, false, "middle and width of the eye socket", true},
        {"gill_plate", true, false, "the rear edge of the gill cover", true},
        {"pectoral_root", true, false, "where the breast fin grows out"},
        {"dorsal_root", true, true, "where the back fin stands"},
        {"pelvic_root", true, false, "where the belly fin grows out"},
        {"anal_root", true, true, "where the fin before the tail stands"},
        {"lateral_line", true, false, "the moulded lateral line, as it is on the blank"},
        {"fish_line", true, false, "where the fish has its lateral line, which need not be the moulded one"},
        {"back_line", true, true, "the ridge of the back, where both sides meet"},
        {"belly_line", true, true, "the keel of the belly, where both sides meet"},
        {"belly_hanger", false, true, "the ring of the belly hook; it stays bare", true},
        {"tail_hanger", false, true, "the ring of the tail hook; it stays bare", true},
        {"tail_root", false, false, "where the tail begins", true},
        {"seam", true, true, "the joint of the two halves of the mould"}};
    return kinds;
}

const LandmarkKind* landmarkKind(std::string_view name) {
    for (const LandmarkKind& kind : landmarkKinds())
        if (kind.name == name) return &kind;
    return nullptr;
}

std::optional<double> stockEyeFor(const Landmark& eye) {
    const double room = eye.diameter_mm - 2 * (eye.buildUp_mm + kEyePlay_mm);
    std::optional<double> best;
    for (const double size : kStockEyes_mm)
        if (size <= room + 1e-9) best = size;
    return best;
}

std::optional<double> pupilDirection(const Landmark& eye) {
    if (eye.eyeType == "forward") return 0;  // looks where it swims
    if (eye.eyeType == "cat") return 90;     // a slit stands upright
    return std::nullopt;
}

std::string spokenName(std::string_view landmark) {
    std::string name(landmark);
    std::replace(name.begin(), name.end(), '_', ' ');
    return name;
}

Vec2 referencePoint(const Landmark& landmark, double g_mm) {
    if (landmark.points.empty()) return Vec2::Zero();
    if (!landmark.isCurve()) return landmark.points.front();
    const std::vector<Vec2> points = curveOf(landmark);
    const auto missBy = [&](const Vec2& p) { return std::abs(p.y() - g_mm); };
    Vec2 nearest = points.front();
    for (std::size_t i = 1; i < points.size(); ++i) {
        const Vec2 &a = points[i - 1], &b = points[i];
        const double rise = b.y() - a.y();
        if ((a.y() - g_mm) * (b.y() - g_mm) <= 0 && rise != 0) return a + (g_mm - a.y()) / rise * (b - a);
        if (missBy(b) < missBy(nearest)) nearest = b;
    }
    return nearest;
}

namespace {

/// A socket lies on one side of the head: not over back or belly line, not past the nose.
Status checkEye(const Skin& skin, const Landmark& eye, const std::string& where) {
    const double r = 0.5 * eye.diameter_mm;
    if (!(r >= 0)) return Error{"out_of_range", "The diameter of an eye cannot be negative.", where};
    const Vec2& p = eye.points.front();
    const SectionArc arc = skin.arcAt(p.x());
    const double room =
        std::min({arc.backArc() - p.y(), p.y() + arc.bellyArc(), p.x() - skin.noseX(), skin.tailX() - p.x()});
    if (r > room)
        return Error{"eye_too_large",
                     "An eye of " + fixedText(eye.diameter_mm, 1) +
                         " mm is larger than the head there: up to " + fixedText(2 * std::max(0.0, room), 1) +
                         " mm fit. Make it smaller or move it back.",
                     where + ".diameter_mm"};
    if (!(eye.buildUp_mm >= 0 && eye.buildUp_mm <= r))
        return Error{"out_of_range", "Paint on the wall of the socket cannot be thicker than the socket.",
                     where + ".build_up_mm"};
    return Done{};
}

}  // namespace

Status checkLandmarks(const Skin& skin, const Landmarks& landmarks) {
    for (const auto& [name, landmark] : landmarks) {
        const std::string place = "blank.landmarks." + name;
        for (std::size_t i = 0; i < landmark.points.size(); ++i) {
            const Vec2& p = landmark.points[i];
            const std::string where = landmark.isCurve() ? place + "[" + std::to_string(i) + "]" : place;
            if (Status ok = skin.check({Side::Left, p.x(), p.y()}, where); !ok) return ok;
        }
        if (landmark.diameter_mm != 0)
            if (Status ok = checkEye(skin, landmark, place); !ok) return ok;
        if (!(landmark.angle_deg >= 0 && landmark.angle_deg <= 120))
            return Error{"out_of_range", "A bill stands at 0 to 120 degrees down from the axis.",
                         place + ".angle_deg"};
        if (!(landmark.length_mm >= 0 && landmark.length_mm <= 200 && landmark.width_mm >= 0 &&
              landmark.width_mm <= 200))
            return Error{"out_of_range", "A bill is up to 200 mm long and wide.", place};
    }
    return Done{};
}

}  // namespace nine
