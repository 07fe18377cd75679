// What reads pictures, against OpenCV 4: the same thing asked of a library that shares nothing with it.
#include <gtest/gtest.h>

#include <opencv2/core.hpp>
#include <opencv2/imgproc.hpp>

#include "geom/polygon_set.h"
#include "image/regions.h"
#include "image/ring.h"
#include "image/silhouette.h"
#include "tests/support.h"

namespace nine {
namespace {

/// Smooth random hills, 0 to 1.
cv::Mat hills(int width, int height, double smooth, int seed) {
    cv::Mat m(height, width, CV_32F);
    cv::RNG random(static_cast<std::uint64_t>(seed));
    random.fill(m, cv::RNG::UNIFORM, 0.0, 1.0);
    cv::GaussianBlur(m, m, {}, smooth);
    cv::normalize(m, m, 0, 1, cv::NORM_MINMAX);
    return m;
}
Plane planeOf(const cv::Mat& m) {
    Plane plane(m.cols, m.rows);
    for (int y = 0; y < m.rows; ++y)
        for (int x = 0; x < m.cols; ++x) plane.at(x, y) = m.at<float>(y, x);
    return plane;
}
cv::Mat matOf(const PixelSet& set) {
    cv::Mat m(set.height, set.width, CV_8U);
    for (int y = 0; y < set.height; ++y)
        for (int x = 0; x < set.width; ++x) m.at<std::uint8_t>(y, x) = set.at(x, y) ? 255 : 0;
    return m;
}
Picture pictureOf(const cv::Mat& rgb) {
    Picture picture(rgb.cols, rgb.rows);
    for (int y = 0; y < rgb.rows; ++y)
        for (int x = 0; x < rgb.cols; ++x)
            for (int c = 0; c < 3; ++c) picture.at(x, y)[c] = rgb.at<cv::Vec3b>(y, x)[c];
    return picture;
}
cv::Mat disc(int radius) {
    cv::Mat kernel = cv::Mat::zeros(2 * radius + 1, 2 * radius + 1, CV_8U);
    for (int y = -radius; y <= radius; ++y)
        for (int x = -radius; x <= radius; ++x)
            kernel.at<std::uint8_t>(y + radius, x + radius) = x * x + y * y <= radius * radius;
    return kernel;
}

TEST(OpenCv, CountsTheSamePartsOfTheSameSizes) {
    const PixelSet set = above(planeOf(hills(211, 157, 2, 1)), 0.55F);
    for (const bool overCorners : {false, true}) {
        cv::Mat labels, stats, middles;
        const int count =
            cv::connectedComponentsWithStats(matOf(set), labels, stats, middles, overCorners ? 8 : 4);
        const std::vector<Part> parts = partsOf(set, overCorners);
        ASSERT_EQ(static_cast<int>(parts.size()), count - 1);  // theirs has the ground for 0
        ASSERT_GT(parts.size(), 10U);
        for (const Part& part : parts) {
            const auto w = static_cast<std::size_t>(set.width);
            const int label = labels.at<int>(static_cast<int>(part.pixels.front() / w),
                                             static_cast<int>(part.pixels.front() % w));
            EXPECT_EQ(static_cast<int>(part.area()), stats.at<int>(label, cv::CC_STAT_AREA));
            EXPECT_EQ(part.left, stats.at<int>(label, cv::CC_STAT_LEFT));
            EXPECT_EQ(part.height(), stats.at<int>(label, cv::CC_STAT_HEIGHT));
            EXPECT_NEAR(part.centroid(set.width).x() - 0.5, middles.at<double>(label, 0), 1e-9);
        }
    }
}

TEST(OpenCv, MeasuresTheSameDistances) {
    const PixelSet set = above(planeOf(hills(300, 180, 4, 2)), 0.7F);
    cv::Mat theirs;
    cv::distanceTransform(matOf(inverse(set)), theirs, cv::DIST_L2, cv::DIST_MASK_PRECISE);
    const Plane ours = distanceTo(set);
    double farthest = 0;
    for (int y = 0; y < set.height; ++y)
        for (int x = 0; x < set.width; ++x) {
            ASSERT_NEAR(ours.at(x, y), theirs.at<float>(y, x), 1e-3) << x << ' ' << y;
            farthest = std::max<double>(farthest, ours.at(x, y));
        }
    EXPECT_GT(farthest, 20);
}

TEST(OpenCv, GrowsShrinksAndClosesAlike) {
    const cv::Mat m = hills(200, 150, 3, 3);
    const PixelSet set = above(planeOf(m), 0.5F);
    for (const int radius : {2, 5}) {
        cv::Mat wide, narrow;
        cv::dilate(matOf(set), wide, disc(radius));
        cv::erode(matOf(set), narrow, disc(radius));
        EXPECT_EQ(cv::norm(matOf(grown(set, radius)), wide, cv::NORM_L1), 0) << radius;
        EXPECT_EQ(cv::norm(matOf(shrunk(set, radius)), narrow, cv::NORM_L1), 0) << radius;
        cv::Mat theirs;
        cv::morphologyEx(m, theirs, cv::MORPH_CLOSE, cv::Mat::ones(2 * radius + 1, 2 * radius + 1, CV_8U));
        const Plane ours = closed(planeOf(m), radius);
        for (int y = 0; y < m.rows; ++y)
            for (int x = 0; x < m.cols; ++x)
                ASSERT_EQ(ours.at(x, y), theirs.at<float>(y, x)) << x << ' ' << y;
    }
}

TEST(OpenCv, PartsTwoGroupsAtTheSameLevel) {
    cv::Mat m = hills(160, 120, 1.5, 4), bytes;
    cv::rectangle(m, {30, 30}, {90, 80}, 0.05, cv::FILLED);
    m.convertTo(bytes, CV_8U, 255);
    cv::Mat on;
    const double theirs = cv::threshold(bytes, on, 0, 255, cv::THRESH_OTSU);
    std::vector<float> values;
    for (int y = 0; y < bytes.rows; ++y)
        for (int x = 0; x < bytes.cols; ++x) values.push_back(bytes.at<std::uint8_t>(y, x));
    EXPECT_NEAR(otsuLevel(values), theirs, 1.5);
}

TEST(OpenCv, SeesTheSameColours) {
    for (const Vec3& rgb :
         {Vec3(255, 255, 255), Vec3(12, 200, 90), Vec3(180, 20, 230), Vec3(90, 90, 95), Vec3(3, 4, 5)}) {
        cv::Mat one(1, 1, CV_32FC3, cv::Scalar(rgb.x() / 255, rgb.y() / 255, rgb.z() / 255)), theirs;
        cv::cvtColor(one, theirs, cv::COLOR_RGB2Lab);
        const Vec3 ours = labOf(rgb);
        for (int c = 0; c < 3; ++c)
            EXPECT_NEAR(ours[c], theirs.at<cv::Vec3f>(0, 0)[c], 0.2) << rgb.transpose();
    }
}

TEST(OpenCv, DrawsTheSameContours) {
    // Eight times finer by their interpolation, and their border following on that.
    constexpr int kFiner = 8;
    const cv::Mat m = hills(160, 120, 4, 5);
    const auto ours = levelLines(planeOf(m), 0.6F);
    cv::Mat fine;
    cv::resize(m, fine, {}, kFiner, kFiner, cv::INTER_LINEAR);
    std::vector<std::vector<cv::Point>> theirs;
    cv::Mat mask = fine > 0.6;
    cv::findContours(mask, theirs, cv::RETR_LIST, cv::CHAIN_APPROX_NONE);
    ASSERT_GT(ours.size(), 3U);
    std::size_t compared = 0;
    for (const Polyline2& line : ours) {
        const bool atEdge = std::any_of(line.begin(), line.end(), [&](const Vec2& p) {
            return p.x() < 1 || p.y() < 1 || p.x() > m.cols - 1 || p.y() > m.rows - 1;
        });
        if (atEdge || line.size() < 20) continue;
        ++compared;
        double worst = 0;
        for (const Vec2& p : line) {
            double near = 1e9;
            for (const auto& contour : theirs)
                for (const cv::Point& q : contour)
                    near = std::min(near, (Vec2(q.x + 0.5, q.y + 0.5) / kFiner - p).norm());
            worst = std::max(worst, near);
        }
        EXPECT_LT(worst, 1.5 / kFiner);
    }
    EXPECT_GE(compared, 2U);
}

/// A pointed body, painted, with a ring at its nose, in a shadow and with hooks if wanted; drawn twice as
/// large and made smaller by OpenCV.
struct Bait {
    cv::Scalar wire{70, 70, 70};
    double shadow = 0;

