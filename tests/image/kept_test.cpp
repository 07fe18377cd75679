// Photographs that were read wrong once: drawn by tests/pictures, which shares nothing with the reader.
#include <fstream>
#include <sstream>

#include "base/files.h"
#include "geom/polygon_set.h"
#include "image/picture_file.h"
#include "image/silhouette.h"
#include "tests/here.h"
#include "tests/support.h"

namespace nine {
namespace {

struct Kept {
    Picture picture;
    Polyline2 outline;  ///< as it was drawn
    double perMm = 0;
};
Kept kept(const std::string& name) {
    const std::string at = nine::sourceDir() + "/tests/pictures/kept/" + name;
    Kept k;
    k.picture = test::need(decodePicture(test::need(readFile(at + ".jpg")), name)).picture;
    std::istringstream rows(test::need(readFile(at + ".csv")));
    std::string row, hash;
    std::getline(rows, row);
    std::istringstream(row) >> hash >> k.perMm;
    std::getline(rows, row);
    char comma = 0;
    for (Vec2 p; rows >> p.x() >> comma >> p.y();) k.outline.push_back(p);
    return k;
}

double distanceTo(const Polyline2& line, const Vec2& p) {
    double least = 1e18;
    for (std::size_t i = 0; i < line.size(); ++i) {
        const Vec2 &a = line[i], along = line[(i + 1) % line.size()] - a;
        const double t =
            along.squaredNorm() > 0 ? std::clamp((p - a).dot(along) / along.squaredNorm(), 0.0, 1.0) : 0;
        least = std::min(least, (p - a - t * along).norm());
    }
    return least;
}

class KeptPictures : public testing::TestWithParam<const char*> {};

TEST_P(KeptPictures, AreReadWithinAThirdOfAMillimetre) {
    const Kept k = kept(GetParam());
    ASSERT_GT(k.outline.size(), 100u);
    const Silhouette seen = test::need(silhouetteOf(k.picture, {}));
    double worst = 0, missed = 0;
    for (const Vec2& p : seen.outline) worst = std::max(worst, distanceTo(k.outline, p));
    for (const Vec2& p : k.outline) missed = std::max(missed, distanceTo(seen.outline, p));
    EXPECT_LT(worst / k.perMm, 0.35);
    EXPECT_LT(missed / k.perMm, 0.35);
}

/// Its tail lies in a shadow as grey as itself and is guessed there; but no third of it is missing.
TEST(KeptPicture, AGreyBodyThatHangsOnToItsShadowStaysWhole) {
    const Kept k = kept("grey-body-hangs-on-its-shadow");
    const Silhouette seen = test::need(silhouetteOf(k.picture, {}));
    EXPECT_NEAR(std::abs(polygonArea(seen.outline)) / std::abs(polygonArea(k.outline)), 1, 0.03);
}

INSTANTIATE_TEST_SUITE_P(Photos, KeptPictures,
                         testing::Values("ring-in-shadow", "ring-faint", "ring-as-dark-as-ground",
                                         "grey-body-in-shadow", "hooks-of-the-shadows-grey",
                                         "corner-behind-ring", "shadow-as-dark-as-belly"),
                         [](const auto& picture) {
                             std::string name = picture.param;
                             std::replace(name.begin(), name.end(), '-', '_');
                             return name;
                         });

}  // namespace
}  // namespace nine
