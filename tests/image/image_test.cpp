// Reading picture files, plane maps, regions, silhouettes, axes.
#include <algorithm>

#include "geom/polygon_set.h"
#include "image/homography.h"
#include "image/outline.h"
#include "image/picture_file.h"
#include "image/regions.h"
#include "image/silhouette.h"
#include "job/blank_from_picture.h"
#include "tests/image/page_painter.h"
#include "tests/image/photo_painter.h"

namespace nine {
namespace {

TEST(Homography, AgreesWithAnotherLibrary) {
    // The eight coefficients ImageMagick 6.9.11 prints for
    //   convert -size 300x200 xc:white -verbose -distort Perspective
    //     '0,0 10,20  250,0 300,5  250,180 280,220  0,180 30,190' null:
    const std::vector<PointPair> pairs{
        {{0, 0}, {10, 20}}, {{250, 0}, {300, 5}}, {{250, 180}, {280, 220}}, {{0, 180}, {30, 190}}};
    const Eigen::Matrix3d h = test::need(Homography::through(pairs)).matrix();
    const double expected[8] = {0.885115, 0.134723, 10, -0.0645814, 1.09399, 20, -0.000916283, 0.00078708};
    for (int i = 0; i < 8; ++i) EXPECT_NEAR(h(i / 3, i % 3), expected[i], 6e-6 * std::abs(expected[i])) << i;
}

TEST(Homography, FourPointsInALineAreRefused) {
    EXPECT_EQ(Homography::through({{{0, 0}, {0, 0}}, {{1, 0}, {1, 0}}, {{2, 0}, {2, 0}}, {{3, 0}, {3, 0}}})
                  .error()
                  .code,
              "bad_points");
    EXPECT_EQ(Homography::through({{{0, 0}, {0, 0}}}).error().code, "bad_points");
}

TEST(Homography, ABentLensIsFoundAndTakenOut) {
    Eigen::Matrix3d m;
    m << 10, 0.4, 300, -0.3, -10, 2300, 1e-4, 2e-4, 1;
    Lens lens{{1500, 1100}, 1860, 0.06};
    std::vector<PointPair> pairs;
    for (const Vec2& p : tracing_sheet::kMarks_mm) pairs.push_back({p, lens.bent(Homography(m)(p))});
    const PlaneView view = test::need(viewThrough(pairs, {3000, 2200}));
    EXPECT_NEAR(view.lens.k, 0.06, 0.005);
    EXPECT_LT(missOf_mm(view, pairs), 0.01);
    const Vec2 inside(120, 90);
    EXPECT_LT((view.pixelOf(inside) - lens.bent(Homography(m)(inside))).norm(), 0.5);
}

TEST(Homography, AWeakLensIsFoundToo) {
    // The marks alone miss by hundredths of a millimetre; between them it moves points several times as far.
    Eigen::Matrix3d m;
    m << 10, 0.4, 300, -0.3, -10, 2300, 1e-4, 2e-4, 1;
    const Lens lens{{1500, 1100}, 1860, 0.008};
    std::vector<PointPair> pairs, plain;
    std::mt19937 random(5);
    std::normal_distribution<double> pixels(0, 0.04);
    for (const Vec2& p : tracing_sheet::kMarks_mm) {
        const Vec2 noise(pixels(random), pixels(random));
        pairs.push_back({p, lens.bent(Homography(m)(p)) + noise});
        plain.push_back({p, Homography(m)(p) + noise});
    }
    EXPECT_NEAR(test::need(viewThrough(pairs, {3000, 2200})).lens.k, 0.008, 0.002);
    EXPECT_EQ(test::need(viewThrough(plain, {3000, 2200})).lens.k, 0);  // noise alone is no lens
}

Picture arrow() {  // light at the upper left, red at the upper right, dark below
    Picture p(40, 24, 30);
    for (int y = 0; y < 12; ++y) {
        for (int x = 0; x < 40; ++x) {
            for (int c = 0; c < 3; ++c) p.at(x, y)[c] = x < 20 ? 230 : c == 0 ? 220 : 20;
        }
    }
    return p;
}

bool looksUpright(const Picture& p) {
    const auto light = [&](double x, double y) {
        return p.at(static_cast<int>(x * p.width), static_cast<int>(y * p.height));
    };
    return p.width == 40 && p.height == 24 && light(0.2, 0.2)[1] > 180 && light(0.8, 0.2)[0] > 150 &&
           light(0.8, 0.2)[1] < 90 && light(0.2, 0.8)[0] < 90 && light(0.8, 0.8)[0] < 90;
}

TEST(PictureFiles, OrientationTagsWrittenByExiftoolAreObeyed) {
    NINE_NEED_PROGRAM("exiftool");
    // The picture as a camera would store it for each tag is the upright one turned back: oriented() by the
    // inverse, which for these eight is the tag itself but for 6 and 8.
    const int inverse[] = {0, 1, 2, 3, 4, 5, 8, 7, 6};
    for (int tag = 1; tag <= 8; ++tag) {
        const test::TemporaryFolder folder;
        const std::string file = folder / "p.jpg";
        test::write(file, jpegOf(oriented(arrow(), inverse[tag]), 95));
        ASSERT_EQ(
            test::shell("exiftool -q -overwrite_original -n -Orientation=" + std::to_string(tag) + " " + file)
                .exitCode,
            0);
        const PictureFile read = test::need(decodePicture(test::read(file), file));
        EXPECT_EQ(read.orientation, tag);
        EXPECT_TRUE(looksUpright(read.picture)) << tag;
    }
}

TEST(PictureFiles, DensityIsReadFromPngAndJpeg) {
    NINE_NEED_PROGRAM("convert");
    const test::TemporaryFolder folder;
    for (const char* name : {"a.png", "a.jpg"}) {
        ASSERT_EQ(
            test::shell("convert -size 60x40 xc:white -units PixelsPerInch -density 300 " + (folder / name))
                .exitCode,
            0);
        EXPECT_NEAR(test::need(decodePicture(test::read(folder / name), name)).perMm, 300 / 25.4, 0.01)
            << name;
    }
    ASSERT_EQ(test::shell("convert -size 60x40 xc:red -colorspace CMYK " + (folder / "c.jpg")).exitCode, 0);
    EXPECT_EQ(decodePicture(test::read(folder / "c.jpg"), "c").error().code, "unsupported_picture");
    ASSERT_EQ(test::shell("convert -size 6x4 xc:none " + (folder / "t.png")).exitCode, 0);
    EXPECT_EQ(test::need(decodePicture(test::read(folder / "t.png"), "t")).picture.at(2, 2)[0], 255);
}

TEST(PictureFiles, WhatIsNoPictureIsSaid) {
    EXPECT_EQ(decodePicture("x_mm,top_mm\n0,1\n", "a.csv").error().code, "not_a_picture");
    EXPECT_EQ(decodePicture("", "empty").error().code, "not_a_picture");
    const std::string jpeg = jpegOf(arrow(), 90), png = pngOf(arrow());
    for (const std::string& whole : {jpeg, png}) {
        for (const double share : {0.1, 0.5, 0.9}) {
            const auto cut = decodePicture(
                whole.substr(0, static_cast<std::size_t>(share * static_cast<double>(whole.size()))), "cut");
            ASSERT_FALSE(cut) << share;
            EXPECT_EQ(cut.error().code, "damaged_picture");
        }
    }
    EXPECT_EQ(decodePicture(std::string("\xFF\xD8\xFF", 3) + std::string(400, 'x'), "junk").error().code,
              "damaged_picture");
}

TEST(PictureFiles, TwoHundredMegapixelsAreRefusedFromTheHeader) {
    std::string png = pngOf(Picture(8, 8));
    png[16] = 0, png[17] = 0, png[18] = 0x4E, png[19] = 0x20;  // 20000 wide
    png[20] = 0, png[21] = 0, png[22] = 0x27, png[23] = 0x10;  // 10000 high
    // The checksum of the header is wrong now; a reader that looks at sizes first says so first, one that
    // checks first calls it damaged. Either way nothing of that size is made.
    const auto big = decodePicture(png, "big.png");
    ASSERT_FALSE(big);
    EXPECT_TRUE(big.error().code == "too_many_pixels" || big.error().code == "damaged_picture");
    std::string jpeg = jpegOf(Picture(8, 8), 80);
    const std::size_t frame = jpeg.find("\xFF\xC0");
    ASSERT_NE(frame, std::string::npos);
    jpeg[frame + 5] = 0x27, jpeg[frame + 6] = 0x10, jpeg[frame + 7] = 0x4E, jpeg[frame + 8] = 0x20;
    const auto large = decodePicture(jpeg, "big.jpg");
    ASSERT_FALSE(large);
    EXPECT_EQ(large.error().code, "too_many_pixels");
    EXPECT_NE(large.error().text().find("200 megapixels"), std::string::npos);
}

TEST(Regions, DistancesAgreeWithTheObviousWay) {
    std::mt19937 random(7);
    PixelSet mask(37, 29);
    for (auto& v : mask.on) v = random() % 40 == 0;
    const Plane fast = distanceTo(mask);
    for (int y = 0; y < mask.height; ++y) {
        for (int x = 0; x < mask.width; ++x) {
            double least = 1e9;
            for (int v = 0; v < mask.height; ++v)
                for (int u = 0; u < mask.width; ++u)
                    if (mask.at(u, v)) least = std::min(least, std::hypot(u - x, v - y));
            ASSERT_NEAR(fast.at(x, y), least, 1e-4);
        }
    }
}

TEST(Regions, ClosingTakesOutThinDarkThingsOnly) {
    Plane plane(60, 60, 1);
    for (int i = 0; i < 60; ++i) plane.at(20, i) = plane.at(21, i) = 0;  // thin
    for (int y = 0; y < 60; ++y)
        for (int x = 40; x < 55; ++x) plane.at(x, y) = 0;  // wide
    const Plane out = closed(plane, 3);
    EXPECT_EQ(out.at(20, 30), 1);
    EXPECT_EQ(out.at(47, 30), 0);
}

TEST(Regions, LevelLinesOfADiscHaveItsArea) {
    Plane plane(120, 100);
    for (int y = 0; y < 100; ++y)
        for (int x = 0; x < 120; ++x)
            plane.at(x, y) = static_cast<float>(30 - std::hypot(x + 0.5 - 61.3, y + 0.5 - 48.7));
    const auto lines = levelLines(plane, 0);
    ASSERT_EQ(lines.size(), 1u);
    EXPECT_NEAR(std::abs(polygonArea(lines[0])), kPi * 900, 3);
    const Polyline2 even = evenlySpaced(lines[0], 1, 3);
    EXPECT_NEAR(std::abs(polygonArea(even)), kPi * 900, 3);  // smoothing does not shrink it
    // A region that touches the border is closed along it.
    EXPECT_EQ(levelLines(Plane(20, 20, 1), 0.5F).size(), 1u);
}

TEST(Regions, OtsuPartsTwoGroups) {
    std::vector<float> values;
    for (int i = 0; i < 900; ++i) values.push_back(1 + 0.001F * static_cast<float>(i % 100));
    for (int i = 0; i < 100; ++i) values.push_back(5 + 0.001F * static_cast<float>(i % 100));
    const float level = otsuLevel(values);
    EXPECT_GT(level, 1.1);
    EXPECT_LT(level, 5);
}

TEST(Axis, RunsFromTipToTip) {
    for (const char* name : test::kSamples) {
        const Skin body = test::sampleSkin(name);
        for (const double turn : {0.0, 0.2, -0.3}) {
            Polyline2 line = test::outlineAt(body, false, {0, 0});
            const Eigen::Rotation2Dd rotation(turn);
            for (Vec2& p : line) p = rotation * p;
            const BodyAxis axis = axisOf(line);
            EXPECT_LT((axis.nose - Vec2(0, 0)).norm(), 0.35) << name << turn;
            EXPECT_LT((axis.tail - rotation * Vec2(body.length_mm(), 0)).norm(), 0.35) << name << turn;
            EXPECT_FALSE(axis.noseFlat || axis.tailFlat) << name;
            const BodyAxis mirrored = axisOf(line, false);
            EXPECT_LT((mirrored.nose - rotation * Vec2(body.length_mm(), 0)).norm(), 0.35) << name;
        }
    }
}

TEST(Axis, OfAFaceRunsFromItsMiddle) {
    Polyline2 line{{0, -9}, {30, -11}, {60, -6}, {80, 0}, {60, 7}, {30, 11}, {0, 9}};
    const BodyAxis axis = axisOf(line);
    EXPECT_TRUE(axis.noseFlat);
    EXPECT_NEAR(axis.nose.y(), 0, 0.4);
    EXPECT_NEAR(axis.nose.x(), 0, 0.2);
}

/// A spindle cut off at `cut` of its length, its face leaning by `lean` mm from edge to edge.
Polyline2 cutSpindle(double length, double height, double cut, double lean) {
    Polyline2 upper, line;
    for (int i = 0; i <= 400; ++i) {
        const double x = cut * length * i / 400, t = x / length;
        upper.emplace_back(x, 0.5 * height * std::sin(kPi * std::sqrt(t)));
    }
    for (const Vec2& p : upper)
        line.emplace_back(p.x() + (p.x() > 0.9 * cut * length ? 0.5 * lean : 0), p.y());
    for (std::size_t i = upper.size(); i-- > 0;)
        line.emplace_back(upper[i].x() - (upper[i].x() > 0.9 * cut * length ? 0.5 * lean : 0), -upper[i].y());
    return evenlySpaced(line, 0.1);
}

TEST(Axis, ANarrowFaceIsOneAndARoundEndIsNone) {
    // Heights at the face: a quarter of the largest.
    const BodyAxis cut = axisOf(cutSpindle(100, 30, 0.84, 0));
    EXPECT_TRUE(cut.tailFlat);
    EXPECT_NEAR(cut.tail.x(), 84, 0.15);
    EXPECT_FALSE(cut.noseFlat);
    for (const double height : {8.0, 30.0}) {  // an ellipse; as blunt as bodies get
        Polyline2 round;
        for (int i = 0; i < 1200; ++i)
            round.emplace_back(40 * std::cos(2 * kPi * i / 1200),
                               0.5 * height * std::sin(2 * kPi * i / 1200));
        const BodyAxis axis = axisOf(round);
        EXPECT_FALSE(axis.noseFlat || axis.tailFlat) << height;
    }
}

TEST(Axis, AFaceThatLeansIsNoReasonToRefuse) {
    for (const double lean : {0.6, 3.0}) {
        const Polyline2 line = cutSpindle(100, 30, 0.8, lean);
        const BodyAxis axis = axisOf(line);
        ASSERT_TRUE(axis.tailFlat) << lean;
        Outlines o;
        o.side = laidOn(line, axis);
        o.tailFlat = true;
        const OutlinedBody body = test::need(bodyFromOutlines(o));
        const Station& last = body.table.stations.back();
        const double height = 0.5 * 30 * std::sin(kPi * std::sqrt(0.8));  // of the half at the face
        EXPECT_NEAR(last.top_mm, height, 0.3 * lean) << lean;
        EXPECT_NEAR(last.bottom_mm, height, 0.3 * lean) << lean;
        const bool told = std::any_of(body.warnings.begin(), body.warnings.end(),
                                      [](const Warning& w) { return w.code == "end_leans"; });
        EXPECT_EQ(told, lean > 1) << lean;
    }
}

using test::bodyOnGround;
using test::kPaper;
using test::kWood;
using test::paintOver;
using test::plain;
using test::withShadow;

/// Largest and root mean square distance of a photo's outline from the body's.
struct PhotoMiss {
    double worst = 0, rms = 0, mmPerPx = 0;
};
PhotoMiss missOfPhoto(const Picture& picture, const Skin& body) {
    PhotoWish wish;
    wish.length_mm = body.length_mm();
    const PhotoOutline outline = test::need(photoOutline(test::need(silhouetteOf(picture, {})), wish));
    const Polyline2 want = test::outlineAt(body, false, {0, 0});
    PhotoMiss miss{0, 0, outline.mmPerPx};
    double sum = 0;
    for (const Vec2& p : outline.outline) {
        double least = 1e9;
        for (const Vec2& q : want) least = std::min(least, (p - q).norm());
        sum += least * least;
        miss.worst = std::max(miss.worst, least);
    }
    miss.rms = std::sqrt(sum / static_cast<double>(outline.outline.size()));
    return miss;
}

TEST(Silhouettes, ComeBackWithoutBillAndHook) {
    const Skin body = test::sampleSkin("sedge60");
    for (const bool bill : {false, true}) {
        const PhotoMiss miss = missOfPhoto(bodyOnGround(body, kWood, kPaper, 0.06, bill), body);
        EXPECT_NEAR(miss.mmPerPx, 0.06, 0.0003);
        EXPECT_LT(miss.rms, 0.2) << bill;
        EXPECT_LT(miss.worst, 0.8) << bill;
    }
}

TEST(Silhouettes, APointedTailStaysAWireGoes) {
    // Both are thinner than what is left out by default; the tail gets thinner steadily.
    StationTable table;
    for (int i = 0; i <= 16; ++i) {
        const double t = 0.5 * (1 - std::cos(kPi * i / 16));
        Station s;
        s.x_mm = 70 * t;
        if (i > 0 && i < 16) s.top_mm = s.bottom_mm = s.halfWidth_mm = 7 * std::sqrt(t) * (1 - t) / 0.3849;
        table.stations.push_back(s);
    }
    const Skin body = test::need(Skin::of(table));
    Picture picture = bodyOnGround(body, kWood, kPaper, 0.06, false);
    const auto lengthOf = [](const Picture& p) {
        const Polyline2 line = test::need(silhouetteOf(p, {})).outline;
        return 0.06 * boxAround(PolygonSet{line}).size().x();
    };
    EXPECT_NEAR(lengthOf(picture), 70, 0.4);
    // A wire of 0.7 mm at the tail, 12 mm long.
    const int x0 = static_cast<int>(0.5 * 1600 + 0.5 * 70 / 0.06), y0 = 550;
    for (int y = y0 - 6; y < y0 + 6; ++y)
        for (int x = x0 - 40; x < x0 + 200; ++x)
            for (int c = 0; c < 3; ++c) picture.at(x, y)[c] = static_cast<std::uint8_t>(kWood[c]);
    EXPECT_NEAR(lengthOf(picture), 70, 3);
}

TEST(Silhouettes, AShadowIsNoBody) {
    const Skin body = test::sampleSkin("sedge60");
    const Silhouette found = test::need(
        silhouetteOf(withShadow(bodyOnGround(body, kWood, kPaper, 0.06, false), body, 0.06, kPaper), {}));
    PhotoWish wish;
    wish.length_mm = 60;
    const PhotoOutline outline = test::need(photoOutline(found, wish));
    double low = 0;
    for (const Vec2& p : outline.outline) low = std::min(low, p.y());
    EXPECT_NEAR(low, -17.5, 0.3);  // 3.5 mm more with the shadow
    // A grey body on white paper has no colour to tell it by, and this shadow is nearly as dark: then it is
    // said.
    const Vec3 grey(150, 152, 153);
    const auto doubtful =
        silhouetteOf(withShadow(bodyOnGround(body, grey, kPaper, 0.06, false), body, 0.06, kPaper), {});
    ASSERT_TRUE(doubtful);
    ASSERT_FALSE(doubtful->warnings.empty());
    EXPECT_EQ(doubtful->warnings.front().code, "soft_edge");
    EXPECT_TRUE(test::need(silhouetteOf(bodyOnGround(body, grey, kPaper, 0.06, false), {})).warnings.empty());
}

/// Line tie, split ring with its hook, as they hang on a bait: the outline goes on beneath them.
TEST(Silhouettes, RingsAndHooksComeOff) {
    const Skin body = test::sampleSkin("sedge60");
    Picture picture = bodyOnGround(body, kWood, kPaper, 0.06, false);
    const auto ring = [](const Vec2& p, const Vec2& at) {
        const double d = (p - at).norm();
        return d > 1.0 && d < 1.55;
    };
    const double belly = body.loft().sectionAt(30).bottom_mm;
    paintOver(picture, body, 0.06, plain(Vec3(90, 92, 95)), [&](const Vec2& p) {
        return ring(p, {-1.2, 0.2}) || ring(p, {30, -belly - 1.2}) || ring(p, {61.2, 0}) ||
               (std::abs(p.x() - 30) < 0.3 && p.y() < -belly - 2.4 && p.y() > -belly - 10);
    });
    const auto [worst, rms, perPx] = missOfPhoto(picture, body);
    EXPECT_LT(rms, 0.15);
    EXPECT_LT(worst, 0.6);
}

/// A belly nearly as pale as the paper, and bars of the paper's own colour right to the border.
TEST(Silhouettes, PalePartsAndBarsOfTheGroundBelongToTheBody) {
    const Skin body = test::sampleSkin("sedge60");
    const auto within = [&](const Vec2& p, double low, double high) {
        if (p.x() <= 0 || p.x() >= body.length_mm()) return false;
        const Section s = body.loft().sectionAt(p.x());
        const double t = (p.y() + s.bottom_mm) / (s.top_mm + s.bottom_mm);
        return t > low && t < high;
    };
    Picture pale = bodyOnGround(body, Vec3(40, 60, 45), kPaper, 0.06, false);
    paintOver(pale, body, 0.06, plain(Vec3(214, 208, 190)),
              [&](const Vec2& p) { return within(p, 0, 0.45); });
    const auto [worst, rms, perPx] = missOfPhoto(pale, body);
    EXPECT_LT(rms, 0.15);
    EXPECT_LT(worst, 0.6);
    Picture barred = bodyOnGround(body, kWood, kPaper, 0.06, false);
    paintOver(barred, body, 0.06, plain(kPaper), [&](const Vec2& p) {
        return within(p, 0, 1) && (std::abs(p.x() - 26) < 0.5 || std::abs(p.x() - 38) < 0.4);
    });
    EXPECT_LT(missOfPhoto(barred, body).rms, 0.15);
    EXPECT_LT(missOfPhoto(barred, body).worst, 0.8);
}

/// A red back that fades into a belly as grey as the shadow beside it: the grey is body, the shadow is not.
TEST(Silhouettes, AGreyBellyBesideAShadowBelongsToTheBody) {
    const Skin body = test::sampleSkin("sedge60");
    Picture picture = withShadow(bodyOnGround(body, kWood, kPaper, 0.06, false), body, 0.06, kPaper);
    const auto within = [&](const Vec2& p) {
        if (p.x() <= 0 || p.x() >= body.length_mm()) return false;
        const Section s = body.loft().sectionAt(p.x());
        return p.y() < s.top_mm && p.y() > -s.bottom_mm;
    };
    paintOver(
        picture, body, 0.06,
        [](const Vec2& p) -> Vec3 {
            const double grey = std::clamp(0.5 - p.y() / 12, 0.0, 1.0);
            return (1 - grey) * Vec3(190, 40, 60) + grey * Vec3(118, 119, 120);
        },
        within);
    const PhotoMiss miss = missOfPhoto(picture, body);
    EXPECT_LT(miss.rms, 0.2);
    EXPECT_LT(miss.worst, 0.9);
}

TEST(Silhouettes, StrokesTakeOutAndPutIn) {
    const Skin body = test::sampleSkin("sedge60");
    const Picture picture = bodyOnGround(body, kWood, kPaper, 0.06, false);
    const double whole = std::abs(polygonArea(test::need(silhouetteOf(picture, {})).outline));
    SilhouetteWish wish;
    wish.strokes.push_back(
        {{{800, 300}, {800, 800}}, 30, false});  // cuts the body in two: the larger half stays
    EXPECT_LT(std::abs(polygonArea(test::need(silhouetteOf(picture, wish)).outline)), 0.75 * whole);
    wish.strokes.push_back({{{800, 300}, {800, 800}}, 30, true});  // put back, and more
    EXPECT_GT(std::abs(polygonArea(test::need(silhouetteOf(picture, wish)).outline)), 0.98 * whole);
    // A cut as narrow as a painted bar is a cut all the same.
    wish.strokes = {{{{800, 250}, {800, 900}}, 8, false}};
    EXPECT_LT(std::abs(polygonArea(test::need(silhouetteOf(picture, wish)).outline)), 0.75 * whole);
    wish.strokes = {{{{200, 550}, {1400, 550}}, 400, false}};
    EXPECT_EQ(silhouetteOf(picture, wish).error().code, "nothing_found");
}

TEST(Silhouettes, BadPicturesAreRefused) {
    const Skin body = test::sampleSkin("sedge60");
    EXPECT_EQ(silhouetteOf(bodyOnGround(body, kPaper, kPaper, 0.06, false), {}).error().code, "no_contrast");
    EXPECT_EQ(silhouetteOf(bodyOnGround(body, kWood, kPaper, 0.036, false), {}).error().code, "cut_off");
    EXPECT_EQ(silhouetteOf(Picture(400, 300, 200), {}).error().code, "no_contrast");
    const Silhouette found = test::need(silhouetteOf(bodyOnGround(body, kWood, kPaper, 0.06, false), {}));
    EXPECT_EQ(photoOutline(found, {}).error().code, "no_scale");
    PhotoWish same;
    same.known = PhotoWish::Known{{10, 10}, {10, 10}, 50};
    EXPECT_EQ(photoOutline(found, same).error().code, "no_scale");
    Task task = Task::make();
    task.cancel();
    EXPECT_EQ(silhouetteOf(bodyOnGround(body, kWood, kPaper, 0.06, false), {}, task).error().code,
              "cancelled");
}

}  // namespace
}  // namespace nine