    static constexpr double kNose = 300, kTail = 1300, kMiddle = 520, kHalf = 160;
    static constexpr double kRingRadius = 17, kWire = 7;
    static cv::Point2d ring() { return {kNose - 13, kMiddle}; }
    static std::vector<cv::Point2f> outline() {
        std::vector<cv::Point2f> line;
        for (const double side : {-1.0, 1.0})
            for (int i = 0; i <= 200; ++i) {
                const double t = side < 0 ? i / 200.0 : 1 - i / 200.0;
                line.emplace_back(
                    static_cast<float>(kNose + t * (kTail - kNose)),
                    static_cast<float>(kMiddle + side * kHalf * std::pow(std::sin(CV_PI * t), 0.8)));
            }
        return line;
    }
    cv::Mat picture() const {
        cv::Mat m(1050, 1600, CV_8UC3, cv::Scalar(205, 200, 188));
        std::vector<cv::Point> body;
        for (const cv::Point2f& p : outline()) body.emplace_back(p);
        cv::Mat on = cv::Mat::zeros(m.size(), CV_8U), dark;
        cv::fillPoly(on, std::vector<std::vector<cv::Point>>{body}, 255);
        const cv::Mat move = (cv::Mat_<double>(2, 3) << 1, 0, 14, 0, 1, 22);
        cv::warpAffine(on, dark, move, m.size());
        cv::GaussianBlur(dark, dark, {}, 34);
        m.forEach<cv::Vec3b>([&](cv::Vec3b& c, const int* at) {
            c *= 1 - shadow * dark.at<std::uint8_t>(at[0], at[1]) / 255.0;
        });
        cv::circle(m, cv::Point(ring()), cvRound(kRingRadius), wire, cvRound(kWire), cv::LINE_AA);
        m.setTo(cv::Scalar(60, 110, 70), on);
        cv::GaussianBlur(m, m, {}, 1);
        cv::Mat grain(m.size(), CV_16SC3), sum;
        cv::RNG random(7);
        random.fill(grain, cv::RNG::NORMAL, 0, 2.5);
        m.convertTo(sum, CV_16SC3);
        sum += grain;
        sum.convertTo(m, CV_8UC3);
        return m;
    }
};
/// The farthest a silhouette is from the body's own outline, pixels, and whether the ring was told.
std::pair<double, bool> seenOf(const Bait& bait) {
    const Silhouette seen = test::need(silhouetteOf(pictureOf(bait.picture()), {}));
    double worst = 0;
    for (const Vec2& p : seen.outline)
        worst = std::max(worst, std::abs(cv::pointPolygonTest(
                                    Bait::outline(), cv::Point2f(float(p.x()), float(p.y())), true)));
    const bool told = std::any_of(seen.takenOff.begin(), seen.takenOff.end(), [](const TakenOff& thing) {
        return thing.kind == TakenOff::Kind::Thin &&
               (thing.foot - Vec2(Bait::ring().x, Bait::ring().y)).norm() < 40;
    });
    return {worst, told};
}

TEST(OpenCv, ARingAtTheNoseComesOffAndTheBodyStays) {
    // Dark wire; in shadow; wire as bright as the ground beside it is dark; hardly to be seen.
    for (const auto& [wire, shadow] : {std::pair{70, 0.0}, {70, 0.45}, {235, 0.45}, {150, 0.25}}) {
        Bait bait;
        bait.wire = cv::Scalar(wire, wire, wire);
        bait.shadow = shadow;
        const auto [worst, told] = seenOf(bait);
        EXPECT_LT(worst, 5) << wire << ' ' << shadow;  // the ring reaches 34 pixels out
        EXPECT_TRUE(told) << wire << ' ' << shadow;
    }
}

TEST(OpenCv, ACircleIsFoundWhereTheirHoughTransformFindsIt) {
    const cv::Mat drawn = Bait{}.picture();
    const Picture picture = pictureOf(drawn);
    std::vector<Plane> lab;
    for (const Plane& plane : labPlanes(picture)) lab.push_back(smoothed(plane, 0.7));
    cv::Mat grey;
    cv::cvtColor(drawn, grey, cv::COLOR_RGB2GRAY);
    std::vector<cv::Vec3f> circles;
    cv::HoughCircles(grey, circles, cv::HOUGH_GRADIENT, 1, 20, 120, 20, 8, 30);
    const PixelSet body = above(planeOf([&] {
                                    cv::Mat dark;
                                    grey.convertTo(dark, CV_32F, -1.0);
                                    return dark;
                                }()),
                                -150);
    const std::vector<Ring> rings = ringsOn(lab, body, inverse(body), 1);
    ASSERT_EQ(rings.size(), 1U);
    EXPECT_NEAR(rings[0].middle.x() - 0.5, Bait::ring().x, 2);
    EXPECT_NEAR(rings[0].middle.y() - 0.5, Bait::ring().y, 2);
    EXPECT_NEAR(0.5 * (rings[0].inner_px + rings[0].outer_px), Bait::kRingRadius, 1.5);
    ASSERT_FALSE(circles.empty());
    EXPECT_LT(std::hypot(circles[0][0] - rings[0].middle.x(), circles[0][1] - rings[0].middle.y()), 2.5);
}

TEST(OpenCv, ABodyHasTheAreaThatGrabCutFinds) {
    // Rother, Kolmogorov and Blake 2004; begun with a box, as its users do. It cuts between pixels and takes
    // the blurred rim for body: it is 1.4 % too large itself.
    Bait bait;
    bait.wire = {205, 200, 188};  // a ring nobody can see
    const cv::Mat drawn = bait.picture();
    cv::Mat mask, ground, body, bgr;
    cv::cvtColor(drawn, bgr, cv::COLOR_RGB2BGR);
    cv::resize(bgr, bgr, {}, 0.5, 0.5, cv::INTER_AREA);
    cv::grabCut(bgr, mask, {125, 150, 550, 220}, ground, body, 2, cv::GC_INIT_WITH_RECT);
    const cv::Mat on = (mask == cv::GC_FGD) | (mask == cv::GC_PR_FGD);
    const Silhouette seen = test::need(silhouetteOf(pictureOf(drawn), {}));
    const double area = std::abs(polygonArea(seen.outline));
    EXPECT_NEAR(area / (4.0 * cv::countNonZero(on)), 1, 0.025);
    // fillPoly draws the border itself as well, half a pixel all round.
    const double drawnArea = cv::contourArea(Bait::outline()) + 0.5 * cv::arcLength(Bait::outline(), true);
    EXPECT_NEAR(area / drawnArea, 1, 0.002);
}

}  // namespace
}  // namespace nine
