#include "blank/landmarks.h"

#include <algorithm>
#include <cmath>

#include "base/number_text.h"
#include "blank/landmark_curve.h"

namespace nine {

constexpr double kLargestBill_mm = 200;

const std::vector<LandmarkKind>& landmarkKinds() {
    static const std::vector<LandmarkKind> kinds{
        {"nose", NINE_WORDS("core", "nose"), false, true,
         NINE_WORDS("core", "the foremost point; lengths are measured from it")},
        {"line_tie", NINE_WORDS("core", "line tie"), false, true,
         NINE_WORDS("core", "the ring the line is tied to; masks are lined up on it, it stays bare"), true},
        {"bill_slot", NINE_WORDS("core", "bill slot"), true, true,
         NINE_WORDS("core", "where the bill leaves the body; the bill stays unpainted"), true},
        {"mouth_corner", NINE_WORDS("core", "mouth corner"), false, false,
         NINE_WORDS("core", "the end of the mouth; no paint is sprayed into the mouth")},
        {"eye", NINE_WORDS("core", "eye"), false, false,
         NINE_WORDS("core", "middle and width of the eye socket"), true},
        {"gill_plate", NINE_WORDS("core", "gill plate"), true, false,
         NINE_WORDS("core", "the rear edge of the gill cover"), true},
        {"pectoral_root", NINE_WORDS("core", "pectoral root"), true, false,
         NINE_WORDS("core", "where the breast fin grows out")},
        {"dorsal_root", NINE_WORDS("core", "dorsal root"), true, true,
         NINE_WORDS("core", "where the back fin stands")},
        {"pelvic_root", NINE_WORDS("core", "pelvic root"), true, false,
         NINE_WORDS("core", "where the belly fin grows out")},
        {"anal_root", NINE_WORDS("core", "anal root"), true, true,
         NINE_WORDS("core", "where the fin before the tail stands")},
        {"lateral_line", NINE_WORDS("core", "lateral line"), true, false,
         NINE_WORDS("core", "the moulded lateral line, as it is on the blank")},
        {"fish_line", NINE_WORDS("core", "fish line"), true, false,
         NINE_WORDS("core", "where the fish has its lateral line, which need not be the moulded one")},
        {"back_line", NINE_WORDS("core", "back line"), true, true,
         NINE_WORDS("core", "the ridge of the back, where both sides meet")},
        {"belly_line", NINE_WORDS("core", "belly line"), true, true,
         NINE_WORDS("core", "the keel of the belly, where both sides meet")},
        {"belly_hanger", NINE_WORDS("core", "belly hanger"), false, true,
         NINE_WORDS("core", "the ring of the belly hook; it stays bare"), true},
        {"tail_hanger", NINE_WORDS("core", "tail hanger"), false, true,
         NINE_WORDS("core", "the ring of the tail hook; it stays bare"), true},
        {"tail_root", NINE_WORDS("core", "tail root"), false, false,
         NINE_WORDS("core", "where the tail begins"), true},
        {"seam", NINE_WORDS("core", "seam"), true, true,
         NINE_WORDS("core", "the joint of the two halves of the mould")}};
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

Words spokenName(std::string_view landmark) {
    if (const LandmarkKind* kind = landmarkKind(landmark)) return kind->spoken;
    std::string name(landmark);
    std::replace(name.begin(), name.end(), '_', ' ');
    return Words::verbatim(name);
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
    if (!(r >= 0))
        return Error{"out_of_range", NINE_WORDS("core", "The diameter of an eye cannot be negative."), where};
    const Vec2& p = eye.points.front();
    const SectionArc arc = skin.arcAt(p.x());
    const double room = std::min({arc.backArc_mm() - p.y(), p.y() + arc.bellyArc_mm(),
                                  p.x() - skin.noseX_mm(), skin.tailX_mm() - p.x()});
    if (r > room)
        return Error{"eye_too_large",
                     Words(NINE_WORDS("core",
                                      "An eye of {diameter} is larger than the head there: up to {room} fit. "
                                      "Make it smaller or move it back."))
                         .length("diameter", eye.diameter_mm, 1)
                         .length("room", 2 * std::max(0.0, room), 1),
                     where + ".diameter_mm"};
    if (!(eye.buildUp_mm >= 0 && eye.buildUp_mm <= r))
        return Error{"out_of_range",
                     NINE_WORDS("core", "Paint on the wall of the socket cannot be thicker than the socket."),
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
            return Error{"out_of_range",
                         NINE_WORDS("core", "A bill stands at 0 to 120 degrees down from the axis."),
                         place + ".angle_deg"};
        if (!(landmark.length_mm >= 0 && landmark.length_mm <= kLargestBill_mm && landmark.width_mm >= 0 &&
              landmark.width_mm <= kLargestBill_mm))
            return Error{"out_of_range",
                         Words(NINE_WORDS("core", "A bill is up to {most} long and wide."))
                             .length("most", kLargestBill_mm, 0),
                         place};
    }
    return Done{};
}

}  // namespace nine
