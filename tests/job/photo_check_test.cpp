// A photo laid over a body, from outlines moved, turned and dented here.
#include "job/photo_check.h"

#include <functional>

#include "blank/measure.h"
#include "tests/plain_job.h"
#include "tests/support.h"

namespace nine {
namespace {

Skin sedge() {
    return test::need(Skin::of(test::need(test::plainJob()).get<BlankChapter>().table));
}

/// The body's own outline as a photo shows it: dented by `dent`, larger by `by`, its axis a little wrong.
PhotoOutline photoOf(const Skin& skin, const std::function<double(const Vec2&)>& dent, double by = 1) {
    PhotoOutline seen;
    seen.mmPerPx = 0.05;
    seen.axis_px = {{300, 500}, {1500, 460}};
    const double turn = 0.012, c = std::cos(turn), s = std::sin(turn);
    const Polyline2 body = bodyOutline(skin, false, 500);
    for (std::size_t i = 0; i < body.size(); ++i) {
        const Vec2 along =
            (body[(i + 1) % body.size()] - body[(i + body.size() - 1) % body.size()]).normalized();
        const Vec2 at(body[i].x() - skin.noseX_mm(), body[i].y());
        const Vec2 out = Vec2(-along.y(), along.x()).dot(at - Vec2(0.5 * skin.length_mm(), 0)) > 0
                             ? Vec2(-along.y(), along.x())
                             : Vec2(along.y(), -along.x());
        const Vec2 p = by * (at + dent(at) * out);
        seen.outline.emplace_back(c * p.x() - s * p.y() + 0.4, s * p.x() + c * p.y() - 0.7);
    }
    return seen;
}
const auto kSame = [](const Vec2&) { return 0.0; };

TEST(PhotoCheck, TheSameBodyFitsWhereverItLies) {
    const Skin skin = sedge();
    const PhotoCheck check = checkPhoto(skin, photoOf(skin, kSame), true);
    EXPECT_LT(check.rms_mm, 0.01);
    EXPECT_EQ(check.scale, 1);
    // And where the body then lies in the picture: its nose 0.4 mm along the axis and 0.7 below.
    double nearest = 1e9;
    const Vec2 along = Vec2(1200, -40).normalized(), up(along.y(), -along.x());
    const Vec2 nose = Vec2(300, 500) + (0.4 * along - 0.7 * up) / 0.05;
    for (const Vec2& p : check.body_px) nearest = std::min(nearest, (p - nose).norm());
    EXPECT_LT(nearest, 2);
}

TEST(PhotoCheck, ADentIsFoundWithItsPlaceAndSize) {
    const Skin skin = sedge();
    for (const auto& [upper, depth] : {std::pair{true, 1.2}, {false, -0.8}}) {
        const auto dent = [&, up = upper, d = depth](const Vec2& p) {
            return (p.y() > 0) == up ? d * std::exp(-std::pow((p.x() - 35) / 6, 2)) : 0.0;
        };
        const PhotoCheck check = checkPhoto(skin, photoOf(skin, dent), true);
        EXPECT_NEAR(check.worst.off_mm, depth, 0.12);
        EXPECT_NEAR(check.worst.x_mm, 35, 1);
        EXPECT_EQ(check.worst.upper, upper);
        // The rest is not pushed off by it.
        for (const PhotoCheck::At& at : check.places)
            if (std::abs(at.x_mm - 35) > 16) {
                EXPECT_LT(std::abs(at.off_mm), 0.07) << at.x_mm;
            }
        const std::string words = checkSentence(check).text();
        EXPECT_NE(words.find(upper ? "upper edge" : "lower edge"), std::string::npos) << words;
        EXPECT_NE(words.find(depth > 0 ? "farther out" : "farther in"), std::string::npos) << words;
    }
}

TEST(PhotoCheck, SizeCountsOnlyWhereThePhotoHasAScale) {
    const Skin skin = sedge();
    const PhotoOutline larger = photoOf(skin, kSame, 1.03);
    const PhotoCheck fitted = checkPhoto(skin, larger, false), measured = checkPhoto(skin, larger, true);
    EXPECT_NEAR(fitted.scale, 1 / 1.03, 1e-3);
    EXPECT_LT(fitted.rms_mm, 0.01);
    EXPECT_GT(measured.worst.off_mm, 0.3);
}

}  // namespace
}  // namespace nine
