// Tracing sheets drawn from known bodies come back as these bodies, or are refused with what is missing.
#include "image/tracing.h"

#include <functional>

#include "image/picture_file.h"
#include "job/blank_from_picture.h"
#include "tests/image/page_painter.h"

namespace nine {
namespace {

using test::Camera;
using test::PaintedPage;

constexpr double kPencil_mm = 0.5;
constexpr float kGraphite = 0.35F;

PaintedPage tracedPage(const Skin& skin, bool above = true, float pencil = kGraphite) {
    PaintedPage page;
    page.marks();
    page.stroke(test::outlineAt(skin, false, {60, 143}), kPencil_mm, pencil, true);
    if (above) page.stroke(test::outlineAt(skin, true, {66, 82}), kPencil_mm, pencil, true);
    return page;
}

/// Root mean square and largest distance across the outline between a body and what came back.
struct Miss {
    double rms = 0, worst = 0;
};
Miss missOf_mm(const Skin& is, const Skin& want, bool width) {
    Miss miss;
    double sum = 0;
    int count = 0;
    for (int i = 2; i < 200; ++i) {
        const double x = 0.5 * want.length_mm() * (1 - std::cos(kPi * i / 201)), e = 0.02;
        if (x + e > is.length_mm()) continue;
        const auto sizes = [](const Skin& skin, double at) {
            const Section s = skin.loft().sectionAt(skin.noseX_mm() + at);
            return Vec3(s.top_mm, s.bottom_mm, s.halfWidth_mm);
        };
        const Vec3 d = sizes(is, x) - sizes(want, x),
                   slope = (sizes(want, x + e) - sizes(want, x - e)) / (2 * e);
        for (int k = 0; k < (width ? 3 : 2); ++k) {
            const double off = std::abs(d[k]) / std::sqrt(1 + slope[k] * slope[k]);
            sum += off * off;
            ++count;
            miss.worst = std::max(miss.worst, off);
        }
    }
    miss.rms = std::sqrt(sum / count);
    return miss;
}

Skin bodyFrom(const Picture& picture, const TracingWish& wish = {}) {
    const TracingReading reading = test::need(readTracing(picture, wish));
    return test::need(Skin::of(test::need(blankOfTracing(reading, {})).blank.table));
}

struct Variant {
    const char* name;
    std::function<void(Camera&)> change;
    bool jpeg = false;
};
#ifdef NINE_SANITIZED
/// Instrumented code is slow: one picture of each kind is enough to find what reads beyond its memory.
const Variant kVariants[] = {{"Keystone15Jpeg70",
                              [](Camera& c) {
                                  c.tilt_deg = 15;
                                  c.distance_mm = 380;
                                  c.noise = 0.01;
                              },
                              true}};
#else
const Variant kVariants[] = {{"Square", [](Camera& c) { c.distance_mm = 420; }},
                             {"Keystone15", [](Camera& c) { c.tilt_deg = 15; }},
                             {"Turned",
                              [](Camera& c) {
                                  c.tilt_deg = 10;
                                  c.turn_deg = 27;
                                  c.distance_mm = 560;
                              }},
                             {"UpsideDown",
                              [](Camera& c) {
                                  c.tilt_deg = -12;
                                  c.turn_deg = 183;
                              }},
                             {"ShadedNoisyJpeg70",
                              [](Camera& c) {
                                  c.tilt_deg = 15;
                                  c.turn_deg = 7;
                                  c.noise = 0.03;
                                  c.falloff = 0.5;
                              },
                              true},
                             {"Small",
                              [](Camera& c) {
                                  c.width = 1700;
                                  c.height = 1275;
                                  c.focal_px = 2000;
                                  c.tilt_deg = 8;
                                  c.noise = 0.01;
                              },
                              true},
                             {"HardShadow",
                              [](Camera& c) {
                                  c.tilt_deg = 12;
                                  c.shade = [](const Vec2& p) {
                                      return p.x() > 90 * test::kPagePerMm &&
                                                     p.x() < 150 * test::kPagePerMm &&
                                                     p.y() < 110 * test::kPagePerMm
                                                 ? 0.55
                                                 : 1.0;
                                  };
                              },
                              true}};
#endif

#ifdef NINE_SANITIZED
constexpr const char* kBodies[] = {"sedge60"};
#else
constexpr const char* kBodies[] = {"sedge60", "willow104"};
#endif

class Tracing : public ::testing::TestWithParam<Variant> {};

TEST_P(Tracing, ComesBackWithinATenthOfAMillimetre) {
    for (const char* name : kBodies) {
        const Skin body = test::sampleSkin(name);
        Camera camera;
        GetParam().change(camera);
        Picture picture = test::photographed(tracedPage(body), camera);
        if (GetParam().jpeg) picture = test::need(decodePicture(jpegOf(picture, 70), "test")).picture;
        const Miss miss = missOf_mm(bodyFrom(picture), body, true);
        // The issue asks for 0.2 mm; what is reached is 0.02 to 0.05.
        EXPECT_LT(miss.rms, 0.1) << name;
        EXPECT_LT(miss.worst, 0.25) << name;
    }
}
INSTANTIATE_TEST_SUITE_P(Pictures, Tracing, ::testing::ValuesIn(kVariants),
                         [](const auto& v) { return v.param.name; });

TEST(TracingSheet, EveryBlankComesBackFromAScan) {
    for (const char* name : kBodies) {
        const Skin body = test::sampleSkin(name);
        const Miss miss = missOf_mm(bodyFrom(test::scanned(tracedPage(body))), body, true);
        EXPECT_LT(miss.rms, 0.05) << name;
    }
}

/// A body whose tail runs out to a fine point, from the side and even finer from above.
Skin pointedBody() {
    StationTable table;
    constexpr int kSteps = 16;
    for (int i = 0; i <= kSteps; ++i) {
        const double t = 0.5 * (1 - std::cos(kPi * i / kSteps));
        const auto size = [t](double most) { return most * std::sqrt(t) * (1 - t) / 0.3849; };
        Station s;
        s.x_mm = 80 * t;
        if (i > 0 && i < kSteps) {
            s.top_mm = size(8);
            s.bottom_mm = size(9);
            s.halfWidth_mm = size(5);
        }
        table.stations.push_back(s);
    }
    return test::need(Skin::of(table));
}

#ifdef NINE_SANITIZED
constexpr double kFinestPoint_mm = 1.0;  // at half as many pixels a millimetre
#else
constexpr double kFinestPoint_mm = 0.6;
#endif

TEST(TracingSheet, AFinePointKeepsItsLength) {
    // The pencil's two lines run into one up to 3 mm before the tip.
    const Skin body = pointedBody();
    Camera camera;
    camera.tilt_deg = 12;
    camera.distance_mm = 400;
    for (const Picture& picture :
         {test::scanned(tracedPage(body)), test::photographed(tracedPage(body), camera)}) {
        const TracingReading reading = test::need(readTracing(picture, {}));
        EXPECT_NEAR(reading.side->axis.length(), 80, 0.4);
        EXPECT_NEAR(reading.top->axis.length(), 80, kFinestPoint_mm);
        EXPECT_LT(missOf_mm(bodyFrom(picture), body, true).rms, 0.1);
    }
}

TEST(TracingSheet, AMarkThatDisagreesIsLeftOut) {
    const Skin body = test::sampleSkin("sedge60");
    PaintedPage page = tracedPage(body);
    // A blot on the paper beside one ring's dot moves its middle by about half a millimetre.
    const Vec2 mark = tracing_sheet::kMarks_mm[2];
    page.disc(mark + Vec2(2.2, 0), 0.9, 0.3F);
    const Picture picture = test::scanned(page);
    const TracingReading reading = test::need(readTracing(picture, {}));
    EXPECT_EQ(reading.page.marks.size(), 7u);
    EXPECT_LT(reading.page.miss_mm, 0.05);
    ASSERT_FALSE(reading.warnings.empty());
    EXPECT_NE(reading.warnings.front().text().find("do not agree with the others"), std::string::npos);
    EXPECT_NE(reading.warnings.front().text().find("upper right"), std::string::npos);
    EXPECT_LT(missOf_mm(bodyFrom(picture), body, true).rms, 0.05);
}

TEST(TracingSheet, OneMarkCutOffIsSaidAndDoesNoHarm) {
    const Skin body = test::sampleSkin("sedge60");
    PaintedPage page = tracedPage(body);
    page.disc({250, 180}, 6, 0.96F);  // the upper right corner is torn off
    const Picture picture = test::scanned(page);
    const TracingReading reading = test::need(readTracing(picture, {}));
    EXPECT_EQ(reading.page.marks.size(), 7u);
    ASSERT_FALSE(reading.warnings.empty());
    EXPECT_EQ(reading.warnings.front().code, "marks_missing");
    EXPECT_NE(reading.warnings.front().text().find("upper right"), std::string::npos);
    EXPECT_LT(missOf_mm(bodyFrom(picture), body, true).rms, 0.05);
}

TEST(TracingSheet, FourMarksAreTooFew) {
    PaintedPage page = tracedPage(test::sampleSkin("sedge60"));
    for (const int gone : {0, 3, 5, 6})
        page.disc(tracing_sheet::kMarks_mm[static_cast<std::size_t>(gone)], 6, 0.96F);
    const auto reading = readTracing(test::scanned(page), {});
    ASSERT_FALSE(reading);
    EXPECT_EQ(reading.error().code, "marks_missing");
    EXPECT_NE(reading.error().text().find("Only 4 of"), std::string::npos);
}

TEST(TracingSheet, APageWithoutMarksIsRefused) {
    const auto reading = readTracing(Picture(800, 600, 240), {});
    ASSERT_FALSE(reading);
    EXPECT_EQ(reading.error().code, "marks_missing");
}

TEST(TracingSheet, AnEmptyPageHasNothingDrawn) {
    PaintedPage page;
    page.marks();
    const auto reading = readTracing(test::scanned(page), {});
    ASSERT_FALSE(reading);
    EXPECT_EQ(reading.error().code, "nothing_drawn");
}

TEST(TracingSheet, ASmallGapIsBridgedAWideOneNamed) {
    const Skin body = test::sampleSkin("sedge60");
    for (const auto& [width, refused] : {std::pair{2.0, false}, {9.0, true}}) {
        PaintedPage page;
        page.marks();
        Polyline2 open;
        for (const Vec2& p : test::outlineAt(body, false, {60, 143}))
            if (std::abs(p.x() - 90) > 0.5 * width || p.y() < 143) open.push_back(p);
        const auto rotated =
            std::find_if(open.begin(), open.end(), [&](const Vec2& p) { return p.x() > 90 && p.y() > 143; });
        std::rotate(open.begin(), rotated, open.end());
        page.stroke(open, kPencil_mm, kGraphite, false);
        const auto reading = readTracing(test::scanned(page), {});
        ASSERT_EQ(!reading, refused) << width;
        if (refused) {
            EXPECT_EQ(reading.error().code, "line_open");
            // 90 mm in the frame is 81 mm from the inside of the box.
            EXPECT_NE(reading.error().text().find("81 mm from the left edge"), std::string::npos)
                << reading.error().text();
        }
    }
}

/// The scan read with strokes given in mm of the frame.
TracingReading readByHand(const Picture& scan, const std::vector<std::pair<Vec2, Vec2>>& strokes_mm,
                          bool include, double radius_mm) {
    const TracingReading plain = test::need(readTracing(scan, {}));
    TracingWish wish;
    for (const auto& [from, to] : strokes_mm)
        wish.strokes.push_back({{plain.page.view.pixelOf(from), plain.page.view.pixelOf(to)},
                                radius_mm * plain.page.view.pixelsPerMm(from),
                                include});
    return test::need(readTracing(scan, wish));
}

TEST(TracingSheet, WhatIsPaintedInAndOutChangesTheOutlineThereOnly) {
    const Skin skin = test::sampleSkin("sedge60");
    PaintedPage page = tracedPage(skin, false);
    const Picture scan = test::scanned(page);
    const TracingReading plain = test::need(readTracing(scan, {}));
    const double whole = std::abs(polygonArea(plain.side->outline));
    const Vec2 nose = plain.side->axis.nose, tail = plain.side->axis.tail;
    // Three quarters along a band right across is taken out: the larger, front part stays.
    const Vec2 across = nose + 0.75 * (tail - nose);
    const TracingReading cut = readByHand(scan, {{across + Vec2(0, 20), across - Vec2(0, 20)}}, false, 2);
    EXPECT_NEAR(cut.side->axis.length(), 0.75 * (tail - nose).norm() - 2, 0.6);
    for (const Vec2& p : cut.side->outline)  // what was not painted on is as it was
        if (p.x() < across.x() - 4) {
            double nearest = 1e9;
            for (const Vec2& q : plain.side->outline) nearest = std::min(nearest, (p - q).norm());
            EXPECT_LT(nearest, 0.15);
        }
    // A dab of 3 mm on the back line adds its outer half.
    const auto highest = *std::max_element(plain.side->outline.begin(), plain.side->outline.end(),
                                           [](const Vec2& a, const Vec2& b) { return a.y() < b.y(); });
    const TracingReading more = readByHand(scan, {{highest, highest}}, true, 3);
    EXPECT_NEAR(std::abs(polygonArea(more.side->outline)) - whole, 0.5 * kPi * 9, 1.5);
    const TracingReading less = readByHand(scan, {{highest, highest}}, false, 3);
    EXPECT_NEAR(whole - std::abs(polygonArea(less.side->outline)), 0.5 * kPi * 9, 1.5);
}

TEST(TracingSheet, AnOpenLineIsClosedByPaintingAlongIt) {
    const Skin skin = test::sampleSkin("sedge60");
    const Polyline2 outline = test::outlineAt(skin, false, {60, 143});
    PaintedPage page;
    page.marks();
    // Seven millimetres of the line are missing on the back.
    Polyline2 open;
    std::size_t top = 0;
    for (std::size_t i = 0; i < outline.size(); ++i)
        if (outline[i].y() > outline[top].y()) top = i;
    for (std::size_t k = 0; k < outline.size(); ++k) {
        const Vec2& p = outline[(top + k) % outline.size()];
        if ((p - outline[top]).norm() > 3.5) open.push_back(p);
    }
    page.stroke(open, kPencil_mm, kGraphite, false);
    const Picture scan = test::scanned(page);
    const Result<TracingReading> refused = readTracing(scan, {});
    ASSERT_FALSE(refused);
    EXPECT_EQ(refused.error().code, "line_open");
    // The whole page, without a gap, tells where pixels lie.
    const TracingReading whole = test::need(readTracing(test::scanned(tracedPage(skin, false)), {}));
    TracingWish wish;
    Stroke2 stroke{{}, 12, true};
    for (std::size_t k = 0; k < outline.size(); ++k) {
        const Vec2& p = outline[(top + outline.size() - 60 + k) % outline.size()];
        if (k < 120 && (p - outline[top]).norm() < 4.5) stroke.points.push_back(whole.page.view.pixelOf(p));
    }
    ASSERT_GT(stroke.points.size(), 2u);
    wish.strokes.push_back(stroke);
    const TracingReading closed = test::need(readTracing(scan, wish));
    const Skin body = test::need(Skin::of(test::need(blankOfTracing(closed, {})).blank.table));
    const Miss miss = missOf_mm(body, skin, false);
    EXPECT_LT(miss.rms, 0.12);  // and not fatter by the brush, which is 2 mm wide
    EXPECT_LT(miss.worst, 0.5);
}

TEST(TracingSheet, TheAxisCanBeDragged) {
    const Skin skin = test::sampleSkin("sedge60");
    const Picture scan = test::scanned(tracedPage(skin));
    const TracingReading plain = test::need(readTracing(scan, {}));
    const Vec2 nose = plain.side->axis.nose, tail = plain.side->axis.tail;
    TracingWish wish;
    wish.sideAxis_px = std::pair(plain.page.view.pixelOf(nose + Vec2(0, 2)), plain.page.view.pixelOf(tail));
    const TracingReading moved = test::need(readTracing(scan, wish));
    const Vec2 along = moved.side->axis.tail - moved.side->axis.nose, before = tail - nose;
    EXPECT_NEAR(std::atan2(along.y(), along.x()) - std::atan2(before.y(), before.x()),
                -std::atan2(2.0, before.norm()), 2e-3);
    EXPECT_NEAR(along.norm(), before.norm(), 0.3);
    EXPECT_NEAR((moved.top->axis.nose - plain.top->axis.nose).norm(), 0, 1e-9);
    wish.sideAxis_px->second = wish.sideAxis_px->first;
    EXPECT_EQ(readTracing(scan, wish).error().code, "no_axis");
    // Nose and tail changed over: the body is mirrored, up stays up.
    wish.sideAxis_px = std::pair(plain.page.view.pixelOf(tail), plain.page.view.pixelOf(nose));
    const Skin turned =
        test::need(Skin::of(test::need(blankOfTracing(test::need(readTracing(scan, wish)), {})).blank.table));
    const Section s = turned.loft().sectionAt(turned.tailX_mm() - 20), was = skin.loft().sectionAt(20);
    EXPECT_NEAR(s.top_mm, was.top_mm, 0.3);
    EXPECT_NEAR(s.bottom_mm, was.bottom_mm, 0.3);
}

TEST(TracingSheet, AHandOverTheLineIsRefused) {
    const Skin body = test::sampleSkin("sedge60");
    Picture picture = test::scanned(tracedPage(body, false));
    const auto px = [](double mm) { return static_cast<int>(mm * test::kPagePerMm); };
    for (int y = 0; y < px(90); ++y) {  // skin-coloured, across the upper half of the outline
        for (int x = px(95); x < px(115); ++x) {
            picture.at(x, y)[0] = 201;
            picture.at(x, y)[1] = 143;
            picture.at(x, y)[2] = 107;
        }
    }
    const auto reading = readTracing(picture, {});
    ASSERT_FALSE(reading);
    EXPECT_EQ(reading.error().code, "line_open") << reading.error().text();
}

TEST(TracingSheet, PrintedAt97PerCentIsFoundFromTheScanOrTheRuler) {
    // The page is printed at 97 %; the body is drawn on it true to size, so it is larger in the frame.
    const Skin body = test::sampleSkin("sedge60");
    PaintedPage page;
    page.marks();
    Polyline2 line = test::outlineAt(body, false, {0, 0}), grown;
    for (const Vec2& p : line) grown.push_back(Vec2(60, 143) + p / 0.97);
    page.stroke(grown, kPencil_mm / 0.97, kGraphite, true);
    const Picture picture = test::scanned(page);
    TracingWish scan, ruler;
    scan.scanPerMm = test::kPagePerMm / 0.97;  // a scanner knows its own density
    ruler.ruler_mm = 97;
    for (const TracingWish& wish : {scan, ruler}) {
        const TracingReading reading = test::need(readTracing(picture, wish));
        EXPECT_NEAR(reading.scale, 0.97, 1e-3);
        ASSERT_FALSE(reading.warnings.empty());
        EXPECT_EQ(reading.warnings.front().code, "printed_at_scale");
        EXPECT_NE(reading.warnings.front().text().find("97.0 %"), std::string::npos);
        EXPECT_NEAR(bodyFrom(picture, wish).length_mm(), 60, 0.08);
    }
    TracingWish wrong;
    wrong.ruler_mm = 250;
    EXPECT_EQ(readTracing(picture, wrong).error().code, "ruler_wrong");
}

TEST(TracingSheet, ABentPageIsRefused) {
    Camera camera;
    camera.bend_mm = 16;
    camera.tilt_deg = 25;
    const auto reading = readTracing(test::photographed(tracedPage(test::sampleSkin("sedge60")), camera), {});
    ASSERT_FALSE(reading);
    EXPECT_EQ(reading.error().code, "page_not_flat");
}

TEST(TracingSheet, FilledBodiesAndLinesInsideAreFound) {
    const Skin body = test::sampleSkin("sedge60");
    PaintedPage page = tracedPage(body, false);
    Polyline2 ring, gill;
    for (int i = 0; i < 40; ++i)
        ring.push_back(Vec2(69, 146) + 3 * Vec2(std::cos(2 * kPi * i / 40), std::sin(2 * kPi * i / 40)));
    for (int i = -5; i <= 5; ++i) gill.emplace_back(76.5 - 0.03 * i * i, 142 + 1.4 * i);
    page.stroke(ring, 0.4, kGraphite, true);
    page.stroke(gill, 0.4, kGraphite, false);
    const TracingReading reading = test::need(readTracing(test::scanned(page), {}));
    EXPECT_EQ(reading.side->guides.size(), 2u);
    const MadeBlank made = test::need(blankOfTracing(reading, {}));
    const Landmark& eye = made.blank.landmarks.at("eye");
    EXPECT_FALSE(eye.assumed);
    EXPECT_NEAR(eye.diameter_mm, 6, 0.15);
    EXPECT_NEAR(eye.points.front().x(), 9, 0.2);
    EXPECT_FALSE(made.blank.landmarks.at("gill_plate").assumed);
    EXPECT_TRUE(made.blank.landmarks.at("belly_hanger").assumed);

    PaintedPage dark;
    dark.marks();
    const Polyline2 line = test::outlineAt(body, false, {60, 143}, 200);
    for (double x = 60; x < 120; x += 0.2) {
        const Section s = body.loft().sectionAt(std::clamp(x - 60, 0.0, 60.0));
        dark.stroke({{x, 143 - s.bottom_mm}, {x, 143 + s.top_mm}}, 0.3, 0.25F, false);
    }
    dark.stroke(line, 0.1, 0.25F, true);
    const TracingReading filled = test::need(readTracing(test::scanned(dark), {}));
    EXPECT_TRUE(filled.side->filled);
    EXPECT_NEAR(filled.side->axis.length(), 60, 0.3);
}

TEST(TracingSheet, LinesOfARubbingBecomeGuides) {
    const Skin body = test::sampleSkin("sedge60");
    PaintedPage page = tracedPage(body, false);
    // The rubbing lies with the nose at the left edge of its box (8 mm) and the axis at its middle (31 mm).
    page.stroke({{8 + 20, 31 + 2}, {8 + 35, 31 + 1}, {8 + 50, 31}}, 0.5, kGraphite, false);
    const TracingReading reading = test::need(readTracing(test::scanned(page), {}));
    ASSERT_EQ(reading.rubbing.size(), 1u);
    const MadeBlank made = test::need(blankOfTracing(reading, {}));
    ASSERT_EQ(made.blank.landmarks.count("guide_1"), 1u);
    const Skin skin = test::need(Skin::of(made.blank.table));
    const auto& points = made.blank.landmarks.at("guide_1").points;
    const Vec2 first = points.front().x() < points.back().x() ? points.front() : points.back();
    EXPECT_NEAR(first.x(), 20.5, 1);
    EXPECT_NEAR(skin.at({Side::Left, first.x(), first.y()}).position.z(), 2, 0.3);
}

TEST(TracingSheet, StopsWhenCancelled) {
    const Task task = Task::make();
    task.cancel();
    EXPECT_EQ(readTracing(test::scanned(tracedPage(test::sampleSkin("sedge60"))), {}, task).error().code,
              "cancelled");
}

}  // namespace
}  // namespace nine
