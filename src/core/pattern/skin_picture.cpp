#include "pattern/skin_picture.h"

#include <algorithm>
#include <cmath>

#include "base/parallel.h"

namespace nine {
namespace {

constexpr int kMeshRows = 140, kMeshColumns = 72;

std::uint32_t mixed(std::uint32_t a, std::uint32_t b, double t) {
    std::uint32_t out = 0xFF000000u;
    for (const int shift : {0, 8, 16}) {
        const double from = a >> shift & 255u, to = b >> shift & 255u;
        out |= static_cast<std::uint32_t>(from + t * (to - from) + 0.5) << shift;
    }
    return out;
}

double smooth(double from, double to, double v) {
    const double t = std::clamp((v - from) / (to - from), 0.0, 1.0);
    return t * t * (3 - 2 * t);
}

/// A stretch of one line of the picture under paint, in turns round the body from the left datum line over
/// the back; the right side is the left one's mirror image.
struct Stroke {
    double from, to;
    std::uint32_t colour;
};

/// Where an outline lies over the line x = const: pairs of g, from one edge to the next.
std::vector<double> crossings(const std::vector<Vec2>& polygon, double x) {
    std::vector<double> g;
    for (std::size_t i = 0, j = polygon.size() - 1; i < polygon.size(); j = i++) {
        const Vec2 &a = polygon[i], &b = polygon[j];
        if ((a.x() > x) == (b.x() > x)) continue;
        g.push_back(a.y() + (x - a.x()) / (b.x() - a.x()) * (b.y() - a.y()));
    }
    std::sort(g.begin(), g.end());
    return g;
}

struct Extent {
    double low, high;
};

Extent alongOf(const Outline& outline) {
    Extent extent{1e300, -1e300};
    for (const Vec2& p : outline.skin) extent = {std::min(extent.low, p.x()), std::max(extent.high, p.x())};
    return extent;
}

double interpolated(const std::vector<double>& values, double t) {
    const double at = std::clamp(t, 0.0, 1.0) * static_cast<double>(values.size() - 1);
    const std::size_t k = std::min(static_cast<std::size_t>(at), values.size() - 2);
    return values[k] + (at - static_cast<double>(k)) * (values[k + 1] - values[k]);
}

}  // namespace

SkinPoint DrawnBody::skinAt(const Vec2& texture) const {
    const double x = interpolated(x_mm, texture.y());
    const double up = interpolated(backArc_mm, texture.y()), down = interpolated(bellyArc_mm, texture.y());
    const double quarter = 4 * (texture.x() - std::floor(texture.x()));
    if (quarter < 1) return {Side::Left, x, quarter * up};
    if (quarter < 2) return {Side::Right, x, (2 - quarter) * up};
    if (quarter < 3) return {Side::Right, x, -(quarter - 2) * down};
    return {Side::Left, x, -(4 - quarter) * down};
}

double DrawnBody::rowAt(double x) const {
    const auto above = std::upper_bound(x_mm.begin() + 1, x_mm.end() - 1, x);
    const auto k = static_cast<std::size_t>(above - x_mm.begin());
    const double t = std::clamp((x - x_mm[k - 1]) / (x_mm[k] - x_mm[k - 1]), 0.0, 1.0);
    return (static_cast<double>(k - 1) + t) / static_cast<double>(x_mm.size() - 1);
}

DrawnBody drawBody(const Skin& skin) {
    const SkinGrid grid = makeSkinGrid(skin, kMeshRows, kMeshColumns);
    DrawnBody body;
    body.x_mm = grid.x_mm;
    for (const double x : grid.x_mm) {
        const SectionArc arc = skin.arcAt(x);
        body.backArc_mm.push_back(arc.backArc_mm());
        body.bellyArc_mm.push_back(arc.bellyArc_mm());
    }
    // One column more than the grid, so that the picture closes without a seam.
    const int columns = grid.columns + 1;
    body.rows = grid.rows;
    body.columns = columns;
    body.mesh.points.reserve(static_cast<std::size_t>(grid.rows * columns));
    body.mesh.texture.reserve(body.mesh.points.capacity());
    body.mesh.triangles.reserve(2 * body.mesh.points.capacity());
    for (int r = 0; r < grid.rows; ++r) {
        for (int c = 0; c < columns; ++c) {
            body.mesh.points.push_back(grid.at(r, c));
            body.mesh.texture.emplace_back(static_cast<double>(c) / grid.columns,
                                           static_cast<double>(r) / (grid.rows - 1));
        }
    }
    for (int r = 0; r + 1 < grid.rows; ++r) {
        for (int c = 0; c + 1 < columns; ++c) {
            const int a = r * columns + c, b = a + 1, d = a + columns, e = d + 1;
            body.mesh.triangles.push_back({a, b, e});
            body.mesh.triangles.push_back({a, e, d});
        }
    }
    // Ends that are open get a flat lid, a little darker by its normal.
    for (const bool nose : {true, false}) {
        if (nose ? skin.loft().noseClosed() : skin.loft().tailClosed()) continue;
        const int row = nose ? 0 : grid.rows - 1;
        const int centre = static_cast<int>(body.mesh.points.size());
        const Vec3 outward(nose ? -1 : 1, 0, 0);
        body.mesh.points.push_back({Vec3(grid.x_mm[static_cast<std::size_t>(row)], 0, 0), outward});
        body.mesh.texture.emplace_back(0.0, nose ? 0.0 : 1.0);
        for (int c = 0; c < grid.columns; ++c) {
            const int first = static_cast<int>(body.mesh.points.size());
            for (const int k : {c, c + 1}) {
                body.mesh.points.push_back({grid.at(row, k).position, outward});
                body.mesh.texture.emplace_back(static_cast<double>(k) / grid.columns, nose ? 0.0 : 1.0);
            }
            body.mesh.triangles.push_back({centre, first, first + 1});
        }
    }
    return body;
}

SurfacePoint DrawnBody::near(const Vec2& skin) const {
    const double row = rowAt(skin.x()) * (rows - 1);
    const double up = interpolated(backArc_mm, row / (rows - 1)),
                 down = interpolated(bellyArc_mm, row / (rows - 1));
    const double turn =
        0.25 * (skin.y() >= 0 ? skin.y() / std::max(1e-9, up) : skin.y() / std::max(1e-9, down));
    const double column = (turn - std::floor(turn)) * (columns - 1);
    const int r = std::clamp(static_cast<int>(row), 0, rows - 2),
              c = std::clamp(static_cast<int>(column), 0, columns - 2);
    const double v = std::clamp(row - r, 0.0, 1.0), u = std::clamp(column - c, 0.0, 1.0);
    SurfacePoint at{Vec3::Zero(), Vec3::Zero()};
    for (const auto& [i, j, weight] :
         {std::tuple{0, 0, (1 - v) * (1 - u)}, {0, 1, (1 - v) * u}, {1, 0, v * (1 - u)}, {1, 1, v * u}}) {
        const SurfacePoint& p = mesh.points[static_cast<std::size_t>((r + i) * columns + c + j)];
        at.position += weight * p.position;
        at.normal += weight * p.normal;
    }
    at.normal.normalize();
    return at;
}

Outline carried(Outline outline, const DrawnBody& body, const Vec2& shift) {
    outline.centre += shift;
    for (std::size_t i = 0; i < outline.skin.size(); ++i) {
        outline.skin[i] += shift;
        outline.points[i] = body.near(outline.skin[i]);
    }
    return outline;
}

Image paintSkin(const DrawnBody& body, const Ground& ground, const std::vector<PaintedArt>& art, int columns,
                int rows) {
    const std::size_t width = static_cast<std::size_t>(columns);
    Image image{columns, rows, std::vector<std::uint32_t>(width * static_cast<std::size_t>(rows))};
    // The ground depends on the share of the quarter alone: every line of it is the same.
    std::vector<std::uint32_t> line(width);
    for (std::size_t c = 0; c < width; ++c) {
        const double turn = (static_cast<double>(c) + 0.5) / columns;
        const double share =
            1 - std::abs(4 * (turn - std::floor(2 * turn) / 2) - 1);  // 0 datum, 1 back or belly
        line[c] = turn < 0.5 ? mixed(ground.side, ground.back, smooth(0.25, 0.85, share))
                             : mixed(ground.side, ground.belly, smooth(0.2, 0.7, share));
    }
    std::vector<std::vector<Extent>> extents;
    for (const PaintedArt& painted : art) {
        extents.emplace_back();
        for (const Outline& outline : *painted.outlines) extents.back().push_back(alongOf(outline));
    }
    forEachInParallel(static_cast<std::size_t>(rows), [&](std::size_t row) {
        std::uint32_t* const pixels = image.pixels.data() + row * width;
        std::copy(line.begin(), line.end(), pixels);
        const double v = static_cast<double>(row) / (rows - 1);
        const double x = interpolated(body.x_mm, v);
        const double up = std::max(1e-9, interpolated(body.backArc_mm, v));
        const double down = std::max(1e-9, interpolated(body.bellyArc_mm, v));
        const auto turnOf = [&](double g) { return 0.25 * (g >= 0 ? g / up : g / down); };
        const auto fill = [&](const Stroke& stroke) {
            const auto from = static_cast<int>(std::ceil(stroke.from * columns - 0.5));
            const auto to = static_cast<int>(std::floor(stroke.to * columns - 0.5));
            for (int c = from; c <= std::min(to, from + columns - 1); ++c)
                pixels[((c % columns) + columns) % columns] = stroke.colour;
        };
        for (std::size_t a = 0; a < art.size(); ++a) {
            const PaintedArt& painted = art[a];
            for (std::size_t k = 0; k < painted.outlines->size(); ++k) {
                if (x < extents[a][k].low || x > extents[a][k].high) continue;
                const std::vector<double> g = crossings((*painted.outlines)[k].skin, x);
                for (std::size_t i = 0; i + 1 < g.size(); i += 2) {
                    // Art that crosses the back or belly line goes on with g beyond it.
                    const double from = turnOf(g[i]), to = turnOf(g[i + 1]);
                    if (painted.left) fill({from, to, painted.colour});
                    if (painted.right) fill({0.5 - to, 0.5 - from, painted.colour});
                }
            }
        }
    });
    return image;
}

}  // namespace nine
