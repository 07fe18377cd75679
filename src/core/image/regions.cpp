#include "image/regions.h"

#include <Eigen/Eigenvalues>
#include <algorithm>
#include <cmath>
#include <limits>
#include <numeric>
#include <unordered_map>

#include "base/parallel.h"

namespace nine {
namespace {

/// Calls rows(in, out) for every row, then columns(in, out) for every column; columns in blocks, so that
/// memory is read in order.
template <typename Row, typename Column>
Plane alongRowsThenColumns(Plane plane, const Row& rows, const Column& columns) {
    const auto w = static_cast<std::size_t>(plane.width), h = static_cast<std::size_t>(plane.height);
    forEachInParallel((h + 31) / 32, [&](std::size_t block) {
        std::vector<float> in(w), out(w);
        for (std::size_t y = 32 * block; y < std::min(h, 32 * block + 32); ++y) {
            std::copy_n(plane.values.begin() + static_cast<std::ptrdiff_t>(y * w), w, in.begin());
            rows(in, out);
            std::copy_n(out.begin(), w, plane.values.begin() + static_cast<std::ptrdiff_t>(y * w));
        }
    });
    constexpr std::size_t kBlock = 16;
    forEachInParallel((w + kBlock - 1) / kBlock, [&](std::size_t block) {
        const std::size_t x0 = kBlock * block, x1 = std::min(w, x0 + kBlock);
        std::vector<float> in(h * kBlock), one(h), out(h);
        for (std::size_t y = 0; y < h; ++y)
            for (std::size_t x = x0; x < x1; ++x) in[(x - x0) * h + y] = plane.values[y * w + x];
        for (std::size_t x = x0; x < x1; ++x) {
            std::copy_n(in.begin() + static_cast<std::ptrdiff_t>((x - x0) * h), h, one.begin());
            columns(one, out);
            std::copy_n(out.begin(), h, in.begin() + static_cast<std::ptrdiff_t>((x - x0) * h));
        }
        for (std::size_t y = 0; y < h; ++y)
            for (std::size_t x = x0; x < x1; ++x) plane.values[y * w + x] = in[(x - x0) * h + y];
    });
    return plane;
}
template <typename Line>
Plane alongRowsAndColumns(Plane plane, const Line& line) {
    return alongRowsThenColumns(std::move(plane), line, line);
}

/// Largest value in a window, in constant time a pixel (van Herk 1992).
void windowMost(const std::vector<float>& in, std::vector<float>& out, int radius) {
    const int n = static_cast<int>(in.size()), window = 2 * radius + 1;
    constexpr float kLeast = -std::numeric_limits<float>::max();
    const int padded = n + 2 * radius;
    const auto at = [&](int i) {
        return i < radius || i >= n + radius ? kLeast : in[static_cast<std::size_t>(i - radius)];
    };
    thread_local std::vector<float> before, after;  // called for every row: not allocated anew each time
    before.resize(static_cast<std::size_t>(padded));
    after.resize(static_cast<std::size_t>(padded));
    for (int i = 0; i < padded; ++i)
        before[static_cast<std::size_t>(i)] =
            i % window == 0 ? at(i) : std::max(before[static_cast<std::size_t>(i - 1)], at(i));
    for (int i = padded - 1; i >= 0; --i)
        after[static_cast<std::size_t>(i)] = i == padded - 1 || (i + 1) % window == 0
                                                 ? at(i)
                                                 : std::max(after[static_cast<std::size_t>(i + 1)], at(i));
    for (int i = 0; i < n; ++i)
        out[static_cast<std::size_t>(i)] =
            std::max(after[static_cast<std::size_t>(i)], before[static_cast<std::size_t>(i + window - 1)]);
}

/// Lower envelope of parabolas, Felzenszwalb and Huttenlocher's algorithm 1.
void squaredDistances(const std::vector<float>& f, std::vector<float>& d) {
    const int n = static_cast<int>(f.size());
    thread_local std::vector<int> v;
    thread_local std::vector<double> z;
    v.resize(f.size());
    z.resize(f.size() + 1);
    constexpr double kFar = 1e18;
    int k = 0;
    v[0] = 0;
    z[0] = -kFar;
    z[1] = kFar;
    const auto at = [&](int q) { return static_cast<double>(f[static_cast<std::size_t>(q)]); };
    for (int q = 1; q < n; ++q) {
        double s = 0;
        for (;;) {
            const int p = v[static_cast<std::size_t>(k)];
            s = ((at(q) + double(q) * q) - (at(p) + double(p) * p)) / (2.0 * (q - p));
            if (s > z[static_cast<std::size_t>(k)] || k == 0) break;
            --k;
        }
        if (s <= z[static_cast<std::size_t>(k)]) {
            v[0] = q;
            z[1] = kFar;
            continue;
        }
        ++k;
        v[static_cast<std::size_t>(k)] = q;
        z[static_cast<std::size_t>(k)] = s;
        z[static_cast<std::size_t>(k) + 1] = kFar;
    }
    k = 0;
    for (int q = 0; q < n; ++q) {
        while (z[static_cast<std::size_t>(k) + 1] < q) ++k;
        const int p = v[static_cast<std::size_t>(k)];
        d[static_cast<std::size_t>(q)] = static_cast<float>(double(q - p) * (q - p) + at(p));
    }
}

}  // namespace

Plane reduced(const Plane& plane, int factor) {
    Plane small(plane.width / factor, plane.height / factor);
    for (int y = 0; y < small.height; ++y)
        for (int x = 0; x < small.width; ++x) {
            float sum = 0;
            for (int dy = 0; dy < factor; ++dy)
                for (int dx = 0; dx < factor; ++dx) sum += plane.at(factor * x + dx, factor * y + dy);
            small.at(x, y) = sum / static_cast<float>(factor * factor);
        }
    return small;
}

Plane boxMean(const Plane& plane, int radius) {
    if (radius <= 0) return plane;
    return alongRowsAndColumns(plane, [radius](const std::vector<float>& in, std::vector<float>& out) {
        const int n = static_cast<int>(in.size());
        double sum = 0;
        int from = 0, to = 0;  // the window holds from .. to - 1
        for (int i = 0; i < n; ++i) {
            for (; to < std::min(n, i + radius + 1); ++to) sum += in[static_cast<std::size_t>(to)];
            for (; from < i - radius; ++from) sum -= in[static_cast<std::size_t>(from)];
            out[static_cast<std::size_t>(i)] = static_cast<float>(sum / (to - from));
        }
    });
}

Plane smoothed(const Plane& plane, double sigma) {
    // Three boxes of width w have the variance (w^2 - 1) / 4.
    const int radius = static_cast<int>(std::lround(0.5 * (std::sqrt(4 * sigma * sigma + 1) - 1)));
    if (radius <= 0) return plane;
    return boxMean(boxMean(boxMean(plane, radius), radius), radius);
}

Plane closed(const Plane& plane, int radius) {
    const auto most = [radius](const std::vector<float>& in, std::vector<float>& out) {
        windowMost(in, out, radius);
    };
    Plane p = alongRowsAndColumns(plane, most);
    for (float& v : p.values) v = -v;
    p = alongRowsAndColumns(std::move(p), most);
    for (float& v : p.values) v = -v;
    return p;
}

PixelSet above(const Plane& plane, float level) {
    PixelSet mask(plane.width, plane.height);
    for (std::size_t i = 0; i < plane.values.size(); ++i) mask.on[i] = plane.values[i] > level ? 1 : 0;
    return mask;
}

Vec2 Part::centroid(int pictureWidth) const {
    Vec2 sum = Vec2::Zero();
    const auto w = static_cast<std::size_t>(pictureWidth);
    for (const std::size_t i : pixels)
        sum += Vec2(static_cast<double>(i % w) + 0.5, static_cast<double>(i / w) + 0.5);
    return sum / static_cast<double>(pixels.size());
}

Vec2 Part::direction(int pictureWidth) const {
    const Vec2 middle = centroid(pictureWidth);
    Eigen::Matrix2d moments = Eigen::Matrix2d::Zero();
    const auto w = static_cast<std::size_t>(pictureWidth);
    for (const std::size_t i : pixels) {
        const Vec2 d = Vec2(static_cast<double>(i % w) + 0.5, static_cast<double>(i / w) + 0.5) - middle;
        moments += d * d.transpose();
    }
    return Eigen::SelfAdjointEigenSolver<Eigen::Matrix2d>(moments).eigenvectors().col(1);
}

std::vector<Part> partsOf(const PixelSet& mask, bool overCorners) {
    std::vector<Part> parts;
    std::vector<std::uint8_t> seen(mask.on.size(), 0);
    const auto w = static_cast<std::size_t>(mask.width);
    for (std::size_t start = 0; start < mask.on.size(); ++start) {
        if (!mask.on[start] || seen[start]) continue;
        Part part;
        part.left = mask.width;
        part.top = mask.height;
        part.pixels.push_back(start);
        seen[start] = 1;
        for (std::size_t k = 0; k < part.pixels.size(); ++k) {
            const int x = static_cast<int>(part.pixels[k] % w), y = static_cast<int>(part.pixels[k] / w);
            part.left = std::min(part.left, x);
            part.right = std::max(part.right, x);
            part.top = std::min(part.top, y);
            part.bottom = std::max(part.bottom, y);
            for (int dy = -1; dy <= 1; ++dy) {
                for (int dx = -1; dx <= 1; ++dx) {
                    if ((dx == 0) == (dy == 0) && !overCorners) continue;
                    if (!mask.inside(x + dx, y + dy)) continue;
                    const std::size_t next = mask.index(x + dx, y + dy);
                    if (!mask.on[next] || seen[next]) continue;
                    seen[next] = 1;
                    part.pixels.push_back(next);
                }
            }
        }
        parts.push_back(std::move(part));
    }
    std::stable_sort(parts.begin(), parts.end(),
                     [](const Part& a, const Part& b) { return a.area() > b.area(); });
    return parts;
}

PixelSet pixelsOf(const Part& part, int width, int height) {
    PixelSet mask(width, height);
    for (const std::size_t i : part.pixels) mask.on[i] = 1;
    return mask;
}

PixelSet inverse(PixelSet mask) {
    for (auto& v : mask.on) v = v ? 0 : 1;
    return mask;
}

PixelSet filled(const PixelSet& mask) {
    PixelSet out = mask;
    for (const Part& part : partsOf(inverse(mask), false)) {
        if (part.left == 0 || part.top == 0 || part.right == mask.width - 1 || part.bottom == mask.height - 1)
            continue;
        for (const std::size_t i : part.pixels) out.on[i] = 1;
    }
    return out;
}

Plane distanceTo(const PixelSet& mask) {
    constexpr float kFar = 1e12F;
    Plane plane(mask.width, mask.height);
    for (std::size_t i = 0; i < mask.on.size(); ++i) plane.values[i] = mask.on[i] ? 0 : kFar;
    // Along a row that is only on or off two sweeps do what the parabolas are for.
    const auto sweeps = [](const std::vector<float>& in, std::vector<float>& out) {
        const std::size_t n = in.size();
        float d = kFar;
        for (std::size_t i = 0; i < n; ++i) out[i] = d = in[i] == 0 ? 0 : d + 1;
        d = kFar;
        for (std::size_t i = n; i-- > 0;) {
            d = out[i] == 0 ? 0 : d + 1;
            out[i] = std::min(out[i], d);
            out[i] = out[i] >= kFar ? kFar : out[i] * out[i];
        }
    };
    plane = alongRowsThenColumns(std::move(plane), sweeps, squaredDistances);
    for (float& v : plane.values) v = std::sqrt(v);
    return plane;
}

PixelSet grown(const PixelSet& mask, double radius) {
    Plane d = distanceTo(mask);
    for (float& v : d.values) v = -v;
    return above(d, static_cast<float>(-radius - 1e-6));
}

PixelSet shrunk(const PixelSet& mask, double radius) {
    return above(distanceTo(inverse(mask)), static_cast<float>(radius));
}

PixelSet opened(const PixelSet& mask, double radius) {
    return grown(shrunk(mask, radius), radius);
}

float quantile(std::vector<float> values, double share) {
    if (values.empty()) return 0;
    const auto at = static_cast<std::ptrdiff_t>(share * static_cast<double>(values.size() - 1));
    std::nth_element(values.begin(), values.begin() + at, values.end());
    return values[static_cast<std::size_t>(at)];
}

float otsuLevel(const std::vector<float>& values) {
    const auto [least, most] = std::minmax_element(values.begin(), values.end());
    constexpr int kBins = 512;
    const double step = (*most - *least) / kBins;
    if (!(step > 0)) return *least;
    std::vector<double> count(kBins, 0);
    for (const float v : values)
        count[static_cast<std::size_t>(std::min(kBins - 1, static_cast<int>((v - *least) / step)))] += 1;
    double all = 0, sum = 0;
    for (int i = 0; i < kBins; ++i) {
        all += count[static_cast<std::size_t>(i)];
        sum += i * count[static_cast<std::size_t>(i)];
    }
    double below = 0, sumBelow = 0, best = -1;
    int firstBest = 0, lastBest = 0;
    for (int i = 0; i < kBins - 1; ++i) {
        below += count[static_cast<std::size_t>(i)];
        sumBelow += i * count[static_cast<std::size_t>(i)];
        if (below == 0 || below == all) continue;
        const double gap = sumBelow / below - (sum - sumBelow) / (all - below);
        const double between = below * (all - below) * gap * gap;
        if (between > best * (1 + 1e-12)) {
            best = between;
            firstBest = lastBest = i;
        } else if (between >= best * (1 - 1e-12)) {
            lastBest = i;
        }
    }
    return static_cast<float>(*least + step * (0.5 * (firstBest + lastBest) + 1));
}

std::vector<Polyline2> levelLines(const Plane& plane, float level) {
    // In one piece: the sixteen cases and the joining of their ends are one walk.
    // The plane is framed by a row of low values, so that every line is closed. Corners are pixel middles.
    const int w = plane.width + 2;
    const auto value = [&](int i, int j) {
        return plane.inside(i - 1, j - 1) ? static_cast<double>(plane.at(i - 1, j - 1)) - level : -1e-3;
    };
    // An edge between neighbouring corners is named by its first corner and its direction.
    const auto edge = [&](int i, int j, int direction) {
        return 2 * (static_cast<std::size_t>(j) * static_cast<std::size_t>(w) + static_cast<std::size_t>(i)) +
               static_cast<std::size_t>(direction);
    };
    std::unordered_map<std::size_t, std::size_t> next;
    std::unordered_map<std::size_t, Vec2> place;
    const auto crossing = [&](int i, int j, int direction) {
        const std::size_t name = edge(i, j, direction);
        const double a = value(i, j), b = direction == 0 ? value(i + 1, j) : value(i, j + 1);
        const double t = std::clamp(a / (a - b), 0.0, 1.0);
        place[name] = Vec2(i - 0.5, j - 0.5) + (direction == 0 ? Vec2(t, 0) : Vec2(0, t));
        return name;
    };
    for (int j = 0; j + 1 < plane.height + 2; ++j) {
        for (int i = 0; i + 1 < w; ++i) {
            const bool a = value(i, j) > 0, b = value(i + 1, j) > 0, c = value(i + 1, j + 1) > 0,
                       d = value(i, j + 1) > 0;
            const int kind = (a ? 1 : 0) | (b ? 2 : 0) | (c ? 4 : 0) | (d ? 8 : 0);
            if (kind == 0 || kind == 15) continue;
            // Edges: 0 upper, 1 right, 2 lower, 3 left; each segment goes from one to another with the high
            // side on its left as seen with y upwards.
            const auto go = [&](int from, int to) {
                const auto nameOf = [&](int side) {
                    return side == 0   ? crossing(i, j, 0)
                           : side == 1 ? crossing(i + 1, j, 1)
                           : side == 2 ? crossing(i, j + 1, 0)
                                       : crossing(i, j, 1);
                };
                const std::size_t start = nameOf(from);
                next[start] = nameOf(to);
            };
            static constexpr int kSegments[16][4] = {{-1},       {0, 3, -1}, {1, 0, -1}, {1, 3, -1},
                                                     {2, 1, -1}, {-1},       {2, 0, -1}, {2, 3, -1},
                                                     {3, 2, -1}, {0, 2, -1}, {-1},       {1, 2, -1},
                                                     {3, 1, -1}, {0, 1, -1}, {3, 0, -1}, {-1}};
            if (kind == 5) {  // two opposite corners are high: kept apart
                go(0, 3);
                go(2, 1);
            } else if (kind == 10) {
                go(1, 0);
                go(3, 2);
            } else {
                go(kSegments[kind][0], kSegments[kind][1]);
            }
        }
    }
    std::vector<std::pair<double, Polyline2>> lines;
    std::vector<std::size_t> starts;
    starts.reserve(next.size());
    for (const auto& [name, ignored] : next) starts.push_back(name);
    std::sort(starts.begin(), starts.end());
    for (const std::size_t start : starts) {
        Polyline2 line;
        for (auto at = next.find(start); at != next.end();) {
            line.push_back(place[at->first]);
            const std::size_t to = at->second;
            next.erase(at);
            at = next.find(to);
        }
        if (line.size() < 3) continue;
        double length = 0;
        for (std::size_t i = 0; i < line.size(); ++i)
            length += (line[(i + 1) % line.size()] - line[i]).norm();
        lines.emplace_back(length, std::move(line));
    }
    std::stable_sort(lines.begin(), lines.end(),
                     [](const auto& a, const auto& b) { return a.first > b.first; });
    std::vector<Polyline2> out;
    for (auto& [length, line] : lines) out.push_back(std::move(line));
    return out;
}

Polyline2 evenlySpaced(const Polyline2& closed, double step, double sigma) {
    std::vector<double> along{0};
    for (std::size_t i = 0; i < closed.size(); ++i)
        along.push_back(along.back() + (closed[(i + 1) % closed.size()] - closed[i]).norm());
    const auto count = static_cast<std::size_t>(std::max(8.0, std::round(along.back() / step)));
    Polyline2 even;
    std::size_t k = 0;
    for (std::size_t i = 0; i < count; ++i) {
        const double s = along.back() * static_cast<double>(i) / static_cast<double>(count);
        while (along[k + 1] < s) ++k;
        const double span = along[k + 1] - along[k], t = span > 0 ? (s - along[k]) / span : 0;
        even.push_back((1 - t) * closed[k] + t * closed[(k + 1) % closed.size()]);
    }
    if (sigma <= 0) return even;
    const double real = along.back() / static_cast<double>(count);
    const int reach = std::min(static_cast<int>(3 * sigma / real) + 1, static_cast<int>(count) / 2 - 1);
    std::vector<double> weights;
    for (int j = -reach; j <= reach; ++j)
        weights.push_back(std::exp(-0.5 * j * j * real * real / (sigma * sigma)));
    const double all = std::accumulate(weights.begin(), weights.end(), 0.0);
    const auto blurred = [&](const Polyline2& in) {
        Polyline2 out(count, Vec2::Zero());
        for (std::size_t i = 0; i < count; ++i) {
            for (int j = -reach; j <= reach; ++j) {
                const auto from =
                    static_cast<std::size_t>((static_cast<long>(i + count) + j) % static_cast<long>(count));
                out[i] += weights[static_cast<std::size_t>(j + reach)] / all * in[from];
            }
        }
        return out;
    };
    // Blurring moves a curve inwards; blurring the difference and adding it takes that back (2 G - G^2).
    const Polyline2 once = blurred(even), twice = blurred(once);
    Polyline2 out(count);
    for (std::size_t i = 0; i < count; ++i) out[i] = 2 * once[i] - twice[i];
    return out;
}

}  // namespace nine
