// The accuracy tables of the headers of the numerical rooms, computed: each against a surface or a map whose
// answer is known.
#include <cmath>
#include <cstdio>
#include <random>

#include "base/units.h"
#include "geom/carry.h"
#include "geom/geodesic.h"
#include "geom/rewrap.h"
#include "geom/sheet_map.h"
#include "geom/triangulate.h"
#include "mask/fit.h"
#include "tests/bodies.h"

namespace nine {
namespace {

using namespace test;

class Sphere : public Surface {
  public:
    double level(const Vec3& p, Vec3& gradient) const override {
        gradient = 2 * p;
        return p.squaredNorm() - kRadius * kRadius;
    }
    /// The map that keeps distances and directions from the top (azimuthal equidistant).
    SurfacePoint under(const Vec2& flat) const {
        const double m = flat.norm(), angle = m / kRadius;
        const Vec2 way = m > 0 ? Vec2(flat / m) : Vec2(1, 0);
        return project(kRadius * Vec3(std::sin(angle) * way.x(), std::sin(angle) * way.y(), std::cos(angle)));
    }
    static constexpr double kRadius = 20;
};

class Tube : public Surface {
  public:
    double level(const Vec3& p, Vec3& gradient) const override {
        gradient = Vec3(0, 2 * p.y(), 2 * p.z());
        return p.y() * p.y() + p.z() * p.z() - kRadius * kRadius;
    }
    SurfacePoint under(const Vec2& flat) const {
        const double turn = flat.y() / kRadius;
        return project(Vec3(flat.x(), kRadius * std::cos(turn), kRadius * std::sin(turn)));
    }
    static constexpr double kRadius = 9;
};

void geodesics() {
    const Sphere sphere;
    const SurfacePoint a = sphere.under({0, 0}), b = sphere.under({14, 17.5}), between = sphere.under({9, 3});
    const double exact = sphere.kRadius * std::acos(a.normal.dot(b.normal));
    std::printf("geodesicNear, sphere of 20 mm, %.1f mm apart: pieces, error mm\n", exact);
    for (const int pieces : {8, 16, 32, 64}) {
        const Geodesic way = geodesicNear(sphere, resampled(sphere, {a, between, b}, pieces), pieces);
        std::printf("%6d %.1e\n", pieces, std::abs(way.length_mm - exact));
    }
    std::printf("shootGeodesic, the same sphere, 10 mm: step mm, error mm\n");
    for (const double step : {2.0, 1.0, 0.5, 0.25, 0.1}) {
        const Vec3 tangent = Vec3(1, 0.4, 0).normalized();
        const Vec3 end = sphere.kRadius *
                         (std::cos(10 / sphere.kRadius) * a.normal + std::sin(10 / sphere.kRadius) * tangent);
        const SurfacePoint shot = shootGeodesic(sphere, a, tangent, {10}, step)[0];
        std::printf("%6.2f %.1e\n", step, (shot.position - end).norm());
    }
}

void loft() {
    std::printf(
        "loft through readings of r = 12 sin(pi t)^0.7 (1 - 0.3 t), 60 mm: stations, error mm, but for 3 mm "
        "at the ends\n");
    const auto radius = [](double x) {
        return 12 * std::pow(std::sin(kPi * x / 60), 0.7) * (1 - 0.3 * x / 60);
    };
    for (const int count : {6, 8, 11, 15, 21, 31}) {
        std::vector<Station> stations;
        for (int i = 0; i < count; ++i) {
            const bool end = i == 0 || i == count - 1;
            const double x = 30 * (1 - std::cos(kPi * i / (count - 1)));
            stations.push_back(round(end ? (i == 0 ? 0 : 60) : x, end ? 0 : radius(x)));
        }
        const Skin skin = skinOf(stations);
        double worst = 0, inside = 0;
        for (double x = 0.5; x < 59.5; x += 0.05) {
            const double off = std::abs(skin.arcAt(x).girth_mm() / (2 * kPi) - radius(x));
            worst = std::max(worst, off);
            if (x > 3 && x < 57) inside = std::max(inside, off);
        }
        std::printf("%6d %.3f %.3f\n", count, worst, inside);
    }
}

void carrying() {
    const Sphere sphere;
    std::mt19937 random(1);
    const auto share = [&] { return random() / 4294967296.0; };
    std::printf("SheetCarrier, azimuthal map of the sphere: spacing mm, error mm\n");
    for (const double h : {0.35, 0.7, 1.0, 1.4, 2.0}) {
        FlatPairs pairs;
        for (int row = 0; row * h * 0.866 <= 20; ++row) {
            for (double x = -10 + (row % 2) * h / 2; x <= 10; x += h) {
                const Vec2 flat(x, -10 + row * h * 0.866);
                if (flat.norm() > 10) continue;
                pairs.flat.push_back(flat);
                pairs.skin.push_back(sphere.under(flat));
            }
        }
        const SheetCarrier carrier(std::move(pairs));
        double worst = 0;
        for (int i = 0; i < 2000; ++i) {
            const double angle = 2 * kPi * share(), m = 8 * std::sqrt(share());
            const Vec2 flat(m * std::cos(angle), m * std::sin(angle));
            worst = std::max(worst, (carrier.at(sphere.under(flat)) - flat).norm());
        }
        std::printf("%6.2f %.1e\n", h, worst);
    }
}

void mapping() {
    const Sphere sphere;
    std::mt19937 random(1);
    const auto share = [&] { return random() / 4294967296.0; };
    std::printf("SheetMap, azimuthal map of the sphere: mean edge mm, error mm\n");
    Polygon2 disc;
    for (int i = 0; i < 120; ++i)
        disc.emplace_back(10 * std::cos(2 * kPi * i / 120), 10 * std::sin(2 * kPi * i / 120));
    for (const double h : {0.35, 0.7, 1.0, 1.4, 2.0}) {
        const PlaneMesh plane = need(triangulate({disc, {}, {}}, h));
        SheetMesh mesh{{}, plane.triangles};
        for (const Vec2& p : plane.points) mesh.vertices.push_back(sphere.under(p));
        const SheetMap map(mesh, plane.points, plane.points);
        double worst = 0;
        for (int i = 0; i < 2000; ++i) {
            const double angle = 2 * kPi * share(), m = 8 * std::sqrt(share());
            const SkinPlace at(m * std::cos(angle), m * std::sin(angle));
            worst = std::max(worst, (*map.at(at, sphere.under(at)) - at).norm());
        }
        std::printf("%6.2f %.1e\n", h, worst);
    }
}

void flattening() {
    std::printf(
        "flattenPatch: vertices, strain of a cylinder, of a cone (both 0), of a disc of 8 mm on a sphere of "
        "20\n");
    for (const int vertices : {250, 500, 1000, 2000, 4000}) {
        const auto strain = [&](const Skin& skin, auto patch) {
            return need(flattenPatch(need(meshPatch(skin, patch, vertices, "patch")))).strain.max;
        };
        std::printf("%6d %.0e %.0e %.5f\n", vertices, strain(cylinder(9, 60), BandPatch{15, 45, -8, 8}),
                    strain(cone(6, 11, 60), BandPatch{15, 45, -8, 8}),
                    strain(sphere(20), DiscPatch{20, 0, 8}));
    }
}

void landing() {
    const Tube tube;
    std::printf("LaidSheet, exact map of a cylinder of 9 mm: spacing of the pairs mm, error mm\n");
    for (const double h : {0.5, 0.8, 1.2, 2.0}) {
        FlatPairs pairs;
        for (double x = 0; x <= 30; x += h) {
            for (double y = -8; y <= 8; y += h) {
                pairs.flat.emplace_back(x, y);
                pairs.skin.push_back(tube.under(pairs.flat.back()));
            }
        }
        std::vector<HeldMark> marks;
        for (const double x : {2.0, 28.0}) marks.push_back({{x, 0}, tube.under({x, 0}).position});
        const LaidSheet laid = need(LaidSheet::lay(tube, pairs, marks, Laying::Loose));
        double worst = 0;
        for (double x = 3; x < 28; x += 1.3)
            for (double y = -7; y <= 7; y += 1.1)
                worst = std::max(worst, (laid.at({x, y}) - tube.under({x, y}).position).norm());
        std::printf("%6.1f %.1e\n", h, worst);
    }
}

}  // namespace
}  // namespace nine

int main() {
    nine::geodesics();
    nine::loft();
    nine::carrying();
    nine::mapping();
    nine::flattening();
    nine::landing();
}
