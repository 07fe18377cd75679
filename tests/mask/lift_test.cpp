// How far sheets stand off: closed form of a free edge, figures of shell solves made beforehand by another
// program, and what must grow and fall with what.
#include "mask/lift.h"

#include <gtest/gtest.h>

#include "mask/fit.h"
#include "mask/strip.h"
#include "tests/bodies.h"

namespace nine {
namespace {

using namespace test;

double greatestOf(const std::vector<double>& all) {
    return all.empty() ? 0 : *std::max_element(all.begin(), all.end());
}

/// Film of 0.15 mm, 2.5 GPa, on a radius of 13 mm at 10 kPa: leaves the body 3.5 mm before its edge, 0.24 mm.
TEST(FreeEdge, IsAsTheBeamEquationSays) {
    const double film = findMaterial("film")->bending_nmm();
    EXPECT_NEAR(film, 2500 * std::pow(0.15, 3) / (12 * (1 - 1.0 / 9)), 1e-9);
    const FreeEdge edge = freeEdge(film, 13, 10);
    EXPECT_NEAR(edge.reach_mm, 3.5, 0.05);
    EXPECT_NEAR(edge.gap_mm, 0.24, 0.01);
    // The same by integrating the beam step by step from where it leaves the body: M = p a^2 / 2 at a from
    // the free end.
    const int steps = 20000;
    const double h = edge.reach_mm / steps;
    double slope = 0, gap = 0;
    for (int i = 0; i < steps; ++i) {
        const double left = edge.reach_mm - (i + 0.5) * h;
        const double curvature = 0.01 * left * left / 2 / film;
        slope += h * (1.0 / 13 - curvature);
        gap += h * slope;
        if (i != steps / 3) continue;
        EXPECT_NEAR(edge.gapAt_mm(left), gap, 0.01 * edge.gap_mm);
    }
    EXPECT_NEAR(edge.gap_mm, gap, 0.01 * gap);
    EXPECT_NEAR(edge.gapAt_mm(0), edge.gap_mm, 1e-12);
    EXPECT_EQ(edge.gapAt_mm(edge.reach_mm + 0.1), 0);
    EXPECT_EQ(freeEdge(0, 13, 10).gap_mm, 0);
}

/// On a cylinder a sheet lies by its strain alone; its edges along the body stand off, those across do not.
TEST(Lift, AStiffSheetStandsOffByBendingAlone) {
    const Skin tube = cylinder(13, 80);
    const FlatPatch flat = need(flattenPatch(need(meshPatch(tube, BandPatch{20, 60, -14, 14}, 1500, ""))));
    const SheetMaterial film = *findMaterial("film"), tape = *findMaterial("tape");
    const FitReport report =
        need(judgeFit(tube, flat, LaidOn(film.strainLimit, film.bending_nmm()), Laying::Loose));
    EXPECT_TRUE(report.liesFlat);
    EXPECT_EQ(report.lift_mm, 0);
    const FreeEdge edge = freeEdge(film.bending_nmm(), 13, 10);
    EXPECT_NEAR(report.bend_mm, edge.gap_mm, 0.1 * edge.gap_mm);
    ASSERT_EQ(report.lifts_mm.size(), flat.patch.skin.size());
    for (std::size_t v = 0; v < report.lifts_mm.size(); ++v) {
        const Vec2& p = flat.patch.skin[v];
        const double side = 14 - std::abs(p.y()), end = std::min(p.x() - 20, 60 - p.x());
        if (end <= side + 0.1) continue;
        EXPECT_NEAR(report.lifts_mm[v], edge.gapAt_mm(side), 0.02) << p.transpose();
    }
    // What sticks stays down; pressed harder the film does too, a little.
    EXPECT_EQ(need(judgeFit(tube, flat, LaidOn(0.03, tape.bending_nmm()), Laying::Loose)).bend_mm, 0);
    const auto pressed = [&](double kpa) {
        return need(judgeFit(tube, flat, LaidOn(0.005, film.bending_nmm(), kpa), Laying::Loose)).bend_mm;
    };
    EXPECT_GT(pressed(1), 2 * pressed(10));
    EXPECT_LT(pressed(50), 0.5 * pressed(10));
}

/// Largest gap, mm, by a discrete shell (membrane and bending, 10 kPa, about 200 nodes): within a factor 1.5.
TEST(Lift, IsWithinHalfAsMuchAgainOfFiveShellSolves) {
    struct Solved {
        const char* blank;
        const char* material;
        BandPatch patch;
        double gap_mm;
    };
    for (const Solved& s : {Solved{"sedge60", "film", {18, 32, -7, 7}, 0.66},
                            {"sedge60", "film", {15, 35, -4, 10}, 1.24},
                            {"sedge60", "paper", {14, 44, -8, 10}, 1.36},
                            {"sorrel70", "film", {14, 46, -14, 13}, 1.41},
                            {"reed118", "paper", {30, 70, -7, 7}, 0.36}}) {
        const Skin skin = sampleSkin(s.blank);
        const SheetMaterial material = *findMaterial(s.material);
        const FlatPatch flat = need(flattenPatch(need(meshPatch(skin, s.patch, 900, ""))));
        const FitReport report =
            need(judgeFit(skin, flat, LaidOn(material.strainLimit, material.bending_nmm()), Laying::Loose));
        RecordProperty(s.blank, std::to_string(report.standsOff_mm()));
        EXPECT_GT(report.standsOff_mm(), s.gap_mm / 1.5) << s.blank << " " << s.material << " " << s.gap_mm;
        EXPECT_LT(report.standsOff_mm(), s.gap_mm * 1.5) << s.blank << " " << s.material << " " << s.gap_mm;
    }
}

/// Paper of 34 x 14 mm on an ellipsoid: 1.5, 0.75 and 0.44 mm at 1, 10 and 50 kPa; here its fall alone.
TEST(Lift, FallsWithPressureAsAShellDoes) {
    const double paper = findMaterial("paper")->bending_nmm();
    const auto share = [&](double kpa) { return pressedShare(LaidOn(0.003, paper, kpa)); };
    EXPECT_NEAR(share(1) / share(10), 1.5 / 0.75, 0.15);
    EXPECT_NEAR(share(50) / share(10), 0.44 / 0.75, 0.06);
    EXPECT_LT(share(10), pressedShare(LaidOn(0.003, findMaterial("card")->bending_nmm(), 10)));
}

TEST(Lift, IsNeverMoreThanAnybodyWouldLay) {
    const Skin fat = sampleSkin("sedge60");
    const FlatPatch flat = need(flattenPatch(need(meshPatch(fat, regionOf(fat, sideStrip(fat)), 900, ""))));
    const FitReport report = need(judgeFit(fat, flat, LaidOn(0.003, 0.28, 1), Laying::Loose));
    EXPECT_EQ(report.lift_mm, kMostLift_mm);
    EXPECT_LE(greatestOf(report.lifts_mm), kMostLift_mm);
}

}  // namespace
}  // namespace nine
