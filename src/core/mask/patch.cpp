#include "mask/patch.h"

#include <algorithm>
#include <cmath>

#include "base/units.h"
#include "geom/geodesic.h"
#include "geom/triangle_finder.h"
#include "geom/triangulate.h"

namespace nine {
namespace {

constexpr double kSmallestDisc_mm = 0.5;
constexpr int kMeridianSamples = 200;
constexpr int kMeridians = 5;
constexpr double kShootingStep_mm = 0.1;  // second order: error about 1e-4 mm over 20 mm at radius 10

/// Too near a pole is an error, rather near a warning.
Status checkPoles(const Skin& skin, double x0, double x1, const std::string& where, Warnings& warnings) {
    const auto distance = [&](bool nose) {
        return (nose ? x0 - skin.noseX_mm() : skin.tailX_mm() - x1) / skin.length_mm();
    };
    for (const bool nose : {true, false}) {
        if (!(nose ? skin.loft().noseClosed() : skin.loft().tailClosed())) continue;
        const std::string end = nose ? "nose" : "tail";
        const double share = distance(nose);
        if (share < kPoleForbidden) {
            return Error{
                "over_pole",
                Words(NINE_WORDS("core",
                                 "The patch reaches over the tip of the {end}, where no sheet can lie. "
                                 "Keep it at least {length} (along the axis) away from it."))
                    .name("end", end)
                    .length("length", kPoleDoubtful * skin.length_mm(), 1),
                where};
        }
        if (share < kPoleDoubtful) {
            warnings.push_back(
                {"near_pole",
                 Words(NINE_WORDS("core",
                                  "The patch comes close to the tip of the {end}; sheets crease there. "
                                  "{length} is a better distance."))
                     .name("end", end)
                     .length("length", kPoleDoubtful * skin.length_mm(), 1),
                 where});
        }
    }
    return Done{};
}

double turnBetween(const SurfacePoint& a, const SurfacePoint& b) {
    return 2 * std::asin(std::min(1.0, 0.5 * (a.normal - b.normal).norm()));
}

/// Length along the longest of a few meridians of constant g inside a band, as a function of x.
class Meridian {
  public:
    Meridian(const Skin& skin, const BandPatch& band) : x_(kMeridianSamples + 1), s_(x_.size(), 0.0) {
        std::vector<std::vector<SurfacePoint>> lines(kMeridians);
        for (std::size_t k = 0; k < x_.size(); ++k) {
            const double t = static_cast<double>(k) / kMeridianSamples;
            x_[k] = (1 - t) * band.x0_mm + t * band.x1_mm;
            const SectionArc arc = skin.arcAt(x_[k]);
            for (std::size_t m = 0; m < lines.size(); ++m) {
                const double s = static_cast<double>(m) / (kMeridians - 1);
                lines[m].push_back(skin.at(arc, x_[k], (1 - s) * band.g0_mm + s * band.g1_mm, Side::Left));
            }
        }
        for (std::size_t k = 1; k < x_.size(); ++k) {
            double step = 0;
            for (const auto& line : lines) step = std::max(step, arcLength_mm(line[k - 1], line[k]));
            s_[k] = s_[k - 1] + step;
        }
    }
    double length() const { return s_.back(); }
    double xAt(double s) const { return between(s_, x_, s); }
    double sAt(double x) const { return between(x_, s_, x); }

