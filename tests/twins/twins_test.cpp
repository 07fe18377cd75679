// Slow obvious twins of fast algorithms, on seeded random input.
#include <gtest/gtest.h>

#include <queue>
#include <random>

#include "base/units.h"
#include "blank/walk.h"
#include "blank/zones.h"
#include "cut/free_space.h"
#include "cut/layout.h"
#include "geom/polygon_set.h"
#include "image/regions.h"
#include "tests/bodies.h"

namespace nine::twins {
namespace {

using test::need;
using test::sampleSkin;

using Random = std::mt19937;

double between(Random& random, double low, double high) {
    return low + (high - low) * static_cast<double>(random()) / 4294967296.0;
}

/// A polygon that does not cross itself, round a middle.
Polygon2 star(Random& random, const Vec2& middle, double size) {
    Polygon2 polygon;
    const int corners = 3 + static_cast<int>(random() % 12);
    for (int i = 0; i < corners; ++i) {
        const double angle = 2 * kPi * (i + between(random, 0.1, 0.9)) / corners,
                     r = size * between(random, 0.25, 1);
        polygon.emplace_back(middle + r * Vec2(std::cos(angle), std::sin(angle)));
    }
    return polygon;
}

/// How often the ring goes round a point, by the sum of the angles it is seen under.
int turnsRound(const Polygon2& ring, const Vec2& p) {
    double sum = 0;
    for (std::size_t i = 0; i < ring.size(); ++i) {
        const Vec2 a = ring[i] - p, b = ring[(i + 1) % ring.size()] - p;
        sum += std::atan2(a.x() * b.y() - a.y() * b.x(), a.dot(b));
    }
    return static_cast<int>(std::lround(sum / (2 * kPi)));
}

double fromSegment(const Vec2& p, const Vec2& a, const Vec2& b) {
    const double t = std::clamp((p - a).dot(b - a) / std::max(1e-300, (b - a).squaredNorm()), 0.0, 1.0);
    return (p - a - t * (b - a)).norm();
}

double fromBorder(const Polygon2& ring, const Vec2& p) {
    double least = 1e300;
    for (std::size_t i = 0; i < ring.size(); ++i)
        least = std::min(least, fromSegment(p, ring[i], ring[(i + 1) % ring.size()]));
    return least;
}

/// Area where `in` holds, by small squares of a box.
template <typename In>
double areaWhere(const In& in, const Vec2& low, const Vec2& high, double step) {
    long count = 0;
    for (double x = low.x() + step / 2; x < high.x(); x += step)
        for (double y = low.y() + step / 2; y < high.y(); y += step) count += in(Vec2(x, y)) ? 1 : 0;
    return static_cast<double>(count) * step * step;
}

TEST(Twins, AreaAndCentreOfPolygons) {
    Random random(1);
    for (int i = 0; i < 20; ++i) {
        const Polygon2 polygon = star(random, Vec2(3, -2), 5);
        const auto in = [&](const Vec2& p) { return turnsRound(polygon, p) != 0; };
        Vec2 sum = Vec2::Zero();
        long count = 0;
        const double step = 0.05;
        for (double x = -2 + step / 2; x < 8; x += step) {
            for (double y = -7 + step / 2; y < 3; y += step) {
                if (!in(Vec2(x, y))) continue;
                sum += Vec2(x, y);
                ++count;
            }
        }
        const double area = static_cast<double>(count) * step * step, rim = perimeter(polygon);
        EXPECT_NEAR(std::abs(polygonArea(polygon)), area, 0.2 * step * rim + 0.01) << i;
        EXPECT_LT((centroid(polygon) - sum / static_cast<double>(count)).norm(),
                  0.02 * rim / std::max(1.0, area) + 0.01)
            << i;
    }
}

TEST(Twins, SumsOfPolygonsByPoints) {
    Random random(2);
    for (int i = 0; i < 12; ++i) {
        const Polygon2 a = star(random, Vec2(0, 0), 5), b = star(random, Vec2(between(random, -4, 4), 1), 5);
        const auto inA = [&](const Vec2& p) { return turnsRound(a, p) != 0; };
        const auto inB = [&](const Vec2& p) { return turnsRound(b, p) != 0; };
        const Vec2 low(-10, -8), high(10, 8);
        const double step = 0.1, off = 0.2 * step * (perimeter(a) + perimeter(b)) + 0.01;
        EXPECT_NEAR(area(united({a}, {b})),
                    areaWhere([&](const Vec2& p) { return inA(p) || inB(p); }, low, high, step), off);
        EXPECT_NEAR(area(intersected({a}, {b})),
                    areaWhere([&](const Vec2& p) { return inA(p) && inB(p); }, low, high, step), off);
        EXPECT_NEAR(area(subtracted({a}, {b})),
                    areaWhere([&](const Vec2& p) { return inA(p) && !inB(p); }, low, high, step), off);
    }
}

TEST(Twins, OffsetsByTheDistanceToTheBorder) {
    Random random(3);
    for (int i = 0; i < 10; ++i) {
        const Polygon2 a = star(random, Vec2(0, 0), 5);
        const double by = between(random, -0.4, 1.5);
        const auto in = [&](const Vec2& p) {
            const double d = fromBorder(a, p);
            const bool inside = turnsRound(a, p) != 0;
            return by >= 0 ? inside || d <= by : inside && d >= -by;
        };
        const double step = 0.05;
        EXPECT_NEAR(area(offset({a}, by)), areaWhere(in, Vec2(-7, -7), Vec2(7, 7), step),
                    0.2 * step * perimeter(a) + 0.15)
            << by;
    }
}

TEST(Twins, InsideByTurning) {
    Random random(4);
    for (int i = 0; i < 40; ++i) {
        const Polygon2 a = star(random, Vec2(1, 1), 4);
        for (int k = 0; k < 200; ++k) {
            const Vec2 p(between(random, -4, 6), between(random, -4, 6));
            if (fromBorder(a, p) < 1e-9) continue;
            EXPECT_EQ(contains(a, p), turnsRound(a, p) != 0);
        }
    }
}

TEST(Twins, BorderDistanceByManyPoints) {
    Random random(5);
    for (int i = 0; i < 60; ++i) {
        const Polygon2 a = star(random, Vec2(0, 0), 3),
                       b = star(random, Vec2(between(random, 2, 9), between(random, -3, 3)), 3);
        double least = 1e300;
        for (const auto& [from, to] : {std::pair{&a, &b}, {&b, &a}}) {
            for (std::size_t k = 0; k < from->size(); ++k) {
                const Vec2 &p = (*from)[k], &q = (*from)[(k + 1) % from->size()];
                for (double t = 0; t < 1; t += 0.002)
                    least = std::min(least, fromBorder(*to, p + t * (q - p)));
            }
        }
        EXPECT_LE(borderDistance(a, b), least + 1e-9);
        EXPECT_GT(borderDistance(a, b), least - 0.02);
    }
}

TEST(Twins, AFreePlaceIsFreeAndTheNearest) {
    Random random(6);
    for (int i = 0; i < 8; ++i) {
        Polygon2 sheet = star(random, Vec2(0, 0), 12);
        if (polygonArea(sheet) < 0) std::reverse(sheet.begin(), sheet.end());
        const PolygonSet free = subtracted({sheet}, {star(random, Vec2(2, 0), 3)});
        const Vec2 size(between(random, 1.5, 4), between(random, 0.8, 2)), wish(between(random, -3, 3), 1);
        const auto inside = [&](const Vec2& p) {
            int turns = 0;
            for (const Polygon2& ring : free) turns += turnsRound(ring, p);
            return turns != 0;
        };
        const auto fits = [&](const Vec2& low, double slack) {
            for (double x = slack; x <= size.x() - slack + 1e-9; x += 0.1)
                for (double y = slack; y <= size.y() - slack + 1e-9; y += 0.1)
                    if (!inside(low + Vec2(x, y))) return false;
            return true;
        };
        const std::optional<Vec2> found = FreeSpace(free).place(size, wish);
        double nearest = 1e300;  // of places with a cell to spare all round
        for (double x = -12; x < 12; x += 0.4)
            for (double y = -12; y < 12; y += 0.4)
                if (fits(Vec2(x, y), -0.4))
                    nearest = std::min(nearest, (Vec2(x, y) + 0.5 * size - wish).norm());
        if (!found) {
            EXPECT_EQ(nearest, 1e300) << i;
            continue;
        }
        EXPECT_TRUE(fits(*found, 0.2)) << i;
        EXPECT_LT((*found + 0.5 * size - wish).norm(), nearest + 0.3) << i;
    }
}

TEST(Twins, PiecesOnPagesKeepTheirGapAndMargin) {
    Random random(7);
    for (int i = 0; i < 6; ++i) {
        std::vector<Piece> pieces(4 + random() % 14);
        for (std::size_t k = 0; k < pieces.size(); ++k) {
            pieces[k].id = pieces[k].name = "p" + std::to_string(k);
            pieces[k].side = 'L';
            pieces[k].stock = "Film";
            pieces[k].outline = star(random, Vec2(0, 0), between(random, 8, 45));
            if (polygonArea(pieces[k].outline) < 0)
                std::reverse(pieces[k].outline.begin(), pieces[k].outline.end());
        }
        const CutPages pages = need(layOutPieces(pieces, {}));
        EXPECT_EQ(pages.overlaps(), 0);
        ASSERT_EQ(pages.pieces.size(), pieces.size());
        for (std::size_t a = 0; a < pages.pieces.size(); ++a) {
            const PlacedPiece& p = pages.pieces[a];
            EXPECT_NEAR(std::abs(polygonArea(p.piece.outline)), polygonArea(pieces[a].outline), 1e-6);
            for (const Vec2& v : p.piece.outline) {
                EXPECT_GE(v.x(), kPageMargin_mm - 1e-6);
                EXPECT_LE(v.x(), pages.sheet.width_mm - kPageMargin_mm + 1e-6);
                EXPECT_GE(v.y(), kPageMargin_mm - 1e-6);
                EXPECT_LE(v.y(), pages.sheet.height_mm - kPageMargin_mm + 1e-6);
            }
            for (std::size_t b = 0; b < a; ++b) {
                const PlacedPiece& q = pages.pieces[b];
                if (q.page != p.page) continue;
                double least = 1e300;
                for (const Vec2& v : p.piece.outline) least = std::min(least, fromBorder(q.piece.outline, v));
                for (const Vec2& v : q.piece.outline) least = std::min(least, fromBorder(p.piece.outline, v));
                EXPECT_GE(least, kPieceGap_mm - 1e-6) << a << ' ' << b;
                EXPECT_EQ(turnsRound(q.piece.outline, p.piece.outline.front()), 0);
            }
        }
    }
}

PixelSet speckled(Random& random, int width, int height, double share) {
    PixelSet set(width, height);
    for (auto& on : set.on) on = between(random, 0, 1) < share ? 1 : 0;
    return set;
}

TEST(Twins, PartsByFlooding) {
    Random random(8);
    for (const bool corners : {false, true}) {
        for (int i = 0; i < 6; ++i) {
            const PixelSet set = speckled(random, 37, 23, 0.45);
            std::vector<std::vector<std::size_t>> flooded;
            PixelSet seen(set.width, set.height);
            for (int y = 0; y < set.height; ++y) {
                for (int x = 0; x < set.width; ++x) {
                    if (!set.at(x, y) || seen.at(x, y)) continue;
                    flooded.emplace_back();
                    std::queue<std::pair<int, int>> next;
                    next.emplace(x, y);
                    seen.set(x, y, true);
                    while (!next.empty()) {
                        const auto [px, py] = next.front();
                        next.pop();
                        flooded.back().push_back(set.index(px, py));
                        for (int dy = -1; dy <= 1; ++dy) {
                            for (int dx = -1; dx <= 1; ++dx) {
                                const int qx = px + dx, qy = py + dy;
                                if (!corners && dx != 0 && dy != 0) continue;
                                if (!set.inside(qx, qy) || !set.at(qx, qy) || seen.at(qx, qy)) continue;
                                seen.set(qx, qy, true);
                                next.emplace(qx, qy);
                            }
                        }
                    }
                    std::sort(flooded.back().begin(), flooded.back().end());
                }
            }
            std::vector<std::vector<std::size_t>> found;
            std::size_t before = 1e9;
            for (const Part& part : partsOf(set, corners)) {
                EXPECT_LE(part.area(), before);
                before = part.area();
                found.push_back(part.pixels);
                std::sort(found.back().begin(), found.back().end());
            }
            std::sort(found.begin(), found.end());
            std::sort(flooded.begin(), flooded.end());
            EXPECT_EQ(found, flooded);
        }
    }
}

TEST(Twins, DistancesAndGrowthByAllPairs) {
    Random random(9);
    for (int i = 0; i < 6; ++i) {
        const PixelSet set = speckled(random, 31, 26, 0.02 + 0.03 * i);
        if (std::none_of(set.on.begin(), set.on.end(), [](auto on) { return on != 0; })) continue;
        const Plane distance = distanceTo(set);
        const double radius = between(random, 1, 4);
        const PixelSet larger = grown(set, radius), smaller = shrunk(inverse(set), radius);
        for (int y = 0; y < set.height; ++y) {
            for (int x = 0; x < set.width; ++x) {
                double least = 1e300;
                for (int v = 0; v < set.height; ++v)
                    for (int u = 0; u < set.width; ++u)
                        if (set.at(u, v)) least = std::min(least, std::hypot(u - x, v - y));
                EXPECT_NEAR(distance.at(x, y), least, 1e-4);
                if (std::abs(least - radius) < 1e-3) continue;
                EXPECT_EQ(larger.at(x, y), least <= radius);
                EXPECT_EQ(smaller.at(x, y), least > radius);
            }
        }
    }
}

TEST(Twins, MeansByAdding) {
    Random random(10);
    Plane plane(29, 18);
    for (float& v : plane.values) v = static_cast<float>(between(random, 0, 9));
    for (const int radius : {1, 3, 7}) {
        const Plane mean = boxMean(plane, radius);
        for (int y = 0; y < plane.height; ++y) {
            for (int x = 0; x < plane.width; ++x) {
                double sum = 0;
                int count = 0;
                for (int v = std::max(0, y - radius); v <= std::min(plane.height - 1, y + radius); ++v) {
                    for (int u = std::max(0, x - radius); u <= std::min(plane.width - 1, x + radius); ++u) {
                        sum += plane.at(u, v);
                        ++count;
                    }
                }
                EXPECT_NEAR(mean.at(x, y), sum / count, 1e-3);
            }
        }
    }
}

/// Otsu's level parts best of all levels there are.
TEST(Twins, ThresholdByTryingAll) {
    Random random(11);
    for (int i = 0; i < 8; ++i) {
        std::vector<float> values;
        for (int k = 0; k < 300; ++k)
            values.push_back(
                static_cast<float>(between(random, 0, 1) + (k % 3 == 0 ? between(random, 0.8, 2) : 0)));
        const auto parting = [&](double level) {
            double low = 0, high = 0, n = 0, m = 0;
            for (const float v : values) {
                (v > level ? high : low) += v;
                (v > level ? m : n) += 1;
            }
            return n > 0 && m > 0 ? n * m * std::pow(low / n - high / m, 2) : 0;
        };
        double best = 0;
        for (const float level : values) best = std::max(best, parting(level));
        EXPECT_GT(parting(otsuLevel(values)), 0.99 * best) << i;
    }
}

TEST(Twins, WalkingByShortChords) {
    Random random(12);
    for (const char* name : test::kSamples) {
        const Skin skin = sampleSkin(name);
        for (int i = 0; i < 6; ++i) {
            const double x = skin.noseX_mm() + skin.length_mm() * between(random, 0.15, 0.6);
            const double g = between(random, -0.6, 0.6) * skin.arcAt(x).bellyArc_mm();
            const double far = between(random, 2, 12);
            const Result<double> end = walkAlong(skin, x, g, far, "");
            if (!end) continue;
            constexpr int kChords = 4000;
            double length = 0;
            Vec3 before = skin.at({Side::Left, x, g}).position;
            for (int k = 1; k <= kChords; ++k) {
                const Vec3 here = skin.at({Side::Left, x + (*end - x) * k / kChords, g}).position;
                length += (here - before).norm();
                before = here;
            }
            EXPECT_NEAR(length, far, 2e-4) << name << ' ' << x << ' ' << g;
            EXPECT_NEAR(need(distanceAlong(skin, x, *end, g, "")), far, 1e-4) << name;
        }
    }
}

TEST(Twins, AreaOfAZoneBySmallTriangles) {
    Random random(13);
    for (const char* name : test::kSamples) {
        const Skin skin = sampleSkin(name);
        const double x = skin.noseX_mm() + skin.length_mm() * between(random, 0.3, 0.5);
        const double r = 0.35 * skin.arcAt(x).backArc_mm();
        const Polygon2 zone = star(random, Vec2(x, 0.5), r);
        const double step = r / 60;
        const auto at = [&](double u, double v) { return skin.at({Side::Left, u, v}).position; };
        double area = 0;
        for (double u = x - r; u < x + r; u += step) {
            for (double v = 0.5 - r; v < 0.5 + r; v += step) {
                if (turnsRound(zone, Vec2(u + step / 2, v + step / 2)) == 0) continue;
                const Vec3 a = at(u, v), b = at(u + step, v), c = at(u + step, v + step), d = at(u, v + step);
                area += 0.5 * ((b - a).cross(c - a).norm() + (c - a).cross(d - a).norm());
            }
        }
        EXPECT_NEAR(zoneArea_mm2(skin, zone), area, 0.012 * area + 0.3 * step * perimeter(zone)) << name;
    }
}

TEST(Twins, WhereAPointLiesByTryingMany) {
    Random random(14);
    for (const char* name : test::kSamples) {
        const Skin skin = sampleSkin(name);
        for (int i = 0; i < 5; ++i) {
            const double x = skin.noseX_mm() + skin.length_mm() * between(random, 0.2, 0.8);
            const double g = between(random, -0.8, 0.8) * skin.arcAt(x).bellyArc_mm();
            const Vec3 p = skin.at({Side::Left, x, g}).position;
            const SkinPoint found = skin.locateNear(p, g + 0.5);
            Vec2 best(x, g);
            double least = 1e300;
            for (double u = x - 1; u <= x + 1; u += 0.02) {
                for (double v = g - 1; v <= g + 1; v += 0.02) {
                    const double d = (skin.at({Side::Left, u, v}).position - p).norm();
                    if (d < least) {
                        least = d;
                        best = Vec2(u, v);
                    }
                }
            }
            EXPECT_NEAR(found.x_mm, best.x(), 0.03) << name;
            EXPECT_NEAR(found.g_mm, best.y(), 0.03) << name;
        }
    }
}

}  // namespace
}  // namespace nine::twins
