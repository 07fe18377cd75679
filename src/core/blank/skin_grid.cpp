#include "blank/skin_grid.h"

#include <algorithm>
#include <cmath>

#include "base/parallel.h"
#include "base/units.h"

namespace nine {
namespace {

constexpr int kMeridianSamples = 400;

/// x of `rows` sections evenly spaced along the longest of the back, belly and side outlines.
std::vector<double> rowPositions(const Skin& skin, int rows) {
    std::vector<double> x(kMeridianSamples + 1), arc(kMeridianSamples + 1, 0.0);
    Section before{};
    for (int i = 0; i <= kMeridianSamples; ++i) {
        // A cosine puts samples close together at round ends, where the outline is steep.
        const double t = 0.5 - 0.5 * std::cos(kPi * i / kMeridianSamples);
        const auto k = static_cast<std::size_t>(i);
        x[k] = skin.noseX_mm() + t * skin.length_mm();
        const Section s = skin.loft().sectionAt(x[k]);
        if (i > 0) {
            const double steepest =
                std::max({std::abs(s.top_mm - before.top_mm), std::abs(s.bottom_mm - before.bottom_mm),
                          std::abs(s.halfWidth_mm - before.halfWidth_mm)});
            arc[k] = arc[k - 1] + std::hypot(x[k] - x[k - 1], steepest);
        }
        before = s;
    }
    std::vector<double> positions(static_cast<std::size_t>(rows));
    for (int r = 0; r < rows; ++r) {
        const double wanted = arc.back() * r / (rows - 1);
        const auto above = std::upper_bound(arc.begin() + 1, arc.end() - 1, wanted);
        const auto k = static_cast<std::size_t>(above - arc.begin());
        const double t = (wanted - arc[k - 1]) / (arc[k] - arc[k - 1]);
        positions[static_cast<std::size_t>(r)] = x[k - 1] + t * (x[k] - x[k - 1]);
    }
    positions.front() = skin.noseX_mm();
    positions.back() = skin.tailX_mm();
    return positions;
}

/// Signed area of a triangle on the unit sphere (Van Oosterom and Strackee 1983).
double sphericalArea(const Vec3& a, const Vec3& b, const Vec3& c) {
    return 2 * std::atan2(a.dot(b.cross(c)), 1 + a.dot(b) + b.dot(c) + c.dot(a));
}

}  // namespace

SkinGrid makeSkinGrid(const Skin& skin, int rows, int columns) {
    SkinGrid grid;
    grid.rows = rows;
    grid.columns = columns;
    grid.x_mm = rowPositions(skin, rows);
    grid.points.resize(static_cast<std::size_t>(rows * columns));
    const int quarter = columns / 4;
    forEachInParallel(static_cast<std::size_t>(rows), [&](std::size_t row) {
        const double x = grid.x_mm[row];
        const SectionArc arc = skin.arcAt(x);
        SurfacePoint* const points = grid.points.data() + row * static_cast<std::size_t>(columns);
        for (int k = 0; k < quarter; ++k) {  // the left side, from the datum line up and down
            const double t = static_cast<double>(k) / quarter;
            points[k] = skin.at(arc, x, t * arc.backArc_mm(), Side::Left);
            points[3 * quarter + k] = skin.at(arc, x, -(1 - t) * arc.bellyArc_mm(), Side::Left);
        }
        points[quarter] = skin.at(arc, x, arc.backArc_mm(), Side::Left);
        for (int c = quarter + 1; c < 3 * quarter; ++c) {  // the right side is its mirror image
            points[c] = points[((2 * quarter - c) + columns) % columns];
            points[c].position.y() = -points[c].position.y();
            points[c].normal.y() = -points[c].normal.y();
        }
    });
    grid.curvature_rad.reserve(static_cast<std::size_t>((rows - 1) * columns));
    for (int r = 0; r + 1 < rows; ++r) {
        for (int c = 0; c < columns; ++c) {
            const Vec3 &a = grid.at(r, c).normal, &b = grid.at(r, c + 1).normal;
            const Vec3 &d = grid.at(r + 1, c).normal, &e = grid.at(r + 1, c + 1).normal;
            // The area its normals sweep over the unit sphere is the integral of Gaussian curvature (Gauss
            // 1827).
            grid.curvature_rad.push_back(sphericalArea(a, b, e) + sphericalArea(a, e, d));
        }
    }
    return grid;
}

}  // namespace nine
