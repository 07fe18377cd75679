#include "pattern/skin_picture.h"

#include <algorithm>
#include <array>
#include <charconv>
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

/// Where a border passes over a line of the picture, and which way.
struct Crossing {
    int line;
    float g;
    int way;
};

/// Of all outlines of a mark, by lines, each from low g to high.
std::vector<Crossing> crossingsOf(const std::vector<Outline>& outlines, const std::vector<double>& x) {
    std::vector<Crossing> all;
    for (const Outline& outline : outlines) {
        const auto& ring = outline.skin;
        for (std::size_t i = 0, j = ring.size() - 1; i < ring.size(); j = i++) {
            const Vec2 &a = ring[j], &b = ring[i];
            if (a.x() == b.x()) continue;
            const auto [low, high] = std::minmax(a.x(), b.x());
            for (auto at = std::upper_bound(x.begin(), x.end(), low); at != x.end() && *at <= high; ++at) {
                const double g = a.y() + (*at - a.x()) / (b.x() - a.x()) * (b.y() - a.y());
                all.push_back(
                    {static_cast<int>(at - x.begin()), static_cast<float>(g), a.x() < b.x() ? 1 : -1});
            }
        }
    }
    std::sort(all.begin(), all.end(), [](const Crossing& a, const Crossing& b) {
        return a.line != b.line ? a.line < b.line : a.g < b.g;
    });
    return all;
}

/// How much of each place of a row is under paint; a stretch from one place to another, in places, may go
/// round.
class Row {
  public:
    explicit Row(int columns) : covered_(static_cast<std::size_t>(columns), 0.f) {}
    void add(double from, double to, float weight) {
        const int n = static_cast<int>(covered_.size());
        to = std::min(to, from + n);
        const auto at = [&](int c) -> float& {
            return covered_[static_cast<std::size_t>(((c % n) + n) % n)];
        };
        const int first = static_cast<int>(std::floor(from)), last = static_cast<int>(std::floor(to));
        if (first == last) {
            at(first) += weight * static_cast<float>(to - from);
        } else {
            at(first) += weight * static_cast<float>(first + 1 - from);
            for (int c = first + 1; c < last; ++c) at(c) += weight;
            at(last) += weight * static_cast<float>(to - last);
        }
        any_ = any_ || to > from;
    }
    void paint(std::uint32_t* pixels, std::uint32_t colour, double strength) {
        if (!any_) return;
        for (std::size_t c = 0; c < covered_.size(); ++c) {
            if (covered_[c] > 0) pixels[c] = mixed(pixels[c], colour, strength * std::min(1.f, covered_[c]));
            covered_[c] = 0;
        }
        any_ = false;
    }

  private:
    std::vector<float> covered_;
    bool any_ = false;
};

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

