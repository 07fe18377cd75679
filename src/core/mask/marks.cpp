#include "mask/marks.h"

#include <algorithm>
#include <cmath>

#include "mask/sticking.h"

namespace nine {
namespace {

constexpr double kClear_mm = 2.6;  // of a window: the arms of a cross are 2 mm
constexpr double kAlong_mm = 6;    // marks stand in the first and last stretch of a sheet, or a third of it
constexpr int kColumns = 5, kRows = 7;  // of places tried in each
constexpr Ratio kFarFromFelt = 0.0005;  // a mark a mm further from what it is measured from: a judgement
constexpr double kWorthMoving_mm = 0.01;

/// Whether a cross stands free there.
bool stands(const Region& region, const PolygonSet& inset, const std::vector<const ElementArt*>& opens,
            const Vec2& at) {
    bool inside = false;
    for (const Polygon2& ring : inset)
        if (contains(ring, at)) inside = !inside;
    if (!inside) return false;
    for (const Polygon2& hole : region.holes)
        if (contains(hole, at)) return false;
    for (const ElementArt* art : opens)
        for (const Outline& outline : art->outlines()) {
            if (!outline.hole && contains(outline.skin, at)) return false;
            for (const Vec2& p : outline.skin)
                if ((p - at).norm() < kClear_mm) return false;
        }
    return true;
}

struct Candidate {
    SkinPlace at;
    double felt_mm;  ///< to what it is measured from; 0 where there is nothing
};

}  // namespace

std::optional<FeltNear> feltNear(const Skin& skin, const Landmarks& landmarks, const SkinPlace& at) {
    const Vec3 place = skin.at({Side::Left, at.x(), at.y()}).position;
    std::optional<FeltNear> nearest;
    for (const auto& [name, landmark] : landmarks) {
        const LandmarkKind* kind = landmarkKind(name);
        // Of the painter's own ones points are things on the body, curves mostly are not.
        if (kind ? !kind->felt : landmark.isCurve()) continue;
        const Vec2 candidate = referencePoint(landmark, at.y());
        const SkinPoint point{Side::Left, candidate.x(), candidate.y()};
        if (!skin.check(point, "")) continue;
        const double straight = (skin.at(point).position - place).norm();
        if (!nearest || straight < nearest->distance_mm) nearest = FeltNear{name, candidate, straight};
    }
    return nearest;
}

SheetPlan withBestMarks(const Skin& skin, const Landmarks& landmarks, SheetPlan plan) {
    if (plan.marks.size() < 2 || plan.marksOnLine) return plan;
    std::vector<Vec2> places;
    for (const ElementArt* art : plan.opens)
        for (const Outline& outline : art->outlines())
            places.insert(places.end(), outline.skin.begin(), outline.skin.end());
    if (places.empty()) return plan;
    const Box2 box = boxAround({plan.region.outer}), windows = boxAround({places});
    places = {windows.low, windows.high, Vec2(windows.low.x(), windows.high.y()),
              Vec2(windows.high.x(), windows.low.y())};
    const PolygonSet inset = offset({plan.region.outer}, 0.05 - kMarkInset_mm);
    // The marks there are were inset along the skin, which in x, g is less where the body is steep.
    const PolygonSet within = offset({plan.region.outer}, -0.5 * kMarkInset_mm);
    const double stretch = std::min(kAlong_mm, box.size().x() / 3);
    const auto candidate = [&](const SkinPlace& at) {
        const std::optional<FeltNear> felt = feltNear(skin, landmarks, at);
        return Candidate{at, felt ? felt->distance_mm : 0};
    };
    const auto candidates = [&](const SkinPlace& now, double from, double to) {
        std::vector<Candidate> all;
        const auto add = [&](const Vec2& at) {
            if (stands(plan.region, inset, plan.opens, at)) all.push_back(candidate(SkinPlace(at)));
        };
        if (stands(plan.region, within, plan.opens, now)) all.push_back(candidate(now));
        for (int c = 0; c < kColumns; ++c)
            for (int r = 0; r < kRows; ++r)
                add(Vec2(from + (to - from) * c / (kColumns - 1),
                         box.low.y() + box.size().y() * (r + 0.5) / kRows));
        for (const auto& [name, landmark] : landmarks) {
            const LandmarkKind* kind = landmarkKind(name);
            if (kind ? !kind->felt : landmark.isCurve()) continue;
            const Vec2 at = referencePoint(landmark, now.y());
            if (at.x() >= std::min(from, to) && at.x() <= std::max(from, to)) add(at);
        }
        return all;
    };
    const auto costOf = [&](const Candidate& a, const Candidate& b) {
        const Vec2 way = b.at - a.at;
        if (way.x() < 1 || std::abs(way.y()) > kMarkSlope * way.x()) return 1e300;
        return handError_mm({a.at, b.at}, places) + 0.5 * kFarFromFelt * (a.felt_mm + b.felt_mm);
    };
    const SkinPlace first = plan.marks.front(), last = plan.marks.back();
    const bool bothStand =
        stands(plan.region, inset, plan.opens, first) && stands(plan.region, inset, plan.opens, last);
    double best = bothStand ? costOf(candidate(first), candidate(last)) - kWorthMoving_mm : 1e300;
    const auto noses = candidates(first, box.low.x() + kMarkInset_mm, box.low.x() + stretch),
               tails = candidates(last, box.high.x() - kMarkInset_mm, box.high.x() - stretch);
    for (const Candidate& a : noses)
        for (const Candidate& b : tails) {
            const double cost = costOf(a, b);
            if (cost >= best) continue;
            best = cost;
            plan.marks.front() = a.at;
            plan.marks.back() = b.at;
        }
    return plan;
}

}  // namespace nine
