#include "job/net_picture.h"

#include <Eigen/LU>
#include <algorithm>
#include <cmath>

#include "base/parallel.h"

namespace nine {
namespace {

constexpr int kTile = 96;  // a side, of one cell of the lattice

/// One cell of a flat net: where strands are.
class Tile {
  public:
    explicit Tile(const Net& net) : law_(net), open_(kTile * kTile, true) {
        const Vec2 a = law_.first(), b = law_.second(), w = law_.innerAt(a, b);
        lattice_ << a, b;
        inverse_ = lattice_.inverse();
        std::vector<std::pair<Vec2, Vec2>> strands;
        for (int i = -2; i <= 2; ++i)
            for (int j = -2; j <= 2; ++j) {
                const Vec2 node = i * a + j * b;
                if (net.weave == Weave::Hexagon) {
                    for (const Vec2& end : {node, Vec2(node + a), Vec2(node + b)})
                        strands.emplace_back(node + w, end);
                } else {
                    for (const Vec2& end : {Vec2(node + a), Vec2(node + b)}) strands.emplace_back(node, end);
                }
            }
        for (int s = 0; s < kTile; ++s)
            for (int t = 0; t < kTile; ++t) {
                const Vec2 p = lattice_ * Vec2((s + 0.5) / kTile, (t + 0.5) / kTile);
                for (const auto& [from, to] : strands) {
                    const Vec2 along = to - from;
                    const double share = std::clamp((p - from).dot(along) / along.squaredNorm(), 0.0, 1.0);
                    if ((p - from - share * along).norm() < net.strand_mm / 2)
                        open_[static_cast<std::size_t>(s * kTile + t)] = false;
                }
            }
    }
    bool openAt(const Vec2& net_mm) const {
        const Vec2 in = inverse_ * net_mm;
        const auto index = [](double v) {
            return std::min(kTile - 1, static_cast<int>((v - std::floor(v)) * kTile));
        };
        return open_[static_cast<std::size_t>(index(in.x()) * kTile + index(in.y()))];
    }

  private:
    NetLaw law_;
    Eigen::Matrix2d lattice_, inverse_;
    std::vector<bool> open_;
};

std::uint32_t blended(std::uint32_t under, std::uint32_t over, double share) {
    std::uint32_t out = 0xFF000000;
    for (const int shift : {0, 8, 16}) {
        const double a = (under >> shift) & 0xFF, b = (over >> shift) & 0xFF;
        out |= static_cast<std::uint32_t>(std::lround(a + share * (b - a))) << shift;
    }
    return out;
}

}  // namespace

Image netSprayed(const Image& picture, const DrawnBody& body, const Skin& skin, const Drape& drape,
                 bool doubled, const NetShift& second, std::uint32_t colour, Fraction strength) {
    Image image = picture;
    const Tile tile(drape.wish.net);
    const HalfGrid& grid = drape.grid;
    const Eigen::Matrix2d back = Eigen::Rotation2Dd(degToRad(-second.angle_deg)).toRotationMatrix();
    const Vec2 moved(second.along_mm, second.across_mm);
    forEachInParallel(static_cast<std::size_t>(image.height), [&](std::size_t row) {
        const double v = image.height > 1 ? static_cast<double>(row) / (image.height - 1) : 0;
        const double x = body.skinAt({0.0, v}).x_mm;
        if (x < grid.x_mm.front() || x > grid.x_mm.back()) return;
        const SectionArc arc = skin.arcAt(x);
        const double half = arc.backArc_mm() + arc.bellyArc_mm();
        const auto after = std::upper_bound(grid.x_mm.begin() + 1, grid.x_mm.end() - 1, x);
        const int r = static_cast<int>(after - grid.x_mm.begin()) - 1;
        const double down =
            (x - grid.x_mm[static_cast<std::size_t>(r)]) /
            (grid.x_mm[static_cast<std::size_t>(r) + 1] - grid.x_mm[static_cast<std::size_t>(r)]);
        for (int c = 0; c < image.width; ++c) {
            const double g = body.skinAt({(c + 0.5) / image.width, v}).g_mm;
            const double share = drape.wish.gather == Gather::Belly ? (arc.backArc_mm() - g) / half
                                                                    : (g + arc.bellyArc_mm()) / half;
            const double at = share / grid.shares.back() * (grid.columns - 1);
            if (!(at >= 0 && at <= grid.columns - 1)) continue;
            const int k = std::min(grid.columns - 2, static_cast<int>(at));
            const double across = at - k;
            const auto value = [&](int i, int j) -> const Vec2& {
                return drape.net_mm[static_cast<std::size_t>(grid.at(r + i, k + j))];
            };
            const Vec2 net = (1 - down) * ((1 - across) * value(0, 0) + across * value(0, 1)) +
                             down * ((1 - across) * value(1, 0) + across * value(1, 1));
            if (!tile.openAt(net) || (doubled && !tile.openAt(back * (net - moved)))) continue;
            std::uint32_t& pixel =
                image.pixels[row * static_cast<std::size_t>(image.width) + static_cast<std::size_t>(c)];
            pixel = blended(pixel, colour, strength);
        }
    });
    return image;
}

}  // namespace nine
