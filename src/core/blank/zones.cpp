#include "blank/zones.h"

#include <algorithm>
#include <cmath>

#include "base/number_text.h"
#include "base/units.h"
#include "geom/polygon_set.h"
#include "geom/quadrature.h"

namespace nine {
namespace {

constexpr double kHookEyeRing_mm =
    1.5;                          // radius kept bare round a ring (common practice, no published source)
constexpr double kStep_mm = 0.8;  // along x; Gauss points lie within

/// How much skin a step in x and g spans along one section: |dp/dx x dp/dg|, from differences on the exact
/// skin.
class StretchAlong {
  public:
    StretchAlong(const Skin& skin, double x)
        : step_(std::min({1e-4, 0.5 * (x - skin.noseX_mm()), 0.5 * (skin.tailX_mm() - x)})),
          here_(skin.arcAt(x)),
          before_(skin.arcAt(x - step_)),
          after_(skin.arcAt(x + step_)) {}

    double at(double g) const {
        if (!(step_ > 0)) return 0;
        constexpr double e = 1e-4;
        const Vec2 a = on(before_, g), b = on(after_, g), c = on(here_, g - e), d = on(here_, g + e);
        const Vec3 dx(1, (b.x() - a.x()) / (2 * step_), (b.y() - a.y()) / (2 * step_));
        const Vec3 dg(0, (d.x() - c.x()) / (2 * e), (d.y() - c.y()) / (2 * e));
        return dx.cross(dg).norm();
    }

