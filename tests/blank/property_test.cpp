// Properties that hold for any body, on seeded random ones.
#include <random>

#include "blank/measure.h"
#include "blank/walk.h"
#include "tests/bodies.h"

namespace nine {
namespace {

using namespace test;

/// A plausible random lure: round ends, one swelling, sections between 1.6 and 5.
StationTable randomBody(std::mt19937& random) {
    std::uniform_real_distribution<double> share(0.6, 1.4), exponent(1.6, 5), size(6, 18);
    const double length = 10 * size(random), top = size(random), bottom = size(random), width = size(random);
    const int count = 9;
    StationTable table;
    for (int i = 0; i < count; ++i) {
        const double t = 0.5 - 0.5 * std::cos(kPi * i / (count - 1));
        const bool end = i == 0 || i == count - 1;
        const double swell = end ? 0 : std::sin(kPi * std::pow(t, 0.8));
        table.stations.push_back({length * t,
                                  top * swell * (end ? 0 : share(random)),
                                  bottom * swell * (end ? 0 : share(random)),
                                  width * swell * (end ? 0 : share(random)),
                                  exponent(random),
                                  exponent(random),
                                  {}});
    }
    return table;
}

class RandomBodies : public ::testing::Test {
  protected:
    static constexpr unsigned kSeed = 60;
    template <typename Check>
    void onEach(int bodies, const Check& check) {
        std::mt19937 random(kSeed);
        int made = 0;
        for (int i = 0; i < bodies; ++i) {
            SCOPED_TRACE("seed 60 body " + std::to_string(i));
            const Result<Skin> skin = Skin::of(randomBody(random));
            if (!skin) {  // refused with the station, never a body with holes
                EXPECT_EQ(skin.error().code, "no_skin");
                EXPECT_NE(skin.error().where.find("blank.stations["), std::string::npos);
                continue;
            }
            ++made;
            check(*skin, random);
        }
        EXPECT_GT(made, bodies / 2);
    }
    SkinPoint somewhere(const Skin& skin, std::mt19937& random) {
        std::uniform_real_distribution<double> along(0.1, 0.9), round(-0.9, 0.9);
        const double x = skin.noseX_mm() + along(random) * skin.length_mm();
        const SectionArc arc = skin.arcAt(x);
        const double t = round(random);
        return {random() % 2 ? Side::Left : Side::Right, x,
                t * (t > 0 ? arc.backArc_mm() : arc.bellyArc_mm())};
    }
};

TEST_F(RandomBodies, PassThroughTheirReadingsAndStayAboveTheAxis) {
    onEach(40, [](const Skin& skin, std::mt19937&) {
        for (const Station& s : skin.loft().stations()) {
            const Section at = skin.loft().sectionAt(s.x_mm);
            EXPECT_NEAR(at.top_mm, s.top_mm, 1e-9);
            EXPECT_NEAR(at.bottom_mm, s.bottom_mm, 1e-9);
            EXPECT_NEAR(at.halfWidth_mm, s.halfWidth_mm, 1e-9);
        }
        for (double t = 0.002; t < 1; t += 0.004) {
            const Section at = skin.loft().sectionAt(skin.noseX_mm() + t * skin.length_mm());
            EXPECT_GT(std::min({at.top_mm, at.bottom_mm, at.halfWidth_mm}), 0);
        }
    });
}

TEST_F(RandomBodies, PointsAreFoundAgainAndNormalsPointOut) {
    onEach(15, [this](const Skin& skin, std::mt19937& random) {
        for (int i = 0; i < 20; ++i) {
            const SkinPoint p = somewhere(skin, random);
            const SurfacePoint at = skin.at(p);
            EXPECT_NEAR(skin.locate(at.position).g_mm, p.g_mm, 1e-5);
            Vec3 gradient;
            EXPECT_GT(skin.level(at.position + 1e-3 * at.normal, gradient), 0);
            EXPECT_LT(skin.level(at.position - 1e-3 * at.normal, gradient), 0);
        }
    });
}

TEST_F(RandomBodies, DistancesAreAMetric) {
    onEach(6, [this](const Skin& skin, std::mt19937& random) {
        const SkinPoint a = somewhere(skin, random), b = somewhere(skin, random), c = somewhere(skin, random);
        const double ab = need(shortestWay(skin, a, b)).length_mm,
                     ba = need(shortestWay(skin, b, a)).length_mm;
        const double bc = need(shortestWay(skin, b, c)).length_mm,
                     ac = need(shortestWay(skin, a, c)).length_mm;
        EXPECT_NEAR(ab, ba, 1e-4 * ab);
        EXPECT_LE(ac, ab + bc + 1e-4);
        EXPECT_GE(ab,
                  (skin.at(a).position - skin.at(b).position).norm() - 1e-6);  // no tunnel through the body
    });
}

TEST_F(RandomBodies, ClosedOnesTurnByFourPiAndMirror) {
    onEach(4, [](const Skin& skin, std::mt19937&) {
        EXPECT_NEAR(measureBody(skin).curvatureTotal_rad, 4 * kPi, 1e-5);
        const SurfacePoint left = skin.at({Side::Left, 0.4 * skin.length_mm(), 2});
        const SurfacePoint right = skin.at({Side::Right, 0.4 * skin.length_mm(), 2});
        EXPECT_EQ(left.position.y(), -right.position.y());
        EXPECT_EQ(left.normal.z(), right.normal.z());
    });
}

TEST_F(RandomBodies, WalkingThereAndBackEndsWhereItBegan) {
    onEach(10, [](const Skin& skin, std::mt19937&) {
        const double x = 0.3 * skin.length_mm(), reach = 0.3 * skin.length_mm();
        const double there = need(walkAlong(skin, x, 1, reach, "w"));
        EXPECT_GT(there, x);
        EXPECT_LE(there - x, reach + 1e-6);  // the skin is never shorter than the axis
        EXPECT_NEAR(need(walkAlong(skin, there, 1, -reach, "w")), x, 1e-3);
    });
}

TEST(StationTableFuzz, DamagedTablesGiveAnErrorOrABodyNeverACrash) {
    std::mt19937 random(8);
    const std::string text = read(example("sedge60.csv"));
    std::uniform_int_distribution<std::size_t> place(0, text.size() - 1);
    std::uniform_int_distribution<int> byte(0, 255);
    int refused = 0;
    for (int i = 0; i < 400; ++i) {
        std::string broken = text;
        for (int k = 0; k < 2; ++k) broken[place(random)] = static_cast<char>(byte(random));
        const Result<StationTable> table = parseStationTable(broken, "t");
        if (!table) {
            ++refused;
            EXPECT_EQ(table.error().where.rfind("t:", 0), 0u) << table.error().where;
            EXPECT_FALSE(table.error().text().empty());
        } else if (const Result<Skin> skin = Skin::of(*table); !skin) {
            EXPECT_FALSE(skin.error().text().empty());
        }
    }
    EXPECT_GT(refused, 100);
}

}  // namespace
}  // namespace nine
