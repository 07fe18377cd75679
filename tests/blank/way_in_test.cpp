// Strings, outlines, kinds, zones, how hard to wrap, comparing: what a body is made of and measured by.
#include <gtest/gtest.h>

#include <cmath>
#include <random>

#include "blank/compare.h"
#include "blank/families.h"
#include "blank/from_outline.h"
#include "blank/measure.h"
#include "blank/string_girth.h"
#include "blank/wrap.h"
#include "blank/zones.h"
#include "tests/bodies.h"

namespace nine {
namespace {

Polyline2 outlineOf(const Skin& skin, bool above) {
    Polyline2 line;
    for (const bool upper : {true, false}) {
        for (int i = 0; i <= 300; ++i) {
            const double x =
                skin.noseX_mm() + 0.5 * skin.length_mm() * (1 - std::cos(kPi * (upper ? i : 300 - i) / 300));
            const Section s = skin.loft().sectionAt(x);
            line.emplace_back(
                x, above ? (upper ? s.halfWidth_mm : -s.halfWidth_mm) : (upper ? s.top_mm : -s.bottom_mm));
        }
    }
    return line;
}

TEST(StringGirth, OfAnEllipseIsTheCompleteEllipticIntegral) {
    // Perimeter 4 a E(k), k^2 = 1 - b^2 / a^2; E from the standard library's special functions.
    for (const auto& [a, b] : {std::pair{13.8, 9.0}, {20.0, 3.0}, {8.0, 8.0}}) {
        const Station s{10, b, b, a, 2, 2, {}};
        const double k = std::sqrt(1 - b * b / (a * a));
        EXPECT_NEAR(girthOf_mm(s), 4 * a * std::comp_ellint_2(k), 1e-6 * a);
    }
}

TEST(StringGirth, TheExponentIsRecoveredFromTheGirth) {
    std::mt19937 random(11);
    std::uniform_real_distribution<double> size(3, 25), exponent(1.3, 8);
    for (int i = 0; i < 200; ++i) {
        Station s{10, size(random), size(random), size(random), 0, 0, {}};
        s.section = exponent(random);
        s.sectionLower = s.section;
        const double girth = girthOf_mm(s);
        Station asked = s;
        asked.section = asked.sectionLower = 2;
        EXPECT_NEAR(test::need(withGirth(asked, girth, Fuller::Both, "")).section, s.section, 0.01)
            << "case " << i;
        // One half alone, the other as it is.
        s.sectionLower = exponent(random);
        asked = s;
        asked.section = 2;
        const Station upper = test::need(withGirth(asked, girthOf_mm(s), Fuller::Upper, ""));
        EXPECT_NEAR(upper.section, s.section, 0.01) << "case " << i;
        EXPECT_EQ(upper.sectionLower, s.sectionLower);
        EXPECT_NEAR(girthResidual_mm(upper), 0, 1e-6);
    }
}

TEST(StringGirth, AnImpossibleGirthIsRefusedWithTheRange) {
    const Station s{10, 13, 17, 14, 2, 2, {}};
    const GirthRange range = possibleGirths(s, Fuller::Both);
    for (const double girth : {range.least_mm - 1, range.most_mm + 1, 0.0, -4.0, std::nan("")}) {
        const auto refused = withGirth(s, girth, Fuller::Both, "here");
        ASSERT_FALSE(refused) << girth;
        EXPECT_EQ(refused.error().code, "girth_impossible");
        EXPECT_EQ(refused.error().where, "here");
        EXPECT_NE(refused.error().text().find(fixedText(range.least_mm, 1)), std::string::npos);
    }
    // A diamond of chords is the least, the box the most there can be.
    EXPECT_GT(range.least_mm, 2 * (std::hypot(14, 13) + std::hypot(14, 17)));
    EXPECT_LT(range.most_mm, 4 * 14 + 2 * 30);
    EXPECT_EQ(withGirth({0, 0, 0, 0, 2, 2, {}}, 30, Fuller::Both, "").error().code, "zero_inside");
}

TEST(StringGirth, TellsTheWidthOfAKnownHeight) {
    const Station s{10, 13, 17, 11.3, 2.2, 2.2, {}};
    EXPECT_NEAR(test::need(halfWidthForGirth(s, girthOf_mm(s), "")), 11.3, 1e-6);
    EXPECT_EQ(halfWidthForGirth(s, 20, "x").error().code, "girth_impossible");
}

TEST(Sections, AreasAgreeWithTheGammaFunction) {
    // A superellipse has the area 4 a b G(1 + 1/n)^2 / G(1 + 2/n); a tube of it that area times its length.
    for (const double n : {1.5, 2.0, 3.0, 5.0}) {
        const double a = 9, b = 7, length = 40;
        const auto at = [&](double x) { return Station{x, b, b, a, n, n, {}}; };
        const Skin tube = test::skinOf({at(0), at(13), at(27), at(length)});
        const double area = 4 * a * b * std::pow(std::tgamma(1 + 1 / n), 2) / std::tgamma(1 + 2 / n);
        EXPECT_NEAR(measureBody(tube).volume_mm3 / (area * length), 1, 1e-5) << n;
    }
}

TEST(FromOutlines, EverySampleComesBack) {
    for (const char* name : test::kSamples) {
        const Skin body = test::sampleSkin(name);
        Outlines o;
        o.side = outlineOf(body, false);
        o.top = outlineOf(body, true);
        o.section = body.loft().stations()[3].section;
        const OutlinedBody made = test::need(bodyFromOutlines(o));
        const Skin skin = test::need(Skin::of(made.table));
        EXPECT_LT(made.miss_mm, 0.03) << name;
        EXPECT_LE(made.table.stations.size(), kMostOutlineStations);
        for (const double share : {0.1, 0.3, 0.5, 0.8}) {
            const double x = share * body.length_mm();
            EXPECT_NEAR(skin.arcAt(x).girth_mm() / body.arcAt(x).girth_mm(), 1, 0.01) << name << " at " << x;
        }
        EXPECT_LT(made.asymmetry_mm, 1e-9);
        ASSERT_EQ(made.warnings.size(), 1u) << made.warnings.front().text();
        EXPECT_EQ(made.warnings.front().code, "sections_assumed");
    }
}

TEST(FromOutlines, StringsGiveTheWidthsOrTheFullness) {
    const Skin body = test::sampleSkin("sedge60");
    Outlines o;
    o.side = outlineOf(body, false);
    o.section = 2.2;
    for (const double x : {10.0, 25.0, 45.0}) o.girths.push_back({x, body.arcAt(x).girth_mm()});
    OutlinedBody made = test::need(bodyFromOutlines(o));
    const Skin skin = test::need(Skin::of(made.table));
    for (const double x : {10.0, 25.0, 45.0})
        EXPECT_NEAR(skin.loft().sectionAt(x).halfWidth_mm, body.loft().sectionAt(x).halfWidth_mm, 0.1);
    for (const Station& s : made.table.stations) {  // only where a string lies the width is told
        if (s.halfWidth_mm == 0) continue;
        EXPECT_EQ((s.assumed & kAssumedWidth) != 0, s.girth_mm == 0) << s.x_mm;
    }
    o.top = outlineOf(body, true);
    o.section = 2;
    made = test::need(bodyFromOutlines(o));
    for (const Station& s : made.table.stations) {
        if (s.girth_mm == 0) continue;
        EXPECT_NEAR(s.section, 2.2, 0.03);
        EXPECT_LT(std::abs(girthResidual_mm(s)), 0.05);
    }
    o.girths = {{25, 300}};
    EXPECT_EQ(bodyFromOutlines(o).error().code, "girth_impossible");
    o.girths = {{80, 90}};
    EXPECT_EQ(bodyFromOutlines(o).error().code, "off_body");
    o.girths = {{25, 93}, {25.1, 92}};
    EXPECT_EQ(bodyFromOutlines(o).error().code, "contradiction");
}

/// A flat spindle that ends in a point, its last millimetre thinner than an axis is drawn.
Polyline2 spindle(double high, double tailOff) {
    Polyline2 line;
    for (const double side : {1.0, -1.0})
        for (int i = 0; i <= 200; ++i) {
            const double t = 0.5 * (1 - std::cos(kPi * (side > 0 ? i : 200 - i) / 200));
            line.emplace_back(70 * t, side * high * std::sqrt(t) * (1 - t) / 0.3849 + tailOff * t * t);
        }
    return line;
}

TEST(FromOutlines, AFineTipMayLieBesideTheAxis) {
    Outlines o;
    o.side = spindle(7, 0.06);  // the axis leaves the body in its last half millimetre
    o.top = spindle(3, 0);
    const OutlinedBody made = test::need(bodyFromOutlines(o));
    const Skin skin = test::need(Skin::of(made.table));
    EXPECT_NEAR(skin.length_mm(), 70, 0.05);
    EXPECT_NEAR(skin.loft().sectionAt(30).top_mm, 7 * std::sqrt(3 / 7.0) * (4 / 7.0) / 0.3849 + 0.06 * 9 / 49,
                0.06);
    EXPECT_LT(made.miss_mm, 0.1);
    // Farther in it is no tip: the axis must be drawn again.
    o.side = spindle(7, 3);
    EXPECT_EQ(bodyFromOutlines(o).error().code, "zero_inside");
}

TEST(FromOutlines, NoiseAtATipIsSmoothedNotRefused) {
    // Whatever the noise of an outline, a pointed body comes back, or is refused by what is said of it.
    std::mt19937 random(11);
    std::normal_distribution<double> noise(0, 0.05);
    for (int k = 0; k < 40; ++k) {
        Outlines o;
        o.side = spindle(7, 0);
        o.top = spindle(3, 0);
        for (Polyline2* line : {&o.side, &*o.top})
            for (Vec2& p : *line)
                if (p.x() > 0.5 && p.x() < 69.9) p.y() += noise(random);
        const auto made = bodyFromOutlines(o);
        ASSERT_TRUE(made) << k << ": " << made.error().text();
        EXPECT_LT(made->miss_mm, 0.15) << k;
        EXPECT_TRUE(Skin::of(made->table)) << k;
    }
}

TEST(FromOutlines, WithoutWidthsTheyAreAssumedAndSaid) {
    Outlines o;
    o.side = outlineOf(test::sampleSkin("sedge60"), false);
    const OutlinedBody made = test::need(bodyFromOutlines(o));
    ASSERT_EQ(made.warnings.size(), 1u);
    EXPECT_EQ(made.warnings.front().code, "widths_assumed");
    EXPECT_TRUE(made.table.stations[3].assumed & kAssumedWidth);
    EXPECT_FALSE(made.table.stations[3].assumed & kAssumedTop);
}

/// Two outlines do not tell how full a body is; one string does.
TEST(FromOutlines, WithoutAStringTheSectionsAreAssumedAndSaid) {
    const Skin skin = test::sampleSkin("sedge60");
    Outlines o;
    o.side = outlineOf(skin, false);
    o.top = outlineOf(skin, true);
    const OutlinedBody made = test::need(bodyFromOutlines(o));
    ASSERT_EQ(made.warnings.size(), 1u);
    EXPECT_EQ(made.warnings.front().code, "sections_assumed");
    EXPECT_EQ(made.table.stations[3].assumed, static_cast<unsigned>(kAssumedSection));
    EXPECT_EQ(made.table.stations.front().assumed, 0u);
    o.girths = {{22, 96}};
    const OutlinedBody measured = test::need(bodyFromOutlines(o));
    EXPECT_TRUE(measured.warnings.empty());
    for (const Station& s : measured.table.stations) EXPECT_EQ(s.assumed, 0u);
}

TEST(FromOutlines, OutlinesOfDifferentBodiesAreRefused) {
    Outlines o;
    o.side = outlineOf(test::sampleSkin("sedge60"), false);
    o.top = outlineOf(test::sampleSkin("dock65"), true);
    EXPECT_EQ(bodyFromOutlines(o).error().code, "lengths_differ");
    EXPECT_EQ(bodyFromOutlines({}).error().code, "no_outline");
    o.top.reset();
    for (Vec2& p : o.side) p.y() += 25;  // the axis runs below the body
    EXPECT_EQ(bodyFromOutlines(o).error().code, "zero_inside");
}

TEST(Families, AllMakeBodiesWithTheirLandmarks) {
    ASSERT_EQ(bodyFamilies().size(), 7u);
    for (const BodyFamily& family : bodyFamilies()) {
        for (const double length : {40.0, 90.0, 180.0}) {
            FamilyReadings r;
            r.length_mm = length;
            const FamilyBody body = test::need(bodyOfFamily(family.id, r));
            const Skin skin = test::need(Skin::of(body.table));
            EXPECT_NEAR(skin.length_mm(), length, 0.01);
            EXPECT_TRUE(checkLandmarks(skin, body.landmarks)) << family.id;
            for (const char* name : {"nose", "line_tie", "eye", "gill_plate", "lateral_line", "fish_line",
                                     "belly_hanger", "tail_root"})
                EXPECT_EQ(body.landmarks.count(name), 1u) << family.id << name;
            for (const auto& [name, mark] : body.landmarks) EXPECT_TRUE(mark.assumed);
            for (std::size_t i = 1; i + 1 < body.table.stations.size(); ++i)
                EXPECT_EQ(body.table.stations[i].assumed, static_cast<unsigned>(kAssumedAll));
        }
    }
    EXPECT_TRUE(likelyFamily(0.17, 0.13) == "minnow");
    EXPECT_TRUE(likelyFamily(0.17, 0.17) == "cigar");
    EXPECT_TRUE(likelyFamily(0.5, 0.46) == "round");
    EXPECT_TRUE(likelyFamily(0.46, 0.2) == "flat");
}

TEST(Families, ReadingsAreMetExactlyAndMarkedAsMeasured) {
    FamilyReadings r;
    r.length_mm = 96;
    r.height_mm = 17;
    r.places = {{40, 16.8, 13.2, 47.5}, {70, 12, {}, {}}};
    const FamilyBody body = test::need(bodyOfFamily("minnow", r));
    const auto at = [&](double x) {
        for (const Station& s : body.table.stations)
            if (s.x_mm == x) return s;
        return Station{};
    };
    EXPECT_NEAR(at(40).top_mm + at(40).bottom_mm, 16.8, 1e-9);
    EXPECT_NEAR(2 * at(40).halfWidth_mm, 13.2, 1e-9);
    EXPECT_NEAR(girthOf_mm(at(40)), 47.5, 0.02);
    EXPECT_EQ(at(40).assumed, 0u);
    EXPECT_NEAR(at(70).top_mm + at(70).bottom_mm, 12, 1e-9);
    EXPECT_EQ(at(70).assumed, static_cast<unsigned>(kAssumedWidth | kAssumedSection));
}

TEST(Families, ContradictionsAreNamed) {
    const auto code = [](FamilyReadings r, const char* family = "minnow") {
        return bodyOfFamily(family, r).error().code;
    };
    FamilyReadings r;
    EXPECT_EQ(code(r), "missing");
    r.length_mm = 96;
    EXPECT_EQ(code(r, "shark"), "unknown_family");
    r.height_mm = 15;
    r.places = {{40, 17, {}, {}}};
    EXPECT_EQ(code(r), "contradiction");
    r.places = {{120, 10, {}, {}}};
    EXPECT_EQ(code(r), "contradiction");
    r.places = {{40, 0, {}, {}}};  // zero in the middle
    EXPECT_EQ(code(r), "contradiction");
    r.places = {{40, 12, {}, {}}, {40.1, 13, {}, {}}};
    EXPECT_EQ(code(r), "contradiction");
    r.places = {{40, 12, 10, 90}};
    EXPECT_EQ(code(r), "girth_impossible");
}

TEST(Zones, AreasAgreeWithClosedForms) {
    // On a cylinder skin coordinates are flat.
    const Skin tube = test::cylinder(9, 60);
    EXPECT_NEAR(zoneArea_mm2(tube, {{10, -3}, {40, -3}, {40, 5}, {10, 5}}), 240, 1e-4);
    EXPECT_NEAR(zoneArea_mm2(tube, {{10, 0}, {40, 0}, {25, 6}}), 90, 1e-4);
    // A zone between two planes of a sphere has the area of the cylinder round it (Archimedes): half of it.
    const double r = 12;
    const Skin ball = test::sphere(r);
    std::vector<Vec2> zone;
    for (const bool upper : {true, false}) {
        for (int i = 0; i <= 400; ++i) {
            const double x = upper ? 6 + 12.0 * i / 400 : 18 - 12.0 * i / 400;
            const SectionArc arc = ball.arcAt(x);
            zone.emplace_back(x, upper ? arc.backArc_mm() : -arc.bellyArc_mm());
        }
    }
    EXPECT_NEAR(zoneArea_mm2(ball, zone) / (kPi * r * 12), 1, 2e-4);
}

TEST(Zones, BareSkinIsTakenOffOnBothSides) {
    const Skin tube = test::cylinder(9, 60);
    Zone zone;
    zone.polygon = {{10, -3}, {20, -3}, {20, 3}, {10, 3}};
    EXPECT_NEAR(paintedArea_mm2(tube, 1000, {zone}), 1000 - 2 * 60, 1e-3);
    zone.noPaint = false;
    zone.relief_mm = 0.5;
    EXPECT_EQ(paintedArea_mm2(tube, 1000, {zone}), 1000);
    EXPECT_EQ(reliefAt_mm({zone}, {15, 0}), 0.5);
    EXPECT_EQ(reliefAt_mm({zone}, {25, 0}), 0);
    zone.polygon.back() = {10, 90};
    EXPECT_EQ(checkZones(tube, {zone}).error().where, "blank.zones[0].polygon[3]");
}

TEST(Landmarks, AnEyeLargerThanTheHeadIsRefused) {
    const Skin body = test::sampleSkin("sedge60");
    Landmark eye;
    eye.points = {Vec2(9.5, 4.2)};
    eye.diameter_mm = 6;
    EXPECT_TRUE(checkLandmarks(body, {{"eye", eye}}));
    eye.diameter_mm = 26;
    const Status refused = checkLandmarks(body, {{"eye", eye}});
    ASSERT_FALSE(refused);
    EXPECT_EQ(refused.error().code, "eye_too_large");
    EXPECT_EQ(refused.error().where, "blank.landmarks.eye.diameter_mm");
    eye.points = {Vec2(70, 0)};
    EXPECT_EQ(checkLandmarks(body, {{"eye", eye}}).error().code, "off_body");
}

TEST(Landmarks, PaintMakesSocketsSmaller) {
    Landmark eye;
    eye.diameter_mm = 6.4;
    EXPECT_EQ(stockEyeFor(eye), 6.0);
    eye.buildUp_mm = 0.15;
    EXPECT_EQ(stockEyeFor(eye), 5.0);
    eye.diameter_mm = 2;
    EXPECT_FALSE(stockEyeFor(eye));
    EXPECT_FALSE(pupilDirection(eye));
    eye.eyeType = "forward";
    EXPECT_EQ(pupilDirection(eye), 0.0);
}

TEST(Wrap, OfASphereIsEverywhereTheSame) {
    // K = 1 / r^2 everywhere, so a square needs w^2 / (39 r^2), whichever way its curvature is weighed.
    const double r = 20, limit = 0.03;
    const Skin ball = test::sphere(r);
    const WrapField field(ball, makeSkinGrid(ball, 100, 48));
    const std::vector<double> square = field.strains(10, 10), along = field.strains(16, 8),
                              across = field.strains(8, 16);
    const double oblong = 64 / (r * r) / (16 + 23 * std::pow(0.5, 1.5));
    for (int row = 30; row < 70; ++row) {
        for (int column = 0; column < 48; column += 7) {
            EXPECT_NEAR(square[field.index(row, column)], 100 / (39 * r * r), 3e-2 * 100 / (39 * r * r));
            EXPECT_NEAR(along[field.index(row, column)], oblong, 3e-2 * oblong);
            EXPECT_NEAR(across[field.index(row, column)], oblong, 3e-2 * oblong);
        }
    }
    EXPECT_GT(wrapMap(field, limit, 10, 10).share, 0.85);
    EXPECT_LT(wrapMap(field, limit, 60, 60).share, 0.05);
    // Nothing is hard on a cylinder; a strip is never wider than one side of it.
    const Skin tube = test::cylinder(9, 60);
    const WrapField easy(tube, makeSkinGrid(tube, 60, 48));
    EXPECT_GT(wrapMap(easy, 0.003, 40, 20).share, 0.99);
    for (const WrapWidth& at : wrapWidths(easy, 0.003)) {
        EXPECT_TRUE(at.whole);
        EXPECT_NEAR(at.width_mm, kPi * 9, 0.05);
    }
}

TEST(Wrap, WidestStripsNeedJustWhatTheSheetTakes) {
    const Skin body = test::sampleSkin("sedge60");
    const WrapField field(body, makeSkinGrid(body, 100, 48));
    int narrower = 0;
    for (const WrapWidth& at : wrapWidths(field, 0.003)) {
        const double half = 0.5 * body.arcAt(at.x_mm).girth_mm();
        EXPECT_LE(at.width_mm, 1.01 * half) << at.x_mm;
        if (at.whole) continue;
        ++narrower;
        const std::vector<double> strain = field.strains(kStripLength_mm, at.width_mm);
        int row = 0;
        while (field.x_mm(row) < at.x_mm - 1e-9) ++row;
        EXPECT_NEAR(strain[field.index(row, 0)], 0.003, 2e-4) << at.x_mm;
    }
    EXPECT_GT(narrower, 60);
}

TEST(Compare, FindsWhatWasChanged) {
    const Skin body = test::sampleSkin("sedge60");
    const BlankDifference same = compareBlanks(body, body);
    EXPECT_EQ(same.outlineWorst_mm, 0);
    EXPECT_EQ(same.area_mm2, 0);
    std::vector<Station> wider = body.loft().stations();
    for (Station& s : wider) s.halfWidth_mm *= 1.1;
    const BlankDifference d = compareBlanks(body, test::skinOf(wider));
    EXPECT_NEAR(d.outlineWorst_mm, 1.38, 0.03);
    EXPECT_EQ(d.length_mm, 0);
    EXPECT_NEAR(d.volume_mm3, 0.1 * measureBody(body).volume_mm3, 5);
    EXPECT_GT(d.girthWorst_mm, 2);
}

}  // namespace
}  // namespace nine
