#include "scale/half_grid.h"

#include <algorithm>
#include <cmath>

namespace nine {
namespace {

/// Points of the line where the net is whole, close enough to add up arcs.
SurfacePoint wholeLineAt(const Skin& skin, Gather gather, double x_mm) {
    const SectionArc arc = skin.arcAt(x_mm);
    return skin.at(arc, x_mm, gather == Gather::Belly ? arc.backArc_mm() : -arc.bellyArc_mm(), Side::Left);
}

double shareOfGirth_mm(const SectionArc& arc, Gather gather, Fraction share) {
    const double half = arc.backArc_mm() + arc.bellyArc_mm();
    return gather == Gather::Belly ? arc.backArc_mm() - share * half : -arc.bellyArc_mm() + share * half;
}

}  // namespace

double girthAtShare_mm(const Skin& skin, Gather gather, double x_mm, Fraction share) {
    return shareOfGirth_mm(skin.arcAt(x_mm), gather, share);
}

std::vector<double> evenRows(const Skin& skin, Gather gather, const NetReach& reach, double spacing_mm) {
    const double margin = kEndsLeftOut * skin.length_mm();
    double low = skin.noseX_mm() + margin, high = skin.tailX_mm() - margin;
    if (!reach.whole()) {
        low = std::max(low, reach.fromX_mm);
        high = std::min(high, reach.toX_mm);
    }
    constexpr int kSteps = 400;
    std::vector<double> xs, arc{0};
    SurfacePoint before = wholeLineAt(skin, gather, low);
    xs.push_back(low);
    for (int i = 1; i <= kSteps; ++i) {
        // Closer towards the ends, where the line is steep.
        const double t = 0.5 - 0.5 * std::cos(kPi * i / kSteps);
        xs.push_back(low + t * (high - low));
        const SurfacePoint here = wholeLineAt(skin, gather, xs.back());
        arc.push_back(arc.back() + arcLength_mm(before, here));
        before = here;
    }
    const int rows = std::max(5, static_cast<int>(std::ceil(arc.back() / spacing_mm)) + 1);
    std::vector<double> even;
    for (int r = 0; r < rows; ++r) {
        const double s = arc.back() * r / (rows - 1);
        const auto after = std::lower_bound(arc.begin(), arc.end(), s);
        const std::size_t i = std::clamp<std::ptrdiff_t>(after - arc.begin(), 1, kSteps);
        const double t = std::clamp((s - arc[i - 1]) / std::max(arc[i] - arc[i - 1], 1e-12), 0.0, 1.0);
        even.push_back(xs[i - 1] + t * (xs[i] - xs[i - 1]));
    }
    return even;
}

HalfGrid makeHalfGrid(const Skin& skin, Gather gather, std::vector<double> x_mm, std::vector<double> shares) {
    HalfGrid grid;
    grid.rows = static_cast<int>(x_mm.size());
    grid.columns = static_cast<int>(shares.size());
    grid.x_mm = std::move(x_mm);
    grid.shares = std::move(shares);
    for (const double x : grid.x_mm) {
        const SectionArc arc = skin.arcAt(x);
        for (const double share : grid.shares) {
            const double g = shareOfGirth_mm(arc, gather, share);
            grid.g_mm.push_back(g);
            grid.points.push_back(skin.at(arc, x, g, Side::Left));
        }
        const std::size_t r = grid.along_mm.size();
        const auto first = [&](std::size_t row) {
            return grid.points[row * static_cast<std::size_t>(grid.columns)];
        };
        grid.along_mm.push_back(r ? grid.along_mm.back() + arcLength_mm(first(r - 1), first(r)) : 0);
    }
    for (int r = 0; r + 1 < grid.rows; ++r) {
        for (int c = 0; c + 1 < grid.columns; ++c) {
            const int a = grid.at(r, c), b = grid.at(r + 1, c), d = grid.at(r + 1, c + 1),
                      e = grid.at(r, c + 1);
            // Diagonals turn about from cell to cell, or the net would be stiffer one way than the other.
            if ((r + c) % 2) {
                grid.triangles.push_back({a, b, d});
                grid.triangles.push_back({a, d, e});
            } else {
                grid.triangles.push_back({a, b, e});
                grid.triangles.push_back({b, d, e});
            }
        }
    }
    return grid;
}

std::vector<Vec2> carried(const HalfGrid& from, const std::vector<Vec2>& values, const HalfGrid& to) {
    const auto place = [](const std::vector<double>& in, double value) {
        const auto after = std::upper_bound(in.begin() + 1, in.end() - 1, value);
        const int i = static_cast<int>(after - in.begin()) - 1;
        const double low = in[static_cast<std::size_t>(i)], high = in[static_cast<std::size_t>(i) + 1];
        return std::pair{i, std::clamp((value - low) / (high - low), -1.0, 2.0)};
    };
    std::vector<Vec2> all;
    for (int r = 0; r < to.rows; ++r) {
        const auto [row, down] = place(from.along_mm, to.along_mm[static_cast<std::size_t>(r)]);
        for (int c = 0; c < to.columns; ++c) {
            const auto [column, across] = place(from.shares, to.shares[static_cast<std::size_t>(c)]);
            const auto value = [&](int i, int j) { return values[static_cast<std::size_t>(from.at(i, j))]; };
            all.push_back((1 - down) * ((1 - across) * value(row, column) + across * value(row, column + 1)) +
                          down *
                              ((1 - across) * value(row + 1, column) + across * value(row + 1, column + 1)));
        }
    }
    return all;
}

Eigen::Matrix2d laidEdges(const HalfGrid& grid, const Triangle& t, bool chord) {
    const auto point = [&](int i) {
        return grid.points[static_cast<std::size_t>(t[static_cast<std::size_t>(i)])];
    };
    const auto length = [&](int i, int j) {
        return chord ? (point(i).position - point(j).position).norm() : arcLength_mm(point(i), point(j));
    };
    const double a = length(0, 1), b = length(0, 2), c = length(1, 2);
    const double x = (a * a + b * b - c * c) / (2 * a);
    Eigen::Matrix2d edges;
    edges << a, x, 0, std::sqrt(std::max(b * b - x * x, 1e-12 * b * b));
    return edges;
}

}  // namespace nine
