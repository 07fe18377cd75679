#include "scale/cells.h"

#include <Eigen/LU>
#include <algorithm>
#include <cmath>

#include "geom/distortion.h"
#include "geom/triangle_finder.h"

namespace nine {
namespace {

using Mat2d = Eigen::Matrix2d;

/// Area of a convex polygon moved in by `by_mm` on all sides, exact while no side vanishes.
double insetArea_mm2(const Polyline2& ring, double by_mm) {
    double area = 0, round = 0, corners = 0;
    const std::size_t n = ring.size();
    for (std::size_t i = 0; i < n; ++i) {
        const Vec2 a = ring[i], b = ring[(i + 1) % n], c = ring[(i + 2) % n];
        area += 0.5 * cross(a, b);
        round += (b - a).norm();
        const double turn = std::atan2(cross(b - a, c - b), (b - a).dot(c - b));
        corners += std::tan(turn / 2);
    }
    return std::max(0.0, std::abs(area) - round * by_mm + std::abs(corners) * by_mm * by_mm);
}

struct GridPlace {
    int row, column;
    Fraction down, across;
};
std::optional<GridPlace> gridPlace(const Skin& skin, const Drape& drape, const Vec2& xg) {
    const HalfGrid& grid = drape.grid;
    if (xg.x() < grid.x_mm.front() || xg.x() > grid.x_mm.back()) return std::nullopt;
    const SectionArc arc = skin.arcAt(xg.x());
    const double half = arc.backArc_mm() + arc.bellyArc_mm();
    const double share =
        (drape.wish.gather == Gather::Belly ? arc.backArc_mm() - xg.y() : xg.y() + arc.bellyArc_mm()) / half;
    if (share < -1e-9 || share > grid.shares.back() + 1e-9) return std::nullopt;
    const auto place = [](const std::vector<double>& in, double value) {
        const auto after = std::upper_bound(in.begin() + 1, in.end() - 1, value);
        const int i = static_cast<int>(after - in.begin()) - 1;
        const double low = in[static_cast<std::size_t>(i)], high = in[static_cast<std::size_t>(i) + 1];
        return std::pair{i, std::clamp((value - low) / (high - low), 0.0, 1.0)};
    };
    const auto [row, down] = place(grid.x_mm, xg.x());
    const auto [column, across] = place(grid.shares, share);
    return GridPlace{row, column, down, across};
}

double lengthShare(const Skin& skin, double x_mm) {
    return (x_mm - skin.noseX_mm()) / skin.length_mm();
}

double percentile(std::vector<double>& sorted, Fraction at) {
    return sorted[static_cast<std::size_t>(std::lround(at * static_cast<double>(sorted.size() - 1)))];
}

void noteTrouble(std::vector<NetTrouble>& troubles, NetTrouble::Kind kind, double strain, double bears,
                 double x) {
    if (!(strain > bears)) return;
    for (NetTrouble& t : troubles)
        if (t.kind == kind) {
            if (strain > t.strain) t = {kind, strain, bears, x};
            return;
        }
    troubles.push_back({kind, strain, bears, x});
}

}  // namespace

Polyline2 cellCorners(const Net& net, const Mat2d& stretch) {
    const NetLaw law(net);
    const Vec2 q1 = stretch * law.first(), q2 = stretch * law.second();
    if (net.weave != Weave::Hexagon) return {Vec2::Zero(), q1, q1 + q2, q2};
    const Vec2 w = law.innerAt(q1, q2), a = q1 - w, b = q2 - w;
    Polyline2 ring{Vec2::Zero()};
    for (const Vec2& side : {w, a, Vec2(-b), Vec2(-w), Vec2(-a)}) ring.push_back(ring.back() + side);
    return ring;
}

Fraction openShare(const Net& net, const Mat2d& stretch) {
    const NetLaw law(net);
    return std::min(1.0, insetArea_mm2(cellCorners(net, stretch), net.strand_mm / 2) /
                             std::abs(law.cell_mm2() * stretch.determinant()));
}

CellLie cellAt(const Net& net, const Mat2d& F) {
    const NetLaw law(net);
    CellLie cell{};
    cell.aspect = F.col(1).norm() / F.col(0).norm();
    cell.area = F.determinant();
    const SignedSvd svd = signedSvd(F);
    const double size = std::sqrt(net.along_mm * net.across_mm);
    cell.long_mm = svd.s1 * size;
    cell.short_mm = svd.s2 * size;
    cell.direction_deg = radToDeg(std::atan2(svd.U(1, 0), svd.U(0, 0)));
    cell.open = openShare(net, F);
    cell.strain = law.worstStrain<2>(F * law.first(), F * law.second());
    return cell;
}

NetReading readNet(const Skin& skin, const Drape& drape, const std::vector<Vec2>& lateral) {
    // In one piece: one reading after the other.
    NetReading reading;
    const Net& net = drape.wish.net;
    const HalfGrid& grid = drape.grid;
    std::vector<double> aspects, areas, openings;
    noteTrouble(reading.troubles, NetTrouble::Kind::Tears, drape.wish.pull_n_m, net.tear_n_m,
                skin.tailX_mm());
    for (const Triangle& t : grid.triangles) {
        double x = 0;
        for (const int v : t) x += grid.points[static_cast<std::size_t>(v)].position.x() / 3;
        const double share = lengthShare(skin, x);
        if (share < 0.06 || share > 0.94) continue;
        const Mat2d F = stretchOf(drape, t);
        const CellLie cell = cellAt(net, F);
        aspects.push_back(cell.aspect);
        areas.push_back(cell.area);
        openings.push_back(cell.open);
        noteTrouble(reading.troubles, NetTrouble::Kind::Overstretched, F.col(0).norm() - 1, net.stretchAlong,
                    x);
        noteTrouble(reading.troubles, NetTrouble::Kind::Overstretched, F.col(1).norm() - 1, net.stretchAcross,
                    x);
        const double angle = F.col(0).dot(F.col(1)) / (F.col(0).norm() * F.col(1).norm());
        noteTrouble(reading.troubles, NetTrouble::Kind::Slips,
                    std::abs(std::asin(std::clamp(angle, -1.0, 1.0))), net.shear, x);
    }
    if (aspects.empty()) {  // a piece that is all within the ends
        const CellLie cell = cellAt(net, stretchOf(drape, grid.triangles[grid.triangles.size() / 2]));
        aspects = {cell.aspect};
        areas = {cell.area};
        openings = {cell.open};
    }
    const auto range = [](std::vector<double>& values, double& low, double& high) {
        std::sort(values.begin(), values.end());
        low = percentile(values, 0.01);
        high = percentile(values, 0.99);
    };
    range(aspects, reading.aspect_min, reading.aspect_max);
    range(areas, reading.area_min, reading.area_max);
    range(openings, reading.opening_min, reading.opening_max);

    double low = 1e9, high = -1e9, widest = 0;
    for (const Vec2& uv : drape.net_mm) {
        low = std::min(low, uv.x());
        high = std::max(high, uv.x());
        widest = std::max(widest, uv.y());
    }
    reading.piece_mm = {high - low + 2 * kHeldAtEnds_mm, 2 * (widest + kHeldAtBorder_mm)};
    for (int r = 1; r < grid.rows; ++r) {
        const auto a = static_cast<std::size_t>(grid.at(r - 1, grid.columns - 1)),
                   b = static_cast<std::size_t>(grid.at(r, grid.columns - 1));
        const double arc = arcLength_mm(grid.points[a], grid.points[b]);
        reading.line_mm += arc;
        reading.surplus_mm += (drape.net_mm[b] - drape.net_mm[a]).norm() - arc;
    }

    // Along the lateral line in steps, on the net.
    std::vector<Vec2> line = lateral;
    if (line.size() < 2) line = {{grid.x_mm.front(), 0}, {grid.x_mm.back(), 0}};
    std::optional<Vec2> before;
    for (std::size_t i = 0; i + 1 < line.size(); ++i)
        for (int k = 0; k <= 200; ++k) {
            const std::optional<Vec2> here =
                netAt(skin, drape, line[i] + (line[i + 1] - line[i]) * (k / 200.0));
            if (here && before)
                reading.cellsAlongLateral += std::hypot((here->x() - before->x()) / net.along_mm,
                                                        (here->y() - before->y()) / net.across_mm);
            before = here;
        }
    return reading;
}

std::optional<Vec2> netAt(const Skin& skin, const Drape& drape, const Vec2& xg) {
    const auto place = gridPlace(skin, drape, xg);
    if (!place) return std::nullopt;
    const auto value = [&](int i, int j) {
        return drape.net_mm[static_cast<std::size_t>(drape.grid.at(place->row + i, place->column + j))];
    };
    return (1 - place->down) * ((1 - place->across) * value(0, 0) + place->across * value(0, 1)) +
           place->down * ((1 - place->across) * value(1, 0) + place->across * value(1, 1));
}

std::optional<Mat2d> stretchAt(const Skin& skin, const Drape& drape, const Vec2& xg) {
    const auto place = gridPlace(skin, drape, xg);
    if (!place) return std::nullopt;
    // The two triangles of the cell, in the order makeHalfGrid puts them.
    const std::size_t cell =
        2 * static_cast<std::size_t>(place->row * (drape.grid.columns - 1) + place->column);
    return 0.5 *
           (stretchOf(drape, drape.grid.triangles[cell]) + stretchOf(drape, drape.grid.triangles[cell + 1]));
}

Strands strandsOf(const Drape& drape, const NetShift& shift, std::size_t most, const Task& task) {
    // In one piece: nodes of the lattice row by row, each with the threads that begin there.
    const Net& net = drape.wish.net;
    const NetLaw law(net);
    const TriangleFinder finder(drape.net_mm, drape.grid.triangles);
    Vec2 low(1e9, 1e9), high(-1e9, -1e9);
    for (const Vec2& p : drape.net_mm) {
        low = low.cwiseMin(p);
        high = high.cwiseMax(p);
    }
    const Mat2d turn = Eigen::Rotation2Dd(degToRad(shift.angle_deg)).toRotationMatrix();
    const Vec2 middle = 0.5 * (low + high) + Vec2(shift.along_mm, shift.across_mm);
    const Vec2 a = turn * law.first(), b = turn * law.second();
    std::vector<Vec2> skinOf;  // of vertices
    for (std::size_t i = 0; i < drape.grid.size(); ++i)
        skinOf.emplace_back(drape.grid.x_mm[i / static_cast<std::size_t>(drape.grid.columns)],
                            drape.grid.g_mm[i]);
    struct Found {
        Vec2 xg;
        std::size_t triangle;
    };
    const auto find = [&](const Vec2& uv) -> std::optional<Found> {
        const auto place = finder.find(uv, 0.02);
        if (!place) return std::nullopt;
        Vec2 xg = Vec2::Zero();
        for (Eigen::Index k = 0; k < 3; ++k)
            xg += place->share[k] * skinOf[static_cast<std::size_t>(
                                        drape.grid.triangles[place->triangle][static_cast<std::size_t>(k)])];
        return Found{xg, place->triangle};
    };
    std::vector<float> stretch(drape.grid.triangles.size(), 0);
    std::vector<Vec2> innerOf(drape.grid.triangles.size());
    const auto know = [&](std::size_t t) {
        if (stretch[t] > 0) return;
        const Mat2d F = stretchOf(drape, drape.grid.triangles[t]);
        const SignedSvd svd = signedSvd(F);
        stretch[t] = static_cast<float>(svd.s1 / std::max(svd.s2, 1e-3));
        innerOf[t] = F.inverse() * law.innerAt(F * a, F * b);
    };
    Strands strands;
    const double reach = (high - low).norm();
    // Rows and columns of the lattice that can touch the net: it is convex enough for its box.
    const int count = static_cast<int>(std::ceil(reach / std::min(a.norm(), b.norm()))) + 2;
    const double perNode = net.weave == Weave::Hexagon ? 3 : 2;
    const double expected = perNode * (high - low).prod() / law.cell_mm2();
    const int every = std::max(1, static_cast<int>(std::ceil(expected / static_cast<double>(most))));
    strands.thinned = every > 1;
    const auto add = [&](const Found& from, const Vec2& fromNet, const Vec2& toNet) {
        const auto to = find(toNet), between = find(0.5 * (fromNet + toNet));
        if (to && between)
            strands.all.push_back({{from.xg, between->xg, to->xg}, stretch[between->triangle]});
        if (to && between) know(between->triangle), strands.all.back().stretch = stretch[between->triangle];
    };
    for (int i = -count; i <= count; ++i) {
        if (task.cancelled()) break;
        if (every > 1 && i % every) continue;
        for (int j = -count; j <= count; ++j) {
            const Vec2 node = middle + i * a + j * b;
            if ((node.array() < low.array() - reach * 0.1).any() ||
                (node.array() > high.array() + reach * 0.1).any())
                continue;
            if (net.weave != Weave::Hexagon) {
                const auto from = find(node);
                if (!from) continue;
                add(*from, node, node + a);
                add(*from, node, node + b);
                continue;
            }
            const auto at = find(node + (a + b) / 3);
            if (!at) continue;
            know(at->triangle);
            const Vec2 inner = node + innerOf[at->triangle];
            const auto from = find(inner);
            if (!from) continue;
            add(*from, inner, node);
            add(*from, inner, node + a);
            add(*from, inner, node + b);
        }
    }
    return strands;
}

}  // namespace nine
