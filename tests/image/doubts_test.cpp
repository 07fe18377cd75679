// What a photograph leaves in doubt is told by its place, can be put back, and fine or hidden ends are found.
#include <algorithm>

#include "image/coin.h"
#include "image/end_fit.h"
#include "image/run_on.h"
#include "job/blank_from_picture.h"
#include "tests/image/page_painter.h"
#include "tests/image/photo_painter.h"

namespace nine {
namespace {

using test::bodyOnGround;
using test::kPaper;
using test::kWood;
using test::paintOver;
using test::plain;

const Warning* warningOf(const Warnings& warnings, const std::string& code) {
    const auto found =
        std::find_if(warnings.begin(), warnings.end(), [&](const Warning& w) { return w.code == code; });
    return found == warnings.end() ? nullptr : &*found;
}

// ---- run_on

TEST(RunOn, GoesOnUnderWhatIsHiddenOnACircle) {
    constexpr double kCircleRadius = 120;
    Polyline2 line;
    std::vector<bool> blind;
    const int n = 376;  // two pixels apart
    for (int i = 0; i < n; ++i) {
        const double a = 2 * kPi * i / n;
        blind.push_back(i > 60 && i < 84);
        const double r = kCircleRadius + (blind.back() ? 9 : 0);  // a stub stands out
        line.push_back(r * Vec2(std::cos(a), std::sin(a)));
    }
    runOn(line, blind, [](const Polyline2&) { return 0.0; });
    for (const Vec2& p : line) EXPECT_NEAR(p.norm(), kCircleRadius, 0.9);
}

/// A wedge whose point is hidden: what is likely decides between an arc and the point.
TEST(RunOn, AnEndIsWhatIsLikeliest) {
    Polyline2 wedge;  // counter-clockwise: lower side towards the tip at 0,0, upper side back, and round
    for (int i = 0; i < 200; ++i) wedge.emplace_back(-2.0 * (200 - i), -0.6 * (200 - i));
    for (int i = 0; i < 200; ++i) wedge.emplace_back(-2.0 * i, 0.6 * i);
    std::vector<bool> blind(wedge.size());
    for (std::size_t i = 0; i < wedge.size(); ++i) blind[i] = i > 190 && i < 210;
    const auto farthest = [&](const Likely& likely) {
        Polyline2 line = wedge;
        runOn(line, blind, likely);
        double most = -1e9;
        for (std::size_t i = 180; i < 220; ++i) most = std::max(most, line[i].x());
        return most;
    };
    const auto reach = [](const Polyline2& path) {
        double most = -1e9;
        for (const Vec2& p : path) most = std::max(most, p.x());
        return most;
    };
    EXPECT_NEAR(farthest(reach), 0, 1.5);  // where both sides meet
    EXPECT_LT(farthest([&](const Polyline2& p) { return -reach(p); }), -20);
    const double arc = farthest([](const Polyline2&) { return 0.0; });
    EXPECT_GT(arc, -24);
    EXPECT_LT(arc, -8);
}

/// A face cut off a wedge, hidden from before its corner on to where few points of it are left to be seen,
/// and more of another edge beyond. It leans back, or turns so little that a smooth curve would do.
TEST(RunOn, ACutFaceStaysStraightUpToItsHiddenCorner) {
    for (const Vec2& face : {Vec2(-50, 120).normalized(), Vec2(55, 90).normalized()}) {
        constexpr int kFace = 65;
        Polyline2 line;  // along the belly to the corner at 300,0; up the face; back along the top
        for (int i = 0; i < 150; ++i) line.emplace_back(2.0 * i, 0);
        for (int i = 0; i < kFace; ++i) line.push_back(Vec2(300, 0) + 2.0 * i * face);
        const Vec2 top = line.back();
        for (int i = 1; i < 120; ++i) line.push_back(top - Vec2(2.0 * i, 0));
        std::vector<bool> blind(line.size());
        const Polyline2 whole = line;
        for (std::size_t i = 140; i < 195; ++i) {
            blind[i] = true;
            line[i] += Vec2(14, 0);
        }
        // Ground is beyond the belly and the face.
        const Likely onBody = [&](const Polyline2& path) {
            double sum = 0;
            for (const Vec2& p : path) {
                const double beyond = std::max(-p.y(), (p - Vec2(300, 0)).dot(Vec2(face.y(), -face.x())));
                sum += beyond > 2 ? -1 : std::abs(beyond) < 2 ? 1 : 0;
            }
            return sum / static_cast<double>(path.size());
        };
        runOn(line, blind, onBody);
        for (std::size_t i = 130; i < 210; ++i) {
            double near = 1e9;
            for (const Vec2& q : whole) near = std::min(near, (q - line[i]).norm());
            EXPECT_LT(near, 3) << face.transpose() << " at " << i << ": " << line[i].transpose();
        }
    }
}

// ---- end_fit

/// Closed outline of half heights k d^p before a tail at `length`, blunt before it and round at the nose.
Polyline2 powerBody(double length, double exponent, double cutAt) {
    Polyline2 upper;
    for (int i = 0; i <= 400; ++i) {
        const double x = cutAt * i / 400, d = length - x;
        const double y = 9 * std::pow(d / length, exponent) * std::sqrt(std::min(1.0, 6 * x / length));
        upper.emplace_back(x, y);
    }
    Polyline2 line = upper;
    for (std::size_t i = upper.size(); i-- > 0;) line.emplace_back(upper[i].x(), -0.8 * upper[i].y());
    return line;
}

TEST(EndFits, AFineEndIsWhereItsHeightsLead) {
    for (const double exponent : {0.75, 1.0}) {
        const Polyline2 shortened = powerBody(80, exponent, 79.2);
        const std::optional<EndFit> fit = fitEnd(shortened, 79.2, true);
        ASSERT_TRUE(fit) << exponent;
        EXPECT_NEAR(fit->x_mm, 80, 0.12) << exponent;
        EXPECT_NEAR(fit->exponent, exponent, 0.03);
        double most = 0;
        for (const Vec2& p : withEnd(shortened, *fit, true)) most = std::max(most, p.x());
        EXPECT_NEAR(most, 80, 0.12);
    }
    Polyline2 wavy = powerBody(80, 1, 80);  // heights that follow no power are left alone
    for (Vec2& p : wavy) p.y() *= 1 + 0.06 * std::sin(1.5 * p.x());
    EXPECT_FALSE(fitEnd(wavy, 80, true));
}

// ---- coin

Picture coinPicture(const Vec2& middle, double radius, double slender, bool hiddenThird) {
    Picture picture(1200, 900);
    std::mt19937 random(4);
    std::normal_distribution<double> grain(0, 3);
    for (int y = 0; y < 900; ++y)
        for (int x = 0; x < 1200; ++x) {
            double sums[3] = {0, 0, 0};
            for (int k = 0; k < 9; ++k) {
                const Vec2 d = Vec2(x + (k % 3 + 0.5) / 3, y + (k / 3 + 0.5) / 3) - middle;
                const double r = std::hypot(d.x(), d.y() / slender) / radius;
                const bool head =
                    std::hypot(d.x() + 0.1 * radius, d.y()) < 0.5 * radius;  // what is struck on it
                Vec3 c(205, 200, 190);
                if (r < 1)
                    c = r > 0.86 ? Vec3(150, 130, 70) : head ? Vec3(110, 100, 90) : Vec3(165, 160, 155);
                if (hiddenThird && d.x() > 0.55 * radius) c = Vec3(60, 90, 70);
                for (int i = 0; i < 3; ++i) sums[i] += c[i] / 9;
            }
            for (int i = 0; i < 3; ++i)
                picture.at(x, y)[i] =
                    static_cast<std::uint8_t>(std::clamp(sums[i] + grain(random), 0.0, 255.0));
        }
    return picture;
}

TEST(Coins, TheRimIsFoundAndNotWhatIsStruckOnIt) {
    for (const bool hidden : {false, true}) {
        const SeenCoin coin = test::need(coinAt(coinPicture({700, 420}, 130, 1, hidden), {690, 430}));
        EXPECT_NEAR(coin.half_px.norm(), 130, 1.2) << hidden;
        EXPECT_NEAR((coin.middle - Vec2(700, 420)).norm(), 0, 1.2) << hidden;
        EXPECT_FALSE(slantWarning(coin));
    }
}

TEST(Coins, ASlantIsTold) {
    const SeenCoin coin = test::need(coinAt(coinPicture({500, 420}, 140, 0.94, false), {500, 420}));
    EXPECT_NEAR(coin.half_px.norm(), 140, 1.2);
    EXPECT_NEAR(coin.slender, 0.94, 0.01);
    EXPECT_NEAR(coin.slant_deg, 19.9, 1.5);
    ASSERT_TRUE(slantWarning(coin));
    EXPECT_EQ(slantWarning(coin)->code, "camera_slants");
}

TEST(Coins, PlainGroundHasNone) {
    EXPECT_EQ(coinAt(coinPicture({600, 450}, 100, 1, false), {1100, 100}).error().code, "no_coin");
    EXPECT_EQ(coinAt(Picture(300, 200, 180), {150, 100}).error().code, "no_coin");
    EXPECT_EQ(coinAt(Picture(300, 200, 180), {-4, 100}).error().code, "no_coin");
}

// ---- the scale

Silhouette ellipseSilhouette() {
    Silhouette s;
    for (int i = 0; i < 360; ++i)
        s.outline.emplace_back(500 + 300 * std::cos(kPi * i / 180), 400 + 60 * std::sin(kPi * i / 180));
    return s;
}

TEST(PhotoScale, ACoinOnTheTableIsFartherAwayThanTheOutline) {
    // 600 pixels of body; the coin says 0.1 mm a pixel on the table: 60 mm there, 12 mm high, so its outline
    // lies 4.2 mm above the table.
    PhotoWish wish;
    wish.known = PhotoWish::Known{{100, 700}, {300, 700}, 20};
    const PhotoOutline plain = test::need(photoOutline(ellipseSilhouette(), wish));
    EXPECT_NEAR(plain.mmPerPx, 0.1, 1e-6);
    const Warning* lower = warningOf(plain.warnings, "scale_lies_lower");
    ASSERT_TRUE(lower);
    EXPECT_NE(lower->text().find("0.9 mm too long, from 1 m 0.3 mm"), std::string::npos) << lower->text();
    wish.focal_px = 3000;  // 300 mm away: 4.2 / 300 nearer
    const PhotoOutline corrected = test::need(photoOutline(ellipseSilhouette(), wish));
    EXPECT_NEAR(corrected.mmPerPx, 0.1 * (1 - 4.2 / 300), 1e-5);
    EXPECT_NEAR(corrected.camera_mm, 300, 0.5);
    // The photo from above: half of the same ellipse wide, so the outline lies 3 mm above the table.
    Silhouette above = ellipseSilhouette();
    for (Vec2& p : above.outline) p.y() *= 0.5;
    PhotoWish known = wish;
    known.widthOverLength = test::need(widthOverLength(above));
    EXPECT_NEAR(*known.widthOverLength, 0.1, 1e-3);
    EXPECT_NEAR(test::need(photoOutline(ellipseSilhouette(), known)).mmPerPx, 0.1 * (1 - 3.0 / 300), 1e-5);
    wish.length_mm = 59.16;  // with the length too the camera's distance comes out
    const PhotoOutline both = test::need(photoOutline(ellipseSilhouette(), wish));
    EXPECT_NEAR(both.mmPerPx * both.axis_px.length(), 59.16, 1e-6);
    EXPECT_NEAR(both.camera_mm, 300, 6);
    EXPECT_TRUE(warningOf(both.warnings, "camera_near"));
    wish.length_mm = 45;
    EXPECT_TRUE(warningOf(test::need(photoOutline(ellipseSilhouette(), wish)).warnings, "sizes_disagree"));
}

// ---- what was taken off or guessed

TEST(PhotoDoubts, ThingsTakenOffAreHandedOutAndGoBackOn) {
    const Skin body = test::sampleSkin("sedge60");
    Picture picture = bodyOnGround(body, kWood, kPaper, 0.06, false);
    const double belly = body.loft().sectionAt(30).bottom_mm;
    paintOver(picture, body, 0.06, plain(Vec3(90, 92, 95)), [&](const Vec2& p) {
        const double tie = (p - Vec2(-1.2, 0.2)).norm();
        return (tie > 1.0 && tie < 1.55) ||
               (std::abs(p.x() - 30) < 0.35 && p.y() < -belly + 0.5 && p.y() > -belly - 10);
    });
    const Silhouette found = test::need(silhouetteOf(picture, {}));
    PhotoWish wish;
    wish.length_mm = 60;
    const PhotoOutline outline = test::need(photoOutline(found, wish));
    ASSERT_EQ(outline.hung_mm.size(), 2u);
    const auto [left, right] =
        std::minmax_element(outline.hung_mm.begin(), outline.hung_mm.end(),
                            [](const Vec2& a, const Vec2& b) { return a.x() < b.x(); });
    EXPECT_NEAR(left->x(), 0, 0.8);
    EXPECT_NEAR(right->x(), 30, 0.6);
    EXPECT_NEAR(right->y(), -belly, 0.6);
    const MadeBlank made = test::need(blankOfPhotos(outline, std::nullopt, {}));
    EXPECT_FALSE(made.blank.landmarks.at("line_tie").assumed);
    EXPECT_FALSE(made.blank.landmarks.at("belly_hanger").assumed);
    EXPECT_NEAR(made.blank.landmarks.at("belly_hanger").points.front().x(), 30, 0.6);
    // The wire is put back: the outline reaches 10 mm farther down.
    const auto wire =
        std::max_element(found.takenOff.begin(), found.takenOff.end(),
                         [](const TakenOff& a, const TakenOff& b) { return a.reach_px < b.reach_px; });
    SilhouetteWish back;
    const Box2 box = boxAround({wire->outline});
    back.putBack.push_back(0.5 * (box.low + box.high));
    const Silhouette with = test::need(silhouetteOf(picture, back));
    EXPECT_NEAR(boxAround({with.outline}).high.y() - boxAround({found.outline}).high.y(), 10 / 0.06, 12);
    // A dab on the border stays as it was painted.
    SilhouetteWish dab;
    const auto lowest = *std::max_element(found.outline.begin(), found.outline.end(),
                                          [](const Vec2& a, const Vec2& b) { return a.y() < b.y(); });
    dab.strokes.push_back({{lowest + Vec2(120, 0)}, 30, true});
    EXPECT_NEAR(std::abs(polygonArea(test::need(silhouetteOf(picture, dab)).outline)) -
                    std::abs(polygonArea(found.outline)),
                0.5 * kPi * 900, 500);
    EXPECT_EQ(
        std::count_if(with.takenOff.begin(), with.takenOff.end(), [](const TakenOff& t) { return t.back; }),
        1);
}

TEST(PhotoDoubts, AGuessIsToldByItsPlaceAndSize) {
    Silhouette s = ellipseSilhouette();
    Guessed guess;
    for (int i = 80; i <= 100; ++i)
        guess.line.emplace_back(500 + 300 * std::cos(kPi * i / 180), 400 + 60 * std::sin(kPi * i / 180));
    guess.likely_px = 6;
    s.guessed.push_back(guess);
    PhotoWish wish;
    wish.length_mm = 60;
    const PhotoOutline outline = test::need(photoOutline(s, wish));
    const Warning* told = warningOf(outline.warnings, "outline_guessed");
    ASSERT_TRUE(told);
    EXPECT_NE(told->text().find("On the lower edge 25 mm to 35 mm from the nose"), std::string::npos)
        << told->text();
    EXPECT_NE(told->text().find("about 0.6 mm"), std::string::npos) << told->text();
    s.guessed.front().likely_px = 1;  // a tenth of a millimetre is not worth a sentence
    EXPECT_FALSE(warningOf(test::need(photoOutline(s, wish)).warnings, "outline_guessed"));
}

TEST(PhotoDoubts, ASecondBodyIsTold) {
    const Skin body = test::sampleSkin("sedge60");
    Picture picture = bodyOnGround(body, kWood, kPaper, 0.09, false);
    EXPECT_FALSE(warningOf(test::need(silhouetteOf(picture, {})).warnings, "second_body"));
    paintOver(picture, body, 0.09, plain(kWood), [](const Vec2& p) {
        return std::pow((p.x() - 18) / 32, 2) + std::pow((p.y() + 36) / 6.5, 2) < 1;
    });
    const Silhouette found = test::need(silhouetteOf(picture, {}));
    const Warning* second = warningOf(found.warnings, "second_body");
    ASSERT_TRUE(second);
    EXPECT_NE(second->text().find("to the left"), std::string::npos);
}

TEST(PhotoDoubts, TheTracingSheetIsNoPhotograph) {
    test::PaintedPage page;
    page.marks();
    page.stroke(test::outlineAt(test::sampleSkin("sedge60"), false, {60, 143}), 0.5, 0.35F, true);
    test::Camera camera;
    camera.tilt_deg = 10;
    const auto found = silhouetteOf(test::photographed(page, camera), {});
    ASSERT_FALSE(found);
    EXPECT_EQ(found.error().code, "tracing_sheet");
}

}  // namespace
}  // namespace nine
