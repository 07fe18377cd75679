// A sphere cut into panels from pole to pole, as globes are covered: how wide a panel is at each latitude.
#include <gtest/gtest.h>

#include <sstream>

#include "mask/fit.h"
#include "mask/mask_kind.h"
#include "tests/bodies.h"

namespace nine {
namespace {

using namespace test;

/// Oracle: PROJ, Cassini's projection of the sphere, which keeps lengths along the middle of a panel and
/// across it: what globe makers print. A relaxed sheet is a little narrower, less than its own stretch.
TEST(Gores, PanelsOfASphereAreAsWideAsPrintedGores) {
    NINE_NEED_PROGRAM("proj");
    constexpr double kR = 20;
    const Skin ball = spheroid(kR, kR, 31);
    for (const int panels : {8, 12, 18}) {
        const Strip panel{0.1 * kR, 1.9 * kR, [panels](const SectionArc& arc) {
                              const double half = arc.girth_mm() / (2 * panels);
                              return Crossing{-half, 0, half};
                          }};
        SheetPlan plan = sheetOf(ball, panel);
        PatchMesh mesh = need(meshPatch(ball, plan.region, 2500, ""));
        mesh.marks = plan.marks;
        const FlatPatch flat = need(flattenPatch(std::move(mesh)));
        const SheetMap map = sheetMapOf(flat);
        for (const double latitude : {-50.0, -30.0, 0.0, 20.0, 40.0, 60.0}) {
            const double x = kR * (1 + std::sin(degToRad(latitude)));
            const double g = kPi / panels * kR * std::cos(degToRad(latitude));
            const auto placeAt = [&](double way) {
                const SkinPlace at(x, way * (g - 1e-3));
                const auto place = map.at(at, ball.at({Side::Left, at.x(), at.y()}), 0.02);
                if (!place) throw std::runtime_error("off the panel");
                return Vec2(*place);
            };
            std::ostringstream query;
            query << "echo '" << 180.0 / panels << ' ' << latitude << "' | proj +proj=cass +R=" << kR
                  << " -f %.6f | awk '{print $1}'";
            const double printed = 2 * std::stod(shell(query.str()).out);
            EXPECT_NEAR((placeAt(1) - placeAt(-1)).norm() / printed, 1, 0.01)
                << panels << " panels, latitude " << latitude;
        }
    }
}

}  // namespace
}  // namespace nine
