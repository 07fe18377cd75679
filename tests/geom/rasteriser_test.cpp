#include <random>

#include "geom/rasteriser.h"
#include "pattern/skin_picture.h"
#include "tests/bodies.h"
#include "tests/elements.h"

namespace nine {
namespace {

using namespace test;

int drawnPixels(const Rendered& r) {
    return static_cast<int>(
        std::count_if(r.texture.begin(), r.texture.end(), [](const Vec2& t) { return t.x() >= 0; }));
}

TEST(Rasteriser, ASphereCoversItsCircleFromEverySide) {
    const DrawnBody ball = drawBody(sphere(20));
    const Image white{1, 1, {0xFFFFFFFFu}};
    std::mt19937 random(2);
    std::uniform_real_distribution<double> angle(-1.5, 1.5);
    for (int i = 0; i < 8; ++i) {
        View3 view;
        view.yaw_rad = 2 * angle(random);
        view.pitch_rad = angle(random);
        view.target = Vec3(20, 0, 0);
        view.pixelsPerMm = 5;
        const Rendered r = render(ball.mesh, white, view, 240, 240, 1);
        EXPECT_NEAR(drawnPixels(r), kPi * 100 * 100, 0.01 * kPi * 100 * 100);
    }
}

TEST(Rasteriser, SamplesDoNotMoveThePicture) {
    const DrawnBody ball = drawBody(sphere(20));
    const Image white{1, 1, {0xFFFFFFFFu}};
    View3 view;
    view.target = Vec3(20, 0, 0);
    view.pixelsPerMm = 3;
    view.distance_mm = 300;
    const Rendered one = render(ball.mesh, white, view, 160, 160, 1),
                   two = render(ball.mesh, white, view, 160, 160, 2);
    EXPECT_NEAR(drawnPixels(one), drawnPixels(two), 0.05 * drawnPixels(one));
    EXPECT_EQ(one.image.at(80, 80) >> 24, 255u);
    EXPECT_EQ(one.image.at(1, 1), 0u);
}

TEST(Rasteriser, ProjectionAndPickAgreeWithTheDrawing) {
    const Skin skin = sampleSkin("sedge60");
    const DrawnBody body = drawBody(skin);
    const Image white{1, 1, {0xFFFFFFFFu}};
    View3 view;
    view.yaw_rad = 0.3;
    view.pitch_rad = 0.2;
    view.target = Vec3(30, 0, 0);
    view.pixelsPerMm = 8;
    view.distance_mm = 400;
    const Rendered r = render(body.mesh, white, view, 700, 500, 1);
    int seen = 0;
    for (double x = 6; x < 55; x += 3) {
        for (double g = -15; g < 15; g += 3) {
            const SkinPoint point{Side::Left, x, g};
            if (!skin.check(point, "")) continue;
            const SurfacePoint at = skin.at(point);
            if (facing(view, at) < 0.3) continue;
            const Vec2 pixel = projected(view, 700, 500, at.position);
            const Vec2 uv =
                r.texture[static_cast<std::size_t>(pixel.y()) * 700 + static_cast<std::size_t>(pixel.x())];
            ASSERT_GE(uv.x(), 0);
            const SkinPoint picked = body.skinAt(uv);
            EXPECT_NEAR((skin.at(picked).position - at.position).norm(), 0, 0.35);
            ++seen;
        }
    }
    EXPECT_GT(seen, 60);
}

TEST(Rasteriser, ViewsShowTheSidesTheyAreNamedFor) {
    View3 left, right, back;
    right.yaw_rad = kPi;
    back.pitch_rad = kPi / 2;
    const Vec3 nose(-10, 0, 0), port(0, 10, 0), up(0, 0, 10);
    EXPECT_LT(projected(left, 100, 100, nose).x(), 50);   // nose at the left
    EXPECT_GT(projected(right, 100, 100, nose).x(), 50);  // nose at the right
    EXPECT_LT(projected(left, 100, 100, up).y(), 50);
    EXPECT_GT(projected(back, 100, 100, port).y(), 50);  // from above the fish's left is below
    EXPECT_GT(facing(left, {port, Vec3::UnitY()}), 0.99);
    EXPECT_LT(facing(right, {port, Vec3::UnitY()}), -0.99);
    EXPECT_GT(facing(back, {up, Vec3::UnitZ()}), 0.99);
}

TEST(Rasteriser, AnEyeInsideTheBodyIsClippedNotCrashed) {
    const DrawnBody body = drawBody(sampleSkin("willow104"));
    const Image white{1, 1, {0xFFFFFFFFu}};
    for (const double distance : {0.5, 2.0, 5.0, 12.0}) {
        View3 view;
        view.target = Vec3(50, 0, 0);
        view.distance_mm = distance;
        const Rendered r = render(body.mesh, white, view, 120, 90, 1);
        EXPECT_EQ(r.image.pixels.size(), 120u * 90u);
    }
}

TEST(Rasteriser, CancelledGivesNothing) {
    const Task task = Task::make();
    task.cancel();
    EXPECT_TRUE(render(drawBody(sphere(5)).mesh, {1, 1, {0u}}, {}, 50, 50, 1, task).image.pixels.empty());
}

TEST(SkinPicture, ArtIsWhereItWasDrawnAndOnItsSides) {
    const Skin skin = sampleSkin("sedge60");
    const DrawnBody body = drawBody(skin);
    Element e;
    e.dx_mm = 30;
    e.dg_mm = 2;
    test::shape(e, test::DotRow{1, 4, 4, 4, 0});
    const ElementArt art = need(drawElement(skin, {}, e, ""));
    const Image image = paintSkin(body, {}, {{&art.outlines(), 0xFFFF0000u, true, false}}, 720, 400);
    int left = 0, right = 0;
    for (int row = 0; row < image.height; ++row) {
        for (int column = 0; column < image.width; ++column) {
            if (image.at(column, row) != 0xFFFF0000u) continue;
            const SkinPoint at =
                body.skinAt({(column + 0.5) / image.width, static_cast<double>(row) / (image.height - 1)});
            (at.side == Side::Left ? left : right) += 1;
            EXPECT_NEAR((skin.at(at).position - skin.at({Side::Left, 30, 2}).position).norm(), 0, 2.2);
        }
    }
    EXPECT_GT(left, 50);
    EXPECT_EQ(right, 0);
}

TEST(SkinPicture, RowsAndPlacesAreInverse) {
    const DrawnBody body = drawBody(sampleSkin("reed118"));
    for (double x = 2; x < 116; x += 7) EXPECT_NEAR(body.skinAt({0.1, body.rowAt(x)}).x_mm, x, 1e-9);
}

/// What is drawn while the body is dragged lies on the mesh, and so nearly on the skin.
TEST(DrawnBody, PlacesOnTheMeshAreNearTheSkin) {
    const Skin skin = test::sampleSkin("sedge60");
    const DrawnBody body = drawBody(skin);
    for (const double x : {4.0, 15.0, 33.0, 52.0}) {
        const SectionArc arc = skin.arcAt(x);
        for (const double share : {-1.2, -0.9, -0.3, 0.0, 0.5, 0.95, 1.3}) {
            const double g = share * (share >= 0 ? arc.backArc_mm() : arc.bellyArc_mm());
            const SurfacePoint exact = skin.at({Side::Left, x, g}), near = body.near({x, g});
            EXPECT_LT((near.position - exact.position).norm(), share > -1 && share < 1 ? 0.1 : 0.6)
                << x << ' ' << g;
            EXPECT_GT(near.normal.dot(exact.normal), 0.98) << x << ' ' << g;
        }
    }
}

TEST(DrawnBody, CarriedArtKeepsItsShapeInSkinCoordinates) {
    const Skin skin = test::sampleSkin("sedge60");
    const DrawnBody body = drawBody(skin);
    Element dots;
    dots.id = "d";
    dots.dx_mm = 25;
    dots.dg_mm = 3;
    test::shape(dots, test::DotRow{1, 4, 4, 4, 0});
    const ElementArt art = test::need(drawElement(skin, {}, dots, "e"));
    const Outline moved = carried(art.outlines()[0], body, {3, -2});
    EXPECT_NEAR((moved.centre - art.outlines()[0].centre - Vec2(3, -2)).norm(), 0, 1e-12);
    for (std::size_t i = 0; i < moved.skin.size(); ++i) {
        EXPECT_NEAR((moved.skin[i] - art.outlines()[0].skin[i] - Vec2(3, -2)).norm(), 0, 1e-12);
        const Vec3 exact = skin.at({Side::Left, moved.skin[i].x(), moved.skin[i].y()}).position;
        EXPECT_LT((moved.points[i].position - exact).norm(), 0.1);
    }
}

}  // namespace
}  // namespace nine