Vec2 DrawnBody::textureOf(const SkinPoint& skin) const {
    const double v = rowAt(skin.x_mm);
    const double arc = interpolated(skin.g_mm >= 0 ? backArc_mm : bellyArc_mm, v);
    const double quarters = arc > 0 ? std::clamp(skin.g_mm / arc, -1.0, 1.0) : 0;
    const double u = skin.side == Side::Left ? quarters : 2 - quarters;
    return {0.25 * (u < 0 ? u + 4 : u), v};
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

std::uint32_t colourOf(const std::string& text, std::uint32_t fallback) {
    if (text.size() != 7 || text[0] != '#') return fallback;
    std::uint32_t value = 0;
    const auto [end, error] = std::from_chars(text.data() + 1, text.data() + 7, value, 16);
    return error == std::errc() && end == text.data() + 7 ? 0xFF000000u | value : fallback;
}

std::uint32_t colourOf(const Element& element, std::size_t index) {
    static constexpr std::array<std::uint32_t, 5> kChoice{0xFF3C4038, 0xFFB4402E, 0xFFD9CFA6, 0xFF33566B,
                                                          0xFF7A5A2B};
    return colourOf(element.colour, kChoice[index % kChoice.size()]);
}

void addPainted(std::vector<PaintedArt>& painted, const Element& element, std::size_t index,
                const ElementArt& left, const ElementArt* right) {
    const std::uint32_t own = colourOf(element, index);
    const bool central = element.isCentral();
    const bool onLeft = central || element.standsOn(Side::Left);
    const bool onRight = !central && element.standsOn(Side::Right);
    const auto add = [&](const ElementArt& art, bool l, bool r) {
        for (const Pass& pass : art.passes)
            painted.push_back({&pass.outlines, colourOf(pass.colour, own), l, r, pass.strength, &pass.cover});
    };
    if (!right) return add(left, onLeft, onRight);
    add(left, onLeft, false);
    add(*right, false, onRight);
}

Image paintSkin(const DrawnBody& body, const Ground& ground, const std::vector<PaintedArt>& art, int columns,
                int rows, int subRows) {
    // In one piece: borders of all marks sorted by lines, then row by row one mark over the other.
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
    const auto shareOfLine = [&](double at) { return at / std::max(1, rows - 1); };
    std::vector<double> x;
    for (int k = 0; k < rows * subRows; ++k)
        x.push_back(interpolated(body.x_mm, shareOfLine((k + 0.5) / subRows - 0.5)));
    std::vector<std::vector<Crossing>> borders(art.size());
    forEachInParallel(art.size(), [&](std::size_t a) { borders[a] = crossingsOf(*art[a].outlines, x); });
    forEachInParallel(static_cast<std::size_t>(rows), [&](std::size_t row) {
        std::uint32_t* const pixels = image.pixels.data() + row * width;
        std::copy(line.begin(), line.end(), pixels);
        Row covered(columns);
        for (std::size_t a = 0; a < art.size(); ++a) {
            const PaintedArt& painted = art[a];
            for (int k = 0; k < subRows; ++k) {
                const int here = static_cast<int>(row) * subRows + k;
                auto at = std::lower_bound(borders[a].begin(), borders[a].end(), here,
                                           [](const Crossing& c, int v) { return c.line < v; });
                if (at == borders[a].end() || at->line != here) continue;
                const double v = shareOfLine((here + 0.5) / subRows - 0.5);
                const double up = std::max(1e-9, interpolated(body.backArc_mm, v));
                const double down = std::max(1e-9, interpolated(body.bellyArc_mm, v));
                const auto turnOf = [&](double g) {
                    const double quarters = g > 2 * up      ? 2 + (g - 2 * up) / down
                                            : g < -2 * down ? -2 + (g + 2 * down) / up
                                            : g >= 0        ? g / up
                                                            : g / down;
                    return 0.25 * columns * quarters;
                };
                int winding = 0;
                double from = 0;
                for (; at != borders[a].end() && at->line == here; ++at) {
                    if (winding == 0) from = turnOf(at->g);
                    winding += at->way;
                    if (winding != 0) continue;
                    // Art that crosses the back or belly line goes on with g beyond it.
                    const double to = turnOf(at->g);
                    const float weight = 1.f / static_cast<float>(subRows);
                    if (painted.left) covered.add(from, to, weight);
                    if (painted.right) covered.add(0.5 * columns - to, 0.5 * columns - from, weight);
                }
            }
            covered.paint(pixels, painted.colour, painted.strength);
            if (!painted.cover || !*painted.cover) continue;
            const double v = shareOfLine(static_cast<double>(row));
            for (int c = 0; c < columns; ++c) {
                const SkinPoint p = body.skinAt({(c + 0.5) / columns, v});
                if (p.side == Side::Left ? !painted.left : !painted.right) continue;
                const double share = (*painted.cover)(p.x_mm, p.g_mm) * painted.strength;
                if (share > 1e-3) pixels[c] = mixed(pixels[c], painted.colour, std::min(1.0, share));
            }
        }
    });
    return image;
}

}  // namespace nine
