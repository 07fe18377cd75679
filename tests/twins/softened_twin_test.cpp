// A lattice of many windows taken as a softer sheet, against the same lattice with every web meshed.
#include <gtest/gtest.h>

#include <Eigen/Geometry>

#include "mask/perforate.h"
#include "tests/bodies.h"

namespace nine {
namespace {

using namespace test;

struct Lattice {
    Region region, cut;
    std::vector<SkinPlace> middles;
};

/// Round holes in rows set off by half, in the upper half of a band only: one half is soft, the other not.
Lattice holesIn(const BandPatch& band, double pitch_mm, double radius_mm, double from_mm) {
    constexpr int kCorners = 14;
    Lattice lattice{bandRegion(band), bandRegion(band), {}};
    int row = 0;
    for (double g = from_mm; g < band.g1_mm - pitch_mm; g += 0.866 * pitch_mm, ++row)
        for (double x = band.x0_mm + (row % 2 ? 1.5 : 1.0) * pitch_mm; x < band.x1_mm - pitch_mm;
             x += pitch_mm) {
            Polygon2 hole;
            for (int k = 0; k < kCorners; ++k)
                hole.push_back(Vec2(x, g) + radius_mm * Vec2(std::cos(-2 * kPi * k / kCorners),
                                                             std::sin(-2 * kPi * k / kCorners)));
            lattice.cut.holes.push_back(hole);
            lattice.middles.emplace_back(x, g);
        }
    return lattice;
}

/// Where the middles of the holes lie on the flat sheet; those of holes in the mesh by their rims.
std::vector<Vec2> middlesOn(const Skin& skin, const Lattice& lattice, const FlatPatch& flat) {
    std::vector<Vec2> all;
    const SheetMap map = sheetMapOf(flat);
    for (std::size_t h = 0; h < lattice.middles.size(); ++h) {
        Vec2 sum = Vec2::Zero();
        int found = 0;
        for (const Vec2& p : lattice.cut.holes[h])
            if (const auto at = map.at(SkinPlace(p), skin.at({Side::Left, p.x(), p.y()}), 0.1)) {
                sum += *at;
                ++found;
            }
        EXPECT_GT(found, 10);
        all.push_back(sum / std::max(found, 1));
    }
    return all;
}

/// When one is laid over the other as well as it goes.
double apart_mm(const std::vector<Vec2>& a, const std::vector<Vec2>& b) {
    Eigen::Matrix2Xd from(2, a.size()), to(2, a.size());
    for (std::size_t i = 0; i < a.size(); ++i) {
        from.col(static_cast<Eigen::Index>(i)) = a[i];
        to.col(static_cast<Eigen::Index>(i)) = b[i];
    }
    const Eigen::Matrix3d turn = Eigen::umeyama(from, to, false);
    const Eigen::Matrix2Xd moved =
        (turn.topLeftCorner<2, 2>() * from).colwise() + turn.topRightCorner<2, 1>();
    return std::sqrt((moved - to).squaredNorm() / static_cast<double>(a.size()));
}

TEST(Softened, LiesWhereEveryWebMeshedPutsIt) {
    for (const char* name : {"sedge60", "sorrel70"}) {
        SCOPED_TRACE(name);
        const Skin skin = sampleSkin(name);
        const BandPatch band{14, 50, -13, 13};
        const Lattice lattice = holesIn(band, 2.4, 0.98, 0);
        ASSERT_GT(lattice.middles.size(), 40u);
        PatchMesh mesh = need(meshPatch(skin, lattice.region, 1500, ""));
        mesh.marks = {{19, 0}, {47, 0}};
        const auto whole = std::make_shared<const FlatPatch>(need(flattenPatch(std::move(mesh))));
        const PerforatedPatch webs = need(perforatedPatch(skin, whole, lattice.cut, 2000, "", {}, 1000000));
        const PerforatedPatch soft = need(perforatedPatch(skin, whole, lattice.cut, 1500, "", {}, 0));
        ASSERT_TRUE(webs.balanced);
        ASSERT_TRUE(soft.balanced);
        EXPECT_EQ(webs.flat.patch.rims.size(), lattice.middles.size());
        EXPECT_TRUE(soft.flat.patch.rims.empty());
        const auto truth = middlesOn(skin, lattice, webs.flat);
        const double off = apart_mm(middlesOn(skin, lattice, soft.flat), truth),
                     uncut = apart_mm(middlesOn(skin, lattice, *whole), truth);
        EXPECT_LT(off, kSoftenedOff_mm * soft.flat.strain.max);
        EXPECT_LT(off, 0.65 * uncut);
        EXPECT_GT(uncut, 0.01);  // there is something to get wrong
    }
}

TEST(Softened, ShareOfASquareLatticeIsItsClosedForm) {
    const Polygon2 outer{{0, 0}, {60, 0}, {60, 40}, {0, 40}};
    PolygonSet holes;
    for (double x = 2.5; x < 30; x += 2)
        for (double y = 2.5; y < 39; y += 2)
            holes.push_back({{x, y}, {x + 1, y}, {x + 1, y + 1}, {x, y + 1}});
    const SolidShare solid(outer, holes);
    for (double x = 8; x < 24; x += 0.37) EXPECT_NEAR(solid.at({x, 20 + 0.3 * x}), 0.75, 0.03) << x;
    EXPECT_DOUBLE_EQ(solid.at({50, 20}), 1);
    EXPECT_GT(solid.at({31, 20}), 0.8);
    EXPECT_DOUBLE_EQ(solid.stiffnessAt({50, 20}), 1);
    EXPECT_LT(solid.stiffnessAt({15, 20}), 0.6);
}

TEST(Softened, TheLandingTellsAMapThatForgetsTheLattice) {
    const Skin skin = sampleSkin("sedge60");
    const BandPatch band{18, 48, -9, 9};
    const Lattice lattice = holesIn(band, 2.2, 0.85, -1);
    PatchMesh mesh = need(meshPatch(skin, lattice.region, 1500, ""));
    mesh.marks = {{19, 0}, {47, 0}};
    const auto whole = std::make_shared<const FlatPatch>(need(flattenPatch(std::move(mesh))));
    const PerforatedPatch soft = need(perforatedPatch(skin, whole, lattice.cut, 1500, "", {}, 0));
    FlatPatch forgets = *whole;
    forgets.openings = soft.flat.openings;
    std::vector<Probe> probes;
    for (const SkinPlace& p : lattice.middles) probes.push_back({skin.at({Side::Left, p.x(), p.y()}), p});
    const auto missed = [&](const FlatPatch& flat) {
        return landingOf(need(judgeFit(skin, flat, LaidOn(1), Laying::Loose, probes)).landed).rms_mm;
    };
    const double right = missed(soft.flat), wrong = missed(forgets);
    EXPECT_LT(right, 0.01);
    EXPECT_GT(wrong, 5 * right);
    // What the check shares with the map is told with it.
    EXPECT_GT(need(judgeFit(skin, soft.flat, LaidOn(1), Laying::Loose, probes)).landing.rms_mm,
              0.5 * kSoftenedOff_mm * soft.flat.strain.max);
}

/// Many rings are joined before they are grown: the sheet round them stays what it is round a few.
TEST(Softened, TheSheetRoundManyRingsIsThatRoundAFew) {
    const Skin skin = cylinder(14, 90);
    PolygonSet few, many;
    for (double x = 25; x < 66; x += 4) {
        few.push_back({{x, -6}, {x + 3, -6}, {x + 3, 6}, {x, 6}});
        for (double g = -6; g < 6; g += 1.5)  // the same bars in eight pieces
            many.push_back({{x, g}, {x + 3, g}, {x + 3, g + 1.4}, {x, g + 1.4}});
        many.back()[2].y() = many.back()[3].y() = 6;
    }
    ASSERT_GT(many.size(), 60u);
    Warnings none;
    const Region a = need(regionAround(skin, few, 5, "", none)),
                 b = need(regionAround(skin, many, 5, "", none));
    EXPECT_LT(area(subtracted({a.outer}, {b.outer})) + area(subtracted({b.outer}, {a.outer})), 0.8);
    const Box2 box = boxAround({b.outer});
    EXPECT_NEAR(box.low.x(), 20, 0.05);
    EXPECT_NEAR(box.high.y(), 11, 0.05);
}

}  // namespace
}  // namespace nine
