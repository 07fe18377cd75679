// What hangs on to a body, on sets drawn by formula.
#include "image/attached.h"

#include <gtest/gtest.h>

#include <cmath>
#include <functional>

namespace nine {
namespace {

constexpr int kAcross = 500, kDown = 300;

PixelSet drawn(const std::function<bool(double, double)>& on) {
    PixelSet set(kAcross, kDown);
    for (int y = 0; y < kDown; ++y)
        for (int x = 0; x < kAcross; ++x) set.set(x, y, on(x + 0.5 - 250, y + 0.5 - 150));
    return set;
}
bool oval(double x, double y) {
    return x * x / (180 * 180) + y * y / (70 * 70) < 1;
}
/// How many pixels differ.
std::size_t differing(const PixelSet& a, const PixelSet& b) {
    std::size_t count = 0;
    for (std::size_t i = 0; i < a.on.size(); ++i) count += a.on[i] != b.on[i];
    return count;
}
bool ring(double x, double y, double cx, double cy) {
    return std::abs(std::hypot(x - cx, y - cy) - 10) < 2;
}
/// From (-120, 52) down to the left, 14 wide, 100 long.
bool bill(double x, double y) {
    const double u = ((x + 120) * -0.8 + (y - 45) * 0.6), v = ((x + 120) * 0.6 + (y - 45) * 0.8);
    return u > 0 && u < 100 && std::abs(v) < 7;
}

TEST(Attached, ThinThingsComeOffAndPointedTailsStay) {
    const PixelSet body = drawn(oval);
    const PixelSet hooked = drawn([](double x, double y) {
        return oval(x, y) || (std::abs(x) < 2.5 && y > 0 && y < 130) || ring(x, y, -190, 0);
    });
    EXPECT_LT(differing(withoutThinThings(hooked, 4), body), 150u);
    const auto spindle = [](double x, double y) {
        return x > -180 && x < 180 && std::abs(y) < 60 * (180 - x) / 360;
    };
    const PixelSet tail = drawn(spindle), kept = withoutThinThings(tail, 4);
    int last = 0;
    for (int x = 0; x < kAcross; ++x)
        for (int y = 0; y < kDown; ++y)
            if (kept.at(x, y)) last = x;
    EXPECT_GT(last, 250 + 180 - 24);  // opening alone ends 48 pixels before the point
}

TEST(Attached, RingsAreNotFilledAndGleamsAre) {
    const PixelSet set = drawn(
        [](double x, double y) { return (oval(x, y) && std::hypot(x - 30, y) > 12) || ring(x, y, -190, 0); });
    const PixelSet full = withHolesFilled(set, 4);
    EXPECT_TRUE(full.at(250 + 30, 150));
    EXPECT_FALSE(full.at(250 - 190, 150));
}

TEST(Attached, BillsComeOffByTheirParallelEdges) {
    const Plane strong(kAcross, kDown, 40.0F);
    const PixelSet body = drawn(oval);
    const PixelSet billed = drawn([](double x, double y) { return oval(x, y) || bill(x, y); });
    ASSERT_GT(differing(billed, body), 900u);
    EXPECT_LT(differing(withoutBills(billed, strong, 20), body), 60u);
    // The narrow part before a tail fin runs along the body in its own colour, and stays; a clear bill that
    // lies there does not.
    const PixelSet finned =
        drawn([](double x, double y) { return oval(x, y) || (x > 100 && x < 230 && std::abs(y) < 7); });
    EXPECT_LT(differing(withoutBills(finned, strong, 20), finned), 10u);
    Plane pale = strong;
    for (int y = 0; y < kDown; ++y)
        for (int x = 250 + 178; x < kAcross; ++x) pale.at(x, y) = 10;
    EXPECT_GT(differing(withoutBills(finned, pale, 20), finned), 500u);
}

TEST(Attached, SlotsAreClosedAndCornersAreLeft) {
    const PixelSet body = drawn(oval);
    const PixelSet slotted =
        drawn([](double x, double y) { return oval(x, y) && !(std::abs(x - 20) < 9 && y > -10); });
    EXPECT_LT(differing(slotsClosed(slotted, 14), body), 80u);
    const auto finned = [](double x, double y) {
        return oval(x, y) || (std::abs(x) < 30 && y < 0 && y > -120);
    };
    const PixelSet fin = drawn(finned);
    EXPECT_LT(differing(slotsClosed(fin, 14), fin), 10u);
    EXPECT_GT(differing(notchesClosed(fin, 14), fin), 30u);  // where closing alone rounds the roots off
}

TEST(Attached, PartsAcrossABarAreJoinedAndADistantOneIsNot) {
    const PixelSet whole = drawn(oval);
    const PixelSet cut = drawn([](double x, double y) { return oval(x, y) && std::abs(x - 60) > 6; });
    EXPECT_LT(differing(joined(partsOf(cut, false), kAcross, kDown, 4), whole), 120u);
    const PixelSet apart =
        drawn([](double x, double y) { return (oval(x, y) && x < 40) || std::hypot(x - 150, y) < 40; });
    const PixelSet left = joined(partsOf(apart, false), kAcross, kDown, 4);
    EXPECT_FALSE(left.at(250 + 150, 150));
}

}  // namespace
}  // namespace nine
