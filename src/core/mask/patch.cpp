#include "mask/patch.h"

#include <algorithm>
#include <cmath>

#include "base/number_text.h"
#include "base/units.h"
#include "geom/geodesic.h"

namespace nine {
namespace {

constexpr double kSmallestPatch_mm = 0.5;
constexpr int kMeridianSamples = 200;
constexpr int kMeridians = 5;
constexpr double kShootingStep_mm = 0.1;  // second order: error about 1e-4 mm over 20 mm at radius 10

/// Too near a pole is an error, rather near a warning.
Status checkPoles(const Skin& skin, double x0, double x1, const std::string& where, Warnings& warnings) {
    const auto distance = [&](bool nose) {
        return (nose ? x0 - skin.noseX() : skin.tailX() - x1) / skin.length_mm();
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

/// x of evenly spaced rows along the longest of a few meridians of constant g, and that meridian's length.
std::pair<std::vector<double>, double> rowsAlongMeridian(const Skin& skin, const BandPatch& patch,
                                                         double rowStep) {
    std::vector<double> x(kMeridianSamples + 1), longest(kMeridianSamples + 1, 0.0);
    std::vector<std::vector<SurfacePoint>> lines(kMeridians);
    for (std::size_t k = 0; k < x.size(); ++k) {
        const double t = static_cast<double>(k) / kMeridianSamples;
        x[k] = (1 - t) * patch.x0_mm + t * patch.x1_mm;
        const SectionArc arc = skin.arcAt(x[k]);
        for (std::size_t m = 0; m < lines.size(); ++m) {
            const double s = static_cast<double>(m) / (kMeridians - 1);
            lines[m].push_back(skin.at(arc, x[k], (1 - s) * patch.g0_mm + s * patch.g1_mm, Side::Left));
        }
    }
    for (std::size_t k = 1; k < x.size(); ++k) {
        double step = 0;
        for (const auto& line : lines) step = std::max(step, arcLength(line[k - 1], line[k]));
        longest[k] = longest[k - 1] + step;
    }
    const int rows = std::max(4, static_cast<int>(std::lround(longest.back() / rowStep)) + 1);
    std::vector<double> at(static_cast<std::size_t>(rows));
    for (int r = 0; r < rows; ++r) {
        const double wanted = longest.back() * r / (rows - 1);
        const auto above = std::upper_bound(longest.begin() + 1, longest.end() - 1, wanted);
        const auto k = static_cast<std::size_t>(above - longest.begin());
        at[static_cast<std::size_t>(r)] =
            x[k - 1] + (wanted - longest[k - 1]) / (longest[k] - longest[k - 1]) * (x[k] - x[k - 1]);
    }
    at.back() = patch.x1_mm;
    return {at, longest.back()};
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

Status checkVertices(int vertices) {
    if (vertices >= kMinPatchVertices && vertices <= kMaxPatchVertices) return Done{};
    return Error{
        "out_of_range",
        Words(NINE_WORDS("core", "A mesh of {vertices} vertices was asked for; between 60 and 200000 work."))
            .number("vertices", vertices, 0),
        "vertices"};
}

}  // namespace

Result<PatchMesh> meshPatch(const Skin& skin, const BandPatch& band, int vertices, const std::string& where) {
    if (Status ok = checkVertices(vertices); !ok) return ok.error();
    const double width = band.g1_mm - band.g0_mm;
    if (!(band.x1_mm - band.x0_mm >= kSmallestPatch_mm) || !(width >= kSmallestPatch_mm)) {
        return Error{"empty_patch",
                     Words(NINE_WORDS("core",
                                      "The patch is empty or narrower than {least}; give x and g from the "
                                      "smaller to the larger."))
                         .length("least", kSmallestPatch_mm, 1),
                     where};
    }
    PatchMesh result;
    for (const double x : {band.x0_mm, band.x1_mm}) {
        for (const double g : {band.g0_mm, band.g1_mm}) {
            if (Status ok = skin.check({Side::Left, x, g}, where); !ok) return ok.error();
        }
    }
    if (Status ok = checkPoles(skin, band.x0_mm, band.x1_mm, where, result.warnings); !ok) return ok.error();
    // More than once round is no patch: the sheet would cover itself.
    for (int i = 0; i <= 20; ++i) {
        const double x = band.x0_mm + (band.x1_mm - band.x0_mm) * i / 20;
        const SectionArc arc = skin.arcAt(x);
        const bool outside = band.g0_mm < -2 * arc.bellyArc() || band.g1_mm > 2 * arc.backArc();
        if (outside || width > 0.98 * arc.girth()) {
            return Error{
                "off_body",
                Words(NINE_WORDS("core",
                                 "At x = {x} the patch is wider than the body allows: the girth there is "
                                 "{girth} and the patch is {width} wide."))
                    .length("x", x, 1)
                    .length("girth", arc.girth(), 1)
                    .length("width", width, 1),
                where};
        }
    }

    // A first pass only measures the length; the spacing then follows from the area.
    const double length = rowsAlongMeridian(skin, band, 1e9).second;
    const double step = std::sqrt(length * width / vertices);
    const auto [xs, meridian] = rowsAlongMeridian(skin, band, step);
    const int columns = std::max(4, static_cast<int>(std::lround(vertices / static_cast<double>(xs.size()))));

    std::vector<std::vector<int>> rows;
    for (const double x : xs) {
        const SectionArc arc = skin.arcAt(x);
        std::vector<int> row;
        for (int c = 0; c < columns; ++c) {
            const double g = band.g0_mm + width * c / (columns - 1);
            row.push_back(static_cast<int>(result.skin.size()));
            result.skin.emplace_back(x, g);
            result.mesh.vertices.push_back(skin.at(arc, x, g, Side::Left));
        }
        rows.push_back(std::move(row));
    }
    // zipRows wants `upper` to the left of `lower`: with u along x and v along g, that is the smaller x.
    for (std::size_t r = 1; r < rows.size(); ++r) zipRows(result.mesh, rows[r], rows[r - 1], false);

    const double middle = 0.5 * (band.g0_mm + band.g1_mm);
    result.markA = Vec2(band.x0_mm, middle);
    result.markB = Vec2(band.x1_mm, middle);
    result.low = Vec2(band.x0_mm, band.g0_mm);
    result.high = Vec2(band.x1_mm, band.g1_mm);
    result.width_mm = width;
    result.length_mm = meridian;
    measureTurns(result, rows);
    return result;
}

Result<PatchMesh> meshPatch(const Skin& skin, const DiscPatch& disc, int vertices, const std::string& where) {
    if (Status ok = checkVertices(vertices); !ok) return ok.error();
    const SkinPoint centrePoint{Side::Left, disc.x_mm, disc.g_mm};
    if (Status ok = skin.check(centrePoint, where); !ok) return ok.error();
    if (!(2 * disc.radius_mm >= kSmallestPatch_mm)) {
        return Error{"empty_patch",
                     Words(NINE_WORDS("core", "The disc's radius must be at least {least}."))
                         .length("least", 0.5 * kSmallestPatch_mm, 2),
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
    const auto add = [&](const SurfacePoint& p) {
        result.mesh.vertices.push_back(p);
        return static_cast<int>(result.mesh.vertices.size()) - 1;
    };
    ringOf[0] = {add(centre)};
    for (int r = 1; r <= rings; ++r) {
        const std::size_t k = static_cast<std::size_t>(r);
        const int count = 6 * r;
        for (int i = 0; i < count; ++i) {
            const double angle = 2 * kPi * i / count;
            const Vec3 direction = std::cos(angle) * ahead + std::sin(angle) * up;
            ringOf[k].push_back(
                add(shootGeodesic(skin, centre, direction, {radii[k - 1]}, kShootingStep_mm)[0]));
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

    result.low = Vec2(1e300, 1e300);
    result.high = -result.low;
    double x0 = skin.tailX(), x1 = skin.noseX();
    for (const SurfacePoint& p : result.mesh.vertices) {
        if (!(p.position.x() > skin.noseX() && p.position.x() < skin.tailX())) {
            return Error{
                "off_body",
                NINE_WORDS("core", "The disc reaches over an end of the body; make it smaller or move it."),
                where};
        }
        const SkinPoint at = skin.locateNear(p.position, disc.g_mm);
        result.skin.emplace_back(at.x_mm, at.g_mm);
        result.low = result.low.cwiseMin(result.skin.back());
        result.high = result.high.cwiseMax(result.skin.back());
        x0 = std::min(x0, at.x_mm);
        x1 = std::max(x1, at.x_mm);
    }
    if (Status ok = checkPoles(skin, x0, x1, where, result.warnings); !ok) return ok.error();
    // A disc that reaches round the pole has vertices all round it although none lies on it.
    if (result.high.y() - result.low.y() > 0.98 * skin.arcAt(disc.x_mm).girth()) {
        return Error{"over_pole", NINE_WORDS("core", "The disc reaches round the body; make it smaller."),
                     where};
    }

    const auto rim = [&](double angle) {
        const Vec3 direction = std::cos(angle) * ahead + std::sin(angle) * up;
        return shootGeodesic(skin, centre, direction, {disc.radius_mm}, kShootingStep_mm)[0];
    };
    const auto skinOf = [&](const SurfacePoint& p) {
        const SkinPoint at = skin.locateNear(p.position, disc.g_mm);
        return Vec2(at.x_mm, at.g_mm);
    };
    result.markA = skinOf(rim(kPi));
    result.markB = skinOf(rim(0));
    result.width_mm = result.length_mm = 2 * disc.radius_mm;
    result.turnAlong_rad = turnBetween(rim(0), centre) + turnBetween(centre, rim(kPi));
    result.turnAcross_rad = turnBetween(rim(0.5 * kPi), centre) + turnBetween(centre, rim(-0.5 * kPi));
    return result;
}

}  // namespace nine
