#include "image/end_fit.h"

#include <algorithm>
#include <cmath>

namespace nine {
namespace {

constexpr double kNear = 0.015, kFar = 0.12;  // of the length
constexpr double kMostMove = 0.02;
constexpr double kMiss = 0.006;  // of the height
constexpr double kLeastExponent = 0.35, kMostExponent = 1.15;
constexpr int kHeights = 28, kEnds = 80;

/// Highest and lowest crossing of the outline at a place.
std::optional<std::pair<double, double>> across(const Polyline2& line, double x) {
    double low = 1e18, high = -1e18;
    for (std::size_t i = 0; i < line.size(); ++i) {
        const Vec2 &a = line[i], &b = line[(i + 1) % line.size()];
        if ((a.x() - x) * (b.x() - x) > 0 || a.x() == b.x()) continue;
        const double y = a.y() + (b.y() - a.y()) * (x - a.x()) / (b.x() - a.x());
        low = std::min(low, y);
        high = std::max(high, y);
    }
    if (!(high > low)) return std::nullopt;
    return std::pair(low, high);
}

}  // namespace

std::optional<EndFit> fitEnd(const Polyline2& laid, double length, bool tail) {
    // d runs from the end that was found into the body.
    const auto place = [&](double d) { return tail ? length - d : d; };
    std::vector<double> ds, halves, middles;
    for (int i = 0; i < kHeights; ++i) {
        const double d = length * (kNear + (kFar - kNear) * i / (kHeights - 1));
        const auto y = across(laid, place(d));
        if (!y) return std::nullopt;
        ds.push_back(d);
        halves.push_back(0.5 * (y->second - y->first));
        middles.push_back(0.5 * (y->second + y->first));
    }
    EndFit best;
    double least = 1e18, bestMove = 0;
    for (int i = 0; i <= kEnds; ++i) {
        const double move = length * kMostMove * (2.0 * i / kEnds - 1);  // outwards positive
        if (ds.front() + move <= 0.2 * ds.front()) continue;
        double n = 0, sx = 0, sy = 0, sxx = 0, sxy = 0;
        for (std::size_t k = 0; k < ds.size(); ++k) {
            const double u = std::log(ds[k] + move), v = std::log(halves[k]);
            n += 1;
            sx += u;
            sy += v;
            sxx += u * u;
            sxy += u * v;
        }
        const double p = (n * sxy - sx * sy) / (n * sxx - sx * sx), c = (sy - p * sx) / n;
        double miss = 0;
        for (std::size_t k = 0; k < ds.size(); ++k)
            miss += std::pow(std::log(halves[k]) - c - p * std::log(ds[k] + move), 2);
        miss = std::sqrt(miss / n);
        if (miss >= least) continue;
        least = miss;
        bestMove = move;
        best.exponent = p;
        best.factor_mm = std::exp(c);
    }
    if (!(least < kMiss) || best.exponent < kLeastExponent || best.exponent > kMostExponent ||
        std::abs(bestMove) > 0.95 * kMostMove * length)
        return std::nullopt;
    best.x_mm = tail ? length + bestMove : -bestMove;
    best.fromX_mm = place(ds.front());
    // The middle line, straight through the places nearest to the end.
    double n = 0, sx = 0, sy = 0, sxx = 0, sxy = 0;
    for (std::size_t k = 0; k < ds.size() / 2; ++k) {
        const double u = place(ds[k]) - best.x_mm;
        n += 1;
        sx += u;
        sy += middles[k];
        sxx += u * u;
        sxy += u * middles[k];
    }
    best.rise = (n * sxy - sx * sy) / (n * sxx - sx * sx);
    best.middle_mm = (sy - best.rise * sx) / n;
    return best;
}

Polyline2 withEnd(const Polyline2& laid, const EndFit& fit, bool tail) {
    constexpr int kSteps = 24;
    const auto beyond = [&](const Vec2& p) { return tail ? p.x() > fit.fromX_mm : p.x() < fit.fromX_mm; };
    const std::size_t n = laid.size();
    std::size_t first = 0;  // the first point beyond after one that is not
    while (first < n && !(beyond(laid[first]) && !beyond(laid[(first + n - 1) % n]))) ++first;
    if (first == n) return laid;
    Polyline2 out;
    for (std::size_t k = 0; k < n; ++k)
        if (const Vec2& p = laid[(first + k) % n]; !beyond(p)) out.push_back(p);
    if (out.size() < 3) return laid;
    // From the side the outline comes in on, round the end, to the other.
    const Vec2& before = out.back();
    const double reach = std::abs(fit.x_mm - fit.fromX_mm);
    const double side = before.y() > fit.middle_mm + fit.rise * (fit.fromX_mm - fit.x_mm) ? 1 : -1;
    for (int k = 0; k <= 2 * kSteps; ++k) {
        const double t = (k - kSteps) / static_cast<double>(kSteps), d = reach * t * t;
        const double half = fit.factor_mm * std::pow(d, fit.exponent) * (t < 0 ? side : -side);
        const double x = tail ? fit.x_mm - d : fit.x_mm + d;
        out.emplace_back(x, fit.middle_mm + fit.rise * (x - fit.x_mm) + half);
    }
    return out;
}

}  // namespace nine
