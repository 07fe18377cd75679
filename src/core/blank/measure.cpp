#include "blank/measure.h"

#include <algorithm>
#include <cmath>

#include "base/units.h"
#include "blank/skin_grid.h"
#include "geom/quadrature.h"

namespace nine {
namespace {

constexpr int kPanelsPerSegment = 3;
constexpr int kCurvatureRows = 160, kCurvatureColumns = 128;
constexpr int kStartPieces = 16, kFinalPieces = 256;

/// Area of a half section above or below the axis: 2 w h Gamma(1 + 1/n)^2 / Gamma(1 + 2/n)
/// (the Dirichlet integral, NIST DLMF 5.14.2).
double halfSectionArea(double width, double height, double exponent) {
    const double g = std::tgamma(1 + 1 / exponent);
    return 2 * width * height * g * g / std::tgamma(1 + 2 / exponent);
}

/// Integrates f(x) over the body. At a closed end x runs with the square of the variable, so that the
/// square-root shape of a round end is smooth.
template <typename F>
double integrateAlongAxis(const Loft& loft, F f) {
    const auto& stations = loft.stations();
    double sum = 0;
    for (std::size_t i = 0; i + 1 < stations.size(); ++i) {
        const double a = stations[i].x_mm, h = stations[i + 1].x_mm - a;
        const bool closedLeft = stations[i].halfWidth_mm == 0,
                   closedRight = stations[i + 1].halfWidth_mm == 0;
        for (int k = 0; k < kPanelsPerSegment; ++k) {
            sum += integrate(double(k) / kPanelsPerSegment, double(k + 1) / kPanelsPerSegment, [&](double t) {
                const double u = 1 - t;
                if (closedLeft) return 2 * h * t * f(a + h * t * t);
                if (closedRight) return 2 * h * u * f(a + h * (1 - u * u));
                return h * f(a + h * t);
            });
        }
    }
    return sum;
}

SurfacePath startPath(const Skin& skin, const SurfacePoint& from, const SurfacePoint& to, int turns,
                      double bulge) {
    const auto angleOf = [&](const Vec3& p) {
        const Section s = skin.loft().sectionAt(p.x());
        const double h = p.z() >= 0 ? s.top_mm : s.bottom_mm;
        return h > 0 && s.halfWidth_mm > 0 ? std::atan2(p.z() / h, p.y() / s.halfWidth_mm) : 0.0;
    };
    const double v0 = angleOf(from.position);
    double turn = std::remainder(angleOf(to.position) - v0, 2 * kPi);
    if (turns != 0) turn += turn > 0 ? -2 * kPi : 2 * kPi;
    SurfacePath path{from};
    for (int i = 1; i < kStartPieces; ++i) {
        const double t = double(i) / kStartPieces;
        double x = (1 - t) * from.position.x() + t * to.position.x() + bulge * 4 * t * (1 - t);
        const double margin = 0.005 * skin.length_mm();
        x = std::clamp(x, skin.noseX_mm() + margin, skin.tailX_mm() - margin);
        const Section s = skin.loft().sectionAt(x);
        const double v = v0 + t * turn;
        const double h = std::sin(v) >= 0 ? s.top_mm : s.bottom_mm;
        path.push_back(skin.project({x, s.halfWidth_mm * std::cos(v), h * std::sin(v)}));
    }
    path.push_back(to);
    return path;
}

}  // namespace

BodyMeasure measureBody(const Skin& skin) {
    const Loft& loft = skin.loft();
    BodyMeasure m{};
    m.length_mm = skin.length_mm();
    m.volume_mm3 = integrateAlongAxis(loft, [&](double x) {
        const Section s = loft.sectionAt(x);
        return halfSectionArea(s.halfWidth_mm, s.top_mm, s.exponentUpper) +
               halfSectionArea(s.halfWidth_mm, s.bottom_mm, s.exponentLower);
    });
    m.area_mm2 = integrateAlongAxis(loft, [&](double x) {
        const SectionArc arc = skin.arcAt(x);
        double sum = 0;
        const auto add = [&](double y, double z, double weight) {
            Vec3 gradient;
            skin.level({x, y, z}, gradient);
            // A strip between two planes across the axis is wider the more the skin faces the axis.
            sum += weight * gradient.norm() / std::hypot(gradient.y(), gradient.z());
        };
        arc.upper().forEachNode([&](double y, double z, double w) { add(y, z, w); });
        arc.lower().forEachNode([&](double y, double z, double w) { add(y, -z, w); });
        return 2 * sum;
    });
    const int samples = 2000;
    for (int i = 0; i <= samples; ++i) {
        const Section s = loft.sectionAt(skin.noseX_mm() + m.length_mm * i / samples);
        m.height_mm = std::max(m.height_mm, s.top_mm + s.bottom_mm);
        m.width_mm = std::max(m.width_mm, 2 * s.halfWidth_mm);
    }
    for (const Station& s : loft.stations()) {
        m.height_mm = std::max(m.height_mm, s.top_mm + s.bottom_mm);
        m.width_mm = std::max(m.width_mm, 2 * s.halfWidth_mm);
    }
    for (const double k : makeSkinGrid(skin, kCurvatureRows, kCurvatureColumns).curvature_rad) {
        m.curvatureTotal_rad += k;
    }
    return m;
}

Result<double> girthAt(const Skin& skin, double x_mm, const std::string& where) {
    if (Status inside = skin.check({Side::Left, x_mm, 0}, where); !inside) return inside.error();
    return skin.arcAt(x_mm).girth_mm();
}

Result<Geodesic> shortestWay(const Skin& skin, const SkinPoint& from, const SkinPoint& to) {
    if (Status ok = skin.check(from, "from"); !ok) return ok.error();
    if (Status ok = skin.check(to, "to"); !ok) return ok.error();
    const SurfacePoint a = skin.at(from), b = skin.at(to);
    if ((a.position - b.position).norm() < 1e-12) return Geodesic{0, {a, b}};

    std::vector<SurfacePath> starts;
    const double reach = 0.3 * (a.position - b.position).norm();
    for (const int turns : {0, 1}) {
        for (const double bulge : {0.0, -reach, reach}) starts.push_back(startPath(skin, a, b, turns, bulge));
    }
    const auto overPole = [&](double poleX) {
        const SurfacePoint pole = skin.at(SkinPoint{Side::Left, poleX, 0});
        SurfacePath path = startPath(skin, a, pole, 0, 0);
        const SurfacePath rest = startPath(skin, pole, b, 0, 0);
        path.insert(path.end(), rest.begin() + 1, rest.end());
        starts.push_back(std::move(path));
    };
    if (skin.loft().noseClosed()) overPole(skin.noseX_mm());
    if (skin.loft().tailClosed()) overPole(skin.tailX_mm());

    SurfacePath best;
    double bestLength = 0;
    for (const SurfacePath& start : starts) {
        SurfacePath tight = shortenPath(skin, resampled(skin, start, kStartPieces));
        const double length = chordLength_mm(tight);
        if (best.empty() || length < bestLength) {
            bestLength = length;
            best = std::move(tight);
        }
    }
    Geodesic way = geodesicNear(skin, best, kFinalPieces);
    for (const SurfacePoint& p : way.path) {
        constexpr double slack_mm = 1e-6;
        if (p.position.x() < skin.noseX_mm() - slack_mm || p.position.x() > skin.tailX_mm() + slack_mm) {
            return Error{"over_open_end",
                         NINE_WORDS("core",
                                    "The shortest way between these points would leave the skin at an open "
                                    "end."),
                         "to"};
        }
    }
    return way;
}

Polyline2 bodyOutline(const Skin& skin, bool above, int steps) {
    Polyline2 line;
    for (const bool upper : {true, false}) {
        for (int i = 0; i <= steps; ++i) {
            const double share = 0.5 * (1 - std::cos(kPi * (upper ? i : steps - i) / steps));
            const double x = skin.noseX_mm() + share * skin.length_mm();
            const Section s = skin.loft().sectionAt(x);
            line.emplace_back(
                x, above ? (upper ? s.halfWidth_mm : -s.halfWidth_mm) : (upper ? s.top_mm : -s.bottom_mm));
        }
    }
    return line;
}

}  // namespace nine