  private:
    static double between(const std::vector<double>& from, const std::vector<double>& to, double v) {
        const auto above = std::upper_bound(from.begin() + 1, from.end() - 1, v);
        const auto k = static_cast<std::size_t>(above - from.begin());
        return to[k - 1] + (v - from[k - 1]) / (from[k] - from[k - 1]) * (to[k] - to[k - 1]);
    }
    std::vector<double> x_, s_;
};

/// x of evenly spaced rows.
std::vector<double> rowsAlong(const Meridian& meridian, double rowStep, double x1_mm) {
    const int rows = std::max(4, static_cast<int>(std::lround(meridian.length() / rowStep)) + 1);
    std::vector<double> at(static_cast<std::size_t>(rows));
    for (int r = 0; r < rows; ++r)
        at[static_cast<std::size_t>(r)] = meridian.xAt(meridian.length() * r / (rows - 1));
    at.back() = x1_mm;
    return at;
}

/// Mean turn of the normals along rows and columns of a structured band.
void measureTurns(PatchMesh& patch, const std::vector<std::vector<int>>& rows) {
    const auto turn = [&](int a, int b) {
        return turnBetween(patch.mesh.vertices[static_cast<std::size_t>(a)],
                           patch.mesh.vertices[static_cast<std::size_t>(b)]);
    };
    double across = 0, along = 0;
    for (std::size_t r = 0; r < rows.size(); ++r) {
        for (std::size_t c = 0; c < rows[r].size(); ++c) {
            if (c > 0) across += turn(rows[r][c - 1], rows[r][c]);
            if (r > 0) along += turn(rows[r - 1][c], rows[r][c]);
        }
    }
    patch.turnAcross_rad = across / static_cast<double>(rows.size());
    patch.turnAlong_rad = along / static_cast<double>(rows.front().size());
}

/// The same of any mesh: the turn a millimetre along each direction of the chart, averaged over the area.
void measureTurns(PatchMesh& patch) {
    double across = 0, along = 0, all = 0;
    for (const Triangle& t : patch.mesh.triangles) {
        const auto v = [&](std::size_t k) { return static_cast<std::size_t>(t[k]); };
        Eigen::Matrix2d edges;
        edges << patch.chart[v(1)] - patch.chart[v(0)], patch.chart[v(2)] - patch.chart[v(0)];
        Eigen::Matrix<double, 3, 2> turns;
        turns << patch.mesh.vertices[v(1)].normal - patch.mesh.vertices[v(0)].normal,
            patch.mesh.vertices[v(2)].normal - patch.mesh.vertices[v(0)].normal;
        const double size = 0.5 * edges.determinant();
        if (!(size > 0)) continue;
        const Eigen::Matrix<double, 3, 2> rate = turns * edges.inverse();
        along += size * rate.col(0).norm();
        across += size * rate.col(1).norm();
        all += size;
    }
    patch.turnAcross_rad = across / all * patch.across_mm;
    patch.turnAlong_rad = along / all * patch.along_mm;
}

Status checkVertices(int vertices) {
    if (vertices >= kMinPatchVertices && vertices <= kMaxPatchVertices) return Done{};
    return Error{
        "out_of_range",
        Words(NINE_WORDS("core", "A mesh of {vertices} vertices was asked for; between 60 and 200000 work."))
            .number("vertices", vertices, 0),
        "vertices"};
}

}  // namespace

Result<PatchMesh> meshPatch(const Skin& skin, const Region& region, int vertices, const std::string& where) {
    if (const auto band = bandOf(region)) return meshPatch(skin, *band, vertices, where);
    return meshInTriangles(skin, region, vertices, where);
}

Result<PatchMesh> meshPatch(const Skin& skin, const BandPatch& band, int vertices, const std::string& where) {
    if (Status ok = checkVertices(vertices); !ok) return ok.error();
    if (Status ok = checkRegion(skin, bandRegion(band), where); !ok) return ok.error();
    PatchMesh result;
    if (Status ok = checkPoles(skin, band.x0_mm, band.x1_mm, where, result.warnings); !ok) return ok.error();
    const double width = band.g1_mm - band.g0_mm;
    const Meridian meridian(skin, band);
    const double step = std::sqrt(meridian.length() * width / vertices);
    const std::vector<double> xs = rowsAlong(meridian, step, band.x1_mm);
    const int columns = std::max(4, static_cast<int>(std::lround(vertices / static_cast<double>(xs.size()))));

    std::vector<std::vector<int>> rows;
    for (const double x : xs) {
        const SectionArc arc = skin.arcAt(x);
        std::vector<int> row;
        for (int c = 0; c < columns; ++c) {
            const double g = band.g0_mm + width * c / (columns - 1);
            row.push_back(static_cast<int>(result.skin.size()));
            result.skin.emplace_back(x, g);
            result.chart.emplace_back(
                meridian.length() * static_cast<double>(rows.size()) / static_cast<double>(xs.size() - 1), g);
            result.mesh.vertices.push_back(skin.at(arc, x, g, Side::Left));
        }
        rows.push_back(std::move(row));
    }
    // zipRows wants `upper` to the left of `lower`: with u along x and v along g, that is the smaller x.
    for (std::size_t r = 1; r < rows.size(); ++r) zipRows(result.mesh, rows[r], rows[r - 1], false);
    result.loops = borderLoops(result.mesh.triangles, result.chart);

    const double middle = 0.5 * (band.g0_mm + band.g1_mm);
    result.marks = {{band.x0_mm, middle}, {band.x1_mm, middle}};
    result.across_mm = width;
    result.along_mm = meridian.length();
    measureTurns(result, rows);
    return result;
}

Result<PatchMesh> meshInTriangles(const Skin& skin, const Region& region, int vertices,
                                  const std::string& where, const std::vector<SkinPlace>& places) {
    if (Status ok = checkVertices(vertices); !ok) return ok.error();
    if (Status ok = checkRegion(skin, region, where); !ok) return ok.error();
    const Box2 box = boxAround({region.outer});
    const BandPatch band{box.low.x(), box.high.x(), box.low.y(), box.high.y()};
    PatchMesh result;
    if (Status ok = checkPoles(skin, band.x0_mm, band.x1_mm, where, result.warnings); !ok) return ok.error();
    const Meridian meridian(skin, band);
    const auto charted = [&](const Polyline2& line) {
        Polyline2 there;
        for (const Vec2& p : line) there.emplace_back(meridian.sAt(p.x()), p.y());
        return there;
    };
    PlanePiece piece{charted(region.outer), {}, {}};
    PolygonSet open{piece.outer};
    for (const Polygon2& hole : region.holes) open.push_back(piece.holes.emplace_back(charted(hole)));
    for (const Slit& slit : region.slits) piece.slits.push_back(charted(slit.line));
    for (const SkinPlace& place : places) piece.points.push_back(charted({place}).front());
    // Evenly placed points with edges of h have an area of sqrt(3)/2 h^2 each.
    const double edge_mm = std::sqrt(2 / std::sqrt(3.0) * std::abs(area(open)) / vertices);
    Result<PlaneMesh> plane = triangulate(piece, edge_mm);
    if (!plane) {
        Error error = plane.error();
        error.where = where;
        return error;
    }
    result.chart = std::move(plane->points);
    result.mesh.triangles = std::move(plane->triangles);
    for (const Vec2& p : result.chart) {
        const double x = std::clamp(meridian.xAt(p.x()), band.x0_mm, band.x1_mm);
        result.skin.emplace_back(x, p.y());
        result.mesh.vertices.push_back(skin.at({Side::Left, x, p.y()}));
    }
    result.loops = borderLoops(result.mesh.triangles, result.chart);
    const double middle = 0.5 * (band.g0_mm + band.g1_mm);
    result.marks = {{band.x0_mm, middle}, {band.x1_mm, middle}};
    result.across_mm = box.size().y();
    result.along_mm = meridian.length();
    measureTurns(result);
    result.open = !region.holes.empty() || !region.slits.empty();
    return result;
}

Result<PatchMesh> meshPatch(const Skin& skin, const DiscPatch& disc, int vertices, const std::string& where) {
    // In one piece: rings, their chart and their measures share the directions from the centre.
    if (Status ok = checkVertices(vertices); !ok) return ok.error();
    const SkinPoint centrePoint{Side::Left, disc.x_mm, disc.g_mm};
    if (Status ok = skin.check(centrePoint, where); !ok) return ok.error();
    if (!(2 * disc.radius_mm >= kSmallestDisc_mm)) {
        return Error{"empty_patch",
                     Words(NINE_WORDS("core", "The disc's radius must be at least {least}."))
                         .length("least", 0.5 * kSmallestDisc_mm, 2),
                     where};
    }
    PatchMesh result;
    const SurfacePoint centre = skin.at(centrePoint);
    // Rings of 6, 12, 18, ... points: about 3 n^2 vertices with n rings, nearly equilateral.
    const int rings = std::max(4, static_cast<int>(std::lround(std::sqrt(vertices / 3.0))));
    std::vector<double> radii;
    for (int r = 1; r <= rings; ++r) radii.push_back(disc.radius_mm * r / rings);
    const auto basis = tangentBasis(centre.normal);
    // Along the skin, towards the tail and towards the back: the flat map then turns the same way as a
    // band's.
    Vec3 ahead = Vec3::UnitX() - centre.normal.x() * centre.normal;
    if (ahead.squaredNorm() < 1e-6) ahead = basis.col(0);
    ahead.normalize();
    const Vec3 up = ahead.cross(centre.normal);

    std::vector<std::vector<int>> ringOf(static_cast<std::size_t>(rings) + 1);
    const auto add = [&](const SurfacePoint& p, const Vec2& place) {
        result.mesh.vertices.push_back(p);
        result.chart.push_back(place);
        return static_cast<int>(result.mesh.vertices.size()) - 1;
    };
    ringOf[0] = {add(centre, Vec2::Zero())};
    for (int r = 1; r <= rings; ++r) {
        const std::size_t k = static_cast<std::size_t>(r);
        const int count = 6 * r;
        for (int i = 0; i < count; ++i) {
            const double angle = 2 * kPi * i / count;
            const Vec3 direction = std::cos(angle) * ahead + std::sin(angle) * up;
            ringOf[k].push_back(
                add(shootGeodesic(skin, centre, direction, {radii[k - 1]}, kShootingStep_mm)[0],
                    radii[k - 1] * Vec2(std::cos(angle), std::sin(angle))));
        }
        if (r == 1) {
            for (std::size_t i = 0; i < 6; ++i) {
                result.mesh.triangles.push_back({ringOf[0][0], ringOf[1][i], ringOf[1][(i + 1) % 6]});
            }
        } else {
            // Seen from outside, with angles growing to the left, the inner ring lies left of the outer one.
            zipRows(result.mesh, ringOf[k], ringOf[k - 1], true);
        }
    }

    double x0 = skin.tailX_mm(), x1 = skin.noseX_mm();
    for (const SurfacePoint& p : result.mesh.vertices) {
        if (!(p.position.x() > skin.noseX_mm() && p.position.x() < skin.tailX_mm())) {
            return Error{
                "off_body",
                NINE_WORDS("core", "The disc reaches over an end of the body; make it smaller or move it."),
                where};
        }
        const SkinPoint at = skin.locateNear(p.position, disc.g_mm);
        result.skin.emplace_back(at.x_mm, at.g_mm);
        x0 = std::min(x0, at.x_mm);
        x1 = std::max(x1, at.x_mm);
    }
    if (Status ok = checkPoles(skin, x0, x1, where, result.warnings); !ok) return ok.error();
    // A disc that reaches round the pole has vertices all round it although none lies on it.
    if (result.high().y() - result.low().y() > 0.98 * skin.arcAt(disc.x_mm).girth_mm()) {
        return Error{"over_pole", NINE_WORDS("core", "The disc reaches round the body; make it smaller."),
                     where};
    }

    const auto rim = [&](double angle) {
        const Vec3 direction = std::cos(angle) * ahead + std::sin(angle) * up;
        return shootGeodesic(skin, centre, direction, {disc.radius_mm}, kShootingStep_mm)[0];
    };
    const auto skinOf = [&](const SurfacePoint& p) {
        const SkinPoint at = skin.locateNear(p.position, disc.g_mm);
        return SkinPlace(at.x_mm, at.g_mm);
    };
    result.marks = {skinOf(rim(kPi)), skinOf(rim(0))};
    result.across_mm = result.along_mm = 2 * disc.radius_mm;
    result.loops = borderLoops(result.mesh.triangles, result.chart);
    result.turnAlong_rad = turnBetween(rim(0), centre) + turnBetween(centre, rim(kPi));
    result.turnAcross_rad = turnBetween(rim(0.5 * kPi), centre) + turnBetween(centre, rim(-0.5 * kPi));
    return result;
}

}  // namespace nine
