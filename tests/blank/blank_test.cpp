#include "blank/landmark_curve.h"
#include "blank/landmarks.h"
#include "blank/measure.h"
#include "blank/skin_grid.h"
#include "blank/walk.h"
#include "tests/bodies.h"

namespace nine {
namespace {

using namespace test;

Result<StationTable> table(const std::string& rows) {
    return parseStationTable("x_mm,top_mm,bottom_mm,half_width_mm,section\n" + rows, "t.csv");
}

TEST(StationTable, RefusesWhatIsNoBody) {
    const auto code = [](const std::string& rows) { return table(rows).error().code; };
    EXPECT_EQ(code("0,1,1,1,2\n"), "too_few_stations");
    EXPECT_EQ(code("0,1,1,1,2\n0,1,1,1,2\n"), "not_ascending");
    EXPECT_EQ(code("0,1,1,1,2\n5,1,-1,1,2\n"), "negative");
    EXPECT_EQ(code("0,1,1,1,2\n5,0,0,0,2\n9,1,1,1,2\n"), "zero_inside");
    EXPECT_EQ(code("0,0,1,1,2\n5,1,1,1,2\n"), "half_closed_end");
    EXPECT_EQ(code("0,1,1,1,1\n5,1,1,1,2\n"), "bad_section");
    EXPECT_EQ(code("0,1,1,1,2\n5000,1,1,1,2\n"), "out_of_range");
    EXPECT_EQ(code("0,1,1,1,nan\n5,1,1,1,2\n"), "bad_number");
    EXPECT_EQ(code("0,1,1,1,2\n5,1e308,1,1,2\n"), "out_of_range");
    EXPECT_EQ(table("0,1,1,1,2\n5,1,1,-1,2\n").error().where, "t.csv:3 half_width_mm");
}

TEST(StationTable, RoundTripsAndDoubtsInches) {
    const StationTable read = need(table("0,0,0,0,2\n0.5,0.2,0.25,0.2,2.5\n2.4,0,0,0,2\n"));
    ASSERT_EQ(doubtsAbout(read).size(), 1u);
    EXPECT_EQ(doubtsAbout(read)[0].code, "units_suspicious");
    const StationTable again = need(parseStationTable(stationTableText(read, "t"), "t"));
    EXPECT_EQ(stationTableText(again, "t"), stationTableText(read, "t"));
}

TEST(Loft, ExactOnBodiesItShouldReproduce) {
    const Skin tube = cylinder(9, 60), taper = cone(4, 10, 60);
    const Skin bicone = skinOf(
        {round(0, 0), round(10, 2), round(20, 4), round(30, 6), round(40, 4), round(50, 2), round(60, 0)});
    const Skin egg = spheroid(12, 50);
    for (double x = 0.5; x < 60; x += 1.7) {
        EXPECT_NEAR(tube.loft().sectionAt(x).halfWidth_mm, 9, 1e-12);
        EXPECT_NEAR(taper.loft().sectionAt(x).top_mm, 4 + 0.1 * x, 1e-12);
        EXPECT_NEAR(bicone.loft().sectionAt(x).bottom_mm, 6 - 0.2 * std::abs(x - 30), 1e-12);
        const double r = 12 * std::sqrt(1 - (x - 50) * (x - 50) / 2500);
        EXPECT_NEAR(egg.loft().sectionAt(x).halfWidth_mm, r, 1e-12);
    }
}

TEST(Loft, RefusesAnOutlineThroughTheAxis) {
    // Rising steeply from nothing after a long flat stretch, then falling as steeply.
    const auto bad = Skin::of(StationTable{{round(0, 0), round(1, 0.01), round(40, 0.011), round(41, 30),
                                            round(42, 0.01), round(80, 0.01), round(81, 0)}});
    if (!bad) {
        EXPECT_EQ(bad.error().code, "no_skin");
        EXPECT_EQ(bad.error().where.rfind("blank.stations[", 0), 0u);
    } else {
        for (double x = 0.01; x < 81; x += 0.07) EXPECT_GT(bad->loft().sectionAt(x).halfWidth_mm, 0) << x;
    }
}

/// The slow twin: length of |y/w|^n + |z/h|^n = 1 by a million chords, from the side to the top.
double chordGirth(double w, double h, double n) {
    const int steps = 400000;
    double sum = 0, y0 = w, z0 = 0;
    for (int i = 1; i <= steps; ++i) {
        // Points close together near both axes, where high exponents bend most.
        const double t = 0.5 * kPi * i / steps;
        const double c = std::cos(t), s = std::sin(t);
        const double q = std::pow(std::pow(c, n) + std::pow(s, n), -1 / n);
        const double y = w * c * q, z = h * s * q;
        sum += std::hypot(y - y0, z - z0);
        y0 = y;
        z0 = z;
    }
    return sum;
}

TEST(SectionArc, SuperellipseGirthByQuadrature) {
    for (const double n : {1.2, 1.5, 2.0, 2.2, 3.0, 4.0, 8.0, 12.0}) {
        const SectionArc arc(Section{6, 9, 7, n, n});
        EXPECT_NEAR(arc.backArc_mm(), chordGirth(6, 9, n), 2e-6) << n;
        EXPECT_NEAR(arc.bellyArc_mm(), chordGirth(6, 7, n), 2e-6) << n;
    }
    EXPECT_NEAR(SectionArc(Section{5, 5, 5, 2, 2}).girth_mm(), 10 * kPi, 1e-9);
}

TEST(SectionArc, ArcLengthAndPointAreInverse) {
    for (const double n : {1.4, 2.0, 2.2, 5.0}) {
        const SectionArc arc(Section{6, 9, 7, n, n});
        for (double g = -arc.bellyArc_mm(); g <= arc.backArc_mm(); g += 0.37) {
            EXPECT_NEAR(arc.gAt_mm(arc.point(g)), g, 1e-7) << n;
        }
        const Vec2 beyond = arc.point(arc.backArc_mm() + 1), before = arc.point(arc.backArc_mm() - 1);
        EXPECT_NEAR(beyond.x(), -before.x(), 1e-9);  // over the back onto the other side
        EXPECT_NEAR(beyond.y(), before.y(), 1e-9);
    }
}

TEST(Skin, PointsLieOnItAndAreFoundAgain) {
    for (const char* name : kSamples) {
        const Skin skin = sampleSkin(name);
        for (double t = 0.03; t < 1; t += 0.13) {
            const double x = t * skin.length_mm();
            const SectionArc arc = skin.arcAt(x);
            for (double s = -0.9; s < 1; s += 0.2) {
                const SkinPoint p{s > 0 ? Side::Left : Side::Right, x,
                                  s * (s > 0 ? arc.backArc_mm() : arc.bellyArc_mm())};
                const SurfacePoint at = skin.at(p);
                Vec3 gradient;
                EXPECT_NEAR(skin.level(at.position, gradient) / gradient.norm(), 0, 1e-9);
                const SkinPoint back = skin.locate(at.position);
                EXPECT_NEAR(back.g_mm, p.g_mm, 1e-6);
                EXPECT_EQ(back.side, p.side);
            }
        }
    }
}

TEST(Skin, NormalIsTheGradientOfTheLevel) {
    const Skin skin = sampleSkin("sedge60");
    const SurfacePoint at = skin.at({Side::Left, 14, 5});
    const double h = 1e-5;
    Vec3 ignored, numeric;
    for (int k = 0; k < 3; ++k) {
        numeric[k] = skin.level(at.position + h * Vec3::Unit(k), ignored) -
                     skin.level(at.position - h * Vec3::Unit(k), ignored);
    }
    EXPECT_NEAR((numeric.normalized() - at.normal).norm(), 0, 1e-7);
}

TEST(Skin, RefusesPointsOffTheBody) {
    const Skin skin = sampleSkin("sedge60");
    EXPECT_EQ(skin.check({Side::Left, 61, 0}, "p").error().code, "off_body");
    EXPECT_EQ(skin.check({Side::Left, -0.1, 0}, "p").error().code, "off_body");
    EXPECT_EQ(skin.check({Side::Left, 30, 400}, "p").error().where, "p");
    EXPECT_FALSE(skin.check({Side::Left, std::nan(""), 0}, "p"));
}

/// Closed forms of a prolate spheroid (half axes a < c): DLMF 19.33 or any handbook.
TEST(Measure, SpheroidOfFifteenStations) {
    const double a = 12, c = 50;
    const BodyMeasure m = measureBody(spheroid(a, c));
    const double e = std::sqrt(1 - a * a / (c * c));
    EXPECT_NEAR(m.area_mm2, 2 * kPi * a * a * (1 + c / (a * e) * std::asin(e)), 1e-5 * m.area_mm2);
    EXPECT_NEAR(m.volume_mm3, 4.0 / 3 * kPi * a * a * c, 1e-6 * m.volume_mm3);
    EXPECT_NEAR(m.length_mm, 100, 1e-12);
    EXPECT_NEAR(m.width_mm, 24, 1e-4);
}

TEST(Measure, CylinderAndConeWithOpenEnds) {
    const BodyMeasure tube = measureBody(cylinder(9, 60));
    EXPECT_NEAR(tube.area_mm2, 2 * kPi * 9 * 60, 1e-6);
    EXPECT_NEAR(tube.volume_mm3, kPi * 81 * 60, 1e-6);
    EXPECT_NEAR(tube.curvatureTotal_rad, 0, 1e-9);
    const BodyMeasure taper = measureBody(cone(4, 10, 60));
    EXPECT_NEAR(taper.area_mm2, kPi * 14 * std::hypot(60, 6), 1e-6);
    EXPECT_NEAR(taper.volume_mm3, kPi * 20 * (16 + 40 + 100), 1e-6);
}

/// Gauss and Bonnet: a closed body has total curvature 4 pi whatever its shape.
TEST(Measure, ClosedBodiesTurnByFourPi) {
    for (const char* name : kSamples)
        EXPECT_NEAR(measureBody(sampleSkin(name)).curvatureTotal_rad, 4 * kPi, 1e-6) << name;
}

/// Oracle: GeodSolve of GeographicLib on the spheroid a = 12, c = 50 (flattening 1 - 50/12); latitudes and
/// longitudes of pairs of points become x and g.
TEST(Distance, AgreesWithGeodSolve) {
    NINE_NEED_PROGRAM("GeodSolve");
    const double a = 12, c = 50;
    const Skin egg = spheroid(a, c);
    struct Pair {
        double lat0, lon0, lat1, lon1;  // geographic, degrees
    };
    for (const Pair& p : {Pair{-90, 0, 90, 0},
                          {10, 0, 60, 0},
                          {0, 0, 0, 90},
                          {-20, 10, 30, 70},
                          {5, 0, 5, 160},
                          {-45, 20, 45, 130},
                          {60, -30, 70, 40}}) {
        const auto pointOf = [&](double lat, double lon) {
            // Axis of the spheroid along x; the geographic latitude is that of the normal.
            const double f = lat * kPi / 180, l = lon * kPi / 180;
            const double n =
                a * a / std::sqrt(a * a * std::cos(f) * std::cos(f) + c * c * std::sin(f) * std::sin(f));
            const double x = c * c / (a * a) * n * std::sin(f), r = n * std::cos(f);
            return egg.locate(egg.project({c + x, r * std::cos(l), r * std::sin(l)}).position);
        };
        std::ostringstream query;
        query << "echo '" << p.lat0 << ' ' << p.lon0 << ' ' << p.lat1 << ' ' << p.lon1
              << "' | GeodSolve -i -E -e 12 -3.16666666666667 -p 9 | awk '{print $3}'";
        const double expected = std::stod(shell(query.str()).out);
        const Geodesic way = need(shortestWay(egg, pointOf(p.lat0, p.lon0), pointOf(p.lat1, p.lon1)));
        EXPECT_NEAR(way.length_mm, expected, 1e-4) << query.str();
    }
}

/// Oracle: Planimeter of GeographicLib, one octant of the same spheroid.
TEST(Measure, AreaAgreesWithPlanimeter) {
    NINE_NEED_PROGRAM("Planimeter");
    const Ran ran = shell(
        "printf '0 0\\n0 90\\n90 0\\n' | Planimeter -E -e 12 -3.16666666666667 -p 9 | awk '{print $3}'");
    EXPECT_NEAR(measureBody(spheroid(12, 50)).area_mm2 / 8, std::abs(std::stod(ran.out)), 1e-3);
}

/// A cone unrolls to a sector: the distance is the third side of a plane triangle.
TEST(Distance, ConeByUnrolling) {
    const Skin taper = cone(4, 10, 60);
    const double half = std::atan2(6.0, 60.0);
    const SkinPoint a{Side::Left, 10, 2}, b{Side::Left, 40, -6};
    const auto slant = [&](double x) { return (4 + 0.1 * x) / std::sin(half); };
    const auto angle = [&](const SkinPoint& p) { return p.g_mm / (4 + 0.1 * p.x_mm) * std::sin(half); };
    const double s0 = slant(10), s1 = slant(40), turn = angle(a) - angle(b);
    const double expected = std::sqrt(s0 * s0 + s1 * s1 - 2 * s0 * s1 * std::cos(turn));
    EXPECT_NEAR(need(shortestWay(taper, a, b)).length_mm, expected, 1e-6);
}

TEST(Distance, GoesTheShorterWayRound) {
    const Skin skin = sampleSkin("sedge60");
    const SectionArc arc = skin.arcAt(30);
    const SkinPoint left{Side::Left, 30, arc.backArc_mm() - 2}, right{Side::Right, 30, arc.backArc_mm() - 2};
    EXPECT_NEAR(need(shortestWay(skin, left, right)).length_mm, 4, 0.05);
    EXPECT_NEAR(need(shortestWay(skin, left, left)).length_mm, 0, 1e-12);
    const SkinPoint over{Side::Left, 30, arc.backArc_mm() + 2};  // the same place as `right`
    EXPECT_NEAR((skin.at(over).position - skin.at(right).position).norm(), 0, 1e-9);
}

TEST(Walk, MeasuresAlongTheSkin) {
    const Skin taper = cone(4, 10, 60);
    EXPECT_NEAR(need(walkAlong(taper, 10, 0, 20, "w")), 10 + 20 * 60 / std::hypot(60, 6), 1e-5);
    EXPECT_NEAR(need(walkAlong(taper, 40, 0, -20, "w")), 40 - 20 * 60 / std::hypot(60, 6), 1e-5);
    EXPECT_EQ(walkAlong(taper, 50, 0, 20, "w").error().code, "off_body");
    const Skin skin = sampleSkin("sedge60");
    const double x = need(walkAlong(skin, 5, 3, 25, "w"));
    EXPECT_NEAR(need(walkAlong(skin, x, 3, -25, "w")), 5, 1e-4);
}

/// Points measured on a circle: what lies between them is the circle and not its chords.
TEST(Landmarks, CurvesAreSmoothThroughTheirPoints) {
    Landmark plate;
    const double r = 12;
    for (int i = -4; i <= 4; ++i)
        plate.points.emplace_back(10 + r * std::cos(0.15 * i), r * std::sin(0.15 * i));
    const std::vector<Vec2> curve = curveOf(plate);
    for (const Vec2& v : curve) EXPECT_NEAR((v - Vec2(10, 0)).norm(), r, 0.01);  // chords: 0.034 off
    for (const double g : {-5.0, -2.7, 0.8, 4.1})
        EXPECT_NEAR(referencePoint(plate, g).x(), 10 + std::sqrt(r * r - g * g), 0.01);
    for (const Vec2& measured : plate.points)
        EXPECT_TRUE(std::any_of(curve.begin(), curve.end(), [&](const Vec2& v) { return v == measured; }));
    Landmark slot;  // an outline has corners
    slot.points = {{5, -2}, {8, -2}, {8, -4}, {5, -4}, {5, -2}};
    EXPECT_EQ(curveOf(slot), slot.points);
}

/// Along the datum line of a sphere a curve is a great circle: r times the angle, whatever x says.
TEST(Landmarks, CurvesAreMeasuredOnTheSkin) {
    const double r = 20;
    const Skin ball = sphere(r);
    const auto angle = [&](double x) { return std::acos(1 - x / r); };
    const Landmark line{{{3, 0}, {6, 0}, {12, 0}, {24, 0}}, 0, {}};
    const std::vector<Vec2> curve = curveOf(line);
    EXPECT_NEAR(lengthsAlong(ball, curve).back(), r * (angle(24) - angle(3)), 2e-3);
    const std::vector<Vec2> half = partOf(ball, curve, 0.5, 1, 4);
    EXPECT_NEAR(angle(half.front().x()), 0.5 * (angle(24) + angle(3)), 1e-3);
    EXPECT_NEAR(angle(half[2].x()), angle(3) + 0.75 * (angle(24) - angle(3)), 1e-3);
}

TEST(Landmarks, CurveIsMeasuredFromAtTheAskedHeight) {
    const Landmark plate{{{14, 10}, {16, 0}, {14, -10}}, 0, {}};
    EXPECT_NEAR(referencePoint(plate, 0).x(), 16, 1e-12);
    EXPECT_GT(referencePoint(plate, 5).x(), 15.2);          // no corner in the middle: rounder than the chord
    EXPECT_NEAR(referencePoint(plate, 40).x(), 14, 1e-12);  // beyond its end: the end
    EXPECT_EQ(spokenName("gill_plate").plain(), "gill plate");
    EXPECT_EQ(checkLandmarks(sampleSkin("sedge60"), {{"eye", {{{99, 0}}, 6, {}}}}).error().where,
              "blank.landmarks.eye");
}

TEST(SkinGrid, RowsAreEvenAlongTheSkinAndClosed) {
    const Skin skin = sampleSkin("sedge60");
    const SkinGrid grid = makeSkinGrid(skin, 40, 32);
    for (int c = 0; c < 32; ++c) {
        EXPECT_NEAR((grid.at(0, c).position - grid.at(0, 0).position).norm(), 0,
                    1e-9);  // a pole is one point
        const Vec3 mirror =
            grid.at(20, (48 - c) % 32).position;  // column 0 is the left datum line, 16 the right
        EXPECT_NEAR((grid.at(20, c).position - Vec3(mirror.x(), -mirror.y(), mirror.z())).norm(), 0, 1e-9);
    }
    EXPECT_EQ(&grid.at(5, 32), &grid.at(5, 0));
    double step = 0;
    for (int r = 1; r < 40; ++r) {
        const double here =
            arcLength_mm(grid.at(r - 1, 24), grid.at(r, 24));  // belly, the longest outline here
        if (r > 1) {
            EXPECT_LT(here, 1.6 * step + 0.5) << r;
        }
        step = here;
    }
}

TEST(Skin, PointsSeenFromTheSide) {
    const Skin egg = spheroid(14, 30);
    for (const double x : {6.0, 20.0, 30.0, 47.0}) {
        const double tall = egg.loft().sectionAt(x).top_mm;
        for (const double z : {-9.0, -2.0, 0.0, 5.0}) {
            const SkinPoint at = egg.onFlank(x, z);
            EXPECT_EQ(at.side, Side::Left);
            EXPECT_NEAR(egg.at(at).position.z(), std::clamp(z, -tall, tall), 1e-6);
            EXPECT_GE(egg.at(at).position.y(), -1e-9);
            EXPECT_NEAR(at.x_mm, x, 1e-12);
        }
    }
    // Beyond the outline it stops at it.
    EXPECT_NEAR(egg.at(egg.onFlank(30, 99)).position.z(), 14, 1e-6);
    EXPECT_TRUE(egg.check(egg.onFlank(-5, 3), ""));
}

TEST(Walk, DistanceIsWhatHasToBeWalked) {
    const Skin egg = spheroid(14, 30);
    for (const double g : {-4.0, 0.0, 6.0}) {
        const double there = need(distanceAlong(egg, 12, 40, g, ""));
        EXPECT_NEAR(need(walkAlong(egg, 12, g, there, "")), 40, 1e-4);
        EXPECT_NEAR(need(distanceAlong(egg, 40, 12, g, "")), -there, 1e-9);
    }
    EXPECT_EQ(need(distanceAlong(egg, 20, 20, 0, "")), 0);
    EXPECT_EQ(distanceAlong(egg, 20, 90, 0, "here").error().code, "off_body");
}

}  // namespace
}  // namespace nine
