// Sheets that stick as they go on, and hands.
#include "mask/sticking.h"

#include <gtest/gtest.h>

#include <random>

#include "geom/distortion.h"
#include "tests/bodies.h"

namespace nine {
namespace {

using namespace test;

/// The landing of a flat patch, laid on that way, at places that are no vertices of it.
double landsOff(const Skin& skin, const FlatPatch& flat, Laying laying) {
    return need(judgeFit(skin, flat, 0.05, laying, probeDots(skin, flat.patch.skin))).landing.rms_mm;
}

TEST(Sticking, ThePieceIsChangedUntilItLands) {
    const Skin skin = sampleSkin("sedge60");
    for (const Laying laying : {Laying::FromMidline, Laying::FromTopEdge}) {
        const FlatPatch flat = need(flattenPatch(need(meshPatch(skin, BandPatch{18, 44, -6, 7}, 1200, ""))));
        const double before = landsOff(skin, flat, laying);
        const Compensated now = need(compensated(skin, flat, laying));
        const double after = landsOff(skin, now.flat, laying);
        EXPECT_GT(before, 0.02);
        EXPECT_LT(after, 0.6 * before);
        EXPECT_LE(after, 0.1);
        EXPECT_LE(now.after_mm, now.before_mm);
        // It is still a sheet that follows the body.
        EXPECT_LT(strainWithin(now.flat.patch.mesh, now.flat.rest, now.flat.strains),
                  1.6 * strainWithin(flat.patch.mesh, flat.rest, flat.strains) + 0.01);
    }
}

TEST(Sticking, WhatLandsAlreadyIsLeftAlone) {
    const Skin tube = cylinder(9, 60);
    const FlatPatch flat = need(flattenPatch(need(meshPatch(tube, BandPatch{15, 45, -6, 6}, 800, ""))));
    const Compensated now = need(compensated(tube, flat, Laying::FromMidline));
    EXPECT_LT(now.before_mm, 0.01);
    EXPECT_EQ(now.flat.map, flat.map);
    const Task stopped = Task::make();
    stopped.cancel();
    EXPECT_EQ(compensated(tube, flat, Laying::FromMidline, stopped).error().code, "cancelled");
}

/// Thrown dice: marks off at random, the best rigid motion, the worst place; 19 times in 20.
TEST(Hand, IsOffByWhatThrownDiceSay) {
    std::mt19937 chance(7);
    std::normal_distribution<double> off(0, 0.15);
    const std::vector<std::vector<Vec2>> sheets{{{0, 0}, {30, 0}},
                                                {{0, 0}, {40, 0}, {20, 15}, {20, -15}},
                                                {{0, 0}, {12, 0}, {6, 4}}};
    for (const std::vector<Vec2>& marks : sheets) {
        const std::vector<Vec2> places{{5, 3}, {15, 8}, {25, -6}};
        std::vector<std::vector<double>> errors(places.size());
        for (int throwing = 0; throwing < 4000; ++throwing) {
            std::vector<Vec2> seen;
            for (const Vec2& m : marks) seen.push_back(m + Vec2(off(chance), off(chance)));
            Vec2 a = Vec2::Zero(), b = Vec2::Zero();
            for (std::size_t i = 0; i < marks.size(); ++i) {
                a += marks[i] / static_cast<double>(marks.size());
                b += seen[i] / static_cast<double>(marks.size());
            }
            Eigen::Matrix2d moment = Eigen::Matrix2d::Zero();
            for (std::size_t i = 0; i < marks.size(); ++i) moment += (seen[i] - b) * (marks[i] - a).transpose();
            const Eigen::Matrix2d turn = nearestRotation(moment).R;
            for (std::size_t p = 0; p < places.size(); ++p)
                errors[p].push_back((turn * (places[p] - a) + b - places[p]).norm());
        }
        double worst = 0;
        for (std::vector<double>& e : errors) {
            std::sort(e.begin(), e.end());
            worst = std::max(worst, e[e.size() * 19 / 20]);
        }
        EXPECT_NEAR(handError_mm(marks, places), worst, 0.12 * worst);
    }
    EXPECT_EQ(handError_mm({{0, 0}}, {{1, 1}}), 0);
}

}  // namespace
}  // namespace nine
