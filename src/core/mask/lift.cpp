#include "mask/lift.h"

#include <algorithm>
#include <cmath>

namespace nine {

std::vector<double> liftsOf_mm(const PatchMesh& patch) {
    const bool across = patch.turnAcross_rad * patch.across_mm <= patch.turnAlong_rad * patch.along_mm;
    const Eigen::Index run = across ? 1 : 0, other = 1 - run;
    const double turn =
        across ? patch.turnAcross_rad / patch.across_mm : patch.turnAlong_rad / patch.along_mm;
    std::vector<double> lifts;
    lifts.reserve(patch.chart.size());
    const Box2 box = boxAround({patch.chart});
    const double middle = 0.5 * (box.low + box.high)[other];
    for (Vec2 p : patch.chart) {
        p[other] += 1e-9 * (middle - p[other]);  // a hair inside, so that no line runs along a border
        double before = 1e300, after = 1e300;
        for (const std::vector<int>& loop : patch.loops) {
            for (std::size_t i = 0; i < loop.size(); ++i) {
                const Vec2 &a = patch.chart[static_cast<std::size_t>(loop[i])],
                           &b = patch.chart[static_cast<std::size_t>(loop[(i + 1) % loop.size()])];
                const double from = a[other] - p[other], to = b[other] - p[other];
                if ((from > 0) == (to > 0)) continue;
                const double way = a[run] + from / (from - to) * (b[run] - a[run]) - p[run];
                (way < 0 ? before : after) = std::min(way < 0 ? before : after, std::abs(way));
            }
        }
        lifts.push_back(before < 1e300 && after < 1e300 ? 0.5 * turn * before * after : 0);
    }
    return lifts;
}

double bridgedShare(double needed, double limit) {
    constexpr int kSteepness = 8;
    return needed > limit ? 1 - std::pow(limit / needed, kSteepness) : 0;
}

Ratio pressedShare(const LaidOn& laid) {
    // Fitted to the shell solves: film and paper at a fingertip; paper at 1, 10 and 50 kPa.
    constexpr Ratio kByStiffness = 0.45, kByPressure = 0.31;
    constexpr double kFilm_nmm = 0.79;
    if (!(laid.bending_nmm > 0)) return 1;
    return std::pow(laid.bending_nmm / kFilm_nmm, kByStiffness) *
           std::pow(laid.pressure_kpa / kFingerPressure_kpa, -kByPressure);
}

FreeEdge freeEdge(double bending_nmm, double radius_mm, double pressure_kpa) {
    if (!(bending_nmm > 0) || !(radius_mm > 0) || !(pressure_kpa > 0)) return {0, 0};
    constexpr double kMPaOfKPa = 1e-3;
    const double reach = std::sqrt(2 * bending_nmm / (radius_mm * kMPaOfKPa * pressure_kpa));
    return {reach, reach * reach / (4 * radius_mm)};
}

double FreeEdge::gapAt_mm(double fromEdge_mm) const {
    if (!(reach_mm > 0) || fromEdge_mm >= reach_mm) return 0;
    // From where it leaves the body its curvature falls from 1/R to nothing as the square of the way left.
    const double s = 1 - fromEdge_mm / reach_mm, left = 1 - s;
    const double shape = 0.5 * s * s - (std::pow(left, 4) - 1 + 4 * s) / 12;
    return 4 * gap_mm * shape;
}

std::vector<double> bendingLifts_mm(const PatchMesh& whole, const std::vector<Polyline2>& edges,
                                    const LaidOn& laid) {
    std::vector<double> lifts(whole.chart.size(), 0);
    if (!(laid.bending_nmm > 0)) return lifts;
    const double along = whole.turnAlong_rad / whole.along_mm,
                 across = whole.turnAcross_rad / whole.across_mm;
    // Nobody looks farther than the widest reach there can be.
    const double flattest = 1 / std::max({along, across, 1e-6});
    const double farthest = freeEdge(laid.bending_nmm, std::max(flattest, 1.0), laid.pressure_kpa).reach_mm;
    struct Piece {
        Vec2 from, way;
        double length2;
    };
    std::vector<Piece> pieces;
    for (const Polyline2& edge : edges)
        for (std::size_t i = 0; i < edge.size(); ++i) {
            const Vec2 way = edge[(i + 1) % edge.size()] - edge[i];
            if (way.squaredNorm() > 0) pieces.push_back({edge[i], way, way.squaredNorm()});
        }
    for (std::size_t v = 0; v < lifts.size(); ++v) {
        const Vec2& p = whole.chart[v];
        double nearest = farthest * farthest;
        Vec2 off = Vec2::Zero();
        bool found = false;
        for (const Piece& piece : pieces) {
            const double share = std::clamp((p - piece.from).dot(piece.way) / piece.length2, 0.0, 1.0);
            const Vec2 here = p - (piece.from + share * piece.way);
            if (here.squaredNorm() >= nearest) continue;
            nearest = here.squaredNorm();
            // On the edge itself the edge says which way it faces.
            off = here.norm() > 1e-6 ? here : Vec2(-piece.way.y(), piece.way.x());
            found = true;
        }
        if (!found) continue;
        const Vec2 facing = off.normalized();
        const double turn = along * facing.x() * facing.x() + across * facing.y() * facing.y();
        const FreeEdge edge = freeEdge(laid.bending_nmm, 1 / std::max(turn, 1e-6), laid.pressure_kpa);
        lifts[v] = std::min(edge.gapAt_mm(std::sqrt(nearest)), kMostLift_mm);
    }
    return lifts;
}

}  // namespace nine