  private:
    static Vec2 on(const SectionArc& arc, double g) {
        return arc.point(std::clamp(g, -2 * arc.bellyArc_mm(), 2 * arc.backArc_mm()));
    }
    double step_;
    SectionArc here_, before_, after_;
};

std::vector<Vec2> ringAround(const Skin& skin, const Vec2& middle, double radius) {
    std::vector<Vec2> ring;
    const double x0 = skin.noseX_mm() + 1e-3, x1 = skin.tailX_mm() - 1e-3;
    for (int i = 0; i < 32; ++i) {
        const double v = 2 * kPi * i / 32;
        const double x = std::clamp(middle.x() + radius * std::cos(v), x0, x1);
        const SectionArc arc = skin.arcAt(x);
        ring.emplace_back(
            x, std::clamp(middle.y() + radius * std::sin(v), -2 * arc.bellyArc_mm(), 2 * arc.backArc_mm()));
    }
    return ring;
}

}  // namespace

const std::vector<ZoneKind>& zoneKinds() {
    static const std::vector<ZoneKind> kinds{{"bill", NINE_WORDS("core", "bill"), true},
                                             {"mouth", NINE_WORDS("core", "mouth"), true},
                                             {"slit", NINE_WORDS("core", "slit"), true},
                                             {"eye_socket", NINE_WORDS("core", "eye socket"), true},
                                             {"hook_eye", NINE_WORDS("core", "hook eye"), true},
                                             {"clip_void", NINE_WORDS("core", "place for a clip"), true},
                                             {"drawn", NINE_WORDS("core", "bare area"), true},
                                             {"relief", NINE_WORDS("core", "carved area"), false}};
    return kinds;
}

const std::vector<ReliefName>& reliefNames() {
    static const std::vector<ReliefName> names{{"smooth", NINE_WORDS("core", "smooth"), 0},
                                               {"light", NINE_WORDS("core", "lightly carved"), 0.15},
                                               {"deep", NINE_WORDS("core", "deep"), 0.5}};
    return names;
}

Status checkZones(const Skin& skin, const std::vector<Zone>& zones) {
    for (std::size_t i = 0; i < zones.size(); ++i) {
        const Zone& zone = zones[i];
        const std::string where = "blank.zones[" + std::to_string(i) + "]";
        const auto& kinds = zoneKinds();
        if (std::none_of(kinds.begin(), kinds.end(), [&](const ZoneKind& k) { return k.id == zone.kind; }))
            return Error{"bad_value",
                         Words(NINE_WORDS("core", "\"{kind}\" is not a kind of zone; say drawn or relief."))
                             .name("kind", zone.kind),
                         where + ".kind"};
        if (zone.polygon.size() < 3)
            return Error{"bad_value", NINE_WORDS("core", "A zone needs three corners or more."),
                         where + ".polygon"};
        if (!(zone.relief_mm >= 0 && zone.relief_mm <= kDeepestRelief_mm))
            return Error{"out_of_range",
                         Words(NINE_WORDS("core", "Carving is 0 to {most} deep."))
                             .length("most", kDeepestRelief_mm, 0),
                         where + ".relief_mm"};
        for (std::size_t k = 0; k < zone.polygon.size(); ++k) {
            const Vec2& p = zone.polygon[k];
            if (Status ok =
                    skin.check({Side::Left, p.x(), p.y()}, where + ".polygon[" + std::to_string(k) + "]");
                !ok)
                return ok;
        }
    }
    return Done{};
}

double zoneArea_mm2(const Skin& skin, const std::vector<Vec2>& polygon) {
    if (polygon.size() < 3) return 0;
    // Breaks in x: corners of the polygon and stations, with steps between.
    std::vector<double> breaks;
    for (const Vec2& p : polygon) breaks.push_back(p.x());
    const auto [least, most] = std::minmax_element(breaks.begin(), breaks.end());
    const double from = *least, to = *most;
    for (const Station& s : skin.loft().stations())
        if (s.x_mm > from && s.x_mm < to) breaks.push_back(s.x_mm);
    std::sort(breaks.begin(), breaks.end());
    double area = 0;
    std::vector<double> crossings;
    for (std::size_t i = 1; i < breaks.size(); ++i) {
        const double span = breaks[i] - breaks[i - 1];
        if (span < 1e-9) continue;
        const int steps = std::max(1, static_cast<int>(std::ceil(span / kStep_mm)));
        for (int k = 0; k < steps; ++k) {
            for (const GaussNode& node : kGauss6) {
                const double h = span / steps, x = breaks[i - 1] + h * (k + node.position);
                crossings.clear();
                for (std::size_t j = 0; j < polygon.size(); ++j) {
                    const Vec2 &a = polygon[j], &b = polygon[(j + 1) % polygon.size()];
                    if ((a.x() > x) == (b.x() > x)) continue;
                    crossings.push_back(a.y() + (x - a.x()) / (b.x() - a.x()) * (b.y() - a.y()));
                }
                std::sort(crossings.begin(), crossings.end());
                if (crossings.size() < 2) continue;
                const StretchAlong stretch(skin, x);
                for (std::size_t c = 0; c + 1 < crossings.size(); c += 2) {
                    const double low = crossings[c], high = crossings[c + 1];
                    const int pieces = std::max(1, static_cast<int>(std::ceil((high - low) / 2)));
                    for (int q = 0; q < pieces; ++q) {
                        for (const GaussNode& across : kGauss6) {
                            const double w = (high - low) / pieces, g = low + w * (q + across.position);
                            area += node.weight * h * across.weight * w * stretch.at(g);
                        }
                    }
                }
            }
        }
    }
    return area;
}

Words spokenName(const Zone& zone) {
    return landmarkKind(zone.id) ? spokenName(zone.id) : Words::verbatim(zone.name);
}

std::vector<Zone> zonesOfLandmarks(const Skin& skin, const Landmarks& landmarks) {
    std::vector<Zone> zones;
    for (const auto& [name, landmark] : landmarks) {
        const auto add = [&zones, name = name](const char* kind, std::vector<Vec2> polygon) {
            zones.push_back({name, spokenName(name).plain(), kind, true, 0, std::move(polygon), {}});
        };
        if (name == "belly_hanger" || name == "tail_hanger" || name == "line_tie") {
            add("hook_eye", ringAround(skin, landmark.points.front(), kHookEyeRing_mm));
        } else if (landmark.diameter_mm > 0) {
            add("eye_socket", ringAround(skin, landmark.points.front(), 0.5 * landmark.diameter_mm));
        } else if (name == "bill_slot" && landmark.points.size() > 2) {
            add("bill", landmark.points);
        }
    }
    return zones;
}

double reliefAt_mm(const std::vector<Zone>& zones, const Vec2& xg) {
    double depth = 0;
    for (const Zone& zone : zones)
        if (zone.relief_mm > depth && contains(zone.polygon, xg)) depth = zone.relief_mm;
    return depth;
}

double paintedArea_mm2(const Skin& skin, double wholeArea, const std::vector<Zone>& zones) {
    double bare = 0;
    for (const Zone& zone : zones) {
        if (!zone.noPaint) continue;
        // Of a zone over the back or belly line, its own half counts twice: left and right are alike.
        bare += zoneArea_mm2(skin, zone.polygon);
        bool central = false;
        for (const Vec2& p : zone.polygon) {
            const SectionArc arc = skin.arcAt(p.x());
            central = central || p.y() > arc.backArc_mm() + 1e-6 || p.y() < -arc.bellyArc_mm() - 1e-6;
        }
        if (!central) bare += zoneArea_mm2(skin, zone.polygon);
    }
    return std::max(0.0, wholeArea - bare);
}

}  // namespace nine
