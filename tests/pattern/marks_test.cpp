// Kinds of marks against closed forms on a cylinder, where x and g are the sheet itself, and against GEOS.
#include <gtest/gtest.h>

#include <algorithm>
#include <thread>

#include "base/rng.h"
#include "blank/walk.h"
#include "geom/polygon_set.h"
#include "pattern/art.h"
#include "pattern/bands.h"
#include "pattern/chart.h"
#include "pattern/features.h"
#include "pattern/field.h"
#include "pattern/natural.h"
#include "pattern/scatter.h"
#include "pattern/skin_picture.h"
#include "pattern/stroke.h"
#include "tests/bodies.h"

namespace nine {
namespace {

using namespace test;

Element of(const char* kind, double dx = 30, double dg = 0) {
    Element e;
    e.id = kind;
    e.kind = kind;
    e.values = usualValues(*findKind(kind));
    e.linked = !e.isCentral();
    if (findKind(kind)->hasOrigin()) {
        e.dx_mm = dx;
        e.dg_mm = dg;
    }
    return e;
}

double areaOf(const ElementArt& art) {
    double sum = 0;
    for (const Outline& outline : art.outlines()) sum += polygonArea(outline.skin);
    return sum;
}

const Skin& tube() {
    static const Skin skin = cylinder(12, 90);
    return skin;
}

ElementArt drawn(const Element& e, const DrawWith& with = {}) {
    return need(drawElement(tube(), {}, e, "e", Fineness::Cut, with));
}

// The same sequence for ever: SplitMix64 from seed 1234567, as published with the generator
// (the values stand in several test suites of it; from memory).
TEST(Rng, GivesThePublishedSequence) {
    Rng rng(1234567);
    EXPECT_EQ(rng.next(), 6457827717110365317u);
    EXPECT_EQ(rng.next(), 3203168211198807973u);
    EXPECT_EQ(rng.next(), 9817491932198370423u);
    std::vector<std::size_t> order = Rng(5).shuffled(500);
    EXPECT_FALSE(std::is_sorted(order.begin(), order.end()));
    std::sort(order.begin(), order.end());
    for (std::size_t i = 0; i < order.size(); ++i) EXPECT_EQ(order[i], i);
}

TEST(Stroke, AreaOfASausageAndOfASquareEndedBand) {
    const Spine spine = need(spineAlong(tube(), Vec2(20, 1), 25, 0, 0, 0.4, "s"));
    EXPECT_NEAR(spine.length_mm(), 25, 1e-6);
    const double w = 1.6;
    for (const auto& [end, ends] : {std::pair{StrokeEnd::Square, 0.0}, {StrokeEnd::Round, kPi * w * w / 4}}) {
        const auto line = need(drawStroke(tube(), spine, {evenWidth(w), end, end, {}}, Fineness::Cut, "s"));
        ASSERT_EQ(line.size(), 1u);
        EXPECT_NEAR(polygonArea(line[0].skin), 25 * w + ends, 2e-3 * w * 25);
    }
    // On the slope of a cone widths are along the skin, not along the axis.
    const Skin cone = test::cone(4, 14, 60);
    const Spine slant = need(spineAlong(cone, Vec2(20, 0), 20, 0, 0, 0.4, "s"));
    const auto band = need(drawStroke(cone, slant, {evenWidth(2), StrokeEnd::Square, StrokeEnd::Square, {}},
                                      Fineness::Cut, "s"));
    for (const SurfacePoint& p : band[0].points) {
        const SkinPoint at = cone.locate(p.position);
        if (at.x_mm < slant.at.front().x() + 0.3 || at.x_mm > slant.at.back().x() - 0.3)
            continue;  // its ends
        // Distance to the generator of the cone: radius times angle, developed.
        const double slantLength = (p.position - Vec3(-24, 0, 0)).norm();  // the apex of this cone
        const double turn = std::atan2(p.position.z(), p.position.y()) * 10 / std::hypot(10, 60);
        EXPECT_NEAR(std::abs(std::sin(turn) * slantLength), 1, 2e-3) << at.x_mm;
    }
}

TEST(Stroke, SmoothThroughKeepsItsPlacesAndMakesNoLoops) {
    const std::vector<Vec2> places{{0, 0}, {1, 4}, {1.2, 4.1}, {9, 0}, {9.1, -3}};
    const std::vector<Vec2> line = smoothThrough(places, false, 0.05);
    for (const Vec2& place : places) {
        double nearest = 1e9;
        for (const Vec2& p : line) nearest = std::min(nearest, (p - place).norm());
        EXPECT_LT(nearest, 1e-9);
    }
    for (std::size_t i = 2; i < line.size(); ++i) {
        const Vec2 a = line[i - 1] - line[i - 2], b = line[i] - line[i - 1];
        EXPECT_GT(a.dot(b), 0) << "turns back at " << line[i].transpose();
    }
}

TEST(Bands, GrownAndShrunkOnACylinderAsInThePlane) {
    // A square of 6 mm with sharp corners: grown it has round ones, shrunk it keeps them.
    const PolygonSet square = subdivided({{{30, -3}, {36, -3}, {36, 3}, {30, 3}}}, 0.3);
    for (const double d : {0.5, 1.5}) {
        const PolygonSet wide = need(grown(tube(), square, d, Fineness::Cut, "b"));
        EXPECT_NEAR(area(wide), 36 + 24 * d + kPi * d * d, 4e-3 * (36 + 24 * d));
        const PolygonSet small = need(grown(tube(), square, -d, Fineness::Cut, "b"));
        EXPECT_NEAR(area(small), (6 - 2 * d) * (6 - 2 * d), 5e-3 * 36);
    }
    // Shrunk to nothing; and a ring's hole shrinks as it grows.
    EXPECT_TRUE(need(grown(tube(), square, -3.2, Fineness::Cut, "b")).empty());
    const PolygonSet ring = subtracted(square, subdivided({{{32, -1}, {34, -1}, {34, 1}, {32, 1}}}, 0.3));
    const PolygonSet fat = need(grown(tube(), ring, 0.5, Fineness::Cut, "b"));
    EXPECT_NEAR(area(fat), 36 + 12 + kPi * 0.25 - 1 * 1, 0.2);
}

TEST(Bands, SweptIsWhatIsPassedOver) {
    const PolygonSet square = subdivided({{{30, -2}, {34, -2}, {34, 2}, {30, 2}}}, 0.3);
    const PolygonSet path = need(swept(tube(), square, Vec2(3, -1), "b"));
    // Minkowski sum of a square and a segment: its area and what the two sides pass over.
    EXPECT_NEAR(area(path), 16 + 4 * 3 + 4 * 1, 0.02);
    EXPECT_NEAR(area(need(moved(tube(), square, Vec2(3, -1), "b"))), 16, 0.01);
}

TEST(DotRow, BulgeAndRiseAreWhatTheySay) {
    Element e = of("dot_row", 20, 1);
    e.values.set("count", 5.0);
    e.values.set("bulge", 1.5);
    e.values.set("rise_mm", 2.0);
    const ElementArt art = drawn(e);
    EXPECT_NEAR(polygonArea(art.outlines()[2].skin), kPi * 1.5 * 1.5, 2e-3);
    EXPECT_NEAR(polygonArea(art.outlines()[4].skin), kPi, 1e-3);
    EXPECT_NEAR(art.outlines()[4].centre.y(), 3, 1e-9);
}

TEST(Natural, ARoughOutlineStaysWithinWhatIsAsked) {
    double most = 0;
    for (std::uint64_t seed = 1; seed <= 60; ++seed) {
        const Wobble wobble(0.2, seed);
        for (int k = 0; k < 360; ++k) most = std::max(most, std::abs(wobble.at(k * kPi / 180) - 1));
    }
    EXPECT_LE(most, 0.2);
    EXPECT_GT(most, 0.14);  // and comes near it
}

TEST(DotRow, NaturalStaysNearAndIsTheSameForASeed) {
    Element e = of("dot_row", 12, 0);
    e.values.set("count", 16.0);
    const ElementArt punched = drawn(e);
    e.values.set("wander_mm", 0.6);
    e.values.set("vary", 0.2);
    e.values.set("rough", 0.1);
    const ElementArt natural = drawn(e), again = drawn(e);
    e.values.set("seed", 2.0);
    const ElementArt other = drawn(e);
    double most = 0, differ = 0;
    for (std::size_t i = 0; i < 16; ++i) {
        const Vec2 off = centroid(natural.outlines()[i].skin) - punched.outlines()[i].centre;
        most = std::max(most, off.norm());
        EXPECT_LE(std::abs(off.y()), 0.6 + 0.05);
        EXPECT_EQ(natural.outlines()[i].skin, again.outlines()[i].skin);
        differ += (centroid(other.outlines()[i].skin) - centroid(natural.outlines()[i].skin)).norm();
        const double size = std::sqrt(polygonArea(natural.outlines()[i].skin) / kPi);
        EXPECT_NEAR(size, 1, 0.2 + 0.03);
    }
    EXPECT_GT(most, 0.1);
    EXPECT_GT(differ, 0.5);
}

TEST(Bars, BreaksForksAndGradesKeepTheirMeasures) {
    Element e = of("bars", 20, 0);
    e.values.set("count", 4.0);
    e.values.set("width_belly_mm", 2.0);
    e.values.set("breaks", 2.0);
    e.values.set("gap_mm", 1.0);
    const ElementArt broken = drawn(e);
    EXPECT_EQ(broken.outlines().size(), 12u);
    EXPECT_NEAR(areaOf(broken), 4 * 2 * (12 - 2), 0.05);
    e.values.set("breaks", 0.0);
    e.values.set("grade", 2.0);
    const ElementArt graded = drawn(e);
    std::vector<double> x;
    for (const Outline& outline : graded.outlines()) x.push_back(outline.centre.x());
    EXPECT_NEAR((x[3] - x[2]) / (x[1] - x[0]), 2, 1e-6);
    EXPECT_NEAR(x[3] - x[0], 18, 1e-6);
    e.values.set("grade", 1.0);
    e.values.set("fork", 0.5);
    const ElementArt forked = drawn(e);
    ASSERT_EQ(forked.outlines().size(), 4u);
    // Just under the back a forked bar is two prongs: a line across meets it four times.
    const PolygonSet slice =
        intersected({forked.outlines()[1].skin}, {{{0, 7.5}, {90, 7.5}, {90, 7.8}, {0, 7.8}}});
    EXPECT_EQ(slice.size(), 2u);
}

TEST(Bars, OverTheBackTheyAreOnePieceAlikeOnBothSides) {
    Element e = of("bars", 30, 0);
    e.values.set("count", 1.0);
    e.values.set("across", std::string("back"));
    e.values.set("g0_mm", -4.0);
    e.linked = false;
    ASSERT_TRUE(e.isCentral());
    const ElementArt art = drawn(e);
    ASSERT_EQ(art.outlines().size(), 1u);
    const double back = tube().arcAt(30).backArc_mm();
    EXPECT_NEAR(art.high.y(), 2 * back + 4, 1e-6);
    EXPECT_NEAR(art.low.y(), -4, 1e-6);
    double left = 0, right = 0;
    for (const SurfacePoint& p : art.outlines()[0].points)
        (p.position.y() > 0 ? left : right) += p.position.y();
    EXPECT_NEAR(left, -right, 1e-6);
    EXPECT_TRUE(art.warnings.empty());
}

TEST(Rim, WholeAndRingHaveTheAreasOfCircles) {
    Element dots = of("dot_row", 20, 0);
    dots.values.set("count", 3.0);
    dots.values.set("spacing_mm", 6.0);
    const ElementArt source = drawn(dots);
    DrawWith with;
    with.source = &source;
    Element rim = of("rim");
    rim.values.set("width_mm", 0.5);
    const ElementArt whole = drawn(rim, with);
    EXPECT_EQ(whole.outlines().size(), 3u);
    EXPECT_NEAR(areaOf(whole), 3 * kPi * 1.5 * 1.5, 0.02 * 3 * kPi);
    rim.values.set("fill", std::string("ring"));
    rim.values.set("gap_mm", 0.4);
    rim.values.set("bridge_mm", 0.0);
    const ElementArt ring = drawn(rim, with);
    EXPECT_NEAR(areaOf(ring), 3 * kPi * (1.9 * 1.9 - 1.4 * 1.4), 0.1);
    EXPECT_EQ(std::count_if(ring.outlines().begin(), ring.outlines().end(),
                            [](const Outline& o) { return o.hole; }),
              3);
    rim.values.set("bridge_mm", 0.62);  // now nothing falls out
    const ElementArt held = drawn(rim, with);
    EXPECT_EQ(std::count_if(held.outlines().begin(), held.outlines().end(),
                            [](const Outline& o) { return o.hole; }),
              0);
    EXPECT_NEAR(areaOf(ring) - areaOf(held), 3 * 0.62 * 0.5, 0.12);
}

TEST(Derived, InnerFillShadowAndHighlightLieWhereTheyShould) {
    Element patch = of("oval_patch", 40, 0);
    patch.values.set("egg", 0.0);
    const ElementArt source = drawn(patch);
    DrawWith with;
    with.source = &source;
    Element inner = of("inner_fill");
    inner.values.set("short_mm", 0.5);
    const ElementArt fill = drawn(inner, with);
    EXPECT_LT(area(subtracted(ringsOf(fill.outlines()), ringsOf(source.outlines()))), 1e-6);
    // An ellipse shrunk by d loses its perimeter times d but for the curvature's share (Steiner).
    EXPECT_NEAR(areaOf(fill), areaOf(source) - 0.5 * perimeter(source.outlines()[0].skin) + kPi * 0.25, 0.03);
    const ElementArt shadow = drawn(of("cast_shadow"), with), light = drawn(of("highlight"), with);
    EXPECT_LT(area(intersected(ringsOf(shadow.outlines()), ringsOf(source.outlines()))), 0.02);
    EXPECT_LT(centroid(shadow.outlines()[0].skin).y(), centroid(source.outlines()[0].skin).y() - 1);
    EXPECT_LT(area(subtracted(ringsOf(light.outlines()), ringsOf(source.outlines()))), 0.02);
    EXPECT_GT(centroid(light.outlines()[0].skin).y(), centroid(source.outlines()[0].skin).y() + 0.5);
    // What a translation of an ellipse by w across its height uncovers: its length times w, to first order.
    EXPECT_NEAR(areaOf(shadow), 5 * 0.6, 0.25);
    EXPECT_NEAR(areaOf(light), 5 * 0.6, 0.25);
}

TEST(Derived, NeedsAMarkToBeMadeFrom) {
    const auto error = drawElement(tube(), {}, of("rim"), "pattern.elements[3]").error();
    EXPECT_EQ(error.code, "no_source");
    EXPECT_EQ(error.where, "pattern.elements[3].of");
}

TEST(Clear, OneMarkIsCutOutOfAnother) {
    const ElementArt dot = drawn([] {
        Element e = of("dot_row", 40, 0);
        e.values.set("count", 1.0);
        return e;
    }());
    Element patch = of("oval_patch", 40, 0);
    const ElementArt whole = drawn(patch);
    patch.clear_mm = 0.3;
    DrawWith with;
    with.clearOf = {&dot};
    const ElementArt cut = drawn(patch, with);
    EXPECT_NEAR(areaOf(whole) - areaOf(cut), kPi * 1.3 * 1.3, 0.02);
}

/// By brute force: no two too near, and no place left where one more would go.
TEST(Scatter, DartsKeepTheirDistanceAndLeaveNoRoom) {
    const Skin skin = sampleSkin("sedge60");
    const Chart chart(skin, {15, 45, 0.2, 0.8, 0.35});
    const auto sized = [&](int r, int c) -> std::optional<Vec2> {
        if (c % 40 == 0) return std::nullopt;
        return Vec2(0.3 + 0.002 * r, 0.8);
    };
    const std::vector<Dart> darts = scattered(chart, sized, 7);
    ASSERT_GT(darts.size(), 60u);
    const auto least = [](const Dart& a, const Dart& b) {
        return a.radius_mm + b.radius_mm + std::max(a.gap_mm, b.gap_mm);
    };
    for (std::size_t i = 0; i < darts.size(); ++i)
        for (std::size_t j = 0; j < i; ++j)
            EXPECT_GE((darts[i].point - darts[j].point).norm(), least(darts[i], darts[j]) - 1e-12);
    for (int r = 0; r < chart.rows(); ++r) {
        for (int c = 0; c < chart.columns(); ++c) {
            const auto s = sized(r, c);
            if (!s) continue;
            const Dart here{chart.place(r, c), chart.point(chart.index(r, c)), s->x(), s->y()};
            EXPECT_TRUE(std::any_of(darts.begin(), darts.end(),
                                    [&](const Dart& d) {
                                        return (here.point - d.point).norm() < least(here, d) ||
                                               (here.point - d.point).norm() < 1e-12;
                                    }))
                << r << " " << c;
        }
    }
    EXPECT_EQ(scattered(chart, sized, 7).size(), darts.size());
    EXPECT_NE(scattered(chart, sized, 8)[0].at, darts[0].at);
}

TEST(Chart, AreaOfASphereAndDistancesToACircle) {
    const Skin ball = sphere(15);
    const Chart chart(ball, {6, 24, 0.1, 0.9, 0.25});
    double whole = 0;
    for (std::size_t i = 0; i < chart.size(); ++i) whole += chart.area_mm2(i);
    // A zone of a sphere: 2 pi r h; this one a share of its turn, and half a cell more on every side.
    const double zone = 2 * kPi * 15 * 18 * 0.8 / 2;
    EXPECT_NEAR(whole / zone, 1, 0.03);
    const SurfacePoint middle = ball.at({Side::Left, 15, 0});
    Field field(chart.size());
    for (std::size_t i = 0; i < chart.size(); ++i) {
        const double along =
            15 *
            std::acos(std::clamp(
                (chart.point(i) - Vec3(15, 0, 0)).dot(middle.position - Vec3(15, 0, 0)) / 225, -1.0, 1.0));
        field[i] = static_cast<float>(std::tanh(3.0 - along));  // any field with this border
    }
    const Field d = chart.distances(field);
    for (std::size_t i = 0; i < chart.size(); ++i) {
        const double along =
            15 *
            std::acos(std::clamp(
                (chart.point(i) - Vec3(15, 0, 0)).dot(middle.position - Vec3(15, 0, 0)) / 225, -1.0, 1.0));
        if (along < 9 && along > 0.5) {
            EXPECT_NEAR(d[i], 3 - along, 0.16) << along;
        }
    }
    const PolygonSet rings = chart.rings(d);
    ASSERT_EQ(rings.size(), 1u);
    for (const Vec2& p : rings[0]) {
        const Vec3 at = ball.at({Side::Left, p.x(), p.y()}).position - Vec3(15, 0, 0);
        EXPECT_NEAR(15 * std::acos(at.dot(middle.position - Vec3(15, 0, 0)) / 225), 3, 0.02);
    }
}

/// Heat spreads as a bell: its second moment grows by what was asked, both ways alike, and none is lost.
TEST(Chart, DiffusionSpreadsAsItShould) {
    const Chart chart(tube(), {20, 70, 0.1, 0.9, 0.25});
    Field u(chart.size(), 0.f);
    const int r = chart.rows() / 2, c = chart.columns() / 2;
    u[chart.index(r, c)] = 1000;
    chart.diffuse(u, 1.5, 4);
    const Vec2 middle = chart.place(r, c);
    double mass = 0, along = 0, across = 0;
    for (int i = 0; i < chart.rows(); ++i) {
        for (int k = 0; k < chart.columns(); ++k) {
            const Vec2 off = chart.place(i, k) - middle;
            const double m = u[chart.index(i, k)] * chart.area_mm2(chart.index(i, k));
            mass += m;
            along += m * off.x() * off.x();
            across += m * off.y() * off.y();
        }
    }
    EXPECT_NEAR(mass / (1000 * chart.area_mm2(chart.index(r, c))), 1, 1e-3);
    EXPECT_NEAR(along / mass, 1.5 * 1.5, 0.03);
    EXPECT_NEAR(across / mass, 1.5 * 1.5, 0.03);
    chart.diffuse(u, 0.001, 2.0, 1);
    EXPECT_FALSE(std::isnan(u[0]));
}

TEST(Noise, IsCentredAndDoesNotRepeat) {
    const Noise noise(2.5, 11);
    double sum = 0, squares = 0;
    int count = 0;
    for (double x = 0; x < 60; x += 0.7)
        for (double y = -9; y < 9; y += 0.6) {
            const double v = noise.at(Vec3(x, y, 0.3 * x));
            EXPECT_LE(std::abs(v), 1.1);
            sum += v;
            squares += v * v;
            ++count;
        }
    EXPECT_NEAR(sum / count, 0, 0.03);
    EXPECT_NEAR(std::sqrt(squares / count), 0.26, 0.05);
    EXPECT_EQ(noise.at(Vec3(3, 4, 5)), Noise(2.5, 11).at(Vec3(3, 4, 5)));
    EXPECT_NE(noise.at(Vec3(3, 4, 5)), Noise(2.5, 12).at(Vec3(3, 4, 5)));
}

/// What is asked for is what is covered, measured on the outlines, away from where the field thins out.
TEST(Fields, CoverTheShareAskedForAndNothingIsTooThin) {
    for (const char* kind : {"tracks", "mottle"}) {
        for (const double cover : {0.3, 0.45}) {
            Element e = of(kind);
            e.values.set("cover", cover);
            e.values.set("soft", 0.02);
            e.values.set("bridge_mm", 0.0);
            const ElementArt art = drawn(e);
            const double half = kPi * 12, back = 0.5 * half;
            // All of the field but where it thins out: the last fiftieth of each side.
            const Polygon2 window{{90 * 0.138, back - 0.482 * half},
                                  {90 * 0.922, back - 0.482 * half},
                                  {90 * 0.922, back - 0.098 * half},
                                  {90 * 0.138, back - 0.098 * half}};
            const PolygonSet inside = intersected(ringsOf(art.outlines()), {window});
            EXPECT_NEAR(area(inside) / area({window}), cover, 0.02) << kind;
            // Opened by a disc of 0.5 mm almost nothing is lost: no cut feature is thinner.
            const PolygonSet rings = ringsOf(art.outlines());
            const PolygonSet opened = offset(offset(rings, -0.25), 0.25);
            EXPECT_LT((area(rings) - area(opened)) / area(rings), 0.015) << kind;
        }
    }
}

TEST(Fields, AreTheSameOnAnyNumberOfThreads) {
    // All loops of a field run in one order; spots are drawn in parallel, each by itself.
    const Element e = of("spots");
    const ElementArt once = drawn(e);
    std::vector<ElementArt> twice(2);
    std::thread one([&] { twice[0] = drawn(e); }), two([&] { twice[1] = drawn(e); });
    one.join();
    two.join();
    for (const ElementArt& art : twice) {
        ASSERT_EQ(art.outlines().size(), once.outlines().size());
        for (std::size_t i = 0; i < art.outlines().size(); ++i)
            EXPECT_EQ(art.outlines()[i].skin, once.outlines()[i].skin);
    }
}

TEST(Fields, FitNowhereIsSaid) {
    Element e = of("spots");
    e.values.set("small_mm", 30.0);
    e.values.set("large_mm", 30.0);
    e.values.set("from_girth", 0.9);
    e.values.set("to_girth", 0.93);
    const Result<ElementArt> art = drawElement(cylinder(3, 30), {}, e, "e");
    ASSERT_FALSE(art);
    EXPECT_EQ(art.error().code, "fits_nowhere");
    Task stopped = Task::make();
    stopped.cancel();
    DrawWith with;
    with.task = stopped;
    EXPECT_EQ(drawElement(tube(), {}, of("tracks"), "e", Fineness::Cut, with).error().code, "cancelled");
}

/// What is painted is where outlines wind round: marks that overlap are whole, what is left bare in one is
/// bare.
TEST(Picture, OverlapsAreWholeAndHolesAreBare) {
    const DrawnBody body = drawBody(tube());
    const auto disc = [&](double x, double r) {
        return need(drawElement(
                        tube(), {},
                        [&] {
                            Element e = of("dot_row", x, 0);
                            e.values.set("count", 1.0);
                            e.values.set("first_mm", 2 * r);
                            e.values.set("last_mm", 2 * r);
                            return e;
                        }(),
                        "e"))
            .outlines()
            .front();
    };
    constexpr int kColumns = 900, kRows = 900;
    constexpr std::uint32_t kRed = 0xFFFF0000;
    const double girth = tube().arcAt(45).girth_mm();
    const auto at = [&](const Image& image, double x, double g) {
        const double turn = g / girth - std::floor(g / girth);
        return image.at(static_cast<int>(turn * kColumns) % kColumns,
                        static_cast<int>(body.rowAt(x) * (kRows - 1) + 0.5));
    };
    const std::vector<Outline> two{disc(44, 3), disc(47, 3)};
    const Image both = paintSkin(body, {}, {{&two, kRed, true, false}}, kColumns, kRows, 2);
    EXPECT_EQ(at(both, 45.5, 0), kRed);  // where both lie
    EXPECT_EQ(at(both, 42, 0), kRed);
    EXPECT_NE(at(both, 40, 0), kRed);
    EXPECT_NE(at(both, 45.5, 0.5 * girth), kRed);  // the right side's datum line
    Outline inner = disc(44, 1.5);
    std::reverse(inner.skin.begin(), inner.skin.end());
    std::reverse(inner.points.begin(), inner.points.end());
    const std::vector<Outline> ring{disc(44, 3), inner};
    const Image bare = paintSkin(body, {}, {{&ring, kRed, true, true}}, kColumns, kRows, 2);
    EXPECT_NE(at(bare, 44, 0), kRed);
    EXPECT_EQ(at(bare, 44, 2.2), kRed);
    EXPECT_EQ(at(bare, 44, 0.5 * girth - 2.2), kRed);  // its mirror image
    // As much of the picture as two discs less what they share.
    std::size_t red = 0;
    for (const std::uint32_t pixel : both.pixels) red += pixel == kRed ? 1 : 0;
    const double lens = 2 * 9 * std::acos(0.5) - 0.5 * 3 * std::sqrt(36.0 - 9);
    const double pixel_mm2 = girth / kColumns * 90 / (kRows - 1);
    EXPECT_NEAR(static_cast<double>(red) * pixel_mm2, 2 * kPi * 9 - lens, 0.03 * 2 * kPi * 9);
    const SoftCover half = [](double x, double) { return x < 45 ? 1.0 : 0.0; };
    const std::vector<Outline> none;
    const Image soft = paintSkin(body, {}, {{&none, kRed, true, true, 1, &half}}, kColumns, kRows);
    for (const double g : {2.0, 0.5 * girth + 2})
        EXPECT_TRUE(at(soft, 40, g) == kRed && at(soft, 50, g) != kRed) << g;
}

TEST(Features, NarrowestOpeningAndStripAreFound) {
    Element bars = of("bars", 20, 0);
    bars.values.set("count", 3.0);
    bars.values.set("width_back_mm", 0.7);
    bars.values.set("width_belly_mm", 0.7);
    bars.values.set("spacing_mm", 1.1);
    const Features fine = featuresOf(drawn(bars));
    EXPECT_NEAR(fine.narrowest_mm, 0.7, 0.03);
    EXPECT_NEAR(fine.web_mm, 0.4, 0.02);
    // A pointed end is no width: the stroke is as narrow as its body.
    Element line = of("line", 20, 0);
    for (const char* key : {"start_mm", "middle_mm", "end_mm"}) line.values.set(key, 1.2);
    line.values.set("head_end", std::string("square"));
    EXPECT_GT(featuresOf(drawn(line)).narrowest_mm, 0.8);
}

TEST(Clear, SliversThatACutLeavesAreTakenAway) {
    // A square cut so that a strip of 0.2 mm stays on one side: it goes, the rest and its corners stay.
    const PolygonSet square{{{0, 0}, {6, 0}, {6, 6}, {0, 6}}};
    const PolygonSet cut = subtracted(square, {{{0.2, -1}, {2, -1}, {2, 7}, {0.2, 7}}});
    const PolygonSet clean = withoutSlivers(cut, 0.5);
    EXPECT_NEAR(area(clean), 24, 0.05);
    // A neck between two broad parts is no sliver: without it a hairline of sheet would stand there.
    const PolygonSet neck = united(
        square, {{{6, 2.9}, {6.4, 2.9}, {6.4, 3.1}, {6, 3.1}}, {{6.4, 0}, {12, 0}, {12, 6}, {6.4, 6}}});
    EXPECT_NEAR(area(withoutSlivers(neck, 0.5)), area(neck), 0.02);
}

TEST(Letters, WhatHasNoStrokesIsToldAndIslandsAreHeld) {
    Element e = of("lettering", 30, 0);
    e.values.set("text", std::string("AO\xD0\x96"));
    const ElementArt art = drawn(e);
    ASSERT_EQ(art.warnings.size(), 1u);
    EXPECT_EQ(art.warnings[0].code, "no_stroke");
    EXPECT_NE(art.warnings[0].text().find("\xD0\x96"), std::string::npos);
    EXPECT_TRUE(
        std::none_of(art.outlines().begin(), art.outlines().end(), [](const Outline& o) { return o.hole; }));
}

TEST(FreeShape, ACrossedOneIsToldAndCutRoundTheOutside) {
    Element e = of("free_shape", 40, 0);
    e.values.set("path_mm", Polyline2{{-4, -3}, {4, 3}, {4, -3}, {-4, 3}});
    e.values.set("round", 0.0);
    const ElementArt art = drawn(e);
    ASSERT_FALSE(art.warnings.empty());
    EXPECT_EQ(art.warnings[0].code, "crosses_itself");
    EXPECT_GT(areaOf(art), 10);
}

TEST(Fade, IsFullAndGoneWhereItSays) {
    Element e = of("girth_fade");
    e.values.set("none", 0.7);
    e.values.set("full", 0.4);
    const ElementArt art = drawn(e);
    const SoftCover& cover = art.passes[0].cover;
    const double half = kPi * 12, back = 0.5 * half;
    EXPECT_DOUBLE_EQ(cover(45, back - 0.35 * half), 1);
    EXPECT_NEAR(cover(45, back - 0.55 * half), 0.5, 1e-3);  // a smooth step is half way in the middle
    EXPECT_DOUBLE_EQ(cover(45, back - 0.75 * half), 0);
    EXPECT_TRUE(art.outlines().empty());
    EXPECT_FALSE(art.cut);
}

}  // namespace
}  // namespace nine
