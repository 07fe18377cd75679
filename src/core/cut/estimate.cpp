#include "cut/estimate.h"

#include <algorithm>
#include <cmath>
#include <limits>

namespace nine {

const std::vector<CutTool>& cutTools() {
    static const std::vector<CutTool> tools{
        {"knife", NINE_WORDS("core", "craft knife"), 5, 2, 0.8},
        {"scissors", NINE_WORDS("core", "scissors"), 8, 4, 3},
        {"plotter", NINE_WORDS("core", "drag-knife cutter"), 60, 0.5, 0.5},
        {"hot", NINE_WORDS("core", "hot tip"), 6, 2, 1},
    };
    return tools;
}

std::optional<CutTool> findTool(std::string_view id) {
    for (const CutTool& tool : cutTools()) {
        if (tool.id == id) return tool;
    }
    return std::nullopt;
}

double narrowestWidth_mm(const Polygon2& polygon) {
    constexpr double facing = -0.5;  // walls that open at more than 60 degrees are a corner, not a width
    const auto n = polygon.size();
    const double turn = polygonArea(polygon) > 0 ? 1 : -1;
    const auto corner = [&](std::size_t i) -> const Vec2& { return polygon[i % n]; };
    const auto inward = [&](std::size_t i) {
        const Vec2 along = corner(i + 1) - corner(i);
        return Vec2(turn * Vec2(-along.y(), along.x()).normalized());
    };
    double narrowest = std::numeric_limits<double>::infinity();
    for (std::size_t i = 0; i < n; ++i) {
        if ((corner(i + 1) - corner(i)).squaredNorm() == 0) continue;
        const Vec2 normal = inward(i);
        // From near both ends of the edge too: a taper is narrowest there.
        for (const double t : {0.02, 0.5, 0.98}) {
            const Vec2 from = (1 - t) * corner(i) + t * corner(i + 1);
            for (std::size_t j = 0; j < n; ++j) {
                if (j == i) continue;
                const Vec2 along = corner(j + 1) - corner(j);
                const double across = cross(normal, along);
                if (std::abs(across) < 1e-12 || inward(j).dot(normal) > facing) continue;
                const Vec2 gap = corner(j) - from;
                const double distance = cross(gap, along) / across, at = cross(gap, normal) / across;
                if (distance > 0 && at >= 0 && at <= 1) narrowest = std::min(narrowest, distance);
            }
        }
    }
    return narrowest;
}

namespace {

/// A point that runs out to nothing is no width: there the widest disc that fits nearly everywhere counts.
double width_mm(const Polygon2& window) {
    constexpr double kWidest_mm = 4, kPoint = 0.6;
    const double walls = narrowestWidth_mm(window);
    if (walls >= kWidest_mm) return walls;
    const double disc = narrowestPart_mm({window}, kWidest_mm);
    return walls < kPoint * disc ? disc : walls;
}

}  // namespace

double CutEstimate::time_s(const CutTool& tool) const {
    return length_mm / tool.speed_mm_s + static_cast<double>(contours) * tool.perContour_s;
}

CutEstimate estimateCut(const std::vector<const Piece*>& pieces) {
    CutEstimate estimate;
    double smallest = std::numeric_limits<double>::infinity();
    const auto contour = [&](const Polygon2& line) {
        estimate.length_mm += perimeter(line);
        ++estimate.contours;
    };
    for (const Piece* piece : pieces) {
        contour(piece->outline);
        std::vector<Box2> boxes;
        for (const PieceWindow& window : piece->windows) boxes.push_back(boxAround({window.outline}));
        for (std::size_t i = 0; i < piece->windows.size(); ++i) {
            const Polygon2& window = piece->windows[i].outline;
            contour(window);
            smallest = std::min({smallest, width_mm(window), borderDistance(window, piece->outline)});
            for (const Polygon2& island : piece->windows[i].islands) {
                contour(island);
                smallest = std::min({smallest, narrowestWidth_mm(island), borderDistance(window, island)});
            }
            for (std::size_t j = i + 1; j < piece->windows.size(); ++j) {
                if (apart(boxes[i], boxes[j]) >= smallest) continue;
                smallest = std::min(smallest, borderDistance(window, piece->windows[j].outline));
            }
        }
    }
    if (std::isfinite(smallest)) estimate.smallestFeature_mm = smallest;
    return estimate;
}

}  // namespace nine
