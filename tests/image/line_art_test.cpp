// Pencil lines as hands leave them: pale, lifted, gone over twice, beside other lines, where they should not
// be.
#include <random>

#include "image/stand_off.h"
#include "image/tracing.h"
#include "job/blank_from_picture.h"
#include "tests/image/page_painter.h"

namespace nine {
namespace {

using test::PaintedPage;

constexpr double kLine_mm = 0.5;
constexpr float kDark = 0.35F, kPale = 0.86F;
const Vec2 kNose(60, 143);

PaintedPage markedPage() {
    PaintedPage page;
    page.marks();
    return page;
}

/// A closed outline drawn dark, but for one stretch by x on the back: left out, or pale.
void drawWithStretch(PaintedPage& page, const Polyline2& outline, double x0, double x1,
                     std::optional<float> instead) {
    Polyline2 dark, stretch;
    std::size_t start = 0;
    const auto within = [&](const Vec2& p) { return p.x() > x0 && p.x() < x1 && p.y() > kNose.y(); };
    while (!(within(outline[start]) && !within(outline[(start + 1) % outline.size()]))) ++start;
    for (std::size_t k = 1; k <= outline.size(); ++k) {
        const Vec2& p = outline[(start + k) % outline.size()];
        (within(p) ? stretch : dark).push_back(p);
    }
    if (instead) page.stroke(stretch, kLine_mm, *instead, false);
    page.stroke(dark, kLine_mm, kDark, false);
}

/// The scan with the grain of paper and sensor.
Picture grainy(const PaintedPage& page, double noise) {
    Picture picture = test::scanned(page);
    std::mt19937 random(7);
    std::normal_distribution<double> grain(0, 255 * noise);
    for (std::size_t i = 0; i < picture.rgb.size(); i += 3) {
        const double v = grain(random);
        for (std::size_t c = 0; c < 3; ++c)
            picture.rgb[i + c] = static_cast<std::uint8_t>(std::clamp(picture.rgb[i + c] + v, 0.0, 255.0));
    }
    return picture;
}

/// Largest distance from the points that were read, but for 2 mm at both ends, to the line that was meant.
double farthest(const Polyline2& read, const Polyline2& meant) {
    const Box2 box = boxAround({meant});
    double worst = 0;
    for (const Vec2& p : read) {
        if (p.x() < box.low.x() + 2 || p.x() > box.high.x() - 2) continue;
        double nearest = 1e9;
        for (std::size_t i = 0; i < meant.size(); ++i) {
            const Vec2 &a = meant[i], b = meant[(i + 1) % meant.size()], d = b - a;
            const double t = d.squaredNorm() > 0 ? std::clamp((p - a).dot(d) / d.squaredNorm(), 0.0, 1.0) : 0;
            nearest = std::min(nearest, (p - a - t * d).norm());
        }
        worst = std::max(worst, nearest);
    }
    return worst;
}

Polyline2 sedge() {
    return test::outlineAt(test::sampleSkin("sedge60"), false, kNose);
}

/// Where the outline is at a place, above or below.
Vec2 edgeAt(const Polyline2& outline, double x, bool above) {
    Vec2 best(1e9, 0);
    for (const Vec2& p : outline)
        if ((p.y() > kNose.y()) == above && std::abs(p.x() - x) < std::abs(best.x() - x)) best = p;
    return best;
}

TEST(PencilLines, APaleStretchIsFollowed) {
    PaintedPage page = markedPage();
    drawWithStretch(page, sedge(), 82, 97, kPale);
    const TracingReading reading = test::need(readTracing(grainy(page, 0.02), {}));
    EXPECT_NEAR(reading.side->axis.length(), 60, 0.2);
    EXPECT_LT(farthest(reading.side->outline, sedge()), 0.2);
}

TEST(PencilLines, GrainAloneClosesNothing) {
    PaintedPage page = markedPage();
    drawWithStretch(page, sedge(), 82, 97, std::nullopt);
    const auto reading = readTracing(grainy(page, 0.02), {});
    ASSERT_FALSE(reading);
    EXPECT_EQ(reading.error().code, "line_open");
}

TEST(PencilLines, AGapBesideTheGillDoesNotCutTheHeadOff) {
    const Polyline2 outline = sedge();
    for (const double gap : {2.2, 7.0}) {
        PaintedPage page = markedPage();
        drawWithStretch(page, outline, 77 - gap, 77, std::nullopt);
        page.stroke({edgeAt(outline, 77.5, true), Vec2(80, 143), edgeAt(outline, 77.5, false)}, kLine_mm,
                    kDark, false);
        const auto reading = readTracing(test::scanned(page), {});
        if (gap < kWidestGap_mm) {
            ASSERT_TRUE(reading) << reading.error().text();
            EXPECT_NEAR(reading->side->axis.length(), 60, 0.2);
            EXPECT_LT(farthest(reading->side->outline, outline), 0.3);
            EXPECT_EQ(reading->side->guides.size(), 1u);
        } else {
            ASSERT_FALSE(reading);
            EXPECT_EQ(reading.error().code, "line_open");
            EXPECT_NE(reading.error().text().find("for 7 mm, 65 mm from the left"), std::string::npos)
                << reading.error().text();
        }
    }
}

TEST(PencilLines, AnEyeThatTouchesTheLineIsInside) {
    const Polyline2 outline = sedge();
    // Touching the line; and clear of it by a hair, where the eye is drawn darker than the line.
    for (const auto& [below, tone] : {std::pair{2.7, kDark}, {3.0, 0.45F}}) {
        PaintedPage page = markedPage();
        page.stroke(outline, kLine_mm, tone, true);
        Polyline2 eye;
        const Vec2 middle = edgeAt(outline, 75, true) - Vec2(0, below);
        for (int i = 0; i < 40; ++i)
            eye.push_back(middle + 2.2 * Vec2(std::cos(2 * kPi * i / 40), std::sin(2 * kPi * i / 40)));
        page.stroke(eye, kLine_mm, 0.1F, true);
        const TracingReading reading = test::need(readTracing(test::scanned(page), {}));
        EXPECT_LT(farthest(reading.side->outline, outline), 0.3) << below;
    }
}

TEST(PencilLines, ALineGoneOverTwiceIsOneLine) {
    const Polyline2 outline = sedge();
    PaintedPage page = markedPage();
    page.stroke(outline, kLine_mm, kDark, true);
    Polyline2 second;
    for (const Vec2& p : outline)
        if (p.y() > kNose.y() && p.x() > 80 && p.x() < 102) second.push_back(p + Vec2(0, 0.8));
    page.stroke(second, kLine_mm, kDark, false);
    const TracingReading reading = test::need(readTracing(test::scanned(page), {}));
    // Which of the two was meant cannot be known: the middle is wrong by half at most.
    double least = 1e9, most = 0;
    for (const Vec2& p : reading.side->outline)
        if (p.y() > kNose.y() && p.x() > 86 && p.x() < 96) {
            least = std::min(least, p.y() - edgeAt(outline, p.x(), true).y());
            most = std::max(most, p.y() - edgeAt(outline, p.x(), true).y());
        }
    EXPECT_GT(least, 0.2);
    EXPECT_LT(most, 0.6);
}

TEST(PencilLines, ASecondBodyIsToldAndCanBePaintedOut) {
    const Polyline2 outline = sedge();
    PaintedPage page = markedPage();
    page.stroke(outline, kLine_mm, kDark, true);
    Polyline2 other;
    for (const Vec2& p : outline) other.push_back(Vec2(140, 143) + 0.9 * (p - kNose));
    page.stroke(other, kLine_mm, kDark, true);
    const Picture scan = test::scanned(page);
    const auto reading = readTracing(scan, {});
    ASSERT_FALSE(reading);
    EXPECT_EQ(reading.error().code, "two_bodies");
    EXPECT_NE(reading.error().text().find("from 50 mm to 111 mm and from 130 mm to 185 mm"),
              std::string::npos)
        << reading.error().text();
    PaintedPage alone = markedPage();
    alone.stroke(outline, kLine_mm, kDark, true);
    const SeenPage seen = test::need(readTracing(test::scanned(alone), {})).page;
    TracingWish wish;
    wish.strokes.push_back({{seen.view.pixelOf({138, 143}), seen.view.pixelOf({196, 143})},
                            13 * seen.view.pixelsPerMm(kNose),
                            false});
    EXPECT_NEAR(test::need(readTracing(scan, wish)).side->axis.length(), 60, 0.2);
}

TEST(PencilLines, ABodyOverTheEdgeOfItsBoxIsTold) {
    PaintedPage page = markedPage();
    page.stroke(test::outlineAt(test::sampleSkin("sedge60"), false, {200, 143}), kLine_mm, kDark, true);
    const auto reading = readTracing(test::scanned(page), {});
    ASSERT_FALSE(reading);
    EXPECT_EQ(reading.error().code, "over_the_edge");
    EXPECT_NE(reading.error().text().find("over the right edge"), std::string::npos)
        << reading.error().text();
}

TEST(PencilLines, AMirroredPageIsTold) {
    PaintedPage page = markedPage();
    page.stroke(sedge(), kLine_mm, kDark, true);
    const Picture scan = test::scanned(page);
    Picture mirrored = scan;
    for (int y = 0; y < scan.height; ++y)
        for (int x = 0; x < scan.width; ++x)
            std::copy_n(scan.at(x, y), 3, mirrored.at(scan.width - 1 - x, y));
    const auto reading = readTracing(mirrored, {});
    ASSERT_FALSE(reading);
    EXPECT_EQ(reading.error().code, "page_mirrored");
}

bool warned(const Warnings& warnings, const std::string& code) {
    return std::any_of(warnings.begin(), warnings.end(), [&](const Warning& w) { return w.code == code; });
}

TEST(PencilLines, AnEyeAtTheRightAsksWhereTheNoseIs) {
    const Skin body = test::sampleSkin("sedge60");
    PaintedPage page = markedPage();
    Polyline2 turned, eye;
    for (const Vec2& p : test::outlineAt(body, false, {0, 0}))
        turned.push_back(Vec2(120 - p.x(), 143 + p.y()));
    for (int i = 0; i < 40; ++i)
        eye.push_back(Vec2(111, 145) + 2 * Vec2(std::cos(2 * kPi * i / 40), std::sin(2 * kPi * i / 40)));
    page.stroke(turned, kLine_mm, kDark, true);
    page.stroke(eye, kLine_mm, kDark, true);
    const Picture scan = test::scanned(page);
    EXPECT_TRUE(warned(test::need(readTracing(scan, {})).warnings, "nose_perhaps_other"));
    TracingWish wish;
    wish.noseLeft = false;
    const TracingReading reading = test::need(readTracing(scan, wish));
    EXPECT_FALSE(warned(reading.warnings, "nose_perhaps_other"));
    const MadeBlank made = test::need(blankOfTracing(reading, {}));
    const Section s = test::need(Skin::of(made.blank.table)).loft().sectionAt(20),
                  was = body.loft().sectionAt(body.noseX_mm() + 20);
    EXPECT_NEAR(s.top_mm, was.top_mm, 0.1);
    EXPECT_NEAR(s.bottom_mm, was.bottom_mm, 0.1);
    EXPECT_FALSE(made.blank.landmarks.at("eye").assumed);
}

TEST(PencilLines, AScaleThatCannotBeKnownIsAskedFor) {
    PaintedPage page = markedPage();
    page.stroke(sedge(), kLine_mm, kDark, true);
    const Picture scan = test::scanned(page);
    EXPECT_TRUE(warned(test::need(readTracing(scan, {})).warnings, "scale_unmeasured"));
    TracingWish wish;
    wish.ruler_mm = 100;
    EXPECT_FALSE(warned(test::need(readTracing(scan, wish)).warnings, "scale_unmeasured"));
}

/// The line of a pencil whose middle keeps `away` mm from a body: where the circle round each place of the
/// outline reaches farthest along its normal.
Polyline2 keptAway(const Polyline2& outline, double away) {
    Polyline2 line;
    const std::size_t n = outline.size();
    for (std::size_t i = 0; i < n; ++i) {
        const Vec2 along = outline[(i + 1) % n] - outline[(i + n - 1) % n];
        if (along.norm() < 1e-9) continue;
        line.push_back(outline[i] + away * Vec2(-along.y(), along.x()).normalized());
    }
    return line;
}

double heightOf(const Skin& body) {
    const Box2 box = boxAround({test::outlineAt(body, false, {0, 0})});
    return box.size().y();
}

TEST(StandOff, OneSizeByRulerDrawsTheLineInEvenly) {
    const Skin body = test::sampleSkin("sedge60");
    PaintedPage page = markedPage();
    page.stroke(keptAway(sedge(), 0.8), kLine_mm, kDark, true);
    page.stroke(keptAway(test::outlineAt(body, true, {66, 82}), 0.6), kLine_mm, kDark, true);
    const Picture scan = test::scanned(page);
    const TracingReading plain = test::need(readTracing(scan, {}));
    EXPECT_TRUE(warned(plain.warnings, "pencil_stands_off"));
    EXPECT_NEAR(plain.side->axis.length(), 61.6, 0.1);
    EXPECT_NEAR(plain.side->lineWidth_mm, kLine_mm, 1.0 / test::kPagePerMm);  // a pixel of the page
    const double tall = heightOf(body);
#ifdef NINE_SANITIZED
    const std::vector<bool> sizes{
        false};  // instrumented code is slow: the height is found by the same search
#else
    const std::vector<bool> sizes{false, true};
#endif
    for (const bool height : sizes) {
        TracingWish wish;
        (height ? wish.knownHeight_mm : wish.knownLength_mm) = height ? tall : 60;
        const TracingReading reading = test::need(readTracing(scan, wish));
        EXPECT_NEAR(reading.sideStandOff_mm, 0.8, 0.08) << height;
        EXPECT_NEAR(reading.topStandOff_mm, 0.6, 0.1) << height;
        EXPECT_FALSE(warned(reading.warnings, "pencil_stands_off"));
        EXPECT_LT(farthest(reading.side->outline, sedge()), 0.15) << height;
        EXPECT_LT(farthest(reading.top->outline, test::outlineAt(body, true, {66, 82})), 0.2) << height;
    }
    TracingWish wrong;
    wrong.knownLength_mm = 75;
    EXPECT_EQ(readTracing(scan, wrong).error().code, "known_size_off");
    wrong.knownLength_mm = 45;
    EXPECT_EQ(readTracing(scan, wrong).error().code, "known_size_off");
    TracingWish both;
    both.knownLength_mm = 60;
    both.knownHeight_mm = tall - 1;
    EXPECT_TRUE(warned(test::need(readTracing(scan, both)).warnings, "known_sizes_disagree"));
}

TEST(StandOff, UsualWaysOfTracing) {
    EXPECT_EQ(usualStandOff_mm(TracedWith::Edge, 0.6, 8), 0);
    EXPECT_NEAR(usualStandOff_mm(TracedWith::Leaning, 0.6, 8), 0.3, 1e-12);
    EXPECT_NEAR(usualStandOff_mm(TracedWith::Upright, 0.6, 8), 1.855, 0.001);  // a cone 1.555 mm wide 8 mm up
    EXPECT_NEAR(usualStandOff_mm(TracedWith::Upright, 0.6, 40), 3.8, 1e-9);    // the pencil itself
    // A line as far out as an upright pencil leaves it comes back as the body.
    const Skin body = test::sampleSkin("sedge60");
    double half = 0;
    const double tall = heightOf(body);
    for (double x = 0.5; x < 60; x += 0.5)
        half = std::max(half, body.loft().sectionAt(body.noseX_mm() + x).halfWidth_mm);
    PaintedPage page = markedPage();
    const double away = 0.5 * kLine_mm + 0.1944 * half, above = 0.5 * kLine_mm + 0.1944 * 0.5 * tall;
    page.stroke(keptAway(sedge(), away), kLine_mm, kDark, true);
    page.stroke(keptAway(test::outlineAt(body, true, {66, 82}), above), kLine_mm, kDark, true);
    TracingWish wish;
    wish.tracedWith = TracedWith::Upright;
    const TracingReading reading = test::need(readTracing(test::scanned(page), wish));
    EXPECT_TRUE(warned(reading.warnings, "stand_off_assumed"));
    EXPECT_NEAR(reading.sideStandOff_mm, away, 0.15);
    EXPECT_NEAR(reading.side->axis.length(), 60, 0.4);
}

}  // namespace
}  // namespace nine
