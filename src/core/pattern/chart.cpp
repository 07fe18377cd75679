#include "pattern/chart.h"

#include <algorithm>
#include <array>
#include <cmath>

#include "pattern/kind/drawing.h"

namespace nine {
namespace {

constexpr double kTips = 0.004;  // of the length: nothing is drawn nearer to a tip
constexpr int kFewest = 8, kMost = 1200;
constexpr int kMeridianSteps = 400;

/// x at even distances along the longest of the three meridians, `cell` apart or a little less.
std::vector<double> evenRows(const Skin& skin, double from, double to, double cell) {
    std::vector<double> x, along{0};
    std::array<Vec2, 3> before;
    for (int k = 0; k <= kMeridianSteps; ++k) {
        // Closer at both ends, where round noses are steep.
        x.push_back(from + (to - from) * 0.5 * (1 - std::cos(kPi * k / kMeridianSteps)));
        const Section s = skin.loft().sectionAt(x.back());
        const std::array<Vec2, 3> now{Vec2(x.back(), s.top_mm), Vec2(x.back(), s.bottom_mm),
                                      Vec2(x.back(), s.halfWidth_mm)};
        if (k > 0) {
            double step = 0;
            for (std::size_t m = 0; m < 3; ++m) step = std::max(step, (now[m] - before[m]).norm());
            along.push_back(along.back() + step);
        }
        before = now;
    }
    const int rows = std::clamp(static_cast<int>(std::ceil(along.back() / cell)) + 1, kFewest, kMost);
    std::vector<double> result;
    std::size_t k = 1;
    for (int r = 0; r < rows; ++r) {
        const double s = along.back() * r / (rows - 1);
        while (k + 1 < along.size() && along[k] < s) ++k;
        const double t = std::clamp((s - along[k - 1]) / std::max(1e-12, along[k] - along[k - 1]), 0.0, 1.0);
        result.push_back(x[k - 1] + t * (x[k] - x[k - 1]));
    }
    return result;
}

double catmull(double a, double b, double c, double d, double t) {
    return b + 0.5 * t * (c - a + t * (2 * a - 5 * b + 4 * c - d + t * (3 * (b - c) + d - a)));
}

}  // namespace

Chart::Chart(const Skin& skin, const Wish& wish) : fromShare_(wish.fromShare), toShare_(wish.toShare) {
    const double tip = kTips * skin.length_mm();
    const double from = std::max(wish.from_x_mm, skin.noseX_mm() + tip);
    const double to = std::max(from + tip, std::min(wish.to_x_mm, skin.tailX_mm() - tip));
    x_ = evenRows(skin, from, to, wish.cell_mm);
    rows_ = static_cast<int>(x_.size());
    double widest = 0;
    std::vector<SectionArc> arcs;
    for (const double x : x_) {
        arcs.push_back(skin.arcAt(x));
        back_.push_back(arcs.back().backArc_mm());
        half_.push_back(arcs.back().backArc_mm() + arcs.back().bellyArc_mm());
        widest = std::max(widest, half_.back());
    }
    columns_ = std::clamp(static_cast<int>(std::ceil(widest * (toShare_ - fromShare_) / wish.cell_mm)) + 1,
                          kFewest, kMost);
    points_.resize(static_cast<std::size_t>(rows_) * static_cast<std::size_t>(columns_));
    for (int r = 0; r < rows_; ++r) {
        for (int c = 0; c < columns_; ++c) {
            const double g =
                back_[static_cast<std::size_t>(r)] - share(c) * half_[static_cast<std::size_t>(r)];
            const Vec2 yz = arcs[static_cast<std::size_t>(r)].point(g);
            points_[index(r, c)] = Vec3(x_mm(r), yz.x(), yz.y());
        }
    }
    along_.resize(size());
    across_.resize(size());
    for (int r = 0; r < rows_; ++r) {
        const int up = std::max(0, r - 1), down = std::min(rows_ - 1, r + 1);
        for (int c = 0; c < columns_; ++c) {
            along_[index(r, c)] = static_cast<float>(
                std::max(1e-4, (points_[index(down, c)] - points_[index(up, c)]).norm() / (down - up)));
            across_[index(r, c)] = static_cast<float>(std::max(
                1e-4, half_[static_cast<std::size_t>(r)] * (toShare_ - fromShare_) / (columns_ - 1)));
        }
    }
}

double Chart::share(int column) const {
    return fromShare_ + (toShare_ - fromShare_) * column / (columns_ - 1);
}

Vec2 Chart::placeAt(double row, double column) const {
    const double at = std::clamp(row, 0.0, static_cast<double>(rows_ - 1));
    const auto k = std::min(static_cast<std::size_t>(at), x_.size() - 2);
    const double t = at - static_cast<double>(k);
    const auto between = [&](const std::vector<double>& v) { return v[k] + t * (v[k + 1] - v[k]); };
    const double s =
        fromShare_ + (toShare_ - fromShare_) * std::clamp(column, 0.0, columns_ - 1.0) / (columns_ - 1);
    return {between(x_), between(back_) - s * between(half_)};
}

/// All columns at once, so that memory is run through in order (Thomas' algorithm).
void Chart::diffuseAlong(Field& field, double sigma2) const {
    const double time = 0.5 * sigma2;
    const auto n = static_cast<std::size_t>(columns_);
    std::vector<float> upper(size());
    const auto flow = [&](int r, std::size_t c) {  // between row r and the next
        const std::size_t i = index(r, static_cast<int>(c)), j = i + n;
        const double d = (points_[j] - points_[i]).norm();
        return time * 0.5 * (across_[i] + across_[j]) / std::max(1e-4, d);
    };
    std::vector<double> before(n, 0);
    for (int r = 0; r < rows_; ++r) {
        for (std::size_t c = 0; c < n; ++c) {
            const std::size_t i = index(r, static_cast<int>(c));
            const double next = r + 1 < rows_ ? flow(r, c) : 0, last = before[c];
            const double cell = static_cast<double>(along_[i]) * across_[i];
            const double pivot = cell + last + next - (r > 0 ? last * upper[i - n] : 0);
            upper[i] = static_cast<float>(next / pivot);
            field[i] = static_cast<float>((cell * field[i] + (r > 0 ? last * field[i - n] : 0)) / pivot);
            before[c] = next;
        }
    }
    for (int r = rows_ - 2; r >= 0; --r) {
        for (std::size_t c = 0; c < n; ++c) {
            const std::size_t i = index(r, static_cast<int>(c));
            field[i] += upper[i] * field[i + n];
        }
    }
}

void Chart::diffuseAcross(Field& field, double sigma2) const {
    const double time = 0.5 * sigma2;
    const auto n = static_cast<std::size_t>(columns_);
    std::vector<double> upper(n);
    for (int r = 0; r < rows_; ++r) {
        float* const u = field.data() + index(r, 0);
        const float *along = along_.data() + index(r, 0), *across = across_.data() + index(r, 0);
        double last = 0;
        for (std::size_t c = 0; c < n; ++c) {
            const double next =
                c + 1 < n ? time * 0.5 * (along[c] + along[c + 1]) / (0.5 * (across[c] + across[c + 1])) : 0;
            const double cell = static_cast<double>(along[c]) * across[c];
            const double pivot = cell + last + next - (c > 0 ? last * upper[c - 1] : 0);
            upper[c] = next / pivot;
            u[c] = static_cast<float>((cell * u[c] + (c > 0 ? last * u[c - 1] : 0)) / pivot);
            last = next;
        }
        for (std::size_t c = n - 1; c-- > 0;) u[c] += static_cast<float>(upper[c]) * u[c + 1];
    }
}

void Chart::diffuse(Field& field, double sigma_mm, double alongPull, int steps) const {
    const double part = sigma_mm * sigma_mm / steps;
    for (int k = 0; k < steps; ++k) {
        diffuseAlong(field, part * alongPull * alongPull);
        diffuseAcross(field, part);
    }
}

void Chart::diffuse(Field& field, double sigma_mm, int steps) const {
    diffuse(field, sigma_mm, 1, steps);
}

Field Chart::distances(const Field& field) const {
    // In one piece: border cells from their own values, then sweeps in the four diagonal orders.
    constexpr float kFar = 1e6f;
    Field d(size(), kFar);
    const auto n = static_cast<std::size_t>(columns_);
    for (int r = 0; r < rows_; ++r) {
        for (int c = 0; c < columns_; ++c) {
            const std::size_t i = index(r, c);
            const auto crossing = [&](std::size_t j, float h) {
                const float a = field[i], b = field[j];
                return (a > 0) == (b > 0) ? kFar : h * a / (a - b);
            };
            float along = kFar, across = kFar;
            if (r > 0) along = std::min(along, crossing(i - n, along_[i]));
            if (r + 1 < rows_) along = std::min(along, crossing(i + n, along_[i]));
            if (c > 0) across = std::min(across, crossing(i - 1, across_[i]));
            if (c + 1 < columns_) across = std::min(across, crossing(i + 1, across_[i]));
            if (along >= kFar && across >= kFar) continue;
            const float inverse = 1 / std::max(1e-6f, along * along) + 1 / std::max(1e-6f, across * across);
            d[i] = 1 / std::sqrt(inverse);
        }
    }
    const Field border = d;
    for (int sweep = 0; sweep < 8; ++sweep) {
        const bool down = sweep & 1, right = sweep & 2;
        for (int k = 0; k < rows_; ++k) {
            const int r = down ? k : rows_ - 1 - k;
            for (int m = 0; m < columns_; ++m) {
                const int c = right ? m : columns_ - 1 - m;
                const std::size_t i = index(r, c);
                if (border[i] < kFar) continue;
                const float a = std::min(r > 0 ? d[i - n] : kFar, r + 1 < rows_ ? d[i + n] : kFar);
                const float b = std::min(c > 0 ? d[i - 1] : kFar, c + 1 < columns_ ? d[i + 1] : kFar);
                const float h = along_[i], w = across_[i];
                float best = std::min(a + h, b + w);
                // (t - a)^2 / h^2 + (t - b)^2 / w^2 = 1, when both come before t.
                const float p = 1 / (h * h), q = 1 / (w * w), gap = a - b;
                const float under = p + q - p * q * gap * gap;
                if (under > 0) {
                    const float t = (p * a + q * b + std::sqrt(under)) / (p + q);
                    if (t >= a && t >= b) best = std::min(best, t);
                }
                d[i] = std::min(d[i], best);
            }
        }
    }
    for (std::size_t i = 0; i < size(); ++i)
        if (!(field[i] > 0)) d[i] = -d[i];
    return d;
}

Field Chart::cleaned(const Field& field, double close_mm, double open_mm) const {
    const auto shifted = [](Field f, double by) {
        for (float& v : f) v += static_cast<float>(by);
        return f;
    };
    const Field wide = distances(shifted(distances(field), close_mm));
    const Field thin = distances(shifted(wide, -close_mm - open_mm));
    return shifted(thin, open_mm);
}

Field Chart::withoutSmall(Field field, double least_mm2) const {
    std::vector<char> seen(size(), 0);
    std::vector<std::size_t> island;
    for (std::size_t start = 0; start < size(); ++start) {
        if (seen[start]) continue;
        const bool above = field[start] > 0;
        island.assign(1, start);
        seen[start] = 1;
        double whole = 0;
        for (std::size_t k = 0; k < island.size(); ++k) {
            const std::size_t i = island[k];
            whole += area_mm2(i);
            const int r = static_cast<int>(i) / columns_, c = static_cast<int>(i) % columns_;
            const auto go = [&](int row, int column) {
                if (row < 0 || column < 0 || row >= rows_ || column >= columns_) return;
                const std::size_t j = index(row, column);
                if (seen[j] || (field[j] > 0) != above) return;
                seen[j] = 1;
                island.push_back(j);
            };
            go(r - 1, c);
            go(r + 1, c);
            go(r, c - 1);
            go(r, c + 1);
        }
        if (whole >= least_mm2) continue;
        for (const std::size_t i : island) field[i] = above ? -1e-3f : 1e-3f;
    }
    return field;
}

PolygonSet Chart::rings(const Field& field) const {
    // In one piece: marching squares over twice as many places, each cell by one table.
    const int columns = 2 * columns_ - 1, rows = 2 * rows_ - 1;
    const auto wide = static_cast<std::size_t>(columns);
    // Between cells by cubics: a border has no corners where cells meet.
    const auto clamped = [](int i, int n) { return std::clamp(i, 0, n - 1); };
    std::vector<float> tall(static_cast<std::size_t>(rows) * static_cast<std::size_t>(columns_));
    for (int r = 0; r < rows; ++r) {
        for (int c = 0; c < columns_; ++c) {
            const auto v = [&](int k) { return field[index(clamped(r / 2 + k, rows_), c)]; };
            tall[static_cast<std::size_t>(r) * static_cast<std::size_t>(columns_) +
                 static_cast<std::size_t>(c)] =
                r % 2 == 0 ? v(0) : static_cast<float>(catmull(v(-1), v(0), v(1), v(2), 0.5));
        }
    }
    std::vector<float> f(static_cast<std::size_t>(rows) * wide);
    for (int r = 0; r < rows; ++r) {
        const float* line = tall.data() + static_cast<std::size_t>(r) * static_cast<std::size_t>(columns_);
        for (int c = 0; c < columns; ++c) {
            const auto v = [&](int k) { return line[clamped(c / 2 + k, columns_)]; };
            f[static_cast<std::size_t>(r) * wide + static_cast<std::size_t>(c)] =
                c % 2 == 0 ? v(0) : static_cast<float>(catmull(v(-1), v(0), v(1), v(2), 0.5));
        }
    }
    // One place more on every side, outside, at the edge itself: borders close along it.
    const int p = columns + 2, q = rows + 2;
    const auto value = [&](int row, int column) {
        if (row <= 0 || column <= 0 || row > rows || column > columns) return -1e-4f;
        const float v = f[static_cast<std::size_t>(row - 1) * wide + static_cast<std::size_t>(column - 1)];
        return v == 0 ? -1e-6f : v;
    };
    const auto node = [&](int row, int column) {
        return static_cast<std::size_t>(row) * static_cast<std::size_t>(p) + static_cast<std::size_t>(column);
    };
    // Edges: 2 * node for the one to the next column, + 1 for the one to the next row.
    std::vector<std::int32_t> next(2 * static_cast<std::size_t>(p) * static_cast<std::size_t>(q), -1);
    for (int r = 0; r + 1 < q; ++r) {
        for (int c = 0; c + 1 < p; ++c) {
            const float a = value(r, c), b = value(r, c + 1), x = value(r + 1, c + 1), d = value(r + 1, c);
            const int in = (a > 0) | (b > 0) << 1 | (x > 0) << 2 | (d > 0) << 3;
            if (in == 0 || in == 15) continue;
            const auto bottom = static_cast<std::int32_t>(2 * node(r, c)), left = bottom + 1;
            const auto top = static_cast<std::int32_t>(2 * node(r + 1, c));
            const auto right = static_cast<std::int32_t>(2 * node(r, c + 1)) + 1;
            const auto link = [&](std::int32_t from, std::int32_t to) {
                next[static_cast<std::size_t>(from)] = to;
            };
            const bool middle = a + b + x + d > 0;
            switch (in) {
                case 1:
                    link(bottom, left);
                    break;
                case 2:
                    link(right, bottom);
                    break;
                case 4:
                    link(top, right);
                    break;
                case 8:
                    link(left, top);
                    break;
                case 3:
                    link(right, left);
                    break;
                case 6:
                    link(top, bottom);
                    break;
                case 12:
                    link(left, right);
                    break;
                case 9:
                    link(bottom, top);
                    break;
                case 7:
                    link(top, left);
                    break;
                case 14:
                    link(left, bottom);
                    break;
                case 13:
                    link(bottom, right);
                    break;
                case 11:
                    link(right, top);
                    break;
                case 5:
                    link(bottom, middle ? right : left);
                    link(top, middle ? left : right);
                    break;
                default:
                    link(left, middle ? bottom : top);
                    link(right, middle ? top : bottom);
            }
        }
    }
    const auto placeOfEdge = [&](std::size_t edge) {
        const auto at = static_cast<int>(edge / 2);
        const int r = at / p, c = at % p, r2 = edge % 2 ? r + 1 : r, c2 = edge % 2 ? c : c + 1;
        const double u = value(r, c), v = value(r2, c2), t = u / (u - v);
        return placeAt(0.5 * (r - 1 + t * (r2 - r)), 0.5 * (c - 1 + t * (c2 - c)));
    };
    PolygonSet set;
    for (std::size_t start = 0; start < next.size(); ++start) {
        if (next[start] < 0) continue;
        Polygon2 ring;
        for (std::size_t edge = start; next[edge] >= 0;) {
            const Vec2 at = placeOfEdge(edge);
            if (ring.empty() || (at - ring.back()).norm() > 1e-4) ring.push_back(at);
            const auto to = static_cast<std::size_t>(next[edge]);
            next[edge] = -1;
            edge = to;
        }
        if (ring.size() >= 4) set.push_back(std::move(ring));
    }
    return set;
}

}  // namespace nine
