#include "blank/skin.h"

#include <cmath>

#include "base/number_text.h"

namespace nine {

Result<Skin> Skin::of(const StationTable& table) {
    const auto placeOf = [](std::size_t i, const std::string& field) {
        return field.empty() ? std::string("blank.stations")
                             : "blank.stations[" + std::to_string(i) + "]." + field;
    };
    if (Status checked = checkStations(table.stations, placeOf); !checked) return checked.error();
    Result<Loft> loft = Loft::through(table.stations);
    if (!loft) return loft.error();
    return Skin(std::move(*loft));
}

Status Skin::check(const SkinPoint& point, const std::string& where) const {
    if (!(point.x_mm >= noseX_mm() && point.x_mm <= tailX_mm())) {
        return Error{
            "off_body",
            Words(NINE_WORDS("core", "x = {x} is off the body, which reaches from {nose} to {tail}."))
                .length("x", point.x_mm, kShortest)
                .length("nose", noseX_mm(), kShortest)
                .length("tail", tailX_mm(), kShortest),
            where};
    }
    const SectionArc arc = arcAt(point.x_mm);
    constexpr double slack_mm = 1e-9;  // a girth typed back from our own output
    const double back = arc.backArc_mm(), belly = arc.bellyArc_mm();
    if (!(point.g_mm >= -2 * belly - back - slack_mm && point.g_mm <= 2 * back + belly + slack_mm)) {
        return Error{
            "off_body",
            Words(NINE_WORDS("core",
                             "g = {g} goes farther round the body at x = {x} than to the middle of the far "
                             "side's end; from the axis it is {back} to the back and {belly} to the belly."))
                .length("g", point.g_mm, kShortest)
                .length("x", point.x_mm, kShortest)
                .length("back", back, 2)
                .length("belly", belly, 2),
            where};
    }
    return Done{};
}

SurfacePoint Skin::withNormal(const Vec3& position) const {
    SurfacePoint point{position, Vec3::Zero()};
    level(position, point.normal);
    if (point.normal.squaredNorm() == 0) {  // a sharp tip: its axis stands for the normal
        point.normal = Vec3(position.x() < 0.5 * (noseX_mm() + tailX_mm()) ? -1 : 1, 0, 0);
    }
    point.normal.normalize();
    return point;
}

SurfacePoint Skin::at(const SectionArc& arc, double x_mm, double g_mm, Side side) const {
    const Vec2 yz = arc.point(g_mm);
    return withNormal({x_mm, side == Side::Left ? yz.x() : -yz.x(), yz.y()});
}

SurfacePoint Skin::at(const SkinPoint& point) const {
    const Section section = loft_.sectionAt(point.x_mm);
    const bool up = point.g_mm >= 0;
    const double own = up ? section.top_mm : section.bottom_mm;
    // Beyond the far datum line the other quarter begins. A quarter is no longer than its two sides.
    if (std::abs(point.g_mm) > 2 * std::max(own, section.halfWidth_mm))
        return at(arcAt(point.x_mm), point.x_mm, point.g_mm, point.side);
    const QuarterArc quarter(section.halfWidth_mm, up ? section.top_mm : section.bottom_mm,
                             up ? section.exponentUpper : section.exponentLower);
    const Vec2 yz = SectionArc::pointOf(quarter, point.g_mm);
    return withNormal({point.x_mm, point.side == Side::Left ? yz.x() : -yz.x(), yz.y()});
}

SkinPoint Skin::locate(const Vec3& position) const {
    const double x = std::clamp(position.x(), noseX_mm(), tailX_mm());
    return {position.y() >= 0 ? Side::Left : Side::Right, x, arcAt(x).gAt_mm({position.y(), position.z()})};
}

SkinPoint Skin::locateNear(const Vec3& position, double g_mm) const {
    SkinPoint at = locate(position);
    if (at.side == Side::Left) return at;
    const SectionArc arc = arcAt(at.x_mm);
    const double overBack = 2 * arc.backArc_mm() - at.g_mm, overBelly = -2 * arc.bellyArc_mm() - at.g_mm;
    at.side = Side::Left;
    at.g_mm = std::abs(overBack - g_mm) < std::abs(overBelly - g_mm) ? overBack : overBelly;
    return at;
}

SkinPoint Skin::onFlank(double x_mm, double z_mm) const {
    constexpr double rim = 1e-6;  // of the length: the very tips have no section
    const double x = std::clamp(x_mm, noseX_mm() + rim * length_mm(), tailX_mm() - rim * length_mm());
    const Section s = loft_.sectionAt(x);
    const double z = std::clamp(z_mm, -s.bottom_mm, s.top_mm);
    const double height = z >= 0 ? s.top_mm : s.bottom_mm, n = z >= 0 ? s.exponentUpper : s.exponentLower;
    const double y = s.halfWidth_mm * std::pow(std::max(0.0, 1 - std::pow(std::abs(z) / height, n)), 1 / n);
    return {Side::Left, x, locate(Vec3(x, y, z)).g_mm};
}

double Skin::level(const Vec3& p, Vec3& gradient) const {
    const Loft::Profile profile = loft_.profileAt(p.x(), p.z() >= 0);
    const double n = profile.exponent;
    const double k = std::sqrt(profile.ratio);
    const double A = std::abs(p.y()), Z = std::abs(p.z());
    // (A^n + (kZ)^n)^(2/n) - half_width^2, computed on values scaled to at most 1.
    const double m = std::max(A, k * Z);
    if (m == 0) {
        gradient = Vec3(-profile.squareSlope_mm, 0, 0);
        return -profile.square_mm2;
    }
    const double a = A / m, b = k * Z / m;
    double D, Q, an1, bn1, byExponent = 0;
    if (n == 2 && profile.exponentSlope_1_mm == 0) {
        D = Q = a * a + b * b;
        an1 = a;
        bn1 = b;
    } else {
        an1 = std::pow(a, n - 1);
        bn1 = std::pow(b, n - 1);
        const double an = an1 * a, bn = bn1 * b;
        D = an + bn;
        Q = std::pow(D, 2 / n);
        if (profile.exponentSlope_1_mm != 0) {
            const double logs = (a > 0 ? an * std::log(a) : 0) + (b > 0 ? bn * std::log(b) : 0);
            byExponent = m * m * Q * (2 / n) * (logs / D - std::log(D) / n);
        }
    }
    const double common = 2 * m * Q / D;
    gradient.x() = -profile.squareSlope_mm + common * bn1 * Z * profile.ratioSlope_1_mm / (2 * k) +
                   byExponent * profile.exponentSlope_1_mm;
    gradient.y() = std::copysign(common * an1, p.y());
    gradient.z() = std::copysign(common * bn1 * k, p.z());
    return m * m * Q - profile.square_mm2;
}

}  // namespace nine
