#include "mask/relief_grid.h"

#include <algorithm>
#include <cmath>
#include <map>
#include <set>

namespace nine {
namespace {

constexpr int kSamples = 160;

double between(const std::vector<double>& from, const std::vector<double>& to, double v) {
    const auto above = std::upper_bound(from.begin() + 1, from.end() - 1, v);
    const auto k = static_cast<std::size_t>(above - from.begin());
    return to[k - 1] + (v - from[k - 1]) / (from[k] - from[k - 1]) * (to[k] - to[k - 1]);
}

}  // namespace

ReliefGrid::ReliefGrid(const Skin& skin, const Strip& strip, double step_mm)
    : skinOfBody_(&skin), strip_(strip) {
    std::vector<std::array<SurfacePoint, 3>> lines;
    double low_mm = 0, high_mm = 0;
    for (int k = 0; k <= kSamples; ++k) {
        const double x = strip.x0_mm + (strip.x1_mm - strip.x0_mm) * k / kSamples;
        const SectionArc arc = skin.arcAt(x);
        const Crossing c = strip.at(arc);
        low_mm = std::max(low_mm, c.core_mm - c.low_mm);
        high_mm = std::max(high_mm, c.high_mm - c.core_mm);
        sampleX_mm_.push_back(x);
        lines.push_back({skin.at(arc, x, c.low_mm, Side::Left), skin.at(arc, x, c.core_mm, Side::Left),
                         skin.at(arc, x, c.high_mm, Side::Left)});
    }
    sampleS_mm_.push_back(0);
    for (std::size_t k = 1; k < lines.size(); ++k) {
        double step = 0;
        for (std::size_t m = 0; m < 3; ++m) step = std::max(step, arcLength_mm(lines[k - 1][m], lines[k][m]));
        sampleS_mm_.push_back(sampleS_mm_.back() + step);
    }
    length_mm_ = sampleS_mm_.back();
    core_ = std::max(2, static_cast<int>(std::lround(low_mm / step_mm)));
    columns_ = core_ + 1 + std::max(2, static_cast<int>(std::lround(high_mm / step_mm)));
    const int rows = std::max(5, static_cast<int>(std::lround(length_mm_ / step_mm)) + 1);
    for (int r = 0; r < rows; ++r)
        x_mm_.push_back(between(sampleS_mm_, sampleX_mm_, length_mm_ * r / (rows - 1)));
    x_mm_.back() = strip.x1_mm;
    for (int r = 0; r < rows; ++r)
        for (int c = 0; c < columns_; ++c) {
            Vec2 place;
            mesh_.vertices.push_back(vertexAt(r, c, &place));
            skin_.push_back(place);
        }
    const auto apart = [&](int a, int b) {
        return (mesh_.vertices[static_cast<std::size_t>(a)].position -
                mesh_.vertices[static_cast<std::size_t>(b)].position)
            .squaredNorm();
    };
    for (int r = 0; r + 1 < rows; ++r)
        for (int c = 0; c + 1 < columns_; ++c) {
            const int a = at(r, c), b = at(r + 1, c), d = at(r + 1, c + 1), e = at(r, c + 1);
            if (apart(a, d) <= apart(b, e)) {
                mesh_.triangles.push_back({a, b, d});
                mesh_.triangles.push_back({a, d, e});
            } else {
                mesh_.triangles.push_back({a, b, e});
                mesh_.triangles.push_back({b, d, e});
            }
        }
}

double ReliefGrid::x_mm(double row) const {
    return between(sampleS_mm_, sampleX_mm_, length_mm_ * row / (rows() - 1));
}
double ReliefGrid::rowAt(double x_mm) const {
    return between(sampleX_mm_, sampleS_mm_, x_mm) / length_mm_ * (rows() - 1);
}
int ReliefGrid::nearestRow(double row) const {
    return std::clamp(static_cast<int>(std::lround(row)), 1, rows() - 2);
}

int ReliefGrid::nearestColumn(double column) const {
    return std::clamp(static_cast<int>(std::lround(column)), 1, columns_ - 2);
}

SurfacePoint ReliefGrid::vertexAt(double row, double column, Vec2* place) const {
    const bool last = row >= rows() - 1;
    const double x = last ? strip_.x1_mm : x_mm(row);
    const SectionArc arc = skinOfBody_->arcAt(x);
    const Crossing c = strip_.at(arc);
    const double share = column <= core_ ? column / core_ : (column - core_) / (columns_ - 1 - core_);
    const double g = column <= core_ ? c.low_mm + share * (c.core_mm - c.low_mm)
                                     : c.core_mm + share * (c.high_mm - c.core_mm);
    *place = Vec2(x, g);
    return skinOfBody_->at(arc, x, g, Side::Left);
}

double ReliefGrid::across_mm(int row, int from, int to) const {
    return std::abs(skin_[static_cast<std::size_t>(at(row, to))].y() -
                    skin_[static_cast<std::size_t>(at(row, from))].y());
}

std::vector<double> ReliefGrid::curvature_rad() const {
    std::vector<double> defect(skin_.size(), 0);
    const RestMesh rest = restMesh(mesh_);
    for (std::size_t t = 0; t < rest.triangles.size(); ++t)
        for (std::size_t k = 0; k < 3; ++k)
            defect[static_cast<std::size_t>(rest.triangles[t][k])] +=
                std::atan2(1.0, rest.shapes[t].cotangent[k]);
    for (int r = 0; r < rows(); ++r)
        for (int c = 0; c < columns_; ++c) {
            const bool border = r == 0 || c == 0 || r + 1 == rows() || c + 1 == columns_;
            double& d = defect[static_cast<std::size_t>(at(r, c))];
            d = border ? 0 : 2 * kPi - d;
        }
    return defect;
}

CutGrid ReliefGrid::cut(const std::vector<GridSlit>& slits) const {
    // In one piece: rows are moved, edges marked, and round each vertex of a slit the triangles that hang
    // together keep one copy of it.
    CutGrid result{mesh_, {}, {}};
    std::set<std::pair<int, int>> cutEdges;
    std::set<int> touched;
    std::vector<int> mouthVertices;
    for (const GridSlit& slit : slits) {
        std::vector<int> path;
        if (slit.across) {
            const int row = nearestRow(slit.line);
            const int from = slit.fromLow ? 0 : columns_ - 1, way = slit.fromLow ? 1 : -1;
            for (int c = from; c != slit.tip + way; c += way) path.push_back(at(row, c));
            for (int c = 0; c < columns_; ++c) {
                Vec2 place;
                result.mesh.vertices[static_cast<std::size_t>(at(row, c))] = vertexAt(slit.line, c, &place);
            }
        } else {
            const int column = nearestColumn(slit.line);
            const int from = slit.fromLow ? 0 : rows() - 1, way = slit.fromLow ? 1 : -1;
            for (int r = from; r != slit.tip + way; r += way) path.push_back(at(r, column));
            for (int r = 0; r < rows(); ++r) {
                Vec2 place;
                result.mesh.vertices[static_cast<std::size_t>(at(r, column))] =
                    vertexAt(r, slit.line, &place);
            }
        }
        for (std::size_t i = 0; i + 1 < path.size(); ++i) cutEdges.insert(std::minmax(path[i], path[i + 1]));
        touched.insert(path.begin(), path.end() - 1);
        mouthVertices.push_back(path.front());
    }
    const std::size_t n = skin_.size();
    for (std::size_t v = 0; v < n; ++v) result.source.push_back(static_cast<int>(v));
    if (touched.empty()) return result;
    std::map<int, std::vector<std::size_t>> around;
    for (std::size_t t = 0; t < mesh_.triangles.size(); ++t)
        for (const int v : mesh_.triangles[t])
            if (touched.count(v)) around[v].push_back(t);
    std::map<int, int> copyOf;
    for (const auto& [v, triangles] : around) {
        std::vector<std::size_t> group(triangles.size());
        for (std::size_t i = 0; i < group.size(); ++i) group[i] = i;
        const auto joined = [&](std::size_t s, std::size_t t) {
            for (const int w : mesh_.triangles[s])
                if (w != v && !cutEdges.count(std::minmax(v, w)) &&
                    std::find(mesh_.triangles[t].begin(), mesh_.triangles[t].end(), w) !=
                        mesh_.triangles[t].end())
                    return true;
            return false;
        };
        for (bool changed = true; changed;) {
            changed = false;
            for (std::size_t i = 0; i < group.size(); ++i)
                for (std::size_t k = 0; k < i; ++k)
                    if (group[i] != group[k] && joined(triangles[i], triangles[k])) {
                        group[i] = group[k] = std::min(group[i], group[k]);
                        changed = true;
                    }
        }
        std::map<std::size_t, int> copies;
        for (std::size_t i = 0; i < group.size(); ++i) {
            if (group[i] == group.front()) continue;
            auto [copy, fresh] = copies.try_emplace(group[i], static_cast<int>(result.mesh.vertices.size()));
            if (fresh) {
                result.mesh.vertices.push_back(result.mesh.vertices[static_cast<std::size_t>(v)]);
                result.source.push_back(v);
                copyOf[v] = copy->second;
            }
            for (int& corner : result.mesh.triangles[triangles[i]])
                if (corner == v) corner = copy->second;
        }
    }
    for (const int mouth : mouthVertices)
        if (const auto copy = copyOf.find(mouth); copy != copyOf.end())
            result.mouths.emplace_back(mouth, copy->second);
    return result;
}

Slit ReliefGrid::onSkin(const GridSlit& slit) const {
    Slit result;
    const auto add = [&](double row, double column) {
        Vec2 place;
        (void)vertexAt(row, column, &place);
        result.line.push_back(place);
    };
    if (slit.across) {
        add(slit.line, slit.fromLow ? 0 : columns_ - 1);
        add(slit.line, slit.tip);
        return result;
    }
    const int from = slit.fromLow ? 0 : rows() - 1, way = slit.fromLow ? 1 : -1;
    for (int r = from; r != slit.tip + way; r += way) add(r, slit.line);
    return result;
}

}  // namespace nine
