#include <Eigen/SVD>
#include <random>

#include "geom/carry.h"
#include "geom/distortion.h"
#include "geom/geodesic.h"
#include "tests/bodies.h"

namespace nine {
namespace {

TEST(Distortion, AgreesWithEigensSvd) {
    std::mt19937 random(7);
    std::normal_distribution<double> normal;
    for (int i = 0; i < 1000; ++i) {
        Mat2 F;
        F << normal(random), normal(random), normal(random), normal(random);
        const SignedSvd svd = signedSvd(F);
        const Eigen::JacobiSVD<Mat2> reference(F);
        EXPECT_NEAR(svd.s1, reference.singularValues()[0], 1e-12);
        EXPECT_NEAR(std::abs(svd.s2), reference.singularValues()[1], 1e-12);
        EXPECT_EQ(svd.s2 < 0, F.determinant() < 0);
        Mat2 S;
        S << svd.s1, 0, 0, svd.s2;
        EXPECT_NEAR((svd.U * S * svd.V.transpose() - F).norm(), 0, 1e-12);
        EXPECT_NEAR(svd.U.determinant(), 1, 1e-12);
        EXPECT_NEAR((nearestRotation(F).R - svd.U * svd.V.transpose()).norm(), 0, 1e-9);
    }
}

TEST(ArcLength, IsExactOnSpheresAndCylinders) {
    const Skin ball = test::sphere(10);
    const SurfacePoint a = ball.project({8, 6, 3}), b = ball.project({9.5, 6.5, 2});
    const Vec3 centre(10, 0, 0);
    const double angle = std::acos((a.position - centre).dot(b.position - centre) / 100);
    EXPECT_NEAR(arcLength_mm(a, b), 10 * angle, 1e-9);
    const Skin tube = test::cylinder(9, 60);
    const SurfacePoint c = tube.at({Side::Left, 20, 1}), d = tube.at({Side::Left, 21, 2.5});
    EXPECT_NEAR(arcLength_mm(c, d), std::hypot(1, 1.5), 1e-9);
}

TEST(Geodesic, GreatCircleOfASphere) {
    const Skin ball = test::sphere(10);
    const SurfacePoint a = ball.project({4, 5, 6}), b = ball.project({16, 7, -3});
    const Vec3 centre(10, 0, 0);
    const double angle =
        std::acos((a.position - centre).normalized().dot((b.position - centre).normalized()));
    const Geodesic way = geodesicNear(ball, resampled(ball, {a, b}, 16), 128);
    EXPECT_NEAR(way.length_mm, 10 * angle, 1e-7);
}

TEST(Geodesic, ShotComesBackOnASphere) {
    const Skin ball = test::sphere(10);
    const SurfacePoint from = ball.project({10, 10, 0});
    const auto round = shootGeodesic(ball, from, Vec3(1, 0, 1), {10 * kPi, 20 * kPi}, 0.05);
    EXPECT_NEAR((round[0].position - Vec3(10, -10, 0)).norm(), 0, 2e-3);
    EXPECT_NEAR((round[1].position - from.position).norm(), 0, 4e-3);
}

TEST(Carrier, IsExactForQuadraticMapsOfAPlaneLikePatch) {
    const Skin tube = test::cylinder(1000, 60);  // nearly a plane
    FlatPairs pairs;
    const auto flatOf = [](double x, double g) { return Vec2(x + 0.01 * g * g, 1.1 * g - 0.02 * x * g); };
    for (double x = 10; x <= 30; x += 0.7) {
        for (double g = -7; g <= 7; g += 0.7) {
            pairs.skin.push_back(tube.at({Side::Left, x, g}));
            pairs.flat.push_back(flatOf(x, g));
        }
    }
    const SheetCarrier sheet(pairs);
    for (double x = 10.3; x < 30; x += 2.1) {
        for (double g = -6.9; g < 7; g += 1.3) {
            EXPECT_NEAR((sheet.at(tube.at({Side::Left, x, g})) - flatOf(x, g)).norm(), 0, 1e-4);
        }
    }
}

TEST(Carrier, DoesNotMixTheTwoSidesOfAThinBody) {
    const Skin thin =
        test::skinOf({{0, 8, 8, 0.5, 2, 2, {}}, {30, 8, 8, 0.5, 2, 2, {}}, {60, 8, 8, 0.5, 2, 2, {}}});
    FlatPairs pairs;
    for (const Side side : {Side::Left, Side::Right}) {
        for (double x = 10; x <= 20; x += 0.5) {
            for (double g = -4; g <= 4; g += 0.5) {
                pairs.skin.push_back(thin.at({side, x, g}));
                pairs.flat.emplace_back(side == Side::Left ? x : -x, g);
            }
        }
    }
    EXPECT_NEAR(SheetCarrier(pairs).at(thin.at({Side::Right, 15.2, 1.1})).x(), -15.2, 1e-3);
}

}  // namespace
}  // namespace nine
